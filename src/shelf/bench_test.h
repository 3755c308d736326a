// A bag on a press: a few readings of load, height and pressure become a card, with what the fit is worth and what is
// still missing.
#pragma once

#include "air/bag_card.h"
#include "quantity/message.h"

#include <optional>
#include <span>
#include <vector>

namespace mavrel::shelf {

struct BenchReading {
  double height = 0;            // m
  double load = 0;              // N
  double pressure = 0;          // Pa gauge
  std::optional<double> volume; // m³, where it was measured (filled with water, say)
};

struct BenchFit {
  std::optional<air::BagCard> card; // none while the volume is missing everywhere
  double rms = 0;                   // of the load, share
  double worst = 0;                 // of the load, share, signed: measured over fitted, less 1
  std::size_t worst_reading = 0;    // from 0
  std::vector<double> off;          // one a reading, share
  std::size_t spare = 0;            // readings beyond what the fit needs; 0: the error says nothing
};

struct BenchAnswer {
  std::optional<BenchFit> fit; // none while too few readings are there
  std::vector<Message> wanted; // readings still missing or doubtful, the most useful first
};

/// Effective area as a polynomial in height (as high as the readings bear, up to cubic) and linear in pressure, least
/// squares of the load's relative error; volume by integrating the area from the volumes measured.
/// @param about  name, kind, heights and pressures of the bag; its table is ignored
/// Source: docs/models.md, "Bench test".
[[nodiscard]] BenchAnswer fit_bench_test(std::span<const BenchReading> readings, const air::BagCard& about);

} // namespace mavrel::shelf
