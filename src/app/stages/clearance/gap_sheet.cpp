#include "app/stages/clearance/gap_sheet.h"

#include "app/desk/desk.h"
#include "app/stages/clearance/names.h"
#include "app/stages/clearance/steer.h"
#include "app/theme/text_line.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QMouseEvent>
#include <QPainterPath>
#include <QRegion>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::ClearanceMap;
using assess::GapCurve;
using assess::MapCell;

namespace {

/// The least to spare over the heights that are looked at.
double least_spare(const GapCurve& gap, double low, double high) {
  double out = 1e9;
  for (int i = 0; i <= 40; ++i)
    if (const auto g = gap.at(std::lerp(low, high, i / 40.0), true)) out = std::min(out, *g - gap.near.room);
  return out;
}

} // namespace

GapSheet::GapSheet(Desk& desk, Steer& steer, QWidget* parent)
    : PagedPlot(desk, 98, parent), steer_(steer), map_(
                                                      desk.answers(),
                                                      [this] {
                                                        redraw();
                                                        emit worked_out();
                                                      },
                                                      [this] { return given(); }) {
  setObjectName("gap_sheet");
  setAccessibleName(tr("Gaps over height"));
  for (const auto signal : {&Desk::changed, &Desk::looked_at})
    connect(&desk_, signal, this, &GapSheet::ask);
  connect(&steer_, &Steer::turned, this, qOverload<>(&QWidget::update));
}

void GapSheet::showEvent(QShowEvent* event) {
  HeightPlot::showEvent(event);
  ask();
}

void GapSheet::ask() {
  if (isVisible()) map_.want();
}

std::optional<assess::MapGiven> GapSheet::given() const {
  const auto& answered = desk_.answered(desk_.end());
  const auto& e = answered->assessment;
  if (!e.has_domain() || e.gaps.empty()) return std::nullopt;
  return assess::MapGiven{answered, e.domain_low, e.domain_high};
}

std::vector<const GapCurve*> GapSheet::gaps() const {
  const auto& e = desk_.assessment().end(desk_.end());
  std::vector<std::pair<double, const GapCurve*>> sorted;
  for (const GapCurve& gap : e.gaps)
    sorted.emplace_back(least_spare(gap, e.domain_low, e.domain_high), &gap);
  std::stable_sort(sorted.begin(), sorted.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
  std::vector<const GapCurve*> out;
  for (const auto& [spare, gap] : sorted)
    out.push_back(gap);
  return out;
}

QRectF GapSheet::map_rect() const {
  if (gaps().empty()) return {};
  const QRectF p = plot();
  return {p.left(), p.top(), std::round(p.width() * 0.44), p.height()};
}

QRectF GapSheet::area() const {
  QRectF out = plot();
  out.setLeft(map_rect().right() + desk_.look().px(10));
  return out;
}

std::vector<GapSheet::Strip> GapSheet::strips() const {
  std::vector<Strip> out;
  const auto all = gaps();
  if (all.empty()) return out;
  const auto& e = desk_.assessment().end(desk_.end());
  const auto [first, each] = shown();
  const auto rects = split(area().left(), static_cast<int>(each));
  for (std::size_t i = 0; i < each; ++i) {
    Strip s;
    s.rect = rects[i];
    s.kind = Kind::length;
    s.gap = all[first + i];
    const QString near = desk_.words_of(s.gap->near.told());
    s.name = s.gap->mover == assess::Mover::tyre ? near : tr("%1, %2").arg(tr(assess::name_of(s.gap->mover)), near);
    double most = s.gap->near.room;
    for (int k = 0; k <= 40; ++k)
      if (const auto g = s.gap->at(std::lerp(e.domain_low, e.domain_high, k / 40.0), false)) most = std::max(most, *g);
    s.low = 0;
    s.high = std::max(0.02, 1.08 * most);
    out.push_back(s);
  }
  return out;
}

QStringList GapSheet::names() const {
  QStringList out;
  for (const Strip& s : strips())
    out << s.name;
  return out;
}

QString GapSheet::summary() const {
  if (gaps().empty()) return tr("Nothing near the wheel has been measured yet.");
  const ClearanceMap* map = this->map();
  if (!map) return map_.is_running() ? tr("Working the map out …") : tr("Gaps over height.");
  const MapCell& worst = map->cells[map->worst];
  if (worst.which == assess::not_listed) return tr("Nothing comes near anything at these heights.");
  const GapCurve& gap = map->what[worst.which];
  const double H = map->heights[map->worst / map->steers.size()], angle = map->steers[map->worst % map->steers.size()];
  const QString what = gap_name(desk_, gap.mover, gap.near);
  const QString where = std::abs(angle) < 1e-6
                            ? tr("%1, straight ahead").arg(desk_.shown(H, Kind::length))
                            : tr("%1, %2 %3")
                                  .arg(desk_.shown(H, Kind::length), desk_.shown(std::abs(angle), Kind::angle, 0),
                                       angle > 0 ? tr("left") : tr("right"));
  return worst.gap <= 0 ? tr("Worst: %1, they touch at %2.").arg(what, where)
                        : tr("Worst: %1, %2 at %3; %4 wanted.")
                              .arg(what, desk_.shown(worst.gap, Kind::length, 1), where,
                                   desk_.shown(gap.near.room, Kind::length, 0));
}

QString GapSheet::described() const {
  const auto H = desk_.pose(desk_.end());
  if (!H) return {};
  QString text = tr("%1 at %2: ").arg(tr(build::name_of(desk_.end())), desk_.shown(*H, Kind::length));
  for (const Strip& s : strips())
    if (const auto g = s.gap->at(*H, true)) text += QString("%1 %2, ").arg(s.name, desk_.shown(*g, Kind::length, 1));
  return text + summary();
}

void GapSheet::paint_ground(QPainter& painter) const {
  paint_axis(painter);
  const auto all = strips();
  if (all.empty()) {
    const Look& look = desk_.look();
    painter.setFont(look.font());
    painter.setPen(look.tokens().second);
    paint_words(painter, plot(), Qt::AlignCenter | Qt::TextWordWrap,
                tr("Nothing near the wheel has been measured yet. Add an obstacle above: a gap by the tape, or a "
                   "solid with its place."));
    return;
  }
  std::vector<QRectF> rects;
  for (const Strip& s : all)
    rects.push_back(s.rect);
  paint_blocked(painter, rects);
  paint_map(painter);
  for (const Strip& s : all)
    paint_strip(painter, s);
}

void GapSheet::paint_strip(QPainter& painter, const Strip& strip) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const HeightScale s = scale();
  const QString unit = QString::fromStdString(unit_name(Kind::length, desk_.prefs()));
  const QString how = strip.gap->source == assess::GapSource::sheet   ? tr("%1, by the sheet").arg(unit)
                      : strip.gap->source == assess::GapSource::taped ? tr("%1, predicted").arg(unit)
                                                                      : unit;
  paint_head(painter, strip.rect, strip.name, how);
  paint_values(painter, strip);
  painter.save();
  painter.setClipRect(strip.rect);
  painter.setRenderHint(QPainter::Antialiasing);
  // What is wanted, from nothing up to it.
  QColor wanted = t.caution;
  wanted.setAlphaF(0.16F);
  painter.fillRect(
      QRectF(strip.x(0), strip.rect.top(), strip.x(strip.gap->near.room) - strip.x(0), strip.rect.height()), wanted);
  const auto line = [&](bool locked, const QPen& pen) {
    QPolygonF out;
    painter.setPen(pen);
    for (double y = s.top; y <= s.bottom + 0.5; y += 2) {
      const auto g = strip.gap->at(s.H(std::min(y, s.bottom)), locked);
      if (g)
        out << QPointF(strip.x(std::clamp(*g, 0.0, strip.high)), y);
      else if (out.size() > 1) {
        painter.drawPolyline(out);
        out.clear();
      }
    }
    painter.drawPolyline(out);
  };
  if (strip.gap->least && strip.gap->mover == assess::Mover::tyre) line(true, QPen(t.ink, 1.2, Qt::DotLine));
  line(false, line_pen(2));
  if (strip.gap->taped_at) {
    painter.setPen(QPen(t.end(desk_.end()), 1.4));
    painter.setBrush(t.panel);
    if (const auto g = strip.gap->at(*strip.gap->taped_at, !strip.gap->straight))
      painter.drawEllipse(QPointF(strip.x(*g), s.y(*strip.gap->taped_at)), look.px(3), look.px(3));
  }
  painter.restore();
}

