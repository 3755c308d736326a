#include "work/order.h"

#include <algorithm>
#include <unordered_map>

namespace mavrel::work {

namespace {

/// A circle among the tasks that could not be sorted: from any of them back along what comes before.
Message circle(std::span<const Task> tasks, const Order& order, const std::vector<std::size_t>& left) {
  std::vector<std::size_t> way;
  std::vector<char> seen(tasks.size(), 0);
  std::size_t at = static_cast<std::size_t>(
      std::find_if(left.begin(), left.end(), [](std::size_t missing) { return missing > 0; }) - left.begin());
  while (!seen[at]) {
    seen[at] = 1;
    way.push_back(at);
    at = *std::find_if(order.before[at].begin(), order.before[at].end(), [&](std::size_t b) { return left[b] > 0; });
  }
  way.erase(way.begin(), std::find(way.begin(), way.end(), at));
  std::reverse(way.begin(), way.end());
  std::string text;
  for (const std::size_t one : way)
    text += tasks[one].id + " → ";
  return {words("These jobs wait for one another in a circle: {0}. Take one of the arrows away."),
          {text + tasks[way.front()].id}};
}

} // namespace

Expected<Order> order_of(std::span<const Task> tasks) {
  Order out;
  out.before.resize(tasks.size());
  out.behind.resize(tasks.size());
  std::unordered_map<std::string_view, std::size_t> at;
  for (std::size_t i = 0; i < tasks.size(); ++i)
    if (!at.emplace(tasks[i].id, i).second)
      return refuse(words("Two jobs are called “{0}”; each needs a name of its own."), {tasks[i].id});
  for (std::size_t i = 0; i < tasks.size(); ++i)
    for (const std::string& id : tasks[i].after) {
      const auto found = at.find(id);
      if (found == at.end())
        return refuse(words("“{0}” comes after “{1}”, and no job is called that."), {tasks[i].id, id});
      if (std::find(out.before[i].begin(), out.before[i].end(), found->second) != out.before[i].end()) continue;
      out.before[i].push_back(found->second);
      out.behind[found->second].push_back(i);
    }
  std::vector<std::size_t> left(tasks.size());
  for (std::size_t i = 0; i < tasks.size(); ++i) {
    left[i] = out.before[i].size();
    if (left[i] == 0) out.sorted.push_back(i);
  }
  for (std::size_t n = 0; n < out.sorted.size(); ++n)
    for (const std::size_t next : out.behind[out.sorted[n]])
      if (--left[next] == 0) out.sorted.push_back(next);
  if (out.sorted.size() < tasks.size()) return refuse(circle(tasks, out, left));
  return out;
}

CriticalPath critical_path(std::span<const Task> tasks, const Order& order) {
  CriticalPath out;
  out.tasks.resize(tasks.size());
  const auto takes = [&](std::size_t i) { return tasks[i].hours + tasks[i].wait; };
  for (const std::size_t i : order.sorted) {
    double& earliest = out.tasks[i].earliest;
    for (const std::size_t b : order.before[i])
      earliest = std::max(earliest, out.tasks[b].earliest + takes(b));
    out.span = std::max(out.span, earliest + takes(i));
  }
  for (auto at = order.sorted.rbegin(); at != order.sorted.rend(); ++at) {
    double end = out.span;
    for (const std::size_t next : order.behind[*at])
      end = std::min(end, out.tasks[next].latest);
    PathTask& task = out.tasks[*at];
    task.latest = end - takes(*at);
    task.slack = task.latest - task.earliest;
    // Sums of the same hours in another order differ in their last digits.
    task.critical = task.slack <= 1e-9 * std::max(1.0, out.span);
    if (task.critical) task.latest = task.earliest, task.slack = 0;
  }
  return out;
}

} // namespace mavrel::work
