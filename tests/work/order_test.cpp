#include "work/order.h"

#include "support.h"

#include <nlohmann/json.hpp>

namespace mavrel::work {
namespace {

Task task(const char* id, double hours, std::vector<std::string> after = {}, double wait = 0) {
  Task out;
  out.id = id;
  out.hours = hours;
  out.after = std::move(after);
  out.wait = wait;
  return out;
}

/// Every way along what comes before, one by one.
double longest_to(const std::vector<Task>& tasks, const Order& order, std::size_t i) {
  double out = 0;
  for (const std::size_t b : order.before[i])
    out = std::max(out, longest_to(tasks, order, b) + tasks[b].hours + tasks[b].wait);
  return out;
}
double longest_from(const std::vector<Task>& tasks, const Order& order, std::size_t i) {
  double out = 0;
  for (const std::size_t b : order.behind[i])
    out = std::max(out, longest_from(tasks, order, b));
  return out + tasks[i].hours + tasks[i].wait;
}

TEST(CriticalPath, WaitsCountAndTheLastOneToo) {
  const std::vector<Task> tasks{task("weld", 4, {}, 2), task("paint", 1.5, {"weld"}, 24), task("lines", 5)};
  const auto order = order_of(tasks);
  ASSERT_TRUE(order);
  const CriticalPath path = critical_path(tasks, *order);
  EXPECT_DOUBLE_EQ(path.span, 31.5);
  EXPECT_DOUBLE_EQ(path.tasks[1].earliest, 6);
  EXPECT_TRUE(path.tasks[0].critical);
  EXPECT_TRUE(path.tasks[1].critical);
  EXPECT_FALSE(path.tasks[2].critical);
  EXPECT_DOUBLE_EQ(path.tasks[2].slack, 26.5);
  EXPECT_DOUBLE_EQ(path.tasks[2].latest, 26.5);
}

TEST(CriticalPath, IsWhatEveryWayOneByOneComesTo) {
  EXPECT_TRUE(rc::check("critical path by brute force", [] {
    std::vector<Task> tasks;
    const int count = *rc::gen::inRange(1, 9);
    for (int i = 0; i < count; ++i) {
      Task t =
          task(("job " + std::to_string(i)).c_str(), *rc::gen::inRange(0, 40) / 4.0, {}, *rc::gen::inRange(0, 8) / 2.0);
      for (int b = 0; b < i; ++b)
        if (*rc::gen::inRange(0, 3) == 0) t.after.push_back("job " + std::to_string(b));
      tasks.push_back(std::move(t));
    }
    const auto order = order_of(tasks);
    RC_ASSERT(order.has_value());
    const CriticalPath path = critical_path(tasks, *order);
    double span = 0;
    for (std::size_t i = 0; i < tasks.size(); ++i)
      span = std::max(span, longest_to(tasks, *order, i) + tasks[i].hours + tasks[i].wait);
    RC_ASSERT(std::abs(path.span - span) < 1e-9);
    bool any = false;
    for (std::size_t i = 0; i < tasks.size(); ++i) {
      RC_ASSERT(std::abs(path.tasks[i].earliest - longest_to(tasks, *order, i)) < 1e-9);
      RC_ASSERT(std::abs(path.tasks[i].latest - (span - longest_from(tasks, *order, i))) < 1e-9);
      RC_ASSERT(path.tasks[i].slack >= 0);
      any = any || path.tasks[i].critical;
    }
    RC_ASSERT(any);
  }));
}

TEST(Order, NamesTheCircleFromItsFirstToItsFirstAgain) {
  const std::vector<Task> tasks{task("strip", 1), task("mock-up", 1, {"strip", "cycle"}), task("tack", 1, {"mock-up"}),
                                task("cycle", 1, {"tack"})};
  const auto order = order_of(tasks);
  ASSERT_FALSE(order);
  const std::string said = say(order.error());
  for (const char* id : {"mock-up", "tack", "cycle"})
    EXPECT_NE(said.find(id), std::string::npos) << said;
  EXPECT_EQ(said.find("strip"), std::string::npos) << said; // it is in no circle
}

TEST(Order, RefusesWhatIsDoubledUnknownOrComesAfterItself) {
  EXPECT_NE(say(order_of(std::vector{task("a", 1), task("a", 2)}).error()).find("“a”"), std::string::npos);
  EXPECT_NE(say(order_of(std::vector{task("a", 1, {"b"})}).error()).find("“b”"), std::string::npos);
  EXPECT_NE(say(order_of(std::vector{task("a", 1, {"a"})}).error()).find("a → a"), std::string::npos);
  EXPECT_TRUE(order_of(std::vector<Task>{}));
  // The same job named twice is one arrow.
  const auto twice = order_of(std::vector{task("a", 1), task("b", 1, {"a", "a"})});
  ASSERT_TRUE(twice);
  EXPECT_EQ(twice->before[1].size(), 1U);
}

} // namespace
} // namespace mavrel::work
