// The kit's parts as boxes in the car: what they weigh, what they leave of the boot, what is near what is hot.
#pragma once

#include "assess/air/air_given.h"

namespace mavrel::assess {

/// What of the car the boxes lie in.
struct RoomGiven {
  AirGiven air;
  build::Boot boot;
  build::Well well;
  List<build::HotPart> hot;
  build::Rooms rooms; // what hot things ask for
  [[nodiscard]] auto parts() const { return std::tie(air, boot, well, hot, rooms); }
  friend bool operator==(const RoomGiven&, const RoomGiven&) = default;
};
[[nodiscard]] RoomGiven room_given(const build::Build& build, AirGiven air);

struct HotGap {
  std::size_t box = 0, hot = 0; // of the boxes, and of the hot parts
  double gap = 0;               // m between their surfaces; below 0: they overlap
  double wanted = 0;            // m
};
struct KitRoom {
  std::vector<KitBox> boxes;
  double mass = 0;                                       // kg, of boxes and small parts
  double front_share = 0;                                // of it that the front axle carries
  double volume = 0;                                     // m³ that the boxes take
  std::optional<double> boot_before, boot_left;          // m³
  std::optional<double> well_before, well_left;          // m³
  std::vector<std::size_t> out_of_place;                 // boxes that stick out of where they are said to lie
  std::vector<std::pair<std::size_t, std::size_t>> meet; // boxes that overlap
  std::vector<HotGap> hot;                               // the nearest hot part of each box
  std::optional<double> lowest_water; // m above the road, of the lowest place that water may stand in
  bool drains_lowest = true;          // the tank with the drain is that place
};
/// Source: docs/models.md, "Kit in the car".
[[nodiscard]] KitRoom kit_room(const RoomGiven& given);

} // namespace mavrel::assess
