#include "app/stages/bags/questions/height_sheet.h"

#include "app/desk/sureness.h"
#include "app/theme/text_line.h"
#include "assess/end/end_answer.h"
#include "build/names.h"
#include "quantity/quantity.h"
#include "report/sure.h"

#include <cmath>

namespace mavrel::app {

using assess::Track;
using assess::TrackRow;
namespace tracks = assess::tracks;

HeightSheet::HeightSheet(Desk& desk, QWidget* parent) : HeightPlot(desk, parent) {
  setObjectName("height_sheet");
  setAccessibleName(tr("Height sheet"));
}

QRectF HeightSheet::limits_area() const {
  const QRectF p = plot();
  return {p.left(), p.top(), static_cast<double>(desk_.look().px(106)), p.height()};
}

std::vector<HeightSheet::TrackColumn> HeightSheet::columns() const {
  static constexpr const TrackRow* rows[] = {&tracks::pressure, &tracks::ride_frequency, &tracks::bag_height,
                                             &tracks::damper_to_open, &tracks::damper_to_shut};
  const auto rects = split(limits_area().right() + desk_.look().px(7), static_cast<int>(std::size(rows)));
  const auto& e = desk_.assessment().end(desk_.end());
  std::vector<TrackColumn> out;
  for (std::size_t i = 0; i < std::size(rows); ++i) {
    const TrackRow* what = rows[i];
    TrackColumn column{{rects[i], 0, -1, what->kind}, what};
    // One scale for all load cases, so that switching between them shows the difference; a damper's starts at nothing
    // left.
    bool any = false;
    for (std::size_t c = 0; c < desk_.assessment().loads.size(); ++c) {
      const Track* track = e.find(*what, c);
      auto range = track ? track->range() : std::nullopt;
      if (!range) continue;
      // The frequency without the tyre lies above the one felt, dotted in the same column.
      const Track* bare = what == &tracks::ride_frequency ? e.find(tracks::frequency, c) : nullptr;
      const auto bare_range = bare ? bare->range() : std::nullopt;
      if (bare_range) range->second = std::max(range->second, bare_range->second);
      column.low = any ? std::min(column.low, range->first) : range->first;
      column.high = any ? std::max(column.high, range->second) : range->second;
      any = true;
    }
    if (any) {
      const bool of_damper = what == &tracks::damper_to_open || what == &tracks::damper_to_shut;
      if (of_damper) column.low = 0;
      const double room = std::max(1e-9, 0.08 * (column.high - column.low));
      if (!of_damper) column.low -= room;
      column.high += room;
    }
    out.push_back(column);
  }
  return out;
}

QString HeightSheet::summary() const {
  const auto& e = desk_.assessment().end(desk_.end());
  if (!e.has_domain()) return tr("The height is missing on Car in.");
  return e.rough() ? tr("Rough: usual figures stand in for what was not measured. Drag the line, or ↑ ↓.")
                   : tr("Drag the line, or ↑ ↓. Everything is read at that height.");
}

QString HeightSheet::described() const {
  const auto H = desk_.pose(desk_.end());
  if (!H) return {};
  QString text = tr("%1 at %2: ").arg(tr(build::name_of(desk_.end())), desk_.shown(*H, Kind::length));
  for (const TrackColumn& column : columns()) {
    const Track* track = desk_.assessment().end(desk_.end()).find(*column.what, desk_.load_case());
    const auto value = track ? track->at(*H) : std::nullopt;
    if (!value) continue;
    text += QString("%1 %2").arg(tr(column.what->name), desk_.shown(*value, column.kind));
    if (const air::Beyond beyond = track->beyond_at(*H); column.what == &tracks::pressure)
      text += beyond == air::Beyond::nothing ? QString() : " " + tr(air::beyond_name(beyond));
    text += ", ";
  }
  return text;
}

void HeightSheet::paint_ground(QPainter& painter) const {
  paint_axis(painter);
  paint_limits(painter, limits_area());
  const auto all = columns();
  std::vector<QRectF> rects;
  for (const TrackColumn& column : all)
    rects.push_back(column.rect);
  paint_blocked(painter, rects);
  for (const TrackColumn& column : all)
    paint_column(painter, column);
}

void HeightSheet::paint_limits(QPainter& painter, const QRectF& area) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto& e = desk_.assessment().end(desk_.end());
  const HeightScale s = scale();
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  painter.drawText(QRectF(area.left(), area.top() - look.px(18), area.width(), look.px(14)),
                   Qt::AlignLeft | Qt::AlignVCenter, tr("what blocks it"));
  if (!e.has_domain()) return;
  struct Label {
    double H;
    QString text;
    bool reach;
  };
  std::vector<Label> labels;
  const auto number = [&](double H) {
    return QString::fromStdString(show_parts(H, Kind::length, desk_.prefs()).number);
  };
  const auto add = [&](const assess::Stretch& stretch, bool reach) {
    // The edge that faces the free heights.
    const double H = stretch.from <= e.domain_low + 1e-9 ? stretch.to : stretch.from;
    if (H <= s.low || H >= s.high) return;
    labels.push_back({H, number(H) + " " + tr(stretch.limit->short_name), reach});
  };
  // Of one limit in several load cases only the worst is named here.
  const auto worst = [&](const std::vector<assess::Stretch>& blocked, const assess::Stretch& one) {
    return std::none_of(blocked.begin(), blocked.end(), [&](const auto& other) {
      return other.limit == one.limit && other.to - other.from > one.to - one.from;
    });
  };
  for (const auto& stretch : e.windows.reach_blocked)
    if (worst(e.windows.reach_blocked, stretch)) add(stretch, true);
  for (const auto& stretch : e.windows.road_blocked)
    if (stretch.load_case && worst(e.windows.road_blocked, stretch)) add(stretch, false);
  const auto reserve = [&](const assess::Edge& edge) {
    if (edge.governing && edge.governing->reserve > 0)
      labels.push_back({edge.height, number(edge.height) + " " + tr(assess::short_name(edge)), false});
  };
  if (e.windows.road) {
    reserve(e.windows.road->low);
    reserve(e.windows.road->high);
  }
  std::vector<double> wanted;
  for (const Label& label : labels)
    wanted.push_back(s.y(label.H));
  const double line = QFontMetricsF(painter.font()).height();
  const auto y = spread_apart(wanted, line, area.top() + line / 2, area.bottom() - line / 2);
  const double tick = look.px(8);
  for (std::size_t i = 0; i < labels.size(); ++i) {
    const QColor colour = labels[i].reach ? t.stop : t.caution;
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(colour, 1));
    painter.drawLine(QPointF(area.right(), wanted[i]), QPointF(area.right() + look.px(6), wanted[i]));
    painter.drawLine(QPointF(area.right() - tick, y[i]), QPointF(area.right(), wanted[i]));
    painter.setRenderHint(QPainter::Antialiasing, false);
    const QRectF room(area.left(), y[i] - line / 2, area.width() - tick - 2, line);
    paint_words(painter, room, Qt::AlignRight | Qt::AlignVCenter, labels[i].text);
  }
}

