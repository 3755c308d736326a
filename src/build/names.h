// How the document's choices are called, in files and on screen. Those of Care, fault finding and Fit-up stand in
// names_care.h, names_faults.h and names_fit_up.h.
#pragma once

#include "build/car.h"
#include "build/choice_name.h"
#include "build/end_survey.h"
#include "build/names_doubts.h"
#include "build/variant.h"
#include "quantity/message.h"

#include <array>
#include <string_view>

namespace mavrel::build {

constexpr auto names_of(Layout) {
  return std::to_array<ChoiceName<Layout>>({
      {Layout::strut, "strut", words("strut")},
      {Layout::double_wishbone, "double wishbone", words("double wishbone")},
      {Layout::multi_link, "multi-link", words("multi-link")},
      {Layout::trailing_arm, "trailing arm", words("trailing arm")},
      {Layout::semi_trailing_arm, "semi-trailing arm", words("semi-trailing arm")},
      {Layout::twin_trailing_arms, "twin trailing arms", words("twin trailing arms on a beam")},
      {Layout::twin_beam, "twin beam", words("twin beam")},
      {Layout::torsion_beam, "torsion beam", words("torsion beam")},
      {Layout::axle_parallel_links, "axle, parallel links", words("solid axle, parallel links")},
      {Layout::axle_triangulated_links, "axle, triangulated links", words("solid axle, triangulated links")},
      {Layout::axle_was_leaves, "axle, was on leaves", words("solid axle, was on leaves")},
  });
}
constexpr auto names_of(SpringPlace) {
  return std::to_array<ChoiceName<SpringPlace>>({
      {SpringPlace::around_damper, "around damper", words("spring around damper")},
      {SpringPlace::apart, "apart", words("spring apart")},
  });
}
constexpr auto names_of(SpringSeat) {
  return std::to_array<ChoiceName<SpringSeat>>({
      {SpringSeat::upright, "upright", words("seat on the upright")},
      {SpringSeat::arm, "arm", words("seat on the arm")},
      {SpringSeat::axle, "axle", words("seat on the axle")},
  });
}
constexpr auto names_of(StopPlace) {
  return std::to_array<ChoiceName<StopPlace>>({
      {StopPlace::damper, "damper", words("stop on damper rod")},
      {StopPlace::wheel, "wheel", words("stop at the wheel")},
  });
}
constexpr auto names_of(Carrier) {
  return std::to_array<ChoiceName<Carrier>>({
      {Carrier::usual, "usual", words("as usual")},
      {Carrier::body, "body", words("on the body")},
      {Carrier::upright, "upright", words("on the upright")},
      {Carrier::lower_arm, "lower_arm", words("on the lower arm")},
      {Carrier::upper_arm, "upper_arm", words("on the upper arm")},
      {Carrier::arm, "arm", words("on the arm")},
      {Carrier::link1, "link1", words("on link 1")},
      {Carrier::link2, "link2", words("on link 2")},
      {Carrier::link3, "link3", words("on link 3")},
      {Carrier::link4, "link4", words("on link 4")},
      {Carrier::link5, "link5", words("on link 5")},
      {Carrier::axle, "axle", words("on the axle")},
  });
}
constexpr auto names_of(StraightAt) {
  return std::to_array<ChoiceName<StraightAt>>({
      {StraightAt::parked, "parked", words("straight aired out")},
      {StraightAt::road, "road", words("straight at road height")},
  });
}
constexpr auto names_of(Held) {
  return std::to_array<ChoiceName<Held>>({
      {Held::both, "both", words("both ends held")},
      {Held::lower_only, "lower only", words("lower end held, upper loose")},
      {Held::upper_only, "upper only", words("upper end held, lower loose")},
  });
}
constexpr auto names_of(ObstacleKind) {
  return std::to_array<ChoiceName<ObstacleKind>>({
      {ObstacleKind::metal, "metal", words("metal")},
      {ObstacleKind::liner, "liner", words("liner")},
      {ObstacleKind::hose, "hose", words("hose")},
      {ObstacleKind::brake_line, "brake line", words("brake line")},
      {ObstacleKind::exhaust, "exhaust", words("exhaust")},
      {ObstacleKind::shielded_exhaust, "exhaust, shielded", words("exhaust behind a shield")},
  });
}
constexpr auto names_of(ObstacleShape) {
  return std::to_array<ChoiceName<ObstacleShape>>({
      {ObstacleShape::gap, "gap", words("a taped gap")},
      {ObstacleShape::plane, "plane", words("flat face")},
      {ObstacleShape::box, "box", words("box")},
      {ObstacleShape::rod, "rod", words("rod")},
      {ObstacleShape::edge, "edge", words("edge")},
  });
}
constexpr auto names_of(GapFrom) {
  return std::to_array<ChoiceName<GapFrom>>({
      {GapFrom::tyre, "tyre", words("to the tyre")},
      {GapFrom::bag, "bag", words("to the bag")},
      {GapFrom::tyre_to_bag, "tyre to bag", words("from the tyre to the bag")},
  });
}
constexpr auto names_of(GapWay) {
  return std::to_array<ChoiceName<GapWay>>({
      {GapWay::above, "above", words("above it")},
      {GapWay::inboard, "inboard", words("inboard of it")},
      {GapWay::outboard, "outboard", words("outboard of it")},
      {GapWay::ahead, "ahead", words("ahead of it")},
      {GapWay::behind, "behind", words("behind it")},
  });
}
constexpr auto names_of(GapAt) {
  return std::to_array<ChoiceName<GapAt>>({
      {GapAt::straight, "straight", words("wheels straight")},
      {GapAt::lock, "lock", words("at full lock")},
  });
}
constexpr auto names_of(BoltedTo) {
  return std::to_array<ChoiceName<BoltedTo>>({
      {BoltedTo::nothing, "nothing", words("nothing near it")},
      {BoltedTo::damper, "damper", words("the damper")},
      {BoltedTo::arms, "arms", words("arms or links")},
      {BoltedTo::axle, "axle", words("the axle")},
  });
}
constexpr auto names_of(OnCar) {
  return std::to_array<ChoiceName<OnCar>>({
      {OnCar::as_surveyed, "as surveyed", words("as surveyed")},
      {OnCar::since, "since", words("came since")},
  });
}
constexpr auto names_of(Circuits) {
  return std::to_array<ChoiceName<Circuits>>({
      {Circuits::per_axle, "per axle", words("two, a tee an axle")},
      {Circuits::per_corner, "per corner", words("four, one a corner")},
  });
}
constexpr auto names_of(ValveSchool) {
  return std::to_array<ChoiceName<ValveSchool>>({
      {ValveSchool::block, "block", words("valve block")},
      {ValveSchool::hand_valves, "hand valves", words("hand valves and gauges")},
  });
}
constexpr auto names_of(MoveOrder) {
  return std::to_array<ChoiceName<MoveOrder>>({
      {MoveOrder::together, "together", words("all together")},
      {MoveOrder::front_first, "front first", words("front first")},
      {MoveOrder::rear_first, "rear first", words("rear first")},
      {MoveOrder::one_by_one, "one by one", words("one corner at a time")},
  });
}
constexpr auto names_of(Feeds) {
  return std::to_array<ChoiceName<Feeds>>({
      {Feeds::one, "one", words("one feed for both")},
      {Feeds::each, "each", words("a feed each")},
  });
}
constexpr auto names_of(Shielded) {
  return std::to_array<ChoiceName<Shielded>>({
      {Shielded::no, "no", words("bare")},
      {Shielded::yes, "yes", words("behind a shield")},
  });
}
constexpr auto names_of(Fitted) {
  return std::to_array<ChoiceName<Fitted>>({
      {Fitted::no, "no", words("not fitted")},
      {Fitted::yes, "yes", words("fitted")},
  });
}
constexpr auto names_of(YesNo) {
  return std::to_array<ChoiceName<YesNo>>({
      {YesNo::no, "no", words("no")},
      {YesNo::yes, "yes", words("yes")},
  });
}
constexpr auto names_of(Weighed) {
  return std::to_array<ChoiceName<Weighed>>({
      {Weighed::without, "without", words("weighed without it")},
      {Weighed::with, "with", words("weighed with it in")},
  });
}
constexpr auto names_of(PartRoom) {
  return std::to_array<ChoiceName<PartRoom>>({
      {PartRoom::under_floor, "under floor", words("under the floor")},
      {PartRoom::boot, "boot", words("in the boot")},
      {PartRoom::spare_well, "spare well", words("in the spare wheel's well")},
      {PartRoom::cabin, "cabin", words("in the cabin")},
      {PartRoom::engine_bay, "engine bay", words("in the engine bay")},
  });
}
constexpr auto names_of(PartHeld) {
  return std::to_array<ChoiceName<PartHeld>>({
      {PartHeld::hard, "hard", words("bolted hard")},
      {PartHeld::on_rubber, "on rubber", words("on rubber")},
  });
}
constexpr auto names_of(PartLies) {
  return std::to_array<ChoiceName<PartLies>>({
      {PartLies::along, "along", words("along the car")},
      {PartLies::across, "across", words("across the car")},
  });
}
constexpr auto names_of(BodyStyle) {
  return std::to_array<ChoiceName<BodyStyle>>({
      {BodyStyle::estate, "estate", words("estate")},
      {BodyStyle::hatchback, "hatchback", words("hatchback")},
      {BodyStyle::saloon, "saloon", words("saloon")},
      {BodyStyle::coupe, "coupe", words("coupe")},
      {BodyStyle::van, "van", words("van")},
      {BodyStyle::pickup, "pickup", words("pickup")},
  });
}
constexpr auto names_of(PresetUse) {
  return std::to_array<ChoiceName<PresetUse>>({
      {PresetUse::parked, "parked", words("parked")},
      {PresetUse::road, "road", words("road")},
      {PresetUse::ramp, "ramp", words("ramp")},
      {PresetUse::other, "other", words("other")},
  });
}
constexpr auto names_of(ParkedHow) {
  return std::to_array<ChoiceName<ParkedHow>>({
      {ParkedHow::aired_out, "aired out", words("aired out")},
      {ParkedHow::held, "held", words("on its air")},
  });
}
constexpr auto names_of(LineState) {
  return std::to_array<ChoiceName<LineState>>({
      {LineState::open, "open", words("open")},
      {LineState::shut, "shut", words("shut")},
  });
}
constexpr auto names_of(Sides) {
  return std::to_array<ChoiceName<Sides>>({
      {Sides::separate, "separate", words("separate")},
      {Sides::joined, "joined", words("joined by a tee")},
  });
}
constexpr auto names_of(control::LevelMethod) {
  return std::to_array<ChoiceName<control::LevelMethod>>({
      {control::LevelMethod::bursts, "bursts", words("bursts, by height")},
      {control::LevelMethod::until_reached, "until reached", words("open until the height is there")},
      {control::LevelMethod::pressure, "pressure", words("bursts, by pressure")},
      {control::LevelMethod::by_hand, "by hand", words("hand valves and gauges")},
  });
}
constexpr auto names_of(control::LevelSensors) {
  return std::to_array<ChoiceName<control::LevelSensors>>({
      {control::LevelSensors::two, "two", words("two, one an axle")},
      {control::LevelSensors::three_one_front, "three, one front", words("three, one at the front")},
      {control::LevelSensors::three_one_rear, "three, one rear", words("three, one at the rear")},
      {control::LevelSensors::four, "four", words("four, one a corner")},
  });
}
constexpr auto names_of(control::LevelBy) {
  return std::to_array<ChoiceName<control::LevelBy>>({
      {control::LevelBy::corner, "corner", words("each corner by itself")},
      {control::LevelBy::axle, "axle", words("both sides alike")},
  });
}
constexpr auto names_of(control::LevelOrder) {
  return std::to_array<ChoiceName<control::LevelOrder>>({
      {control::LevelOrder::together, "together", words("ends together")},
      {control::LevelOrder::front_first, "front first", words("front before rear")},
  });
}
constexpr auto names_of(control::HoldStill) {
  return std::to_array<ChoiceName<control::HoldStill>>({
      {control::HoldStill::no, "no", words("goes on")},
      {control::HoldStill::yes, "yes", words("holds still")},
  });
}
constexpr auto names_of(control::Crossing) {
  return std::to_array<ChoiceName<control::Crossing>>({
      {control::Crossing::above, "above", words("lever's joint above")},
      {control::Crossing::below, "below", words("lever's joint below")},
  });
}
constexpr auto names_of(Mirrored) {
  return std::to_array<ChoiceName<Mirrored>>({
      {Mirrored::no, "no", words("the same on both sides")},
      {Mirrored::yes, "yes", words("mirrored on the right")},
  });
}
constexpr auto names_of(control::RoadClass) {
  return std::to_array<ChoiceName<control::RoadClass>>({
      {control::RoadClass::a, "A", words("A, new motorway")},
      {control::RoadClass::b, "B", words("B, good road")},
      {control::RoadClass::c, "C", words("C, worn road")},
      {control::RoadClass::d, "D", words("D, bad road")},
      {control::RoadClass::e, "E", words("E, field track")},
      {control::RoadClass::f, "F", words("F, rutted track")},
      {control::RoadClass::g, "G", words("G, hardly a road")},
      {control::RoadClass::h, "H", words("H, the worst there is")},
  });
}
constexpr auto names_of(control::SpeedProfile) {
  return std::to_array<ChoiceName<control::SpeedProfile>>({
      {control::SpeedProfile::steady, "steady", words("steady")},
      {control::SpeedProfile::stop_and_go, "stop and go", words("stop and go")},
      {control::SpeedProfile::town, "town", words("town")},
      {control::SpeedProfile::country, "country", words("country road")},
      {control::SpeedProfile::motorway, "motorway", words("motorway")},
  });
}
constexpr auto names_of(DriveEventKind) {
  return std::to_array<ChoiceName<DriveEventKind>>({
      {DriveEventKind::load, "load", words("load or people")},
      {DriveEventKind::air_temperature, "air temperature", words("air temperature")},
      {DriveEventKind::altitude, "altitude", words("altitude")},
  });
}
constexpr auto names_of(HeightWish::As) {
  return std::to_array<ChoiceName<HeightWish::As>>({
      {HeightWish::As::height, "height", words("height")},
      {HeightWish::As::gap, "gap", words("gap")},
      {HeightWish::As::drop, "drop", words("drop")},
  });
}

template <class Enum>
[[nodiscard]] constexpr const char* name_of(Enum value) {
  for (const auto& row : names_of(Enum{}))
    if (row.value == value) return row.name;
  return "";
}

[[nodiscard]] constexpr const char* name_of(End e) {
  return e == End::front ? words("Front") : words("Rear");
}
[[nodiscard]] constexpr const char* name_of(Side s) {
  return s == Side::left ? words("left") : words("right");
}
/// Key of an end in files and field paths: `front`, `rear`.
[[nodiscard]] constexpr const char* key_of(End e) {
  return e == End::front ? "front" : "rear";
}
[[nodiscard]] constexpr const char* key_of(Side s) {
  return s == Side::left ? "left" : "right";
}

} // namespace mavrel::build
