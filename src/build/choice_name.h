// One row of the names of a choice.
#pragma once

#include "quantity/message.h"

#include <array>

namespace mavrel::build {

template <class Enum>
struct ChoiceName {
  Enum value;
  const char* key;  // in files
  const char* name; // for people, English
};

} // namespace mavrel::build
