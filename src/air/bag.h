// One bag under a load: pressure, air, stiffness.
#pragma once

#include "air/bag_card.h"
#include "air/gas.h"
#include "quantity/expected.h"

#include <span>
#include <vector>

namespace mavrel::air {

/// Force of a bag and how it changes, from the card at one height.
struct BagForce {
  double force = 0;        // N, along the bag's axis
  double per_pressure = 0; // ∂F/∂p, m²
  double per_height = 0;   // ∂F/∂h at constant pressure, N/m
};

/// F(p, h) = p·A(p, h), the area linear in p between the card's columns and constant outside them.
/// @param p  gauge, Pa
[[nodiscard]] BagForce bag_force(const BagSection& at, double p);

/// What a bag takes for a moment, in bump. Where its card states none, 1.5 times its steady maximum stands in; whoever
/// goes by it says that it is ours. Source: docs/models.md, "What a bag can't do".
struct Peak {
  double pressure = 0; // Pa
  bool stated = false; // on the card
};
[[nodiscard]] Peak peak_of(const BagCard& card);

/// What a card knows a pressure lies beyond. An answer there rests on less than was measured, or is not to be used.
enum class Beyond {
  nothing,
  under_minimum, // the bag folds or leaves its piston
  last_column,   // above the pressures measured: the last column's area is taken on
  maximum,       // above what the bag may hold
};
[[nodiscard]] Beyond beyond(const BagCard& card, double p);
/// `max_pressure`, as files and the command line write it; empty for nothing.
[[nodiscard]] const char* beyond_key(Beyond what);
/// `above the bag's maximum`, for people.
[[nodiscard]] const char* beyond_name(Beyond what);

/// The gauge pressure at which the bag carries `load` (N, not negative): the root of F(p, h) = load.
[[nodiscard]] double pressure_for_load(const BagSection& at, double load);

/// What the bag works with beside the card.
struct BagSetting {
  double added_volume = 0; // m³ behind an open line
  double n = 1.38;         // exponent for quick movement
  Ambient ambient;
};

struct BagState {
  double gauge_pressure = 0; // Pa
  double effective_area = 0; // m²
  double volume = 0;         // m³, the bag alone
  double air_mass = 0;       // kg, with the added volume
  double rate_slow = 0;      // N/m, n = 1, added volume open
  double rate_fast = 0;      // N/m, n as set, added volume open
};

/// Rate of a sealed bag for small movement, N/m: n·p_abs·V'/(V+Va)·∂F/∂p − ∂F/∂h.
[[nodiscard]] double sealed_rate(const BagSection& at, double p, double n, const BagSetting& setting);

/// State of one bag under a load at a height, air sealed at the ambient temperature.
/// @param height  of the bag, m; must lie inside the card
/// @param load    along the bag's axis, N, not negative
/// @returns pressure, air and rates; or why there is no answer
/// Source: docs/models.md, "Bag".
[[nodiscard]] Expected<BagState> bag_under_load(const BagCurve& curve, double height, double load,
                                                const BagSetting& setting);

/// One point of a stroke made with the valves shut.
struct StrokePoint {
  double height = 0;         // m
  double gauge_pressure = 0; // Pa
  double force = 0;          // N
  double temperature = 0;    // K
};

/// A sealed bag taken from a state to another height, polytropic with exponent n; its mass of air stays.
/// @param from, to  bag heights inside the card, m
/// @param p         gauge pressure at `from`, Pa
[[nodiscard]] Expected<StrokePoint> sealed_stroke(const BagCurve& curve, double from, double p, double to, double n,
                                                  const BagSetting& setting);

} // namespace mavrel::air
