// What usual figures do for a car that is hardly measured yet.
#include "assess/asked.h"
#include "assess/rows.h"
#include "build/edit.h"
#include "build/names.h"

namespace mavrel::assess {
namespace {

/// Weights front and rear, heights front and rear, a tyre: what somebody has after five minutes.
Build five_readings() {
  Build out = build::empty_build();
  for (const auto& [path, text] :
       {std::pair{"front.left.mass_kg", "410 kg"}, std::pair{"rear.left.mass_kg", "340 kg"},
        std::pair{"front.left.height_m", "378 mm"}, std::pair{"rear.left.height_m", "385 mm"},
        std::pair{"front.wheel", "215/45R17 7.5 ET42"}})
    out = build::with_text(out, path, text, {}).value();
  return out;
}

TEST(StandIns, FiveReadingsGiveARoughWindowAtBothEnds) {
  const Assessment a = assess(five_readings(), test::demo_shelf());
  for (const End end : build::both_ends) {
    const EndAssessment& e = a.end(end);
    ASSERT_TRUE(e.windows.reach) << build::at(end);
    ASSERT_TRUE(e.windows.road) << build::at(end);
    EXPECT_TRUE(e.rough());
    EXPECT_TRUE(e.windows.reach->contains(*e.surveyed_height)) << "it stands where it stands";
    EXPECT_GT(e.windows.reach->width(), 0.1);
    EXPECT_LT(e.windows.reach->width(), 0.3);
    EXPECT_EQ(e.windows.reach->low.governing->limit, &limits::damper_shut);
    ASSERT_TRUE(e.firms_most);
    EXPECT_GT(e.firms_most->moves, 0.005);
  }
  const Finding* f = finding(a, "window_rough");
  ASSERT_NE(f, nullptr);
  EXPECT_TRUE(build::look_up(five_readings(), f->place, {})) << f->place << " can be gone to";
  EXPECT_EQ(f->severity, Severity::note);
}

TEST(StandIns, AreMarkedOneByOneAndGoAsReadingsCome) {
  Build build = five_readings();
  const auto estimated = [&] {
    std::set<std::string> out;
    const Assessment a = assess(build, test::demo_shelf());
    for (const Estimate& estimate : a.end(End::rear).estimated)
      out.insert(estimate.field);
    return out;
  };
  EXPECT_EQ(estimated(), (std::set<std::string>{"motion_ratio", "spring_length_m", "damper_ratio", "damper_open_m",
                                                "damper_shut_m"}));
  build.ends[1].motion_ratio.values = {0.7};
  build.ends[1].damper_length.values = {0.45};
  EXPECT_EQ(estimated(), (std::set<std::string>{"spring_length_m", "damper_ratio", "damper_open_m", "damper_shut_m"}));
  build.variant().fit[1].damper_open = 0.5; // another damper's own figures are no estimates
  build.ends[1].damper_shut.values = {0.34};
  build.ends[1].damper_ratio.values = {0.86};
  build.ends[1].spring_length.values = {0.19};
  EXPECT_TRUE(estimated().empty());
}

TEST(StandIns, ADampersEndsAreKeptAndItsLengthLiesBetweenThem) {
  Build build = five_readings();
  build.ends[0].damper_open.values = {0.47};
  build.ends[0].damper_shut.values = {0.32};
  const EndModel model = end_model(build, End::front);
  const double length = model.map->damper(*model.surveyed_height).value;
  EXPECT_GT(length, 0.37);
  EXPECT_LT(length, 0.42);
  EXPECT_DOUBLE_EQ(*model.damper_open, 0.47);
  EXPECT_DOUBLE_EQ(*model.damper_shut, 0.32);
}

TEST(StandIns, TheReadingNamedIsTheOneThatMovesTheWindowMost) {
  // Every usual figure moved by its doubt: none moves an edge by more than the one that is named.
  Build build = five_readings();
  build.ends[0].bump_stop_gap.values = {0.05};
  const Assessment a = assess(build, test::demo_shelf());
  const EndAssessment& front = a.end(End::front);
  ASSERT_TRUE(front.firms_most);
  for (const Estimate& estimate : front.estimated)
    for (const double doubt : {-estimate.usual.doubt, estimate.usual.doubt}) {
      if (std::string_view(estimate.field).starts_with("damper_")) continue; // held against a length of their own
      Build moved = build;
      moved = build::with_text(moved, std::string("front.") + estimate.field,
                               show_exact(estimate.usual.value + doubt, estimate.kind, {}), {})
                  .value();
      const Assessment b = assess(moved, test::demo_shelf());
      const double by = std::abs(b.end(End::front).windows.reach->low.height - front.windows.reach->low.height);
      EXPECT_LE(by, front.firms_most->moves + 2e-4) << estimate.field;
    }
}

TEST(StandIns, ChangeNothingWhereEverythingIsMeasured) {
  const Assessment a = assess(test::demo_build(), test::demo_shelf());
  for (const End end : build::both_ends) {
    EXPECT_FALSE(a.end(end).rough());
    EXPECT_FALSE(a.end(end).firms_most);
  }
  EXPECT_EQ(finding(a, "window_rough"), nullptr);
}

TEST(StandIns, EveryLayoutHasBelievableOnes) {
  for (const auto& row : build::names_of(build::Layout{})) {
    const StandIns usual = stand_ins(row.value);
    EXPECT_GE(usual.motion_ratio.value, 0.4) << row.key;
    EXPECT_LE(usual.motion_ratio.value, 1.1) << row.key;
    for (const Usual& figure : {usual.motion_ratio, usual.damper_ratio, usual.spring_length, usual.bump, usual.droop}) {
      EXPECT_GT(figure.value, 0) << row.key;
      EXPECT_GT(figure.doubt, 0) << row.key;
      EXPECT_LT(figure.doubt, figure.value / 2) << row.key;
    }
  }
}

TEST(Rows, HaveKeysOfTheirOwnAndSayWhatTheyAre) {
  std::set<std::string> keys;
  for (const Limit* limit : all_limits()) {
    EXPECT_TRUE(keys.insert(limit->key).second) << limit->key;
    EXPECT_FALSE(say(limit->way_out(0.012)).empty()) << limit->key;
    EXPECT_LE(std::string(limit->short_name).size(), 12U) << limit->short_name;
  }
  EXPECT_GE(keys.size(), 8U);
  for (const TrackRow* track : all_tracks())
    EXPECT_TRUE(keys.insert(track->key).second) << track->key;
  for (const StageRow* stage : all_stages())
    EXPECT_TRUE(keys.insert(stage->key).second) << stage->key;
}

} // namespace
} // namespace mavrel::assess
