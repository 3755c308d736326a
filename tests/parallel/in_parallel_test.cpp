#include "parallel/in_parallel.h"

#include "support.h"

#include <atomic>
#include <mutex>
#include <set>
#include <stdexcept>
#include <thread>

namespace mavrel {
namespace {

TEST(InParallel, DoesEachPieceOnceFromAnyNumberOfThreads) {
  for (const unsigned threads : {0U, 1U, 2U, 7U, 40U}) {
    std::vector<std::atomic<int>> done(300);
    in_parallel(done.size(), {threads, {}, {}}, [&](std::size_t i) { ++done[i]; });
    EXPECT_TRUE(std::all_of(done.begin(), done.end(), [](const auto& n) { return n == 1; })) << threads;
  }
  in_parallel(0, {}, [](std::size_t) { ADD_FAILURE() << "there was nothing to do"; });
}

TEST(InParallel, WhatOneThrowsArrivesOnceAllHaveEnded) {
  std::atomic<int> under_way = 0;
  try {
    in_parallel(200, {4, {}, {}}, [&](std::size_t i) {
      ++under_way;
      if (i == 3) {
        --under_way;
        throw std::runtime_error("the third");
      }
      --under_way;
    });
    FAIL() << "nobody was told";
  } catch (const std::runtime_error& what) {
    EXPECT_STREQ(what.what(), "the third");
  }
  EXPECT_EQ(under_way, 0) << "nobody works on what the caller no longer has";
}

TEST(InParallel, BeginsNothingMoreOnceItIsToldToStop) {
  std::stop_source source;
  std::atomic<int> done = 0, begun_after = 0;
  std::atomic<bool> told = false;
  in_parallel(100'000, {3, source.get_token(), {}}, [&](std::size_t) {
    if (told) ++begun_after;
    if (++done != 20) return;
    source.request_stop();
    told = true;
  });
  EXPECT_GE(done, 20);
  EXPECT_LT(done, 100'000);
  EXPECT_LE(begun_after, 2) << "what each of the others had looked for before";
  in_parallel(5, {2, test::stopped(), {}}, [](std::size_t) { ADD_FAILURE() << "stopped before it began"; });
}

TEST(InParallel, ThreadsThatAreGotReadyLeaveTheCallersAlone) {
  std::mutex lock;
  std::set<std::thread::id> ready, worked;
  in_parallel(50,
              {3,
               {},
               [&] {
                 const std::scoped_lock held(lock);
                 ready.insert(std::this_thread::get_id());
               }},
              [&](std::size_t) {
                const std::scoped_lock held(lock);
                worked.insert(std::this_thread::get_id());
              });
  EXPECT_FALSE(ready.contains(std::this_thread::get_id()));
  EXPECT_TRUE(std::includes(ready.begin(), ready.end(), worked.begin(), worked.end()));
  EXPECT_THROW(in_parallel(5, {2, {}, [] { throw std::runtime_error("not ready"); }}, [](std::size_t) {}),
               std::runtime_error);
}

} // namespace
} // namespace mavrel
