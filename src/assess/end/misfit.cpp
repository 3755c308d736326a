#include "assess/end/misfit.h"

#include "assess/end/presets.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

// What is no length is weighed as if it were one, so that the least of several misses can be named.
constexpr double without_reach = 1, without_road = 0.5, not_held = 1, unknown = 0.3; // m
constexpr double per_share = 0.1;                                                    // m for the whole of a pressure

void stops_of_side(const BagOnEnd& bag, std::vector<Misfit>& out) {
  const EndModel& model = bag.model();
  const motion::TravelMap& map = *model.map;
  const auto add = [&](MisfitCode code, double figure, double limit, double by) {
    if (!(by > 1e-9)) return;
    Misfit& m = out.emplace_back();
    m.code = code;
    m.low = true;
    m.figure = figure, m.limit = limit, m.by = by;
  };
  if (model.stop_height) {
    // In full bump the stop is squeezed: that is where the others must not have met yet.
    const double squeezed = *model.stop_height - model.stop_give;
    if (const auto margin = height_of_bag_margin(bag); margin && !bag.card().internal_stop)
      add(MisfitCode::bag_before_stop, squeezed, *margin, *margin - squeezed);
    if (map.has_damper() && model.damper_shut && !model.stands_in("damper_shut_m"))
      if (const auto shut = map.height_for_damper(*model.damper_shut))
        add(MisfitCode::damper_before_stop, squeezed, *shut, *shut - squeezed);
  }
}

/// The stroke from one height. Of sides that differ the graver one each way: the higher pressure in bump, the lower in
/// rebound; one that nobody knows is graver than any.
std::optional<StrokeEnds> graver_stroke(const BagOnEnd& bag, double H, std::size_t load_case, const Travel* known) {
  const auto of = [&](const EndModel& model) -> std::optional<StrokeEnds> {
    const BagOnEnd on(model, bag.bag(), bag.stack());
    const auto travel = free_travel(on, Meeting::hit);
    return travel && model.loads[load_case] ? stroke_ends(on, *model.loads[load_case], H, *travel) : std::nullopt;
  };
  const auto& load = bag.model().loads[load_case];
  if (!bag.model().sides[0]) return known && load ? stroke_ends(bag, *load, H, *known) : of(bag.model());
  const auto left = of(side_of(bag.model(), Side::left)), right = of(side_of(bag.model(), Side::right));
  if (!left || !right) return left ? left : right;
  StrokeEnds out = *left;
  if (!right->bump.pressure || (left->bump.pressure && *right->bump.pressure > *left->bump.pressure))
    out.bump = right->bump;
  if (!right->rebound.pressure || (left->rebound.pressure && *right->rebound.pressure < *left->rebound.pressure))
    out.rebound = right->rebound;
  return out;
}

} // namespace

double room_needed(const air::BagCard& card, const build::Brief& brief) {
  return card.max_diameter + 2 * brief.bag_clearance;
}

std::optional<Misfit> misfit_of_room(const BagOnEnd& bag) {
  const auto& room = bag.model().room;
  // Off the middle of its room a bag has that much less on its worse side.
  const double needs = room_needed(bag.card(), bag.model().brief) + 2 * bag.model().off_room;
  if (!room || needs <= *room) return std::nullopt;
  Misfit out;
  out.code = MisfitCode::room;
  out.figure = needs;
  out.limit = *room;
  out.by = needs - *room;
  return out;
}

const std::optional<Window>& window_for(const Windows& windows, build::PresetUse use) {
  return needs_road_window(use) ? windows.road : windows.reach;
}

void misfits_of_heights(const build::Brief& brief, const std::vector<std::optional<double>>& presets,
                        const Windows& windows, std::vector<Misfit>& out) {
  if (!windows.reach) {
    Misfit& none = out.emplace_back();
    none.code = MisfitCode::no_reach;
    none.by = without_reach;
    return;
  }
  if (!windows.road) {
    Misfit& none = out.emplace_back();
    none.code = MisfitCode::no_road;
    none.by = without_road;
  }
  for (std::size_t i = 0; i < presets.size(); ++i) {
    if (!presets[i]) continue;
    const double H = *presets[i];
    const auto& window = window_for(windows, brief.presets[i].use);
    if (!window || window->contains(H)) continue; // no road window at all was said above
    Misfit& m = out.emplace_back();
    m.code = MisfitCode::preset_outside;
    m.preset = i;
    m.low = H < window->low.height;
    m.edge = m.low ? window->low : window->high;
    if (m.edge->governing) m.load_case = m.edge->governing->load_case;
    m.figure = H;
    m.limit = m.edge->height;
    m.by = std::abs(H - m.edge->height);
  }
}

void misfits_of_stops(const BagOnEnd& bag, std::vector<Misfit>& out) {
  if (!bag.model().sides[0]) return stops_of_side(bag, out);
  std::vector<Misfit> both;
  for (const auto& side : bag.model().sides)
    stops_of_side(BagOnEnd(*side, bag.bag(), bag.stack()), both);
  for (const Misfit& m : both) {
    const auto same = std::find_if(out.begin(), out.end(), [&](const Misfit& o) { return o.code == m.code; });
    if (same == out.end())
      out.push_back(m);
    else if (m.by > same->by)
      *same = m;
  }
}

