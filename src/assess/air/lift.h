// From one preset to another, simulated: how long, in which order, what throttles it, what it takes from the tank.
#pragma once

#include "assess/air/car_air.h"

#include <stop_token>

namespace mavrel::assess {

/// The car at one moment of a move. Corners FL FR RL RR.
struct LiftLook {
  double time = 0;                     // s
  std::array<double, 4> height{};      // m, H
  std::array<double, 4> pressure{};    // Pa gauge, in the bags
  std::array<double, 4> wheel_force{}; // N that each corner carries of the body
  double tank_pressure = 0;            // Pa gauge
  double tank_temperature = 0;         // K
  double compressor = 0;               // how many run
};

/// One part of the way and what it costs.
struct Throttle {
  KitRole role = KitRole::valves;
  std::string name;
  double share = 0;                  // of the loss between tank and the slowest corner's bag
  std::string next;                  // the next size on the shelf; empty: there is none
  std::optional<double> seconds_won; // by that; none where there is none, or not reached with it
};

struct MoveAsked {
  std::size_t from = 0, to = 0; // presets of the brief
  build::MoveOrder order = build::MoveOrder::together;
  std::size_t load_case = 0;
  bool engine = false;                 // the compressor may run
  std::optional<double> tank_pressure; // Pa gauge; full when absent
  friend bool operator==(const MoveAsked&, const MoveAsked&) = default;
};

/// The same move begun otherwise: with the tank just above where the compressor would come on, or on a frosty morning.
struct OtherStart {
  Message what;
  std::optional<double> arrived; // s; none: it does not get there
  std::string stuck;             // which circuit stopped short
  double short_by = 0;           // m
};

struct Lift {
  std::vector<LiftLook> looks;    // 40 a second
  std::array<double, 4> target{}; // m, H; of a corner that no air moves where it stands
  std::optional<double> arrived;  // s until every corner stands within 2 mm; none: it does not get there
  std::array<std::optional<double>, 4> arrived_at{}; // s, each corner
  std::string stuck;                                 // which circuit stopped short; empty: none
  double short_by = 0;                               // m that it lacks
  std::optional<double> on_stop;   // s until it stands on the stop that it is short by, where the preset lies past one
  double worst_lean = 0;           // m, the most that left and right of an end stand apart on the way
  double worst_rake = 0;           // m, the most that front and rear lag behind each other, shares of their ways
  std::optional<double> aired_out; // s until the bags are vented too, of a move to where the car lies aired out
  double air_used = 0;             // kg that left the tank
  double tank_after = 0;           // Pa gauge
  double settled = 0;              // m, the most that a corner still sinks or rises while its air cools, in a minute
  double most_load = 0;            // of a corner over what it carries standing even
  std::size_t most_load_corner = 0;
  double compressor_s = 0;         // s that compressors ran, together
  std::vector<Throttle> throttles; // the worst first
  std::vector<OtherStart> others;  // of `answer_lift`
  long steps = 0;                  // of the integrator
};

/// @param stop  looked at now and then; may be null
/// @returns none where it was stopped; else the move, or why it can't be made
/// Source: docs/models.md, "Lift".
[[nodiscard]] Expected<Lift> simulate_move(const AirGiven& given, const MoveAsked& asked, bool with_throttles = true,
                                           const std::stop_token& stop = {});

/// The parts between tank and bags with one of them the next size up on the shelf.
struct NextSize {
  KitRole role = KitRole::valves;
  shelf::Part part;
  friend bool operator==(const NextSize&, const NextSize&) = default;
};

struct LiftGiven {
  AirGiven air;
  MoveAsked asked;
  std::vector<NextSize> next; // what the shelf has
  friend bool operator==(const LiftGiven&, const LiftGiven&) = default;
};
/// Does the other part let air through more freely, or less?
enum class Freely { more, less };
[[nodiscard]] std::vector<NextSize> next_sizes(const AirGiven& given, const shelf::Shelf& shelf,
                                               Freely wanted = Freely::more);
[[nodiscard]] std::optional<Expected<Lift>> answer_lift(const LiftGiven& given, const std::stop_token& stop);

/// How the car stands at a preset: at its heights on its air, or aired out on its stops, wherever these are.
struct Standing {
  std::array<double, 2> heights{}; // m, H, front and rear
  bool aired_out = false;
};
/// @returns none where it is not wished at one end
[[nodiscard]] std::optional<Standing> standing_of(const AirGiven& given, std::size_t preset);
/// H of a preset at both ends. @returns none where it is not wished at one of them
[[nodiscard]] std::optional<std::array<double, 2>> heights_of(const AirGiven& given, std::size_t preset);
/// The first preset of a use that is wished at both ends.
[[nodiscard]] std::optional<std::size_t> preset_of(const AirGiven& given, build::PresetUse use);
/// What is given of each end, of each corner: FL FR RL RR.
[[nodiscard]] std::array<double, 4> corners_of(const std::array<double, 2>& ends);

/// Works the valves of a car in a simulation as a controller, or a person with an eye on each corner, does.
class ValveWorker {
public:
  ValveWorker(air::Simulation& now, const CarAir& car, const std::stop_token& stop)
      : now_(now), car_(car), stop_(stop) {}
  /// Moves every corner to its height.
  /// @param look  called 40 times a second
  /// @returns seconds until the last valve shut and all stand within 2 mm; none where it does not get there
  [[nodiscard]] Expected<std::optional<double>> move_to(const std::array<double, 4>& target, build::MoveOrder order,
                                                        const std::function<void()>& look = {});
  /// Lets every bag's air out, the car lying on its stops.
  /// @returns false where it does not get there
  [[nodiscard]] Expected<bool> air_out(const std::function<void()>& look = {});
  [[nodiscard]] double height(std::size_t corner) const { return now_.legs(0)[corner].height; }
  /// The circuit that stopped short, and by how much, m.
  [[nodiscard]] const std::string& stuck() const { return stuck_; }
  [[nodiscard]] double short_by() const { return short_by_; }

private:
  [[nodiscard]] Expected<bool> phase(const std::vector<std::size_t>& circuits, const std::array<double, 4>& target,
                                     double good_enough, const std::function<void()>& look);
  [[nodiscard]] double off(const CarAir::Circuit& circuit, const std::array<double, 4>& target) const;
  [[nodiscard]] bool all_there(const std::array<double, 4>& target) const;
  [[nodiscard]] std::array<double, 4> within_stops(const std::array<double, 4>& target) const;

  air::Simulation& now_;
  const CarAir& car_;
  std::stop_token stop_;
  std::string stuck_;
  double short_by_ = 0;
};

} // namespace mavrel::assess
