#include "assess/end/limits.h"

#include "curve/root.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace mavrel::assess {

// ---- the rows

namespace {

using Gain = std::optional<double>;

double inside(const EndModel& model, double H) {
  return std::clamp(H, model.map->lowest(), model.map->highest());
}
Gain by_spring(const EndModel& model, double H) {
  return 1 / model.map->at(inside(model, H)).motion_ratio;
}
Gain by_damper(const EndModel& model, double H) {
  return 1 / model.map->damper(inside(model, H)).slope;
}
Gain by_stop(const EndModel& model, double) {
  return model.stop_ratio ? Gain(1 / *model.stop_ratio) : std::nullopt;
}

/// What a metre of the part is worth was found where it ran out.
template <Runs What>
Gain by_travel_end(const EndModel& model, double H) {
  const TravelEnd* nearest = nullptr;
  for (const TravelEnd& r : model.travel_ends)
    if (r.what == What && (!nearest || std::abs(r.height - H) < std::abs(nearest->height - H))) nearest = &r;
  return nearest ? nearest->gain : std::nullopt;
}

} // namespace

namespace limits {

constinit const Limit bag_collapsed{
    "bag_collapsed", words("bag collapsed"), words("bag down"),
    [](double part) -> Message {
      return {words("{0} less stack, or a bag that collapses that much lower"), {told_from(metres(part), 0)}};
    },
    by_spring};
constinit const Limit bag_full{"bag_full", words("bag at full height"), words("bag full"),
                               [](double part) -> Message {
                                 return {words("{0} more stack, or a longer bag"), {told_from(metres(part), 0)}};
                               },
                               by_spring};
constinit const Limit bump_stop{"bump_stop", words("bump stop"), words("bump stop"),
                                [](double part) -> Message {
                                  return {words("{0} off the bump stop"), {told_from(metres(part), 0)}};
                                },
                                by_stop};
constinit const Limit damper_shut{"damper_shut", words("damper shut"), words("damper shut"),
                                  [](double part) -> Message {
                                    return {words("a damper {0} shorter when shut"), {told_from(metres(part), 0)}};
                                  },
                                  by_damper};
constinit const Limit damper_open{"damper_open", words("damper open"), words("damper open"),
                                  [](double part) -> Message {
                                    return {words("a damper {0} longer when open"), {told_from(metres(part), 0)}};
                                  },
                                  by_damper};
constinit const Limit pressure_high{"pressure_high", words("bag pressure high"), words("pressure"),
                                    [](double) -> Message {
                                      return {words("a bag with more area or a higher maximum"), {}};
                                    }};
constinit const Limit pressure_low{"pressure_low", words("bag pressure low"), words("slack"), [](double) -> Message {
                                     return {words("a bag with less area"), {}};
                                   }};
constinit const Limit card_unknown{"card_unknown",
                                   words("not on the bag's card"),
                                   words("off the card"),
                                   [](double) -> Message {
                                     return {words("a card whose rows go that far"), {}};
                                   },
                                   nullptr,
                                   true};
constinit const Limit tank_pressure{"tank_pressure", words("tank pressure too low"), words("tank"),
                                    [](double) -> Message {
                                      return {words("a switch that stops higher, or a bag with more area"), {}};
                                    }};
constinit const Limit map_end{"map_end",
                              words("travel not measured further"),
                              words("not measured"),
                              [](double part) -> Message {
                                return {words("readings {0} further"), {told_from(metres(part), 0)}};
                              },
                              [](const EndModel&, double) -> Gain { return 1.0; },
                              true};

constinit const Limit linkage_end{"linkage_end", words("joints at their end"), words("joints"), [](double) -> Message {
                                    return {words("arms and links that reach further"), {}};
                                  }};
constinit const Limit joint_angle{"joint_angle", words("joint at its angle"), words("joint"), [](double) -> Message {
                                    return {words("a joint that bears more, or one that stands straight there"), {}};
                                  }};
constinit const Limit bar_link{"bar_link", words("bar link binds"), words("bar link"), [](double) -> Message {
                                 return {words("a link of the length that stands square at road height"), {}};
                               }};
constinit const Limit brake_hose{"brake_hose", words("brake hose tight"), words("hose"),
                                 [](double part) -> Message {
                                   return {words("a brake hose {0} longer"), {told_from(metres(part), 0)}};
                                 },
                                 by_travel_end<Runs::brake_hose>};
constinit const Limit shaft_angle{"shaft_angle", words("shaft's joint at its angle"), words("shaft"),
                                  [](double) -> Message {
                                    return {words("a shaft joint that bears more"), {}};
                                  }};
constinit const Limit shaft_plunge{"shaft_plunge", words("shaft's plunge used up"), words("plunge"),
                                   [](double part) -> Message {
                                     return {words("{0} more plunge in the shaft"), {told_from(metres(part), 0)}};
                                   },
                                   by_travel_end<Runs::shaft_plunge>};
constinit const Limit bag_tilt{"bag_tilt", words("bag tilted too far"), words("tilt"), [](double) -> Message {
                                 return {words("a bracket turned towards that height, or a bag that bears more"), {}};
                               }};
constinit const Limit bag_offset{"bag_offset", words("bag pushed too far sideways"), words("offset"),
                                 [](double) -> Message {
                                   return {words("a seat moved towards that height, or a bag that bears more"), {}};
                                 }};

constinit const Limit on_the_ground{"on_the_ground", words("underside on the ground"), words("ground"),
                                    [](double part) -> Message {
                                      return {words("{0} less under the car there"), {told_from(metres(part), 0)}};
                                    }};
constinit const Limit legal_height{"legal_height", words("legal least height"), words("legal"), [](double) -> Message {
                                     return {words("what the local inspection allows"), {}};
                                   }};
constinit const Limit tyre_near{"tyre_near", words("tyre too near"), words("tyre"), [](double part) -> Message {
                                  return {words("{0} more room there, or another wheel"), {told_from(metres(part), 0)}};
                                }};
constinit const Limit bag_near{"bag_near", words("bag too near"), words("bag near"), [](double part) -> Message {
                                 return {words("{0} more room there, or a narrower bag"), {told_from(metres(part), 0)}};
                               }};
constinit const Limit arm_near{"arm_near", words("arm or damper too near"), words("arm"), [](double part) -> Message {
                                 return {words("{0} more room there"), {told_from(metres(part), 0)}};
                               }};
constinit const Limit axle_near{"axle_near", words("axle tube too near"), words("axle"), [](double part) -> Message {
                                  return {words("a notch {0} deeper"), {told_from(metres(part), 0)}};
                                }};

} // namespace limits

