// How far a long command is, on standard error; and work that is not to go on for ever.
#pragma once

#include <chrono>
#include <condition_variable>
#include <functional>
#include <memory>
#include <mutex>
#include <stop_token>
#include <thread>

namespace mavrel::cli {

/// Tells how far a command is: nothing in its first two seconds, then a line every two.
/// @param what  `doubt`
/// @returns what is called with the share done, from any thread, one at a time
[[nodiscard]] std::function<void(double)> told_progress(const char* what);

/// Asks work to stop once so many seconds have passed, unless it has ended before.
class Deadline {
public:
  explicit Deadline(double seconds);
  ~Deadline() = default;
  Deadline(const Deadline&) = delete;
  Deadline& operator=(const Deadline&) = delete;
  [[nodiscard]] std::stop_token token() const { return work_.get_token(); }

private:
  std::stop_source work_;
  std::mutex mutex_;
  std::condition_variable_any ended_;
  std::jthread waits_; // ends first: it is made last
};

} // namespace mavrel::cli
