#include "air/flow.h"

#include <cmath>
#include <numbers>

namespace mavrel::air {

Restriction tube(double bore, double length) {
  Restriction out;
  out.conductance = 0.029 * bore * bore / std::sqrt(length / std::pow(bore, 1.25) + 510);
  out.critical_ratio = 474 * out.conductance / (bore * bore);
  return out;
}

Restriction in_series(std::span<const Restriction> parts) {
  double cubes = 0, lost = 0;
  for (const Restriction& part : parts)
    cubes += std::pow(part.conductance, -3);
  const double C = 1 / std::cbrt(cubes);
  for (const Restriction& part : parts)
    lost += (1 - part.critical_ratio) * (C / part.conductance) * (C / part.conductance);
  return {C, std::fmax(0, 1 - lost)};
}

double share_of_loss(const Restriction& part, const Restriction& row) {
  return std::pow(row.conductance / part.conductance, 3);
}

namespace {

/// Mass flow over the choked one at a ratio of pressures.
double flow_share(double r, double b) {
  if (r <= b) return 1;
  const double x = (r - b) / (1 - b);
  return std::sqrt(std::fmax(0, 1 - x * x));
}

double choked_flow(const Restriction& through, double p1, double T1) {
  return through.conductance * p1 * reference_density * std::sqrt(reference_temperature / T1);
}

} // namespace

double mass_flow(const Restriction& through, double p1, double p2, double T1) {
  const double choked = choked_flow(through, p1, T1);
  const double r = p2 / p1, laminar_from = 1 - laminar_share;
  if (r <= laminar_from) return choked * flow_share(r, through.critical_ratio);
  return choked * flow_share(laminar_from, through.critical_ratio) * (1 - r) / laminar_share;
}

SwingLaw swing_law(const Restriction& through, double p_abs, double T) {
  // Near equal pressures the law becomes C·ρ0·√(T0/T)·√(2·p·Δp/(1 − b)). The describing function of a square root is
  // 4/π·∫ sin^1.5 over a quarter = 2/√π·Γ(5/4)/Γ(7/4) over the root of the amplitude.
  static const double gain = 2 / std::sqrt(std::numbers::pi) * std::tgamma(1.25) / std::tgamma(1.75);
  const double wide_open = choked_flow(through, p_abs, T);
  return {gain * wide_open / p_abs * std::sqrt(2 * p_abs / (1 - through.critical_ratio)),
          wide_open * flow_share(1 - laminar_share, through.critical_ratio) / (laminar_share * p_abs)};
}

double swing_conductance(const Restriction& through, double p_abs, double T, double swing) {
  const SwingLaw law = swing_law(through, p_abs, T);
  return std::fmin(law.at_root / std::sqrt(swing), law.laminar);
}

} // namespace mavrel::air
