// Tape mode: one reading at a time, large, keyboard only. Enter takes it and goes on, Up and Down step, Esc leaves.
#pragma once

#include <QStringList>
#include <QWidget>

class QLabel;

namespace mavrel::app {

class Desk;
class Field;
class TapeDrawing;

class TapeMode : public QWidget {
  Q_OBJECT
public:
  explicit TapeMode(Desk& desk, QWidget* parent = nullptr);
  void begin();
  /// Walks readings again, in this order. @returns whether any of them is taken in tape mode
  bool begin_with(const QStringList& places);
  /// Room that the height posts take at the right, px.
  void reserve_right(int px);
  [[nodiscard]] QString place() const { return places_.value(at_); }

signals:
  void left();

protected:
  void keyPressEvent(QKeyEvent* event) override;
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  void dress();
  void step(int by);
  void show_place();

  Desk& desk_;
  QStringList places_;
  int at_ = 0;
  QLabel *where_, *how_, *progress_, *next_;
  Field* field_;
  TapeDrawing* drawing_;
};

} // namespace mavrel::app
