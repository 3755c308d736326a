// How the choices of Care are called.
#pragma once

#include "build/care.h"
#include "build/choice_name.h"

namespace mavrel::build {

constexpr auto names_of(LogKind) {
  return std::to_array<ChoiceName<LogKind>>({
      {LogKind::reading, "reading", words("reading")},
      {LogKind::work, "work", words("work")},
      {LogKind::event, "event", words("event")},
      {LogKind::remark, "remark", words("remark")},
  });
}

} // namespace mavrel::build
