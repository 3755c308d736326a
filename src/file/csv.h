// Tables as people's spreadsheets write them: a head, rows of cells, commas. Read with bounds, and with the place of
// every cell, so that a mistake can be said where it stands.
#pragma once

#include "quantity/expected.h"

#include <cstddef>
#include <string>
#include <string_view>
#include <vector>

namespace mavrel {

struct CsvCell {
  std::string text;       // spaces around it removed
  std::size_t column = 1; // in characters, from 1
};

struct CsvRow {
  std::size_t line = 1; // from 1
  std::vector<CsvCell> cells;
};

struct CsvTable {
  std::size_t head_line = 1; // from 1; comments may stand above it
  std::vector<CsvCell> head;
  std::vector<CsvRow> rows; // each as long as the head
};

struct CsvBounds {
  std::size_t rows = 1000, columns = 64, bytes = 256 * 1024;
};

/// Lines that are empty or begin with `#` are passed over; a byte order mark is, too. Cells are not quoted.
/// @returns the table; or its first mistake with line and column: too large, not UTF-8, no head, a row of another
/// length
[[nodiscard]] Expected<CsvTable> read_csv(std::string_view text, const CsvBounds& bounds = {});

/// Text that a spreadsheet would work out as a formula, with a ' in front as people write it there; a figure, with or
/// without its unit, is none. And the text again.
[[nodiscard]] std::string no_formula(std::string_view text);
[[nodiscard]] std::string_view without_guard(std::string_view text);

/// A cell as spreadsheets read it back: no formula, in quotes where it has a comma, a quote or a line's end in it, a
/// blank for a control character.
[[nodiscard]] std::string csv_cell(std::string_view text);

} // namespace mavrel
