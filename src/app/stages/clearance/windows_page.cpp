#include "app/stages/clearance/windows_page.h"

#include "app/desk/sureness.h"
#include "app/kit/chips.h"
#include "app/kit/list_table.h"
#include "assess/ground/proposed.h"
#include "build/names.h"

#include <QCheckBox>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

#include <algorithm>
#include <cmath>

namespace mavrel::app {

using assess::Edge;
using assess::WhichEdge;
using assess::WhichWindow;
using build::at;

WindowsPage::WindowsPage(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), why_(desk.runner(), [this] { refresh(); }),
      edges_(new Chips(desk, tr("Which way"), 120, this)), windows_(new Chips(desk, tr("Which window"), 120, this)),
      sure_(new QCheckBox(tr("in nine cases of ten"), this)), about_(new QLabel(this)), no_help_(new QLabel(this)),
      limits_about_(new QLabel(this)),
      remedies_(list_table(
          "remedies", tr("What could be done"),
          {tr("what could be done"), tr("buys"), tr("then"), tr("camber"), tr("ride"), tr("road window")}, this)),
      limits_(list_table("limits_list", tr("Every limit of this end"),
                         {tr("limit"), tr("reach"), tr("road"), tr("a mm there is worth")}, this)),
      take_(new QPushButton(tr("Do it in this design"), this)), park_(new QPushButton(this)),
      ramp_(new QPushButton(this)), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(0);
  auto* layout = new QVBoxLayout;
  layout->setContentsMargins(0, 0, u, 0);
  layout->setSpacing(u / 2);
  auto* head = new QHBoxLayout;
  head->setSpacing(u);
  head->addWidget(edges_);
  head->addWidget(windows_);
  head->addStretch(1);
  take_->setObjectName("take_remedy");
  head->addWidget(take_);
  layout->addLayout(head);
  about_->setWordWrap(true);
  auto* said = new QHBoxLayout;
  said->setSpacing(u);
  said->addWidget(about_, 1);
  said->addWidget(sure_, 0, Qt::AlignTop);
  layout->addLayout(said);
  layout->addWidget(remedies_, 4);
  no_help_->setWordWrap(true);
  no_help_->setProperty("quiet", true);
  layout->addWidget(no_help_);
  auto* second = new QHBoxLayout;
  second->setSpacing(u);
  limits_about_->setProperty("quiet", true);
  second->addWidget(limits_about_, 1);
  park_->setObjectName("propose_parked");
  ramp_->setObjectName("propose_ramp");
  second->addWidget(park_);
  second->addWidget(ramp_);
  layout->addLayout(second);
  layout->addWidget(limits_, 5);
  whole->addLayout(layout, 1);
  whole->addWidget(beside_);
  connect(edges_, &Chips::chosen, this, [this](int i) { ask_why(window_, static_cast<WhichEdge>(i)); });
  connect(windows_, &Chips::chosen, this, [this](int i) { ask_why(static_cast<WhichWindow>(i), edge_); });
  sure_->setObjectName("why_sure");
  sure_->setToolTip(tr("Only what holds in nine of ten cars that the readings may be of, and by how much there"));
  connect(sure_, &QCheckBox::toggled, this, [this] { ask(); });
  connect(&Sureness::of(desk_), &Sureness::changed, this, [this] {
    if (isVisible()) refresh();
  });
  connect(take_, &QPushButton::clicked, this, &WindowsPage::take_over);
  connect(remedies_, &QTableWidget::cellDoubleClicked, this, &WindowsPage::take_over);
  connect(remedies_, &QTableWidget::currentCellChanged, this,
          [this](int row) { take_->setEnabled(row >= 0 && answer()); });
  connect(park_, &QPushButton::clicked, this, [this] {
    if (const auto H = proposed(build::PresetUse::parked)) set_preset(build::PresetUse::parked, *H);
  });
  connect(ramp_, &QPushButton::clicked, this, [this] {
    if (const auto H = proposed(build::PresetUse::ramp)) set_preset(build::PresetUse::ramp, *H);
  });
  for (const auto signal : {&Desk::changed, &Desk::looked_at})
    connect(&desk_, signal, this, [this] {
      refresh();
      ask();
    });
  connect(&desk_, &Desk::restyled, this, &WindowsPage::refresh);
  refresh();
}

void WindowsPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

void WindowsPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
  ask();
}

const std::optional<assess::Why>& WindowsPage::answer() const {
  static const std::optional<assess::Why> none;
  return why_.answer() ? *why_.answer() : none;
}

void WindowsPage::ask_why(WhichWindow window, WhichEdge edge) {
  window_ = window;
  edge_ = edge;
  refresh();
  ask();
}

void WindowsPage::ask() {
  if (!isVisible()) return;
  assess::WhyGiven now{desk_.build(), desk_.shelf(),
                       desk_.end(),   window_,
                       edge_,         sure_->isChecked() ? assess::Sure::nine_in_ten : assess::Sure::as_read};
  if (why_.was_asked() && !why_.keep_only_for(now)) return;
  why_.ask(std::move(now));
}

void WindowsPage::refresh() {
  const Look& look = desk_.look();
  edges_->show_choices({tr("Why not lower"), tr("Why not higher")}, static_cast<int>(edge_));
  windows_->show_choices({tr("Reach window"), tr("Road window")}, static_cast<int>(window_));
  about_->setFont(look.font());
  for (QWidget* small : std::initializer_list<QWidget*>{no_help_, limits_about_, sure_})
    small->setFont(look.font(TextSize::small));
  for (QTableWidget* table : {remedies_, limits_}) {
    table->setFont(look.font());
    table->horizontalHeader()->setFont(look.font(TextSize::small));
    table->verticalHeader()->setMinimumSectionSize(look.px(20));
    table->verticalHeader()->setDefaultSectionSize(look.px(22));
  }
  const auto& e = desk_.assessment().end(desk_.end());
  const auto& window = window_ == WhichWindow::reach ? e.windows.reach : e.windows.road;
  if (!e.has_domain())
    about_->setText(tr("The height is missing on Car in: nothing limits it yet."));
  else if (!window)
    about_->setText(tr("No height is left between its limits: see them below."));
  else {
    const Edge& edge = edge_ == WhichEdge::low ? window->low : window->high;
    const std::string answer = std::string(build::key_of(desk_.end())) +
                               (window_ == WhichWindow::reach ? ".reach" : ".road") +
                               (edge_ == WhichEdge::low ? ".low" : ".high");
    const QString at = shown_sure(desk_, edge.height, Kind::length, answer);
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
    if (const auto& why = this->answer(); why && sure_->isChecked())
      text += " " + (why->holds
                         ? tr("In nine cases of ten that is %1 or better.").arg(desk_.shown(*why->holds, Kind::length))
                         : tr("In nine cases of ten there is no such window."));
    about_->setText(text);
  }
  refresh_limits();
  refresh_remedies();
  const auto offer = [&](QPushButton* button, build::PresetUse use, const QString& text) {
    const auto H = proposed(use);
    button->setEnabled(H.has_value());
    button->setText(H ? text.arg(desk_.shown(*H, Kind::length, 0)) : text.arg(tr("–")));
  };
  offer(park_, build::PresetUse::parked, tr("Park at %1"));
  offer(ramp_, build::PresetUse::ramp, tr("Ramp at %1"));
}

void WindowsPage::refresh_limits() {
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
  limits_about_->setText(tr("Every limit of this end, the highest first, in every load case."));
  limits_->setRowCount(static_cast<int>(rows.size()));
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
  for (int r = 0; r < limits_->rowCount(); ++r) {
    const Row& row = rows[static_cast<std::size_t>(r)];
    const bool reach = governs(row.reach, e.windows.reach), road = governs(row.road, e.windows.road);
    put_cell(limits_, r, 0, reach || road ? "■ " + row.name : row.name, reach || road ? t.stop : t.ink);
    put_cell(limits_, r, 1, span(row.reach), reach ? t.stop : t.ink);
    put_cell(limits_, r, 2, span(row.road), road ? t.stop : t.ink);
    QString worth = tr("·");
    for (const auto* window : {&e.windows.reach, &e.windows.road})
      if (*window)
        for (const Edge* edge : {&(*window)->low, &(*window)->high})
          if (edge->governing && edge->height_per_metre &&
              ((reach && window == &e.windows.reach) || (road && window == &e.windows.road)) &&
              row.name == named(*edge->governing))
            worth = tr("%1 of height").arg(desk_.shown(*edge->height_per_metre * 1e-3, Kind::length, 2));
    put_cell(limits_, r, 3, worth, t.ink);
  }
}

