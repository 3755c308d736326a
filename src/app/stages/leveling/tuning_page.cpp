#include "app/stages/leveling/tuning_page.h"

#include "app/kit/chart.h"
#include "app/kit/list_table.h"
#include "app/kit/run_row.h"
#include "quantity/quantity.h"

#include <QMouseEvent>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

namespace {

/// The set-up the car gets, to be changed.
build::ControlSetUp& fitted_of(build::Leveling& leveling) {
  return leveling.set_ups[static_cast<std::size_t>(&leveling.set_up() - leveling.set_ups.data())];
}

} // namespace

TuningPage::TuningPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), answer_(
                              desk.answers(), [this] { refresh(); }, [this] { return asked(); }),
      parts_(
          desk.answers(), [this] { refresh(); },
          [this] { return assess::other_parts_given(leveling_of(desk_), desk_.shelf()); }),
      chart_(new Chart(desk, this)) {
  keep_up(answer_);
  keep_up(parts_);
  run_ = new RunRow(desk_, answer_, "tune", tr("Tune"), this);
  take_ = button(run_->row(), tr("The car gets these numbers"), "take_numbers", [this] { take(); });
  column()->addWidget(run_);
  chart_->setObjectName("trade_off");
  chart_->setMinimumHeight(desk_.look().px(150));
  column()->addWidget(chart_, 6);
  table_ = table("tuning", tr("Sets of four numbers"),
                 {tr("set"), tr("averages"), tr("band"), tr("waits"), tr("gain"), tr("error, 95 %"), tr("low by"),
                  tr("bursts/h"), tr("air/h")});
  column()->addWidget(table_, 5);
  run_parts_ = new RunRow(desk_, parts_, "try_parts", tr("Try finer and wider parts"), this);
  column()->addWidget(run_parts_);
  parts_table_ = table("other_parts", tr("Finer and wider parts"),
                       {tr("part in place of the kit's"), tr("0.1 s moves"), tr("error, 95 %"), tr("overshoot"),
                        tr("bursts/h"), tr("air/h")});
  column()->addWidget(parts_table_, 3);
  connect(table_, &ListTable::picked, this, &TuningPage::take);
  connect(table_, &ListTable::chose, this, &TuningPage::draw);
  connect(chart_, &QCustomPlot::mousePress, this, [this](QMouseEvent* event) {
    if (const auto nearest = point_at(event->pos())) pick(*nearest);
  });
}

/// What would be tuned now. Numbers that came from the tuning itself are no other car: it stays when they are taken.
assess::LevelingGiven TuningPage::asked() const {
  assess::LevelingGiven given = leveling_of(desk_);
  if (const auto now = standing(); now && *now > 0) fitted_of(given.leveling).rules = tuning()->points.front().rules;
  return given;
}

std::optional<std::size_t> TuningPage::standing() const {
  const assess::Tuning* t = tuning();
  const control::Rules& now = desk_.build().variant().leveling.set_up().rules;
  for (std::size_t i = 0; t && i < t->points.size(); ++i)
    if (t->points[i].rules == now) return i;
  return std::nullopt;
}

std::optional<std::size_t> TuningPage::point_at(const QPoint& at) const {
  const assess::Tuning* t = tuning();
  std::optional<std::size_t> nearest;
  double best = desk_.look().px(24);
  for (std::size_t i = 0; t && i < t->points.size(); ++i) {
    const double x = chart_->xAxis->coordToPixel(in_shown_unit(t->points[i].off, Kind::length, desk_.prefs()));
    const double y = chart_->yAxis->coordToPixel(t->points[i].air * 1e3);
    const double d = std::hypot(x - at.x(), y - at.y());
    if (d < best) best = d, nearest = i;
  }
  return nearest;
}

std::optional<std::size_t> TuningPage::held() const {
  const auto row = table_->held();
  if (!tuning() || !row || *row >= rows_.size()) return std::nullopt;
  return rows_[*row];
}

void TuningPage::pick(std::size_t point) {
  auto found = std::find(rows_.begin(), rows_.end(), point);
  if (found == rows_.end()) {
    rows_.push_back(point);
    found = std::prev(rows_.end());
    fill_table();
  }
  table_->hold(static_cast<std::size_t>(found - rows_.begin()));
}

