#include "assess/fit_up/check_figures.h"

#include "assess/fit_up/routes.h"
#include "assess/swing/mounting.h"
#include "build/names.h"
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

constexpr double degree = std::numbers::pi / 180;
// What a gauge, a tape and a careful hand come to.
constexpr double angle_within = 1.0 * degree, length_within = 0.002, link_within = 0.0005, height_within = 0.005;
constexpr double camber_within = 0.5 * degree;
constexpr double hours_held = 12;
constexpr std::size_t most_gaps = 8;

/// The figures of one check, put together.
class Asking {
public:
  Asking(const FitUpGiven& given, std::optional<End> end) : given_(given), end_(end) {}

  std::vector<AskedFigure> of(std::string_view key) {
    const struct {
      std::string_view key;
      void (Asking::*ask)();
    } table[] = {
        {"seat_height", &Asking::seat_height},
        {"port", &Asking::port},
        {"mount", &Asking::mount},
        {"links", &Asking::links},
        {"notch", &Asking::notch},
        {"heat", &Asking::heat},
        {"offset", &Asking::offset},
        {"still", &Asking::still},
        {"angles", &Asking::angles},
        {"gaps", &Asking::gaps},
        {"stop_first", &Asking::stop_first},
        {"vented", &Asking::vented},
        {"sensor", &Asking::sensor},
        {"lines", &Asking::lines},
        {"leak_hold", &Asking::leak_hold},
        {"heights", &Asking::heights},
        {"camber", &Asking::camber},
    };
    for (const auto& row : table)
      if (row.key == key) (this->*row.ask)();
    return std::move(out_);
  }

private:
  [[nodiscard]] const AnsweredEnd& answered() const { return given_.end(*end_); }
  [[nodiscard]] const FittedEnd& fitted() const { return answered()->fitted; }
  AskedFigure& add(std::string key, Message name, Kind kind) {
    AskedFigure& f = out_.emplace_back();
    f.key = std::move(key);
    f.name = std::move(name);
    f.kind = kind;
    return f;
  }
  void yes(const char* key, const char* name) {
    AskedFigure& f = add(key, {name, {}}, Kind::plain);
    f.yes_no = true;
    f.designed = 1;
    f.least = 1;
  }
  /// One figure a side, within so much of the design where there is one, and of each other.
  void both_sides(const std::string& key, const char* name, Kind kind, std::optional<double> designed, double within) {
    for (const Side side : build::both_sides) {
      AskedFigure& f = add(key + "_" + build::key_of(side), {words("{0}, {1}"), {name, build::name_of(side)}}, kind);
      f.designed = designed;
      if (designed) f.least = *designed - within, f.most = *designed + within;
      if (side == Side::right) f.twin = out_.size() - 2, f.alike = within;
    }
  }

