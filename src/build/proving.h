// Proving in the document: readings over time that checks were made with, and what the car's model learned from what
// was measured.
#pragma once

#include "build/table.h"

namespace mavrel::build {

constexpr std::size_t most_series = 60, most_proof_readings = 400, most_learned_notes = 60;

/// One look at gauges. What was not read is absent.
struct ProofReading {
  double time = 0;                                     // s since the first
  std::optional<double> pressure, temperature, height; // Pa gauge, K, m (H)
  Extra extra;
  friend bool operator==(const ProofReading&, const ProofReading&) = default;
};

/// What one gauge read while a check was made.
struct ProofSeries {
  std::string check; // `leak_minutes`
  std::string gauge; // `front_left`, `tank`
  std::string from;  // where it came from: `typed`, `bench`, or a file's name
  std::string began; // `2026-12-01 15:20`
  std::vector<ProofReading> readings;
  Extra extra;
  friend bool operator==(const ProofSeries&, const ProofSeries&) = default;
};

/// One thing that the model learned, as it was taken over.
struct LearnedNote {
  std::string what; // `rear.area`
  std::string by, day;
  double was = 1, is = 1;       // in the figure's own SI unit
  double was_sd = 0, is_sd = 0; // its doubt before and after
  double figures = 0;           // how many it was learned from
  Extra extra;
  friend bool operator==(const LearnedNote&, const LearnedNote&) = default;
};

struct Proving {
  std::vector<ProofSeries> series;
  std::vector<LearnedNote> learned; // the newest last
  std::string handed_over, to;      // day, and to whom; empty: not yet
  std::string listen, inspect;      // words of the shop's own on the owner's sheet
  Extra extra;
  friend bool operator==(const Proving&, const Proving&) = default;
};

template <>
const Table& table_of<ProofReading>();
template <>
const Table& table_of<ProofSeries>();
template <>
const Table& table_of<LearnedNote>();
template <>
const Table& table_of<Proving>();

} // namespace mavrel::build
