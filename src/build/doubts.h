// How sure the tools are that a car is measured with: one standard deviation each, in one place; and which readings
// were taken with another tool than is usual.
#pragma once

#include "build/table.h"

namespace mavrel::build {

constexpr std::size_t most_taken_with = 200;

/// What a figure was read with, or where else it is from.
enum class Tool { tape, calliper, point, scale, level, angle, ratio, gauge, card, part, estimate };

/// A reading that was not taken with the usual tool.
struct TakenWith {
  std::string what; // path of the reading, without the places in its lists: `front.cycle.height_m` is of all rows
  Tool tool = Tool::tape;
  Extra extra;
  friend bool operator==(const TakenWith&, const TakenWith&) = default;
};

struct Doubts {
  double tape = 0.0015;                // m, of one reading by tape
  double calliper = 0.0002;            // m, by calliper
  double point = 0.002;                // m, of one ordinate of a hard point
  double scale = 3;                    // kg, of one reading of a corner
  double scale_shared = 0.005;         // share that the scale may read heavy, or light, throughout
  double level = 0.001;                // m, of the floor under one wheel
  double level_shared = 0.001;         // m that the level itself is off, one side against the other
  double angle = 0.003490658503988659; // rad (0.2°), of one reading by the angle gauge
  double ratio = 0.03;                 // share, of one reading of a motion ratio
  double gauge = 1e4;                  // Pa, of a pressure gauge; off alike wherever that gauge was read
  double card = 0.03;                  // share, of a bag card's area
  double part = 0.08;                  // share, of what an air part's card says it delivers, lets through or holds
  double estimate = 0.08;              // share, of what was estimated rather than read
  double other_car = 2;                // times as much for a figure of another car
  std::vector<TakenWith> taken_with;
  Extra extra;
  friend bool operator==(const Doubts&, const Doubts&) = default;
};

template <>
const Table& table_of<TakenWith>();
template <>
const Table& table_of<Doubts>();

} // namespace mavrel::build
