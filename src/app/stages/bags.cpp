#include "app/stages/bags.h"

#include "app/desk.h"
#include "app/widgets/bag_table.h"
#include "app/widgets/chips.h"
#include "app/widgets/field.h"
#include "app/widgets/height_sheet.h"
#include "build/names.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QVBoxLayout>

namespace mavrel::app {

using build::at;

namespace {
constexpr std::pair<const char*, const char*> fitted[] = {
    {"upper_stack_m", QT_TRANSLATE_NOOP("bags", "upper stack")},
    {"lower_stack_m", QT_TRANSLATE_NOOP("bags", "lower stack")},
    {"damper_open_m", QT_TRANSLATE_NOOP("bags", "other damper, open")},
    {"damper_shut_m", QT_TRANSLATE_NOOP("bags", "other damper, shut")}};
}

BagsStage::BagsStage(Desk& desk, QWidget* parent)
    : StagePage(parent), desk_(desk), title_(new QLabel(this)), about_(new QLabel(this)),
      sheet_title_(new QLabel(this)), sheet_about_(new QLabel(this)), ends_(new Chips(desk, tr("End"), 80, this)),
      table_(new BagTable(desk, this)), sheet_(new HeightSheet(desk, this)), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  for (QLabel* label : {about_, sheet_about_})
    label->setProperty("quiet", true);
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(2 * u, u, 0, u);
  layout->setSpacing(u / 2);
  auto* head = new QHBoxLayout;
  head->setSpacing(u);
  head->addWidget(ends_);
  head->addWidget(title_);
  head->addWidget(about_, 1);
  head->setContentsMargins(0, 0, u, 0);
  layout->addLayout(head);
  layout->addWidget(table_, 4);
  layout->addSpacing(u / 2);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  row->setContentsMargins(0, 0, u, 0);
  auto* names = new QVBoxLayout;
  names->setSpacing(0);
  names->addWidget(sheet_title_);
  names->addWidget(sheet_about_);
  row->addLayout(names, 1);
  for (const auto& [key, caption] : fitted) {
    auto* field = new Field(desk_, QString("@.front.%1").arg(key), tr(caption), this);
    field->setFixedWidth(desk_.look().px(120));
    fit_fields_.push_back(field);
    row->addWidget(field);
  }
  layout->addLayout(row);
  auto* foot = new QHBoxLayout;
  foot->setSpacing(0);
  foot->addWidget(sheet_, 1);
  foot->addWidget(beside_);
  layout->addLayout(foot, 7);
  connect(ends_, &Chips::chosen, this, [this](int i) { desk_.set_end(static_cast<End>(i)); });
  connect(sheet_, &HeightSheet::band_moved, this, &StagePage::band_moved);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &BagsStage::refresh);
  refresh();
}

void BagsStage::refresh() {
  const Look& look = desk_.look();
  const End end = desk_.end();
  const QString key = build::key_of(end);
  ends_->show_choices({tr("Front"), tr("Rear")}, static_cast<int>(at(end)));
  title_->setFont(look.font(TextSize::large, true));
  title_->setText(end == End::front ? tr("Front bag") : tr("Rear bag"));
  for (QLabel* label : {about_, sheet_about_})
    label->setFont(look.font(TextSize::small));
  const auto& a = desk_.assessment();
  const QString load = QString::fromStdString(a.loads[desk_.load_case()].name);
  const auto& l = a.loads[desk_.load_case()].ends[at(end)];
  if (table_->model()->rowCount() == 0)
    about_->setText(desk_.shelf().bags.empty() ? tr("the shelf is empty")
                                               : tr("needs height, motion ratio and spring seat from Car in"));
  else
    about_->setText(l ? tr("every bag on the shelf on this corner, %1, %2 sprung")
                            .arg(load, desk_.shown(l->sprung_mass, Kind::mass))
                      : tr("weights are missing"));
  const auto& bag = desk_.build().variant().fit[at(end)].bag;
  sheet_title_->setFont(look.font(TextSize::large, true));
  sheet_title_->setText(bag.empty() ? tr("No bag chosen") : tr("%1 at every height").arg(QString::fromStdString(bag)));
  sheet_about_->setText(tr("%1 · %2 · drag the line, or ↑ ↓").arg(tr(build::name_of(end)).toLower(), load));
  for (std::size_t i = 0; i < fit_fields_.size(); ++i) {
    fit_fields_[i]->bind(QString("@.%1.%2").arg(key, fitted[i].first));
    if (i >= 2) fit_fields_[i]->edit()->setPlaceholderText(tr("as surveyed"));
  }
}

void BagsStage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

std::optional<std::pair<int, int>> BagsStage::band() const {
  const auto [top, bottom] = sheet_->band();
  return std::pair{sheet_->y() + top, sheet_->y() + bottom};
}

bool BagsStage::go_to(const QString& path) {
  if (path.endsWith(".bag")) {
    table_->setFocus(Qt::OtherFocusReason);
    return true;
  }
  for (Field* field : fit_fields_)
    if (desk_.resolve(field->path()) == path) {
      field->edit()->setFocus(Qt::OtherFocusReason);
      return true;
    }
  return false;
}

} // namespace mavrel::app
