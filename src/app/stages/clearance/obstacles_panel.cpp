#include "app/stages/clearance/obstacles_panel.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/page.h"
#include "app/kit/plain.h"
#include "app/stages/clearance/edits.h"
#include "app/stages/clearance/steer.h"
#include "assess/interference/near_at.h"
#include "build/names.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHeaderView>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace mavrel::app {

using build::ObstacleShape;

namespace {

constexpr int across = 4; // fields beside each other

constexpr unsigned bit(ObstacleShape shape) {
  return 1U << static_cast<unsigned>(shape);
}
constexpr unsigned gaps = bit(ObstacleShape::gap), planes = bit(ObstacleShape::plane), boxes = bit(ObstacleShape::box),
                   rods = bit(ObstacleShape::rod), edges = bit(ObstacleShape::edge),
                   solids = planes | boxes | rods | edges;

template <class Enum>
void fill_choices(QComboBox& combo, Enum now) {
  combo.clear();
  for (const auto& row : build::names_of(Enum{})) {
    combo.addItem(QObject::tr(row.name), QString(row.key));
    if (row.value == now) combo.setCurrentIndex(combo.count() - 1);
  }
}

} // namespace

ObstaclesPanel::ObstaclesPanel(Desk& desk, Steer& steer, QWidget* parent)
    : EndPanel(desk, parent), steer_(steer), list_(new QTableWidget(this)), about_(new PlainLabel(this)),
      form_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  auto* row = new QHBoxLayout;
  row->setSpacing(u / 2);
  auto* add = new QPushButton(tr("Add"), this);
  add->setObjectName("add_obstacle");
  add->setToolTip(tr("Something near the wheel or the bag"));
  auto* menu = new QMenu(add);
  for (const auto& shape : build::names_of(ObstacleShape{}))
    menu->addAction(tr(shape.name), this, [this, value = shape.value] {
      if (const auto made = add_obstacle(desk_, desk_.end(), value)) {
        hold(made);
        go_to(desk_.resolve(QString("%1.obstacles.%2.name").arg(build::key_of(desk_.end())).arg(*made)));
      }
    });
  add->setMenu(menu);
  row->addWidget(add);
  auto* remove = button(row, tr("Remove"), tr("Take the one that is held away"), [this] {
    if (held_) remove_obstacle(desk_, desk_.end(), *held_);
  });
  remove->setObjectName("remove_obstacle");
  row->addStretch(1);
  about_->setProperty("quiet", true);
  row->addWidget(about_);
  layout->addLayout(row);
  list_->setObjectName("obstacles_list");
  list_->setAccessibleName(tr("Obstacles"));
  list_->setSelectionBehavior(QAbstractItemView::SelectRows);
  list_->setSelectionMode(QAbstractItemView::SingleSelection);
  list_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  list_->setShowGrid(false);
  list_->verticalHeader()->hide();
  list_->setColumnCount(4);
  list_->horizontalHeader()->setHighlightSections(false);
  list_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  list_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  list_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  list_->setTabKeyNavigation(false);
  layout->addWidget(list_, 4);
  connect(list_, &QTableWidget::currentCellChanged, this, [this](int r, int, int before, int) {
    if (r != before && r >= 0) hold(static_cast<std::size_t>(r));
  });

  auto* grid = new QGridLayout(form_);
  grid->setContentsMargins(0, 0, u / 2, 0);
  grid->setHorizontalSpacing(u);
  grid->setVerticalSpacing(u / 4);
  for (int c = 0; c < across; ++c)
    grid->setColumnStretch(c, 1);
  const auto put = [&](QWidget* widget) {
    grid->addWidget(widget, static_cast<int>(order_.size()) / across, static_cast<int>(order_.size()) % across);
    order_.push_back(widget);
  };
  const auto add_field = [&](const char* key, const QString& caption, unsigned shapes) {
    auto* made = new Field(desk_, {}, caption, form_);
    made->edit()->setObjectName(QString("obstacle_") + key);
    fields_.push_back({made, key, shapes});
    put(made);
  };
  const auto add_choice = [&](const char* key, const QString& caption) {
    auto* box = new QWidget(form_);
    auto* column = new QVBoxLayout(box);
    column->setContentsMargins(0, 0, 0, 0);
    column->setSpacing(0);
    auto* label = new PlainLabel(caption, box);
    label->setProperty("quiet", true);
    set_small(label, desk_.look());
    auto* combo = new QComboBox(box);
    combo->setObjectName(QString("obstacle_") + key);
    combo->setAccessibleName(caption);
    combo->setSizeAdjustPolicy(QComboBox::AdjustToMinimumContentsLengthWithIcon);
    combo->setMinimumContentsLength(11);
    label->setBuddy(combo);
    connect(combo, &QComboBox::activated, this, [this, combo, key] {
      if (!held_) return;
      const QString path = QString("%1.obstacles.%2.%3").arg(build::key_of(desk_.end())).arg(*held_).arg(key);
      if (const auto wrong = desk_.type(path, combo->currentData().toString())) desk_.refuse(*wrong);
    });
    column->addWidget(label);
    column->addWidget(combo);
    choices_.emplace_back(combo, key);
    put(box);
  };
  add_field("name", tr("name"), gaps | solids);
  add_choice("kind", tr("kind"));
  add_choice("shape", tr("shape"));
  add_choice("fixed_to", tr("moves as"));
  add_choice("bolted_to", tr("bolted to"));
  add_choice("on_car", tr("on the car"));
  add_choice("gap_way", tr("where it lies"));
  add_choice("gap_at", tr("wheels"));
  add_choice("gap_from", tr("taped"));
  add_field("gap_m", tr("gap"), gaps);
  add_field("gap_height_m", tr("taped at height"), gaps);
  add_field("x_m", tr("x forward"), solids);
  add_field("y_m", tr("y left"), solids);
  add_field("z_m", tr("z up"), solids);
  add_field("turn_rad", tr("turned"), boxes);
  add_field("to_x_m", tr("to x"), planes | rods | edges);
  add_field("to_y_m", tr("to y"), planes | rods | edges);
  add_field("to_z_m", tr("to z"), planes | rods | edges);
  add_field("radius_m", tr("radius"), rods);
  add_field("size_x_m", tr("long"), boxes);
  add_field("size_y_m", tr("wide"), boxes);
  add_field("size_z_m", tr("high"), boxes);
  add_field("room_m", tr("room wanted"), gaps | solids);
  grid->setRowStretch(static_cast<int>(order_.size()) / across + 1, 1); // a name stays by its field
  layout->addWidget(scrolled(form_, this), 5);
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, &ObstaclesPanel::refresh);
  connect(&desk_, &Desk::looked_at, this, [this] {
    held_.reset();
    refresh();
  });
  connect(&desk_, &Desk::posed, this, &ObstaclesPanel::refresh_gaps);
  connect(&steer_, &Steer::turned, this, &ObstaclesPanel::refresh_gaps);
  refresh();
}

