#include "assess/clearance/clearance.h"

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

constexpr double sheet_step = 0.010;    // m between heights at which a sheet's curve is read
constexpr double sheet_reaches = 0.015; // m beyond its readings that a cycle sheet is believed
constexpr double lip_half = 0.12;       // m of the arch's lip, either way of the hub

/// A gap at a stand; none where nobody knows.
using GapAt = std::function<Figure(const Stand&)>;

/// A gap worked out at evenly spaced heights.
struct Table {
  std::vector<double> heights;
  std::vector<Figure> gaps; // one a height
};

/// The longest run of it that has an answer.
std::optional<TrackPiece> piece_of(const Table& table) {
  TrackPiece best, now;
  const auto close = [&] {
    if (now.values.size() > best.values.size()) best = std::move(now);
    now = {};
  };
  for (std::size_t i = 0; i < table.gaps.size(); ++i) {
    if (!table.gaps[i]) {
      close();
      continue;
    }
    if (now.values.empty()) now = {table.heights[i], table.heights[1] - table.heights[0], {}};
    now.values.push_back(*table.gaps[i]);
  }
  close();
  if (best.values.size() < 2) return std::nullopt;
  return best;
}

/// Stretches of height where the gap is below a level, their edges found to some micrometres.
/// @param gap  at any height
template <class F>
std::vector<std::pair<double, double>> below(const Table& table, double level, const F& gap) {
  std::vector<std::pair<double, double>> out;
  const auto bad = [&](const Figure& g) { return g && *g < level; };
  // Where it reaches the level, from the gaps at both sides: by halves where it is nothing on one of them, for what
  // overlaps does not say by how much.
  const auto edge = [&](double a, double b, const Figure& at_a, const Figure& at_b) {
    const bool bad_at_a = bad(at_a);
    double over_a = *at_a - level, over_b = *at_b - level;
    for (int round = 0; round < 10 && b - a > 2e-5; ++round) {
      const bool halves = over_a <= -level || over_b <= -level || over_a == over_b || round >= 6;
      double mid = halves ? 0.5 * (a + b) : a + (b - a) * over_a / (over_a - over_b);
      mid = std::clamp(mid, a + 0.02 * (b - a), b - 0.02 * (b - a));
      const Figure here = gap(mid);
      if (!here) break;
      if (std::abs(*here - level) < 1e-5 && *here > 0) return mid;
      if (bad(here) == bad_at_a)
        a = mid, over_a = *here - level;
      else
        b = mid, over_b = *here - level;
    }
    return 0.5 * (a + b);
  };
  bool open = false;
  double from = 0;
  for (std::size_t i = 0; i < table.gaps.size(); ++i) {
    const double H = table.heights[i];
    const bool here = bad(table.gaps[i]);
    if (here != open) {
      // Where nobody knows, what is known ends at the height itself.
      const bool known = i > 0 && table.gaps[i] && table.gaps[i - 1];
      const double at = known            ? edge(table.heights[i - 1], H, table.gaps[i - 1], table.gaps[i])
                        : here || i == 0 ? H
                                         : table.heights[i - 1];
      if (open) out.emplace_back(from, at);
      from = at;
      open = here;
    }
  }
  if (open) out.emplace_back(from, table.heights.back());
  return out;
}

/// Works gaps out over height and adds what they forbid.
class Over {
public:
  Over(std::vector<GapCurve>& gaps, std::vector<Block>& blocks) : gaps_(gaps), blocks_(blocks) {}

