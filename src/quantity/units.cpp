#include "quantity/units.h"

#include <array>
#include <numbers>
#include <string>

namespace mavrel {

namespace {

constexpr double inch = 0.0254;
constexpr double pound = 0.45359237;
constexpr double pound_force = pound * standard_gravity;
constexpr double psi = pound_force / (inch * inch);
constexpr double degree = std::numbers::pi / 180;
constexpr double ice_point = 273.15;
constexpr double fahrenheit_step = 5.0 / 9.0;
constexpr double fahrenheit_zero = ice_point - 32 * fahrenheit_step;

struct Row {
  std::string_view name;
  Unit unit;
};

constexpr auto rows = std::to_array<Row>({
    {"mm", {Kind::length, 1e-3}},
    {"cm", {Kind::length, 1e-2}},
    {"m", {Kind::length, 1}},
    {"in", {Kind::length, inch}},
    {"inch", {Kind::length, inch}},
    {"inches", {Kind::length, inch}},
    {"\"", {Kind::length, inch}},
    {"″", {Kind::length, inch}},
    {"”", {Kind::length, inch}},
    {"ft", {Kind::length, 12 * inch}},
    {"'", {Kind::length, 12 * inch}},
    {"′", {Kind::length, 12 * inch}},
    {"kg", {Kind::mass, 1}},
    {"g", {Kind::mass, 1e-3}},
    {"t", {Kind::mass, 1e3}},
    {"lb", {Kind::mass, pound}},
    {"lbs", {Kind::mass, pound}},
    {"N", {Kind::force, 1}},
    {"kN", {Kind::force, 1e3}},
    {"lbf", {Kind::force, pound_force}},
    {"kgf", {Kind::force, standard_gravity}},
    {"bar", {Kind::pressure, 1e5}},
    {"mbar", {Kind::pressure, 1e2}},
    {"psi", {Kind::pressure, psi}},
    {"kPa", {Kind::pressure, 1e3}},
    {"MPa", {Kind::pressure, 1e6}},
    {"Pa", {Kind::pressure, 1}},
    {"l", {Kind::volume, 1e-3}},
    {"litre", {Kind::volume, 1e-3}},
    {"litres", {Kind::volume, 1e-3}},
    {"ml", {Kind::volume, 1e-6}},
    {"cc", {Kind::volume, 1e-6}},
    {"cm3", {Kind::volume, 1e-6}},
    {"cm³", {Kind::volume, 1e-6}},
    {"m3", {Kind::volume, 1}},
    {"m³", {Kind::volume, 1}},
    {"in3", {Kind::volume, inch* inch* inch}},
    {"in³", {Kind::volume, inch* inch* inch}},
    {"cu in", {Kind::volume, inch* inch* inch}},
    {"°C", {Kind::temperature, 1, ice_point}},
    {"C", {Kind::temperature, 1, ice_point}},
    {"°F", {Kind::temperature, fahrenheit_step, fahrenheit_zero}},
    {"F", {Kind::temperature, fahrenheit_step, fahrenheit_zero}},
    {"K", {Kind::temperature, 1}},
    {"Hz", {Kind::frequency, 1}},
    {"°", {Kind::angle, degree}},
    {"deg", {Kind::angle, degree}},
    {"rad", {Kind::angle, 1}},
    {"N/mm", {Kind::stiffness, 1e3}},
    {"kN/m", {Kind::stiffness, 1e3}},
    {"N/m", {Kind::stiffness, 1}},
    {"lb/in", {Kind::stiffness, pound_force / inch}},
    {"lbf/in", {Kind::stiffness, pound_force / inch}},
    {"s", {Kind::time, 1}},
    {"ms", {Kind::time, 1e-3}},
    {"min", {Kind::time, 60}},
    {"h", {Kind::time, 3600}},
    {"d", {Kind::time, 86400}},
    {"day", {Kind::time, 86400}},
    {"days", {Kind::time, 86400}},
    {"weeks", {Kind::time, 7 * 86400.0}},
    {"week", {Kind::time, 7 * 86400.0}},
    {"km", {Kind::distance, 1e3}},
    {"mi", {Kind::distance, 1609.344}},
    {"miles", {Kind::distance, 1609.344}},
    {"m/s", {Kind::speed, 1}},
    {"mm/s", {Kind::speed, 1e-3}},
    {"in/s", {Kind::speed, inch}},
    {"km/h", {Kind::road_speed, 1 / 3.6}},
    {"kmh", {Kind::road_speed, 1 / 3.6}},
    {"mph", {Kind::road_speed, 1609.344 / 3600}},
    {"N·m/°", {Kind::turning, 1 / degree}},
    {"Nm/°", {Kind::turning, 1 / degree}},
    {"Nm/deg", {Kind::turning, 1 / degree}},
    {"N·m/rad", {Kind::turning, 1}},
    {"Nm/rad", {Kind::turning, 1}},
    {"lbf·ft/°", {Kind::turning, pound_force * 12 * inch / degree}},
    {"lbft/deg", {Kind::turning, pound_force * 12 * inch / degree}},
    {"A", {Kind::current, 1}},
    {"V", {Kind::voltage, 1}},
    {"Ah", {Kind::charge, 3600}},
    {"A·h", {Kind::charge, 3600}},
    {"mm²", {Kind::section, 1e-6}},
    {"mm2", {Kind::section, 1e-6}},
    {"l/min", {Kind::air_flow, 1e-3 / 60}},
    {"cfm", {Kind::air_flow, 1728 * inch* inch* inch / 60}},
    {"m³/s", {Kind::air_flow, 1}},
    {"l/(s·bar)", {Kind::conductance, 1e-8}},
    {"l/s/bar", {Kind::conductance, 1e-8}},
    {"m³/(s·Pa)", {Kind::conductance, 1}},
    {"W/K", {Kind::heat_flow, 1}},
    {"dB", {Kind::sound, 1}},
    {"m/s²", {Kind::acceleration, 1}},
    {"m/s2", {Kind::acceleration, 1}},
    {"ms/mm", {Kind::burst_gain, 1}},
    {"s/m", {Kind::burst_gain, 1}},
    {"s/bar", {Kind::pressure_gain, 1e-5}},
    {"s/psi", {Kind::pressure_gain, 1 / psi}},
    {"s/Pa", {Kind::pressure_gain, 1}},
    {"%", {Kind::share, 0.01}},
});

std::string lower(std::string_view text) {
  std::string out(text);
  for (char& c : out)
    if (c >= 'A' && c <= 'Z') c = static_cast<char>(c - 'A' + 'a');
  return out;
}

} // namespace

std::optional<Unit> find_unit(std::string_view name, const UnitPrefs& prefs) {
  for (const Row& row : rows)
    if (row.name == name) return row.unit;
  const std::string small = lower(name);
  // `f` alone is a finger; only a capital F is Fahrenheit.
  if (small == "f" || small == "finger" || small == "fingers") return Unit{Kind::length, prefs.finger};
  // Case only separates m from M (milli, mega); everywhere else a builder's capitals are forgiven.
  if (small == "mpa") return std::nullopt;
  for (const Row& row : rows)
    if (lower(row.name) == small) return row.unit;
  return std::nullopt;
}

ShownUnit shown_unit(Kind kind, const UnitPrefs& prefs) {
  switch (kind) {
  case Kind::length:
    if (prefs.length == LengthUnit::inch) return {"in", {kind, inch}, 4, 16};
    return {"mm", {kind, 1e-3}, 0};
  case Kind::mass:
    if (prefs.mass == MassUnit::lb) return {"lb", {kind, pound}, 0};
    return {"kg", {kind, 1}, 0};
  case Kind::force:
    if (prefs.mass == MassUnit::lb) return {"lbf", {kind, pound_force}, 0};
    return {"N", {kind, 1}, 0};
  case Kind::pressure:
    if (prefs.pressure == PressureUnit::psi) return {"psi", {kind, psi}, 0};
    if (prefs.pressure == PressureUnit::kpa) return {"kPa", {kind, 1e3}, 0};
    return {"bar", {kind, 1e5}, 1};
  case Kind::volume:
    if (prefs.length == LengthUnit::inch) return {"in³", {kind, inch * inch * inch}, 0};
    return {"l", {kind, 1e-3}, 2};
  case Kind::temperature:
    if (prefs.temperature == TemperatureUnit::fahrenheit) return {"°F", {kind, fahrenheit_step, fahrenheit_zero}, 0};
    return {"°C", {kind, 1, ice_point}, 0};
  case Kind::temperature_step:
    if (prefs.temperature == TemperatureUnit::fahrenheit) return {"°F", {kind, fahrenheit_step}, 0};
    return {"K", {kind, 1}, 0};
  case Kind::frequency:
    return {"Hz", {kind, 1}, 2};
  case Kind::angle:
    return {"°", {kind, degree}, 1, 0, true};
  case Kind::stiffness:
    if (prefs.mass == MassUnit::lb) return {"lbf/in", {kind, pound_force / inch}, 0};
    return {"N/mm", {kind, 1e3}, 1};
  case Kind::time:
    return {"s", {kind, 1}, 1};
  case Kind::altitude:
    if (prefs.length == LengthUnit::inch) return {"ft", {kind, 12 * inch}, 0};
    return {"m", {kind, 1}, 0};
  case Kind::speed:
    if (prefs.length == LengthUnit::inch) return {"in/s", {kind, inch}, 1};
    return {"m/s", {kind, 1}, 2};
  case Kind::road_speed:
    if (prefs.length == LengthUnit::inch) return {"mph", {kind, 1609.344 / 3600}, 0};
    return {"km/h", {kind, 1 / 3.6}, 0};
  case Kind::turning:
    if (prefs.mass == MassUnit::lb) return {"lbf·ft/°", {kind, pound_force * 12 * inch / degree}, 0};
    return {"N·m/°", {kind, 1 / degree}, 0};
  case Kind::minutes:
    return {"min", {kind, 60}, 1};
  case Kind::hours:
    return {"h", {kind, 3600}, 2};
  case Kind::days:
    return {"d", {kind, 86400}, 0};
  case Kind::distance:
    if (prefs.length == LengthUnit::inch) return {"mi", {kind, 1609.344}, 0};
    return {"km", {kind, 1e3}, 0};
  case Kind::current:
    return {"A", {kind, 1}, 1};
  case Kind::voltage:
    return {"V", {kind, 1}, 1};
  case Kind::charge:
    return {"Ah", {kind, 3600}, 0};
  case Kind::section:
    return {"mm²", {kind, 1e-6}, 1};
  case Kind::air_flow:
    if (prefs.length == LengthUnit::inch) return {"cfm", {kind, 1728 * inch * inch * inch / 60}, 2};
    return {"l/min", {kind, 1e-3 / 60}, 0};
  case Kind::conductance:
    return {"l/(s·bar)", {kind, 1e-8}, 2};
  case Kind::heat_flow:
    return {"W/K", {kind, 1}, 1};
  case Kind::sound:
    return {"dB", {kind, 1}, 0};
  case Kind::acceleration:
    return {"m/s²", {kind, 1}, 1};
  case Kind::burst_gain:
    return {"ms/mm", {kind, 1}, 1};
  case Kind::pressure_gain:
    if (prefs.pressure == PressureUnit::psi) return {"s/psi", {kind, 1 / psi}, 3};
    return {"s/bar", {kind, 1e-5}, 2};
  case Kind::share:
    return {"%", {kind, 0.01}, 0};
  case Kind::plain:
    break;
  }
  return {"", {Kind::plain, 1}, 2};
}

const char* si_unit_name(Kind kind) {
  switch (kind) {
  case Kind::length:
  case Kind::altitude:
  case Kind::distance:
    return "m";
  case Kind::mass:
    return "kg";
  case Kind::force:
    return "N";
  case Kind::pressure:
    return "Pa";
  case Kind::volume:
    return "m3";
  case Kind::temperature:
  case Kind::temperature_step:
    return "K";
  case Kind::frequency:
    return "Hz";
  case Kind::angle:
    return "rad";
  case Kind::stiffness:
    return "N/m";
  case Kind::time:
    return "s";
  case Kind::speed:
    return "m/s";
  case Kind::road_speed:
    return "m/s";
  case Kind::turning:
    return "N m/rad";
  case Kind::minutes:
  case Kind::hours:
  case Kind::days:
    return "s";
  case Kind::current:
    return "A";
  case Kind::voltage:
    return "V";
  case Kind::charge:
    return "A s";
  case Kind::section:
    return "m2";
  case Kind::air_flow:
    return "m3/s";
  case Kind::conductance:
    return "m3/(s Pa)";
  case Kind::heat_flow:
    return "W/K";
  case Kind::sound:
    return "dB";
  case Kind::acceleration:
    return "m/s2";
  case Kind::burst_gain:
    return "s/m";
  case Kind::pressure_gain:
    return "s/Pa";
  case Kind::share:
  case Kind::plain:
    break;
  }
  return "1";
}

std::optional<double> related_factor(Kind from, Kind to) {
  if (from == Kind::force && to == Kind::mass) return 1 / standard_gravity;
  if (from == Kind::mass && to == Kind::force) return standard_gravity;
  if (from == Kind::length && to == Kind::altitude) return 1;
  if (from == Kind::temperature && to == Kind::temperature_step) return 1;
  if (from == Kind::time && (to == Kind::minutes || to == Kind::hours || to == Kind::days)) return 1;
  if (from == Kind::length && to == Kind::distance) return 1;
  if (from == Kind::speed && to == Kind::road_speed) return 1;
  if (from == Kind::road_speed && to == Kind::speed) return 1;
  return std::nullopt;
}

} // namespace mavrel
