// Questions of the core that can be stopped, asked beside the interface.
#pragma once

#include "app/desk/runner.h"

#include <optional>

namespace mavrel::app {

/// A question of the core that can be stopped, asked beside the interface.
template <class GivenType, class AnswerType,
          std::optional<AnswerType> (*answered)(const GivenType&, const std::stop_token&)>
struct Stoppable {
  using Given = GivenType;
  using Answer = std::optional<AnswerType>;
  static Answer answer(const Given& given, const RunControl& control) { return answered(given, control.stop); }
};

} // namespace mavrel::app
