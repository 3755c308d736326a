#include "assess/care/log_table.h"

#include "assess/kept/digest.h"
#include "build/field_spec.h"
#include "build/names.h"
#include "build/names_care.h"
#include "file/csv.h"
#include "quantity/text.h"
#include "work/day.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <set>

namespace mavrel::assess {

using build::LogEntry;

namespace {

struct NumberColumn {
  const char* name;
  std::optional<double> LogEntry::*field;
  double least, most;
};
constexpr NumberColumn numbers[] = {
    {"odometer_m", &LogEntry::odometer, 0, 3e9},     {"height_m", &LogEntry::height, 0, 2},
    {"pressure_pa", &LogEntry::pressure, -1e5, 4e6}, {"temperature_k", &LogEntry::temperature, 213.15, 393.15},
    {"seconds_s", &LogEntry::seconds, 0, 3e7},       {"hourly_loss", &LogEntry::hourly_loss, -1, 1},
    {"water_kg", &LogEntry::water, 0, 20},
};
struct TextColumn {
  const char* name;
  std::string LogEntry::*field;
  std::size_t most;
};
constexpr TextColumn texts[] = {
    {"id", &LogEntry::id, 40},       {"day", &LogEntry::day, 16}, {"what", &LogEntry::what, 60},
    {"where", &LogEntry::where, 40}, {"by", &LogEntry::by, 40},   {"text", &LogEntry::text, 1000},
};

std::string cell(const std::string& text) {
  std::string out = no_formula(text);
  for (char& c : out)
    if (c == ',')
      c = ';';
    else if (static_cast<unsigned char>(c) < 0x20)
      c = ' ';
  return out;
}

} // namespace

std::string log_table(const List<LogEntry>& log) {
  std::string out = "id,day,kind,what,where";
  for (const NumberColumn& n : numbers)
    out += std::string(",") + n.name;
  out += ",by,text\n";
  std::vector<std::size_t> order(log.size());
  for (std::size_t i = 0; i < order.size(); ++i)
    order[i] = i;
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return log[a].day < log[b].day; });
  for (const std::size_t i : order) {
    const LogEntry& e = log[i];
    const char* kind = "";
    for (const auto& row : build::names_of(e.kind))
      if (row.value == e.kind) kind = row.key;
    out += fmt::format("{},{},{},{},{}", cell(e.id), cell(e.day), kind, cell(e.what), cell(e.where));
    for (const NumberColumn& n : numbers)
      out += (e.*n.field) ? fmt::format(",{}", *(e.*n.field)) : ",";
    out += fmt::format(",{},{}\n", cell(e.by), cell(e.text));
  }
  return out;
}

Expected<std::vector<LogEntry>> read_log_table(std::string_view csv) {
  const auto table = read_csv(csv, {build::most_log, 64, 8U << 20U});
  if (!table) return refuse(table.error());
  const auto column = [&](std::string_view name) -> std::optional<std::size_t> {
    for (std::size_t i = 0; i < table->head.size(); ++i)
      if (table->head[i].text == name) return i;
    return std::nullopt;
  };
  const auto day = column("day"), kind = column("kind");
  if (!day || !kind) return refuse(words("The table is no logbook: it has no columns “day” and “kind”."));
  std::vector<LogEntry> out;
  for (const CsvRow& row : table->rows) {
    LogEntry e;
    const auto place = [&](std::size_t c) {
      return std::pair(std::to_string(row.line), std::to_string(row.cells[c].column));
    };
    for (const TextColumn& t : texts)
      if (const auto c = column(t.name)) {
        if (const auto wrong = build::mistake_in_text(row.cells[*c].text, t.name, t.most))
          return refuse(words("Line {0}, column {1}: {2}"), {place(*c).first, place(*c).second, *wrong});
        e.*t.field = without_guard(row.cells[*c].text);
      }
    if (!work::parse_moment(e.day))
      return refuse(words("Line {0}: “{1}” is no day. One such as 2026-11-26 is right."),
                    {std::to_string(row.line), excerpt(e.day, 24)});
    bool known = false;
    for (const auto& name : build::names_of(e.kind))
      if (row.cells[*kind].text == name.key) e.kind = name.value, known = true;
    if (!known)
      return refuse(words("Line {0}: “{1}” is no kind of entry. One of reading, work, event, remark is right."),
                    {std::to_string(row.line), excerpt(row.cells[*kind].text, 24)});
    for (const NumberColumn& n : numbers) {
      const auto c = column(n.name);
      if (!c || row.cells[*c].text.empty()) continue;
      const std::string& text = row.cells[*c].text;
      double value = 0;
      const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
      if (error != std::errc() || end != text.data() + text.size() || !(value >= n.least && value <= n.most))
        return refuse(words("Line {0}, column {1}: “{2}” is there; {3} to {4} is right."),
                      {place(*c).first, place(*c).second, excerpt(text, 24), fmt::format("{:g}", n.least),
                       fmt::format("{:g}", n.most)});
      e.*n.field = value;
    }
    // Written by hand or by another program: the same line is the same entry, however often it is read.
    if (e.id.empty()) e.id = digest_of(e).text().substr(0, 24);
    out.push_back(std::move(e));
  }
  return out;
}

Expected<List<LogEntry>> joined_log(const List<LogEntry>& log, const std::vector<LogEntry>& more) {
  List<LogEntry> out = log;
  std::set<std::string> there;
  for (const LogEntry& e : log)
    there.insert(e.id);
  for (const LogEntry& e : more)
    if (e.id.empty() || there.insert(e.id).second) out.push_back(e);
  if (out.size() > build::most_log)
    return refuse(words("Together the logs have {0} entries; {1} are the most that are kept."),
                  {std::to_string(out.size()), std::to_string(build::most_log)});
  return out;
}

} // namespace mavrel::assess
