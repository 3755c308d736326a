#include "app/stages/clearance/windows_page.h"

#include "app/desk/sureness.h"
#include "app/kit/chips.h"
#include "app/kit/list_table.h"
#include "assess/ground/proposed.h"
#include "build/names.h"

#include <QCheckBox>
#include <QHeaderView>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::Edge;
using assess::WhichEdge;
using assess::WhichWindow;
using build::at;

WindowsPage::WindowsPage(Desk& desk, QWidget* parent)
    : Page(desk, parent),
      why_(
          desk.answers(), [this] { refresh(); },
          [this] {
            return assess::WhyGiven{
                desk_.build(), desk_.shelf(), desk_.end(),
                window_,       edge_,         sure_->isChecked() ? assess::Sure::nine_in_ten : assess::Sure::as_read};
          }),
      edges_(new Chips(desk, tr("Which way"), 120, this)), windows_(new Chips(desk, tr("Which window"), 120, this)),
      sure_(new QCheckBox(tr("in nine cases of ten"), this)) {
  follow(why_);
  auto* head = row(column());
  head->addWidget(edges_);
  head->addWidget(windows_);
  head->addStretch(1);
  take_ = button(head, tr("Do it in this design"), "take_remedy", [this] { take_over(); });
  auto* said = row(column());
  about_ = words("why_about", TextSize::normal);
  said->addWidget(about_, 1);
  sure_->setObjectName("why_sure");
  sure_->setToolTip(tr("Only what holds in nine of ten cars that the readings may be of, and by how much there"));
  dress(sure_, TextSize::small);
  said->addWidget(sure_, 0, Qt::AlignTop);
  remedies_ = table("remedies", tr("What could be done"),
                    {tr("what could be done"), tr("buys"), tr("then"), tr("camber"), tr("ride"), tr("road window")});
  column()->addWidget(remedies_, 4);
  no_help_ = quiet();
  column()->addWidget(no_help_);
  auto* second = row(column());
  second->addWidget(quiet(tr("Every limit of this end, the highest first, in every load case.")), 1);
  park_ = proposer(second, "propose_parked", build::PresetUse::parked);
  ramp_ = proposer(second, "propose_ramp", build::PresetUse::ramp);
  limits_ = table("limits_list", tr("Every limit of this end"),
                  {tr("limit"), tr("reach"), tr("road"), tr("a mm there is worth")});
  column()->addWidget(limits_, 5);
  for (ListTable* table : {remedies_, limits_}) {
    dress(table, TextSize::normal);
    dress(table->horizontalHeader(), TextSize::small);
  }
  connect(edges_, &Chips::chosen, this, [this](int i) { ask_why(window_, static_cast<WhichEdge>(i)); });
  connect(windows_, &Chips::chosen, this, [this](int i) { ask_why(static_cast<WhichWindow>(i), edge_); });
  connect(sure_, &QCheckBox::toggled, this, &WindowsPage::refresh);
  connect(&Sureness::of(desk_), &Sureness::changed, this, &WindowsPage::refresh);
  connect(remedies_, &ListTable::picked, this, &WindowsPage::take_over);
}

/// A button that sets the first preset of a use to the height that is proposed for it.
QPushButton* WindowsPage::proposer(QBoxLayout* row, const char* name, build::PresetUse use) {
  return button(row, {}, name, [this, use] {
    const auto H = proposed(use);
    if (!H) return;
    desk_.edit(use == build::PresetUse::parked ? tr("Set the parked height") : tr("Set the ramp height"),
               assess::with_preset_at(desk_.build(), desk_.assessment().end(desk_.end()), desk_.end(), use, *H));
  });
}

void WindowsPage::offer(QPushButton* button, build::PresetUse use, const QString& text) {
  const auto H = proposed(use);
  button->setEnabled(H.has_value());
  button->setText(text.arg(H ? desk_.shown(*H, Kind::length, 0) : tr("–")));
}

std::optional<double> WindowsPage::proposed(build::PresetUse use) const {
  return assess::proposed_height(desk_.assessment().end(desk_.end()), desk_.end(), desk_.assessment().ground, use);
}

void WindowsPage::ask_why(WhichWindow window, WhichEdge edge) {
  window_ = window;
  edge_ = edge;
  refresh();
}

