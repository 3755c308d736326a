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

double mass_flow(const Restriction& through, double p1, double p2, double T1) {
  const double choked = through.conductance * p1 * reference_density * std::sqrt(reference_temperature / T1);
  const double r = p2 / p1, b = through.critical_ratio;
  if (r <= b) return choked;
  const double x = (r - b) / (1 - b);
  return choked * std::sqrt(std::fmax(0, 1 - x * x));
}

double swing_conductance(const Restriction& through, double p_abs, double T, double swing) {
  // Near equal pressures the law becomes C·ρ0·√(T0/T)·√(2·p·Δp/(1 − b)). The describing function of a square root is
  // 4/π·∫ sin^1.5 over a quarter = 2/√π·Γ(5/4)/Γ(7/4) over the root of the amplitude.
  static const double gain = 2 / std::sqrt(std::numbers::pi) * std::tgamma(1.25) / std::tgamma(1.75);
  const double root = std::sqrt(2 * p_abs / ((1 - through.critical_ratio) * swing));
  return gain * through.conductance * reference_density * std::sqrt(reference_temperature / T) * root;
}

} // namespace mavrel::air
