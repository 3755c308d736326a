// What stands near to what as bodies: where obstacles lie, what is bolted to what, and the gaps between them at a
// stand.
#include "assess/clearance/clearance.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using motion::Part;
using space::Gap;
using space::Point;

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

/// The solid seen in a mirror along the car.
space::Solid mirrored(const space::Solid& solid) {
  if (const auto* plane = std::get_if<space::Plane>(&solid))
    return space::Plane{space::mirrored(plane->at), space::mirrored(plane->normal)};
  if (const auto* rod = std::get_if<space::Rod>(&solid))
    return space::Rod{space::mirrored(rod->from), space::mirrored(rod->to), rod->radius};
  auto box = std::get<space::Box>(solid);
  box.centre = space::mirrored(box.centre);
  box.turn = -box.turn;
  return box;
}

/// How far left of the middle a solid reaches, m: least and most. Of a plane the place that was measured.
std::pair<double, double> across(const space::Solid& solid) {
  if (const auto* plane = std::get_if<space::Plane>(&solid)) return {plane->at.y, plane->at.y};
  if (const auto* rod = std::get_if<space::Rod>(&solid))
    return {std::min(rod->from.y, rod->to.y) - rod->radius, std::max(rod->from.y, rod->to.y) + rod->radius};
  const auto& box = std::get<space::Box>(solid);
  const double half = std::abs(box.half.x * std::sin(box.turn)) + std::abs(box.half.y * std::cos(box.turn));
  return {box.centre.y - half, box.centre.y + half};
}

/// As measured, wherever it lies.
std::optional<Placement> as_it_lies(const build::Obstacle& o) {
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

double most_thinner(const space::WheelSolid& wheel) {
  return std::max(0.0, std::min({wheel.shoulder + wheel.grow, wheel.widest / 2 - wheel.shoulder,
                                 (wheel.radius - wheel.bore) / 2 - 1e-3}));
}
space::WheelSolid thinner(space::WheelSolid wheel, double by) {
  const double less = std::clamp(by, 0.0, most_thinner(wheel));
  wheel.grow -= less;
  wheel.bore += less;
  return wheel;
}
space::Rod thinner(space::Rod rod, double by) {
  rod.radius = std::max(0.0, rod.radius - by);
  return rod;
}
space::Cylinder thinner(space::Cylinder body, double by) {
  body.radius = std::max(1e-4, body.radius - by);
  body.half = std::max(1e-4, body.half - by);
  return body;
}

/// The last bit of an arm or rod at its ball joint sits in the wheel, thinner than the rest by what nobody measures.
constexpr double ball_joint = 0.060; // m
space::Rod short_of_joint(const space::Rod& rod, OwnPart own) {
  const bool to_upright = own == OwnPart::lower_arm || own == OwnPart::upper_arm || own == OwnPart::track_rod ||
                          (own >= OwnPart::link1 && own <= OwnPart::link5);
  const double length = space::length(rod.to - rod.from);
  if (!to_upright || length <= 2 * ball_joint) return rod;
  return {rod.from, space::lerp(rod.from, rod.to, 1 - ball_joint / length), rod.radius};
}

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
  constexpr const char* names[] = {
      "",
      words("tyre"),
      words("damper"),
      words("arch lip"),
      words("lower arm"),
      words("upper arm"),
      words("arm"),
      words("link 1"),
      words("link 2"),
      words("link 3"),
      words("link 4"),
      words("link 5"),
      words("track rod"),
      words("lower link"),
      words("upper link"),
      words("lateral bar"),
      words("axle"),
      words("bag"),
  };
  return names[static_cast<std::size_t>(part)];
}
const char* key_of(Mover mover) {
  constexpr const char* keys[] = {"tyre", "bag", "damper", "arms", "axle"};
  return keys[static_cast<std::size_t>(mover)];
}

