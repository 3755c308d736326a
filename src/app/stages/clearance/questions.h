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

struct MapQuestion {
  using Given = assess::MapGiven;
  using Answer = std::optional<assess::ClearanceMap>;
  static Answer answer(const Given& given, const RunControl& control) {
    const StopFlag stop(control);
    return assess::clearance_map(given, stop.flag());
  }
};

struct WhyQuestion {
  using Given = assess::WhyGiven;
  using Answer = std::optional<assess::Why>;
  static Answer answer(const Given& given, const RunControl& control) {
    const StopFlag stop(control);
    return assess::why_not_further(given, stop.flag());
  }
};

struct FitsQuestion {
  using Given = assess::FitsGiven;
  using Answer = std::optional<assess::WhatFits>;
  static Answer answer(const Given& given, const RunControl& control) {
    const StopFlag stop(control);
    return assess::what_fits(given, stop.flag());
  }
};

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
