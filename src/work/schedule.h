// Jobs put on days: people, places and the car are shared, nights and free days are not worked, waits go by the clock.
#pragma once

#include "work/order.h"
#include "work/work_times.h"

namespace mavrel::work {

/// Somebody of the shop.
struct Person {
  std::string name;
  std::uint32_t skills = 0;
  std::vector<std::pair<double, double>> away; // h of the clock
};

/// All that a schedule is made from.
struct Shop {
  std::vector<Person> people;
  std::vector<Resource> resources;
  WorkTimes times{9};
};

/// One task as it was placed; h of the clock since the first morning's start.
struct Placed {
  double start = 0, end = 0;       // the end is that of its work; a wait comes on top
  std::vector<std::size_t> people; // of the shop
};
struct Schedule {
  std::vector<Placed> tasks;
  double span = 0;     // h of the clock, a last wait included
  bool proven = false; // nothing shorter is possible
};

/// Why a task can never be done in this shop. Empty: all can be.
[[nodiscard]] std::optional<Message> impossible(std::span<const Task> tasks, const Shop& shop);

/// The best of a number of ways of placing tasks one after the other, each as early as it goes; of up to eight that
/// move, all of them. The same tasks give the same schedule, on every machine.
/// @param effort  1: what a person waits for while typing; more: so many times as many ways are tried
/// @returns the schedule; or what can't be done, as `impossible` and `order_of` say it
/// Source: docs/models.md, "Jobs on days".
[[nodiscard]] Expected<Schedule> schedule(std::span<const Task> tasks, const Shop& shop, int effort = 1);

} // namespace mavrel::work
