#include "app/kit/paged_stage.h"

#include "app/desk/desk.h"
#include "app/kit/chips.h"
#include "app/kit/choice_box.h"
#include "app/kit/field.h"

#include <QScrollArea>
#include <QStackedWidget>
#include <QVBoxLayout>

#include <utility>

namespace mavrel::app {

PagedStage::PagedStage(Desk& desk, QWidget* parent)
    : StagePage(parent), desk_(desk), chips_(new Chips(desk, tr("Page"), 130, this)), stack_(new QStackedWidget(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(2 * u, u, 0, u);
  layout->setSpacing(u / 2);
  auto* head = new QHBoxLayout;
  head->setContentsMargins(0, 0, u, 0);
  head->addWidget(chips_);
  head->addStretch(1);
  layout->addLayout(head);
  layout->addWidget(stack_, 1);
  connect(chips_, &Chips::chosen, this, &PagedStage::show_page);
  connect(&desk_, &Desk::restyled, this, &PagedStage::refresh);
}

void PagedStage::take(Entry entry) {
  entry.widget = new QWidget(stack_); // in its place until somebody looks
  stack_->addWidget(entry.widget);
  entries_.push_back(std::move(entry));
  refresh();
}

void PagedStage::ensure(int place) {
  if (place < 0 || static_cast<std::size_t>(place) >= entries_.size()) return;
  Entry& entry = entries_[static_cast<std::size_t>(place)];
  const auto make = std::exchange(entry.make, {});
  if (!make) return;
  QWidget* const stood = entry.widget;
  const bool shown = stack_->currentIndex() == place;
  make(entry);
  entry.reserve_right(reserved_);
  stack_->insertWidget(place, entry.widget);
  stack_->removeWidget(stood);
  delete stood;
  if (!shown) return;
  stack_->setCurrentIndex(place);
  emit band_moved();
}

void PagedStage::showEvent(QShowEvent* event) {
  StagePage::showEvent(event);
  ensure(page());
}

void PagedStage::arrive() {
  ensure(page());
}

void PagedStage::refresh() {
  QStringList names;
  for (const Entry& entry : entries_)
    names << entry.name;
  chips_->show_choices(names, stack_->currentIndex());
}

void PagedStage::show_page(int page) {
  ensure(page);
  stack_->setCurrentIndex(page);
  refresh();
  emit band_moved();
}

int PagedStage::page() const {
  return stack_->currentIndex();
}

std::optional<std::pair<int, int>> PagedStage::band() const {
  if (page() < 0) return std::nullopt;
  const Entry& shown = entries_[static_cast<std::size_t>(page())];
  if (!shown.band) return std::nullopt;
  const auto [top, bottom] = shown.band();
  const int y = shown.widget->mapTo(this, QPoint(0, 0)).y();
  return std::pair{y + top, y + bottom};
}

void PagedStage::reserve_right(int px) {
  reserved_ = px;
  for (const Entry& entry : entries_)
    if (entry.reserve_right) entry.reserve_right(px);
}

std::vector<Command> PagedStage::page_commands(const QString& stage) {
  std::vector<Command> out;
  for (int i = 0; i < static_cast<int>(entries_.size()); ++i) {
    QString name = entries_[static_cast<std::size_t>(i)].name;
    name[0] = name[0].toLower();
    out.push_back({Command::Menu::view, tr("%1: %2").arg(stage, name), {}, [this, i] {
                     emit called();
                     show_page(i);
                   }});
  }
  return out;
}

bool go_to_field(const Desk& desk, const QWidget* page, const QString& path) {
  for (QWidget* widget : page->findChildren<QWidget*>()) {
    auto* box = qobject_cast<ChoiceBox*>(widget);
    auto* field = qobject_cast<Field*>(widget);
    if (box && desk.resolve(box->path()) == path) {
      box->setFocus(Qt::OtherFocusReason);
      return true;
    }
    if (field && desk.resolve(field->path()) == path) {
      field->edit()->setFocus(Qt::OtherFocusReason);
      return true;
    }
  }
  return false;
}

QWidget* scrolled(QWidget* inside, QWidget* parent) {
  auto* area = new QScrollArea(parent);
  area->setWidgetResizable(true);
  area->setFrameShape(QFrame::NoFrame);
  area->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  area->setFocusPolicy(Qt::NoFocus);
  area->viewport()->setAutoFillBackground(false);
  inside->setAutoFillBackground(false);
  area->setWidget(inside);
  return area;
}

} // namespace mavrel::app
