// What must keep up with a mouse: assessing a build and judging a shelf.
#include "assess/assess.h"
#include "assess/judge.h"
#include "build/file.h"

#include <benchmark/benchmark.h>

#include <filesystem>

namespace {

using namespace mavrel;

const std::filesystem::path demo = MAVREL_DEMO;

const build::Build& demo_build() {
  static const build::Build build = build::load(demo / "sorrel-wayfare.mavrel").value();
  return build;
}

const shelf::Shelf& demo_shelf() {
  static const shelf::Shelf shelf = shelf::load_shelf(std::array{demo / "shelf"});
  return shelf;
}

/// The demo shelf over and over, under other names.
shelf::Shelf large_shelf(std::size_t bags) {
  shelf::Shelf out;
  const auto& some = demo_shelf().bags;
  for (std::size_t i = 0; i < bags; ++i) {
    out.bags.push_back(some[i % some.size()]);
    out.bags.back().card.name += " " + std::to_string(i);
  }
  return out;
}

/// Both ends, three load cases, full tracks. Wanted: at most 1 ms.
void assess_demo(benchmark::State& state) {
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::assess(demo_build(), demo_shelf()));
}
BENCHMARK(assess_demo)->Unit(benchmark::kMillisecond);

/// Wanted: at most 20 ms for 200 bags on one end.
void judge_shelf(benchmark::State& state) {
  const shelf::Shelf shelf = large_shelf(static_cast<std::size_t>(state.range(0)));
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::judge_shelf(demo_build(), shelf, build::End::rear, 2));
}
BENCHMARK(judge_shelf)->Arg(200)->Unit(benchmark::kMillisecond);

} // namespace
