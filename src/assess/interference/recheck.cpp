#include "assess/interference/recheck.h"

#include "assess/kept/digest.h"

#include <algorithm>

namespace mavrel::assess {

namespace {

/// All that one gap reads, and nothing that another one reads.
struct GapReads {
  build::EndSurvey survey; // without weights and the other obstacles
  SeatShift upper, lower;
  double mount_outward = 0, drop_spindle = 0;
  std::string wheel;
  std::optional<double> tyre_width;
  double lip_rolled = 0, growth = 0;
  std::string bag;
  double upper_stack = 0, lower_stack = 0;
  [[nodiscard]] auto parts() const {
    return std::tie(survey, upper, lower, mount_outward, drop_spindle, wheel, tyre_width, lip_rolled, growth, bag,
                    upper_stack, lower_stack);
  }
};

std::string digest_for(const AnsweredEnd& end, const GapCurve& gap) {
  const ClearanceGiven& given = end.given().clearance.given();
  const MotionGiven& motion = given.motion.given();
  GapReads reads{motion.survey.given().survey,
                 motion.upper,
                 motion.lower,
                 motion.mount_outward,
                 motion.drop_spindle,
                 given.wheel,
                 given.tyre_width,
                 given.lip_rolled,
                 given.rooms.tyre_growth,
                 {},
                 0,
                 0};
  const auto& all = motion.survey.given().survey.obstacles;
  reads.survey.obstacles.clear();
  if (gap.near.obstacle < all.size()) {
    build::Obstacle own = all[gap.near.obstacle];
    own.room.reset(); // what is wanted is no part of what is there
    reads.survey.obstacles.push_back(std::move(own));
  }
  for (build::Corner& corner : reads.survey.corners)
    corner.mass.values.clear();
  reads.survey.bag_room.reset();
  const bool lip = gap.near.own == OwnPart::lip;
  if (!lip) reads.survey.arch = {}, reads.lip_rolled = 0;
  if (gap.mover == Mover::bag) {
    reads.bag = end.given().fit.bag;
    reads.upper_stack = end.given().fit.upper_stack;
    reads.lower_stack = end.given().fit.lower_stack;
  }
  if (gap.mover != Mover::tyre && gap.near.own != OwnPart::tyre)
    reads.wheel.clear(), reads.tyre_width.reset(), reads.growth = 0;
  return digest_of(reads).text();
}

} // namespace

std::vector<Recheck> rechecks(const AnsweredEnd& end, const std::vector<build::Check>& ticked) {
  std::vector<Recheck> out;
  const EndAssessment& here = end->assessment;
  const auto& reach = here.windows.reach;
  const double low = reach ? reach->low.height : here.domain_low, high = reach ? reach->high.height : here.domain_high;
  const auto least_of = [&](const GapCurve& gap) {
    std::optional<std::pair<double, double>> out_of; // gap and height
    constexpr int steps = 60;
    for (int i = 0; i <= steps && high > low; ++i) {
      const double H = std::lerp(low, high, static_cast<double>(i) / steps);
      if (const auto g = gap.at(H, true); g && (!out_of || *g < out_of->first)) out_of = {*g, H};
    }
    return out_of;
  };
  // The same with the wheel it came on.
  std::optional<Clearances> surveyed;
  if (!end.given().fit.wheel.empty()) {
    ClearanceGiven given = end.given().clearance.given();
    const build::EndSurvey& survey = given.motion.given().survey.given().survey;
    given.wheel = survey.wheel;
    given.tyre_width = survey.tyre_width;
    surveyed = clearances(given);
  }
  for (const GapCurve& gap : here.gaps) {
    Recheck row;
    row.mover = gap.mover;
    row.near = gap.near;
    row.what = std::string(key_of(gap.mover)) + "|" +
               (gap.near.own != OwnPart::none ? std::string(name_of(gap.near.own)) : gap.near.name) +
               (gap.near.right ? "|right" : "");
    row.digest = digest_for(end, gap);
    if (const auto least = least_of(gap)) row.figure = least->first, row.height = least->second;
    if (surveyed)
      for (const GapCurve& other : surveyed->gaps)
        if (other.mover == gap.mover && other.near.own == gap.near.own && other.near.name == gap.near.name &&
            other.near.obstacle == gap.near.obstacle && other.near.right == gap.near.right) {
          if (const auto least = least_of(other)) row.before = least->first;
        }
    for (const build::Check& check : ticked)
      if (check.what == row.what) {
        row.state = check.digest == row.digest ? RecheckState::good : RecheckState::stale;
        row.was = check.figure;
      }
    out.push_back(std::move(row));
  }
  // What is to be looked at again first, then what never was.
  const auto rank = [](RecheckState s) { return s == RecheckState::stale ? 0 : s == RecheckState::never ? 1 : 2; };
  std::stable_sort(out.begin(), out.end(),
                   [&](const Recheck& a, const Recheck& b) { return rank(a.state) < rank(b.state); });
  return out;
}

std::optional<WheelNews> wheel_news(const AnsweredEnd& end) {
  const build::EndSurvey& survey = end.given().survey().given().survey;
  const build::EndFit& fit = end.given().fit;
  if (fit.wheel.empty()) return std::nullopt;
  const auto before = motion::parse_wheel(survey.wheel), after = motion::parse_wheel(fit.wheel);
  if (!before || !after) return std::nullopt;
  WheelNews out{survey.wheel, fit.wheel,
                motion::wheel_change(motion::wheel_space(*before, survey.tyre_width),
                                     motion::wheel_space(*after, fit.tyre_width)),
                0};
  out.poke = out.change.outer_face;
  return out;
}

} // namespace mavrel::assess
