#include "app/theme/text_line.h"

#include <QCache>
#include <QFontMetricsF>
#include <QStaticText>

#include <cmath>

namespace mavrel::app {

namespace {

/// A word as it was last written: most of what stands on a drawing stands there again in the next frame.
struct Written {
  QStaticText glyphs;
  double width = 0, ascent = 0, height = 0;
};
struct Key {
  QString text;
  int pixels = 0;
  bool bold = false;
  friend bool operator==(const Key&, const Key&) = default;
  friend std::size_t qHash(const Key& key, std::size_t seed) {
    return qHashMulti(seed, key.text, key.pixels, key.bold);
  }
};

Written write(const QString& text, const QFont& font) {
  Written out;
  const QFontMetricsF metrics(font);
  out.glyphs.setTextFormat(Qt::PlainText);
  out.glyphs.setPerformanceHint(QStaticText::AggressiveCaching);
  out.glyphs.setText(text);
  out.glyphs.prepare(QTransform(), font);
  out.width = metrics.horizontalAdvance(text);
  out.ascent = metrics.ascent();
  out.height = metrics.ascent() + metrics.descent();
  return out;
}

/// Valid until the next call.
const Written& written(const QString& text, const QFont& font) {
  static QCache<Key, Written> cache(3000); // of the interface's thread
  const Key key{text, font.pixelSize(), font.bold()};
  if (const Written* there = cache.object(key)) return *there;
  auto* made = new Written(write(text, font));
  cache.insert(key, made);
  return *made;
}

} // namespace

QRectF draw_line(QPainter& painter, const QRectF& room, Qt::Alignment align, const QString& text) {
  if (text.isEmpty()) return {room.topLeft(), QSizeF(0, 0)};
  const QFont& font = painter.font();
  const Written* line = &written(text, font);
  if (line->width > room.width() + 0.5)
    line = &written(QFontMetricsF(font).elidedText(text, Qt::ElideRight, room.width()), font);
  const double x = align & Qt::AlignRight     ? room.right() - line->width
                   : align & Qt::AlignHCenter ? room.center().x() - line->width / 2
                                              : room.left();
  const double top = align & Qt::AlignTop      ? room.top()
                     : align & Qt::AlignBottom ? room.bottom() - line->height
                                               : room.center().y() - line->height / 2;
  const double baseline = std::round(top + line->ascent);
  painter.drawStaticText(QPointF(x, baseline - line->ascent), line->glyphs);
  return {x, top, line->width, line->height};
}

} // namespace mavrel::app
