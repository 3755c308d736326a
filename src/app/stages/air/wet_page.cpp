#include "app/stages/air/wet_page.h"

#include "app/kit/chart.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "file/text_file.h"
#include "quantity/quantity.h"
#include "shelf/leak_csv.h"

#include <QComboBox>
#include <QFileDialog>
#include <QFileInfo>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <cmath>

namespace mavrel::app {

WetPage::WetPage(Desk& desk, QWidget* parent) : Page(desk, parent), chart_(new Chart(desk, this)) {
  follow(desk_.answers().of_the_car<FiguresQuestion>());
  auto* top = row(column());
  water_ = words("water_words", TextSize::normal);
  top->addWidget(water_, 1);
  for (const auto& [path, caption] :
       {std::pair{"surroundings.temperature_k", tr("air")}, std::pair{"surroundings.humidity", tr("humidity")},
        std::pair{"surroundings.night_temperature_k", tr("cold night")}}) {
    auto* field = new Field(desk_, path, caption, this);
    top->addWidget(field, 0, Qt::AlignTop);
  }
  table_ = table("climates", tr("Water by climate"),
                 {tr("air taken in"), tr("temperature"), tr("humidity"), tr("falls out a week"), tr("into the trap"),
                  tr("drain every"), tr("dryer lasts")});
  column()->addWidget(table_, 5);
  auto* leaks = row(column());
  leaks->addWidget(heading(tr("Leak"), true));
  place_ = new QComboBox(this);
  place_->setObjectName("leak_place");
  place_->setAccessibleName(tr("What was shut off"));
  for (std::size_t c = 0; c < 4; ++c)
    place_->addItem(tr(assess::corner_name(c)));
  place_->addItem(tr("Tank"));
  for (std::size_t c = 0; c < 4; ++c)
    place_->addItem(tr("%1, bag alone").arg(tr(assess::corner_name(c))));
  leaks->addWidget(place_);
  button(leaks, tr("Readings …"), "leak_readings", [this] {
    open();
  })->setToolTip(tr("A table of time_s, pressure_bar and temperature_c; it may be dropped on the window too"));
  leak_ = words("leak_words", TextSize::normal);
  leaks->addWidget(leak_, 1);
  column()->addWidget(chart_, 9);
  connect(place_, &QComboBox::activated, this, &WetPage::fill_leak);
}

void WetPage::open() {
  const QString file = QFileDialog::getOpenFileName(this, tr("Readings of a leak"), {}, tr("CSV (*.csv)"));
  if (!file.isEmpty()) take_file(file);
}

void WetPage::take_file(const QString& file) {
  const auto text = read_text(file.toStdString(), 1024 * 1024);
  if (!text) return desk_.tell(desk_.words_of(text.error()));
  const auto readings = shelf::read_leak_csv(*text);
  const QString name = QFileInfo(file).fileName();
  if (!readings) return desk_.tell(tr("%1: %2").arg(name, desk_.words_of(readings.error())));
  if (const auto found = air::find_leak(*readings, 1e-3); !found)
    return desk_.tell(tr("%1: %2").arg(name, desk_.words_of(found.error())));
  readings_[place()] = *readings;
  from_[place()] = name;
  refresh();
}

QString WetPage::leak_words() const {
  if (readings_[place()].empty())
    return tr(
        "Shut a corner or the tank off, read gauge and thermometer now and then for some hours, and give the table "
        "here: a cold night is told from a leak.");
  const assess::LeakPlaces all = assess::leaks_together(air_of(desk_), readings_, desk_.load_case());
  const Expected<assess::Leaking>& found = *all.places[place()];
  if (!found) return desk_.words_of(found.error());
  const auto grams = [&](double kg_s) { return QString::number(kg_s * 3600 * 1e3, 'f', 3); };
  QString out = tr("%1: %2 g an hour, known to ±%3 g, of %4 g. ")
                    .arg(from_[place()], grams(found->leak.loss), grams(found->leak.loss_sd),
                         QString::number(found->leak.mass * 1e3, 'f', 1));
  if (found->cold_night)
    out += tr("It does not leak: of the %1 that the gauge fell, the cold explains %2.")
               .arg(desk_.shown(found->fell, Kind::pressure, 2), desk_.shown(found->fell_by_cold, Kind::pressure, 2));
  else if (!found->leak.leaks())
    out += tr("That is no leak that the readings could tell.");
  else {
    out += tr("It leaks.");
    if (found->too_low_after)
      out += " " + tr("Below %1, too low to drive, after %2 h.")
                       .arg(desk_.shown(found->too_low_at, Kind::length),
                            QString::number(*found->too_low_after / 3600, 'f', 1));
    if (found->compressor_day)
      out += " " +
             tr("The compressor runs %1 a day for it.")
                 .arg(desk_.shown(*found->compressor_day, *found->compressor_day < 90 ? Kind::time : Kind::minutes, 0));
  }
  if (const auto corner = assess::corner_of(place()); corner && all.by_line[*corner])
    out += " " + tr("Of the corner's loss the line and its fittings have %1 g an hour, the bag %2 g.")
                     .arg(grams(*all.by_line[*corner]), grams(*all.by_bag[*corner]));
  const auto read = std::count_if(all.places.begin(), all.places.end(), [](const auto& p) { return p.has_value(); });
  if (read > 1 && all.worst && *all.worst != place())
    out += " " + tr("Of what was read, %1 loses most.").arg(place_->itemText(static_cast<int>(*all.worst)));
  return out;
}

std::size_t WetPage::place() const {
  return static_cast<std::size_t>(std::max(0, place_->currentIndex()));
}

void WetPage::fill_leak() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  leak_->setText(leak_words());
  chart_->clear_all();
  chart_->xAxis->setLabel(tr("hours"));
  chart_->yAxis->setLabel(tr("air, g"));
  chart_->yAxis2->setVisible(true);
  chart_->yAxis2->setLabel(unit_name(Kind::pressure, desk_.prefs()).c_str());
  chart_->yAxis2->setLabelColor(t.caution);
  chart_->yAxis2->setTickLabelColor(t.caution);
  const auto volume = assess::held_volume(air_of(desk_), place());
  const auto& readings = readings_[place()];
  const auto found = volume && !readings.empty()
                         ? air::find_leak(readings, *volume, desk_.build().surroundings.altitude)
                         : Expected<air::Leak>(refuse(mavrel::words("none")));
  if (found) {
    QVector<double> hours, grams, bars;
    for (const air::LeakReading& r : readings) {
      hours << r.time / 3600;
      grams << air::held_mass(r, *volume, desk_.build().surroundings.altitude) * 1e3;
      bars << in_shown_unit(r.gauge_pressure, Kind::pressure, desk_.prefs());
    }
    auto* pressure = chart_->add_line(chart_->xAxis, chart_->yAxis2, t.caution, 1.2, true);
    pressure->setData(hours, bars);
    auto* dots = chart_->add_line(chart_->xAxis, chart_->yAxis, t.front, 1);
    dots->setLineStyle(QCPGraph::lsNone);
    dots->setScatterStyle(QCPScatterStyle(QCPScatterStyle::ssCircle, look.px(6)));
    dots->setData(hours, grams);
    const auto [h0, h1] = std::minmax_element(hours.begin(), hours.end());
    auto* fit = chart_->add_line(chart_->xAxis, chart_->yAxis, t.ink, 2);
    fit->setData({*h0, *h1}, {found->mass_at(*h0 * 3600) * 1e3, found->mass_at(*h1 * 3600) * 1e3});
    const auto [m0, m1] = std::minmax_element(grams.begin(), grams.end());
    const auto [p0, p1] = std::minmax_element(bars.begin(), bars.end());
    const double span = std::max(*m1 - *m0, 0.02 * *m1), p_span = std::max(*p1 - *p0, 0.02 * std::max(1.0, *p1));
    chart_->xAxis->setRange(*h0, *h1 + (*h1 - *h0) * 0.02);
    chart_->yAxis->setRange((*m0 + *m1) / 2 - span * 0.7, (*m0 + *m1) / 2 + span * 0.7);
    chart_->yAxis2->setRange((*p0 + *p1) / 2 - p_span * 0.7, (*p0 + *p1) / 2 + p_span * 0.7);
  }
  chart_->setVisible(found.has_value());
  chart_->setAccessibleName(tr("Air held over time. %1").arg(leak_->text()));
  chart_->redraw();
}

