#include "assess/ground/proposed.h"

#include "assess/assess.h"
#include "assess/assessment.h"
#include "assess/end/end_answer.h"
#include "assess/ground/ground.h"
#include "support.h"

#include <cmath>

namespace mavrel::assess {
namespace {

using build::PresetUse;

Assessment assessed(const build::Build& build) {
  return assess(build, test::demo_shelf());
}

TEST(Proposed, ParkedIsAsLowAsItStandsWithTheRoomThatIsWanted) {
  for (const build::Build& build : {test::demo_build(), test::demo_whole()}) {
    const Assessment a = assessed(build);
    for (const End end : build::both_ends) {
      const auto& e = a.end(end);
      const auto H = proposed_height(a.end(end), end, a.ground, PresetUse::parked);
      ASSERT_TRUE(H);
      EXPECT_GE(*H, e.windows.reach->low.height - 1e-9);
      EXPECT_NEAR(*H * 1e3, std::round(*H * 1e3), 1e-6) << "whole millimetres";
      for (const GapCurve& gap : e.gaps) {
        const auto g = gap.at(*H, true);
        EXPECT_TRUE(!g || *g >= gap.near.room - 1e-3) << *H;
      }
    }
  }
}

TEST(Proposed, RampClearsWhatLiesOnTheGroundOrGoesAsHighAsItReaches) {
  build::Build build = test::demo_whole();
  Assessment a = assessed(build);
  int asked = 0;
  for (const End end : build::both_ends) {
    const auto H = proposed_height(a.end(end), end, a.ground, PresetUse::ramp);
    if (!H) continue;
    ++asked;
    EXPECT_LE(*H, a.end(end).windows.reach->high.height + 1e-9);
    build = with_preset_at(build, a.end(end), end, PresetUse::ramp, *H);
  }
  ASSERT_GT(asked, 0) << "the demo has a ramp to get over";
  const Assessment then = assessed(build);
  for (const PresetHeights& preset : then.ground.given().presets) {
    if (preset.use != PresetUse::ramp) continue;
    for (const End end : build::both_ends) {
      const auto H = proposed_height(a.end(end), end, a.ground, PresetUse::ramp);
      if (H && preset.H[build::at(end)]) {
        EXPECT_NEAR(*preset.H[build::at(end)], *H, 1e-6) << "the wish is where it was proposed";
      }
    }
  }
}

TEST(Proposed, NothingWhereNothingIsKnownOrWished) {
  const build::Build empty = build::empty_build();
  const Assessment a = assessed(empty);
  for (const PresetUse use : {PresetUse::parked, PresetUse::ramp, PresetUse::road, PresetUse::other})
    EXPECT_FALSE(proposed_height(a.end(End::front), End::front, a.ground, use));
  build::Build flat = test::demo_whole();
  flat.variant().brief.grounds.clear();
  const Assessment without = assessed(flat);
  EXPECT_FALSE(proposed_height(without.end(End::front), End::front, without.ground, PresetUse::ramp))
      << "nothing to get over";
  EXPECT_FALSE(proposed_height(without.end(End::front), End::front, without.ground, PresetUse::road));
}

} // namespace
} // namespace mavrel::assess