void WindowsPage::fill() {
  edges_->show_choices({tr("Why not lower"), tr("Why not higher")}, static_cast<int>(edge_));
  windows_->show_choices({tr("Reach window"), tr("Road window")}, static_cast<int>(window_));
  for (ListTable* table : {remedies_, limits_}) {
    table->verticalHeader()->setMinimumSectionSize(desk_.look().px(20));
    table->verticalHeader()->setDefaultSectionSize(desk_.look().px(22));
  }
  about_->setText(about());
  fill_limits();
  fill_remedies();
  offer(park_, build::PresetUse::parked, tr("Park at %1"));
  offer(ramp_, build::PresetUse::ramp, tr("Ramp at %1"));
}

/// Where the window ends, and at what.
QString WindowsPage::about() const {
  const auto& e = desk_.assessment().end(desk_.end());
  const auto& window = window_ == WhichWindow::reach ? e.windows.reach : e.windows.road;
  if (!e.has_domain()) return tr("The height is missing on Car in: nothing limits it yet.");
  if (!window) return tr("No height is left between its limits: see them below.");
  const Edge& edge = edge_ == WhichEdge::low ? window->low : window->high;
  const std::string answered = std::string(build::key_of(desk_.end())) +
                               (window_ == WhichWindow::reach ? ".reach" : ".road") +
                               (edge_ == WhichEdge::low ? ".low" : ".high");
  const QString at = shown_sure(desk_, edge.height, Kind::length, answered);
  QString text = edge_ == WhichEdge::low ? tr("It goes down to %1").arg(at) : tr("It goes up to %1").arg(at);
  if (edge.governing) {
    text += tr(": %1").arg(desk_.words_of(assess::name_of(*edge.governing)));
    if (edge.governing->reserve > 0)
      text += tr(", with %1 kept free").arg(desk_.shown(edge.governing->reserve, Kind::length, 0));
    if (edge.governing->load_case)
      text += tr(", %1").arg(QString::fromStdString(desk_.assessment().loads[*edge.governing->load_case].name));
  }
  if (edge.next)
    text += tr("; behind it %1 at %2")
                .arg(desk_.words_of(assess::name_of(*edge.next)), desk_.shown(edge.next_height, Kind::length));
  text += ".";
  if (const assess::Why* why = answer(); why && sure_->isChecked())
    text +=
        " " + (why->holds ? tr("In nine cases of ten that is %1 or better.").arg(desk_.shown(*why->holds, Kind::length))
                          : tr("In nine cases of ten there is no such window."));
  return text;
}

void WindowsPage::fill_limits() {
  const Tokens& t = desk_.look().tokens();
  const auto& e = desk_.assessment().end(desk_.end());
  struct Row {
    QString name;
    const assess::Stretch *reach = nullptr, *road = nullptr;
    double at = 0;
  };
  std::vector<Row> rows;
  const auto named = [&](const assess::Stretch& s) {
    QString name = desk_.words_of(assess::name_of(s));
    if (s.load_case) name += tr(", %1").arg(QString::fromStdString(desk_.assessment().loads[*s.load_case].name));
    return name + (s.from <= e.domain_low + 1e-9  ? tr(" – below")
                   : s.to >= e.domain_high - 1e-9 ? tr(" – above")
                                                  : tr(" – between"));
  };
  const auto add = [&](const std::vector<assess::Stretch>& from, const assess::Stretch* Row::*which) {
    for (const assess::Stretch& s : from) {
      const QString name = named(s);
      auto row = std::find_if(rows.begin(), rows.end(), [&](const Row& r) { return r.name == name && !(r.*which); });
      if (row == rows.end()) {
        rows.push_back({name, nullptr, nullptr, s.from <= e.domain_low + 1e-9 ? s.to : s.from});
        row = std::prev(rows.end());
      }
      (*row).*which = &s;
    }
  };
  add(e.windows.reach_blocked, &Row::reach);
  add(e.windows.road_blocked, &Row::road);
  std::stable_sort(rows.begin(), rows.end(), [](const Row& a, const Row& b) { return a.at > b.at; });
  const auto span = [&](const assess::Stretch* s) {
    if (!s) return tr("·");
    if (s->from <= e.domain_low + 1e-9) return tr("below %1").arg(desk_.shown(s->to, Kind::length, 0));
    if (s->to >= e.domain_high - 1e-9) return tr("above %1").arg(desk_.shown(s->from, Kind::length, 0));
    return tr("%1 to %2").arg(desk_.shown(s->from, Kind::length, 0), desk_.shown(s->to, Kind::length, 0));
  };
  const auto governs = [&](const assess::Stretch* s, const std::optional<assess::Window>& window) {
    if (!s || !window) return false;
    for (const Edge* edge : {&window->low, &window->high})
      if (edge->governing && edge->governing->limit == s->limit && edge->governing->near == s->near &&
          edge->governing->from == s->from && edge->governing->to == s->to)
        return true;
    return false;
  };
  const auto worth = [&](const Row& row, const std::optional<assess::Window>& window, bool rules) {
    if (window && rules)
      for (const Edge* edge : {&window->low, &window->high})
        if (edge->governing && edge->height_per_metre && row.name == named(*edge->governing))
          return tr("%1 of height").arg(desk_.shown(*edge->height_per_metre * 1e-3, Kind::length, 2));
    return QString();
  };
  limits_->fill(rows.size(), [&](std::size_t r, ListTable::Row& out) {
    const Row& row = rows[r];
    const bool reach = governs(row.reach, e.windows.reach), road = governs(row.road, e.windows.road);
    const QString on_road = worth(row, e.windows.road, road), in_reach = worth(row, e.windows.reach, reach);
    out.words(reach || road ? "■ " + row.name : row.name, reach || road ? t.stop : t.ink)
        .figure(span(row.reach), reach ? t.stop : t.ink)
        .figure(span(row.road), road ? t.stop : t.ink)
        .figure(!on_road.isEmpty()    ? on_road
                : !in_reach.isEmpty() ? in_reach
                                      : tr("·"),
                t.ink);
  });
}

