// How one end stands at one height: what is read from a solved linkage.
#pragma once

#include "motion/linkage/geometry.h"

namespace mavrel::motion {

/// A turn and a shift of one part from where it stood when its joints were measured: a place u of it now lies at
/// `turn`·u + `shift`. Row by row.
struct Placed {
  std::array<double, 9> turn{1, 0, 0, 0, 1, 0, 0, 0, 1};
  Point shift;
  [[nodiscard]] Point place(const Point& u) const { return turned(u) + shift; }
  [[nodiscard]] Point turned(const Point& u) const {
    return {turn[0] * u.x + turn[1] * u.y + turn[2] * u.z, turn[3] * u.x + turn[4] * u.y + turn[5] * u.z,
            turn[6] * u.x + turn[7] * u.y + turn[8] * u.z};
  }
};

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
