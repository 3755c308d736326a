#include "assess/fit_up/routes.h"

#include "assess/air/wiring.h"
#include "space/solid.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr double making_ends = 0.05; // m that is cut off, pushed in and made again once
constexpr double near_wheel = 0.30;  // m that a wheel moves by travel and lock, and more
constexpr double beside_bag = 0.15;  // m of a line that lies along its bag
constexpr double port_arm = 0.06;    // m, a strut's port from the axis that it turns about with the steering

space::Rod rod_of(const build::HotPart& hot) {
  return {{hot.x, hot.y, hot.z}, {hot.to_x, hot.to_y, hot.to_z}, hot.radius};
}

bool is_to_bag(std::string_view key) {
  for (std::size_t corner = 0; corner < 4; ++corner)
    if (key == corner_line_key(corner)) return true;
  return false;
}

class RouteJudge {
public:
  explicit RouteJudge(const FitUpGiven& given) : given_(given), kit_(given.air().kit) {
    if (const auto wiring = wiring_of(given.air()); wiring && !wiring->feeds.empty() && wiring->feeds.front().cable)
      section_ = wiring->feeds.front().cable->section;
  }

  std::vector<JudgedRoute> judge() {
    if (kit_.valves.empty() && kit_.tank.empty() && kit_.compressor.empty()) return {};
    const auto& parts = given_.air().parts;
    add("feed", kit_.feed_line, parts[KitRole::feed_line], kit_.tank_at, kit_.valves_at, {words("tank"), {}},
        {words("valves"), {}}, "T");
    // What leaves a compressor is hot: a braided hose, not the kit's tube.
    if (!kit_.tank.empty()) {
      int n = 0;
      for (const auto& [key, compressor] :
           {std::pair{"delivery", &kit_.compressor}, std::pair{"delivery_2", &kit_.second_compressor}})
        if (!compressor->empty()) {
          ++n;
          add(key, delivery_hose, nullptr, kit_.compressor_at, kit_.tank_at, {words("compressor"), {}},
              {words("tank"), {}}, n == 1 ? "C" : "C2");
        }
      if (!kit_.second_tank.empty())
        add("tanks", kit_.feed_line, parts[KitRole::feed_line], kit_.tank_at, kit_.second_tank_at, {words("tank"), {}},
            {words("second tank"), {}}, "T2");
    }
    constexpr std::array<const char*, 4> marks{"FL", "FR", "RL", "RR"};
    for (std::size_t corner = 0; corner < 4; ++corner) {
      const bool front = corner < 2;
      JudgedRoute& r =
          add(corner_line_key(corner), front ? kit_.front_line : kit_.rear_line,
              parts[front ? KitRole::front_line : KitRole::rear_line], kit_.valves_at, port_of(given_.air(), corner),
              {words("valves"), {}}, {words("{0} bag"), {corner_name(corner)}}, marks[corner]);
      r.slack_wanted = making_ends + travel_of(corner);
    }
    const std::string cable = section_ ? fmt::format("cable {:g} mm²", *section_) : std::string("cable");
    if (!kit_.compressor.empty())
      wire("power", cable, kit_.battery_at, kit_.compressor_at, {words("battery"), {}}, {words("compressor"), {}}, "P");
    if (!kit_.second_compressor.empty() && kit_.feeds == build::Feeds::each)
      wire("power_2", cable, kit_.battery_at, kit_.compressor_at, {words("battery"), {}},
           {words("second compressor"), {}}, "P2");
    const build::FitUp& fit_up = *given_.fit_up;
    if (kit_.school == build::ValveSchool::block && !kit_.valves.empty()) {
      wire("valve_loom", "loom 0.5 mm²", fit_up.controller_at, kit_.valves_at, {words("controller"), {}},
           {words("valves"), {}}, "V");
      if (fit_up.handset == build::HandsetBy::cable)
        wire("handset", "loom 0.5 mm²", fit_up.controller_at, fit_up.handset_at, {words("controller"), {}},
             {words("handset"), {}}, "H");
    }
    return std::move(out_);
  }

private:
  /// m that a bag's port moves by over the travel, and by turning with the steering.
  [[nodiscard]] double travel_of(std::size_t corner) const {
    const End end = corner < 2 ? End::front : End::rear;
    const EndMotion& motion = *given_.end(end).given().motion();
    const build::EndSurvey& survey = given_.survey(end);
    double out = 0;
    const bool turns = end == End::front && survey.layout == build::Layout::strut &&
                       survey.spring_place == build::SpringPlace::around_damper;
    if (turns) {
      const auto& bag = given_.end(end)->fitted.bag;
      const double port = given_.plates(end).port_out.value_or(bag ? bag->card.port_out : 0);
      const double lock = survey.points->lock.value_or(0.6), out_by = std::fmax(port_arm, port);
      out += 2 * out_by * std::sin(std::fmin(lock, 1.5)); // from one lock to the other, an arc's chord
    }
    // A port in the upper plate stays with the body; where the seat at the top moves, it does.
    if (motion.joints && motion.joints->side[0].at(motion::Joint::spring_body) &&
        survey.points->spring_top != build::Carrier::usual && survey.points->spring_top != build::Carrier::body)
      out += given_.end(end)->assessment.domain_high - given_.end(end)->assessment.domain_low;
    return out;
  }