  /// A gap between bodies, or one that goes as the wheel does.
  /// @param straight_known, lock_known  whether it says anything of wheels straight ahead and at lock
  void add(const EndSpace& space, GapCurve gap, const GapAt& at, bool straight_known = true, bool lock_known = true) {
    // A gap taped at lock holds for lock, whether or not anybody said how far that is.
    const bool tyre = gap.mover == Mover::tyre || gap.near.own == OwnPart::tyre;
    const bool locks = tyre && lock_known && (space.steers() || !straight_known);
    const auto straight = [&](double H) { return at(space.at(H)); };
    const auto& ahead = space.stands(Lock::straight);
    Table table;
    const std::size_t every = gap.mover == Mover::tyre ? 1 : 2;
    for (std::size_t i = 0; i < ahead.size(); i += every) {
      table.heights.push_back(ahead[i].H);
      table.gaps.push_back(at(ahead[i]));
    }
    if (straight_known) {
      gap.straight = piece_of(table);
      constexpr double met = 1e-9; // m
      forbid(gap, true, table, met, straight);
    }
    if (!locks) {
      gap.least = gap.straight;
      forbid(gap, false, table, gap.near.room, straight);
    } else {
      const auto least = [&](double H) {
        return least_of(straight_known ? straight(H) : Figure(), at(space.at(H, Lock::right)),
                        at(space.at(H, Lock::left)));
      };
      const auto &right = space.stands(Lock::right), &left = space.stands(Lock::left);
      Table steered;
      // Both locks stand at the same heights, each one of those straight ahead.
      const std::size_t apart = every == 1 ? 2 : 1;
      for (std::size_t i = 0; i < std::min(right.size(), left.size()); ++i) {
        const bool same = i * apart < table.heights.size() && std::abs(right[i].H - left[i].H) < 1e-9 &&
                          std::abs(table.heights[i * apart] - right[i].H) < 1e-9;
        steered.heights.push_back(right[i].H);
        steered.gaps.push_back(
            same ? least_of(straight_known ? table.gaps[i * apart] : Figure(), at(right[i]), at(left[i]))
                 : least(right[i].H));
      }
      gap.least = piece_of(steered);
      forbid(gap, false, steered, gap.near.room, least);
    }
    keep(std::move(gap));
  }

  /// A gap that is a curve over height, whatever the steering.
  template <class F>
  void add_curve(GapCurve gap, double low, double high, const F& at) {
    const Heights heights = Heights::over(low, high, sheet_step);
    Table table;
    for (std::size_t i = 0; i < heights.count; ++i) {
      table.heights.push_back(heights.H(i));
      table.gaps.push_back(at(heights.H(i)));
    }
    gap.straight = gap.least = piece_of(table);
    forbid(gap, true, table, 1e-9, at);
    forbid(gap, false, table, gap.near.room, at);
    keep(std::move(gap));
  }

private:
  /// Overlap has no depth: where a gap closes between two heights, the height that overlaps is given the value that has
  /// the line between them pass through the edge that was found.
  static void lead_through(std::optional<TrackPiece>& piece, double edge, double level) {
    if (!piece) return;
    const double place = (edge - piece->from) / piece->step;
    if (!(place > 0) || place >= static_cast<double>(piece->values.size() - 1)) return;
    const auto i = static_cast<std::size_t>(place);
    const double t = place - static_cast<double>(i);
    double &a = piece->values[i], &b = piece->values[i + 1];
    if (a <= 0 && b > level && t < 0.999) a = b - (b - level) / (1 - t);
    if (b <= 0 && a > level && t > 0.001) b = a - (a - level) / t;
  }
  static Figure least_of(Figure a, const Figure& b, const Figure& c) {
    for (const Figure& other : {b, c})
      if (other) a = a ? std::min(*a, *other) : *other;
    return a;
  }
  void keep(GapCurve gap) {
    if (gap.straight || gap.least) gaps_.push_back(std::move(gap));
  }
  template <class F>
  void forbid(GapCurve& gap, bool touches, const Table& table, double level, const F& at) {
    if (gap.joined || table.heights.size() < 2) return;
    for (const auto& [a, b] : below(table, level, at)) {
      Block block{gap.mover, gap.near, a, b, touches, {}};
      if (gap.source == GapSource::solid)
        for (const double end : {a, b})
          lead_through(touches ? gap.straight : gap.least, end, touches ? 0 : level);
      // Beyond its free edge the gap opens by so much for a metre of height.
      const double way = b < table.heights.back() - 1e-9 ? 1 : -1, edge = way > 0 ? b : a;
      const Figure near = at(edge + way * 1e-4), far = at(edge + way * 1.1e-3);
      if (near && far && *far - *near > 2e-5) block.gain = 1e-3 / (*far - *near);
      blocks_.push_back(std::move(block));
    }
  }

  std::vector<GapCurve>& gaps_;
  std::vector<Block>& blocks_;
};

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
  [[nodiscard]] Over over() { return {out_.gaps, out_.blocks}; }
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
  Over over(gaps, blocks);
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
