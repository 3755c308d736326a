#include "app/stages/clearance/ground_page.h"

#include "app/desk/desk.h"
#include "app/desk/sureness.h"
#include "app/kit/chips.h"
#include "app/kit/end_panel.h"
#include "app/kit/field.h"
#include "app/kit/path_table.h"
#include "app/stages/clearance/drive_view.h"
#include "app/stages/clearance/edits.h"
#include "app/stages/clearance/ground_plot.h"
#include "build/names.h"

#include <QComboBox>
#include <QFileDialog>
#include <QLabel>
#include <QMenu>
#include <QPushButton>
#include <QStackedWidget>
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
    auto* label = new QLabel(QObject::tr("got over at"), this);
    label->setProperty("quiet", true);
    set_small(label, desk_.look());
    column->addWidget(label);
    over_->setObjectName("ground_over");
    over_->setAccessibleName(QObject::tr("got over at"));
    for (const auto& use : build::names_of(build::PresetUse{}))
      over_->addItem(QObject::tr(use.name), QString(use.key));
    connect(over_, &QComboBox::activated, this, [this] {
      if (const auto wrong = desk_.type(base_ + "over", over_->currentData().toString())) desk_.tell(*wrong);
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
    : QWidget(parent), desk_(desk), grounds_(new Chips(desk, tr("On the ground"), 110, this)),
      orders_(new Chips(desk, tr("Way between presets"), 100, this)), view_(new DriveView(desk, this)),
      told_(new QLabel(this)), about_(new QLabel(this)), least_(new QLabel(this)), tabs_(new QTabBar(this)),
      panels_(new QStackedWidget(this)), underside_(new PathTable(desk, tr("Low points of the underside"), this)),
      points_(new PathTable(desk, tr("Profile of the ground"), this)), ground_form_(new GroundForm(desk, this)),
      plot_(new GroundPlot(desk, this)), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  for (QLabel* label : {told_, about_, least_})
    label->setProperty("quiet", true);
  auto* top = new QHBoxLayout;
  top->setSpacing(u);
  top->setContentsMargins(0, 0, u, 0);
  top->addWidget(grounds_);
  auto* add = new QPushButton(tr("Add"), this);
  add->setObjectName("add_ground");
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
  top->addWidget(add);
  auto* remove = new QPushButton(tr("Remove"), this);
  remove->setObjectName("remove_ground");
  connect(remove, &QPushButton::clicked, this, [this] {
    if (const auto held = held_ground())
      desk_.remove_entry(tr("Remove it from the ground"), QString("@.brief.grounds.%1").arg(*held));
  });
  top->addWidget(remove);
  auto* worst = new QPushButton(tr("Drive to the worst"), this);
  worst->setObjectName("drive_to_worst");
  connect(worst, &QPushButton::clicked, view_, &DriveView::drive_to_worst);
  top->addWidget(worst);
  told_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  top->addWidget(told_, 1);
  layout->addLayout(top);
  auto* upper = new QHBoxLayout;
  upper->setSpacing(u);
  upper->setContentsMargins(0, 0, u, 0);
  upper->addWidget(view_, 7);
  auto* sheets = new QVBoxLayout;
  sheets->setSpacing(u / 2);
  tabs_->setObjectName("ground_tabs");
  tabs_->setExpanding(false);
  for (const QString& name : {tr("Underside"), tr("Profile")})
    tabs_->addTab(name);
  sheets->addWidget(tabs_);
  auto* low = new QWidget(this);
  auto* low_layout = new QVBoxLayout(low);
  low_layout->setContentsMargins(0, 0, 0, 0);
  low_layout->setSpacing(u / 2);
  underside_->setObjectName("underside_table");
  low_layout->addWidget(underside_, 1);
  auto* low_row = new QHBoxLayout;
  const auto button = [&](QBoxLayout* row, const QString& text, const char* name, std::function<void()> act) {
    auto* made = new QPushButton(text, this);
    made->setObjectName(name);
    connect(made, &QPushButton::clicked, this, std::move(act));
    row->addWidget(made);
  };
  button(low_row, tr("Add a low point"), "add_low_point", [this] {
    build::LowPoint p;
    const auto& points = desk_.build().body.underside;
    const double L = desk_.build().body.wheelbase.value_or(2.7);
    // The usual ones first, where they usually are.
    const std::pair<QString, double> usual[] = {
        {tr("lip"), -0.8}, {tr("pan front"), 0.3}, {tr("pan rear"), L - 0.6}, {tr("bumper"), L + 0.8}};
    const auto n = points.size();
    p.name = n < 4 ? usual[n].first.toStdString() : tr("low point %1").arg(n + 1).toStdString();
    p.x = n < 4 ? usual[n].second : L / 2;
    desk_.add_entry(tr("Add a low point"), "body.underside", p);
  });
  button(low_row, tr("Remove"), "remove_low_point", [this] {
    if (const int r = underside_->currentRow(); r >= 0)
      desk_.remove_entry(tr("Remove a low point"), QString("body.underside.%1").arg(r));
  });
  low_row->addStretch(1);
  low_layout->addLayout(low_row);
  panels_->addWidget(low);
  auto* profile = new QWidget(this);
  auto* profile_layout = new QVBoxLayout(profile);
  profile_layout->setContentsMargins(0, 0, 0, 0);
  profile_layout->setSpacing(u / 2);
  profile_layout->addWidget(ground_form_);
  points_->setObjectName("profile_table");
  profile_layout->addWidget(points_, 1);
  auto* points_row = new QHBoxLayout;
  button(points_row, tr("Add a place"), "add_profile_point", [this] {
    const auto held = held_ground();
    if (!held) return;
    const auto& points = desk_.build().variant().brief.grounds[*held].points;
    build::ProfilePoint p;
    if (!points.empty()) p.x = points.back().x + 0.5, p.z = points.back().z;
    desk_.add_entry(tr("Add a place of the profile"), desk_.resolve(QString("@.brief.grounds.%1.points").arg(*held)),
                    p);
  });
  button(points_row, tr("Remove"), "remove_profile_point", [this] {
    const auto held = held_ground();
    if (const int r = points_->currentRow(); held && r >= 0)
      desk_.remove_entry(tr("Remove a place of the profile"),
                         QString("@.brief.grounds.%1.points.%2").arg(*held).arg(r));
  });
  points_row->addStretch(1);
  profile_layout->addLayout(points_row);
  panels_->addWidget(profile);
  sheets->addWidget(panels_, 1);
  upper->addLayout(sheets, 4);
  layout->addLayout(upper, 10);
  auto* told = new QHBoxLayout;
  told->setSpacing(u);
  told->setContentsMargins(0, 0, u, 0);
  about_->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  told->addWidget(about_, 1);
  told->addWidget(orders_);
  layout->addLayout(told);
  auto* foot = new QHBoxLayout;
  foot->setSpacing(0);
  foot->addWidget(plot_, 3);
  least_->setWordWrap(true);
  least_->setAlignment(Qt::AlignLeft | Qt::AlignTop);
  least_->setObjectName("least_heights");
  least_->setContentsMargins(u, u, u, 0);
  foot->addSpacing(u);
  foot->addWidget(least_, 2);
  foot->addWidget(beside_);
  layout->addLayout(foot, 10);

  connect(tabs_, &QTabBar::currentChanged, panels_, &QStackedWidget::setCurrentIndex);
  connect(grounds_, &Chips::chosen, this, [this](int i) {
    view_->drive_over(i == 0 ? std::nullopt : std::optional(static_cast<std::size_t>(i - 1)));
    if (i > 0) tabs_->setCurrentIndex(1);
    refresh();
  });
  connect(orders_, &Chips::chosen, this, [this](int i) { plot_->set_order(static_cast<assess::Order>(i)); });
  connect(view_, &DriveView::driven, this, [this] { told_->setText(view_->told()); });
  connect(view_, &DriveView::turned_to, this, &GroundPage::refresh);
  connect(plot_, &HeightPlot::band_moved, this, &GroundPage::band_moved);
  connect(plot_, &GroundPlot::answered, this, &GroundPage::refresh);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &GroundPage::refresh);
  connect(&Sureness::of(desk_), &Sureness::changed, this, &GroundPage::refresh);
  if (!desk_.build().variant().brief.grounds.empty()) view_->drive_over(0);
  refresh();
}

