#include "assess/search_end.h"

#include "assess/limits.h"
#include "assess/load.h"
#include "assess/softening.h"
#include "build/names.h"

#include <algorithm>
#include <cmath>
#include <map>

namespace mavrel::assess {

using build::at;

namespace {

constexpr double search_step = 0.004; // m; pressures are smooth, their crossings are refined

/// Upper and lower stack for each sum that can be made of them: of one sum the split nearest to today's.
std::vector<std::pair<double, double>> splits(const SearchSpace& space, const build::EndFit& now) {
  std::map<long, std::pair<double, double>> by_sum; // by tenths of a millimetre
  const auto away = [&](const std::pair<double, double>& s) {
    return std::abs(s.first - now.upper_stack) + std::abs(s.second - now.lower_stack);
  };
  for (const double upper : space.upper_stacks)
    for (const double lower : space.lower_stacks) {
      const std::pair split(upper, lower);
      const auto [there, fresh] = by_sum.try_emplace(std::lround((upper + lower) * 1e4), split);
      if (!fresh && away(split) < away(there->second)) there->second = split;
    }
  std::vector<std::pair<double, double>> out;
  for (const auto& [sum, split] : by_sum)
    out.push_back(split);
  return out;
}

class EndSearch {
public:
  EndSearch(const build::Build& build, FittedEnd end, std::vector<CaseLoad> loads)
      : build_(build), brief_(build.variant().brief), end_(std::move(end)), loads_(std::move(loads)) {
    for (const auto& H : end_.presets)
      if (H) wished_.push_back(*H), top_ = std::max(top_.value_or(*H), *H);
  }

  /// Adds the options of one bag on one stack, an added volume each.
  void add_options(const shelf::ShelfBag& bag, std::size_t index, const std::pair<double, double>& split,
                   const std::vector<double>& volumes, std::vector<EndOption>& out) {
    end_.bag = &bag;
    end_.stack = split.first + split.second;
    end_.model.setting.added_volume = 0;
    const BagOnEnd fitted = end_.on();
    EndOption base;
    base.bag = index;
    base.fitted.bag = bag.card.name;
    base.fitted.upper_stack = split.first;
    base.fitted.lower_stack = split.second;
    base.passes = true;
    judge_room(bag.card, base);
    const auto domain = domain_of(end_.model, &fitted, wished_);
    const Windows windows =
        domain ? find_windows(end_.model, &fitted, *domain, end_.road, {std::nullopt, search_step}) : Windows{};
    judge_windows(windows, base);
    if (windows.reach) base.fitted.lowest = windows.reach->low.height;
    if (windows.reach) base.lift = windows.reach->high.height - *end_.road;
    for (const double volume : volumes) {
      EndOption option = base;
      option.fitted.added_volume = volume;
      if (option.passes) fit_volume(option);
      out.push_back(std::move(option));
    }
  }

private:
  void miss(EndOption& option, double by, Message why) const {
    if (!option.passes && option.miss_by >= by) return; // the gravest is named
    option.passes = false;
    option.miss_by = by;
    option.miss = std::move(why);
  }

  std::string name() const { return build::name_of(end_.model.end); }

  void judge_room(const air::BagCard& card, EndOption& option) const {
    const auto room = build_.end(end_.model.end).bag_room;
    const double needs = card.max_diameter + 2 * brief_.bag_clearance;
    if (room && needs > *room)
      miss(option, needs - *room,
           {words("{0}: needs {1} of room, there is {2}"), {name(), metres(needs), metres(*room)}});
  }

  void judge_windows(const Windows& windows, EndOption& option) const {
    if (!windows.reach) return miss(option, 1, {words("{0}: no height is left between its limits"), {name()}});
    for (std::size_t i = 0; i < end_.presets.size(); ++i) {
      if (!end_.presets[i]) continue;
      const double H = *end_.presets[i];
      const build::Preset& preset = brief_.presets[i];
      const auto& window = needs_road_window(preset.use) ? windows.road : windows.reach;
      if (!window) {
        miss(option, 0.5, {words("{0}: no height is left to drive at"), {name()}});
        continue;
      }
      if (window->contains(H)) continue;
      const bool low = H < window->low.height;
      const Edge& edge = low ? window->low : window->high;
      const double off = std::abs(H - edge.height);
      std::string limit = edge.governing ? limit_name(edge.governing->code) : words("its end");
      if (edge.governing && edge.governing->load_case) limit += ", " + loads_[*edge.governing->load_case].name;
      miss(option, off,
           {low ? words("{0}: {1} is {2} too low: {3}") : words("{0}: {1} is {2} too high: {3}"),
            {name(), preset.name, metres(off), limit}});
    }
  }

