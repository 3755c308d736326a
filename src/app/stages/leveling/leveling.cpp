#include "app/stages/leveling/leveling.h"

#include "app/desk/desk.h"
#include "app/stages/leveling/bench_page.h"
#include "app/stages/leveling/drive_page.h"
#include "app/stages/leveling/rules_page.h"
#include "app/stages/leveling/sensor_page.h"
#include "app/stages/leveling/sensor_view.h"
#include "app/stages/leveling/store_page.h"
#include "app/stages/leveling/tuning_page.h"

namespace mavrel::app {

namespace {
constexpr int drive_page = 0, rules_page = 1, sensor_page = 3;
}

LevelingStage::LevelingStage(Desk& desk, QWidget* parent) : PagedStage(desk, parent) {
  add_page<DrivePage>(tr("On the road"), drive_, [this] { return new DrivePage(desk_, this); });
  add_page<RulesPage>(tr("Rules"), rules_, [this] { return new RulesPage(desk_, this); });
  add_page<TuningPage>(tr("Tuning"), tuning_, [this] { return new TuningPage(desk_, this); });
  add_page<SensorPage>(tr("Sensors"), sensor_, [this] { return new SensorPage(desk_, this); });
  add_page<StorePage>(tr("Stored"), store_, [this] { return new StorePage(desk_, this); });
  add_page<BenchPage>(tr("Bench"), bench_, [this] { return new BenchPage(desk_, this); });
}

bool LevelingStage::takes_arrows() const {
  return page() == sensor_page && sensor_->view()->hasFocus();
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
  std::vector<Command> out = page_commands(tr("Leveling"));
  out.push_back({Command::Menu::file, tr("Write the drive as CSV …"), {}, [this] {
                   emit called();
                   show_page(drive_page);
                   drive_->write_csv();
                 }});
  return out;
}

} // namespace mavrel::app
