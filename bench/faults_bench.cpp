// What somebody waits for while a fault is looked for: this car's table, the odds, the next test.
#include "assess/faults/practice.h"
#include "assess/fit_up/fit_up_given.h"
#include "build/file.h"
#include "shelf/places.h"

#include <benchmark/benchmark.h>

namespace mavrel {
namespace {

assess::FaultCarGiven demo_car() {
  const auto build = build::load(shelf::demo_folder() / "sorrel-wayfare.mavrel");
  const auto shelf = shelf::load_shelf(shelf::shelf_folders());
  return {assess::leveling_given(*build, assess::fit_up_given(*build, shelf).air(), 0)};
}
const assess::PracticeShop& demo_shop() {
  static const auto shop = **assess::practice_shop(demo_car(), {});
  return *shop;
}
/// All causes, ten findings.
assess::FaultEvidence ten_findings() {
  assess::FaultEvidence out;
  const std::shared_ptr<const assess::PracticeShop> shop(&demo_shop(), [](const auto*) {});
  assess::PracticeCar car(shop, {11, assess::PracticeLevel::slight});
  for (const char* key : {"timing:front_left", "timing:rear_left", "pump", "gauges", "hold"})
    for (const assess::FaultFinding& f : car.do_test(*assess::test_of(key)))
      if (out.findings.size() < 10) out.findings.push_back(f);
  return out;
}

void fault_table_demo(benchmark::State& state) {
  const auto given = demo_car();
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::practice_shop(given, {}));
}
BENCHMARK(fault_table_demo)->Unit(benchmark::kMillisecond);

void diagnose_ten_findings(benchmark::State& state) {
  const auto evidence = ten_findings();
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::FaultWeighing(demo_shop().table, evidence).diagnosis());
  state.counters["causes"] = static_cast<double>(assess::fault_causes().size());
}
BENCHMARK(diagnose_ten_findings)->Unit(benchmark::kMillisecond);

void next_test_ten_findings(benchmark::State& state) {
  const assess::FaultWeighing weighing(demo_shop().table, ten_findings());
  for (auto _ : state)
    benchmark::DoNotOptimize(weighing.next_tests(12));
}
BENCHMARK(next_test_ten_findings)->Unit(benchmark::kMillisecond);

} // namespace
} // namespace mavrel
