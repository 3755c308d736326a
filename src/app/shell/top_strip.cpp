#include "app/shell/top_strip.h"

#include "app/desk/desk.h"
#include "app/desk/edits.h"
#include "app/kit/chips.h"
#include "app/kit/plain.h"
#include "quantity/quantity.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QToolButton>

namespace mavrel::app {

TopStrip::TopStrip(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), car_(new PlainLabel(this)), job_(new PlainLabel(this)),
      saved_(new PlainLabel(this)), variants_(new Chips(desk, tr("Variant"), 96, this)),
      loads_(new Chips(desk, tr("Load case"), 96, this)), add_variant_(new QToolButton(this)),
      units_(new QToolButton(this)) {
  setObjectName("top_strip");
  setAttribute(Qt::WA_StyledBackground);
  for (QLabel* label : {job_, saved_})
    label->setProperty("quiet", true);
  auto* row = new QHBoxLayout(this);
  const int u = desk_.look().unit();
  row->setContentsMargins(2 * u, u / 2, u, u / 2);
  row->setSpacing(u);
  row->addWidget(car_);
  row->addWidget(job_);
  row->addStretch(1);
  row->addWidget(variants_);
  add_variant_->setText("+");
  add_variant_->setToolTip(tr("Keep this design and go on with a copy (Ctrl+D)"));
  add_variant_->setAccessibleName(tr("New variant"));
  row->addWidget(add_variant_);
  row->addStretch(1);
  row->addWidget(loads_);
  row->addStretch(1);
  units_->setProperty("plain", true);
  units_->setToolTip(tr("Units"));
  row->addWidget(units_);
  row->addWidget(saved_);
  connect(variants_, &Chips::chosen, this, [this](int i) { use_variant(desk_, static_cast<std::size_t>(i)); });
  connect(loads_, &Chips::chosen, this, [this](int i) { desk_.set_load_case(static_cast<std::size_t>(i)); });
  connect(add_variant_, &QToolButton::clicked, this, [this] { add_variant(desk_); });
  connect(units_, &QToolButton::clicked, this,
          [this] { emit units_wanted(units_->mapToGlobal(QPoint(0, units_->height()))); });
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &TopStrip::refresh);
  refresh();
}

void TopStrip::refresh() {
  const Look& look = desk_.look();
  const build::Build& build = desk_.build();
  car_->setFont(look.font(TextSize::large, true));
  car_->setText(build.job.car.empty() ? tr("Unnamed car") : QString::fromStdString(build.job.car));
  for (QLabel* label : {job_, saved_})
    label->setFont(look.font(TextSize::small));
  job_->setText(build.job.number.empty() ? QString() : tr("job %1").arg(QString::fromStdString(build.job.number)));
  QStringList names;
  for (const auto& variant : build.variants)
    names << QString::fromStdString(variant.name);
  variants_->show_choices(names, static_cast<int>(build.active_variant));
  names.clear();
  for (const auto& load : desk_.assessment().loads)
    names << QString::fromStdString(load.name);
  loads_->show_choices(names, static_cast<int>(desk_.load_case()));
  units_->setFont(look.font(TextSize::small));
  units_->setText(QString("%1 · %2 · %3")
                      .arg(unit_name(Kind::length, desk_.prefs()).c_str(),
                           unit_name(Kind::pressure, desk_.prefs()).c_str(),
                           unit_name(Kind::mass, desk_.prefs()).c_str()));
  units_->setAccessibleName(tr("Units: %1").arg(units_->text()));
  saved_->setText(desk_.document().is_saved()       ? tr("saved")
                  : desk_.document().file().empty() ? tr("in no file yet")
                                                    : tr("not saved"));
}

} // namespace mavrel::app
