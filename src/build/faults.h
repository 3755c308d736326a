// Fault finding in the document: what was told, read and seen of a car that is not well, and how often this shop has
// found what.
#pragma once

#include "build/table.h"

namespace mavrel::build {

constexpr std::size_t most_findings = 200;

enum class FaultAnswer { yes, no, read, never };

/// One thing that was told, read or seen. Of a reading one of the figures is there.
struct FaultNote {
  std::string sign;  // `fill_time`
  std::string where; // `front_left`, `rear`; empty: the car
  FaultAnswer answer = FaultAnswer::yes;
  std::optional<double> time, share, length, pressure, voltage, mass, temperature; // s, 1, m, Pa gauge, V, kg, K
  std::optional<double> sd;      // its doubt, in the figure's own SI unit
  YesNo second_hand = YesNo::no; // somebody tells what somebody else noticed
  std::string from;              // where it came from: `log 2026-11-26`, `heights`; empty: typed
  Extra extra;
  friend bool operator==(const FaultNote&, const FaultNote&) = default;
};

struct Faults {
  std::vector<FaultNote> findings;
  YesNo nothing_else = YesNo::no; // all other symptoms were asked for, and are not there
  Extra extra;
  friend bool operator==(const Faults&, const Faults&) = default;
};

template <>
const Table& table_of<FaultNote>();
template <>
const Table& table_of<Faults>();

} // namespace mavrel::build
