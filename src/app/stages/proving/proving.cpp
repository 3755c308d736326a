#include "app/stages/proving/proving.h"

#include "app/checks/check_edits.h"
#include "app/stages/proving/hand_page.h"
#include "app/stages/proving/learn_page.h"
#include "app/stages/proving/prove_page.h"
#include "app/stages/proving/questions.h"
#include "app/stages/proving/readings_box.h"

namespace mavrel::app {

namespace {
constexpr int prove_page = 0;
} // namespace

ProvingStage::ProvingStage(Desk& desk, QWidget* parent) : PagedStage(desk, parent) {
  add_page(tr("Prove"), prove_);
  add_page(tr("Learn"), learn_, {".learned."});
  add_page(tr("Hand over"), hand_, {".proving.to", ".handed_over", ".listen", ".inspect"});
}

bool ProvingStage::owns(const QString& path) const {
  return path.startsWith("check:") || path.contains(".proving.") || is_of_proof(desk_, path);
}

bool ProvingStage::go_to(const QString& path) {
  return PagedStage::go_to(path) || path.contains(".learned.") || path.contains(".series.");
}

std::vector<Command> ProvingStage::commands() {
  return page_commands(tr("Proving"));
}

std::vector<Findable> ProvingStage::findables() {
  std::vector<Findable> out;
  for (const assess::HoldPoint& p : proofs_of(desk_))
    out.push_back({desk_.words_of(p.name), tr("proof"), [this, id = QString::fromStdString(p.id)] {
                     show_page(prove_page);
                     prove_->show_check(id);
                   }});
  return out;
}

QStringList ProvingStage::take_files(const QStringList& files) {
  if (page() != prove_page || !prove_.is_made() || !prove_->readings()->isVisible()) return {};
  QStringList taken;
  for (const QString& file : files)
    if (file.endsWith(".csv", Qt::CaseInsensitive)) {
      prove_->readings()->read_file(file);
      taken << file;
    }
  return taken;
}

} // namespace mavrel::app
