#include "app/stages/care/care.h"

#include "app/desk/desk.h"
#include "app/stages/care/due_page.h"
#include "app/stages/care/log_page.h"
#include "app/stages/care/use_page.h"

#include <string_view>

namespace mavrel::app {

namespace {
enum Page { due_page, log_page, use_page };
} // namespace

CareStage::CareStage(Desk& desk, QWidget* parent) : PagedStage(desk, parent) {
  add_page(tr("Due"), due_);
  add_page(tr("Logbook"), log_, {"care.log."});
  add_page(tr("Use"), use_);
  set_home(use_page);
}

/// `care:drain` is a task that comes round.
bool CareStage::go_to(const QString& path) {
  if (!path.startsWith("care:")) return PagedStage::go_to(path);
  show_page(due_page);
  due_->hold(path.mid(5).toStdString());
  return true;
}

bool CareStage::owns(const QString& path) const {
  return path.startsWith("care.") || path.startsWith("care:") || path.startsWith("origin.");
}

std::vector<Command> CareStage::commands() {
  return page_commands(tr("Care"));
}

std::vector<Findable> CareStage::findables() {
  std::vector<Findable> out;
  for (const assess::CareTask& task : assess::care_tasks())
    out.push_back({desk_.words_of({task.name, {}}), tr("care"), [this, key = task.key] {
                     show_page(due_page);
                     due_->hold(key);
                   }});
  return out;
}

QString CareStage::reminder() {
  const auto& plan = care_plan(desk_);
  if (!plan) return {};
  QStringList late;
  for (const assess::CareDue& d : plan->due)
    // What goes by water is not known before the air of a day is.
    if (d.state == assess::DueState::late && !(air_use_is_running(desk_) && (std::string_view(d.task->key) == "drain" ||
                                                                             std::string_view(d.task->key) == "dryer")))
      late << tr("%1 (%2)").arg(desk_.words_of({d.task->name, {}}), QString::fromStdString(work::day_text(d.due)));
  if (late.isEmpty()) return {};
  const auto more = late.size() - 3;
  return tr("Due on this car: %1%2.")
      .arg(late.mid(0, 3).join(", "), more > 0 ? tr(" and %1 more").arg(more) : QString());
}

} // namespace mavrel::app
