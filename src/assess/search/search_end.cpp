#include "assess/search/search_end.h"

#include "assess/bags/softening.h"
#include "assess/end/limits.h"
#include "assess/end/misfit.h"
#include "build/names.h"
#include "parallel/in_parallel.h"

#include <algorithm>
#include <cmath>
#include <iterator>
#include <map>
#include <mutex>

namespace mavrel::assess {

using build::at;

namespace {

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
  EndSearch(const SearchGiven& given, const EndGiven& at_end, FittedEnd end)
      : given_(given), at_(at_end), end_(std::move(end)) {
    for (const auto& H : end_.presets)
      if (H) wished_.push_back(*H), top_ = std::max(top_.value_or(*H), *H);
  }

  /// Adds the options of one bag on one stack, an added volume each.
  void add_options(const shelf::ShelfBag& bag, std::size_t index, const std::pair<double, double>& split,
                   const std::vector<double>& volumes, std::vector<EndOption>& out) {
    EndOption base;
    const auto travel = stand(bag, index, split, base);
    for (const double volume : volumes) {
      EndOption option = base;
      option.fitted.added_volume = volume;
      if (option.passes && travel) fit_volume(*travel, option, std::nullopt);
      out.push_back(std::move(option));
    }
  }

  /// Does an option hold on this end, with the same line?
  /// @param bag  the same one at every call; options that share a stack best one after the other
  [[nodiscard]] EndOption again(const shelf::ShelfBag& bag, const EndOption& option) {
    const std::pair split(option.fitted.upper_stack, option.fitted.lower_stack);
    if (!stood_ || stood_->split != split) {
      stood_ = Stood{split, {}, {}};
      stood_->travel = stand(bag, option.bag, split, stood_->base);
    }
    EndOption out = stood_->base;
    out.fitted.added_volume = option.fitted.added_volume;
    if (out.passes && stood_->travel) fit_volume(*stood_->travel, out, option.fitted.line_bore);
    return out;
  }

private:
  /// One bag on one stack, without added volume: what of it is refused already, and how far the end may travel.
  std::optional<Travel> stand(const shelf::ShelfBag& bag, std::size_t index, const std::pair<double, double>& split,
                              EndOption& base) {
    end_.bag = {std::shared_ptr<void>(), &bag}; // the shelf holds it
    end_.stand_on(split.first, split.second);
    end_.model.setting.added_volume = 0;
    const BagOnEnd fitted = end_.on();
    base.bag = index;
    base.fitted.bag = bag.card.name;
    base.fitted.upper_stack = split.first;
    base.fitted.lower_stack = split.second;
    base.passes = true;
    std::vector<Misfit> misfits;
    if (const auto m = misfit_of_room(fitted)) misfits.push_back(*m);
    const auto domain = domain_of(end_.model, &fitted, wished_);
    const Windows windows = domain ? find_windows(end_.model, &fitted, *domain, end_.road) : Windows{};
    misfits_of_heights(at_.brief, end_.presets, windows, misfits);
    misfits_of_stops(fitted, misfits);
    refuse_by(misfits, base);
    if (windows.reach) base.fitted.lowest = windows.reach->low.height;
    if (windows.reach) base.lift = windows.reach->high.height - *end_.road;
    driven_ = driven_presets(at_.brief, end_.presets, windows);
    return free_travel(fitted, Meeting::hit);
  }

  /// The gravest misfit is the one named.
  void refuse_by(const std::vector<Misfit>& misfits, EndOption& option) const {
    for (const Misfit& m : misfits) {
      if (!option.passes && option.miss_by >= m.by) continue;
      option.passes = false;
      option.miss_by = m.by;
      option.miss = {words("{0}: {1}"),
                     {build::name_of(end_.model.end), short_words(m, {given_.presets, given_.cases})}};
    }
  }

