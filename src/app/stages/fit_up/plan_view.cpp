#include "app/stages/fit_up/plan_view.h"

#include "app/kit/drawing.h"
#include "app/kit/height_scale.h"
#include "app/kit/nudge.h"
#include "app/stages/fit_up/questions.h"
#include "app/theme/text_line.h"
#include "build/names.h"
#include "build/names_fit_up.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::JobStands;
using build::WorkPlace;

namespace {

constexpr double night_share = 0.16; // of a day's column
constexpr double free_share = 0.30;  // of a worked day's width, a day that is not worked
constexpr WorkPlace places[] = {WorkPlace::lift,     WorkPlace::floor, WorkPlace::none,
                                WorkPlace::weld_bay, WorkPlace::bench, WorkPlace::paint};

} // namespace

PlanView::PlanView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("plan_view");
  setFocusPolicy(Qt::StrongFocus);
  setMouseTracking(false);
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      if (!isVisible()) return; // it costs its time only while somebody looks
      describe();
      update();
    });
  connect(&desk_.answers(), &Answers::changed, this, qOverload<>(&PlanView::update));
}

void PlanView::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  describe();
}

QSize PlanView::sizeHint() const {
  return {desk_.look().px(600), desk_.look().px(280)};
}

const assess::Plan* PlanView::plan() const {
  const auto& made = plan_of(desk_);
  return made ? &*made : nullptr;
}

void PlanView::hold(const QString& id) {
  if (held_ == id) return;
  held_ = id;
  if (const auto* p = plan())
    if (const auto job = p->find(id.toStdString())) scroll_to(*job);
  if (isVisible()) describe();
  update();
}

void PlanView::show_days(int days) {
  days_ = std::clamp(days, 1, 60);
  update();
}

void PlanView::scroll_to(std::size_t job) {
  const assess::PlannedJob& p = plan()->planned[job];
  const int day = static_cast<int>(std::floor(p.start / 24));
  if (day < first_) first_ = std::max(0, day);
  if (day >= first_ + days_) first_ = day - days_ + 1;
}

void PlanView::lay() {
  lanes_.clear();
  bars_.clear();
  columns_.clear();
  const assess::Plan* p = plan();
  if (!p) return;
  const Look& look = desk_.look();
  const double left = look.px(78), right = width() - look.px(4), head = look.px(34);
  first_ = std::clamp(first_, 0, std::max(0, p->days() - 1));
  const int days = std::min(days_, std::max(1, p->days() - first_));
  double worth = 0;
  for (int d = 0; d < days; ++d)
    worth += p->worked(first_ + d) ? 1 : free_share;
  double x = left;
  for (int d = 0; d < days; ++d) {
    columns_.push_back(x);
    x += (right - left) * (p->worked(first_ + d) ? 1 : free_share) / worth;
  }
  columns_.push_back(right);

  const double from = 24.0 * first_, to = 24.0 * (first_ + days);
  // A name needs its room beside a short bar: the next job on the same row begins behind it.
  const QFontMetricsF letters(look.font(TextSize::small));
  const auto reaches_to = [&](std::size_t i) {
    const double a = std::max(columns_.front(), x_of(p->planned[i].start)), b = x_of(p->planned[i].end);
    const double name = letters.horizontalAdvance(label_of(i)) + look.px(12),
                 gate = look.px(p->jobs[i].checks.empty() ? 4 : 9);
    return name <= b - a ? b + gate : b + gate + name;
  };
  int rows = 0;
  for (const WorkPlace place : places) {
    Lane lane;
    lane.place = place;
    std::vector<std::size_t> here;
    bool ever = false;
    for (std::size_t i = 0; i < p->jobs.size(); ++i) {
      const bool anywhere = place == WorkPlace::none && p->jobs[i].place == WorkPlace::usual;
      if (p->jobs[i].place != place && !anywhere) continue;
      ever = true;
      if (p->planned[i].end >= from && p->planned[i].start < to) here.push_back(i);
    }
    if (!ever) continue;
    std::stable_sort(here.begin(), here.end(),
                     [&](std::size_t a, std::size_t b) { return p->planned[a].start < p->planned[b].start; });
    for (const std::size_t i : here) {
      auto row = std::find_if(lane.rows.begin(), lane.rows.end(),
                              [&](const auto& r) { return reaches_to(r.back()) <= x_of(p->planned[i].start) + 0.5; });
      if (row == lane.rows.end()) row = lane.rows.insert(row, std::vector<std::size_t>{});
      row->push_back(i);
    }
    if (lane.rows.empty()) lane.rows.emplace_back();
    rows += static_cast<int>(lane.rows.size());
    lanes_.push_back(std::move(lane));
  }
  const double gap = look.px(5);
  const double room = height() - head - gap * static_cast<double>(lanes_.size()) - look.px(6);
  row_ = std::clamp(room / std::max(1, rows), static_cast<double>(look.px(14)), static_cast<double>(look.px(26)));
  double y = head;
  for (Lane& lane : lanes_) {
    lane.top = y;
    for (const auto& row : lane.rows) {
      for (const std::size_t i : row) {
        const double a = x_of(p->planned[i].start), b = x_of(p->planned[i].end);
        const QRectF bar(a, y + 1, std::max(b - a, 3.0), row_ - 3);
        bars_.push_back({i, bar, bar.united({bar.left(), bar.top(), reaches_to(i) - bar.left(), bar.height()})});
      }
      y += row_;
    }
    y += gap;
  }
}

