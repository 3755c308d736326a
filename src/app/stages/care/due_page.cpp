#include "app/stages/care/due_page.h"

#include "app/desk/clock.h"
#include "app/kit/list_table.h"
#include "app/kit/signer.h"
#include "app/stages/care/edits.h"
#include "app/stages/care/years_view.h"
#include "assess/fit_up/checks.h"
#include "file/text_file.h"
#include "report/calendar_file.h"

#include <QComboBox>
#include <QFileDialog>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

using assess::CareDue;
using assess::DueState;

DuePage::DuePage(Desk& desk, CareAnswers& answers, QWidget* parent)
    : PlainPage(desk, parent), answers_(answers), summary_(new QLabel(this)), how_(new QLabel(this)),
      says_(new QLabel(this)), years_(new YearsView(desk, answers, this)),
      list_(list_table("care_due", tr("What comes round"), {tr("task"), tr("due"), tr("last done"), tr("why then")},
                       this)),
      by_(new QComboBox(this)), done_(new QPushButton(tr("Done today"), this)),
      calendar_(new QPushButton(tr("Calendar file …"), this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const both = column();
  summary_->setObjectName("care_summary");
  summary_->setWordWrap(true);
  both->addWidget(summary_);
  both->addWidget(years_, 7);
  says_->setObjectName("care_says");
  says_->setWordWrap(true);
  both->addWidget(says_);
  list_->setMinimumHeight(desk_.look().px(120));
  list_->setWordWrap(false);
  both->addWidget(list_, 5);
  how_->setWordWrap(true);
  how_->setProperty("quiet", true);
  both->addWidget(how_);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  calendar_->setObjectName("care_calendar");
  row->addWidget(calendar_);
  row->addStretch(1);
  dress_signer(*by_, "care_by");
  row->addWidget(by_);
  done_->setObjectName("care_done");
  row->addWidget(done_);
  both->addLayout(row);
  list_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  list_->horizontalHeader()->setSectionResizeMode(3, QHeaderView::Stretch);
  connect(done_, &QPushButton::clicked, this, &DuePage::done);
  connect(list_, &QTableWidget::currentCellChanged, this, [this] { refresh(); });
  connect(calendar_, &QPushButton::clicked, this, [this] {
    const QString to = QFileDialog::getSaveFileName(this, tr("Calendar file"), {}, tr("Calendar (*.ics)"));
    if (!to.isEmpty()) write_calendar(to);
  });
  connect(&answers_, &CareAnswers::changed, this, &DuePage::refresh);
  refresh();
}

bool DuePage::write_calendar(const QString& to) {
  const auto& plan = answers_.plan();
  if (!plan || desk_.refuses_to_write(to.toStdString())) return false;
  const auto text = report::calendar_file(desk_.build().job, *plan, work::moment_text(clock_now()), desk_.prefs());
  const auto done = text ? write_atomically(to.toStdString(), *text).and_then([](auto) -> Expected<void> { return {}; })
                         : Expected<void>(refuse(text.error()));
  desk_.tell(done ? tr("Written: %1").arg(to) : desk_.words_of(done.error()));
  return done.has_value();
}

void DuePage::done() {
  const auto& plan = answers_.plan();
  const int row = list_->currentRow();
  if (!plan || row < 0 || static_cast<std::size_t>(row) >= plan->due.size()) return;
  const assess::CareTask& task = *plan->due[static_cast<std::size_t>(row)].task;
  build::LogEntry entry;
  entry.kind = build::LogKind::work;
  entry.what = task.key;
  entry.day = work::moment_text(clock_now());
  entry.by = by_->currentText().trimmed().left(40).toStdString();
  if (add_to_log(desk_, std::move(entry))) desk_.tell(tr("Done: %1").arg(desk_.words_of({task.name, {}})));
}

void DuePage::fill() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  for (QLabel* label : {how_, says_})
    label->setFont(look.font(TextSize::small));
  list_->setFont(look.font(TextSize::small));
  years_->refresh();
  show_signers(*by_, desk_);
  const auto& plan = answers_.plan();
  done_->setEnabled(plan.has_value());
  calendar_->setEnabled(plan.has_value());
  list_->setVisible(plan.has_value());
  how_->setVisible(plan.has_value());
  says_->setVisible(plan.has_value());
  if (!plan) {
    summary_->setText(tr("This car is not on the road yet."));
    return;
  }
  int late = 0, soon = 0;
  const QSignalBlocker quiet(list_);
  const int held = list_->currentRow();
  list_->setRowCount(static_cast<int>(plan->due.size()));
  for (int r = 0; r < list_->rowCount(); ++r) {
    const CareDue& d = plan->due[static_cast<std::size_t>(r)];
    late += d.state == DueState::late, soon += d.state == DueState::soon;
    const QColor ink = d.state == DueState::late ? t.stop : d.state == DueState::soon ? t.caution : t.ink;
    const QString sign = d.state == DueState::late ? "■ " : d.state == DueState::soon ? "▲ " : "○ ";
    put_cell(list_, r, 0, sign + desk_.words_of({d.task->name, {}}), ink);
    put_cell(list_, r, 1, QString::fromStdString(work::day_text(d.due)), ink, true);
    put_cell(list_, r, 2, d.last ? QString::fromStdString(work::day_text(*d.last)) : tr("never"), t.second, true);
    put_cell(list_, r, 3, desk_.words_of(d.why), t.second, true);
  }
  list_->setCurrentCell(held >= 0 && held < list_->rowCount() ? held : 0, 0);
  const CareDue* picked = list_->currentRow() >= 0 && static_cast<std::size_t>(list_->currentRow()) < plan->due.size()
                              ? &plan->due[static_cast<std::size_t>(list_->currentRow())]
                              : nullptr;
  how_->setText(
      picked ? tr("%1: %2").arg(desk_.words_of({picked->task->name, {}}), desk_.words_of({picked->task->how, {}}))
             : QString());
  summary_->setText(tr("%1 overdue, %2 due soon. It is driven %3 a day of late.%4")
                        .arg(late)
                        .arg(soon)
                        .arg(desk_.shown(plan->distance_day, Kind::distance, 1),
                             answers_.reckoning() ? " " + tr("How much air goes through is worked out …") : QString()));
  QStringList says;
  if (!plan->recheck.empty()) {
    QStringList names;
    for (const std::string& id : plan->recheck)
      names << desk_.words_of(assess::check_name(id));
    says << tr("■ What happened calls for these proofs again: %1.").arg(names.join(", "));
  }
  for (const assess::CareTrend& trend : plan->trends)
    if (trend.says) {
      QString line = tr("▲ %1: %2").arg(desk_.words_of(trend.name), desk_.words_of(*trend.says));
      if (trend.crosses)
        line += " " + tr("As it goes it is too far by %1.").arg(QString::fromStdString(work::day_text(*trend.crosses)));
      says << line;
    }
  says_->setText(says.join("\n"));
  says_->setVisible(!says.isEmpty());
}

} // namespace mavrel::app
