#include "assess/end/end_answer.h"

#include "assess/end/firming.h"
#include "assess/end/presets.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace tracks {
constinit const TrackRow pressure{"pressure", words("pressure"), Kind::pressure};
constinit const TrackRow pressure_left{"pressure_left", words("pressure left"), Kind::pressure, &pressure};
constinit const TrackRow pressure_right{"pressure_right", words("pressure right"), Kind::pressure, &pressure};
constinit const TrackRow frequency{"body_frequency", words("frequency without the tyre"), Kind::frequency};
constinit const TrackRow ride_frequency{"ride_frequency", words("ride frequency"), Kind::frequency};
constinit const TrackRow bag_height{"bag_height", words("bag height"), Kind::length};
constinit const TrackRow damper_to_open{"damper_to_open", words("damper to open"), Kind::length};
constinit const TrackRow damper_to_shut{"damper_to_shut", words("damper to shut"), Kind::length};
} // namespace tracks

namespace {

constexpr const TrackRow* track_rows[] = {&tracks::pressure,       &tracks::pressure_left,  &tracks::pressure_right,
                                          &tracks::frequency,      &tracks::ride_frequency, &tracks::bag_height,
                                          &tracks::damper_to_open, &tracks::damper_to_shut};
constexpr double track_step = 0.001; // m, at most

/// Where the pressures lie beyond what the card knows or allows, sample by sample.
std::vector<BeyondStretch> beyond_stretches(const Heights& heights,
                                            const std::vector<std::optional<PoseState>>& states) {
  std::vector<BeyondStretch> out;
  for (std::size_t i = 0; i < states.size(); ++i) {
    if (!states[i] || states[i]->beyond == air::Beyond::nothing) continue;
    const double H = heights.low + heights.step * static_cast<double>(i);
    if (out.empty() || out.back().what != states[i]->beyond || H - out.back().to > 1.5 * heights.step)
      out.push_back({H, H, states[i]->beyond});
    else
      out.back().to = H;
  }
  return out;
}

/// The end at every height in one load case. With a volume behind a line each frequency is a search of its own: there
/// it is found at every fourth height and read between them by the cubic through four, which it follows to a part in a
/// million.
std::vector<std::optional<PoseState>> states_at(const BagOnEnd& bag, const EndLoad& load, const BagAtHeights& at,
                                                std::size_t c) {
  const std::size_t count = at.places.size(), every = bag.model().setting.added_volume > 0 ? 4 : 1;
  std::vector<std::optional<PoseState>> out(count);
  const auto whole = [&](std::size_t i) {
    return at.places[i] ? bag.state(*at.places[i], load, at.sides[c][i]) : std::nullopt;
  };
  for (std::size_t i = 0; i < count; i += every)
    out[i] = whole(i);
  const auto found = [&](std::size_t i) { return i < count && out[i] && out[i]->frequency && out[i]->ride_frequency; };
  for (std::size_t i = 0; i < count; ++i) {
    const std::size_t a = i - i % every, b = a + every;
    if (a == i) continue;
    const double slack = bag.model().other_slack;
    const bool kept = !(bag.model().other_rate > 0) || b + every >= count || a < every ||
                      slack <= at.heights.H(a - every) || slack >= at.heights.H(b + every);
    const bool between = kept && a >= every && found(a - every) && found(a) && found(b) && found(b + every);
    out[i] = between && at.places[i] ? bag.pressures(*at.places[i], load, at.sides[c][i]) : whole(i);
    if (!between || !out[i]) continue;
    const double t = static_cast<double>(i - a) / static_cast<double>(every);
    const auto read = [&](auto figure) {
      return -t * (t - 1) * (t - 2) / 6 * figure(*out[a - every]) + (t + 1) * (t - 1) * (t - 2) / 2 * figure(*out[a]) -
             (t + 1) * t * (t - 2) / 2 * figure(*out[b]) + (t + 1) * t * (t - 1) / 6 * figure(*out[b + every]);
    };
    out[i]->frequency = read([](const PoseState& s) { return *s.frequency; });
    out[i]->ride_frequency = read([](const PoseState& s) { return *s.ride_frequency; });
    out[i]->wheel_rate = read([](const PoseState& s) { return s.wheel_rate; });
  }
  return out;
}

std::vector<Track> tracks_in_case(const BagOnEnd& bag, const EndLoad& load, const BagAtHeights& at, std::size_t c) {
  std::vector<Track> out;
  if (at.places.empty()) return out;
  const auto masses = bag.model().bag_masses(load);
  const bool sides_differ = std::abs(masses[0] - masses[1]) > 0.01 * load.sprung_mass;
  const auto states = states_at(bag, load, at, c);
  const auto add = [&](const TrackRow& what, auto figure) {
    out.push_back(track_of(what, at.heights, [&](std::size_t i) -> std::optional<double> {
      return states[i] ? figure(*states[i]) : std::nullopt;
    }));
  };
  add(tracks::pressure, [](const PoseState& s) { return std::optional(s.pressure); });
  if (sides_differ) {
    add(tracks::pressure_left, [](const PoseState& s) { return std::optional(s.side_pressure[0]); });
    add(tracks::pressure_right, [](const PoseState& s) { return std::optional(s.side_pressure[1]); });
  }
  add(tracks::frequency, [](const PoseState& s) { return s.frequency; });
  add(tracks::ride_frequency, [](const PoseState& s) { return s.ride_frequency; });
  const auto beyond = beyond_stretches(at.heights, states);
  const bool springs = bag.model().other_rate > 0;
  for (Track& track : out) {
    track.beyond = beyond;
    if (springs) track.jumps_at = bag.model().other_slack;
  }
  return out;
}

void add_tracks(const EndModel& model, const BagOnEnd* bag, const BagAtHeights& at, EndAssessment& out) {
  const motion::TravelMap& map = *model.map;
  if (bag) {
    for (std::size_t c = 0; c < model.loads.size(); ++c)
      out.cases.push_back(model.loads[c] ? tracks_in_case(*bag, *model.loads[c], at, c) : std::vector<Track>{});
    out.tracks.push_back(track_of(tracks::bag_height, at.heights,
                                  [&](std::size_t i) { return std::optional(bag->bag_height(at.heights.H(i))); }));
  }
  if (!map.has_damper()) return;
  const Heights heights = Heights::over(out.domain_low, out.domain_high, track_step);
  const auto damper = [&](std::size_t i) { return map.damper(heights.H(i)).value; };
  if (model.damper_open)
    out.tracks.push_back(track_of(tracks::damper_to_open, heights,
                                  [&](std::size_t i) { return std::optional(*model.damper_open - damper(i)); }));
  if (model.damper_shut)
    out.tracks.push_back(track_of(tracks::damper_to_shut, heights,
                                  [&](std::size_t i) { return std::optional(damper(i) - *model.damper_shut); }));
}

void add_presets(const FittedEnd& end, const BagOnEnd* bag, EndAssessment& out) {
  for (const auto& H : end.presets) {
    auto& preset = out.presets.emplace_back();
    if (!H) continue;
    preset = PresetAtEnd{*H,
                         out.windows.reach && out.windows.reach->contains(*H),
                         out.windows.road && out.windows.road->contains(*H),
                         {}};
    const auto place = bag ? bag->place(*H) : std::nullopt;
    for (const auto& load : end.model.loads)
      preset->cases.push_back(place && load ? bag->state(*place, *load) : std::nullopt);
  }
}

/// Strokes from every road height, and all that the bag can't do.
void add_misfits(const build::Brief& brief, const FittedEnd& end, const BagOnEnd& bag, EndAssessment& out) {
  if (const auto m = misfit_of_room(bag)) out.misfits.push_back(*m);
  misfits_of_heights(brief, end.presets, out.windows, out.misfits);
  misfits_of_stops(bag, out.misfits);
  out.preset_strokes.resize(end.presets.size());
  for (const std::size_t p : driven_presets(brief, end.presets, out.windows)) {
    for (std::size_t c = 0; c < end.model.loads.size(); ++c)
      out.preset_strokes[p].push_back(
          misfits_driven_at(bag, p, *end.presets[p], out.presets[p]->cases[c], c, out.misfits));
    if (out.strokes.empty()) out.strokes = out.preset_strokes[p];
  }
}

} // namespace

