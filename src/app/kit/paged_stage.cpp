#include "app/kit/paged_stage.h"
#include "app/kit/page_stack.h"

#include "app/kit/chips.h"
#include "app/theme/look.h"

#include <QVBoxLayout>

#include <utility>

namespace mavrel::app {

PagedStage::PagedStage(Desk& desk, QWidget* parent)
    : StagePage(desk, parent), chips_(new Chips(desk, tr("Page"), 130, this)), stack_(new PageStack(this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const all = wide_column();
  layout()->setContentsMargins(2 * u, u, 0, u);
  head_ = row(all);
  head_->setContentsMargins(0, 0, u, 0);
  head_->addWidget(chips_);
  head_->addStretch(1);
  all->addWidget(stack_, 1);
  connect(chips_, &Chips::chosen, this, &PagedStage::show_page);
}

QWidget* PagedStage::where() const {
  return stack_;
}

void PagedStage::take(Entry entry) {
  entry.stands = new QWidget(stack_); // in its place until somebody looks
  stack_->addWidget(entry.stands);
  entries_.push_back(std::move(entry));
  PagedStage::fill();
}

void PagedStage::ensure(int place) {
  if (place < 0 || static_cast<std::size_t>(place) >= entries_.size()) return;
  Entry& entry = entries_[static_cast<std::size_t>(place)];
  const auto make = std::exchange(entry.make, {});
  if (!make) return;
  QWidget* const stood = entry.stands;
  const bool is_shown = stack_->currentIndex() == place;
  entry.page = make();
  entry.stands = entry.page;
  connect(entry.page, &Page::band_moved, this, &Page::band_moved);
  entry.page->reserve_right(reserved_);
  stack_->insertWidget(place, entry.page);
  stack_->removeWidget(stood);
  delete stood;
  made(place);
  if (!is_shown) return;
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

void PagedStage::fill() {
  QStringList names;
  for (const Entry& entry : entries_)
    names << entry.name;
  chips_->show_choices(names, stack_->currentIndex());
}

void PagedStage::show_page(int page) {
  ensure(page);
  stack_->setCurrentIndex(page);
  fill();
  emit band_moved();
}

int PagedStage::page() const {
  return stack_->currentIndex();
}

Page* PagedStage::shown() const {
  return page() < 0 ? nullptr : entries_[static_cast<std::size_t>(page())].page;
}

bool PagedStage::go_to(const QString& path) {
  std::optional<int> found;
  for (std::size_t i = 0; i < entries_.size() && !found; ++i)
    for (const QString& part : entries_[i].parts)
      if (path.contains(part)) found = static_cast<int>(i);
  const int there = found.value_or(home_);
  show_page(there);
  entries_[static_cast<std::size_t>(there)].page->make_ready();
  return entries_[static_cast<std::size_t>(there)].page->go_to(path);
}

bool PagedStage::takes_arrows() const {
  return shown() && shown()->takes_arrows();
}

std::optional<std::pair<int, int>> PagedStage::band() const {
  const auto band = shown() ? shown()->band() : std::nullopt;
  if (!band) return std::nullopt;
  const int y = shown()->mapTo(this, QPoint(0, 0)).y();
  return std::pair{y + band->first, y + band->second};
}

bool PagedStage::reads_heights() const {
  return shown() && shown()->reads_heights();
}

void PagedStage::reserve_right(int px) {
  reserved_ = px;
  for (const Entry& entry : entries_)
    if (entry.page) entry.page->reserve_right(px);
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

Command PagedStage::file_command(const QString& name, int page, std::function<void()> act) {
  return {Command::Menu::file, name, {}, [this, page, act = std::move(act)] {
            emit called();
            show_page(page);
            act();
          }};
}

} // namespace mavrel::app
