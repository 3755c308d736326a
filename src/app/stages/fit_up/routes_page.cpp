#include "app/stages/fit_up/routes_page.h"

#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/kit/paged_stage.h"
#include "app/kit/path_table.h"
#include "app/stages/fit_up/answers.h"
#include "build/fit_up.h"
#include "build/names.h"
#include "build/names_fit_up.h"
#include "report/fit_up_files.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

using assess::JudgedRoute;

RoutesPage::RoutesPage(Desk& desk, FitUpAnswers& answers, QWidget* parent)
    : FitUpPage(desk, answers, parent), view_(new WaysView(desk, answers, this)),
      list_(list_table("routes", tr("Lines"), {tr("line"), tr("length"), tr("slack"), tr("its way")}, this)),
      points_(new PathTable(desk, tr("Points of the line"), this)), summary_(new QLabel(this)), said_(new QLabel(this)),
      lay_(new QPushButton(tr("Lay it"), this)), add_(new QPushButton(tr("Add a point"), this)),
      remove_(new QPushButton(tr("Remove the point"), this)),
      slack_(new Field(desk, "@.fit_up.order", tr("slack"), this)),
      kind_(new ChoiceBox(desk, "@.fit_up.order", tr("Held by"), rows_of(build::WayKind{}), this)),
      runs_(new ChoiceBox(desk, "@.fit_up.order", tr("Runs"), rows_of(build::RouteRuns{}), this)) {
  const int u = desk_.look().unit();
  QVBoxLayout* const column = this->column();
  summary_->setWordWrap(true);
  column->addWidget(summary_);
  view_->setMinimumHeight(desk_.look().px(220));
  column->addWidget(view_, 6);
  auto* below = new QHBoxLayout;
  below->setSpacing(u);
  below->addWidget(list_, 5);
  auto* side = new QWidget(this);
  side->setMinimumWidth(desk_.look().px(250));
  auto* right = new QVBoxLayout(side);
  right->setContentsMargins(0, 0, 0, 0);
  right->setSpacing(u / 2);
  said_->setWordWrap(true);
  right->addWidget(said_);
  points_->setObjectName("way_points");
  points_->setMinimumHeight(desk_.look().px(90));
  right->addWidget(points_, 1);
  auto* row = new QHBoxLayout;
  row->setSpacing(u / 2);
  for (const auto& [button, name] :
       {std::pair(lay_, "lay_route"), std::pair(add_, "add_way_point"), std::pair(remove_, "remove_way_point")}) {
    button->setObjectName(name);
    row->addWidget(button);
  }
  right->addLayout(row);
  auto* more = new QHBoxLayout;
  more->setSpacing(u / 2);
  more->addWidget(slack_, 1);
  more->addWidget(kind_, 1, Qt::AlignBottom);
  more->addWidget(runs_, 1, Qt::AlignBottom);
  right->addLayout(more);
  right->addStretch(0);
  below->addWidget(side, 6);
  column->addLayout(below, 5);
  connect(list_, &QTableWidget::currentCellChanged, this, [this](int r) {
    if (r >= 0 && static_cast<std::size_t>(r) < answers_.routes().size())
      show_route(QString::fromStdString(answers_.routes()[static_cast<std::size_t>(r)].key));
  });
  connect(view_, &WaysView::chose_route, this, &RoutesPage::show_route);
  connect(view_, &WaysView::chose_point, this, [this](int) { refresh(); });
  connect(points_, &PathTable::held, this, [this](int r) {
    if (view_->held_point() != r) view_->hold_route(held_, r), refresh();
  });
  connect(lay_, &QPushButton::clicked, this, &RoutesPage::lay);
  connect(add_, &QPushButton::clicked, this, &RoutesPage::add_point);
  connect(remove_, &QPushButton::clicked, this, &RoutesPage::remove_point);
  refresh();
}

