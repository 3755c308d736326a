// What of Clearance takes longer than a frame, asked beside the interface.
#pragma once

#include "app/desk/answers.h"
#include "assess/ground/ground.h"
#include "assess/interference/fits.h"
#include "assess/interference/map.h"
#include "assess/why/why.h"

namespace mavrel::app {

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
