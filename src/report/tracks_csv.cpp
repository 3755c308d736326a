#include "report/tracks_csv.h"

#include "build/names.h"

#include <fmt/format.h>

#include <cmath>

namespace mavrel::report {

using namespace assess;

namespace {

std::string quoted(const std::string& text) {
  if (text.find_first_of(",\"\n") == std::string::npos) return text;
  std::string out = "\"";
  for (const char c : text)
    out += c == '"' ? std::string("\"\"") : std::string(1, c);
  return out + "\"";
}

std::string cell(const Track* track, double H, double factor, int decimals) {
  const auto value = track ? track->at(H) : std::nullopt;
  return value ? fmt::format("{:.{}f}", *value * factor, decimals) : "";
}

bool covers(const std::vector<Stretch>& blocked, double H) {
  for (const Stretch& s : blocked)
    if (H >= s.from && H <= s.to) return true;
  return false;
}

} // namespace

std::string tracks_csv(const Assessment& a) {
  std::string out =
      "end,load_case,height_mm,pressure_bar,pressure_left_bar,pressure_right_bar,body_frequency_hz,ride_frequency_hz,"
      "bag_height_mm,damper_to_open_mm,damper_to_shut_mm,reach,road,beyond\n";
  for (const build::End end : build::both_ends) {
    const EndAssessment& e = a.end(end);
    if (!e.has_domain()) continue;
    for (std::size_t c = 0; c < a.loads.size(); ++c)
      for (double mm = std::ceil(e.domain_low * 1e3); mm <= std::floor(e.domain_high * 1e3); ++mm) {
        const double H = mm * 1e-3;
        const auto track = [&](TrackCode code) { return e.find(code, c); };
        const Track* mean = track(TrackCode::pressure);
        const Track* left = track(TrackCode::pressure_left);
        const Track* right = track(TrackCode::pressure_right);
        out += fmt::format(
            "{},{},{:.0f},{},{},{},{},{},{},{},{},{},{},{}\n", build::key_of(end), quoted(a.loads[c].name), mm,
            cell(mean, H, 1e-5, 3), cell(left ? left : mean, H, 1e-5, 3), cell(right ? right : mean, H, 1e-5, 3),
            cell(track(TrackCode::frequency), H, 1, 3), cell(track(TrackCode::ride_frequency), H, 1, 3),
            cell(track(TrackCode::bag_height), H, 1e3, 1), cell(track(TrackCode::damper_to_open), H, 1e3, 1),
            cell(track(TrackCode::damper_to_shut), H, 1e3, 1), covers(e.windows.reach_blocked, H) ? "blocked" : "free",
            covers(e.windows.road_blocked, H) ? "blocked" : "free", mean ? air::beyond_key(mean->beyond_at(H)) : "");
      }
  }
  return out;
}

} // namespace mavrel::report
