// The parts of a design's air kit, found on the shelf, and what they weigh where.
#pragma once

#include "build/build.h"
#include "control/rules.h"
#include "shelf/shelf.h"

#include <optional>
#include <span>
#include <vector>

namespace mavrel::assess {

/// What a part of the kit is there for; in the order that air comes by.
enum class KitRole {
  compressor,
  second_compressor,
  check_valve,
  trap,
  dryer,
  tank,
  second_tank,
  drain,
  relief,
  pressure_switch,
  feed_fitting,
  feed_line,
  valves,
  front_fitting,
  front_line,
  rear_fitting,
  rear_line,
  silencer,
  gauge,
  sensor,
  switches,
};
constexpr std::size_t kit_role_count = 21;

struct KitRoleRow {
  KitRole role;
  const char* field; // its key in the file: `tank`
  std::string build::AirKit::*name;
  shelf::PartKind kind; // of the part; of valves, the block's
  const char* label;
};
[[nodiscard]] std::span<const KitRoleRow> kit_roles();
[[nodiscard]] const KitRoleRow& row_of(KitRole role);
/// The kind a part must be of: valves are blocks or hand valves by the kit's school.
[[nodiscard]] shelf::PartKind kind_for(KitRole role, const build::AirKit& kit);

/// Copies of the parts' cards; none where none is chosen or the shelf has no such part.
struct KitParts {
  std::vector<std::optional<shelf::Part>> by_role = std::vector<std::optional<shelf::Part>>(kit_role_count);
  [[nodiscard]] const shelf::Part* operator[](KitRole role) const {
    const auto& part = by_role[static_cast<std::size_t>(role)];
    return part ? &*part : nullptr;
  }
  [[nodiscard]] std::optional<shelf::Part>& at(KitRole role) { return by_role[static_cast<std::size_t>(role)]; }
  friend bool operator==(const KitParts&, const KitParts&) = default;
  [[nodiscard]] auto parts() const { return std::tie(by_role); }
};
[[nodiscard]] KitParts kit_parts(const build::AirKit& kit, const shelf::Shelf& shelf);

/// Pa at which the compressors start and stop: the switch's; a relief valve that opens first is where it stops.
/// @returns none without a switch
[[nodiscard]] std::optional<std::pair<double, double>> cut_pressures(const KitParts& parts);
/// Does shop air alone fill this kit's tank? One that has an inlet for it, all its ways, and no compressor: a
/// switch then stops nothing.
[[nodiscard]] bool by_shop_air_alone(const build::AirKit& kit);
constexpr double shop_pressure = 8e5; // Pa gauge that a shop's air comes at
/// Pa that a kit's tank is full at: where its compressors stop; of one that shop air alone fills what that brings, no
/// more than its relief valve and its tanks bear. @returns none where nobody knows
[[nodiscard]] std::optional<double> full_tank(const build::AirKit& kit, const KitParts& parts);
/// The same, read from the shelf by itself.
[[nodiscard]] std::optional<double> full_tank(const build::AirKit& kit, const shelf::Shelf& shelf);

/// How many of a part a kit takes, of those that are neither line nor fitting.
[[nodiscard]] double pieces_of(const build::AirKit& kit, KitRole role, control::LevelSensors sensors);

/// A part as a box in the car: m from the front axle's middle on the ground, x rearward as load cases have it.
struct KitBox {
  KitRole role = KitRole::tank;
  std::string name;
  double x = 0, y = 0, z = 0;               // m, its middle: behind the front axle, left, above the road
  double along = 0, across = 0, height = 0; // m
  double mass = 0;                          // kg
  build::PartRoom room = build::PartRoom::boot;
  build::PartHeld held = build::PartHeld::on_rubber;
  const char* place = nullptr; // field of its place: `tank_at`
};
/// The parts that lie somewhere; without those whose card gives no size, a usual one stands in.
[[nodiscard]] std::vector<KitBox> kit_boxes(const build::AirKit& kit, const KitParts& parts);

/// What the kit adds to every load case; nothing where the car was weighed with it in.
[[nodiscard]] std::vector<build::LoadMass> kit_masses(const build::AirKit& kit, const KitParts& parts);
[[nodiscard]] std::vector<build::LoadMass> kit_masses(const build::Build& build, const shelf::Shelf& shelf);

} // namespace mavrel::assess
