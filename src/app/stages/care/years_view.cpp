#include "app/stages/care/years_view.h"

#include "app/kit/drawing.h"
#include "app/theme/text_line.h"
#include "build/names.h"

#include <QHelpEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>
#include <map>

namespace mavrel::app {

using assess::CareTrend;
using assess::DueState;

namespace {

constexpr double ahead = 120; // days shown beyond today

/// Trends of one kind stand in one strip: four corners' heights together.
std::vector<std::vector<const CareTrend*>> strips_of(const assess::CarePlan& plan) {
  std::vector<std::vector<const CareTrend*>> out;
  for (const CareTrend& t : plan.trends) {
    const auto same = std::find_if(out.begin(), out.end(), [&](const auto& s) { return s.front()->what == t.what; });
    if (same == out.end())
      out.push_back({&t});
    else
      same->push_back(&t);
  }
  return out;
}

} // namespace

YearsView::YearsView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("years_view");
  setMinimumHeight(desk_.look().px(250));
}

void YearsView::refresh() {
  setAccessibleName(described());
  update();
}

QString YearsView::described() const {
  QStringList out;
  if (const auto& plan = care_plan(desk_))
    for (const CareTrend& t : plan->trends) {
      QString line = tr("%1, readings: %2").arg(desk_.words_of(t.name)).arg(t.points.size());
      line += ", " + desk_.shown(t.points.back().value, t.kind, t.kind == Kind::length ? 1 : -1);
      if (t.says) line += ". " + desk_.words_of(*t.says);
      out << line;
    }
  return tr("The years of this car. %1").arg(out.join("; "));
}

YearsView::Span YearsView::span() const {
  Span out;
  const work::Day today = clock_now().day;
  out.last = today + ahead;
  out.first = today - 180;
  if (const auto from = work::parse_day(desk_.build().care->from)) out.first = std::min(out.first, *from - 10.0);
  if (const auto& plan = care_plan(desk_))
    for (const CareTrend& t : plan->trends)
      out.first = std::min(out.first, t.points.front().day - 10.0);
  out.first -= 0.09 * (out.last - out.first); // the strips' scales stand there
  return out;
}