/// Which end is said by the letter in front; how it stands by a sign.
QString PlanView::label_of(std::size_t i) const {
  const assess::Job& job = plan()->jobs[i];
  QString name = desk_.words_of(job.name);
  if (job.end && name.contains(": ")) name = QString(*job.end == End::front ? "F " : "R ") + name.section(": ", 1);
  switch (plan()->planned[i].stands) {
  case JobStands::done:
    return "✓ " + name;
  case JobStands::running:
    return "▶ " + name;
  case JobStands::held:
    return "◆ " + name;
  case JobStands::ready:
  case JobStands::waiting:
    break;
  }
  return name;
}

/// A day's hours take most of its column, the night the rest.
double PlanView::x_of(double hours) const {
  const assess::Plan& p = *plan();
  const double length = p.day_to - p.day_from;
  const int day = static_cast<int>(std::floor(hours / 24));
  if (day < first_) return columns_.front();
  const auto column = static_cast<std::size_t>(day - first_);
  if (column + 1 >= columns_.size()) return columns_.back();
  const double within = hours - 24.0 * day, wide = columns_[column + 1] - columns_[column];
  const double share = within <= length ? within / length * (1 - night_share)
                                        : 1 - night_share + (within - length) / (24 - length) * night_share;
  return columns_[column] + share * wide;
}

QRectF PlanView::bar_of(const QString& id) const {
  const_cast<PlanView*>(this)->lay(); // NOLINT: what it lays out is only kept
  const assess::Plan* p = plan();
  if (!p) return {};
  for (const Bar& bar : bars_)
    if (p->jobs[bar.job].id == id.toStdString()) return bar.rect;
  return {};
}

void PlanView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Look& look = desk_.look();
  paint_backdrop(painter, rect(), look);
  const auto& made = plan_of(desk_);
  if (!made) return paint_instead(painter, rect(), look, desk_.words_of(made.error()));
  if (made->jobs.empty())
    return paint_instead(painter, rect(), look,
                         tr("Nothing is to be fitted yet: choose bags in Bags, or a kit in Air."));
  lay();
  paint_days(painter);
  paint_lanes(painter);
  paint_links(painter);
  for (const Bar& bar : bars_)
    paint_bar(painter, bar);
  for (const Bar& bar : bars_)
    paint_gates(painter, bar);
  if (made->now && *made->now >= 24.0 * first_ &&
      *made->now < 24.0 * (first_ + static_cast<int>(columns_.size()) - 1)) {
    const double x = x_of(*made->now);
    painter.setPen(QPen(look.tokens().stop, 1.6, Qt::DashLine));
    painter.drawLine(QPointF(x, look.px(30)), QPointF(x, height() - look.px(4)));
  }
}