bool RoutesPage::go_to(const QString& path) {
  const QStringList steps = path.split('.');
  const int at = static_cast<int>(steps.indexOf("routes"));
  const auto& routes = desk_.build().variant().fit_up->routes;
  if (at < 0 || at + 1 >= steps.size() || steps[at + 1].toUInt() >= routes.size()) return false;
  show_route(QString::fromStdString(routes[steps[at + 1].toUInt()].line));
  return points_->go_to(path) || go_to_field(desk_, this, path);
}

const JudgedRoute* RoutesPage::held() const {
  for (const JudgedRoute& r : answers_.routes())
    if (r.key == held_.toStdString()) return &r;
  return nullptr;
}

void RoutesPage::show_route(const QString& key) {
  if (held_ != key || view_->held_route() != key) {
    held_ = key;
    view_->hold_route(key);
  }
  refresh();
}

/// A first way: down from where it begins, along the car beside its middle, and up to where it ends.
void RoutesPage::lay() {
  const JudgedRoute* r = held();
  if (!r) return;
  build::Route route;
  route.line = r->key;
  route.points = assess::first_way(*r, desk_.build().body.sill_height);
  const auto& routes = desk_.build().variant().fit_up->routes;
  if (r->listed) { // it has lost all its points
    build::Build build = desk_.build();
    build.variant().fit_up.own().routes[r->index].points = route.points;
    return desk_.edit(tr("Lay a line"), std::move(build));
  }
  if (routes.size() < build::most_routes) desk_.add_entry(tr("Lay a line"), "@.fit_up.routes", std::move(route));
}

void RoutesPage::add_point() {
  const JudgedRoute* r = held();
  if (!r || !r->laid) return;
  build::Build build = desk_.build();
  auto& points = build.variant().fit_up.own().routes[r->index].points;
  if (points.size() >= build::most_way_points)
    return desk_.tell(tr("%1 points are the most a line has.").arg(build::most_way_points));
  const int after = view_->held_point() >= 0 ? view_->held_point() : static_cast<int>(points.size()) - 1;
  // Half way to the next corner.
  const space::Point &a = r->way.corners[static_cast<std::size_t>(after) + 1],
                     &b = r->way.corners[static_cast<std::size_t>(after) + 2];
  build::WayPoint p;
  p.name = tr("clip %1").arg(points.size() + 1).toStdString();
  p.x = (a.x + b.x) / 2, p.y = (a.y + b.y) / 2, p.z = (a.z + b.z) / 2;
  points.insert(points.begin() + after + 1, p);
  desk_.edit(tr("Add a point to a line"), std::move(build));
  view_->hold_route(held_, after + 1);
  refresh();
}

void RoutesPage::remove_point() {
  const JudgedRoute* r = held();
  if (!r || !r->laid || view_->held_point() < 0) return;
  desk_.remove_entry(tr("Remove a point of a line"),
                     QString("@.fit_up.routes.%1.points.%2").arg(r->index).arg(view_->held_point()));
  view_->hold_route(held_, -1);
}