namespace {
constexpr const Limit* limit_rows[] = {
    &limits::bag_collapsed, &limits::bag_full,     &limits::bump_stop,    &limits::damper_shut,   &limits::damper_open,
    &limits::pressure_high, &limits::pressure_low, &limits::card_unknown, &limits::tank_pressure, &limits::map_end,
    &limits::linkage_end,   &limits::joint_angle,  &limits::bar_link,     &limits::brake_hose,    &limits::shaft_angle,
    &limits::shaft_plunge,  &limits::bag_tilt,     &limits::bag_offset,   &limits::on_the_ground, &limits::legal_height,
    &limits::tyre_near,     &limits::bag_near,     &limits::arm_near,     &limits::axle_near};
} // namespace
const std::span<const Limit* const> end_limits = limit_rows;

const Limit& limit_of(Mover mover) {
  switch (mover) {
  case Mover::tyre:
    return limits::tyre_near;
  case Mover::bag:
    return limits::bag_near;
  case Mover::damper:
  case Mover::arms:
    return limits::arm_near;
  case Mover::axle:
    return limits::axle_near;
  }
  return limits::tyre_near;
}

// ---- where they lie

const Limit& limit_of(Runs what) {
  switch (what) {
  case Runs::joints:
    return limits::linkage_end;
  case Runs::joint_angle:
    return limits::joint_angle;
  case Runs::bar_link:
    return limits::bar_link;
  case Runs::brake_hose:
    return limits::brake_hose;
  case Runs::shaft_angle:
    return limits::shaft_angle;
  case Runs::shaft_plunge:
    return limits::shaft_plunge;
  }
  return limits::linkage_end;
}

