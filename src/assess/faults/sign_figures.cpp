#include "assess/faults/sign_figures.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess::sign_figures {

using control::Condition;
using control::CornerCondition;

namespace {

double above(double x, double limit, double soft) {
  return 1 / (1 + std::exp(-(x - limit) / soft));
}

/// s that a corner takes, in or out, with what is left of its way.
double time_over(const FaultCar& car, const Condition& c, std::size_t i, double CornerCondition::*way) {
  const bool in = way == &CornerCondition::fill;
  const double feed = in && c.feed < 1 ? car.feed[i].at(c.feed) / car.feed[i].at(1) : 1;
  const TimesOver &lines = in ? car.fill[i] : car.vent[i], &valve = in ? car.fill_valve[i] : car.vent_valve[i];
  const auto& joined = car.joined(i);
  if (joined.size() == 1) return feed * lines.at(c.corners[i].*way);
  // Lines side by side add up.
  double left = 0;
  for (const std::size_t corner : joined)
    left += control::line_share(c.corners[corner]) / static_cast<double>(joined.size());
  return feed * lines.at(left) * valve.at(control::valve_share(c, joined, way)) / valve.at(1);
}
double ratio_up(const FaultCar& car, const Condition& c, std::size_t i) {
  return time_over(car, c, i, &CornerCondition::fill) / car.fill[i].at(1);
}
double ratio_down(const FaultCar& car, const Condition& c, std::size_t i) {
  return time_over(car, c, i, &CornerCondition::vent) / car.vent[i].at(1);
}
/// What a tee joins hangs on one pair of coils.
bool crossed(const FaultCar& car, const Condition& c, std::size_t i) {
  const auto& joined = car.joined(i);
  return std::any_of(joined.begin(), joined.end(), [&](std::size_t corner) { return c.corners[corner].crossed; });
}
/// Does the way in, or out, let anything through?
bool is_shut(const FaultCar& car, const Condition& c, std::size_t i, double CornerCondition::*way) {
  const auto& joined = car.joined(i);
  if (way == &CornerCondition::fill && c.feed < 0.01) return true;
  if (crossed(car, c, i)) return true;
  if (joined.size() == 1) return c.corners[i].*way < 0.01;
  return control::valve_share(c, joined, way) < 0.01;
}
/// Share of its air an hour. What a tee joins is one volume, and loses together.
double lost(const FaultCar& car, const Condition& c, std::size_t i) {
  double leak = 0, air = 0;
  for (const std::size_t corner : car.joined(i))
    leak += c.corners[corner].leak_line + c.corners[corner].leak_bag, air += car.air[corner];
  return car.hourly(i, leak * car.air[i] / air);
}
/// m that a corner goes up in so many hours past its fill valve, the tank full.
double risen(const FaultCar& car, const Condition& c, std::size_t i, double hours) {
  double leak = 0, air = 0;
  for (const std::size_t corner : car.joined(i))
    leak += c.corners[corner].leak_fill, air += car.air[corner];
  if (!(leak > 0)) return 0;
  const double more = (car.cut_out + car.ambient) / (car.pressure[i] + car.ambient);
  const double gained = hours * 3600 * leak * 1e5 / air * more;
  constexpr double first = 1.0 / 24; // of its air, by which it goes up as it would sink
  return std::min(gained / first * car.sunk(i, first), 0.1);
}
/// m that a corner sinks in so many hours.
double sunk_in(const FaultCar& car, const Condition& c, std::size_t i, double hours) {
  const double L = lost(car, c, i);
  return L > 0 ? car.sunk(i, 1 - std::pow(1 - L, hours)) : 0;
}
/// ln of the hours until a corner has sunk so far that anybody sees it.
double hours_to_see(const FaultCar& car, const Condition& c, std::size_t i) {
  constexpr double seen = 0.015; // m
  const double L = lost(car, c, i);
  if (!(L > 0)) return 20;
  double low = 0, high = 1;
  if (car.sunk(i, 1) < seen) return 20;
  for (int n = 0; n < 30; ++n) {
    const double mid = (low + high) / 2;
    (car.sunk(i, mid) < seen ? low : high) = mid;
  }
  return std::log(std::max(std::log1p(-std::min(high, 0.999)) / std::log1p(-L), 1e-4));
}
double sinks_between(const FaultCar& car, const Condition& c, std::size_t i, double from, double to) {
  const double t = hours_to_see(car, c, i);
  return above(t, std::log(from), 0.3) * (1 - above(t, std::log(to), 0.3));
}
/// Share of the tank's air that goes an hour, to holes and to corners that sink.
double tank_hourly(const FaultCar& car, const Condition& c) {
  double out = car.tank_hourly(c.leak_tank);
  if (!(car.tank_air > 0)) return out;
  for (std::size_t i = 0; i < 4; ++i)
    out +=
        (lost(car, c, i) * (car.pressure[i] + car.ambient) * car.air[i]) / ((car.cut_out + car.ambient) * car.tank_air);
  return out;
}
double end_off(const Condition& c, std::size_t end) {
  // Sensors that read high leave the car low.
  const double l = -c.corners[2 * end].sensor_off, r = -c.corners[2 * end + 1].sensor_off;
  return l * r > 0 ? (std::abs(l) < std::abs(r) ? l : r) : 0;
}
/// Does the relief valve open before the switch?
bool never_full(const FaultCar& car, const Condition& c) {
  return c.relief_at > 0 && c.relief_at < car.cut_out + c.cut_shift;
}
double tank_ratio(const FaultCar& car, const Condition& c) {
  if (c.runs == control::CompressorRuns::never || c.delivery < 0.01 || never_full(car, c)) return INFINITY;
  return car.tank.at(c.delivery) / car.tank.at(1);
}

} // namespace