void WetPage::fill() {
  fill_water();
  fill_leak();
}

void WetPage::fill_water() {
  const Tokens& t = desk_.look().tokens();
  const auto& asked = desk_.answers().of_the_car<FiguresQuestion>();
  const assess::KitFigures* figures = asked.value();
  if (!figures || !figures->day) {
    table_->setRowCount(0);
    const auto trouble = figures ? std::optional(figures->day.error()) : asked.trouble();
    return water_->setText(trouble ? desk_.words_of(*trouble) : tr("Working out the air of a day …"));
  }
  const auto wet = assess::wet_in(air_of(desk_), figures->day->air);
  const auto days = [&](const std::optional<double>& d) {
    return !d         ? QString("–")
           : *d > 700 ? tr("over two years")
           : *d < 60  ? tr("%1 days").arg(*d, 0, 'f', 0)
                      : tr("%1 months").arg(*d / 30.4, 0, 'f', 0);
  };
  table_->fill(wet.size(), [&](std::size_t r, ListTable::Row& row) {
    const assess::Wet& w = wet[r];
    const QColor ink = w.freezes ? t.caution : t.ink;
    row.words((w.freezes ? "△ " : "") + desk_.words_of(w.name), ink)
        .figure(desk_.shown(w.temperature, Kind::temperature), ink)
        .figure(desk_.shown(w.humidity, Kind::share), ink)
        .figure(tr("%1 g").arg(w.liquid * 1e3, 0, 'f', 1), ink)
        .figure(tr("%1 g").arg(w.trapped * 1e3, 0, 'f', 1), ink)
        .figure(days(w.drain_days), ink)
        .figure(days(w.dryer_days), ink);
  });
  QString text = tr("%1 g of air a day.").arg(figures->day->air * 1e3, 0, 'f', 0);
  if (air_of(desk_).parts[assess::KitRole::dryer])
    text += " " + tr("While the dryer lasts the tank stays dry; once it is spent, drain it as often as said.");
  else
    text += " " + tr("Without a dryer the tank is drained as often as said.");
  if (!wet.empty() && wet.front().freezes)
    text += " " + tr("△ Nights are frosty: let the water out before them, or valves freeze shut.");
  water_->setText(text);
}

} // namespace mavrel::app
