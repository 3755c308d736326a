#include "app/stages/leveling/drive_page.h"

#include "app/kit/chart.h"
#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"
#include "app/stages/leveling/drive_plot.h"
#include "file/text_file.h"
#include "quantity/quantity.h"
#include "report/leveling_json.h"

#include <QComboBox>
#include <QFileDialog>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {
constexpr double before_event = 30, after_event = 150; // s of a closer look
}

DrivePage::DrivePage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), answer_(desk.runner(), [this] { refresh(); }),
      table_(list_table("drives", tr("Ways of keeping the height"),
                        {tr("way"), tr("off, 95 %"), tr("mean"), tr("in band"), tr("low by"), tr("bursts/h"),
                         tr("valves/h"), tr("air/h"), tr("pump/h"), tr("past it"), tr("back in"), tr("lean")},
                        this)),
      costs_(new Chart(desk, this)), plot_(new DrivePlot(desk, this)), strips_(new ErrorStrips(desk, *plot_, this)),
      span_(new QComboBox(this)), given_(new QPushButton(tr("The car gets this one"), this)),
      csv_(new QPushButton(tr("CSV …"), this)), under_way_(new QLabel(this)), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  auto* drive = new QHBoxLayout;
  drive->setSpacing(u / 2);
  auto* road = new ChoiceBox(desk_, "drive.road", tr("Road"), rows_of(control::RoadClass{}), this);
  auto* profile = new ChoiceBox(desk_, "drive.profile", tr("Drive"), rows_of(control::SpeedProfile{}), this);
  drive->addWidget(road, 2, Qt::AlignBottom);
  drive->addWidget(profile, 2, Qt::AlignBottom);
  for (const auto& [path, caption] :
       {std::pair{"drive.speed_m_per_s", tr("speed, steady")}, std::pair{"drive.duration_s", tr("how long")},
        std::pair{"drive.seed", tr("seed")}})
    drive->addWidget(new Field(desk_, path, caption, this), 1);
  span_->setObjectName("drive_span");
  span_->setAccessibleName(tr("Stretch of the drive"));
  span_->setMinimumContentsLength(12);
  span_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  drive->addWidget(span_, 2, Qt::AlignBottom);
  drive->addSpacing(u);
  layout->addLayout(drive);
  auto* above = new QHBoxLayout;
  above->setSpacing(u / 2);
  table_->setFixedHeight(desk_.look().px(124));
  table_->setWordWrap(false);
  above->addWidget(table_, 1);
  costs_->setFixedHeight(desk_.look().px(124));
  costs_->setObjectName("costs");
  costs_->setFixedWidth(desk_.look().px(196));
  above->addWidget(costs_);
  above->addSpacing(u);
  layout->addLayout(above);
  auto* row = new QHBoxLayout;
  row->setSpacing(u / 2);
  under_way_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  row->addWidget(under_way_, 1);
  given_->setObjectName("gets_this");
  row->addWidget(given_);
  csv_->setObjectName("drive_csv");
  row->addWidget(csv_);
  row->addSpacing(u);
  layout->addLayout(row);
  auto* below = new QHBoxLayout;
  below->setSpacing(0);
  auto* plots = new QVBoxLayout;
  plots->setSpacing(u / 2);
  plots->addWidget(plot_, 1);
  plots->addWidget(strips_);
  below->addLayout(plots, 1);
  below->addWidget(beside_);
  layout->addLayout(below, 1);
  connect(plot_, &DrivePlot::band_moved, this, &DrivePage::band_moved);
  connect(strips_, &ErrorStrips::picked, this, &DrivePage::pick);
  connect(table_, &QTableWidget::currentCellChanged, this, [this](int r) {
    if (r >= 0) pick(r);
  });
  connect(span_, &QComboBox::activated, this, &DrivePage::look_at_span);
  connect(given_, &QPushButton::clicked, this, [this] { give_to_car(desk_, picked_); });
  connect(csv_, &QPushButton::clicked, this, &DrivePage::write_csv);
  for (const auto signal : {&Desk::changed, &Desk::looked_at})
    connect(&desk_, signal, this, &DrivePage::ask);
  connect(&desk_, &Desk::restyled, this, &DrivePage::refresh);
  refresh();
}

