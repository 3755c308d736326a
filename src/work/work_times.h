// When a shop works: the hours of its days, counted from the first morning's start. Inside, time is whole milliseconds,
// so that nothing is lost or won by rounding.
#pragma once

#include <cstdint>
#include <functional>
#include <vector>

namespace mavrel::work {

using Tick = std::int64_t; // ms
[[nodiscard]] Tick ticks(double hours);
[[nodiscard]] constexpr double hours_of(Tick t) {
  return static_cast<double>(t) / 3.6e6;
}

/// One thread's own: it remembers the days it has looked at.
class WorkTimes {
public:
  /// @param day_hours  h worked a day, above 0 and up to 24
  /// @param works      whether a day is worked, the first being 0; must say yes again and again. Left out: every day
  explicit WorkTimes(double day_hours, std::function<bool(int)> works = {});

  /// The first moment at `t` or later at which work may begin.
  [[nodiscard]] Tick next(Tick t) const;
  /// The same for what takes no time: a day's end will do as well.
  [[nodiscard]] Tick next_moment(Tick t) const;
  /// When `work` that begins at `start` is done. @param start  as `next` gives it
  [[nodiscard]] Tick after(Tick start, Tick work) const;
  /// Work that is done between two moments.
  [[nodiscard]] Tick worked(Tick from, Tick to) const;
  [[nodiscard]] bool works(int day) const;

private:
  /// The n-th day that is worked, and how many are worked before a day.
  [[nodiscard]] int worked_day(std::int64_t n) const;
  [[nodiscard]] std::int64_t worked_before(std::int64_t day) const;
  void look_to(std::int64_t day) const;

  Tick length_;
  std::function<bool(int)> works_;
  mutable std::vector<int> days_;            // that are worked
  mutable std::vector<std::int64_t> before_; // worked ones before each day
};

} // namespace mavrel::work
