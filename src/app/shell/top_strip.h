// The strip on top: which car, which variant, which load case, units, and whether it is saved.
#pragma once

#include <QWidget>

class QHBoxLayout;
class QLabel;
class QToolButton;

namespace mavrel::app {

class Desk;
class Chips;

class TopStrip : public QWidget {
  Q_OBJECT
public:
  explicit TopStrip(Desk& desk, QWidget* parent = nullptr);

signals:
  void units_wanted(QPoint at);

protected:
  void resizeEvent(QResizeEvent* event) override;

private:
  void refresh();
  void arrange();

  Desk& desk_;
  QLabel *car_, *job_, *saved_;
  Chips *variants_, *loads_;
  QToolButton *add_variant_, *units_;
  QHBoxLayout *first_ = nullptr, *second_ = nullptr;
  bool one_row_ = true;
};

} // namespace mavrel::app
