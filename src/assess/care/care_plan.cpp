#include "assess/care/care_plan.h"

#include "air/gas.h"
#include "assess/air/wet.h"
#include "assess/care/trends.h"
#include "assess/faults/notes.h"
#include "assess/fit_up/checks.h"
#include "assess/fit_up/features.h"
#include "assess/fit_up/jobs.h"
#include "build/names.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

using build::LogKind;
using work::Day;

namespace {

constexpr double year_days = 365.25;
constexpr double frost_share = 0.2;  // of the water that may stand, where nights freeze
constexpr double nights_colder = 6;  // K than the day's mean
constexpr Day furthest = 3 * 366;    // days looked ahead
constexpr Day drain_at_most = 90;    // days: a drain that is never opened sticks
constexpr double drain_unknown = 30; // days between drains where nothing is known of the air
constexpr double near_bag = 2;       // rooms: what is nearer than so many is looked at twice as often

// clang-format off
constexpr CareTask tasks[] = {
    {"drain", words("Drain the tank"), words("At its lowest point, until only air comes; note how much water it was."), 0, 0, 0, 0},
    {"dryer", words("New charge for the dryer"), words("Release the tank first; open it for as short as it takes."), 0, 0, 0, 0},
    {"torque", words("Torque at road height"), words("Every bolt that was loosened, at road height, with the wrench."), 365, 2e7, 14, 1e5},
    {"collars", words("Collars and pinch bolts"), words("A hand on every collar, a mark of paint across it."), 182, 8e6, 0, 0},
    {"bags", words("Look at the bags"), words("Wheels off, aired up: what rubbed, or nearly, first; folds, grit under them, cracks."), 182, 1e7, 0, 0},
    {"settle", words("Heights at road pressure"), words("Gauge and tape at each corner, cold, on the same floor: new bags relax a little."), 182, 0, 7, 0},
    {"lines", words("Lines and fittings"), words("Along every line with soap; clips, grommets, what is hot."), 365, 2e7, 0, 0},
    {"hold", words("Held overnight"), words("Gauges and thermometer at night and in the morning; note the loss."), 365, 0, 0, 0},
    {"filter", words("Intake filter and silencers"), words("Clean or new; time the tank from where the switch starts to where it stops."), 365, 1.5e7, 0, 0},
    {"alignment", words("Wheel alignment at road height"), words("At the height it is driven at, bags settled."), 730, 2e7, 60, 1e6},
};
constexpr CareEvent events[] = {
    {"wheel_change", words("Other wheels or tyres"), "torque", "lock_gaps heights lamps"},
    {"crash", words("Crash, or a hard knock"), "bags torque collars lines alignment hold", "lock_gaps top_out camber lamps"},
    {"long_standing", words("Stood for long"), "drain hold bags", ""},
    {"frost", words("First hard frost"), "drain", ""},
    {"opened_system", words("Air system opened"), "dryer hold", "leak_minutes"},
    {"new_bag", words("New bag"), "settle torque hold", "leak_minutes pressures"},
    {"new_damper", words("New damper"), "torque collars", "top_out stop_first"},
    {"new_compressor", words("New compressor"), "filter", "fill"},
    {"rubbed", words("Something rubbed"), "bags", "lock_gaps"},
    {"lifted_free", words("Lifted with the wheels hanging"), "bags", ""},
    {"sold", words("New owner"), "bags hold", ""},
};
constexpr CareReading readings[] = {
    {"height", words("Height at road pressure"), true, &build::LogEntry::height, Kind::length},
    {"hold", words("Air lost an hour"), true, &build::LogEntry::hourly_loss, Kind::share},
    {"tank_fill", words("Tank from cut-in to cut-out"), false, &build::LogEntry::seconds, Kind::time},
    {"water", words("Water drained"), false, &build::LogEntry::water, Kind::mass},
};
// clang-format on

template <class Rows>
auto find_row(const Rows& rows, std::string_view key) -> decltype(&rows[0]) {
  for (const auto& row : rows)
    if (key == row.key) return &row;
  return nullptr;
}

/// A line of the log with its day read.
struct Dated {
  const build::LogEntry* entry = nullptr;
  Day day = 0;
};

class Planner {
public:
  Planner(const CareGiven& given, std::optional<double> air_a_day, Day today)
      : given_(given), care_(*given.care), air_(air_a_day), today_(today) {
    for (const build::LogEntry& e : care_.log)
      if (const auto at = work::parse_moment(e.day)) log_.push_back({&e, at->day});
    std::stable_sort(log_.begin(), log_.end(), [](const Dated& a, const Dated& b) { return a.day < b.day; });
  }

