// The one table of questions about the chosen bag: a tab each, with the fields that its answer goes by.
#pragma once

#include "app/desk/desk.h"
#include "app/kit/height_plot.h"

#include <functional>
#include <span>
#include <vector>

namespace mavrel::app {

/// A question as it stands on the page.
struct QuestionView {
  QWidget* widget = nullptr;
  HeightPlot* plot = nullptr;       // the same, where it is over height; nullptr where it is not
  std::function<QString()> summary; // the answer in a sentence or two
};

/// A field that an answer goes by. `#` in its path is the active end.
struct QuestionField {
  const char* path;
  const char* caption;
  const char* empty; // what stands there when it is not filled; nullptr: as usual
};

/// Rows live as long as the program. Words are marked for translation.
struct QuestionEntry {
  const char* key;  // `weather`
  const char* tab;  // `Weather`
  const char* name; // as the menu calls it
  QuestionView (*make)(Desk& desk, QWidget* parent);
  std::vector<QuestionField> fields;
};

/// In the order of their tabs and of their keys, Alt+1 on.
[[nodiscard]] std::span<const QuestionEntry> question_entries();

} // namespace mavrel::app
