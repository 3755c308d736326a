// A hand on a valve: it is open only while the bar is held, with the mouse or the space bar.
#pragma once

#include <QWidget>

namespace mavrel::app {

class Desk;

/// Open only while the mouse is down on it or the space bar is held.
class HoldBar : public QWidget {
  Q_OBJECT
public:
  explicit HoldBar(Desk& desk, QWidget* parent = nullptr);
  void show_words(const QString& words, bool can_hold);
  [[nodiscard]] bool is_held() const { return held_; }

signals:
  void pressed();
  void released();

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  void keyReleaseEvent(QKeyEvent* event) override;
  void focusOutEvent(QFocusEvent* event) override;
  void hideEvent(QHideEvent* event) override;
  bool event(QEvent* event) override;

private:
  void set_held(bool held);
  Desk& desk_;
  QString words_;
  bool can_hold_ = false, held_ = false;
};

} // namespace mavrel::app
