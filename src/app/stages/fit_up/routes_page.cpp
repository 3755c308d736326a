#include "app/stages/fit_up/routes_page.h"

#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/kit/list_table.h"
#include "app/kit/path_table.h"
#include "app/stages/fit_up/questions.h"
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

RoutesPage::RoutesPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), view_(new WaysView(desk, this)), points_(new PathTable(desk, tr("Points of the line"), this)),
      slack_(new Field(desk, "@.fit_up.order", tr("slack"), this)),
      kind_(new ChoiceBox(desk, "@.fit_up.order", tr("Held by"), rows_of(build::WayKind{}), this)),
      runs_(new ChoiceBox(desk, "@.fit_up.order", tr("Runs"), rows_of(build::RouteRuns{}), this)) {
  give_arrows_to(view_);
  summary_ = words("routes_summary", TextSize::normal);
  column()->addWidget(summary_);
  view_->setMinimumHeight(desk_.look().px(220));
  column()->addWidget(view_, 6);
  auto* below = row(column(), 5);
  list_ = table("routes", tr("Lines"), {tr("line"), tr("length"), tr("slack"), tr("its way")});
  below->addWidget(list_, 5);
  auto* side = new QWidget(this);
  auto* right = new QVBoxLayout(side);
  right->setContentsMargins(0, 0, 0, 0);
  right->setSpacing(desk_.look().unit() / 2);
  said_ = small_words("route_said");
  right->addWidget(said_);
  points_->setObjectName("way_points");
  points_->setMinimumHeight(desk_.look().px(90));
  points_->set_narrow();
  right->addWidget(points_, 1);
  auto* buttons = row(right);
  lay_ = button(buttons, tr("Lay it"), "lay_route", [this] { lay(); });
  add_ = button(buttons, tr("Add a point"), "add_way_point", [this] { add_point(); });
  remove_ = button(buttons, tr("Remove the point"), "remove_way_point", [this] { remove_point(); });
  auto* more = row(right);
  more->addWidget(slack_, 1);
  more->addWidget(kind_, 1, Qt::AlignBottom);
  more->addWidget(runs_, 1, Qt::AlignBottom);
  below->addWidget(side, 6);
  connect(list_, &ListTable::chose, this, [this](std::size_t row) {
    if (row < routes_of(desk_).size()) show_route(QString::fromStdString(routes_of(desk_)[row].key));
  });
  connect(view_, &WaysView::chose_route, this, &RoutesPage::show_route);
  connect(view_, &WaysView::chose_point, this, &RoutesPage::refresh);
  connect(points_, &PathTable::held, this, [this](int r) {
    if (view_->held_point() != r) view_->hold_route(held_, r), refresh();
  });
}

bool RoutesPage::go_to(const QString& path) {
  const QStringList steps = path.split('.');
  const int at = static_cast<int>(steps.indexOf("routes"));
  const auto& routes = desk_.build().variant().fit_up->routes;
  if (at < 0 || at + 1 >= steps.size() || steps[at + 1].toUInt() >= routes.size()) return false;
  show_route(QString::fromStdString(routes[steps[at + 1].toUInt()].line));
  return points_->go_to(path) || Page::go_to(path);
}

const JudgedRoute* RoutesPage::held() const {
  for (const JudgedRoute& r : routes_of(desk_))
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
  const auto& routes = routes_of(desk_);
  if (held_.isEmpty() && !routes.empty()) {
    held_ = QString::fromStdString(routes.front().key);
    view_->hold_route(held_);
  }
  fill_list();
  const JudgedRoute* r = held();
  lay_->setVisible(r && !r->laid);
  for (QWidget* one : std::initializer_list<QWidget*>{add_, remove_, points_, slack_, runs_})
    one->setVisible(r && r->laid);
  kind_->setVisible(r && r->laid && view_->held_point() >= 0);
  remove_->setEnabled(view_->held_point() >= 0);
  said_->setText(r ? said(*r) : QString());
  if (r && r->laid) fill_points(*r);
}

void RoutesPage::fill_list() {
  const Tokens& t = desk_.look().tokens();
  const auto& routes = routes_of(desk_);
  // Lines are so many metres, and their ends so many millimetres.
  const auto metres = [&](double v) { return desk_.shown(v, Kind::altitude, 2); };
  double total = 0;
  int laid = 0;
  for (const JudgedRoute& r : routes)
    total += r.length, laid += r.laid;
  summary_->setText(routes.empty() ? tr("No lines yet: the air kit is chosen in Air.")
                                   : tr("%1 of %2 ways are laid, %3 in all; the others are measured from place to "
                                        "place. Air goes by these lengths.")
                                         .arg(laid)
                                         .arg(routes.size())
                                         .arg(metres(total)));
  list_->fill(routes.size(), [&](std::size_t i, ListTable::Row& row) {
    const JudgedRoute& r = routes[i];
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
    row.words(QString::fromStdString(r.mark) + "  " + desk_.words_of(r.name), r.laid ? t.ink : t.second)
        .figure(metres(r.length), t.ink)
        .figure(desk_.shown(r.slack, Kind::length, 0), r.laid && r.slack < r.slack_wanted ? t.caution : t.ink)
        .words(way, ink);
    if (r.key == held_.toStdString()) row.hold();
  });
}

QString RoutesPage::said(const JudgedRoute& r) const {
  const auto mm = [&](double v) { return desk_.shown(v, Kind::length, 0); };
  QString out = tr("%1, marked %2 at both ends: %3 to cut")
                    .arg(desk_.words_of(r.name), QString::fromStdString(r.mark), mm(r.length));
  out += tr("; travel, lock and ends want %1 of slack").arg(mm(r.slack_wanted));
  if (r.least_bend) out += tr("; %1 bears R %2").arg(QString::fromStdString(r.part), mm(*r.least_bend));
  if (r.tightest) out += tr(", there is room for R %1").arg(mm(*r.tightest));
  if (r.hot) out += tr("; %1 from %2").arg(mm(std::max(0.0, r.hot->gap)), QString::fromStdString(r.hot->name));
  for (const assess::RouteTyre& one : r.tyres)
    out += one.through ? tr("; through the wheel at H %1").arg(mm(one.H))
                       : tr("; %1 from the tyre at H %2").arg(mm(one.gap), mm(one.H));
  return out + ".";
}

void RoutesPage::fill_points(const JudgedRoute& r) {
  const auto& points = desk_.build().variant().fit_up->routes[r.index].points;
  const QString path = QString("@.fit_up.routes.%1.").arg(r.index);
  std::vector<PathTable::Row> rows;
  for (std::size_t i = 0; i < points.size(); ++i) {
    const QString at = path + QString("points.%1.").arg(i);
    rows.push_back({desk_.words_of({build::name_of(points[i].kind), {}}),
                    {at + "name", at + "x_m", at + "y_m", at + "z_m", at + "bend_m"},
                    {}});
  }
  const auto head = [&](const QString& text) { return points_->unit_in_head(text, Kind::length); };
  points_->show_rows({tr("name"), head(tr("behind")), head(tr("left")), head(tr("up")), head(tr("bent"))},
                     std::move(rows));
  slack_->bind(path + "slack_m");
  slack_->set_placeholder(tr("as usual"));
  runs_->bind(path + "runs");
  if (view_->held_point() >= 0) kind_->bind(path + QString("points.%1.kind").arg(view_->held_point()));
}

void RoutesPage::write_labels() {
  save_csv(tr("Write the labels"), report::labels_csv(routes_of(desk_)));
}

} // namespace mavrel::app
