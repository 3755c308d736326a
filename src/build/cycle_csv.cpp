#include "build/cycle_csv.h"

#include "build/csv_cells.h"

#include <fmt/format.h>

#include <algorithm>
#include <numbers>

namespace mavrel::build {

namespace {

constexpr double inch = 0.0254, degree = std::numbers::pi / 180;

/// A column that every sheet may have; all others are gaps.
struct Known {
  const char* name;
  const NumberSpec* spec;
  std::optional<double> CycleRow::*to; // nullptr: the height
};
constexpr Known known[] = {
    {"height", &cycle_height, nullptr},           {"spring", &cycle_spring, &CycleRow::spring},
    {"damper", &cycle_damper, &CycleRow::damper}, {"camber", &cycle_angle, &CycleRow::camber},
    {"toe", &cycle_angle, &CycleRow::toe},
};
const Known* find_known(std::string_view name) {
  const auto row = std::find_if(std::begin(known), std::end(known), [&](const Known& k) { return name == k.name; });
  return row == std::end(known) ? nullptr : &*row;
}

/// What a column's cells are put into.
struct Column {
  const Known* what = nullptr; // a gap when nullptr
  std::string name;            // of a gap
  double factor = 1e-3;
};

std::optional<Column> column_of(std::string_view head) {
  Column out;
  const std::size_t mark = head.rfind('_');
  if (mark == std::string_view::npos) return std::nullopt;
  const std::string_view unit = head.substr(mark + 1), name = head.substr(0, mark);
  out.what = find_known(name);
  const bool angle = out.what && out.what->spec->kind == Kind::angle;
  if (angle ? unit != "deg" : unit != "mm" && unit != "in") return std::nullopt;
  out.factor = angle ? degree : unit == "in" ? inch : 1e-3;
  if (out.what) return out;
  out.name = name;
  std::replace(out.name.begin(), out.name.end(), '_', ' ');
  if (out.name.empty() || mistake_in_text(out.name, "", most_gap_name)) return std::nullopt;
  return out;
}

/// @returns what is wrong in the cell; none when it was taken
std::optional<Message> take(const Column& column, const CsvCell& cell, std::size_t line, CycleRow& row) {
  const bool height = column.what && !column.what->to;
  if (cell.text.empty()) {
    if (!height) return std::nullopt;
    return at_cell(line, cell, {words("the height is missing."), {}});
  }
  const auto value = number_in(cell, line, column.factor, column.what ? *column.what->spec : cycle_gap);
  if (!value) return value.error();
  if (height)
    row.height = *value;
  else if (column.what)
    row.*(column.what->to) = *value;
  else
    row.gaps.push_back({column.name, *value, {}});
  return std::nullopt;
}

/// The head of a gap's column: none of the known ones, whatever the gap is called.
std::string head_of(std::string name) {
  for (char& c : name)
    if (c == ' ' || c == ',' || c == '"' || c == '\n' || c == '\r' || c == '#') c = '_';
  return (find_known(name) ? name + "_gap" : name) + "_mm";
}

} // namespace

Expected<std::vector<CycleRow>> read_cycle_csv(std::string_view text) {
  const auto table = read_csv(text, {most_cycle_rows, std::size(known) + most_cycle_gaps, 256 * 1024});
  if (!table) return refuse(table.error());
  std::vector<Column> columns;
  bool heights = false;
  std::vector<std::string> seen;
  for (const CsvCell& head : table->head) {
    const auto column = column_of(head.text);
    if (!column)
      return refuse(
          at_cell(table->head_line, head,
                  {words("“{0}” is no column of a cycle sheet; height_mm, spring_mm, damper_mm, camber_deg, toe_deg or "
                         "a gap like tyre_to_liner_mm are."),
                   {excerpt(head.text, 40)}}));
    const std::string name = column->what ? column->what->name : column->name;
    if (std::find(seen.begin(), seen.end(), name) != seen.end())
      return refuse(at_cell(table->head_line, head, {words("“{0}” stands there twice."), {excerpt(head.text, 40)}}));
    seen.push_back(name);
    heights = heights || column->what == &known[0];
    columns.push_back(*column);
  }
  if (!heights) return refuse(words("The sheet has no column height_mm: every row is read at a height."));
  std::vector<CycleRow> out;
  for (const CsvRow& row : table->rows) {
    CycleRow& made = out.emplace_back();
    for (std::size_t i = 0; i < columns.size(); ++i)
      if (auto wrong = take(columns[i], row.cells[i], row.line, made)) return refuse(std::move(*wrong));
  }
  return out;
}

std::string cycle_csv(const List<CycleRow>& rows) {
  std::vector<const Known*> filled;
  for (const Known& column : known)
    if (!column.to ||
        std::any_of(rows.begin(), rows.end(), [&](const CycleRow& r) { return (r.*(column.to)).has_value(); }))
      filled.push_back(&column);
  std::vector<std::string> gaps;
  for (const CycleRow& row : rows)
    for (const CycleGap& gap : row.gaps)
      if (std::find(gaps.begin(), gaps.end(), gap.name) == gaps.end()) gaps.push_back(gap.name);

  std::string out;
  for (const Known* column : filled)
    out +=
        fmt::format("{}{}_{}", out.empty() ? "" : ",", column->name, column->spec->kind == Kind::angle ? "deg" : "mm");
  for (const std::string& name : gaps)
    out += "," + head_of(name);
  out += "\n";
  for (const CycleRow& row : rows) {
    out += fmt::format("{:.10g}", row.height / 1e-3);
    for (const Known* column : filled) {
      if (!column->to) continue;
      const auto& value = row.*(column->to);
      out += value ? fmt::format(",{:.10g}", *value / (column->spec->kind == Kind::angle ? degree : 1e-3)) : ",";
    }
    for (const std::string& name : gaps) {
      const auto found =
          std::find_if(row.gaps.begin(), row.gaps.end(), [&](const CycleGap& g) { return g.name == name; });
      out += found == row.gaps.end() ? "," : fmt::format(",{:.10g}", found->value / 1e-3);
    }
    out += "\n";
  }
  return out;
}

} // namespace mavrel::build
