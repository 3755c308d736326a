#include "assess/end/travel.h"

#include <cmath>

namespace mavrel::assess {

std::optional<Travel> free_travel(const BagOnEnd& bag, Meeting meeting) {
  const EndModel& model = bag.model();
  const motion::TravelMap& map = *model.map;
  Travel out{map.lowest(), map.highest()};
  const auto rises_to = [&](const Limit& by, const std::optional<double>& H) {
    if (H && *H > out.low) out.low = *H, out.low_by = &by;
  };
  const auto falls_to = [&](const Limit& by, const std::optional<double>& H) {
    if (H && *H < out.high) out.high = *H, out.high_by = &by;
  };
  rises_to(limits::bag_collapsed, bag.height_for_bag(bag.card().collapsed_height));
  falls_to(limits::bag_full, bag.height_for_bag(bag.card().max_height));
  if (model.stop_height)
    rises_to(limits::bump_stop, *model.stop_height - (meeting == Meeting::hit ? model.stop_give : 0));
  if (map.has_damper()) {
    if (model.damper_shut) rises_to(limits::damper_shut, map.height_for_damper(*model.damper_shut));
    if (model.damper_open) falls_to(limits::damper_open, map.height_for_damper(*model.damper_open));
  }
  if (!(out.high > out.low)) return std::nullopt;
  return out;
}

std::optional<std::pair<double, double>> standing_travel(const BagOnEnd& bag) {
  const auto travel = free_travel(bag, Meeting::standing);
  if (!travel) return std::nullopt;
  double low = travel->low;
  if (travel->low_by == &limits::bump_stop) { // squeezed by what stands on it, as far as bag and damper let it
    const auto hit = free_travel(bag, Meeting::hit);
    low = std::fmax(low - parked_squeeze * bag.model().stop_give, hit ? hit->low : low);
  }
  const auto [card_low, card_high] = bag.heights();
  const std::pair out(std::fmax(low, card_low), std::fmin(travel->high, card_high));
  return out.second > out.first ? std::optional(out) : std::nullopt;
}

std::optional<double> height_of_bag_margin(const BagOnEnd& bag) {
  return bag.height_for_bag(bag.least_bag_height());
}

} // namespace mavrel::assess
