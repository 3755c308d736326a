// The table of units: one row a unit, the names people type for it and what it is in SI.
#pragma once

#include "quantity/kind.h"

#include <optional>
#include <string_view>

namespace mavrel {

struct Unit {
  Kind kind;
  double factor;     // SI per unit
  double offset = 0; // SI value at 0 of the unit (temperatures)
};

/// @param name  as typed, surrounding spaces removed; letters' case matters only where it must (`mm`, `MPa`)
[[nodiscard]] std::optional<Unit> find_unit(std::string_view name, const UnitPrefs& prefs);

/// The unit that numbers of this kind are shown in.
struct ShownUnit {
  const char* name;
  Unit unit;
  int decimals;        // usual digits behind the point
  int sixteenths = 0;  // 16: shown as a fraction of that fineness
  bool joined = false; // no space before the name (%)
};
[[nodiscard]] ShownUnit shown_unit(Kind kind, const UnitPrefs& prefs);

/// The SI unit numbers of this kind are stored in, as the command line writes it: `m`, `N/m`; `1` for plain ones.
[[nodiscard]] const char* si_unit_name(Kind kind);

/// Kinds that may be typed for each other: a mass as a weight and the other way round (standard gravity between them),
/// one speed as the other. @returns SI factor from `from` to `to`; none for other pairs
[[nodiscard]] std::optional<double> related_factor(Kind from, Kind to);

} // namespace mavrel
