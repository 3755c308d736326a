#include "assess/clearance/gaps_over_height.h"

#include "motion/wheel.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace mavrel::assess {

namespace {

using motion::Part;
using space::Gap;
using space::Point;
using Figure = std::optional<double>;

constexpr double sheet_reaches = 0.015; // m beyond its readings that a cycle sheet is believed
constexpr double lip_half = 0.12;       // m of the arch's lip, either way of the hub

Part part_of(build::Carrier carrier) {
  switch (carrier) {
  case build::Carrier::usual:
  case build::Carrier::body:
    return Part::body;
  case build::Carrier::upright:
    return Part::upright;
  case build::Carrier::lower_arm:
    return Part::lower_arm;
  case build::Carrier::upper_arm:
    return Part::upper_arm;
  case build::Carrier::arm:
    return Part::arm;
  case build::Carrier::link1:
    return Part::link1;
  case build::Carrier::link2:
    return Part::link2;
  case build::Carrier::link3:
    return Part::link3;
  case build::Carrier::link4:
    return Part::link4;
  case build::Carrier::link5:
    return Part::link5;
  case build::Carrier::axle:
    return Part::axle;
  }
  return Part::body;
}

/// m that a place of the mover comes nearer to an obstacle lying that way, for a shift of the wheel.
double towards(build::GapWay way, const Point& shift) {
  switch (way) {
  case build::GapWay::above:
    return shift.z;
  case build::GapWay::inboard:
    return -shift.y;
  case build::GapWay::outboard:
    return shift.y;
  case build::GapWay::ahead:
    return shift.x;
  case build::GapWay::behind:
    return -shift.x;
  }
  return 0;
}

class Finder {
public:
  explicit Finder(const ClearanceGiven& given)
      : given_(given), read_(*given.motion.given().survey), survey_(given.motion.given().survey.given().survey) {}

  Clearances find() {
    if (const auto code = motion::parse_wheel(given_.wheel))
      out_.wheel = motion::wheel_solid(*code, given_.tyre_width, given_.rooms.tyre_growth);
    Figure radius; // of the wheel it stood on when it was measured
    if (const auto code = motion::parse_wheel(survey_.wheel)) radius = motion::wheel_space(*code).diameter / 2;
    const auto [low, high] = heights();
    out_.space = EndSpace::of(given_.motion, radius, low, high);
    sheets();
    if (!out_.space) return std::move(out_);
    lip();
    own();
    obstacles();
    return std::move(out_);
  }

private:
  /// Of two that may be known, the lesser, or with `way` −1 the greater.
  static Figure least_of(const Figure& a, const Figure& b, double way = 1) {
    if (!a || !b) return a ? a : b;
    return way * *a < way * *b ? a : b;
  }
  /// As far as the dampers let it go, surveyed or the design's, and a little beyond; all of it where nobody knows.
  [[nodiscard]] std::pair<double, double> heights() const {
    constexpr double beyond = 0.025, most = 0.25; // m
    if (!read_.height) return {0, 2};
    double low = *read_.height - most, high = *read_.height + most;
    const double drop = given_.motion.given().drop_spindle;
    if (!read_.damper_length || !read_.damper_ratio || !(*read_.damper_ratio > 0.05)) return {low - drop, high};
    const auto way = [&](double end) { return (end - *read_.damper_length) / *read_.damper_ratio; };
    const Figure shortest = least_of(read_.damper_shut, given_.damper_shut),
                 longest = least_of(read_.damper_open, given_.damper_open, -1);
    if (shortest) low = std::max(low, *read_.height + 1.15 * std::min(0.0, way(*shortest)) - beyond);
    if (longest) high = std::min(high, *read_.height + 1.15 * std::max(0.0, way(*longest)) + beyond);
    return {low - drop, high};
  }
  [[nodiscard]] GapsOverHeight over() { return {out_.gaps, out_.blocks}; }
  [[nodiscard]] double room(Mover mover, const build::Obstacle& o) const {
    return o.room.value_or(room_for(mover, o.kind, given_.rooms, given_.bag_room));
  }
  [[nodiscard]] const build::Obstacle* listed(const std::string& name, std::size_t& index) const {
    for (index = 0; index < survey_.obstacles.size(); ++index)
      if (survey_.obstacles[index].name == name) return &survey_.obstacles[index];
    index = not_listed;
    return nullptr;
  }