QString WindowsPage::no_help() const {
  const assess::Why* why = answer();
  const bool sure = sure_->isChecked();
  if (const auto trouble = why_.trouble()) return desk_.words_of(*trouble);
  if (!why)
    return !why_.is_running() ? QString()
           : sure             ? tr("Trying what could be done, on a hundred cars that it may be …")
                              : tr("Trying what could be done …");
  if (!why->edge) return tr("There is no window to widen.");
  QStringList none;
  for (const Message& what : why->no_help)
    none << desk_.words_of(what);
  if (none.isEmpty())
    return sure ? tr("Each was tried on a hundred cars that the readings may be of: what it buys in nine of ten.")
                : tr("Each was tried on a copy of this design; camber and ride as they would be then.");
  return (sure ? tr("Each was tried on a hundred cars that the readings may be of. No help: %1.")
               : tr("Each was tried on a copy of this design. No help: %1."))
      .arg(none.join(", "));
}

void WindowsPage::fill_remedies() {
  const Tokens& t = desk_.look().tokens();
  const assess::Why* why = answer();
  take_->setEnabled(why && !why->remedies.empty());
  no_help_->setText(no_help());
  const auto change = [&](const std::optional<double>& v, Kind kind, int decimals) {
    if (!v) return tr("·");
    const QString text = desk_.shown(std::abs(*v), kind, decimals);
    const bool nothing = desk_.shown(0, kind, decimals) == text;
    return nothing ? tr("as before") : (*v > 0 ? "+" : "−") + text;
  };
  remedies_->fill(why ? why->remedies.size() : 0, [&](std::size_t r, ListTable::Row& row) {
    const assess::Remedy& remedy = why->remedies[r];
    QString what = desk_.words_of(remedy.what);
    QStringList troubles;
    for (const Message& trouble : remedy.troubles)
      troubles << desk_.words_of(trouble);
    if (!troubles.isEmpty()) what = tr("△ %1: but %2").arg(what, troubles.join("; "));
    row.words(what, troubles.isEmpty() ? t.ink : t.caution)
        .figure(desk_.shown(remedy.buys, Kind::length, 1), t.ink)
        .figure(remedy.next ? desk_.words_of(*remedy.next) : tr("nothing known"), t.ink)
        .figure(change(remedy.camber, Kind::angle, 1), t.ink)
        .figure(change(remedy.frequency, Kind::frequency, 2), t.ink)
        .figure(change(remedy.road_width, Kind::length, 0), t.ink);
  });
}

void WindowsPage::take_over() {
  const assess::Why* why = answer();
  const auto row = remedies_->held();
  if (!why || !row || *row >= why->remedies.size()) return;
  const assess::Remedy remedy = why->remedies[*row];
  desk_.edit(desk_.words_of(remedy.what), remedy.build);
}

} // namespace mavrel::app
