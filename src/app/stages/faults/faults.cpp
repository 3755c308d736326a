#include "app/stages/faults/faults.h"

#include "app/stages/faults/find_page.h"
#include "app/stages/faults/odds_page.h"
#include "app/stages/faults/practise_page.h"

namespace mavrel::app {

namespace {
enum Page { find_page, practise_page, odds_page };
} // namespace

FaultsStage::FaultsStage(Desk& desk, QWidget* parent)
    : PagedStage(desk, parent), answers_(new FaultAnswers(desk, this)) {
  add_page<FindPage>(tr("Find"), find_, [this] { return new FindPage(desk_, *answers_, this); });
  add_page<PractisePage>(tr("Practise"), practise_, [this] { return new PractisePage(desk_, *answers_, this); });
  add_page<OddsPage>(tr("How often"), odds_, [this] { return new OddsPage(desk_, this); });
}

bool FaultsStage::owns(const QString& path) const {
  return path.startsWith("faults.") || path.startsWith("shop.faults.");
}

bool FaultsStage::go_to(const QString& path) {
  if (path.startsWith("shop.faults.")) {
    show_page(odds_page);
    return true;
  }
  if (!path.startsWith("faults.")) return false;
  show_page(find_page);
  return true;
}

std::vector<Command> FaultsStage::commands() {
  return page_commands(tr("Faults"));
}

std::vector<Findable> FaultsStage::findables() {
  std::vector<Findable> out;
  for (const assess::FaultSign& sign : assess::fault_signs())
    if (sign.symptom)
      out.push_back({desk_.words_of({sign.name, {}}), tr("symptom"), [this, &sign] {
                       show_page(find_page);
                       find_->ask_for({&sign, 0});
                     }});
  return out;
}

} // namespace mavrel::app