  /// Gaps that were read all through the travel. Without a row of obstacles nobody said how much room they want: they
  /// must not be used up.
  void sheets() {
    const double drop = given_.motion.given().drop_spindle;
    for (const SurveyedEnd::GapFit& gap : read_.gap_fits) {
      GapCurve curve{Mover::tyre, {gap.name, OwnPart::none, not_listed, 0}, GapSource::sheet, {}, {}, {}, false};
      if (const build::Obstacle* o = listed(gap.name, curve.near.obstacle)) {
        if (o->gap_from == build::GapFrom::bag) curve.mover = Mover::bag;
        curve.near.room = room(curve.mover, *o);
      }
      const double low = gap.fit.lowest - sheet_reaches - drop, high = gap.fit.highest + sheet_reaches - drop;
      over().add_curve(std::move(curve), low, high,
                       [&](double H) -> Figure { return gap.fit.length.read(H + drop).value; });
    }
  }

  void lip() {
    if (!survey_.arch.lip_outward || !out_.wheel || !read_.height) return;
    const Point& hub = out_.space->hub();
    const double y = hub.y + *survey_.arch.lip_outward + given_.lip_rolled, z = hub.z + *read_.height;
    out_.lip = space::Rod{{hub.x - lip_half, y, z}, {hub.x + lip_half, y, z}, 0};
    solid({Mover::tyre, {"", OwnPart::lip, not_listed, given_.rooms.tyre}, GapSource::solid, {}, {}, {}, false},
          {*out_.lip, Part::body});
  }

  void solid(GapCurve gap, const Placement& near) {
    const Mover mover = gap.mover;
    const auto at = [&](const Stand& stand) -> Figure {
      const auto g = gap_to(mover, near, stand, out_, nullptr);
      return g ? Figure(g->apart) : std::nullopt;
    };
    // What is bolted to one another touches with the car as it was measured.
    if (mover != Mover::tyre) {
      const Figure now = at(out_.space->at(out_.space->surveyed_height()));
      if (!now) return;
      gap.joined = *now == 0;
    }
    over().add(*out_.space, std::move(gap), at);
  }

  /// The tyre against the end's own parts.
  void own() {
    if (!out_.wheel || !out_.space->solved()) return;
    const auto tyre_to = [&](OwnPart own, double room, const std::function<const space::Rod*(const Stand&)>& part) {
      GapCurve gap{Mover::tyre, {"", own, not_listed, room}, GapSource::solid, {}, {}, {}, false};
      const auto at = [&](const Stand& stand) -> Figure {
        const space::Rod* rod = part(stand);
        if (!rod) return std::nullopt;
        return space::gap_between(*out_.wheel, stand.wheel, *rod).apart;
      };
      if (const Figure now = at(out_.space->at(out_.space->surveyed_height()))) {
        gap.joined = *now == 0;
        over().add(*out_.space, std::move(gap), at);
      }
    };
    tyre_to(OwnPart::damper, std::max(given_.rooms.tyre, given_.rooms.metal),
            [](const Stand& s) { return s.damper ? &*s.damper : nullptr; });
  }

  void obstacles() {
    for (std::size_t i = 0; i < survey_.obstacles.size(); ++i) {
      const build::Obstacle& o = survey_.obstacles[i];
      if (o.shape == build::ObstacleShape::gap)
        taped(o, i);
      else if (const auto near = placement_of(o))
        for (const Mover mover : {Mover::tyre, Mover::damper, Mover::arms, Mover::axle})
          solid({mover, {o.name, OwnPart::none, i, room(mover, o)}, GapSource::solid, {}, {}, {}, false}, *near);
    }
  }

  /// One gap at one height: elsewhere it opens as the wheel goes.
  void taped(const build::Obstacle& o, std::size_t i) {
    if (!o.gap || o.gap_from == build::GapFrom::bag) return;
    const bool sheet =
        std::any_of(read_.gap_fits.begin(), read_.gap_fits.end(), [&](const auto& gap) { return gap.name == o.name; });
    if (sheet) return; // read all through the travel: nothing to predict
    const EndSpace& space = *out_.space;
    const double drop = given_.motion.given().drop_spindle;
    const double H0 = o.gap_height ? *o.gap_height - drop : space.surveyed_height();
    GapCurve gap{Mover::tyre, {o.name, OwnPart::none, i, room(Mover::tyre, o)}, GapSource::taped, H0, {}, {}, false};
    const bool locked = o.gap_at == build::GapAt::lock;
    const Point from = space.at(H0).wheel.centre;
    const auto at = [&](const Stand& stand) -> Figure {
      return std::max(0.0, *o.gap - towards(o.gap_way, stand.wheel.centre - from));
    };
    over().add(space, std::move(gap), at, !locked, locked);
  }

