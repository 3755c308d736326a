// A result or the reason why there is none. Errors a user can cause travel as values; broken invariants are assertions.
#pragma once

#include "quantity/message.h"

#include <tl/expected.hpp>

#include <utility>

namespace mavrel {

template <class T>
using Expected = tl::expected<T, Message>;

/// `return refuse(words("{0} is not a number"), {text});`
[[nodiscard]] inline tl::unexpected<Message> refuse(const char* text, std::vector<Argument> args = {}) {
  return tl::unexpected<Message>(Message{text, std::move(args)});
}
[[nodiscard]] inline tl::unexpected<Message> refuse(Message why) {
  return tl::unexpected<Message>(std::move(why));
}

} // namespace mavrel
