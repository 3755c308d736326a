// 500 draws of the demo car: wanted within 1.5 s on two cores.
#include "assess/doubt/doubt.h"
#include "build/file.h"
#include "shelf/places.h"

#include <benchmark/benchmark.h>

namespace mavrel {
namespace {

void doubt_demo(benchmark::State& state, const char* car) {
  const assess::DoubtGiven given{*build::load(shelf::demo_folder() / car), shelf::load_shelf(shelf::shelf_folders()),
                                 static_cast<std::size_t>(state.range(0)), 1};
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::doubt(given));
  state.counters["readings"] = static_cast<double>(assess::doubt_inputs(given.build, given.shelf).size());
}
BENCHMARK_CAPTURE(doubt_demo, estate, "sorrel-wayfare.mavrel")->Arg(500)->Unit(benchmark::kMillisecond)->UseRealTime();
BENCHMARK_CAPTURE(doubt_demo, pickup, "hollin-tarnway.mavrel")->Arg(500)->Unit(benchmark::kMillisecond)->UseRealTime();

} // namespace
} // namespace mavrel
