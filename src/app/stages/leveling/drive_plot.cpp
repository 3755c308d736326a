#include "app/stages/leveling/drive_plot.h"

#include "app/desk/desk.h"
#include "app/kit/drawing.h"
#include "app/stages/leveling/questions.h"
#include "app/theme/text_line.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QMouseEvent>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::Driven;
using control::DriveLook;

namespace {

constexpr double strip_height = 58; // px at normal text

End end_of(std::size_t corner) {
  return corner < 2 ? End::front : End::rear;
}
QPen end_pen(const Tokens& t, End end, double width) {
  QPen pen(t.end(end), width);
  if (end == End::rear) pen.setDashPattern({7, 1.6});
  return pen;
}
float mean_of(const std::array<float, 4>& corners, std::size_t end) {
  return (corners[2 * end] + corners[2 * end + 1]) / 2;
}
/// Of one end, the mean of the four seconds up to each look: what a controller goes by, not each bump.
std::vector<std::pair<double, double>> slow_heights(const control::DriveResult& driven, std::size_t end) {
  std::vector<std::pair<double, double>> out;
  control::Average mean(8);
  for (const DriveLook& at : driven.looks) {
    mean.keep(mean_of(at.height, end));
    out.emplace_back(at.time, mean.mean());
  }
  return out;
}

} // namespace

DrivePlot::DrivePlot(Desk& desk, QWidget* parent) : HeightPlot(desk, parent) {
  setObjectName("drive_plot");
  setAccessibleName(tr("Heights over the drive"));
}

void DrivePlot::show_drives(const assess::Drives* drives, std::size_t picked, const QString& why) {
  drives_ = drives, picked_ = picked, why_ = why;
  redraw();
}

void DrivePlot::look_at(std::optional<std::pair<double, double>> span) {
  span_ = span;
  redraw();
}

const Driven* DrivePlot::driven() const {
  return drives_ && picked_ < drives_->driven.size() ? &drives_->driven[picked_] : nullptr;
}

DriveAxis DrivePlot::axis() const {
  const QRectF p = plot();
  const double all = driven() ? driven()->result.simulated : 1;
  DriveAxis out{0, std::max(1.0, all), p.left(), p.right() - desk_.look().px(30)};
  if (span_)
    out.from = std::clamp(span_->first, 0.0, all), out.until = std::clamp(span_->second, out.from + 1, all + 1);
  return out;
}

QString DrivePlot::described() const {
  const Driven* d = driven();
  if (!d) return why_;
  QString out = QString::fromStdString(d->name) + ".";
  for (const End end : build::both_ends) {
    const auto& f = d->result.ends[build::at(end)];
    out += " " + tr("%1: off by %2 at most for all but a twentieth of the time, %n bursts.", nullptr, f.bursts)
                     .arg(tr(build::name_of(end)), desk_.shown(f.usual_off, Kind::length, 1));
  }
  return out;
}

void DrivePlot::paint_events(QPainter& painter, const DriveAxis& axis) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QRectF p = plot();
  painter.setFont(look.font(TextSize::small));
  double taken = -1e9;
  for (const build::DriveEvent& e : desk_.build().drive.events) {
    if (e.at < axis.from || e.at > axis.until) continue;
    const double x = axis.x(e.at);
    painter.setPen(QPen(t.caution, 1, Qt::DashDotLine));
    painter.drawLine(QPointF(x, p.top()), QPointF(x, p.bottom()));
    const QString name = QString::fromStdString(e.name.empty() ? build::name_of(e.kind) : e.name);
    const double w = painter.fontMetrics().horizontalAdvance(name) + look.px(4.0);
    const double left = std::min(x + 3, p.right() - w);
    if (left < taken) continue;
    taken = left + w;
    painter.setPen(t.caution);
    draw_line(painter, {left, p.top() + 1, w, double(look.px(14))}, Qt::AlignLeft | Qt::AlignVCenter, name);
  }
}

