#include "work/schedule.h"

#include <algorithm>
#include <numeric>
#include <random>

namespace mavrel::work {

namespace {

/// How much of something is held over time, as steps.
class Profile {
public:
  /// @returns the end of the last stretch in [from, to) that holds more than `most`; none: there is no such stretch
  [[nodiscard]] std::optional<Tick> blocked(Tick from, Tick to, int most) const {
    if (to <= from) return {}; // what takes no time holds nothing
    for (std::size_t i = steps_.size(); i-- > 0;) {
      if (steps_[i].first >= to) continue;
      const Tick end = i + 1 < steps_.size() ? steps_[i + 1].first : to;
      if (end <= from) return {};
      if (steps_[i].second > most) return end;
    }
    return {};
  }
  void hold(Tick from, Tick to, int amount) {
    if (to <= from || amount == 0) return;
    const std::size_t first = split(from), last = split(to);
    for (std::size_t i = first; i < last; ++i)
      steps_[i].second += amount;
  }

private:
  std::size_t split(Tick t) {
    const auto at =
        std::lower_bound(steps_.begin(), steps_.end(), t, [](const auto& s, Tick when) { return s.first < when; });
    if (at != steps_.end() && at->first == t) return static_cast<std::size_t>(at - steps_.begin());
    const int held = at == steps_.begin() ? 0 : std::prev(at)->second;
    const auto made = steps_.insert(at, {t, held});
    return static_cast<std::size_t>(made - steps_.begin());
  }
  std::vector<std::pair<Tick, int>> steps_; // from when, how many; the last holds for good and is 0
};

using Stretch = std::pair<Tick, Tick>;
bool overlap(const Stretch& a, const Stretch& b) {
  return a.first < b.second && b.first < a.second;
}

struct Timed {
  Tick hours = 0, wait = 0, not_before = 0;
};

/// A wait stands between a task and those behind it: placed from the end, it comes before the task itself.
enum class Goes { forwards, backwards };

/// Who the people of a shop are to a scheduler: alike, or each a person of their own.
enum class Hands { counted, named };

/// A schedule in the making. Copied freely by the search of all orders.
class Placing {
public:
  Placing(std::span<const Task> tasks, const Order& order, const std::vector<Timed>& timed, const Shop& shop,
          Hands hands, Goes goes = Goes::forwards)
      : tasks_(tasks), order_(order), timed_(timed), shop_(shop), hands_(hands), goes_(goes),
        held_(shop.resources.size()), busy_(shop.people.size()), at_(tasks.size()), people_(tasks.size()) {
    if (hands_ == Hands::named)
      for (std::size_t p = 0; p < shop.people.size(); ++p)
        for (const auto& [from, to] : shop.people[p].away)
          busy_[p].emplace_back(ticks(from), ticks(to));
  }

