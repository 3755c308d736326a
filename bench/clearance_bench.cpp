// How long clearances take: the map of an end, what would fit, the ground, and why not lower.
#include "assess/assess.h"
#include "assess/ground/ground.h"
#include "assess/interference/fits.h"
#include "assess/interference/map.h"
#include "assess/why/why.h"

#include "build/file.h"

#include <benchmark/benchmark.h>

namespace mavrel {
namespace {

build::Build car(const char* file) {
  return build::load(std::filesystem::path(MAVREL_DEMO) / file).value();
}
const shelf::Shelf& demo_shelf() {
  static const shelf::Shelf shelf = [] {
    const std::filesystem::path folders[] = {std::filesystem::path(MAVREL_DEMO) / "shelf"};
    return shelf::load_shelf(folders);
  }();
  return shelf;
}
/// A car with ten solids round its front wheel.
build::Build with_ten_solids(const char* file) {
  build::Build b = car(file);
  auto& list = b.ends[0].obstacles;
  const double hub = *b.ends[0].track / 2;
  std::size_t solids = 0;
  for (const build::Obstacle& o : std::as_const(list))
    solids += o.shape != build::ObstacleShape::gap;
  for (std::size_t i = 0; solids < 10; ++i, ++solids) {
    build::Obstacle o;
    o.name = "solid";
    o.shape = i % 2 ? build::ObstacleShape::box : build::ObstacleShape::rod;
    const double turn = 0.7 * static_cast<double>(i);
    o.x = 0.42 * std::cos(turn), o.y = hub - 0.22, o.z = 0.33 + 0.42 * std::sin(turn);
    o.to_x = o.x + 0.1, o.to_y = o.y + 0.05, o.to_z = o.z;
    list.push_back(o);
  }
  return b;
}
assess::AnsweredEnd front_of(const build::Build& b) {
  return assess::assess(b, demo_shelf()).ends[0];
}

void map_of_ten_solids(benchmark::State& state, const char* file) {
  const assess::AnsweredEnd end = front_of(with_ten_solids(file));
  const auto& e = end->assessment;
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::clearance_map({end, e.domain_low, e.domain_high, 60, 21}));
}
BENCHMARK_CAPTURE(map_of_ten_solids, estate, "sorrel-wayfare.mavrel")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(map_of_ten_solids, pickup, "hollin-tarnway.mavrel")->Unit(benchmark::kMillisecond);

void what_fits_2025(benchmark::State& state, const char* file) {
  const assess::AnsweredEnd end = front_of(car(file));
  const auto given = *assess::usual_fits(end);
  for (auto _ : state) {
    const auto fits = assess::what_fits(given);
    state.counters["fittings"] = static_cast<double>(fits ? fits->fittings.size() : 0);
  }
}
BENCHMARK_CAPTURE(what_fits_2025, estate, "sorrel-wayfare.mavrel")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(what_fits_2025, pickup, "hollin-tarnway.mavrel")->Unit(benchmark::kMillisecond);

/// 12 points over a profile of 10 m.
void ground_sweep(benchmark::State& state) {
  space::Underside car;
  car.wheelbase = 2.7;
  car.front_radius = car.rear_radius = 0.31;
  for (int i = 0; i < 12; ++i)
    car.points.push_back({-0.85 + 0.4 * i, 0.14 + 0.02 * (i % 3)});
  space::Profile profile;
  for (int i = 0; i <= 10; ++i)
    profile.push_back({static_cast<double>(i), i % 2 ? 0.06 : -0.02});
  for (auto _ : state)
    benchmark::DoNotOptimize(space::least_gap(car, profile));
}
BENCHMARK(ground_sweep)->Unit(benchmark::kMillisecond);

void why_not_lower(benchmark::State& state, const char* file, build::End end) {
  const assess::WhyGiven given{car(file), demo_shelf(), end, assess::WhichWindow::reach, assess::WhichEdge::low};
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::why_not_further(given));
}
BENCHMARK_CAPTURE(why_not_lower, estate, "sorrel-wayfare.mavrel", build::End::front)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(why_not_lower, pickup, "hollin-tarnway.mavrel", build::End::front)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(why_not_lower, notch, "hollin-tarnway.mavrel", build::End::rear)->Unit(benchmark::kMillisecond);

void one_gap(benchmark::State& state) {
  const space::WheelSolid wheel{0.32, 0.22, 0.23, 0.04, 0.035, 0.003};
  const space::WheelPlace place = space::wheel_place({0, 0.76, 0.31}, -0.02, 0, 0.4);
  const space::Solid box = space::Box{{-0.3, 0.5, 0.5}, {0.05, 0.05, 0.05}, 0.3};
  for (auto _ : state)
    benchmark::DoNotOptimize(space::gap_between(wheel, place, box));
}
BENCHMARK(one_gap)->Unit(benchmark::kMicrosecond);

} // namespace
} // namespace mavrel