std::optional<std::size_t> GroundPage::held_ground() const {
  const auto held = view_->ground();
  if (!held || *held >= desk_.build().variant().brief.grounds.size()) return std::nullopt;
  return held;
}

void GroundPage::refresh() {
  const Look& look = desk_.look();
  const auto& grounds = desk_.build().variant().brief.grounds;
  QStringList names{tr("Flat")};
  for (const build::Ground& g : grounds)
    names << QString::fromStdString(g.name);
  if (view_->ground() && !held_ground()) return view_->drive_over(std::nullopt); // which comes back here
  const auto held = held_ground();
  grounds_->show_choices(names, held ? static_cast<int>(*held) + 1 : 0);
  orders_->show_choices({tr("Together"), tr("Front first"), tr("Rear first")}, static_cast<int>(plot_->order()));
  for (QLabel* label : {told_, about_, least_})
    label->setFont(look.font(TextSize::small));
  tabs_->setFont(look.font());
  told_->setText(view_->told());
  about_->setText(plot_->summary());
  static_cast<GroundForm*>(ground_form_)->hold(held);
  refresh_tables();
  // The least heights that clear, and how the ways between presets fare.
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
  // How low a sill or the tail comes for loading.
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
  least_->setText("<p>" + lines.join("</p><p>") + "</p>");
}

void GroundPage::refresh_tables() {
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

std::pair<int, int> GroundPage::band() const {
  const auto [top, bottom] = plot_->band();
  const int y = plot_->mapTo(this, QPoint(0, 0)).y();
  return {y + top, y + bottom};
}

void GroundPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

bool GroundPage::takes_arrows() const {
  return view_->hasFocus();
}

bool GroundPage::take_file(const QString& file) {
  if (const auto wrong = read_ground(desk_, file)) {
    desk_.tell(*wrong);
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