  /// Places a task as early as it goes. All before it must be placed.
  void place(std::size_t i) {
    const Task& task = tasks_[i];
    if (task.fixed) return put(i, ticks(task.fixed->first), ticks(task.fixed->second));
    Tick t = ready(i);
    for (;;) {
      t = begins(i, t);
      const Tick end = ends(i, t);
      const std::optional<Tick> later = blocked(i, t, end);
      if (!later) return put(i, t, end);
      t = *later;
    }
  }
  [[nodiscard]] Tick ready(std::size_t i) const {
    Tick t = timed_[i].not_before;
    for (const std::size_t b : order_.before[i])
      t = std::max(t, at_[b].second + timed_[goes_ == Goes::forwards ? b : i].wait);
    return t;
  }
  [[nodiscard]] Tick end_of(std::size_t i) const { return at_[i].second; }
  [[nodiscard]] Tick span() const { return span_; }
  [[nodiscard]] Tick total() const { return total_; }
  [[nodiscard]] Schedule done() const {
    Schedule out;
    for (std::size_t i = 0; i < tasks_.size(); ++i)
      out.tasks.push_back({hours_of(at_[i].first), hours_of(at_[i].second), people_[i]});
    out.span = hours_of(span_);
    return out;
  }
  /// Gives alike people their names, in the order that tasks begin. @returns whether there are enough, as there are
  [[nodiscard]] bool name_people() {
    std::vector<std::size_t> by_start(tasks_.size());
    std::iota(by_start.begin(), by_start.end(), std::size_t{0});
    std::stable_sort(by_start.begin(), by_start.end(), [&](std::size_t a, std::size_t b) {
      // Who is at work already goes before who begins.
      return std::make_pair(!tasks_[a].fixed, at_[a].first) < std::make_pair(!tasks_[b].fixed, at_[b].first);
    });
    for (const std::size_t i : by_start) {
      if (!takes_people(i)) continue;
      std::size_t got = 0;
      for (std::size_t p = 0; p < busy_.size() && got < static_cast<std::size_t>(tasks_[i].people); ++p)
        if (free(p, at_[i])) {
          people_[i].push_back(p);
          busy_[p].push_back(at_[i]);
          ++got;
        }
      if (got < static_cast<std::size_t>(tasks_[i].people) && !tasks_[i].fixed) return false;
    }
    return true;
  }

private:
  [[nodiscard]] bool takes_people(std::size_t i) const {
    return !tasks_[i].by_the_clock && tasks_[i].people > 0 && at_[i].second > at_[i].first;
  }
  [[nodiscard]] Tick begins(std::size_t i, Tick t) const {
    if (tasks_[i].by_the_clock) return t;
    return timed_[i].hours == 0 ? shop_.times.next_moment(t) : shop_.times.next(t);
  }
  [[nodiscard]] Tick ends(std::size_t i, Tick start) const {
    return tasks_[i].by_the_clock ? start + timed_[i].hours : shop_.times.after(start, timed_[i].hours);
  }
  [[nodiscard]] bool free(std::size_t p, const Stretch& at) const {
    return std::none_of(busy_[p].begin(), busy_[p].end(), [&](const Stretch& b) { return overlap(at, b); });
  }
  [[nodiscard]] std::optional<Tick> blocked(std::size_t i, Tick from, Tick to) const {
    const Task& task = tasks_[i];
    std::optional<Tick> later;
    const auto look = [&](const std::optional<Tick>& t) {
      if (t && (!later || *t > *later)) later = t;
    };
    for (const Need& need : task.needs)
      look(held_[need.resource].blocked(from, to, shop_.resources[need.resource].count - need.amount));
    if (task.by_the_clock || task.people == 0 || to <= from) return later;
    if (hands_ == Hands::counted)
      look(all_.blocked(from, to, static_cast<int>(shop_.people.size()) - task.people));
    else if (!later && choose(i, {from, to}).empty())
      look(first_free(from, to));
    return later;
  }
  /// The first moment at which somebody more is free.
  [[nodiscard]] Tick first_free(Tick from, Tick to) const {
    std::optional<Tick> first;
    for (const auto& one : busy_)
      for (const Stretch& b : one)
        if (overlap(b, {from, to}) && (!first || b.second < *first)) first = b.second;
    return std::max(from + 1, *first);
  }
  /// People for a task: of those free the skilled it needs, and the least skilled besides. Empty: too few.
  [[nodiscard]] std::vector<std::size_t> choose(std::size_t i, const Stretch& at) const {
    const Task& task = tasks_[i];
    std::vector<std::size_t> there;
    for (std::size_t p = 0; p < busy_.size(); ++p)
      if (free(p, at)) there.push_back(p);
    std::stable_sort(there.begin(), there.end(), [&](std::size_t a, std::size_t b) {
      return __builtin_popcount(shop_.people[a].skills) < __builtin_popcount(shop_.people[b].skills);
    });
    std::vector<std::size_t> out;
    for (const std::size_t p : task.who) {
      if (std::find(there.begin(), there.end(), p) == there.end()) return {};
      out.push_back(p);
    }
    const auto able = [&](std::size_t p) { return (shop_.people[p].skills & task.skill) == task.skill; };
    const auto take = [&](int most, bool skilled) {
      for (const std::size_t p : there) {
        if (static_cast<int>(out.size()) >= most) return;
        if (std::find(out.begin(), out.end(), p) != out.end()) continue;
        if (!skilled || able(p)) out.push_back(p);
      }
    };
    const auto told_able = std::count_if(out.begin(), out.end(), able);
    take(static_cast<int>(out.size()) + std::max(0, task.skilled - static_cast<int>(told_able)), true);
    if (std::count_if(out.begin(), out.end(), able) < task.skilled) return {};
    take(task.people, false);
    if (static_cast<int>(out.size()) < task.people) return {};
    return out;
  }
  void put(std::size_t i, Tick from, Tick to) {
    const Task& task = tasks_[i];
    at_[i] = {from, to};
    for (const Need& need : task.needs)
      held_[need.resource].hold(from, to, need.amount);
    if (takes_people(i)) {
      if (hands_ == Hands::counted)
        all_.hold(from, to, task.people);
      else {
        people_[i] = choose(i, at_[i]);
        for (const std::size_t p : people_[i])
          busy_[p].push_back(at_[i]);
      }
    }
    span_ = std::max(span_, to + timed_[i].wait);
    total_ += to;
  }

