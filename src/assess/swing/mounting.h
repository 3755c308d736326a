// Where the bag stands and on what: how straight, what the school's height leaves at the others, what a millimetre of
// mount, seat or place on the arm is worth, and from the brief back to the parts.
#pragma once

#include "assess/end/end_answer.h"

#include <string>
#include <vector>

namespace mavrel::assess {

struct AlignedPreset {
  std::size_t preset = 0; // of the brief
  AlignedAt at;
  bool tilted = false, pushed = false; // beyond what the bag bears
};

/// What moving the spring along its arm does at road height, for each metre.
struct MovedSpring {
  double ratio = 0; // d(motion ratio), 1/m
  double force = 0; // N/m along the bag: what it carries more
};

/// Parts that would give the heights wanted: damper and stack, each as the brief asks.
struct PartsWanted {
  double low = 0, high = 0;         // m, H of the lowest and the highest preset
  std::optional<double> shut, open; // m, the longest a damper may be shut and the shortest it may be open
  std::optional<double> stroke;     // m, at least
  std::optional<double> stop_gap;   // m on the stop's own rod or at the wheel, as surveyed, to meet at `low`
  std::optional<double> stack_most, stack_least; // m, plates and mounts together with this bag
};

struct Mounting {
  std::optional<Alignment> alignment;
  std::optional<AlignmentLimits> bears;
  std::vector<AlignedPreset> presets;
  std::optional<double> height_per_stack;        // m of H for a metre of stack or mount, at road height
  std::optional<double> camber_per_outward;      // rad for a metre that a strut's top goes outward
  std::optional<double> bump_left, rebound_left; // m of H to the damper's ends from road height
  std::optional<double> body_longer;    // m, a threaded body set longer by so much shares them as the brief does
  std::optional<MovedSpring> inboard;   // the spring moved inward, both seats
  std::optional<double> between_plates; // m, middle to middle as surveyed: to copy to the other side
  std::optional<PartsWanted> wanted;
};

/// Source: docs/models.md, "Mounting".
[[nodiscard]] Mounting mounting_of(const Answered<EndQuestion>& answer);

} // namespace mavrel::assess