namespace {

constexpr double beyond = 0.012; // m drawn past the outermost known limit
constexpr double far_away = std::numeric_limits<double>::infinity();

/// A limit of shape: everything on one side of a height.
struct Bare {
  const Limit* limit;
  double height;
  bool below; // forbids what is below
  const char* part = nullptr;
  bool driven_only = false;
};

/// What the length of a limit is the length of.
enum class Of {
  damper, // eye to eye
  bag,    // of the bag itself
  height, // H
};

/// One limit of shape: where it lies. A new one is a row here, and its own row above.
struct BareRow {
  const Limit* limit;
  bool below;
  Of of;
  /// @param bag  nullptr: none chosen
  std::optional<double> (*at)(const EndModel& model, const BagOnEnd* bag);
};
using Length = std::optional<double>;
constexpr double covered = 1e-6; // m that a card may stop short

constexpr BareRow bare_rows[] = {
    {&limits::damper_shut, true, Of::damper, [](const EndModel& m, const BagOnEnd*) { return m.damper_shut; }},
    {&limits::damper_open, false, Of::damper, [](const EndModel& m, const BagOnEnd*) { return m.damper_open; }},
    {&limits::bump_stop, true, Of::height, [](const EndModel& m, const BagOnEnd*) { return m.stop_height; }},
    {&limits::bag_collapsed, true, Of::bag,
     [](const EndModel&, const BagOnEnd* bag) { return bag ? Length(bag->least_bag_height()) : std::nullopt; }},
    {&limits::bag_full, false, Of::bag,
     [](const EndModel&, const BagOnEnd* bag) { return bag ? Length(bag->card().max_height) : std::nullopt; }},
    // Between what the bag may do and what its card was measured over, nobody knows.
    {&limits::card_unknown, true, Of::bag,
     [](const EndModel&, const BagOnEnd* bag) {
       const bool short_of = bag && bag->bag().curve.lowest() > bag->least_bag_height() + covered;
       return short_of ? Length(bag->bag().curve.lowest()) : std::nullopt;
     }},
    {&limits::card_unknown, false, Of::bag,
     [](const EndModel&, const BagOnEnd* bag) {
       const bool short_of = bag && bag->bag().curve.highest() < bag->card().max_height - covered;
       return short_of ? Length(bag->bag().curve.highest()) : std::nullopt;
     }},
};

/// Of bag, stop and damper.
std::vector<Bare> shape_limits(const EndModel& model, const BagOnEnd* bag) {
  std::vector<Bare> out;
  const motion::TravelMap& map = *model.map;
  for (const BareRow& row : bare_rows) {
    const auto end = row.at(model, bag);
    if (!end || (row.of == Of::damper && !map.has_damper())) continue;
    const auto length = [&](double H) {
      return row.of == Of::damper ? map.damper(H).value : row.of == Of::bag ? bag->bag_height(H) : H;
    };
    const auto height = row.of == Of::damper ? map.height_for_damper(*end)
                        : row.of == Of::bag  ? bag->height_for_bag(*end)
                                             : end;
    // A part whose end lies beyond the map limits nothing within it, unless the map lies wholly past that end.
    if (height)
      out.push_back({row.limit, *height, row.below});
    else if (row.below && length(map.highest()) < *end)
      out.push_back({row.limit, map.highest(), row.below});
    else if (!row.below && length(map.lowest()) > *end)
      out.push_back({row.limit, map.lowest(), row.below});
  }
  return out;
}

/// And of all else that runs out.
std::vector<Bare> bare_limits(const EndModel& model, const BagOnEnd* bag) {
  auto out = shape_limits(model, bag);
  for (const TravelEnd& r : model.travel_ends)
    out.push_back({&limit_of(r.what), r.height, r.below, r.part, r.driven_only});
  return out;
}

/// Heights where a corner's pressure lies beyond a level, as stretches.
/// @param side  of the pressures in `at`, which of the two that is: the heavier for a level that is too high
void add_pressure_stretches(const BagOnEnd& bag, const BagAtHeights& at, std::size_t load_case, std::size_t side,
                            const Limit& limit, double level, std::vector<Stretch>& out) {
  const auto& pressures = at.sides[load_case];
  const bool high_is_bad = &limit != &limits::pressure_low;
  const auto beyond_level = [&](double p) { return high_is_bad ? p - level : level - p; };
  const double mass = bag.model().bag_masses(*bag.model().loads[load_case])[side];
  const double low = at.heights.low, high = at.heights.high;
  const auto excess = [&](double H) {
    // Where other springs carry everything the bag is slack: no pressure at all.
    return beyond_level(bag.pressure(std::clamp(H, low, high), mass).value_or(0));
  };
  bool first = true, open = false; // the first height; whether a stretch is under way
  double opened_at = low, from_H = low, from_excess = 0;
  for (std::size_t i = 0; i < at.places.size(); ++i) {
    if (!at.places[i]) continue;
    const double H = at.places[i]->H, here = beyond_level(pressures[i][side]);
    if (first) {
      open = here > 0;
      first = false;
    } else if ((here > 0) != (from_excess > 0)) {
      const double edge = curve::crossing(excess, from_H, H).value_or(H);
      if (open) out.push_back({&limit, opened_at, edge, load_case, 0});
      opened_at = edge;
      open = !open;
    }
    from_H = H;
    from_excess = here;
  }
  if (open) out.push_back({&limit, opened_at, high, load_case, 0});
}

Stretch from_bare(const Bare& limit, const Domain& domain, double reserve) {
  if (limit.below)
    return {limit.limit, domain.low, std::clamp(limit.height + reserve, domain.low, domain.high),
            {},          reserve,    limit.part};
  return {limit.limit, std::clamp(limit.height - reserve, domain.low, domain.high), domain.high, {}, reserve,
          limit.part};
}

/// Heights at which the bag stands too crooked, at any height the car may be at.
void add_alignment(const EndModel& model, const BagOnEnd* bag, const Domain& domain, Windows& out) {
  if (!bag || !model.alignment) return;
  const AlignmentLimits bears = alignment_limits(bag->card());
  const auto add = [&](const Limit& limit, double AlignedAt::*figure, double most) {
    for (const auto& [from, to] : model.alignment->over_limit(figure, most)) {
      const Stretch stretch{
          &limit, std::clamp(from, domain.low, domain.high), std::clamp(to, domain.low, domain.high), {}, 0, nullptr};
      out.reach_blocked.push_back(stretch);
      out.road_blocked.push_back(stretch);
    }
  };
  add(limits::bag_tilt, &AlignedAt::tilt, bears.tilt);
  add(limits::bag_offset, &AlignedAt::offset, bears.offset);
}

/// The car lying on its underside, and what the law lets nobody drive below.
void add_ground(const EndModel& model, const Domain& domain, Windows& out) {
  if (model.belly_height) {
    const auto stretch = [&](double reserve) {
      return Stretch{&limits::on_the_ground,
                     domain.low,
                     std::clamp(*model.belly_height + reserve, domain.low, domain.high),
                     {},
                     reserve,
                     nullptr,
                     model.belly_name,
                     1.0};
    };
    out.reach_blocked.push_back(stretch(0));
    out.road_blocked.push_back(stretch(model.brief.bump_travel));
  }
  if (model.legal_height)
    out.road_blocked.push_back(
        {&limits::legal_height, domain.low, std::clamp(*model.legal_height, domain.low, domain.high), {}, 0, nullptr});
}

/// Heights at which something meets what is near it. Where it touches straight ahead the travel kept for the road is
/// kept from there; the room wanted at every lock is wanted where the car is driven.
void add_clearances(const EndModel& model, const BagOnEnd* bag, const Domain& domain,
                    const std::vector<Block>* bag_blocks, Windows& out) {
  if (!model.clearance) return;
  const Clearances& clear = **model.clearance;
  std::vector<Block> blocks = clear.blocks;
  if (bag_blocks)
    blocks.insert(blocks.end(), bag_blocks->begin(), bag_blocks->end());
  else if (bag && clear.space) {
    std::vector<GapCurve> gaps;
    add_bag_gaps(model.clearance->given(), clear, bag_body(*bag), gaps, blocks);
  }
  for (const Block& block : blocks) {
    const Limit& limit = limit_of(block.mover);
    const auto add = [&](std::vector<Stretch>& to, double below, double above) {
      to.push_back({&limit,
                    std::clamp(block.from - below, domain.low, domain.high),
                    std::clamp(block.to + above, domain.low, domain.high),
                    {},
                    std::max(below, above),
                    block.near.own == OwnPart::none ? nullptr : name_of(block.near.own),
                    block.near.name,
                    block.gain,
                    block.near.right});
    };
    if (block.touches) {
      add(out.reach_blocked, 0, 0);
      add(out.road_blocked, model.brief.rebound_reserve, model.brief.bump_travel);
    } else
      add(out.road_blocked, 0, 0);
  }
}

/// Bag, stop, damper, pressures and alignment.
void add_own_limits(const EndModel& model, const BagOnEnd* bag, const BagAtHeights& at, const Domain& domain,
                    Windows& out) {
  for (const Bare& limit : bare_limits(model, bag)) {
    const double kept = limit.below ? model.brief.bump_travel : model.brief.rebound_reserve;
    const double reserve = limit.driven_only ? 0 : kept; // nobody meets a bump at full lock
    if (!limit.driven_only) out.reach_blocked.push_back(from_bare(limit, domain, 0));
    out.road_blocked.push_back(from_bare(limit, domain, reserve));
  }
  add_alignment(model, bag, domain, out);
  for (std::size_t c = 0; bag && c < at.sides.size(); ++c) {
    if (at.sides[c].empty()) continue;
    const air::BagCard& card = bag->card();
    const auto masses = model.bag_masses(*model.loads[c]);
    const std::size_t heavy = masses[1] > masses[0] ? 1 : 0, light = 1 - heavy;
    const double road_level = card.max_pressure * model.brief.road_pressure_share;
    add_pressure_stretches(*bag, at, c, heavy, limits::pressure_high, card.max_pressure, out.reach_blocked);
    add_pressure_stretches(*bag, at, c, heavy, limits::pressure_high, road_level, out.road_blocked);
    add_pressure_stretches(*bag, at, c, light, limits::pressure_low, card.min_pressure, out.road_blocked);
    // What the card forbids anyway needs no tank to forbid it.
    if (!model.tank_pressure || *model.tank_pressure >= card.max_pressure) continue;
    add_pressure_stretches(*bag, at, c, heavy, limits::tank_pressure, *model.tank_pressure, out.reach_blocked);
    add_pressure_stretches(*bag, at, c, heavy, limits::tank_pressure, *model.tank_pressure, out.road_blocked);
  }
}

/// The bag on one side by itself.
std::optional<BagOnEnd> on_side(const EndModel& side, const BagOnEnd* bag) {
  return bag ? std::optional(BagOnEnd(side, bag->bag(), bag->stack())) : std::nullopt;
}

/// The end of a map is no limit: it is where knowledge ends, and is said to be.
void say_where_knowledge_ends(const EndModel& model, const Domain& domain, std::optional<Window>& window) {
  if (!window) return;
  const auto say = [&](Edge& edge, double end) {
    if (edge.governing || std::abs(edge.height - end) > 1e-9) return;
    edge.governing = Stretch{&limits::map_end, end, end, {}, 0, nullptr};
  };
  if (domain.low <= model.map->lowest() + 1e-9) say(window->low, model.map->lowest());
  if (domain.high >= model.map->highest() - 1e-9) say(window->high, model.map->highest());
}

void add_gains(std::optional<Window>& window, const EndModel& model) {
  if (!window) return;
  for (Edge* edge : {&window->low, &window->high})
    if (edge->governing && edge->governing->gain)
      edge->height_per_metre = edge->governing->gain;
    else if (edge->governing && edge->governing->limit->height_per_part)
      edge->height_per_metre = edge->governing->limit->height_per_part(model, edge->height);
}

} // namespace

