// One end as it stands at a height, as places: what a drawing of it needs, from whatever side it is looked at.
#pragma once

#include "assess/end/end_answer.h"

namespace mavrel::assess {

struct SceneJoint {
  motion::Joint joint = motion::Joint::wheel_centre;
  const char* name = "";  // for people
  motion::Point at;       // m, where it lies now
  motion::Point surveyed; // m, where it was measured; what a drag of it moves
  bool on_body = false;
};

struct SceneBar {
  motion::Point from, to;
  const char* name = "";
  bool right = false; // of a solid axle's other side
};

/// Two plates and what stands between them.
struct SceneBag {
  motion::Point lower, upper;              // m, middles of the plates
  motion::Point lower_face, upper_face;    // unit, the way each plate faces
  double height = 0;                       // m, of the bag itself
  double diameter = 0;                     // m, at that height; 0: no bag chosen
  double lower_stack = 0, upper_stack = 0; // m
};

struct SceneDamper {
  motion::Point top, foot;
  std::optional<double> to_open, to_shut; // m left
  std::optional<double> to_stop;          // m of the rod until a stop on it meets
};

struct EndScene {
  bool measured = false; // else usual places stand in: a drawing, no answer
  bool solved = false;   // it could be moved to the height; else it stands as measured
  double H = 0;
  std::vector<SceneJoint> joints;
  std::vector<SceneBar> bars;
  std::optional<SceneBar> shaft; // from its inner joint to the wheel, or to the axle's pinion
  std::optional<SceneBag> bag;
  std::optional<SceneDamper> damper;
  motion::Point wheel;               // its centre
  motion::Point wheel_axis{0, 1, 0}; // unit, outward
  double radius = 0.31, width = 0.2; // m, of the tyre
  bool solid_axle = false;
  motion::Point right_wheel; // of a solid axle
};

/// @param answer  of the end at hand; its given too
/// @returns none while the height was not taken
[[nodiscard]] std::optional<EndScene> end_scene(const Answered<EndQuestion>& answer, double H);

} // namespace mavrel::assess
