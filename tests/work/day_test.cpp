#include "work/day.h"

#include "support.h"

namespace mavrel::work {
namespace {

TEST(Day, IsReadAsItIsWritten) {
  EXPECT_TRUE(rc::check("days there and back", [] {
    const Day day = *rc::gen::inRange(*parse_day("1990-01-01"), *parse_day("2199-12-31") + 1);
    RC_ASSERT(parse_day(day_text(day)) == day);
    RC_ASSERT(weekday(day + 7) == weekday(day));
    const Moment m{day, *rc::gen::inRange(0, 1440)};
    RC_ASSERT(parse_moment(moment_text(m)) == m);
  }));
  EXPECT_EQ(weekday(*parse_day("2026-11-30")), 0); // a Monday
  EXPECT_EQ(*parse_day("2024-03-01") - *parse_day("2024-02-28"), 2);
  EXPECT_EQ(month(*parse_day("2026-12-01")), 12);
  EXPECT_EQ(day_of_month(*parse_day("2026-12-01")), 1);
}

TEST(Day, WhatIsNoDayIsNone) {
  for (const char* text : {"", "2026-13-01", "2026-02-29", "2026-1-1", "26-11-30", "2026/11/30", "2026-11-3o",
                           "2026-11-30 ", "1989-12-31", "2200-01-01", "-026-11-30"})
    EXPECT_FALSE(parse_day(text)) << text;
  for (const char* text : {"2026-11-30 24:00", "2026-11-30 10:60", "2026-11-30T10:30", "2026-11-30 1:30", "10:30"})
    EXPECT_FALSE(parse_moment(text)) << text;
  EXPECT_EQ(parse_moment("2026-11-30")->minute, 0);
}

} // namespace
} // namespace mavrel::work
