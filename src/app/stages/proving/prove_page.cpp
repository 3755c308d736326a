#include "app/stages/proving/prove_page.h"

#include "app/desk/clock.h"
#include "app/kit/check_edits.h"
#include "app/kit/field.h"
#include "app/kit/figures_panel.h"
#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"
#include "app/kit/signer.h"
#include "app/stages/proving/live_box.h"
#include "app/stages/proving/readings_box.h"
#include "assess/proving/pointing.h"

#include <QComboBox>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

using assess::CheckState;
using assess::HoldPoint;

ProvePage::ProvePage(Desk& desk, ProvingAnswers& answers, QWidget* parent)
    : PlainPage(desk, parent), answers_(answers),
      list_(list_table("proofs", tr("Proof of the car"), {tr("proof"), tr("stands"), tr("signed")}, this)),
      summary_(new QLabel(this)), name_(new QLabel(this)), how_(new QLabel(this)), state_(new QLabel(this)),
      points_(new QLabel(this)), figures_(new FiguresPanel(
                                     desk, [&answers](const std::string& id) { return answers.proof(id); }, this)),
      readings_(new ReadingsBox(desk, answers, this)), live_(new LiveBox(desk, answers, this)),
      by_(new QComboBox(this)), begin_(new QPushButton(tr("Take it up"), this)),
      sign_(new QPushButton(tr("Sign"), this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const both = column();
  summary_->setWordWrap(true);
  both->addWidget(summary_);
  list_->setMinimumHeight(desk_.look().px(120));
  list_->setWordWrap(false);
  both->addWidget(list_, 3);
  name_->setWordWrap(true);
  both->addWidget(name_);
  how_->setWordWrap(true);
  how_->setProperty("quiet", true);
  both->addWidget(how_);
  state_->setObjectName("proof_state");
  state_->setWordWrap(true);
  both->addWidget(state_);
  auto* rows = new QWidget(this);
  auto* inside = new QVBoxLayout(rows);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(u);
  points_->setObjectName("proof_points");
  points_->setWordWrap(true);
  points_->setTextFormat(Qt::RichText);
  inside->addWidget(points_);
  inside->addWidget(figures_);
  inside->addWidget(live_);
  inside->addWidget(readings_);
  inside->addStretch(1);
  both->addWidget(scrolled(rows, this), 5);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  begin_->setObjectName("begin_proof");
  row->addWidget(begin_);
  row->addStretch(1);
  dress_signer(*by_, "proof_signed_by");
  row->addWidget(by_);
  sign_->setObjectName("sign_proof");
  row->addWidget(sign_);
  both->addLayout(row);
  list_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::ResizeToContents);
  list_->horizontalHeader()->setSectionResizeMode(1, QHeaderView::Stretch);
  connect(list_, &QTableWidget::currentCellChanged, this, [this](int r) { pick(r); });
  connect(begin_, &QPushButton::clicked, this, [this] {
    if (const HoldPoint* p = figures_->point()) begin_check(desk_, HoldPoint(*p));
  });
  connect(sign_, &QPushButton::clicked, this, &ProvePage::sign);
  connect(&answers_, &ProvingAnswers::changed, this, &ProvePage::refresh);
  refresh();
}

void ProvePage::sign() {
  const HoldPoint* p = figures_->point();
  if (!p) return;
  const HoldPoint point = *p;
  if (!sign_check(desk_, point, by_->currentText(), work::moment_text(clock_now()))) return;
  const HoldPoint* after = figures_->point();
  desk_.tell(after && after->state == CheckState::failed
                 ? tr("Failed: %1. Putting it right is on the plan.").arg(desk_.words_of(point.name))
                 : tr("Signed: %1").arg(desk_.words_of(point.name)));
}

bool ProvePage::go_to(const QString& path) {
  // `check:heights`, or `variants.0.fit_up.checks.3.result`: the check of that number.
  if (path.startsWith("check:")) {
    show_check(path.mid(6));
    list_->setFocus();
    return true;
  }
  const QStringList steps = path.split('.');
  const int at = static_cast<int>(steps.indexOf("checks"));
  const auto& checks = desk_.build().variant().fit_up->checks;
  if (at < 0 || at + 1 >= steps.size() || steps[at + 1].toUInt() >= checks.size())
    return go_to_field(desk_, this, path);
  show_check(QString::fromStdString(checks[steps[at + 1].toUInt()].check));
  if (steps.size() > at + 3) return go_to_field(desk_, this, path);
  list_->setFocus();
  return true;
}

