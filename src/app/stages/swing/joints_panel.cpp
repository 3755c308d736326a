#include "app/stages/swing/joints_panel.h"

#include "app/desk/desk.h"
#include "app/kit/ask.h"
#include "app/kit/chips.h"
#include "app/kit/field.h"
#include "app/kit/path_table.h"
#include "app/kit/plain.h"
#include "app/stages/swing/edits.h"
#include "assess/end/end_answer.h"
#include "assess/motion/geometry_of.h"
#include "build/end_survey.h"
#include "build/names.h"

#include <QComboBox>
#include <QFileDialog>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

namespace {
constexpr const char* columns[] = {"x_m", "y_m", "z_m", "turn_allowed_rad"};
} // namespace

JointsPanel::JointsPanel(Desk& desk, QWidget* parent)
    : SwingPanel(desk, parent), table_(new PathTable(desk, tr("Joints"), this)),
      sides_(new Chips(desk, tr("Side"), 90, this)), about_(new PlainLabel(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  auto* row = new QHBoxLayout;
  row->setSpacing(u / 2);
  row->addWidget(sides_);
  usual_ = button(row, tr("Usual places"),
                  tr("Usual joints for this suspension, to be dragged to where this car's are"), [this] {
                    const bool any = !desk_.build().end(desk_.end()).points->left.empty();
                    if (any && !ask(this, tr("Usual places"), tr("The joints measured so far go. It can be undone."),
                                    tr("Start over")))
                      return;
                    start_from_usual_joints(desk_, desk_.end());
                  });
  row->addStretch(1);
  button(row, tr("Import…"), tr("Joints as CSV"), [this] {
    const QString file = QFileDialog::getOpenFileName(this, tr("Joints"), {}, tr("Sheets (*.csv);;All files (*)"));
    if (!file.isEmpty()) read_motion_file(desk_, desk_.end(), file);
  });
  button(row, tr("Export…"), tr("Joints as CSV"), [this] {
    const QString file = QFileDialog::getSaveFileName(this, tr("Joints"), "joints.csv", tr("Sheets (*.csv)"));
    if (!file.isEmpty()) write_joints(desk_, desk_.end(), file);
  });
  layout->addLayout(row);
  layout->addWidget(table_, 1);
  auto* carried = new QHBoxLayout;
  carried->setSpacing(u / 2);
  for (const auto& [key, caption] :
       {std::pair{"spring_top", tr("spring, upper seat")}, std::pair{"spring_foot", tr("lower seat")},
        std::pair{"damper_top", tr("damper, upper eye")}, std::pair{"damper_foot", tr("lower eye")}}) {
    auto* column = new QVBoxLayout;
    column->setSpacing(0);
    auto* label = new PlainLabel(caption, this);
    label->setProperty("quiet", true);
    set_small(label, desk_.look());
    auto* combo = new QComboBox(this);
    combo->setObjectName(key);
    combo->setAccessibleName(caption);
    label->setBuddy(combo);
    connect(combo, &QComboBox::activated, this, [this, combo, key = key] {
      const QString path = QString("%1.points.%2").arg(build::key_of(desk_.end()), key);
      if (const auto wrong = desk_.type(path, combo->currentData().toString())) desk_.refuse(*wrong);
    });
    column->addWidget(label);
    column->addWidget(combo);
    carried->addLayout(column, 7);
    carriers_.emplace_back(combo, key);
  }
  layout->addLayout(carried);
  auto* stands = new QHBoxLayout;
  stands->setSpacing(u / 2);
  for (const auto& [key, caption] :
       {std::pair{"camber_rad", tr("camber as it stands")}, std::pair{"toe_rad", tr("toe as it stands")},
        std::pair{"lock_rad", tr("steering lock")}}) {
    stands->addWidget(field(QString("%.points.") + key, caption), 5);
  }
  layout->addLayout(stands);
  about_->setProperty("quiet", true);
  about_->setWordWrap(true);
  layout->addWidget(about_);
  table_->setObjectName("joints_table");
  table_->set_take([this](const QString& path, const QString& text) { return take_joint(path, text); });
  connect(table_, &PathTable::held, this, [this](int r) {
    if (r >= 0 && r < static_cast<int>(keys_.size())) emit held_joint(keys_[static_cast<std::size_t>(r)]);
  });
  connect(sides_, &Chips::chosen, this, [this](int i) {
    const bool by_itself = !desk_.build().end(desk_.end()).points->right.empty();
    right_ = i == 1;
    if (right_ && !by_itself && !desk_.build().end(desk_.end()).points->left.empty())
      measure_right_side(desk_, desk_.end(), true);
    else
      refresh();
  });
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &JointsPanel::refresh);
  refresh();
}

QString JointsPanel::side() const {
  return right_ ? "right" : "left";
}

