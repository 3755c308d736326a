// What somebody at the plan waits for: jobs laid out on days, bars cut, checks read, plates drawn.
#include "assess/fit_up/buying.h"
#include "assess/fit_up/plan.h"
#include "assess/fit_up/schools.h"
#include "build/file.h"

#include <benchmark/benchmark.h>

#include <random>

namespace {

using namespace mavrel;

build::Build demo_build(const char* name) {
  return build::load(std::filesystem::path(MAVREL_DEMO) / name).value();
}
shelf::Shelf demo_shelf() {
  const std::filesystem::path shelves[] = {std::filesystem::path(MAVREL_DEMO) / "shelf"};
  return shelf::load_shelf(shelves);
}
std::vector<work::Task> random_tasks(int count) {
  std::mt19937 random(7);
  std::vector<work::Task> out;
  for (int i = 0; i < count; ++i) {
    work::Task t;
    t.id = std::to_string(i);
    t.hours = static_cast<double>(random() % 16) / 2;
    t.people = static_cast<int>(random() % 3);
    t.wait = random() % 8 == 0 ? 24 : 0;
    if (random() % 2 == 0) t.needs.push_back({random() % 3, 1});
    for (int k = 0; k < 2 && i > 0; ++k)
      if (random() % 2 == 0) t.after.push_back(std::to_string(static_cast<int>(random() % static_cast<unsigned>(i))));
    out.push_back(std::move(t));
  }
  return out;
}

/// So many jobs on the days of a shop. Wanted: 200 in 20 ms.
void schedule(benchmark::State& state) {
  const auto tasks = random_tasks(static_cast<int>(state.range(0)));
  work::Shop shop;
  shop.people.resize(3);
  shop.resources = {{"lift", 1}, {"bench", 2}, {"weld bay", 1}};
  for (auto _ : state)
    benchmark::DoNotOptimize(work::schedule(tasks, shop));
}
BENCHMARK(schedule)->Arg(8)->Arg(30)->Arg(200)->Unit(benchmark::kMillisecond);

/// The demo's plan from its design: what an hour typed costs before it is painted.
void plan_demo(benchmark::State& state, const char* name) {
  const auto given = assess::fit_up_given(demo_build(name), demo_shelf());
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::plan_of(assess::plan_given(given, std::nullopt)));
}
BENCHMARK_CAPTURE(plan_demo, estate, "sorrel-wayfare.mavrel")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(plan_demo, half_ton, "hollin-tarnway.mavrel")->Unit(benchmark::kMillisecond);

/// Bars for random pieces. Wanted: a second.
void cut(benchmark::State& state) {
  std::mt19937 random(3);
  std::vector<double> pieces;
  for (int i = 0; i < state.range(0); ++i)
    pieces.push_back(0.1 + static_cast<double>(random() % 3400) / 1000);
  for (auto _ : state)
    benchmark::DoNotOptimize(work::cut_plan(pieces, 6, 0.003));
}
BENCHMARK(cut)->Arg(20)->Arg(80)->Arg(300)->Unit(benchmark::kMillisecond);

/// Every hold point with its figures and digest.
void checks_demo(benchmark::State& state) {
  const auto given = assess::fit_up_given(demo_build("hollin-tarnway.mavrel"), demo_shelf());
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::hold_points(given));
}
BENCHMARK(checks_demo)->Unit(benchmark::kMillisecond);

/// Drawings, routes, cut list and parts.
void parts_demo(benchmark::State& state) {
  const auto given = assess::fit_up_given(demo_build("sorrel-wayfare.mavrel"), demo_shelf());
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::buy_list(given));
}
BENCHMARK(parts_demo)->Unit(benchmark::kMillisecond);

/// Both ways of every school, beside the interface.
void schools_demo(benchmark::State& state) {
  const assess::SchoolsGiven given{demo_build("sorrel-wayfare.mavrel"), demo_shelf(), std::nullopt};
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::answer_schools(given, {}));
}
BENCHMARK(schools_demo)->Unit(benchmark::kMillisecond);

} // namespace
