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
  const auto file = shelf::file_of_card(name, own_folder());
  if (!file) return std::nullopt;
  auto bag = shelf::read_bag_file(*file);
  return bag ? std::optional(std::move(bag->card)) : std::nullopt;
}

Expected<std::filesystem::path> CardShelf::keep(const std::vector<shelf::Part>& parts) {
  Expected<std::filesystem::path> file = own_folder();
  for (const shelf::Part& part : parts)
    if (file) file = shelf::save_part(part, own_folder());
  reload();
  return file;
}

Expected<std::filesystem::path> CardShelf::keep(const air::BagCard& card) {
  auto file = shelf::save_card(card, own_folder());
  if (!file) return file;
  reload();
  return file;
}

} // namespace mavrel::app
