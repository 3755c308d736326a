#include "report/sure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::report {

double doubt_in_unit(double sd, Kind kind, const UnitPrefs& prefs) {
  return in_shown_unit(sd, kind, prefs) - in_shown_unit(0, kind, prefs);
}

int digits_left(double sd, Kind kind, const UnitPrefs& prefs) {
  const double in_unit = doubt_in_unit(sd, kind, prefs);
  return in_unit > 0 ? std::clamp(static_cast<int>(std::ceil(-std::log10(in_unit))), 0, 3) : -1;
}

namespace {

/// Step that a doubt in the unit shown leaves beyond the point: 10 of one of 24, else 1.
double step_left(double in_unit) {
  return in_unit >= 10 ? std::pow(10, std::floor(std::log10(in_unit))) : 1;
}

/// The figure with as many digits as its doubt leaves.
std::string number_left(double value, double sd, Kind kind, const UnitPrefs& prefs) {
  const double in_unit = doubt_in_unit(sd, kind, prefs), step = step_left(in_unit);
  double number = in_shown_unit(value, kind, prefs);
  if (!std::isfinite(number)) return show_parts(value, kind, prefs).number;
  if (step > 1) number = std::round(number / step) * step;
  std::string out = fmt::format("{:.{}f}", number, digits_left(sd, kind, prefs));
  if (out.find_first_not_of("-0.") == std::string::npos && out.front() == '-') out.erase(0, 1); // no "-0"
  return out;
}

/// What stands behind a number of this kind: ` mm`, `°`.
std::string behind(Kind kind, const UnitPrefs& prefs) {
  return show(1, kind, prefs).substr(show_parts(1, kind, prefs).number.size());
}

} // namespace

std::string as_sure(double value, double sd, Kind kind, const UnitPrefs& prefs) {
  if (!(sd > 0)) return show(value, kind, prefs);
  return number_left(value, sd, kind, prefs) + behind(kind, prefs);
}

std::string number_with_doubt(double value, double sd, Kind kind, const UnitPrefs& prefs) {
  const double in_unit = doubt_in_unit(sd, kind, prefs), step = step_left(in_unit);
  return fmt::format("{} ± {:.{}f}", number_left(value, sd, kind, prefs),
                     step > 1 ? std::round(in_unit / step) * step : in_unit, digits_left(sd, kind, prefs));
}

std::string with_doubt(double value, double sd, Kind kind, const UnitPrefs& prefs) {
  if (!(sd > 0)) return show(value, kind, prefs);
  return number_with_doubt(value, sd, kind, prefs) + behind(kind, prefs);
}

const assess::DoubtAnswer* doubt_of(const assess::Doubt* doubt, std::string_view name, double value) {
  const assess::DoubtAnswer* a = doubt ? doubt->find(name) : nullptr;
  if (!a || !a->value || !(a->sd > 0) || a->vanished >= 0.5) return nullptr;
  // Of another car, another load case, or the other side: it says nothing of this figure.
  return std::abs(*a->value - value) <= 0.1 * a->sd + 1e-9 * std::abs(value) ? a : nullptr;
}

} // namespace mavrel::report
