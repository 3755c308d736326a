#include "file/csv.h"

#include "file/text_file.h"
#include "quantity/text.h"

#include <charconv>
#include <string>

namespace mavrel {

namespace {

std::vector<CsvCell> split(std::string_view line, std::size_t most) {
  std::vector<CsvCell> out;
  std::size_t column = 1;
  for (std::size_t start = 0; start <= line.size() && out.size() <= most;) {
    const std::size_t comma = std::min(line.find(',', start), line.size());
    const std::string_view part = line.substr(start, comma - start);
    out.push_back({std::string(trimmed(part)), column});
    column += letters(part) + 1;
    start = comma + 1;
  }
  return out;
}

Message at(std::size_t line, const Message& what) {
  return {words("Line {0}: {1}"), {std::to_string(line), what}};
}

} // namespace

Expected<CsvTable> read_csv(std::string_view text, const CsvBounds& bounds) {
  if (text.size() > bounds.bytes)
    return refuse(words("The table is larger than {0} kB; such tables never are."),
                  {std::to_string(bounds.bytes / 1024)});
  if (const auto bad = first_bad_utf8(text)) {
    const TextPlace place = place_in(text, *bad);
    return refuse(words("Line {0}, column {1}: this is not UTF-8 text."),
                  {std::to_string(place.line), std::to_string(place.column)});
  }
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  CsvTable out;
  std::size_t line = 0;
  while (!text.empty()) {
    ++line;
    const std::size_t end = std::min(text.find('\n'), text.size());
    std::string_view now = text.substr(0, end);
    text.remove_prefix(std::min(end + 1, text.size()));
    if (now.ends_with('\r')) now.remove_suffix(1);
    if (trimmed(now).empty() || trimmed(now).starts_with('#')) continue;
    std::vector<CsvCell> cells = split(now, bounds.columns);
    if (cells.size() > bounds.columns)
      return refuse(at(line, {words("more than {0} columns."), {std::to_string(bounds.columns)}}));
    if (out.head.empty()) {
      out.head_line = line;
      out.head = std::move(cells);
      continue;
    }
    if (cells.size() != out.head.size())
      return refuse(at(line, {words("{0} cells are there; the head has {1}."),
                              {std::to_string(cells.size()), std::to_string(out.head.size())}}));
    if (out.rows.size() == bounds.rows)
      return refuse(
          at(line, {words("more than {0} rows; such tables never have so many."), {std::to_string(bounds.rows)}}));
    out.rows.push_back({line, std::move(cells)});
  }
  if (out.head.empty()) return refuse(words("The table is empty."));
  return out;
}

namespace {

/// Would a spreadsheet take it for a formula?
bool is_formula(std::string_view text) {
  if (text.empty() || std::string_view("=+-@").find(text.front()) == std::string_view::npos) return false;
  double figure = 0;
  const std::string_view past = text.front() == '+' ? text.substr(1) : text;
  const auto [end, error] = std::from_chars(past.data(), past.data() + past.size(), figure);
  if (error != std::errc()) return true;
  // Behind a figure only its unit may stand: -5 mm, -12 %, -3 kg/(s·Pa).
  const std::string_view unit(end, static_cast<std::size_t>(past.data() + past.size() - end));
  return unit.find_first_of("=+-*^&|!<>@0123456789\"'") != std::string_view::npos;
}

/// A formula, or one that somebody has guarded: whichever it was, it is read back as it stood.
bool wants_guard(std::string_view text) {
  while (!text.empty() && text.front() == '\'')
    text.remove_prefix(1);
  return is_formula(text);
}

} // namespace

std::string no_formula(std::string_view text) {
  return wants_guard(text) ? "'" + std::string(text) : std::string(text);
}

std::string_view without_guard(std::string_view text) {
  return !text.empty() && text.front() == '\'' && wants_guard(text) ? text.substr(1) : text;
}

std::string csv_cell(std::string_view text) {
  std::string plain = no_formula(text);
  for (char& c : plain)
    if (static_cast<unsigned char>(c) < 0x20 && c != '\n' && c != '\r' && c != '\t') c = ' ';
  if (plain.find_first_of(",\"\n\r") == std::string::npos) return plain;
  std::string out = "\"";
  for (const char c : plain)
    out += c == '"' ? std::string("\"\"") : std::string(1, c);
  return out + '"';
}

} // namespace mavrel