void RoutesPage::fill() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  list_->setFont(look.font(TextSize::small));
  said_->setFont(look.font(TextSize::small));
  const auto& routes = answers_.routes();
  if (held_.isEmpty() && !routes.empty()) {
    held_ = QString::fromStdString(routes.front().key);
    view_->hold_route(held_);
  }
  // Lines are so many metres, and their ends so many millimetres.
  const auto metres = [&](double v) { return desk_.shown(v, Kind::altitude, 2); };
  double total = 0;
  int laid = 0;
  for (const JudgedRoute& r : routes)
    total += r.length, laid += r.laid;
  summary_->setText(routes.empty() ? tr("No lines yet: the air kit is chosen in Air.")
                                   : tr("%1 of %2 ways are laid, %3 in all; the others are reckoned from place to "
                                        "place. Air goes by these lengths.")
                                         .arg(laid)
                                         .arg(routes.size())
                                         .arg(metres(total)));
  {
    const QSignalBlocker quiet(list_);
    list_->setRowCount(static_cast<int>(routes.size()));
    for (int i = 0; i < list_->rowCount(); ++i) {
      const JudgedRoute& r = routes[static_cast<std::size_t>(i)];
      put_cell(list_, i, 0, QString::fromStdString(r.mark) + "  " + desk_.words_of(r.name), r.laid ? t.ink : t.second);
      put_cell(list_, i, 1, metres(r.length), t.ink);
      put_cell(list_, i, 2, desk_.shown(r.slack, Kind::length, 0),
               r.laid && r.slack < r.slack_wanted ? t.caution : t.ink);
      // What is worst about it.
      QString way = r.laid ? tr("✓ laid") : tr("not laid");
      QColor ink = r.laid ? t.good : t.second;
      const auto say = [&](const QString& text, const QColor& colour) { way = text, ink = colour; };
      if (r.laid && r.slack < r.slack_wanted) say(tr("△ short"), t.caution);
      if (r.tightest && r.least_bend && *r.tightest < *r.least_bend) say(tr("△ bend"), t.caution);
      if (r.hot && r.hot->gap < r.hot->wanted) say(tr("△ hot"), t.caution);
      for (const assess::RouteTyre& one : r.tyres)
        if (one.gap < assess::line_from_moving)
          say(one.through ? tr("✗ in the wheel") : tr("△ tyre"), one.through ? t.stop : t.caution);
      put_cell(list_, i, 3, way, ink, true);
      if (r.key == held_.toStdString()) list_->setCurrentCell(i, 0);
    }
  }
  const JudgedRoute* r = held();
  lay_->setVisible(r && !r->laid);
  for (QWidget* one : std::initializer_list<QWidget*>{add_, remove_, points_, slack_, runs_})
    one->setVisible(r && r->laid);
  kind_->setVisible(r && r->laid && view_->held_point() >= 0);
  remove_->setEnabled(view_->held_point() >= 0);
  if (!r) {
    said_->clear();
    return;
  }
  QString said =
      tr("%1, marked %2 at both ends: %3 to cut")
          .arg(desk_.words_of(r->name), QString::fromStdString(r->mark), desk_.shown(r->length, Kind::length, 0));
  said += tr("; travel, lock and ends want %1 of slack").arg(desk_.shown(r->slack_wanted, Kind::length, 0));
  if (r->least_bend)
    said += tr("; %1 bears R %2").arg(QString::fromStdString(r->part), desk_.shown(*r->least_bend, Kind::length, 0));
  if (r->tightest) said += tr(", there is room for R %1").arg(desk_.shown(*r->tightest, Kind::length, 0));
  if (r->hot)
    said += tr("; %1 from %2")
                .arg(desk_.shown(std::max(0.0, r->hot->gap), Kind::length, 0), QString::fromStdString(r->hot->name));
  for (const assess::RouteTyre& one : r->tyres)
    said += one.through ? tr("; through the wheel at H %1").arg(desk_.shown(one.H, Kind::length, 0))
                        : tr("; %1 from the tyre at H %2")
                              .arg(desk_.shown(one.gap, Kind::length, 0), desk_.shown(one.H, Kind::length, 0));
  said_->setText(said + ".");
  if (!r->laid) return;
  const auto& points = desk_.build().variant().fit_up->routes[r->index].points;
  std::vector<PathTable::Row> rows;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const QString path = QString("@.fit_up.routes.%1.points.%2.").arg(r->index).arg(i);
    rows.push_back({desk_.words_of({build::name_of(points[i].kind), {}}),
                    {path + "name", path + "x_m", path + "y_m", path + "z_m", path + "bend_m"},
                    {}});
  }
  points_->show_rows({tr("name"), tr("behind"), tr("left"), tr("up"), tr("bent round")}, std::move(rows));
  const QString path = QString("@.fit_up.routes.%1.").arg(r->index);
  slack_->bind(path + "slack_m");
  slack_->set_placeholder(tr("as usual"));
  runs_->bind(path + "runs");
  if (view_->held_point() >= 0) kind_->bind(path + QString("points.%1.kind").arg(view_->held_point()));
}

void RoutesPage::write_labels() {
  save_csv(tr("Write the labels"), report::labels_csv(answers_.routes()));
}

} // namespace mavrel::app
