#include "assess/height/track.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

std::optional<double> Track::at(double H) const {
  constexpr double slack = 1e-9; // a pose put exactly on an end still reads
  for (const TrackPiece& piece : pieces) {
    if (H < piece.from - slack || H > piece.to() + slack) continue;
    const double t = std::clamp((H - piece.from) / piece.step, 0.0, static_cast<double>(piece.values.size() - 1));
    auto i = std::min(static_cast<std::size_t>(t), piece.values.size() - 2);
    if (const double from = piece.from + piece.step * static_cast<double>(i);
        jumps_at && *jumps_at > from && *jumps_at < from + piece.step) {
      if (H < *jumps_at && i > 0) --i;
      if (H >= *jumps_at && i + 2 < piece.values.size()) ++i;
    }
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

const Track* find_track(const std::vector<Track>& tracks, const TrackRow& what) {
  const auto found = std::find_if(tracks.begin(), tracks.end(), [&](const Track& t) { return t.what == &what; });
  return found == tracks.end() ? nullptr : &*found;
}

} // namespace mavrel::assess
