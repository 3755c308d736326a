// A row of choices of which one is held: load cases, variants, ends. Where one line is too short for
// them they stand in several.
#pragma once

#include "app/theme/look.h"

#include <QStringList>
#include <QWidget>

class QButtonGroup;
class QLayout;

namespace mavrel::app {

class Desk;

class Chips : public QWidget {
  Q_OBJECT
public:
  /// @param most_width  of one chip's text, px at normal size; longer names are cut with an ellipsis
  Chips(Desk& desk, QString accessible_name, int most_width = 150, QWidget* parent = nullptr);
  void show_choices(const QStringList& names, int current);

signals:
  void chosen(int index);

private:
  Desk& desk_;
  int most_width_;
  QStringList names_; // as shown
  int current_ = -1;
  Look look_;
  QButtonGroup* group_;
  QLayout* row_;
};

} // namespace mavrel::app