void PlanView::paint_days(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const assess::Plan& p = *plan();
  const int today = assess::today_of(p).value_or(-1);
  for (std::size_t c = 0; c + 1 < columns_.size(); ++c) {
    const int day = first_ + static_cast<int>(c);
    const double wide = columns_[c + 1] - columns_[c];
    const QRectF column(columns_[c], look.px(30), wide, height() - look.px(34));
    if (!p.worked(day)) {
      hatch(painter, column, t.rule, false, look.px(8));
    } else {
      painter.fillRect(
          QRectF(columns_[c] + wide * (1 - night_share), column.top(), wide * night_share, column.height()), t.ground);
    }
    const QRectF head(columns_[c], look.px(4), wide - 2, look.px(24));
    if (day == today) painter.fillRect(head, t.ink);
    painter.setPen(day == today ? t.panel : p.worked(day) ? t.ink : t.second);
    const QString name = desk_.words_of(assess::day_name(p, day));
    const auto fits = [&](const QString& text) {
      return QFontMetricsF(painter.font()).horizontalAdvance(text) <= wide - look.px(6);
    };
    painter.setFont(look.font(TextSize::large, day == today));
    if (!fits(name)) painter.setFont(look.font(TextSize::small, day == today));
    const QString shown = fits(name) ? name : fits(name.section(' ', 1, 1)) ? name.section(' ', 1, 1) : QString();
    draw_line(painter, head.adjusted(look.px(4), 0, -2, 0), Qt::AlignLeft | Qt::AlignVCenter, shown);
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(column.topLeft(), column.bottomLeft());
  }
}

void PlanView::paint_lanes(QPainter& painter) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  for (const Lane& lane : lanes_) {
    painter.setPen(t.second);
    painter.setFont(look.font(TextSize::normal, true));
    const QString name = lane.place == WorkPlace::none ? tr("car") : desk_.words_of({build::name_of(lane.place), {}});
    draw_line(painter, QRectF(look.px(6), lane.top, look.px(56), row_ * static_cast<double>(lane.rows.size())),
              Qt::AlignLeft | Qt::AlignVCenter, name);
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(look.px(4), lane.top - look.px(3)), QPointF(width() - look.px(4), lane.top - look.px(3)));
  }
}

void PlanView::paint_bar(QPainter& painter, const Bar& bar) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const assess::Plan& p = *plan();
  const assess::Job& job = p.jobs[bar.job];
  const assess::PlannedJob& placed = p.planned[bar.job];
  const bool held = job.id == held_.toStdString();
  QRectF r = bar.rect;
  // What is waited for behind it.
  if (job.wait > 0) {
    const double to = x_of(placed.end + job.wait);
    painter.setPen(QPen(t.second, 1.4, Qt::DotLine));
    painter.drawLine(QPointF(r.right(), r.center().y()), QPointF(to, r.center().y()));
    painter.drawLine(QPointF(to, r.center().y() - 3), QPointF(to, r.center().y() + 3));
    painter.setFont(look.font(TextSize::small));
    const QString text = tr("waits %1").arg(desk_.shown(job.wait * 3600, Kind::hours, 0));
    if (to - r.right() > look.px(50))
      draw_line(painter,
                QRectF(r.right() + look.px(10), r.top() - look.px(1), to - r.right() - look.px(12), r.height() / 2),
                Qt::AlignLeft | Qt::AlignVCenter, text);
  }
  QColor fill = t.panel, ink = t.ink, edge = t.rule;
  double weight = 1;
  switch (placed.stands) {
  case JobStands::done:
    fill = t.rule, ink = t.second;
    break;
  case JobStands::running:
    fill = t.selected, edge = t.ink, weight = 2;
    break;
  case JobStands::ready:
    edge = t.ink;
    break;
  case JobStands::held:
    edge = t.stop;
    break;
  case JobStands::waiting:
    ink = t.second;
    break;
  }
  painter.setPen(QPen(edge, weight, job.by_the_clock ? Qt::DashLine : Qt::SolidLine));
  painter.setBrush(fill);
  painter.drawRect(r);
  if (placed.stands == JobStands::held) hatch(painter, r.adjusted(1, 1, -1, -1), t.hatch_stop, false, look.px(6));
  if (job.end) painter.fillRect(QRectF(r.left(), r.top(), std::min(4.0, r.width()), r.height()), t.end(*job.end));
  if (placed.path.critical && placed.stands != JobStands::done)
    painter.fillRect(QRectF(r.left(), r.bottom() - 2.5, r.width(), 3), t.ink);
  painter.setBrush(Qt::NoBrush);
  if (held) {
    painter.setPen(QPen(t.ink, 2.4));
    painter.drawRect(r.adjusted(-2, -2, 2, 2));
  }
  painter.setPen(ink);
  painter.setFont(look.font(TextSize::small, held));
  // Inside its bar where it fits, else beside it.
  const QString name = label_of(bar.job);
  const double wide = QFontMetricsF(painter.font()).horizontalAdvance(name) + look.px(10);
  const double gate = job.checks.empty() ? look.px(4) : look.px(9);
  const QRectF text = wide <= r.width() ? r.adjusted(look.px(7), 0, 0, -1)
                                        : QRectF(r.right() + gate, r.top(),
                                                 std::max(0.0, width() - look.px(4) - r.right() - gate), r.height());
  draw_line(painter, text, Qt::AlignLeft | Qt::AlignVCenter, name);
}