  /// The option with its added volume: its line, then strokes, comfort, pressure and air in every load case.
  /// @param line  m, bore of its line where that is laid already
  void fit_volume(const Travel& travel, EndOption& option, const std::optional<double>& line) {
    end_.model.setting.added_volume = option.fitted.added_volume;
    double bore = line.value_or(at_.fit.line_bore);
    if (!line && option.fitted.added_volume > 0) bore = bore_between(end_, *end_.road, 0).value_or(bore);
    end_.model.line = air::tube(bore, end_.model.line_length);
    option.fitted.line_bore = bore;
    const BagOnEnd bag = end_.on();
    const air::BagSetting& setting = end_.model.setting;
    const auto air_in = [&](const BagOnEnd::Place& place, double pressure) {
      return 2 * air::air_mass(pressure + setting.ambient.pressure(), place.section.volume + setting.added_volume,
                               setting.ambient.temperature);
    };
    const auto road = bag.place(*end_.road);
    const auto parked = end_.parked ? bag.place(*end_.parked) : std::nullopt;
    const auto top = top_ ? bag.place(*top_) : std::nullopt;
    std::vector<Misfit> misfits;
    for (std::size_t c = 0; c < end_.model.loads.size(); ++c) {
      const EndLoad& load = *end_.model.loads[c];
      const auto state = road ? bag.state(*road, load) : std::nullopt;
      for (const std::size_t p : driven_) {
        const double H = *end_.presets[p];
        misfits_driven_at(bag, p, H, H == *end_.road ? state : bag.state(H, load), c, misfits, &travel);
      }
      if (!misfits.empty() || !state || !state->frequency) break; // one case is enough to refuse it
      option.fitted.frequency.push_back(*state->frequency);
      option.fitted.ride_frequency.push_back(*state->ride_frequency);
      option.fitted.road_pressure =
          std::max({option.fitted.road_pressure, state->side_pressure[0], state->side_pressure[1]});
      const auto low = parked ? bag.pressure(*parked, load.sprung_mass) : std::nullopt;
      const auto high = top ? bag.pressure(*top, load.sprung_mass) : std::nullopt;
      if (low && high) option.air = std::max(option.air, air_in(*top, *high) - air_in(*parked, *low));
    }
    refuse_by(misfits, option);
    option.fitted.beyond = air::beyond(bag.card(), option.fitted.road_pressure);
    option.reserve = 1 - option.fitted.road_pressure / bag.card().max_pressure;
  }

  const SearchGiven& given_;
  const EndGiven& at_;
  FittedEnd end_;
  std::vector<double> wished_;
  std::optional<double> top_;
  std::vector<std::size_t> driven_; // presets, of the bag and stack that stand now
  /// The stack that the bag stands on now.
  struct Stood {
    std::pair<double, double> split;
    EndOption base;
    std::optional<Travel> travel;
  };
  std::optional<Stood> stood_;
};

/// One car of those that the readings may be of, as this end's search sees it.
struct DrawnEnd {
  EndGiven given;
  FittedEnd end;
  CardOff card; // how a bag's card is off
};

/// Can anything be judged on it?
bool can_be_judged(const FittedEnd& end) {
  return end.model.map && end.road &&
         std::all_of(end.model.loads.begin(), end.model.loads.end(), [](const auto& load) { return load.has_value(); });
}

/// Options that pass as the readings are, tried on every car that they may be of: what fails in more than one of twenty
/// is refused, so that two ends hold together in nine of ten.
class Holding {
public:
  static constexpr std::size_t may_fail =
      static_cast<std::size_t>((1 - holding_share) / 2 * static_cast<double>(holding_draws) + 0.5);

  Holding(const SearchGiven& given, End end, const SearchControl& control)
      : given_(given), end_(end), control_(control) {
    shelf_.parts = given.doubt->parts;
    const HoldingCars cars(given.doubt->build, shelf_);
    drawn_.resize(holding_draws);
    in_parallel(holding_draws, {control.threads, control.stop, {}}, [&](std::size_t i) {
      const DrawnCar car = cars.car(i);
      EndGiven now = end_given(car.build, shelf_, end);
      FittedEnd fitted = fitted_end(now);
      drawn_[i].emplace(DrawnEnd{std::move(now), std::move(fitted), car.card[at(end)]});
    });
  }

