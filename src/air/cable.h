// Cables and fuses for a current: standard sections only.
#pragma once

#include "quantity/expected.h"

#include <span>
#include <string>

namespace mavrel::air {

constexpr double copper_hot = 0.0175 * (1 + 0.00393 * 50); // Ω·mm²/m at 70 °C

/// A section of copper that is sold, and what it may carry in a bundle.
struct Section {
  double area = 0;    // mm²
  double carries = 0; // A
};
[[nodiscard]] std::span<const Section> sections();

/// The thinnest even gauge not thinner than a section: `10`, `1/0`; empty beyond 2/0.
[[nodiscard]] std::string gauge_for(double area);

/// The fuse for a current: the smallest that is at least 1.25 times it.
/// @param current  A, above 0
[[nodiscard]] Expected<double> fuse_for(double current);

struct Cable {
  double section = 0; // mm²
  double fuse = 0;    // A
  double drop = 0;    // V, out and back
  std::string awg;    // empty beyond 2/0
};
/// The thinnest cable that keeps the drop and may carry its fuse.
/// @param current  A; @param length  m, one way; @param volts  of the supply; @param drop  share of it that may be lost
/// Source: docs/models.md, "Cable".
[[nodiscard]] Expected<Cable> cable_for(double current, double length, double volts, double drop = 0.03);

/// V lost in a cable there and back. @param area  mm²
[[nodiscard]] double voltage_drop(double current, double length, double area);

} // namespace mavrel::air
