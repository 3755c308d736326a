// The question turned round: which rims would clear, over width and offset.
#pragma once

#include "assess/end/end_answer.h"
#include "motion/wheel.h"

#include <stop_token>

namespace mavrel::assess {

/// How one fitting fares.
struct Fitting {
  double rim_width = 0, offset = 0; // m
  double spare = 0;                 // m, the least of gap less what is wanted; below 0 it does not clear
  std::size_t which = not_listed;   // of `WhatFits::what`: what has least to spare; none: nothing is near
  double height = 0;                // m, H where that is
  Lock lock = Lock::straight;       // and how the wheels then stand
  double poke = 0;                  // m that it pokes past the arch at road height; below 0 tucked; 0 without an arch
  double camber = 0;                // rad more than the map's that it takes to clear
  [[nodiscard]] bool clears() const { return spare >= 0; }
};

/// All that the question is worked out from.
struct FitsGiven {
  AnsweredEnd end;
  motion::WheelCode tyre;                 // its tyre and rim diameter are kept
  double width_low = 0, width_high = 0;   // m of the rim
  double offset_low = 0, offset_high = 0; // m
  std::size_t widths = 25, offsets = 81;  // so many of each, at least two
  double camber_most = 0;                 // rad that the top may lean in further to make it clear
  [[nodiscard]] auto parts() const {
    return std::tie(end, tyre.tyre_width, tyre.aspect, tyre.rim_diameter, tyre.rim_width, tyre.offset, width_low,
                    width_high, offset_low, offset_high, widths, offsets, camber_most);
  }
  friend bool operator==(const FitsGiven& a, const FitsGiven& b) { return a.parts() == b.parts(); }
};
/// The usual question: rims from 3 in narrower to 3 in wider than today's, offsets 45 mm either way.
/// @returns none while the wheel has no code that can be read
[[nodiscard]] std::optional<FitsGiven> usual_fits(const AnsweredEnd& end);

struct WhatFits {
  std::vector<double> widths, offsets; // m, rising
  std::vector<Fitting> fittings;       // row by row: offsets, then widths
  std::vector<Near> what;
  std::vector<Near> left_out;        // gaps by the tape: nobody knows their place beside another rim
  double low = 0, high = 0;          // m, H that were looked at straight ahead
  std::optional<double> driven_from; // m, H from which every lock counts; none: no road height is wished for
  [[nodiscard]] const Fitting& at(std::size_t offset, std::size_t width) const {
    return fittings[offset * widths.size() + width];
  }
};

/// Straight ahead nothing may touch from the parked height to the top of the reach; from road height up the room that
/// is wanted must be there at every lock.
/// @param stop  set from elsewhere: give up
/// @returns none while nobody knows what is near the wheel, or when stopped
/// Source: docs/models.md, "What would fit".
[[nodiscard]] std::optional<WhatFits> what_fits(const FitsGiven& given, const std::stop_token& stop = {});

} // namespace mavrel::assess
