// What the map over height and steer looks like.
#include "app/desk/desk.h"
#include "app/stages/clearance/gap_sheet.h"
#include "app/theme/text_line.h"

#include <QPainterPath>
#include <QRegion>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::GapCurve;
using assess::MapCell;

namespace {
constexpr double tight = 0.004; // m to spare under which a gap is worth a second look
} // namespace

void GapSheet::paint_map(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QRectF area = map_rect();
  const HeightScale scale = this->scale();
  const auto* map = this->map();
  const bool steers = map && map->steers.size() > 1;
  paint_head(painter, area, tr("least gap over height and steer"),
             steers ? tr("full lock right … straight … full lock left") : tr("does not steer"));
  painter.fillRect(area, t.panel);
  painter.setPen(QPen(t.rule, 1));
  painter.setBrush(Qt::NoBrush);
  if (!map) {
    painter.drawRect(area);
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.second);
    draw_line(painter, area, Qt::AlignCenter, map_.is_running() ? tr("working it out …") : QString());
    return;
  }
  painter.save();
  painter.setClipRect(area);
  painter.setRenderHint(QPainter::Antialiasing, false);
  const std::size_t rows = map->heights.size(), columns = map->steers.size();
  const double wide = area.width() / static_cast<double>(columns);
  const double step = rows > 1 ? map->heights[1] - map->heights[0] : 0.001;
  enum class How { clear, blocked, touching, unreached };
  const auto how = [&](std::size_t i, std::size_t k) {
    const MapCell& cell = map->at(i, k);
    if (!cell.reached) return How::unreached;
    if (cell.which == assess::not_listed || cell.spare >= 0) return How::clear;
    return cell.gap <= 0 ? How::touching : How::blocked;
  };
  // Cells on whole pixels: nothing shows between them.
  const auto left_of = [&](std::size_t k) { return std::round(area.left() + static_cast<double>(k) * wide); };
  const auto top_of = [&](std::size_t i) { return std::round(scale.y(map->heights[i] + step / 2)); };
  const auto bottom_of = [&](std::size_t i) { return std::round(scale.y(map->heights[i] - step / 2)); };
  QRegion blocked, touching, unreached;
  QPainterPath border;
  for (std::size_t i = 0; i < rows; ++i)
    for (std::size_t k = 0; k < columns; ++k) {
      const QRectF box(QPointF(left_of(k), top_of(i)), QPointF(left_of(k + 1), bottom_of(i)));
      const How here = how(i, k);
      if (here == How::unreached) unreached += box.toAlignedRect();
      if (here == How::touching) touching += box.toAlignedRect();
      if (here == How::blocked) blocked += box.toAlignedRect();
      if (here == How::clear && map->at(i, k).which != assess::not_listed) { // the paler, the more is to spare
        const double spare = map->at(i, k).spare;
        QColor shade = spare < tight ? t.caution : t.good;
        shade.setAlphaF(static_cast<float>(std::clamp(0.36 - spare * 6, 0.06, 0.36)));
        painter.fillRect(box, shade);
      }
      if (k + 1 < columns && (here == How::clear) != (how(i, k + 1) == How::clear)) {
        border.moveTo(box.topRight());
        border.lineTo(box.bottomRight());
      }
      if (i + 1 < rows && (here == How::clear) != (how(i + 1, k) == How::clear)) {
        border.moveTo(box.topLeft());
        border.lineTo(box.topRight());
      }
    }
  const auto hatched = [&](const QRegion& region, const QColor& colour, bool falling) {
    if (region.isEmpty()) return;
    painter.save();
    painter.setClipRegion(region, Qt::IntersectClip);
    painter.setRenderHint(QPainter::Antialiasing);
    hatch(painter, area, colour, falling, look.px(7));
    painter.restore();
  };
  hatched(blocked, t.hatch_reserve, true);
  hatched(touching, t.hatch_stop, false);
  painter.setPen(QPen(t.stop, 1.4));
  painter.drawPath(border);
  if (!unreached.isEmpty()) {
    painter.setClipRegion(unreached, Qt::IntersectClip);
    dots(painter, area, t.panel, t.second, look.px(7));
  }
  painter.restore();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(t.rule, 1));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(area);
  if (steers) {
    painter.setPen(QPen(t.rule, 1, Qt::DashLine));
    painter.drawLine(QPointF(area.center().x(), area.top()), QPointF(area.center().x(), area.bottom()));
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.second);
    const double lock = map->steers.back();
    for (const double share : {0.0, 0.5, 1.0}) {
      const double x = area.left() + share * area.width();
      const QString text = share == 0.5 ? QString("0°") : desk_.shown(lock, Kind::angle, 0);
      draw_line(painter,
                {x - (share == 1.0   ? 60.0
                      : share == 0.5 ? 30.0
                                     : 0.0),
                 area.bottom() + look.px(4), 60, double(look.px(14))},
                (share == 1.0   ? Qt::AlignRight
                 : share == 0.5 ? Qt::AlignHCenter
                                : Qt::AlignLeft) |
                    Qt::AlignTop,
                text);
    }
  }
  // What stops it, where it does: the name of the thing in the middle of its largest patch.
  std::vector<std::array<double, 3>> patch(map->what.size(), {0, 0, 0});
  for (std::size_t i = 0; i < rows; ++i)
    for (std::size_t k = 0; k < columns; ++k)
      if (const MapCell& cell = map->at(i, k); cell.which != assess::not_listed && cell.reached && cell.spare < 0) {
        auto& p = patch[cell.which];
        p[0] += 1, p[1] += static_cast<double>(k) + 0.5, p[2] += map->heights[i];
      }
  painter.setFont(look.font(TextSize::small));
  std::vector<QRectF> written;
  for (std::size_t w = 0; w < patch.size(); ++w) {
    if (patch[w][0] < static_cast<double>(rows * columns) / 60) continue;
    const GapCurve& gap = map->what[w];
    const QString near = desk_.words_of(gap.near.told());
    const QString text =
        gap.mover == assess::Mover::tyre ? near : tr("%1, %2").arg(tr(assess::name_of(gap.mover)), near);
    const double width = std::min(area.width() - 4, QFontMetricsF(painter.font()).horizontalAdvance(text) + look.px(8)),
                 h = look.px(16);
    const double x = area.left() + patch[w][1] / patch[w][0] * wide, y = scale.y(patch[w][2] / patch[w][0]);
    QRectF box(std::clamp(x - width / 2, area.left() + 2, area.right() - width - 2),
               std::clamp(y - h / 2, area.top() + 2, area.bottom() - h - 2), width, h);
    for (const QRectF& other : written)
      if (other.intersects(box)) box.moveTop(other.bottom() + 2);
    if (box.bottom() > area.bottom()) continue;
    written.push_back(box);
    QColor ground = t.panel;
    ground.setAlphaF(0.9F);
    painter.fillRect(box, ground);
    painter.setPen(t.ink);
    draw_line(painter, box, Qt::AlignCenter, text);
  }
  if (map->cells[map->worst].which != assess::not_listed) { // the worst place
    const double x = area.left() + (static_cast<double>(map->worst % columns) + 0.5) * wide,
                 y = scale.y(map->heights[map->worst / columns]), r = look.px(5);
    const QPointF p(std::clamp(x, area.left() + r, area.right() - r), std::clamp(y, area.top() + r, area.bottom() - r));
    painter.setPen(QPen(t.ink, 1.6));
    painter.setBrush(map->cells[map->worst].spare < 0 ? t.stop : t.panel);
    painter.drawPolygon(QPolygonF({p + QPointF(0, -r), p + QPointF(r, 0), p + QPointF(0, r), p + QPointF(-r, 0)}));
  }
}

} // namespace mavrel::app