  void angles() {
    const auto m = mounting_of(answered());
    const auto angle = [&](double GaugeAngles::*which, const GaugeAngles Alignment::*plate) {
      return m.alignment ? std::optional((*m.alignment).*plate.*which) : std::nullopt;
    };
    both_sides("upper_across", words("upper plate, seen from the front"), Kind::angle,
               angle(&GaugeAngles::across, &Alignment::upper), angle_within);
    both_sides("upper_along", words("upper plate, seen from the side"), Kind::angle,
               angle(&GaugeAngles::along, &Alignment::upper), angle_within);
    both_sides("lower_across", words("lower plate, seen from the front"), Kind::angle,
               angle(&GaugeAngles::across, &Alignment::lower), angle_within);
    both_sides("lower_along", words("lower plate, seen from the side"), Kind::angle,
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
      if (!gap.least || gap.joined) continue;
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
      if (std::any_of(out_.begin(), out_.end(), [&](const AskedFigure& f) { return f.key == key; })) continue;
      // A gap of the cycle sheet often says itself from what to what it is.
      const bool whole = say(one.gap->near.told()).starts_with(name_of(one.gap->mover));
      AskedFigure& f = add(key,
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
    both_sides("stop_height", words("height when the stop meets"), Kind::length, H, height_within);
    if (!fitted().model.map->contains(H)) return;
    const double bag = fitted().on().bag_height(H), least = fitted().on().least_bag_height();
    for (const Side side : build::both_sides) {
      AskedFigure& f = add(fmt::format("bag_height_{}", build::key_of(side)),
                           {words("bag’s height then, {0}"), {build::name_of(side)}}, Kind::length);
      f.designed = bag;
      f.least = least;
    }
  }

  void seat_height() {
    if (!fitted().model.map || fitted().model.surveyed_height.value_or(0) == 0) return;
    const double surveyed = *fitted().model.surveyed_height;
    if (!fitted().model.map->contains(surveyed)) return;
    both_sides("plates", words("plate to plate as surveyed"), Kind::length,
               fitted().model.map->at(surveyed).spring_length - fitted().stack, length_within);
  }

  void port() {
    yes("to_line", words("port low, near the axis, towards the line"));
    yes("both_locks", words("line has slack at both locks"));
  }

  void mount() {
    both_sides("outward", words("bearing’s middle outward"), Kind::length, given_.fit(*end_).mounting.mount_outward,
               0.001);
  }

  void links() {
    const build::Workshop& w = given_.fit(*end_).workshop;
    both_sides("length", words("joint to joint"), Kind::length, w.link_length, link_within);
    for (const Side side : build::both_sides) {
      AskedFigure& f = add(fmt::format("thread_{}", build::key_of(side)),
                           {words("least thread in, {0}"), {build::name_of(side)}}, Kind::length);
      if (w.thread_diameter) f.least = f.designed = motion::least_engagement * *w.thread_diameter;
      if (side == Side::right) f.twin = out_.size() - 2, f.alike = length_within;
    }
  }

  void notch() {
    const auto deep = notch_depth(given_, *end_);
    if (!deep) return;
    for (const Side side : build::both_sides) {
      AskedFigure& f =
          add(fmt::format("deep_{}", build::key_of(side)), {words("deep, {0}"), {build::name_of(side)}}, Kind::length);
      f.designed = f.least = deep;
    }
  }

  void heat() {
    yes("bags", words("bags out, or covered wet"));
    yes("lines", words("lines and wires clear or shielded"));
    yes("battery", words("battery off, extinguisher at hand"));
  }

  void offset() {
    const auto m = mounting_of(answered());
    const auto road = fitted().road;
    for (const Side side : build::both_sides) {
      AskedFigure& f = add(fmt::format("offset_{}", build::key_of(side)),
                           {words("offset at road height, {0}"), {build::name_of(side)}}, Kind::length);
      if (m.alignment && road) f.designed = m.alignment->at(*road).offset;
      f.most = m.bears ? m.bears->offset : 0.010;
    }
    yes("straight", words("seats by eye: straight over one another"));
  }

  void still() {
    const build::Workshop& w = given_.fit(*end_).workshop;
    for (const auto& [key, name, designed] :
         {std::tuple("left_right", words("frame left to axle right"), w.left_right),
          std::tuple("right_left", words("frame right to axle left"), w.right_left)}) {
      AskedFigure& f = add(key, {name, {}}, Kind::length);
      f.designed = designed;
    }
    out_.back().twin = out_.size() - 2, out_.back().alike = length_within;
    yes("loose", words("nothing loose, nothing leaning on it"));
  }

  void vented() {
    AskedFigure& f = add("pressure", {words("gauge on the bag"), {}}, Kind::pressure);
    f.designed = 0;
    f.most = 5e3;
    yes("plugged", words("ports plugged"));
    yes("unplugged", words("plugs out again, lines on"));
  }

  void sensor() {
    const SensorAtEnd& s = (*given_.sensors)[build::at(*end_)];
    if (!s.linkage || s.looks.empty()) return;
    for (const auto& [key, name, look] :
         {std::tuple("lowest", words("from in line at the lowest height"), s.looks.front()),
          std::tuple("highest", words("from in line at the highest height"), s.looks.back())}) {
      AskedFigure& f = add(key, {name, {}}, Kind::angle);
      f.designed = look.pose.from_in_line;
      f.least = control::may_flip;
    }
  }

  void lines() {
    const auto routes = judged_routes(given_);
    yes("grommets", words("a grommet in every sheet hole, no cover or nut pinches"));
    yes("marks", words("both ends of every line marked, and the block alike"));
    std::optional<double> bend, least_bend, hot;
    for (const JudgedRoute& r : routes) {
      if (r.least_bend) least_bend = std::fmax(least_bend.value_or(0), *r.least_bend);
      if (r.tightest && (!bend || *r.tightest < *bend)) bend = *r.tightest;
      if (r.hot && (!hot || r.hot->gap < *hot)) hot = r.hot->gap;
    }
    AskedFigure& f = add("bend", {words("tightest bend, radius"), {}}, Kind::length);
    f.designed = bend;
    f.least = least_bend;
    AskedFigure& h = add("heat", {words("nearest to exhaust, unshielded"), {}}, Kind::length);
    h.designed = hot;
    h.least = line_from_heat;
  }

  void leak_hold() {
    // What counts as a leak: more than 0.2 % of the air an hour, over the hours it is held.
    for (const End end : build::both_ends) {
      if (given_.fit(end).bag.empty()) continue;
      const AnsweredEnd& e = given_.end(end);
      std::optional<double> pressure;
      if (const auto road = e->fitted.road)
        if (const auto posed = posed_end(e->fitted, *road, 0)) pressure = posed->state.pressure;
      for (const Side side : build::both_sides) {
        AskedFigure& f =
            add(fmt::format("{}_{}", build::key_of(end), build::key_of(side)),
                {words("{0} {1}: drop over {2} at one temperature"),
                 {build::name_of(end), build::name_of(side), Amount{hours_held * 3600, Kind::hours, 0, {}}}},
                Kind::pressure);
        f.designed = 0;
        f.most = pressure ? 0.002 * hours_held * (*pressure + 101325) : 1e4;
      }
    }
  }

  void heights() {
    for (const End end : build::both_ends) {
      if (given_.fit(end).bag.empty()) continue;
      const FittedEnd& e = given_.end(end)->fitted;
      for (const auto& [key, name, H] :
           {std::tuple("parked", words("parked"), e.parked), std::tuple("road", words("road"), e.road),
            std::tuple("ramp", words("ramp"), e.ramp)}) {
        if (!H) continue;
        for (const Side side : build::both_sides) {
          AskedFigure& f =
              add(fmt::format("{}_{}_{}", build::key_of(end), key, build::key_of(side)),
                  {words("{0} {1}, {2}"), {build::name_of(end), build::name_of(side), name}}, Kind::length);
          f.designed = *H;
          f.least = *H - height_within;
          f.most = *H + height_within;
          if (side == Side::right) f.twin = out_.size() - 2, f.alike = height_within;
        }
      }
    }
  }

  void camber() {
    for (const End end : build::both_ends) {
      if (given_.fit(end).bag.empty()) continue;
      const AnsweredEnd& e = given_.end(end);
      std::optional<double> designed;
      if (e->fitted.road)
        if (const Track* track = e->assessment.find(tracks::camber, 0)) designed = track->at(*e->fitted.road);
      for (const Side side : build::both_sides) {
        AskedFigure& f = add(fmt::format("{}_{}", build::key_of(end), build::key_of(side)),
                             {words("camber, {0} {1}"), {build::name_of(end), build::name_of(side)}}, Kind::angle);
        f.designed = designed;
        if (designed) f.least = *designed - camber_within, f.most = *designed + camber_within;
        if (side == Side::right) f.twin = out_.size() - 2, f.alike = camber_within;
      }
    }
  }

  const FitUpGiven& given_;
  std::optional<End> end_;
  std::vector<AskedFigure> out_;
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
  auto out = Asking(given, end).of(row.key);
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
  default:
    return f.was_number;
  }
}

} // namespace mavrel::assess
