#include "app/stages/air/lift_plot.h"

#include "app/desk/sureness.h"
#include "app/kit/drawing.h"
#include "app/theme/text_line.h"
#include "assess/air/air_given.h"
#include "quantity/quantity.h"

#include <QPainterPath>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::Lift;
using assess::LiftLook;

namespace {

constexpr const char* letters[] = {"FL", "FR", "RL", "RR"};

End end_of(std::size_t corner) {
  return corner < 2 ? End::front : End::rear;
}
/// Front solid, rear dashed; left thick, right thin.
QPen corner_pen(const Tokens& t, std::size_t corner) {
  QPen pen(t.end(end_of(corner)), corner % 2 == 0 ? 2.2 : 1.1);
  if (corner >= 2) pen.setDashPattern({7, 1.6});
  return pen;
}

} // namespace

LiftPlot::LiftPlot(Desk& desk, QWidget* parent) : HeightPlot(desk, parent) {
  setObjectName("lift_plot");
  setAccessibleName(tr("Heights over time"));
}

void LiftPlot::show_lift(const Lift* lift, const QString& why) {
  lift_ = lift;
  why_ = why;
  redraw();
}

TimeAxis LiftPlot::time() const {
  const QRectF p = plot();
  double last = 1;
  if (lift_ && lift_->looks.size() > 1) last = std::max(0.5, lift_->looks.back().time * 1.06);
  return {last, p.left(), p.right() - desk_.look().px(26)};
}

QString LiftPlot::described() const {
  if (!lift_) return why_;
  QString out = lift_->arrived ? tr("Reached after %1.").arg(shown_sure(desk_, *lift_->arrived, Kind::time, "air.rise"))
                               : tr("It does not get there.");
  for (std::size_t c = 0; c < 4; ++c)
    out += " " + tr("%1 from %2 to %3.")
                     .arg(tr(assess::corner_name(c)), desk_.shown(lift_->looks.front().height[c], Kind::length),
                          desk_.shown(lift_->looks.back().height[c], Kind::length));
  return out;
}

void LiftPlot::paint_ground(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const QRectF p = paint_frame(painter);
  if (!lift_) {
    paint_instead(painter, p.toRect(), look, why_);
    return;
  }
  const HeightScale s = scale();
  const TimeAxis time_axis = time();
  // Every preset's line across, by its end's colour.
  painter.setFont(look.font(TextSize::small));
  const auto& presets = desk_.build().variant().brief.presets;
  for (const End end : build::both_ends)
    for (std::size_t i = 0; i < presets.size(); ++i) {
      const auto& at = desk_.assessment().end(end).presets;
      if (i >= at.size() || !at[i]) continue;
      const double y = s.y(at[i]->height);
      if (y < p.top() || y > p.bottom()) continue;
      QPen pen(t.end(end), 0.8, Qt::DotLine);
      painter.setPen(pen);
      painter.drawLine(QPointF(p.left(), y), QPointF(p.right(), y));
    }
  // Seconds along the foot.
  const double step = tick_step(time_axis.last / (time_axis.right - time_axis.left), look.px(44));
  for (double v = 0; v <= time_axis.last; v += step) {
    const double x = time_axis.x(v);
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(x, p.top()), QPointF(x, p.bottom() + look.px(4)));
    painter.setPen(t.second);
    draw_line(painter, {x - 30, p.bottom() + look.px(4), 60, double(look.px(14))}, Qt::AlignHCenter | Qt::AlignTop,
              tick_text(v, step) + (v == 0 ? " s" : ""));
  }
  painter.save();
  painter.setClipRect(p);
  painter.setRenderHint(QPainter::Antialiasing);
  for (std::size_t c = 4; c-- > 0;) {
    QPolygonF line;
    for (const LiftLook& at : lift_->looks)
      line << QPointF(time_axis.x(at.time), s.y(at.height[c]));
    line << QPointF(p.right(), line.back().y()); // on to the posts
    painter.setPen(corner_pen(t, c));
    painter.setBrush(Qt::NoBrush);
    painter.drawPolyline(line);
  }
  painter.restore();
  // Names at the right, apart from one another: both of an end as one where they end together.
  struct Name {
    QString text;
    double y;
    QColor colour;
  };
  std::vector<Name> names;
  for (const std::size_t left : {0U, 2U}) {
    const double a = lift_->looks.back().height[left], b = lift_->looks.back().height[left + 1];
    const QColor colour = t.end(end_of(left));
    if (std::abs(s.y(a) - s.y(b)) < look.px(13)) {
      names.push_back({left == 0 ? tr("front") : tr("rear"), s.y((a + b) / 2), colour});
      continue;
    }
    names.push_back({letters[left], s.y(a), colour});
    names.push_back({letters[left + 1], s.y(b), colour});
  }
  std::sort(names.begin(), names.end(), [](const Name& a, const Name& b) { return a.y < b.y; });
  for (std::size_t i = 1; i < names.size(); ++i)
    names[i].y = std::max(names[i].y, names[i - 1].y + look.px(14));
  painter.setFont(look.font(TextSize::small, true));
  for (const Name& name : names) {
    const QRectF box(p.right() - look.px(44), name.y - look.px(14), look.px(42), look.px(13));
    painter.setPen(name.colour);
    paint_words(painter, box, Qt::AlignRight | Qt::AlignBottom, name.text);
  }
  // When each end is there.
  const double head = p.top() - look.px(34);
  painter.setPen(t.ink);
  painter.setFont(look.font(TextSize::normal, true));
  draw_line(painter, {p.left(), head - look.px(4), p.width(), double(look.px(18))}, Qt::AlignLeft | Qt::AlignVCenter,
            lift_->arrived ? tr("reached after %1").arg(shown_sure(desk_, *lift_->arrived, Kind::time, "air.rise"))
                           : tr("it does not get there: %1 lacks %2")
                                 .arg(lift_->stuck.empty() ? tr("the car") : tr(lift_->stuck.c_str()),
                                      desk_.shown(std::abs(lift_->short_by), Kind::length)));
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  QStringList about;
  about << tr("left and right apart by up to %1").arg(desk_.shown(lift_->worst_lean, Kind::length));
  about << tr("front and rear by %1").arg(desk_.shown(lift_->worst_rake, Kind::length));
  if (lift_->most_load > 1.02)
    about << tr("%1 carries up to %2 more")
                 .arg(tr(assess::corner_name(lift_->most_load_corner)), desk_.shown(lift_->most_load - 1, Kind::share));
  if (std::abs(lift_->settled) > 5e-4)
    about << (lift_->settled < 0 ? tr("sinks %1 more as its air cools") : tr("rises %1 more as its air warms"))
                 .arg(desk_.shown(std::abs(lift_->settled), Kind::length));
  const QString line = about.join(" · ");
  draw_line(painter, {p.left(), head + look.px(14), p.width(), double(look.px(16))}, Qt::AlignLeft | Qt::AlignVCenter,
            painter.fontMetrics().elidedText(line, Qt::ElideRight, static_cast<int>(p.width())));
}

