// Tape mode for jacking a wheel through its travel: a height, then what is taped there, one reading at a time, large,
// keyboard only. The curve and its motion ratio grow beside it as the rows come.
#pragma once

#include <QWidget>

class QLabel;
class QLineEdit;

namespace mavrel::app {

class Desk;
class MotionSheet;

class CycleTape : public QWidget {
  Q_OBJECT
public:
  explicit CycleTape(Desk& desk, QWidget* parent = nullptr);
  /// @param right  the right side by itself
  void begin(bool right = false);
  /// Room that the height posts take at the right, px.
  void reserve_right(int px);
  [[nodiscard]] MotionSheet* sheet() const { return sheet_; }
  /// What is asked for now: `height`, `spring`, `damper`, `camber`, `toe`, or a gap's name.
  [[nodiscard]] QString asked() const;

signals:
  void left();

protected:
  bool eventFilter(QObject* watched, QEvent* event) override;

private:
  void take();
  void step(int by);
  void show_step();
  [[nodiscard]] QString path() const;

  Desk& desk_;
  QLabel *progress_, *where_, *how_, *keys_, *wrong_;
  QLineEdit* line_;
  MotionSheet* sheet_;
  QStringList steps_; // of one row
  int at_ = 0;
  bool right_ = false;
  int row_ = -1; // under way; -1: its height is to come
};

} // namespace mavrel::app
