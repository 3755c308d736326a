#include "app/stages/leveling/drive_page.h"

#include "app/kit/chart.h"
#include "app/kit/choice_box.h"
#include "app/kit/list_table.h"
#include "app/stages/leveling/drive_plot.h"
#include "quantity/quantity.h"
#include "report/leveling_json.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {
constexpr double before_event = 30, after_event = 150; // s of a closer look
}

DrivePage::DrivePage(Desk& desk, QWidget* parent)
    : Page(desk, parent), answer_(
                              desk.answers(), [this] { refresh(); }, [this] { return leveling_of(desk_); }),
      costs_(new Chart(desk, this)), plot_(new DrivePlot(desk, this)), strips_(new ErrorStrips(desk, *plot_, this)),
      span_(new QComboBox(this)) {
  const int u = desk_.look().unit();
  follow(answer_);
  set_plot(plot_);
  auto* drive = row(wide_column());
  drive->setContentsMargins(0, 0, u, 0);
  drive->addWidget(new ChoiceBox(desk_, "drive.road", tr("Road"), rows_of(control::RoadClass{}), this), 2,
                   Qt::AlignBottom);
  drive->addWidget(new ChoiceBox(desk_, "drive.profile", tr("Drive"), rows_of(control::SpeedProfile{}), this), 2,
                   Qt::AlignBottom);
  fields(drive, "drive.",
         {{"speed_m_per_s", tr("speed, steady")}, {"duration_s", tr("how long")}, {"seed", tr("seed")}}, 1);
  span_->setObjectName("drive_span");
  span_->setAccessibleName(tr("Stretch of the drive"));
  span_->setMinimumContentsLength(12);
  span_->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
  drive->addWidget(span_, 2, Qt::AlignBottom);
  auto* above = row(wide_column());
  above->setContentsMargins(0, 0, u, 0);
  table_ = table("drives", tr("Methods of keeping the height"),
                 {tr("method"), tr("error, 95 %"), tr("mean"), tr("in band"), tr("low by"), tr("bursts/h"),
                  tr("valves/h"), tr("air/h"), tr("pump/h"), tr("overshoot"), tr("settles in"), tr("lean")});
  table_->setFixedHeight(desk_.look().px(124));
  above->addWidget(table_, 1);
  costs_->setFixedSize(desk_.look().px(124), desk_.look().px(124));
  costs_->setObjectName("costs");
  costs_->xAxis->ticker()->setTickCount(3); // more would touch
  above->addWidget(costs_);
  auto* line = row(wide_column());
  line->setContentsMargins(0, 0, u, 0);
  under_way_ = cut_words("drive_words");
  line->addWidget(under_way_, 1);
  given_ = button(line, tr("The car gets this one"), "gets_this", [this] { give_to_car(desk_, picked_); });
  csv_ = button(line, tr("CSV …"), "drive_csv", [this] { write_csv(); });
  auto* plots = beside_posts(1);
  plots->setSpacing(u / 2);
  plots->addWidget(plot_, 1);
  plots->addWidget(strips_);
  connect(strips_, &ErrorStrips::picked, this, &DrivePage::pick);
  connect(table_, &ListTable::chose, this, &DrivePage::pick);
  connect(span_, &QComboBox::activated, this, &DrivePage::look_at_span);
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

void DrivePage::pick(std::size_t set_up) {
  if (picked_ == set_up) return;
  picked_ = set_up;
  refresh();
}

void DrivePage::show_spans() {
  QStringList spans = {tr("whole drive")}, there;
  for (const build::DriveEvent& e : desk_.build().drive.events)
    spans << QString::fromStdString(e.name.empty() ? build::name_of(e.kind) : e.name);
  for (int i = 0; i < span_->count(); ++i)
    there << span_->itemText(i);
  if (there == spans) return;
  const QSignalBlocker quiet(span_);
  span_->clear();
  span_->addItems(spans);
  look_at_span(0);
}

void DrivePage::fill() {
  show_spans();
  const assess::Drives* shown = drives();
  const QString why = why_not(desk_, answer_, tr("Driving …"));
  if (shown && picked_ >= shown->driven.size()) picked_ = 0;
  fill_table();
  draw_costs();
  plot_->show_drives(shown, picked_, why);
  strips_->show_drives(shown, picked_);
  csv_->setEnabled(answer_.value() != nullptr); // what is written is what is asked, not what was
  const auto& leveling = desk_.build().variant().leveling;
  given_->setEnabled(picked_ < leveling.set_ups.size() && &leveling.set_ups[picked_] != &leveling.set_up());
  if (!shown || answer_.is_running()) return under_way_->setText(shown ? why : QString());
  const std::size_t count = shown->driven.size();
  const QString of = desk_.shown(shown->driven.front().result.simulated, Kind::minutes, 0),
                in = desk_.shown(shown->driven.front().result.wall, Kind::time, 1);
  under_way_->setText(count == 1 ? tr("One drive of %1 in %2. ● the car gets it.").arg(of, in)
                                 : tr("%1 drives of %2 in %3, each on the same road from the same seed. ● the car gets "
                                      "it.")
                                       .arg(QString::number(count), of, in));
}

void DrivePage::fill_table() {
  const Tokens& t = desk_.look().tokens();
  const auto& leveling = desk_.build().variant().leveling;
  const auto& events = desk_.build().drive.events;
  const bool loaded =
      std::any_of(events.begin(), events.end(), [](const auto& e) { return e.kind == build::DriveEventKind::load; });
  const assess::Drives* shown = drives();
  table_->fill(shown ? shown->driven.size() : 0, [&](std::size_t r, ListTable::Row& row) {
    const assess::Driven& d = shown->driven[r];
    const control::DriveFigures& f = d.result.together;
    const double hours = d.result.simulated / 3600;
    const bool gets = r < leveling.set_ups.size() && &leveling.set_ups[r] == &leveling.set_up();
    row.words(letter_of(r) + (gets ? " ● " : "  ") + QString::fromStdString(d.name), t.ink)
        .figure(desk_.shown(f.usual_off, Kind::length, 1), t.ink)
        .figure(desk_.shown(f.mean_error, Kind::length, 1), t.ink)
        .figure(desk_.shown(f.in_band, Kind::share, 0), t.ink)
        .figure(desk_.shown(std::max(0.0, f.usual_low), Kind::length, 1), t.ink)
        .figure(QString::number(f.bursts / hours, 'f', 0), t.ink)
        .figure(desk_.shown(f.valve_s / hours, Kind::time, 1), t.ink)
        .figure(tr("%1 g").arg(f.air / hours * 1e3, 0, 'f', 1), t.ink)
        .figure(desk_.shown(d.result.compressor_s / hours, Kind::minutes, 1), t.ink)
        .figure(desk_.shown(f.overshoot, Kind::length, 1), t.ink)
        .figure(!loaded     ? "–"
                : f.recover ? desk_.shown(*f.recover, Kind::time, 0)
                            : tr("never"),
                loaded && !f.recover ? t.stop : t.ink)
        .figure(desk_.shown(std::abs(f.lean), Kind::length, 1), t.ink);
    if (r == picked_) row.hold();
  });
}

void DrivePage::draw_costs() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  costs_->clear_all();
  costs_->clearItems();
  const assess::Drives* shown = drives();
  costs_->setVisible(shown != nullptr);
  if (!shown) return;
  costs_->xAxis->setLabel(tr("off, %1").arg(QString::fromStdString(unit_name(Kind::length, desk_.prefs()))));
  costs_->yAxis->setLabel(tr("air, g/h"));
  double most_x = 0, most_y = 0;
  QStringList said;
  for (std::size_t i = 0; i < shown->driven.size(); ++i) {
    const assess::Driven& d = shown->driven[i];
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
  costs_->xAxis->setRange(0, most_x > 0 ? most_x * 1.5 : 1);
  costs_->yAxis->setRange(most_y > 0 ? -0.3 * most_y : -0.3, most_y > 0 ? most_y * 1.55 : 1);
  costs_->setAccessibleName(tr("What each way costs: error against air. %1").arg(said.join(". ")));
  costs_->redraw();
}

void DrivePage::write_csv() {
  if (const assess::Drives* now = answer_.value(); now && picked_ < now->driven.size())
    save_csv(tr("Write the drive"), report::drive_csv(now->driven[picked_].result));
}

} // namespace mavrel::app
