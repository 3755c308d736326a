// A car's body on its two axles over a bump: bounce and pitch, the rear wheels meeting it a wheelbase later.
#pragma once

#include <array>
#include <vector>

namespace mavrel::motion {

/// The sprung body and what carries it. An axle's rate and damping are those of both its wheels together.
struct TwoAxleBody {
  double mass = 0;                 // kg
  double pitch_inertia = 0;        // kg·m², about the centre of gravity
  double front_arm = 0;            // m, centre of gravity behind the front axle
  double rear_arm = 0;             // m, and ahead of the rear axle
  std::array<double, 2> rate{};    // N/m, front and rear axle
  std::array<double, 2> damping{}; // N·s/m

  [[nodiscard]] double wheelbase() const { return front_arm + rear_arm; }
};

/// A rounded bump: half a cosine up and down again.
struct Bump {
  double height = 0.04; // m
  double length = 8;    // m along the road: long enough to shake the body and not the wheels
};

struct PitchRun {
  double step = 0;            // s between samples
  std::vector<double> bounce; // m, of the centre of gravity, up
  std::vector<double> pitch;  // rad, nose up
  double rear_done = 0;       // s, when the rear wheels have left the bump
  double unrest = 0;          // rad, root mean square of pitch in the time after that
};

/// The front wheels meet the bump at time 0; wheels follow the road.
/// @param speed     m/s, above 0
/// @param duration  s, from time 0; long enough to hold a second behind the bump
/// Source: docs/models.md, "Bounce and pitch".
[[nodiscard]] PitchRun run_over_bump(const TwoAxleBody& body, const Bump& bump, double speed, double duration);

} // namespace mavrel::motion
