// A car standing still whose valves somebody works by hand, with an eye on the heights.
#pragma once

#include "assess/leveling/leveling_given.h"

namespace mavrel::assess {

/// One thread's own.
class ByHand {
public:
  /// The car settles first.
  /// @param longest  s that anybody holds a valve open
  explicit ByHand(const LearnedCar& car, double longest = 120);

  void wait(double seconds);
  /// m, H of a circuit, the mean of its corners.
  [[nodiscard]] double height(std::size_t circuit) const;
  [[nodiscard]] const control::RollingCar& car() const { return car_; }

  struct Move {
    std::size_t circuit = 0;
    double H = 0; // m
  };
  /// Opens valves and shuts each as its circuit gets there. @returns s until the last did; none: one never does
  [[nodiscard]] std::optional<double> move(const std::vector<Move>& moves);
  [[nodiscard]] double longest() const { return longest_; }

  static constexpr double settles = 12; // s until a car that was moved stands still

private:
  std::vector<control::ValvePair> circuits_;
  control::RollingCar car_;
  double longest_;
};

} // namespace mavrel::assess
