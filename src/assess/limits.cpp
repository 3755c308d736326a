#include "assess/limits.h"

#include "curve/root.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <tuple>

namespace mavrel::assess {

namespace {

constexpr double beyond = 0.012;      // m drawn past the outermost known limit
constexpr double search_step = 0.003; // m; pressures are smooth in H, their crossings are refined
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
    // Between what the bag may do and what its card was measured over, nobody knows.
    constexpr double covered = 1e-6; // m
    const air::BagCurve& curve = bag->bag().curve;
    if (curve.lowest() > bag->least_bag_height() + covered)
      add(LimitCode::card_unknown, bag->height_for_bag(curve.lowest()), true, at_low, at_high, curve.lowest());
    if (curve.highest() < bag->card().max_height - covered)
      add(LimitCode::card_unknown, bag->height_for_bag(curve.highest()), false, at_low, at_high, curve.highest());
  }
  return out;
}

/// The bag at heights close enough together that no pressure limit is stepped over. Every limit and load case reads
/// these.
struct Sampled {
  double low = 0, high = 0; // m, H
  std::vector<BagOnEnd::Place> places;
};

Sampled sampled(const BagOnEnd& bag, const Domain& domain, double step) {
  Sampled out;
  std::tie(out.low, out.high) = bag.heights();
  out.low = std::max(out.low, domain.low);
  out.high = std::min(out.high, domain.high);
  if (!(out.high > out.low)) return out;
  const auto steps = std::max(8, static_cast<int>(std::ceil((out.high - out.low) / step)));
  out.places.reserve(static_cast<std::size_t>(steps) + 1);
  for (int i = 0; i <= steps; ++i)
    if (const auto place = bag.place(i == steps ? out.high : out.low + (out.high - out.low) * i / steps))
      out.places.push_back(*place);
  return out;
}

/// Heights where a corner's pressure lies beyond a level, as stretches.
void add_pressure_stretches(const BagOnEnd& bag, const Sampled& at, double sprung_mass, LimitCode code, double level,
                            std::size_t load_case, std::vector<Stretch>& out) {
  if (at.places.empty()) return;
  const bool high_is_bad = code == LimitCode::pressure_high;
  // Where other springs carry everything the bag is slack: no pressure at all.
  const auto beyond_level = [&](const std::optional<double>& p) {
    return high_is_bad ? p.value_or(0) - level : level - p.value_or(0);
  };
  const auto excess = [&](double H) { return beyond_level(bag.pressure(std::clamp(H, at.low, at.high), sprung_mass)); };
  double from_H = at.low, from_excess = beyond_level(bag.pressure(at.places.front(), sprung_mass));
  std::optional<double> open = from_excess > 0 ? std::optional(at.low) : std::nullopt;
  for (std::size_t i = 1; i < at.places.size(); ++i) {
    const double H = at.places[i].H;
    const double here = beyond_level(bag.pressure(at.places[i], sprung_mass));
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
  if (open) out.push_back({code, *open, at.high, load_case, 0});
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
                     std::optional<std::size_t> only_case) {
  Windows out;
  for (const Bare& limit : bare_limits(model, bag)) {
    const double reserve = limit.below ? model.brief.bump_travel : model.brief.rebound_reserve;
    out.reach_blocked.push_back(from_bare(limit, domain, 0));
    out.road_blocked.push_back(from_bare(limit, domain, reserve));
  }
  if (bag) {
    const air::BagCard& card = bag->card();
    const Sampled at = sampled(*bag, domain, search_step);
    for (std::size_t c = 0; c < model.loads.size(); ++c) {
      if (!model.loads[c] || (only_case && c != *only_case)) continue;
      const auto masses = model.bag_masses(*model.loads[c]);
      const double light = std::min(masses[0], masses[1]), heavy = std::max(masses[0], masses[1]);
      add_pressure_stretches(*bag, at, heavy, LimitCode::pressure_high, card.max_pressure, c, out.reach_blocked);
      add_pressure_stretches(*bag, at, heavy, LimitCode::pressure_high,
                             card.max_pressure * model.brief.road_pressure_share, c, out.road_blocked);
      add_pressure_stretches(*bag, at, light, LimitCode::pressure_low, card.min_pressure, c, out.road_blocked);
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
