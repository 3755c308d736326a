#include "app/stages/leveling/sensor_page.h"

#include "app/desk/desk.h"
#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/kit/paged_stage.h"
#include "app/stages/leveling/questions.h"
#include "app/stages/leveling/sensor_view.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

using build::at;

SensorPage::SensorPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), view_(new SensorView(desk, this)), plot_(new SensorPlot(desk, this)),
      place_(new QPushButton(tr("Place it"), this)), words_(new QLabel(this)), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  auto* above = new QHBoxLayout;
  above->setSpacing(u);
  above->addWidget(view_, 5);
  auto* numbers = new QGridLayout;
  numbers->setHorizontalSpacing(u / 2);
  numbers->setVerticalSpacing(u / 2);
  int cell = 0;
  const auto add = [&](const char* key, const QString& caption) {
    auto* field = new Field(desk_, path(key), caption, this);
    fields_.emplace_back(field, key);
    numbers->addWidget(field, cell / 3, cell % 3);
    ++cell;
  };
  add("pivot_y_m", tr("shaft, left"));
  add("pivot_z_m", tr("shaft, up"));
  add("lever_m", tr("lever"));
  add("pickup_y_m", tr("pickup, left"));
  add("pickup_z_m", tr("pickup, up"));
  add("rod_m", tr("rod"));
  add("ahead_m", tr("ahead of axle"));
  add("pickup_ratio", tr("pickup's travel"));
  add("range_rad", tr("reads over"));
  add("counts", tr("counts over that"));
  add("noise_counts", tr("scatter, counts"));
  ++cell;
  const auto choice = [&](const char* key, const QString& name, auto e) {
    auto* box = new ChoiceBox(desk_, path(key), name, rows_of(e), this);
    choices_.emplace_back(box, key);
    numbers->addWidget(box, 4 + static_cast<int>(choices_.size()) - 1, 0, 1, 3);
  };
  choice("crossing", tr("Lever and rod meet"), control::Crossing{});
  choice("mirrored", tr("The right one"), build::Mirrored{});
  words_->setWordWrap(true);
  words_->setObjectName("sensor_words");
  numbers->addWidget(words_, 6, 0, 1, 3);
  auto* buttons = new QHBoxLayout;
  buttons->setSpacing(u / 2);
  place_->setObjectName("place_sensor");
  buttons->addWidget(place_);
  for (int i = 0; i < 2; ++i) {
    best_[i] = new QPushButton(this);
    best_[i]->setObjectName(QString("best_lever_%1").arg(i));
    buttons->addWidget(best_[i]);
    connect(best_[i], &QPushButton::clicked, this, [this, i] { take_best(i); });
  }
  buttons->addStretch(1);
  numbers->addLayout(buttons, 7, 0, 1, 3);
  numbers->setRowStretch(8, 1);
  above->addLayout(numbers, 4);
  above->addSpacing(u);
  layout->addLayout(above, 5);
  auto* below = new QHBoxLayout;
  below->setSpacing(0);
  below->addWidget(plot_, 1);
  below->addWidget(beside_);
  layout->addLayout(below, 4);
  connect(place_, &QPushButton::clicked, view_, &SensorView::place);
  connect(plot_, &SensorPlot::band_moved, this, &SensorPage::band_moved);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &SensorPage::refresh);
  refresh();
}

QString SensorPage::path(const char* key) const {
  return QString("@.leveling.%1_sensor.%2").arg(build::key_of(desk_.end()), key);
}

std::pair<int, int> SensorPage::band() const {
  const auto [top, bottom] = plot_->band();
  const int y = plot_->mapTo(this, QPoint(0, 0)).y();
  return {y + top, y + bottom};
}

void SensorPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

bool SensorPage::go_to(const QString& where) {
  if (where.contains("front_sensor")) desk_.set_end(End::front);
  if (where.contains("rear_sensor")) desk_.set_end(End::rear);
  refresh();
  return go_to_field(desk_, this, where);
}

void SensorPage::take_best(int which) {
  const auto& better = sensor_of(desk_, desk_.end()).better;
  if (which < 0 || static_cast<std::size_t>(which) >= better.size()) return;
  const control::SensorLinkage& best = better[static_cast<std::size_t>(which)].linkage;
  build::Build next = desk_.build();
  build::SensorFit& fit = next.variant().leveling.sensors[at(desk_.end())];
  fit.lever = best.lever, fit.rod = best.rod, fit.crossing = best.crossing;
  desk_.edit(tr("Take the lever and rod that read best"), std::move(next));
}

void SensorPage::refresh() {
  const Look& look = desk_.look();
  words_->setFont(look.font(TextSize::small));
  for (const auto& [field, key] : fields_)
    field->bind(path(key));
  for (const auto& [box, key] : choices_)
    box->bind(path(key));
  const assess::SensorAtEnd& s = sensor_of(desk_, desk_.end());
  place_->setVisible(!s.linkage);
  for (int i = 0; i < 2; ++i) {
    const bool there = static_cast<std::size_t>(i) < s.better.size();
    best_[i]->setVisible(there);
    if (!there) continue;
    const auto& best = s.better[static_cast<std::size_t>(i)];
    best_[i]->setText(tr("Lever %1, rod %2, %3")
                          .arg(desk_.shown(best.linkage.lever, Kind::length),
                               desk_.shown(best.linkage.rod, Kind::length),
                               best.linkage.crossing == control::Crossing::above ? tr("above") : tr("below")));
    best_[i]->setToolTip(
        tr("Turns %1 over the travel, at most %2 off square")
            .arg(desk_.shown(best.sweep, Kind::angle, 0), desk_.shown(best.off_square, Kind::angle, 0)));
  }
  if (!s.linkage) {
    words_->setText(
        tr("%1, left side; the right one is the same the other way round.").arg(tr(build::name_of(desk_.end()))));
    return;
  }
  if (s.trouble) {
    words_->setText(desk_.words_of(*s.trouble));
    return;
  }
  words_->setText(tr("Over the travel the lever turns %1 of the %2 that are read; at road height a millimetre is %3 "
                     "counts. The right one counts %4.%5")
                      .arg(desk_.shown(s.sweep, Kind::angle, 0),
                           desk_.shown(desk_.build().variant().leveling.sensors[at(desk_.end())].range, Kind::angle, 0))
                      .arg(s.counts_per_metre.value_or(0) * 1e-3, 0, 'f', 1)
                      .arg(desk_.build().variant().leveling.sensors[at(desk_.end())].mirrored == build::Mirrored::yes
                               ? tr("the same way")
                               : tr("the other way"))
                      .arg(s.better.empty() ? tr(" No lever reads well from here: move shaft or pickup.")
                                            : tr(" From here these read best:")));
}

} // namespace mavrel::app
