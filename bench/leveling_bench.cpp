// A whole car that keeps its height against the clock, and tuning on a whole drive.
#include "assess/assess.h"
#include "assess/leveling/tuning.h"
#include "build/file.h"

#include <benchmark/benchmark.h>

namespace {

using namespace mavrel;

assess::LevelingGiven demo(const char* name) {
  const std::filesystem::path folder(MAVREL_DEMO), shelves[] = {folder / "shelf"};
  const auto build = build::load(folder / name).value();
  const auto shelf = shelf::load_shelf(shelves);
  return assess::leveling_given(build, assess::air_given(build, shelf, assess::ask_ends(build, shelf)), 0);
}

/// Twenty minutes as the demo drives them, controller, air and all. Wanted: 2,000 times faster than it happens, 600 ms.
void drive_demo(benchmark::State& state, const char* name) {
  const auto given = demo(name);
  const auto car = assess::learned_car(given).value();
  const auto road = assess::road_of(given);
  const auto drive = assess::drive_given(given, car, given.leveling.set_ups.front().rules, road);
  double simulated = 0;
  for (auto _ : state)
    simulated += control::drive(drive, {}, false)->simulated;
  state.counters["times_faster"] = benchmark::Counter(simulated, benchmark::Counter::kIsRate);
}
BENCHMARK_CAPTURE(drive_demo, estate, "sorrel-wayfare.mavrel")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(drive_demo, pickup, "hollin-tarnway.mavrel")->Unit(benchmark::kMillisecond);

/// Four numbers on twenty minutes of road. Wanted: 30 s on two cores.
void tune_demo(benchmark::State& state, const char* name) {
  auto given = demo(name);
  if (!std::string_view(name).starts_with("sorrel")) // the pickup's automatic one
    std::swap(given.leveling.set_ups.front().rules, given.leveling.set_ups.back().rules);
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::tune(given));
}
BENCHMARK_CAPTURE(tune_demo, estate, "sorrel-wayfare.mavrel")->Iterations(1)->Unit(benchmark::kSecond)->UseRealTime();
BENCHMARK_CAPTURE(tune_demo, pickup, "hollin-tarnway.mavrel")->Iterations(1)->Unit(benchmark::kSecond)->UseRealTime();

/// Learning what bursts buy, all circuits both ways.
void learn_demo(benchmark::State& state) {
  const auto given = demo("sorrel-wayfare.mavrel");
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::learned_car(given));
}
BENCHMARK(learn_demo)->Unit(benchmark::kMillisecond);

/// A road of eight kilometres.
void make_road(benchmark::State& state) {
  for (auto _ : state)
    benchmark::DoNotOptimize(control::Road::rough(control::RoadClass::c, 8000, 7));
}
BENCHMARK(make_road)->Unit(benchmark::kMillisecond);

} // namespace
