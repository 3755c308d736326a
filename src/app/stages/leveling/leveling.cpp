#include "app/stages/leveling/leveling.h"

#include "app/desk/desk.h"
#include "app/kit/chips.h"
#include "app/stages/leveling/bench_page.h"
#include "app/stages/leveling/drive_page.h"
#include "app/stages/leveling/rules_page.h"
#include "app/stages/leveling/sensor_page.h"
#include "app/stages/leveling/sensor_view.h"
#include "app/stages/leveling/store_page.h"
#include "app/stages/leveling/tuning_page.h"

#include <QStackedWidget>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {
constexpr int drive_page = 0, rules_page = 1, tuning_page = 2, sensor_page = 3, store_page = 4, bench_page = 5;
}

LevelingStage::LevelingStage(Desk& desk, QWidget* parent)
    : StagePage(parent), desk_(desk), pages_(new Chips(desk, tr("Page"), 130, this)), stack_(new QStackedWidget(this)),
      drive_(new DrivePage(desk, this)), rules_(new RulesPage(desk, this)), tuning_(new TuningPage(desk, this)),
      sensor_(new SensorPage(desk, this)), store_(new StorePage(desk, this)), bench_(new BenchPage(desk, this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(2 * u, u, 0, u);
  layout->setSpacing(u / 2);
  auto* head = new QHBoxLayout;
  head->setContentsMargins(0, 0, u, 0);
  head->addWidget(pages_);
  head->addStretch(1);
  layout->addLayout(head);
  layout->addWidget(stack_, 1);
  for (QWidget* page : std::initializer_list<QWidget*>{drive_, rules_, tuning_, sensor_, store_, bench_})
    stack_->addWidget(page);
  connect(pages_, &Chips::chosen, this, &LevelingStage::show_page);
  connect(drive_, &DrivePage::band_moved, this, &StagePage::band_moved);
  connect(sensor_, &SensorPage::band_moved, this, &StagePage::band_moved);
  connect(bench_, &BenchPage::band_moved, this, &StagePage::band_moved);
  connect(&desk_, &Desk::restyled, this, &LevelingStage::refresh);
  refresh();
}

void LevelingStage::refresh() {
  pages_->show_choices({tr("On the road"), tr("Rules"), tr("Tuning"), tr("Sensors"), tr("What is stored"), tr("Bench")},
                       stack_->currentIndex());
}

void LevelingStage::show_page(int page) {
  stack_->setCurrentIndex(page);
  refresh();
  emit band_moved();
}

std::optional<std::pair<int, int>> LevelingStage::band() const {
  const auto of = [&](const auto* page) {
    const auto [top, bottom] = page->band();
    const int y = page->mapTo(this, QPoint(0, 0)).y();
    return std::pair{y + top, y + bottom};
  };
  switch (stack_->currentIndex()) {
  case drive_page:
    return of(drive_);
  case sensor_page:
    return of(sensor_);
  case bench_page:
    return of(bench_);
  default:
    return std::nullopt;
  }
}

void LevelingStage::reserve_right(int px) {
  drive_->reserve_right(px);
  rules_->reserve_right(px);
  tuning_->reserve_right(px);
  sensor_->reserve_right(px);
  store_->reserve_right(px);
  bench_->reserve_right(px);
}

bool LevelingStage::takes_arrows() const {
  return stack_->currentIndex() == sensor_page && sensor_->view()->hasFocus();
}

bool LevelingStage::owns(const QString& path) const {
  return path.startsWith("drive.") || (path.startsWith("variants.") && path.contains(".leveling."));
}

bool LevelingStage::go_to(const QString& path) {
  if (path.contains("_sensor.")) {
    show_page(sensor_page);
    return sensor_->go_to(path);
  }
  if (path.startsWith("drive.") && !path.contains(".events.")) {
    show_page(drive_page);
    return drive_->go_to(path);
  }
  show_page(rules_page);
  return rules_->go_to(path);
}

std::vector<Command> LevelingStage::commands() {
  std::vector<Command> out;
  const auto page = [&](const QString& name, int index) {
    out.push_back({Command::Menu::view, name, {}, [this, index] {
                     emit called();
                     show_page(index);
                   }});
  };
  page(tr("Leveling: on the road"), drive_page);
  page(tr("Leveling: rules"), rules_page);
  page(tr("Leveling: tuning"), tuning_page);
  page(tr("Leveling: sensors"), sensor_page);
  page(tr("Leveling: what is stored"), store_page);
  page(tr("Leveling: bench"), bench_page);
  out.push_back({Command::Menu::file, tr("Write the drive as CSV …"), {}, [this] {
                   emit called();
                   show_page(drive_page);
                   drive_->write_csv();
                 }});
  return out;
}

} // namespace mavrel::app
