// Air through narrow places: sonic conductance and critical ratio (ISO 6358), and what remains of them for small
// swings.
#pragma once

#include <span>

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

/// Restrictions one after the other: C = (Σ Cᵢ⁻³)^(−1/3), b = 1 − C²·Σ (1 − bᵢ)/Cᵢ², below 0 counts as 0.
/// @param parts  at least one, each with a conductance above 0
/// Source: docs/models.md, "Flow".
[[nodiscard]] Restriction in_series(std::span<const Restriction> parts);
/// Each one's share of what such a row loses: Cᵢ⁻³ over their sum. They add up to 1.
[[nodiscard]] double share_of_loss(const Restriction& part, const Restriction& row);

/// Share of the upstream pressure up to which a difference drives laminar flow, in proportion to it.
constexpr double laminar_share = 0.001;

/// @param p1, p2  absolute pressures upstream and downstream, Pa, p1 ≥ p2 > 0
/// @param T1      K, upstream
/// @returns mass flow, kg/s
/// Source: docs/models.md, "Flow".
[[nodiscard]] double mass_flow(const Restriction& through, double p1, double p2, double T1);

/// Conductance that passes as much as the restriction does in a sinusoidal swing: the flow grows with the root of a
/// small pressure difference, so how freely a line breathes depends on how hard it is asked (describing function). It
/// never breathes more freely than laminar flow does.
/// @param p_abs  mean absolute pressure on both sides, Pa
/// @param swing  amplitude of the pressure difference, Pa, above 0
/// @returns kg/(s·Pa)
[[nodiscard]] double swing_conductance(const Restriction& through, double p_abs, double T, double swing);

/// The two parts of that rule: conductance times the root of the swing, kg/(s·√Pa), and the laminar one, kg/(s·Pa).
struct SwingLaw {
  double at_root = 0;
  double laminar = 0;
};
[[nodiscard]] SwingLaw swing_law(const Restriction& through, double p_abs, double T);

} // namespace mavrel::air
