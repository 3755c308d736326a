#include "assess/care/trends.h"

#include "air/leak.h"
#include "build/names.h"
#include "build/names_care.h"
#include "curve/line.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::LogKind;
using work::Day;

namespace {

constexpr double days_a_year = 365.25;
constexpr Day least_days = 21;          // that a line is worth drawing over
constexpr double settles_least = 0.002; // m a year that nobody minds
constexpr double slower_by = 1.3;       // of its first filling time
constexpr Day believed = 10 * 366;      // days that a line is believed in

std::optional<std::size_t> corner_of(const std::string& where) {
  for (std::size_t i = 0; i < 4; ++i)
    if (where == corner_line_key(i)) return i;
  return std::nullopt;
}

/// A height as it would have been at road pressure, and how far that moved it; none where the model has no answer.
std::optional<double> at_road_pressure(const CareGiven& given, std::size_t corner, double H, double pressure) {
  const FittedEnd& end = given.fit_up.end(corner < 2 ? End::front : End::rear)->fitted;
  if (!end.road) return std::nullopt;
  const auto posed = posed_end(end, *end.road, 0);
  constexpr double step = 0.005; // m
  const auto above = posed_end(end, *end.road + step, 0), below = posed_end(end, *end.road - step, 0);
  if (!posed || !above || !below) return std::nullopt;
  const std::size_t side = corner % 2;
  // The load stays: along its line of the card pressure tells height.
  const double slope = (above->state.side_pressure[side] - below->state.side_pressure[side]) / (2 * step); // Pa/m
  if (std::abs(slope) < 1e5) return std::nullopt; // pressure says next to nothing of height here
  return H - (pressure - posed->state.side_pressure[side]) / slope;
}

Message corner_name_of(const std::string& where, const char* what) {
  const auto corner = corner_of(where);
  if (!corner) return {what, {}};
  return {words("{0}, {1}"), {what, corner_name(*corner)}};
}

/// Through the points since the last mark; none where there are too few, or over too short a time.
std::optional<curve::Line> fit_line(CareTrend& t) {
  const Day since = t.marks.empty() ? 0 : t.marks.back();
  std::vector<std::pair<double, double>> read;
  for (const auto& p : t.points)
    if (p.day >= since) read.emplace_back(p.day, p.value);
  if (read.empty() || read.back().first - read.front().first < least_days) return std::nullopt;
  const auto line = curve::line_through(read);
  if (!line) return std::nullopt;
  t.year = line->slope * days_a_year;
  t.year_sd = line->slope_sd * days_a_year;
  return line;
}

class Trends {
public:
  Trends(const CareGiven& given, Day today) : given_(given), today_(today) {
    for (const build::LogEntry& e : given.care->log)
      if (const auto at = work::parse_moment(e.day); at && at->day <= today) log_.emplace_back(at->day, &e);
    std::stable_sort(log_.begin(), log_.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  }

  std::vector<CareTrend> find() {
    for (std::size_t corner = 0; corner < 4; ++corner)
      heights(corner_line_key(corner));
    for (std::size_t corner = 0; corner < 4; ++corner)
      of("hold", corner_line_key(corner));
    of("tank_fill", "");
    of("water", "");
    for (CareTrend& t : out_)
      judge(t);
    return std::move(out_);
  }

private:
  CareTrend& begin(const char* what, const std::string& where) {
    CareTrend& t = out_.emplace_back();
    t.what = care_reading(what);
    t.where = where, t.kind = t.what->kind;
    t.name = corner_name_of(where, t.what->name);
    for (const auto& [day, e] : log_)
      if (e->kind == LogKind::event && e->what == "new_bag" && t.what->of_corner &&
          (e->where.empty() || where.starts_with(e->where)))
        t.marks.push_back(day);
    return t;
  }
  void drop_if_empty() {
    if (out_.back().points.empty()) out_.pop_back();
  }
  void of(const char* what, const std::string& where) {
    CareTrend& t = begin(what, where);
    for (const auto& [day, e] : log_) {
      // Water is read where the tank is drained, whatever the line is called.
      const bool here = e->what == what || (t.what == care_reading("water") && e->what == "drain") ||
                        (t.what == care_reading("tank_fill") && e->what == "filter");
      if (here && e->where == where)
        if (const auto& v = e->*t.what->value) t.points.push_back({day, *v, false});
    }
    drop_if_empty();
  }
  void heights(const std::string& where) {
    CareTrend& t = begin("height", where);
    for (const auto& [day, e] : log_) {
      if ((e->what != "height" && e->what != "settle") || e->where != where || !e->height) continue;
      std::optional<double> corrected;
      if (e->pressure) corrected = at_road_pressure(given_, *corner_of(where), *e->height, *e->pressure);
      t.points.push_back({day, corrected.value_or(*e->height), corrected.has_value()});
    }
    drop_if_empty();
  }

  void judge(CareTrend& t) {
    const std::string_view key = t.what->key;
    const auto line = fit_line(t);
    const double now = t.points.back().value;
    if (key == "height") {
      const auto road =
          given_.fit_up.end(corner_of(t.where).value_or(0) < 2 ? End::front : End::rear)->assessment.windows.road;
      if (road) t.limit = road->low.height;
      if (line && t.year < -settles_least && -t.year > 2 * t.year_sd)
        t.says = {words("It sinks by {0} a year at the same pressure: the bag relaxes, or its seat gives."),
                  {metres(-t.year, 1)}};
    } else if (key == "hold") {
      t.limit = air::loss_minded;
      if (now > air::loss_minded)
        t.says = {words("It loses more than anybody should mind: find the leak before the compressor pays for it."),
                  {}};
      else if (line && t.year > 0 && t.year > 2 * t.year_sd)
        t.says = {words("It loses more from year to year."), {}};
    } else if (key == "tank_fill") {
      t.limit = slower_by * t.points.front().value;
      if (line && t.year > 0 && t.year > 2 * t.year_sd)
        t.says = {words("The tank takes longer to fill from year to year: the compressor wears, or its filter clogs."),
                  {}};
    }
    if (t.limit && t.says) {
      // Which side is right: a height above its limit, the others below.
      const double left = key == "height" ? now - *t.limit : *t.limit - now;
      const auto amount = [&](double v) { return Amount{v, t.kind, -1, {}}; };
      t.far = left > 0 ? Message{words("It stands at {0}; {1} is too far, {2} from there."),
                                 {amount(now), amount(*t.limit), amount(left)}}
                       : Message{words("It stands at {0}, {2} past {1}, which is too far."),
                                 {amount(now), amount(*t.limit), amount(-left)}};
    }
    if (!line || !t.limit || std::abs(t.year) <= 2 * t.year_sd || t.year == 0) return;
    const double days = (*t.limit - line->at(t.points.back().day)) / t.year * days_a_year;
    // A day that has passed is no forecast: what was read last says how far it is.
    if (days > 0 && days < believed && t.points.back().day + static_cast<Day>(days) > today_)
      t.crosses = t.points.back().day + static_cast<Day>(days);
  }

  const CareGiven& given_;
  Day today_;
  std::vector<std::pair<Day, const build::LogEntry*>> log_;
  std::vector<CareTrend> out_;
};

} // namespace

std::vector<CareTrend> care_trends(const CareGiven& given, Day today) {
  return Trends(given, today).find();
}

} // namespace mavrel::assess
