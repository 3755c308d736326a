// A question that a view asks about what the desk shows now.
#pragma once

#include "app/desk/desk.h"
#include "assess/kept/kept.h"

namespace mavrel::app {

/// Its answer is worked out when a view first wants it and kept while what it is worked out from stays equal: whoever
/// uses it need not know what changes it.
template <class Question>
class Asked {
public:
  using Given = typename Question::Given;
  using Answer = typename Question::Answer;

  /// @param given  what the question is to be worked out from, as the desk has it now
  Asked(const Desk& desk, Given (*given)(const Desk&)) : desk_(desk), given_(given) {}
  /// Valid until the next call.
  [[nodiscard]] const Answer& operator()() const { return *kept_.ask(given_(desk_)); }

private:
  const Desk& desk_;
  Given (*given_)(const Desk&);
  mutable assess::Kept<Question> kept_;
};

} // namespace mavrel::app
