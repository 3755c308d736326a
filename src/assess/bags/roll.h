// Leaning in a bend: left and right bags with their own air, or joined by a tee, and what a bar would have to be.
#pragma once

#include "assess/end/end_answer.h"

namespace mavrel::assess {

/// What resists lean at one axle, N·m/rad.
struct AxleRoll {
  double air = 0;      // trapped air; joined sides carry none
  double geometry = 0; // the bags' area changing with height, the linkage's leverage, other springs
  double bar = 0;
  double tyres = 0; // of both, under all that
  /// What springs and bar come to, and what is left of it on tyres that give too.
  [[nodiscard]] double suspension() const { return air + geometry + bar; }
  [[nodiscard]] double sum() const {
    const double held = suspension();
    return held > 0 && tyres > 0 ? held * tyres / (held + tyres) : held;
  }
};

/// The whole car with its sides one way.
struct Lean {
  std::array<AxleRoll, 2> axles; // front, rear
  std::optional<double> angle;   // rad at 0.3 g; none where nothing holds it up but its stops
  double bar_wanted = 0;         // N·m/rad that both bars together must have for the lean wanted; 0: none needed;
                                 // infinite: no bar does it, the tyres alone give more
};

/// The car braking: each end gives by its rate in heave, and what its joints take of it.
struct Dive {
  double sinks = 0, rises = 0; // m, the front and the rear
  /// The share of the shifted load that the joints carry past the springs, of front and rear; below 0 they add to it.
  /// None where no joints were measured: all of it is then the springs'.
  std::array<std::optional<double>, 2> by_joints;
};

struct Roll {
  Lean separate, joined, fitted;              // both ends separate, both joined, and as the design has them
  double tipping = 0;                         // N·m at 0.3 g, about the roll axis
  double gravity = 0;                         // N·m/rad that the leaning weight takes away
  double gravity_height = 0, roll_height = 0; // m, of the body and of the axis below it
  bool estimated = false;                     // one of the two heights is an estimate
  bool base_estimated = false;                // the spring base of a solid axle is
  /// rad, left lower is positive: how it leans standing, because sides joined by a tee can't carry different loads;
  /// none where not both ends are joined (one that is not holds it level), or nothing holds it but its stops.
  std::optional<double> standing;
  /// What braking as hard as the brief says does; none without a wheelbase, or where nothing holds an end but its
  /// stops.
  std::optional<Dive> dive;
  /// m, H of the left and the right of each end in the standing lean.
  [[nodiscard]] std::array<double, 2> sides_at(double H, double track) const {
    const double lower = standing.value_or(0) * track / 2;
    return {H - lower, H + lower};
  }
};

constexpr double bend = 0.3;          // g
constexpr double bend_exponent = 1.2; // of air in a bend of seconds, between kept temperature and no time for heat

/// What of the car only a bend asks for.
struct CarInBend {
  std::optional<double> gravity_height, overall_height;     // m
  std::array<std::optional<double>, 2> bar_rate;            // N·m/rad, of each end
  std::array<std::optional<double>, 2> roll_centre;         // m
  std::vector<std::vector<std::pair<double, double>>> high; // [load case]: kg, and m above the road where it was said
  double lean_wanted = 0;                                   // rad
  double braking = 0.5;                                     // of g; a lean does not hang on it, nor what was signed
  std::optional<double> wheelbase;                          // m, the same
  [[nodiscard]] auto parts() const {
    return std::tie(gravity_height, overall_height, bar_rate, roll_centre, high, lean_wanted);
  }
  friend bool operator==(const CarInBend&, const CarInBend&) = default;
};
[[nodiscard]] CarInBend car_in_bend(const build::Build& build);

struct RollGiven {
  AnsweredEnds ends;
  CarInBend car;
  std::array<double, 2> H{}; // m, front and rear
  std::size_t load_case = 0;
  [[nodiscard]] auto parts() const { return std::tie(ends, car, H, load_case); }
  friend bool operator==(const RollGiven&, const RollGiven&) = default;
};

/// Source: docs/models.md, "Lean".
[[nodiscard]] Expected<Roll> roll(const RollGiven& given);

struct RollQuestion {
  using Given = RollGiven;
  using Answer = Expected<Roll>;
  static constexpr int formula = 3; // tyres give too, and joints hold against dive
  static Answer answer(const Given& given) { return roll(given); }
};

/// Height of the roll centre above the road at the surveyed height when nobody gave it, m.
[[nodiscard]] double estimated_roll_centre(build::Layout layout);
/// How far a roll centre moves for each metre the body does: a strut's falls twice as fast as the car.
[[nodiscard]] double roll_centre_follows(build::Layout layout);

} // namespace mavrel::assess
