#include "cli/long_work.h"

#include <cstdio>

namespace mavrel::cli {

using Clock = std::chrono::steady_clock;

std::function<void(double)> told_progress(const char* what) {
  static constexpr auto every = std::chrono::seconds(2);
  return [what, next = Clock::now() + every](double share) mutable {
    if (Clock::now() < next || share >= 1) return;
    next = Clock::now() + every;
    std::fprintf(stderr, "mavrel-cli: %s, %.0f %% done\n", what, 100 * share);
  };
}

Deadline::Deadline(double seconds)
    : waits_([this, seconds](const std::stop_token& ended) {
        std::unique_lock lock(mutex_);
        ended_.wait_for(lock, ended, std::chrono::duration<double>(seconds), [] { return false; });
        if (!ended.stop_requested()) work_.request_stop();
      }) {}

} // namespace mavrel::cli
