#include "app/stages/fit_up/checks_page.h"

#include "app/kit/check_edits.h"
#include "app/kit/figures_panel.h"
#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"
#include "app/kit/signer.h"
#include "app/stages/fit_up/answers.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

namespace mavrel::app {

using assess::AskedFigure;
using assess::CheckState;
using assess::HoldPoint;

ChecksPage::ChecksPage(Desk& desk, FitUpAnswers& answers, QWidget* parent)
    : FitUpPage(desk, answers, parent),
      list_(list_table("hold_points", tr("Hold points"), {tr("hold point"), tr("stands"), tr("signed")}, this)),
      summary_(new QLabel(this)), name_(new QLabel(this)), how_(new QLabel(this)), state_(new QLabel(this)),
      figures_(new FiguresPanel(
          desk, [&answers](const std::string& id) { return answers.check(id); }, this)),
      by_(new QComboBox(this)), begin_(new QPushButton(tr("Take it up"), this)),
      sign_(new QPushButton(tr("Sign"), this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const both = this->column();
  summary_->setWordWrap(true);
  both->addWidget(summary_);
  list_->setMinimumHeight(desk_.look().px(120));
  both->addWidget(list_, 2);
  name_->setWordWrap(true);
  both->addWidget(name_);
  how_->setWordWrap(true);
  how_->setProperty("quiet", true);
  both->addWidget(how_);
  state_->setWordWrap(true);
  both->addWidget(state_);
  auto* rows = new QWidget(this);
  auto* rows_column = new QVBoxLayout(rows);
  rows_column->setContentsMargins(0, 0, 0, 0);
  rows_column->addWidget(figures_);
  rows_column->addStretch(1);
  both->addWidget(scrolled(rows, this), 4);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  begin_->setObjectName("begin_check");
  row->addWidget(begin_);
  row->addStretch(1);
  dress_signer(*by_, "signed_by");
  row->addWidget(by_);
  sign_->setObjectName("sign_check");
  row->addWidget(sign_);
  both->addLayout(row);
  connect(list_, &QTableWidget::currentCellChanged, this, [this](int r) { pick(r); });
  connect(begin_, &QPushButton::clicked, this, [this] {
    if (const HoldPoint* p = figures_->point()) begin_check(desk_, HoldPoint(*p));
  });
  connect(sign_, &QPushButton::clicked, this, [this] {
    const HoldPoint* p = figures_->point();
    if (!p) return;
    const auto now = answers_.now();
    const HoldPoint point = *p;
    const auto before = answers_.plan();
    if (!sign_check(desk_, point, by_->currentText(), now ? work::moment_text(*now) : std::string())) return;
    const HoldPoint* after = figures_->point();
    if (!after || after->state != CheckState::failed)
      return desk_.tell(tr("Signed: %1").arg(desk_.words_of(point.name)));
    // What the failed check moves.
    const auto& plan = answers_.plan();
    if (!before || !plan) return desk_.tell(tr("Failed: %1").arg(desk_.words_of(point.name)));
    int moved = 0;
    for (std::size_t i = 0; i < plan->jobs.size(); ++i)
      if (const auto was = before->find(plan->jobs[i].id))
        moved += plan->planned[i].end > before->planned[*was].end + 1e-6;
    desk_.tell(tr("Failed: %1. Putting it right is on the plan; it moves %2 jobs, the end by %3.")
                   .arg(desk_.words_of(point.name))
                   .arg(moved)
                   .arg(desk_.shown(std::max(0.0, plan->shared_span - before->shared_span) * 3600, Kind::hours, 1)));
  });
  refresh();
}

bool ChecksPage::go_to(const QString& path) {
  // `variants.0.fit_up.checks.3.result`: the check of that number.
  const QStringList steps = path.split('.');
  const int at = static_cast<int>(steps.indexOf("checks"));
  const auto& checks = desk_.build().variant().fit_up->checks;
  if (at < 0 || at + 1 >= steps.size() || steps[at + 1].toUInt() >= checks.size()) return false;
  show_check(QString::fromStdString(checks[steps[at + 1].toUInt()].check));
  if (steps.size() > at + 3) return go_to_field(desk_, this, path);
  list_->setFocus();
  return true;
}

void ChecksPage::show_check(const QString& id) {
  held_ = id;
  refresh();
}

std::vector<const HoldPoint*> ChecksPage::shown() const {
  std::vector<const HoldPoint*> out;
  for (const HoldPoint& p : answers_.checks())
    if (p.row->stage != assess::CheckStage::proving) out.push_back(&p);
  return out;
}

void ChecksPage::pick(int row) {
  const auto checks = shown();
  if (row < 0 || static_cast<std::size_t>(row) >= checks.size()) return;
  const QString id = QString::fromStdString(checks[static_cast<std::size_t>(row)]->id);
  if (id == held_) return;
  held_ = id;
  refresh();
}

void ChecksPage::fill() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  name_->setFont(look.font(TextSize::large, true));
  for (QLabel* label : {how_, state_})
    label->setFont(look.font(TextSize::small));
  list_->setFont(look.font(TextSize::small));
  const auto checks = shown();
  int passed = 0, stale = 0, failed = 0;
  {
    const QSignalBlocker quiet(list_);
    list_->setRowCount(static_cast<int>(checks.size()));
    for (int r = 0; r < list_->rowCount(); ++r) {
      const HoldPoint& p = *checks[static_cast<std::size_t>(r)];
      passed += p.state == CheckState::passed, stale += p.state == CheckState::stale,
          failed += p.state == CheckState::failed;
      const QColor ink = colour_of_check(p.state, t);
      put_cell(list_, r, 0, sign_of_check(p.state) + "  " + desk_.words_of(p.name), ink);
      put_cell(list_, r, 1, desk_.words_of({assess::name_of(p.state), {}}), ink, true);
      QString by;
      if (p.note) {
        const build::HoldCheck& note = desk_.build().variant().fit_up->checks[*p.note];
        by = QString::fromStdString(note.by) + (note.day.empty() ? QString() : ", " + QString::fromStdString(note.day));
      }
      put_cell(list_, r, 2, by, t.second, true);
      if (p.id == held_.toStdString()) list_->setCurrentCell(r, 0);
    }
    if (list_->currentRow() < 0 && list_->rowCount() > 0) list_->setCurrentCell(0, 0);
  }
  if (held_.isEmpty() && !checks.empty()) held_ = QString::fromStdString(checks.front()->id);
  summary_->setText(checks.empty()
                        ? tr("Nothing is to be checked yet: choose bags in Bags.")
                        : tr("%1 hold points: %2 signed, %3 stale, %4 failed. A signature holds the figures it was "
                             "made on; when what they come from changes it asks again by itself.")
                              .arg(checks.size())
                              .arg(passed)
                              .arg(stale)
                              .arg(failed));
  figures_->show_check(held_);
  const HoldPoint* p = figures_->point();
  name_->setText(p ? desk_.words_of(p->name) : QString());
  how_->setText(p ? desk_.words_of({p->row->how, {}}) : QString());
  QString said;
  if (p && p->state == CheckState::stale) said = stale_words(desk_, *p);
  state_->setText(said);
  state_->setVisible(!said.isEmpty());
  QPalette palette = state_->palette();
  palette.setColor(QPalette::WindowText, t.caution);
  state_->setPalette(palette);
  begin_->setVisible(p != nullptr);
  begin_->setText(p && p->note ? tr("Measure again") : tr("Take it up"));
  begin_->setEnabled(p && (!p->note || p->state == CheckState::stale || p->state == CheckState::passed ||
                           p->state == CheckState::failed));
  sign_->setEnabled(p && p->note);
  show_signers(*by_, desk_);
}

} // namespace mavrel::app
