#include "app/stages/leveling/tuning_page.h"

#include "app/kit/chart.h"
#include "app/kit/list_table.h"
#include "quantity/quantity.h"

#include <QHeaderView>
#include <QLabel>
#include <QMouseEvent>
#include <QProgressBar>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

TuningPage::TuningPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), answer_(desk.runner(), [this] { refresh(); }),
      parts_(desk.runner(), [this] { refresh(); }), start_(new QPushButton(this)),
      take_(new QPushButton(tr("The car gets these numbers"), this)),
      try_(new QPushButton(tr("Try finer and wider parts"), this)), progress_(new QProgressBar(this)),
      about_(new QLabel(this)), parts_head_(new QLabel(this)), chart_(new Chart(desk, this)),
      table_(list_table("tuning", tr("Sets of four numbers"),
                        {tr("set"), tr("averages"), tr("band"), tr("waits"), tr("gain"), tr("off, 95 %"), tr("low by"),
                         tr("bursts/h"), tr("air/h")},
                        this)),
      parts_table_(list_table("other_parts", tr("Finer and wider parts"),
                              {tr("part in place of the kit's"), tr("0.1 s moves"), tr("off, 95 %"), tr("past it"),
                               tr("bursts/h"), tr("air/h")},
                              this)),
      beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(0);
  auto* layout = new QVBoxLayout;
  layout->setContentsMargins(0, 0, u, 0);
  layout->setSpacing(u / 2);
  whole->addLayout(layout, 1);
  whole->addWidget(beside_);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  start_->setObjectName("tune");
  row->addWidget(start_);
  progress_->setTextVisible(false);
  progress_->setFixedHeight(u);
  progress_->setRange(0, 1000);
  row->addWidget(progress_, 1);
  about_->setWordWrap(true);
  about_->setObjectName("tuning_words");
  row->addWidget(about_, 4);
  take_->setObjectName("take_numbers");
  row->addWidget(take_);
  layout->addLayout(row);
  chart_->setObjectName("trade_off");
  chart_->setMinimumHeight(desk_.look().px(150));
  layout->addWidget(chart_, 6);
  layout->addWidget(table_, 5);
  auto* parts_row = new QHBoxLayout;
  parts_row->setSpacing(u);
  try_->setObjectName("try_parts");
  parts_row->addWidget(try_);
  parts_head_->setWordWrap(true);
  parts_row->addWidget(parts_head_, 1);
  layout->addLayout(parts_row);
  layout->addWidget(parts_table_, 3);
  connect(start_, &QPushButton::clicked, this, [this] {
    if (answer_.is_running())
      answer_.forget();
    else
      start();
  });
  connect(try_, &QPushButton::clicked, this, [this] {
    if (parts_.is_running())
      parts_.forget();
    else
      try_parts();
  });
  connect(take_, &QPushButton::clicked, this, &TuningPage::take);
  connect(table_, &QTableWidget::cellDoubleClicked, this, &TuningPage::take);
  connect(table_, &QTableWidget::currentCellChanged, this, [this] {
    take_->setEnabled(held().has_value());
    draw();
  });
  connect(chart_, &QCustomPlot::mousePress, this, [this](QMouseEvent* event) {
    const assess::Tuning* t = tuning();
    if (!t) return;
    std::optional<std::size_t> nearest;
    double best = 1e18;
    for (std::size_t i = 0; i < t->points.size(); ++i) {
      const double x = chart_->xAxis->coordToPixel(in_shown_unit(t->points[i].off, Kind::length, desk_.prefs()));
      const double y = chart_->yAxis->coordToPixel(t->points[i].air * 1e3);
      const double d = std::hypot(x - event->pos().x(), y - event->pos().y());
      if (d < best) best = d, nearest = i;
    }
    if (nearest && best < desk_.look().px(24)) pick(*nearest);
  });
  connect(&desk_, &Desk::changed, this, [this] {
    if (answer_.was_asked()) answer_.keep_only_for(leveling_of(desk_));
    if (parts_.was_asked()) parts_.keep_only_for(assess::other_parts_given(leveling_of(desk_), desk_.shelf()));
    refresh();
  });
  connect(&desk_, &Desk::looked_at, this, [this] {
    if (answer_.was_asked()) answer_.keep_only_for(leveling_of(desk_));
  });
  connect(&desk_, &Desk::restyled, this, &TuningPage::refresh);
  refresh();
}

void TuningPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

void TuningPage::start() {
  answer_.ask(leveling_of(desk_));
}

void TuningPage::try_parts() {
  parts_.ask(assess::other_parts_given(leveling_of(desk_), desk_.shelf()));
}

const assess::Tuning* TuningPage::tuning() const {
  return answer_.answer() && *answer_.answer() && **answer_.answer() ? &***answer_.answer() : nullptr;
}

const std::vector<assess::OtherPart>* TuningPage::other_parts() const {
  return parts_.answer() && *parts_.answer() && **parts_.answer() ? &***parts_.answer() : nullptr;
}

std::optional<std::size_t> TuningPage::held() const {
  const int row = table_->currentRow();
  if (!tuning() || row < 0 || row >= static_cast<int>(rows_.size())) return std::nullopt;
  return rows_[static_cast<std::size_t>(row)];
}

void TuningPage::pick(std::size_t point) {
  const auto found = std::find(rows_.begin(), rows_.end(), point);
  if (found == rows_.end()) {
    rows_.push_back(point);
    fill();
    table_->setCurrentCell(static_cast<int>(rows_.size()) - 1, 0);
  } else {
    table_->setCurrentCell(static_cast<int>(found - rows_.begin()), 0);
  }
}

void TuningPage::take() {
  const auto point = held();
  if (!point) return;
  build::Build next = desk_.build();
  auto& leveling = next.variant().leveling;
  for (build::ControlSetUp& way : leveling.set_ups)
    if (&way == &leveling.set_up()) {
      way.rules = tuning()->points[*point].rules;
      break;
    }
  desk_.edit(tr("Take over tuned numbers"), std::move(next));
}

void TuningPage::refresh() {
  const Look& look = desk_.look();
  about_->setFont(look.font(TextSize::small));
  parts_head_->setFont(look.font(TextSize::small));
  table_->setFont(look.font(TextSize::small));
  parts_table_->setFont(look.font(TextSize::small));
  start_->setText(answer_.is_running() ? tr("Stop") : tr("Tune"));
  progress_->setVisible(answer_.is_running());
  progress_->setValue(static_cast<int>(answer_.done() * 1000));
  const assess::Tuning* t = tuning();
  rows_.clear();
  if (t) {
    for (std::size_t i = 0; i < t->points.size(); ++i)
      if (t->points[i].best || i == 0) rows_.push_back(i);
    std::sort(rows_.begin(), rows_.end(), [&](std::size_t a, std::size_t b) {
      const auto key = [&](std::size_t i) {
        return std::tuple(i == t->proposed ? 0 : i == 0 ? 1 : 2, t->points[i].off);
      };
      return key(a) < key(b);
    });
  }
  const auto& way = desk_.build().variant().leveling.set_up();
  const QString trouble = why_not(desk_, answer_, tr("Driving it again and again …"));
  if (!trouble.isEmpty())
    about_->setText(trouble);
  else if (!t)
    about_->setText(tr("Drives “%1” some 120 times on the whole drive, each with other averaging, band, wait and gain, "
                       "and shows which are bettered by none.")
                        .arg(QString::fromStdString(way.name)));
  else
    about_->setText(tr("%1 sets tried in %2. Road height has %3 to spare over the bump travel that the brief keeps: ")
                        .arg(t->points.size())
                        .arg(desk_.shown(t->wall, Kind::time, 0), desk_.shown(t->spare, Kind::length)) +
                    (t->proposed ? tr("★ keeps within it for the least air.")
                                 : tr("nothing keeps within it. A higher road height, or less bump travel kept.")));
  fill();
  draw();
  const auto* parts = other_parts();
  try_->setText(parts_.is_running() ? tr("Stop") : tr("Try finer and wider parts"));
  const QString parts_trouble = why_not(desk_, parts_, tr("Driving with each of them …"));
  parts_head_->setText(!parts_trouble.isEmpty() ? parts_trouble
                       : parts ? tr("“%1” on the same drive with the shelf's next sizes, one at a time.")
                                     .arg(QString::fromStdString(way.name))
                               : tr("What the next finer or wider valve or line on the shelf would change."));
  const Tokens& tokens = look.tokens();
  parts_table_->setVisible(parts != nullptr);
  parts_table_->setRowCount(parts ? static_cast<int>(parts->size()) : 0);
  for (int r = 0; parts && r < static_cast<int>(parts->size()); ++r) {
    const assess::OtherPart& p = (*parts)[static_cast<std::size_t>(r)];
    const control::DriveFigures& f = p.result.together;
    const double hours = p.result.simulated / 3600;
    put_cell(parts_table_, r, 0,
             p.name.empty() ? tr("the kit as it is")
                            : tr("%1, %2 %3")
                                  .arg(QString::fromStdString(p.name), tr(assess::row_of(p.role).label),
                                       p.finer ? tr("(finer)") : tr("(wider)")),
             tokens.ink);
    put_cell(parts_table_, r, 1, desk_.shown(p.buys, Kind::length, 1), tokens.ink);
    put_cell(parts_table_, r, 2, desk_.shown(f.usual_off, Kind::length, 1), tokens.ink);
    put_cell(parts_table_, r, 3, desk_.shown(f.overshoot, Kind::length, 1), tokens.ink);
    put_cell(parts_table_, r, 4, QString::number(f.bursts / hours, 'f', 0), tokens.ink);
    put_cell(parts_table_, r, 5, tr("%1 g").arg(f.air / hours * 1e3, 0, 'f', 1), tokens.ink);
  }
}

