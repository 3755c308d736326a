// The vertical axis that everything shares: height H against pixels.
#pragma once

#include "assess/height/window.h"
#include "report/spread.h"

#include <QColor>
#include <QPainter>
#include <QRectF>

#include <utility>
#include <vector>

namespace mavrel::app {

struct HeightScale {
  double low = 0, high = 1;   // m, H at the bottom and top of the band
  double top = 0, bottom = 1; // px

  [[nodiscard]] double y(double H) const { return bottom - (H - low) / (high - low) * (bottom - top); }
  [[nodiscard]] double H(double y_px) const { return low + (bottom - y_px) / (bottom - top) * (high - low); }
  [[nodiscard]] double clamped_y(double H) const { return std::min(std::max(y(H), top), bottom); }
};

/// The part of a column that a stretch of height covers. A stretch that reaches an end of what is known (the domain)
/// goes on to the end of the scale: nothing beyond it is free.
[[nodiscard]] QRectF stretch_rect(const HeightScale& scale, const QRectF& column, double from, double to,
                                  double domain_low, double domain_high);

/// The stretches run together where they overlap, so that hatching shows one pattern. @returns [from, to] rising
[[nodiscard]] std::vector<std::pair<double, double>> joined(const std::vector<assess::Stretch>& blocked);

/// Diagonal hatching over a rectangle; `falling` leans the other way, so that two kinds differ without colour.
void hatch(QPainter& painter, const QRectF& rect, const QColor& colour, bool falling, double step);

/// The stretches that nobody knows about, of those blocked. @returns [from, to]
[[nodiscard]] std::vector<std::pair<double, double>> unknown(const std::vector<assess::Stretch>& blocked);

/// Dots over a rectangle: nobody knows what is there. @param ground  laid under them
void dots(QPainter& painter, const QRectF& rect, const QColor& ground, const QColor& colour, double step);

using report::spread_apart;

/// Round step for ticks on an axis so that neighbours are at least `least_px` apart, in shown units.
[[nodiscard]] double tick_step(double units_per_px, double least_px);
/// A tick's figure with as many decimals as its step has: never in powers of ten, never −0.
[[nodiscard]] QString tick_text(double value, double step);

} // namespace mavrel::app
