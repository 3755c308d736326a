// Quantities typed behind an option.
#pragma once

#include "quantity/expected.h"
#include "quantity/quantity.h"

#include <string>

namespace mavrel::cli {

/// A typed quantity of a named option, believable.
[[nodiscard]] inline Expected<double> within(const char* option, const std::string& text, Kind kind, double least,
                                             double most) {
  const auto value = parse_quantity(text, kind, {}, {});
  if (!value) return refuse(words("{0}: {1}"), {std::string(option), value.error()});
  if (!(*value >= least && *value <= most))
    return refuse(words("{0}: {1} is out of reason; {2} to {3} is believable."),
                  {std::string(option), told_from({*value, kind, -2}, *value < least ? least : most),
                   Amount{least, kind, -2}, Amount{most, kind, -2}});
  return value;
}

} // namespace mavrel::cli
