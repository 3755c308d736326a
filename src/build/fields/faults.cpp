// Fault finding.
#include "build/fields/maker.h"

#include "build/faults.h"
#include "build/names_faults.h"

namespace mavrel::build {

static void fields(TableMaker& v, FaultNote& f) {
  v.text("sign", f.sign, words("what was found"), 40);
  v.text("where", f.where, words("where"), 40);
  v.choice("answer", f.answer, words("found so"));
  v.number("time_s", f.time, {Kind::time, -1e6, 1e6, words("time read")});
  v.number("share", f.share, {Kind::share, -10, 10, words("share read")});
  v.number("length_m", f.length, {Kind::length, -10, 10, words("length read")});
  v.number("pressure_pa", f.pressure, {Kind::pressure, -1e8, 1e8, words("pressure read")});
  v.number("voltage_v", f.voltage, {Kind::voltage, -1e3, 1e3, words("volts read")});
  v.number("mass_kg", f.mass, {Kind::mass, -1e5, 1e5, words("weight read")});
  v.number("temperature_k", f.temperature, {Kind::temperature, 150, 500, words("temperature read")});
  v.number("sd_si", f.sd, {Kind::plain, 0, 1e8, words("its doubt")});
  v.choice("second_hand", f.second_hand, words("heard, not seen"));
  v.text("from", f.from, words("found in"), 60);
  v.extra(f.extra);
}

static void fields(TableMaker& v, Faults& f) {
  v.list("findings", f.findings, words("finding"), 0, most_findings);
  v.choice("nothing_else", f.nothing_else, words("nothing else was noticed"));
  v.extra(f.extra);
}

template <>
const Table& table_of<FaultNote>() {
  return made_table<FaultNote>();
}
template <>
const Table& table_of<Faults>() {
  return made_table<Faults>();
}

} // namespace mavrel::build
