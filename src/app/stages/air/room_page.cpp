#include "app/stages/air/room_page.h"

#include "app/desk/desk.h"
#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/kit/path_table.h"
#include "app/stages/air/questions.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

RoomPage::RoomPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), view_(new RoomView(desk, this)), hot_(new PathTable(desk, tr("Hot parts"), this)) {
  const int u = desk_.look().unit();
  column()->addWidget(view_, 1);
  auto* below = row(column());
  below->setSpacing(2 * u);
  auto* side = new QVBoxLayout;
  side->setSpacing(u / 2);
  below->addLayout(side, 5);
  held_ = heading({});
  side->addWidget(held_);
  auto* at = row(side);
  for (const auto& [key, caption] : {std::pair{"x_m", tr("behind front axle")}, std::pair{"y_m", tr("left of middle")},
                                     std::pair{"z_m", tr("above road")}}) {
    fields_.emplace_back(new Field(desk_, "@.air.tank_at." + QString(key), caption, this), key);
    at->addWidget(fields_.back().first);
  }
  const auto choice = [&](const char* key, const QString& name, auto e) {
    auto* box = new ChoiceBox(desk_, "@.air.tank_at." + QString(key), name, rows_of(e), this);
    side->addWidget(box);
    choices_.emplace_back(box, key);
  };
  choice("room", tr("Where it lies"), build::PartRoom{});
  choice("held", tr("How it is held"), build::PartHeld{});
  choice("lies", tr("Which way it lies"), build::PartLies{});
  side->addWidget(heading(tr("Boot, well and hot parts")));
  auto* space = new QGridLayout;
  space->setSpacing(u / 2);
  const std::pair<const char*, QString> body[] = {{"boot.from_m", tr("boot from")},  {"boot.floor_m", tr("floor")},
                                                  {"boot.length_m", tr("length")},   {"boot.width_m", tr("width")},
                                                  {"boot.height_m", tr("height")},   {"well.x_m", tr("well at")},
                                                  {"well.y_m", tr("left by")},       {"well.bottom_m", tr("bottom")},
                                                  {"well.diameter_m", tr("across")}, {"well.depth_m", tr("depth")}};
  int n = 0;
  for (const auto& [key, caption] : body) {
    space->addWidget(new Field(desk_, QString("body.%1").arg(key), caption, this), n / 4, n % 4);
    ++n;
  }
  side->addLayout(space);
  side->addStretch(1);
  about_ = rich_words("room_about");
  below->addWidget(about_, 6);
  auto* warm = row(column());
  auto* buttons = new QVBoxLayout;
  buttons->setSpacing(u / 2);
  button(buttons, tr("Add a hot part"), "add_hot", [this] {
    build::HotPart part;
    part.name = tr("hot part %1").arg(desk_.build().body.hot.size() + 1).toStdString();
    desk_.add_entry(tr("Add a hot part"), "body.hot", part);
  });
  button(buttons, tr("Remove"), "remove_hot", [this] {
    if (hot_->held_row() >= 0)
      desk_.remove_entry(tr("Remove a hot part"), QString("body.hot.%1").arg(hot_->held_row()));
  });
  buttons->addStretch(1);
  warm->addLayout(buttons);
  hot_->set_narrow();
  hot_->setMaximumHeight(desk_.look().px(110));
  warm->addWidget(hot_, 1);
  connect(view_, &RoomView::chose, this, &RoomPage::hold);
  hold(0);
}

void RoomPage::hold(int box) {
  const auto& boxes = view_->room().boxes;
  if (box >= 0 && box < static_cast<int>(boxes.size())) place_ = boxes[static_cast<std::size_t>(box)].place;
  for (const auto& [field, key] : fields_)
    field->bind("@.air." + place_ + "." + key);
  for (const auto& [choice, key] : choices_)
    choice->bind("@.air." + place_ + "." + key);
  refresh(); // once it is looked at
}

