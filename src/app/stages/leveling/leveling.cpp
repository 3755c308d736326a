#include "app/stages/leveling/leveling.h"

#include "app/stages/leveling/bench_page.h"
#include "app/stages/leveling/drive_page.h"
#include "app/stages/leveling/rules_page.h"
#include "app/stages/leveling/sensor_page.h"
#include "app/stages/leveling/store_page.h"
#include "app/stages/leveling/tuning_page.h"

namespace mavrel::app {

LevelingStage::LevelingStage(Desk& desk, QWidget* parent) : PagedStage(desk, parent) {
  add_page(tr("On the road"), drive_, {"drive.road", "drive.profile", "drive.speed", "drive.duration", "drive.seed"});
  add_page(tr("Rules"), rules_);
  add_page(tr("Tuning"), tuning_);
  add_page(tr("Sensors"), sensor_, {"_sensor."});
  add_page(tr("Stored"), store_);
  add_page(tr("Bench"), bench_);
  set_home(1);
}

bool LevelingStage::owns(const QString& path) const {
  return path.startsWith("drive.") || (path.startsWith("variants.") && path.contains(".leveling."));
}

std::vector<Command> LevelingStage::commands() {
  std::vector<Command> out = page_commands(tr("Leveling"));
  out.push_back(file_command(tr("Write the drive as CSV …"), 0, [this] { drive_->write_csv(); }));
  return out;
}

} // namespace mavrel::app
