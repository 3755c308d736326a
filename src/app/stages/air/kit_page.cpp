#include "app/stages/air/kit_page.h"

#include "app/desk/sureness.h"
#include "app/kit/choice_box.h"
#include "app/kit/path_table.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QVBoxLayout>

namespace mavrel::app {

using assess::KitRole;

ChoiceBox* part_box(Desk& desk, KitRole role, QWidget* parent) {
  const auto& row = assess::row_of(role);
  return new ChoiceBox(
      desk, QString("@.air.%1").arg(row.field), QObject::tr(row.label),
      [&desk, role] {
        std::vector<ChoiceBox::Row> rows = {{QObject::tr("none"), {}}};
        const shelf::PartKind kind = assess::kind_for(role, desk.build().variant().air);
        for (const shelf::ShelfPart& part : desk.shelf().parts)
          if (part.part.kind == kind)
            rows.push_back({QString::fromStdString(part.part.name), QString::fromStdString(part.part.name)});
        return rows;
      },
      parent);
}

KitPage::KitPage(Desk& desk, QWidget* parent)
    : Page(desk, parent), day_(new PathTable(desk, tr("Moves of a day"), this)) {
  const int u = desk_.look().unit();
  auto* both = row(column(), 1);
  both->setSpacing(2 * u);
  auto* parts = new QWidget(this);
  parts->setLayout(make_parts());
  both->addWidget(scrolled(parts, this), 11);
  auto* side = new QWidget(this);
  auto* right = new QVBoxLayout(side);
  right->setContentsMargins(0, 0, 0, 0);
  right->setSpacing(u / 2);
  right->addLayout(make_ways(side));
  auto* numbers = row(right);
  fields(numbers, "@.air.", {{"elbows", tr("elbows")}, {"line_slack", tr("slack")}});
  fields(numbers, "@.brief.air.", {{"drive_s", tr("engine a day")}});
  day_->setMaximumHeight(desk_.look().px(96));
  right->addWidget(day_);
  auto* moves = row(right);
  button(moves, tr("Add a move"), "add_move", [this] {
    const assess::AirGiven& air = air_of(desk_);
    build::DayMove move;
    if (const auto lift = assess::wished_lift(air))
      move.from = air.presets[lift->first], move.to = air.presets[lift->second];
    desk_.add_entry(tr("Add a move"), "@.brief.air.day", move);
  });
  button(moves, tr("Remove"), "remove_move", [this] {
    if (day_->held_row() >= 0 && day_->held_row() < static_cast<int>(desk_.build().variant().brief.air.day.size()))
      desk_.remove_entry(tr("Remove a move"), QString("@.brief.air.day.%1").arg(day_->held_row()));
  });
  moves->addStretch(1);
  figures_ = rich_words("kit_figures");
  dress(figures_, TextSize::normal);
  right->addWidget(figures_, 1);
  right->addWidget(
      quiet(tr("Let all pressure out before a line is opened. Never lie under a car that air holds up: stands.")));
  both->addWidget(scrolled(side, this), 8);
  follow(desk_.answers().of_the_car<FiguresQuestion>());
  connect(&Sureness::of(desk_), &Sureness::changed, this, &KitPage::refresh);
}

QLayout* KitPage::make_parts() {
  auto* grid = new QGridLayout;
  grid->setContentsMargins(0, 0, desk_.look().unit(), 0);
  grid->setHorizontalSpacing(desk_.look().unit());
  grid->setVerticalSpacing(2);
  int r = 0;
  for (const auto& part : assess::kit_roles()) {
    QLabel* caption = small_words();
    caption->setText(tr(part.label));
    auto* box = part_box(desk_, part.role, this);
    caption->setBuddy(box);
    QLabel* about = quiet();
    about->setWordWrap(false);
    grid->addWidget(caption, r, 0);
    grid->addWidget(box, r, 1);
    grid->addWidget(about, r++, 2);
    about_.emplace_back(part.role, about);
  }
  grid->setColumnStretch(1, 5);
  grid->setColumnStretch(2, 4);
  grid->setRowStretch(r, 1);
  return grid;
}

QLayout* KitPage::make_ways(QWidget* side) {
  auto* grid = new QGridLayout;
  grid->setHorizontalSpacing(desk_.look().unit());
  grid->setVerticalSpacing(2);
  int line = 0;
  const auto choice = [&](const char* key, const QString& caption, const QString& name, auto e) {
    QLabel* label = small_words();
    label->setText(caption);
    auto* box = new ChoiceBox(desk_, QString("@.air.%1").arg(key), name, rows_of(e), side);
    label->setBuddy(box);
    grid->addWidget(label, line, 0);
    grid->addWidget(box, line++, 1);
  };
  choice("circuits", tr("circuits"), tr("Circuits"), build::Circuits{});
  choice("school", tr("worked by"), tr("Valves worked by"), build::ValveSchool{});
  choice("order", tr("order"), tr("Order of corners"), build::MoveOrder{});
  choice("shop_inlet", tr("shop air"), tr("Inlet for shop air"), build::Fitted{});
  choice("tyre_outlet", tr("tyre outlet"), tr("Outlet for tyres"), build::Fitted{});
  choice("weighed", tr("car weighed"), tr("Car weighed"), build::Weighed{});
  grid->setColumnStretch(1, 1);
  return grid;
}

const assess::KitFigures* KitPage::figures() const {
  return desk_.answers().of_the_car<FiguresQuestion>().value();
}

bool KitPage::go_to(const QString& path) {
  return day_->go_to(path) || Page::go_to(path);
}

QString KitPage::figures_text() const {
  const auto& asked = desk_.answers().of_the_car<FiguresQuestion>();
  if (asked.is_running()) return tr("Letting the air flow …");
  if (const auto trouble = asked.trouble()) return desk_.words_of(*trouble).toHtmlEscaped();
  if (!figures()) return {};
  const assess::KitFigures& f = *figures();
  QString rows;
  const auto line = [&](const QString& what, const QString& value) {
    rows += QString("<tr><td>%1&nbsp;&nbsp;</td><td align='right'><b>%2</b></td></tr>").arg(what, value);
  };
  const auto seconds = [&](const std::optional<double>& s) {
    if (!s) return tr("never");
    return *s < 90 ? desk_.shown(*s, Kind::time) : desk_.shown(*s, Kind::minutes);
  };
  const auto sure = [&](const std::optional<double>& s, const char* answer) {
    if (!s) return tr("never");
    return shown_sure(desk_, *s, *s < 90 ? Kind::time : Kind::minutes, answer);
  };
  const auto grams = [](double kg) { return tr("%1 g").arg(kg * 1e3, 0, 'f', 1); };
  QStringList troubles;
  const auto trouble = [&](const Message& why) {
    const QString text = desk_.words_of(why);
    if (!troubles.contains(text)) troubles << text;
  };
  const auto of_case = [&](const Expected<assess::LiftsFromFull>& lifts, const Expected<assess::Filling>& ready,
                           std::size_t load_case, bool doubt) {
    const QString load = QString::fromStdString(assess::case_name(air_of(desk_), load_case));
    const auto maybe_sure = [&](const std::optional<double>& s, const char* answer) {
      return doubt ? sure(s, answer) : seconds(s);
    };
    if (lifts) {
      line(tr("lifts per tank, %1").arg(load), (lifts->more ? tr("%1 or more") : QString("%1")).arg(lifts->lifts));
      if (lifts->first) line(tr("the first takes"), maybe_sure(lifts->first, "air.rise"));
      line(tr("air a lift"), grams(lifts->air));
      if (!lifts->first)
        trouble({mavrel::words("{0}: {1} stops {2} short."),
                 {assess::case_name(air_of(desk_), load_case), lifts->stuck, metres(std::abs(lifts->short_by))}});
    } else
      trouble(lifts.error());
    if (ready)
      line(ready->by_shop ? tr("refill after one, by shop air") : tr("refill after one"),
           maybe_sure(ready->time, "air.ready"));
    else
      trouble(ready.error());
  };
  of_case(f.lifts, f.ready, 0, true);
  if (f.heaviest) of_case(f.heaviest->lifts, f.heaviest->ready, f.heaviest->load_case, false);
  if (f.first) {
    const bool inlet = air_of(desk_).kit.shop_inlet == build::Fitted::yes;
    if (inlet)
      line(tr("first fill, shop air at %1").arg(desk_.shown(assess::shop_pressure, Kind::pressure, 0)),
           seconds(f.first->shop_time));
    if (!assess::by_shop_air_alone(air_of(desk_).kit)) {
      if (inlet) line(tr("and the rest by itself"), seconds(f.first->rest_time));
      line(tr("all of it by itself"), sure(f.first->own_time, "air.fill"));
    }
  } else
    trouble(f.first.error());
  if (f.tyres) {
    line(tr("four tyres, %1 to %2")
             .arg(desk_.shown(assess::tyre_from, Kind::pressure), desk_.shown(assess::tyre_to, Kind::pressure)),
         seconds(f.tyres->time));
    line(tr("tyres from a full tank alone"), QString::number(f.tyres->tyres));
  } else
    trouble(f.tyres.error());
  if (f.day) {
    if (!f.day->by_shop) {
      line(tr("compressor runs a day"), desk_.shown(f.day->run, Kind::minutes));
      line(tr("of the time the engine does"), desk_.shown(f.day->share_of_drive, Kind::share, 1));
    }
    line(tr("air a day"), grams(f.day->air));
    line(tr("of it for leveling and leaks"), tr("%1 and %2").arg(grams(f.day->leveling), grams(f.day->leaks)));
    for (const Message& why : f.day->unmade)
      trouble(why);
  } else
    trouble(f.day.error());
  for (const assess::OnBattery& b : f.battery) {
    const QString lifts = b.starts_from >= 1 ? tr("does not start")
                          : b.lifts          ? QString::number(*b.lifts)
                                             : tr("over %1").arg(assess::most_lifts_on_battery);
    line(tr("lifts, engine off, till it won’t start, %1").arg(desk_.shown(b.temperature, Kind::temperature, 0)), lifts);
    if (b.until_cut && (!b.lifts || *b.until_cut < *b.lifts))
      line(tr("till the kit is switched off"), QString::number(*b.until_cut));
  }
  QString out = "<table cellspacing='0' cellpadding='1'>" + rows + "</table>";
  if (!troubles.isEmpty()) out += "<p>" + troubles.join(" ").toHtmlEscaped() + "</p>";
  return out;
}

void KitPage::fill() {
  figures_->setText(figures_text());
  const assess::AirGiven& air = air_of(desk_);
  std::vector<PathTable::Row> rows;
  for (std::size_t i = 0; i < air.wishes.day.size(); ++i) {
    const QString base = QString("@.brief.air.day.%1.").arg(i);
    rows.push_back({QString::number(i + 1), {base + "from", base + "to", base + "times"}, {}});
  }
  day_->setVisible(!rows.empty());
  day_->show_rows({tr("from"), tr("to"), tr("a day")}, std::move(rows));
  for (const auto& [role, label] : about_) {
    const shelf::Part* part = air.parts[role];
    const QStringList said = part ? about(role, *part) : QStringList();
    label->setText(said.value(0));
    label->setToolTip(part ? (said.join(" · ") + "\n") +
                                 QString::fromStdString(part->maker + (part->notes.empty() ? "" : ". " + part->notes))
                           : QString());
  }
}

/// What matters about a part, the most first.
QStringList KitPage::about(assess::KitRole role, const shelf::Part& part) const {
  const assess::AirGiven& air = air_of(desk_);
  QStringList out;
  if (part.kind == shelf::PartKind::line) {
    const auto of_end = [&](std::size_t left) {
      return std::max(assess::corner_line_length(air, left), assess::corner_line_length(air, left + 1));
    };
    const double length = role == KitRole::feed_line    ? assess::feed_line_length(air)
                          : role == KitRole::front_line ? of_end(0)
                                                        : of_end(2);
    out << tr("up to %1").arg(desk_.shown(length, Kind::altitude, 1));
  }
  if (!part.curve.empty()) {
    out << desk_.shown(shelf::air_of(part, 8e5, assess::volts_at_compressor(air.kit)), Kind::air_flow);
    out << tr("that against %1").arg(desk_.shown(8e5, Kind::pressure, 0));
  }
  if (part.volume) out << desk_.shown(*part.volume, Kind::volume, 1);
  if (part.cut_in)
    out << tr("to %1").arg(desk_.shown(*part.cut_out, Kind::pressure))
        << tr("from %1").arg(desk_.shown(*part.cut_in, Kind::pressure));
  if (part.opens_at) out << tr("at %1").arg(desk_.shown(*part.opens_at, Kind::pressure));
  if (part.conductance) out << desk_.shown(*part.conductance, Kind::conductance);
  if (part.rated_pressure && part.kind != shelf::PartKind::fitting)
    out << tr("rated %1").arg(desk_.shown(*part.rated_pressure, Kind::pressure, 0));
  if (part.mass && *part.mass >= 0.3) out << desk_.shown(*part.mass, Kind::mass, 1);
  return out;
}

} // namespace mavrel::app