void DrivePlot::paint_ground(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QRectF p = paint_frame(painter);
  const Driven* d = driven();
  if (!d) {
    paint_instead(painter, p.toRect(), look, why_);
    return;
  }
  const HeightScale s = scale();
  const DriveAxis a = axis();
  // Minutes, or seconds of a short stretch, along the foot.
  const double unit = a.until - a.from > 240 ? 60 : 1;
  const double step = tick_step((a.until - a.from) / unit / (a.right - a.left), look.px(46));
  painter.setFont(look.font(TextSize::small));
  for (double v = std::ceil(a.from / unit / step) * step; v * unit <= a.until + 1e-6; v += step) {
    const double x = a.x(v * unit);
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(x, p.top()), QPointF(x, p.bottom() + look.px(4)));
    painter.setPen(t.second);
    draw_line(painter, {x - 30, p.bottom() + look.px(4), 60, double(look.px(14))}, Qt::AlignHCenter | Qt::AlignTop,
              tick_text(v, step) + (unit == 60 ? " min" : " s"));
  }
  painter.save();
  painter.setClipRect(p);
  painter.setRenderHint(QPainter::Antialiasing);
  for (const End end : build::both_ends) {
    const double H = drives_->car.target[2 * build::at(end)];
    const QRectF band(p.left(), s.y(H + d->rules.band), p.width(), s.y(H - d->rules.band) - s.y(H + d->rules.band));
    hatch(painter, band, t.hatch_reserve, end == End::rear, look.px(6));
    painter.setPen(QPen(t.end(end), 0.8, Qt::DotLine));
    painter.drawLine(QPointF(p.left(), s.y(H)), QPointF(p.right(), s.y(H)));
  }
  for (const End end : {End::rear, End::front}) {
    const std::size_t e = build::at(end);
    QPolygonF upper, lower, line;
    for (const DriveLook& look_at : d->result.looks) {
      if (look_at.time < a.from - 1 || look_at.time > a.until + 1) continue;
      const double x = a.x(look_at.time);
      upper << QPointF(x, s.y(std::max(look_at.highest[2 * e], look_at.highest[2 * e + 1])));
      lower.prepend(QPointF(x, s.y(std::min(look_at.lowest[2 * e], look_at.lowest[2 * e + 1]))));
    }
    for (const auto& [time, H] : slow_heights(d->result, e))
      if (time >= a.from - 1 && time <= a.until + 1) line << QPointF(a.x(time), s.y(H));
    if (line.isEmpty()) continue;
    QColor cloud = t.end(end);
    cloud.setAlphaF(t.dark ? 0.30F : 0.20F);
    painter.setPen(Qt::NoPen);
    painter.setBrush(cloud);
    painter.drawPolygon(upper + lower);
    line << QPointF(p.right(), line.back().y()); // on to the posts
    painter.setBrush(Qt::NoBrush);
    painter.setPen(end_pen(t, end, 1.6));
    painter.drawPolyline(line);
  }
  painter.restore();
  paint_events(painter, a);
  // Names at the right.
  painter.setFont(look.font(TextSize::small, true));
  double last = -1e9;
  std::array<std::pair<double, End>, 2> names;
  for (const End end : build::both_ends)
    names[build::at(end)] = {s.y(mean_of(d->result.looks.back().height, build::at(end))), end};
  std::sort(names.begin(), names.end(), [](const auto& x, const auto& y) { return x.first < y.first; });
  for (const auto& [y, end] : names) {
    const double at = std::max(y, last + look.px(14));
    last = at;
    painter.setPen(t.end(end));
    paint_words(painter, {p.right() - look.px(44), at - look.px(14), double(look.px(42)), double(look.px(13))},
                Qt::AlignRight | Qt::AlignBottom, end == End::front ? tr("front") : tr("rear"));
  }
  // What came of it.
  const double head = p.top() - look.px(34);
  painter.setPen(t.ink);
  painter.setFont(look.font(TextSize::normal, true));
  const control::DriveFigures& f = d->result.together;
  draw_line(painter, {p.left(), head - look.px(4), p.width(), double(look.px(18))}, Qt::AlignLeft | Qt::AlignVCenter,
            painter.fontMetrics().elidedText(tr("%1, %2: within %3 of road height 95 % of the time")
                                                 .arg(letter_of(picked_), QString::fromStdString(d->name),
                                                      desk_.shown(f.usual_off, Kind::length, 1)),
                                             Qt::ElideRight, static_cast<int>(p.width())));
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  QStringList about;
  about << tr("eats %1 of %2 bump travel")
               .arg(desk_.shown(std::max(0.0, f.usual_low), Kind::length, 1),
                    desk_.shown(desk_.build().variant().brief.bump_travel, Kind::length));
  if (d->result.bottomed > 0) about << tr("bottomed %n times", nullptr, d->result.bottomed);
  if (d->result.topped > 0) about << tr("topped out %n times", nullptr, d->result.topped);
  if (drives_->car.damper_assumed) about << tr("usual dampers stand in where none are described");
  about << tr("pale: all that the wheels did; line: the mean of four seconds");
  draw_line(painter, {p.left(), head + look.px(14), p.width(), double(look.px(16))}, Qt::AlignLeft | Qt::AlignVCenter,
            painter.fontMetrics().elidedText(about.join(" · "), Qt::ElideRight, static_cast<int>(p.width())));
}

void DrivePlot::paint_figures(QPainter&, double) const {}

// ---- the strips

ErrorStrips::ErrorStrips(Desk& desk, const DrivePlot& above, QWidget* parent)
    : QWidget(parent), desk_(desk), above_(above) {
  setObjectName("error_strips");
  setAccessibleName(tr("Height errors and bursts of each way of keeping the height"));
  connect(&desk_, &Desk::restyled, this, &ErrorStrips::refresh);
  refresh();
}

