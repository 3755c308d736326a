#include "assess/bags/judge.h"

#include "assess/end/bag_on_end.h"
#include "assess/end/limits.h"
#include "assess/end/misfit.h"
#include "assess/end/presets.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

/// What is asked of every bag on the shelf, worked out once.
struct Asked {
  const JudgeGiven& given;
  const build::Brief& brief; // of the end's: reserves and presets
  FittedEnd end;             // without a bag
  std::size_t load_case;
};

class Judge {
public:
  Judge(const Asked& asked, const shelf::ShelfBag& bag) : asked_(asked), bag_(asked.end.model, bag, asked.end.stack) {}

  BagVerdict verdict() {
    out_.bag = bag_.card().name;
    out_.kind = bag_.card().kind;
    out_.diameter = bag_.card().max_diameter;
    out_.road_height = asked_.end.road;
    std::vector<double> wished;
    for (const auto& H : asked_.end.presets)
      if (H) wished.push_back(*H);
    const auto domain = domain_of(asked_.end.model, &bag_, wished);
    if (!domain) return out_;
    const auto travel = free_travel(bag_, Meeting::hit);
    std::vector<Misfit> misfits;
    if (const auto m = misfit_of_room(bag_)) misfits.push_back(*m);
    const Windows windows = judge_case(*domain, travel, asked_.load_case, misfits);
    misfits_of_stops(bag_, misfits);
    if (windows.reach) out_.reach = {windows.reach->low.height, windows.reach->high.height};
    if (windows.road) out_.road = {windows.road->low.height, windows.road->high.height};
    out_.fit = misfits.empty() ? Fit::fits : Fit::does_not_fit;
    judge_at_road(misfits);
    for (const Misfit& m : misfits)
      if (!said_as_pressure(m)) out_.reasons.push_back(short_words(m, {asked_.given.presets, asked_.given.cases}));
    for (Message& why : cares_)
      care(std::move(why));
    if (out_.fit != Fit::does_not_fit) judge_other_cases(*domain, travel);
    return out_;
  }

private:
  void care(Message why) {
    out_.reasons.push_back(std::move(why));
    if (out_.fit == Fit::fits) out_.fit = Fit::with_care;
  }

  /// Every hard limit that depends on the load, in one case.
  Windows judge_case(const Domain& domain, const std::optional<Travel>& travel, std::size_t c,
                     std::vector<Misfit>& misfits) const {
    Windows windows = find_windows(asked_.end.model, &bag_, domain, asked_.end.road, c);
    misfits_of_heights(asked_.brief, asked_.end.presets, windows, misfits);
    const auto& load = asked_.end.model.loads[c];
    if (load)
      for (const std::size_t p : driven_presets(asked_.brief, asked_.end.presets, windows)) {
        const double H = *asked_.end.presets[p];
        misfits_driven_at(bag_, p, H, bag_.state(H, *load), c, misfits, travel ? &*travel : nullptr);
      }
    return windows;
  }

  /// A road height that a pressure forbids is said as that pressure.
  bool said_as_pressure(const Misfit& m) const {
    if (!pressure_said_) return false;
    if (m.code == MisfitCode::no_road) return true;
    return m.code == MisfitCode::preset_outside && needs_road_window(asked_.brief.presets[*m.preset].use);
  }

