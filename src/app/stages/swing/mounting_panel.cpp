#include "app/stages/swing/mounting_panel.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/plain.h"
#include "app/stages/swing/edits.h"
#include "assess/swing/mounting.h"
#include "build/names.h"

#include <QComboBox>
#include <QFileDialog>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

using build::at;

MountingPanel::MountingPanel(Desk& desk, QWidget* parent)
    : SwingPanel(desk, parent), school_(new QComboBox(this)), held_(new QComboBox(this)),
      straight_(new QPushButton(this)), gauge_(new PlainLabel(this)), presets_(new PlainLabel(this)),
      worth_(new PlainLabel(this)), wanted_(new PlainLabel(this)) {
  auto* layout = scrolled_page();
  school_->setObjectName("school");
  school_->setAccessibleName(tr("Height at which the bag stands straight"));
  for (const auto& name : build::names_of(build::StraightAt{}))
    school_->addItem(tr(name.name), QString(name.key));
  connect(school_, &QComboBox::activated, this, [this] {
    const QString path = QString("@.%1.mounting.straight_at").arg(build::key_of(desk_.end()));
    if (const auto wrong = desk_.type(path, school_->currentData().toString())) desk_.refuse(*wrong);
  });
  held_->setObjectName("held");
  held_->setAccessibleName(tr("Which of the bag's ends are held"));
  for (const auto& name : build::names_of(build::Held{}))
    held_->addItem(tr(name.name), QString(name.key));
  connect(held_, &QComboBox::activated, this, [this] {
    const QString path = QString("@.%1.mounting.held").arg(build::key_of(desk_.end()));
    if (const auto wrong = desk_.type(path, held_->currentData().toString())) desk_.refuse(*wrong);
  });
  straight_->setText(tr("Stand it straight"));
  straight_->setToolTip(tr("Both brackets at the angles that do it"));
  connect(straight_, &QPushButton::clicked, this, [this] {
    build::Build build = desk_.build();
    build::Mounting& m = build.variant().fit[at(desk_.end())].mounting;
    for (build::Seat* seat : {&m.upper, &m.lower}) {
      seat->across_angle.reset();
      seat->along_angle.reset();
    }
    desk_.edit(tr("Stand the bag straight"), std::move(build));
  });
  auto* head = new QHBoxLayout;
  head->addWidget(school_, 1);
  head->addWidget(straight_);
  head->addWidget(held_, 1);
  button(head, tr("Export…"), tr("Bracket angles and seats of both ends as CSV"), [this] {
    const QString file = QFileDialog::getSaveFileName(this, tr("Brackets"), "brackets.csv", tr("Sheets (*.csv)"));
    if (!file.isEmpty()) write_brackets(desk_, file);
  });
  layout->addLayout(head);
  layout->addWidget(gauge_);
  layout->addWidget(presets_);
  auto* grid = new QGridLayout;
  grid->setSpacing(desk_.look().px(4));
  struct Item {
    const char* key;
    QString caption;
    bool angle;
  };
  const Item items[] = {{"upper.across_angle_rad", tr("upper bracket"), true},
                        {"lower.across_angle_rad", tr("lower bracket"), true},
                        {"upper.along_angle_rad", tr("upper, sideways"), true},
                        {"lower.along_angle_rad", tr("lower, sideways"), true},
                        {"upper.outward_m", tr("upper outward"), false},
                        {"lower.outward_m", tr("lower outward"), false},
                        {"upper.forward_m", tr("upper forward"), false},
                        {"lower.forward_m", tr("lower forward"), false},
                        {"seat_raised_m", tr("seat raised"), false},
                        {"damper_longer_m", tr("body longer"), false},
                        {"mount_thicker_m", tr("mount thicker"), false},
                        {"mount_outward_m", tr("mount outward"), false},
                        {"pocket_offset_m", tr("off its pocket"), false},
                        {"drop_spindle_m", tr("drop spindle"), false}};
  int k = 0;
  for (const Item& item : items) {
    Field* made = field(QString("@.%.mounting.") + item.key, item.caption);
    if (item.angle) angles_.push_back(made);
    const QString key = item.key;
    if (key.contains("outward") || key.contains("forward")) moves_.push_back(made);
    grid->addWidget(made, k / 5, k % 5);
    ++k;
  }
  layout->addLayout(grid);
  for (QComboBox* combo : {school_, held_}) { // they give way before the page does
    combo->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    combo->setMinimumContentsLength(13);
  }
  for (QLabel* label : {gauge_, presets_, worth_, wanted_}) {
    label->setWordWrap(true);
    label->setTextInteractionFlags(Qt::TextSelectableByMouse);
    if (label != gauge_ && label != presets_) layout->addWidget(label);
  }
  gauge_->setObjectName("gauge_angles");
  presets_->setObjectName("aligned_presets");
  layout->addStretch(1);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &MountingPanel::refresh);
  refresh();
}

