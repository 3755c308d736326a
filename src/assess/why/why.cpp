#include "assess/why/why.h"

#include "assess/why/remedies.h"

#include <algorithm>
#include <cmath>

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

} // namespace

std::optional<Why> why_not_further(const WhyGiven& given, const std::atomic<bool>* stop) {
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
    if (stop && *stop) return std::nullopt;
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
  std::stable_sort(out.remedies.begin(), out.remedies.end(), [](const Remedy& a, const Remedy& b) {
    if (a.troubles.empty() != b.troubles.empty()) return a.troubles.empty();
    return a.buys > b.buys;
  });
  return out;
}

} // namespace mavrel::assess
