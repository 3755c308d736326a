#include "assess/judge.h"

#include "assess/bag_on_end.h"
#include "assess/limits.h"
#include "assess/load.h"
#include "assess/presets.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

/// Pressures are smooth in H: this coarse a search, refined by a root finder, finds the same windows.
constexpr double judging_step = 0.004;

/// What is asked of every bag on the shelf, worked out once.
struct Asked {
  const build::Build& build;
  EndModel model;
  std::vector<CaseLoad> loads;
  std::vector<std::optional<double>> presets;
  std::optional<double> road;
  std::size_t load_case;
  double stack;
  std::optional<double> room;
};

class Judge {
public:
  Judge(const Asked& asked, const shelf::ShelfBag& bag) : asked_(asked), bag_(asked.model, bag, asked.stack) {}

  BagVerdict verdict() {
    out_.bag = bag_.card().name;
    out_.kind = bag_.card().kind;
    out_.diameter = bag_.card().max_diameter;
    out_.road_height = asked_.road;
    std::vector<double> wished;
    for (const auto& H : asked_.presets)
      if (H) wished.push_back(*H);
    const auto domain = domain_of(asked_.model, &bag_, wished);
    if (!domain) return out_;
    const Windows windows = find_windows(asked_.model, &bag_, *domain, asked_.road, {asked_.load_case, judging_step});
    if (windows.reach) out_.reach = {windows.reach->low.height, windows.reach->high.height};
    if (windows.road) out_.road = {windows.road->low.height, windows.road->high.height};
    out_.fit = Fit::fits;
    judge_room();
    judge_at_road();
    judge_windows(windows);
    if (out_.fit != Fit::does_not_fit) judge_other_cases(*domain);
    return out_;
  }

private:
  void no(Message why) {
    out_.reasons.insert(out_.reasons.begin() + static_cast<std::ptrdiff_t>(refusals_++), std::move(why));
    out_.fit = Fit::does_not_fit;
  }
  void care(Message why) {
    out_.reasons.push_back(std::move(why));
    if (out_.fit == Fit::fits) out_.fit = Fit::with_care;
  }

  void judge_room() {
    if (!asked_.room) return;
    const double needs = bag_.card().max_diameter + 2 * asked_.model.brief.bag_clearance;
    if (needs > *asked_.room)
      no({words("rubs: needs {0} of room, there is {1}"), {metres(needs), metres(*asked_.room)}});
  }

  static Message named_limit(const char* text, const std::optional<Stretch>& limit, double H) {
    return {text, {std::string(limit ? limit_name(limit->code) : "its end"), metres(H)}};
  }

  void judge_windows(const Windows& windows) {
    if (!windows.reach) return no({words("no height is left between its limits"), {}});
    for (std::size_t i = 0; i < asked_.presets.size(); ++i) {
      if (!asked_.presets[i]) continue;
      const double H = *asked_.presets[i];
      const build::Preset& preset = asked_.build.variant().brief.presets[i];
      const auto& window = needs_road_window(preset.use) ? windows.road : windows.reach;
      if (!window) {
        no({words("{0} {1}: no road window is left"), {preset.name, metres(H)}});
        continue;
      }
      if (window->contains(H)) continue;
      const bool low = H < window->low.height;
      const Edge& edge = low ? window->low : window->high;
      const double off = std::abs(H - edge.height);
      no({low ? words("{0} is {1} too low: {2}") : words("{0} is {1} too high: {2}"),
          {preset.name, metres(off), std::string(edge.governing ? limit_name(edge.governing->code) : "")}});
    }
  }