void GapSheet::paint_figures(QPainter& painter, double y) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const double H = scale().H(y);
  if (const QRectF area = map_rect(); map() && map()->steers.size() > 1 && area.isValid()) {
    const double lock = map()->steers.back();
    const double x = area.left() + (0.5 + steer_.angle() / (2 * lock)) * area.width();
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(t.ink, 1.2));
    painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()));
    painter.setPen(QPen(t.ink, 2));
    painter.setBrush(t.panel);
    painter.drawEllipse(QPointF(x, y), look.px(4), look.px(4));
  }
  for (const Strip& strip : strips()) {
    auto g = strip.gap->at(H, false);
    if (!g) g = strip.gap->at(H, true);
    if (!g) continue;
    const double spare = strip.gap->at(H, true).value_or(*g) - strip.gap->near.room;
    paint_figure(painter, strip, std::clamp(*g, 0.0, strip.high), y, 1, spare < 0 ? QString("△ ") : QString());
  }
}

void GapSheet::steer_at(const QPointF& at) {
  const QRectF area = map_rect();
  if (!map() || map()->steers.size() < 2 || !area.contains(at)) return;
  const double lock = map()->steers.back();
  double angle = ((at.x() - area.left()) / area.width() - 0.5) * 2 * lock;
  if (std::abs(angle) < 0.02 * lock) angle = 0;
  steer_.set(std::clamp(angle, -lock, lock));
}

void GapSheet::mousePressEvent(QMouseEvent* event) {
  steer_at(event->position());
  HeightPlot::mousePressEvent(event);
}

void GapSheet::mouseMoveEvent(QMouseEvent* event) {
  if (event->buttons() & Qt::LeftButton) steer_at(event->position());
  HeightPlot::mouseMoveEvent(event);
}

void GapSheet::go_to_worst() {
  const ClearanceMap* map = this->map();
  if (!map || map->cells[map->worst].which == assess::not_listed) return;
  steer_.set(map->steers[map->worst % map->steers.size()]);
  desk_.set_pose(desk_.end(), map->heights[map->worst / map->steers.size()]);
}

} // namespace mavrel::app
