// Time in the air network against the clock, and kits a second.
#include "assess/air/sizing.h"
#include "assess/assess.h"
#include "build/file.h"

#include <benchmark/benchmark.h>

namespace {

using namespace mavrel;

struct Demo {
  build::Build build;
  shelf::Shelf shelf;
  assess::AirGiven air;
};
Demo demo(const char* name) {
  const std::filesystem::path folder(MAVREL_DEMO), shelves[] = {folder / "shelf"};
  auto build = build::load(folder / name).value();
  auto shelf = shelf::load_shelf(shelves);
  auto air = assess::air_given(build, shelf, assess::ask_ends(build, shelf));
  return {std::move(build), std::move(shelf), std::move(air)};
}

/// Parked to Road, and the rest of ten seconds. Wanted: 1,000 times faster than it happens, 10 ms.
void demo_move(benchmark::State& state, const char* name) {
  const Demo d = demo(name);
  const auto low = *assess::heights_of(d.air, 0), high = *assess::heights_of(d.air, 1);
  long steps = 0;
  for (auto _ : state) {
    const auto car = assess::car_air(d.air, {low, 0, *assess::full_tank(d.air), true}).value();
    auto now = air::Simulation::begin(car.network);
    assess::ValveWorker worker(*now, car, {});
    benchmark::DoNotOptimize(worker.move_to({high[0], high[0], high[1], high[1]}, d.air.kit.order));
    benchmark::DoNotOptimize(now->run(10));
    steps = now->steps();
  }
  state.counters["steps"] = static_cast<double>(steps);
  state.counters["times_real"] =
      benchmark::Counter(10.0 * static_cast<double>(state.iterations()), benchmark::Counter::kIsRate);
}
BENCHMARK_CAPTURE(demo_move, estate, "sorrel-wayfare.mavrel")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(demo_move, pickup, "hollin-tarnway.mavrel")->Unit(benchmark::kMillisecond);

/// The network of bench/air_yardstick.py: a tank and four bags of one shape each, filled for ten seconds.
void yardstick(benchmark::State& state) {
  air::BagCard card;
  card.name = "piston";
  card.collapsed_height = 0.05, card.max_height = 0.25, card.max_diameter = 0.16, card.max_pressure = 20e5;
  card.pressures = {1e5, 9e5};
  card.loads.resize(2);
  for (const double h : {0.05, 0.1, 0.15, 0.2, 0.25}) {
    card.heights.push_back(h);
    card.volumes.push_back(0.0002 + 0.012 * h);
    for (std::size_t j = 0; j < 2; ++j)
      card.loads[j].push_back(card.pressures[j] * 0.012);
  }
  air::Network net;
  net.volumes.push_back({"tank", 0.019, 10e5, 293.15, 2});
  for (int i = 0; i < 4; ++i) {
    air::Body body;
    air::Leg leg;
    leg.volume = net.volumes.size();
    leg.curve = air::BagCurve(card);
    leg.lowest = 0.06, leg.highest = 0.24, leg.height = 0.10;
    body.legs.push_back(leg);
    body.loads.push_back(3600);
    net.volumes.push_back({"bag " + std::to_string(i), 0, 3e5, 293.15, 1});
    net.lines.push_back({"", 0, leg.volume, {2e-9, 0.3}, false, true});
    net.bodies.push_back(std::move(body));
  }
  double at = 0;
  for (auto _ : state) {
    auto now = air::Simulation::begin(net);
    benchmark::DoNotOptimize(now->run(10));
    at = now->volumes()[0].gauge_pressure;
  }
  state.counters["tank_pa"] = at;
}
BENCHMARK(yardstick)->Unit(benchmark::kMillisecond);

/// Every kit of the shelf. Wanted: 200 a second on two cores.
void sizing(benchmark::State& state, const char* name) {
  const Demo d = demo(name);
  const auto given = assess::sizing_given(d.build, d.shelf, d.air);
  std::size_t kits = 0;
  for (auto _ : state)
    kits += assess::size_kits(given, {2, {}, {}})->tried;
  state.counters["kits"] = benchmark::Counter(static_cast<double>(kits), benchmark::Counter::kIsRate);
}
BENCHMARK_CAPTURE(sizing, estate, "sorrel-wayfare.mavrel")->Unit(benchmark::kSecond)->UseRealTime();
BENCHMARK_CAPTURE(sizing, pickup, "hollin-tarnway.mavrel")->Unit(benchmark::kSecond)->UseRealTime();

} // namespace
