// How straight the bag stands, and that what it bears is one rule everywhere.
#include "assess/motion/alignment.h"

#include "assess/asked.h"
#include "assess/bags/judge.h"
#include "assess/swing/mounting.h"

#include <cmath>
#include <numbers>

namespace mavrel::assess {
namespace {

constexpr double degree = std::numbers::pi / 180;

Build straight_pickup(build::StraightAt at = build::StraightAt::road) {
  return with(test::pickup_with_joints(), [&](Build& b) {
    build::Mounting& mounting = b.variant().fit[0].mounting;
    mounting = {};
    mounting.upper.forward = mounting.lower.forward = -0.015; // clear of its damper, as it comes
    mounting.straight_at = at;
  });
}
Alignment front_of(const Build& build) {
  return fitted_end(build, test::demo_shelf(), End::front).model.alignment.value();
}

TEST(Alignment, IsNothingAtTheSchoolsHeightAndGrowsFromThere) {
  for (const auto school : {build::StraightAt::road, build::StraightAt::parked}) {
    const Build build = straight_pickup(school);
    const FittedEnd end = fitted_end(build, test::demo_shelf(), End::front);
    const Alignment a = end.model.alignment.value();
    EXPECT_NEAR(a.straight_at, school == build::StraightAt::road ? *end.road : *end.parked, 1e-9);
    EXPECT_NEAR(a.at(a.straight_at).tilt, 0, 0.002);
    EXPECT_NEAR(a.at(a.straight_at).offset, 0, 0.0005);
    EXPECT_GT(a.at(a.straight_at + 0.05).tilt, 0.08);
    EXPECT_GT(a.at(a.straight_at - 0.02).tilt, a.at(a.straight_at - 0.01).tilt);
  }
}

TEST(Alignment, ABracketTurnedByAnAngleTiltsTheBagByIt) {
  Build build = straight_pickup();
  const Alignment straight = front_of(build);
  build.variant().fit[0].mounting.upper.across_angle = straight.straight_upper.across + 5 * degree;
  EXPECT_NEAR(front_of(build).at(straight.straight_at).tilt, 5 * degree, 0.15 * degree);
  // Set to the straight angles by hand it is as straight as by itself.
  build.variant().fit[0].mounting.upper.across_angle = straight.straight_upper.across;
  build.variant().fit[0].mounting.lower.across_angle = straight.straight_lower.across;
  EXPECT_NEAR(front_of(build).at(straight.straight_at).tilt, 0, 0.002);
}

TEST(Alignment, TheArmsTurnIsTheTilt) {
  // Between two heights the tilt of a straight bag grows by as much as its arm turns.
  const Build build = straight_pickup();
  const FittedEnd end = fitted_end(build, test::demo_shelf(), End::front);
  const Alignment a = end.model.alignment.value();
  const auto given = end_given(build, test::demo_shelf(), End::front);
  const auto turn_at = [&](double H) {
    const auto pose = given.motion()->solved_at(H).value();
    const motion::Point y = pose.seat_foot.turned({0, 1, 0});
    return std::atan2(y.z, y.y);
  };
  const double down = a.straight_at - 0.05;
  EXPECT_NEAR(a.at(down).tilt, std::abs(turn_at(down) - turn_at(a.straight_at)), 0.1 * degree);
}

TEST(Alignment, ABagOnTheUprightSteersWithIt) {
  Build build = straight_pickup();
  const auto locked = [&] {
    const FittedEnd end = fitted_end(build, test::demo_shelf(), End::front);
    const auto given = end_given(build, test::demo_shelf(), End::front);
    return aligned_at_lock(*given.motion(), end.model.alignment.value(), *end.road);
  };
  EXPECT_FALSE(locked()) << "it stands on an arm, which does not steer";
  build.ends[0].points.own().spring_foot = build::Carrier::upright;
  ASSERT_TRUE(locked());
  // Its foot goes round the line the wheel steers about: a chord of that circle.
  const auto given = end_given(build, test::demo_shelf(), End::front);
  const motion::Geometry& g = given.motion()->joints->side[0];
  const motion::Point low = *g.at(motion::Joint::lower_outer), up = *g.at(motion::Joint::upper_outer),
                      foot = *g.at(motion::Joint::spring_foot);
  const motion::Point axis = space::unit(up - low), from = foot - low;
  const double round = space::length(from - space::dot(from, axis) * axis);
  const double lock = *std::as_const(build).ends[0].points->lock;
  EXPECT_NEAR(locked()->offset, 2 * round * std::sin(lock / 2), 0.15 * round) << round;
  build.ends[0].points.own().lock.reset();
  EXPECT_FALSE(locked()) << "nobody said how far it steers";
}

TEST(Alignment, LimitsAreTheCardsElseUsual) {
  air::BagCard card;
  card.kind = air::BagKind::double_bellows;
  EXPECT_NEAR(alignment_limits(card).tilt, 12 * degree, 1e-12);
  EXPECT_NEAR(alignment_limits(card).offset, 0.010, 1e-12);
  card.kind = air::BagKind::sleeve;
  EXPECT_NEAR(alignment_limits(card).tilt, 5 * degree, 1e-12);
  card.max_tilt = 9 * degree, card.max_offset = 0.015;
  EXPECT_NEAR(alignment_limits(card).tilt, 9 * degree, 1e-12);
  EXPECT_NEAR(alignment_limits(card).offset, 0.015, 1e-12);
  const air::BagCard& shipped = test::demo_shelf().find("Quarrow B-210")->card;
  EXPECT_NEAR(shipped.max_tilt, 15 * degree, 1e-9);
  EXPECT_NEAR(shipped.max_offset, 0.020, 1e-9);
}

TEST(Alignment, ABagAroundItsDamperTurnsWithIt) {
  Build build = straight_pickup();
  build.ends[0].spring_place = build::SpringPlace::around_damper;
  EXPECT_FALSE(fitted_end(build, test::demo_shelf(), End::front).model.alignment);
}

TEST(Alignment, CrookedHeightsAreBlockedAndTheShelfIsJudgedByThem) {
  // As the demo pickup comes: level brackets, parked too crooked; stood straight at road height it parks.
  const Assessment level = assess(test::pickup_with_joints(), test::demo_shelf());
  const auto outside = [](const Assessment& a) {
    for (const Finding& f : a.findings)
      if (f.code == "preset_outside" && f.end == End::front) return true;
    return false;
  };
  EXPECT_TRUE(outside(level));
  const auto& low = level.end(End::front).windows.reach->low;
  EXPECT_TRUE(low.governing->limit == &limits::bag_offset || low.governing->limit == &limits::bag_tilt);
  EXPECT_FALSE(outside(assess(straight_pickup(), test::demo_shelf()))) << "the conflict can be resolved";
  // The judge of the shelf refuses by the same: a bag that bears less is out where this one is in.
  const Build build = straight_pickup();
  shelf::Shelf fussy = test::demo_shelf();
  for (auto& bag : fussy.bags)
    if (bag.card.name == "Quarrow B-210") bag.card.max_tilt = 3 * degree;
  EXPECT_TRUE(outside(assess(build, fussy)));
  const auto fits = [&](const shelf::Shelf& on) {
    for (const auto& one : judge_shelf(build, on, End::front, 0))
      if (one.bag == "Quarrow B-210") return one.fit != Fit::does_not_fit;
    return false;
  };
  EXPECT_TRUE(fits(test::demo_shelf()));
  EXPECT_FALSE(fits(fussy));
}

// ---- mounting

Mounting mounting(const Build& build, End end = End::front) {
  return mounting_of(Answered<EndQuestion>(end_given(build, test::demo_shelf(), end)));
}

TEST(Mounting, ABodySetAsItSaysSharesTheStrokeAsTheBriefDoes) {
  Build build = straight_pickup();
  const Mounting before = mounting(build);
  ASSERT_TRUE(before.body_longer);
  build.variant().fit[0].mounting.damper_longer = *before.body_longer;
  const Mounting after = mounting(build);
  const auto& brief = build.variant().brief;
  EXPECT_NEAR(*after.bump_left / (*after.bump_left + *after.rebound_left),
              brief.bump_travel / (brief.bump_travel + brief.rebound_reserve), 0.01);
  EXPECT_NEAR(*after.body_longer, *before.body_longer, 0.002) << "and says the same again";
}

TEST(Mounting, AMillimetreOfStackIsWorthWhatItSays) {
  Build build = straight_pickup();
  const double worth = *mounting(build).height_per_stack;
  const auto low_of = [&](const Build& b) {
    const FittedEnd end = fitted_end(b, test::demo_shelf(), End::front);
    return *end.on().height_for_bag(0.120);
  };
  const double before = low_of(build);
  build.variant().fit[0].upper_stack += 0.001;
  EXPECT_NEAR(low_of(build) - before, 0.001 * worth, 1e-4);
  build.variant().fit[0].upper_stack -= 0.001;
  build.variant().fit[0].mounting.seat_raised = 0.001;
  EXPECT_NEAR(low_of(build) - before, 0.001 * worth, 1e-4) << "a raised seat is stack";
}

TEST(Mounting, MovedInboardTheBagCarriesMoreAsSaid) {
  Build build = straight_pickup();
  const Mounting m = mounting(build);
  ASSERT_TRUE(m.inboard);
  EXPECT_LT(m.inboard->ratio, 0) << "per metre inward the ratio falls";
  EXPECT_GT(m.inboard->force, 0);
  // Ten millimetres of it, done: the ratio that it says.
  for (build::Seat* seat : {&build.variant().fit[0].mounting.upper, &build.variant().fit[0].mounting.lower})
    seat->outward = -0.010;
  const double road = *fitted_end(build, test::demo_shelf(), End::front).road;
  const auto ratio = [&](const Build& b) {
    return fitted_end(b, test::demo_shelf(), End::front).model.map->at(road).motion_ratio;
  };
  EXPECT_NEAR(ratio(build) - ratio(straight_pickup()), 0.010 * m.inboard->ratio, 2e-3);
}

TEST(Mounting, FromTheBriefBackToTheParts) {
  const Build build = straight_pickup();
  const Mounting m = mounting(build);
  ASSERT_TRUE(m.wanted && m.wanted->shut && m.wanted->stack_most);
  // Fitted so, no preset is outside for damper or stack.
  Build fitted = build;
  fitted.variant().fit[0].damper_shut = *m.wanted->shut - 0.001;
  fitted.variant().fit[0].damper_open = *m.wanted->open + 0.001;
  fitted.variant().fit[0].upper_stack = fitted.variant().fit[0].lower_stack =
      (std::max(0.0, *m.wanted->stack_least) + *m.wanted->stack_most) / 4;
  const Assessment a = assess(fitted, test::demo_shelf());
  for (const auto& preset : a.end(End::front).presets)
    EXPECT_TRUE(preset->in_reach);
}

TEST(Mounting, OffTheMiddleOfItsPocketABagNeedsMoreRoom) {
  Build build = straight_pickup();
  EXPECT_EQ(finding(assess(build, test::demo_shelf()), "bag_too_wide"), nullptr);
  build.variant().fit[0].mounting.pocket_offset = 0.02;
  EXPECT_NE(finding(assess(build, test::demo_shelf()), "bag_too_wide"), nullptr);
}

} // namespace
} // namespace mavrel::assess