  void judge_at_road() {
    const auto& load = asked_.model.loads[asked_.load_case];
    if (!asked_.road || !load) return;
    const auto state = bag_.state(*asked_.road, *load);
    if (!state) return;
    out_.pressure = std::max(state->side_pressure[0], state->side_pressure[1]);
    out_.frequency = state->frequency;
    const double share_used = *out_.pressure / bag_.card().max_pressure;
    const build::Brief& brief = asked_.model.brief;
    if (share_used > brief.road_pressure_share)
      no({words("weak: {0} on the road, {1} of its maximum"), {pascals(*out_.pressure), share(share_used)}});
    else if (*out_.pressure < bag_.card().min_pressure)
      no({words("slack: {0} on the road, it wants {1}"), {pascals(*out_.pressure), pascals(bag_.card().min_pressure)}});
    if (!state->frequency) return no({words("would not hold itself up at road height"), {}});
    if (*state->frequency > brief.frequency_high)
      care({words("firm: {0}, wanted up to {1}"), {hertz(*state->frequency), hertz(brief.frequency_high)}});
    else if (*state->frequency < brief.frequency_low)
      care({words("soft: {0}, wanted from {1}"), {hertz(*state->frequency), hertz(brief.frequency_low)}});
  }

  void judge_other_cases(const Domain& domain) {
    for (std::size_t c = 0; c < asked_.loads.size(); ++c) {
      if (c == asked_.load_case || !asked_.model.loads[c]) continue;
      const Windows windows = find_windows(asked_.model, &bag_, domain, asked_.road, {c, judging_step});
      const bool fails = std::any_of(asked_.presets.begin(), asked_.presets.end(), [&](const auto& H) {
        if (!H) return false;
        const auto i = static_cast<std::size_t>(&H - asked_.presets.data());
        const bool road = needs_road_window(asked_.build.variant().brief.presets[i].use);
        const auto& window = road ? windows.road : windows.reach;
        return !window || !window->contains(*H);
      });
      if (fails) care({words("not in load case {0}"), {asked_.loads[c].name}});
    }
  }

  const Asked& asked_;
  BagOnEnd bag_;
  BagVerdict out_;
  std::size_t refusals_ = 0;
};

template <class Key>
void sort_by(std::vector<BagVerdict>& verdicts, Key key) {
  std::stable_sort(verdicts.begin(), verdicts.end(), [&](const BagVerdict& a, const BagVerdict& b) {
    const auto ka = key(a), kb = key(b);
    if (ka.has_value() != kb.has_value()) return ka.has_value();
    return ka && *ka < *kb;
  });
}

} // namespace

std::vector<BagVerdict> judge_shelf(const build::Build& build, const shelf::Shelf& shelf, End end,
                                    std::size_t load_case) {
  Asked asked{build, {}, case_loads(build), {}, {}, load_case, 0, build.end(end).bag_room};
  asked.model = end_model(build, end, asked.loads);
  if (!asked.model.map || load_case >= asked.loads.size()) return {};
  const build::Variant& variant = build.variant();
  asked.presets = preset_heights(variant.brief, asked.model);
  asked.road = height_of_use(variant.brief, asked.presets, build::PresetUse::road);
  const build::EndFit& fit = variant.fit[build::at(end)];
  asked.stack = fit.upper_stack + fit.lower_stack;
  std::vector<BagVerdict> out;
  for (const shelf::ShelfBag& bag : shelf.bags)
    out.push_back(Judge(asked, bag).verdict());
  return out;
}

void sort_verdicts(std::vector<BagVerdict>& verdicts, BagOrder order) {
  const auto name = [](const BagVerdict& v) { return std::optional(v.bag); };
  sort_by(verdicts, name);
  switch (order) {
  case BagOrder::name:
    break;
  case BagOrder::frequency:
    sort_by(verdicts, [](const BagVerdict& v) { return v.frequency; });
    break;
  case BagOrder::pressure:
    sort_by(verdicts, [](const BagVerdict& v) { return v.pressure; });
    break;
  case BagOrder::diameter:
    sort_by(verdicts, [](const BagVerdict& v) { return std::optional(v.diameter); });
    break;
  case BagOrder::lowest:
    sort_by(verdicts, [](const BagVerdict& v) { return v.reach ? std::optional(v.reach->first) : std::nullopt; });
    break;
  case BagOrder::best:
    sort_by(verdicts, [](const BagVerdict& v) { return v.frequency; });
    sort_by(verdicts, [](const BagVerdict& v) { return std::optional(v.reasons.size()); });
    sort_by(verdicts, [](const BagVerdict& v) { return std::optional(static_cast<int>(v.fit)); });
    break;
  }
}

} // namespace mavrel::assess
