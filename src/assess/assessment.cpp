#include "assess/assessment.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

const char* limit_key(LimitCode code) {
  switch (code) {
  case LimitCode::bag_collapsed:
    return "bag_collapsed";
  case LimitCode::bag_full:
    return "bag_full";
  case LimitCode::bump_stop:
    return "bump_stop";
  case LimitCode::damper_shut:
    return "damper_shut";
  case LimitCode::damper_open:
    return "damper_open";
  case LimitCode::pressure_high:
    return "pressure_high";
  case LimitCode::pressure_low:
    return "pressure_low";
  case LimitCode::card_unknown:
    return "card_unknown";
  }
  return "";
}

const char* limit_name(LimitCode code) {
  switch (code) {
  case LimitCode::bag_collapsed:
    return words("bag collapsed");
  case LimitCode::bag_full:
    return words("bag at full height");
  case LimitCode::bump_stop:
    return words("bump stop");
  case LimitCode::damper_shut:
    return words("damper shut");
  case LimitCode::damper_open:
    return words("damper open");
  case LimitCode::pressure_high:
    return words("bag pressure high");
  case LimitCode::pressure_low:
    return words("bag pressure low");
  case LimitCode::card_unknown:
    return words("not on the bag's card");
  }
  return "";
}

const char* track_key(TrackCode code) {
  switch (code) {
  case TrackCode::pressure:
    return "pressure_pa";
  case TrackCode::pressure_left:
    return "pressure_left_pa";
  case TrackCode::pressure_right:
    return "pressure_right_pa";
  case TrackCode::frequency:
    return "body_frequency_hz";
  case TrackCode::ride_frequency:
    return "ride_frequency_hz";
  case TrackCode::bag_height:
    return "bag_height_m";
  case TrackCode::damper_to_open:
    return "damper_to_open_m";
  case TrackCode::damper_to_shut:
    return "damper_to_shut_m";
  }
  return "";
}

const char* track_name(TrackCode code) {
  switch (code) {
  case TrackCode::pressure:
    return words("pressure");
  case TrackCode::pressure_left:
    return words("pressure left");
  case TrackCode::pressure_right:
    return words("pressure right");
  case TrackCode::frequency:
    return words("frequency without the tyre");
  case TrackCode::ride_frequency:
    return words("ride frequency");
  case TrackCode::bag_height:
    return words("bag height");
  case TrackCode::damper_to_open:
    return words("damper to open");
  case TrackCode::damper_to_shut:
    return words("damper to shut");
  }
  return "";
}

Kind track_kind(TrackCode code) {
  switch (code) {
  case TrackCode::pressure:
  case TrackCode::pressure_left:
  case TrackCode::pressure_right:
    return Kind::pressure;
  case TrackCode::frequency:
  case TrackCode::ride_frequency:
    return Kind::frequency;
  default:
    return Kind::length;
  }
}

std::optional<double> Track::at(double H) const {
  constexpr double slack = 1e-9; // a pose put exactly on an end still reads
  for (const TrackPiece& piece : pieces) {
    if (H < piece.from - slack || H > piece.to() + slack) continue;
    const double t = std::clamp((H - piece.from) / piece.step, 0.0, static_cast<double>(piece.values.size() - 1));
    const auto i = std::min(static_cast<std::size_t>(t), piece.values.size() - 2);
    return std::lerp(piece.values[i], piece.values[i + 1], t - static_cast<double>(i));
  }
  return std::nullopt;
}

air::Beyond Track::beyond_at(double H) const {
  for (const BeyondStretch& s : beyond)
    if (H >= s.from && H <= s.to) return s.what;
  return air::Beyond::nothing;
}

std::optional<std::pair<double, double>> Track::range() const {
  std::optional<std::pair<double, double>> out;
  for (const TrackPiece& piece : pieces) {
    const auto [low, high] = std::minmax_element(piece.values.begin(), piece.values.end());
    out = out ? std::pair{std::min(out->first, *low), std::max(out->second, *high)} : std::pair{*low, *high};
  }
  return out;
}

const Track* CaseTracks::find(TrackCode code) const {
  const auto found = std::find_if(tracks.begin(), tracks.end(), [&](const Track& t) { return t.code == code; });
  return found == tracks.end() ? nullptr : &*found;
}

const Track* EndAssessment::find(TrackCode code, std::size_t load_case) const {
  if (load_case < cases.size())
    if (const Track* track = cases[load_case].find(code)) return track;
  const auto found = std::find_if(tracks.begin(), tracks.end(), [&](const Track& t) { return t.code == code; });
  return found == tracks.end() ? nullptr : &*found;
}

const char* severity_key(Severity severity) {
  switch (severity) {
  case Severity::stop:
    return "stop";
  case Severity::caution:
    return "caution";
  case Severity::note:
    return "note";
  }
  return "";
}

const char* stage_key(Stage stage) {
  return stage == Stage::car_in ? "car_in" : "bags";
}

StageState stage_state(const Assessment& assessment, Stage stage) {
  bool stop = false, caution = false;
  for (const Finding& f : assessment.findings) {
    if (f.stage != stage) continue;
    stop = stop || f.severity == Severity::stop;
    caution = caution || f.severity == Severity::caution;
  }
  if (stop) return StageState::stop;
  if (caution) return StageState::caution;
  // What stops nothing because nothing is known of it is not good.
  const auto known = [&](const EndAssessment& end) {
    return stage == Stage::car_in ? end.has_domain() : end.bag_known;
  };
  return known(assessment.ends[0]) && known(assessment.ends[1]) ? StageState::good : StageState::unknown;
}

} // namespace mavrel::assess
