// How the choices of Fit-up are called.
#pragma once

#include "build/choice_name.h"
#include "build/fit_up.h"

namespace mavrel::build {

constexpr auto names_of(WorkPlace) {
  return std::to_array<ChoiceName<WorkPlace>>({
      {WorkPlace::usual, "usual", words("as usual")},
      {WorkPlace::none, "none", words("anywhere")},
      {WorkPlace::lift, "lift", words("lift")},
      {WorkPlace::floor, "floor", words("floor")},
      {WorkPlace::bench, "bench", words("bench")},
      {WorkPlace::weld_bay, "weld bay", words("welder")},
      {WorkPlace::paint, "paint", words("paint")},
  });
}
constexpr auto names_of(Skill) {
  return std::to_array<ChoiceName<Skill>>({
      {Skill::none, "none", words("nothing special")},
      {Skill::welding, "welding", words("welding")},
      {Skill::wiring, "wiring", words("wiring")},
      {Skill::paint, "paint", words("paint")},
  });
}
constexpr auto names_of(Feature) {
  return std::to_array<ChoiceName<Feature>>({
      {Feature::always, "always", words("always")},
      {Feature::strut, "strut", words("a strut")},
      {Feature::apart, "spring apart", words("a spring by itself")},
      {Feature::beside_damper, "beside damper", words("a bag beside the damper")},
      {Feature::welded, "welded", words("welded brackets")},
      {Feature::bolted, "bolted", words("bolted brackets")},
      {Feature::links, "links", words("links that are made")},
      {Feature::notch, "notch", words("a notched rail")},
      {Feature::thin_plate, "thin plate", words("a thin upper plate")},
      {Feature::thick_mount, "thick mount", words("a thicker upper mount")},
      {Feature::axle_swap, "axle swap", words("an axle that was on leaves")},
      {Feature::solid_axle, "solid axle", words("a solid axle")},
      {Feature::drop_spindle, "drop spindle", words("a drop spindle")},
      {Feature::seat_moved, "seat moved", words("a moved spring seat")},
      {Feature::other_damper, "other damper", words("another damper")},
      {Feature::added_volume, "added volume", words("an added volume")},
      {Feature::arch_rolled, "arch rolled", words("a rolled arch")},
      {Feature::other_wheel, "other wheel", words("another wheel")},
      {Feature::sensors, "sensors", words("height sensors")},
      {Feature::steers, "steers", words("steered wheels")},
      {Feature::bag, "bag", words("a bag")},
      {Feature::near_things, "near things", words("things near the wheel")},
      {Feature::hot, "hot", words("something hot near")},
      {Feature::kit, "kit", words("an air kit")},
      {Feature::hand_valves, "hand valves", words("hand valves")},
      {Feature::controller, "controller", words("a controller")},
      {Feature::by_height, "by height", words("heights kept by sensors")},
      {Feature::two_compressors, "two compressors", words("two compressors")},
      {Feature::shown_kit, "shown kit", words("a kit on show")},
      {Feature::kit_first, "kit first", words("the kit going in first")},
      {Feature::unmeasured, "unmeasured", words("a car not measured yet")},
  });
}
constexpr auto names_of(JobState) {
  return std::to_array<ChoiceName<JobState>>({
      {JobState::open, "open", words("open")},
      {JobState::running, "running", words("running")},
      {JobState::done, "done", words("done")},
      {JobState::skipped, "skipped", words("skipped")},
  });
}
constexpr auto names_of(CheckResult) {
  return std::to_array<ChoiceName<CheckResult>>({
      {CheckResult::open, "open", words("open")},
      {CheckResult::passed, "passed", words("passed")},
      {CheckResult::failed, "failed", words("failed")},
  });
}
constexpr auto names_of(Fixing) {
  return std::to_array<ChoiceName<Fixing>>({
      {Fixing::usual, "usual", words("as usual")},
      {Fixing::bolted, "bolted", words("bolted")},
      {Fixing::welded, "welded", words("welded")},
  });
}
constexpr auto names_of(WayKind) {
  return std::to_array<ChoiceName<WayKind>>({
      {WayKind::clip, "clip", words("clip")},
      {WayKind::grommet, "grommet", words("grommet")},
      {WayKind::bulkhead, "bulkhead", words("bulkhead")},
      {WayKind::free, "free", words("free")},
  });
}
constexpr auto names_of(RouteRuns) {
  return std::to_array<ChoiceName<RouteRuns>>({
      {RouteRuns::inside, "inside", words("inside the car")},
      {RouteRuns::under, "under", words("under the car")},
  });
}
constexpr auto names_of(OrderSchool) {
  return std::to_array<ChoiceName<OrderSchool>>({
      {OrderSchool::suspension_first, "suspension first", words("suspension first")},
      {OrderSchool::kit_first, "kit first", words("air kit first")},
  });
}
constexpr auto names_of(KitShown) {
  return std::to_array<ChoiceName<KitShown>>({
      {KitShown::hidden, "hidden", words("hidden")},
      {KitShown::shown, "shown", words("on show")},
  });
}
constexpr auto names_of(HandsetBy) {
  return std::to_array<ChoiceName<HandsetBy>>({
      {HandsetBy::cable, "cable", words("by cable")},
      {HandsetBy::radio, "radio", words("by radio")},
  });
}

} // namespace mavrel::build
