#include "assess/end/firming.h"

#include "assess/end/end_answer.h"
#include "build/names.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

/// A reading of the survey by its key in the file.
build::Readings* reading(build::EndSurvey& survey, std::string_view field) {
  const std::pair<std::string_view, build::Readings*> all[] = {
      {"motion_ratio", &survey.motion_ratio},     {"damper_ratio", &survey.damper_ratio},
      {"spring_length_m", &survey.spring_length}, {"damper_length_m", &survey.damper_length},
      {"damper_open_m", &survey.damper_open},     {"damper_shut_m", &survey.damper_shut},
      {"bump_stop_gap_m", &survey.bump_stop_gap},
  };
  for (const auto& [key, readings] : all)
    if (key == field) return readings;
  return nullptr;
}

/// The windows as they would be with one reading taken.
Windows windows_with(const EndGiven& given, const EndModel& model, const char* field, double value) {
  SurveyGiven survey = given.survey().given();
  // A damper's ends are held against its length: that stays where it is taken to be.
  if (model.map->has_damper())
    survey.survey.damper_length.values = {model.map->damper(given.motion()->surveyed_height).value};
  reading(survey.survey, field)->values = {value};
  EndGiven moved = given;
  MotionGiven motion = given.motion().given();
  motion.survey = Answered<SurveyQuestion>(std::move(survey));
  ClearanceGiven clearance = given.clearance.given();
  clearance.motion = Answered<MotionQuestion>(std::move(motion));
  moved.clearance = Answered<ClearanceQuestion>(std::move(clearance));
  const FittedEnd end = fitted_end(moved);
  std::optional<BagOnEnd> bag;
  if (end.bag) bag.emplace(end.on());
  std::vector<double> wished;
  for (const auto& H : end.presets)
    if (H) wished.push_back(*H);
  const auto domain = domain_of(end.model, bag ? &*bag : nullptr, wished);
  return domain ? find_windows(end.model, bag ? &*bag : nullptr, *domain, end.road) : Windows{};
}

/// How far the farthest edge moved, m; a window that opens or closes moves by its whole width.
double moved_by(const Windows& a, const Windows& b) {
  double out = 0;
  for (const auto window : {&Windows::reach, &Windows::road}) {
    const auto &before = a.*window, &after = b.*window;
    if (before && after)
      out = std::max(
          {out, std::abs(before->low.height - after->low.height), std::abs(before->high.height - after->high.height)});
    else if (before || after)
      out = std::max(out, (before ? before : after)->width());
  }
  return out;
}

} // namespace

std::optional<Firming> firms_most(const EndGiven& given, const Windows& windows) {
  const EndModel model = end_model(given);
  if (!model.map || model.estimated.empty()) return std::nullopt;
  Firming out;
  const auto offer = [&](const char* field, double value) {
    const double moves = moved_by(windows, windows_with(given, model, field, value));
    if (!out.field || moves > out.moves + 1e-9) out = {field, moves};
  };
  for (const Estimate& estimate : model.estimated) {
    const bool open = std::string_view(estimate.field) == "damper_open_m";
    const double value = estimate.from_now ? (open ? *model.damper_open : *model.damper_shut) : estimate.usual.value;
    for (const double doubt : {-estimate.usual.doubt, estimate.usual.doubt})
      offer(estimate.field, value + doubt);
  }
  if (!model.stop_height && model.stop_ratio)
    offer("bump_stop_gap_m", stand_ins(given.survey().given().survey.layout).stop_gap.value * *model.stop_ratio);
  return out;
}

} // namespace mavrel::assess
