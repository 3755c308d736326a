#include "app/widgets/height_scale.h"

#include <QPen>

#include <algorithm>
#include <cmath>
#include <numeric>

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

void hatch(QPainter& painter, const QRectF& rect, const QColor& colour, bool falling, double step) {
  if (rect.height() <= 0 || rect.width() <= 0) return;
  painter.save();
  painter.setClipRect(rect, Qt::IntersectClip);
  painter.setPen(QPen(colour, 1));
  painter.setRenderHint(QPainter::Antialiasing);
  QVector<QLineF> lines;
  // Lines start on a fixed lattice, so that neighbouring rectangles hatch as one.
  const double reach = rect.height();
  const double first = std::floor((rect.left() - reach) / step) * step;
  for (double x = first; x < rect.right() + reach; x += step) {
    if (falling)
      lines.append(QLineF(x, rect.top(), x + reach, rect.bottom()));
    else
      lines.append(QLineF(x, rect.bottom(), x + reach, rect.top()));
  }
  painter.drawLines(lines);
  painter.restore();
}

std::vector<double> spread_apart(const std::vector<double>& wanted, double gap, double top, double bottom) {
  std::vector<std::size_t> order(wanted.size());
  std::iota(order.begin(), order.end(), 0U);
  std::stable_sort(order.begin(), order.end(), [&](std::size_t a, std::size_t b) { return wanted[a] < wanted[b]; });
  std::vector<double> out = wanted;
  double free_from = top;
  for (const std::size_t i : order) {
    out[i] = std::max(out[i], free_from);
    free_from = out[i] + gap;
  }
  // What was pushed past the bottom is pushed back up, the lowest first.
  double free_to = bottom;
  for (auto it = order.rbegin(); it != order.rend(); ++it) {
    out[*it] = std::min(out[*it], free_to);
    free_to = out[*it] - gap;
  }
  return out;
}

double tick_step(double units_per_px, double least_px) {
  const double least = units_per_px * least_px;
  const double decade = std::pow(10, std::floor(std::log10(least)));
  for (const double m : {1.0, 2.0, 5.0})
    if (m * decade >= least) return m * decade;
  return 10 * decade;
}

} // namespace mavrel::app