  std::span<const Task> tasks_;
  const Order& order_;
  const std::vector<Timed>& timed_;
  const Shop& shop_;
  Hands hands_;
  Goes goes_;
  std::vector<Profile> held_;
  Profile all_;
  std::vector<std::vector<Stretch>> busy_; // a list a person
  std::vector<Stretch> at_;
  std::vector<std::vector<std::size_t>> people_;
  Tick span_ = 0, total_ = 0;
};

/// Looks for a short schedule. One use.
class Search {
public:
  Search(std::span<const Task> tasks, const Order& order, const Shop& shop)
      : tasks_(tasks), order_(order), shop_(shop), path_(critical_path(tasks, order)) {
    for (const Task& task : tasks) {
      timed_.push_back({ticks(task.hours), ticks(task.wait), ticks(task.not_before)});
      if (!task.fixed) ++moving_;
    }
    // How much of the clock must at least pass from a task's begin to the end.
    tail_.resize(tasks.size());
    for (auto at = order.sorted.rbegin(); at != order.sorted.rend(); ++at) {
      Tick behind = 0;
      for (const std::size_t next : order.behind[*at])
        behind = std::max(behind, tail_[next]);
      tail_[*at] = timed_[*at].hours + timed_[*at].wait + behind;
    }
    const bool alike =
        std::all_of(shop.people.begin(), shop.people.end(), [](const Person& p) { return p.away.empty(); }) &&
        std::all_of(tasks.begin(), tasks.end(), [](const Task& task) { return task.who.empty(); }) &&
        std::all_of(tasks.begin(), tasks.end(), [&](const Task& task) {
          return task.skilled == 0 || std::all_of(shop.people.begin(), shop.people.end(), [&](const Person& p) {
                   return (p.skills & task.skill) == task.skill;
                 });
        });
    hands_ = alike ? Hands::counted : Hands::named;
    least_ = least_span();
  }

