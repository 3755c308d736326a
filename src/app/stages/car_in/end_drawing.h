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
  /// Is there no room beside the drawing for the choices?
  [[nodiscard]] bool is_tight() const;
  void refresh();

  Desk& desk_;
  build::End end_;
  bool placed_ = false;
  std::map<QString, Field*> fields_;
  std::map<QString, QComboBox*> choices_;
};

} // namespace mavrel::app
