#include "app/shell/top_strip.h"

#include "app/desk/desk.h"
#include "app/desk/edits.h"
#include "app/kit/chips.h"
#include "app/kit/plain.h"
#include "quantity/quantity.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QToolButton>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {
constexpr double most_of_name = 260; // px at normal text
} // namespace

TopStrip::TopStrip(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), car_(new PlainLabel(this)), job_(new PlainLabel(this)),
      saved_(new PlainLabel(this)), variants_(new Chips(desk, tr("Variant"), 96, this)),
      loads_(new Chips(desk, tr("Load case"), 96, this)), add_variant_(new QToolButton(this)),
      units_(new QToolButton(this)) {
  setObjectName("top_strip");
  setAttribute(Qt::WA_StyledBackground);
  for (QLabel* label : {job_, saved_})
    label->setProperty("quiet", true);
  auto* rows = new QVBoxLayout(this);
  const int u = desk_.look().unit();
  rows->setContentsMargins(2 * u, u / 2, u, u / 2);
  rows->setSpacing(u / 2);
  for (QHBoxLayout** row : {&first_, &second_}) {
    *row = new QHBoxLayout;
    (*row)->setSpacing(u);
    rows->addLayout(*row);
  }
  setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred); // it finds room for itself
  add_variant_->setText("+");
  add_variant_->setToolTip(tr("Keep this design and go on with a copy (Ctrl+D)"));
  add_variant_->setAccessibleName(tr("New variant"));
  units_->setProperty("plain", true);
  units_->setToolTip(tr("Units"));
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
  const QString car = build.job.car.empty() ? tr("Unnamed car") : QString::fromStdString(build.job.car);
  car_->setText(car_->fontMetrics().elidedText(car, Qt::ElideRight, look.px(most_of_name)));
  car_->setToolTip(car_->text() == car ? QString() : car);
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
  arrange();
}

/// What is chosen among stands in a row of its own where one row is too narrow for all of it; what is only told gives
/// way where even that is.
void TopStrip::arrange() {
  const int apart = 3 * desk_.look().unit();
  const auto width_of = [apart](std::initializer_list<const QWidget*> some) {
    int sum = 0;
    for (const QWidget* one : some)
      sum += one->sizeHint().width() + apart;
    return sum;
  };
  const int room = width();
  const bool one_row = width_of({car_, job_, variants_, add_variant_, loads_, units_, saved_}) <= room;
  job_->setVisible(!job_->text().isEmpty() && (one_row || width_of({car_, job_, units_, saved_}) <= room));
  if (one_row == one_row_ && first_->count() > 0) return;
  one_row_ = one_row;
  for (QHBoxLayout* row : {first_, second_})
    while (QLayoutItem* item = row->takeAt(0))
      delete item;
  first_->addWidget(car_);
  first_->addWidget(job_);
  first_->addStretch(1);
  QHBoxLayout* of_choices = one_row ? first_ : second_;
  of_choices->addWidget(variants_);
  of_choices->addWidget(add_variant_);
  of_choices->addStretch(1);
  of_choices->addWidget(loads_);
  if (one_row) first_->addStretch(1);
  first_->addWidget(units_);
  first_->addWidget(saved_);
  updateGeometry();
}

void TopStrip::resizeEvent(QResizeEvent* event) {
  QWidget::resizeEvent(event);
  arrange();
}

} // namespace mavrel::app
