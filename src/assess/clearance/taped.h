// What is taped on the car, moved to another wheel; and how deep bodies overlap. For the .cpp files of this folder.
#pragma once

#include "assess/clearance/clearance.h"
#include "motion/wheel.h"

#include <algorithm>

namespace mavrel::assess {

/// m that a place of the mover comes nearer to an obstacle lying that way, for a shift of the wheel.
[[nodiscard]] inline double towards(build::GapWay way, const space::Point& shift) {
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

/// A tyre's surfaces that taped gaps go by, m.
struct Surfaces {
  double radius = 0, inner = 0, outer = 0; // of the tread; of the faces, inboard and outboard of the hub face
  explicit Surfaces(const space::WheelSolid& w)
      : radius(w.radius + w.grow), inner(w.offset + w.widest / 2 + w.grow), outer(w.widest / 2 - w.offset + w.grow) {}
};

/// How a gap that was taped with the surveyed wheel closes with the design's, m.
class OtherWheel {
public:
  OtherWheel() = default;
  /// @param growth  m that the design's may grow by; the tape was laid on one that stood still
  OtherWheel(const build::EndSurvey& survey, const ClearanceGiven& given, const std::optional<space::WheelSolid>& now) {
    const auto code = motion::parse_wheel(survey.wheel);
    if (!code || !now || is_surveyed(survey, given)) return;
    was_.emplace(motion::wheel_solid(*code, survey.tyre_width, 0));
    now_.emplace(*now);
  }
  static bool is_surveyed(const build::EndSurvey& survey, const ClearanceGiven& given) {
    return given.wheel == survey.wheel && given.tyre_width == survey.tyre_width;
  }
  [[nodiscard]] double closes(build::GapWay way) const {
    if (!was_) return 0;
    switch (way) {
    case build::GapWay::above:
    case build::GapWay::ahead:
    case build::GapWay::behind:
      return now_->radius - was_->radius;
    case build::GapWay::inboard:
      return now_->inner - was_->inner;
    case build::GapWay::outboard:
      return now_->outer - was_->outer;
    }
    return 0;
  }
  /// Where nobody said which way the gap lies: the most of all.
  [[nodiscard]] double closes_most() const {
    double most = 0;
    for (const auto way : {build::GapWay::above, build::GapWay::inboard, build::GapWay::outboard})
      most = std::max(most, closes(way));
    return most;
  }

private:
  std::optional<Surfaces> was_, now_;
};

/// How deep two bodies lie in one another.
/// @param at    their gap with the mover so much thinner; none where nobody knows
/// @param most  m that it can be made thinner by
template <class GapThinner>
std::optional<Overlap> overlap_of(const GapThinner& at, double most, bool on_car) {
  const auto meets = [&](double thinner) {
    const auto gap = at(thinner);
    return gap && !(*gap > 0);
  };
  if (!meets(0)) return std::nullopt;
  if (meets(most)) return Overlap{most, true, on_car, false, false};
  constexpr double fine = 5e-5; // m
  double low = 0, high = most;
  while (high - low > fine) {
    const double middle = 0.5 * (low + high);
    (meets(middle) ? low : high) = middle;
  }
  return Overlap{high, false, on_car, false, false};
}

} // namespace mavrel::assess
