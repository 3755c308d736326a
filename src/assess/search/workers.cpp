#include "assess/search/workers.h"

#include <algorithm>
#include <atomic>
#include <exception>
#include <mutex>
#include <thread>
#include <vector>

namespace mavrel::assess {

void in_parallel(std::size_t count, unsigned threads, const std::stop_token& stop,
                 const std::function<void(std::size_t)>& work) {
  std::atomic<std::size_t> next = 0;
  std::exception_ptr first;
  std::mutex first_lock;
  const auto run = [&] {
    try {
      for (std::size_t i = next++; i < count && !stop.stop_requested(); i = next++)
        work(i);
    } catch (...) {
      const std::scoped_lock lock(first_lock);
      if (!first) first = std::current_exception();
      next = count; // the others need not go on
    }
  };
  const std::size_t wanted = threads > 0 ? threads : std::max(1U, std::thread::hardware_concurrency());
  {
    std::vector<std::jthread> others;
    for (std::size_t t = 1; t < std::min(wanted, count); ++t)
      others.emplace_back(run);
    run();
  }
  if (first) std::rethrow_exception(first);
}

} // namespace mavrel::assess