void YearsView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  painter.fillRect(rect(), t.ground);
  const auto& plan = care_plan(desk_);
  if (!plan)
    return paint_instead(
        painter, rect(), look,
        tr("The years of this car stand here once it is on the road: set the day under Use, or hand it "
           "over on Proving."));
  painter.setRenderHint(QPainter::Antialiasing);
  const Span s = span();
  const double left = look.px(150), right = width() - look.px(8), foot = height() - look.px(44), head = look.px(4);
  const auto x = [&](double day) { return left + (day - s.first) / (s.last - s.first) * (right - left); };
  const work::Day today = clock_now().day;
  painter.fillRect(QRectF(left, head, right - left, foot - head), t.panel);
  painter.fillRect(QRectF(x(today), head, right - x(today), foot - head), t.ground);
  // Months or years as there is room.
  painter.setFont(look.font(TextSize::small));
  const double a_month = (right - left) / (s.last - s.first) * 30.4;
  const int every = a_month > look.px(44) ? 1 : a_month > look.px(16) ? 3 : 12;
  for (auto day = static_cast<work::Day>(s.first); day <= s.last; ++day) {
    if (work::day_of_month(day) != 1 || (work::month(day) - 1) % every != 0) continue;
    const bool year = work::month(day) == 1;
    painter.setPen(QPen(year ? t.second : t.rule, 1));
    painter.drawLine(QPointF(x(day), head), QPointF(x(day), foot));
    painter.setPen(t.second);
    const QString text = QString::fromStdString(work::day_text(day));
    draw_line(painter, {x(day) + 2, foot + look.px(26), 80, double(look.px(14))}, Qt::AlignLeft | Qt::AlignVCenter,
              year ? text.left(4) : text.mid(5, 2));
  }
  const auto strips = strips_of(*plan);
  const double each = strips.empty() ? 0 : (foot - head) / static_cast<double>(strips.size());
  for (std::size_t i = 0; i < strips.size(); ++i) {
    const auto& strip = strips[i];
    const double top = head + each * static_cast<double>(i) + look.px(6), bottom = top + each - look.px(12);
    double low = 1e300, high = -1e300;
    for (const CareTrend* one : strip)
      for (const auto& p : one->points)
        low = std::min(low, p.value), high = std::max(high, p.value);
    // Heights of both ends lie apart: each corner is drawn from its own first reading.
    const bool own_zero = strip.front()->kind == Kind::length;
    if (own_zero) {
      low = 0, high = 0;
      for (const CareTrend* one : strip)
        for (const auto& p : one->points)
          low = std::min(low, p.value - one->points.front().value),
          high = std::max(high, p.value - one->points.front().value);
      low = std::min(low, -0.004), high = std::max(high, 0.002);
    } else {
      low = std::min(0.0, low);
      const auto& limit = strip.front()->limit;
      if (limit) high = std::max(high, *limit);
      high += 0.08 * std::max(1e-12, high - low);
    }
    const auto y = [&](double v) { return bottom - (v - low) / std::max(1e-12, high - low) * (bottom - top); };
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(0, bottom + look.px(6)), QPointF(right, bottom + look.px(6)));
    painter.setPen(t.ink);
    painter.setFont(look.font(TextSize::small, true));
    draw_line(painter, {0, top, left - 8, double(look.px(15))}, Qt::AlignLeft | Qt::AlignVCenter,
              painter.fontMetrics().elidedText(
                  desk_.words_of(strip.size() == 1 ? strip.front()->name : Message{strip.front()->what->name, {}}),
                  Qt::ElideRight, static_cast<int>(left) - 10));
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.second);
    const auto told = [&](double v) {
      return desk_.shown(v, strip.front()->kind,
                         strip.front()->kind == Kind::length  ? 1
                         : strip.front()->kind == Kind::share ? 2
                         : strip.front()->kind == Kind::mass  ? 3
                                                              : -1);
    };
    draw_line(painter, {0, top + look.px(15), left - 8, double(look.px(14))}, Qt::AlignLeft | Qt::AlignVCenter,
              own_zero ? tr("from its first reading") : told(strip.front()->points.back().value));
    // Its scale stands inside, where the first readings are not.
    draw_line(painter, {left + 4, top - 4, double(look.px(70)), double(look.px(12))}, Qt::AlignLeft | Qt::AlignVCenter,
              told(high));
    draw_line(painter, {left + 4, bottom - look.px(8), double(look.px(70)), double(look.px(12))},
              Qt::AlignLeft | Qt::AlignVCenter, told(low));
    if (!own_zero && strip.front()->limit) {
      painter.setPen(QPen(t.caution, 1, Qt::DashLine));
      painter.drawLine(QPointF(left, y(*strip.front()->limit)), QPointF(right, y(*strip.front()->limit)));
    }
    double last_label = -1e9;
    std::vector<std::pair<double, const CareTrend*>> names;
    for (const CareTrend* one : strip) {
      const bool corner = !one->where.empty(), front = one->where.starts_with("front"),
                 rhs = one->where.ends_with("right");
      const QColor ink = corner ? t.end(front ? End::front : End::rear) : t.ink;
      QPen pen(ink, rhs ? 1.2 : 2);
      if (corner && !front) pen.setDashPattern({6, 2});
      painter.setPen(pen);
      QPolygonF line;
      const double zero = own_zero ? one->points.front().value : 0;
      for (const auto& p : one->points)
        line << QPointF(x(p.day), y(p.value - zero));
      painter.drawPolyline(line);
      painter.setPen(Qt::NoPen);
      painter.setBrush(ink);
      for (const QPointF& p : line)
        painter.drawEllipse(p, 2.2, 2.2);
      if (corner && strip.size() > 1) names.emplace_back(line.back().y(), one);
    }
    std::sort(names.begin(), names.end(), [](const auto& a, const auto& b) { return a.first < b.first; });
    for (const auto& [at, one] : names) {
      const double place = std::max(at, last_label + look.px(11));
      last_label = place;
      painter.setPen(t.end(one->where.starts_with("front") ? End::front : End::rear));
      const QString key =
          QString(one->where.starts_with("front") ? "F" : "R") + (one->where.ends_with("left") ? "L" : "R");
      draw_line(painter, {x(one->points.back().day) + 5, place - look.px(7), double(look.px(24)), double(look.px(14))},
                Qt::AlignLeft | Qt::AlignVCenter, key);
    }
  }
  // What happened and was done, along the foot.
  for (const build::LogEntry& e : desk_.build().care->log) {
    const auto at = work::parse_moment(e.day);
    if (!at || at->day > today) continue;
    const double here = x(at->day), middle = foot + look.px(10);
    if (e.kind == build::LogKind::event) {
      painter.setPen(Qt::NoPen);
      painter.setBrush(t.stop);
      painter.drawPolygon(QPolygonF{{here, middle - 6}, {here + 5, middle + 4}, {here - 5, middle + 4}});
    } else if (e.kind == build::LogKind::work) {
      painter.setPen(QPen(t.ink, 1.5));
      painter.drawLine(QPointF(here, middle - 5), QPointF(here, middle + 4));
    }
  }
  painter.setPen(t.second);
  draw_line(painter, {0, foot + look.px(2), left - 8, double(look.px(16))}, Qt::AlignLeft | Qt::AlignVCenter,
            tr("▲ happened  | done  ● due"));
  // What is due, at its day.
  for (const assess::CareDue& d : plan->due) {
    if (d.due > s.last) continue;
    const double here = x(std::max<double>(d.due, today)), middle = foot + look.px(10);
    painter.setPen(QPen(d.state == DueState::late ? t.stop : d.state == DueState::soon ? t.caution : t.second, 1.5));
    painter.setBrush(d.state == DueState::later ? Qt::NoBrush : QBrush(painter.pen().color()));
    painter.drawEllipse(QPointF(here, middle), 4, 4);
  }
  painter.setPen(QPen(t.ink, 1.5));
  painter.drawLine(QPointF(x(today), head), QPointF(x(today), foot + look.px(18)));
  painter.setFont(look.font(TextSize::small, true));
  draw_line(painter, {x(today) + 3, head, 120, double(look.px(14))}, Qt::AlignLeft | Qt::AlignVCenter, tr("today"));
}

bool YearsView::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  const Look& look = desk_.look();
  const Span s = span();
  const double left = look.px(150), right = width() - look.px(8);
  const double day = s.first + (help->pos().x() - left) / (right - left) * (s.last - s.first);
  const double near = 6 / (right - left) * (s.last - s.first);
  QStringList lines;
  for (const build::LogEntry& e : desk_.build().care->log)
    if (const auto at = work::parse_moment(e.day); at && std::abs(at->day - day) < near && lines.size() < 8) {
      const assess::CareEvent* event_row = assess::care_event(e.what);
      const assess::CareTask* task = assess::care_task(e.what);
      const QString what = event_row ? desk_.words_of({event_row->name, {}})
                           : task    ? desk_.words_of({task->name, {}})
                                     : QString::fromStdString(e.what);
      lines << QString::fromStdString(e.day).left(10) + "  " + what +
                   (e.text.empty() ? QString() : ": " + QString::fromStdString(e.text));
    }
  if (lines.isEmpty())
    QToolTip::hideText();
  else
    QToolTip::showText(help->globalPos(), lines.join('\n'), this);
  return true;
}

} // namespace mavrel::app
