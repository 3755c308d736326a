// How sure the tools are.
#include "build/fields/maker.h"

#include "build/doubts.h"
#include "build/names_doubts.h"

namespace mavrel::build {

static void fields(TableMaker& v, TakenWith& t) {
  v.text("what", t.what, words("reading"), 120);
  v.choice("tool", t.tool, words("taken with"));
  v.extra(t.extra);
}

static void fields(TableMaker& v, Doubts& d) {
  v.number("tape_m", d.tape, {Kind::length, 0, 0.05, words("tape")});
  v.number("calliper_m", d.calliper, {Kind::length, 0, 0.05, words("calliper")});
  v.number("point_m", d.point, {Kind::length, 0, 0.05, words("hard point")});
  v.number("scale_kg", d.scale, {Kind::mass, 0, 200, words("scale")});
  v.number("scale_shared", d.scale_shared, {Kind::share, 0, 0.5, words("scale throughout")});
  v.number("level_m", d.level, {Kind::length, 0, 0.05, words("floor")});
  v.number("level_shared_m", d.level_shared, {Kind::length, 0, 0.05, words("level throughout")});
  v.number("angle_rad", d.angle, {Kind::angle, 0, 0.2, words("angle gauge")});
  v.number("ratio", d.ratio, {Kind::share, 0, 0.5, words("motion ratio")});
  v.number("gauge_pa", d.gauge, {Kind::pressure, 0, 3e5, words("pressure gauge")});
  v.number("card", d.card, {Kind::share, 0, 0.5, words("bag card")});
  v.number("part", d.part, {Kind::share, 0, 0.5, words("air part's card")});
  v.number("estimate", d.estimate, {Kind::share, 0, 0.9, words("estimate")});
  v.number("other_car", d.other_car, {Kind::plain, 1, 20, words("another car, times as much")});
  v.list("taken_with", d.taken_with, words("reading taken otherwise"), 0, most_taken_with);
  v.extra(d.extra);
}

template <>
const Table& table_of<TakenWith>() {
  return made_table<TakenWith>();
}
template <>
const Table& table_of<Doubts>() {
  return made_table<Doubts>();
}

} // namespace mavrel::build
