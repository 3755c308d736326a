#include "build/cycle_csv.h"

#include "build/fields.h"
#include "file/csv.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <numbers>

namespace mavrel::build {

namespace {

constexpr double inch = 0.0254, degree = std::numbers::pi / 180;

/// What a column's cells are put into.
struct Column {
  enum class What { height, spring, damper, camber, toe, gap } what = What::gap;
  std::string name; // of a gap
  double factor = 1e-3;
};

std::optional<Column> column_of(std::string_view head) {
  Column out;
  const std::size_t mark = head.rfind('_');
  if (mark == std::string_view::npos) return std::nullopt;
  const std::string_view unit = head.substr(mark + 1), name = head.substr(0, mark);
  const bool angle = name == "camber" || name == "toe";
  if (angle ? unit != "deg" : unit != "mm" && unit != "in") return std::nullopt;
  out.factor = angle ? degree : unit == "in" ? inch : 1e-3;
  using What = Column::What;
  for (const auto& [known, what] :
       {std::pair{"height", What::height}, std::pair{"spring", What::spring}, std::pair{"damper", What::damper},
        std::pair{"camber", What::camber}, std::pair{"toe", What::toe}})
    if (name == known) out.what = what;
  if (out.what == What::gap) {
    out.name = name;
    std::replace(out.name.begin(), out.name.end(), '_', ' ');
    if (out.name.empty() || mistake_in_text(out.name, "", most_gap_name)) return std::nullopt;
  }
  return out;
}

Message at(std::size_t line, const CsvCell& cell, const Message& what) {
  return {words("Line {0}, column {1}: {2}"), {std::to_string(line), std::to_string(cell.column), what}};
}

/// @returns what is wrong with the value there; none when it was taken
std::optional<Message> put(const Column& column, double value, CycleRow& row) {
  struct Range {
    double least, most;
    const char* label;
  };
  using What = Column::What;
  const bool angle = column.what == What::camber || column.what == What::toe;
  const auto range = [&]() -> Range {
    switch (column.what) {
    case What::height:
      return {cycle_height.least, cycle_height.most, cycle_height.label};
    case What::spring:
      return {cycle_spring.least, cycle_spring.most, cycle_spring.label};
    case What::damper:
      return {cycle_damper.least, cycle_damper.most, cycle_damper.label};
    case What::gap:
      return {cycle_gap.least, cycle_gap.most, cycle_gap.label};
    default:
      return {cycle_angle.least, cycle_angle.most, cycle_angle.label};
    }
  }();
  if (value < range.least || value > range.most) {
    const Kind kind = angle ? Kind::angle : Kind::length;
    return Message{words("{0}: {1} is out of reason; {2} to {3} is believable."),
                   {range.label, Amount{value, kind, -2, {}}, Amount{range.least, kind, -2, {}},
                    Amount{range.most, kind, -2, {}}}};
  }
  switch (column.what) {
  case What::height:
    row.height = value;
    break;
  case What::spring:
    row.spring = value;
    break;
  case What::damper:
    row.damper = value;
    break;
  case What::camber:
    row.camber = value;
    break;
  case What::toe:
    row.toe = value;
    break;
  case What::gap:
    row.gaps.push_back({column.name, value, {}});
    break;
  }
  return std::nullopt;
}

} // namespace

Expected<std::vector<CycleRow>> read_cycle_csv(std::string_view text) {
  const auto table = read_csv(text, {most_cycle_rows, 5 + most_cycle_gaps, 256 * 1024});
  if (!table) return refuse(table.error());
  std::vector<Column> columns;
  bool heights = false;
  std::vector<std::string> seen;
  for (const CsvCell& head : table->head) {
    const auto column = column_of(head.text);
    if (!column)
      return refuse(
          at(table->head_line, head,
             {words("“{0}” is no column of a cycle sheet; height_mm, spring_mm, damper_mm, camber_deg, toe_deg or "
                    "a gap like tyre_to_liner_mm are."),
              {excerpt(head.text, 40)}}));
    const std::string name =
        column->what == Column::What::gap ? column->name : std::to_string(static_cast<int>(column->what));
    if (std::find(seen.begin(), seen.end(), name) != seen.end())
      return refuse(at(table->head_line, head, {words("“{0}” stands there twice."), {excerpt(head.text, 40)}}));
    seen.push_back(name);
    heights = heights || column->what == Column::What::height;
    columns.push_back(*column);
  }
  if (!heights) return refuse(words("The sheet has no column height_mm: every row is read at a height."));
  std::vector<CycleRow> out;
  for (const CsvRow& row : table->rows) {
    CycleRow& made = out.emplace_back();
    for (std::size_t i = 0; i < columns.size(); ++i) {
      const std::string& cell = row.cells[i].text;
      if (cell.empty()) {
        if (columns[i].what != Column::What::height) continue;
        return refuse(at(row.line, row.cells[i], {words("the height is missing."), {}}));
      }
      double value = 0;
      const auto [end, error] = std::from_chars(cell.data(), cell.data() + cell.size(), value);
      if (error != std::errc() || end != cell.data() + cell.size() || !std::isfinite(value))
        return refuse(at(row.line, row.cells[i], {words("“{0}” is no number."), {excerpt(cell, 40)}}));
      if (auto wrong = put(columns[i], value * columns[i].factor, made))
        return refuse(at(row.line, row.cells[i], *wrong));
    }
  }
  return out;
}

std::string cycle_csv(const List<CycleRow>& rows) {
  bool spring = false, damper = false, camber = false, toe = false;
  std::vector<std::string> gaps;
  for (const CycleRow& row : rows) {
    spring = spring || row.spring;
    damper = damper || row.damper;
    camber = camber || row.camber;
    toe = toe || row.toe;
    for (const CycleGap& gap : row.gaps)
      if (std::find(gaps.begin(), gaps.end(), gap.name) == gaps.end()) gaps.push_back(gap.name);
  }
  std::string out = "height_mm";
  for (const auto& [there, name] : {std::pair{spring, ",spring_mm"}, std::pair{damper, ",damper_mm"},
                                    std::pair{camber, ",camber_deg"}, std::pair{toe, ",toe_deg"}})
    if (there) out += name;
  for (std::string name : gaps) {
    std::replace(name.begin(), name.end(), ' ', '_');
    std::replace(name.begin(), name.end(), ',', '_');
    out += "," + name + "_mm";
  }
  out += "\n";
  const auto cell = [&](bool column, const std::optional<double>& value, double factor) {
    if (column) out += value ? fmt::format(",{:.10g}", *value / factor) : ",";
  };
  for (const CycleRow& row : rows) {
    out += fmt::format("{:.10g}", row.height / 1e-3);
    cell(spring, row.spring, 1e-3);
    cell(damper, row.damper, 1e-3);
    cell(camber, row.camber, degree);
    cell(toe, row.toe, degree);
    for (const std::string& name : gaps) {
      const auto found =
          std::find_if(row.gaps.begin(), row.gaps.end(), [&](const CycleGap& g) { return g.name == name; });
      cell(true, found == row.gaps.end() ? std::nullopt : std::optional(found->value), 1e-3);
    }
    out += "\n";
  }
  return out;
}

} // namespace mavrel::build
