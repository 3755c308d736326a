#include "assess/interference/fits.h"

#include "assess/end/limits.h"
#include "assess/interference/near_at.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <stop_token>
#include <variant>

namespace mavrel::assess {

namespace {

constexpr double inch = 0.0254;
constexpr double between = 0.010; // m of height between poses

/// One thing near the wheel at one pose, and how far today's wheel is from it.
struct Seen {
  std::size_t which;
  std::variant<space::Solid, space::Cylinder> body; // in the frame of what carries it
  space::WheelPlace wheel;
  double needed; // m: the room wanted, or 0 where it must only not touch
  double today;  // m, gap of today's wheel; 0 where they overlap
  double height;
  Lock lock;
};

space::Gap gap_of(const space::WheelSolid& wheel, const space::WheelPlace& place, const Seen& seen) {
  return std::visit([&](const auto& body) { return space::gap_between(wheel, place, body); }, seen.body);
}

/// How far no place of one wheel's surface lies outside the other's, m.
double outgrows(const space::WheelSolid& other, const space::WheelSolid& today) {
  const auto faces = [](const space::WheelSolid& w) {
    return std::pair{w.offset - w.widest / 2, w.offset + w.widest / 2};
  };
  const auto [a, b] = faces(other);
  const auto [c, d] = faces(today);
  return std::max({0.0, c - a, b - d, other.radius - today.radius, today.bore - other.bore});
}

class Asker {
public:
  Asker(const FitsGiven& given, const std::stop_token& stop)
      : given_(given), stop_(stop), clear_(*given.end.given().clearance), here_(given.end->assessment) {}

  std::optional<WhatFits> ask() {
    if (!clear_.space || !here_.has_domain()) return std::nullopt;
    heights();
    if (!look()) return std::nullopt;
    const auto even = [](double low, double high, std::size_t count) {
      std::vector<double> out;
      for (std::size_t i = 0; i < count; ++i)
        out.push_back(std::lerp(low, high, static_cast<double>(i) / static_cast<double>(count - 1)));
      return out;
    };
    out_.widths = even(given_.width_low, given_.width_high, std::max<std::size_t>(2, given_.widths));
    out_.offsets = even(given_.offset_low, given_.offset_high, std::max<std::size_t>(2, given_.offsets));
    for (const double offset : out_.offsets)
      for (const double width : out_.widths) {
        if (stop_.stop_requested()) return std::nullopt;
        out_.fittings.push_back(judged(width, offset));
      }
    return std::move(out_);
  }

private:
  void heights() {
    const auto& windows = here_.windows;
    out_.low = windows.reach ? windows.reach->low.height : here_.domain_low;
    out_.high = windows.reach ? windows.reach->high.height : here_.domain_high;
    const FittedEnd& fitted = given_.end->fitted;
    if (fitted.parked) out_.low = std::min(out_.low, std::max(*fitted.parked, clear_.space->lowest()));
    out_.driven_from = fitted.road;
    out_.low = std::max(out_.low, clear_.space->lowest());
    out_.high = std::min(out_.high, clear_.space->highest());
  }

  /// Every pose of every thing near, with today's gap.
  bool look() {
    const build::EndSurvey& survey = given_.end.given().survey().given().survey;
    const ClearanceGiven& clearance = given_.end.given().clearance.given();
    measured_ = clearance.tyre_width;
    today_ = motion::wheel_solid(given_.tyre, measured_, clearance.rooms.tyre_growth);
    const FittedEnd& fitted = given_.end->fitted;
    const auto bag = fitted.bag && fitted.model.map ? std::optional(bag_body(fitted.on())) : std::nullopt;
    const Heights at = Heights::over(out_.low, out_.high, between);
    for (const GapCurve& curve : here_.gaps) {
      const bool to_bag = curve.mover == Mover::bag && curve.near.own == OwnPart::tyre;
      if (curve.mover != Mover::tyre && !to_bag) continue;
      if (curve.source != GapSource::solid) {
        out_.left_out.push_back(curve.near);
        continue;
      }
      std::optional<Placement> placed;
      if (curve.near.obstacle != not_listed) {
        placed = placement_of(survey.obstacles[curve.near.obstacle], curve.near.right);
        if (!placed) continue;
      }
      const std::size_t which = out_.what.size();
      out_.what.push_back(curve.near);
      if (to_bag) out_.what.back().own = OwnPart::bag;
      const EndSpace& space = clear_.space_of(curve.near);
      for (std::size_t i = 0; i < at.count; ++i)
        for (const Lock lock : all_locks) {
          const double H = at.H(i);
          const bool driven = out_.driven_from && H >= *out_.driven_from - 1e-9;
          if (lock != Lock::straight && (!driven || !space.steers())) continue;
          const Stand stand = space.at(H, lock);
          Seen seen{which, {}, stand.wheel, driven ? curve.near.room : 0, 0, H, lock};
          const auto take = [&](const auto& body) {
            seen.body = body;
            seen.today = gap_of(today_, seen.wheel, seen).apart;
            seen_.push_back(seen);
          };
          if (placed) {
            if (placed->on != motion::Part::body)
              seen.wheel = space::moved_back(stand.wheel, stand.parts[static_cast<std::size_t>(placed->on)]);
            take(placed->solid);
          } else if (to_bag) {
            if (const auto body = bag ? bag_at(*bag, stand) : std::nullopt) take(*body);
          } else if (curve.near.own == OwnPart::damper || curve.near.own == OwnPart::lip) {
            if (const auto& rod = curve.near.own == OwnPart::damper ? stand.damper : clear_.lip)
              take(space::Solid(*rod));
          } else
            for (std::size_t k = 0; k < stand.arms.size(); ++k)
              if (space.arms()[k].own == curve.near.own) take(space::Solid(stand.arms[k]));
        }
    }
    // What is tightest today is tightest for most: looked at first, it lets the rest be passed over.
    std::sort(seen_.begin(), seen_.end(),
              [](const Seen& a, const Seen& b) { return a.today - a.needed < b.today - b.needed; });
    return !seen_.empty();
  }

