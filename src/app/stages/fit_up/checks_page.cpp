#include "app/stages/fit_up/checks_page.h"

#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"
#include "app/stages/fit_up/answers.h"
#include "app/stages/fit_up/edits.h"

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

namespace {

QString sign_of(CheckState state) {
  switch (state) {
  case CheckState::passed:
    return "✓";
  case CheckState::failed:
    return "✗";
  case CheckState::stale:
    return "≠";
  case CheckState::begun:
    return "…";
  case CheckState::open:
    break;
  }
  return "◇";
}

QColor colour_of(CheckState state, const Tokens& t) {
  switch (state) {
  case CheckState::passed:
    return t.good;
  case CheckState::failed:
    return t.stop;
  case CheckState::stale:
    return t.caution;
  case CheckState::begun:
  case CheckState::open:
    break;
  }
  return t.ink;
}

} // namespace

FiguresPanel::FiguresPanel(Desk& desk, FitUpAnswers& answers, QWidget* parent)
    : RowPanel(desk, parent), answers_(answers) {
  setObjectName("figures_panel");
  start();
}

void FiguresPanel::show_check(const QString& id) {
  if (id_ == id) return;
  id_ = id;
  refresh();
}

const HoldPoint* FiguresPanel::point() const {
  for (const HoldPoint& p : answers_.checks())
    if (p.id == id_.toStdString()) return &p;
  return nullptr;
}

QString FiguresPanel::shape() const {
  const HoldPoint* p = point();
  if (!p) return "none";
  QString out = id_ + (p->note ? QString::number(*p->note) : QString("-"));
  if (p->note) {
    // A field stands only where its figure has a line.
    const auto& figures = desk().build().variant().fit_up->checks[*p->note].figures;
    for (const auto& f : figures)
      out += '|' + QString::fromStdString(f.what);
  }
  for (const AskedFigure& f : p->figures) {
    out += ';' + QString::fromStdString(f.key);
    for (const auto& v : {f.designed, f.least, f.most})
      out += v ? QString::number(*v) + ',' : QString(',');
  }
  return out;
}

void FiguresPanel::build_rows() {
  verdicts_.clear();
  const HoldPoint* p = point();
  if (!p) return;
  heading(tr("measure"), 0, 0);
  heading(tr("design"), 0, 1);
  heading(tr("right is"), 0, 2);
  heading(tr("measured"), 0, 3);
  for (std::size_t i = 0; i < p->figures.size(); ++i) {
    const AskedFigure& f = p->figures[i];
    const int row = static_cast<int>(i) + 1;
    QLabel* name = quiet_label(desk().words_of(f.name));
    name->setWordWrap(true);
    name->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    grid()->addWidget(name, row, 0);
    const auto amount = [&](double v) { return desk().shown(v, f.kind); };
    grid()->addWidget(quiet_label(f.yes_no || !f.designed ? QString("–") : amount(*f.designed)), row, 1);
    QString right;
    if (f.yes_no)
      right = tr("yes");
    else if (f.least && f.most)
      right = tr("%1 to %2").arg(amount(*f.least), amount(*f.most));
    else if (f.least)
      right = tr("≥ %1").arg(amount(*f.least));
    else if (f.most)
      right = tr("≤ %1").arg(amount(*f.most));
    if (f.twin)
      right += (right.isEmpty() ? QString() : QString(", ")) + tr("left and right within %1").arg(amount(f.alike));
    QLabel* range = quiet_label(right);
    range->setWordWrap(true);
    range->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    grid()->addWidget(range, row, 2);
    std::optional<std::size_t> line;
    if (p->note) {
      const auto& figures = desk().build().variant().fit_up->checks[*p->note].figures;
      for (std::size_t k = 0; k < figures.size(); ++k)
        if (figures[k].what == f.key) line = k;
    }
    if (f.yes_no) {
      auto* box = new QWidget(grid()->parentWidget());
      auto* both = new QHBoxLayout(box);
      both->setContentsMargins(0, 0, 0, 0);
      for (const bool yes : {true, false}) {
        auto* button = new QToolButton(box);
        button->setText(yes ? tr("yes") : tr("no"));
        button->setCheckable(true);
        button->setObjectName(QString("%1_%2").arg(yes ? "yes" : "no", QString::fromStdString(f.key)));
        button->setAccessibleName(desk().words_of(f.name) + ": " + button->text());
        connect(button, &QToolButton::clicked, this, [this, i, yes] {
          if (const HoldPoint* now = point()) tick_figure(desk(), HoldPoint(*now), i, yes);
        });
        both->addWidget(button);
      }
      both->addStretch(1);
      grid()->addWidget(box, row, 3);
    } else if (line) {
      auto* field = new Field(
          desk(),
          QString("@.fit_up.checks.%1.figures.%2.%3").arg(*p->note).arg(*line).arg(assess::measured_field(f.kind)), {},
          grid()->parentWidget());
      field->setMinimumWidth(desk().look().px(76));
      field->edit()->setAccessibleName(desk().words_of(f.name));
      field->set_placeholder(tr("measure"));
      grid()->addWidget(field, row, 3);
    }
    QLabel* verdict = quiet_label();
    verdicts_.push_back(verdict);
    grid()->addWidget(verdict, row, 4);
  }
  grid()->setColumnStretch(0, 5);
  grid()->setColumnStretch(1, 2);
  grid()->setColumnStretch(2, 4);
  grid()->setColumnStretch(3, 2);
}

