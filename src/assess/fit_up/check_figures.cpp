#include "assess/fit_up/check_figures.h"

#include "assess/fit_up/asking.h"
#include "assess/fit_up/routes.h"
#include "assess/swing/mounting.h"
#include "build/names.h"
#include "build/names_fit_up.h"
#include "control/sensor.h"
#include "motion/workshop.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

namespace {

using build::Feature;
using build::Side;

// What a gauge, a tape and a careful hand come to.
constexpr double angle_within = 1.0 * std::numbers::pi / 180, length_within = 0.002, link_within = 0.0005;
constexpr std::size_t most_gaps = 8;

/// What the work's own checks ask for.
class FitUpFigures {
public:
  explicit FitUpFigures(Asking& to) : to_(to), given_(to.given()), end_(to.end()) {}

  void of(std::string_view key) {
    const struct {
      std::string_view key;
      void (FitUpFigures::*ask)();
    } table[] = {
        {"seat_height", &FitUpFigures::seat_height},
        {"port", &FitUpFigures::port},
        {"mount", &FitUpFigures::mount},
        {"links", &FitUpFigures::links},
        {"notch", &FitUpFigures::notch},
        {"heat", &FitUpFigures::heat},
        {"offset", &FitUpFigures::offset},
        {"still", &FitUpFigures::still},
        {"angles", &FitUpFigures::angles},
        {"gaps", &FitUpFigures::gaps},
        {"stop_first", &FitUpFigures::stop_first},
        {"vented", &FitUpFigures::vented},
        {"sensor", &FitUpFigures::sensor},
        {"lines", &FitUpFigures::lines},
    };
    for (const auto& row : table)
      if (row.key == key) (this->*row.ask)();
  }

private:
  [[nodiscard]] const AnsweredEnd& answered() const { return given_.end(*end_); }
  [[nodiscard]] const FittedEnd& fitted() const { return answered()->fitted; }
  void angles() {
    const auto m = mounting_of(answered());
    const auto angle = [&](double GaugeAngles::*which, const GaugeAngles Alignment::*plate) {
      return m.alignment ? std::optional((*m.alignment).*plate.*which) : std::nullopt;
    };
    to_.both_sides("upper_across", words("upper plate, seen from the front"), Kind::angle,
                   angle(&GaugeAngles::across, &Alignment::upper), angle_within);
    to_.both_sides("upper_along", words("upper plate, seen from the side"), Kind::angle,
                   angle(&GaugeAngles::along, &Alignment::upper), angle_within);
    to_.both_sides("lower_across", words("lower plate, seen from the front"), Kind::angle,
                   angle(&GaugeAngles::across, &Alignment::lower), angle_within);
    to_.both_sides("lower_along", words("lower plate, seen from the side"), Kind::angle,
                   angle(&GaugeAngles::along, &Alignment::lower), angle_within);
  }

  void gaps() {
    struct Least {
      const GapCurve* gap = nullptr;
      double H = 0, apart = 0;
    };
    std::vector<Least> all;
    const auto& reach = answered()->assessment.windows.reach;
    for (const GapCurve& gap : answered()->assessment.gaps) {
      if (!gap.least) continue;
      std::optional<Least> least;
      for (std::size_t i = 0; i < gap.least->values.size(); ++i) {
        const double H = gap.least->from + gap.least->step * static_cast<double>(i), apart = gap.least->values[i];
        if (reach && !reach->contains(H)) continue;
        if (!least || apart < least->apart) least = Least{&gap, H, apart};
      }
      if (least) all.push_back(*least);
    }
    std::stable_sort(all.begin(), all.end(), [](const Least& a, const Least& b) {
      return a.apart - a.gap->near.room < b.apart - b.gap->near.room;
    });
    if (all.size() > most_gaps) all.resize(most_gaps);
    for (const Least& one : all) {
      const std::string key = fmt::format("{}:{}", key_of(one.gap->mover), say(one.gap->near.told()));
      if (std::any_of(to_.figures().begin(), to_.figures().end(), [&](const AskedFigure& f) { return f.key == key; }))
        continue;
      // A gap of the cycle sheet often says itself from what to what it is.
      const bool whole = say(one.gap->near.told()).starts_with(name_of(one.gap->mover));
      AskedFigure& f = to_.add(key,
                               whole ? Message{words("{0}, least at {1}"), {one.gap->near.told(), metres(one.H)}}
                                     : Message{words("{0} to {1}, least at {2}"),
                                               {name_of(one.gap->mover), one.gap->near.told(), metres(one.H)}},
                               Kind::length);
      f.designed = one.apart;
      f.least = one.gap->near.room;
    }
  }

