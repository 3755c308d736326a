#include "app/stages/car_in/tape_mode.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/plain.h"
#include "app/kit/tape_keys.h"
#include "app/stages/car_in/tape_drawing.h"
#include "assess/end/end_answer.h"
#include "build/names.h"

#include <QHBoxLayout>
#include <QKeyEvent>
#include <QLabel>
#include <QVBoxLayout>

namespace mavrel::app {

namespace {

/// In the order a builder walks round the car: heights, then scales, then under each end. What the car does not need
/// is not asked for.
QStringList places_in_order(const build::Build& build) {
  QStringList out;
  for (const char* end : {"front", "rear"})
    for (const char* side : {"left", "right"})
      out << QString("%1.%2.height_m").arg(end, side);
  for (const char* end : {"front", "rear"})
    for (const char* side : {"left", "right"})
      out << QString("%1.%2.mass_kg").arg(end, side);
  for (const build::End end : build::both_ends)
    for (const char* key : {"wheel", "spring_length_m", "motion_ratio", "damper_length_m", "damper_open_m",
                            "damper_shut_m", "damper_ratio", "bump_stop_gap_m", "bag_room_m"}) {
      const bool with_spring = build.end(end).spring_place == build::SpringPlace::around_damper;
      if (with_spring && key == std::string_view("damper_ratio")) continue;
      out << QString("%1.%2").arg(build::key_of(end), key);
    }
  out << "body.wheelbase_m";
  return out;
}

QString how_to(const QString& place) {
  if (place.endsWith("height_m")) return TapeMode::tr("Hub centre up to the arch lip, car rolled and settled.");
  if (place.endsWith("mass_kg")) return TapeMode::tr("What the scale under this wheel says, nobody aboard.");
  if (place.endsWith("wheel")) return TapeMode::tr("As printed on tyre and rim: 205/55R16 6.5 ET45.");
  if (place.endsWith("spring_length_m")) return TapeMode::tr("Spring seat to spring seat, on its wheels.");
  if (place.endsWith("motion_ratio")) return TapeMode::tr("How much the spring moves for each 1 the wheel moves.");
  if (place.endsWith("damper_ratio")) return TapeMode::tr("How much the damper moves for each 1 the wheel moves.");
  if (place.endsWith("damper_length_m")) return TapeMode::tr("Eye to eye, on its wheels.");
  if (place.endsWith("damper_open_m")) return TapeMode::tr("Eye to eye, pulled right out.");
  if (place.endsWith("damper_shut_m")) return TapeMode::tr("Eye to eye, pushed right in.");
  if (place.endsWith("bump_stop_gap_m")) return TapeMode::tr("Free travel before the stop meets, on its wheels.");
  if (place.endsWith("bag_room_m")) return TapeMode::tr("The widest cylinder that fits around the bag's axis.");
  if (place.endsWith("wheelbase_m")) return TapeMode::tr("Hub to hub along the car, wheels straight.");
  return {};
}

} // namespace

TapeMode::TapeMode(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), places_(places_in_order(desk.build())), where_(new PlainLabel(this)),
      how_(new PlainLabel(this)), progress_(new PlainLabel(this)), next_(new PlainLabel(this)),
      field_(new Field(desk, places_.front(), {}, this)), drawing_(new TapeDrawing(desk, this)) {
  setObjectName("tape_mode");
  setAccessibleName(tr("Tape mode"));
  setAutoFillBackground(true);
  auto* layout = new QVBoxLayout(this);
  const int u = desk_.look().unit();
  layout->setContentsMargins(3 * u, 2 * u, 3 * u, 2 * u);
  layout->setSpacing(u);
  layout->addWidget(drawing_, 1);
  auto* row = new QHBoxLayout; // what is read, and beside it the figure
  row->setSpacing(4 * u);
  auto* words = new QVBoxLayout;
  words->setSpacing(u / 2);
  how_->setWordWrap(true);
  words->addWidget(progress_);
  words->addWidget(where_);
  words->addWidget(how_);
  words->addWidget(next_);
  row->addLayout(words, 1);
  row->addWidget(field_, 0, Qt::AlignRight | Qt::AlignVCenter);
  layout->addLayout(row);
  auto* keys =
      new PlainLabel(tr("Enter takes it and goes on · ↑ ↓ step · + in front adds a reading · Esc leaves"), this);
  keys->setProperty("quiet", true);
  layout->addWidget(keys);
  field_->set_prominent(true);
  field_->edit()->installEventFilter(this);
  connect(field_, &Field::taken, this, [this] { step(1); });
}

void TapeMode::dress() {
  const Look& look = desk_.look();
  QFont large = look.font(TextSize::huge, true);
  large.setPixelSize(look.px(26));
  where_->setFont(large);
  how_->setFont(look.font(TextSize::large));
  for (QLabel* label : {progress_, next_})
    label->setFont(look.font(TextSize::normal));
  QFont value = large;
  value.setPixelSize(look.px(30));
  field_->edit()->setFont(value);
  field_->setFixedWidth(look.px(470)); // three readings of a height
}

bool TapeMode::begin_with(const QStringList& places) {
  const QStringList all = places_in_order(desk_.build());
  QStringList known;
  for (const QString& place : places)
    if (all.contains(place)) known << place;
  if (known.isEmpty()) return false;
  dress();
  places_ = known;
  at_ = 0;
  show_place();
  return true;
}

void TapeMode::begin() {
  dress();
  // Start at the first reading not taken yet.
  places_ = places_in_order(desk_.build());
  at_ = 0;
  for (int i = 0; i < places_.size(); ++i)
    if (!desk_.field(places_[i]).filled) {
      at_ = i;
      break;
    }
  show_place();
}

void TapeMode::reserve_right(int px) {
  const int u = desk_.look().unit();
  layout()->setContentsMargins(3 * u, 2 * u, px + 2 * u, 2 * u);
}

void TapeMode::show_place() {
  field_->edit()->clearFocus();
  field_->bind(places_[at_]);
  drawing_->show_place(places_[at_]);
  QString name = desk_.words_of(desk_.field(places_[at_]).label);
  if (!name.isEmpty()) name[0] = name[0].toUpper();
  where_->setText(name);
  how_->setText(how_to(places_[at_]));
  int taken = 0;
  for (const QString& place : places_)
    taken += desk_.field(place).filled;
  progress_->setText(tr("%1 of %2 · %3 taken").arg(at_ + 1).arg(places_.size()).arg(taken));
  next_->setText(at_ + 1 < places_.size() ? tr("then: %1").arg(desk_.words_of(desk_.field(places_[at_ + 1]).label))
                                          : tr("the last one"));
  field_->edit()->setFocus(Qt::OtherFocusReason);
}

void TapeMode::step(int by) {
  const int to = at_ + by;
  if (to >= places_.size()) {
    emit left();
    return;
  }
  at_ = std::max(0, to);
  show_place();
}

bool TapeMode::eventFilter(QObject* watched, QEvent* event) {
  const TapeKey key = tape_key(event);
  if (key == TapeKey::other) return QWidget::eventFilter(watched, event);
  if (key == TapeKey::leave)
    emit left();
  else
    step(key == TapeKey::on ? 1 : -1);
  return true;
}

void TapeMode::keyPressEvent(QKeyEvent* event) {
  if (event->key() == Qt::Key_Escape)
    emit left();
  else
    QWidget::keyPressEvent(event);
}

} // namespace mavrel::app
