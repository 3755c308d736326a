#include "assess/fit_up/cars.h"
#include "build/json.h"

#include <algorithm>

namespace mavrel::assess {
namespace {

const PlannedJob& placed(const Plan& plan, const char* id) {
  return plan.planned[*plan.find(id)];
}

TEST(Plan, OfTheEstateBreaksNothingAndHasACriticalPath) {
  for (const Build& b : {fresh_estate(), fresh_half_ton()}) {
    const Plan plan = plan_in(b);
    int critical = 0;
    for (std::size_t i = 0; i < plan.jobs.size(); ++i) {
      critical += plan.planned[i].path.critical;
      for (const std::string& id : plan.jobs[i].after) {
        const auto before = plan.find(id);
        ASSERT_TRUE(before) << id;
        EXPECT_GE(plan.planned[i].start, plan.planned[*before].end + plan.jobs[*before].wait - 1e-6)
            << plan.jobs[i].id << " after " << id;
      }
      if (!plan.jobs[i].by_the_clock) {
        EXPECT_EQ(static_cast<int>(plan.planned[i].who.size()), plan.jobs[i].people);
      }
      const int day = static_cast<int>(std::floor(plan.planned[i].start / 24));
      if (!plan.jobs[i].by_the_clock && plan.jobs[i].hours > 0) {
        EXPECT_TRUE(plan.worked(day)) << plan.jobs[i].id;
      }
    }
    EXPECT_GT(critical, 5);
    EXPECT_GE(plan.shared_span, plan.span); // sharing makes nothing quicker
  }
}

TEST(Plan, NobodyKnocksWhatIsTacked) {
  const Plan plan = plan_in(fresh_half_ton());
  const PlannedJob& tack = placed(plan, "rear.tack");
  for (std::size_t i = 0; i < plan.jobs.size(); ++i)
    if (plan.jobs[i].id != "rear.tack" && plan.jobs[i].car != CarUse::none) {
      EXPECT_FALSE(plan.planned[i].start < tack.end - 1e-9 && tack.start < plan.planned[i].end - 1e-9)
          << plan.jobs[i].id;
    }
}

TEST(Plan, WeekendsAndFreeDaysAreNotWorked) {
  Build b = fresh_estate();
  b.shop.own().first_day = "2026-12-03"; // a Thursday
  Plan plan = plan_in(b);
  EXPECT_TRUE(plan.worked(1));
  EXPECT_FALSE(plan.worked(2));
  EXPECT_FALSE(plan.worked(3));
  EXPECT_TRUE(plan.worked(4));
  EXPECT_EQ(say(day_name(plan, 4)), "Mon 7 Dec");
  const double end = plan.shared_span;
  build::DaysOff off;
  off.from = "2026-12-07", off.to = "2026-12-08";
  b.shop.own().days_off.push_back(off);
  plan = plan_in(b);
  EXPECT_FALSE(plan.worked(4));
  EXPECT_GT(plan.shared_span, end);
  b.shop.own().saturdays = b.shop.own().sundays = build::YesNo::yes;
  EXPECT_LT(plan_in(b).shared_span, plan.shared_span);
}

TEST(Plan, WhoWeldsWelds) {
  Build b = fresh_half_ton();
  b.shop.own().people = {{"Ada", build::YesNo::no, build::YesNo::yes, build::YesNo::no, {}},
                         {"Bo", build::YesNo::yes, build::YesNo::no, build::YesNo::yes, {}}};
  const Plan plan = plan_in(b);
  EXPECT_EQ(placed(plan, "rear.weld").who, std::vector<std::string>{"Bo"});
  EXPECT_EQ(placed(plan, "harness").who, std::vector<std::string>{"Ada"});
  note_on(b, "rear.strip").who = "Bo";
  EXPECT_EQ(placed(plan_in(b), "rear.strip").who, std::vector<std::string>{"Bo"});
  // Nobody who welds: said, with the job's name.
  b.shop.own().people[1].welds = build::YesNo::no;
  const auto none = plan_of(plan_given(fit_up_of(b), std::nullopt));
  ASSERT_FALSE(none);
  EXPECT_NE(say(none.error()).find("rear.tack"), std::string::npos) << say(none.error());
}

TEST(Plan, NothingBeginsBeforeNowAndWhatIsDoneStays) {
  Build b = fresh_estate();
  b.shop.own().first_day = "2026-11-30";
  build::JobNote& mark = note_on(b, "mark");
  mark.state = build::JobState::done, mark.began = "2026-11-30 08:00", mark.ended = "2026-11-30 09:00";
  build::JobNote& board = note_on(b, "board");
  board.state = build::JobState::running, board.began = "2026-12-01 14:00";
  const Plan plan = plan_in(b, "2026-12-01 16:30");
  EXPECT_EQ(placed(plan, "mark").stands, JobStands::done);
  EXPECT_DOUBLE_EQ(placed(plan, "mark").end, 1);
  EXPECT_EQ(placed(plan, "board").stands, JobStands::running);
  EXPECT_DOUBLE_EQ(placed(plan, "board").start, 30);
  EXPECT_DOUBLE_EQ(placed(plan, "board").end, 33); // three hours of it, to the evening
  for (std::size_t i = 0; i < plan.jobs.size(); ++i)
    if (plan.jobs[i].state() == build::JobState::open && !plan.jobs[i].by_the_clock) {
      EXPECT_GE(plan.planned[i].start, 32.5 - 1e-9) << plan.jobs[i].id;
    }
  // What ran over its time is not over before now.
  EXPECT_DOUBLE_EQ(placed(plan_in(b, "2026-12-02 10:00"), "board").end, 50);
}

TEST(Plan, WhatFollowsAHoldPointIsHeldUntilItIsSigned) {
  Build b = fresh_half_ton();
  for (const char* id : {"mark", "battery", "rear.strip", "rear.bags_away", "rear.cut_plates", "rear.volume",
                         "rear.mock_up", "rear.tack", "rear.cycle"})
    note_on(b, id).state = build::JobState::done;
  Plan plan = plan_in(b);
  EXPECT_EQ(placed(plan, "rear.copy").stands, JobStands::held);
  ASSERT_TRUE(placed(plan, "rear.copy").held_by);
  for (const char* id : {"rear.angles", "rear.gaps", "rear.stop_first"})
    b = signed_off(b, id);
  plan = plan_in(b);
  EXPECT_EQ(placed(plan, "rear.copy").stands, JobStands::ready);
  EXPECT_EQ(placed(plan, "rear.weld").stands, JobStands::waiting);
}

TEST(Plan, WhatALatePartMovesIsWhatANewPlanSays) {
  const PlanGiven given = plan_given(fit_up_of(fresh_half_ton()), std::nullopt);
  const Plan plan = *plan_of(given);
  for (std::size_t i = 0; i < plan.jobs.size(); i += 5) {
    const auto moved = what_moves(given, plan, i, 20);
    ASSERT_TRUE(moved);
    PlanGiven later = given;
    later.list.jobs[i].hours += 20;
    EXPECT_NEAR(moved->whole, plan_of(later)->shared_span - plan.shared_span, 1e-9);
    EXPECT_GE(moved->whole, 0) << plan.jobs[i].id;
    for (const MovedJob& m : moved->jobs)
      EXPECT_GT(m.later, 0);
  }
}

TEST(Plan, PaintDriesWhileOtherWorkGoesOn) {
  const Plan plan = plan_in(fresh_half_ton());
  const std::size_t paint = *plan.find("rear.paint");
  const auto jobs = meanwhile(plan, paint);
  EXPECT_FALSE(jobs.empty());
  for (const std::size_t i : jobs) {
    EXPECT_LT(plan.planned[i].start, plan.planned[paint].end + 24);
    EXPECT_GT(plan.planned[i].end, plan.planned[paint].end);
  }
}

TEST(Plan, PartsToComeHoldWhatNeedsThem) {
  Build b = fresh_estate();
  b.shop.own().first_day = "2026-11-30";
  const double without = placed(plan_in(b), "front.build_strut").start;
  build::PartNote bag;
  bag.part = b.variant().fit[0].bag, bag.lead = 5 * 86400.0;
  b.variant().fit_up.own().parts.push_back(bag);
  const Plan plan = plan_in(b);
  EXPECT_TRUE(plan.find("front.order"));
  EXPECT_FALSE(plan.find("rear.order"));
  EXPECT_GE(placed(plan, "front.build_strut").start, 120);
  EXPECT_LT(without, 120);
  b.variant().fit_up.own().parts[0].on_shelf = 2;
  EXPECT_DOUBLE_EQ(placed(plan_in(b), "front.build_strut").start, without);
  // When it must be ordered: as long before it is needed as it takes to come.
  b.variant().fit_up.own().parts[0].on_shelf = 0;
  const FitUpGiven given = fit_up_of(b);
  BuyList list = buy_list(given);
  add_order_days(given, list, std::nullopt);
  const auto line =
      std::find_if(list.lines.begin(), list.lines.end(), [&](const BuyLine& l) { return l.part == bag.part; });
  ASSERT_NE(line, list.lines.end());
  ASSERT_TRUE(line->order_by);
  EXPECT_LE(*line->order_by, *work::parse_day("2026-11-30") - 4);
}

TEST(Plan, SaysWhatWasTypedWrongAndGoesOnWithout) {
  Build b = fresh_estate();
  b.shop.own().first_day = "next week";
  build::DaysOff off;
  off.who = "Nobody", off.from = "2026-12-07";
  b.shop.own().days_off.push_back(off);
  note_on(b, "mark").began = "yesterday";
  Plan plan = plan_in(b);
  EXPECT_FALSE(plan.first_day);
  EXPECT_EQ(say(day_name(plan, 2)), "Day 3");
  ASSERT_GE(plan.mistakes.size(), 2U);
  b.shop.own().first_day = "2026-11-30";
  b.shop.own().day_to = b.shop.own().day_from;
  plan = plan_in(b);
  EXPECT_DOUBLE_EQ(plan.day_to, 17);
  EXPECT_EQ(plan.mistakes.size(), 3U);
}

TEST(Plan, TodayIsTodayBeforeWorkBeginsToo) {
  Build b = fresh_estate();
  b.shop.own().first_day = "2026-11-30";
  const auto day = [&](const char* now) { return today_of(plan_in(b, now)); };
  EXPECT_EQ(day("2026-11-30 07:00"), 0);
  EXPECT_EQ(day("2026-12-01 06:15"), 1) << "the plan's day begins at eight, the calendar's does not";
  EXPECT_EQ(day("2026-12-01 08:00"), 1);
  EXPECT_EQ(day("2026-12-01 23:59"), 1);
  EXPECT_EQ(day("2026-11-29 12:00"), std::nullopt) << "it begins tomorrow";
  b.shop.own().first_day.clear();
  EXPECT_EQ(day("2026-12-01 10:00"), std::nullopt);
}

TEST(Plan, SplittingAJobOfTheSameHoursGainsNoDay) {
  for (const Build& b : {fresh_estate(), fresh_half_ton()}) {
    const PlanGiven given = plan_given(fit_up_of(b), std::nullopt);
    const double whole = plan_of(given)->shared_span;
    int split = 0;
    for (std::size_t j = 0; j < given.list.jobs.size(); ++j) {
      PlanGiven now = given;
      auto& jobs = now.list.jobs;
      if (jobs[j].by_the_clock || jobs[j].hours < 1) continue;
      Job rest = jobs[j];
      rest.id += ".rest";
      rest.after = {jobs[j].id};
      rest.hours /= 2, jobs[j].hours /= 2;
      jobs[j].wait = 0, jobs[j].checks.clear();
      for (Job& other : jobs)
        std::replace(other.after.begin(), other.after.end(), jobs[j].id, rest.id);
      jobs.push_back(rest);
      // What a night or another job may come between can win hours; a day that was there to be won was not looked for.
      EXPECT_GT(plan_of(now)->shared_span, whole - 9) << given.list.jobs[j].id;
      ++split;
    }
    EXPECT_GT(split, 8);
  }
}

TEST(Plan, TellsTheClockOfADay) {
  Build b = fresh_estate();
  b.shop.own().first_day = "2026-11-30";
  const Plan plan = plan_in(b);
  EXPECT_EQ(say(moment_name(plan, 0)), "Mon 30 Nov 08:00");
  EXPECT_EQ(say(moment_name(plan, 25.5)), "Tue 1 Dec 09:30");
  EXPECT_EQ(say(moment_name(plan, 18.25)), "Tue 1 Dec 02:15"); // past midnight it is the next day
}

TEST(Release, AJobWaitsForJobsAndForTheChecksOfThoseThatAreDone) {
  Build b = fresh_estate();
  const auto given = [&] { return plan_given(fit_up_of(b), std::nullopt); };
  const auto lacks = [&](const char* id) {
    std::string out;
    for (const Message& m : missing_before(given(), id))
      out += say(m) + "; ";
    return out;
  };
  EXPECT_NE(lacks("rear.assemble").find("Cycled through its travel and lock” is not done"), std::string::npos)
      << lacks("rear.assemble");
  for (const Job& j : jobs_in(b).jobs)
    if (j.end == End::rear && j.id != "rear.assemble" && j.id != "rear.sensors" && j.id != "rear.wheels")
      note_on(b, j.id).state = build::JobState::done;
  EXPECT_EQ(lacks("rear.assemble").find("is not done"), std::string::npos) << lacks("rear.assemble");
  EXPECT_NE(lacks("rear.assemble").find("is not signed"), std::string::npos) << "cycling has its checks";
  for (const HoldPoint& p : hold_points(fit_up_of(b)))
    if (p.end == End::rear && p.row->stage != CheckStage::proving) b = signed_off(b, p.id);
  EXPECT_EQ(lacks("rear.assemble"), "");
  // Signed and failed, and signed on another design.
  Build failed = signed_off(b, "rear.gaps", false);
  std::swap(b, failed);
  EXPECT_NE(lacks("rear.assemble").find("has failed"), std::string::npos) << lacks("rear.assemble");
  std::swap(b, failed);
  b.ends[1].bump_stop_gap.values = {0.031};
  EXPECT_NE(lacks("rear.assemble").find("another design"), std::string::npos) << lacks("rear.assemble");
}

TEST(Release, NoProofIsSignedBeforeItsJobIsReached) {
  const Build nothing = fresh_estate(), all = released(fresh_estate());
  const auto missing = [](const Build& b, const char* check) {
    return missing_before_check(plan_given(fit_up_of(b), std::nullopt), check).size();
  };
  EXPECT_GT(missing(nothing, "fill"), 3U) << "the first fill with nothing built";
  EXPECT_EQ(missing(all, "fill"), 0U);
  EXPECT_GT(missing(all, "leak_hold"), 0U) << "the fill comes first";
  EXPECT_EQ(missing(signed_off(all, "fill"), "leak_hold"), 0U);
}

TEST(Release, WhatWasGoneOnWithIsAMistakeUnlessSomebodyTookItOn) {
  Build b = fresh_estate();
  build::JobNote& note = note_on(b, "rear.assemble");
  note.state = build::JobState::done;
  const auto said = [&] {
    std::string out;
    for (const Message& m : plan_in(b).mistakes)
      out += say(m) + "; ";
    return out;
  };
  EXPECT_NE(said().find("nobody has taken that on"), std::string::npos) << said();
  note.taken_by = "Tamsin", note.taken_why = "only to move it";
  EXPECT_EQ(said(), "");
  const auto taken = taken_on(fit_up_of(b));
  ASSERT_EQ(taken.size(), 1U);
  EXPECT_NE(say(taken[0]).find("only to move it"), std::string::npos);
  const auto again = build::from_json(build::to_json(b));
  ASSERT_TRUE(again);
  EXPECT_EQ(*again, b);
  // What was released and is stale now held nothing up then.
  Build done = released(fresh_estate());
  for (const HoldPoint& p : hold_points(fit_up_of(done)))
    done = signed_off(std::move(done), p.id);
  ASSERT_TRUE(plan_in(done).mistakes.empty()) << say(plan_in(done).mistakes.front());
  done.ends[1].bump_stop_gap.values = {0.031};
  EXPECT_TRUE(plan_in(done).mistakes.empty()) << say(plan_in(done).mistakes.front());
}

} // namespace
} // namespace mavrel::assess
