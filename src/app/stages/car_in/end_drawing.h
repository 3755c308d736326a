// One end's spring, damper and stops drawn at their measured lengths, each reading beside its arrow.
#pragma once

#include "build/build.h"

#include <QWidget>

#include <map>

class QComboBox;

namespace mavrel::app {

class Desk;
class Field;

class EndDrawing : public QWidget {
  Q_OBJECT
public:
  EndDrawing(Desk& desk, build::End end, QWidget* parent = nullptr);
  [[nodiscard]] QSize minimumSizeHint() const override;

protected:
  void paintEvent(QPaintEvent* event) override;
  void resizeEvent(QResizeEvent* event) override;
  void showEvent(QShowEvent* event) override;

private:
  void add(const QString& key, const QString& caption);
  template <class Enum>
  void add_choice(const QString& key, const QString& caption);
  void place();
  void look_how_tight();
  /// px across of what is so many at normal size; less where it is too narrow for all.
  [[nodiscard]] int across(int at_normal) const;
  void refresh();

  bool tight_ = false; // there is no room beside the drawing for the choices
  Desk& desk_;
  build::End end_;
  bool placed_ = false;
  std::map<QString, Field*> fields_;
  std::map<QString, QComboBox*> choices_;
};

} // namespace mavrel::app
