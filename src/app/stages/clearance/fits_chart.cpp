#include "app/desk/desk.h"
#include "app/kit/height_scale.h"
#include "app/kit/nudge.h"
#include "app/stages/clearance/fits_page.h"
#include "app/theme/text_line.h"

#include <QKeyEvent>
#include <QMouseEvent>
#include <QPainter>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

namespace {
constexpr double rim_inch = 0.0254;
} // namespace

FitsChart::FitsChart(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setObjectName("fits_chart");
  setAccessibleName(tr("What would fit, rim width against offset"));
  setFocusPolicy(Qt::StrongFocus);
  setMinimumHeight(desk_.look().px(260));
  setAttribute(Qt::WA_OpaquePaintEvent);
}

void FitsChart::show_fits(const assess::WhatFits* fits, const motion::WheelCode& today) {
  if (fits != fits_ && fits && chosen_ &&
      (chosen_->first >= fits->offsets.size() || chosen_->second >= fits->widths.size()))
    chosen_.reset();
  fits_ = fits;
  today_ = today;
  update();
}

void FitsChart::choose(std::size_t offset, std::size_t width) {
  chosen_ = {offset, width};
  update();
  emit chose();
}

QString FitsChart::letter_of(std::size_t which) const {
  return which < 26 ? QString(QChar(static_cast<char16_t>('a' + which))) : QString("*");
}

QRectF FitsChart::area() const {
  const Look& look = desk_.look();
  const double left = look.px(52), top = look.px(8), foot = look.px(36);
  return {left, top, width() - left - look.px(8), height() - top - foot};
}

QRectF FitsChart::cell(std::size_t offset, std::size_t width) const {
  if (!fits_) return {};
  const QRectF a = area();
  const double w = a.width() / static_cast<double>(fits_->widths.size()),
               h = a.height() / static_cast<double>(fits_->offsets.size());
  return {a.left() + static_cast<double>(width) * w, a.bottom() - static_cast<double>(offset + 1) * h, w, h};
}

void FitsChart::paintEvent(QPaintEvent*) {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  QPainter painter(this);
  painter.fillRect(rect(), t.ground);
  const QRectF a = area();
  painter.fillRect(a, t.panel);
  painter.setPen(QPen(t.rule, 1));
  painter.drawRect(a);
  if (!fits_) return;
  const std::size_t rows = fits_->offsets.size(), columns = fits_->widths.size();
  painter.setFont(look.font(TextSize::small));
  // Cells on whole pixels: nothing shows between them.
  const auto whole = [](const QRectF& c) {
    return QRectF(QPointF(std::round(c.left()), std::round(c.top())),
                  QPointF(std::round(c.right()), std::round(c.bottom())));
  };
  QPainterPath blocked;
  for (std::size_t o = 0; o < rows; ++o)
    for (std::size_t w = 0; w < columns; ++w) {
      const assess::Fitting& f = fits_->at(o, w);
      const QRectF c = cell(o, w);
      if (!f.clears())
        blocked.addRect(whole(c));
      else {
        QColor shade = f.spare < 0.004 ? t.caution : t.good;
        shade.setAlphaF(f.camber > 0 ? 0.14F : 0.26F);
        painter.fillRect(whole(c), shade);
      }
    }
  painter.save();
  painter.setClipPath(blocked);
  hatch(painter, a, t.hatch_stop, false, look.px(7));
  painter.restore();
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(t.stop, 1.4)); // the border
  painter.setBrush(Qt::NoBrush);
  painter.drawPath(blocked.simplified());
  // A letter where there is room for one: every so many cells.
  const QRectF one = cell(0, 0);
  const auto every_row = std::max<std::size_t>(1, static_cast<std::size_t>(std::ceil(look.px(26) / one.height()))),
             every_column = std::max<std::size_t>(1, static_cast<std::size_t>(std::ceil(look.px(30) / one.width())));
  for (std::size_t o = every_row / 2; o < rows; o += every_row)
    for (std::size_t w = every_column / 2; w < columns; w += every_column) {
      const assess::Fitting& f = fits_->at(o, w);
      if (f.which == assess::not_listed) continue;
      painter.setPen(f.clears() ? t.second : t.stop);
      draw_line(painter, QRectF(cell(o, w).center().x() - 10, cell(o, w).center().y() - look.px(8), 20, look.px(16)),
                Qt::AlignCenter, f.clears() ? letter_of(f.which) : letter_of(f.which).toUpper());
    }
  // Axes.
  painter.setPen(t.second);
  for (std::size_t w = 0; w < columns; ++w) {
    const double width_in = fits_->widths[w] / rim_inch;
    if (std::abs(width_in - std::round(width_in)) > 0.01) continue;
    const double x = cell(0, w).center().x();
    painter.drawLine(QPointF(x, a.bottom()), QPointF(x, a.bottom() + look.px(4)));
    draw_line(painter, {x - 30, a.bottom() + look.px(4), 60, double(look.px(14))}, Qt::AlignCenter,
              QString::number(width_in, 'f', 0));
  }
  draw_line(painter, {a.left(), a.bottom() + look.px(19), a.width(), double(look.px(15))}, Qt::AlignCenter,
            tr("rim width, in"));
  for (std::size_t o = 0; o < rows; ++o) {
    const double mm = fits_->offsets[o] * 1e3;
    if (std::abs(std::remainder(mm, 10)) > 0.01) continue;
    const double y = cell(o, 0).center().y();
    painter.drawLine(QPointF(a.left() - look.px(4), y), QPointF(a.left(), y));
    draw_line(painter, {0, y - 8, a.left() - look.px(6), 16}, Qt::AlignRight | Qt::AlignVCenter,
              QString("ET%1").arg(mm, 0, 'f', 0));
  }
  const auto spot = [&](double offset, double width, const QString& name, const QColor& colour, bool filled) {
    const double fx = (width - fits_->widths.front()) / (fits_->widths.back() - fits_->widths.front());
    const double fy = (offset - fits_->offsets.front()) / (fits_->offsets.back() - fits_->offsets.front());
    if (fx < -0.02 || fx > 1.02 || fy < -0.02 || fy > 1.02) return;
    const QRectF first = cell(0, 0), last = cell(rows - 1, columns - 1);
    const QPointF p(std::lerp(first.center().x(), last.center().x(), fx),
                    std::lerp(first.center().y(), last.center().y(), fy));
    painter.setPen(QPen(colour, 2));
    painter.setBrush(filled ? QBrush(colour) : QBrush(t.panel));
    painter.drawEllipse(p, look.px(5), look.px(5));
    painter.setFont(look.font(TextSize::small, true));
    const double w = QFontMetricsF(painter.font()).horizontalAdvance(name) + look.px(6);
    QRectF box(p.x() + look.px(8), p.y() - look.px(8), w, look.px(16));
    if (box.right() > a.right()) box.moveRight(p.x() - look.px(8));
    QColor ground = t.panel;
    ground.setAlphaF(0.9F);
    painter.fillRect(box, ground);
    painter.setPen(t.ink);
    draw_line(painter, box, Qt::AlignCenter, name);
  };
  if (today_.rim_width > 0) spot(today_.offset, today_.rim_width, tr("now"), t.ink, true);
  if (chosen_)
    spot(fits_->offsets[chosen_->first], fits_->widths[chosen_->second], tr("chosen"), t.end(desk_.end()), false);
}