/// A gate at the end of a job: shut until its hold points are signed.
void PlanView::paint_gates(QPainter& painter, const Bar& bar) const {
  const assess::Job& job = plan()->jobs[bar.job];
  if (job.checks.empty()) return;
  const Tokens& t = desk_.look().tokens();
  using assess::CheckState;
  CheckState worst = CheckState::passed;
  const auto rank = [](CheckState s) {
    return s == CheckState::failed ? 4 : s == CheckState::stale ? 3 : s == CheckState::passed ? 0 : 1;
  };
  for (const auto& [id, state] : plan_given_of(desk_).checks)
    if (std::find(job.checks.begin(), job.checks.end(), id) != job.checks.end() && rank(state) > rank(worst))
      worst = state;
  const QColor colour = worst == CheckState::failed   ? t.stop
                        : worst == CheckState::stale  ? t.caution
                        : worst == CheckState::passed ? t.good
                                                      : t.ink;
  const double x = bar.rect.right(), y = bar.rect.center().y(), s = desk_.look().px(6);
  painter.setPen(QPen(colour, 1.6));
  painter.setBrush(worst == CheckState::open || worst == CheckState::begun ? t.panel : colour);
  painter.drawPolygon(QPolygonF({{x, y - s}, {x + s, y}, {x, y + s}, {x - s, y}}));
  painter.setBrush(Qt::NoBrush);
}

/// What comes before the picked job, and what behind it.
void PlanView::paint_links(QPainter& painter) const {
  const assess::Plan& p = *plan();
  const auto held = p.find(held_.toStdString());
  if (!held) return;
  const auto rect_of = [&](std::size_t job) -> const QRectF* {
    for (const Bar& bar : bars_)
      if (bar.job == job) return &bar.rect;
    return nullptr;
  };
  const QRectF* mine = rect_of(*held);
  if (!mine) return;
  const Tokens& t = desk_.look().tokens();
  painter.setPen(QPen(t.second, 1));
  for (std::size_t i = 0; i < p.jobs.size(); ++i) {
    const auto& before = p.jobs[*held].after;
    const auto& behind = p.jobs[i].after;
    const bool is_before = std::find(before.begin(), before.end(), p.jobs[i].id) != before.end();
    const bool is_behind = std::find(behind.begin(), behind.end(), p.jobs[*held].id) != behind.end();
    const QRectF* other = is_before || is_behind ? rect_of(i) : nullptr;
    if (!other) continue;
    const QRectF &first = is_before ? *other : *mine, &second = is_before ? *mine : *other;
    painter.drawLine(QPointF(first.right(), first.center().y()), QPointF(second.left(), second.center().y()));
  }
}

void PlanView::mousePressEvent(QMouseEvent* event) {
  lay();
  if (const Bar* bar = bar_at(event->position())) {
    hold(QString::fromStdString(plan()->jobs[bar->job].id));
    emit chose(held_);
  }
}

