// What must keep up with a mouse: assessing a build and judging a shelf.
#include "assess/assess.h"
#include "assess/bags/judge.h"
#include "assess/bags/ride.h"
#include "assess/bags/softening.h"
#include "assess/kept/digest.h"
#include "assess/search/search.h"
#include "build/file.h"
#include "build/history.h"

#include <benchmark/benchmark.h>

#include <algorithm>
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

/// Bags like those of the demo shelf, none quite like another.
shelf::Shelf large_shelf(std::size_t bags) {
  shelf::Shelf out;
  const auto& some = demo_shelf().bags;
  for (std::size_t i = 0; i < bags; ++i) {
    air::BagCard card = some[i % some.size()].card;
    card.name += " " + std::to_string(i);
    const double factor = 1 + 0.12 * (static_cast<double>(i * 37 % 101) / 50 - 1);
    for (auto& column : card.loads)
      for (double& load : column)
        load *= factor;
    for (double& volume : card.volumes)
      volume *= factor;
    out.bags.push_back({card, air::BagCurve(card), {}, {}});
  }
  std::sort(out.bags.begin(), out.bags.end(),
            [](const shelf::ShelfBag& a, const shelf::ShelfBag& b) { return a.card.name < b.card.name; });
  return out;
}

/// Both ends, three load cases, full tracks, from nothing kept. Wanted: at most 1.5 ms with maps.
void assess_demo(benchmark::State& state, const char* car) {
  const build::Build build = build::load(demo / car).value();
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::assess(build, demo_shelf()));
}
BENCHMARK_CAPTURE(assess_demo, cycle_sheets, "sorrel-wayfare.mavrel")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(assess_demo, hard_points, "hollin-tarnway.mavrel")->Unit(benchmark::kMillisecond);

/// A note typed: the edit with its undo step, and what follows of it. Wanted: at most 0.05 ms.
void edit_note(benchmark::State& state) {
  build::History history(demo_build());
  assess::Assessor assessor;
  benchmark::DoNotOptimize(assessor.assess(history.now(), demo_shelf()));
  for (int i = 0; auto _ : state) {
    build::Build next = history.now();
    next.job.notes = ++i % 2 == 0 ? "calm" : "low";
    history.edit("notes", std::move(next), "bench");
    benchmark::DoNotOptimize(assessor.assess(history.now(), demo_shelf()));
  }
}
BENCHMARK(edit_note)->Unit(benchmark::kMicrosecond);

/// One preset of one end moved: that end anew, the rest kept.
void edit_preset(benchmark::State& state) {
  build::Build build = demo_build();
  assess::Assessor assessor;
  for (int i = 0; auto _ : state) {
    build.variant().brief.presets[1].wish[0]->value = 0.35 + 0.001 * (++i % 20);
    benchmark::DoNotOptimize(assessor.assess(build, demo_shelf()));
  }
}
BENCHMARK(edit_preset)->Unit(benchmark::kMicrosecond);

/// The digest that a sign-off of both ends would remember.
void digest_of_ends(benchmark::State& state) {
  const auto ends = assess::ask_ends(demo_build(), demo_shelf());
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::digest_of(ends));
}
BENCHMARK(digest_of_ends)->Unit(benchmark::kMicrosecond);

/// Wanted: at most 20 ms for 200 bags on one end.
void judge_shelf(benchmark::State& state) {
  const shelf::Shelf shelf = large_shelf(static_cast<std::size_t>(state.range(0)));
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::judge_shelf(demo_build(), shelf, build::End::rear, 2));
}
BENCHMARK(judge_shelf)->Arg(200)->Unit(benchmark::kMillisecond);

/// One end at road height, as the added volume's chart asks: 161 frequencies.
void dynamic_stiffness_curve(benchmark::State& state) {
  build::Build build = demo_build();
  build.variant().fit[1].added_volume = 3e-3;
  const auto end = assess::fitted_end(build, demo_shelf(), build::End::rear);
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::softening(end, *end.road, 0, build.variant().brief.frequency_high));
}
BENCHMARK(dynamic_stiffness_curve)->Unit(benchmark::kMicrosecond);

/// Both axles over one bump, and the settling against every bag that fits behind.
void bounce_and_pitch(benchmark::State& state) {
  const motion::TwoAxleBody body{1300, 2200, 1.3, 1.45, {60e3, 64e3}, {5200, 5400}};
  for (auto _ : state)
    benchmark::DoNotOptimize(motion::run_over_bump(body, {}, 25, 1.8));
}
BENCHMARK(bounce_and_pitch)->Unit(benchmark::kMicrosecond);

void ride_of_the_demo(benchmark::State& state) {
  const auto given = assess::ride_given(demo_build(), demo_shelf(), assess::ask_ends(demo_build(), demo_shelf()), 1);
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::ride(given));
}
BENCHMARK(ride_of_the_demo)->Unit(benchmark::kMillisecond);

/// The demo shelf's 455,625 combinations with every hard limit. Wanted: 10 million a second.
void search_demo(benchmark::State& state) {
  std::size_t tried = 0;
  for (auto _ : state)
    tried = assess::search(demo_build(), demo_shelf(), {})->tried;
  state.counters["combinations_a_second"] = benchmark::Counter(
      static_cast<double>(tried) * static_cast<double>(state.iterations()), benchmark::Counter::kIsRate);
}
BENCHMARK(search_demo)->Unit(benchmark::kMillisecond)->UseRealTime();

/// A brief that nearly everything passes, so that nearly every combination counts.
build::Build easy_brief() {
  build::Build build = demo_build();
  for (auto& end : build.ends)
    end.bag_room.reset(), end.bump_stop_gap.values = {0.05}; // a short stroke in bump
  auto& presets = build.variant().brief.presets;
  presets = {presets[1]};
  build.variant().brief.bump_travel = build.variant().brief.rebound_reserve = 0.005;
  build.variant().brief.road_pressure_share = 1;
  return build;
}

void search_easy_brief(benchmark::State& state) {
  const build::Build build = easy_brief();
  std::size_t passed = 0;
  for (auto _ : state)
    passed = assess::search(build, demo_shelf(), {})->passed;
  state.counters["passing"] = static_cast<double>(passed);
}
BENCHMARK(search_easy_brief)->Unit(benchmark::kMillisecond)->UseRealTime();

/// 1,000 cards × 5 volumes × 9 stacks at both ends: two thousand million combinations. Wanted: 5 s on two cores, with
/// the demo's brief (0) and with one that nearly everything passes (1).
void search_large_shelf(benchmark::State& state) {
  const build::Build build = state.range(0) == 0 ? demo_build() : easy_brief();
  const shelf::Shelf shelf = large_shelf(1000);
  std::size_t tried = 0, passed = 0, choices = 0;
  for (auto _ : state) {
    const auto found = assess::search(build, shelf, {});
    tried = found->tried, passed = found->passed, choices = found->choices.size();
  }
  state.counters["combinations"] = static_cast<double>(tried);
  state.counters["passing"] = static_cast<double>(passed);
  state.counters["choices"] = static_cast<double>(choices);
}
BENCHMARK(search_large_shelf)->Arg(0)->Arg(1)->Iterations(1)->Unit(benchmark::kMillisecond)->UseRealTime();

} // namespace
