// The air kit of one design.
#pragma once

#include "build/table.h"

namespace mavrel::build {

constexpr std::size_t most_part_name = 80;

/// Who has air of its own: each axle through tees, or each corner.
enum class Circuits { per_axle, per_corner };
/// How the valves are worked.
enum class ValveSchool { block, hand_valves };
/// In which order corners go to another height.
enum class MoveOrder { together, front_first, rear_first, one_by_one };
/// Whether each compressor has a feed with a fuse of its own, or both share one.
enum class Feeds { one, each };
/// Whether the car was on the scales with the kit in it.
enum class Weighed { without, with };
/// Where a part lies, for its noise and its heat, and how it is held.
enum class PartRoom { under_floor, boot, spare_well, cabin, engine_bay };
enum class PartHeld { hard, on_rubber };
enum class PartLies { along, across };

/// Where a part of the air kit lies: the middle of its box.
struct PartPlace {
  double x = 0, y = 0, z = 0.4; // m behind the front axle, left of the middle, above the road
  PartRoom room = PartRoom::boot;
  PartHeld held = PartHeld::on_rubber;
  PartLies lies = PartLies::across;
  Extra extra;
  friend bool operator==(const PartPlace&, const PartPlace&) = default;
};

/// The air kit of one design, from intake to bag. Parts are called by the names of their cards; empty: there is none.
struct AirKit {
  Circuits circuits = Circuits::per_corner;
  ValveSchool school = ValveSchool::block;
  MoveOrder order = MoveOrder::together;
  std::string compressor, second_compressor;
  std::string check_valve, trap, dryer; // between compressor and tank
  std::string tank, second_tank;
  std::string drain, relief, pressure_switch;
  std::string valves;                                    // the block, or one kind of hand valve for every circuit
  std::string feed_line, front_line, rear_line;          // tank to valves, valves to front and rear bags
  std::string feed_fitting, front_fitting, rear_fitting; // at both ends of those lines
  double elbows = 2;                                     // fittings more in every line to a bag
  std::string silencer, gauge, sensor, switches;
  Fitted shop_inlet = Fitted::yes, tyre_outlet = Fitted::no;
  double stagger = 4; // s between the starts of two compressors
  Feeds feeds = Feeds::each;
  double volts = 13.2;                    // V at the battery while the compressor runs
  double drop_allowed = 0.03;             // share of it, out and back
  double battery = 216000;                // A·s it holds when new, over twenty hours
  double battery_age = 3 * 365 * 86400.0; // s
  std::optional<double> battery_cut;      // V under load below which the kit is switched off; none: nothing does
  double line_slack = 0.15;               // share more than the way from place to place
  Weighed weighed = Weighed::without;
  PartPlace compressor_at, tank_at, second_tank_at, valves_at, battery_at;
  /// Conductance of the way to each corner's bag over what its parts come to, learned by timing it; FL FR RL RR.
  std::array<std::optional<double>, 4> learned_flow{};
  Extra extra;
  friend bool operator==(const AirKit&, const AirKit&) = default;
};

template <>
const Table& table_of<PartPlace>();
template <>
const Table& table_of<AirKit>();

} // namespace mavrel::build
