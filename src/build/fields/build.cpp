// A design, and the whole.
#include "build/fields/maker.h"

#include "build/build.h"
#include "build/care.h"
#include "build/faults.h"
#include "build/fit_up.h"
#include "build/proving.h"

namespace mavrel::build {

static void fields(TableMaker& v, Variant& variant) {
  v.text("name", variant.name, words("variant name"), 40);
  v.object("front", variant.fit[0], words("front"));
  v.object("rear", variant.fit[1], words("rear"));
  v.object("brief", variant.brief, "");
  v.object("air", variant.air, words("air"));
  v.object("leveling", variant.leveling, words("leveling"));
  v.object("fit_up", variant.fit_up, "");
  v.object("proving", variant.proving, "");
  v.extra(variant.extra);
}

static void fields(TableMaker& v, Build& build) {
  v.object("job", build.job, "");
  v.object("body", build.body, "");
  v.object("front", build.ends.shared(0), words("front"));
  v.object("rear", build.ends.shared(1), words("rear"));
  v.list("load_cases", build.load_cases, words("load case"), 0, 40);
  v.list("variants", build.variants, words("variant"), 1, 26);
  v.index("active_variant", build.active_variant, build.variants);
  v.object("surroundings", build.surroundings, "");
  v.object("drive", build.drive, "");
  v.object("shop", build.shop, "");
  v.object("care", build.care, "");
  v.object("origin", build.origin, "");
  v.object("faults", build.faults, "");
  v.object("doubts", build.doubts, words("doubt"));
  v.extra(build.extra);
}

template <>
const Table& table_of<Variant>() {
  return made_table<Variant>();
}
template <>
const Table& table_of<Build>() {
  return made_table<Build>();
}

} // namespace mavrel::build
