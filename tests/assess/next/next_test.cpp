// What is next: from nothing to a car on the road, without a step that comes twice or leads nowhere.
#include "assess/next/next.h"

#include "assess/assess.h"
#include "assess/care/origin.h"
#include "assess/end/end_answer.h"
#include "assess/next/usual_car.h"
#include "build/care.h"
#include "build/json.h"
#include "build/names.h"

#include "support.h"

#include <set>

namespace mavrel::assess {
namespace {

using build::Build;

std::optional<NextStep> next_of(const Build& b, const shelf::Shelf& shelf = test::demo_shelf()) {
  const Assessment a = assess(b, shelf);
  return next_step({b, a, shelf, work::parse_moment("2026-12-02 09:00"), {}});
}

TEST(Next, BeginsWithTheFourCorners) {
  Build b = build::empty_build();
  const auto first = next_of(b).value();
  EXPECT_EQ(first.id, "corners");
  EXPECT_EQ(first.stage, &stages::car_in);
  EXPECT_TRUE(first.place.starts_with("tape:front.left.mass_kg;")) << first.place;
  EXPECT_NE(first.place.find("rear.right.height_m"), std::string::npos);
  for (auto& end : b.ends)
    for (auto& corner : end.corners)
      corner.mass.values = {400}, corner.height.values = {0.38};
  b.ends[1].corners[1].height.values.clear();
  EXPECT_EQ(next_of(b)->place, "tape:rear.right.height_m") << "one is left";
  b.ends[1].corners[1].height.values = {0.38};
  EXPECT_EQ(next_of(b)->id, "wheel.front");
}

TEST(Next, WhatIsPutOffStaysAwayUntilItIsTakenUp) {
  Build b = build::empty_build();
  const auto first = next_of(b).value();
  const Build later = put_off(b, first);
  EXPECT_NE(next_of(later)->id, first.id);
  EXPECT_EQ(put_off(later, first), later) << "once is enough";
  EXPECT_EQ(taken_up(later), b);
  // However much is put off, the file takes it.
  Build full = b;
  for (int i = 0; i < 900; ++i) {
    NextStep one = first;
    one.id = "step." + std::to_string(i);
    full = put_off(std::move(full), one);
  }
  EXPECT_LE(full.job.put_off.size(), 4000U);
  EXPECT_TRUE(is_put_off(full, "step.899"));
  EXPECT_FALSE(is_put_off(full, "step.0"));
  EXPECT_TRUE(build::from_json(build::to_json(full)));
  // A name is no part of another's.
  b.job.put_off = "corners_and_more wheel.frontier";
  EXPECT_FALSE(is_put_off(b, "corners"));
  EXPECT_FALSE(is_put_off(b, "wheel.front"));
}

TEST(Next, EveryCarComesToAnEndAndNoStepComesTwice) {
  for (Build b : {build::empty_build(), usual_car(usual_for(build::BodyStyle::pickup)), test::demo_whole(),
                  test::pickup_whole()}) {
    std::set<std::string> seen;
    while (const auto step = next_of(b)) {
      ASSERT_TRUE(seen.insert(step->id).second) << step->id;
      EXPECT_GT(say(step->what).size(), 8U) << step->id;
      EXPECT_EQ(say(step->what).find('{'), std::string::npos) << step->id;
      EXPECT_NE(step->stage, nullptr) << step->id;
      EXPECT_FALSE(step->place.empty() && step->does == StepDoes::nothing) << step->id << " leads nowhere";
      ASSERT_LT(seen.size(), 300U);
      b = put_off(std::move(b), *step);
    }
    EXPECT_GT(seen.size(), 5U);
  }
}

TEST(Next, AWishIsPutWhereTheWindowsLetIt) {
  Build b = test::demo_whole();
  for (build::Preset& preset : b.variant().brief.presets)
    preset.wish = {};
  std::set<StepDoes> did;
  for (int i = 0; i < 40; ++i) {
    const Assessment a = assess(b, test::demo_shelf());
    const NextGiven given{b, a, test::demo_shelf(), {}, {}};
    const auto step = next_step(given);
    if (!step) break;
    if (const auto wished = done(given, *step)) {
      did.insert(step->does);
      b = *wished;
    } else {
      b = put_off(b, *step);
    }
  }
  EXPECT_EQ(did.size(), 3U);
  const Assessment a = assess(b, test::demo_shelf());
  for (const End end : build::both_ends)
    for (std::size_t p = 0; p < b.variant().brief.presets.size(); ++p) {
      const auto& at = a.end(end).presets[p];
      ASSERT_TRUE(at);
      EXPECT_TRUE(at->stands(b.variant().brief.presets[p].use)) << p;
      EXPECT_NEAR(at->height * 1000, std::round(at->height * 1000), 1e-9) << "to the millimetre";
    }
}

TEST(UsualCar, EveryBodyBeginsWithWindowsAndSaysWhatIsUsual) {
  for (const auto style : {build::BodyStyle::estate, build::BodyStyle::hatchback, build::BodyStyle::saloon,
                           build::BodyStyle::coupe, build::BodyStyle::van, build::BodyStyle::pickup}) {
    const WhatItIs what = usual_for(style);
    const Build b = usual_car(what);
    EXPECT_TRUE(begun_from_usual(b));
    const Assessment a = assess(b, test::demo_shelf());
    for (const End end : build::both_ends) {
      EXPECT_TRUE(a.end(end).has_domain());
      EXPECT_TRUE(a.end(end).windows.road) << build::key_of(end) << " " << static_cast<int>(style);
      EXPECT_EQ(b.end(end).layout, what.layout[build::at(end)]);
    }
    for (const Finding& f : a.findings)
      EXPECT_NE(f.severity, Severity::stop) << f.code << " " << static_cast<int>(style);
    // All that a tape would read is told from what it has read.
    EXPECT_EQ(still_taken(b).size(), measured_leaves(b).size());
    EXPECT_EQ(next_of(b)->id, "corners") << "usual weights are not this car's";
    Build taken = b;
    taken.ends[0].corners[0].mass.values = {431};
    EXPECT_EQ(still_taken(taken).size() + 1, measured_leaves(taken).size());
  }
}

TEST(UsualCar, IsLessSureThanOneThatWasRead) {
  const Build b = usual_car(usual_for(build::BodyStyle::estate));
  Build read = b;
  read.origin = {};
  EXPECT_FALSE(begun_from_usual(read));
  EXPECT_NE(next_of(read)->id, "corners");
}

} // namespace
} // namespace mavrel::assess
