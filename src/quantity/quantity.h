// Typed text in, shown text out. The only place where a unit is anything but SI.
#pragma once

#include "quantity/expected.h"
#include "quantity/kind.h"

#include <optional>
#include <string>
#include <string_view>
#include <vector>

namespace mavrel {

/// Reads what somebody typed: `5/8"`, `2 3/16 in`, `4 f` (fingers), `38psi`, `2,6 bar`, `410 kg`, `5 ft 3 in` (a finer
/// unit behind a coarser one; `4000N 4000N` is two numbers and refused). Does not depend on the process's locale.
/// A bare number is taken in the preferred unit of `kind`, or in `bare_unit` when that is given.
/// Weights may be typed where a mass is wanted and the other way round (standard gravity between them).
/// @returns the value in SI; or what is wrong with the text and what would be right
[[nodiscard]] Expected<double> parse_quantity(std::string_view text, Kind kind, const UnitPrefs& prefs = {},
                                              std::string_view bare_unit = {});

/// Reads several readings of one quantity, separated by `;`, a new line, or a comma with a space behind it.
/// @returns them in the order typed, none for blank text; or the first mistake
[[nodiscard]] Expected<std::vector<double>> parse_readings(std::string_view text, Kind kind,
                                                           const UnitPrefs& prefs = {});

/// A number and its unit apart, for places that set them in different type.
struct Shown {
  std::string number;
  std::string unit;
};

/// @param value     SI
/// @param decimals  -1: what is usual for the kind; -2: as many as needed to show what was typed
[[nodiscard]] Shown show_parts(double value, Kind kind, const UnitPrefs& prefs = {}, int decimals = -1);
[[nodiscard]] std::string show(double value, Kind kind, const UnitPrefs& prefs = {}, int decimals = -1);

/// The text to put into a field for editing: nothing that matters is lost.
[[nodiscard]] inline std::string show_exact(double value, Kind kind, const UnitPrefs& prefs = {}) {
  return show(value, kind, prefs, -2);
}

/// The smallest step that `show` with these settings can tell apart, SI.
[[nodiscard]] double shown_step(Kind kind, const UnitPrefs& prefs = {}, int decimals = -1);

/// The unit `show` uses, such as `mm`; empty for plain numbers.
[[nodiscard]] std::string unit_name(Kind kind, const UnitPrefs& prefs = {});

/// Value in the shown unit, for axes: mm, bar, Hz.
[[nodiscard]] double in_shown_unit(double value, Kind kind, const UnitPrefs& prefs = {});
/// And back to SI.
[[nodiscard]] double from_shown_unit(double value, Kind kind, const UnitPrefs& prefs = {});

/// `a length`, `a mass`: how the kind is called in a sentence.
[[nodiscard]] const char* kind_name(Kind kind);
/// An example of what could be typed, such as `320 mm`.
[[nodiscard]] Amount example_of(Kind kind);

} // namespace mavrel
