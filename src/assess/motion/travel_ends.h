// What else runs out as an end moves, one after the other: the joints' angles, the bar's link, the brake hose, shafts.
#pragma once

#include "assess/motion/end_motion.h"

namespace mavrel::assess {

/// Slack a brake hose keeps, m.
constexpr double least_hose_slack = 0.025;

/// @param motion  with its poses; gets what runs out
void add_travel_ends(const build::EndSurvey& survey, double surveyed_height, EndMotion& motion);

/// What is left of each at one height; none where it was not measured. For tracks and the stage.
struct RunningOut {
  std::optional<double> hose_slack;  // m, beyond what must stay
  std::optional<double> shaft_angle; // rad, of the joint that is bent more
  std::optional<double> plunge;      // m that the shaft is longer than surveyed
  std::optional<double> link_angle;  // rad off square, of the end of the bar's link that is bent more
};
/// @param at  a pose there; nullptr: the wheel goes straight up and down
[[nodiscard]] RunningOut running_out(const build::EndSurvey& survey, double dh, const EndPose* at);

/// Length of a bar link that stands square to the bar's arm at a height, m; none where it was not measured.
[[nodiscard]] std::optional<double> centred_link(const build::BarLink& link, double dh);

} // namespace mavrel::assess