  JudgedRoute& add(const char* key, const std::string& part, const shelf::Part* line, const build::PartPlace& from,
                   const build::PartPlace& to, Message from_name, Message to_name, const char* mark) {
    JudgedRoute& r = out_.emplace_back();
    r.key = key;
    r.name = line_name(key);
    r.part = part;
    r.from = from, r.to = to;
    r.from_name = std::move(from_name), r.to_name = std::move(to_name);
    r.mark = mark;
    r.slack_wanted = making_ends;
    if (line) {
      r.least_bend = line->least_bend;
      r.outer = line->outer.value_or(*line->bore + 0.002);
    }
    lay(r);
    for (const double side : {1.0, -1.0})
      judge_tyres(r, side);
    return r;
  }
  void wire(const char* key, const std::string& part, const build::PartPlace& from, const build::PartPlace& to,
            Message from_name, Message to_name, const char* mark) {
    JudgedRoute& r = add(key, part, nullptr, from, to, std::move(from_name), std::move(to_name), mark);
    r.air = false;
  }
  void lay(JudgedRoute& r) {
    const auto& routes = given_.fit_up->routes;
    for (std::size_t i = 0; i < routes.size() && !r.listed; ++i)
      if (routes[i].line == r.key) r.listed = true, r.index = i;
    const build::Route* route = route_of(routes, r.key);
    r.laid = route != nullptr;
    r.way = way_of(route ? *route : build::Route{}, r.from, r.to);
    if (!route) {
      r.length = way_between(r.from, r.to, kit_.line_slack);
      r.slack = r.length - r.length / (1 + kit_.line_slack);
      return;
    }
    r.length = routed_length(r.way, *route, kit_.line_slack);
    r.slack = r.length - r.way.length;
    r.bends = bends_of(r.way);
    for (const RouteBend& bend : r.bends) {
      const double told = route->points[bend.corner - 1].bend;
      const double radius = told > 0 ? std::fmin(told, bend.widest) : bend.widest;
      if (!r.tightest || radius < *r.tightest) r.tightest = radius;
    }
    heat(r);
  }
  void heat(JudgedRoute& r) {
    for (std::size_t h = 0; h < given_.room.hot.size(); ++h) {
      const build::HotPart& hot = given_.room.hot[h];
      const bool shielded = hot.shielded == build::Shielded::yes;
      const double wanted = shielded ? given_.room.rooms.shielded_exhaust : line_from_heat;
      for (std::size_t i = 1; i < r.way.corners.size(); ++i) {
        const space::Rod piece{r.way.corners[i - 1], r.way.corners[i], r.outer / 2};
        const double gap = space::gap_between(piece, rod_of(hot)).apart;
        if (!r.hot || gap - wanted < r.hot->gap - r.hot->wanted) r.hot = RouteHeat{hot.name, gap, wanted};
      }
    }
  }
  /// Every stretch of a laid line against both wheels of a side, over travel and lock, by the code that clearances are
  /// taken with. @param side  1: left, -1: right
  void judge_tyres(JudgedRoute& r, double side) {
    if (!r.laid) return;
    const bool to_bag = is_to_bag(r.key);
    for (const End end : build::both_ends) {
      const Clearances& clear = *given_.end(end).given().clearance;
      if (!clear.space || !clear.wheel) continue;
      const double axle = end == End::front ? 0 : given_.air().wheelbase.value_or(0);
      const auto& reach = given_.end(end)->assessment.windows.reach;
      std::optional<RouteTyre> least;
      const auto there = [&](const space::Point& p) { return space::Point{axle - p.x, side * p.y, p.z}; };
      for (std::size_t i = 1; i < r.way.corners.size(); ++i) {
        space::Point from = there(r.way.corners[i - 1]), to = there(r.way.corners[i]);
        // Its last bit lies along the bag, whose own room Clearance looks at.
        if (to_bag && i + 1 == r.way.corners.size()) {
          const double length = space::length(to - from);
          if (length <= beside_bag) continue;
          to = space::lerp(from, to, 1 - beside_bag / length);
        }
        // What is nowhere near the wheel is not followed through travel and lock.
        const space::Rod hub{clear.space->hub(), clear.space->hub(),
                             std::hypot(clear.wheel->radius, clear.wheel->widest) + near_wheel};
        if (!space::gap_between(space::Rod{from, to, 0}, hub).overlap) continue;
        const Placement piece{space::Rod{from, to, r.outer / 2}, motion::Part::body};
        for (const Lock lock : all_locks) {
          if (lock != Lock::straight && !clear.space->steers()) continue;
          const auto& stands = clear.space->stands(lock);
          for (std::size_t s = 0; s < stands.size(); s += 6) {
            if (reach && !reach->contains(stands[s].H)) continue; // the wheel never stands there
            const auto gap = gap_to(Mover::tyre, piece, stands[s], {clear, *clear.space});
            if (gap && (!least || gap->apart < least->gap))
              least = RouteTyre{end, gap->apart, gap->overlap, stands[s].H, lock};
          }
        }
      }
      if (least && (least->through || least->gap < 3 * line_from_moving)) r.tyres.push_back(*least);
    }
  }