void LiftPlot::paint_figures(QPainter& painter, double y) const {
  if (!lift_) return;
  // When the end that is looked at passes the pose.
  const HeightScale s = scale();
  const double H = s.H(y);
  const std::size_t c = 2 * build::at(desk_.end());
  for (std::size_t i = 1; i < lift_->looks.size(); ++i) {
    const LiftLook &a = lift_->looks[i - 1], &b = lift_->looks[i];
    if ((a.height[c] - H) * (b.height[c] - H) > 0 || a.height[c] == b.height[c]) continue;
    const double t = a.time + (H - a.height[c]) / (b.height[c] - a.height[c]) * (b.time - a.time);
    const Look& look = desk_.look();
    const double x = time().x(t);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setPen(QPen(look.tokens().end(desk_.end()), 2));
    painter.setBrush(look.tokens().panel);
    painter.drawEllipse(QPointF(x, y), look.px(4), look.px(4));
    painter.setFont(look.font(TextSize::large, true));
    const QString text = desk_.shown(t, Kind::time, 2);
    const double w = painter.fontMetrics().horizontalAdvance(text) + 6.0, h = painter.fontMetrics().height();
    const bool right = x + look.px(8) + w < plot().right() - look.px(46);
    const QRectF box(right ? x + look.px(8) : x - look.px(8) - w, y + 3, w, h);
    QColor ground = look.tokens().panel;
    ground.setAlphaF(0.86F);
    painter.fillRect(box, ground);
    painter.setPen(look.tokens().ink);
    draw_line(painter, box, Qt::AlignCenter, text);
    return;
  }
}

// ---- the strip

LiftStrip::LiftStrip(Desk& desk, const LiftPlot& above, QWidget* parent) : QWidget(parent), desk_(desk), above_(above) {
  setObjectName("lift_strip");
  setAccessibleName(tr("Tank, bags and loads over time"));
  setFixedHeight(desk_.look().px(92));
  connect(&desk_, &Desk::restyled, this, [this] {
    setFixedHeight(desk_.look().px(92));
    update();
  });
}

void LiftStrip::show_lift(const Lift* lift) {
  lift_ = lift;
  describe();
  update();
}
void LiftStrip::show_what(What what) {
  what_ = what;
  describe();
  update();
}