bool RoomPage::go_to(const QString& path) {
  const auto& boxes = view_->room().boxes;
  for (int i = 0; i < static_cast<int>(boxes.size()); ++i)
    if (path.contains(QString(".air.%1.").arg(boxes[static_cast<std::size_t>(i)].place))) {
      view_->hold(i);
      hold(i);
      break;
    }
  return hot_->go_to(path) || Page::go_to(path);
}

void RoomPage::fill() {
  std::vector<PathTable::Row> rows_of_hot;
  for (std::size_t i = 0; i < desk_.build().body.hot.size(); ++i) {
    const QString base = QString("body.hot.%1.").arg(i);
    rows_of_hot.push_back({QString::number(i + 1),
                           {base + "name", base + "x_m", base + "y_m", base + "z_m", base + "to_x_m", base + "to_y_m",
                            base + "to_z_m", base + "radius_m", base + "shielded"},
                           {}});
  }
  const auto head = [this](const QString& text) { return hot_->unit_in_head(text, Kind::length); };
  hot_->show_rows({tr("hot part"), head(tr("behind")), head(tr("left")), head(tr("up")), head(tr("to")),
                   head(tr("left")), head(tr("up")), head(tr("radius")), tr("shield")},
                  std::move(rows_of_hot));
  const assess::KitRoom& room = view_->room();
  const int held = std::clamp(view_->held(), 0, std::max(0, static_cast<int>(room.boxes.size()) - 1));
  if (!room.boxes.empty() && place_ != room.boxes[static_cast<std::size_t>(held)].place) return hold(held);
  held_->setText(held < static_cast<int>(room.boxes.size()) && held >= 0
                     ? QString::fromStdString(room.boxes[static_cast<std::size_t>(held)].name)
                     : tr("No part"));
  fill_about(room);
}

void RoomPage::fill_about(const assess::KitRoom& room) {
  QString rows;
  const auto line = [&](const QString& what, const QString& value) {
    rows += QString("<tr><td>%1&nbsp;&nbsp;</td><td align='right'><b>%2</b></td></tr>")
                .arg(what.toHtmlEscaped(), value.toHtmlEscaped());
  };
  line(tr("the kit weighs"), desk_.shown(room.mass, Kind::mass, 1));
  if (room.mass > 0)
    line(tr("front and rear axle"), tr("%1 and %2")
                                        .arg(desk_.shown(room.mass * room.front_share, Kind::mass, 1),
                                             desk_.shown(room.mass * (1 - room.front_share), Kind::mass, 1)));
  line(tr("its boxes take"), desk_.shown(room.volume, Kind::volume, 0));
  if (room.boot_left)
    line(tr("left of the boot"),
         tr("%1 of %2")
             .arg(desk_.shown(*room.boot_left, Kind::volume, 0), desk_.shown(*room.boot_before, Kind::volume, 0)));
  if (room.well_left)
    line(tr("left of the well"),
         tr("%1 of %2")
             .arg(desk_.shown(*room.well_left, Kind::volume, 0), desk_.shown(*room.well_before, Kind::volume, 0)));
  for (const assess::HotGap& gap : room.hot)
    line(tr("%1 to %2")
             .arg(QString::fromStdString(room.boxes[gap.box].name),
                  QString::fromStdString(desk_.build().body.hot[gap.hot].name)),
         tr("%1, %2 wanted").arg(desk_.shown(gap.gap, Kind::length), desk_.shown(gap.wanted, Kind::length)));
  for (const assess::KitBox& box : room.boxes) {
    const shelf::Part* part = air_of(desk_).parts[box.role];
    if (part && part->sound)
      line(tr("%1, %2, %3")
               .arg(QString::fromStdString(box.name), tr(build::name_of(box.room)), tr(build::name_of(box.held))),
           desk_.shown(*part->sound, Kind::sound));
  }
  if (room.lowest_water) line(tr("lowest water"), desk_.shown(*room.lowest_water, Kind::length));
  about_->setText("<table cellspacing='0' cellpadding='1'>" + rows + "</table>" +
                  (desk_.build().variant().air.weighed == build::Weighed::with
                       ? tr("The car was weighed with it in: load cases stay as they are.")
                       : tr("Every load case carries it.")));
}

} // namespace mavrel::app
