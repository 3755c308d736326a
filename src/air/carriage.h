// What bags carry: bodies that stand on them, and the heights at which all forces balance. A body is stiff; the car is
// one body on four legs, a bag on a bench is one on a single leg.
#pragma once

#include "air/bag.h"
#include "curve/pchip.h"

#include <array>
#include <optional>
#include <vector>

namespace mavrel::air {

/// One bag under a body, with what lies between the two. A height H is the body's over the wheel; with no travel given
/// it is the bag's own.
struct Leg {
  std::size_t volume = 0; // index of the bag's air in the network
  BagCurve curve;
  /// Over H, in three columns: the bag's height (m), what else holds the body up there (N at the wheel), and the motion
  /// ratio. None: H is the bag's.
  std::optional<curve::PchipTable> travel;
  double lowest = 0, highest = 0; // m, H of its stops; both inside the travel and the bag's card
  double height = 0;              // m, H to begin with
  double forward = 0, left = 0;   // m, where it stands under the body
  double added_volume = 0;        // m³ that is one with the bag
};

/// A stiff body on 1, 2 or 4 legs: it heaves; on two it also rolls; on four it heaves, pitches and rolls.
struct Body {
  std::vector<Leg> legs;
  std::vector<double> loads; // N, what each leg carries when the bags are even: their sum and moments are the body's
};

/// A leg at one height with its air.
struct LegState {
  double height = 0;      // m, H
  double bag_height = 0;  // m
  double volume = 0;      // m³, with what is one with the bag
  double wheel_force = 0; // N, that holds the body up there, stops and other springs with it
  double stop_force = 0;  // N of it that a stop gives; below 0 it holds the body down
};

/// Finds the balance again and again as air moves. One thread's own.
class Carriage {
public:
  /// @param body     its legs and loads, as many
  /// @param ambient  Pa
  Carriage(Body body, double ambient);

  [[nodiscard]] const Body& body() const { return body_; }
  [[nodiscard]] const std::vector<LegState>& legs() const { return states_; }
  /// Heights at which the forces balance. A bag's air keeps y = V·p_abs^(1/γ) while nothing flows and no heat passes,
  /// whatever the body does; so y is what the balance is found for.
  /// @param y  of every volume of the network, SI
  /// @returns false where no balance was found
  [[nodiscard]] bool settle(const double* y);
  /// How far forces and moments are from balance, as a share of the load.
  [[nodiscard]] double imbalance() const { return imbalance_; }

private:
  struct Push {
    double force = 0, slope = 0; // N and N/m at the wheel
  };
  Push push(std::size_t leg, double H, double y, LegState* out) const;
  [[nodiscard]] double height(std::size_t leg, const std::array<double, 3>& q) const;

  Body body_;
  double ambient_;
  std::size_t freedoms_ = 1;
  std::vector<std::array<double, 3>> levers_; // what H of a leg grows by a unit of each freedom
  std::array<double, 3> load_{};              // N and N·m, along each freedom
  double weight_ = 0;                         // N
  std::array<double, 3> q_{};                 // where it stands: m at its middle, and m a lever of 1
  std::vector<LegState> states_;
  double imbalance_ = 0;
};

} // namespace mavrel::air
