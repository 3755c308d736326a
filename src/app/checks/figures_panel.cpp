#include "app/checks/figures_panel.h"

#include "app/checks/check_edits.h"
#include "app/desk/desk.h"
#include "app/kit/field.h"

#include <QGridLayout>
#include <QLabel>
#include <QPainter>
#include <QToolButton>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::AskedFigure;
using assess::CheckState;
using assess::HoldPoint;

QString sign_of_check(CheckState state) {
  switch (state) {
  case CheckState::passed:
    return "✓";
  case CheckState::failed:
    return "✗";
  case CheckState::stale:
    return "≠";
  case CheckState::begun:
    return "…";
  case CheckState::open:
    break;
  }
  return "◇";
}

QColor colour_of_check(CheckState state, const Tokens& t) {
  switch (state) {
  case CheckState::passed:
    return t.good;
  case CheckState::failed:
    return t.stop;
  case CheckState::stale:
    return t.caution;
  case CheckState::begun:
  case CheckState::open:
    break;
  }
  return t.ink;
}

FigureScale::FigureScale(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
  setMinimumWidth(desk.look().px(90));
  setFixedHeight(desk.look().px(20));
}

QSize FigureScale::sizeHint() const {
  return {desk_.look().px(150), desk_.look().px(20)};
}

void FigureScale::show_figure(const AskedFigure& figure, std::optional<double> measured, bool wrong) {
  figure_ = figure, measured_ = measured, wrong_ = wrong;
  const auto amount = [&](double v) { return desk_.shown(v, figure.kind); };
  QStringList said;
  if (figure.designed && !figure.yes_no) said << tr("design %1").arg(amount(*figure.designed));
  if (measured && !figure.yes_no) said << tr("measured %1").arg(amount(*measured));
  setAccessibleName(said.join(", "));
  update();
}

void FigureScale::paintEvent(QPaintEvent*) {
  if (figure_.yes_no || (!figure_.designed && !figure_.least && !figure_.most)) return;
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  // As much either side of what matters as lies between.
  double low = 1e300, high = -1e300;
  for (const auto& v : {figure_.designed, figure_.least, figure_.most, measured_})
    if (v) low = std::min(low, *v), high = std::max(high, *v);
  const double room = high > low ? 0.35 * (high - low) : std::max(1e-9, 0.1 * std::abs(high));
  low -= room, high += room;
  const double left = 2, right = width() - 2.0, middle = height() / 2.0;
  const auto x = [&](double v) { return left + (v - low) / (high - low) * (right - left); };
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(t.rule, 1));
  painter.drawLine(QPointF(left, middle), QPointF(right, middle));
  if (figure_.least || figure_.most) {
    const double from = figure_.least ? x(*figure_.least) : left, to = figure_.most ? x(*figure_.most) : right;
    QColor band = t.good;
    band.setAlpha(50);
    painter.fillRect(QRectF(from, middle - 5, to - from, 10), band);
    painter.setPen(QPen(t.good, 1));
    for (const auto& edge : {figure_.least, figure_.most})
      if (edge) painter.drawLine(QPointF(x(*edge), middle - 5), QPointF(x(*edge), middle + 5));
  }
  if (figure_.designed) {
    painter.setPen(QPen(t.ink, 1.5));
    painter.drawLine(QPointF(x(*figure_.designed), middle - 8), QPointF(x(*figure_.designed), middle + 8));
  }
  if (!measured_) return;
  painter.setPen(Qt::NoPen);
  painter.setBrush(wrong_ ? t.stop : t.good);
  const QPointF at(x(*measured_), middle);
  if (wrong_) // shape as well as colour
    painter.drawRect(QRectF(at.x() - 4, at.y() - 4, 8, 8));
  else
    painter.drawEllipse(at, 4.5, 4.5);
}

FiguresPanel::FiguresPanel(Desk& desk, std::function<const HoldPoint*(const std::string&)> find, QWidget* parent)
    : RowPanel(desk, parent), find_(std::move(find)) {
  setObjectName("figures_panel");
  start();
}

void FiguresPanel::show_check(const QString& id) {
  if (id_ == id) return;
  id_ = id;
  refresh();
}

const HoldPoint* FiguresPanel::point() const {
  return find_(id_.toStdString());
}

QString FiguresPanel::shown(const AskedFigure& f, double v) const {
  // What takes a moment is told to a hundredth, what a bag loses to a thousandth.
  const int decimals = f.kind == Kind::time && std::abs(v) < 10 ? 2 : f.read == assess::ReadBy::drop ? 3 : -1;
  return desk().shown(v, f.kind, decimals);
}

QString FiguresPanel::shape() const {
  const HoldPoint* p = point();
  if (!p) return "none";
  QString out = id_ + (p->note ? QString::number(*p->note) : QString("-"));
  if (p->note) {
    // A field stands only where its figure has a line.
    const auto& figures = desk().build().variant().fit_up->checks[*p->note].figures;
    for (const auto& f : figures)
      out += '|' + QString::fromStdString(f.what);
  }
  for (const AskedFigure& f : p->figures) {
    out += ';' + QString::fromStdString(f.key);
    for (const auto& v : {f.designed, f.least, f.most})
      out += v ? QString::number(*v) + ',' : QString(',');
    out += f.awaited ? '?' : '.';
  }
  return out;
}

