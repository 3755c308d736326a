// Leaning at 0.3 g with the sides separate, joined by a tee, and as the design has them; what resists at each axle.
#pragma once

#include "assess/bags/roll.h"

#include <QWidget>

#include <array>

class QComboBox;
class QLabel;

namespace mavrel::app {

class Field;
class PlainLabel;

class LeanView : public QWidget {
  Q_OBJECT
public:
  explicit LeanView(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QString summary() const;

protected:
  void showEvent(QShowEvent* event) override;

private:
  class Drawing;
  void refresh();
  [[nodiscard]] QString dive_words(const assess::Dive& dive) const;
  void add(const QString& path, const QString& caption, int row, int column);

  Desk& desk_;
  Drawing* drawing_;
  class QGridLayout* grid_;
  PlainLabel* dive_ = nullptr; // what braking does
  std::array<QComboBox*, 2> sides_{};
};

} // namespace mavrel::app
