// How sure the tools are that a car is measured with: one standard deviation each, in one place.
#pragma once

#include "build/basics.h"

namespace mavrel::build {

struct Doubts {
  double tape = 0.0015;        // m, of one reading by tape
  double point = 0.002;        // m, of one ordinate of a hard point
  double scale = 3;            // kg, of one reading of a corner
  double scale_shared = 0.005; // share that the scale may read heavy, or light, throughout
  double level = 0.001;        // m, of the floor under one wheel
  double level_shared = 0.001; // m that the level itself is off, one side against the other
  double angle = 0.0035;       // rad, of one reading by the angle gauge
  double ratio = 0.03;         // share, of one reading of a motion ratio
  double card = 0.03;          // share, of a bag card's area
  double estimate = 0.08;      // share, of what was estimated rather than read
  double other_car = 2;        // times as much for a figure of another car
  Extra extra;
  friend bool operator==(const Doubts&, const Doubts&) = default;
};

} // namespace mavrel::build