  /// The option with its added volume: its line, then comfort, pressure and air in every load case.
  void fit_volume(EndOption& option) {
    end_.model.setting.added_volume = option.fitted.added_volume;
    end_.model.line_bore = build_.variant().fit[at(end_.model.end)].line_bore;
    if (option.fitted.added_volume > 0)
      if (const auto bore = bore_between(end_, *end_.road, 0)) end_.model.line_bore = *bore;
    option.fitted.line_bore = end_.model.line_bore;
    const BagOnEnd bag = end_.on();
    const air::BagSetting& setting = end_.model.setting;
    const auto air_in = [&](const BagOnEnd::Place& place, double pressure) {
      return 2 * air::air_mass(pressure + setting.ambient.pressure(), place.section.volume + setting.added_volume,
                               setting.ambient.temperature);
    };
    const auto road = bag.place(*end_.road);
    const auto parked = end_.parked ? bag.place(*end_.parked) : std::nullopt;
    const auto top = top_ ? bag.place(*top_) : std::nullopt;
    for (std::size_t c = 0; c < loads_.size(); ++c) {
      const auto& load = end_.model.loads[c];
      const auto state = road && load ? bag.state(*road, *load) : std::nullopt;
      if (!state || !state->frequency)
        return miss(option, 1, {words("{0}: would not hold itself up at road height, {1}"), {name(), loads_[c].name}});
      option.fitted.frequency.push_back(*state->frequency);
      option.fitted.road_pressure =
          std::max({option.fitted.road_pressure, state->side_pressure[0], state->side_pressure[1]});
      const auto low = parked ? bag.state(*parked, *load) : std::nullopt;
      const auto high = top ? bag.state(*top, *load) : std::nullopt;
      if (low && high) option.air = std::max(option.air, air_in(*top, high->pressure) - air_in(*parked, low->pressure));
    }
    option.reserve = 1 - option.fitted.road_pressure / bag.card().max_pressure;
  }

  const build::Build& build_;
  const build::Brief& brief_;
  FittedEnd end_;
  std::vector<CaseLoad> loads_;
  std::vector<double> wished_;
  std::optional<double> top_;
};

} // namespace

Expected<std::vector<EndOption>> end_options(const build::Build& build, const shelf::Shelf& shelf, End end,
                                             const SearchSpace& space, const std::stop_token& stop) {
  auto loads = case_loads(build);
  FittedEnd fitted = fitted_end(build, shelf, end, loads);
  const std::string name = build::name_of(end);
  if (!fitted.model.map)
    return refuse(words("{0}: height, motion ratio and spring seat distance are needed to search."), {name});
  for (const CaseLoad& load : loads)
    if (!load.ends[at(end)]) return refuse(words("{0}: corner weights and wheelbase are needed to search."), {name});
  if (!fitted.road) return refuse(words("{0}: wish for a road height first; everything is judged there."), {name});
  const auto stacks = splits(space, build.variant().fit[at(end)]);
  EndSearch one(build, std::move(fitted), std::move(loads));
  std::vector<EndOption> out;
  out.reserve(shelf.bags.size() * stacks.size() * space.added_volumes.size());
  for (std::size_t i = 0; i < shelf.bags.size(); ++i)
    for (const auto& split : stacks) {
      if (stop.stop_requested()) return out;
      one.add_options(shelf.bags[i], i, split, space.added_volumes, out);
    }
  return out;
}

SearchFigures figures_of(const build::Brief& brief, const EndOption& front, const EndOption& rear) {
  SearchFigures out;
  out.lowest = 0.5 * (front.fitted.lowest + rear.fitted.lowest);
  const auto outside = [](double value, double low, double high) { return std::max({0.0, low - value, value - high}); };
  for (std::size_t c = 0; c < front.fitted.frequency.size(); ++c) {
    const double f = front.fitted.frequency[c], r = rear.fitted.frequency[c];
    const double off = outside(f, brief.frequency_low, brief.frequency_high) +
                       outside(r, brief.frequency_low, brief.frequency_high) +
                       outside(r / f - 1, brief.rear_quicker_low, brief.rear_quicker_high);
    out.discomfort = std::max(out.discomfort, off);
  }
  out.air = front.air + rear.air;
  out.reserve = std::min(front.reserve, rear.reserve);
  out.lift = std::min(front.lift, rear.lift);
  return out;
}

} // namespace mavrel::assess
