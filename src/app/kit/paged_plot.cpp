#include "app/kit/paged_plot.h"

#include "app/desk/desk.h"

#include <algorithm>

namespace mavrel::app {

std::size_t PagedPlot::room() const {
  return static_cast<std::size_t>(std::max(1.0, area().width() / desk_.look().px(width_)));
}

std::pair<int, int> PagedPlot::page() const {
  const int pages = std::max(1, static_cast<int>((count() + room() - 1) / room()));
  return {std::min(page_, pages - 1), pages};
}

void PagedPlot::turn_page() {
  const auto [now, pages] = page();
  page_ = (now + 1) % pages;
  redraw();
}

std::pair<std::size_t, std::size_t> PagedPlot::shown() const {
  const std::size_t each = std::min(room(), count());
  return {std::min(static_cast<std::size_t>(page().first) * each, count() - each), each};
}

} // namespace mavrel::app
