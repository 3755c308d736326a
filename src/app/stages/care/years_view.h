// The years sideways: what was read of the car as a strip a kind, what happened and was done as marks along the foot,
// and at the right edge what is due, each at its day.
#pragma once

#include "app/stages/care/questions.h"

#include <QWidget>

namespace mavrel::app {

class YearsView : public QWidget {
  Q_OBJECT
public:
  YearsView(Desk& desk, QWidget* parent);
  void refresh();

protected:
  void paintEvent(QPaintEvent* event) override;
  bool event(QEvent* event) override;

private:
  struct Span {
    double first = 0, last = 1; // days
  };
  [[nodiscard]] Span span() const;
  [[nodiscard]] QString described() const;

  Desk& desk_;
};

} // namespace mavrel::app