std::pair<int, int> DrivePage::band() const {
  const auto [top, bottom] = plot_->band();
  const int y = plot_->mapTo(this, QPoint(0, 0)).y();
  return {y + top, y + bottom};
}

void DrivePage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

bool DrivePage::go_to(const QString& path) {
  return go_to_field(desk_, this, path);
}

/// @param span  0: the whole drive; else an event, with what leads to it and what comes of it
void DrivePage::look_at_span(int span) {
  const auto& events = desk_.build().drive.events;
  if (span <= 0 || static_cast<std::size_t>(span) > events.size()) {
    plot_->look_at(std::nullopt);
  } else {
    const double at = events[static_cast<std::size_t>(span) - 1].at;
    plot_->look_at(std::pair{at - before_event, at + after_event});
  }
  strips_->update();
}

void DrivePage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  ask();
}

void DrivePage::pick(int set_up) {
  if (set_up < 0 || picked_ == static_cast<std::size_t>(set_up)) return;
  picked_ = static_cast<std::size_t>(set_up);
  refresh();
}

void DrivePage::ask() {
  if (!isVisible()) return;
  assess::LevelingGiven now = leveling_of(desk_);
  if (!answer_.was_asked() || answer_.keep_only_for(now)) return answer_.ask(std::move(now));
  refresh();
}

void DrivePage::refresh() {
  const Look& look = desk_.look();
  under_way_->setFont(look.font(TextSize::small));
  table_->setFont(look.font(TextSize::small));
  QStringList spans = {tr("whole drive")}, there;
  for (const build::DriveEvent& e : desk_.build().drive.events)
    spans << QString::fromStdString(e.name.empty() ? build::name_of(e.kind) : e.name);
  for (int i = 0; i < span_->count(); ++i)
    there << span_->itemText(i);
  if (there != spans) {
    const QSignalBlocker quiet(span_);
    span_->clear();
    span_->addItems(spans);
    look_at_span(0);
  }
  const QString why = why_not(desk_, answer_, tr("Driving …"));
  if (answer_.answer() && *answer_.answer() && **answer_.answer())
    shown_ = ***answer_.answer();
  else if (!answer_.is_running())
    shown_.reset();
  if (shown_ && picked_ >= shown_->driven.size()) picked_ = 0;
  fill_table();
  draw_costs();
  plot_->show_drives(drives(), picked_, why);
  strips_->show_drives(drives(), picked_);
  csv_->setEnabled(drives() != nullptr);
  const auto& leveling = desk_.build().variant().leveling;
  given_->setEnabled(picked_ < leveling.set_ups.size() && &leveling.set_ups[picked_] != &leveling.set_up());
  under_way_->setText(answer_.is_running() && drives() ? why
                      : drives()
                          ? tr("%1 drives of %2 in %3, each on the same road from the same seed. ● the car gets it.")
                                .arg(drives()->driven.size())
                                .arg(desk_.shown(drives()->driven.front().result.simulated, Kind::minutes, 0),
                                     desk_.shown(drives()->driven.front().result.wall, Kind::time, 1))
                          : QString());
}