// ---- symptoms that a condition makes

double slow_up(const FaultCar& car, const Condition& c, std::size_t i) {
  return is_shut(car, c, i, &CornerCondition::fill) ? 0.15 : 0.92 * above(ratio_up(car, c, i), 1.6, 0.12);
}
double slow_down(const FaultCar& car, const Condition& c, std::size_t i) {
  return is_shut(car, c, i, &CornerCondition::vent) ? 0.15 : 0.92 * above(ratio_down(car, c, i), 1.6, 0.12);
}
double stuck_low(const FaultCar& car, const Condition& c, std::size_t i) {
  return !crossed(car, c, i) && is_shut(car, c, i, &CornerCondition::fill) ? 0.95 : 0;
}
double stuck_high(const FaultCar& car, const Condition& c, std::size_t i) {
  return !crossed(car, c, i) && is_shut(car, c, i, &CornerCondition::vent) ? 0.95 : 0;
}
double sinks_fast(const FaultCar& car, const Condition& c, std::size_t i) {
  return 0.92 * sinks_between(car, c, i, 1e-4, 0.4);
}
double sinks_night(const FaultCar& car, const Condition& c, std::size_t i) {
  return 0.9 * sinks_between(car, c, i, 0.4, 14);
}
double sinks_days(const FaultCar& car, const Condition& c, std::size_t i) {
  return 0.7 * sinks_between(car, c, i, 14, 150);
}
double rises(const FaultCar& car, const Condition& c, std::size_t i) {
  return 0.92 * above(std::log(std::max(risen(car, c, i, 1), 1e-6)), std::log(0.012), 0.3);
}
double pumps_often(const FaultCar& car, const Condition& c, std::size_t) {
  return 0.8 * above(std::log(std::max(tank_hourly(car, c), 1e-6)), std::log(0.07), 0.4);
}
double pumps_always(const FaultCar& car, const Condition& c, std::size_t) {
  if (c.runs == control::CompressorRuns::always) return 0.95;
  return never_full(car, c) ? 0.6 : 0;
}
double pumps_never(const FaultCar&, const Condition& c, std::size_t) {
  return c.runs == control::CompressorRuns::never ? 0.95 : 0;
}
double pumps_stops(const FaultCar&, const Condition& c, std::size_t) {
  return c.endurance < 1 ? 0.75 : 0;
}
double runs_in_vain(const FaultCar&, const Condition& c, std::size_t) {
  return c.runs == control::CompressorRuns::by_switch && c.delivery < 0.01 ? 0.9 : 0;
}
double fills_slowly(const FaultCar& car, const Condition& c, std::size_t) {
  return car.tank.shares.empty() || c.runs == control::CompressorRuns::never
             ? 0
             : 0.9 * above(tank_ratio(car, c), 1.4, 0.1);
}
double tank_low(const FaultCar& car, const Condition& c, std::size_t) {
  return 0.9 * above(1 - std::pow(1 - car.tank_hourly(c.leak_tank), 10), 0.35, 0.06);
}
double low_end(const FaultCar&, const Condition& c, std::size_t end) {
  return 0.85 * above(-end_off(c, end), 0.012, 0.003);
}
double high_end(const FaultCar&, const Condition& c, std::size_t end) {
  return 0.85 * above(end_off(c, end), 0.012, 0.003);
}
double leans(const FaultCar&, const Condition& c, std::size_t end) {
  const double apart = std::abs(c.corners[2 * end].sensor_off - c.corners[2 * end + 1].sensor_off);
  return 0.85 * above(apart, 0.012, 0.003);
}

