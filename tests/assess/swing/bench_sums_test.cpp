// The bench's sums said, a drop spindle, and what the sheet on the wall has of it.
#include "assess/swing/bench_sums.h"

#include "assess/asked.h"
#include "assess/swing/end_scene.h"
#include "report/build_sheet.h"

#include <cmath>

namespace mavrel::assess {
namespace {

std::vector<BenchSum> sums(const Build& build, End end) {
  return bench_sums(Answered<EndQuestion>(end_given(build, test::demo_shelf(), end)),
                    build.variant().fit[build::at(end)].workshop);
}
const BenchSum* of(const std::vector<BenchSum>& all, const std::string& key) {
  for (const BenchSum& sum : all)
    if (key == sum.key) return &sum;
  return nullptr;
}

TEST(BenchSums, AreSaidOnceTheirFiguresAreThere) {
  Build build = test::pickup_with_joints();
  EXPECT_EQ(of(sums(build, End::front), "caster"), nullptr);
  build::Workshop& front = build.variant().fit[0].workshop;
  front.caster = 0.1;
  front.shims = 8, front.shim_thickness = 0.0015, front.pins = 0.2, front.camber = -0.012;
  const auto said = sums(build, End::front);
  ASSERT_NE(of(said, "caster"), nullptr);
  EXPECT_FALSE(of(said, "caster")->wrong);
  ASSERT_NE(of(said, "shims"), nullptr);
  ASSERT_NE(of(said, "rod"), nullptr) << "from the joints alone";
  build::Workshop& rear = build.variant().fit[1].workshop;
  rear.left_right = 0.5, rear.right_left = 0.5, rear.frame_width = 0.9, rear.axle_width = 1.3;
  rear.rail_gap = 0.09;
  ASSERT_NE(of(sums(build, End::rear), "square"), nullptr);
  EXPECT_TRUE(of(sums(build, End::rear), "square")->wrong) << "no axle has such diagonals";
  EXPECT_NE(of(sums(build, End::rear), "notch"), nullptr);
  EXPECT_NE(of(sums(build, End::rear), "bar"), nullptr);
  // None of it is anything a window reads.
  EXPECT_EQ(end_given(build, test::demo_shelf(), End::rear),
            end_given(test::pickup_with_joints(), test::demo_shelf(), End::rear));
}

TEST(DropSpindle, LowersTheCarOnTheSameArms) {
  for (const Build& as_found : {test::pickup_with_joints(), test::demo_with_sheets(), test::demo_build()}) {
    const Build dropped = with(as_found, [](Build& b) { b.variant().fit[0].mounting.drop_spindle = 0.04; });
    const FittedEnd before = fitted_end(as_found, test::demo_shelf(), End::front),
                    after = fitted_end(dropped, test::demo_shelf(), End::front);
    const double H = *before.model.surveyed_height - 0.02;
    EXPECT_NEAR(after.model.map->at(H - 0.04).spring_length, before.model.map->at(H).spring_length, 1e-9);
    EXPECT_NEAR(after.model.map->damper(H - 0.04).value, before.model.map->damper(H).value, 1e-9);
    EXPECT_NEAR(after.model.map->lowest(), before.model.map->lowest() - 0.04, 1e-9);
    EXPECT_NEAR(*after.model.stop_height, *before.model.stop_height - 0.04, 1e-9);
    const Assessment a = assess(as_found, test::demo_shelf()), d = assess(dropped, test::demo_shelf());
    ASSERT_TRUE(a.end(End::front).windows.reach.has_value());
    // Bag and metal end it at the same place of the arms: travel is kept.
    for (const Limit* limit : {&limits::bag_full, &limits::bump_stop})
      for (const Stretch& s : a.end(End::front).windows.reach_blocked)
        for (const Stretch& t : d.end(End::front).windows.reach_blocked)
          if (s.limit == limit && t.limit == limit) {
            EXPECT_NEAR(limit == &limits::bag_full ? t.from : t.to, (limit == &limits::bag_full ? s.from : s.to) - 0.04,
                        1e-6);
          }
  }
}

TEST(EndScene, StandsAsThePoseSaysAndUsualJointsAreNoAnswer) {
  const auto answer = Answered<EndQuestion>(end_given(test::pickup_with_joints(), test::demo_shelf(), End::front));
  const auto high = end_scene(answer, 0.52).value(), low = end_scene(answer, 0.42).value();
  EXPECT_TRUE(high.measured && high.solved && low.solved);
  EXPECT_NEAR(low.wheel.z - high.wheel.z, 0.10, 1e-9) << "against the body the wheel goes up";
  ASSERT_TRUE(low.bag && high.bag);
  EXPECT_LT(low.bag->height, high.bag->height);
  EXPECT_GT(low.bag->diameter, 0);
  EXPECT_NEAR(motion::length(low.bag->lower_face), 1, 1e-9);
  const auto usual =
      end_scene(Answered<EndQuestion>(end_given(test::demo_build(), test::demo_shelf(), End::front)), 0.36).value();
  EXPECT_FALSE(usual.measured);
  EXPECT_FALSE(usual.joints.empty());
  const auto beyond = end_scene(answer, 0.9).value();
  EXPECT_FALSE(beyond.solved) << "drawn as measured, and said";
  EXPECT_FALSE(end_scene(Answered<EndQuestion>(end_given(build::empty_build(), {}, End::front)), 0.3));
}

TEST(BuildSheet, HasMotionAndBracketsWhereTheyAreKnown) {
  const auto text = [](const Build& build) {
    std::string out;
    for (const std::string& section : report::build_sheet(build, assess(build, test::demo_shelf()), {}).sections)
      out += section;
    return out;
  };
  const std::string joints = text(test::pickup_with_joints());
  for (const char* wanted : {"How it moves", "Brackets", "plate to plate", "brake hose tight"})
    EXPECT_NE(joints.find(wanted), std::string::npos) << wanted;
  const std::string sheets = text(test::demo_with_sheets());
  EXPECT_NE(sheets.find("±"), std::string::npos) << "with the doubt of the ratio";
  EXPECT_EQ(text(test::demo_build()).find("How it moves"), std::string::npos)
      << "nothing known of it, no empty section";
}

} // namespace
} // namespace mavrel::assess
