// What would fit: rim width sideways, offset upwards, each fitting a cell lettered by what stops it first. Today's
// wheel and the chosen one are marked; a click says how a fitting fares, a second takes it over.
#pragma once

#include "app/kit/page.h"
#include "app/stages/clearance/questions.h"

namespace mavrel::app {

class FitsChart;

class FitsPage : public Page {
  Q_OBJECT
public:
  explicit FitsPage(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] FitsChart* chart() const { return chart_; }

protected:
  void fill() override;

private:
  [[nodiscard]] std::optional<assess::FitsGiven> given() const;
  [[nodiscard]] QString title(const assess::WhatFits* fits) const;
  [[nodiscard]] QString legend(const assess::WhatFits& fits) const;
  [[nodiscard]] QString about(const assess::WhatFits& fits, const assess::Fitting& f) const;
  [[nodiscard]] const assess::Fitting* chosen() const;
  void take_over();

  Asked<FitsQuestion> answer_;
  FitsChart* chart_;
  QLabel *title_, *about_, *legend_;
  QPushButton *take_, *camber_;
};

/// The chart itself.
class FitsChart : public QWidget {
  Q_OBJECT
public:
  FitsChart(Desk& desk, QWidget* parent);
  /// @param fits  what is shown; nullptr: nothing. Must outlive the next call
  void show_fits(const assess::WhatFits* fits, const motion::WheelCode& today);
  [[nodiscard]] std::optional<std::pair<std::size_t, std::size_t>> chosen() const { return chosen_; } // offset, width
  void choose(std::size_t offset, std::size_t width);
  /// Where a fitting's cell lies, in this widget.
  [[nodiscard]] QRectF cell(std::size_t offset, std::size_t width) const;
  [[nodiscard]] QString letter_of(std::size_t which) const;

signals:
  void chose();
  void taken();

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseDoubleClickEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  [[nodiscard]] QRectF area() const;
  bool pick(const QPointF& at);

  Desk& desk_;
  const assess::WhatFits* fits_ = nullptr;
  motion::WheelCode today_;
  std::optional<std::pair<std::size_t, std::size_t>> chosen_;
};

} // namespace mavrel::app
