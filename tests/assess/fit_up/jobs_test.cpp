#include "assess/fit_up/cars.h"

#include <set>

namespace mavrel::assess {
namespace {

std::set<std::string> ids_of(const JobList& list) {
  std::set<std::string> out;
  for (const Job& j : list.jobs)
    out.insert(j.id);
  return out;
}
bool before(const JobList& list, const std::string& first, const std::string& second) {
  const Job* job = job_in(list, second);
  if (!job) return false;
  for (const std::string& id : job->after)
    if (id == first || before(list, first, id)) return true;
  return false;
}

TEST(JobRules, EveryKeyTheyNameIsThere) {
  for (const JobRule& rule : job_rules()) {
    EXPECT_EQ(job_rule(rule.key), &rule) << rule.key << " is there twice";
    EXPECT_GE(rule.hours, 0) << rule.key;
    EXPECT_GT(std::string(rule.why).size(), 8U) << rule.key;
    for (const std::string& key : ids_in(rule.after))
      EXPECT_NE(job_rule(key), nullptr) << rule.key << " comes after " << key;
    for (const std::string& key : ids_in(rule.checks))
      EXPECT_NE(check_row(key), nullptr) << rule.key << " checks " << key;
  }
  for (const CheckRow& row : check_rows()) {
    bool asked = false;
    for (const JobRule& rule : job_rules())
      for (const std::string& key : ids_in(rule.checks))
        asked = asked || key == row.key;
    EXPECT_TRUE(asked) << "no job asks for " << row.key;
  }
}

TEST(Jobs, ABoltInStrutIsBuiltAndAWeldedAxleIsTackedCycledWeldedAndPainted) {
  const JobList small = jobs_in(fresh_estate());
  EXPECT_NE(job_in(small, "front.build_strut"), nullptr);
  EXPECT_EQ(job_in(small, "rear.build_strut"), nullptr); // its spring stands apart
  EXPECT_EQ(job_in(small, "rear.weld"), nullptr);        // and is bolted in
  EXPECT_NE(job_in(small, "rear.cut_plates_bolted"), nullptr);
  const JobList large = jobs_in(fresh_half_ton());
  for (const auto& [first, second] :
       {std::pair("rear.mock_up", "rear.tack"), std::pair("rear.tack", "rear.cycle"),
        std::pair("rear.cycle", "rear.weld"), std::pair("rear.weld", "rear.paint"),
        std::pair("rear.paint", "rear.assemble"), std::pair("rear.bags_away", "rear.tack")})
    EXPECT_TRUE(before(large, first, second)) << first << " " << second;
  EXPECT_EQ(job_in(large, "rear.paint")->wait, 24);
  EXPECT_EQ(job_in(large, "rear.weld")->skill, build::Skill::welding);
  EXPECT_EQ(job_in(large, "front.weld"), nullptr);
  // Hold points stand at the end they are about.
  const auto& checks = job_in(large, "rear.cycle")->checks;
  EXPECT_NE(std::find(checks.begin(), checks.end(), "rear.gaps"), checks.end());
  EXPECT_EQ(std::find(checks.begin(), checks.end(), "front.gaps"), checks.end());
}

TEST(Jobs, FollowWhatWasChosen) {
  const auto has = [](const std::function<void(Build&)>& change, const char* id) {
    const bool without = job_in(jobs_in(fresh_estate()), id) != nullptr;
    return !without && job_in(jobs_in(changed(fresh_estate(), change)), id) != nullptr;
  };
  EXPECT_TRUE(has([](Build& b) { b.variant().fit[0].mounting.mount_thicker = -0.014; }, "front.mount_plate"));
  EXPECT_TRUE(has([](Build& b) { b.variant().fit[0].mounting.drop_spindle = 0.04; }, "front.spindle"));
  EXPECT_TRUE(has([](Build& b) { b.variant().fit[1].added_volume = 1e-3; }, "rear.volume"));
  EXPECT_TRUE(has([](Build& b) { b.variant().fit[1].wheel = "225/45R17 8 ET40"; }, "rear.wheels"));
  EXPECT_TRUE(has([](Build& b) { b.variant().fit_up.own().plates[1].links = 2; }, "rear.links"));
  EXPECT_TRUE(has([](Build& b) { b.ends[1].layout = build::Layout::axle_was_leaves; }, "rear.axle_out"));
  EXPECT_TRUE(has([](Build& b) { b.variant().fit_up.own().plates[0].lower = build::Fixing::welded; }, "front.weld"));
  EXPECT_TRUE(has([](Build& b) { b.variant().fit_up.own().shown = build::KitShown::shown; }, "trim"));
  EXPECT_TRUE(
      has([](Build& b) { b.ends[0].corners[0].height.values.clear(), b.ends[0].corners[1].height.values.clear(); },
          "measure"));
  EXPECT_TRUE(has([](Build& b) { b.variant().air.school = build::ValveSchool::hand_valves; }, "gauges"));
  Build bare = fresh_estate();
  bare.variant().fit[0].bag.clear(), bare.variant().fit[1].bag.clear();
  bare.variant().air = {};
  EXPECT_EQ(ids_of(jobs_in(bare)), (std::set<std::string>{"mark", "battery"}));
}

TEST(Jobs, KitFirstOrSuspensionFirst) {
  const JobList suspension = jobs_in(fresh_estate());
  EXPECT_TRUE(before(suspension, "rear.cycle", "kit_fit_after"));
  EXPECT_FALSE(before(suspension, "board", "front.strip"));
  const JobList kit = jobs_in(
      changed(fresh_estate(), [](Build& b) { b.variant().fit_up.own().order = build::OrderSchool::kit_first; }));
  EXPECT_TRUE(before(kit, "kit_fit", "front.strip"));
  EXPECT_EQ(job_in(kit, "kit_fit_after"), nullptr);
}

TEST(Jobs, WhatIsSkippedIsPassedThrough) {
  const JobList list = jobs_in(changed(fresh_half_ton(), [](Build& b) {
    build::JobNote& note = note_on(b, "rear.cycle");
    note.state = build::JobState::skipped, note.reason = "cycled on the other side";
  }));
  EXPECT_EQ(job_in(list, "rear.cycle"), nullptr);
  ASSERT_EQ(list.skipped.size(), 1U);
  EXPECT_EQ(list.skipped[0].note.reason, "cycled on the other side");
  EXPECT_TRUE(before(list, "rear.tack", "rear.weld")); // by what cycling came after
}

TEST(Jobs, TheShopHasTheLastWord) {
  const JobList list = jobs_in(changed(fresh_half_ton(), [](Build& b) {
    note_on(b, "rear.weld").hours = 7.5 * 3600;
    note_on(b, "rear.copy").after = "mark";
    build::JobNote& own = note_on(b, "own.1");
    own.name = "Fetch gas", own.hours = 1800, own.after = "rear.tack";
    note_on(b, "rear.paint").after = "own.1, nonsense";
    build::ShopHabit habit;
    habit.name = "Photograph every weld", habit.when = build::Feature::welded, habit.after = "weld",
    habit.before = "apart";
    b.shop.own().habits.push_back(habit);
    b.shop.own().learned.push_back({"tack", 2.25 * 3600, 3, {}});
  }));
  EXPECT_EQ(job_in(list, "rear.weld")->hours, 7.5);
  EXPECT_TRUE(job_in(list, "rear.weld")->hours_told);
  EXPECT_EQ(job_in(list, "rear.copy")->after, std::vector<std::string>{"mark"});
  EXPECT_EQ(job_in(list, "rear.paint")->after, std::vector<std::string>{"own.1"});
  EXPECT_EQ(job_in(list, "rear.tack")->hours, 2.25); // as it took here
  EXPECT_TRUE(job_in(list, "rear.tack")->hours_learned);
  const Job* habit = job_in(list, "rear.habit.0");
  ASSERT_NE(habit, nullptr);
  EXPECT_EQ(habit->after, std::vector<std::string>{"rear.weld"});
  EXPECT_TRUE(before(list, "rear.habit.0", "rear.apart"));
  EXPECT_EQ(job_in(list, "front.habit.0"), nullptr); // nothing is welded there
  ASSERT_EQ(list.mistakes.size(), 1U);
  EXPECT_NE(say(list.mistakes[0]).find("nonsense"), std::string::npos);
}

TEST(Jobs, AFailedCheckIsPutRightBeforeAnythingGoesOn) {
  const Build failed = signed_off(fresh_half_ton(), "rear.gaps", false);
  const JobList list = jobs_in(failed);
  const Job* repair = job_in(list, "repair.rear.gaps");
  ASSERT_NE(repair, nullptr);
  EXPECT_EQ(repair->after, std::vector<std::string>{"rear.cycle"});
  EXPECT_TRUE(before(list, "repair.rear.gaps", "rear.weld"));
  EXPECT_GT(plan_in(failed).shared_span, 0);
  EXPECT_EQ(job_in(jobs_in(signed_off(failed, "rear.gaps")), "repair.rear.gaps"), nullptr);
}

} // namespace
} // namespace mavrel::assess
