// Words of the trade that this program calls otherwise: found by the finder, and in docs/words.md beside ours.
#pragma once

#include <span>

namespace mavrel::app {

struct TradeWord {
  const char* word;  // `ride height`
  const char* ours;  // `height (H): hub face to arch lip`
  const char* stage; // where it is read or typed
  const char* place; // the field there; empty: the stage alone. `@.` is the active variant
};
[[nodiscard]] std::span<const TradeWord> trade_words();

} // namespace mavrel::app
