// What stops it, and what a careful builder would point out: findings as data. Each topic has its own table of rows and
// its own function that adds what it found; assess/rows.cpp names the tables.
#pragma once

#include "assess/finding/stage.h"
#include "build/basics.h"
#include "quantity/message.h"

#include <optional>
#include <span>
#include <string>
#include <string_view>
#include <vector>

namespace mavrel::assess {

using build::End;
using build::Side;

enum class Severity { stop, caution, note };
[[nodiscard]] const char* severity_key(Severity severity);

/// One thing that can be found. Lives as long as the program.
struct FindingRow {
  const char* code;      // stable, `damper_open_short`
  const StageRow* stage; // where it is mended
};

/// The row of a code in a table of rows. A code that is not in the table does not compile.
template <std::size_t N>
[[nodiscard]] consteval const FindingRow& row_in(const FindingRow (&rows)[N], std::string_view code) {
  for (const FindingRow& row : rows)
    if (code == row.code) return row;
  throw "no such finding in the table";
}

/// Something the builder should know, as data.
struct Finding {
  std::string code;
  Severity severity = Severity::note;
  std::optional<End> end; // which end it is about; none: the whole car
  const StageRow* stage = nullptr;
  std::string place; // path of the field to go to
  Message title, reason, way_out;
  std::optional<Amount> number, limit;
  friend bool operator==(const Finding&, const Finding&) = default;
};
using Findings = std::vector<Finding>;

/// Adds a finding and gives it back, for its number and limit to be filled in.
inline Finding& add_finding(Findings& out, const FindingRow& row, Severity severity, std::optional<End> end,
                            std::string place, Message title, Message reason, Message way_out) {
  Finding& f = out.emplace_back();
  f.code = row.code;
  f.stage = row.stage;
  f.severity = severity;
  f.end = end;
  f.place = std::move(place);
  f.title = std::move(title);
  f.reason = std::move(reason);
  f.way_out = std::move(way_out);
  return f;
}

/// Worst first; within a severity in the order found.
void sort_findings(Findings& findings);

} // namespace mavrel::assess
