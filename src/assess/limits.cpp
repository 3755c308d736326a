#include "assess/limits.h"

#include "curve/root.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace mavrel::assess {

namespace {

constexpr double beyond = 0.012; // m drawn past the outermost known limit
constexpr double far_away = std::numeric_limits<double>::infinity();

/// A limit of shape: everything on one side of a height.
struct Bare {
  LimitCode code;
  double height;
  bool below; // forbids what is below
};

std::vector<Bare> bare_limits(const EndModel& model, const BagOnEnd* bag) {
  std::vector<Bare> out;
  const motion::TravelMap& map = *model.map;
  // A part whose end lies beyond the map limits nothing within it, unless the map lies wholly past that end.
  const auto add = [&](LimitCode code, std::optional<double> height, bool below, double at_low, double at_high,
                       double end) {
    if (height) return out.push_back({code, *height, below});
    if (below && std::max(at_low, at_high) < end) out.push_back({code, map.highest(), below});
    if (!below && std::min(at_low, at_high) > end) out.push_back({code, map.lowest(), below});
  };
  if (map.has_damper()) {
    const double at_low = map.damper(map.lowest()).value, at_high = map.damper(map.highest()).value;
    if (model.damper_shut)
      add(LimitCode::damper_shut, map.height_for_damper(*model.damper_shut), true, at_low, at_high, *model.damper_shut);
    if (model.damper_open)
      add(LimitCode::damper_open, map.height_for_damper(*model.damper_open), false, at_low, at_high,
          *model.damper_open);
  }
  if (model.stop_height) out.push_back({LimitCode::bump_stop, *model.stop_height, true});
  if (bag) {
    const double at_low = bag->bag_height(map.lowest()), at_high = bag->bag_height(map.highest());
    add(LimitCode::bag_collapsed, bag->height_for_bag(bag->least_bag_height()), true, at_low, at_high,
        bag->least_bag_height());
    add(LimitCode::bag_full, bag->height_for_bag(bag->card().max_height), false, at_low, at_high,
        bag->card().max_height);
  }
  return out;
}

/// Stretches of the bag's heights where the pressure of one side's load lies on the wrong side of `level`.
void add_pressure_stretches(const BagOnEnd& bag, const Domain& domain, double sprung_mass, LimitCode code, double level,
                            std::size_t load_case, double step, std::vector<Stretch>& out) {
  auto [low, high] = bag.heights();
  low = std::max(low, domain.low);
  high = std::min(high, domain.high);
  if (!(high > low)) return;
  const bool high_is_bad = code == LimitCode::pressure_high;
  // Where other springs carry everything the bag is slack: no pressure at all.
  const auto excess = [&](double H) {
    const double p = bag.pressure(std::clamp(H, low, high), sprung_mass).value_or(0);
    return high_is_bad ? p - level : level - p;
  };
  const auto steps = std::max(8, static_cast<int>(std::ceil((high - low) / step)));
  double from_H = low, from_excess = excess(low);
  std::optional<double> open = from_excess > 0 ? std::optional(low) : std::nullopt;
  for (int i = 1; i <= steps; ++i) {
    const double H = low + (high - low) * i / steps;
    const double here = excess(H);
    if ((here > 0) != (from_excess > 0)) {
      const double edge = curve::crossing(excess, from_H, H).value_or(H);
      if (open) {
        out.push_back({code, *open, edge, load_case, 0});
        open.reset();
      } else {
        open = edge;
      }
    }
    from_H = H;
    from_excess = here;
  }
  if (open) out.push_back({code, *open, high, load_case, 0});
}

Stretch from_bare(const Bare& limit, const Domain& domain, double reserve) {
  if (limit.below)
    return {limit.code, domain.low, std::clamp(limit.height + reserve, domain.low, domain.high), {}, reserve};
  return {limit.code, std::clamp(limit.height - reserve, domain.low, domain.high), domain.high, {}, reserve};
}

bool any_length(const Stretch& s) {
  return s.to > s.from;
}

/// Height gained for each metre of part: a damper's, a stack's, a stop's.
std::optional<double> height_per_metre(LimitCode code, double H, const EndModel& model) {
  const double at = std::clamp(H, model.map->lowest(), model.map->highest());
  switch (code) {
  case LimitCode::bag_collapsed:
  case LimitCode::bag_full:
    return 1 / model.map->at(at).motion_ratio;
  case LimitCode::damper_open:
  case LimitCode::damper_shut:
    return 1 / model.map->damper(at).slope;
  case LimitCode::bump_stop:
    return model.stop_ratio ? std::optional(1 / *model.stop_ratio) : std::nullopt;
  default:
    return std::nullopt;
  }
}

void add_gains(std::optional<Window>& window, const EndModel& model) {
  if (!window) return;
  for (Edge* edge : {&window->low, &window->high})
    if (edge->governing) edge->height_per_metre = height_per_metre(edge->governing->code, edge->height, model);
}

} // namespace

