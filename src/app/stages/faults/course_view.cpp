#include "app/stages/faults/course_view.h"

#include "app/kit/drawing.h"
#include "app/theme/text_line.h"

#include <QHelpEvent>
#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>
#include <QToolTip>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

namespace {

constexpr double most_times = 100; // shown of evidence; beyond it the bar ends

/// Even room for slight odds and for near certainty: logarithm of odds, from 0.1 % to 99.9 %.
double along(double odds) {
  const double o = std::clamp(odds, 0.001, 0.999);
  return 0.5 + std::log(o / (1 - o)) / (2 * std::log(999.0));
}

} // namespace

CourseView::CourseView(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("course_view");
  setFocusPolicy(Qt::StrongFocus);
}

double CourseView::row_height() const {
  return desk_.look().px(19);
}
double CourseView::head() const {
  return desk_.look().px(36);
}

QSize CourseView::sizeHint() const {
  return {desk_.look().px(560),
          static_cast<int>(head() + row_height() * static_cast<double>(std::max<std::size_t>(rows_.size(), 4) + 2)) +
              desk_.look().px(8)};
}

void CourseView::show_course(std::vector<Row> rows, const assess::Diagnosis* diagnosis) {
  const auto held = picked();
  rows_ = std::move(rows);
  picked_ = -1;
  for (std::size_t i = 0; i < rows_.size(); ++i)
    if (held && rows_[i].note == *held) picked_ = static_cast<int>(i);
  if (diagnosis) diagnosis_ = *diagnosis;
  if (diagnosis_ && set_ >= diagnosis_->sets.size()) set_ = 0;
  setAccessibleName(described());
  updateGeometry();
  update();
}

void CourseView::show_set(std::size_t set) {
  set_ = set;
  setAccessibleName(described());
  update();
}

std::optional<std::size_t> CourseView::picked() const {
  if (picked_ < 0 || static_cast<std::size_t>(picked_) >= rows_.size()) return std::nullopt;
  return rows_[static_cast<std::size_t>(picked_)].note;
}

QString CourseView::described() const {
  QStringList out;
  std::size_t k = 0;
  for (const Row& row : rows_) {
    QString line = row.what + ", " + row.answer;
    if (row.weighed && diagnosis_ && set_ < diagnosis_->sets.size() && k < diagnosis_->sets[set_].times.size()) {
      const double times = diagnosis_->sets[set_].times[k];
      line += ", " + (times >= 1 ? tr("%1 times for it").arg(times, 0, 'g', 2)
                                 : tr("%1 times against it").arg(1 / times, 0, 'g', 2));
    }
    k += row.weighed;
    out << line;
  }
  return tr("What was found: %1").arg(out.isEmpty() ? tr("nothing yet") : out.join("; "));
}

void CourseView::pick(int row) {
  picked_ = rows_.empty() ? -1 : std::clamp(row, 0, static_cast<int>(rows_.size()) - 1);
  emit row_picked();
  update();
}

void CourseView::mousePressEvent(QMouseEvent* event) {
  const int row = static_cast<int>(std::floor((event->position().y() - head()) / row_height()));
  if (row >= 0 && static_cast<std::size_t>(row) < rows_.size()) pick(row);
}

void CourseView::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Down) return pick(picked_ + 1);
  if (event->key() == Qt::Key_Up) return pick(picked_ - 1);
  if ((event->key() == Qt::Key_Delete || event->key() == Qt::Key_Backspace) && picked()) {
    emit strike(*picked());
    return;
  }
  QWidget::keyPressEvent(event);
}

bool CourseView::event(QEvent* event) {
  if (event->type() != QEvent::ToolTip) return QWidget::event(event);
  const auto* help = static_cast<QHelpEvent*>(event);
  const int row = static_cast<int>(std::floor((help->pos().y() - head()) / row_height()));
  if (row >= 0 && static_cast<std::size_t>(row) < rows_.size())
    QToolTip::showText(help->globalPos(), rows_[static_cast<std::size_t>(row)].says, this);
  return true;
}