  void stop_first() {
    if (!fitted().bag || !fitted().model.map || !fitted().model.stop_height) return;
    const double H = *fitted().model.stop_height;
    to_.both_sides("stop_height", words("height when the stop meets"), Kind::length, H, height_within);
    if (!fitted().model.map->contains(H)) return;
    const double bag = fitted().on().bag_height(H), least = fitted().on().least_bag_height();
    for (const Side side : build::both_sides) {
      AskedFigure& f = to_.add(fmt::format("bag_height_{}", build::key_of(side)),
                               {words("bag’s height then, {0}"), {build::name_of(side)}}, Kind::length);
      f.designed = bag;
      f.least = least;
    }
  }

  void seat_height() {
    if (!fitted().model.map || fitted().model.surveyed_height.value_or(0) == 0) return;
    const double surveyed = *fitted().model.surveyed_height;
    if (!fitted().model.map->contains(surveyed)) return;
    to_.both_sides("plates", words("plate to plate as surveyed"), Kind::length,
                   fitted().model.map->at(surveyed).spring_length - fitted().stack, length_within);
  }

  void port() {
    to_.yes("to_line", words("port low, near the axis, towards the line"));
    to_.yes("both_locks", words("line has slack at both locks"));
  }

  void mount() {
    to_.both_sides("outward", words("bearing’s middle outward"), Kind::length, given_.fit(*end_).mounting.mount_outward,
                   0.001);
  }

  void links() {
    const build::Workshop& w = given_.fit(*end_).workshop;
    to_.both_sides("length", words("joint to joint"), Kind::length, w.link_length, link_within);
    for (const Side side : build::both_sides) {
      AskedFigure& f = to_.add(fmt::format("thread_{}", build::key_of(side)),
                               {words("least thread in, {0}"), {build::name_of(side)}}, Kind::length);
      if (w.thread_diameter) f.least = f.designed = motion::least_engagement * *w.thread_diameter;
      if (side == Side::right) f.twin = to_.last() - 1, f.alike = length_within;
    }
  }

  void notch() {
    const auto deep = notch_depth(given_, *end_);
    if (!deep) return;
    for (const Side side : build::both_sides) {
      AskedFigure& f = to_.add(fmt::format("deep_{}", build::key_of(side)),
                               {words("deep, {0}"), {build::name_of(side)}}, Kind::length);
      f.designed = f.least = deep;
    }
  }

  void heat() {
    to_.yes("bags", words("bags out, or covered wet"));
    to_.yes("lines", words("lines and wires clear or shielded"));
    to_.yes("battery", words("battery off, extinguisher at hand"));
  }

  void offset() {
    const auto m = mounting_of(answered());
    const auto road = fitted().road;
    for (const Side side : build::both_sides) {
      AskedFigure& f = to_.add(fmt::format("offset_{}", build::key_of(side)),
                               {words("offset at road height, {0}"), {build::name_of(side)}}, Kind::length);
      if (m.alignment && road) f.designed = m.alignment->at(*road).offset;
      f.most = m.bears ? m.bears->offset : 0.010;
    }
    to_.yes("straight", words("seats by eye: straight over one another"));
  }

  void still() {
    const build::Workshop& w = given_.fit(*end_).workshop;
    for (const auto& [key, name, designed] :
         {std::tuple("left_right", words("frame left to axle right"), w.left_right),
          std::tuple("right_left", words("frame right to axle left"), w.right_left)}) {
      AskedFigure& f = to_.add(key, {name, {}}, Kind::length);
      f.designed = designed;
    }
    to_.figures().back().twin = to_.last() - 1, to_.figures().back().alike = length_within;
    to_.yes("loose", words("nothing loose, nothing leaning on it"));
  }

