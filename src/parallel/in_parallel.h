// Work shared among threads: one way for everything that does so. What goes wrong in one of them is thrown where it was
// asked for, not the end of the program.
#pragma once

#include <cstddef>
#include <functional>
#include <stop_token>

namespace mavrel {

struct InParallel {
  unsigned threads = 0;               // 0: as many as the machine has
  std::stop_token stop = {};          // looked at before each piece
  std::function<void()> begin_thread; // called first in every thread; the caller's then only waits, and stays as it is
};

/// Calls `work(i)` once for every i below `count`, from several threads at a time, until all is done or it is asked to
/// stop. What `work` refers to is the caller's and need only live until this returns.
/// @throws the first exception that any of them threw, once all have ended
void in_parallel(std::size_t count, const InParallel& how, const std::function<void(std::size_t)>& work);

} // namespace mavrel
