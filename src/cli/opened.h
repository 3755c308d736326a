// A build opened with its shelf, for the commands that answer about its air.
#pragma once

#include "assess/air/air_given.h"
#include "assess/assess.h"
#include "build/file.h"
#include "shelf/places.h"

#include <string>

namespace mavrel::cli {

struct Opened {
  build::Build build;
  shelf::Shelf shelf;
  assess::AirGiven air;
};

/// @param more  a folder of cards beside those known; may be empty
[[nodiscard]] inline Expected<Opened> open_build(const std::string& path, const std::string& more) {
  auto build = build::load(path);
  if (!build) return refuse(build.error());
  auto folders = shelf::shelf_folders();
  if (!more.empty()) folders.emplace_back(more);
  auto shelf = shelf::load_shelf(folders);
  auto air = assess::air_given(*build, shelf, assess::ask_ends(*build, shelf));
  return Opened{std::move(*build), std::move(shelf), std::move(air)};
}

} // namespace mavrel::cli