  std::optional<CarePlan> plan() {
    const auto from = work::parse_day(care_.from);
    if (!from) return std::nullopt;
    from_ = *from;
    distances();
    for (const CareTask& task : tasks)
      if (asked(task)) due(task);
    std::stable_sort(out_.due.begin(), out_.due.end(),
                     [](const CareDue& a, const CareDue& b) { return a.due < b.due; });
    rechecks();
    out_.trends = care_trends(given_, today_);
    return std::move(out_);
  }

private:
  [[nodiscard]] const AirGiven& air() const { return given_.fit_up.air(); }
  [[nodiscard]] const build::CareInterval* own(const CareTask& task) const {
    for (const build::CareInterval& i : care_.intervals)
      if (i.task == task.key) return &i;
    return nullptr;
  }
  [[nodiscard]] bool asked(const CareTask& task) const {
    if (const auto* i = own(task); i && i->wanted == build::YesNo::no) return false;
    const std::string_view key = task.key;
    if (key == "drain") return air().parts[KitRole::tank] != nullptr;
    if (key == "dryer") return air().parts[KitRole::dryer] != nullptr;
    if (key == "filter") return air().parts[KitRole::compressor] != nullptr;
    return true;
  }

  /// m a day of late, by the odometer where it was read, and where it stands today.
  void distances() {
    rate_ = care_.distance_year / year_days;
    std::vector<std::pair<Day, double>> read;
    for (const Dated& d : log_)
      if (d.entry->odometer && d.day <= today_) read.emplace_back(d.day, *d.entry->odometer);
    if (!read.empty()) {
      // Over the last year that was read; the year's own figure where that says too little.
      auto first =
          std::find_if(read.begin(), read.end(), [&](const auto& r) { return r.first >= read.back().first - 366; });
      const double days = read.back().first - first->first;
      if (days >= 30 && read.back().second > first->second) rate_ = (read.back().second - first->second) / days;
    }
    out_.distance_day = rate_;
    read_ = std::move(read);
  }
  /// m on the odometer on a day: between readings in a straight line, beyond them at the rate of late.
  [[nodiscard]] double odometer(Day day) const {
    if (read_.empty()) return rate_ * (day - from_);
    if (day >= read_.back().first) return read_.back().second + rate_ * (day - read_.back().first);
    if (day <= read_.front().first) return read_.front().second - rate_ * (read_.front().first - day);
    for (std::size_t i = 1; i < read_.size(); ++i)
      if (day <= read_[i].first && read_[i].first > read_[i - 1].first)
        return std::lerp(read_[i - 1].second, read_[i].second,
                         double(day - read_[i - 1].first) / (read_[i].first - read_[i - 1].first));
    return read_.back().second;
  }

