// Air through narrow places: sonic conductance and critical ratio (ISO 6358), and what remains of them for small
// swings.
#pragma once

namespace mavrel::air {

/// A line, valve or fitting as the standard describes it.
struct Restriction {
  double conductance = 0;    // m³/(s·Pa) at reference conditions, C
  double critical_ratio = 0; // downstream over upstream absolute pressure at which flow chokes, b
};

constexpr double reference_density = 1.185;      // kg/m³, ISO 6358
constexpr double reference_temperature = 293.15; // K

/// A straight tube. @param bore, length  m, bore above 0, length 0 or more
/// Source: docs/models.md, "Flow".
[[nodiscard]] Restriction tube(double bore, double length);

/// @param p1, p2  absolute pressures upstream and downstream, Pa, p1 ≥ p2 > 0
/// @param T1      K, upstream
/// @returns mass flow, kg/s
[[nodiscard]] double mass_flow(const Restriction& through, double p1, double p2, double T1);

/// Conductance that passes as much as the restriction does in a sinusoidal swing: the flow grows with the root of a
/// small pressure difference, so how freely a line breathes depends on how hard it is asked (describing function).
/// @param p_abs  mean absolute pressure on both sides, Pa
/// @param swing  amplitude of the pressure difference, Pa, above 0
/// @returns kg/(s·Pa)
[[nodiscard]] double swing_conductance(const Restriction& through, double p_abs, double T, double swing);

} // namespace mavrel::air
