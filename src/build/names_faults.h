// How the choices of fault finding are called.
#pragma once

#include "build/choice_name.h"
#include "build/faults.h"

namespace mavrel::build {

constexpr auto names_of(FaultAnswer) {
  return std::to_array<ChoiceName<FaultAnswer>>({
      {FaultAnswer::yes, "yes", words("yes")},
      {FaultAnswer::no, "no", words("no")},
      {FaultAnswer::read, "read", words("read")},
      {FaultAnswer::never, "never", words("never")},
  });
}

} // namespace mavrel::build