  [[nodiscard]] std::optional<Day> last_done(std::string_view key) const {
    std::optional<Day> out;
    for (const Dated& d : log_)
      if (d.entry->kind == LogKind::work && d.entry->what == key && d.day <= today_) out = d.day;
    return out;
  }
  /// The last event that calls for a task and was not answered by it since.
  [[nodiscard]] const Dated* called_by(std::string_view key, std::optional<Day> last) const {
    const Dated* out = nullptr;
    for (const Dated& d : log_) {
      if (d.entry->kind != LogKind::event || d.day > today_ || (last && *last > d.day)) continue;
      if (last && *last == d.day && done_after(key, d)) continue;
      const CareEvent* event = care_event(d.entry->what);
      if (!event) continue;
      const auto calls = ids_in(event->calls);
      if (std::find(calls.begin(), calls.end(), key) != calls.end() && !out) out = &d;
    }
    return out;
  }
  /// On the event's own day, what stands below it in the log came after it.
  [[nodiscard]] bool done_after(std::string_view key, const Dated& event) const {
    return std::any_of(log_.begin() + (&event - log_.data()), log_.end(), [&](const Dated& d) {
      return d.day == event.day && d.entry->kind == LogKind::work && d.entry->what == key;
    });
  }

  void due(const CareTask& task) {
    CareDue d;
    d.task = &task;
    d.last = last_done(task.key);
    const Day since = d.last.value_or(from_);
    const std::string_view key = task.key;
    if (const Dated* event = called_by(key, d.last)) {
      d.due = event->day;
      d.why = {words("{0} on {1} calls for it."), {care_event(event->entry->what)->name, work::day_text(event->day)}};
      return put(std::move(d));
    }
    const build::CareInterval* typed = own(task);
    if (typed && (typed->days || typed->distance)) {
      by_interval(d, since, typed->days.value_or(0) / 86400, typed->distance.value_or(0), words("as set"));
      return put(std::move(d));
    }
    if (key == "drain" || key == "dryer")
      by_water(d, since);
    else if (key == "settle")
      by_settling(d);
    else {
      double share = 1;
      const char* how = words("as usual");
      if (key == "bags" && something_near()) share = 0.5, how = words("twice as often: something lies near them");
      const bool first = !d.last && (task.first_days > 0 || task.first_distance > 0);
      by_interval(d, since, share * (first ? task.first_days : task.days),
                  share * (first ? task.first_distance : task.distance), first ? words("after hand-over") : how);
    }
    put(std::move(d));
  }
  void put(CareDue d) {
    d.state = d.due <= today_                                                      ? DueState::late
              : d.due <= today_ + static_cast<Day>(std::round(care_.soon / 86400)) ? DueState::soon
                                                                                   : DueState::later;
    out_.due.push_back(std::move(d));
  }

  void by_interval(CareDue& d, Day since, double days, double distance, const char* how) const {
    const Day by_days = since + static_cast<Day>(std::round(days));
    d.due = since + furthest;
    if (days > 0) {
      d.due = by_days;
      d.why = {words("Every {0}, {1}."), {Amount{days * 86400, Kind::days, 0, {}}, how}};
    }
    if (distance > 0) {
      const double at = odometer(since) + distance;
      // The first day on which the odometer is there.
      Day there = since + furthest;
      if (rate_ > 0 || odometer(today_) >= at)
        for (Day day = since; day <= since + furthest; ++day)
          if (odometer(day) >= at) {
            there = day;
            break;
          }
      if (days <= 0 || there < d.due) {
        d.due = there;
        d.why = {words("Every {0}, {1}."), {Amount{distance, Kind::distance, 0, {}}, how}};
      }
    }
  }