const std::span<const TrackRow* const> end_tracks = track_rows;

const Track* EndAssessment::find(const TrackRow& what, std::size_t load_case) const {
  if (load_case < cases.size())
    if (const Track* track = find_track(cases[load_case], what)) return track;
  return find_track(tracks, what);
}

AnsweredEnds ask_ends(const build::Build& build, const shelf::Shelf& shelf) {
  const auto ask = [&](End end) { return AnsweredEnd(end_given(build, shelf, end)); };
  return {ask(End::front), ask(End::rear)};
}

EndAnswer answer_end(const EndGiven& given) {
  const SurveyedEnd& read = *given.survey();
  EndAnswer out{fitted_end(given), {}};
  const FittedEnd& end = out.fitted;
  const EndModel& model = end.model;
  EndAssessment& here = out.assessment;
  here.surveyed_height = read.height;
  here.side_height = read.side_height;
  here.floor_correction = read.floor_correction;
  here.tyre_radius = model.tyre_radius;
  here.unsprung_mass = read.unsprung_mass;
  here.unsprung_estimated = !given.survey().given().survey.unsprung_mass;
  here.motion_ratio = model.motion_ratio;
  here.spring_from = model.spring_from;
  here.spring_base_estimated = model.spring_base_estimated;
  here.estimated = model.estimated;
  if (model.map) {
    std::optional<BagOnEnd> bag;
    if (end.bag) bag.emplace(end.on());
    const BagOnEnd* fitted = bag ? &*bag : nullptr;
    std::vector<double> wished;
    for (const auto& H : end.presets)
      if (H) wished.push_back(*H);
    if (const auto domain = domain_of(model, fitted, wished)) {
      here.domain_low = domain->low;
      here.domain_high = domain->high;
      const BagAtHeights at = bag ? bag_at_heights(*bag, *domain, track_step) : BagAtHeights{};
      here.gaps = given.clearance->gaps;
      std::vector<Block> bag_blocks;
      if (bag) add_bag_gaps(given.clearance.given(), *given.clearance, bag_body(*bag), here.gaps, bag_blocks);
      here.windows = find_windows(model, fitted, at, *domain, end.road, &bag_blocks);
      add_tracks(model, fitted, at, here);
      add_motion_tracks(given, model, here.domain_low, here.domain_high, here.tracks);
      add_presets(end, fitted, here);
      here.bag_known = bag && !model.loads.empty() && model.loads[0];
      if (bag) add_misfits(given.brief, end, *bag, here);
      here.firms_most = firms_most(given, here.windows);
    }
  }
  here.presets.resize(end.presets.size());
  here.cases.resize(model.loads.size());
  return out;
}

} // namespace mavrel::assess