void TuningPage::take() {
  const auto point = held();
  if (!point) return;
  build::Build next = desk_.build();
  fitted_of(next.variant().leveling).rules = tuning()->points[*point].rules;
  desk_.edit(tr("Take over tuned numbers"), std::move(next));
}

/// Those that are bettered by none, and the one that stands: what is proposed first.
void TuningPage::choose_rows() {
  if (sorted_ == answer_.token() && sorted_) return;
  sorted_ = answer_.token();
  rows_.clear();
  const assess::Tuning* t = tuning();
  if (!t) return;
  const auto nearest = t->proposed ? std::nullopt : assess::nearest_to_spare(*t);
  for (std::size_t i = 0; i < t->points.size(); ++i)
    if (t->points[i].best || i == 0 || i == nearest) rows_.push_back(i);
  const auto key = [&](std::size_t i) {
    return std::tuple(i == t->proposed || i == nearest ? 0 : i == 0 ? 1 : 2, t->points[i].off);
  };
  std::sort(rows_.begin(), rows_.end(), [&](std::size_t a, std::size_t b) { return key(a) < key(b); });
}

QString TuningPage::said() const {
  const assess::Tuning* t = tuning();
  if (!t)
    return tr("Drives “%1” some 120 times on the whole drive, each with other averaging, band, wait and gain, and "
              "shows "
              "which are bettered by none.")
        .arg(QString::fromStdString(desk_.build().variant().leveling.set_up().name));
  const auto nearest = assess::nearest_to_spare(*t);
  const double eats = nearest ? t->points[*nearest].low : 0;
  return tr("%1 sets tried in %2. Road height has %3 to spare over the bump travel that the brief keeps: ")
             .arg(t->points.size())
             .arg(desk_.shown(t->wall, Kind::time, 0), desk_.shown(t->spare, Kind::length)) +
         (t->proposed ? tr("★ keeps within it for the least air.")
                      : tr("nothing keeps within it. The nearest, △, eats %1: a road height %2 higher, or as much less "
                           "bump travel kept, would do.")
                            .arg(desk_.shown(eats, Kind::length, 1),
                                 desk_.shown(std::max(0.0, eats - t->spare), Kind::length, 1)));
}

void TuningPage::fill() {
  choose_rows();
  const QString trouble = why_not(desk_, answer_, {});
  run_->show_words(trouble.isEmpty() ? said() : trouble, tr("Driving it again and again …"));
  fill_table();
  draw();
  fill_parts();
}

void TuningPage::fill_parts() {
  const Tokens& t = desk_.look().tokens();
  const auto* parts = other_parts();
  const QString trouble = why_not(desk_, parts_, {});
  run_parts_->show_words(!trouble.isEmpty() ? trouble
                         : parts ? tr("“%1” on the same drive with the shelf's next sizes, one at a time.")
                                       .arg(QString::fromStdString(desk_.build().variant().leveling.set_up().name))
                                 : tr("What the next finer or wider valve or line on the shelf would change."),
                         tr("Driving with each of them …"));
  parts_table_->setVisible(parts != nullptr);
  parts_table_->fill(parts ? parts->size() : 0, [&](std::size_t r, ListTable::Row& row) {
    const assess::OtherPart& p = (*parts)[r];
    const control::DriveFigures& f = p.result.together;
    const double hours = p.result.simulated / 3600;
    row.words(p.name.empty() ? tr("the kit as it is")
                             : tr("%1, %2 %3")
                                   .arg(QString::fromStdString(p.name), tr(assess::row_of(p.role).label),
                                        p.finer ? tr("(finer)") : tr("(wider)")),
              t.ink)
        .figure(desk_.shown(p.buys, Kind::length, 1), t.ink)
        .figure(desk_.shown(f.usual_off, Kind::length, 1), t.ink)
        .figure(desk_.shown(f.overshoot, Kind::length, 1), t.ink)
        .figure(QString::number(f.bursts / hours, 'f', 0), t.ink)
        .figure(tr("%1 g").arg(f.air / hours * 1e3, 0, 'f', 1), t.ink);
  });
}

