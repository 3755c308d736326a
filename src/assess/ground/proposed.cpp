#include "assess/ground/proposed.h"

#include "assess/end/end_answer.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr double step = 0.001; // m
/// An end that is raised lifts what is between the axles by less than that: so much more for what it is short of.
constexpr double lifts_less = 1.4;

double up(double H) {
  return std::ceil(H / step - 1e-6) * step;
}
double down(double H) {
  return std::floor(H / step + 1e-6) * step;
}

bool is_tight(const EndAssessment& end, double H) {
  return std::any_of(end.gaps.begin(), end.gaps.end(), [&](const GapCurve& gap) {
    const auto g = gap.at(H, true);
    return g && *g < gap.near.room;
  });
}

double parked_height(const EndAssessment& end) {
  const Window& reach = *end.windows.reach;
  for (double H = reach.low.height; H <= reach.high.height; H += step)
    if (!is_tight(end, H)) return up(H);
  return up(reach.low.height);
}

std::optional<double> ramp_height(const EndAssessment& end_here, End end, const Answered<GroundQuestion>& ground) {
  const auto& given = ground.given();
  for (std::size_t p = 0; p < given.presets.size(); ++p) {
    const PresetHeights& preset = given.presets[p];
    if (preset.use != build::PresetUse::ramp || !preset.H[0] || !preset.H[1]) continue;
    std::optional<double> H;
    const double here = *preset.H[build::at(end)];
    for (const Crossing& c : ground->crossings) {
      if (c.preset != p || !c.gap) continue;
      const double margin = given.grounds[c.ground].margin;
      H = std::max(H.value_or(here), c.clears(margin) ? here : here + lifts_less * (margin - c.gap->gap));
    }
    if (!H) return std::nullopt;
    return std::min(up(*H), down(end_here.windows.reach->high.height));
  }
  return std::nullopt;
}

} // namespace

std::optional<double> proposed_height(const EndAssessment& here, End end, const Answered<GroundQuestion>& ground,
                                      build::PresetUse use) {
  if (!here.windows.reach) return std::nullopt;
  if (use == build::PresetUse::parked) return parked_height(here);
  return use == build::PresetUse::ramp ? ramp_height(here, end, ground) : std::nullopt;
}

build::Build with_preset_at(const build::Build& build, const EndAssessment& here, End end, build::PresetUse use,
                            double H) {
  build::Build out = build;
  for (build::Preset& preset : out.variant().brief.presets) {
    if (preset.use != use) continue;
    auto& wish = preset.wish[build::at(end)];
    wish = wish_for_height(H, wish.value_or(build::HeightWish{}), here.surveyed_height, here.tyre_radius);
    break;
  }
  return out;
}

} // namespace mavrel::assess
