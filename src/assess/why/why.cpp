#include "assess/why/why.h"

#include "assess/why/remedies.h"
#include "parallel/in_parallel.h"

#include <algorithm>
#include <array>
#include <cmath>
#include <limits>
#include <stop_token>

namespace mavrel::assess {

using build::at;

namespace {

constexpr double worth_saying = 5e-4; // m

const std::optional<Window>& window_of(const EndAssessment& e, WhichWindow which) {
  return which == WhichWindow::reach ? e.windows.reach : e.windows.road;
}
const Edge& edge_of(const Window& window, WhichEdge which) {
  return which == WhichEdge::low ? window.low : window.high;
}

/// A figure of the road preset in the first load case.
std::optional<double> ride(const EndAnswer& answer, const build::Brief& brief) {
  for (std::size_t i = 0; i < brief.presets.size() && i < answer.assessment.presets.size(); ++i) {
    const auto& preset = answer.assessment.presets[i];
    if (brief.presets[i].use == build::PresetUse::road && preset && !preset->cases.empty() && preset->cases[0])
      return preset->cases[0]->ride_frequency;
  }
  return std::nullopt;
}

std::optional<double> camber_at(const EndAssessment& e, double H) {
  const Track* track = find_track(e.tracks, tracks::camber);
  return track ? track->at(H) : std::nullopt;
}

/// What the bag can no longer do that it could before.
std::vector<Message> new_troubles(const EndAssessment& before, const EndAssessment& after, const MisfitWords& with) {
  std::vector<Message> out;
  for (const Misfit& m : after.misfits) {
    const bool old =
        std::any_of(before.misfits.begin(), before.misfits.end(), [&](const Misfit& b) { return b.code == m.code; });
    if (!old) out.push_back(short_words(m, with));
  }
  return out;
}

constexpr std::size_t misfit_codes = static_cast<std::size_t>(MisfitCode::stroke_unknown) + 1;

/// An edge in all the cars that a design's readings may be of.
struct HeldEdge {
  std::optional<double> height; // m, H that it lies at or inside of in nine cases of ten; none: it does not
  std::array<std::size_t, misfit_codes> misfits{}; // in how many of them the bag can't do each
  std::array<std::optional<Misfit>, misfit_codes> first;
};
std::optional<HeldEdge> held_edge(const WhyGiven& given, const build::Build& build, const std::stop_token& stop) {
  const HoldingCars cars(build, given.shelf);
  const bool low = given.edge == WhichEdge::low;
  HeldEdge out;
  std::vector<double> edges;
  for (std::size_t i = 0; i < holding_draws; ++i) {
    if (stop.stop_requested()) return std::nullopt;
    const DrawnCar car = cars.car(i);
    const EndAssessment now =
        answer_end(end_given(car.build, shelf_of(car.build.variant(), given.shelf, car.card), given.end)).assessment;
    const auto& window = window_of(now, given.window);
    // No window at all is as far in as can be.
    const double none = low ? std::numeric_limits<double>::infinity() : -std::numeric_limits<double>::infinity();
    edges.push_back(window ? edge_of(*window, given.edge).height : none);
    std::array<bool, misfit_codes> seen{};
    for (const Misfit& m : now.misfits) {
      const auto code = static_cast<std::size_t>(m.code);
      if (!out.first[code]) out.first[code] = m;
      if (!seen[code]) ++out.misfits[code];
      seen[code] = true;
    }
  }
  if (low)
    std::sort(edges.begin(), edges.end());
  else
    std::sort(edges.begin(), edges.end(), std::greater<>());
  const double at = edges[static_cast<std::size_t>(std::ceil(holding_share * holding_draws)) - 1];
  if (std::isfinite(at)) out.height = at;
  return out;
}

/// What the bag can no longer do in more than one case of ten, and could before.
std::vector<Message> new_troubles(const HeldEdge& before, const HeldEdge& after, const MisfitWords& with) {
  constexpr auto may = static_cast<std::size_t>((1 - holding_share) * holding_draws + 0.5);
  std::vector<Message> out;
  for (std::size_t code = 0; code < after.misfits.size(); ++code)
    if (after.misfits[code] > may && before.misfits[code] <= may)
      out.push_back({words("in {0} of cases {1}"),
                     {share(static_cast<double>(after.misfits[code]) / holding_draws, 0),
                      short_words(*after.first[code], with)}});
  return out;
}

/// Leaves of the remedies what they are worth in nine cases of ten.
/// @returns whether it was not stopped
bool weigh_in_doubt(const WhyGiven& given, const MisfitWords& with, const std::stop_token& stop, Why& out) {
  const auto before = held_edge(given, given.build, stop);
  if (!before) return false;
  out.holds = before->height;
  const double sign = given.edge == WhichEdge::low ? -1 : 1;
  std::vector<std::optional<HeldEdge>> after(out.remedies.size());
  in_parallel(out.remedies.size(), {},
              [&](std::size_t i) { after[i] = held_edge(given, out.remedies[i].build, stop); });
  if (stop.stop_requested()) return false;
  std::vector<Remedy> left;
  for (std::size_t i = 0; i < out.remedies.size(); ++i) {
    Remedy& r = out.remedies[i];
    if (!after[i]) return false;
    const double buys = before->height && after[i]->height ? sign * (*after[i]->height - *before->height) : -1;
    // Where there was no window in nine of ten, one that there is then is worth all of itself, which is no length.
    if (!after[i]->height || (before->height && buys < worth_saying)) {
      out.no_help.push_back({words("{0} (not in nine cases of ten)"), {r.what}});
      continue;
    }
    r.edge = *after[i]->height, r.buys = before->height ? buys : 0;
    r.troubles = new_troubles(*before, *after[i], with);
    left.push_back(std::move(r));
  }
  out.remedies = std::move(left);
  return true;
}

} // namespace

std::optional<Why> why_not_further(const WhyGiven& given, const std::stop_token& stop) {
  const AnsweredEnd before(end_given(given.build, given.shelf, given.end));
  const EndAssessment& was = before->assessment;
  Why out;
  const auto& window = window_of(was, given.window);
  if (!window) return out;
  out.edge = edge_of(*window, given.edge);
  const double sign = given.edge == WhichEdge::low ? -1 : 1;
  const build::Brief& brief = given.build.variant().brief;
  const auto presets = preset_names(given.build), cases = case_names(given.build);
  std::size_t no_bag = 0; // how many other bags do not help
  for (Trial& trial : trials_for(given, before, out.edge->governing)) {
    if (stop.stop_requested()) return std::nullopt;
    const EndAnswer after = answer_end(end_given(trial.build, given.shelf, given.end));
    const auto& now = window_of(after.assessment, given.window);
    const double buys = now ? sign * (edge_of(*now, given.edge).height - out.edge->height) : -1;
    if (buys < worth_saying) {
      if (buys > -worth_saying && !trial.bag) out.no_help.push_back(trial.what);
      no_bag += trial.bag;
      continue;
    }
    Remedy r;
    r.what = std::move(trial.what);
    r.buys = buys;
    r.edge = edge_of(*now, given.edge).height;
    if (const auto& next = edge_of(*now, given.edge).governing) r.next = name_of(*next);
    const auto camber_before = camber_at(was, out.edge->height), camber_after = camber_at(after.assessment, r.edge);
    if (camber_before && camber_after) r.camber = *camber_after - *camber_before;
    const auto ride_before = ride(*before, brief), ride_after = ride(after, brief);
    if (ride_before && ride_after) r.frequency = *ride_after - *ride_before;
    if (was.windows.road && after.assessment.windows.road)
      r.road_width = after.assessment.windows.road->width() - was.windows.road->width();
    r.troubles = new_troubles(was, after.assessment, {presets, cases});
    r.build = std::move(trial.build);
    out.remedies.push_back(std::move(r));
  }
  if (no_bag > 0) out.no_help.push_back({words("{0} other bags"), {std::to_string(no_bag)}});
  if (given.sure == Sure::nine_in_ten && !weigh_in_doubt(given, {presets, cases}, stop, out)) return std::nullopt;
  std::stable_sort(out.remedies.begin(), out.remedies.end(), [](const Remedy& a, const Remedy& b) {
    if (a.troubles.empty() != b.troubles.empty()) return a.troubles.empty();
    return a.buys > b.buys;
  });
  return out;
}

} // namespace mavrel::assess