Message Near::told() const {
  const Message what = own != OwnPart::none ? Message{name_of(own), {}} : Message{words("{0}"), {name}};
  return right ? Message{words("{0} at the right"), {what}} : what;
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

std::optional<Placement> placement_of(const build::Obstacle& o, bool right) {
  auto out = as_it_lies(o);
  // What lies left of the middle stands for its mirror image too: to the right wheel it lies the same.
  if (out && right && across(out->solid).first < 0) out->solid = mirrored(out->solid);
  return out;
}

std::vector<bool> rights_of(const build::Obstacle& o, bool differ) {
  const auto placed = as_it_lies(o);
  if (!placed) return {};
  const auto [least, most] = across(placed->solid);
  if (most <= 0) return {true};
  const bool crosses = least < 0 && !(mirrored(placed->solid) == placed->solid);
  if (crosses || differ) return {false, true};
  return {false};
}

bool bolted(Mover mover, const build::Obstacle& o) {
  const Part on = part_of(o.fixed_to);
  switch (mover) {
  case Mover::tyre:
  case Mover::bag:
    return false;
  case Mover::damper:
    return o.bolted_to == build::BoltedTo::damper;
  case Mover::arms: // the arm that carries it is left out by itself
    return o.bolted_to == build::BoltedTo::arms;
  case Mover::axle:
    return o.bolted_to == build::BoltedTo::axle || on == Part::axle;
  }
  return false;
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

double half_thickness(Mover mover, const Stand& stand, const Clearances& clear, const BagBody* bag) {
  switch (mover) {
  case Mover::tyre:
    return clear.wheel ? most_thinner(*clear.wheel) : 0;
  case Mover::bag: {
    const auto body = bag ? bag_at(*bag, stand) : std::nullopt;
    return body ? std::min(body->radius, body->half) : 0;
  }
  case Mover::damper:
    return stand.damper ? stand.damper->radius : 0;
  case Mover::arms:
    return stand.arms.empty() ? 0 : stand.arms.front().radius;
  case Mover::axle:
    return stand.axle ? stand.axle->radius : 0;
  }
  return 0;
}

std::optional<space::Gap> gap_to(Mover mover, const Placement& near, const Stand& stand, const GapIn& in) {
  const space::Placed& by = stand.parts[static_cast<std::size_t>(near.on)];
  const bool still = near.on == Part::body;
  const auto of_rod = [&](const space::Rod& whole) {
    const space::Rod rod = thinner(whole, in.thinner);
    return still ? space::gap_between(rod, near.solid)
                 : space::moved(space::gap_between(space::moved_back(rod, by), near.solid), by);
  };
  switch (mover) {
  case Mover::tyre: {
    if (!in.clear.wheel) return std::nullopt;
    const space::WheelSolid wheel = in.thinner > 0 ? thinner(*in.clear.wheel, in.thinner) : *in.clear.wheel;
    return still ? space::gap_between(wheel, stand.wheel, near.solid)
                 : space::moved(space::gap_between(wheel, space::moved_back(stand.wheel, by), near.solid), by);
  }
  case Mover::bag: {
    auto body = in.bag ? bag_at(*in.bag, stand) : std::nullopt;
    if (!body) return std::nullopt;
    if (in.thinner > 0) body = thinner(*body, in.thinner);
    return still ? space::gap_between(*body, near.solid)
                 : space::moved(space::gap_between(space::moved_back(*body, by), near.solid), by);
  }
  case Mover::damper:
    return stand.damper ? std::optional(of_rod(*stand.damper)) : std::nullopt;
  case Mover::axle:
    return stand.axle ? std::optional(of_rod(*stand.axle)) : std::nullopt;
  case Mover::arms: {
    std::optional<Gap> least;
    for (std::size_t i = 0; i < stand.arms.size(); ++i) {
      if (!still && in.space.arms()[i].part == near.on) continue; // bolted to it
      if (const Gap g = of_rod(stand.arms[i]); !least || g.apart < least->apart) least = g;
    }
    return least;
  }
  }
  return std::nullopt;
}

std::optional<OwnGap> gap_to_own(Mover mover, OwnPart own, const Stand& stand, const GapIn& in) {
  if (!in.clear.wheel && (mover == Mover::tyre || own == OwnPart::tyre)) return std::nullopt;
  std::optional<space::Cylinder> bag;
  if (mover == Mover::bag) {
    bag = in.bag ? bag_at(*in.bag, stand) : std::nullopt;
    if (!bag) return std::nullopt;
    bag = thinner(*bag, in.thinner);
    if (own == OwnPart::tyre) {
      Gap gap = space::gap_between(*in.clear.wheel, stand.wheel, *bag);
      std::swap(gap.on_first, gap.on_second);
      return OwnGap{gap, {}};
    }
  }
  const space::WheelSolid wheel = mover == Mover::tyre ? thinner(*in.clear.wheel, in.thinner) : space::WheelSolid{};
  std::optional<OwnGap> least;
  const auto take = [&](const space::Rod& rod) {
    const Gap gap = bag ? space::gap_between(*bag, space::Solid(rod)) : space::gap_between(wheel, stand.wheel, rod);
    if (!least || gap.apart < least->gap.apart) least = OwnGap{gap, rod};
  };
  switch (own) {
  case OwnPart::none:
  case OwnPart::tyre:
  case OwnPart::bag:
    break;
  case OwnPart::damper:
    if (stand.damper) take(*stand.damper);
    break;
  case OwnPart::lip:
    if (in.clear.lip) take(*in.clear.lip);
    break;
  case OwnPart::axle:
    if (stand.axle) take(*stand.axle);
    break;
  default:
    for (std::size_t i = 0; i < stand.arms.size(); ++i)
      if (in.space.arms()[i].own == own)
        take(mover == Mover::tyre ? short_of_joint(stand.arms[i], own) : stand.arms[i]);
  }
  return least;
}

std::vector<OwnPart> own_parts(Mover mover, const EndSpace& space, const build::EndSurvey& survey) {
  std::vector<OwnPart> out;
  const Stand& any = space.stands(Lock::straight).front();
  const bool bag = mover == Mover::bag;
  if (!bag && mover != Mover::tyre) return out;
  if (bag) out.push_back(OwnPart::tyre);
  // A spring around its damper has it inside.
  if (any.damper && !(bag && survey.spring_place == build::SpringPlace::around_damper)) out.push_back(OwnPart::damper);
  for (const ArmRow& row : space.arms()) {
    const bool one = bag ? row.part != Part::body && space.carries_spring(row.part) : row.holds_wheel;
    if (!one && std::find(out.begin(), out.end(), row.own) == out.end()) out.push_back(row.own);
  }
  if (bag && any.axle && !space.carries_spring(Part::axle)) out.push_back(OwnPart::axle);
  return out;
}

} // namespace mavrel::assess
