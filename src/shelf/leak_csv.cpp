#include "shelf/leak_csv.h"

#include "build/csv_cells.h"
#include "file/csv.h"

#include <array>

namespace mavrel::shelf {

namespace {

constexpr build::NumberSpec time_read{Kind::time, 0, 1e8, words("time")};
constexpr build::NumberSpec pressure_read{Kind::pressure, 0, 5e6, words("pressure")};
constexpr build::NumberSpec warmth_read{Kind::temperature_step, -60, 150, words("temperature, °C")};

} // namespace

Expected<std::vector<air::LeakReading>> read_leak_csv(const std::string& text) {
  const auto table = read_csv(text);
  if (!table) return refuse(table.error());
  constexpr const char* heads[] = {"time_s", "pressure_bar", "temperature_c"};
  std::array<std::size_t, 3> at{};
  for (std::size_t h = 0; h < 3; ++h) {
    at[h] = table->head.size();
    for (std::size_t i = 0; i < table->head.size(); ++i)
      if (table->head[i].text == heads[h]) at[h] = i;
    if (at[h] == table->head.size())
      return refuse(words("Line {0}: the head is time_s,pressure_bar,temperature_c; {1} is missing."),
                    {std::to_string(table->head_line), std::string(heads[h])});
  }
  std::vector<air::LeakReading> out;
  for (const CsvRow& row : table->rows) {
    const auto time = build::number_in(row.cells[at[0]], row.line, 1, time_read);
    const auto pressure = build::number_in(row.cells[at[1]], row.line, 1e5, pressure_read);
    const auto warmth = build::number_in(row.cells[at[2]], row.line, 1, warmth_read);
    for (const auto* value : {&time, &pressure, &warmth})
      if (!*value) return refuse(value->error());
    out.push_back({*time, *pressure, *warmth + air::ice_point});
  }
  return out;
}

} // namespace mavrel::shelf