void TuningPage::fill_table() {
  const assess::Tuning* t = tuning();
  const Tokens& tokens = desk_.look().tokens();
  table_->setVisible(t != nullptr);
  take_->setEnabled(t != nullptr && !rows_.empty());
  const bool pressure = t && !t->points.empty() && !assess::goes_by_height(t->points.front().rules.method);
  table_->fill(t ? rows_.size() : 0, [&](std::size_t r, ListTable::Row& row) {
    const std::size_t i = rows_[r];
    const assess::TuningPoint& p = t->points[i];
    const auto& gain = pressure ? p.rules.pressure_gain : p.rules.gain;
    const QColor ink = p.spared ? tokens.ink : tokens.second;
    row.words(i == standing()                                     ? tr("◆ as it is now")
              : i == t->proposed                                  ? tr("★ least air that keeps it")
              : i == 0                                            ? tr("◇ as it was")
              : !t->proposed && i == assess::nearest_to_spare(*t) ? tr("△ the nearest")
              : p.best                                            ? tr("○ bettered by none")
                                                                  : tr("· tried"),
              ink)
        .figure(desk_.shown(p.rules.average, Kind::time, 1), ink)
        .figure(pressure ? desk_.shown(p.rules.pressure_band, Kind::pressure, 2)
                         : desk_.shown(p.rules.band, Kind::length, 1),
                ink)
        .figure(desk_.shown(p.rules.wait, Kind::time, 1), ink)
        .figure(gain ? desk_.shown(*gain, pressure ? Kind::pressure_gain : Kind::burst_gain) : tr("as learned"), ink)
        .figure(desk_.shown(p.off, Kind::length, 1), ink)
        .figure(desk_.shown(p.low, Kind::length, 1), ink)
        .figure(QString::number(p.bursts, 'f', 0), ink)
        .figure(tr("%1 g").arg(p.air * 1e3, 0, 'f', 1), ink);
  });
}

void TuningPage::draw() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const assess::Tuning* tuned = tuning();
  chart_->clear_all();
  chart_->setVisible(tuned != nullptr);
  if (!tuned) return;
  chart_->xAxis->setLabel(tr("off by no more than, 95 % of the time, %1")
                              .arg(QString::fromStdString(unit_name(Kind::length, desk_.prefs()))));
  chart_->yAxis->setLabel(tr("air, g an hour"));
  std::array<QVector<double>, 2> x, y; // bettered, and bettered by none
  std::vector<double> offs, airs;
  for (const assess::TuningPoint& p : tuned->points) {
    const double off = in_shown_unit(p.off, Kind::length, desk_.prefs());
    x[p.best] << off, y[p.best] << p.air * 1e3;
    offs.push_back(off), airs.push_back(p.air * 1e3);
  }
  const auto dots = [&](const QVector<double>& at, const QVector<double>& up, QCPScatterStyle::ScatterShape shape,
                        const QColor& colour, double size) {
    auto* graph = chart_->add_line(chart_->xAxis, chart_->yAxis, colour, 1.3);
    graph->setLineStyle(QCPGraph::lsNone);
    graph->setScatterStyle(QCPScatterStyle(shape, look.px(size)));
    graph->setData(at, up);
  };
  dots(x[0], y[0], QCPScatterStyle::ssCircle, t.second, 4);
  dots(x[1], y[1], QCPScatterStyle::ssCircle, t.front, 8);
  const auto one = [&](std::size_t i, QCPScatterStyle::ScatterShape shape, const QColor& colour, double size) {
    dots({offs[i]}, {airs[i]}, shape, colour, size);
  };
  one(standing().value_or(0), QCPScatterStyle::ssDiamond, t.ink, 11);
  if (tuned->proposed) one(*tuned->proposed, QCPScatterStyle::ssStar, t.good, 14);
  if (const auto at = held()) one(*at, QCPScatterStyle::ssSquare, t.caution, 15);
  // The crowd sets the scale, not the one that went astray.
  const auto most = [](std::vector<double> of) {
    std::sort(of.begin(), of.end());
    return of[of.size() * 9 / 10];
  };
  chart_->xAxis->setRange(0, std::max(1e-3, 1.15 * most(offs)));
  const double top = std::max(0.1, 1.15 * most(airs));
  chart_->yAxis->setRange(-0.04 * top, top);
  QColor wash = t.good;
  wash.setAlphaF(0.12F);
  chart_->shade(0, in_shown_unit(tuned->spare, Kind::length, desk_.prefs()), wash); // what the brief can spare
  chart_->setAccessibleName(tr("Error against air of every set that was tried. %1").arg(run_->text()));
  chart_->redraw();
}

} // namespace mavrel::app
