#include "app/widgets/height_sheet.h"

#include "app/desk.h"
#include "app/widgets/height_posts.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QMouseEvent>

#include <cmath>

namespace mavrel::app {

using assess::Track;
using assess::TrackCode;

HeightSheet::HeightSheet(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("height_sheet");
  setAccessibleName(tr("Height sheet"));
  setCursor(Qt::SizeVerCursor);
  setMinimumHeight(desk_.look().px(220));
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, [this] { redraw(); });
  connect(&desk_, &Desk::posed, this, [this] {
    describe();
    update();
  });
  describe();
}

void HeightSheet::redraw() {
  stale_ = true;
  describe();
  update();
}

QRectF HeightSheet::plot() const {
  const Look& look = desk_.look();
  const double left = look.px(36), top = look.px(56), bottom = look.px(20);
  return {left, top, width() - left - 1.0, height() - top - bottom};
}

QRectF HeightSheet::limits_area() const {
  const QRectF p = plot();
  return {p.left(), p.top(), static_cast<double>(desk_.look().px(112)), p.height()};
}

std::pair<int, int> HeightSheet::band() const {
  const QRectF p = plot();
  return {static_cast<int>(p.top()), static_cast<int>(p.bottom())};
}

HeightScale HeightSheet::scale() const {
  const auto [low, high] = desk_.height_range();
  const auto [top, bottom] = band();
  return {low, high, static_cast<double>(top), static_cast<double>(bottom)};
}

std::vector<HeightSheet::Column> HeightSheet::columns() const {
  static constexpr TrackCode codes[] = {TrackCode::pressure, TrackCode::frequency, TrackCode::bag_height,
                                        TrackCode::damper_to_open, TrackCode::damper_to_shut};
  const QRectF p = plot();
  const double gap = desk_.look().px(7);
  const double from = limits_area().right() + gap;
  const double each = (p.right() - from - gap * (std::size(codes) - 1)) / std::size(codes);
  const auto& e = desk_.assessment().end(desk_.end());
  std::vector<Column> out;
  double x = from;
  for (const TrackCode code : codes) {
    Column column{code, QRectF(x, p.top(), each, p.height()), 0, 0};
    x += each + gap;
    // One scale for all load cases, so that switching between them shows the difference; a damper's starts at nothing
    // left.
    bool any = false;
    for (std::size_t c = 0; c < desk_.assessment().loads.size(); ++c) {
      const Track* track = e.find(code, c);
      const auto range = track ? track->range() : std::nullopt;
      if (!range) continue;
      column.low = any ? std::min(column.low, range->first) : range->first;
      column.high = any ? std::max(column.high, range->second) : range->second;
      any = true;
    }
    if (code == TrackCode::damper_to_open || code == TrackCode::damper_to_shut) column.low = 0;
    const double room = std::max(1e-9, 0.08 * (column.high - column.low));
    column.low -= code == TrackCode::damper_to_open || code == TrackCode::damper_to_shut ? 0 : room;
    column.high += room;
    if (any)
      out.push_back(column);
    else
      out.push_back({code, column.rect, 0, -1});
  }
  return out;
}

void HeightSheet::describe() {
  const auto H = desk_.pose(desk_.end());
  QString text;
  if (H) {
    text = tr("%1 at %2: ").arg(tr(build::name_of(desk_.end())), desk_.shown(*H, Kind::length));
    for (const Column& column : columns()) {
      const Track* track = desk_.assessment().end(desk_.end()).find(column.code, desk_.load_case());
      const auto value = track ? track->at(*H) : std::nullopt;
      if (value)
        text += QString("%1 %2, ").arg(tr(assess::track_name(column.code)),
                                       desk_.shown(*value, assess::track_kind(column.code)));
    }
  }
  setAccessibleDescription(text);
}

void HeightSheet::resizeEvent(QResizeEvent*) {
  stale_ = true;
  emit band_moved();
}

void HeightSheet::paintEvent(QPaintEvent*) {
  if (stale_ || ground_.size() != size() * devicePixelRatioF()) {
    ground_ = QPixmap(size() * devicePixelRatioF());
    ground_.setDevicePixelRatio(devicePixelRatioF());
    QPainter painter(&ground_);
    paint_ground(painter);
    stale_ = false;
  }
  QPainter painter(this);
  painter.drawPixmap(0, 0, ground_);
  paint_pose(painter);
}

