#include "app/stages/swing/cycle_panel.h"

#include "app/desk/desk.h"
#include "app/kit/chips.h"
#include "app/kit/path_table.h"
#include "app/kit/plain.h"
#include "app/stages/swing/edits.h"
#include "assess/end/end_answer.h"
#include "build/end_survey.h"
#include "build/names.h"

#include <QFileDialog>
#include <QHBoxLayout>
#include <QInputDialog>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

CyclePanel::CyclePanel(Desk& desk, QWidget* parent)
    : SwingPanel(desk, parent), table_(new PathTable(desk, tr("Cycle sheet"), this)),
      sides_(new Chips(desk, tr("Side"), 60, this)), about_(new PlainLabel(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  auto* row = new QHBoxLayout;
  row->setSpacing(u / 2);
  row->addWidget(sides_);
  connect(sides_, &Chips::chosen, this, [this](int i) {
    right_ = i == 1;
    refresh();
  });
  button(row, tr("Jack it through"), tr("Tape mode: one reading at a time, large, keyboard only (Ctrl+J)"),
         [this] { emit wants_tape(right_); });
  button(row, tr("Add a row"), tr("At the pose's height"), [this] { add_row(); });
  drop_ = button(row, tr("Drop"), tr("The row that is held"), [this] {
    if (table_->held_row() >= 0)
      remove_cycle_row(desk_, desk_.end(), static_cast<std::size_t>(table_->held_row()), right_);
  });
  button(row, tr("Gap…"), tr("A column more, for any gap of interest"), [this] { add_gap(); });
  row->addStretch(1);
  button(row, tr("Import…"), tr("A cycle sheet as CSV"), [this] {
    const QString file = QFileDialog::getOpenFileName(this, tr("Cycle sheet"), {}, tr("Sheets (*.csv);;All files (*)"));
    if (!file.isEmpty()) read_motion_file(desk_, desk_.end(), file, right_);
  });
  button(row, tr("Export…"), tr("The sheet as CSV"), [this] {
    const QString file = QFileDialog::getSaveFileName(this, tr("Cycle sheet"), "cycle-sheet.csv", tr("Sheets (*.csv)"));
    if (!file.isEmpty()) write_cycle(desk_, desk_.end(), file, right_);
  });
  layout->addLayout(row);
  layout->addWidget(table_, 1);
  about_->setProperty("quiet", true);
  about_->setWordWrap(true);
  layout->addWidget(about_);
  table_->setObjectName("cycle_table");
  table_->set_take([this](const QString& path, const QString& text) { return take_gap(path, text); });
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &CyclePanel::refresh);
  refresh();
}

