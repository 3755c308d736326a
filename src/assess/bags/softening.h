// What a volume beside the bag does for comfort, behind the line it has, and which line it should have.
#pragma once

#include "assess/end/end_answer.h"

namespace mavrel::assess {

/// Stiffness at the wheel and loss angle at one frequency.
struct StiffnessPoint {
  double frequency = 0;  // Hz
  double stiffness = 0;  // N/m at the wheel
  double loss_angle = 0; // rad, of the bag's own stiffness
};

struct Softening {
  double volume = 0, added = 0;              // m³, of the bag at this height and beside it
  air::Beyond beyond = air::Beyond::nothing; // of the pressure there, on which all of this rests
  double open_rate = 0, shut_rate = 0;       // N/m at the wheel, quick movement
  double begins = 0, middle = 0, ends = 0;   // Hz, the change from soft to stiff; 0 without a line
  std::optional<double> bounce;              // Hz, body on the bag as fitted, the tyre left out
  std::optional<double> ride;                // Hz, tyre and all: what the brief's comfort is judged by
  std::optional<double> bounce_open;         // Hz, were the line wide open
  std::optional<double> bounce_shut;         // Hz, were it shut
  double hop = 0;                            // Hz, wheel between tyre and the stiff bag
  double line_damping = 0;                   // share of critical that the line gives at body frequency
  std::optional<double> fitting_bore;        // m, puts the middle of the change between bounce and hop
  Message reason;                            // why that bore, or why none fits
  std::optional<double> volume_wanted;       // m³ wide open that would bring comfort inside the brief; none when it is
  std::optional<double> air_bag, air_added;  // kg from parked to the highest preset, both sides
  std::vector<StiffnessPoint> curve;         // as fitted, 0.05 to 30 Hz, the line as it breathes at each
};

constexpr double lowest_frequency = 0.05, highest_frequency = 30; // Hz, of the curve

struct SofteningGiven {
  AnsweredEnd end;
  double H = 0; // m, where it stands
  std::size_t load_case = 0;
  double frequency_high = 0; // Hz wanted at most
  [[nodiscard]] auto parts() const { return std::tie(end, H, load_case, frequency_high); }
  friend bool operator==(const SofteningGiven&, const SofteningGiven&) = default;
};

/// @param with_curve  the curve over frequency too
/// @returns the answer; or what is missing for it
/// Source: docs/models.md, "Added volume".
[[nodiscard]] Expected<Softening> softening(const FittedEnd& end, double H, std::size_t load_case,
                                            double frequency_high, bool with_curve = true);

struct SofteningQuestion {
  using Given = SofteningGiven;
  using Answer = Expected<Softening>;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) {
    return softening(given.end->fitted, given.H, given.load_case, given.frequency_high);
  }
};

/// The bore that puts the middle of the change between body bounce and wheel hop, for the added volume the end has, m.
/// @returns none where no line that can be bought does, or the end has no answer there
[[nodiscard]] std::optional<double> bore_between(const FittedEnd& end, double H, std::size_t load_case);

} // namespace mavrel::assess
