// What a shop waits for: what is due, learning, and the book of ten thousand builds.
#include "assess/care/care_plan.h"
#include "assess/proving/learning.h"
#include "assess/proving/predictions.h"
#include "book/book.h"
#include "build/file.h"
#include "shelf/places.h"

#include <benchmark/benchmark.h>

#include <array>
#include <filesystem>

namespace mavrel {
namespace {

namespace fs = std::filesystem;

const shelf::Shelf& shelf_here() {
  static const shelf::Shelf shelf = shelf::load_shelf(shelf::shelf_folders());
  return shelf;
}
build::Build shop_car(const char* name) {
  return *build::load(shelf::demo_folder() / "shop" / name);
}

void care_plan_demo(benchmark::State& state) {
  const build::Build b = shop_car("w-08.mavrel");
  const auto given = assess::care_given(b, assess::fit_up_given(b, shelf_here()));
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::care_plan(given, 0.05, *work::parse_day("2026-11-26")));
}
BENCHMARK(care_plan_demo)->Unit(benchmark::kMicrosecond);

void predict_demo(benchmark::State& state) {
  const build::Build b = shop_car("w-14.mavrel");
  const auto given = assess::leveling_given(b, assess::fit_up_given(b, shelf_here()).air(), 0);
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::predict(given, {}));
}
BENCHMARK(predict_demo)->Unit(benchmark::kMillisecond);

void prove_learn_demo(benchmark::State& state) {
  const assess::LearningGiven given{shop_car("w-14.mavrel"), shelf_here()};
  for (auto _ : state)
    benchmark::DoNotOptimize(assess::learn_from(given, {}));
}
BENCHMARK(prove_learn_demo)->Unit(benchmark::kMillisecond);

/// Ten thousand builds in one book; made once.
book::Book& large_book() {
  static book::Book book = [] {
    const fs::path file = fs::temp_directory_path() / "mavrel-bench-book.sqlite";
    for (const char* ending : {"", "-wal", "-shm"})
      fs::remove(file.string() + ending);
    auto made = std::move(*book::Book::open(file));
    // The demo shop's cars over and over, from one being built to one with two years of log.
    const std::array cars = {shop_car("w-08.mavrel"), shop_car("w-11.mavrel"), shop_car("w-14.mavrel"),
                             shop_car("w-16.mavrel"), shop_car("t-03.mavrel"), shop_car("t-05.mavrel")};
    const fs::path folder = fs::temp_directory_path() / "mavrel-bench-builds";
    fs::create_directories(folder);
    for (int i = static_cast<int>(std::distance(fs::directory_iterator(folder), fs::directory_iterator())); i < 10'000;
         ++i) {
      build::Build b = cars[static_cast<std::size_t>(i) % cars.size()];
      b.job.number = "N-" + std::to_string(i);
      b.job.notes = "Car " + std::to_string(i) + (i % 97 == 0 ? ", propeller shaft shimmed" : ", nothing of note");
      (void)build::save(b, folder / (b.job.number + ".mavrel"));
    }
    (void)made.sync(folder);
    return made;
  }();
  return book;
}

void book_search_10000(benchmark::State& state) {
  book::Book& book = large_book();
  book::BookQuery query;
  query.words = state.range(0) == 0 ? "propeller shimmed" : state.range(0) == 1 ? "lamp loom" : "";
  query.platform = state.range(0) == 2 ? "Sorrel" : "";
  for (auto _ : state)
    benchmark::DoNotOptimize(book.search(query));
}
BENCHMARK(book_search_10000)->DenseRange(0, 2)->Unit(benchmark::kMillisecond);

void book_index(benchmark::State& state) {
  (void)large_book(); // its builds stand
  const fs::path folder = fs::temp_directory_path() / "mavrel-bench-few";
  fs::create_directories(folder);
  int count = 0;
  for (const auto& entry : fs::directory_iterator(fs::temp_directory_path() / "mavrel-bench-builds"))
    if (count < 1000)
      fs::copy_file(entry.path(), folder / entry.path().filename(), fs::copy_options::skip_existing), ++count;
  const fs::path file = fs::temp_directory_path() / "mavrel-bench-index.sqlite";
  for (auto _ : state) {
    state.PauseTiming();
    for (const char* ending : {"", "-wal", "-shm"})
      fs::remove(file.string() + ending);
    state.ResumeTiming();
    auto book = std::move(*book::Book::open(file));
    benchmark::DoNotOptimize(book.sync(folder));
  }
  state.SetItemsProcessed(state.iterations() * count);
}
BENCHMARK(book_index)->Unit(benchmark::kMillisecond)->UseRealTime();

} // namespace
} // namespace mavrel