std::optional<Domain> domain_of(const EndModel& model, const BagOnEnd* bag, std::span<const double> also) {
  if (!model.map) return std::nullopt;
  double low = far_away, high = -far_away;
  const auto hold = [&](double H) {
    low = std::min(low, H);
    high = std::max(high, H);
  };
  for (const Bare& limit : bare_limits(model, bag))
    hold(limit.height);
  if (model.surveyed_height) hold(*model.surveyed_height);
  for (const double H : also)
    hold(H);
  low = std::max(low - beyond, model.map->lowest());
  high = std::min(high + beyond, model.map->highest());
  if (!(high > low)) return std::nullopt;
  return Domain{low, high};
}

std::optional<Window> window_between(std::span<const Stretch> blocked, const Domain& domain,
                                     std::optional<double> prefer) {
  std::vector<Stretch> sorted(blocked.begin(), blocked.end());
  std::sort(sorted.begin(), sorted.end(), [](const Stretch& a, const Stretch& b) { return a.from < b.from; });
  std::optional<Domain> chosen;
  const auto offer = [&](double low, double high) {
    if (high - low <= 1e-9) return;
    const auto holds = [&](const Domain& d) { return prefer && *prefer >= d.low && *prefer <= d.high; };
    const Domain free{low, high};
    if (!chosen || (holds(free) && !holds(*chosen)) || (!holds(*chosen) && high - low > chosen->high - chosen->low))
      chosen = free;
  };
  double reached = domain.low;
  for (const Stretch& s : sorted) {
    offer(reached, s.from);
    reached = std::max(reached, s.to);
  }
  offer(reached, domain.high);
  if (!chosen) return std::nullopt;

  Window out;
  out.low.height = chosen->low;
  out.high.height = chosen->high;
  out.low.next_height = domain.low;
  out.high.next_height = domain.high;
  const auto is_at = [](double a, double b) { return std::abs(a - b) <= 1e-9; };
  // Below: the stretch that ends at the edge governs; the highest end among the others comes next.
  for (const Stretch& s : sorted) {
    if (!any_length(s)) continue;
    if (!out.low.governing && is_at(s.to, out.low.height))
      out.low.governing = s;
    else if (s.to <= out.low.height + 1e-9 && (!out.low.next || s.to > out.low.next_height)) {
      out.low.next = s;
      out.low.next_height = s.to;
    }
    if (!out.high.governing && is_at(s.from, out.high.height))
      out.high.governing = s;
    else if (s.from >= out.high.height - 1e-9 && (!out.high.next || s.from < out.high.next_height)) {
      out.high.next = s;
      out.high.next_height = s.from;
    }
  }
  return out;
}

Windows find_windows(const EndModel& model, const BagOnEnd* bag, const Domain& domain, std::optional<double> prefer,
                     const LimitOptions& options) {
  Windows out;
  for (const Bare& limit : bare_limits(model, bag)) {
    const double reserve = limit.below ? model.brief.bump_travel : model.brief.rebound_reserve;
    out.reach_blocked.push_back(from_bare(limit, domain, 0));
    out.road_blocked.push_back(from_bare(limit, domain, reserve));
  }
  if (bag) {
    const air::BagCard& card = bag->card();
    for (std::size_t c = 0; c < model.loads.size(); ++c) {
      if (!model.loads[c] || (options.only_case && c != *options.only_case)) continue;
      const auto [light, heavy] = std::minmax(model.loads[c]->side_mass[0], model.loads[c]->side_mass[1]);
      const double step = options.search_step;
      add_pressure_stretches(*bag, domain, heavy, LimitCode::pressure_high, card.max_pressure, c, step,
                             out.reach_blocked);
      add_pressure_stretches(*bag, domain, heavy, LimitCode::pressure_high,
                             card.max_pressure * model.brief.road_pressure_share, c, step, out.road_blocked);
      add_pressure_stretches(*bag, domain, light, LimitCode::pressure_low, card.min_pressure, c, step,
                             out.road_blocked);
    }
  }
  std::erase_if(out.reach_blocked, [](const Stretch& s) { return !any_length(s); });
  std::erase_if(out.road_blocked, [](const Stretch& s) { return !any_length(s); });
  out.reach = window_between(out.reach_blocked, domain, prefer);
  out.road = window_between(out.road_blocked, domain, prefer);
  add_gains(out.reach, model);
  add_gains(out.road, model);
  return out;
}

} // namespace mavrel::assess
