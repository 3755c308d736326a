// Figures with how sure they are: never more digits than their doubt leaves.
#pragma once

#include "assess/doubt/doubt.h"
#include "quantity/quantity.h"

#include <string>
#include <string_view>

namespace mavrel::report {

/// A doubt in the unit that its kind is shown in.
[[nodiscard]] double doubt_in_unit(double sd, Kind kind, const UnitPrefs& prefs);

/// Digits behind the point that a doubt leaves, in the unit shown; -1: as usual, of what nobody doubts.
[[nodiscard]] int digits_left(double sd, Kind kind, const UnitPrefs& prefs);

/// A figure with no more digits than its doubt leaves: `412 mm`, of one good to 24 mm `410 mm`.
[[nodiscard]] std::string as_sure(double value, double sd, Kind kind, const UnitPrefs& prefs);

/// Only the numbers of it, for where the unit stands elsewhere: `412 ± 4`.
/// @param sd  above nothing
[[nodiscard]] std::string number_with_doubt(double value, double sd, Kind kind, const UnitPrefs& prefs);
/// The same with the doubt behind it: `412 ± 4 mm`.
/// @param sd  one standard deviation; not above nothing: as usual
[[nodiscard]] std::string with_doubt(double value, double sd, Kind kind, const UnitPrefs& prefs);

/// The answer of this name where it is known of the figure that is shown, and not gone in half of the draws or more;
/// else nullptr, and the figure is shown as usual.
/// @param doubt  may be null: nothing is known
[[nodiscard]] const assess::DoubtAnswer* doubt_of(const assess::Doubt* doubt, std::string_view name, double value);

} // namespace mavrel::report