  [[nodiscard]] Schedule best(int effort) {
    by_rules();
    justify();
    bool all = false;
    if (!short_enough()) {
      if (moving_ <= 8) {
        Placing start(tasks_, order_, timed_, shop_, hands_);
        std::vector<std::size_t> left(tasks_.size());
        for (std::size_t i = 0; i < tasks_.size(); ++i)
          left[i] = order_.before[i].size();
        place_fixed(start, left);
        try_all(start, left);
        all = hands_ == Hands::counted && nodes_ < most_nodes;
      } else {
        by_chance(effort);
        justify();
      }
    }
    if (hands_ == Hands::counted) (void)best_->name_people();
    Schedule out = best_->done();
    out.proven = all || short_enough();
    return out;
  }

private:
  /// What no schedule can be shorter than: each task after the others with nothing shared but the nights.
  [[nodiscard]] Tick least_span() const {
    Shop alone = shop_;
    for (Resource& r : alone.resources)
      r.count = 1 << 20;
    std::vector<Task> free(tasks_.begin(), tasks_.end());
    for (Task& task : free)
      task.people = task.skilled = 0;
    Placing placing(free, order_, timed_, alone, Hands::counted);
    for (const std::size_t i : order_.sorted)
      placing.place(i);
    return placing.span();
  }
  [[nodiscard]] bool short_enough() const { return best_ && best_->span() <= least_; }
  void place_fixed(Placing& placing, std::vector<std::size_t>& left) const {
    for (std::size_t i = 0; i < tasks_.size(); ++i) {
      if (!tasks_[i].fixed) continue;
      placing.place(i);
      left[i] = done;
      for (const std::size_t next : order_.behind[i])
        if (left[next] != done) --left[next];
    }
  }
  /// Places the tasks by rank: of those whose turn may come, the one with the least.
  void by_rank(const std::vector<double>& rank) {
    Placing placing(tasks_, order_, timed_, shop_, hands_);
    std::vector<std::size_t> left(tasks_.size());
    for (std::size_t i = 0; i < tasks_.size(); ++i)
      left[i] = order_.before[i].size();
    place_fixed(placing, left);
    std::vector<std::size_t> ready;
    for (std::size_t i = 0; i < tasks_.size(); ++i)
      if (left[i] == 0) ready.push_back(i);
    while (!ready.empty()) {
      const auto at = std::min_element(ready.begin(), ready.end(), [&](std::size_t a, std::size_t b) {
        return rank[a] != rank[b] ? rank[a] < rank[b] : a < b;
      });
      const std::size_t i = *at;
      ready.erase(at);
      placing.place(i);
      for (const std::size_t next : order_.behind[i])
        if (left[next] != done && --left[next] == 0) ready.push_back(next);
      if (best_ && placing.span() > best_->span()) return; // it gets no shorter
    }
    take(std::move(placing));
  }
  bool take(Placing placing) {
    if (best_ && std::make_pair(placing.span(), placing.total()) >= std::make_pair(best_->span(), best_->total()))
      return false;
    best_.emplace(std::move(placing));
    taken_ = true;
    return true;
  }
  void by_rules() {
    std::vector<std::vector<double>> ranks(5, std::vector<double>(tasks_.size()));
    for (std::size_t i = 0; i < tasks_.size(); ++i) {
      const double tail = hours_of(tail_[i]);
      ranks[0][i] = path_.tasks[i].latest;
      ranks[1][i] = path_.tasks[i].latest + tasks_[i].hours;
      ranks[2][i] = path_.tasks[i].slack;
      ranks[3][i] = -tail;
      ranks[4][i] = -tail - tasks_[i].hours * (tasks_[i].people + static_cast<double>(tasks_[i].needs.size()));
    }
    for (const auto& rank : ranks) {
      taken_ = false;
      by_rank(rank);
      if (taken_ || rank_.empty()) rank_ = rank;
    }
  }
  /// The best so far pushed to its end, each as late as it goes, and from there forwards again: what has room between
  /// gives way to what has none. (Valls, Ballestín, Quintanilla: “Justification and RCPSP”, 2005.) The mirrored days
  /// are not the real ones, but only the order they give is used.
  void justify() {
    constexpr int most_rounds = 4;
    Order mirrored;
    mirrored.sorted.assign(order_.sorted.rbegin(), order_.sorted.rend());
    mirrored.before = order_.behind, mirrored.behind = order_.before;
    std::vector<Task> free(tasks_.begin(), tasks_.end());
    std::vector<Timed> timed = timed_;
    for (std::size_t i = 0; i < free.size(); ++i) {
      timed[i].not_before = 0;
      if (free[i].fixed) timed[i] = {}, free[i].hours = 0; // it stands where it stands
      free[i].fixed.reset();
    }
    for (int k = 0; k < most_rounds && !short_enough(); ++k) {
      Placing late(free, mirrored, timed, shop_, Hands::counted, Goes::backwards);
      std::vector<std::size_t> left(free.size()), ready;
      for (std::size_t i = 0; i < free.size(); ++i)
        if ((left[i] = mirrored.before[i].size()) == 0) ready.push_back(i);
      while (!ready.empty()) { // what ended last goes first
        const auto at = std::max_element(ready.begin(), ready.end(), [&](std::size_t a, std::size_t b) {
          return std::make_pair(best_->end_of(a), a) < std::make_pair(best_->end_of(b), b);
        });
        const std::size_t i = *at;
        ready.erase(at);
        late.place(i);
        for (const std::size_t next : mirrored.behind[i])
          if (--left[next] == 0) ready.push_back(next);
      }
      std::vector<double> rank(free.size());
      for (std::size_t i = 0; i < free.size(); ++i)
        rank[i] = -static_cast<double>(late.end_of(i));
      taken_ = false;
      by_rank(rank);
      if (!taken_) return;
      rank_ = rank;
    }
  }
  /// Small changes to the best order so far, kept where they make it no longer.
  void by_chance(int effort) {
    const double n = static_cast<double>(tasks_.size());
    const int tries = std::clamp(static_cast<int>(30'000.0 * effort / (n * n)), 2, 3000 * effort);
    std::mt19937_64 random(12345); // the same plan every time
    std::vector<std::size_t> movable;
    for (std::size_t i = 0; i < tasks_.size(); ++i)
      if (!tasks_[i].fixed) movable.push_back(i);
    // Ranks as places in a row, so that a swap is a swap.
    std::vector<std::size_t> row(tasks_.size());
    std::iota(row.begin(), row.end(), std::size_t{0});
    std::stable_sort(row.begin(), row.end(), [&](std::size_t a, std::size_t b) { return rank_[a] < rank_[b]; });
    for (std::size_t k = 0; k < row.size(); ++k)
      rank_[row[k]] = static_cast<double>(k);
    const auto below = [&](std::uint64_t most) { return random() % most; }; // the library's differ by machine
    for (int k = 0; k < tries && !short_enough(); ++k) {
      std::vector<double> rank = rank_;
      for (std::uint64_t moves = 1 + below(3); moves > 0; --moves) {
        const std::size_t i = movable[below(movable.size())];
        rank[i] = static_cast<double>(below(tasks_.size())) + (below(2) ? 0.5 : -0.5);
      }
      taken_ = false;
      by_rank(rank);
      if (taken_) rank_ = rank;
    }
  }
  /// Every order of tasks that may be; each placed as early as it goes is among the best there are.
  void try_all(const Placing& so_far, std::vector<std::size_t>& left) {
    if (++nodes_ > most_nodes) return;
    bool any = false;
    for (std::size_t i = 0; i < tasks_.size(); ++i) {
      if (left[i] != 0) continue;
      any = true;
      if (so_far.ready(i) + tail_[i] >= best_->span()) return; // this one alone makes it no better
    }
    if (!any) {
      take(so_far);
      return;
    }
    for (std::size_t i = 0; i < tasks_.size(); ++i) {
      if (left[i] != 0) continue;
      Placing next = so_far;
      next.place(i);
      if (next.span() >= best_->span()) continue;
      left[i] = done;
      for (const std::size_t b : order_.behind[i])
        if (left[b] != done) --left[b];
      try_all(next, left);
      for (const std::size_t b : order_.behind[i])
        if (left[b] != done) ++left[b];
      left[i] = 0;
    }
  }

  static constexpr std::size_t done = static_cast<std::size_t>(-1);
  static constexpr std::size_t most_nodes = 300'000;
  std::span<const Task> tasks_;
  const Order& order_;
  const Shop& shop_;
  CriticalPath path_;
  std::vector<Timed> timed_;
  std::vector<Tick> tail_;
  Hands hands_ = Hands::counted;
  Tick least_ = 0;
  std::size_t moving_ = 0, nodes_ = 0;
  std::optional<Placing> best_;
  std::vector<double> rank_; // that the best was placed by
  bool taken_ = false;
};

} // namespace

std::optional<Message> impossible(std::span<const Task> tasks, const Shop& shop) {
  for (const Task& task : tasks) {
    if (task.fixed) continue;
    for (const Need& need : task.needs)
      if (need.amount > shop.resources[need.resource].count)
        return Message{words("“{0}” takes {1} of “{2}” and there is {3}. Give the shop more, or the job less."),
                       {task.id, std::to_string(need.amount), shop.resources[need.resource].name,
                        std::to_string(shop.resources[need.resource].count)}};
    if (task.by_the_clock) continue;
    if (static_cast<std::size_t>(std::max(0, task.people)) > shop.people.size())
      return Message{words("“{0}” takes {1} people and the shop has {2}. Give the shop more, or the job fewer."),
                     {task.id, std::to_string(task.people), std::to_string(shop.people.size())}};
    // Who is told to do it counts: the skilled may have to come on top of them.
    const auto told_unable = std::count_if(task.who.begin(), task.who.end(), [&](std::size_t p) {
      return (shop.people[p].skills & task.skill) != task.skill;
    });
    if (static_cast<int>(told_unable) > task.people - task.skilled)
      return Message{words("“{0}” takes {1} who can do it, and {2} is told to. Tell another, or say that they can."),
                     {task.id, std::to_string(task.skilled), shop.people[task.who.front()].name}};
    const auto able = std::count_if(shop.people.begin(), shop.people.end(),
                                    [&](const Person& p) { return (p.skills & task.skill) == task.skill; });
    if (able < task.skilled)
      return Message{words("Nobody in the shop can do “{0}”: it takes {1} who can, and there is {2}. Say who may, or "
                           "have it done outside."),
                     {task.id, std::to_string(task.skilled), std::to_string(able)}};
  }
  return {};
}

Expected<Schedule> schedule(std::span<const Task> tasks, const Shop& shop, int effort) {
  const auto order = order_of(tasks);
  if (!order) return refuse(order.error());
  if (auto why = impossible(tasks, shop)) return refuse(std::move(*why));
  if (tasks.empty()) return Schedule{{}, 0, true};
  return Search(tasks, *order, shop).best(effort);
}

} // namespace mavrel::work
