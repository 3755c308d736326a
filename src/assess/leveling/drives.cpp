#include "assess/leveling/drives.h"

#include "parallel/in_parallel.h"

#include <algorithm>
#include <stop_token>

namespace mavrel::assess {

std::optional<Expected<Drives>> answer_drives(const LevelingGiven& given, const std::stop_token& stop) {
  auto car = learned_car(given);
  if (!car) return Expected<Drives>(refuse(car.error()));
  const auto road = road_of(given);
  const auto& set_ups = given.leveling.set_ups;
  std::vector<std::optional<control::DriveResult>> results(set_ups.size());
  in_parallel(set_ups.size(), {}, [&](std::size_t i) {
    results[i] = control::drive(drive_given(given, *car, set_ups[i].rules, road), stop);
  });
  Drives out{std::move(*car), {}};
  for (std::size_t i = 0; i < set_ups.size(); ++i) {
    if (!results[i]) return std::nullopt;
    out.driven.push_back({set_ups[i].name, set_ups[i].rules, std::move(*results[i])});
  }
  return Expected<Drives>(std::move(out));
}

OtherPartsGiven other_parts_given(LevelingGiven given, const shelf::Shelf& shelf) {
  OtherPartsGiven out{std::move(given), {}, {}};
  const auto worked = [](const NextSize& size) {
    return size.role == KitRole::valves || size.role == KitRole::front_line || size.role == KitRole::rear_line;
  };
  for (const NextSize& size : next_sizes(out.leveling.air, shelf))
    if (worked(size)) out.wider.push_back(size);
  for (const NextSize& size : next_sizes(out.leveling.air, shelf, Freely::less))
    if (worked(size)) out.finer.push_back(size);
  return out;
}

std::optional<Expected<std::vector<OtherPart>>> answer_other_parts(const OtherPartsGiven& given,
                                                                   const std::stop_token& stop) {
  struct Task {
    const NextSize* size = nullptr;
    bool finer = false;
  };
  std::vector<Task> tasks = {{}};
  for (const NextSize& size : given.finer)
    tasks.push_back({&size, true});
  for (const NextSize& size : given.wider)
    tasks.push_back({&size, false});
  const auto road = road_of(given.leveling);
  std::vector<std::optional<OtherPart>> done(tasks.size());
  std::optional<Message> trouble; // of the kit as it is
  in_parallel(tasks.size(), {}, [&](std::size_t i) {
    LevelingGiven now = given.leveling;
    OtherPart out;
    if (const NextSize* size = tasks[i].size) {
      now.air.parts.at(size->role) = size->part;
      out.role = size->role, out.name = size->part.name, out.finer = tasks[i].finer;
    }
    const auto car = learned_car(now);
    if (!car) {
      if (i == 0) trouble = car.error();
      return;
    }
    for (const control::LearnedBurst& l : car->learned)
      for (const control::BurstBuys* buys : {&l.up, &l.down})
        out.buys = std::max(out.buys, 0.1 * std::abs(buys->height) / buys->seconds);
    auto result = control::drive(drive_given(now, *car, now.leveling.set_up().rules, road), stop, false);
    if (!result) return;
    out.result = std::move(*result);
    done[i] = std::move(out);
  });
  if (stop.stop_requested()) return std::nullopt;
  if (trouble) return Expected<std::vector<OtherPart>>(refuse(*trouble));
  std::vector<OtherPart> out;
  for (auto& one : done)
    if (one) out.push_back(std::move(*one));
  return Expected<std::vector<OtherPart>>(std::move(out));
}

} // namespace mavrel::assess
