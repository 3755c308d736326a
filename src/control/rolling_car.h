// A car that rolls over a road on its bags: a stiff body, four wheels on their tyres, dampers, friction, bump stops and
// anti-roll bars, and under it the air of its kit.
#pragma once

#include "air/stepped_network.h"
#include "control/trip.h"

#include <array>

namespace mavrel::control {

/// One point of a damper's curve, at the wheel.
struct DamperForce {
  double speed = 0;             // m/s, above 0
  double bump = 0, rebound = 0; // N
  friend bool operator==(const DamperForce&, const DamperForce&) = default;
};

struct RollingCorner {
  double forward = 0, left = 0;    // m, of the wheel, from the middle of the front axle
  double lowest = 0, highest = 0;  // m, H between metal and metal
  double stop_meets = 0;           // m, H at which the bump stop begins to push; `lowest` where there is none
  double unsprung_mass = 40;       // kg
  double tyre_rate = 2e5;          // N/m
  double friction = 120;           // N at the wheel
  std::vector<DamperForce> damper; // rising in speed, at least one
};

/// All that a rolling car is made of. The network has one body on four legs, FL FR RL RR, each at its height.
struct RollingCarParts {
  air::Network network;
  std::size_t tank = 0; // of its volumes
  std::array<RollingCorner, 4> corners;
  std::array<double, 2> bar_rate{};         // N·m/rad, front and rear
  std::array<double, 2> spring_share{1, 1}; // spring base over track: below 1 on a solid axle
  double gravity_height = 0.5;              // m above the road, of the body
  double above_roll_axis = 0.4;             // m that it lies over the axis the body leans about
};

/// One thread's own.
class RollingCar {
public:
  /// @param parts  each leg's travel spans its corner's `lowest` to `highest`
  explicit RollingCar(RollingCarParts parts);

  /// A short time passes.
  /// @param dt    s; no more than `longest_step`
  /// @param road  m, under each wheel
  void step(double dt, const std::array<double, 4>& road, const Pace& pace);
  /// Comes to rest standing on a road, with all valves as they are; what it hits on the way there is not counted.
  /// @param road  m, under each wheel
  void settle(const std::array<double, 4>& road);
  /// Mass that is in the car beside what it began with: kg, and kg·m of it behind the front axle and left.
  void carry(double mass, double behind, double left);

  [[nodiscard]] double height(std::size_t corner) const { return height_[corner]; }   // m, H
  [[nodiscard]] double gauge_pressure(std::size_t corner) const;                      // Pa, of the bag
  [[nodiscard]] double tyre_force(std::size_t corner) const { return tyre_[corner]; } // N
  [[nodiscard]] air::SteppedNetwork& air() { return air_; }
  [[nodiscard]] const air::SteppedNetwork& air() const { return air_; }
  /// How often metal met metal: below the bump stop, and at the end of rebound.
  [[nodiscard]] int bottomed() const { return bottomed_; }
  [[nodiscard]] int topped() const { return topped_; }

  /// Beyond this a hard damper on a light wheel would not be followed. s
  static constexpr double longest_step = 0.003125;

private:
  /// What a corner's spring is at one H: even steps between its ends, read between them.
  struct Table {
    double from = 0, per_metre = 0;
    std::size_t width = 0;
    std::vector<double> rows; // volume, other force, motion ratio, then area times motion ratio a column
    std::vector<double> pressures;
  };
  /// A table read at one H.
  struct Row {
    const double* below = nullptr;
    std::size_t width = 0;
    double share = 0;
    [[nodiscard]] double at(std::size_t column) const {
      return below[column] + share * (below[column + width] - below[column]);
    }
  };
  [[nodiscard]] static Table table_of(const air::Leg& leg, double lowest, double highest);
  [[nodiscard]] static Row row_at(const Table& table, double H);
  [[nodiscard]] static double spring_force(const Table& table, const Row& row, double gauge);
  [[nodiscard]] static std::vector<double> first_volumes(const RollingCarParts& parts);
  [[nodiscard]] double suspension(std::size_t corner, double H, double dH, double dt);
  void weigh();
  void hold_at_ends();
  void read_heights();

  RollingCarParts parts_;
  std::array<Table, 4> tables_;
  std::array<std::size_t, 4> bag_{};
  air::SteppedNetwork air_;
  std::array<std::array<double, 3>, 4> lever_{};  // of each corner: heave, pitch, roll
  std::array<double, 3> q_{}, dq_{};              // m and rad; pitch nose up, roll left up
  std::array<double, 4> zu_{}, dzu_{};            // m, of the hubs
  std::array<double, 4> tyre_at_rest_{}, tyre_{}; // N
  std::array<double, 4> height_{}, at_spring_{}, stuck_{}, spring_dH_{};
  std::array<char, 4> at_end_{};
  double own_mass_ = 0, own_forward_ = 0, own_left_ = 0; // kg, kg·m
  double own_pitch_ = 0, own_roll_ = 0, own_both_ = 0;   // kg·m²
  double more_ = 0, more_forward_ = 0, more_left_ = 0;
  std::array<double, 3> weight_{};
  std::array<std::array<double, 3>, 3> inverse_{};
  double mass_ = 0;
  int bottomed_ = 0, topped_ = 0;
};

} // namespace mavrel::control
