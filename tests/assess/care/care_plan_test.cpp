#include "assess/care/cared_cars.h"

#include "assess/care/care_findings.h"
#include "build/names.h"
#include "build/proving.h"
#include "report/calendar_file.h"

#include <rapidcheck/gtest.h>

#include <cmath>
#include <cstdio>
#include <fstream>

namespace mavrel::assess {
namespace {

using build::LogKind;

TEST(CarePlan, IsNoneBeforeTheCarIsOnTheRoad) {
  Build b = on_the_road("");
  EXPECT_FALSE(care_plan(care_given(b, fit_up_of(b)), 0.05, *work::parse_day("2026-01-01")));
}

TEST(CareFindings, ACarOnTheRoadThatWasNeverProvedIsAStop) {
  const auto found = [](const Build& b) {
    const Findings all = find_in_care(care_given(b, fit_up_of(b)));
    return std::any_of(all.begin(), all.end(),
                       [](const Finding& f) { return f.code == "care_unproved" && f.severity == Severity::stop; });
  };
  Build b = on_the_road("2025-05-01");
  EXPECT_TRUE(found(b));
  Build handed = b;
  handed.variant().proving.own().handed_over = "2025-05-01";
  EXPECT_FALSE(found(handed));
  b.care.own().from.clear();
  EXPECT_FALSE(found(b)) << "it stands in the shop";
}

TEST(CarePlan, EveryKeyOfAnEventIsATaskOrAProof) {
  for (const CareEvent& e : care_events()) {
    for (const std::string& key : ids_in(e.calls))
      EXPECT_NE(care_task(key), nullptr) << e.key << " " << key;
    for (const std::string& key : ids_in(e.proofs)) {
      const CheckRow* row = check_row(key);
      ASSERT_NE(row, nullptr) << e.key << " " << key;
      EXPECT_NE(row->stage, CheckStage::fit_up) << key;
    }
  }
}

TEST(CarePlan, FirstAfterHandOverThenByTheYear) {
  Build b = on_the_road("2025-03-01");
  b.care.own().distance_year = 0;
  EXPECT_EQ(day_of(due_in(care_on(b, "2025-03-02"), "torque")), "2025-03-15");
  logged(b, LogKind::work, "torque", "2025-03-20");
  EXPECT_EQ(day_of(due_in(care_on(b, "2025-04-02"), "torque")), "2026-03-20");
  EXPECT_EQ(due_in(care_on(b, "2026-03-21"), "torque").state, DueState::late);
  EXPECT_EQ(due_in(care_on(b, "2026-03-10"), "torque").state, DueState::soon);
  EXPECT_EQ(due_in(care_on(b, "2026-01-10"), "torque").state, DueState::later);
}

TEST(CarePlan, DistanceComesFirstWhereItIsDrivenMuch) {
  Build b = on_the_road("2025-03-01");
  logged(b, LogKind::work, "torque", "2025-03-10").odometer = 1e8;
  logged(b, LogKind::remark, "", "2025-05-10").odometer = 1.12e8; // 12 000 km in 61 days
  const CareDue d = due_in(care_on(b, "2025-05-20"), "torque");
  const double a_day = 1.2e7 / 61;
  EXPECT_NEAR(d.due - *work::parse_day("2025-03-10"), 2e7 / a_day, 1.5);
  EXPECT_NEAR(care_on(b, "2025-05-20").distance_day, a_day, 1);
}

TEST(CarePlan, WhatHappenedCallsForWorkUntilItIsDone) {
  Build b = on_the_road("2025-03-01");
  for (const char* task : {"drain", "bags", "torque", "collars", "lines", "hold", "alignment"})
    logged(b, LogKind::work, task, "2025-06-01");
  logged(b, LogKind::event, "crash", "2025-06-10");
  CarePlan plan = care_on(b, "2025-06-11");
  for (const char* task : {"bags", "torque", "collars", "lines", "hold", "alignment"}) {
    EXPECT_EQ(day_of(due_in(plan, task)), "2025-06-10") << task;
    EXPECT_EQ(due_in(plan, task).state, DueState::late) << task;
  }
  EXPECT_NE(due_in(plan, "drain").state, DueState::late);
  logged(b, LogKind::work, "bags", "2025-06-12");
  plan = care_on(b, "2025-06-13");
  EXPECT_GT(due_in(plan, "bags").due, *work::parse_day("2025-08-01"));
  EXPECT_EQ(day_of(due_in(plan, "torque")), "2025-06-10");
}

TEST(CarePlan, OnTheDayItselfWhatStandsBelowCameAfter) {
  Build b = on_the_road("2025-03-01");
  logged(b, LogKind::work, "torque", "2025-06-10");
  logged(b, LogKind::event, "wheel_change", "2025-06-10");
  EXPECT_EQ(day_of(due_in(care_on(b, "2025-06-11"), "torque")), "2025-06-10");
  logged(b, LogKind::work, "torque", "2025-06-10");
  EXPECT_GT(due_in(care_on(b, "2025-06-11"), "torque").due, *work::parse_day("2025-09-01"));
}

TEST(CarePlan, EventsCallForProofsUntilTheyAreSignedAnew) {
  Build b = on_the_road("2025-03-01");
  b = signed_off(b, "front.lock_gaps"); // signed on 2026-12-01
  logged(b, LogKind::event, "wheel_change", "2026-12-05");
  EXPECT_EQ(care_on(b, "2026-12-06").recheck,
            (std::vector<std::string>{"front.lock_gaps", "rear.lock_gaps", "heights", "lamps"}));
  b.care.own().log.back().day = "2026-11-20";
  const auto left = care_on(b, "2026-12-06").recheck;
  EXPECT_EQ(std::count(left.begin(), left.end(), "front.lock_gaps"), 0);
  EXPECT_EQ(std::count(left.begin(), left.end(), "rear.lock_gaps"), 1); // one end's proof says nothing of the other
}

TEST(CarePlan, WaterComesSoonerInTheDampAndWithMoreAirAndFrostHurries) {
  Build b = on_the_road("2025-05-01");
  b.variant().air.dryer.clear();
  build::Care& care = b.care.own();
  care.winter_temperature = care.summer_temperature = 291;
  care.winter_humidity = care.summer_humidity = 0.6;
  const auto days = [&](double air) {
    const CareDue d = due_in(care_on(b, "2025-05-02", air), "drain");
    return d.due - *work::parse_day("2025-05-01");
  };
  const auto dry = days(4);
  EXPECT_LT(dry, 60);
  EXPECT_NEAR(double(days(2.7)) / dry, 4 / 2.7, 0.1);
  EXPECT_EQ(days(0.01), 90); // however little
  b.care.own().winter_humidity = b.care.own().summer_humidity = 0.9;
  EXPECT_LT(days(4), dry);
  // Nights that freeze: a fifth of the water is enough.
  b.care.own().winter_temperature = b.care.own().summer_temperature = 276;
  const CareDue frost = due_in(care_on(b, "2025-05-02", 4), "drain");
  EXPECT_NE(say(frost.why).find("freeze"), std::string::npos) << say(frost.why);
  // Nothing known of the air: by the month.
  const auto unknown = care_plan(care_given(b, fit_up_of(b)), std::nullopt, *work::parse_day("2025-05-02"));
  EXPECT_EQ(day_of(due_in(*unknown, "drain")), "2025-05-31");
}

TEST(CarePlan, TheOwnerIsToldToDrainAsOftenAsItComesRound) {
  Build b = on_the_road("2025-05-01");
  logged(b, LogKind::work, "drain", "2025-06-20"); // what was done since is nothing to a car that goes out today
  const CareGiven given = care_given(b, fit_up_of(b));
  const auto day = *work::parse_day("2025-05-01");
  const auto little = drain_round(given, 0.01, day);
  ASSERT_TRUE(little);
  EXPECT_EQ(little->days, 90) << "however little water comes";
  EXPECT_TRUE(little->known);
  const auto unknown = drain_round(given, std::nullopt, day);
  ASSERT_TRUE(unknown);
  EXPECT_EQ(unknown->days, 30);
  EXPECT_FALSE(unknown->known);
  Build without = b;
  without.variant().air.tank.clear();
  EXPECT_FALSE(drain_round(care_given(without, fit_up_of(without)), 0.01, day));
}

TEST(CarePlan, ADryerIsAsOldAsTheCarUntilItsChargeIsNoted) {
  Build b = on_the_road("2023-03-01");
  ASSERT_FALSE(b.variant().air.dryer.empty());
  logged(b, LogKind::work, "drain", "2025-03-01");
  const auto next = [](const Build& of) { return due_in(care_on(of, "2025-03-02", 4), "drain").due; };
  Build without = b;
  without.variant().air.dryer.clear();
  EXPECT_EQ(next(b), next(without)); // long spent
  Build charged = b;
  logged(charged, LogKind::work, "dryer", "2025-03-01");
  EXPECT_GT(next(charged), next(b));
}

TEST(CareLog, ReadingsWantTheirFigureAndTheirCornerAndRemarksWords) {
  build::LogEntry e;
  e.kind = LogKind::remark;
  EXPECT_TRUE(trouble_of(e));
  e.text = "quiet";
  EXPECT_FALSE(trouble_of(e));
  e.kind = LogKind::reading, e.what = "height";
  EXPECT_TRUE(trouble_of(e));
  e.height = 0.34;
  EXPECT_TRUE(trouble_of(e));
  e.where = "rear";
  EXPECT_TRUE(trouble_of(e));
  e.where = "rear_left";
  EXPECT_FALSE(trouble_of(e));
  e.what = "water";
  EXPECT_TRUE(trouble_of(e));
  e.water = 0.03, e.where.clear();
  EXPECT_FALSE(trouble_of(e));
  e.what = "moon";
  EXPECT_TRUE(trouble_of(e));
}

TEST(CarePlan, AnIntervalThatIsSetStandsAndATaskCanBeLeftOut) {
  Build b = on_the_road("2025-03-01");
  build::CareInterval set;
  set.task = "drain", set.days = 10 * 86400.0;
  b.care.own().intervals.push_back(set);
  EXPECT_EQ(day_of(due_in(care_on(b, "2025-03-02"), "drain")), "2025-03-11");
  b.care.own().intervals[0].wanted = build::YesNo::no;
  EXPECT_THROW((void)due_in(care_on(b, "2025-03-02"), "drain"), std::runtime_error);
}

TEST(CarePlan, NewBagsAreReadAfterOneTwoFourEightAndTwelveWeeks) {
  Build b = on_the_road("2025-03-01");
  EXPECT_EQ(day_of(due_in(care_on(b, "2025-03-02"), "settle")), "2025-03-08");
  logged(b, LogKind::work, "settle", "2025-03-09");
  EXPECT_EQ(day_of(due_in(care_on(b, "2025-03-10"), "settle")), "2025-03-15");
  logged(b, LogKind::work, "settle", "2025-05-24");
  EXPECT_GT(due_in(care_on(b, "2025-05-25"), "settle").due, *work::parse_day("2025-09-01"));
  logged(b, LogKind::event, "new_bag", "2025-08-01");
  EXPECT_EQ(day_of(due_in(care_on(b, "2025-08-02"), "settle")), "2025-08-01"); // the event calls for it at once
}

TEST(CarePlan, TheYearIsColdInJanuaryAndInJulySouthOfTheLine) {
  build::Care care;
  EXPECT_LT(weather_on(care, *work::parse_day("2026-01-15")).temperature, 276);
  EXPECT_GT(weather_on(care, *work::parse_day("2026-07-15")).temperature, 292);
  care.winter_in_july = build::YesNo::yes;
  EXPECT_GT(weather_on(care, *work::parse_day("2026-01-15")).temperature, 292);
  care.rests_in_winter = build::YesNo::yes;
  EXPECT_TRUE(weather_on(care, *work::parse_day("2026-07-10")).rests);
  EXPECT_FALSE(weather_on(care, *work::parse_day("2026-01-10")).rests);
}

TEST(Trends, ABagThatRelaxesIsSeenAtTheSamePressureWhateverThePressureWas) {
  Build b = on_the_road("2024-11-01");
  const FitUpGiven given = fit_up_of(b);
  const FittedEnd& rear = given.end(End::rear)->fitted;
  const double road = *rear.road;
  const auto pressure_at_height = [&](double H) { return posed_end(rear, H, 0)->state.side_pressure[0]; };
  // It sinks by 3 mm a year at the same pressure; read at heights that differ by what somebody set.
  const double set_to[] = {0.004, -0.003, 0.002, 0.0, -0.004, 0.003};
  for (int i = 0; i < 6; ++i) {
    const work::Day day = *work::parse_day("2024-11-10") + 120 * i;
    build::LogEntry& e = logged(b, LogKind::reading, "height", work::day_text(day).c_str());
    e.where = "rear_left";
    e.height = road + set_to[i] - 0.003 * 120 * i / 365.25;
    e.pressure = pressure_at_height(road + set_to[i]);
  }
  const CarePlan plan = care_on(b, "2026-11-26");
  ASSERT_EQ(plan.trends.size(), 1U);
  const CareTrend& t = plan.trends[0];
  EXPECT_EQ(t.where, "rear_left");
  for (const auto& p : t.points)
    EXPECT_TRUE(p.corrected);
  EXPECT_NEAR(t.year, -0.003, 0.0005);
  ASSERT_TRUE(t.says);
  EXPECT_NE(say(*t.says).find("sinks"), std::string::npos);
}

TEST(Trends, ACompressorThatWearsAndADayOnWhichItIsTooMuch) {
  Build b = on_the_road("2024-11-01");
  for (int i = 0; i < 8; ++i)
    logged(b, LogKind::reading, "tank_fill", work::day_text(*work::parse_day("2024-12-01") + 90 * i).c_str()).seconds =
        100 + 3.0 * i + (i % 2 == 0 ? 0.4 : -0.4);
  const CareTrend t = care_on(b, "2026-11-26").trends.at(0);
  EXPECT_NEAR(t.year, 3.0 / 90 * 365.25, 0.6);
  ASSERT_TRUE(t.crosses);
  // 30 % above the first: at 130 s.
  EXPECT_NEAR(*t.crosses - *work::parse_day("2024-12-01"), (t.points[0].value * 1.3 - 100) / 3 * 90, 25);
  EXPECT_TRUE(t.says);
}

TEST(Trends, TwoReadingsAreNoTrend) {
  Build b = on_the_road("2024-11-01");
  for (const char* day : {"2025-01-01", "2026-01-01"})
    logged(b, LogKind::reading, "tank_fill", day).seconds = 90;
  const CareTrend t = care_on(b, "2026-11-26").trends.at(0);
  EXPECT_FALSE(t.says);
  EXPECT_FALSE(t.crosses);
}

RC_GTEST_PROP(CarePlanProperty, WhateverStandsInTheLogEveryTaskHasADayAndAReason, (std::uint16_t seed)) {
  Build b = on_the_road("2024-01-01");
  std::uint32_t state = seed + 1U;
  const auto next = [&](std::uint32_t n) { return (state = state * 1664525U + 1013904223U) / 65536U % n; };
  for (int i = 0; i < 30; ++i) {
    const auto day = work::day_text(*work::parse_day("2023-10-01") + static_cast<work::Day>(next(1200)));
    const auto kind = static_cast<LogKind>(next(4));
    const char* what = kind == LogKind::work ? care_tasks()[next(static_cast<std::uint32_t>(care_tasks().size()))].key
                       : kind == LogKind::event
                           ? care_events()[next(static_cast<std::uint32_t>(care_events().size()))].key
                           : "height";
    build::LogEntry& e = logged(b, kind, what, next(9) == 0 ? "soon" : day.c_str());
    if (next(2) == 0) e.odometer = next(300) * 1e6;
    if (next(2) == 0) e.where = "rear_left", e.height = 0.30 + next(60) * 1e-3;
    if (next(3) == 0) e.pressure = next(9) * 1e5;
  }
  const CarePlan plan = care_on(b, "2026-06-01");
  RC_ASSERT(plan.due.size() >= 8U);
  for (std::size_t i = 0; i < plan.due.size(); ++i) {
    RC_ASSERT(!say(plan.due[i].why).empty());
    RC_ASSERT((i == 0 || plan.due[i - 1].due <= plan.due[i].due)); // in brackets, that the first ends it
  }
  for (const CareTrend& t : plan.trends) {
    RC_ASSERT(std::isfinite(t.year) && std::isfinite(t.year_sd));
    for (std::size_t i = 1; i < t.points.size(); ++i)
      RC_ASSERT(t.points[i - 1].day <= t.points[i].day);
  }
}

TEST(CalendarFile, IsReadByAnotherProgramAndKeepsItsMarks) {
  Build b = on_the_road("2025-03-01");
  b.job.number = "W-7; \"x\", ü";
  const CarePlan plan = care_on(b, "2025-03-02");
  const auto text = report::calendar_file(b.job, *b.shop, plan, "2025-03-02 09:30", {});
  ASSERT_TRUE(text) << say(text.error());
  const auto path = std::filesystem::temp_directory_path() / ("mavrel-" + std::to_string(::getpid()) + ".ics");
  std::ofstream(path, std::ios::binary) << *text;
  // Debian's own reader of calendars, which shares no line with the writer.
  const std::string script = "import sys,icalendar\n"
                             "c=icalendar.Calendar.from_ical(open(sys.argv[1],'rb').read())\n"
                             "for e in c.walk('VEVENT'):\n"
                             "    print(e['DTSTART'].dt.isoformat(), str(e['UID']), str(e['SUMMARY']))\n";
  const auto run = [&] {
    std::string out;
    FILE* pipe = ::popen(("/usr/bin/python3 -c \"" +
                          [&] {
                            std::string quoted;
                            for (const char c : script)
                              quoted += c == '"' ? std::string("\\\"") : std::string(1, c);
                            return quoted;
                          }() +
                          "\" " + path.string() + " 2>&1")
                             .c_str(),
                         "r");
    char buffer[4096];
    for (std::size_t n; (n = std::fread(buffer, 1, sizeof buffer, pipe)) > 0;)
      out.append(buffer, n);
    ::pclose(pipe);
    return out;
  };
  const std::string read = run();
  for (const CareDue& d : plan.due)
    EXPECT_NE(read.find(work::day_text(d.due) + " "), std::string::npos) << d.task->key << "\n" << read;
  EXPECT_NE(read.find("W-7; \"x\", ü"), std::string::npos) << read;
  EXPECT_EQ(std::count(read.begin(), read.end(), '\n'), static_cast<long>(plan.due.size())) << read;
  // Made again later, each task keeps its mark.
  const auto again = report::calendar_file(b.job, *b.shop, care_on(b, "2025-06-02"), "2025-06-02 09:30", {});
  const auto marks = [](const std::string& ics) {
    std::set<std::string> out;
    for (std::size_t at = 0; (at = ics.find("UID:", at)) != std::string::npos; ++at)
      out.insert(ics.substr(at, ics.find('\r', at) - at));
    return out;
  };
  EXPECT_EQ(marks(*text), marks(*again));
  EXPECT_EQ(marks(*text).size(), plan.due.size());
  EXPECT_FALSE(report::calendar_file(b.job, *b.shop, plan, "some day", {}));
  std::filesystem::remove(path);
}

TEST(CalendarFile, WhatIsLateStandsOnTheNextWorkingDayAndRings) {
  Build b = on_the_road("2025-03-01");
  b.shop.own().saturdays = b.shop.own().sundays = build::YesNo::no;
  build::DaysOff off;
  off.from = "2026-03-09", off.to = "2026-03-10"; // Monday and Tuesday
  b.shop.own().days_off = {off};
  const CarePlan plan = care_on(b, "2026-03-07"); // a Saturday, a year on
  ASSERT_TRUE(std::any_of(plan.due.begin(), plan.due.end(),
                          [](const CareDue& d) { return d.due < *work::parse_day("2026-03-07"); }));
  const auto text = report::calendar_file(b.job, *b.shop, plan, "2026-03-07 09:30", {});
  ASSERT_TRUE(text) << say(text.error());
  EXPECT_NE(text->find("DTSTART;VALUE=DATE:20260311"), std::string::npos) << *text;
  EXPECT_EQ(text->find("DTSTART;VALUE=DATE:2025"), std::string::npos) << "none on a day that is over";
  EXPECT_NE(text->find("Due since 2025-"), std::string::npos) << *text;
  std::size_t events = 0, alarms = 0;
  for (std::size_t at = 0; (at = text->find("BEGIN:VEVENT", at)) != std::string::npos; ++at)
    ++events;
  for (std::size_t at = 0; (at = text->find("TRIGGER:PT8H", at)) != std::string::npos; ++at)
    ++alarms;
  EXPECT_EQ(events, plan.due.size());
  EXPECT_EQ(alarms, events);
}

TEST(Trends, SayHowFarItIsAndForecastNoDayThatHasPassed) {
  Build b = on_the_road("2022-01-01");
  for (const auto& [day, seconds] :
       {std::pair{"2022-02-01", 60.0}, {"2022-08-01", 70.0}, {"2023-02-01", 80.0}, {"2023-08-01", 90.0}})
    logged(b, LogKind::reading, "tank_fill", day).seconds = seconds;
  const CareTrend soon = care_on(b, "2023-08-02").trends.at(0);
  ASSERT_TRUE(soon.says && soon.far);
  EXPECT_NE(say(*soon.far).find("past"), std::string::npos) << say(*soon.far);
  EXPECT_FALSE(soon.crosses) << "it is over it already";
  Build early = on_the_road("2022-01-01");
  for (const auto& [day, seconds] : {std::pair{"2022-02-01", 60.0}, {"2022-08-01", 64.0}, {"2023-02-01", 68.0}})
    logged(early, LogKind::reading, "tank_fill", day).seconds = seconds;
  const CareTrend there = care_on(early, "2023-02-02").trends.at(0);
  ASSERT_TRUE(there.far && there.crosses);
  EXPECT_NE(say(*there.far).find("from there"), std::string::npos) << say(*there.far);
  EXPECT_GT(*there.crosses, *work::parse_day("2023-02-02"));
  // Nobody has read it since, and the day that was forecast has passed.
  EXPECT_FALSE(care_on(early, "2026-02-02").trends.at(0).crosses);
}

} // namespace
} // namespace mavrel::assess
