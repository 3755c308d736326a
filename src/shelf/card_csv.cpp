#include "shelf/card_csv.h"

#include "file/text_file.h"
#include "quantity/quantity.h"
#include "quantity/text.h"
#include "shelf/card_check.h"

#include <fmt/format.h>

#include <algorithm>
#include <charconv>
#include <cmath>
#include <map>
#include <numbers>

namespace mavrel::shelf {

namespace {

constexpr std::string_view magic = "mavrel bag card ";
constexpr int version = 1;
constexpr std::size_t most_rows = 400;

struct Cell {
  std::string_view text;
  std::size_t column = 1; // from 1, in characters
};

std::size_t column_of(std::string_view line, std::string_view part) {
  return place_in(line, static_cast<std::size_t>(part.data() - line.data())).column;
}

constexpr std::size_t most_cells = 64; // of a row: a card's have up to 11

/// @returns up to `most_cells` cells, and one more where there are more
std::vector<Cell> split(std::string_view line) {
  std::vector<Cell> out;
  std::size_t column = 1;
  for (std::size_t start = 0; start <= line.size() && out.size() <= most_cells;) {
    const std::size_t comma = std::min(line.find(',', start), line.size());
    out.push_back({trimmed(line.substr(start, comma - start)), column});
    column += letters(line.substr(start, comma - start)) + 1;
    start = comma + 1;
  }
  return out;
}

std::optional<double> plain_number(std::string_view text) {
  double value = 0;
  const auto [end, error] = std::from_chars(text.data(), text.data() + text.size(), value);
  if (error != std::errc() || end != text.data() + text.size() || !std::isfinite(value)) return std::nullopt;
  return value;
}

std::string quoted(std::string_view text) {
  return excerpt(text, 40);
}

/// One header key that carries a number, its unit, and what is believable.
struct NumberKey {
  const char* name;
  double factor;
  double least, most; // in the key's unit
  double air::BagCard::*to;
  bool needed;
};
constexpr NumberKey number_keys[] = {
    {"collapsed_height_mm", 1e-3, 10, 600, &air::BagCard::collapsed_height, true},
    {"max_height_mm", 1e-3, 20, 1000, &air::BagCard::max_height, true},
    {"max_diameter_mm", 1e-3, 20, 600, &air::BagCard::max_diameter, true},
    {"min_pressure_bar", 1e5, 0, 20, &air::BagCard::min_pressure, true},
    {"max_pressure_bar", 1e5, 0.5, 40, &air::BagCard::max_pressure, true},
    {"peak_bar", 1e5, 0.5, 60, &air::BagCard::peak_pressure, false},
    {"mass_kg", 1, 0, 60, &air::BagCard::mass, false},
    {"max_tilt_deg", std::numbers::pi / 180, 0.5, 45, &air::BagCard::max_tilt, false},
    {"max_offset_mm", 1e-3, 0.5, 100, &air::BagCard::max_offset, false},
    {"bolts", 1, 1, 16, &air::BagCard::bolts, false},
    {"bolt_circle_mm", 1e-3, 10, 400, &air::BagCard::bolt_circle, false},
    {"bolt_hole_mm", 1e-3, 2, 50, &air::BagCard::bolt_hole, false},
    {"port_hole_mm", 1e-3, 2, 80, &air::BagCard::port_hole, false},
    {"port_out_mm", 1e-3, 0, 200, &air::BagCard::port_out, false},
    {"port_turn_deg", std::numbers::pi / 180, -180, 180, &air::BagCard::port_turn, false},
    {"flange_mm", 1e-3, 10, 500, &air::BagCard::flange, false},
};

/// Reads a card line by line and keeps every mistake with its place.
class CardReader {
public:
  explicit CardReader(std::string_view text) : text_(text) {}