void FiguresPanel::build_rows() {
  verdicts_.clear();
  scales_.clear();
  fields_.clear();
  const HoldPoint* p = point();
  if (!p) return;
  heading(tr("measure"), 0, 0);
  heading(p->row->stage == assess::CheckStage::proving ? tr("predicted") : tr("design"), 0, 1);
  heading(tr("right is"), 0, 2);
  heading(tr("measured"), 0, 4);
  for (std::size_t i = 0; i < p->figures.size(); ++i) {
    const AskedFigure& f = p->figures[i];
    const int row = static_cast<int>(i) + 1;
    QLabel* name = quiet_label(desk().words_of(f.name));
    name->setWordWrap(true);
    name->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    grid()->addWidget(name, row, 0);
    const auto amount = [&](double v) { return shown(f, v); };
    grid()->addWidget(quiet_label(f.awaited                 ? tr("…")
                                  : f.yes_no || !f.designed ? QString("–")
                                                            : amount(*f.designed)),
                      row, 1);
    QString right;
    if (f.yes_no)
      right = tr("yes");
    else if (f.least && f.most)
      right = tr("%1 to %2").arg(amount(*f.least), amount(*f.most));
    else if (f.least)
      right = tr("≥ %1").arg(amount(*f.least));
    else if (f.most)
      right = tr("≤ %1").arg(amount(*f.most));
    if (f.twin && f.alike > 0)
      right += (right.isEmpty() ? QString() : QString("\n")) + tr("sides within %1").arg(amount(f.alike));
    QLabel* range = quiet_label(right);
    range->setWordWrap(true);
    range->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    grid()->addWidget(range, row, 2);
    auto* scale = new FigureScale(desk(), grid()->parentWidget());
    scales_.push_back(scale);
    grid()->addWidget(scale, row, 3);
    std::optional<std::size_t> line;
    if (p->note) {
      const auto& figures = desk().build().variant().fit_up->checks[*p->note].figures;
      for (std::size_t k = 0; k < figures.size(); ++k)
        if (figures[k].what == f.key) line = k;
    }
    if (f.yes_no) {
      auto* box = new QWidget(grid()->parentWidget());
      auto* both = new QHBoxLayout(box);
      both->setContentsMargins(0, 0, 0, 0);
      for (const bool yes : {true, false}) {
        auto* button = new QToolButton(box);
        button->setText(yes ? tr("yes") : tr("no"));
        button->setCheckable(true);
        button->setObjectName(QString("%1_%2").arg(yes ? "yes" : "no", QString::fromStdString(f.key)));
        button->setAccessibleName(desk().words_of(f.name) + ": " + button->text());
        connect(button, &QToolButton::clicked, this, [this, i, yes] {
          if (const HoldPoint* now = point()) tick_figure(desk(), HoldPoint(*now), i, yes);
        });
        both->addWidget(button);
      }
      both->addStretch(1);
      grid()->addWidget(box, row, 4);
    } else if (line) {
      auto* field = new Field(
          desk(),
          QString("@.fit_up.checks.%1.figures.%2.%3").arg(*p->note).arg(*line).arg(assess::measured_field(f.kind)), {},
          grid()->parentWidget());
      field->edit()->setAccessibleName(desk().words_of(f.name));
      field->set_placeholder(tr("measure"));
      fields_.emplace_back(i, field);
      grid()->addWidget(field, row, 4);
    }
    QLabel* verdict = quiet_label();
    // As wide as its longest words from the start: no button moves from under the hand that pressed it.
    int widest = 0;
    for (const QString& one : {tr("✗ not right"), tr("optional"), QString("✓")})
      widest = std::max(widest, verdict->fontMetrics().horizontalAdvance(one));
    verdict->setMinimumWidth(widest + desk().look().px(4));
    verdicts_.push_back(verdict);
    grid()->addWidget(verdict, row, 5);
  }
  if (p->note)
    grid()->addWidget(
        new Field(desk(), QString("@.fit_up.checks.%1.notes").arg(*p->note), tr("remark"), grid()->parentWidget()),
        static_cast<int>(p->figures.size()) + 1, 0, 1, 5);
  grid()->setColumnStretch(0, 5);
  grid()->setColumnStretch(1, 2);
  grid()->setColumnStretch(2, 4);
  grid()->setColumnStretch(3, 3);
  grid()->setColumnStretch(4, 2);
}

void FiguresPanel::refresh_rows() {
  const HoldPoint* p = point();
  if (!p) return;
  for (std::size_t i = 0; i < verdicts_.size() && i < p->figures.size(); ++i) {
    const bool wrong = std::find(p->wrong.begin(), p->wrong.end(), i) != p->wrong.end();
    scales_[i]->show_figure(p->figures[i], p->measured[i], wrong);
    verdicts_[i]->setText(!p->measured[i] ? (p->figures[i].optional ? tr("optional") : QString())
                          : wrong         ? tr("✗ not right")
                                          : QString("✓"));
    QPalette palette = verdicts_[i]->palette();
    palette.setColor(QPalette::WindowText, wrong            ? desk().look().tokens().stop
                                           : p->measured[i] ? desk().look().tokens().good
                                                            : desk().look().tokens().second);
    verdicts_[i]->setPalette(palette);
    // What readings over time give need not be typed.
    for (const auto& [place, field] : fields_)
      if (place == i && p->figures[i].read == assess::ReadBy::drop)
        field->set_placeholder(p->measured[i] ? shown(p->figures[i], *p->measured[i]) : tr("measure"));
    if (!p->figures[i].yes_no) continue;
    for (const bool yes : {true, false})
      if (auto* button = findChild<QToolButton*>(
              QString("%1_%2").arg(yes ? "yes" : "no", QString::fromStdString(p->figures[i].key))))
        button->setChecked(p->measured[i] && (*p->measured[i] > 0.5) == yes);
  }
}

} // namespace mavrel::app