void WindowsPage::refresh_remedies() {
  const Tokens& t = desk_.look().tokens();
  const auto& why = answer();
  remedies_->setRowCount(why ? static_cast<int>(why->remedies.size()) : 0);
  take_->setEnabled(why && remedies_->currentRow() >= 0);
  if (!why) {
    no_help_->setText(!why_.is_running()   ? QString()
                      : sure_->isChecked() ? tr("Trying what could be done, on a hundred cars that it may be …")
                                           : tr("Trying what could be done …"));
    return;
  }
  const auto change = [&](const std::optional<double>& v, Kind kind, int decimals) {
    if (!v) return tr("·");
    const QString text = desk_.shown(std::abs(*v), kind, decimals);
    const bool nothing = desk_.shown(0, kind, decimals) == text;
    return nothing ? tr("as before") : (*v > 0 ? "+" : "−") + text;
  };
  for (int r = 0; r < remedies_->rowCount(); ++r) {
    const assess::Remedy& remedy = why->remedies[static_cast<std::size_t>(r)];
    QString what = desk_.words_of(remedy.what);
    QStringList troubles;
    for (const Message& trouble : remedy.troubles)
      troubles << desk_.words_of(trouble);
    if (!troubles.isEmpty()) what = tr("△ %1: but %2").arg(what, troubles.join("; "));
    put_cell(remedies_, r, 0, what, troubles.isEmpty() ? t.ink : t.caution);
    put_cell(remedies_, r, 1, desk_.shown(remedy.buys, Kind::length, 1), t.ink);
    put_cell(remedies_, r, 2, remedy.next ? desk_.words_of(*remedy.next) : tr("nothing known"), t.ink);
    put_cell(remedies_, r, 3, change(remedy.camber, Kind::angle, 1), t.ink);
    put_cell(remedies_, r, 4, change(remedy.frequency, Kind::frequency, 2), t.ink);
    put_cell(remedies_, r, 5, change(remedy.road_width, Kind::length, 0), t.ink);
  }
  QStringList none;
  for (const Message& what : why->no_help)
    none << desk_.words_of(what);
  if (!why->edge)
    no_help_->setText(tr("There is no window to widen."));
  else if (none.isEmpty())
    no_help_->setText(
        sure_->isChecked()
            ? tr("Each was tried on a hundred cars that the readings may be of: what it buys in nine of ten.")
            : tr("Each was tried on a copy of this design; camber and ride as they would be then."));
  else
    no_help_->setText((sure_->isChecked()
                           ? tr("Each was tried on a hundred cars that the readings may be of. No help: %1.")
                           : tr("Each was tried on a copy of this design. No help: %1."))
                          .arg(none.join(", ")));
}

void WindowsPage::take_over() {
  const auto& why = answer();
  const int row = remedies_->currentRow();
  if (!why || row < 0 || row >= static_cast<int>(why->remedies.size())) return;
  const assess::Remedy remedy = why->remedies[static_cast<std::size_t>(row)];
  desk_.edit(desk_.words_of(remedy.what), remedy.build);
}

std::optional<double> WindowsPage::proposed(build::PresetUse use) const {
  return assess::proposed_height(desk_.assessment().end(desk_.end()), desk_.end(), desk_.assessment().ground, use);
}

void WindowsPage::set_preset(build::PresetUse use, double H) {
  desk_.edit(use == build::PresetUse::parked ? tr("Set the parked height") : tr("Set the ramp height"),
             assess::with_preset_at(desk_.build(), desk_.assessment().end(desk_.end()), desk_.end(), use, H));
}

} // namespace mavrel::app