  /// The day on which so much water stands where it should not, by the air's water through the seasons.
  void by_water(CareDue& d, Day since) {
    const bool drain = std::string_view(d.task->key) == "drain";
    const double tank_full = water_to_drain(air());
    if (!air_ || !cut_pressures(air().parts) || !(tank_full > 0)) {
      if (!drain) {
        d.due = since + 730;
        d.why = {words("Every two years: how much air goes through is not known."), {}};
        return;
      }
      d.due = since + static_cast<Day>(drain_unknown);
      d.why = {words("Every month: how much air goes through is not known."), {}};
      return;
    }
    const shelf::Part* dryer = air().parts[KitRole::dryer];
    double held = dryer && drain ? dryer->holds.value_or(0) : 0; // kg that the dryer still takes
    if (dryer && drain) // its last charge; the one it was handed over with where none was noted
      for (Day day = last_done("dryer").value_or(from_); day < since && held > 0; ++day)
        held = std::fmax(0, held - water_on(day));
    const double full = drain ? tank_full : dryer->holds.value_or(0);
    double water = 0;
    bool cold = false;
    Day day = since;
    const Day end = since + (drain ? drain_at_most : furthest);
    for (; day < end; ++day) {
      double more = water_on(day);
      if (drain && held > 0) {
        const double taken = std::fmin(held, more);
        held -= taken, more -= taken;
      }
      water += more;
      const bool freezes = drain && weather_on(care_, day).temperature - nights_colder < air::ice_point;
      if (water >= full || (freezes && water >= frost_share * full)) {
        cold = freezes && water < full;
        break;
      }
    }
    d.due = day;
    if (day >= end)
      d.why = drain ? Message{words("Every {0} at least, however little water: {1} by then."),
                              {Amount{drain_at_most * 86400.0, Kind::days, 0, {}}, Amount{water, Kind::mass, 3, {}}}}
                    : Message{words("It stays dry as it is used."), {}};
    else if (!drain)
      d.why = {words("It has taken {0} of water by then, all it holds."), {Amount{full, Kind::mass, 2, {}}}};
    else if (cold)
      d.why = {words("{0} of water by then, and nights that freeze."), {Amount{water, Kind::mass, 3, {}}}};
    else
      d.why = {words("{0} of water in the tank by then."), {Amount{water, Kind::mass, 2, {}}}};
  }
  /// kg that fall out of a day's air past the trap.
  [[nodiscard]] double water_on(Day day) const {
    const Weather w = weather_on(care_, day);
    return w.rests ? 0 : water_of_air(air(), w.temperature, w.humidity).past_trap() * *air_;
  }

  /// New bags are read after one, two, four, eight and twelve weeks, then twice a year.
  void by_settling(CareDue& d) const {
    Day fresh = from_;
    for (const Dated& one : log_)
      if (one.entry->kind == LogKind::event && one.entry->what == "new_bag" && one.day <= today_) fresh = one.day;
    for (const int weeks : {1, 2, 4, 8, 12}) {
      const Day day = fresh + 7 * weeks;
      // Read within half of what lies between counts for it.
      if (d.last && *d.last >= fresh + 7 * weeks * 3 / 4) continue;
      if (weeks < 12 && today_ > fresh + 7 * weeks * 2) continue; // nobody can catch up with it
      d.due = day;
      d.why = {words("{0} weeks after its bags were new: they relax a little."), {std::to_string(weeks)}};
      return;
    }
    by_interval(d, d.last.value_or(fresh), d.task->days, 0, words("as usual"));
  }

  /// Does anything lie nearer to a bag than twice what it asks for?
  [[nodiscard]] bool something_near() const {
    for (const End end : build::both_ends)
      for (const GapCurve& gap : given_.fit_up.end(end)->assessment.gaps)
        if (gap.mover == Mover::bag && gap.least)
          for (const double apart : gap.least->values)
            if (apart < near_bag * gap.near.room) return true;
    return false;
  }

  void rechecks() {
    const auto features = features_of(given_.fit_up);
    const auto signed_since = [&](const std::string& id, Day day) {
      return std::any_of(given_.fit_up.fit_up->checks.begin(), given_.fit_up.fit_up->checks.end(),
                         [&](const build::HoldCheck& check) {
                           const auto at = work::parse_moment(check.day);
                           return check.check == id && check.result != build::CheckResult::open && at && at->day >= day;
                         });
    };
    for (const Dated& d : log_) {
      const CareEvent* event = d.entry->kind == LogKind::event && d.day <= today_ ? care_event(d.entry->what) : nullptr;
      if (!event) continue;
      for (const std::string& key : ids_in(event->proofs))
        for (std::string& id : check_ids(given_.fit_up, features, key, std::nullopt))
          if (!signed_since(id, d.day) && std::find(out_.recheck.begin(), out_.recheck.end(), id) == out_.recheck.end())
            out_.recheck.push_back(std::move(id));
    }
  }

