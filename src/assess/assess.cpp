#include "assess/assess.h"

#include "assess/bag_on_end.h"
#include "assess/findings.h"
#include "assess/limits.h"
#include "assess/load.h"
#include "assess/misfit.h"
#include "assess/presets.h"
#include "assess/roll.h"
#include "curve/readings.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::at;

namespace {

constexpr double track_step = 0.001; // m, at most

/// Samples `value(H)` evenly over [low, high]; heights without an answer split the track.
template <class F>
Track sampled(TrackCode code, double low, double high, const F& value) {
  Track track{code, {}, {}};
  if (!(high > low)) return track;
  const auto steps = std::max(1, static_cast<int>(std::ceil((high - low) / track_step)));
  const double step = (high - low) / steps;
  TrackPiece piece{low, step, {}};
  const auto close = [&](int next) {
    if (piece.values.size() >= 2) track.pieces.push_back(piece);
    piece = {low + step * next, step, {}};
  };
  for (int i = 0; i <= steps; ++i) {
    const std::optional<double> v = value(std::min(low + step * i, high));
    if (v)
      piece.values.push_back(*v);
    else
      close(i + 1);
  }
  close(steps + 1);
  return track;
}

/// The end and its bag at every sampled height; every load case reads from these.
std::vector<std::optional<BagOnEnd::Place>> places_between(const BagOnEnd& bag, double low, double high) {
  std::vector<std::optional<BagOnEnd::Place>> out;
  if (!(high > low)) return out;
  const auto steps = std::max(1, static_cast<int>(std::ceil((high - low) / track_step)));
  out.reserve(static_cast<std::size_t>(steps) + 1);
  for (int i = 0; i <= steps; ++i)
    out.push_back(bag.place(std::min(low + (high - low) / steps * i, high)));
  return out;
}

/// Where the pressures lie beyond what the card knows or allows, sample by sample.
std::vector<BeyondStretch> beyond_stretches(double low, double high,
                                            const std::vector<std::optional<PoseState>>& states) {
  std::vector<BeyondStretch> out;
  const double step = (high - low) / static_cast<double>(states.size() - 1);
  for (std::size_t i = 0; i < states.size(); ++i) {
    if (!states[i] || states[i]->beyond == air::Beyond::nothing) continue;
    const double H = low + step * static_cast<double>(i);
    if (out.empty() || out.back().what != states[i]->beyond || H - out.back().to > 1.5 * step)
      out.push_back({H, H, states[i]->beyond});
    else
      out.back().to = H;
  }
  return out;
}

CaseTracks tracks_in_case(const BagOnEnd& bag, const EndLoad& load, double low, double high,
                          const std::vector<std::optional<BagOnEnd::Place>>& places) {
  CaseTracks out;
  const auto masses = bag.model().bag_masses(load);
  const bool sides_differ = std::abs(masses[0] - masses[1]) > 0.01 * load.sprung_mass;
  if (places.empty()) return out;
  std::vector<std::optional<PoseState>> states;
  states.reserve(places.size());
  for (const auto& at : places)
    states.push_back(at ? bag.state(*at, load) : std::nullopt);
  const auto add = [&](TrackCode code, auto figure) {
    std::size_t i = 0;
    out.tracks.push_back(sampled(code, low, high, [&](double) -> std::optional<double> {
      const auto& state = states[i++];
      return state ? figure(*state) : std::nullopt;
    }));
  };
  add(TrackCode::pressure, [](const PoseState& s) { return std::optional(s.pressure); });
  if (sides_differ) {
    add(TrackCode::pressure_left, [](const PoseState& s) { return std::optional(s.side_pressure[0]); });
    add(TrackCode::pressure_right, [](const PoseState& s) { return std::optional(s.side_pressure[1]); });
  }
  add(TrackCode::frequency, [](const PoseState& s) { return s.frequency; });
  add(TrackCode::ride_frequency, [](const PoseState& s) { return s.ride_frequency; });
  const auto beyond = beyond_stretches(low, high, states);
  for (Track& track : out.tracks)
    track.beyond = beyond;
  return out;
}

void add_tracks(const EndModel& model, const BagOnEnd* bag, EndAssessment& out) {
  const motion::TravelMap& map = *model.map;
  if (bag) {
    auto [low, high] = bag->heights();
    low = std::max(low, out.domain_low);
    high = std::min(high, out.domain_high);
    const auto places = places_between(*bag, low, high);
    for (const auto& load : model.loads)
      out.cases.push_back(load ? tracks_in_case(*bag, *load, low, high, places) : CaseTracks{});
    out.tracks.push_back(
        sampled(TrackCode::bag_height, low, high, [&](double H) { return std::optional(bag->bag_height(H)); }));
  }
  if (!map.has_damper()) return;
  if (model.damper_open)
    out.tracks.push_back(sampled(TrackCode::damper_to_open, out.domain_low, out.domain_high,
                                 [&](double H) { return std::optional(*model.damper_open - map.damper(H).value); }));
  if (model.damper_shut)
    out.tracks.push_back(sampled(TrackCode::damper_to_shut, out.domain_low, out.domain_high,
                                 [&](double H) { return std::optional(map.damper(H).value - *model.damper_shut); }));
}

void add_presets(const std::vector<std::optional<double>>& heights, const EndModel& model, const BagOnEnd* bag,
                 EndAssessment& out) {
  for (const auto& H : heights) {
    auto& preset = out.presets.emplace_back();
    if (!H) continue;
    preset = PresetAtEnd{*H,
                         out.windows.reach && out.windows.reach->contains(*H),
                         out.windows.road && out.windows.road->contains(*H),
                         {}};
    for (const auto& load : model.loads)
      preset->cases.push_back(bag && load ? bag->state(*H, *load) : std::nullopt);
  }
}

/// Strokes from road height, and all that the bag can't do.
void add_misfits(const build::Brief& brief, const BagOnEnd& bag, const std::vector<std::optional<double>>& heights,
                 std::optional<double> road, EndAssessment& out) {
  if (const auto m = misfit_of_room(bag)) out.misfits.push_back(*m);
  misfits_of_heights(brief, heights, out.windows, out.misfits);
  if (const auto m = misfit_of_stops(bag)) out.misfits.push_back(*m);
  const auto travel = free_travel(bag, Meeting::hit);
  const auto& loads = bag.model().loads;
  if (!road || !travel || !out.windows.reach || !out.windows.reach->contains(*road)) return;
  for (std::size_t c = 0; c < loads.size(); ++c) {
    out.strokes.push_back(loads[c] ? stroke_ends(bag, *loads[c], *road, *travel) : std::nullopt);
    const auto state = loads[c] ? bag.state(*road, *loads[c]) : std::nullopt;
    misfits_on_the_road(bag, state, out.strokes.back(), c, out.misfits);
  }
}

void assess_end(const build::Build& build, const shelf::Shelf& shelf, End end, Assessment& out) {
  EndAssessment& here = out.ends[at(end)];
  const build::EndSurvey& survey = build.end(end);
  const build::Variant& variant = build.variant();
  here.floor_correction = floor_corrections(build)[at(end)];
  for (const Side side : build::both_sides)
    if (const auto height = curve::mean(survey.corners[at(side)].height.values))
      here.side_height[at(side)] = *height + here.floor_correction[at(side)];
  here.unsprung_mass = unsprung_mass(survey);
  here.unsprung_estimated = !survey.unsprung_mass;
  here.motion_ratio = curve::mean(survey.motion_ratio.values);

  const EndModel model = end_model(build, end, out.loads);
  here.surveyed_height = model.surveyed_height;
  here.tyre_radius = model.tyre_radius;
  const build::EndFit& fit = variant.fit[at(end)];
  const shelf::ShelfBag* on_shelf = fit.bag.empty() ? nullptr : shelf.find(fit.bag);
  here.spring_base_estimated = model.spring_base_estimated;
  const auto heights = preset_heights(variant.brief, model);
  if (model.map) {
    std::optional<BagOnEnd> bag;
    if (on_shelf) bag.emplace(model, *on_shelf, fit.upper_stack + fit.lower_stack);
    const BagOnEnd* fitted = bag ? &*bag : nullptr;
    std::vector<double> wished;
    for (const auto& H : heights)
      if (H) wished.push_back(*H);
    if (const auto domain = domain_of(model, fitted, wished)) {
      here.domain_low = domain->low;
      here.domain_high = domain->high;
      const auto road = height_of_use(variant.brief, heights, build::PresetUse::road);
      here.windows = find_windows(model, fitted, *domain, road);
      add_tracks(model, fitted, here);
      add_presets(heights, model, fitted, here);
      here.bag_known = bag && !model.loads.empty() && model.loads[0];
      if (bag) add_misfits(variant.brief, *bag, heights, road, here);
    }
  }
  here.presets.resize(variant.brief.presets.size());
  here.cases.resize(out.loads.size());
  find_at_end(build, model, on_shelf, out);
}

/// How unevenly loaded joined sides leave the car leaning at road height, in every load case.
void add_standing_lean(const build::Build& build, const std::array<FittedEnd, 2>& ends, Assessment& out) {
  if (!ends[0].model.joined && !ends[1].model.joined) return;
  if (!ends[0].road || !ends[1].road) return;
  for (std::size_t c = 0; c < out.loads.size(); ++c)
    if (const auto answer = roll(build, ends, {*ends[0].road, *ends[1].road}, c))
      out.loads[c].standing_lean = answer->standing;
}

} // namespace

Assessment assess(const build::Build& build, const shelf::Shelf& shelf) {
  Assessment out;
  out.loads = case_loads(build);
  out.cross_weight = cross_weight(build);
  if (build.ends[0].corners[0].floor) {
    const double twist = floor_corrections(build)[0][0];
    if (twist != 0) out.floor_twist = twist;
  }
  for (const End end : build::both_ends)
    assess_end(build, shelf, end, out);
  const std::array<FittedEnd, 2> fitted = {fitted_end(build, shelf, End::front, out.loads),
                                           fitted_end(build, shelf, End::rear, out.loads)};
  add_standing_lean(build, fitted, out);
  find_in_survey(build, out);
  find_in_depth(build, fitted, out);
  find_on_car(build, out);
  sort_findings(out.findings);
  return out;
}

} // namespace mavrel::assess
