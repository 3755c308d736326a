#include "app/stages/care/due_page.h"

#include "app/checks/signer.h"
#include "app/desk/clock.h"
#include "app/kit/list_table.h"
#include "app/stages/care/edits.h"
#include "app/stages/care/years_view.h"
#include "assess/fit_up/checks.h"
#include "file/text_file.h"
#include "report/calendar_file.h"

#include <QComboBox>
#include <QFileDialog>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

using assess::CareDue;
using assess::DueState;

DuePage::DuePage(Desk& desk, QWidget* parent)
    : Page(desk, parent), years_(new YearsView(desk, this)), by_(new QComboBox(this)) {
  summary_ = words("care_summary", TextSize::normal);
  column()->addWidget(summary_);
  column()->addWidget(years_, 7);
  says_ = small_words("care_says");
  column()->addWidget(says_);
  list_ = table("care_due", tr("What is due again"), {tr("task"), tr("due"), tr("last done"), tr("why then")});
  list_->setMinimumHeight(desk_.look().px(120));
  list_->stretch(3);
  column()->addWidget(list_, 5);
  how_ = quiet();
  column()->addWidget(how_);
  auto* foot = row(column());
  calendar_ = button(foot, tr("Calendar file …"), "care_calendar", [this] {
    const QString to = QFileDialog::getSaveFileName(this, tr("Calendar file"), {}, tr("Calendar (*.ics)"));
    if (!to.isEmpty()) write_calendar(to);
  });
  foot->addStretch(1);
  dress_signer(*by_, "care_by");
  foot->addWidget(by_);
  done_ = button(foot, tr("Done today"), "care_done", [this] { done(); });
  connect(list_, &ListTable::chose, this, [this] {
    if (const CareDue* due = held()) held_ = due->task->key;
    refresh();
  });
}

const assess::CareDue* DuePage::held() const {
  const auto& plan = care_plan(desk_);
  const auto row = list_->held();
  return plan && row && *row < plan->due.size() ? &plan->due[*row] : nullptr;
}

bool DuePage::write_calendar(const QString& to) {
  const auto& plan = care_plan(desk_);
  if (!plan || desk_.refuses_to_write(to.toStdString())) return false;
  const auto text = report::calendar_file(desk_.build().job, *desk_.build().shop, *plan, work::moment_text(clock_now()),
                                          desk_.prefs());
  const auto done = text ? write_atomically(to.toStdString(), *text).and_then([](auto) -> Expected<void> { return {}; })
                         : Expected<void>(refuse(text.error()));
  desk_.tell(done ? tr("Written: %1").arg(to) : desk_.words_of(done.error()));
  return done.has_value();
}

void DuePage::done() {
  const CareDue* due = held();
  if (!due) return;
  const assess::CareTask& task = *due->task;
  build::LogEntry entry;
  entry.kind = build::LogKind::work;
  entry.what = task.key;
  entry.day = work::moment_text(clock_now());
  entry.by = by_->currentText().trimmed().left(40).toStdString();
  if (add_to_log(desk_, std::move(entry))) desk_.tell(tr("Done: %1").arg(desk_.words_of({task.name, {}})));
}

void DuePage::hold(const std::string& task) {
  held_ = task;
  refresh();
  list_->setFocus();
}

void DuePage::fill() {
  const Tokens& t = desk_.look().tokens();
  years_->refresh();
  show_signers(*by_, desk_);
  const auto& plan = care_plan(desk_);
  for (QWidget* one : std::initializer_list<QWidget*>{list_, how_, says_})
    one->setVisible(plan.has_value());
  for (QWidget* one : {done_, calendar_})
    one->setEnabled(plan.has_value());
  if (!plan) return summary_->setText(tr("This car is not on the road yet."));
  int late = 0, soon = 0;
  list_->fill(plan->due.size(), [&](std::size_t r, ListTable::Row& row) {
    const CareDue& d = plan->due[r];
    late += d.state == DueState::late, soon += d.state == DueState::soon;
    const QColor ink = d.state == DueState::late ? t.stop : d.state == DueState::soon ? t.caution : t.ink;
    const QString sign = d.state == DueState::late ? "■ " : d.state == DueState::soon ? "▲ " : "○ ";
    row.words(sign + desk_.words_of({d.task->name, {}}), ink)
        .words(QString::fromStdString(work::day_text(d.due)), ink)
        .words(d.last ? QString::fromStdString(work::day_text(*d.last)) : tr("never"), t.second)
        .words(desk_.words_of(d.why), t.second);
    if (held_ == d.task->key) row.hold(); // the task, wherever it has gone
  });
  const CareDue* picked = held();
  held_ = picked ? picked->task->key : "";
  how_->setText(
      picked ? tr("%1: %2").arg(desk_.words_of({picked->task->name, {}}), desk_.words_of({picked->task->how, {}}))
             : QString());
  summary_->setText(
      tr("%1 overdue, %2 due soon. It is driven %3 a day of late.%4")
          .arg(late)
          .arg(soon)
          .arg(desk_.shown(plan->distance_day, Kind::distance, 1),
               air_use_is_running(desk_) ? " " + tr("How much air goes through is worked out …") : QString()));
  const QStringList said = says(*plan);
  says_->setText(said.join("\n"));
  says_->setVisible(!said.isEmpty());
}

QStringList DuePage::says(const assess::CarePlan& plan) const {
  QStringList out;
  if (!plan.recheck.empty()) {
    QStringList names;
    for (const std::string& id : plan.recheck)
      names << desk_.words_of(assess::check_name(id));
    out << tr("■ What happened calls for these proofs again: %1.").arg(names.join(", "));
  }
  for (const assess::CareTrend& trend : plan.trends) {
    if (!trend.says && !trend.far) continue;
    QString line = trend.says ? tr("▲ %1: %2").arg(desk_.words_of(trend.name), desk_.words_of(*trend.says))
                              : tr("▲ %1:").arg(desk_.words_of(trend.name));
    if (trend.far) line += " " + desk_.words_of(*trend.far);
    if (trend.crosses)
      line += " " + tr("As it goes it is too far by %1.").arg(QString::fromStdString(work::day_text(*trend.crosses)));
    out << line;
  }
  return out;
}

} // namespace mavrel::app
