// A plot over height with more columns than there is room for beside each other: they stand on pages, by turns.
#pragma once

#include "app/kit/height_plot.h"

namespace mavrel::app {

class PagedPlot : public HeightPlot {
  Q_OBJECT
public:
  /// @param width  px that a column wants at normal text
  PagedPlot(Desk& desk, double width, QWidget* parent) : HeightPlot(desk, parent), width_(width) {}
  /// Which page is shown, of how many.
  [[nodiscard]] std::pair<int, int> page() const;
  void turn_page();

protected:
  /// All columns there are.
  [[nodiscard]] virtual std::size_t count() const = 0;
  /// Where they stand.
  [[nodiscard]] virtual QRectF area() const { return plot(); }
  /// The first that is shown, and how many: pages overlap rather than leave the last one half empty.
  [[nodiscard]] std::pair<std::size_t, std::size_t> shown() const;

private:
  [[nodiscard]] std::size_t room() const; // for how many

  double width_;
  int page_ = 0;
};

} // namespace mavrel::app
