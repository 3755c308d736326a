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

CareStage::CareStage(Desk& desk, QWidget* parent) : PagedStage(desk, parent), answers_(new CareAnswers(desk, this)) {
  add_page<DuePage>(tr("Due"), due_, [this] { return new DuePage(desk_, *answers_, this); });
  add_page<LogPage>(tr("Logbook"), log_, [this] { return new LogPage(desk_, *answers_, this); });
  add_page<UsePage>(tr("Use"), use_, [this] { return new UsePage(desk_, *answers_, this); });
}

bool CareStage::owns(const QString& path) const {
  return path.startsWith("care.") || path.startsWith("origin.");
}

bool CareStage::go_to(const QString& path) {
  for (const auto& [page, widget] :
       {std::pair<int, PlainPage*>(log_page, log_.get()), {use_page, use_.get()}, {due_page, due_.get()}})
    if (widget->go_to(path)) {
      show_page(page);
      return true;
    }
  return false;
}

std::vector<Command> CareStage::commands() {
  return page_commands(tr("Care"));
}

std::vector<Findable> CareStage::findables() {
  std::vector<Findable> out;
  for (const assess::CareTask& task : assess::care_tasks())
    out.push_back({desk_.words_of({task.name, {}}), tr("care"), [this] { show_page(due_page); }});
  return out;
}

QString CareStage::reminder() {
  const auto& plan = answers_->plan();
  if (!plan) return {};
  QStringList late;
  for (const assess::CareDue& d : plan->due)
    // What goes by water is not known before the air of a day is.
    if (d.state == assess::DueState::late && !(answers_->reckoning() && (std::string_view(d.task->key) == "drain" ||
                                                                         std::string_view(d.task->key) == "dryer")))
      late << tr("%1 (%2)").arg(desk_.words_of({d.task->name, {}}), QString::fromStdString(work::day_text(d.due)));
  if (late.isEmpty()) return {};
  const auto more = late.size() - 3;
  return tr("Due on this car: %1%2.")
      .arg(late.mid(0, 3).join(", "), more > 0 ? tr(" and %1 more").arg(more) : QString());
}

} // namespace mavrel::app
