// Jobs and what must come before what: the plain forward and backward pass, round the clock and with nobody shared.
#pragma once

#include "quantity/expected.h"

#include <cstddef>
#include <cstdint>
#include <optional>
#include <span>
#include <string>
#include <utility>
#include <vector>

namespace mavrel::work {

/// Something of which there are only so many: a lift, a bench, the car itself.
struct Resource {
  std::string name;
  int count = 1;
  friend bool operator==(const Resource&, const Resource&) = default;
};

/// What a task holds of a resource while it runs, nights between included.
struct Need {
  std::size_t resource = 0; // index in the list of resources
  int amount = 1;
  friend bool operator==(const Need&, const Need&) = default;
};

/// One job to be put in order. Hours count from the first morning's start.
struct Task {
  std::string id;
  double hours = 0; // h of work; of what runs by the clock, h of the clock
  int people = 0;   // that it takes at once
  int skilled = 0;  // of them, that must have every bit of `skill`
  std::uint32_t skill = 0;
  std::vector<Need> needs;
  std::vector<std::size_t> who;   // of the shop, who is told to do it; the others it takes are chosen
  std::vector<std::string> after; // ids
  double wait = 0;                // h of the clock that must pass after it
  bool by_the_clock = false;      // runs on through the night; nobody is needed
  double not_before = 0;          // h of the clock
  std::optional<std::pair<double, double>> fixed = {}; // h of the clock: began and ends; it is not moved
  friend bool operator==(const Task&, const Task&) = default;
};

/// Tasks whose ids are known to be one each, with what comes before as indices.
struct Order {
  std::vector<std::vector<std::size_t>> before, behind; // a list a task
  std::vector<std::size_t> sorted;                      // every task after all that come before it
};
/// @returns the order; or which ids are doubled, unknown, or go round in a circle
[[nodiscard]] Expected<Order> order_of(std::span<const Task> tasks);

/// Hours, working and waiting alike, as if everybody were there all the time.
struct PathTask {
  double earliest = 0, latest = 0, slack = 0; // h; slack: latest less earliest
  bool critical = false;
};
struct CriticalPath {
  std::vector<PathTask> tasks;
  double span = 0; // h, a last wait included
};
/// Source: docs/models.md, "Order of jobs".
[[nodiscard]] CriticalPath critical_path(std::span<const Task> tasks, const Order& order);

} // namespace mavrel::work
