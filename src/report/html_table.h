// Tables of a sheet, as a rich-text engine lays them out.
#pragma once

#include <fmt/format.h>

#include <string>
#include <vector>

namespace mavrel::report {

inline std::string escaped(const std::string& text) {
  std::string out;
  for (const char c : text) {
    if (c == '<')
      out += "&lt;";
    else if (c == '>')
      out += "&gt;";
    else if (c == '&')
      out += "&amp;";
    else if (c == '"')
      out += "&quot;";
    else
      out += c;
  }
  return out;
}

/// Builds one table row by row; the first row is the head.
class Table {
public:
  explicit Table(std::vector<std::string> head) : columns_(head.size()) {
    out_ = "<table width='100%' cellspacing='0' cellpadding='3'><thead>";
    row(std::move(head), "th", "");
    out_ += "</thead>";
  }
  void row(const std::vector<std::string>& cells) { row(cells, "td", ""); }
  [[nodiscard]] std::string text() const { return out_ + "</table>"; }

private:
  void row(std::vector<std::string> cells, const char* tag, const char* attributes) {
    cells.resize(columns_);
    out_ += fmt::format("<tr{}>", attributes);
    for (std::size_t i = 0; i < cells.size(); ++i)
      out_ += fmt::format("<{0} align='left' valign='top'>{1}</{0}>", tag, escaped(cells[i]));
    out_ += "</tr>";
  }
  std::size_t columns_;
  std::string out_;
};

} // namespace mavrel::report
