// How one end stands at one height: what is read from a solved linkage.
#pragma once

#include "motion/linkage/geometry.h"

namespace mavrel::motion {

using space::Placed;

/// Length of a spring or damper and how it follows the wheel.
struct Strut {
  double length = 0; // m
  double ratio = 0;  // d(length)/dH
};

/// Where everything of one corner stands.
struct CornerPose {
  double dh = 0;                         // m, H less the surveyed one
  double rack = 0;                       // m that the rods' inner ends moved to the left
  Placed upright;                        // on a hinge: the arm
  double camber = 0, toe = 0;            // rad
  std::optional<double> caster, kingpin; // rad; where there is an axis to steer about
  Point wheel_shift;                     // m
  std::optional<Strut> spring, damper;   // where both their ends were measured
};

/// Where everything of a solid axle stands.
struct AxlePose {
  double dh = 0; // m, mean of both wheels
  Placed axle;
  Point shift;                         // m, of the axle's middle
  double pinion = 0;                   // rad turned, nose up positive
  double roll = 0;                     // rad, left wheel up against the body positive
  double misfit = 0;                   // m that a link would have to stretch or squash by; 0 where all fit
  std::optional<Strut> spring, damper; // mean of both sides
  std::array<std::optional<Strut>, 2> springs, dampers; // left and right
};

/// Why there is no pose at a height.
struct OutOfReach {
  double reached = 0;                // m, dh up to which there is one
  Joint joint = Joint::wheel_centre; // that stops it
};

} // namespace mavrel::motion