/// Bars before names: a name may reach over the next one's bar.
const PlanView::Bar* PlanView::bar_at(const QPointF& at) const {
  for (const Bar& bar : bars_)
    if (bar.rect.adjusted(-3, -1, 3, 1).contains(at)) return &bar;
  for (const Bar& bar : bars_)
    if (bar.name.contains(at)) return &bar;
  return nullptr;
}

void PlanView::wheelEvent(QWheelEvent* event) {
  const int turn = event->angleDelta().y() > 0 ? 1 : -1;
  if (event->modifiers() & Qt::ControlModifier)
    show_days(days_ - turn);
  else
    first_ = std::max(0, first_ - turn);
  update();
  event->accept();
}

void PlanView::step(int dx, int dy) {
  lay();
  const assess::Plan* p = plan();
  if (!p || p->jobs.empty()) return;
  std::vector<std::size_t> order(p->jobs.size());
  for (std::size_t i = 0; i < order.size(); ++i)
    order[i] = i;
  std::stable_sort(order.begin(), order.end(),
                   [&](std::size_t a, std::size_t b) { return p->planned[a].start < p->planned[b].start; });
  const auto held = p->find(held_.toStdString());
  std::size_t next = order.front();
  if (held && dx != 0) {
    const auto at = std::find(order.begin(), order.end(), *held) - order.begin() + dx;
    next = order[static_cast<std::size_t>(
        std::clamp<std::ptrdiff_t>(at, 0, static_cast<std::ptrdiff_t>(order.size()) - 1))];
  } else if (held && dy != 0) {
    // The nearest bar above or below.
    const QRectF mine = bar_of(held_);
    double best = 1e9;
    next = *held;
    for (const Bar& bar : bars_) {
      const double down = (bar.rect.center().y() - mine.center().y()) * dy;
      const double far = down + std::abs(bar.rect.center().x() - mine.center().x()) * 0.5;
      if (down > 2 && far < best) best = far, next = bar.job;
    }
  }
  hold(QString::fromStdString(p->jobs[next].id));
  emit chose(held_);
}

void PlanView::keyPressEvent(QKeyEvent* event) {
  switch (event->key()) {
  case Qt::Key_Left:
    return step(-1, 0);
  case Qt::Key_Right:
    return step(1, 0);
  case Qt::Key_Up:
    return step(0, -1);
  case Qt::Key_Down:
    return step(0, 1);
  case Qt::Key_Plus:
    return show_days(days_ - 1);
  case Qt::Key_Minus:
    return show_days(days_ + 1);
  case Qt::Key_PageUp:
    first_ = std::max(0, first_ - days_);
    return update();
  case Qt::Key_PageDown:
    first_ += days_;
    return update();
  default:
    QWidget::keyPressEvent(event);
  }
}

bool PlanView::event(QEvent* event) {
  if (is_arrow_for_shortcuts(*event)) {
    event->accept();
    return true;
  }
  if (event->type() == QEvent::ToolTip) {
    const auto* help = static_cast<QHelpEvent*>(event);
    lay();
    if (const Bar* bar = bar_at(help->pos())) {
      const assess::PlannedJob& p = plan()->planned[bar->job];
      QToolTip::showText(help->globalPos(),
                         tr("%1: %2 to %3")
                             .arg(desk_.words_of(plan()->jobs[bar->job].name),
                                  desk_.words_of(assess::moment_name(*plan(), p.start)),
                                  desk_.words_of(assess::moment_name(*plan(), p.end))),
                         this);
      return true;
    }
    QToolTip::hideText();
    return true;
  }
  return QWidget::event(event);
}

void PlanView::describe() {
  const assess::Plan* p = plan();
  QString said = tr("Plan over days by place");
  if (p)
    if (const auto job = p->find(held_.toStdString()))
      said +=
          tr(". %1, %2, %3")
              .arg(desk_.words_of(p->jobs[*job].name), desk_.words_of(assess::moment_name(*p, p->planned[*job].start)),
                   desk_.words_of({assess::name_of(p->planned[*job].stands), {}}));
  setAccessibleName(said);
}

} // namespace mavrel::app
