// What stands in for a reading nobody has taken yet, by layout: usual figures, with how far usual cars lie from them.
// A window that rests on one is rough, and says so.
#pragma once

#include "build/build.h"

#include <optional>

namespace mavrel::assess {

/// A usual figure and how far, either way, cars of the kind lie from it.
struct Usual {
  double value = 0, doubt = 0;
};

/// Usual figures of one layout.
struct StandIns {
  Usual motion_ratio;  // d(spring length)/dH
  Usual damper_ratio;  // d(damper length)/dH, of a damper apart from the spring
  Usual spring_length; // m seat to seat, as it stands
  Usual bump, droop;   // m at the wheel from as it stands until the damper is shut, or open
  Usual stop_gap;      // m at the wheel; said only, never reckoned with: a stop may not be there at all
};

/// Source: docs/models.md, "Stand-ins".
[[nodiscard]] StandIns stand_ins(build::Layout layout);

/// Eye to eye of a damper nobody measured, m. Only differences matter: no answer depends on it.
constexpr double usual_damper_length = 0.42;

/// Spring base of a solid axle when nobody measured it, share of the track.
constexpr double usual_spring_base = 0.68;

[[nodiscard]] bool is_solid_axle(build::Layout layout);
/// Between the left and the right spring, m: a solid axle's own or an estimate from the track, others' track.
/// @returns none while what it needs was not measured
[[nodiscard]] std::optional<double> spring_base(const build::EndSurvey& survey);

} // namespace mavrel::assess
