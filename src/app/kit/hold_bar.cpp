#include "app/kit/hold_bar.h"

#include "app/desk/desk.h"
#include "app/theme/text_line.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

namespace mavrel::app {

HoldBar::HoldBar(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("hold_bar");
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(desk_.look().px(46));
  connect(&desk_, &Desk::restyled, this, [this] {
    setMinimumHeight(desk_.look().px(46));
    update();
  });
}

void HoldBar::show_words(const QString& words, bool can_hold) {
  if (!can_hold) set_held(false);
  words_ = words, can_hold_ = can_hold;
  setAccessibleName(words);
  setEnabled(can_hold);
  update();
}

void HoldBar::set_held(bool held) {
  if (held_ == held || (held && !can_hold_)) return;
  held_ = held;
  update();
  emit held ? pressed() : released();
}

void HoldBar::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) set_held(true);
}
void HoldBar::mouseReleaseEvent(QMouseEvent*) {
  set_held(false);
}
void HoldBar::keyPressEvent(QKeyEvent* event) {
  if (event->key() != Qt::Key_Space) return QWidget::keyPressEvent(event);
  if (!event->isAutoRepeat()) set_held(true);
}
void HoldBar::keyReleaseEvent(QKeyEvent* event) {
  if (event->key() != Qt::Key_Space) return QWidget::keyReleaseEvent(event);
  if (!event->isAutoRepeat()) set_held(false);
}
void HoldBar::focusOutEvent(QFocusEvent* event) {
  set_held(false); // a hand that is elsewhere holds nothing
  QWidget::focusOutEvent(event);
}
void HoldBar::hideEvent(QHideEvent* event) {
  set_held(false);
  QWidget::hideEvent(event);
}
bool HoldBar::event(QEvent* event) {
  if (event->type() == QEvent::WindowDeactivate || event->type() == QEvent::EnabledChange ||
      event->type() == QEvent::UngrabMouse)
    set_held(false);
  return QWidget::event(event);
}

void HoldBar::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QRectF area = QRectF(rect()).adjusted(0.5, 0.5, -1, -1);
  painter.fillRect(area, held_ ? t.caution : t.panel);
  painter.setPen(QPen(hasFocus() ? t.ink : t.rule, hasFocus() ? 2 : 1));
  painter.drawRect(area);
  painter.setFont(look.font(TextSize::normal, true));
  painter.setPen(held_ ? t.panel : can_hold_ ? t.ink : t.second);
  draw_line(painter, area.adjusted(8, 0, -8, 0), Qt::AlignCenter,
            painter.fontMetrics().elidedText(words_, Qt::ElideRight, width() - 16));
}

} // namespace mavrel::app