  [[nodiscard]] Fitting judged(double width, double offset) const {
    motion::WheelCode code = given_.tyre;
    code.rim_width = width;
    code.offset = offset;
    // A tyre that was measured is wider on a wider rim, as one by its code is.
    auto measured = measured_;
    if (measured) *measured += motion::wider_per_rim * (width - given_.tyre.rim_width);
    const space::WheelSolid wheel = motion::wheel_solid(code, measured, today_.grow);
    Fitting out = with_camber(wheel, 0);
    for (int step = 1; step <= 3 && !out.clears() && given_.camber_most > 0; ++step) {
      Fitting leaning = with_camber(wheel, given_.camber_most * step / 3);
      if (leaning.spare > out.spare) out = leaning;
    }
    out.rim_width = width;
    out.offset = offset;
    if (clear_.lip && out_.driven_from) {
      const double today = poke_at(given_.end, *out_.driven_from).value_or(0);
      const auto outer = [](const space::WheelSolid& w) { return w.widest / 2 + w.grow - w.offset; };
      out.poke = today + outer(wheel) - outer(*clear_.wheel);
    }
    return out;
  }

  [[nodiscard]] Fitting with_camber(const space::WheelSolid& wheel, double camber) const {
    Fitting out;
    out.camber = camber;
    out.spare = std::numeric_limits<double>::infinity();
    // Leaning in moves no place of the wheel further than this.
    const double grown = outgrows(wheel, today_) + 2 * std::sin(camber / 2) * (wheel.radius + wheel.widest);
    for (const Seen& seen : seen_) {
      if (seen.today - grown - seen.needed >= out.spare) continue;
      space::WheelPlace place = seen.wheel;
      if (camber > 0) { // the top inboard: the outward axis turns up
        const space::Point up{0, 0, 1};
        const space::Point& o = place.outward;
        const space::Point leaned = std::cos(camber) * o + std::sin(camber) * (up - space::dot(up, o) * o);
        place.outward = (1 / space::length(leaned)) * leaned;
      }
      const space::Gap gap = gap_of(wheel, place, seen);
      const double spare = gap.overlap ? -1e-3 - seen.needed : gap.apart - seen.needed;
      if (spare >= out.spare) continue;
      out.spare = spare;
      out.which = seen.which;
      out.height = seen.height;
      out.lock = seen.lock;
    }
    return out;
  }

  const FitsGiven& given_;
  std::stop_token stop_;
  const Clearances& clear_;
  const EndAssessment& here_;
  space::WheelSolid today_;
  std::optional<double> measured_; // m across today's tyre
  std::vector<Seen> seen_;
  WhatFits out_;
};

} // namespace

std::optional<FitsGiven> usual_fits(const AnsweredEnd& end) {
  const auto code = motion::parse_wheel(end.given().clearance.given().wheel);
  if (!code) return std::nullopt;
  FitsGiven out{end, *code, 0, 0, 0, 0};
  constexpr double narrowest = 4 * inch, widest = 14 * inch, way = 3 * inch, offsets = 0.040;
  out.width_low = std::max(narrowest, code->rim_width - way);
  out.width_high = std::min(widest, code->rim_width + way);
  out.offset_low = code->offset - offsets;
  out.offset_high = code->offset + offsets;
  return out;
}

std::optional<WhatFits> what_fits(const FitsGiven& given, const std::stop_token& stop) {
  return Asker(given, stop).ask();
}

} // namespace mavrel::assess
