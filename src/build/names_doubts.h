// How the tools are called that a car is measured with.
#pragma once

#include "build/choice_name.h"
#include "build/doubts.h"

namespace mavrel::build {

constexpr auto names_of(Tool) {
  return std::to_array<ChoiceName<Tool>>({
      {Tool::tape, "tape", words("tape")},
      {Tool::calliper, "calliper", words("calliper")},
      {Tool::point, "point", words("tape, to a joint")},
      {Tool::scale, "scale", words("scale")},
      {Tool::level, "level", words("level")},
      {Tool::angle, "angle", words("angle gauge")},
      {Tool::ratio, "ratio", words("jack and tape")},
      {Tool::gauge, "gauge", words("pressure gauge")},
      {Tool::card, "card", words("bag card")},
      {Tool::part, "part", words("part's card")},
      {Tool::estimate, "estimate", words("estimate")},
  });
}

} // namespace mavrel::build