void HeightSheet::paint_column(QPainter& painter, const TrackColumn& column) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto& e = desk_.assessment().end(desk_.end());
  const HeightScale s = scale();
  paint_head(painter, column.rect, tr(column.what->name),
             QString::fromStdString(unit_name(column.kind, desk_.prefs())));
  if (!column.has_values()) {
    painter.setPen(t.second);
    const bool of_bag = column.what == &tracks::pressure || column.what == &tracks::ride_frequency ||
                        column.what == &tracks::bag_height;
    painter.fillRect(
        QRectF(column.rect.left() + 2, column.rect.center().y() - look.px(18), column.rect.width() - 4, look.px(36)),
        t.panel);
    paint_words(painter, column.rect.adjusted(6, 0, -6, 0), Qt::AlignCenter | Qt::TextWordWrap,
                of_bag ? tr("choose a bag") : tr("damper not measured"));
    return;
  }
  paint_values(painter, column);
  painter.save();
  painter.setClipRect(column.rect);
  painter.setRenderHint(QPainter::Antialiasing);
  const auto draw = [&](const Track* track, const QPen& pen) {
    if (!track) return;
    painter.setPen(pen);
    for (const auto& piece : track->pieces) {
      // Smooth curves: a point every few pixels draws the same line in a fraction of the time.
      const double pixels = piece.step / (s.high - s.low) * (s.bottom - s.top);
      const auto stride = static_cast<std::size_t>(std::max(1.0, std::floor(4 / std::max(pixels, 1e-6))));
      QPolygonF line;
      const std::size_t last = piece.values.size() - 1;
      for (std::size_t i = 0; i <= last; i = i == last ? i + 1 : std::min(i + stride, last))
        line << QPointF(column.x(piece.values[i]), s.y(piece.from + piece.step * static_cast<double>(i)));
      painter.drawPolyline(line);
    }
  };
  // Dots are set one by one: a dotted pen costs more than all the lines together.
  const auto dot = [&](const Track* track) {
    if (!track) return;
    for (double y = s.top; y < s.bottom; y += look.px(4))
      if (const auto value = track->at(s.H(y)))
        painter.fillRect(QRectF(column.x(*value) - 0.6, y - 0.6, 1.3, 1.3), t.end(desk_.end()));
  };
  for (std::size_t c = 0; c < e.cases.size(); ++c)
    if (c != desk_.load_case()) draw(assess::find_track(e.cases[c], *column.what), QPen(t.rule, 1));
  if (column.what == &tracks::pressure)
    for (const TrackRow* side : {&tracks::pressure_left, &tracks::pressure_right})
      dot(e.find(*side, desk_.load_case()));
  if (column.what == &tracks::ride_frequency) {
    dot(e.find(tracks::frequency, desk_.load_case()));
    // Above the bag's heights there is room to say what the dots are.
    painter.setFont(look.font(TextSize::small));
    const QRectF key(column.rect.left() + 2, column.rect.top() + 3, column.rect.width() - 4, look.px(28));
    painter.fillRect(key, t.panel);
    painter.setPen(t.second);
    painter.drawText(key, Qt::AlignCenter | Qt::TextWordWrap, tr("dotted: no tyre"));
  }
  const Track* track = e.find(*column.what, desk_.load_case());
  draw(track, line_pen(2));
  if (column.what == &tracks::pressure && track) paint_beyond(painter, column, *track);
  painter.restore();
}

