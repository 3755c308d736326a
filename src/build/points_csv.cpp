#include "build/points_csv.h"

#include "build/csv_cells.h"

#include <fmt/format.h>

#include <algorithm>
#include <numbers>

namespace mavrel::build {

namespace {

constexpr double inch = 0.0254, degree = std::numbers::pi / 180;
constexpr std::size_t most_joint_name = 24;

/// A column with a number in it.
struct Place {
  const char* name;
  const NumberSpec* spec;
  double HardPoint::*to;
};
constexpr Place places[] = {
    {"x", &point_along, &HardPoint::x}, {"y", &point_across, &HardPoint::y}, {"z", &point_up, &HardPoint::z}};

struct Columns {
  std::size_t joint = none, side = none, turn = none;
  std::size_t place[3] = {none, none, none};
  double factor[3] = {};
  static constexpr std::size_t none = static_cast<std::size_t>(-1);
};

Expected<Columns> columns_of(const CsvTable& table) {
  Columns out;
  for (std::size_t i = 0; i < table.head.size(); ++i) {
    const CsvCell& head = table.head[i];
    std::size_t* to = nullptr;
    if (head.text == "joint") to = &out.joint;
    if (head.text == "side") to = &out.side;
    if (head.text == "turn_allowed_deg") to = &out.turn;
    for (std::size_t k = 0; k < 3; ++k)
      for (const auto& [unit, factor] : {std::pair{"_mm", 1e-3}, std::pair{"_in", inch}})
        if (head.text == std::string(places[k].name) + unit) to = &out.place[k], out.factor[k] = factor;
    if (!to)
      return refuse(at_cell(table.head_line, head,
                            {words("“{0}” is no column of hard points; joint, x_mm, y_mm, z_mm, side and "
                                   "turn_allowed_deg are."),
                             {excerpt(head.text, 40)}}));
    if (*to != Columns::none)
      return refuse(at_cell(table.head_line, head, {words("“{0}” stands there twice."), {excerpt(head.text, 40)}}));
    *to = i;
  }
  const auto missing = [&](std::size_t column, const char* name) -> std::optional<Message> {
    if (column != Columns::none) return std::nullopt;
    return Message{words("The sheet has no column {0}."), {std::string(name)}};
  };
  if (auto why = missing(out.joint, "joint")) return refuse(*why);
  for (std::size_t k = 0; k < 3; ++k)
    if (auto why = missing(out.place[k], k == 0 ? "x_mm" : k == 1 ? "y_mm" : "z_mm")) return refuse(*why);
  return out;
}

} // namespace

Expected<ReadPoints> read_points_csv(std::string_view text) {
  const auto table = read_csv(text, {2 * most_points, 6, 64 * 1024});
  if (!table) return refuse(table.error());
  const auto columns = columns_of(*table);
  if (!columns) return refuse(columns.error());
  ReadPoints out;
  for (const CsvRow& row : table->rows) {
    HardPoint point;
    const CsvCell& joint = row.cells[columns->joint];
    point.name = joint.text;
    if (point.name.empty()) return refuse(at_cell(row.line, joint, {words("the joint's name is missing."), {}}));
    if (auto wrong = mistake_in_text(point.name, words("joint"), most_joint_name))
      return refuse(at_cell(row.line, joint, *wrong));
    for (std::size_t k = 0; k < 3; ++k) {
      const auto value = number_in(row.cells[columns->place[k]], row.line, columns->factor[k], *places[k].spec);
      if (!value) return refuse(value.error());
      point.*(places[k].to) = *value;
    }
    if (columns->turn != Columns::none && !row.cells[columns->turn].text.empty()) {
      const auto value = number_in(row.cells[columns->turn], row.line, degree, turn_allowed);
      if (!value) return refuse(value.error());
      point.turn_allowed = *value;
    }
    bool right = false;
    if (columns->side != Columns::none) {
      const CsvCell& side = row.cells[columns->side];
      if (!side.text.empty() && side.text != "left" && side.text != "right")
        return refuse(
            at_cell(row.line, side, {words("“{0}” is no side; left or right is."), {excerpt(side.text, 40)}}));
      right = side.text == "right";
    }
    auto& list = right ? out.right : out.left;
    if (std::any_of(list.begin(), list.end(), [&](const HardPoint& p) { return p.name == point.name; }))
      return refuse(at_cell(row.line, joint, {words("“{0}” stands there twice."), {excerpt(point.name, 40)}}));
    if (list.size() == most_points)
      return refuse(
          at_cell(row.line, joint, {words("up to {0} joints a side are kept."), {std::to_string(most_points)}}));
    list.push_back(std::move(point));
  }
  return out;
}

std::string points_csv(const HardPoints& points) {
  bool turns = false;
  for (const auto* list : {&points.left, &points.right})
    turns = turns || std::any_of(list->begin(), list->end(), [](const HardPoint& p) { return p.turn_allowed; });
  const bool sides = !points.right.empty();
  std::string out = "joint,x_mm,y_mm,z_mm";
  if (turns) out += ",turn_allowed_deg";
  if (sides) out += ",side";
  out += "\n";
  for (const auto* list : {&points.left, &points.right})
    for (const HardPoint& p : *list) {
      std::string name = p.name;
      std::replace_if(
          name.begin(), name.end(), [](char c) { return c == ',' || c == '"' || c == '\n' || c == '\r' || c == '#'; },
          '_');
      out += fmt::format("{},{:.10g},{:.10g},{:.10g}", name, p.x / 1e-3, p.y / 1e-3, p.z / 1e-3);
      if (turns) out += p.turn_allowed ? fmt::format(",{:.10g}", *p.turn_allowed / degree) : ",";
      if (sides) out += list == &points.left ? ",left" : ",right";
      out += "\n";
    }
  return out;
}

} // namespace mavrel::build