std::vector<std::size_t> driven_presets(const build::Brief& brief, const std::vector<std::optional<double>>& presets,
                                        const Windows& windows) {
  std::vector<std::size_t> out;
  for (std::size_t p = 0; windows.reach && p < presets.size(); ++p)
    if (presets[p] && needs_road_window(brief.presets[p].use) && windows.reach->contains(*presets[p])) out.push_back(p);
  return out;
}

std::optional<StrokeEnds> misfits_driven_at(const BagOnEnd& bag, std::size_t preset, double H,
                                            const std::optional<PoseState>& state, std::size_t load_case,
                                            std::vector<Misfit>& out, const Travel* travel) {
  const auto stroke = graver_stroke(bag, H, load_case, travel);
  const auto add = [&](MisfitCode code, double by) -> Misfit& {
    Misfit& m = out.emplace_back();
    m.code = code;
    m.load_case = load_case;
    m.preset = preset;
    m.by = by;
    return m;
  };
  if (state && !state->ride_frequency) add(MisfitCode::not_held_up, not_held);
  if (!stroke) return stroke;
  const air::BagCard& card = bag.card();
  for (const StrokeEnd* end : {&stroke->bump, &stroke->rebound}) {
    if (end->pressure) continue;
    Misfit& m = add(MisfitCode::stroke_unknown, unknown);
    m.low = end == &stroke->bump;
    m.figure = end->height;
  }
  if (const double peak = air::peak_of(card).pressure; stroke->bump.pressure && *stroke->bump.pressure > peak) {
    Misfit& m = add(MisfitCode::bump_over_peak, per_share * (*stroke->bump.pressure / peak - 1));
    m.low = true;
    m.figure = *stroke->bump.pressure;
    m.limit = peak;
  }
  if (stroke->rebound.pressure && *stroke->rebound.pressure < card.min_pressure) {
    Misfit& m =
        add(MisfitCode::rebound_under_minimum, per_share * (card.min_pressure - *stroke->rebound.pressure) / 1e5);
    m.figure = *stroke->rebound.pressure;
    m.limit = card.min_pressure;
  }
  return stroke;
}

std::vector<std::string> preset_names(const build::Build& build) {
  std::vector<std::string> out;
  for (const build::Preset& preset : build.variant().brief.presets)
    out.push_back(preset.name);
  return out;
}

std::vector<std::string> case_names(const build::Build& build) {
  std::vector<std::string> out;
  for (const build::LoadCase& load : build.load_cases)
    out.push_back(load.name);
  if (out.empty()) out.emplace_back(words("As surveyed"));
  return out;
}

Message limit_words(const std::optional<Stretch>& limit, const std::vector<std::string>& cases) {
  if (!limit) return {words("the end of what is known"), {}};
  const Message name = name_of(*limit);
  if (!limit->load_case) return name;
  return {words("{0}, {1}"), {name, cases[*limit->load_case]}};
}

Message short_words(const Misfit& m, const MisfitWords& with) {
  const std::string load = m.load_case ? with.cases[*m.load_case] : std::string();
  switch (m.code) {
  case MisfitCode::room:
    return {words("rubs: needs {0} of room, there is {1}"),
            {told_from(metres(m.figure), m.limit), told_from(metres(m.limit), m.figure)}};
  case MisfitCode::no_reach:
    return {words("no height is left between its limits"), {}};
  case MisfitCode::no_road:
    return {words("no height is left to drive at"), {}};
  case MisfitCode::preset_outside: {
    const Message limit = limit_words(m.edge->governing, with.cases);
    return {m.low ? words("{0} is {1} too low: {2}") : words("{0} is {1} too high: {2}"),
            {with.presets[*m.preset], told_from(metres(m.by), 0), limit}};
  }
  case MisfitCode::bag_before_stop:
    return {words("meets {0} before the bump stop is squeezed"), {told_from(metres(m.by), 0)}};
  case MisfitCode::damper_before_stop:
    return {words("the damper shuts {0} before the bump stop is squeezed"), {told_from(metres(m.by), 0)}};
  case MisfitCode::not_held_up:
    return {words("would not hold itself up at road height, {0}"), {load}};
  case MisfitCode::bump_over_peak:
    return {words("{0} in full bump, {1}; it takes {2} for a moment"),
            {told_from(pascals(m.figure), m.limit), load, told_from(pascals(m.limit), m.figure)}};
  case MisfitCode::rebound_under_minimum:
    return {words("{0} in full rebound, {1}; it wants {2}"),
            {told_from(pascals(std::max(0.0, m.figure)), m.limit), load, told_from(pascals(m.limit), m.figure)}};
  case MisfitCode::stroke_unknown:
    return {m.low ? words("full bump at {0} is not on its card") : words("full rebound at {0} is not on its card"),
            {metres(m.figure)}};
  }
  return {};
}

} // namespace mavrel::assess
