#include "assess/care/origin.h"

#include "assess/care/cared_cars.h"
#include "assess/care/log_table.h"
#include "build/edit.h"

#include <rapidcheck/gtest.h>

namespace mavrel::assess {
namespace {

TEST(Origin, TakesOverGeometryDesignPlanAndLessonsAndNothingThatWasDone) {
  Build earlier = on_the_road("2025-03-01");
  earlier.job.number = "W-3", earlier.job.owner = "Ansel";
  earlier = signed_off(earlier, "front.stop_first");
  note_on(earlier, "mark").state = build::JobState::done;
  note_on(earlier, "rear.tack").took = 9000;
  build::Lesson lesson;
  lesson.what = "Notch deeper by 6 mm";
  earlier.care.own().lessons.push_back(lesson);
  logged(earlier, build::LogKind::event, "crash", "2025-06-01");
  earlier.variant().fit[0].learned_area = 1.02;
  const Build b = begun_from(earlier, "/shop/w-3.mavrel", "2026-11-26");
  EXPECT_EQ(b.ends, earlier.ends);
  EXPECT_EQ(b.body, earlier.body);
  EXPECT_EQ(b.variant().fit[1].bag, earlier.variant().fit[1].bag);
  EXPECT_EQ(b.variant().fit_up->routes, earlier.variant().fit_up->routes);
  EXPECT_EQ(b.care->lessons.size(), 1U);
  EXPECT_EQ(b.shop, earlier.shop);
  EXPECT_TRUE(b.job.owner.empty() && b.job.number.empty());
  EXPECT_TRUE(b.variant().fit_up->checks.empty());
  EXPECT_TRUE(b.care->log.empty() && b.care->from.empty());
  EXPECT_FALSE(b.variant().fit[0].learned_area);
  // What a job took there is what is reckoned with here; that one was done is not.
  ASSERT_EQ(b.variant().fit_up->jobs.size(), 1U);
  EXPECT_EQ(b.variant().fit_up->jobs[0].hours, 9000.0);
  EXPECT_EQ(b.origin->number, "W-3");
  EXPECT_EQ(b.origin->taken.size(), measured_leaves(b).size());
  EXPECT_GT(b.origin->taken.size(), 40U);
  EXPECT_EQ(still_taken(b).size(), b.origin->taken.size());
}

TEST(Origin, AFigureMeasuredHereIsNoLongerAnothers) {
  Build b = begun_from(on_the_road(), "x.mavrel", "2026-11-26");
  const std::size_t all = still_taken(b).size();
  const auto measured = build::with_text(b, "front.left.mass_kg", "433 kg", {});
  ASSERT_TRUE(measured);
  EXPECT_EQ(still_taken(*measured).size(), all - 1);
  // Back to what it was: it is what was taken over again.
  const auto undone = build::with_text(*measured, "front.left.mass_kg", "", {});
  ASSERT_TRUE(undone);
  EXPECT_EQ(still_taken(*undone).size(), all - 1); // cleared is not taken over either
  // A list is one figure: a row of it changed is a list measured here.
  Build row = b;
  row.end(End::front).obstacles.front().gap = 0.0123;
  EXPECT_EQ(still_taken(row).size(), all - 1);
  const auto first = still_taken(b).front();
  EXPECT_EQ(still_taken(confirmed(b, first.first)).size(), all - 1);
}

TEST(Origin, EveryLeafHasAPathOfItsOwnAndAName) {
  std::set<std::string> paths;
  for (const Leaf& leaf : measured_leaves(test::demo_whole())) {
    EXPECT_TRUE(paths.insert(leaf.path).second) << leaf.path;
    EXPECT_FALSE(say(leaf.name).empty()) << leaf.path;
    EXPECT_TRUE(leaf.path.starts_with("front.") || leaf.path.starts_with("rear.") || leaf.path.starts_with("body."));
  }
}

TEST(LogTable, TakesInOnlyWhatCanBeSaved) {
  const auto read = read_log_table(std::string("id,day,kind,text\nx1,2026-01-02,remark,a\0b\n", 42));
  ASSERT_FALSE(read);
  EXPECT_NE(say(read.error()).find("Line 2"), std::string::npos) << say(read.error());
  EXPECT_NE(say(read.error()).find("control character"), std::string::npos) << say(read.error());
}

TEST(LogTable, TextThatLooksLikeAFormulaGoesOutGuardedAndComesInAgain) {
  Build b = on_the_road();
  logged(b, build::LogKind::remark, "", "2025-06-01 10:15").text = "=2+2 clicks";
  const std::string out = log_table(b.care->log);
  EXPECT_NE(out.find(",'=2+2 clicks"), std::string::npos) << out;
  const auto read = read_log_table(out);
  ASSERT_TRUE(read) << say(read.error());
  EXPECT_EQ(read->front().text, "=2+2 clicks");
}

TEST(LogTable, GoesOutAndComesInAgain) {
  Build b = on_the_road();
  build::LogEntry& e = logged(b, build::LogKind::reading, "height", "2025-06-01 10:15");
  e.where = "rear_left", e.height = 0.3415, e.pressure = 3.1e5, e.temperature = 288.4, e.text = "cold, after the wash";
  logged(b, build::LogKind::event, "crash", "2025-07-01").by = "Tamsin";
  const auto read = read_log_table(log_table(b.care->log));
  ASSERT_TRUE(read) << say(read.error());
  ASSERT_EQ(read->size(), 2U);
  EXPECT_EQ((*read)[0].id, b.care->log[0].id);
  EXPECT_DOUBLE_EQ(*(*read)[0].height, 0.3415);
  EXPECT_EQ((*read)[0].text, "cold; after the wash");
  EXPECT_EQ((*read)[1].what, "crash");
  // Joined with itself it is itself.
  EXPECT_EQ(joined_log(b.care->log, *read)->size(), 2U);
}

TEST(LogTable, MistakesAreSaidWhereTheyStand) {
  for (const auto& [text, word] : {std::pair("a,b\n1,2\n", "no logbook"),
                                   {"day,kind\n2026-13-01,work\n", "Line 2"},
                                   {"day,kind\n2026-12-01,wrk\n", "Line 2"},
                                   {"day,kind,height_m\n2026-12-01,work,9\n", "0 to 2"}}) {
    const auto read = read_log_table(text);
    ASSERT_FALSE(read) << text;
    EXPECT_NE(say(read.error()).find(word), std::string::npos) << say(read.error());
  }
}

TEST(LogTable, LinesWithoutAMarkAreTheSameHoweverOftenTheyAreRead) {
  const char* text = "day,kind,what\n2026-12-01,work,drain\n2026-12-08,work,drain\n";
  const auto once = read_log_table(text), twice = read_log_table(text);
  ASSERT_TRUE(once && twice);
  const auto log = joined_log({}, *once);
  EXPECT_EQ(log->size(), 2U);
  EXPECT_EQ(joined_log(*log, *twice)->size(), 2U);
}

TEST(LogTable, ALogThatWouldBeTooLongIsRefused) {
  std::vector<build::LogEntry> many(build::most_log + 1);
  for (std::size_t i = 0; i < many.size(); ++i)
    many[i].id = std::to_string(i);
  EXPECT_FALSE(joined_log({}, many));
  many.pop_back();
  EXPECT_TRUE(joined_log({}, many));
}

} // namespace
} // namespace mavrel::assess
