// Cells of the document's CSV sheets: numbers within what a field may hold, and where a mistake stands.
#pragma once

#include "build/field_spec.h"
#include "file/csv.h"
#include "quantity/expected.h"

#include <charconv>
#include <cmath>

namespace mavrel::build {

[[nodiscard]] inline Message at_cell(std::size_t line, const CsvCell& cell, const Message& what) {
  return {words("Line {0}, column {1}: {2}"), {std::to_string(line), std::to_string(cell.column), what}};
}

/// The number in a cell. @param factor  SI units in one of the column's
/// @returns it in SI; or, with its line and column, that it is no number or none that the field may hold
[[nodiscard]] inline Expected<double> number_in(const CsvCell& cell, std::size_t line, double factor,
                                                const NumberSpec& spec) {
  const std::string& text = cell.text;
  double value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc() || end != text.data() + text.size() || !std::isfinite(value))
    return refuse(at_cell(line, cell, {words("“{0}” is no number."), {excerpt(text, 40)}}));
  value *= factor;
  if (value < spec.least || value > spec.most)
    return refuse(at_cell(line, cell,
                          {words("{0}: {1} is out of reason; {2} to {3} is believable."),
                           {spec.label, Amount{value, spec.kind, -2, {}}, Amount{spec.least, spec.kind, -2, {}},
                            Amount{spec.most, spec.kind, -2, {}}}}));
  return value;
}

} // namespace mavrel::build