void ErrorStrips::show_drives(const assess::Drives* drives, std::size_t picked) {
  drives_ = drives, picked_ = picked;
  refresh();
}

void ErrorStrips::refresh() {
  const std::size_t count = drives_ ? drives_->driven.size() : desk_.build().variant().leveling.set_ups.size();
  setFixedHeight(desk_.look().px(strip_height) * static_cast<int>(count));
  QStringList said;
  if (drives_)
    for (const Driven& d : drives_->driven)
      said << tr("%1: %n bursts, %2 in band", nullptr, d.result.together.bursts)
                  .arg(QString::fromStdString(d.name), desk_.shown(d.result.together.in_band, Kind::share));
  setAccessibleDescription(said.join(". "));
  update();
}

/// The bands set the scale: what lies far outside them runs along the strip's edge.
double ErrorStrips::most_error() const {
  double most = 0.006;
  for (const Driven& d : drives_->driven)
    most = std::max(most, 2.6 * d.rules.band);
  return most;
}

void ErrorStrips::paint_strip(QPainter& painter, const QRectF& area, std::size_t i, double most) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const Driven& d = drives_->driven[i];
  const DriveAxis a = above_.axis();
  const auto y = [&](double error) { return area.center().y() - error / most * area.height() / 2; };
  painter.fillRect(area, i == picked_ ? t.selected : t.panel);
  hatch(painter, QRectF(area.left(), y(d.rules.band), area.width(), y(-d.rules.band) - y(d.rules.band)),
        t.hatch_reserve, false, look.px(6));
  painter.save();
  painter.setClipRect(area);
  painter.setPen(QPen(t.second, 0.8, Qt::DotLine));
  painter.drawLine(QPointF(area.left(), y(0)), QPointF(area.right(), y(0)));
  painter.setRenderHint(QPainter::Antialiasing);
  for (const End end : {End::rear, End::front}) {
    const std::size_t e = build::at(end);
    QPolygonF line;
    for (const auto& [time, H] : slow_heights(d.result, e))
      if (time >= a.from - 4 && time <= a.until + 4)
        line << QPointF(a.x(time), y(std::clamp(H - drives_->car.target[2 * e], -0.97 * most, 0.97 * most)));
    painter.setPen(end_pen(t, end, 1.4));
    painter.drawPolyline(line);
  }
  painter.setRenderHint(QPainter::Antialiasing, false);
  for (const control::Burst& b : d.result.bursts) {
    if (b.until < a.from || b.from > a.until) continue;
    const bool fill = b.valve == control::ValveOrder::fill;
    const double x = a.x(b.from), w = std::max(1.0, a.x(b.until) - x);
    // Up for air in, hanging down for air out.
    const QRectF tick(x, fill ? area.bottom() - look.px(9) : area.top(), w, look.px(9));
    painter.fillRect(tick, t.end(end_of(d.result.circuits[b.circuit].front())));
  }
  painter.restore();
  painter.setPen(QPen(t.rule, 1));
  painter.setBrush(Qt::NoBrush);
  painter.drawRect(area);
  painter.setFont(look.font(TextSize::small, true));
  const QString name = letter_of(i) + "  " + QString::fromStdString(d.name);
  const double w = std::min(painter.fontMetrics().horizontalAdvance(name) + 8.0, area.width() / 2);
  QColor paper = i == picked_ ? t.selected : t.panel;
  paper.setAlphaF(0.85F);
  const QRectF label(area.left() + 1, area.top() + look.px(10), w, look.px(15));
  painter.fillRect(label, paper);
  painter.setPen(t.ink);
  draw_line(painter, label.adjusted(4, 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter,
            painter.fontMetrics().elidedText(name, Qt::ElideRight, static_cast<int>(w)));
  // Its own scale at the left.
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  draw_line(painter, {0, y(0) - look.px(7), area.left() - look.px(4), double(look.px(14))},
            Qt::AlignRight | Qt::AlignVCenter,
            "±" + QString::fromStdString(show_parts(d.rules.band, Kind::length, desk_.prefs(), 0).number));
}

void ErrorStrips::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.fillRect(rect(), desk_.look().tokens().ground);
  if (!drives_ || drives_->driven.empty()) return;
  const double each = height() / static_cast<double>(drives_->driven.size());
  const DriveAxis a = above_.axis();
  const double most = most_error();
  for (std::size_t i = 0; i < drives_->driven.size(); ++i)
    paint_strip(painter, {a.left, each * static_cast<double>(i) + 2, width() - a.left - 1, each - 4}, i, most);
}

void ErrorStrips::mousePressEvent(QMouseEvent* event) {
  if (!drives_ || drives_->driven.empty()) return;
  const double each = height() / static_cast<double>(drives_->driven.size());
  emit picked(static_cast<std::size_t>(
      std::clamp(static_cast<int>(event->position().y() / each), 0, static_cast<int>(drives_->driven.size()) - 1)));
}

} // namespace mavrel::app