BagBody bag_body(const BagOnEnd& bag) {
  return {&bag.bag().curve, bag.stack() * bag.model().upper_share, bag.stack() * (1 - bag.model().upper_share),
          bag.model().map ? &*bag.model().map : nullptr};
}

std::optional<Domain> domain_of(const EndModel& model, const BagOnEnd* bag, std::span<const double> also) {
  if (!model.map) return std::nullopt;
  double low = far_away, high = -far_away;
  const auto hold = [&](double H) {
    low = std::min(low, H);
    high = std::max(high, H);
  };
  // What runs out far from all this is no reason to look there.
  bool ends_below = false, ends_above = false;
  const auto limits_of = [&](const EndModel& m, const BagOnEnd* b) {
    for (const Bare& limit : shape_limits(m, b)) {
      hold(limit.height);
      (limit.below ? ends_below : ends_above) = true;
    }
  };
  limits_of(model, bag);
  if (model.sides[0])
    for (const auto& side : model.sides) {
      const auto on = on_side(*side, bag);
      limits_of(*side, on ? &*on : nullptr);
    }
  if (model.surveyed_height) hold(*model.surveyed_height);
  for (const double H : also)
    hold(H);
  // Where nothing ends the travel it is looked at as far as anybody knows it, not as far as somebody wishes.
  low = ends_below ? std::max(low - beyond, model.map->lowest()) : model.map->lowest();
  high = ends_above ? std::min(high + beyond, model.map->highest()) : model.map->highest();
  if (!(high > low)) return std::nullopt;
  return Domain{low, high};
}

