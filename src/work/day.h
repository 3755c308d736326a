// Days and moments as files write them: `2026-11-30`, `2026-11-30 10:30`. No time zones: a shop has one clock.
#pragma once

#include <cstdint>
#include <optional>
#include <string>
#include <string_view>

namespace mavrel::work {

/// Days since 1970-01-01.
using Day = std::int32_t;
/// @returns the day; none where the text is none of the calendar's, from 1990 to 2199
[[nodiscard]] std::optional<Day> parse_day(std::string_view text);
[[nodiscard]] std::string day_text(Day day);
/// 0 is Monday.
[[nodiscard]] int weekday(Day day);
[[nodiscard]] int day_of_month(Day day);
[[nodiscard]] int month(Day day); // 1 is January

/// A minute of a day.
struct Moment {
  Day day = 0;
  int minute = 0; // since midnight
  friend auto operator<=>(const Moment&, const Moment&) = default;
};
/// A day alone is its beginning.
[[nodiscard]] std::optional<Moment> parse_moment(std::string_view text);
[[nodiscard]] std::string moment_text(const Moment& moment);

} // namespace mavrel::work
