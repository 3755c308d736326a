#include "app/checks/check_page.h"

#include "app/checks/check_edits.h"
#include "app/checks/figures_panel.h"
#include "app/checks/signer.h"
#include "app/kit/list_table.h"

#include <QComboBox>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

using assess::CheckState;
using assess::HoldPoint;

CheckPage::CheckPage(Desk& desk, const Names& names, std::function<Points()> points, QWidget* parent)
    : Page(desk, parent), points_(std::move(points)), by_(new QComboBox(this)) {
  summary_ = words("check_summary", TextSize::normal);
  column()->addWidget(summary_);
  list_ = table(names.list, names.spoken, {names.head, tr("stands"), tr("signed")});
  list_->setMinimumHeight(desk_.look().px(120));
  list_->stretch(1);
  column()->addWidget(list_, 3);
  name_ = words("check_name", TextSize::large, true);
  column()->addWidget(name_);
  how_ = quiet();
  column()->addWidget(how_);
  state_ = small_words(names.state);
  column()->addWidget(state_);
  auto* rows = new QWidget(this);
  inside_ = new QVBoxLayout(rows);
  inside_->setContentsMargins(0, 0, 0, 0);
  inside_->setSpacing(desk_.look().unit());
  figures_ = new FiguresPanel(
      desk_,
      [this](const std::string& id) -> const HoldPoint* {
        for (const HoldPoint* p : points_())
          if (p->id == id) return p;
        return nullptr;
      },
      this);
  inside_->addWidget(figures_);
  column()->addWidget(scrolled(rows, this), 5);
  auto* foot = row(column());
  begin_ = button(foot, {}, names.begin, [this] {
    if (const HoldPoint* p = point()) begin_check(desk_, HoldPoint(*p));
  });
  foot->addStretch(1);
  dress_signer(*by_, names.by);
  foot->addWidget(by_);
  sign_ = button(foot, tr("Sign"), names.sign, [this] { sign(); });
  connect(list_, &ListTable::chose, this, [this](std::size_t row) {
    const Points all = points_();
    if (row < all.size()) show_check(QString::fromStdString(all[row]->id));
  });
}

bool CheckPage::go_to(const QString& path) {
  // `check:heights`, or `variants.0.fit_up.checks.3.result`: the check of that number.
  if (path.startsWith("check:")) {
    show_check(path.mid(6));
    list_->setFocus();
    return true;
  }
  const QStringList steps = path.split('.');
  const int at = static_cast<int>(steps.indexOf("checks"));
  const auto& checks = desk_.build().variant().fit_up->checks;
  if (at < 0 || at + 1 >= steps.size() || steps[at + 1].toUInt() >= checks.size()) return Page::go_to(path);
  show_check(QString::fromStdString(checks[steps[at + 1].toUInt()].check));
  if (steps.size() > at + 3) return Page::go_to(path);
  list_->setFocus();
  return true;
}

void CheckPage::show_check(const QString& id) {
  if (held_ == id && isVisible()) return;
  held_ = id;
  refresh();
}

const HoldPoint* CheckPage::point() const {
  return figures_->point();
}

QString CheckPage::signed_by() const {
  return by_->currentText();
}

void CheckPage::fill() {
  const Points all = points_();
  if (held_.isEmpty() && !all.empty()) held_ = QString::fromStdString(all.front()->id);
  fill_list(all);
  summary_->setText(summary(all));
  fill_check();
}

void CheckPage::fill_list(const Points& points) {
  const Tokens& t = desk_.look().tokens();
  list_->fill(points.size(), [&](std::size_t r, ListTable::Row& row) {
    const HoldPoint& p = *points[r];
    const QColor ink = colour_of_check(p.state, t);
    const bool waits = p.state == CheckState::open && !p.before.empty();
    QString by;
    if (p.note) {
      const build::HoldCheck& note = desk_.build().variant().fit_up->checks[*p.note];
      by = QString::fromStdString(note.by) + (note.day.empty() ? QString() : ", " + QString::fromStdString(note.day));
    }
    row.words(sign_of_check(p.state) + "  " + desk_.words_of(p.name), ink)
        .words(waits ? tr("after %1").arg(desk_.words_of(assess::check_name(p.before.front())))
                     : desk_.words_of({assess::name_of(p.state), {}}),
               waits ? t.second : ink)
        .words(by, t.second);
    if (p.id == held_.toStdString()) row.hold();
  });
}

void CheckPage::fill_check() {
  figures_->show_check(held_);
  figures_->look_again();
  const HoldPoint* p = point();
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
  if (p && p->note)
    if (const build::HoldCheck& note = desk_.build().variant().fit_up->checks[*p->note]; !note.taken_by.empty())
      said << tr("Taken on by %1 before everything was ready: %2.")
                  .arg(QString::fromStdString(note.taken_by), QString::fromStdString(note.taken_why));
  state_->setText(said.join(" "));
  state_->setVisible(!said.isEmpty());
  QPalette palette = state_->palette();
  palette.setColor(QPalette::WindowText, desk_.look().tokens().caution);
  state_->setPalette(palette);
  fill_more(p);
  begin_->setVisible(p != nullptr);
  begin_->setText(p && p->note ? tr("Measure again") : tr("Start this check"));
  begin_->setEnabled(p && (!p->note || p->state == CheckState::stale || p->state == CheckState::passed ||
                           p->state == CheckState::failed));
  sign_->setEnabled(p && p->note && p->before.empty());
  sign_->setToolTip(p && !p->before.empty() ? state_->text() : QString());
  show_signers(*by_, desk_);
}

} // namespace mavrel::app
