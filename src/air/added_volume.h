// A volume beside a bag, behind a line: soft for slow movement, stiff for quick, damping between.
#pragma once

#include "air/bag.h"
#include "air/flow.h"

#include <complex>
#include <span>
#include <vector>

namespace mavrel::air {

/// A bag at one height and pressure with its added volume behind a line, ready to be asked at any frequency.
/// K(s) = drive·(a·s + G)/(a·b·s + (a + b)·G) − ∂F/∂h. Source: docs/models.md, "Added volume".
struct SoftenedBag {
  double drive = 0;       // ∂F/∂p·p_abs·V'/(RT), kg/m²
  double a = 0, b = 0;    // Va/(nRT) and V/(nRT), kg/Pa
  double conductance = 0; // G, kg/(s·Pa)
  double per_height = 0;  // ∂F/∂h at constant pressure, N/m

  /// Complex stiffness, N/m. @param frequency  Hz, 0 or more
  [[nodiscard]] std::complex<double> stiffness(double frequency) const;
  /// Rates with the line wide open and shut, N/m.
  [[nodiscard]] double open_rate() const { return drive / (a + b) - per_height; }
  [[nodiscard]] double shut_rate() const { return drive / b - per_height; }
  /// Where the change from soft to stiff begins, is steepest, and ends, Hz. Only with an added volume and a line.
  [[nodiscard]] double begins() const;
  [[nodiscard]] double middle() const;
  [[nodiscard]] double ends() const;
  /// The conductance that puts the middle of the change at a frequency, kg/(s·Pa).
  [[nodiscard]] double conductance_for_middle(double frequency) const;
};

/// @param setting  with the added volume behind the line
[[nodiscard]] SoftenedBag softened_bag(const BagSection& at, double p, const BagSetting& setting, double conductance);

/// Amplitude of the pressure difference across the line at the middle of the change, Pa, for a sinusoidal stroke of the
/// bag: there it does not depend on the line. @param stroke  amplitude at the bag, m
[[nodiscard]] double line_swing(const BagSection& at, double p, const BagSetting& setting, double stroke);

/// The conductance a line settles at while the bag is stroked: how freely it breathes depends on the pressure
/// difference across it, and that on how freely it breathes, so both are worked out together.
/// @param stroke     amplitude at the bag, m, above 0
/// @param frequency  Hz, above 0
/// @returns kg/(s·Pa); 0 without an added volume
/// Source: docs/models.md, "Added volume".
[[nodiscard]] double breathing_conductance(const BagSection& at, double p, const BagSetting& setting,
                                           const Restriction& line, double stroke, double frequency);

/// Sinusoidal stiffness of a bag with a volume behind a restriction.
struct DynamicStiffness {
  double frequency = 0;  // Hz
  double stiffness = 0;  // N/m, the part in phase with movement
  double loss_angle = 0; // rad
};

/// @param conductance  of the line, linearised, kg/(s·Pa), above 0
/// @param frequencies  Hz
[[nodiscard]] Expected<std::vector<DynamicStiffness>> dynamic_stiffness(const BagCurve& curve, double height,
                                                                        double load, const BagSetting& setting,
                                                                        double conductance,
                                                                        std::span<const double> frequencies);

} // namespace mavrel::air