/// Left and right of an end that are fed apart, and one takes longer.
double uneven(const FaultCar& car, const Condition& c, std::size_t end) {
  double out = 0;
  for (const auto& ratio : {ratio_up, ratio_down}) {
    const double l = std::log(ratio(car, c, 2 * end)), r = std::log(ratio(car, c, 2 * end + 1));
    out = std::max(out, 0.85 * above(std::abs(l - r), std::log(1.5), 0.1));
  }
  return out;
}

// ---- readings

double fill_time(const FaultCar& car, const Condition& c, std::size_t i) {
  const control::CornerCondition& corner = c.corners[i];
  if (is_shut(car, c, i, &CornerCondition::fill) || corner.line_to < 4) return INFINITY;
  // Where the feed chokes it is the tank's pressure that drives it.
  const double full = car.cut_out + car.ambient;
  double now = full + c.cut_shift;
  if (c.relief_at > 0) now = std::min(now, c.relief_at + car.ambient);
  return time_over(car, c, i, &CornerCondition::fill) * full / std::max(now, 1e5);
}
double vent_time(const FaultCar& car, const Condition& c, std::size_t i) {
  if (is_shut(car, c, i, &CornerCondition::vent) || c.corners[i].line_to < 4) return INFINITY;
  return time_over(car, c, i, &CornerCondition::vent);
}
double hold_loss(const FaultCar& car, const Condition& c, std::size_t i) {
  return lost(car, c, i);
}
double bag_loss(const FaultCar& car, const Condition& c, std::size_t i) {
  return car.hourly(i, c.corners[i].leak_bag);
}
double tank_loss(const FaultCar& car, const Condition& c, std::size_t) {
  return car.tank_hourly(c.leak_tank);
}
double creep(const FaultCar& car, const Condition& c, std::size_t i) {
  constexpr double ten_minutes = 1.0 / 6;
  return risen(car, c, i, ten_minutes) - sunk_in(car, c, i, ten_minutes);
}
double tank_fill(const FaultCar& car, const Condition& c, std::size_t) {
  if (c.runs == control::CompressorRuns::never || c.delivery < 0.01 || never_full(car, c)) return INFINITY;
  if (c.runs == control::CompressorRuns::always) return car.tank.at(1);
  // Lower pressures are pumped against more easily.
  return car.tank.at(c.delivery) * std::max(1 + 0.05 * c.cut_shift / 1e5, 0.5);
}
double cut_out(const FaultCar& car, const Condition& c, std::size_t) {
  if (c.runs != control::CompressorRuns::by_switch || c.delivery < 0.01 || never_full(car, c)) return INFINITY;
  return car.cut_out + c.cut_shift + c.gauge_shift;
}
double volts(const FaultCar& car, const Condition& c, std::size_t) {
  return c.runs == control::CompressorRuns::never ? 0 : car.volts - c.volts_lost;
}
double height_off(const FaultCar&, const Condition& c, std::size_t i) {
  return -c.corners[i].sensor_off;
}
double pressure_off(const FaultCar& car, const Condition& c, std::size_t i) {
  return car.a_newton[i] * c.corners[i].load;
}
double air_around(const FaultCar&, const Condition& c, std::size_t) {
  constexpr double usual = 285.15; // K, of a day of the year
  return c.air_around > 0 ? c.air_around : usual;
}
double goes_wrong_way(const FaultCar& car, const Condition& c, std::size_t i) {
  return crossed(car, c, i) ? 0.95 : 0;
}
double load_off(const FaultCar&, const Condition& c, std::size_t end) {
  return (c.corners[2 * end].load + c.corners[2 * end + 1].load) / standard_gravity;
}

} // namespace mavrel::assess::sign_figures
