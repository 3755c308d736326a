// Questions of the core that can be stopped, asked beside the interface.
#pragma once

#include "app/desk/runner.h"

#include <atomic>
#include <optional>

namespace mavrel::app {

/// A flag that goes up when the runner is asked to stop.
class StopFlag {
public:
  explicit StopFlag(const RunControl& control) : callback_(control.stop, [this] { flag_ = true; }) {}
  [[nodiscard]] const std::atomic<bool>* flag() const { return &flag_; }

private:
  std::atomic<bool> flag_ = false;
  std::stop_callback<std::function<void()>> callback_;
};

/// A question of the core that can be stopped, asked beside the interface.
template <class GivenType, class AnswerType,
          std::optional<AnswerType> (*answered)(const GivenType&, const std::atomic<bool>*)>
struct Stoppable {
  using Given = GivenType;
  using Answer = std::optional<AnswerType>;
  static Answer answer(const Given& given, const RunControl& control) {
    const StopFlag stop(control);
    return answered(given, stop.flag());
  }
};

} // namespace mavrel::app
