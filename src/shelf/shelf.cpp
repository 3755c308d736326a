#include "shelf/shelf.h"

#include "file/text_file.h"
#include "shelf/part_file.h"

#include <algorithm>

namespace mavrel::shelf {

const ShelfBag* Shelf::find(std::string_view name) const {
  const auto found = std::lower_bound(bags.begin(), bags.end(), name,
                                      [](const ShelfBag& bag, std::string_view n) { return bag.card.name < n; });
  return found != bags.end() && found->card.name == name ? &*found : nullptr;
}

const Part* Shelf::find(PartKind kind, std::string_view name) const {
  for (const ShelfPart& part : parts)
    if (part.part.kind == kind && part.part.name == name) return &part.part;
  return nullptr;
}

std::optional<Shared<ShelfBag>> Shelf::take(std::string_view name) const {
  const ShelfBag* bag = find(name);
  for (std::size_t i = 0; bag && i < bags.size(); ++i)
    if (&bags[i] == bag) return bags.shared(i);
  return std::nullopt;
}

Expected<ShelfBag> read_bag_file(const std::filesystem::path& file) {
  const auto text = read_text(file, card_limit);
  if (!text) return refuse(text.error());
  CardReading reading = read_card(*text);
  if (!reading.card)
    return refuse(words("{0}, {1}"), {shown_path(file.filename()), with_place(reading.mistakes.front())});
  air::BagCurve curve(*reading.card);
  return ShelfBag{std::move(*reading.card), std::move(curve), file, std::move(reading.doubts)};
}

namespace {

void add_catalogue(const std::filesystem::path& file, Shelf& shelf) {
  const auto text = read_text(file, part_file_limit);
  auto parts = text ? read_parts(*text) : Expected<std::vector<Part>>(refuse(text.error()));
  if (!parts) {
    shelf.problems.push_back(
        {file, text ? Message{words("{0}: {1}"), {shown_path(file.filename()), parts.error()}} : parts.error()});
    return;
  }
  for (Part& part : *parts) {
    erase_if(shelf.parts,
             [&](const ShelfPart& old) { return old.part.kind == part.kind && old.part.name == part.name; });
    auto doubts = doubts_of_part(part);
    shelf.parts.push_back({std::move(part), file, std::move(doubts)});
  }
}

} // namespace

Shelf load_shelf(std::span<const std::filesystem::path> folders) {
  Shelf shelf;
  for (const auto& folder : folders) {
    std::error_code error;
    std::vector<std::filesystem::path> files, catalogues;
    for (std::filesystem::directory_iterator it(folder, error), end; !error && it != end; it.increment(error)) {
      if (it->path().extension() == ".csv") files.push_back(it->path());
      if (it->path().filename().string().ends_with(part_suffix)) catalogues.push_back(it->path());
    }
    std::sort(files.begin(), files.end());
    std::sort(catalogues.begin(), catalogues.end());
    for (const auto& file : catalogues)
      add_catalogue(file, shelf);
    for (const auto& file : files) {
      auto bag = read_bag_file(file);
      if (!bag) {
        shelf.problems.push_back({file, bag.error()});
        continue;
      }
      erase_if(shelf.bags, [&](const ShelfBag& old) { return old.card.name == bag->card.name; });
      shelf.bags.push_back(std::move(*bag));
    }
  }
  std::sort(shelf.parts.begin(), shelf.parts.end(), [](const ShelfPart& a, const ShelfPart& b) {
    return std::tie(a.part.kind, a.part.name) < std::tie(b.part.kind, b.part.name);
  });
  std::sort(shelf.bags.begin(), shelf.bags.end(),
            [](const ShelfBag& a, const ShelfBag& b) { return a.card.name < b.card.name; });
  return shelf;
}

} // namespace mavrel::shelf
