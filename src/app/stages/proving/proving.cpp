#include "app/stages/proving/proving.h"

#include "app/desk/desk.h"
#include "app/kit/check_edits.h"
#include "app/stages/proving/hand_page.h"
#include "app/stages/proving/learn_page.h"
#include "app/stages/proving/prove_page.h"
#include "app/stages/proving/readings_box.h"

namespace mavrel::app {

namespace {
enum Page { prove_page, learn_page, hand_page };
} // namespace

ProvingStage::ProvingStage(Desk& desk, QWidget* parent)
    : PagedStage(desk, parent), answers_(new ProvingAnswers(desk, this)) {
  add_page<ProvePage>(tr("Prove"), prove_, [this] { return new ProvePage(desk_, *answers_, this); });
  add_page<LearnPage>(tr("Learn"), learn_, [this] { return new LearnPage(desk_, *answers_, this); });
  add_page<HandPage>(tr("Hand over"), hand_, [this] { return new HandPage(desk_, *answers_, this); });
}

bool ProvingStage::owns(const QString& path) const {
  return path.startsWith("check:") || path.contains(".proving.") || is_of_proof(desk_, path);
}

bool ProvingStage::go_to(const QString& path) {
  if (path.contains(".learned.")) {
    show_page(learn_page);
    return true;
  }
  for (const auto& [page, widget] : {std::pair<int, PlainPage*>(prove_page, prove_.get()), {hand_page, hand_.get()}})
    if (widget->go_to(path)) {
      show_page(page);
      return true;
    }
  if (!path.contains(".series.")) return false;
  show_page(prove_page);
  return true;
}

std::vector<Command> ProvingStage::commands() {
  return page_commands(tr("Proving"));
}

std::vector<Findable> ProvingStage::findables() {
  std::vector<Findable> out;
  for (const assess::HoldPoint& p : answers_->proofs())
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
