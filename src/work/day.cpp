#include "work/day.h"

#include <fmt/format.h>

#include <charconv>
#include <chrono>

namespace mavrel::work {

namespace {

using namespace std::chrono;

std::optional<int> digits(std::string_view text) {
  int out = 0;
  for (const char c : text)
    if (c < '0' || c > '9') return std::nullopt;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), out);
  return error == std::errc() && end == text.data() + text.size() ? std::optional(out) : std::nullopt;
}
year_month_day date(Day day) {
  return year_month_day(sys_days(days(day)));
}

} // namespace

std::optional<Day> parse_day(std::string_view text) {
  if (text.size() != 10 || text[4] != '-' || text[7] != '-') return std::nullopt;
  const auto y = digits(text.substr(0, 4)), m = digits(text.substr(5, 2)), d = digits(text.substr(8, 2));
  if (!y || !m || !d || *y < 1990 || *y > 2199) return std::nullopt;
  const year_month_day date{year(*y), std::chrono::month(static_cast<unsigned>(*m)),
                            std::chrono::day(static_cast<unsigned>(*d))};
  if (!date.ok()) return std::nullopt;
  return static_cast<Day>(sys_days(date).time_since_epoch().count());
}

std::string day_text(Day day) {
  const year_month_day d = date(day);
  return fmt::format("{:04}-{:02}-{:02}", static_cast<int>(d.year()), static_cast<unsigned>(d.month()),
                     static_cast<unsigned>(d.day()));
}

int weekday(Day day) {
  return static_cast<int>(std::chrono::weekday(sys_days(days(day))).iso_encoding()) - 1;
}
int day_of_month(Day day) {
  return static_cast<int>(static_cast<unsigned>(date(day).day()));
}
int month(Day day) {
  return static_cast<int>(static_cast<unsigned>(date(day).month()));
}

std::optional<Moment> parse_moment(std::string_view text) {
  const auto day = parse_day(text.substr(0, 10));
  if (!day) return std::nullopt;
  if (text.size() == 10) return Moment{*day, 0};
  if (text.size() != 16 || text[10] != ' ' || text[13] != ':') return std::nullopt;
  const auto h = digits(text.substr(11, 2)), m = digits(text.substr(14, 2));
  if (!h || !m || *h > 23 || *m > 59) return std::nullopt;
  return Moment{*day, *h * 60 + *m};
}

std::string moment_text(const Moment& moment) {
  return fmt::format("{} {:02}:{:02}", day_text(moment.day), moment.minute / 60, moment.minute % 60);
}

} // namespace mavrel::work
