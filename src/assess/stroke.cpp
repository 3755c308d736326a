#include "assess/stroke.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr double quick_frequency = 3; // Hz, of a stroke over a bump: quicker than the body, slower than wheel hop
constexpr double step = 0.001;        // m

std::vector<BumpEnd> bump_ends(const FittedEnd& end, const BagOnEnd& bag) {
  std::vector<BumpEnd> out;
  const auto add = [&](BumpEnd::What what, const std::optional<double>& H) {
    if (H) out.push_back({what, *H});
  };
  add(BumpEnd::What::bump_stop, end.model.stop_height);
  add(BumpEnd::What::bag_collapsed, bag.height_for_bag(bag.card().collapsed_height));
  if (!bag.card().internal_stop) add(BumpEnd::What::bag_margin, bag.height_for_bag(bag.least_bag_height()));
  if (end.model.damper_shut && end.model.map->has_damper())
    add(BumpEnd::What::damper_shut, end.model.map->height_for_damper(*end.model.damper_shut));
  std::stable_sort(out.begin(), out.end(), [](const BumpEnd& a, const BumpEnd& b) { return a.H > b.H; });
  return out;
}

} // namespace

const char* bump_end_name(BumpEnd::What what) {
  switch (what) {
  case BumpEnd::What::bump_stop:
    return words("Bump stop");
  case BumpEnd::What::bag_margin:
    return words("Bag down to its margin");
  case BumpEnd::What::bag_collapsed:
    return words("Bag collapsed");
  case BumpEnd::What::damper_shut:
    return words("Damper shut");
  }
  return "";
}

double volume_taking_part(const air::SoftenedBag& bag, const air::BagSetting& setting, double volume,
                          double frequency) {
  if (setting.added_volume == 0) return 0;
  const double trapped = bag.stiffness(frequency).real() + bag.per_height; // what the air alone resists with
  const double whole = bag.drive / trapped * setting.n * air::gas_constant * setting.ambient.temperature;
  return std::clamp(whole - volume, 0.0, setting.added_volume); // rounding may step over either end
}

Expected<Stroke> stroke_through(const FittedEnd& end, const Window& reach, double from, std::size_t load_case) {
  const auto start = posed_end(end, from, load_case);
  if (!start) return refuse(start.error());
  const BagOnEnd bag = end.on();
  const air::BagCurve& curve = bag.bag().curve;
  const auto [card_low, card_high] = bag.heights();
  const double low = std::max(reach.low.height, card_low), high = std::min(reach.high.height, card_high);
  if (!(high > low)) return refuse(words("No stroke is left between the limits."));

  Stroke out;
  out.from = from;
  const double p = start->state.pressure, h = start->state.bag_height;
  const air::BagSetting& slow = end.model.setting;
  air::BagSetting quick = slow;
  quick.added_volume = out.added_taking_part =
      volume_taking_part(bag.softened(start->place, p), slow, start->place.section.volume, quick_frequency);
  const auto steps = std::max(1, static_cast<int>(std::ceil((high - low) / step)));
  const double least_allowed = bag.card().min_pressure, most_allowed = bag.card().max_pressure;
  for (int i = 0; i <= steps; ++i) {
    const double H = std::min(low + (high - low) / steps * i, high);
    const double to = std::clamp(bag.bag_height(H), curve.lowest(), curve.highest()); // rounding at the card's ends
    const auto slowly = air::sealed_stroke(curve, h, p, to, 1, slow);
    const auto quickly = air::sealed_stroke(curve, h, p, to, quick.n, quick);
    if (!slowly || !quickly) continue;
    out.points.push_back({H, slowly->gauge_pressure, quickly->gauge_pressure, slowly->force, quickly->force});
    if (quickly->gauge_pressure > most_allowed) out.over_maximum = H;
    const bool slack = std::min(slowly->gauge_pressure, quickly->gauge_pressure) < least_allowed;
    if (slack && H > from && !out.under_minimum) out.under_minimum = H;
  }
  if (out.points.empty()) return refuse(words("The bag's card has no answer over this stroke."));
  out.peak = out.points.front().quick_pressure;
  out.least = out.points.back().quick_pressure;
  out.order = bump_ends(end, bag);
  out.stop_before_bag =
      bag.card().internal_stop || (!out.order.empty() && out.order.front().what != BumpEnd::What::bag_margin &&
                                   out.order.front().what != BumpEnd::What::bag_collapsed);
  return out;
}

} // namespace mavrel::assess
