// The figures of one check as they are put together.
#pragma once

#include "assess/fit_up/checks.h"
#include "build/names.h"

#include <numbers>

namespace mavrel::assess {

/// Refers to what is given, which must outlive it.
class Asking {
public:
  Asking(const FitUpGiven& given, std::optional<End> end) : given_(given), end_(end) {}
  [[nodiscard]] const FitUpGiven& given() const { return given_; }
  [[nodiscard]] std::optional<End> end() const { return end_; }
  [[nodiscard]] std::vector<AskedFigure>& figures() { return figures_; }
  /// Place of the figure that was added last.
  [[nodiscard]] std::size_t last() const { return figures_.size() - 1; }

  /// @returns the figure; valid until the next is added
  AskedFigure& add(std::string key, Message name, Kind kind);
  /// Something that is so or is not.
  void yes(const char* key, const char* name);
  /// One figure a side, within so much of the design where there is one, and of each other.
  void both_sides(const std::string& key, const char* name, Kind kind, std::optional<double> designed, double within);

private:
  const FitUpGiven& given_;
  std::optional<End> end_;
  std::vector<AskedFigure> figures_;
};

/// How near to the design the car must stand, m.
constexpr double height_within = 0.005;
constexpr double camber_within = 0.5 * std::numbers::pi / 180;

/// m that one corner is raised by alone, and lowered, to be timed.
constexpr double time_step = 0.020;

/// What a gauge at a corner shows at road height, by the side it was reached from: friction holds what moves.
struct SaidPressure {
  double pressure = 0;   // Pa
  double a_kilogram = 0; // Pa that a kilogram more adds
};
/// @returns it; none where height, bag or load are not known
[[nodiscard]] std::optional<SaidPressure> pressure_at(const FittedEnd& end, bool right, bool from_below);

/// Takes in what a simulation says, and what of it is right.
void judge_predicted(AskedFigure& figure, double predicted);

/// The figures of a check of Proving; none are added for a key that is none of its.
void ask_proof(Asking& to, std::string_view key);

} // namespace mavrel::assess