Windows find_windows(const EndModel& model, const BagOnEnd* bag, const BagAtHeights& at, const Domain& domain,
                     std::optional<double> prefer, const std::vector<Block>* bag_blocks) {
  Windows out;
  if (model.sides[0]) {
    for (const Side side : build::both_sides) {
      const EndModel& one = *model.sides[build::at(side)];
      const auto on = on_side(one, bag);
      const std::size_t first_reach = out.reach_blocked.size(), first_road = out.road_blocked.size();
      // The same load cases at the same steps as those that were asked for.
      BagAtHeights here;
      if (on) {
        here = bag_at_heights(*on, domain, at.heights.step > 0 ? at.heights.step : 0.003);
        for (std::size_t c = 0; c < here.sides.size() && c < at.sides.size(); ++c)
          if (at.sides[c].empty()) here.sides[c].clear();
      }
      add_own_limits(one, on ? &*on : nullptr, here, domain, out);
      for (std::size_t i = first_reach; i < out.reach_blocked.size(); ++i)
        out.reach_blocked[i].right = side == Side::right;
      for (std::size_t i = first_road; i < out.road_blocked.size(); ++i)
        out.road_blocked[i].right = side == Side::right;
    }
  } else
    add_own_limits(model, bag, at, domain, out);
  add_ground(model, domain, out);
  add_clearances(model, bag, domain, bag_blocks, out);
  drop_empty(out.reach_blocked);
  drop_empty(out.road_blocked);
  out.reach = window_between(out.reach_blocked, domain, prefer);
  out.road = window_between(out.road_blocked, domain, prefer);
  for (auto* window : {&out.reach, &out.road})
    say_where_knowledge_ends(model, domain, *window);
  add_gains(out.reach, model);
  add_gains(out.road, model);
  return out;
}

Windows find_windows(const EndModel& model, const BagOnEnd* bag, const Domain& domain, std::optional<double> prefer,
                     std::optional<std::size_t> only_case) {
  constexpr double step = 0.003; // m; pressures are smooth in H, their crossings are refined
  const BagAtHeights at = bag ? bag_at_heights(*bag, domain, step, 8, only_case) : BagAtHeights{};
  return find_windows(model, bag, at, domain, prefer);
}

} // namespace mavrel::assess