  CardReading read() {
    if (const auto bad = first_bad_utf8(text_)) {
      const TextPlace at = place_in(text_, *bad);
      mistake(at.line, at.column, {words("This is not UTF-8 text."), {}});
      return std::move(out_);
    }
    if (text_.size() > card_limit) {
      mistake(1, 1, {words("The file is larger than a card ever is."), {}});
      return std::move(out_);
    }
    std::size_t number = 0;
    for (std::size_t start = 0; start < text_.size() && !give_up_;) {
      const std::size_t end = std::min(text_.find('\n', start), text_.size());
      const std::string_view line = text_.substr(start, end - start);
      start = end + 1;
      read_line(++number, line);
    }
    if (number == 0) mistake(1, 1, {words("The file is empty. A card begins with “# mavrel bag card 1”."), {}});
    last_line_ = std::max<std::size_t>(number, 1);
    if (!give_up_ && number > 0) finish();
    return std::move(out_);
  }

private:
  void mistake(std::size_t line, std::size_t column, Message what) {
    out_.mistakes.push_back({line, column, std::move(what)});
    if (out_.mistakes.size() >= 50) give_up_ = true;
  }

  void read_line(std::size_t number, std::string_view line) {
    const std::string_view content = trimmed(line);
    if (number == 1) return read_magic(line, content);
    if (content.empty()) return;
    if (content.front() == '#') return read_key(number, line, content.substr(1));
    if (columns_.empty()) return read_header(number, line);
    read_row(number, line);
  }

  void read_magic(std::string_view line, std::string_view content) {
    const auto refuse_file = [&](Message why) {
      mistake(1, column_of(line, content), std::move(why));
      give_up_ = true;
    };
    std::string_view after = content;
    if (!after.empty() && after.front() == '#') after = trimmed(after.substr(1));
    if (content.empty() || content.front() != '#' || !after.starts_with(magic))
      return refuse_file({words("This is no bag card: its first line must be “# mavrel bag card 1”."), {}});
    const auto v = plain_number(trimmed(after.substr(magic.size())));
    if (!v || *v < 1 || *v != std::floor(*v))
      return refuse_file({words("“{0}” is no card version; 1 is the one known here."), {quoted(after)}});
    if (*v > version)
      refuse_file({words("This card is of version {0}; this Mavrel reads up to {1}. A newer Mavrel made it."),
                   {fmt::format("{:.0f}", *v), fmt::to_string(version)}});
  }

  void read_key(std::size_t number, std::string_view line, std::string_view content) {
    const std::size_t colon = content.find(':');
    if (colon == std::string_view::npos) return; // a remark
    const std::string_view key = trimmed(content.substr(0, colon));
    const std::string_view value = trimmed(content.substr(colon + 1));
    const std::size_t at = column_of(line, value.empty() ? key : value);
    if (const auto [old, is_new] = keys_.try_emplace(std::string(key), number); !is_new)
      return mistake(number, column_of(line, key),
                     {words("“{0}” stands here a second time; line {1} gave it already."),
                      {quoted(key), fmt::to_string(old->second)}});
    if (key == "name") {
      if (value.empty() || letters(value) > 80 || first_control(value))
        return mistake(number, at, {words("A bag needs a name of 1 to 80 letters."), {}});
      card_.name = value;
    } else if (key == "kind") {
      const auto kind = air::bag_kind_from(value);
      if (!kind)
        return mistake(number, at,
                       {words("“{0}” is no kind of bag. Known are single bellows, double bellows, triple bellows, "
                              "sleeve and slim bellows."),
                        {quoted(value)}});
      card_.kind = *kind;
    } else if (key == "internal_stop") {
      if (value != "yes" && value != "no")
        return mistake(number, at, {words("“{0}”: internal_stop is yes or no."), {quoted(value)}});
      card_.internal_stop = value == "yes";
    } else {
      read_number_key(number, key, value, at);
    }
  }

  void read_number_key(std::size_t number, std::string_view key, std::string_view value, std::size_t at) {
    const auto* const known =
        std::find_if(std::begin(number_keys), std::end(number_keys), [&](const NumberKey& k) { return key == k.name; });
    if (known == std::end(number_keys)) {
      card_.more.emplace_back(key, value);
      return;
    }
    const auto figure = plain_number(value);
    if (!figure) return mistake(number, at, {words("“{0}” is not a number for {1}."), {quoted(value), quoted(key)}});
    if (*figure < known->least || *figure > known->most)
      return mistake(
          number, at,
          {words("{0} can't be {1}; from {2} to {3} is believable."),
           {quoted(key), quoted(value), fmt::format("{:g}", known->least), fmt::format("{:g}", known->most)}});
    card_.*(known->to) = *figure * known->factor;
  }

  enum class Column { height, volume, load, diameter, other };

