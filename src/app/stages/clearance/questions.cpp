#include "app/stages/clearance/questions.h"

namespace mavrel::app {

GroundsAnswer GroundsQuestion::answer(const Given& given, const RunControl& control) {
  GroundsAnswer out;
  const auto& grounds = given.ground.grounds;
  for (std::size_t g = 0; g < grounds.size(); ++g) {
    out.planes.push_back(
        assess::ground_plane(given.ground, grounds[g], given.low, given.high, given.steps, control.stop));
    auto& least = out.least.emplace_back();
    for (const assess::PresetHeights& preset : given.ground.presets) {
      auto& here = least.emplace_back();
      if (control.stop.stop_requested()) return out;
      if (preset.use == grounds[g].over && preset.H[0] && preset.H[1])
        here = assess::least_heights(given.ground, grounds[g], *preset.H[0], *preset.H[1], given.high);
    }
    control.progress(static_cast<double>(g + 1) / static_cast<double>(grounds.size()));
  }
  return out;
}

} // namespace mavrel::app