void HeightSheet::paint_beyond(QPainter& painter, const TrackColumn& column, const Track& track) const {
  const Tokens& t = desk_.look().tokens();
  const HeightScale s = scale();
  for (const assess::BeyondStretch& stretch : track.beyond) {
    QPolygonF line;
    const int steps = std::max(1, static_cast<int>(std::ceil((stretch.to - stretch.from) / 0.003)));
    for (int i = 0; i <= steps; ++i) {
      const double H = stretch.from + (stretch.to - stretch.from) * i / steps;
      if (const auto value = track.at(H)) line << QPointF(column.x(*value), s.y(H));
    }
    const bool unusable = stretch.what != air::Beyond::last_column;
    painter.setPen(QPen(t.panel, 3)); // the line is broken where it rests on too little
    painter.drawPolyline(line);
    painter.setPen(QPen(unusable ? t.stop : t.caution, 2, Qt::DotLine));
    painter.drawPolyline(line);
  }
}

/// At a preset's height its pressure and frequency with their doubt; empty elsewhere, and where that is not known.
QString HeightSheet::with_doubt(const TrackColumn& column, double H, double value) const {
  const char* what = column.what == &tracks::pressure         ? ".pressure"
                     : column.what == &tracks::ride_frequency ? ".frequency"
                                                              : nullptr;
  const assess::Doubt* doubt = Sureness::of(desk_).doubt();
  if (!what || !doubt || desk_.load_case() != 0) return {};
  const auto& presets = desk_.assessment().end(desk_.end()).presets;
  for (std::size_t p = 0; p < presets.size(); ++p) {
    constexpr double there = 6e-4; // m: the pose goes by whole millimetres
    if (!presets[p] || std::abs(presets[p]->height - H) > there) continue;
    const assess::DoubtAnswer* a =
        doubt->find(std::string(build::key_of(desk_.end())) + ".preset." + std::to_string(p) + what);
    if (!a || !a->value || !(a->sd > 0) || std::abs(*a->value - value) > a->sd) continue;
    return QString::fromStdString(report::number_with_doubt(value, a->sd, column.kind, desk_.prefs()));
  }
  return {};
}

void HeightSheet::paint_figures(QPainter& painter, double y) const {
  const double H = scale().H(y);
  for (const TrackColumn& column : columns()) {
    const Track* track = desk_.assessment().end(desk_.end()).find(*column.what, desk_.load_case());
    const auto value = track && column.has_values() ? track->at(H) : std::nullopt;
    if (!value) continue;
    const bool beyond = column.what == &tracks::pressure && track->beyond_at(H) != air::Beyond::nothing;
    paint_figure(painter, column, *value, y, -1, beyond ? QString("△ ") : QString(), with_doubt(column, H, *value));
  }
}

} // namespace mavrel::app