bool FitsChart::pick(const QPointF& at) {
  if (!fits_ || !area().contains(at)) return false;
  const QRectF a = area();
  const auto w = static_cast<std::size_t>((at.x() - a.left()) / a.width() * static_cast<double>(fits_->widths.size()));
  const auto o =
      static_cast<std::size_t>((a.bottom() - at.y()) / a.height() * static_cast<double>(fits_->offsets.size()));
  choose(std::min(o, fits_->offsets.size() - 1), std::min(w, fits_->widths.size() - 1));
  return true;
}

void FitsChart::mousePressEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton) pick(event->position());
}

void FitsChart::mouseDoubleClickEvent(QMouseEvent* event) {
  if (event->button() == Qt::LeftButton && pick(event->position())) emit taken();
}

void FitsChart::keyPressEvent(QKeyEvent* event) {
  if (!fits_) return QWidget::keyPressEvent(event);
  const auto rows = static_cast<int>(fits_->offsets.size()), columns = static_cast<int>(fits_->widths.size());
  int o = chosen_ ? static_cast<int>(chosen_->first) : rows / 2,
      w = chosen_ ? static_cast<int>(chosen_->second) : columns / 2;
  const int step = event->modifiers() & Qt::ShiftModifier ? 5 : 1;
  switch (event->key()) {
  case Qt::Key_Up:
    o += step;
    break;
  case Qt::Key_Down:
    o -= step;
    break;
  case Qt::Key_Left:
    w -= step;
    break;
  case Qt::Key_Right:
    w += step;
    break;
  case Qt::Key_Return:
  case Qt::Key_Enter:
    if (chosen_) emit taken();
    return;
  default:
    return QWidget::keyPressEvent(event);
  }
  choose(static_cast<std::size_t>(std::clamp(o, 0, rows - 1)), static_cast<std::size_t>(std::clamp(w, 0, columns - 1)));
}

bool FitsChart::event(QEvent* event) {
  if (is_arrow_for_shortcuts(*event)) {
    event->accept();
    return true;
  }
  return QWidget::event(event);
}

} // namespace mavrel::app
