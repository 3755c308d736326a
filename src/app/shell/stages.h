// The one table of stages: which pages there are, in which order, and how they are called.
#pragma once

#include "app/desk/desk.h"
#include "app/kit/stage_page.h"

#include <QKeySequence>

#include <span>

namespace mavrel::app {

/// Rows live as long as the program.
struct StageEntry {
  const assess::StageRow* stage; // nullptr: a page that nothing is found at
  const char* key;               // `car_in`
  const char* name;              // `Car in`, for people; marked for translation
  const char* keys;              // `Ctrl+1`
  StagePage* (*make)(Desk& desk, QWidget* parent);
  /// Why it can't be gone to now; none: it can. Such a page is not on the rail either.
  QString (*closed)(const Desk& desk);
};

/// In working order; the first is where one begins.
[[nodiscard]] std::span<const StageEntry> stage_entries();

} // namespace mavrel::app