  void read_header(std::size_t number, std::string_view line) {
    header_line_ = number;
    const std::vector<Cell> cells = split(line);
    if (cells.size() > most_cells)
      mistake(number, 1,
              {words("The header has more than {0} columns; a card has up to {1}."),
               {fmt::to_string(most_cells), fmt::to_string(air::BagCurve::max_columns + 3)}});
    for (const Cell& cell : cells) {
      Column what = Column::other;
      if (cell.text == "height_mm") what = Column::height;
      if (cell.text == "volume_l") what = Column::volume;
      if (cell.text == "diameter_mm") what = Column::diameter;
      if (cell.text.starts_with("load_n@")) {
        what = Column::load;
        read_column_pressure(number, cell);
      } else if (what == Column::other) {
        mistake(number, cell.column,
                {words("“{0}” is no column of a card. Known are height_mm, volume_l, load_n@4bar and diameter_mm."),
                 {quoted(cell.text)}});
      } else if (std::find(columns_.begin(), columns_.end(), what) != columns_.end()) {
        mistake(number, cell.column, {words("The column “{0}” is there twice."), {quoted(cell.text)}});
      }
      columns_.push_back(what);
    }
    for (const auto& [what, name] : {std::pair{Column::height, "height_mm"}, std::pair{Column::volume, "volume_l"},
                                     std::pair{Column::load, "load_n@4bar"}})
      if (std::find(columns_.begin(), columns_.end(), what) == columns_.end())
        mistake(number, 1, {words("A column {0} is missing."), {std::string(name)}});
    card_.loads.resize(card_.pressures.size());
    if (!out_.mistakes.empty()) give_up_ = true; // rows can't be read without their columns
  }

  void read_column_pressure(std::size_t number, const Cell& cell) {
    std::string_view text = cell.text.substr(7);
    const bool bar = text.ends_with("bar");
    if (bar) text.remove_suffix(3);
    const auto p = plain_number(trimmed(text));
    if (!bar || !p || *p <= 0 || *p > 40)
      return mistake(number, cell.column,
                     {words("“{0}” names no pressure. Write load_n@ and a pressure above 0, for example load_n@4bar."),
                      {quoted(cell.text)}});
    if (!card_.pressures.empty() && *p * 1e5 <= card_.pressures.back())
      return mistake(number, cell.column,
                     {words("Load columns go from low to high pressure; “{0}” is out of order."), {quoted(cell.text)}});
    if (card_.pressures.size() == air::BagCurve::max_columns)
      return mistake(number, cell.column,
                     {words("A card holds up to {0} load columns."), {fmt::to_string(air::BagCurve::max_columns)}});
    card_.pressures.push_back(*p * 1e5);
  }

  void read_row(std::size_t number, std::string_view line) {
    const std::vector<Cell> cells = split(line);
    if (cells.size() != columns_.size())
      return mistake(number, 1,
                     {words("This row has {0} cells; the header has {1}."),
                      {fmt::to_string(cells.size()), fmt::to_string(columns_.size())}});
    if (row_lines_.size() == most_rows) {
      mistake(number, 1, {words("A card holds up to {0} rows."), {fmt::to_string(most_rows)}});
      give_up_ = true;
      return;
    }
    std::size_t load = 0;
    std::vector<double> row;
    for (std::size_t i = 0; i < cells.size(); ++i) {
      const auto value = plain_number(cells[i].text);
      if (!value || *value <= 0 || *value > 1e7) {
        mistake(number, cells[i].column, {words("“{0}” is not a number above 0."), {quoted(cells[i].text)}});
        row_broken_ = true;
        row.push_back(0);
        continue;
      }
      row.push_back(*value);
    }
    for (std::size_t i = 0; i < cells.size(); ++i) {
      switch (columns_[i]) {
      case Column::height:
        if (!card_.heights.empty() && row[i] > 0 && row[i] * 1e-3 <= card_.heights.back())
          mistake(number, cells[i].column,
                  {words("Heights go from low to high; {0} is not above the row before."), {quoted(cells[i].text)}});
        card_.heights.push_back(row[i] * 1e-3);
        break;
      case Column::volume:
        if (!card_.volumes.empty() && row[i] > 0 && row[i] * 1e-3 <= card_.volumes.back())
          mistake(number, cells[i].column,
                  {words("The volume grows with height; {0} is not above the row before."), {quoted(cells[i].text)}});
        card_.volumes.push_back(row[i] * 1e-3);
        break;
      case Column::load:
        if (load > 0 && row[i] > 0 && row[i] <= card_.loads[load - 1].back())
          mistake(
              number, cells[i].column,
              {words("The load grows with pressure; {0} is not above the column before."), {quoted(cells[i].text)}});
        card_.loads[load++].push_back(row[i]);
        break;
      case Column::diameter:
        card_.diameters.push_back(row[i] * 1e-3);
        break;
      case Column::other:
        break;
      }
    }
    row_lines_.push_back(number);
  }

