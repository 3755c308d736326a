#include "assess/bags/gauge.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr double step = 0.002;      // m between bands shown
constexpr double fine_step = 0.003; // m between heights searched; the band's ends are refined

/// The gauge pressures possible at one height: friction may hold some of the load up, or press on it, and the load
/// itself is known only so well.
struct Possible {
  double H, least, most;
};

class Tale {
public:
  Tale(const FittedEnd& end, const Window& reach, std::size_t load_case, const GaugeDoubt& doubt)
      : end_(end), bag_(end.on()), mass_(end.model.loads[load_case]->sprung_mass), doubt_(doubt) {
    const auto [card_low, card_high] = bag_.heights();
    low_ = std::max(reach.low.height, card_low);
    high_ = std::min(reach.high.height, card_high);
    const auto steps = std::max(1, static_cast<int>(std::ceil((high_ - low_) / fine_step)));
    for (int i = 0; i <= steps; ++i)
      if (const auto p = possible(std::min(low_ + (high_ - low_) / steps * i, high_))) all_.push_back(*p);
  }

  [[nodiscard]] bool answers() const { return all_.size() > 1; }

  /// The heights whose possible pressures overlap the reading at H, ends refined between the samples.
  /// @returns none where the bag has no pressure there
  [[nodiscard]] std::optional<GaugeBand> band(double H) const {
    GaugeBand out{H, H, H};
    const auto p = bag_.pressure(H, mass_);
    if (!p) return std::nullopt;
    const double least = *p - doubt_.pressure, most = *p + doubt_.pressure;
    // How far a height's pressures miss the reading, negative where they overlap it.
    const auto misses = [&](const Possible& at) { return std::max(at.least - most, least - at.most); };
    const auto edge = [&](const Possible& in, const Possible& outside) {
      const double a = misses(in), b = misses(outside);
      return in.H + (outside.H - in.H) * (a / (a - b));
    };
    for (std::size_t i = 0; i < all_.size(); ++i) {
      if (misses(all_[i]) > 0) continue;
      const bool first = i == 0 || misses(all_[i - 1]) <= 0, last = i + 1 == all_.size() || misses(all_[i + 1]) <= 0;
      out.low = std::min(out.low, first ? all_[i].H : edge(all_[i], all_[i - 1]));
      out.high = std::max(out.high, last ? all_[i].H : edge(all_[i], all_[i + 1]));
    }
    return out;
  }

  [[nodiscard]] double slope(double H) const {
    const double d = 0.0005;
    const double below = std::max(low_, H - d), above = std::min(high_, H + d);
    const auto a = bag_.pressure(below, mass_), b = bag_.pressure(above, mass_);
    return a && b && above > below ? (*b - *a) / (above - below) : 0;
  }
  [[nodiscard]] double low() const { return low_; }
  [[nodiscard]] double high() const { return high_; }

private:
  std::optional<Possible> possible(double H) const {
    const double held = end_.model.friction / standard_gravity + doubt_.load;
    const auto light = bag_.pressure(H, std::max(1e-6, mass_ - held)), heavy = bag_.pressure(H, mass_ + held);
    if (!light || !heavy) return std::nullopt;
    return Possible{H, *light, *heavy};
  }

  const FittedEnd& end_;
  BagOnEnd bag_;
  double mass_;
  GaugeDoubt doubt_;
  double low_ = 0, high_ = 0;
  std::vector<Possible> all_;
};

Message advice_for(GaugeVerdict verdict, const GaugeBand& band, const GaugeDoubt& doubt) {
  const std::vector<Argument> args = {metres(band.low), metres(band.high), pascals(doubt.pressure, 2),
                                      kilograms(doubt.load)};
  switch (verdict) {
  case GaugeVerdict::tells:
    return {
        words(
            "One reading leaves {0} to {1}, with ±{2} of gauge, ±{3} of load and friction. Pressure presets will do."),
        args};
  case GaugeVerdict::roughly:
    return {words("One reading leaves {0} to {1}, with ±{2} of gauge, ±{3} of load and friction. Pressure presets will "
                  "do if you look at "
                  "the car too; a finer gauge or height sensing makes sure."),
            args};
  case GaugeVerdict::silent:
    return {words("One reading leaves {0} to {1}, with ±{2} of gauge, ±{3} of load and friction. Pressure says next to "
                  "nothing of height "
                  "here: this bag needs height sensing."),
            args};
  }
  return {};
}

} // namespace

Expected<GaugeTale> gauge_tale(const FittedEnd& end, const Window& reach, double H, std::size_t load_case,
                               const GaugeDoubt& doubt) {
  const auto here = posed_end(end, H, load_case);
  if (!here) return refuse(here.error());
  if (!reach.contains(H)) return refuse(outside_reach(H, reach));
  const Tale tale(end, reach, load_case, doubt);
  if (!tale.answers()) return refuse(words("The bag's card has no answer inside the reach window."));
  GaugeTale out;
  const auto at_H = tale.band(H);
  if (!at_H) return refuse(words("The bag has no answer at {0}."), {metres(H)});
  out.here = *at_H;
  out.slope = tale.slope(H);
  out.verdict = out.here.width() <= telling_band ? GaugeVerdict::tells
                : out.here.width() <= rough_band ? GaugeVerdict::roughly
                                                 : GaugeVerdict::silent;
  out.advice = advice_for(out.verdict, out.here, doubt);
  const auto steps = std::max(1, static_cast<int>(std::ceil((tale.high() - tale.low()) / step)));
  for (int i = 0; i <= steps; ++i)
    if (const auto band = tale.band(std::min(tale.low() + (tale.high() - tale.low()) / steps * i, tale.high())))
      out.bands.push_back(*band);
  return out;
}

std::optional<GaugeBand> gauge_at(const FittedEnd& end, const Window& reach, double H, std::size_t load_case,
                                  const GaugeDoubt& doubt) {
  if (!reach.contains(H) || !posed_end(end, H, load_case)) return std::nullopt;
  const Tale tale(end, reach, load_case, doubt);
  if (!tale.answers()) return std::nullopt;
  return tale.band(H);
}

GaugeQuestion::Answer GaugeQuestion::answer(const Given& given) {
  const auto& reach = given.end->assessment.windows.reach;
  if (!reach) return refuse(words("No height is left to stand at; see what stops it."));
  return gauge_tale(given.end->fitted, *reach, given.H, given.load_case, given.doubt);
}

} // namespace mavrel::assess
