#include "shelf/card_write.h"

#include "file/text_file.h"
#include "quantity/text.h"

#include <fmt/format.h>

#include <algorithm>
#include <numbers>

namespace mavrel::shelf {

std::string card_text(const air::BagCard& card) {
  std::string out = "# mavrel bag card 1\n";
  const auto key = [&](const char* name, const std::string& value) { out += fmt::format("# {}: {}\n", name, value); };
  const auto figure = [](double value) { return fmt::format("{:.6g}", value); };
  key("name", card.name);
  key("kind", air::bag_kind_name(card.kind));
  key("collapsed_height_mm", figure(card.collapsed_height * 1e3));
  key("max_height_mm", figure(card.max_height * 1e3));
  key("max_diameter_mm", figure(card.max_diameter * 1e3));
  key("min_pressure_bar", figure(card.min_pressure * 1e-5));
  key("max_pressure_bar", figure(card.max_pressure * 1e-5));
  if (card.peak_pressure > 0) key("peak_bar", figure(card.peak_pressure * 1e-5));
  key("internal_stop", card.internal_stop ? "yes" : "no");
  if (card.mass > 0) key("mass_kg", figure(card.mass));
  if (card.max_tilt > 0) key("max_tilt_deg", figure(card.max_tilt * 180 / std::numbers::pi));
  if (card.max_offset > 0) key("max_offset_mm", figure(card.max_offset * 1e3));
  if (card.bolts > 0) key("bolts", figure(card.bolts));
  if (card.bolt_circle > 0) key("bolt_circle_mm", figure(card.bolt_circle * 1e3));
  if (card.bolt_hole > 0) key("bolt_hole_mm", figure(card.bolt_hole * 1e3));
  if (card.port_hole > 0) key("port_hole_mm", figure(card.port_hole * 1e3));
  if (card.port_out > 0) key("port_out_mm", figure(card.port_out * 1e3));
  if (card.port_turn != 0) key("port_turn_deg", figure(card.port_turn * 180 / std::numbers::pi));
  if (card.flange > 0) key("flange_mm", figure(card.flange * 1e3));
  for (const auto& [name, value] : card.more)
    key(name.c_str(), value);
  out += "height_mm,volume_l";
  for (const double p : card.pressures)
    out += fmt::format(",load_n@{:.6g}bar", p * 1e-5);
  if (!card.diameters.empty()) out += ",diameter_mm";
  out += "\n";
  for (std::size_t i = 0; i < card.heights.size(); ++i) {
    out += fmt::format("{:.2f},{:.4f}", card.heights[i] * 1e3, card.volumes[i] * 1e3);
    for (const auto& column : card.loads)
      out += fmt::format(",{:.0f}", column[i]);
    if (!card.diameters.empty()) out += fmt::format(",{:.1f}", card.diameters[i] * 1e3);
    out += "\n";
  }
  return out;
}

std::vector<CardReading> read_cards(std::string_view text) {
  if (text.starts_with("\xEF\xBB\xBF")) text.remove_prefix(3);
  constexpr std::string_view begins = "# mavrel bag card";
  std::vector<std::size_t> starts;
  for (std::size_t at = 0; at < text.size(); at = std::min(text.find('\n', at), text.size() - 1) + 1)
    if (text.substr(at).starts_with(begins)) starts.push_back(at);
  // Text before the first card belongs to it, so that its first mistake is said rather than skipped.
  if (starts.empty()) return {read_card(text)};
  starts.front() = 0;
  std::vector<CardReading> out;
  std::size_t lines = 0;
  for (std::size_t i = 0; i < starts.size(); ++i) {
    if (i == most_cards) {
      CardReading rest;
      rest.mistakes.push_back({lines + 1,
                               1,
                               {words("There are {0} cards in this file; the first {1} are read. Put the others into a "
                                      "file of their own."),
                                {std::to_string(starts.size()), std::to_string(most_cards)}}});
      out.push_back(std::move(rest));
      break;
    }
    const std::size_t end = i + 1 < starts.size() ? starts[i + 1] : text.size();
    const std::string_view part = text.substr(starts[i], end - starts[i]);
    CardReading reading = read_card(part);
    for (auto* notes : {&reading.mistakes, &reading.doubts})
      for (CardNote& note : *notes)
        note.line += lines;
    lines += static_cast<std::size_t>(std::count(part.begin(), part.end(), '\n'));
    out.push_back(std::move(reading));
  }
  return out;
}

std::string card_file_name(const air::BagCard& card) {
  constexpr std::size_t most = 60; // letters: file systems end at 255 bytes
  std::string out, name = excerpt(card.name, most);
  if (name.size() < card.name.size()) name.resize(name.rfind("…"));
  for (const char c : name) {
    const bool capital = c >= 'A' && c <= 'Z', plain = (c >= 'a' && c <= 'z') || (c >= '0' && c <= '9');
    if (capital)
      out += static_cast<char>(c - 'A' + 'a');
    else if (plain || static_cast<unsigned char>(c) >= 0x80)
      out += c; // letters beyond ASCII may stand in a file name
    else if (!out.empty() && out.back() != '-')
      out += '-';
  }
  while (!out.empty() && out.back() == '-')
    out.pop_back();
  return (out.empty() ? "bag" : out) + ".csv";
}

namespace {

/// The name of the card in a file; none where it holds no card that can be read here.
std::optional<std::string> name_in(const std::filesystem::path& file) {
  const auto text = read_text(file, card_limit);
  if (!text) return std::nullopt;
  const CardReading reading = read_card(*text);
  return reading.card ? std::optional(reading.card->name) : std::nullopt;
}

} // namespace

CardFiles::CardFiles(std::filesystem::path folder) : folder_(std::move(folder)) {
  std::error_code error;
  std::vector<std::filesystem::path> files;
  for (std::filesystem::directory_iterator it(folder_, error), end; !error && it != end; it.increment(error))
    if (it->path().extension() == ".csv") files.push_back(it->path());
  std::sort(files.begin(), files.end());
  for (const auto& file : files) // of two, the shelf goes by the later
    if (auto name = name_in(file)) files_[*name] = file;
}

std::optional<std::filesystem::path> CardFiles::of(const std::string& name) const {
  const auto found = files_.find(name);
  return found == files_.end() ? std::nullopt : std::optional(found->second);
}

Expected<std::filesystem::path> CardFiles::save(const air::BagCard& card) {
  std::error_code error;
  std::filesystem::create_directories(folder_, error);
  if (error) return refuse(words("{0} can't be made: {1}."), {shown_path(folder_), error.message()});
  const std::string text = card_text(card);
  if (const CardReading again = read_card(text); !again.card)
    return refuse(words("The card was not written, because it would not be read again: {0}"),
                  {with_place(again.mistakes.front())});
  auto file = of(card.name);
  for (int i = 1; !file; ++i) {
    const std::string name = card_file_name(card);
    const auto free = folder_ / (i == 1 ? name : name.substr(0, name.size() - 4) + fmt::format("-{}.csv", i));
    if (what_stands(free) == Standing::nothing) file = free;
  }
  if (const auto done = write_atomically(*file, text); !done) return refuse(done.error());
  files_[card.name] = *file;
  return *file;
}

std::optional<std::filesystem::path> file_of_card(const std::string& name, const std::filesystem::path& folder) {
  return CardFiles(folder).of(name);
}

Expected<std::filesystem::path> save_card(const air::BagCard& card, const std::filesystem::path& folder) {
  return CardFiles(folder).save(card);
}

} // namespace mavrel::shelf
