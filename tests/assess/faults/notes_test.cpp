// Findings in the document, readings taken from Proving and the log, and what becomes of a fault that was found.
#include "assess/care/care_plan.h"
#include "assess/faults/practised.h"
#include "build/json.h"
#include "build/list_edit.h"

namespace mavrel::assess {
namespace {

TEST(FaultNotes, AreKeptAndReadAgain) {
  build::Build build = build::empty_build();
  for (const char* key : {"slow_up:front_left", "other_moves:rear", "hisses"})
    build.faults.own().findings.push_back(note_of(found(key, "yes")));
  build.faults.own().findings.push_back(note_of(found("fill_time:rear_left", "6.2s ± 0.4s"), "times"));
  build.faults.own().findings.push_back(note_of(found("vent_time:rear_left", "never")));
  build.faults.own().nothing_else = build::YesNo::yes;
  const auto again = build::from_json(build::to_json(build));
  ASSERT_TRUE(again) << say(again.error());
  EXPECT_EQ(*again->faults, *build.faults);
  const FaultsNoted read = noted(*again);
  EXPECT_TRUE(read.trouble.empty());
  ASSERT_EQ(read.evidence.findings.size(), 5U);
  EXPECT_TRUE(read.evidence.nothing_else);
  EXPECT_DOUBLE_EQ(*read.evidence.findings[3].value, 6.2);
  EXPECT_DOUBLE_EQ(*read.evidence.findings[3].sd, 0.4);
  EXPECT_TRUE(read.evidence.findings[4].never);
}

TEST(FaultNotes, ThatAreNoneAreToldAndLeftOut) {
  build::Build build = build::empty_build();
  auto& list = build.faults.own().findings;
  list.resize(5);
  list[0].sign = "gremlins";
  list[1].sign = "slow_up", list[1].where = "rear";
  list[2].sign = "fill_time", list[2].where = "rear_left"; // yes, where a figure is wanted
  list[3].sign = "fill_time", list[3].where = "rear_left", list[3].answer = build::FaultAnswer::read;
  list[4].sign = "hisses";
  const FaultsNoted read = noted(build);
  EXPECT_EQ(read.trouble.size(), 4U);
  ASSERT_EQ(read.note_of.size(), 1U);
  EXPECT_EQ(read.note_of.front(), 4U);
}

TEST(FaultNotes, AreTakenFromProvingAndTheLogOnce) {
  build::Build build = test::loaded(std::filesystem::path(MAVREL_DEMO) / "shop" / "w-14.mavrel");
  build.faults.own().findings.clear();
  build::LogEntry old, newer;
  old.kind = newer.kind = build::LogKind::reading;
  old.what = newer.what = "hold", old.where = newer.where = "front_left";
  old.day = "2026-01-01", newer.day = "2026-10-01";
  old.hourly_loss = 0.05, newer.hourly_loss = 0.01;
  build.care.own().log.push_back(newer);
  build.care.own().log.push_back(old);
  const auto points = hold_points(fit_up_of(build));
  const auto taken = readings_at_hand(build, points, &practised()->table.car());
  std::size_t timed = 0, held = 0, here = 0;
  for (const build::FaultNote& n : taken) {
    timed += n.sign == "fill_time";
    here += n.sign == "hold_loss" && n.where == "front_left";
    if (n.sign != "hold_loss" || !n.from.starts_with("log")) continue;
    ++held;
    EXPECT_DOUBLE_EQ(*n.share, 0.01) << "the last one";
    EXPECT_EQ(n.from, "log 2026-10-01");
  }
  EXPECT_EQ(timed, 4U);
  // What Proving held is taken as well, each corner and the tank.
  std::size_t proved = 0;
  for (const build::FaultNote& n : taken)
    if ((n.sign == "hold_loss" || n.sign == "tank_loss") && n.from.starts_with("leak_")) {
      ++proved;
      EXPECT_TRUE(*n.share > -0.05 && *n.share < 0.2) << n.where;
    }
  EXPECT_EQ(here, 1U) << "the newest of Proving and the log, not both";
  EXPECT_GE(proved + held, 5U);
  build.faults.own().findings = {taken.begin(), taken.end()};
  EXPECT_TRUE(readings_at_hand(build, points, &practised()->table.car()).empty());
}

TEST(FaultNotes, OnlyTheNewestReadingOfAKindAtAPlaceIsWeighed) {
  build::Build build = test::loaded(std::filesystem::path(MAVREL_DEMO) / "shop" / "w-14.mavrel");
  auto& list = build.faults.own().findings;
  list.clear();
  const auto add = [&](const char* sign, const char* text, const char* from) {
    const auto found = typed_finding(*sign_of(sign), text, {});
    ASSERT_TRUE(found) << sign;
    list.push_back(note_of(*found, from));
  };
  add("tank_fill", "118s", "log 2026-10-02");
  add("tank_fill", "74s", "log 2026-12-01");
  add("tank_fill", "76s", "log 2026-12-01 16:20");
  add("volts", "12.9V", "");
  add("pumps_never", "no", "log 2026-10-02"); // told, not read: it stands until somebody says otherwise
  const FaultsNoted read = noted(build);
  EXPECT_EQ(read.note_of, (std::vector<std::size_t>{1, 2, 3, 4}));
  ASSERT_EQ(read.trouble.size(), 1U);
  EXPECT_EQ(read.trouble[0].first, 0U);
  EXPECT_NE(say(read.trouble[0].second).find("2026-10-02"), std::string::npos) << say(read.trouble[0].second);
  // One that is read now stands alone, and nothing older is offered beside it.
  add("tank_fill", "70s", "");
  EXPECT_EQ(noted(build).note_of, (std::vector<std::size_t>{3, 4, 5}));
  for (const build::FaultNote& n : readings_at_hand(build, hold_points(fit_up_of(build)), &practised()->table.car()))
    EXPECT_NE(n.sign, "tank_fill");
}

TEST(FaultFound, GoesIntoTheLogOntoThePlanAndItsChecksAreAskedAgain) {
  const build::Build build = test::loaded(std::filesystem::path(MAVREL_DEMO) / "shop" / "w-08.mavrel");
  const FitUpGiven given = fit_up_of(build);
  FoundAsked asked;
  asked.faults = {*fault_of("pinched:rear_left")};
  asked.odds = 0.93, asked.by = "Tamsin", asked.day = "2026-11-26 10:15", asked.mark = "m1";
  const auto done = with_found(build, given, asked);
  ASSERT_TRUE(done) << say(done.error());
  ASSERT_EQ(done->care->log.size(), build.care->log.size() + 1);
  const build::LogEntry& entry = done->care->log[done->care->log.size() - 1];
  EXPECT_EQ(entry.what, "found.pinched");
  EXPECT_EQ(entry.where, "rear_left");
  ASSERT_NE(care_event(entry.what), nullptr);
  EXPECT_STREQ(care_event(entry.what)->proofs, "times");
  const auto& jobs = done->variant().fit_up->jobs;
  ASSERT_EQ(jobs.size(), build.variant().fit_up->jobs.size() + 1);
  EXPECT_NE(jobs.back().name.find("pinched line"), std::string::npos);
  EXPECT_DOUBLE_EQ(*jobs.back().hours, 3600);
  EXPECT_EQ(done->shop->faults.front().found, 1);
  // The check that looks at it stands no longer; the others do.
  const auto before = hold_points(given), after = hold_points(fit_up_of(*done));
  ASSERT_EQ(point_in(before, "times").state, CheckState::passed);
  EXPECT_EQ(point_in(after, "times").state, CheckState::stale);
  EXPECT_EQ(point_in(after, "camber").state, point_in(before, "camber").state);
  EXPECT_NE(done->variant().fit_up->checks[*point_in(after, "times").note].notes.find("pinched"), std::string::npos);
  // Found again, it is counted again; what is not wanted is left alone.
  asked.log = asked.plan = asked.proofs = false;
  const auto counted = with_found(*done, given, asked);
  EXPECT_EQ(counted->shop->faults.front().found, 2);
  EXPECT_EQ(counted->care->log.size(), done->care->log.size());
  EXPECT_EQ(counted->variant().fit_up->jobs.size(), jobs.size());
}

TEST(FaultFound, SaysWhichListIsFull) {
  build::Build build = fresh_estate();
  auto& jobs = build.variant().fit_up.own().jobs;
  for (std::size_t i = 0; jobs.size() < 240; ++i) {
    build::JobNote job;
    job.id = "own." + std::to_string(i + 1), job.name = "x";
    jobs.push_back(job);
  }
  FoundAsked asked;
  asked.faults = {*fault_of("fuse")};
  asked.mark = "m", asked.day = "2026-11-26";
  const auto done = with_found(build, fit_up_of(build), asked);
  ASSERT_FALSE(done);
  EXPECT_NE(say(done.error()).find("no room"), std::string::npos);
}

} // namespace
} // namespace mavrel::assess
