#include "app/stages/swing/cycle_tape.h"

#include "app/desk/desk.h"
#include "app/kit/half_typed.h"
#include "app/kit/plain.h"
#include "app/kit/tape_keys.h"
#include "app/stages/swing/edits.h"
#include "app/stages/swing/motion_sheet.h"
#include "assess/end/end_answer.h"
#include "build/end_survey.h"
#include "build/names.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QLineEdit>
#include <QVBoxLayout>

namespace mavrel::app {

CycleTape::CycleTape(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), progress_(new PlainLabel(this)), where_(new PlainLabel(this)),
      how_(new PlainLabel(this)), keys_(new PlainLabel(this)), wrong_(new PlainLabel(this)), line_(new QLineEdit(this)),
      sheet_(new MotionSheet(desk, this)) {
  setObjectName("cycle_tape");
  setAccessibleName(tr("Tape mode for jacking"));
  auto* layout = new QHBoxLayout(this);
  const int u = desk_.look().unit();
  layout->setSpacing(3 * u);
  auto* words = new QVBoxLayout;
  words->setSpacing(u);
  words->addStretch(2);
  for (QLabel* label : {progress_, where_, how_})
    words->addWidget(label);
  how_->setWordWrap(true);
  where_->setWordWrap(true);
  words->addWidget(line_);
  wrong_->setWordWrap(true);
  wrong_->setProperty("wrong", true);
  words->addWidget(wrong_);
  words->addStretch(3);
  keys_->setText(tr("Enter takes it and goes on · Enter alone leaves one out · ↑ ↓ step · Esc leaves"));
  keys_->setWordWrap(true);
  keys_->setProperty("quiet", true);
  words->addWidget(keys_);
  layout->addLayout(words, 5);
  layout->addWidget(sheet_, 8);
  line_->setObjectName("cycle_line");
  line_->installEventFilter(this);
  connect(line_, &QLineEdit::returnPressed, this, &CycleTape::take);
  settle_line(desk_, line_, [this]() -> std::optional<QString> {
    if (!isVisible()) return std::nullopt;
    take();
    return wrong_->text().isEmpty() ? std::nullopt : std::optional(wrong_->text());
  });
  connect(line_, &QLineEdit::textEdited, wrong_, &QLabel::clear);
  connect(&desk_, &Desk::rewound, this, [this] {
    // The row under way may have been undone.
    const auto& cycle = cycle_of(desk_, desk_.end(), right_);
    if (row_ >= static_cast<int>(cycle.size())) row_ = -1, at_ = 0;
    if (isVisible()) show_step();
  });
  connect(&desk_, &Desk::looked_at, this, [this] {
    if (isVisible()) begin(right_); // the other end
  });
}

void CycleTape::begin(bool right) {
  right_ = right;
  const Look& look = desk_.look();
  QFont large = look.font(TextSize::huge, true);
  large.setPixelSize(look.px(26));
  where_->setFont(large);
  how_->setFont(look.font(TextSize::large));
  progress_->setFont(look.font(TextSize::normal));
  QFont value = large;
  value.setPixelSize(look.px(30));
  line_->setFont(value);
  steps_ = QStringList{"height", "spring", "damper", "camber", "toe"};
  for (const build::CycleRow& row : cycle_of(desk_, desk_.end(), right_))
    for (const build::CycleGap& gap : row.gaps)
      if (const QString name = QString::fromStdString(gap.name); !steps_.contains(name)) steps_ << name;
  row_ = -1;
  at_ = 0;
  show_step();
}

QString CycleTape::asked() const {
  return steps_.value(at_);
}

void CycleTape::reserve_right(int px) {
  const int u = desk_.look().unit();
  layout()->setContentsMargins(3 * u, 2 * u, px, u);
}

QString CycleTape::path() const {
  static const char* const fields[] = {"height_m", "spring_m", "damper_m", "camber_rad", "toe_rad"};
  return QString("%1.%2.%3").arg(cycle_list(desk_.end(), right_)).arg(row_).arg(fields[at_]);
}

void CycleTape::show_step() {
  const auto& cycle = cycle_of(desk_, desk_.end(), right_);
  const int row = row_ < 0 ? static_cast<int>(cycle.size()) : row_;
  progress_->setText(
      tr("%1 %2, row %3").arg(tr(build::name_of(desk_.end())), right_ ? tr("right") : tr("left")).arg(row + 1));
  struct Step {
    QString name, how;
  };
  const Step known[] = {
      {tr("Height"),
       tr("Jack the wheel a step further, then hub centre up to the arch lip. In any order; the ends of the "
          "travel tell most.")},
      {tr("Spring seats"), tr("Seat to seat, spring out. A spring in its place is never unbolted under load.")},
      {tr("Damper"), tr("Eye to eye.")},
      {tr("Camber"), tr("By the gauge on the rim, top outward is +. Enter alone leaves it out.")},
      {tr("Toe"), tr("Toe-in is +. Enter alone leaves it out.")},
  };
  where_->setText(at_ < 5 ? known[at_].name : steps_[at_]);
  how_->setText(at_ < 5 ? known[at_].how : tr("As a tape or feeler reads it. Enter alone leaves it out."));
  line_->setAccessibleName(tr("%1, row %2").arg(where_->text()).arg(row + 1));
  // What was taken there already, to be taken again or left.
  QString there;
  if (row_ >= 0 && at_ < 5) there = QString::fromStdString(desk_.field(path()).editable);
  line_->setText(there);
  line_->selectAll();
  line_->setFocus(Qt::OtherFocusReason);
  wrong_->clear();
}

void CycleTape::take() {
  const QString text = line_->text().trimmed();
  line_->setModified(false); // taken once, whatever hears of the change
  const auto say = [this](const QString& why) {
    wrong_->setText(why);
    line_->setModified(true);
    line_->selectAll();
  };
  if (at_ == 0 && row_ < 0) {
    if (text.isEmpty()) return say(tr("A row begins with its height."));
    const auto H = parse_quantity(text.toStdString(), Kind::length, desk_.prefs());
    if (!H) return say(desk_.words_of(H.error()));
    if (*H < build::cycle_height.least || *H > build::cycle_height.most)
      return say(tr("%1 is out of reason; %2 to %3 is believable.")
                     .arg(desk_.shown(*H, Kind::length), desk_.shown(build::cycle_height.least, Kind::length),
                          desk_.shown(build::cycle_height.most, Kind::length)));
    const auto row = add_cycle_row(desk_, desk_.end(), *H, right_);
    if (!row) return; // full, which was told
    row_ = static_cast<int>(*row);
    desk_.set_pose(desk_.end(), *H); // the line goes where the jack is
  } else if (at_ < 5) {
    if (!text.isEmpty() || at_ > 0)
      if (const auto wrong = desk_.type(path(), text)) return say(*wrong);
  } else if (!text.isEmpty()) {
    const auto value = parse_quantity(text.toStdString(), Kind::length, desk_.prefs());
    if (!value) return say(desk_.words_of(value.error()));
    if (*value < build::cycle_gap.least || *value > build::cycle_gap.most)
      return say(tr("%1 is out of reason for a gap.").arg(desk_.shown(*value, Kind::length)));
    desk_.add_entry(tr("Take a gap"), QString("%1.%2.gaps").arg(cycle_list(desk_.end(), right_)).arg(row_),
                    build::CycleGap{steps_[at_].toStdString(), *value, {}});
  }
  step(1);
}

void CycleTape::step(int by) {
  int to = at_ + by;
  if (to >= steps_.size()) {
    row_ = -1;
    to = 0;
  }
  if (row_ < 0) to = 0; // nothing of a row before its height
  at_ = std::max(0, to);
  show_step();
}

bool CycleTape::eventFilter(QObject* watched, QEvent* event) {
  const TapeKey key = tape_key(event);
  if (key == TapeKey::other) return QWidget::eventFilter(watched, event);
  if (key == TapeKey::leave)
    emit left();
  else
    step(key == TapeKey::on ? 1 : -1);
  return true;
}

} // namespace mavrel::app
