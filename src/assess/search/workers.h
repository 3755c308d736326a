// Work shared among threads. What goes wrong in one of them is an answer, not the end of the program.
#pragma once

#include <cstddef>
#include <functional>
#include <stop_token>

namespace mavrel::assess {

/// Calls `work(i)` once for every i below `count`, from several threads at a time, until all is done or `stop` is
/// asked.
/// @param threads  0: as many as the machine has
/// @throws the first exception that any of them threw, once all have ended
void in_parallel(std::size_t count, unsigned threads, const std::stop_token& stop,
                 const std::function<void(std::size_t)>& work);

} // namespace mavrel::assess
