#include "app/stages/clearance/ground_page.h"

#include "app/desk/desk.h"
#include "app/desk/sureness.h"
#include "app/kit/chips.h"
#include "app/kit/end_panel.h"
#include "app/kit/field.h"
#include "app/kit/page_stack.h"
#include "app/kit/path_table.h"
#include "app/kit/plain.h"
#include "app/stages/clearance/drive_view.h"
#include "app/stages/clearance/edits.h"
#include "app/stages/clearance/ground_plot.h"
#include "build/names.h"

#include <QComboBox>
#include <QFileDialog>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QTabBar>
#include <QVBoxLayout>

namespace mavrel::app {

using build::End;

namespace {

/// The held thing's name, margin, and the presets that are meant to get over it.
class GroundForm : public EndPanel {
public:
  GroundForm(Desk& desk, QWidget* parent) : EndPanel(desk, parent), over_(new QComboBox(this)) {
    auto* row = new QHBoxLayout(this);
    row->setContentsMargins(0, 0, 0, 0);
    row->setSpacing(desk_.look().unit());
    name_ = new Field(desk_, {}, QObject::tr("name"), this);
    margin_ = new Field(desk_, {}, QObject::tr("kept under the car"), this);
    row->addWidget(name_, 5);
    row->addWidget(margin_, 3);
    auto* column = new QVBoxLayout;
    column->setSpacing(0);
    auto* label = new PlainLabel(QObject::tr("got over at"), this);
    label->setProperty("quiet", true);
    set_small(label, desk_.look());
    column->addWidget(label);
    over_->setObjectName("ground_over");
    over_->setAccessibleName(QObject::tr("got over at"));
    for (const auto& use : build::names_of(build::PresetUse{}))
      over_->addItem(QObject::tr(use.name), QString(use.key));
    connect(over_, &QComboBox::activated, this, [this] {
      if (const auto wrong = desk_.type(base_ + "over", over_->currentData().toString())) desk_.refuse(*wrong);
    });
    column->addWidget(over_);
    row->addLayout(column, 3);
  }
  bool go_to(const QString& path) override {
    if (desk_.resolve(base_ + "over") == path) {
      over_->setFocus(Qt::OtherFocusReason);
      return true;
    }
    return EndPanel::go_to(path);
  }
  void hold(std::optional<std::size_t> ground) {
    setVisible(ground.has_value());
    if (!ground) return;
    base_ = QString("@.brief.grounds.%1.").arg(*ground);
    name_->bind(base_ + "name");
    over_->setProperty("path", base_ + "over");
    margin_->bind(base_ + "margin_m");
    const auto& grounds = desk_.build().variant().brief.grounds;
    const QSignalBlocker quiet(over_);
    over_->setFont(desk_.look().font(TextSize::small));
    over_->setCurrentIndex(static_cast<int>(grounds[*ground].over));
  }

private:
  QComboBox* over_;
  Field *name_ = nullptr, *margin_ = nullptr;
  QString base_;
};

} // namespace

GroundPage::GroundPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), grounds_(new Chips(desk, tr("On the ground"), 110, this)),
      orders_(new Chips(desk, tr("Way between presets"), 100, this)), view_(new DriveView(desk, this)),
      tabs_(new QTabBar(this)), panels_(new PageStack(this)),
      underside_(new PathTable(desk, tr("Low points of the underside"), this)),
      points_(new PathTable(desk, tr("Profile of the ground"), this)), ground_form_(new GroundForm(desk, this)),
      plot_(new GroundPlot(desk, this)) {
  const int u = desk_.look().unit();
  set_plot(plot_);
  give_arrows_to(view_);
  make_head();
  auto* upper = row(wide_column(), 10);
  upper->setContentsMargins(0, 0, u, 0);
  upper->addWidget(view_, 7);
  upper->addLayout(make_sheets(), 4);
  auto* told = row(wide_column());
  told->setContentsMargins(0, 0, u, 0);
  about_ = cut_words("ground_about");
  told->addWidget(about_, 1);
  told->addWidget(orders_);
  auto* foot = row(beside_posts(10), 1);
  foot->addWidget(plot_, 3);
  least_ = rich_words("least_heights");
  least_->setProperty("quiet", true);
  least_->setContentsMargins(u, u, u, 0);
  foot->addWidget(least_, 2);

  connect(tabs_, &QTabBar::currentChanged, panels_, &QStackedWidget::setCurrentIndex);
  connect(grounds_, &Chips::chosen, this, [this](int i) {
    view_->drive_over(i == 0 ? std::nullopt : std::optional(static_cast<std::size_t>(i - 1)));
    if (i > 0) tabs_->setCurrentIndex(1);
    refresh();
  });
  connect(orders_, &Chips::chosen, this, [this](int i) { plot_->set_order(static_cast<assess::Order>(i)); });
  connect(view_, &DriveView::driven, this, [this] { told_->setText(view_->told()); });
  connect(view_, &DriveView::turned_to, this, &GroundPage::refresh);
  connect(plot_, &GroundPlot::answered, this, &GroundPage::refresh);
  connect(&Sureness::of(desk_), &Sureness::changed, this, &GroundPage::refresh);
  if (!desk_.build().variant().brief.grounds.empty()) view_->drive_over(0);
}

