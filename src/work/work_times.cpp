#include "work/work_times.h"

#include <algorithm>
#include <cassert>
#include <cmath>
#include <utility>

namespace mavrel::work {

namespace {
constexpr Tick day = 24 * 3600 * 1000;
} // namespace

Tick ticks(double hours) {
  return std::llround(hours * 3.6e6);
}

WorkTimes::WorkTimes(double day_hours, std::function<bool(int)> works)
    : length_(ticks(day_hours)), works_(std::move(works)) {
  assert(length_ > 0 && length_ <= day);
}

void WorkTimes::look_to(std::int64_t last) const {
  while (static_cast<std::int64_t>(before_.size()) <= last) {
    const int d = static_cast<int>(before_.size());
    before_.push_back(static_cast<std::int64_t>(days_.size()));
    if (works_(d)) days_.push_back(d);
  }
}

int WorkTimes::worked_day(std::int64_t n) const {
  if (!works_) return static_cast<int>(n);
  while (static_cast<std::int64_t>(days_.size()) <= n)
    look_to(static_cast<std::int64_t>(before_.size()) + 30);
  return days_[static_cast<std::size_t>(n)];
}

std::int64_t WorkTimes::worked_before(std::int64_t d) const {
  if (!works_) return d;
  look_to(d);
  return before_[static_cast<std::size_t>(d)];
}

bool WorkTimes::works(int d) const {
  return !works_ || works_(d);
}

Tick WorkTimes::next(Tick t) const {
  const std::int64_t d = std::max<Tick>(t, 0) / day;
  if (t >= 0 && works(static_cast<int>(d)) && t - d * day < length_) return t;
  const bool today_is_over = t >= 0 && t - d * day >= length_;
  return worked_day(worked_before(today_is_over ? d + 1 : d)) * day;
}

Tick WorkTimes::next_moment(Tick t) const {
  const std::int64_t d = std::max<Tick>(t, 0) / day;
  if (t >= 0 && works(static_cast<int>(d)) && t - d * day == length_) return t;
  return next(t);
}

Tick WorkTimes::after(Tick start, Tick work) const {
  if (work <= 0) return start;
  const std::int64_t d = start / day;
  const Tick left_today = length_ - (start - d * day);
  if (work <= left_today) return start + work;
  const Tick rest = work - left_today;
  const std::int64_t whole = (rest - 1) / length_; // days that are filled before the last
  return worked_day(worked_before(d + 1) + whole) * day + rest - whole * length_;
}

Tick WorkTimes::worked(Tick from, Tick to) const {
  const auto done_by = [&](Tick t) {
    if (t <= 0) return Tick{0};
    const std::int64_t d = t / day;
    return worked_before(d) * length_ + (works(static_cast<int>(d)) ? std::min(t - d * day, length_) : 0);
  };
  return std::max<Tick>(0, done_by(to) - done_by(from));
}

} // namespace mavrel::work