  void judge_at_road(const std::vector<Misfit>& misfits) {
    const auto& load = asked_.end.model.loads[asked_.load_case];
    // While nobody wished for a road height, as it stands now: something to compare bags by.
    const auto& at = asked_.end.road ? asked_.end.road : asked_.end.model.surveyed_height;
    if (!at || !load) return;
    const auto state = bag_.state(*at, *load);
    if (!state) return;
    const auto [low, high] = std::minmax(state->side_pressure[0], state->side_pressure[1]);
    out_.pressure = high;
    out_.beyond = state->beyond;
    out_.frequency = state->frequency;
    out_.ride_frequency = state->ride_frequency;
    if (!asked_.end.road) return; // nothing is wanted there
    const build::Brief& brief = asked_.brief;
    const bool forbidden = std::any_of(misfits.begin(), misfits.end(), [](const Misfit& m) {
      return m.code == MisfitCode::no_road || m.code == MisfitCode::preset_outside;
    });
    if (forbidden && high > brief.road_pressure_share * bag_.card().max_pressure) {
      out_.reasons.push_back({words("weak: {0} on the road, {1} of its maximum"),
                              {pascals(high), share(high / bag_.card().max_pressure)}});
      pressure_said_ = true;
    } else if (forbidden && low < bag_.card().min_pressure) {
      out_.reasons.push_back(
          {words("slack: {0} on the road, it wants {1}"), {pascals(low), pascals(bag_.card().min_pressure)}});
      pressure_said_ = true;
    }
    if (!state->ride_frequency) return;
    const double f = *state->ride_frequency;
    const JudgeGiven& wanted = asked_.given;
    if (f > wanted.frequency_high)
      cares_.push_back({words("firm: {0}, wanted up to {1}"),
                        {told_from(hertz(f), wanted.frequency_high), hertz(wanted.frequency_high)}});
    else if (f < wanted.frequency_low)
      cares_.push_back({words("soft: {0}, wanted from {1}"),
                        {told_from(hertz(f), wanted.frequency_low), hertz(wanted.frequency_low)}});
  }

  void judge_other_cases(const Domain& domain, const std::optional<Travel>& travel) {
    for (std::size_t c = 0; c < asked_.given.cases.size(); ++c) {
      if (c == asked_.load_case || !asked_.end.model.loads[c]) continue;
      std::vector<Misfit> misfits;
      judge_case(domain, travel, c, misfits);
      if (!misfits.empty()) care({words("not in load case {0}"), {asked_.given.cases[c]}});
    }
  }

  const Asked& asked_;
  BagOnEnd bag_;
  BagVerdict out_;
  std::vector<Message> cares_;
  bool pressure_said_ = false;
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

JudgeGiven judge_given(const build::Build& build, const shelf::Shelf& shelf, const EndGiven& end,
                       std::size_t load_case) {
  const build::Brief& brief = build.variant().brief;
  JudgeGiven out{
      end, shelf.bags, load_case, case_names(build), preset_names(build), brief.frequency_low, brief.frequency_high};
  out.end.bag.reset();
  out.end.fit.bag.clear();
  return out;
}

std::vector<BagVerdict> judge_shelf(const JudgeGiven& given) {
  const Asked asked{given, given.end.brief, fitted_end(given.end), given.load_case};
  if (!asked.end.model.map || given.load_case >= given.cases.size()) return {};
  std::vector<BagVerdict> out;
  for (const shelf::ShelfBag& bag : given.bags)
    out.push_back(Judge(asked, bag).verdict());
  return out;
}

std::vector<BagVerdict> judge_shelf(const build::Build& build, const shelf::Shelf& shelf, End end,
                                    std::size_t load_case) {
  const EndGiven at = end_given(build, shelf, end);
  return judge_shelf(judge_given(build, shelf, at, load_case));
}

void sort_verdicts(std::vector<BagVerdict>& verdicts, BagOrder order) {
  const auto name = [](const BagVerdict& v) { return std::optional(v.bag); };
  sort_by(verdicts, name);
  switch (order) {
  case BagOrder::name:
    break;
  case BagOrder::frequency:
    sort_by(verdicts, [](const BagVerdict& v) { return v.ride_frequency; });
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
    sort_by(verdicts, [](const BagVerdict& v) { return v.ride_frequency; });
    sort_by(verdicts, [](const BagVerdict& v) { return std::optional(v.reasons.size()); });
    sort_by(verdicts, [](const BagVerdict& v) { return std::optional(static_cast<int>(v.fit)); });
    // Of what has no figures yet nothing is known that would be good.
    sort_by(verdicts, [](const BagVerdict& v) { return std::optional(!v.pressure && !v.ride_frequency); });
    break;
  }
}

} // namespace mavrel::assess