void GroundPage::make_head() {
  auto* top = row(wide_column());
  top->setContentsMargins(0, 0, desk_.look().unit(), 0);
  top->addWidget(grounds_);
  QPushButton* add = button(top, tr("Add"), "add_ground");
  add->setToolTip(tr("Something on the ground to get over"));
  auto* menu = new QMenu(add);
  for (const build::Ground& usual : assess::usual_grounds())
    menu->addAction(tr(usual.name.c_str()), this, [this, usual] {
      build::Ground named = usual;
      named.name = tr(usual.name.c_str()).toStdString();
      add_ground(desk_, named);
      view_->drive_over(desk_.build().variant().brief.grounds.size() - 1);
      refresh();
    });
  menu->addAction(tr("From a file …"), this, [this] {
    const QString file =
        QFileDialog::getOpenFileName(this, tr("Profile of the ground"), {}, tr("Sheets (*.csv);;All files (*)"));
    if (!file.isEmpty()) take_file(file);
  });
  add->setMenu(menu);
  button(top, tr("Remove"), "remove_ground", [this] {
    if (const auto held = held_ground())
      desk_.remove_entry(tr("Remove it from the ground"), QString("@.brief.grounds.%1").arg(*held));
  });
  button(top, tr("Drive to the worst"), "drive_to_worst", [this] { view_->drive_to_worst(); });
  told_ = cut_words("drive_told");
  top->addWidget(told_, 1);
}

QLayout* GroundPage::make_sheets() {
  const int u = desk_.look().unit();
  auto* sheets = new QVBoxLayout;
  sheets->setSpacing(u / 2);
  tabs_->setObjectName("ground_tabs");
  tabs_->setExpanding(false);
  dress(tabs_, TextSize::normal);
  for (const QString& name : {tr("Underside"), tr("Profile")})
    tabs_->addTab(name);
  sheets->addWidget(tabs_);
  const auto panel = [&] {
    auto* page = new QWidget(this);
    auto* inside = new QVBoxLayout(page);
    inside->setContentsMargins(0, 0, 0, 0);
    inside->setSpacing(u / 2);
    panels_->addWidget(page);
    return inside;
  };
  auto* low = panel();
  underside_->setObjectName("underside_table");
  low->addWidget(underside_, 1);
  auto* low_row = row(low);
  button(low_row, tr("Add a low point"), "add_low_point", [this] { add_low_point(); });
  button(low_row, tr("Remove"), "remove_low_point", [this] {
    if (const int r = underside_->currentRow(); r >= 0)
      desk_.remove_entry(tr("Remove a low point"), QString("body.underside.%1").arg(r));
  });
  low_row->addStretch(1);
  auto* profile = panel();
  profile->addWidget(ground_form_);
  points_->setObjectName("profile_table");
  profile->addWidget(points_, 1);
  auto* points_row = row(profile);
  button(points_row, tr("Add a place"), "add_profile_point", [this] { add_profile_point(); });
  button(points_row, tr("Remove"), "remove_profile_point", [this] {
    const auto held = held_ground();
    if (const int r = points_->currentRow(); held && r >= 0)
      desk_.remove_entry(tr("Remove a place of the profile"),
                         QString("@.brief.grounds.%1.points.%2").arg(*held).arg(r));
  });
  points_row->addStretch(1);
  sheets->addWidget(panels_, 1);
  return sheets;
}

void GroundPage::add_low_point() {
  build::LowPoint p;
  const auto n = desk_.build().body.underside.size();
  const double L = desk_.build().body.wheelbase.value_or(2.7);
  // The usual ones first, where they usually are.
  const std::pair<QString, double> usual[] = {
      {tr("lip"), -0.8}, {tr("pan front"), 0.3}, {tr("pan rear"), L - 0.6}, {tr("bumper"), L + 0.8}};
  p.name = n < 4 ? usual[n].first.toStdString() : tr("low point %1").arg(n + 1).toStdString();
  p.x = n < 4 ? usual[n].second : L / 2;
  desk_.add_entry(tr("Add a low point"), "body.underside", p);
}

