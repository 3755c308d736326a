#include "app/stages/leveling/sensor_page.h"

#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/stages/leveling/questions.h"
#include "app/stages/leveling/sensor_view.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

using build::at;

SensorPage::SensorPage(Desk& desk, QWidget* parent) : Page(desk, parent), view_(new SensorView(desk, this)) {
  const int u = desk_.look().unit();
  auto* plot = new SensorPlot(desk, this);
  set_plot(plot);
  give_arrows_to(view_);
  auto* above = row(wide_column(), 5);
  above->setContentsMargins(0, 0, u, 0);
  above->addWidget(view_, 5);
  auto* numbers = new QGridLayout;
  numbers->setSpacing(u / 2);
  const std::pair<const char*, QString> captions[] = {
      {"pivot_y_m", tr("shaft, left")},   {"pivot_z_m", tr("shaft, up")},          {"lever_m", tr("lever")},
      {"pickup_y_m", tr("pickup, left")}, {"pickup_z_m", tr("pickup, up")},        {"rod_m", tr("rod")},
      {"ahead_m", tr("ahead of axle")},   {"pickup_ratio", tr("pickup's travel")}, {"range_rad", tr("reads over")},
      {"counts", tr("counts over that")}, {"noise_counts", tr("scatter, counts")}};
  for (const auto& [key, caption] : captions) {
    const int cell = static_cast<int>(fields_.size());
    fields_.emplace_back(new Field(desk_, path(key), caption, this), key);
    numbers->addWidget(fields_.back().first, cell / 3, cell % 3);
  }
  const auto choice = [&](const char* key, const QString& name, auto e) {
    auto* box = new ChoiceBox(desk_, path(key), name, rows_of(e), this);
    choices_.emplace_back(box, key);
    numbers->addWidget(box, 3 + static_cast<int>(choices_.size()), 0, 1, 3);
  };
  choice("crossing", tr("Lever and rod meet"), control::Crossing{});
  choice("mirrored", tr("The right one"), build::Mirrored{});
  words_ = small_words("sensor_words");
  numbers->addWidget(words_, 6, 0, 1, 3);
  auto* buttons = new QHBoxLayout;
  buttons->setSpacing(u / 2);
  place_ = button(buttons, tr("Place it"), "place_sensor", [this] { view_->place(); });
  best_[0] = button(buttons, {}, "best_lever_0", [this] { take_best(0); });
  best_[1] = button(buttons, {}, "best_lever_1", [this] { take_best(1); });
  buttons->addStretch(1);
  numbers->addLayout(buttons, 7, 0, 1, 3);
  numbers->setRowStretch(8, 1);
  above->addLayout(numbers, 4);
  beside_posts(4)->addWidget(plot, 1);
}

QString SensorPage::path(const char* key) const {
  return QString("@.leveling.%1_sensor.%2").arg(build::key_of(desk_.end()), key);
}

bool SensorPage::go_to(const QString& where) {
  if (where.contains("front_sensor")) desk_.set_end(End::front);
  if (where.contains("rear_sensor")) desk_.set_end(End::rear);
  fill();
  return Page::go_to(where);
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

void SensorPage::fill() {
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
  words_->setText(said());
}

QString SensorPage::said() const {
  const assess::SensorAtEnd& s = sensor_of(desk_, desk_.end());
  const build::SensorFit& fit = desk_.build().variant().leveling.sensors[at(desk_.end())];
  if (!s.linkage)
    return tr("%1, left side; the right one is the same the other way round.").arg(tr(build::name_of(desk_.end())));
  if (s.trouble) return desk_.words_of(*s.trouble);
  return tr("Over the travel the lever turns %1 of the %2 that are read; at road height a millimetre is %3 counts. The "
            "right one counts %4.%5")
      .arg(desk_.shown(s.sweep, Kind::angle, 0), desk_.shown(fit.range, Kind::angle, 0))
      .arg(s.counts_per_metre.value_or(0) * 1e-3, 0, 'f', 1)
      .arg(fit.mirrored == build::Mirrored::yes ? tr("the same way") : tr("the other way"),
           s.better.empty() ? tr(" No lever reads well from here: move shaft or pickup.")
                            : tr(" From here these read best:"));
}

} // namespace mavrel::app
