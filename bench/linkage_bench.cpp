// A whole travel of one side, solved at every lock.
#include "assess/motion/end_motion.h"
#include "build/file.h"
#include "motion/linkage/axle.h"
#include "motion/linkage/corner.h"

#include <benchmark/benchmark.h>

namespace {

using namespace mavrel;

motion::Geometry usual(build::Layout layout) {
  build::EndSurvey survey;
  survey.layout = layout;
  for (build::HardPoint& p : assess::usual_points(layout, 1.52, 0.31))
    survey.points.own().left.push_back(std::move(p));
  return assess::joints_of_end(survey).value().side[0];
}

/// 61 heights at 21 positions of the rack. Wanted: at most 15 ms.
void full_solve(benchmark::State& state, build::Layout layout) {
  const motion::CornerLinkage linkage(usual(layout));
  std::vector<double> dh, rack;
  for (int i = 0; i < 61; ++i)
    dh.push_back(-0.09 + 0.003 * i);
  for (int i = 0; i < 21; ++i)
    rack.push_back(-0.06 + 0.006 * i);
  std::size_t reached = 0;
  for (auto _ : state) {
    const auto grid = motion::solve_grid(linkage, dh, rack);
    reached = 0;
    for (const auto& pose : grid.poses)
      reached += pose.has_value();
  }
  state.counters["poses"] = static_cast<double>(reached);
}
BENCHMARK_CAPTURE(full_solve, strut, build::Layout::strut)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(full_solve, double_wishbone, build::Layout::double_wishbone)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(full_solve, multi_link, build::Layout::multi_link)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(full_solve, twin_beam, build::Layout::twin_beam)->Unit(benchmark::kMillisecond);

/// A solid axle through 61 heights.
void axle_travel(benchmark::State& state) {
  const motion::AxleLinkage linkage(usual(build::Layout::axle_parallel_links));
  for (auto _ : state) {
    auto pose = linkage.solve_level(-0.09);
    for (int i = 1; i < 61 && pose; ++i)
      pose = linkage.solve_level(-0.09 + 0.003 * i, &*pose);
    benchmark::DoNotOptimize(pose);
  }
}
BENCHMARK(axle_travel)->Unit(benchmark::kMillisecond);

/// All that an end's joints and what else runs out come to: what a dragged joint costs before any bag is looked at.
void end_motion_of(benchmark::State& state, build::End end) {
  const build::Build build = build::load(std::filesystem::path(MAVREL_DEMO) / "hollin-tarnway.mavrel").value();
  const auto given =
      assess::motion_given(build, assess::Answered<assess::SurveyQuestion>(assess::survey_given(build, end)));
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::end_motion(given));
}
BENCHMARK_CAPTURE(end_motion_of, wishbones, build::End::front)->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(end_motion_of, axle, build::End::rear)->Unit(benchmark::kMillisecond);

} // namespace