  void finish() {
    if (!keys_.contains("name")) mistake(1, 1, {words("A line “# name: …” is missing."), {}});
    if (!keys_.contains("kind")) mistake(1, 1, {words("A line “# kind: …” is missing."), {}});
    for (const NumberKey& key : number_keys)
      if (key.needed && !keys_.contains(key.name))
        mistake(1, 1, {words("A line “# {0}: …” is missing."), {std::string(key.name)}});
    if (columns_.empty())
      mistake(last_line_, 1, {words("The table is missing: no header row was found."), {}});
    else if (row_lines_.size() < 3)
      mistake(last_line_, 1,
              {words("A card needs at least 3 rows; this has {0}."), {fmt::to_string(row_lines_.size())}});
    if (!out_.mistakes.empty() || row_broken_) return;
    check_whole();
    if (!out_.mistakes.empty()) return;
    for (const CardDoubt& doubt : check_volume_against_area(card_))
      out_.doubts.push_back({row_lines_[doubt.row + 1], 1, doubt.what});
    for (const CardDoubt& doubt : check_plausible(card_))
      out_.doubts.push_back({row_lines_[doubt.row], 1, doubt.what});
    out_.card = std::move(card_);
  }

  void check_whole() {
    const std::size_t max_line = keys_["max_height_mm"];
    if (card_.collapsed_height >= card_.max_height)
      return mistake(max_line, 1,
                     {words("The maximum height {0} is not above the collapsed height {1}."),
                      {told_from(metres(card_.max_height), card_.collapsed_height),
                       told_from(metres(card_.collapsed_height), card_.max_height)}});
    if (card_.min_pressure >= card_.max_pressure)
      return mistake(keys_["max_pressure_bar"], 1,
                     {words("The greatest pressure {0} is not above the least, {1}."),
                      {told_from(pascals(card_.max_pressure), card_.min_pressure),
                       told_from(pascals(card_.min_pressure), card_.max_pressure)}});
    if (card_.peak_pressure > 0 && card_.peak_pressure < card_.max_pressure)
      return mistake(keys_["peak_bar"], 1,
                     {words("The peak {0}, for a moment in bump, is not below the steady maximum, {1}."),
                      {told_from(pascals(card_.peak_pressure), card_.max_pressure),
                       told_from(pascals(card_.max_pressure), card_.peak_pressure)}});
    if (card_.bolts != std::floor(card_.bolts)) return mistake(keys_["bolts"], 1, {words("Bolts are whole ones."), {}});
    if (card_.heights.back() <= card_.collapsed_height || card_.heights.front() >= card_.max_height)
      return mistake(max_line, 1,
                     {words("The rows from {0} to {1} lie outside the bag's own heights, {2} to {3}."),
                      {metres(card_.heights.front()), metres(card_.heights.back()), metres(card_.collapsed_height),
                       metres(card_.max_height)}});
    for (const std::size_t row : rows_where_force_falls(card_))
      mistake(row_lines_[row], 1,
              {words("Between this row and the next the load falls as pressure rises, so a load has no one pressure. "
                     "Check both rows' loads."),
               {}});
  }

  std::string_view text_;
  CardReading out_;
  air::BagCard card_;
  std::map<std::string, std::size_t> keys_; // key: the line that gave it
  std::vector<Column> columns_;
  std::vector<std::size_t> row_lines_;
  std::size_t header_line_ = 0, last_line_ = 1;
  bool give_up_ = false, row_broken_ = false;
};

} // namespace

CardReading read_card(std::string_view text) {
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  return CardReader(text).read();
}

Message with_place(const CardNote& note) {
  return {words("line {0}, column {1}: {2}"), {fmt::to_string(note.line), fmt::to_string(note.column), note.what}};
}

} // namespace mavrel::shelf
