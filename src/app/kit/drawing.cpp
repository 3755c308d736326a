#include "app/kit/drawing.h"

#include "app/theme/look.h"

#include <QPainter>

namespace mavrel::app {

void paint_backdrop(QPainter& painter, const QRect& rect, const Look& look) {
  painter.fillRect(rect, look.tokens().panel);
  painter.setPen(QPen(look.tokens().rule, 1));
  painter.drawRect(QRectF(rect).adjusted(0.5, 0.5, -0.5, -0.5));
}

void paint_instead(QPainter& painter, const QRect& rect, const Look& look, const QString& why) {
  painter.setFont(look.font());
  painter.setPen(look.tokens().second);
  painter.drawText(rect.adjusted(look.px(20), 0, -look.px(20), 0), Qt::AlignCenter | Qt::TextWordWrap, why);
}

} // namespace mavrel::app