  const FitUpGiven& given_;
  const build::AirKit& kit_;
  std::optional<double> section_; // mm²
  std::vector<JudgedRoute> out_;
};

} // namespace

Message line_name(std::string_view key) {
  constexpr std::pair<std::string_view, const char*> others[] = {{"feed", words("tank to valves")},
                                                                 {"delivery", words("compressor to tank")},
                                                                 {"delivery_2", words("second compressor to tank")},
                                                                 {"tanks", words("tank to second tank")},
                                                                 {"power_2", words("battery to second compressor")},
                                                                 {"power", words("battery to compressor")},
                                                                 {"valve_loom", words("controller to valves")},
                                                                 {"handset", words("controller to handset")}};
  for (const auto& [other, name] : others)
    if (key == other) return {name, {}};
  for (std::size_t corner = 0; corner < 4; ++corner)
    if (key == corner_line_key(corner)) return {words("valves to {0} bag"), {corner_name(corner)}};
  return {words("{0}, which this kit lacks"), {std::string(key)}};
}

std::vector<JudgedRoute> judged_routes(const FitUpGiven& given) {
  return RouteJudge(given).judge();
}

std::vector<build::WayPoint> first_way(const JudgedRoute& route, std::optional<double> sill_height) {
  const build::PartPlace &from = route.from, &to = route.to;
  const double floor = std::max(0.12, sill_height.value_or(0.25) - 0.03);
  const double y = to.y > 0.05 ? 0.45 : to.y < -0.05 ? -0.45 : 0.2;
  const double ahead = to.x > from.x ? 1 : -1;
  const auto point = [&](const char* name, build::WayKind kind, double x, double across) {
    build::WayPoint p;
    p.name = name, p.kind = kind, p.x = x, p.y = across, p.z = floor;
    return p;
  };
  return {point("floor", build::WayKind::grommet, from.x, from.y),
          point("beside the tunnel", build::WayKind::clip, from.x + 0.1 * ahead, y),
          point("before the axle", build::WayKind::clip, to.x - 0.35 * ahead, y)};
}

} // namespace mavrel::assess