void LiftStrip::describe() {
  if (!lift_) return setAccessibleDescription({});
  const LiftLook &a = lift_->looks.front(), &b = lift_->looks.back();
  QString out =
      tr("Tank from %1 to %2, its air from %3 to %4.")
          .arg(desk_.shown(a.tank_pressure, Kind::pressure), desk_.shown(b.tank_pressure, Kind::pressure),
               desk_.shown(a.tank_temperature, Kind::temperature), desk_.shown(b.tank_temperature, Kind::temperature));
  for (std::size_t c = 0; c < 4; ++c)
    out += " " + tr("%1 %2, %3.")
                     .arg(tr(assess::corner_name(c)), desk_.shown(b.pressure[c], Kind::pressure),
                          desk_.shown(b.wheel_force[c] / standard_gravity, Kind::mass));
  setAccessibleDescription(out);
}

void LiftStrip::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const TimeAxis axis = above_.time();
  const QRectF area(axis.left, look.px(16), width() - axis.left - 1, height() - look.px(18));
  painter.fillRect(area, t.panel);
  painter.setPen(QPen(t.rule, 1));
  painter.drawRect(area);
  if (!lift_) return;
  struct Row {
    std::vector<double> values;
    QPen pen;
    QString name;
    Kind kind;
  };
  std::vector<Row> rows;
  const auto take = [&](const auto& of, const QPen& pen, const QString& name, Kind kind) {
    Row row{{}, pen, name, kind};
    for (const LiftLook& at : lift_->looks)
      row.values.push_back(of(at));
    rows.push_back(std::move(row));
  };
  if (what_ == What::tank) {
    take([](const LiftLook& l) { return l.tank_pressure; }, QPen(t.ink, 2), tr("tank"), Kind::pressure);
    QPen warm(t.caution, 1.6);
    warm.setDashPattern({2, 2});
    take([](const LiftLook& l) { return l.tank_temperature; }, warm, tr("its air"), Kind::temperature);
  } else {
    for (std::size_t c = 0; c < 4; ++c)
      take([&](const LiftLook& l) { return what_ == What::bags ? l.pressure[c] : l.wheel_force[c] / standard_gravity; },
           corner_pen(t, c), letters[c], what_ == What::bags ? Kind::pressure : Kind::mass);
  }
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setFont(look.font(TextSize::small));
  const bool apart = what_ == What::tank; // two quantities, each on its own scale
  if (apart) {                            // what the bags want of it, from which the tank must keep away
    for (std::size_t c = 0; c < 4; c += 2)
      take([&](const LiftLook& l) { return std::max(l.pressure[c], l.pressure[c + 1]); },
           QPen(t.end(end_of(c)), 1, Qt::DotLine), c == 0 ? tr("front bags") : tr("rear bags"), Kind::pressure);
  }
  double most_pressure = 0;
  for (const Row& row : rows)
    if (row.kind == Kind::pressure)
      for (const double v : row.values)
        most_pressure = std::max(most_pressure, v);
  double low = INFINITY, high = -INFINITY;
  for (const Row& row : rows)
    for (const double v : row.values)
      low = std::min(low, v), high = std::max(high, v);
  double head_x = area.left();
  for (const Row& row : rows) {
    double lo = low, hi = high;
    if (apart) {
      lo = *std::min_element(row.values.begin(), row.values.end());
      hi = *std::max_element(row.values.begin(), row.values.end());
      if (row.kind == Kind::pressure) lo = 0, hi = most_pressure;
    }
    const double least = row.kind == Kind::pressure ? 0.5e5 : row.kind == Kind::mass ? 40 : 10; // no noise blown up
    const double middle = (lo + hi) / 2, span = std::max(hi - lo, least) * 1.25;
    QPolygonF line;
    for (std::size_t i = 0; i < row.values.size(); ++i)
      line << QPointF(axis.x(lift_->looks[i].time),
                      area.center().y() - (row.values[i] - middle) / span * area.height());
    line << QPointF(area.right(), line.back().y());
    painter.setPen(row.pen);
    painter.drawPolyline(line);
    const bool aside = apart && row.kind == Kind::pressure && &row != &rows.front();
    const QString text = row.name + " " + (aside ? QString() : desk_.shown(row.values.front(), row.kind) + " → ") +
                         desk_.shown(row.values.back(), row.kind);
    painter.setPen(row.pen.color());
    const double w = painter.fontMetrics().horizontalAdvance(text) + look.px(18.0);
    draw_line(painter, {head_x, 0, w, double(look.px(15))}, Qt::AlignLeft | Qt::AlignVCenter, text);
    head_x += w;
  }
}

} // namespace mavrel::app