  const ClearanceGiven& given_;
  const SurveyedEnd& read_;
  const build::EndSurvey& survey_;
  Clearances out_;
};

} // namespace

const char* name_of(Mover mover) {
  switch (mover) {
  case Mover::tyre:
    return words("tyre");
  case Mover::bag:
    return words("bag");
  case Mover::damper:
    return words("damper");
  case Mover::arms:
    return words("arm");
  case Mover::axle:
    return words("axle");
  }
  return "";
}
const char* name_of(OwnPart part) {
  switch (part) {
  case OwnPart::none:
    return "";
  case OwnPart::tyre:
    return words("tyre");
  case OwnPart::damper:
    return words("damper");
  case OwnPart::lip:
    return words("arch lip");
  }
  return "";
}
const char* key_of(Mover mover) {
  constexpr const char* keys[] = {"tyre", "bag", "damper", "arms", "axle"};
  return keys[static_cast<std::size_t>(mover)];
}

Message Near::told() const {
  if (own != OwnPart::none) return {name_of(own), {}};
  return {words("{0}"), {name}};
}

std::optional<double> GapCurve::at(double H, bool locked) const {
  const auto& piece = locked ? least : straight;
  if (!piece || H < piece->from - 1e-9 || H > piece->to() + 1e-9) return std::nullopt;
  const double place = std::max(0.0, (H - piece->from) / piece->step);
  const auto i = std::min(static_cast<std::size_t>(place), piece->values.size() - 2);
  const double gap = std::lerp(piece->values[i], piece->values[i + 1], std::min(1.0, place - static_cast<double>(i)));
  return source == GapSource::solid ? std::max(0.0, gap) : gap;
}

ClearanceGiven clearance_given(const build::Build& build, Answered<MotionQuestion> motion) {
  const build::EndSurvey& survey = motion.given().survey.given().survey;
  const build::EndFit& fit = build.variant().fit[build::at(motion.given().survey.given().end)];
  const bool other = !fit.wheel.empty();
  ClearanceGiven out{std::move(motion),
                     other ? fit.wheel : survey.wheel,
                     other ? fit.tyre_width : survey.tyre_width,
                     fit.lip_rolled,
                     build.variant().brief.rooms,
                     build.variant().brief.bag_clearance,
                     fit.damper_open,
                     fit.damper_shut};
  out.rooms.extra.clear();
  return out;
}

double room_for(Mover mover, build::ObstacleKind kind, const build::Rooms& rooms, double bag_room) {
  double own = rooms.metal;
  if (mover == Mover::tyre) own = rooms.tyre;
  if (mover == Mover::bag) own = bag_room;
  switch (kind) {
  case build::ObstacleKind::metal:
  case build::ObstacleKind::liner:
    return own;
  case build::ObstacleKind::hose:
    return std::max(own, rooms.hose);
  case build::ObstacleKind::brake_line:
    return std::max(own, rooms.brake_line);
  case build::ObstacleKind::exhaust:
    return std::max(own, rooms.exhaust);
  case build::ObstacleKind::shielded_exhaust:
    return std::max(own, rooms.shielded_exhaust);
  }
  return own;
}

std::optional<Placement> placement_of(const build::Obstacle& o) {
  const Point at{o.x, o.y, o.z}, to{o.to_x, o.to_y, o.to_z};
  const Part on = part_of(o.fixed_to);
  switch (o.shape) {
  case build::ObstacleShape::gap:
    return std::nullopt;
  case build::ObstacleShape::plane:
    if (!(space::length(to - at) > 1e-6)) return std::nullopt;
    return Placement{space::Plane{at, to - at}, on};
  case build::ObstacleShape::box:
    return Placement{space::Box{at, {o.size_x / 2, o.size_y / 2, o.size_z / 2}, o.turn}, on};
  case build::ObstacleShape::rod:
    return Placement{space::Rod{at, to, o.radius}, on};
  case build::ObstacleShape::edge:
    return Placement{space::Rod{at, to, 0}, on};
  }
  return std::nullopt;
}