namespace {

void paint_blocked(QPainter& painter, const HeightScale& s, const QRectF& column, const assess::EndAssessment& e,
                   const Look& look) {
  const Tokens& t = look.tokens();
  for (const auto& [from, to] : joined(e.windows.road_blocked))
    hatch(painter, stretch_rect(s, column, from, to, e.domain_low, e.domain_high), t.hatch_reserve, true, look.px(7));
  for (const auto& [from, to] : joined(e.windows.reach_blocked)) {
    const QRectF blocked = stretch_rect(s, column, from, to, e.domain_low, e.domain_high);
    painter.fillRect(blocked, t.panel);
    hatch(painter, blocked, t.hatch_stop, false, look.px(7));
  }
}

} // namespace

void HeightSheet::paint_ground(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  painter.fillRect(rect(), t.ground);
  const HeightScale s = scale();
  const QRectF p = plot();
  // The axis: shown units of height.
  const double factor = shown_step(Kind::length, desk_.prefs(), 0); // SI per shown unit
  const double step = tick_step((s.high - s.low) / factor / p.height(), look.px(34));
  painter.setFont(look.font(TextSize::small));
  const QFontMetricsF metrics(painter.font());
  for (double v = std::ceil(s.low / factor / step) * step; v * factor <= s.high; v += step) {
    const double y = s.y(v * factor);
    painter.setPen(t.second);
    painter.drawText(QRectF(0, y - 8, p.left() - look.px(7), 16), Qt::AlignRight | Qt::AlignVCenter,
                     QString::number(v, 'g', 6));
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(p.left() - look.px(5), y), QPointF(p.left() - 1, y));
  }
  painter.setPen(t.second);
  painter.drawText(QRectF(0, p.top() - look.px(18), p.left() - look.px(7), look.px(14)),
                   Qt::AlignRight | Qt::AlignVCenter, QString::fromStdString(unit_name(Kind::length, desk_.prefs())));
  paint_limits(painter, limits_area());
  const std::vector<Column> all = columns();
  if (all.empty()) return;
  // Every column is blocked alike: the hatching is painted once and laid under each.
  const QRectF one = all.front().rect;
  QPixmap blocked((one.size() * painter.device()->devicePixelRatioF()).toSize());
  blocked.setDevicePixelRatio(painter.device()->devicePixelRatioF());
  blocked.fill(t.panel);
  {
    QPainter on_blocked(&blocked);
    on_blocked.translate(0, -one.top());
    paint_blocked(on_blocked, s, QRectF(0, one.top(), one.width(), one.height()), desk_.assessment().end(desk_.end()),
                  look);
  }
  for (const Column& column : all) {
    painter.drawPixmap(column.rect.topLeft(), blocked);
    paint_column(painter, column);
  }
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
    labels.push_back({H, number(H) + " " + tr(short_limit_name(static_cast<int>(stretch.code))), reach});
  };
  // Of one limit in several load cases only the worst is named here.
  const auto worst = [&](const std::vector<assess::Stretch>& blocked, const assess::Stretch& one) {
    return std::none_of(blocked.begin(), blocked.end(), [&](const auto& other) {
      return other.code == one.code && other.to - other.from > one.to - one.from;
    });
  };
  for (const auto& stretch : e.windows.reach_blocked)
    if (worst(e.windows.reach_blocked, stretch)) add(stretch, true);
  for (const auto& stretch : e.windows.road_blocked)
    if (stretch.load_case && worst(e.windows.road_blocked, stretch)) add(stretch, false);
  const auto reserve = [&](const assess::Edge& edge, const QString& text) {
    if (edge.governing && edge.governing->reserve > 0)
      labels.push_back({edge.height, number(edge.height) + " " + text, false});
  };
  if (e.windows.road) {
    reserve(e.windows.road->low, tr("bump kept"));
    reserve(e.windows.road->high, tr("rebound kept"));
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
    painter.drawText(room, Qt::AlignRight | Qt::AlignVCenter,
                     painter.fontMetrics().elidedText(labels[i].text, Qt::ElideRight, static_cast<int>(room.width())));
  }
}

