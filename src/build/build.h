// The document: one car, what is wanted of it, and the designs tried for it. A plain value; copying is cheap
// (its large parts are shared until changed), undo keeps old values. All numbers SI; its file form is promised in
// docs/formats/build.md.
#pragma once

#include "build/car.h"
#include "build/doubts.h"
#include "build/end_survey.h"
#include "build/variant.h"

namespace mavrel::build {

struct Shop;   // build/fit_up.h
struct Care;   // build/care.h
struct Origin; // build/care.h
struct Faults; // build/faults.h

} // namespace mavrel::build

namespace mavrel {
extern template class Shared<build::Shop>;
extern template class Shared<build::Care>;
extern template class Shared<build::Origin>;
extern template class Shared<build::Faults>;
} // namespace mavrel

namespace mavrel::build {

struct Build {
  Job job;
  Body body;
  PerEnd<EndSurvey> ends;
  List<LoadCase> load_cases;
  List<Variant> variants{Variant{"A", {}, {}, {}, {}, {}}}; // never empty
  std::size_t active_variant = 0;                           // inside `variants`
  Surroundings surroundings;
  Drive drive;
  Shared<Shop> shop;
  Shared<Care> care;
  Shared<Origin> origin;
  Shared<Faults> faults;
  Doubts doubts;
  Extra extra;

  [[nodiscard]] const EndSurvey& end(End e) const { return ends[e]; }
  [[nodiscard]] EndSurvey& end(End e) { return ends[e]; }
  [[nodiscard]] const Variant& variant() const { return variants[active_variant]; }
  [[nodiscard]] Variant& variant() { return variants[active_variant]; }
  friend bool operator==(const Build&, const Build&) = default;
};

template <>
const Table& table_of<Build>();

/// A build with nothing measured: one load case as surveyed, parked, road and ramp still to be wished for.
[[nodiscard]] Build empty_build();

} // namespace mavrel::build