  const CareGiven& given_;
  const build::Care& care_;
  std::optional<double> air_;
  Day today_, from_ = 0;
  double rate_ = 0; // m a day
  std::vector<Dated> log_;
  std::vector<std::pair<Day, double>> read_; // odometer
  CarePlan out_;
};

} // namespace

std::span<const CareTask> care_tasks() {
  return tasks;
}
const CareTask* care_task(std::string_view key) {
  return find_row(tasks, key);
}
std::span<const CareEvent> care_events() {
  // What happens to a car, and each fault that was found in it: its proofs are asked again.
  static const auto all = [] {
    static std::vector<std::string> keys;
    std::vector<CareEvent> out(std::begin(events), std::end(events));
    keys.reserve(fault_causes().size());
    for (const FaultCause& cause : fault_causes()) {
      keys.push_back(found_key(cause));
      out.push_back({keys.back().c_str(), cause.name, cause.family == FaultFamily::leaks ? "hold" : "", cause.proofs});
    }
    return out;
  }();
  return all;
}
const CareEvent* care_event(std::string_view key) {
  return find_row(care_events(), key);
}
std::span<const CareReading> care_readings() {
  return readings;
}
const CareReading* care_reading(std::string_view key) {
  return find_row(readings, key);
}

std::optional<Message> trouble_of(const build::LogEntry& entry) {
  if (entry.kind == LogKind::remark && entry.text.empty()) return Message{words("A remark wants words."), {}};
  if (entry.kind != LogKind::reading) return std::nullopt;
  const CareReading* row = care_reading(entry.what);
  if (!row) return Message{words("“{0}” is nothing that is read over the years."), {entry.what}};
  if (!(entry.*row->value)) return Message{words("{0}: what was read is missing."), {row->name}};
  if (!row->of_corner) return std::nullopt;
  for (std::size_t corner = 0; corner < 4; ++corner)
    if (entry.where == corner_line_key(corner)) return std::nullopt;
  return Message{words("{0}: it is read at one corner; say at which."), {row->name}};
}

Weather weather_on(const build::Care& care, Day day) {
  // Coldest in the middle of January, or of July.
  const Day new_year = *work::parse_day(work::day_text(day).substr(0, 4) + "-01-01");
  const double into = day - new_year - 15 - (care.winter_in_july == build::YesNo::yes ? year_days / 2 : 0);
  const double warm = 0.5 - 0.5 * std::cos(2 * std::numbers::pi * into / year_days); // 0 in winter, 1 in summer
  Weather out;
  out.temperature = std::lerp(care.winter_temperature, care.summer_temperature, warm);
  out.humidity = std::lerp(care.winter_humidity, care.summer_humidity, warm);
  out.rests = care.rests_in_winter == build::YesNo::yes && warm < 0.15; // the three coldest months
  return out;
}

std::optional<CarePlan> care_plan(const CareGiven& given, std::optional<double> air_a_day, Day today) {
  return Planner(given, air_a_day, today).plan();
}

std::optional<DrainRound> drain_round(const CareGiven& given, std::optional<double> air_a_day, Day since) {
  CareGiven fresh = given; // handed over on that day, and nothing has happened to it
  fresh.care.own().from = work::day_text(since);
  fresh.care.own().log = {};
  const auto plan = care_plan(fresh, air_a_day, since);
  if (!plan) return std::nullopt; // a day that no calendar here has
  for (const CareDue& d : plan->due)
    if (std::string_view(d.task->key) == "drain") return DrainRound{double(d.due - since), air_a_day.has_value()};
  return std::nullopt;
}

} // namespace mavrel::assess