void JointsPanel::refresh() {
  const End end = desk_.end();
  const build::EndSurvey& survey = desk_.build().end(end);
  const build::HardPoints& points = *survey.points;
  if (points.right.empty()) right_ = false;
  for (const auto& [combo, key] : carriers_)
    combo->setProperty("path", QString("%1.points.%2").arg(build::key_of(end), key));
  sides_->show_choices({tr("Left"), points.right.empty() ? tr("Right by itself") : tr("Right")}, right_ ? 1 : 0);
  const auto& list = right_ ? points.right : points.left;
  const auto& trouble = desk_.answered(end).given().motion()->trouble;
  std::vector<PathTable::Row> rows;
  keys_.clear();
  for (const motion::JointRow& joint : motion::joints_of(assess::shape_of(survey.layout))) {
    const QString key = motion::key_of(joint.joint);
    keys_.push_back(key);
    PathTable::Row row{tr(joint.name), {}, {}};
    const auto found =
        std::find_if(list.begin(), list.end(), [&](const auto& p) { return key.toStdString() == p.name; });
    for (const char* column : columns)
      row.paths << (found == list.end() ? QString("+%1.points.%2:%3:%4").arg(build::key_of(end), side(), key, column)
                                        : QString("%1.points.%2.%3.%4")
                                              .arg(build::key_of(end), side())
                                              .arg(std::distance(list.begin(), found))
                                              .arg(column));
    if (trouble && key.toStdString() == trouble->joint) row.flag = desk_.words_of(trouble->what);
    rows.push_back(std::move(row));
  }
  table_->show_rows({tr("x forward"), tr("y left"), tr("z up"), tr("bears ±")}, std::move(rows));
  for (const auto& [combo, key] : carriers_) {
    const build::Carrier now = key == std::string_view("spring_top")    ? points.spring_top
                               : key == std::string_view("spring_foot") ? points.spring_foot
                               : key == std::string_view("damper_top")  ? points.damper_top
                                                                        : points.damper_foot;
    combo->clear();
    combo->setFont(desk_.look().font(TextSize::small));
    const auto parts = motion::parts_of(assess::shape_of(survey.layout));
    for (const auto& name : build::names_of(build::Carrier{})) {
      const auto part = motion::part_from(name.key);
      const bool here = name.value == build::Carrier::usual || name.value == build::Carrier::body ||
                        name.value == now || (part && std::find(parts.begin(), parts.end(), *part) != parts.end());
      if (!here) continue;
      combo->addItem(tr(name.name), QString(name.key));
      if (name.value == now) combo->setCurrentIndex(combo->count() - 1);
    }
  }
  about_->setFont(desk_.look().font(TextSize::small));
  if (points.left.empty())
    about_->setText(
        tr("From the middle of the axle on the ground, with the car as surveyed. Start from usual places and "
           "drag them to this car's, or type what the tape says."));
  else if (trouble)
    about_->setText(desk_.words_of(trouble->what));
  else
    about_->setText(
        tr("The right mirrors it. In the drawing: drag a joint, or Tab and arrows (Shift coarse, Alt fine)."));
}

std::optional<QString> JointsPanel::take_joint(const QString& path, const QString& text) {
  // A joint that was not measured yet: the others of its places are the usual ones until they are typed.
  const QString list = path.mid(1).section(':', 0, 0), key = path.section(':', 1, 1), column = path.section(':', 2);
  const build::EndSurvey& survey = desk_.build().end(desk_.end());
  std::optional<double> radius;
  if (const auto& r = desk_.assessment().end(desk_.end()).tyre_radius) radius = *r;
  build::HardPoint point;
  point.name = key.toStdString();
  for (const build::HardPoint& usual : assess::usual_points(survey.layout, survey.track, radius))
    if (usual.name == point.name) point = usual;
  if (right_) point.y = -point.y;
  const bool angle = column == "turn_allowed_rad";
  const build::NumberSpec& spec = angle             ? build::turn_allowed
                                  : column == "x_m" ? build::point_along
                                  : column == "y_m" ? build::point_across
                                                    : build::point_up;
  const auto value = parse_quantity(text.toStdString(), spec.kind, desk_.prefs());
  if (!value) return desk_.words_of(value.error());
  if (*value < spec.least || *value > spec.most)
    return tr("%1 is out of reason; %2 to %3 is believable.")
        .arg(desk_.shown(*value, spec.kind), desk_.shown(spec.least, spec.kind), desk_.shown(spec.most, spec.kind));
  if (angle)
    point.turn_allowed = *value;
  else
    (column == "x_m" ? point.x : column == "y_m" ? point.y : point.z) = *value;
  desk_.add_entry(tr("Take a joint"), list, point);
  return std::nullopt;
}

bool JointsPanel::go_to(const QString& path) {
  if (table_->go_to(path)) return true;
  for (const auto& [combo, key] : carriers_)
    if (path.endsWith(QString(".points.") + key)) {
      combo->setFocus(Qt::OtherFocusReason);
      return true;
    }
  return SwingPanel::go_to(path);
}

void JointsPanel::hold_joint(const QString& joint) {
  for (std::size_t r = 0; r < keys_.size(); ++r)
    if (keys_[r] == joint && table_->currentRow() != static_cast<int>(r)) {
      const QSignalBlocker quiet(table_);
      table_->setCurrentCell(static_cast<int>(r), std::max(0, table_->currentColumn()));
    }
}

} // namespace mavrel::app