std::optional<space::Cylinder> bag_at(const BagBody& bag, const Stand& stand) {
  if (!stand.seats) return std::nullopt;
  const auto& [top, foot] = *stand.seats;
  const double apart = space::length(top - foot), height = apart - bag.upper_stack - bag.lower_stack;
  if (!(height > 1e-3)) return std::nullopt;
  const Point axis = (1 / apart) * (top - foot);
  // Beyond its card a bag stands at no preset; only how it is drawn there hangs on this.
  const double in_card = std::clamp(height, bag.curve->lowest(), bag.curve->highest());
  return space::Cylinder{foot + (bag.lower_stack + height / 2) * axis, axis, bag.curve->diameter(in_card) / 2,
                         height / 2};
}

std::optional<space::Gap> gap_to(Mover mover, const Placement& near, const Stand& stand, const Clearances& clear,
                                 const BagBody* bag) {
  const space::Placed& by = stand.parts[static_cast<std::size_t>(near.on)];
  const bool still = near.on == Part::body;
  const auto of_rod = [&](const space::Rod& rod) {
    return still ? space::gap_between(rod, near.solid)
                 : space::moved(space::gap_between(space::moved_back(rod, by), near.solid), by);
  };
  switch (mover) {
  case Mover::tyre:
    if (!clear.wheel) return std::nullopt;
    return still ? space::gap_between(*clear.wheel, stand.wheel, near.solid)
                 : space::moved(space::gap_between(*clear.wheel, space::moved_back(stand.wheel, by), near.solid), by);
  case Mover::bag: {
    const auto body = bag ? bag_at(*bag, stand) : std::nullopt;
    if (!body) return std::nullopt;
    return still ? space::gap_between(*body, near.solid)
                 : space::moved(space::gap_between(space::moved_back(*body, by), near.solid), by);
  }
  case Mover::damper:
    return stand.damper ? std::optional(of_rod(*stand.damper)) : std::nullopt;
  case Mover::axle:
    return stand.axle ? std::optional(of_rod(*stand.axle)) : std::nullopt;
  case Mover::arms: {
    std::optional<Gap> least;
    for (const space::Rod& arm : stand.arms)
      if (const Gap g = of_rod(arm); !least || g.apart < least->apart) least = g;
    return least;
  }
  }
  return std::nullopt;
}

std::optional<double> poke_at(const Clearances& clear, double H) {
  if (!clear.space || !clear.wheel || !clear.lip) return std::nullopt;
  if (H < clear.space->lowest() - 1e-9 || H > clear.space->highest() + 1e-9) return std::nullopt;
  const space::WheelSolid& w = *clear.wheel;
  const space::WheelPlace wheel = clear.space->at(H).wheel;
  // Straight up along the wheel, at the outer face where the shoulder begins.
  const Point up = space::cross(wheel.outward, {-1, 0, 0});
  const double outer = w.widest / 2 + w.grow - w.offset;
  const Point shoulder = wheel.centre + outer * wheel.outward + ((w.radius - w.shoulder) / space::length(up)) * up;
  return shoulder.y - clear.lip->from.y;
}

Clearances clearances(const ClearanceGiven& given) {
  return Finder(given).find();
}

void add_bag_gaps(const ClearanceGiven& given, const Clearances& clear, const BagBody& bag, std::vector<GapCurve>& gaps,
                  std::vector<Block>& blocks) {
  if (!clear.space || !bag.curve) return;
  const build::EndSurvey& survey = given.motion.given().survey.given().survey;
  const EndSpace& space = *clear.space;
  GapsOverHeight over(gaps, blocks);
  const Stand surveyed = space.at(space.surveyed_height());
  const auto add = [&](Near near, const GapAt& at) {
    const Figure now = at(surveyed);
    if (!now) return;
    over.add(space, {Mover::bag, std::move(near), GapSource::solid, {}, {}, {}, *now == 0}, at);
  };
  for (std::size_t i = 0; i < survey.obstacles.size(); ++i) {
    const build::Obstacle& o = survey.obstacles[i];
    const auto near = placement_of(o);
    if (!near) continue;
    add({o.name, OwnPart::none, i, o.room.value_or(room_for(Mover::bag, o.kind, given.rooms, given.bag_room))},
        [&](const Stand& stand) -> Figure {
          const auto g = gap_to(Mover::bag, *near, stand, clear, &bag);
          return g ? Figure(g->apart) : std::nullopt;
        });
  }
  if (!clear.wheel) return;
  add({"", OwnPart::tyre, not_listed, given.bag_room}, [&](const Stand& stand) -> Figure {
    const auto body = bag_at(bag, stand);
    return body ? Figure(space::gap_between(*clear.wheel, stand.wheel, *body).apart) : std::nullopt;
  });
}

} // namespace mavrel::assess
