#include "app/kit/height_strip.h"

#include "app/desk/desk.h"
#include "app/theme/look.h"
#include "assess/end/end_answer.h"

#include <QHelpEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

namespace mavrel::app {

HeightStrip::HeightStrip(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("height_strip");
  setCursor(Qt::PointingHandCursor);
  setAccessibleName(tr("Heights"));
  setAccessibleDescription(says());
  for (const auto signal : {&Desk::changed, &Desk::posed, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      setAccessibleDescription(says());
      update();
    });
}

QSize HeightStrip::sizeHint() const {
  return {desk_.look().px(34), desk_.look().px(120)};
}

QString HeightStrip::says() const {
  const auto at = [&](End end) {
    const auto H = desk_.pose(end);
    return H ? desk_.shown(*H, Kind::length) : tr("not known");
  };
  return tr("Front %1, rear %2. Click, or Ctrl+H, for the posts.").arg(at(End::front), at(End::rear));
}

void HeightStrip::paintEvent(QPaintEvent*) {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  QPainter painter(this);
  const auto [low, high] = desk_.height_range();
  if (!(high > low)) return;
  const int top = look.px(10), bottom = height() - look.px(10), wide = look.px(8);
  const auto y = [&](double H) { return bottom - (H - low) / (high - low) * (bottom - top); };
  for (const End end : build::both_ends) {
    const int x = end == End::front ? look.px(5) : look.px(19);
    const QColor& ink = end == End::front ? t.front : t.rear;
    painter.fillRect(QRectF(x, top, wide, bottom - top), t.panel);
    painter.setPen(t.rule);
    painter.drawRect(QRectF(x, top, wide, bottom - top));
    const auto& windows = desk_.assessment().end(end).windows;
    const auto band = [&](const auto& window, double opaque) {
      if (!window) return;
      QColor colour = ink;
      colour.setAlphaF(static_cast<float>(opaque));
      const double from = std::clamp(y(window->high.height), double(top), double(bottom)),
                   to = std::clamp(y(window->low.height), double(top), double(bottom));
      painter.fillRect(QRectF(x, from, wide, to - from), colour);
    };
    band(windows.reach, 0.15);
    band(windows.road, 0.35);
    const auto pose = desk_.pose(end);
    if (!pose) continue;
    painter.setPen(QPen(t.ink, look.px(2)));
    const double at = std::clamp(y(*pose), double(top), double(bottom));
    painter.drawLine(QPointF(x - look.px(2), at), QPointF(x + wide + look.px(2), at));
  }
}

void HeightStrip::mouseReleaseEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton && rect().contains(event->pos())) emit opened();
}

bool HeightStrip::event(QEvent* event) {
  if (event->type() == QEvent::ToolTip) {
    QToolTip::showText(static_cast<QHelpEvent*>(event)->globalPos(), says(), this);
    return true;
  }
  return QWidget::event(event);
}

} // namespace mavrel::app