void TuningPage::fill() {
  const assess::Tuning* t = tuning();
  const Tokens& tokens = desk_.look().tokens();
  const QSignalBlocker quiet(table_);
  table_->setVisible(t != nullptr);
  table_->setRowCount(t ? static_cast<int>(rows_.size()) : 0);
  const bool pressure = t && !t->points.empty() && !assess::goes_by_height(t->points.front().rules.method);
  for (int r = 0; t && r < static_cast<int>(rows_.size()); ++r) {
    const std::size_t i = rows_[static_cast<std::size_t>(r)];
    const assess::TuningPoint& p = t->points[i];
    const QColor ink = p.spared ? tokens.ink : tokens.second;
    put_cell(table_, r, 0,
             i == t->proposed ? tr("★ least air that keeps it")
             : i == 0         ? tr("◆ as it is now")
             : p.best         ? tr("○ bettered by none")
                              : tr("· tried"),
             ink);
    put_cell(table_, r, 1, desk_.shown(p.rules.average, Kind::time, 1), ink);
    put_cell(table_, r, 2,
             pressure ? desk_.shown(p.rules.pressure_band, Kind::pressure, 2)
                      : desk_.shown(p.rules.band, Kind::length, 1),
             ink);
    put_cell(table_, r, 3, desk_.shown(p.rules.wait, Kind::time, 1), ink);
    const auto& gain = pressure ? p.rules.pressure_gain : p.rules.gain;
    put_cell(table_, r, 4,
             gain ? desk_.shown(*gain, pressure ? Kind::pressure_gain : Kind::burst_gain) : tr("as learned"), ink);
    put_cell(table_, r, 5, desk_.shown(p.off, Kind::length, 1), ink);
    put_cell(table_, r, 6, desk_.shown(p.low, Kind::length, 1), ink);
    put_cell(table_, r, 7, QString::number(p.bursts, 'f', 0), ink);
    put_cell(table_, r, 8, tr("%1 g").arg(p.air * 1e3, 0, 'f', 1), ink);
  }
  if (t && table_->currentRow() < 0 && !rows_.empty()) table_->setCurrentCell(0, 0);
  take_->setEnabled(held().has_value());
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
  one(0, QCPScatterStyle::ssDiamond, t.ink, 11);
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
  chart_->setAccessibleName(tr("Error against air of every set that was tried. %1").arg(about_->text()));
  chart_->redraw();
}

} // namespace mavrel::app
