#include "app/kit/height_scale.h"

#include <QPaintDevice>
#include <QPixmapCache>

#include <QPen>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

QRectF stretch_rect(const HeightScale& scale, const QRectF& column, double from, double to, double domain_low,
                    double domain_high) {
  const double y0 = to >= domain_high - 1e-9 ? scale.top : scale.clamped_y(to);
  const double y1 = from <= domain_low + 1e-9 ? scale.bottom : scale.clamped_y(from);
  return {column.left(), y0, column.width(), y1 - y0};
}

std::vector<std::pair<double, double>> joined(const std::vector<assess::Stretch>& blocked) {
  std::vector<std::pair<double, double>> all;
  for (const auto& stretch : blocked)
    all.emplace_back(stretch.from, stretch.to);
  std::sort(all.begin(), all.end());
  std::vector<std::pair<double, double>> out;
  for (const auto& [from, to] : all) {
    if (!out.empty() && from <= out.back().second)
      out.back().second = std::max(out.back().second, to);
    else
      out.emplace_back(from, to);
  }
  return out;
}

std::vector<std::pair<double, double>> unknown(const std::vector<assess::Stretch>& blocked) {
  std::vector<std::pair<double, double>> out;
  for (const auto& stretch : blocked)
    if (stretch.limit->unknown) out.emplace_back(stretch.from, stretch.to);
  return out;
}

namespace {

constexpr int repeats = 12; // squares of a tile side by side: few large tiles are laid faster than many small ones

/// A tile of hatching that repeats without a seam. Drawn once a colour and size: hatching by lines costs more
/// than everything else on a height sheet together.
QPixmap hatch_tile(const QColor& colour, bool falling, int side, double pixel_ratio) {
  const QString key = QString("hatch %1 %2 %3 %4").arg(colour.rgba()).arg(falling).arg(side).arg(pixel_ratio);
  QPixmap tile;
  if (QPixmapCache::find(key, &tile)) return tile;
  const int whole = side * repeats;
  tile = QPixmap(QSize(whole, whole) * pixel_ratio);
  tile.setDevicePixelRatio(pixel_ratio);
  tile.fill(Qt::transparent);
  QPainter painter(&tile);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(colour, 1));
  for (int shift = -whole; shift <= whole; shift += side) { // the neighbours' lines reach over the corners
    const double x = shift;
    painter.drawLine(falling ? QLineF(x - 1, -1, x + whole + 1, whole + 1)
                             : QLineF(x - 1, whole + 1, x + whole + 1, -1));
  }
  painter.end();
  QPixmapCache::insert(key, tile);
  return tile;
}

} // namespace

void hatch(QPainter& painter, const QRectF& rect, const QColor& colour, bool falling, double step) {
  if (rect.height() <= 0 || rect.width() <= 0) return;
  const double ratio = painter.device()->devicePixelRatioF();
  // Tiles lie on one lattice from the widget's corner, so that neighbouring rectangles hatch as one.
  painter.setBrushOrigin(0, 0);
  painter.fillRect(rect, QBrush(hatch_tile(colour, falling, std::max(3, static_cast<int>(std::lround(step))), ratio)));
}

void dots(QPainter& painter, const QRectF& rect, const QColor& ground, const QColor& colour, double step) {
  if (rect.height() <= 0 || rect.width() <= 0) return;
  painter.fillRect(rect, ground);
  painter.save();
  painter.setClipRect(rect);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(Qt::NoPen);
  painter.setBrush(colour);
  const double r = step / 8;
  bool odd = false;
  for (double y = std::floor(rect.top() / step) * step; y < rect.bottom(); y += step / 1.5, odd = !odd)
    for (double x = rect.left() + (odd ? step / 2 : 0); x < rect.right(); x += step)
      painter.drawEllipse(QPointF(x + r, y), r, r);
  painter.restore();
}

QString tick_text(double value, double step) {
  const int decimals = std::clamp(static_cast<int>(std::ceil(-std::log10(step) - 1e-9)), 0, 9);
  return QString::number(std::abs(value) < step * 1e-6 ? 0.0 : value, 'f', decimals);
}

double tick_step(double units_per_px, double least_px) {
  const double least = units_per_px * least_px;
  const double decade = std::pow(10, std::floor(std::log10(least)));
  for (const double m : {1.0, 2.0, 5.0})
    if (m * decade >= least) return m * decade;
  return 10 * decade;
}

} // namespace mavrel::app
