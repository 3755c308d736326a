#include "app/desk/card_shelf.h"

#include "shelf/card_write.h"
#include "shelf/part_file.h"
#include "shelf/places.h"

namespace mavrel::app {

CardShelf::CardShelf(shelf::Shelf shelf, QObject* parent) : QObject(parent), shelf_(std::move(shelf)) {}

void CardShelf::reload() {
  auto folders = shelf::shelf_folders();
  if (!folder_.empty()) folders.back() = folder_;
  shelf_ = shelf::load_shelf(folders);
  emit changed();
}

std::filesystem::path CardShelf::own_folder() const {
  return folder_.empty() ? shelf::user_shelf_folder() : folder_;
}

std::optional<air::BagCard> CardShelf::own(const std::string& name) const {
  return own(std::vector{name}).front();
}

std::vector<std::optional<air::BagCard>> CardShelf::own(const std::vector<std::string>& names) const {
  const shelf::CardFiles files(own_folder());
  std::vector<std::optional<air::BagCard>> out;
  for (const std::string& name : names) {
    const auto file = files.of(name);
    auto bag = file ? shelf::read_bag_file(*file) : Expected<shelf::ShelfBag>(refuse(Message{}));
    out.push_back(bag ? std::optional(std::move(bag->card)) : std::nullopt);
  }
  return out;
}

std::vector<Expected<std::filesystem::path>> CardShelf::keep_all(const std::vector<air::BagCard>& cards) {
  shelf::CardFiles files(own_folder());
  std::vector<Expected<std::filesystem::path>> out;
  for (const air::BagCard& card : cards)
    out.push_back(files.save(card));
  if (!cards.empty()) reload();
  return out;
}

Expected<std::filesystem::path> CardShelf::keep(const std::vector<shelf::Part>& parts) {
  Expected<std::filesystem::path> file = own_folder();
  for (const shelf::Part& part : parts)
    if (file) file = shelf::save_part(part, own_folder());
  reload();
  return file;
}

Expected<std::filesystem::path> CardShelf::keep(const air::BagCard& card) {
  return keep_all({card}).front();
}

} // namespace mavrel::app