void CourseView::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  painter.fillRect(rect(), t.ground);
  if (rows_.empty())
    return paint_instead(
        painter, rect(), look,
        tr("Say what is told, read or seen above: each finding stands here, and beside it how it moves "
           "the odds."));
  painter.setRenderHint(QPainter::Antialiasing);
  const double row = row_height(), top = head();
  const double words = std::min(width() * 0.43, double(look.px(330))), bars = look.px(110);
  const double middle = words + bars / 2, left = words + bars + look.px(14), right = width() - look.px(10);
  const double foot = top + row * static_cast<double>(rows_.size());
  const auto x = [&](double odds) { return left + along(odds) * (right - left); };

  // Heads.
  painter.setFont(look.font(TextSize::small));
  painter.setPen(t.second);
  const double line = look.px(14);
  draw_line(painter, {look.px(4) + 0.0, 2, words, line}, Qt::AlignLeft | Qt::AlignVCenter, tr("found"));
  draw_line(painter, {words, 2, bars, line}, Qt::AlignHCenter | Qt::AlignVCenter, tr("against | for"));
  draw_line(painter, {left, 2, right - left, line}, Qt::AlignLeft | Qt::AlignVCenter,
            tr("how likely, as it was found"));
  for (const double mark : {0.01, 0.1, 0.5, 0.9, 0.99}) {
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(x(mark), top - 2), QPointF(x(mark), foot + row));
    painter.setPen(t.second);
    draw_line(painter, {x(mark) - 24, top - line - 4, 48, line}, Qt::AlignHCenter | Qt::AlignVCenter,
              desk_.shown(mark, Kind::share, 0));
  }
  painter.setPen(QPen(t.rule, 1));
  painter.drawLine(QPointF(middle, top), QPointF(middle, foot));

  // Findings, and what each says of the fault that is looked at.
  const assess::FaultSet* set = diagnosis_ && set_ < diagnosis_->sets.size() ? &diagnosis_->sets[set_] : nullptr;
  std::size_t k = 0;
  std::vector<double> at; // y of the weighed
  for (std::size_t i = 0; i < rows_.size(); ++i) {
    const double y = top + row * static_cast<double>(i);
    if (static_cast<int>(i) == picked_) {
      painter.fillRect(QRectF(0, y, words, row), t.selected);
      if (hasFocus()) {
        painter.setPen(QPen(t.ink, 1, Qt::DotLine));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(QRectF(0.5, y + 0.5, words - 1, row - 1));
      }
    }
    const double answer = words * 0.34;
    painter.setPen(rows_[i].weighed ? t.ink : t.second);
    painter.setFont(look.font(TextSize::small));
    draw_line(painter, {look.px(4) + 0.0, y, words - answer - look.px(8), row}, Qt::AlignLeft | Qt::AlignVCenter,
              rows_[i].what);
    painter.setFont(look.font(TextSize::small, true));
    draw_line(painter, {words - answer, y, answer - look.px(8), row}, Qt::AlignRight | Qt::AlignVCenter,
              rows_[i].weighed  ? rows_[i].answer
              : rows_[i].joined ? tr("%1, with it").arg(rows_[i].answer)
                                : tr("%1, left out").arg(rows_[i].answer));
    painter.setPen(QPen(t.rule, 1));
    painter.drawLine(QPointF(0, y + row), QPointF(words, y + row));
    if (!rows_[i].weighed) continue;
    at.push_back(y + row);
    if (set && k < set->times.size()) {
      const double share = std::clamp(std::log(set->times[k]) / std::log(most_times), -1.0, 1.0);
      painter.setPen(Qt::NoPen);
      painter.setBrush(share >= 0 ? t.good : t.stop);
      painter.drawRect(QRectF(middle, y + row * 0.25, share * (bars / 2 - look.px(22)), row * 0.5).normalized());
      if (std::abs(share) > 0.08) {
        const double times = share >= 0 ? set->times[k] : 1 / set->times[k];
        painter.setPen(t.second);
        painter.setFont(look.font(TextSize::small));
        const QString said = "×" + (times >= 99.5  ? tr(">99")
                                    : times >= 9.5 ? QString::number(times, 'f', 0)
                                                   : QString::number(times, 'f', 1));
        const double end = middle + share * (bars / 2 - look.px(22));
        draw_line(painter,
                  share >= 0 ? QRectF(end + 3, y, look.px(34), row) : QRectF(end - look.px(37), y, look.px(34), row),
                  (share >= 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter, said);
      }
    }
    ++k;
  }
  if (!diagnosis_ || diagnosis_->course.empty()) return;

  // The odds as they moved: from the top, before anything was found, downwards.
  const auto& course = diagnosis_->course;
  constexpr Qt::PenStyle styles[] = {Qt::SolidLine,   Qt::DashLine,       Qt::DotLine,
                                     Qt::DashDotLine, Qt::DashDotDotLine, Qt::DotLine};
  const std::size_t lines = course.back().size();
  for (std::size_t s = lines; s-- > 0;) {
    const bool looked_at = s == set_;
    const QColor ink = looked_at ? t.front : s == 0 ? t.ink : t.second;
    painter.setPen(QPen(ink, looked_at ? 2.4 : 1.4, styles[s % std::size(styles)]));
    painter.setBrush(Qt::NoBrush);
    QPolygonF way;
    for (std::size_t n = 0; n < course.size() && n <= at.size(); ++n)
      way << QPointF(x(course[n][s]), n == 0 ? top : at[n - 1] - row / 2);
    painter.drawPolyline(way);
    painter.setBrush(ink);
    painter.setPen(Qt::NoPen);
    for (const QPointF& p : way)
      painter.drawEllipse(p, looked_at ? 3 : 2, looked_at ? 3 : 2);
  }
  // Their numbers at the foot, as the list beside has them, apart from one another.
  struct Name {
    double x;
    std::size_t set;
  };
  std::vector<Name> names;
  for (std::size_t s = 0; s < lines; ++s)
    names.push_back({x(course.back()[s]), s});
  std::sort(names.begin(), names.end(), [](const Name& a, const Name& b) { return a.x > b.x; });
  painter.setFont(look.font(TextSize::small, true));
  double last = 1e9;
  const double y = (at.empty() ? top : at.back()) + 2;
  for (const Name& n : names) {
    const double here = std::min(n.x, last - look.px(14));
    last = here;
    painter.setPen(n.set == set_ ? t.front : t.second);
    draw_line(painter, {here - 10, y, 20, line}, Qt::AlignHCenter | Qt::AlignVCenter, QString::number(n.set + 1));
  }
}

} // namespace mavrel::app
