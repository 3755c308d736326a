#include "air/added_volume.h"

#include <cmath>
#include <numbers>

namespace mavrel::air {

namespace {
constexpr double turn = 2 * std::numbers::pi;
} // namespace

std::complex<double> SoftenedBag::stiffness(double frequency) const {
  if (a == 0 || conductance == 0) return shut_rate();
  const std::complex<double> s(0, turn * frequency);
  const double G = conductance;
  return drive * (a * s + G) / (a * b * s + (a + b) * G) - per_height;
}

double SoftenedBag::begins() const {
  return conductance / a / turn;
}

double SoftenedBag::ends() const {
  return (a + b) * conductance / (a * b) / turn;
}

double SoftenedBag::middle() const {
  return std::sqrt(begins() * ends());
}

double SoftenedBag::conductance_for_middle(double frequency) const {
  return turn * frequency * a / std::sqrt(1 + a / b);
}

SoftenedBag softened_bag(const BagSection& at, double p, const BagSetting& setting, double conductance) {
  const BagForce f = bag_force(at, p);
  const double RT = pressure_work(setting.ambient.temperature);
  SoftenedBag out;
  out.drive = f.per_pressure * (p + setting.ambient.pressure()) * at.volume_slope / RT;
  out.a = setting.added_volume / (setting.n * RT);
  out.b = at.volume / (setting.n * RT);
  out.conductance = conductance;
  out.per_height = f.per_height;
  return out;
}

double line_swing(const BagSection& at, double p, const BagSetting& setting, double stroke) {
  // |Δp/x| = n·p·V'/V · aω/|abωi + (a+b)G|; at the middle ω² = (G/a)·(a+b)G/(ab) the line drops out.
  const double p_abs = p + setting.ambient.pressure();
  return stroke * setting.n * p_abs * at.volume_slope / at.volume / std::sqrt(2 + setting.added_volume / at.volume);
}

double breathing_conductance(const BagSection& at, double p, const BagSetting& setting, const Restriction& line,
                             double stroke, double frequency) {
  if (setting.added_volume == 0) return 0;
  const double p_abs = p + setting.ambient.pressure(), T = setting.ambient.temperature, RT = pressure_work(T);
  const double a = setting.added_volume / (setting.n * RT), b = at.volume / (setting.n * RT);
  const double omega = turn * frequency;
  const SwingLaw law = swing_law(line, p_abs, T);
  // Δ = D·aω/√((abω)² + ((a + b)G)²) across the line, and G = k/√Δ through it: with y = G²,
  // y² = κ²·((abω)² + (a + b)²·y), which has one root above 0.
  const double D = stroke * p_abs * at.volume_slope / RT;
  const double kappa = law.at_root * law.at_root / (D * a * omega);
  const double u = kappa * (a + b), v = kappa * a * b * omega;
  const double y = 0.5 * (u * u + std::sqrt(u * u * u * u + 4 * v * v));
  return std::fmin(std::sqrt(y), law.laminar);
}

Expected<std::vector<DynamicStiffness>> dynamic_stiffness(const BagCurve& curve, double height, double load,
                                                          const BagSetting& setting, double conductance,
                                                          std::span<const double> frequencies) {
  const auto state = bag_under_load(curve, height, load, setting);
  if (!state) return refuse(state.error());
  if (!(conductance > 0) || !std::isfinite(conductance))
    return refuse(words("A line's conductance is above 0, for example 2.5e-8 kg/(s·Pa)."));
  const SoftenedBag bag = softened_bag(curve.section(height), state->gauge_pressure, setting, conductance);
  std::vector<DynamicStiffness> out;
  out.reserve(frequencies.size());
  for (const double frequency : frequencies) {
    if (!(frequency > 0) || !std::isfinite(frequency))
      return refuse(words("A frequency is above 0 Hz, for example {0}."), {hertz(1.2)});
    const std::complex<double> K = bag.stiffness(frequency);
    out.push_back({frequency, K.real(), std::atan2(K.imag(), K.real())});
  }
  return out;
}

} // namespace mavrel::air