void MountingPanel::refresh() {
  const auto& answered = desk_.answered(desk_.end());
  const assess::Mounting m = assess::mounting_of(answered);
  const auto& mounting = desk_.build().variant().fit[at(desk_.end())].mounting;
  const auto& presets = desk_.build().variant().brief.presets;
  const QString path = QString("@.%1.mounting.").arg(build::key_of(desk_.end()));
  school_->setProperty("path", path + "straight_at");
  held_->setProperty("path", path + "held");
  school_->setCurrentIndex(static_cast<int>(mounting.straight_at));
  held_->setCurrentIndex(static_cast<int>(mounting.held));
  for (QComboBox* combo : {school_, held_})
    combo->setFont(desk_.look().font(TextSize::small));
  for (QLabel* label : {presets_, worth_, wanted_, gauge_})
    label->setFont(desk_.look().font(TextSize::small));
  const auto angle = [&](double a) { return desk_.shown(a, Kind::angle, 1); };
  const auto mm = [&](double v) { return desk_.shown(v, Kind::length, 0); };
  straight_->setEnabled(m.alignment.has_value());
  // What has nothing to move does not pretend to.
  for (Field* f : angles_)
    f->setEnabled(m.alignment.has_value());
  for (Field* f : moves_)
    f->setEnabled(answered.given().motion()->joints.has_value());
  if (m.alignment) {
    const assess::Alignment& a = *m.alignment;
    gauge_->setText(
        tr("On the gauge, car as surveyed: upper %1, lower %2 (outer edge up is +). Straight at %3 with upper "
           "%4, lower %5; the arm's own plate then reads %6.")
            .arg(angle(a.upper.across), angle(a.lower.across), mm(a.straight_at), angle(a.straight_upper.across),
                 angle(a.straight_lower.across), angle(a.lower_there.across)));
    const double straight[] = {a.straight_upper.across, a.straight_lower.across, a.straight_upper.along,
                               a.straight_lower.along};
    for (std::size_t i = 0; i < angles_.size(); ++i)
      angles_[i]->set_placeholder(tr("straight %1").arg(angle(straight[i])));
    QStringList said;
    for (const assess::AlignedPreset& p : m.presets)
      said << tr("%1%2 %3, offset %4")
                  .arg(p.tilted || p.pushed ? "△ " : "", QString::fromStdString(presets[p.preset].name),
                       angle(p.at.tilt), mm(p.at.offset));
    QString text = said.join("  ·  ");
    if (m.bears)
      text += tr("  ·  it bears %1 and %2%3")
                  .arg(angle(m.bears->tilt), mm(m.bears->offset),
                       m.bears->tilt_from_card ? QString() : tr(", as usual for its kind"));
    presets_->setText(text);
  } else {
    const bool coaxial = desk_.build().end(desk_.end()).spring_place == build::SpringPlace::around_damper;
    gauge_->setText(coaxial
                        ? tr("The bag stands around its damper and turns with it: it stays straight by itself. On a "
                             "strut it turns with the steering: the port low and near the axis, the line slack for "
                             "both locks.")
                        : tr("Bracket angles need the joints and both seats: see Joints."));
    presets_->clear();
    for (Field* f : angles_)
      f->set_placeholder({});
  }
  QStringList worth;
  if (m.height_per_stack)
    worth << tr("A millimetre of stack or mount is %1 mm of height at road.").arg(*m.height_per_stack, 0, 'f', 2);
  if (m.camber_per_outward)
    worth << tr("10 mm outward at the top: %1 of camber.")
                 .arg(desk_.shown(*m.camber_per_outward * 0.010, Kind::angle, 2));
  if (m.height_per_stack && m.camber_per_outward)
    worth << tr("A thin plate 20 mm thinner than an adjustable mount lies %1 lower, its camber fixed.")
                 .arg(mm(0.020 * *m.height_per_stack));
  if (m.bump_left && m.rebound_left)
    worth << tr("From road the damper has %1 of wheel travel in bump and %2 in rebound.")
                 .arg(mm(*m.bump_left), mm(*m.rebound_left));
  if (m.body_longer)
    worth << tr("A threaded body set %1 %2 than surveyed would share it as the brief does.")
                 .arg(mm(std::abs(*m.body_longer)), *m.body_longer >= 0 ? tr("longer") : tr("shorter"));
  if (m.inboard)
    worth << tr("10 mm further in on the arm: motion ratio %1, %2 more on the bag.")
                 .arg(desk_.shown(m.inboard->ratio * 0.010, Kind::plain, 3),
                      desk_.shown(m.inboard->force * 0.010, Kind::force, 0));
  if (m.between_plates && m.alignment)
    worth << tr("For the other side: %1 plate to plate, upper %2, lower %3, port mirrored.")
                 .arg(mm(*m.between_plates), angle(m.alignment->upper.across), angle(m.alignment->lower.across));
  worth_->setText(worth.join(" "));
  QStringList wanted;
  if (m.wanted) {
    const auto& w = *m.wanted;
    wanted << tr("From the brief back, for %1 to %2:").arg(mm(w.low), mm(w.high));
    if (w.shut && w.open)
      wanted << tr("damper at most %1 shut and at least %2 open, %3 of stroke;")
                    .arg(mm(*w.shut), mm(*w.open), mm(*w.stroke));
    if (w.stop_gap) wanted << tr("the stop's gap %1 as surveyed;").arg(mm(*w.stop_gap));
    if (w.stack_most)
      wanted << (*w.stack_most < std::max(0.0, *w.stack_least)
                     ? tr("no stack does for this bag: it would need at least %1 and at most %2.")
                           .arg(mm(std::max(0.0, *w.stack_least)), mm(*w.stack_most))
                     : tr("stack %1 to %2 with this bag.").arg(mm(std::max(0.0, *w.stack_least)), mm(*w.stack_most)));
  }
  wanted_->setText(wanted.join(" "));
}

} // namespace mavrel::app
