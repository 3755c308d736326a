#include "build/profile_csv.h"

#include "build/csv_cells.h"

#include <algorithm>
#include <optional>

namespace mavrel::build {

namespace {

constexpr NumberSpec along{Kind::length, -200, 200, words("place along the way")};
constexpr NumberSpec height{Kind::length, -20, 20, words("height of the ground")};

/// Metres in one of a head's unit. @returns none where it is not this column
std::optional<double> unit_of(std::string_view head, std::string_view name) {
  if (head.size() <= name.size() || !head.starts_with(name) || head[name.size()] != '_') return std::nullopt;
  const std::string_view unit = head.substr(name.size() + 1);
  if (unit == "m") return 1.0;
  if (unit == "mm") return 1e-3;
  if (unit == "in") return 0.0254;
  return std::nullopt;
}

struct ProfileColumn {
  std::size_t index = 0;
  double factor = 1;
};
std::optional<ProfileColumn> find(const CsvTable& table, std::string_view name) {
  for (std::size_t i = 0; i < table.head.size(); ++i)
    if (const auto factor = unit_of(table.head[i].text, name)) return ProfileColumn{i, *factor};
  return std::nullopt;
}

} // namespace

bool is_profile_csv(std::string_view text) {
  const auto table = read_csv(text);
  return table && find(*table, "x") && find(*table, "z");
}

Expected<std::vector<ProfilePoint>> read_profile_csv(std::string_view text) {
  const auto table = read_csv(text);
  if (!table) return refuse(table.error());
  const auto x = find(*table, "x"), z = find(*table, "z");
  if (!x || !z)
    return refuse(words("Line {0}: the head is x and z with their unit, for example x_m,z_m."),
                  {std::to_string(table->head_line)});
  std::vector<ProfilePoint> out;
  for (const CsvRow& row : table->rows) {
    if (out.size() == most_profile_points)
      return refuse(words("Line {0}: up to {1} places are right."),
                    {std::to_string(row.line), std::to_string(most_profile_points)});
    const auto at = number_in(row.cells[x->index], row.line, x->factor, along);
    if (!at) return refuse(at.error());
    const auto up = number_in(row.cells[z->index], row.line, z->factor, height);
    if (!up) return refuse(up.error());
    if (!out.empty() && !(*at > out.back().x))
      return refuse(at_cell(row.line, row.cells[x->index],
                            {words("each place lies further along than the last; this one does not."), {}}));
    out.push_back({*at, *up, {}});
  }
  if (out.size() < 2) return refuse(words("A profile has two places at least."));
  return out;
}

} // namespace mavrel::build
