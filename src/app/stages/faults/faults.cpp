#include "app/stages/faults/faults.h"

#include "app/stages/faults/find_page.h"
#include "app/stages/faults/odds_page.h"
#include "app/stages/faults/practise_page.h"

namespace mavrel::app {

FaultsStage::FaultsStage(Desk& desk, QWidget* parent) : PagedStage(desk, parent) {
  add_page(tr("Find"), find_, {"faults.findings", "faults.nothing"});
  add_page(tr("Practise"), practise_);
  add_page(tr("How often"), odds_, {"shop.faults."});
}

bool FaultsStage::owns(const QString& path) const {
  return path.startsWith("faults.") || path.startsWith("shop.faults.");
}

bool FaultsStage::go_to(const QString& path) {
  return owns(path) && PagedStage::go_to(path);
}

std::vector<Command> FaultsStage::commands() {
  return page_commands(tr("Faults"));
}

std::vector<Findable> FaultsStage::findables() {
  std::vector<Findable> out;
  for (const assess::FaultSign& sign : assess::fault_signs())
    if (sign.symptom)
      out.push_back({desk_.words_of({sign.name, {}}), tr("symptom"), [this, &sign] {
                       show_page(0);
                       find_->ask_for({&sign, 0});
                     }});
  return out;
}

} // namespace mavrel::app
