// All that keeping the height is worked out from, and the rolling car it makes.
#pragma once

#include "assess/air/car_air.h"
#include "assess/bags/roll.h"
#include "assess/leveling/leveling_findings.h"
#include "control/drive.h"

namespace mavrel::assess {

struct LevelingGiven {
  AirGiven air;
  build::Leveling leveling;
  build::Drive drive;
  std::array<std::vector<build::DamperPoint>, 2> damper_curves;
  CarInBend bend;
  double gauge_error = 0;    // Pa, either way
  double bump_travel = 0;    // m that the brief keeps below road height
  std::size_t load_case = 0; // that the car drives in
  [[nodiscard]] auto parts() const {
    return std::tie(air, leveling, drive, damper_curves, bend, gauge_error, bump_travel, load_case);
  }
  friend bool operator==(const LevelingGiven& a, const LevelingGiven& b) { return a.parts() == b.parts(); }
};
[[nodiscard]] LevelingGiven leveling_given(const build::Build& build, const AirGiven& air, std::size_t load_case);

/// A car that can be driven: what it is made of, its circuits, and what was learned of it at one preset.
struct LearnedCar {
  control::RollingCarParts parts;
  std::vector<control::ValvePair> circuits;
  std::array<double, 4> target{};             // m, H
  std::array<double, 4> pressure{};           // Pa gauge at it
  std::vector<control::LearnedBurst> learned; // one a circuit
  bool damper_assumed = false;                // a usual damper stands in at one end or both
};
/// @param heights  m, H wanted, front and rear
/// @param running  may the compressor run?
/// @returns the car standing at these heights with a full tank; or what is missing, said as a builder would
/// Source: docs/models.md, "Rolling car".
[[nodiscard]] Expected<LearnedCar> learned_car(const LevelingGiven& given, const std::array<double, 2>& heights,
                                               bool running = true, bool aired_out = false);
/// The same at the road preset.
[[nodiscard]] Expected<LearnedCar> learned_car(const LevelingGiven& given);

/// A drive of that car by rules of its own. @param road  of the same drive; shared by all that are compared
[[nodiscard]] control::DriveGiven drive_given(const LevelingGiven& given, const LearnedCar& car,
                                              const control::Rules& rules, std::shared_ptr<const control::Road> road);
/// The drive's road, as long as the drive or until it comes round again.
[[nodiscard]] std::shared_ptr<const control::Road> road_of(const LevelingGiven& given);

/// A road comes round again after this, m: nobody remembers it by then.
constexpr double longest_road = 8000;

} // namespace mavrel::assess
