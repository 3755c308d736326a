#include "assess/clearance/gaps_over_height.h"

#include "assess/clearance/taped.h"

#include <algorithm>
#include <cmath>
#include <limits>

namespace mavrel::assess {

namespace {

using motion::Part;
using space::Gap;
using space::Point;
using Figure = std::optional<double>;

constexpr double lip_half = 0.12; // m of the arch's lip, either way of the hub

/// Was the mover on the car as it was surveyed, where it is now?
bool was_on_car(Mover mover, const ClearanceGiven& given) {
  const MotionGiven& motion = given.motion.given();
  switch (mover) {
  case Mover::tyre:
    return OtherWheel::is_surveyed(motion.survey.given().survey, given) && motion.drop_spindle == 0 &&
           motion.mount_outward == 0;
  case Mover::damper:
    return !given.damper_open && !given.damper_shut && motion.mount_outward == 0;
  case Mover::bag:
    return false;
  case Mover::arms:
  case Mover::axle:
    return true;
  }
  return false;
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
    if (out_.space) out_.right = EndSpace::right_of(given_.motion, low, high);
    other_wheel_ = OtherWheel(survey_, given_, out_.wheel);
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
      GapCurve curve{Mover::tyre, {gap.name, OwnPart::none, not_listed, 0}, GapSource::sheet, {}, {}, {}, {}, {}};
      double closes = other_wheel_.closes_most();
      if (const build::Obstacle* o = listed(gap.name, curve.near.obstacle)) {
        if (o->gap_from != build::GapFrom::tyre) curve.mover = Mover::bag;
        curve.near.room = room(curve.mover, *o);
        closes = o->gap_from == build::GapFrom::bag ? 0 : other_wheel_.closes(o->gap_way);
      }
      const double low = gap.fit.lowest - trusted_past_reading - drop,
                   high = gap.fit.highest + trusted_past_reading - drop;
      over().add_curve(std::move(curve), low, high,
                       [&, closes](double H) -> Figure { return gap.fit.length.read(H + drop).value - closes; });
    }
  }

  void lip() {
    if (!survey_.arch.lip_outward || !out_.wheel || !read_.height) return;
    const Point& hub = out_.space->hub();
    const double y = hub.y + *survey_.arch.lip_outward + given_.lip_rolled, z = hub.z + *read_.height;
    out_.lip = space::Rod{{hub.x - lip_half, y, z}, {hub.x + lip_half, y, z}, 0};
    for (const bool right : {false, true})
      if (!right || out_.right) own(Mover::tyre, OwnPart::lip, given_.rooms.tyre, right);
  }

  /// One gap between bodies, with what it overlaps by as surveyed.
  /// @param at  the gap at a stand, with the mover so much thinner all over
  template <class GapAtThinner>
  void bodies(GapCurve gap, const GapAtThinner& at, bool on_car) {
    const EndSpace& space = out_.space_of(gap.near);
    const Stand surveyed = space.at(space.surveyed_height());
    if (!at(surveyed, 0)) return;
    gap.as_surveyed = overlap_of([&](double thinner) { return at(surveyed, thinner); },
                                 half_thickness(gap.mover, surveyed, out_, nullptr), on_car);
    over().add(space, std::move(gap), [&](const Stand& stand) { return at(stand, 0); });
  }

  void own(Mover mover, OwnPart part, double room, bool right) {
    GapCurve gap{mover, {"", part, not_listed, room, right}, GapSource::solid, {}, {}, {}, {}, {}};
    const EndSpace& space = out_.space_of(gap.near);
    const auto at = [&](const Stand& stand, double thinner) -> Figure {
      const auto g = gap_to_own(mover, part, stand, {out_, space, nullptr, thinner});
      return g ? Figure(g->gap.apart) : std::nullopt;
    };
    if (!was_on_car(mover, given_) || part == OwnPart::lip) {
      bodies(std::move(gap), at, was_on_car(mover, given_));
      return;
    }
    // Both were on the car: what they had between them is asked for again and no more, so that depths count too.
    const auto signed_gap = [&](const Stand& stand) -> Figure {
      const Figure apart = at(stand, 0);
      if (!apart || *apart > 0) return apart;
      const auto overlap = overlap_of([&](double thinner) { return at(stand, thinner); },
                                      half_thickness(mover, stand, out_, nullptr), true);
      return overlap ? -overlap->depth : 0.0;
    };
    const Stand surveyed = space.at(space.surveyed_height());
    const Figure straight = signed_gap(surveyed);
    if (!straight) return;
    double least = *straight;
    if (space.steers())
      for (const Lock lock : {Lock::right, Lock::left})
        least = std::min(least, signed_gap(space.at(space.surveyed_height(), lock)).value_or(least));
    gap.had = HadBetween{*straight, least};
    if (least <= 0) {
      const double most = half_thickness(mover, surveyed, out_, nullptr);
      gap.as_surveyed = Overlap{-least, -least >= most, true, false, *straight > 0};
    }
    over().add(space, std::move(gap), signed_gap);
  }