void ObstaclesPanel::hold(std::optional<std::size_t> obstacle) {
  const auto& list = desk_.build().end(desk_.end()).obstacles;
  if (obstacle && *obstacle >= list.size()) obstacle.reset();
  if (obstacle == held_) return;
  held_ = obstacle;
  {
    const QSignalBlocker quiet(list_);
    list_->setCurrentCell(held_ ? static_cast<int>(*held_) : -1, 0);
  }
  show_held();
  emit chose(held_);
}

void ObstaclesPanel::refresh() {
  const Look& look = desk_.look();
  const auto& obstacles = desk_.build().end(desk_.end()).obstacles;
  if (held_ && *held_ >= obstacles.size())
    held_ = obstacles.empty() ? std::nullopt : std::optional(obstacles.size() - 1);
  if (!held_ && !obstacles.empty()) held_ = 0;
  {
    const QSignalBlocker quiet(list_);
    list_->setFont(look.font());
    list_->horizontalHeader()->setFont(look.font(TextSize::small));
    list_->verticalHeader()->setMinimumSectionSize(look.px(20));
    list_->verticalHeader()->setDefaultSectionSize(look.px(21));
    list_->setHorizontalHeaderLabels({tr("obstacle"), tr("kind"), tr("gap here"), tr("wanted")});
    list_->horizontalHeaderItem(0)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
    list_->setRowCount(static_cast<int>(obstacles.size()));
    for (int r = 0; r < list_->rowCount(); ++r)
      for (int c = 0; c < 4; ++c)
        if (!list_->item(r, c)) {
          auto* item = new QTableWidgetItem;
          item->setTextAlignment((c < 2 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter);
          list_->setItem(r, c, item);
        }
    list_->setCurrentCell(held_ ? static_cast<int>(*held_) : -1, 0);
  }
  about_->setFont(look.font(TextSize::small));
  const auto& space = desk_.answered(desk_.end()).given().clearance->space;
  const bool alone = space && !space->solved();
  about_->setText(obstacles.empty() ? tr("What may touch: liner, rail, pinch weld, hose, exhaust …")
                  : alone           ? tr("the tyre alone: joints would say where bag and arms stand")
                                    : tr("left side; from the middle of the axle on the ground"));
  refresh_gaps();
  show_held();
}

void ObstaclesPanel::refresh_gaps() {
  const auto H = desk_.pose(desk_.end());
  const auto& obstacles = desk_.build().end(desk_.end()).obstacles;
  std::vector<assess::NearAt> near;
  if (H) near = assess::near_at(desk_.answered(desk_.end()), *H, steer_.angle());
  const Tokens& t = desk_.look().tokens();
  const QSignalBlocker quiet(list_);
  for (std::size_t i = 0; i < obstacles.size() && static_cast<int>(i) < list_->rowCount(); ++i) {
    const int r = static_cast<int>(i);
    list_->item(r, 0)->setText(QString::fromStdString(obstacles[i].name));
    list_->item(r, 1)->setText(tr(build::name_of(obstacles[i].kind)));
    const assess::NearAt* least = nullptr; // sorted: the first is what has least to spare
    for (const assess::NearAt& n : near)
      if (n.near.obstacle == i) {
        least = &n;
        break;
      }
    QString gap = tr("·"), wanted = tr("·");
    QColor colour = t.ink;
    if (least) {
      gap = least->gap.overlap ? tr("touches") : desk_.shown(least->gap.apart, Kind::length, 1);
      if (least->mover != assess::Mover::tyre) gap = QString("%1 %2").arg(tr(assess::name_of(least->mover)), gap);
      if (least->source == assess::GapSource::taped) gap = tr("≈ %1").arg(gap);
      if (least->spare() < 0) gap = "△ " + gap, colour = t.stop;
      wanted = desk_.shown(least->near.room, Kind::length, 0);
    }
    list_->item(r, 2)->setText(gap);
    list_->item(r, 2)->setForeground(colour);
    list_->item(r, 3)->setText(wanted);
  }
}

void ObstaclesPanel::show_held() {
  const auto& obstacles = desk_.build().end(desk_.end()).obstacles;
  const bool any = held_ && *held_ < obstacles.size();
  form_->setVisible(any);
  if (!any) return;
  const build::Obstacle& o = obstacles[*held_];
  const QString base = QString("%1.obstacles.%2.").arg(build::key_of(desk_.end())).arg(*held_);
  // Only what this shape has, close together.
  auto* grid = static_cast<QGridLayout*>(form_->layout());
  for (QWidget* widget : order_)
    grid->removeWidget(widget);
  for (const Bound& bound : fields_) {
    const bool here = bound.shapes & bit(o.shape);
    bound.field->setVisible(here);
    if (here) bound.field->bind(base + bound.key);
  }
  for (const auto& [combo, key] : choices_) {
    const QString name = key;
    combo->setFont(desk_.look().font(TextSize::small));
    combo->setProperty("path",
                       QString("%1.obstacles.%2.%3").arg(build::key_of(desk_.end())).arg(held_.value_or(0)).arg(key));
    const bool gap = o.shape == ObstacleShape::gap;
    const bool of_solid = name == "fixed_to" || name == "bolted_to" || name == "on_car";
    const bool here = name == "kind" || name == "shape" || (of_solid && !gap) || (name.startsWith("gap_") && gap);
    combo->parentWidget()->setVisible(here);
    if (!here) continue;
    if (name == "kind") fill_choices(*combo, o.kind);
    if (name == "shape") fill_choices(*combo, o.shape);
    if (name == "gap_way") fill_choices(*combo, o.gap_way);
    if (name == "gap_at") fill_choices(*combo, o.gap_at);
    if (name == "gap_from") fill_choices(*combo, o.gap_from);
    if (name == "bolted_to") fill_choices(*combo, o.bolted_to);
    if (name == "on_car") fill_choices(*combo, o.on_car);
    if (name != "fixed_to") continue;
    combo->clear();
    const auto parts = motion::parts_of(assess::shape_of(desk_.build().end(desk_.end()).layout));
    for (const auto& row : build::names_of(build::Carrier{})) {
      if (row.value == build::Carrier::usual && o.fixed_to != build::Carrier::usual) continue;
      const auto part = motion::part_from(row.key);
      const bool has = row.value == build::Carrier::usual || row.value == build::Carrier::body ||
                       row.value == build::Carrier::upright || row.value == o.fixed_to ||
                       (part && std::find(parts.begin(), parts.end(), *part) != parts.end());
      if (!has) continue;
      combo->addItem(row.value == build::Carrier::usual ? tr("the body") : tr(row.name), QString(row.key));
      if (row.value == o.fixed_to) combo->setCurrentIndex(combo->count() - 1);
    }
  }
  int place = 0;
  for (QWidget* widget : order_)
    if (!widget->isHidden()) {
      grid->addWidget(widget, place / across, place % across);
      ++place;
    }
}

bool ObstaclesPanel::go_to(const QString& path) {
  const QString base = QString("%1.obstacles.").arg(build::key_of(desk_.end()));
  if (path + "." == base) { // none that is meant: where one is added
    findChild<QPushButton*>("add_obstacle")->setFocus(Qt::OtherFocusReason);
    return true;
  }
  if (!path.startsWith(base)) return EndPanel::go_to(path);
  bool number = false;
  const auto index = path.mid(base.size()).section('.', 0, 0).toULong(&number);
  if (!number || index >= desk_.build().end(desk_.end()).obstacles.size()) return false;
  hold(index);
  const QString key = path.section('.', -1);
  for (const Bound& bound : fields_)
    if (key == bound.key && bound.field->isVisibleTo(form_)) {
      bound.field->edit()->setFocus(Qt::OtherFocusReason);
      bound.field->edit()->selectAll();
      return true;
    }
  list_->setFocus(Qt::OtherFocusReason);
  return true;
}

} // namespace mavrel::app