  void vented() {
    AskedFigure& f = to_.add("pressure", {words("gauge on the bag"), {}}, Kind::pressure);
    f.designed = 0;
    f.most = 5e3;
    to_.yes("plugged", words("ports plugged"));
    to_.yes("unplugged", words("plugs out again, lines on"));
  }

  void sensor() {
    const SensorAtEnd& s = (*given_.sensors)[build::at(*end_)];
    if (!s.linkage || s.looks.empty()) return;
    for (const auto& [key, name, look] :
         {std::tuple("lowest", words("from in line at the lowest height"), s.looks.front()),
          std::tuple("highest", words("from in line at the highest height"), s.looks.back())}) {
      AskedFigure& f = to_.add(key, {name, {}}, Kind::angle);
      f.designed = look.pose.from_in_line;
      f.least = control::may_flip;
    }
  }

  void lines() {
    const auto routes = judged_routes(given_);
    to_.yes("grommets", words("a grommet in every sheet hole, no cover or nut pinches"));
    to_.yes("marks", words("both ends of every line marked, and the block alike"));
    std::optional<double> bend, least_bend, hot;
    for (const JudgedRoute& r : routes) {
      if (r.least_bend) least_bend = std::fmax(least_bend.value_or(0), *r.least_bend);
      if (r.tightest && (!bend || *r.tightest < *bend)) bend = *r.tightest;
      if (r.hot && (!hot || r.hot->gap < *hot)) hot = r.hot->gap;
    }
    AskedFigure& f = to_.add("bend", {words("tightest bend, radius"), {}}, Kind::length);
    f.designed = bend;
    f.least = least_bend;
    AskedFigure& h = to_.add("heat", {words("nearest to exhaust, unshielded"), {}}, Kind::length);
    h.designed = hot;
    h.least = line_from_heat;
  }

  Asking& to_;
  const FitUpGiven& given_;
  std::optional<End> end_;
};

} // namespace

bool asked_for(const CheckRow& row, FeatureSet features) {
  for (const JobRule& rule : job_rules()) {
    if ((features & rule.when) != rule.when || (features & rule.unless) != 0) continue;
    const auto keys = ids_in(rule.checks);
    if (std::find(keys.begin(), keys.end(), row.key) != keys.end()) return true;
  }
  return false;
}

std::vector<AskedFigure> asked_figures(const FitUpGiven& given, const CheckRow& row, std::optional<End> end) {
  if (!end) {
    const auto features = features_of(given);
    if (!asked_for(row, features[0]) && !asked_for(row, features[1])) return {};
  }
  Asking asking(given, end);
  FitUpFigures(asking).of(row.key);
  ask_proof(asking, row.key);
  auto out = std::move(asking.figures());
  if (out.size() > build::most_check_figures) out.resize(build::most_check_figures);
  return out;
}

build::CheckFigure figure_of(const AskedFigure& asked, std::optional<double> measured) {
  build::CheckFigure out;
  out.what = asked.key;
  out.was_least = asked.least, out.was_most = asked.most;
  switch (asked.kind) {
  case Kind::length:
    out.length = measured, out.was_length = asked.designed;
    break;
  case Kind::angle:
    out.angle = measured, out.was_angle = asked.designed;
    break;
  case Kind::pressure:
    out.pressure = measured, out.was_pressure = asked.designed;
    break;
  case Kind::time:
    out.time = measured, out.was_time = asked.designed;
    break;
  default:
    out.number = measured, out.was_number = asked.designed;
  }
  return out;
}

std::optional<double> designed_of(const build::CheckFigure& f, Kind kind) {
  switch (kind) {
  case Kind::length:
    return f.was_length;
  case Kind::angle:
    return f.was_angle;
  case Kind::pressure:
    return f.was_pressure;
  case Kind::time:
    return f.was_time;
  default:
    return f.was_number;
  }
}

} // namespace mavrel::assess
