#include "assess/opened.h"

#include "shelf/places.h"

namespace mavrel::assess {

Expected<Opened> open_build(const std::string& path, const std::string& more) {
  auto build = build::load(path);
  if (!build) return refuse(build.error());
  auto folders = shelf::shelf_folders();
  if (!more.empty()) folders.emplace_back(more);
  auto shelf = shelf::load_shelf(folders);
  auto air = air_given(*build, shelf, ask_ends(*build, shelf));
  return Opened{std::move(*build), std::move(shelf), std::move(air)};
}

} // namespace mavrel::assess
