// A build opened with its shelf, for the programs that have no window.
#pragma once

#include "assess/air/air_given.h"
#include "assess/assess.h"
#include "build/file.h"
#include "shelf/shelf.h"

#include <string>

namespace mavrel::assess {

struct Opened {
  build::Build build;
  shelf::Shelf shelf;
  AirGiven air;
};

/// @param path  of a build
/// @param more  a folder of cards beside those known; may be empty
/// @returns why the build can't be read; a card that can't be is left out, and the shelf says which
[[nodiscard]] Expected<Opened> open_build(const std::string& path, const std::string& more);

} // namespace mavrel::assess