void DrivePage::fill_table() {
  const QSignalBlocker quiet(table_);
  const Tokens& t = desk_.look().tokens();
  const auto& leveling = desk_.build().variant().leveling;
  const int rows = drives() ? static_cast<int>(drives()->driven.size()) : 0;
  table_->setRowCount(rows);
  for (int r = 0; r < rows; ++r) {
    const assess::Driven& d = drives()->driven[static_cast<std::size_t>(r)];
    const control::DriveFigures& f = d.result.together;
    const double hours = d.result.simulated / 3600;
    const bool gets = static_cast<std::size_t>(r) < leveling.set_ups.size() &&
                      &leveling.set_ups[static_cast<std::size_t>(r)] == &leveling.set_up();
    put_cell(table_, r, 0,
             letter_of(static_cast<std::size_t>(r)) + (gets ? " ● " : "  ") + QString::fromStdString(d.name), t.ink);
    put_cell(table_, r, 1, desk_.shown(f.usual_off, Kind::length, 1), t.ink);
    put_cell(table_, r, 2, desk_.shown(f.mean_error, Kind::length, 1), t.ink);
    put_cell(table_, r, 3, desk_.shown(f.in_band, Kind::share, 0), t.ink);
    put_cell(table_, r, 4, desk_.shown(std::max(0.0, f.usual_low), Kind::length, 1), t.ink);
    put_cell(table_, r, 5, QString::number(f.bursts / hours, 'f', 0), t.ink);
    put_cell(table_, r, 6, desk_.shown(f.valve_s / hours, Kind::time, 1), t.ink);
    put_cell(table_, r, 7, tr("%1 g").arg(f.air / hours * 1e3, 0, 'f', 1), t.ink);
    put_cell(table_, r, 8, desk_.shown(d.result.compressor_s / hours, Kind::minutes, 1), t.ink);
    put_cell(table_, r, 9, desk_.shown(f.overshoot, Kind::length, 1), t.ink);
    const bool loaded = std::any_of(desk_.build().drive.events.begin(), desk_.build().drive.events.end(),
                                    [](const auto& e) { return e.kind == build::DriveEventKind::load; });
    put_cell(table_, r, 10,
             !loaded     ? "–"
             : f.recover ? desk_.shown(*f.recover, Kind::time, 0)
                         : tr("never"),
             loaded && !f.recover ? t.stop : t.ink);
    put_cell(table_, r, 11, desk_.shown(std::abs(f.lean), Kind::length, 1), t.ink);
  }
  if (rows > 0) table_->setCurrentCell(static_cast<int>(picked_), 0);
}

void DrivePage::draw_costs() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  costs_->clear_all();
  costs_->clearItems();
  costs_->setVisible(drives() != nullptr);
  if (!drives()) return;
  costs_->xAxis->setLabel(tr("off, %1").arg(QString::fromStdString(unit_name(Kind::length, desk_.prefs()))));
  costs_->yAxis->setLabel(tr("air, g/h"));
  double most_x = 0, most_y = 0;
  QStringList said;
  for (std::size_t i = 0; i < drives()->driven.size(); ++i) {
    const assess::Driven& d = drives()->driven[i];
    const double x = in_shown_unit(d.result.together.usual_off, Kind::length, desk_.prefs());
    const double y = d.result.together.air / d.result.simulated * 3600 * 1e3;
    most_x = std::max(most_x, x), most_y = std::max(most_y, y);
    auto* dot = costs_->add_line(costs_->xAxis, costs_->yAxis, i == picked_ ? t.ink : t.second, 1.6);
    dot->setLineStyle(QCPGraph::lsNone);
    dot->setScatterStyle(
        QCPScatterStyle(i == picked_ ? QCPScatterStyle::ssDisc : QCPScatterStyle::ssCircle, look.px(9)));
    dot->addData(x, y);
    auto* name = new QCPItemText(costs_);
    name->setText(letter_of(i));
    name->setFont(look.font(TextSize::small, true));
    name->setColor(t.ink);
    name->position->setCoords(x, y);
    // By turns above and below, so that neighbours keep apart.
    name->setPositionAlignment(Qt::AlignLeft | (i % 2 == 0 ? Qt::AlignBottom : Qt::AlignTop));
    name->setPadding(QMargins(look.px(6), 0, 0, look.px(3)));
    said << tr("%1: off %2, %3 g an hour").arg(letter_of(i)).arg(x, 0, 'f', 1).arg(y, 0, 'f', 1);
  }
  costs_->xAxis->setRange(0, most_x > 0 ? most_x * 1.25 : 1);
  costs_->yAxis->setRange(most_y > 0 ? -0.3 * most_y : -0.3, most_y > 0 ? most_y * 1.55 : 1);
  costs_->setAccessibleName(tr("What each way costs: error against air. %1").arg(said.join(". ")));
  costs_->redraw();
}

void DrivePage::write_csv() {
  if (!drives() || picked_ >= drives()->driven.size()) return;
  const QString to = QFileDialog::getSaveFileName(this, tr("Write the drive"), {}, tr("CSV (*.csv)"));
  if (to.isEmpty() || desk_.refuses_to_write(to.toStdString())) return;
  const auto done = write_atomically(to.toStdString(), report::drive_csv(drives()->driven[picked_].result));
  desk_.tell(done ? tr("Written: %1").arg(to) : desk_.words_of(done.error()));
}

} // namespace mavrel::app
