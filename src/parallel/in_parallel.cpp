#include "parallel/in_parallel.h"

#include <algorithm>
#include <atomic>
#include <exception>
#include <mutex>
#include <thread>
#include <vector>

namespace mavrel {

void in_parallel(std::size_t count, const InParallel& how, const std::function<void(std::size_t)>& work) {
  std::atomic<std::size_t> next = 0;
  std::exception_ptr first;
  std::mutex first_lock;
  const auto run = [&] {
    try {
      if (how.begin_thread) how.begin_thread();
      for (std::size_t i = next++; i < count && !how.stop.stop_requested(); i = next++)
        work(i);
    } catch (...) {
      const std::scoped_lock lock(first_lock);
      if (!first) first = std::current_exception();
      next = count; // the others need not go on
    }
  };
  const std::size_t wanted = how.threads > 0 ? how.threads : std::max(1U, std::thread::hardware_concurrency());
  const bool stands_aside = static_cast<bool>(how.begin_thread);
  {
    std::vector<std::jthread> others;
    try {
      for (std::size_t t = stands_aside ? 0 : 1; t < std::min(wanted, count); ++t)
        others.emplace_back(run);
    } catch (const std::system_error&) { // the machine has no thread to spare: those there are do it all
      if (others.empty() && stands_aside) throw;
    }
    if (!stands_aside) run();
  }
  if (first) std::rethrow_exception(first);
}

} // namespace mavrel