  /// @param options  of one bag
  void judge(const shelf::ShelfBag& bag, std::vector<EndOption>& options) {
    std::vector<std::size_t> left;
    for (std::size_t i = 0; i < options.size(); ++i)
      if (options[i].passes) left.push_back(i);
    std::vector<std::size_t> failed(options.size(), 0);
    for (std::size_t d = 0; d < drawn_.size() && !left.empty(); ++d) {
      if (control_.stop.stop_requested() || !drawn_[d]) return;
      const shelf::ShelfBag off = with_card_off(bag, drawn_[d]->card);
      const bool can = can_be_judged(drawn_[d]->end);
      EndSearch one(given_, drawn_[d]->given, drawn_[d]->end);
      std::erase_if(left, [&](std::size_t i) {
        EndOption& option = options[i];
        const EndOption then = can ? one.again(off, option) : EndOption{};
        if (then.passes) {
          option.holds.set(d);
          return false;
        }
        if (++failed[i] <= may_fail) return false;
        option.passes = false;
        option.miss_by = 0; // it is a near miss, whatever it fails by in one case
        option.miss = then.miss.empty()
                          ? Message{words("{0}: no answer in more than one case of twenty"), {build::name_of(end_)}}
                          : Message{words("{0}, in more than one case of twenty"), {then.miss}};
        return true;
      });
    }
    told();
  }

private:
  void told() {
    const std::scoped_lock lock(lock_);
    if (control_.progress) control_.progress(static_cast<double>(++done_) / static_cast<double>(given_.bags.size()));
  }

  const SearchGiven& given_;
  End end_;
  const SearchControl& control_;
  shelf::Shelf shelf_;                         // no bags
  std::vector<std::optional<DrawnEnd>> drawn_; // none: it was stopped before
  std::mutex lock_;
  std::size_t done_ = 0; // bags
};

} // namespace

Expected<std::vector<EndOption>> end_options(const SearchGiven& given, End end, const SearchControl& control) {
  const FittedEnd fitted = fitted_end(given.ends[at(end)]);
  const char* name = build::name_of(end);
  if (!fitted.model.map) return refuse(words("{0}: the height is needed to search."), {name});
  for (const auto& load : fitted.model.loads)
    if (!load) return refuse(words("{0}: corner weights and wheelbase are needed to search."), {name});
  if (!fitted.road) return refuse(words("{0}: wish for a road height first; everything is judged there."), {name});
  const auto stacks = splits(given.space, given.ends[at(end)].fit);
  // A bag is one piece of work; what comes of it is put together in the order of the shelf, whoever worked it out.
  std::vector<std::vector<EndOption>> by_bag(given.bags.size());
  std::optional<Holding> holding;
  if (given.doubt) holding.emplace(given, end, control);
  in_parallel(given.bags.size(), {control.threads, control.stop, {}}, [&](std::size_t i) {
    EndSearch one(given, given.ends[at(end)], fitted);
    for (const auto& split : stacks)
      one.add_options(given.bags[i], i, split, given.space.added_volumes, by_bag[i]);
    if (holding) holding->judge(given.bags[i], by_bag[i]);
  });
  std::vector<EndOption> out;
  out.reserve(given.bags.size() * stacks.size() * given.space.added_volumes.size());
  for (auto& options : by_bag)
    std::move(options.begin(), options.end(), std::back_inserter(out));
  return out;
}

double discomfort_of(const ComfortWanted& wanted, double front, double rear) {
  const auto outside = [](double value, double low, double high) { return std::max({0.0, low - value, value - high}); };
  return outside(front, wanted.frequency_low, wanted.frequency_high) +
         outside(rear, wanted.frequency_low, wanted.frequency_high) +
         outside(rear / front - 1, wanted.rear_quicker_low, wanted.rear_quicker_high);
}

SearchFigures figures_of(const ComfortWanted& wanted, const EndOption& front, const EndOption& rear) {
  SearchFigures out;
  out.lowest = 0.5 * (front.fitted.lowest + rear.fitted.lowest);
  for (std::size_t c = 0; c < front.fitted.ride_frequency.size(); ++c)
    out.discomfort =
        std::max(out.discomfort, discomfort_of(wanted, front.fitted.ride_frequency[c], rear.fitted.ride_frequency[c]));
  out.air = front.air + rear.air;
  out.reserve = std::min(front.reserve, rear.reserve);
  out.lift = std::min(front.lift, rear.lift);
  return out;
}

} // namespace mavrel::assess