void FiguresPanel::refresh_rows() {
  const HoldPoint* p = point();
  if (!p) return;
  for (std::size_t i = 0; i < verdicts_.size() && i < p->figures.size(); ++i) {
    const bool wrong = std::find(p->wrong.begin(), p->wrong.end(), i) != p->wrong.end();
    verdicts_[i]->setText(!p->measured[i] ? QString() : wrong ? tr("✗ not right") : QString("✓"));
    QPalette palette = verdicts_[i]->palette();
    palette.setColor(QPalette::WindowText, wrong ? desk().look().tokens().stop : desk().look().tokens().good);
    verdicts_[i]->setPalette(palette);
    if (!p->figures[i].yes_no) continue;
    for (const bool yes : {true, false})
      if (auto* button = findChild<QToolButton*>(
              QString("%1_%2").arg(yes ? "yes" : "no", QString::fromStdString(p->figures[i].key))))
        button->setChecked(p->measured[i] && (*p->measured[i] > 0.5) == yes);
  }
}

ChecksPage::ChecksPage(Desk& desk, FitUpAnswers& answers, QWidget* parent)
    : FitUpPage(desk, answers, parent),
      list_(list_table("hold_points", tr("Hold points"), {tr("hold point"), tr("stands"), tr("signed")}, this)),
      summary_(new QLabel(this)), name_(new QLabel(this)), how_(new QLabel(this)), state_(new QLabel(this)),
      figures_(new FiguresPanel(desk, answers, this)), by_(new QComboBox(this)),
      begin_(new QPushButton(tr("Take it up"), this)), sign_(new QPushButton(tr("Sign"), this)) {
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
  by_->setEditable(true);
  by_->setObjectName("signed_by");
  by_->setAccessibleName(tr("Who signs"));
  by_->setMinimumContentsLength(14);
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

void ChecksPage::pick(int row) {
  const auto& checks = answers_.checks();
  if (row < 0 || static_cast<std::size_t>(row) >= checks.size()) return;
  const QString id = QString::fromStdString(checks[static_cast<std::size_t>(row)].id);
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
  const auto& checks = answers_.checks();
  int passed = 0, stale = 0, failed = 0;
  {
    const QSignalBlocker quiet(list_);
    list_->setRowCount(static_cast<int>(checks.size()));
    for (int r = 0; r < list_->rowCount(); ++r) {
      const HoldPoint& p = checks[static_cast<std::size_t>(r)];
      passed += p.state == CheckState::passed, stale += p.state == CheckState::stale,
          failed += p.state == CheckState::failed;
      const QColor ink = colour_of(p.state, t);
      put_cell(list_, r, 0, sign_of(p.state) + "  " + desk_.words_of(p.name), ink);
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
  if (held_.isEmpty() && !checks.empty()) held_ = QString::fromStdString(checks.front().id);
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
  if (p && p->state == CheckState::stale) {
    const build::HoldCheck& note = desk_.build().variant().fit_up->checks[*p->note];
    QStringList moved;
    for (const assess::MovedFigure& m : p->moved) {
      const AskedFigure& f = p->figures[m.figure];
      const auto told = [&](const std::optional<double>& v) { return v ? desk_.shown(*v, f.kind) : tr("nothing"); };
      QString line =
          tr("%1 was %2, is %3").arg(desk_.words_of(assess::name_of_moved(f, m.what)), told(m.was), told(m.is));
      if (m.was && m.is && !f.yes_no)
        line += tr(" (%1)").arg((*m.is > *m.was ? "+" : "−") + desk_.shown(std::abs(*m.is - *m.was), f.kind));
      moved << line;
    }
    said = moved.isEmpty() ? tr("≠ What it reads has changed since %1 signed it, though its figures came out the same.")
                                 .arg(QString::fromStdString(note.by))
                           : tr("≠ Since %1 signed it: %2.").arg(QString::fromStdString(note.by), moved.join("; "));
  }
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
  const QString typed = by_->currentText();
  QStringList people, there;
  for (const auto& one : desk_.build().shop->people)
    people << QString::fromStdString(one.name);
  for (int i = 0; i < by_->count(); ++i)
    there << by_->itemText(i);
  if (people != there) {
    by_->clear();
    by_->addItems(people);
    if (!typed.isEmpty()) by_->setEditText(typed);
  }
}

} // namespace mavrel::app