void ProvePage::show_check(const QString& id) {
  held_ = id;
  refresh();
}

void ProvePage::pick(int row) {
  const auto& proofs = answers_.proofs();
  if (row < 0 || static_cast<std::size_t>(row) >= proofs.size()) return;
  const QString id = QString::fromStdString(proofs[static_cast<std::size_t>(row)].id);
  if (id == held_) return;
  held_ = id;
  refresh();
}

void ProvePage::fill() {
  fill_list();
  fill_check();
}

void ProvePage::fill_list() {
  const Tokens& t = desk_.look().tokens();
  list_->setFont(desk_.look().font(TextSize::small));
  const auto& proofs = answers_.proofs();
  int passed = 0, failed = 0;
  QStringList again;
  {
    const QSignalBlocker quiet(list_);
    list_->setRowCount(static_cast<int>(proofs.size()));
    for (int r = 0; r < list_->rowCount(); ++r) {
      const HoldPoint& p = proofs[static_cast<std::size_t>(r)];
      passed += p.state == CheckState::passed, failed += p.state == CheckState::failed;
      if (p.state == CheckState::stale) again << desk_.words_of(p.name);
      put_cell(list_, r, 0, sign_of_check(p.state) + "  " + desk_.words_of(p.name), colour_of_check(p.state, t));
      const bool waits = p.state == CheckState::open && !p.before.empty();
      put_cell(list_, r, 1,
               waits ? tr("after %1").arg(desk_.words_of(assess::check_name(p.before.front())))
                     : desk_.words_of({assess::name_of(p.state), {}}),
               waits ? t.second : colour_of_check(p.state, t), true);
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
  if (held_.isEmpty() && !proofs.empty()) held_ = QString::fromStdString(proofs.front().id);
  QString text = proofs.empty() ? tr("Nothing is to be proved yet: choose bags in Bags and a kit in Air.")
                                : tr("%1 of %2 proved").arg(passed).arg(proofs.size());
  if (failed > 0) text += tr(", %1 failed").arg(failed);
  if (!proofs.empty()) text += ". ";
  if (!again.isEmpty()) text += tr("≠ To be made again: %1. ").arg(again.join(", "));
  if (answers_.predicting()) text += tr("Times are being predicted …");
  const auto trouble = answers_.trouble();
  if (!trouble.empty()) text += tr("Not predicted: %1").arg(desk_.words_of(trouble.front()));
  summary_->setText(text);
}

void ProvePage::fill_check() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  name_->setFont(look.font(TextSize::large, true));
  for (QLabel* label : {how_, state_, points_})
    label->setFont(look.font(TextSize::small));
  figures_->show_check(held_);
  figures_->look_again();
  readings_->show_check(held_);
  live_->show_check(held_);
  const HoldPoint* p = figures_->point();
  name_->setText(p ? desk_.words_of(p->name) : QString());
  how_->setText(p ? desk_.words_of({p->row->how, {}}) : QString());
  QStringList said;
  if (p && !p->before.empty()) {
    QStringList first;
    for (const std::string& id : p->before)
      first << desk_.words_of(assess::check_name(id));
    said << tr("First: %1.").arg(first.join(", "));
  }
  if (p && p->state == CheckState::stale) said << stale_words(desk_, *p);
  state_->setText(said.join(" "));
  state_->setVisible(!said.isEmpty());
  QPalette palette = state_->palette();
  palette.setColor(QPalette::WindowText, t.caution);
  state_->setPalette(palette);
  QString points;
  if (p)
    for (const assess::Pointer& one : assess::points_to(*p))
      points += QString("<p><b>%1</b>: %2<br>%3</p>")
                    .arg(desk_.words_of(one.where).toHtmlEscaped(), desk_.words_of(one.cause).toHtmlEscaped(),
                         tr("Next: %1").arg(desk_.words_of(one.next)).toHtmlEscaped());
  points_->setText(points);
  points_->setVisible(!points.isEmpty());
  begin_->setVisible(p != nullptr);
  begin_->setText(p && p->note ? tr("Measure again") : tr("Take it up"));
  begin_->setEnabled(p && (!p->note || p->state == CheckState::stale || p->state == CheckState::passed ||
                           p->state == CheckState::failed));
  sign_->setEnabled(p && p->note && p->before.empty());
  sign_->setToolTip(p && !p->before.empty() ? state_->text() : QString());
  show_signers(*by_, desk_);
}

} // namespace mavrel::app
