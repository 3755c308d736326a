// What of Clearance takes longer than a frame, asked beside the interface.
#pragma once

#include "app/desk/runner.h"
#include "assess/ground/ground.h"
#include "assess/touch/fits.h"
#include "assess/touch/map.h"
#include "assess/why/why.h"

namespace mavrel::app {

/// A flag that goes up when the runner is asked to stop.
class StopFlag {
public:
  explicit StopFlag(const RunControl& control) : callback_(control.stop, [this] { flag_ = true; }) {}
  [[nodiscard]] const std::atomic<bool>* flag() const { return &flag_; }

private:
  std::atomic<bool> flag_ = false;
  std::stop_callback<std::function<void()>> callback_;
};

/// A question of the core that can be stopped, asked beside the interface.
template <class GivenType, class AnswerType,
          std::optional<AnswerType> (*answered)(const GivenType&, const std::atomic<bool>*)>
struct Stoppable {
  using Given = GivenType;
  using Answer = std::optional<AnswerType>;
  static Answer answer(const Given& given, const RunControl& control) {
    const StopFlag stop(control);
    return answered(given, stop.flag());
  }
};
using MapQuestion = Stoppable<assess::MapGiven, assess::ClearanceMap, assess::clearance_map>;
using FitsQuestion = Stoppable<assess::FitsGiven, assess::WhatFits, assess::what_fits>;
using WhyQuestion = Stoppable<assess::WhyGiven, assess::Why, assess::why_not_further>;

/// Every thing on the ground over all pairs of heights, and what would get each over from a pair of heights.
struct GroundsGiven {
  assess::GroundGiven ground;
  std::array<double, 2> low{}, high{}; // m, H, front and rear
  std::size_t steps = 14;
  friend bool operator==(const GroundsGiven&, const GroundsGiven&) = default;
};
struct GroundsAnswer {
  std::vector<std::optional<assess::GroundPlane>> planes; // one a ground
  std::vector<std::vector<assess::LeastHeights>> least;   // one a ground and preset
};
struct GroundsQuestion {
  using Given = GroundsGiven;
  using Answer = GroundsAnswer;
  static Answer answer(const Given& given, const RunControl& control);
};

} // namespace mavrel::app