  /// The tyre against the end's own parts.
  void own() {
    if (!out_.wheel || !out_.space->solved()) return;
    for (const bool right : {false, true})
      if (!right || out_.right)
        for (const OwnPart part : own_parts(Mover::tyre, right ? *out_.right : *out_.space, survey_))
          own(Mover::tyre, part, std::max(given_.rooms.tyre, given_.rooms.metal), right);
  }

  void obstacles() {
    for (std::size_t i = 0; i < survey_.obstacles.size(); ++i) {
      const build::Obstacle& o = survey_.obstacles[i];
      if (o.shape == build::ObstacleShape::gap) {
        taped(o, i);
        continue;
      }
      for (const bool right : rights_of(o, out_.right.has_value())) {
        const auto near = placement_of(o, right);
        if (!near) continue;
        for (const Mover mover : {Mover::tyre, Mover::damper, Mover::arms, Mover::axle}) {
          if (bolted(mover, o)) continue;
          GapCurve gap{mover, {o.name, OwnPart::none, i, room(mover, o), right}, GapSource::solid, {}, {}, {}, {}, {}};
          const EndSpace& space = out_.space_of(gap.near);
          const auto at = [&](const Stand& stand, double thinner) -> Figure {
            const auto g = gap_to(mover, *near, stand, {out_, space, nullptr, thinner});
            return g ? Figure(g->apart) : std::nullopt;
          };
          bodies(std::move(gap), at, was_on_car(mover, given_) && o.on_car == build::OnCar::as_surveyed);
        }
      }
    }
  }

  /// One gap at one height: elsewhere it opens as the wheel goes, and closes by what another wheel is larger.
  void taped(const build::Obstacle& o, std::size_t i) {
    if (!o.gap || o.gap_from != build::GapFrom::tyre) return; // what was taped from the bag waits for it
    const bool sheet =
        std::any_of(read_.gap_fits.begin(), read_.gap_fits.end(), [&](const auto& gap) { return gap.name == o.name; });
    if (sheet) return; // read all through the travel: nothing to predict
    const EndSpace& space = *out_.space;
    const double drop = given_.motion.given().drop_spindle;
    const double H0 = o.gap_height ? *o.gap_height - drop : space.surveyed_height();
    GapCurve gap{Mover::tyre, {o.name, OwnPart::none, i, room(Mover::tyre, o)}, GapSource::taped, H0, {}, {}, {}, {}};
    const bool locked = o.gap_at == build::GapAt::lock;
    // At lock from where the wheel stood at lock: steered either way its middle lies elsewhere than straight ahead.
    std::array<Point, 3> from;
    for (const Lock lock : all_locks)
      from[static_cast<std::size_t>(lock)] = space.at(H0, locked ? lock : Lock::straight).wheel.centre;
    const double gap_then = *o.gap - other_wheel_.closes(o.gap_way);
    const auto at = [&](const Stand& stand) -> Figure {
      const Point& was = from[static_cast<std::size_t>(stand.lock)];
      return std::max(0.0, gap_then - towards(o.gap_way, stand.wheel.centre - was));
    };
    over().add(space, std::move(gap), at, !locked, locked);
  }

  const ClearanceGiven& given_;
  const SurveyedEnd& read_;
  const build::EndSurvey& survey_;
  OtherWheel other_wheel_;
  Clearances out_;
};

} // namespace

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

} // namespace mavrel::assess