void GroundPage::add_profile_point() {
  const auto held = held_ground();
  if (!held) return;
  const auto& points = desk_.build().variant().brief.grounds[*held].points;
  build::ProfilePoint p;
  if (!points.empty()) p.x = points.back().x + 0.5, p.z = points.back().z;
  desk_.add_entry(tr("Add a place of the profile"), desk_.resolve(QString("@.brief.grounds.%1.points").arg(*held)), p);
}

std::optional<std::size_t> GroundPage::held_ground() const {
  const auto held = view_->ground();
  if (!held || *held >= desk_.build().variant().brief.grounds.size()) return std::nullopt;
  return held;
}

void GroundPage::fill() {
  QStringList names{tr("Flat")};
  for (const build::Ground& g : desk_.build().variant().brief.grounds)
    names << QString::fromStdString(g.name);
  if (view_->ground() && !held_ground()) return view_->drive_over(std::nullopt); // which comes back here
  const auto held = held_ground();
  grounds_->show_choices(names, held ? static_cast<int>(*held) + 1 : 0);
  orders_->show_choices({tr("Together"), tr("Front first"), tr("Rear first")}, static_cast<int>(plot_->order()));
  told_->setText(view_->told());
  about_->setText(plot_->summary());
  static_cast<GroundForm*>(ground_form_)->hold(held);
  fill_tables();
  least_->setText("<p>" + (crossings() + ways() + loading()).join("</p><p>") + "</p>");
}

/// The least heights that get over what lies there.
QStringList GroundPage::crossings() const {
  QStringList lines;
  const auto& ground = desk_.assessment().ground;
  const auto& presets = desk_.build().variant().brief.presets;
  const auto shown = [&](const std::optional<double>& H, End end) {
    if (!H) return tr("not by it alone");
    const auto& reach = desk_.assessment().end(end).windows.reach;
    const bool past = reach && *H > reach->high.height + 1e-6;
    return desk_.shown(*H, Kind::length, 0) + (past ? tr(" (past its reach)") : QString());
  };
  const auto past_both = [&](const assess::Crossing& c, double rise) {
    bool past = false;
    for (const auto& [end, H] : {std::pair{End::front, c.front + rise}, std::pair{End::rear, c.rear + rise}}) {
      const auto& reach = desk_.assessment().end(end).windows.reach;
      past = past || (reach && H > reach->high.height + 1e-6);
    }
    return past ? tr(" (past their reach)") : QString();
  };
  if (plot_->answer()) {
    const auto& least = plot_->answer()->least;
    for (const assess::Crossing& c : ground->crossings) {
      if (c.ground >= least.size() || c.preset >= least[c.ground].size() || c.preset >= presets.size()) continue;
      const assess::LeastHeights& l = least[c.ground][c.preset];
      const build::Ground& g = ground.given().grounds[c.ground];
      if (c.clears(g.margin)) {
        lines << tr("<b>%1</b> clears the %2 with %3 under the %4.")
                     .arg(QString::fromStdString(presets[c.preset].name).toHtmlEscaped(),
                          QString::fromStdString(g.name).toHtmlEscaped(),
                          shown_sure(desk_, c.gap->gap, Kind::length,
                                     "ground." + std::to_string(c.ground) + ".preset." + std::to_string(c.preset), 0),
                          QString::fromStdString(c.point).toHtmlEscaped());
        continue;
      }
      lines << tr("<b>%1</b> does not clear the %2. Least heights that do: front alone %3, rear alone %4, both %5.")
                   .arg(QString::fromStdString(presets[c.preset].name).toHtmlEscaped(),
                        QString::fromStdString(g.name).toHtmlEscaped(), shown(l.front_alone, End::front),
                        shown(l.rear_alone, End::rear),
                        l.both ? tr("%1 higher").arg(desk_.shown(*l.both, Kind::length, 0)) + past_both(c, *l.both)
                               : tr("not within their reach"));
    }
  }
  return lines;
}

