#include "air/bag.h"

#include <algorithm>
#include <cmath>

namespace mavrel::air {

namespace {

Message outside_card(const BagCurve& curve, double height) {
  const double near = height < curve.lowest() ? curve.lowest() : curve.highest();
  return {words("{0} lies outside the card, which answers from {1} to {2}."),
          {told_from(metres(height, 1), near), told_from(metres(curve.lowest(), 1), height),
           told_from(metres(curve.highest(), 1), height)}};
}

double column_force(const BagSection& at, std::size_t j) {
  return (*at.pressures)[j] * at.area[j];
}

} // namespace

Peak peak_of(const BagCard& card) {
  constexpr double usual_peak = 1.5; // of the steady maximum
  if (card.peak_pressure > 0) return {card.peak_pressure, true};
  return {usual_peak * card.max_pressure, false};
}

Beyond beyond(const BagCard& card, double p) {
  constexpr double rounding = 1e-9; // of the pressure: one put on the edge is not beyond it
  if (p > card.max_pressure * (1 + rounding)) return Beyond::maximum;
  if (p > card.pressures.back() * (1 + rounding)) return Beyond::last_column;
  if (p < card.min_pressure * (1 - rounding)) return Beyond::under_minimum;
  return Beyond::nothing;
}

const char* beyond_key(Beyond what) {
  switch (what) {
  case Beyond::nothing:
    return "";
  case Beyond::under_minimum:
    return "min_pressure";
  case Beyond::last_column:
    return "last_column";
  case Beyond::maximum:
    return "max_pressure";
  }
  return "";
}

const char* beyond_name(Beyond what) {
  switch (what) {
  case Beyond::nothing:
    return "";
  case Beyond::under_minimum:
    return words("under the bag's minimum");
  case Beyond::last_column:
    return words("above the card's last pressure");
  case Beyond::maximum:
    return words("above the bag's maximum");
  }
  return "";
}

BagForce bag_force(const BagSection& at, double p) {
  const std::vector<double>& columns = *at.pressures;
  const std::size_t last = columns.size() - 1;
  if (p <= columns.front() || last == 0) return {p * at.area[0], at.area[0], p * at.area_slope[0]};
  if (p >= columns.back()) return {p * at.area[last], at.area[last], p * at.area_slope[last]};
  std::size_t j = 0;
  while (p >= columns[j + 1])
    ++j;
  const double step = columns[j + 1] - columns[j];
  const double t = (p - columns[j]) / step;
  const double area = at.area[j] + t * (at.area[j + 1] - at.area[j]);
  const double dAdp = (at.area[j + 1] - at.area[j]) / step;
  const double dAdh = at.area_slope[j] + t * (at.area_slope[j + 1] - at.area_slope[j]);
  return {p * area, area + p * dAdp, p * dAdh};
}

double pressure_for_load(const BagSection& at, double load) {
  const std::size_t last = at.pressures->size() - 1;
  if (load <= column_force(at, 0)) return load / at.area[0];
  if (load >= column_force(at, last)) return load / at.area[last];
  std::size_t j = 0;
  while (load >= column_force(at, j + 1))
    ++j;
  // Between two columns the area is linear in p, so p·A(p) = load is a quadratic; its root in the interval
  // in the form that keeps its digits when the area hardly changes.
  const double p0 = (*at.pressures)[j];
  const double slope = (at.area[j + 1] - at.area[j]) / ((*at.pressures)[j + 1] - p0);
  const double b = at.area[j] - slope * p0;
  return 2 * load / (b + std::sqrt(b * b + 4 * slope * load));
}

double sealed_rate(const BagSection& at, double p, double n, const BagSetting& setting) {
  const BagForce f = bag_force(at, p);
  const double p_abs = p + setting.ambient.pressure();
  return n * p_abs * at.volume_slope / (at.volume + setting.added_volume) * f.per_pressure - f.per_height;
}

Expected<BagState> bag_under_load(const BagCurve& curve, double height, double load, const BagSetting& setting) {
  if (!curve.contains(height)) return refuse(outside_card(curve, height));
  if (!(load >= 0) || !std::isfinite(load))
    return refuse(words("A bag pushes only: a load of {0} has no answer."), {Amount{load, Kind::force, -1, {}}});
  const BagSection at = curve.section(height);
  const double p = pressure_for_load(at, load);
  const BagForce f = bag_force(at, p);
  BagState out;
  out.gauge_pressure = p;
  out.effective_area = p > 0 ? f.force / p : at.area[0];
  out.volume = at.volume;
  out.air_mass =
      air_mass(p + setting.ambient.pressure(), at.volume + setting.added_volume, setting.ambient.temperature);
  out.rate_slow = sealed_rate(at, p, 1, setting);
  out.rate_fast = sealed_rate(at, p, setting.n, setting);
  return out;
}

Expected<StrokePoint> sealed_stroke(const BagCurve& curve, double from, double p, double to, double n,
                                    const BagSetting& setting) {
  if (!curve.contains(from)) return refuse(outside_card(curve, from));
  if (!curve.contains(to)) return refuse(outside_card(curve, to));
  const double ambient = setting.ambient.pressure();
  const double V0 = curve.section(from).volume + setting.added_volume;
  const BagSection there = curve.section(to);
  const double V1 = there.volume + setting.added_volume;
  StrokePoint out;
  out.height = to;
  out.gauge_pressure = polytropic_pressure(p + ambient, V0, V1, n) - ambient;
  out.force = bag_force(there, out.gauge_pressure).force;
  out.temperature = polytropic_temperature(setting.ambient.temperature, V0, V1, n);
  return out;
}

} // namespace mavrel::air