void HeightSheet::paint_column(QPainter& painter, const Column& column) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto& e = desk_.assessment().end(desk_.end());
  const HeightScale s = scale();
  const Kind kind = assess::track_kind(column.code);
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.ink);
  const QRectF head(column.rect.left(), column.rect.top() - look.px(32), column.rect.width(), look.px(14));
  painter.drawText(head, Qt::AlignLeft | Qt::AlignVCenter,
                   painter.fontMetrics().elidedText(tr(assess::track_name(column.code)), Qt::ElideRight,
                                                    static_cast<int>(head.width())));
  painter.setPen(t.second);
  painter.drawText(head.translated(0, look.px(14)), Qt::AlignLeft | Qt::AlignVCenter,
                   QString::fromStdString(unit_name(kind, desk_.prefs())));

  painter.setPen(QPen(t.rule, 1));
  painter.drawRect(column.rect);
  if (column.high <= column.low) {
    painter.setPen(t.second);
    const bool of_bag = column.code == TrackCode::pressure || column.code == TrackCode::frequency ||
                        column.code == TrackCode::bag_height;
    painter.fillRect(
        QRectF(column.rect.left() + 2, column.rect.center().y() - look.px(18), column.rect.width() - 4, look.px(36)),
        t.panel);
    painter.drawText(column.rect.adjusted(6, 0, -6, 0), Qt::AlignCenter | Qt::TextWordWrap,
                     of_bag ? tr("choose a bag") : tr("damper not measured"));
    return;
  }
  // Values along the foot: the scale's round figures.
  const double factor = from_shown_unit(1, kind, desk_.prefs()) - from_shown_unit(0, kind, desk_.prefs());
  const double low = column.low / factor, high = column.high / factor;
  const double step = tick_step((high - low) / column.rect.width(), look.px(30));
  for (double v = std::ceil(low / step) * step; v <= high; v += step) {
    const double x = column.x(v * factor);
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(x, column.rect.bottom()), QPointF(x, column.rect.bottom() + look.px(4)));
    painter.setPen(t.second);
    if (x > column.rect.left() + 6 && x < column.rect.right() - 6)
      painter.drawText(QRectF(x - 30, column.rect.bottom() + look.px(4), 60, look.px(14)),
                       Qt::AlignHCenter | Qt::AlignTop, QString::number(std::abs(v) < step * 1e-6 ? 0.0 : v, 'g', 4));
  }
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
  const QColor colour = t.end(desk_.end());
  const Qt::PenStyle style = desk_.end() == End::front ? Qt::SolidLine : Qt::CustomDashLine;
  for (std::size_t c = 0; c < e.cases.size(); ++c)
    if (c != desk_.load_case()) draw(e.cases[c].find(column.code), QPen(t.rule, 1));
  if (column.code == TrackCode::pressure)
    for (const TrackCode side : {TrackCode::pressure_left, TrackCode::pressure_right})
      draw(e.find(side, desk_.load_case()), QPen(colour, 1, Qt::DotLine));
  QPen pen(colour, 2, style);
  if (style == Qt::CustomDashLine) pen.setDashPattern({7, 1.6}); // the rear's line is dashed everywhere
  draw(e.find(column.code, desk_.load_case()), pen);
  painter.restore();
}

void HeightSheet::paint_pose(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto H = desk_.pose(desk_.end());
  if (!H) return;
  const HeightScale s = scale();
  const double y = s.y(*H);
  const QRectF p = plot();
  painter.setPen(QPen(t.ink, 1.2));
  painter.drawLine(QPointF(p.left() - look.px(4), y), QPointF(width(), y)); // on to the posts
  painter.setFont(look.font(TextSize::large, true));
  const QFontMetricsF metrics(painter.font());
  painter.setRenderHint(QPainter::Antialiasing);
  for (const Column& column : columns()) {
    const Track* track = desk_.assessment().end(desk_.end()).find(column.code, desk_.load_case());
    const auto value = track && column.high > column.low ? track->at(*H) : std::nullopt;
    if (!value) continue;
    const double x = column.x(*value);
    if (x < column.rect.left() - 1 || x > column.rect.right() + 1) continue;
    const QString text =
        QString::fromStdString(show_parts(*value, assess::track_kind(column.code), desk_.prefs()).number);
    const double w = metrics.horizontalAdvance(text) + 6, h = metrics.height();
    const bool to_right = x + w + look.px(9) < column.rect.right();
    const bool above = y - h - 3 > p.top();
    const QRectF box(to_right ? x + look.px(8) : x - look.px(8) - w, above ? y - h - 2 : y + 3, w, h);
    QColor ground = t.panel;
    ground.setAlphaF(0.86F);
    painter.fillRect(box, ground);
    painter.setPen(t.ink);
    painter.drawText(box, Qt::AlignCenter, text);
    painter.setPen(QPen(t.end(desk_.end()), 2));
    painter.setBrush(t.panel);
    painter.drawEllipse(QPointF(x, y), look.px(4), look.px(4));
  }
}

void HeightSheet::mousePressEvent(QMouseEvent* event) {
  if (event->button() != Qt::LeftButton) return;
  dragging_ = true;
  desk_.set_pose(desk_.end(), std::round(scale().H(event->position().y()) * 1e3) * 1e-3);
}

void HeightSheet::mouseMoveEvent(QMouseEvent* event) {
  if (dragging_) desk_.set_pose(desk_.end(), std::round(scale().H(event->position().y()) * 1e3) * 1e-3);
}

void HeightSheet::mouseReleaseEvent(QMouseEvent*) {
  dragging_ = false;
}

} // namespace mavrel::app