void CyclePanel::refresh() {
  const End end = desk_.end();
  const auto& answered = desk_.answered(end);
  const assess::SurveyedEnd& read = *answered.given().survey();
  const auto& cycle = cycle_of(desk_, end, right_);
  sides_->show_choices({tr("Left"), tr("Right")}, right_ ? 1 : 0);
  QStringList gaps;
  for (const build::CycleRow& row : cycle)
    for (const build::CycleGap& gap : row.gaps)
      if (const QString name = QString::fromStdString(gap.name); !gaps.contains(name)) gaps << name;
  for (const QString& name : new_gaps_)
    if (!gaps.contains(name)) gaps << name;
  std::vector<std::size_t> again;
  const auto flagged = [&](const std::optional<motion::CycleFit>& of, const std::vector<std::size_t>& used) {
    if (of)
      for (const std::size_t i : of->measure_again)
        again.push_back(used[i]);
  };
  const auto& fit = right_ ? read.right_spring_fit : read.spring_fit;
  flagged(fit, right_ ? read.right_rows : read.spring_rows);
  if (!right_) flagged(read.damper_fit, read.damper_rows);
  std::vector<PathTable::Row> rows;
  for (std::size_t i = 0; i < cycle.size(); ++i) {
    const QString path = QString("%1.%2.").arg(cycle_list(end, right_)).arg(i);
    PathTable::Row row{QString::number(i + 1),
                       {path + "height_m", path + "spring_m", path + "damper_m", path + "camber_rad", path + "toe_rad"},
                       {}};
    for (const QString& name : gaps) {
      const auto& there = cycle[i].gaps;
      const auto found =
          std::find_if(there.begin(), there.end(), [&](const auto& g) { return name.toStdString() == g.name; });
      row.paths << (found == there.end()
                        ? QString("+%1gaps:%2").arg(path, name)
                        : QString("%1gaps.%2.value_m").arg(path).arg(std::distance(there.begin(), found)));
    }
    if (std::find(again.begin(), again.end(), i) != again.end())
      row.flag = tr("Measure again: the other rows do not believe it.");
    rows.push_back(std::move(row));
  }
  QStringList heads{tr("height"), tr("spring"), tr("damper"), tr("camber"), tr("toe")};
  heads << gaps;
  table_->show_rows(heads, std::move(rows));
  drop_->setEnabled(!cycle.empty());
  about_->setFont(desk_.look().font(TextSize::small));
  if (cycle.empty() && right_)
    about_->setText(tr("The right side goes by the left's sheet until it has one of its own."));
  else if (cycle.empty())
    about_->setText(tr("Spring out, jack the wheel through its travel in 5 to 9 steps; at each tape the height, the "
                       "seats and the damper. Stands under the body while the spring is out."));
  else if (read.cycle_trouble && !right_)
    about_->setText(desk_.words_of(*read.cycle_trouble));
  else if (fit && read.height) {
    const double H = *read.height;
    const auto sd = fit->slope_sd(H);
    QString text = tr("Motion ratio %1 as it stands").arg(desk_.shown(fit->length.read(H).slope, Kind::plain, 3));
    text += sd ? tr(", ± %1").arg(desk_.shown(*sd, Kind::plain, 3)) : tr(", and no reading to spare to say how sure");
    text += tr("; degree %1 through %2 rows")
                .arg(fit->degree)
                .arg(right_ ? read.right_rows.size() : read.spring_rows.size());
    if (!again.empty()) text += tr("; △ measure again");
    about_->setText(text + ".");
  } else
    about_->setText(tr("Two heights with the seats taped make a curve."));
}

void CyclePanel::add_row() {
  const auto pose = desk_.pose(desk_.end());
  const auto row = add_cycle_row(desk_, desk_.end(), std::round(pose.value_or(0.35) * 1e3) * 1e-3, right_);
  if (!row) return;
  table_->setCurrentCell(static_cast<int>(*row), 0);
  table_->setFocus(Qt::OtherFocusReason);
}

void CyclePanel::add_gap() {
  bool ok = false;
  const QString name = QInputDialog::getText(this, tr("Follow a gap"), tr("What is measured, as you call it:"),
                                             QLineEdit::Normal, tr("tyre to liner"), &ok)
                           .trimmed();
  if (!ok || name.isEmpty()) return;
  if (const auto wrong = build::mistake_in_text(name.toStdString(), words("gap"), build::most_gap_name))
    return desk_.tell(desk_.words_of(*wrong));
  if (!new_gaps_.contains(name)) new_gaps_ << name;
  refresh();
}

std::optional<QString> CyclePanel::take_gap(const QString& path, const QString& text) {
  const auto value = parse_quantity(text.toStdString(), Kind::length, desk_.prefs());
  if (!value) return desk_.words_of(value.error());
  if (*value < build::cycle_gap.least || *value > build::cycle_gap.most)
    return tr("%1 is out of reason for a gap.").arg(desk_.shown(*value, Kind::length));
  const QString list = path.mid(1).section(':', 0, 0), name = path.section(':', 1);
  desk_.add_entry(tr("Take a gap"), list, build::CycleGap{name.toStdString(), *value, {}});
  return std::nullopt;
}

bool CyclePanel::go_to(const QString& path) {
  if (path.contains(".cycle")) {
    right_ = path.contains(".cycle_right");
    refresh();
  }
  return table_->go_to(path);
}

} // namespace mavrel::app