/// How the ways between presets fare on flat ground.
QStringList GroundPage::ways() const {
  QStringList lines;
  const auto& ground = desk_.assessment().ground;
  const auto& presets = desk_.build().variant().brief.presets;
  const auto names_low = assess::names_of_underside(ground.given());
  for (std::size_t i = 1; i < ground.given().presets.size() && i < presets.size(); ++i) {
    const auto &from = ground.given().presets[i - 1].H, &to = ground.given().presets[i].H;
    if (!from[0] || !from[1] || !to[0] || !to[1]) continue;
    const auto way =
        assess::least_on_the_way(ground.given(), {}, 0, {*from[0], *from[1]}, {*to[0], *to[1]}, plot_->order());
    if (!way || way->point >= names_low.size()) continue;
    const QString point = QString::fromStdString(names_low[way->point]).toHtmlEscaped();
    const QString ways = tr("%1 to %2")
                             .arg(QString::fromStdString(presets[i - 1].name).toHtmlEscaped(),
                                  QString::fromStdString(presets[i].name).toHtmlEscaped());
    lines << (way->gap < 0 ? tr("%1: the %2 touches on the way, %3 too low.")
                                 .arg(ways, point, desk_.shown(-way->gap, Kind::length, 0))
                           : tr("%1: the %2 stays %3 clear of flat ground.")
                                 .arg(ways, point, desk_.shown(way->gap, Kind::length, 0)));
  }
  return lines;
}

/// How low a sill or the tail comes for loading.
QStringList GroundPage::loading() const {
  QStringList lines;
  const auto& ground = desk_.assessment().ground;
  const auto names_low = assess::names_of_underside(ground.given());
  const auto H0 = ground.given().surveyed;
  if (const auto front = desk_.pose(End::front), rear = desk_.pose(End::rear); front && rear && H0[0] && H0[1]) {
    const auto car = assess::underside_at(ground.given(), *front, *rear);
    const auto stance = car ? space::stance_at(*car, {}, 0) : std::nullopt;
    if (stance) {
      const build::Body& body = desk_.build().body;
      if (!car->points.empty()) {
        const auto tail = stance->place(car->points.back());
        lines << tr("For loading, the %1 stands at %2.")
                     .arg(QString::fromStdString(names_low.back()).toHtmlEscaped(),
                          desk_.shown(tail.z, Kind::length, 0));
      }
      if (body.sill_height)
        lines << tr("At the pose the sill stands at %1 and the floor slopes %2.")
                     .arg(desk_.shown(stance->place({car->wheelbase / 2, *body.sill_height}).z, Kind::length, 0),
                          desk_.shown(std::atan2(stance->back.z, -stance->back.x), Kind::angle, 1));
    }
  }
  return lines;
}

void GroundPage::fill_tables() {
  std::vector<PathTable::Row> rows;
  const auto& underside = desk_.build().body.underside;
  for (std::size_t i = 0; i < underside.size(); ++i) {
    const QString base = QString("body.underside.%1.").arg(i);
    rows.push_back({QString::number(i + 1), {base + "name", base + "x_m", base + "z_m"}, {}});
  }
  underside_->show_rows({tr("low point"), tr("behind axle"), tr("above floor")}, std::move(rows));
  rows.clear();
  if (const auto held = held_ground()) {
    const auto& points = desk_.build().variant().brief.grounds[*held].points;
    for (std::size_t i = 0; i < points.size(); ++i) {
      const QString base = QString("@.brief.grounds.%1.points.%2.").arg(*held).arg(i);
      const bool back = i > 0 && points[i].x <= points[i - 1].x;
      rows.push_back({QString::number(i + 1),
                      {base + "x_m", base + "z_m"},
                      back ? tr("lies no further along than the last") : QString()});
    }
  }
  points_->show_rows({tr("along"), tr("height")}, std::move(rows));
}

bool GroundPage::take_file(const QString& file) {
  if (const auto wrong = read_ground(desk_, file)) {
    desk_.refuse(*wrong);
    return false;
  }
  view_->drive_over(desk_.build().variant().brief.grounds.size() - 1);
  tabs_->setCurrentIndex(1);
  refresh();
  return true;
}

bool GroundPage::go_to(const QString& path) {
  if (path.startsWith("body.underside")) {
    tabs_->setCurrentIndex(0);
    if (!underside_->go_to(path)) underside_->setFocus(Qt::OtherFocusReason);
    return true;
  }
  const QString base = desk_.resolve("@.brief.grounds.");
  if (!path.startsWith(base)) return false;
  bool number = false;
  const auto index = path.mid(base.size()).section('.', 0, 0).toULong(&number);
  if (number && index < desk_.build().variant().brief.grounds.size() && view_->ground() != index) {
    view_->drive_over(index);
    refresh();
  }
  tabs_->setCurrentIndex(1);
  if (!points_->go_to(path) && !ground_form_->go_to(path)) points_->setFocus(Qt::OtherFocusReason);
  return true;
}

} // namespace mavrel::app
