#include "work/schedule.h"

#include "support.h"

#include <algorithm>
#include <numeric>

namespace mavrel::work {
namespace {

Shop shop_of(int people, double day = 9) {
  Shop out;
  out.people.resize(static_cast<std::size_t>(people));
  out.resources = {{"lift", 1}, {"bench", 2}};
  out.times = WorkTimes(day);
  return out;
}

struct Random {
  std::vector<Task> tasks;
  Shop shop;
};
Random random_case(int most, bool skilled) {
  Random out{{}, shop_of(*rc::gen::inRange(1, 4), *rc::gen::element(6.0, 8.0, 9.0))};
  const int people = static_cast<int>(out.shop.people.size());
  if (skilled)
    for (Person& p : out.shop.people)
      p.skills = static_cast<std::uint32_t>(*rc::gen::inRange(0, 4));
  out.shop.people[0].skills = 3;
  const int count = *rc::gen::inRange(1, most + 1);
  for (int i = 0; i < count; ++i) {
    Task t;
    t.id = std::to_string(i);
    t.hours = *rc::gen::inRange(0, 24) / 2.0;
    t.by_the_clock = *rc::gen::inRange(0, 6) == 0;
    t.people = *rc::gen::inRange(0, people + 1);
    if (skilled && t.people > 0 && *rc::gen::inRange(0, 3) == 0) t.skilled = 1, t.skill = 1U << *rc::gen::inRange(0, 2);
    t.wait = *rc::gen::inRange(0, 4) == 0 ? *rc::gen::inRange(0, 20) : 0;
    if (*rc::gen::inRange(0, 2) == 0) t.needs.push_back({static_cast<std::size_t>(*rc::gen::inRange(0, 2)), 1});
    for (int b = 0; b < i; ++b)
      if (*rc::gen::inRange(0, 4) == 0) t.after.push_back(std::to_string(b));
    out.tasks.push_back(std::move(t));
  }
  return out;
}

/// Nothing of it is broken: order, waits, hours, places, people.
void expect_sound(const Random& c, const Schedule& s) {
  const auto order = order_of(c.tasks);
  double span = 0;
  for (std::size_t i = 0; i < c.tasks.size(); ++i) {
    const Task& t = c.tasks[i];
    const Placed& p = s.tasks[i];
    RC_ASSERT(p.start >= -1e-9);
    for (const std::size_t b : order->before[i])
      RC_ASSERT(p.start >= s.tasks[b].end + c.tasks[b].wait - 1e-6);
    const Tick start = ticks(p.start), end = ticks(p.end);
    if (t.by_the_clock) {
      RC_ASSERT(std::abs(p.end - p.start - t.hours) < 1e-6);
    } else {
      RC_ASSERT((t.hours > 0 ? c.shop.times.next(start) : c.shop.times.next_moment(start)) == start);
      RC_ASSERT(std::abs(hours_of(c.shop.times.worked(start, end)) - t.hours) < 1e-6);
      if (t.hours > 0) {
        RC_ASSERT(static_cast<int>(p.people.size()) == t.people);
      }
      int able = 0;
      for (const std::size_t who : p.people)
        able += (c.shop.people[who].skills & t.skill) == t.skill;
      if (t.hours > 0) {
        RC_ASSERT(able >= t.skilled);
      }
    }
    span = std::max(span, p.end + t.wait);
    for (std::size_t k = 0; k < i; ++k) {
      const Placed& q = s.tasks[k];
      if (!(p.start < q.end - 1e-9 && q.start < p.end - 1e-9)) continue;
      for (const std::size_t who : p.people) // nobody is in two places
        RC_ASSERT(std::find(q.people.begin(), q.people.end(), who) == q.people.end());
    }
    for (std::size_t r = 0; r < c.shop.resources.size(); ++r) {
      if (t.needs.empty() || t.needs[0].resource != r || p.end <= p.start) continue;
      int held = 0;
      for (std::size_t k = 0; k < c.tasks.size(); ++k)
        held += !c.tasks[k].needs.empty() && c.tasks[k].needs[0].resource == r && s.tasks[k].start <= p.start + 1e-9 &&
                s.tasks[k].end > p.start + 1e-9;
      RC_ASSERT(held <= c.shop.resources[r].count);
    }
  }
  RC_ASSERT(std::abs(span - s.span) < 1e-6);
}

TEST(Schedule, BreaksNoOrderWaitHourPlaceOrPerson) {
  EXPECT_TRUE(rc::check("sound schedules", [] {
    const Random c = random_case(24, *rc::gen::arbitrary<bool>());
    const auto s = schedule(c.tasks, c.shop);
    RC_PRE(s.has_value());
    expect_sound(c, *s);
  }));
}

/// The best there is, by every order in which tasks can be placed; each as early as it goes.
double best_of_all(const Random& c) {
  std::vector<std::size_t> order(c.tasks.size());
  std::iota(order.begin(), order.end(), std::size_t{0});
  const auto sorted = order_of(c.tasks);
  double best = 1e9;
  do {
    bool fits = true;
    std::vector<std::size_t> at(order.size());
    for (std::size_t k = 0; k < order.size(); ++k)
      at[order[k]] = k;
    for (std::size_t i = 0; i < order.size() && fits; ++i)
      for (const std::size_t b : sorted->before[i])
        fits = fits && at[b] < at[i];
    if (!fits) continue;
    // Hour by half hour, as somebody with a wall planner would: slow, and of another make.
    std::vector<Placed> placed(c.tasks.size());
    std::vector<char> done(c.tasks.size(), 0);
    double span = 0;
    for (const std::size_t i : order) {
      const Task& t = c.tasks[i];
      double from = 0;
      for (const std::size_t b : sorted->before[i])
        from = std::max(from, placed[b].end + c.tasks[b].wait);
      for (double start = std::ceil(from * 2 - 1e-9) / 2;; start += 0.5) {
        const Tick s = ticks(start);
        if (!t.by_the_clock && (t.hours > 0 ? c.shop.times.next(s) : c.shop.times.next_moment(s)) != s) continue;
        const double end = t.by_the_clock ? start + t.hours : hours_of(c.shop.times.after(s, ticks(t.hours)));
        bool free = true;
        for (double x = start; x < end - 1e-9 && free; x += 0.5) {
          int people = 0, held = 0;
          for (std::size_t k = 0; k < c.tasks.size(); ++k) {
            if (!done[k] || !(placed[k].start <= x + 1e-9 && placed[k].end > x + 1e-9)) continue;
            if (!c.tasks[k].by_the_clock) people += c.tasks[k].people;
            held += !t.needs.empty() && !c.tasks[k].needs.empty() && c.tasks[k].needs[0] == t.needs[0];
          }
          if (!t.by_the_clock) free = people + t.people <= static_cast<int>(c.shop.people.size());
          if (!t.needs.empty()) free = free && held < c.shop.resources[t.needs[0].resource].count;
        }
        if (!free) continue;
        placed[i] = {start, end, {}};
        done[i] = 1;
        span = std::max(span, end + t.wait);
        break;
      }
    }
    best = std::min(best, span);
  } while (std::next_permutation(order.begin(), order.end()));
  return best;
}

TEST(Schedule, OfAFewTasksIsTheShortestThereIs) {
  EXPECT_TRUE(rc::check("shortest of all", [] {
    const Random c = random_case(5, false);
    const auto s = schedule(c.tasks, c.shop);
    RC_ASSERT(s.has_value());
    const double best = best_of_all(c);
    RC_ASSERT(s->span <= best + 1e-6);
    if (s->proven) {
      RC_ASSERT(s->span >= best - 1e-6);
    }
  }));
}

TEST(Schedule, MuchMoreEffortWinsNextToNothing) {
  double quick = 0, long_looked_for = 0;
  EXPECT_TRUE(rc::check("as short as after long work", [&] {
    const Random c = random_case(30, false);
    const auto a = schedule(c.tasks, c.shop), b = schedule(c.tasks, c.shop, 30);
    RC_ASSERT(a && b);
    RC_ASSERT(b->span <= a->span + 1e-9);
    quick += a->span, long_looked_for += b->span;
  }));
  EXPECT_LE(quick, 1.02 * long_looked_for);
}

TEST(Schedule, IsTheSameEveryTime) {
  EXPECT_TRUE(rc::check("same again", [] {
    const Random c = random_case(30, true);
    const auto a = schedule(c.tasks, c.shop), b = schedule(c.tasks, c.shop);
    RC_PRE(a.has_value());
    for (std::size_t i = 0; i < c.tasks.size(); ++i) {
      RC_ASSERT(a->tasks[i].start == b->tasks[i].start);
      RC_ASSERT(a->tasks[i].people == b->tasks[i].people);
    }
  }));
}

TEST(Schedule, WorkPausesOvernightAndWaitsDoNot) {
  Task weld, paint, fit;
  weld.id = "weld", weld.hours = 12, weld.people = 1;
  paint.id = "paint", paint.hours = 1, paint.people = 1, paint.after = {"weld"}, paint.wait = 24;
  fit.id = "fit", fit.hours = 1, fit.people = 1, fit.after = {"paint"};
  const std::vector tasks{weld, paint, fit};
  const auto s = schedule(tasks, shop_of(1));
  ASSERT_TRUE(s);
  EXPECT_DOUBLE_EQ(s->tasks[0].end, 27); // nine hours, a night, three more
  EXPECT_DOUBLE_EQ(s->tasks[1].end, 28);
  EXPECT_DOUBLE_EQ(s->tasks[2].start, 52); // a day later on the clock, and that is a working hour
  EXPECT_TRUE(s->proven);
}

TEST(Schedule, FreeDaysAreNotWorkedAndWhoIsAwayIsNotCounted) {
  Task job;
  job.id = "job", job.hours = 12, job.people = 1;
  Shop shop = shop_of(1);
  shop.times = WorkTimes(9, [](int day) { return day != 1 && day != 2; });
  const std::vector tasks{job};
  auto s = schedule(tasks, shop);
  ASSERT_TRUE(s);
  EXPECT_DOUBLE_EQ(s->tasks[0].end, 75); // the fourth day
  // Who is away on the second day can't begin what would reach into it.
  shop = shop_of(2);
  shop.people[0].away = {{0, 240}};
  shop.people[1].away = {{24, 48}};
  s = schedule(tasks, shop);
  ASSERT_TRUE(s);
  EXPECT_DOUBLE_EQ(s->tasks[0].start, 48);
  EXPECT_EQ(s->tasks[0].people, std::vector<std::size_t>{1});
}

TEST(Schedule, WhoIsToldToDoesIt) {
  Task a, b;
  a.id = "a", a.hours = 2, a.people = 1, a.who = {1};
  b.id = "b", b.hours = 3, b.people = 1, b.who = {1};
  const std::vector tasks{a, b};
  const auto s = schedule(tasks, shop_of(3));
  ASSERT_TRUE(s);
  EXPECT_EQ(s->tasks[0].people, std::vector<std::size_t>{1});
  EXPECT_EQ(s->tasks[1].people, std::vector<std::size_t>{1});
  EXPECT_DOUBLE_EQ(s->span, 5); // one after the other, though two stand by
}

TEST(Schedule, WhatIsDoneOrRunsStays) {
  Task done, runs, next;
  done.id = "done", done.hours = 0, done.fixed = {{0, 2.5}};
  runs.id = "runs", runs.hours = 4, runs.people = 1, runs.after = {"done"}, runs.fixed = {{2.5, 6.5}};
  next.id = "next", next.hours = 1, next.people = 1, next.after = {"runs"}, next.not_before = 3;
  const std::vector tasks{done, runs, next};
  const auto s = schedule(tasks, shop_of(1));
  ASSERT_TRUE(s);
  EXPECT_DOUBLE_EQ(s->tasks[1].start, 2.5);
  EXPECT_DOUBLE_EQ(s->tasks[2].start, 6.5);
}

TEST(Schedule, SaysWhatNobodyCanDo) {
  Task job;
  job.id = "weld", job.hours = 1, job.people = 3;
  EXPECT_NE(say(schedule(std::vector{job}, shop_of(2)).error()).find("“weld”"), std::string::npos);
  job.people = 1, job.skilled = 1, job.skill = 1;
  EXPECT_NE(say(schedule(std::vector{job}, shop_of(2)).error()).find("“weld”"), std::string::npos);
  job.skilled = 0, job.needs = {{0, 2}};
  EXPECT_NE(say(schedule(std::vector{job}, shop_of(2)).error()).find("“lift”"), std::string::npos);
  Shop shop = shop_of(2);
  shop.people[0].skills = 1;
  shop.people[1].name = "Joren";
  job.needs.clear(), job.skilled = 1, job.who = {1};
  EXPECT_NE(say(schedule(std::vector{job}, shop).error()).find("Joren"), std::string::npos);
}

TEST(WorkTimes, AreWhatCountingMinutesComesTo) {
  EXPECT_TRUE(rc::check("hours counted one by one", [] {
    const int length = *rc::gen::inRange(1, 25);
    const auto free = *rc::gen::container<std::vector<int>>(rc::gen::inRange(0, 12));
    const WorkTimes times(
        length, [free](int day) { return day > 20 || std::find(free.begin(), free.end(), day) == free.end(); });
    const int from = *rc::gen::inRange(0, 24 * 15), work = *rc::gen::inRange(0, 60);
    // Hour by hour.
    const auto worked = [&](int h) { return times.works(h / 24) && h % 24 < length; };
    int at = from;
    while (!worked(at))
      ++at;
    RC_ASSERT(times.next(ticks(from)) == ticks(at));
    int left = work, end = at;
    while (left > 0) {
      if (worked(end)) --left;
      ++end;
    }
    RC_ASSERT(times.after(ticks(at), ticks(work)) == ticks(work == 0 ? at : end));
    RC_ASSERT(times.worked(ticks(at), ticks(end)) == ticks(work));
  }));
}

} // namespace
} // namespace mavrel::work
