#include "app/stages/air/kit_page.h"

#include "app/desk/sureness.h"
#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/kit/paged_stage.h"
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
    : QWidget(parent), desk_(desk), answer_(desk.runner(), [this] { refresh(); }), figures_(new QLabel(this)),
      caution_(new QLabel(this)), day_(new PathTable(desk, tr("Moves of a day"), this)), beside_(new QWidget(this)) {
  const int u = desk_.look().unit();
  auto* whole = new QHBoxLayout(this);
  whole->setContentsMargins(0, 0, 0, 0);
  whole->setSpacing(2 * u);
  auto* parts = new QWidget(this);
  auto* grid = new QGridLayout(parts);
  grid->setContentsMargins(0, 0, u, 0);
  grid->setHorizontalSpacing(u);
  grid->setVerticalSpacing(2);
  int r = 0;
  for (const auto& row : assess::kit_roles()) {
    auto* caption = new QLabel(tr(row.label), parts);
    auto* box = part_box(desk_, row.role, parts);
    caption->setBuddy(box);
    auto* about = new QLabel(parts);
    about->setProperty("quiet", true);
    about->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
    grid->addWidget(caption, r, 0);
    grid->addWidget(box, r, 1);
    grid->addWidget(about, r++, 2);
    captions_.push_back(caption);
    about_.emplace_back(row.role, about);
  }
  grid->setColumnStretch(1, 5);
  grid->setColumnStretch(2, 4);
  grid->setRowStretch(r, 1);
  whole->addWidget(scrolled(parts, this), 11);
  auto* side = new QWidget(this);
  auto* right = new QVBoxLayout(side);
  right->setContentsMargins(0, 0, u, 0);
  right->setSpacing(u / 2);
  auto* how = new QGridLayout;
  how->setHorizontalSpacing(u);
  how->setVerticalSpacing(2);
  int line = 0;
  const auto choice = [&](const QString& caption, ChoiceBox* box) {
    auto* label = new QLabel(caption, side);
    label->setBuddy(box);
    captions_.push_back(label);
    how->addWidget(label, line, 0);
    how->addWidget(box, line++, 1);
  };
  const auto box = [&](const char* key, const QString& name, auto e) {
    return new ChoiceBox(desk_, QString("@.air.%1").arg(key), name, rows_of(e), side);
  };
  choice(tr("circuits"), box("circuits", tr("Circuits"), build::Circuits{}));
  choice(tr("worked by"), box("school", tr("Valves worked by"), build::ValveSchool{}));
  choice(tr("order"), box("order", tr("Order of corners"), build::MoveOrder{}));
  choice(tr("shop air"), box("shop_inlet", tr("Inlet for shop air"), build::Fitted{}));
  choice(tr("tyre outlet"), box("tyre_outlet", tr("Outlet for tyres"), build::Fitted{}));
  choice(tr("car weighed"), box("weighed", tr("Car weighed"), build::Weighed{}));
  how->setColumnStretch(1, 1);
  right->addLayout(how);
  auto* numbers = new QHBoxLayout;
  numbers->setSpacing(u / 2);
  numbers->addWidget(new Field(desk_, "@.air.elbows", tr("elbows"), side));
  numbers->addWidget(new Field(desk_, "@.air.line_slack", tr("slack"), side));
  numbers->addWidget(new Field(desk_, "@.brief.air.drive_s", tr("engine a day"), side));
  right->addLayout(numbers);
  day_->setMaximumHeight(desk_.look().px(96));
  right->addWidget(day_);
  auto* moves = new QHBoxLayout;
  moves->setSpacing(u / 2);
  auto* more = new QPushButton(tr("Add a move"), side);
  more->setObjectName("add_move");
  connect(more, &QPushButton::clicked, this, [this] {
    const assess::AirGiven& air = air_of(desk_);
    build::DayMove move;
    if (const auto lift = assess::wished_lift(air))
      move.from = air.presets[lift->first], move.to = air.presets[lift->second];
    desk_.add_entry(tr("Add a move"), "@.brief.air.day", move);
  });
  auto* less = new QPushButton(tr("Remove"), side);
  connect(less, &QPushButton::clicked, this, [this] {
    if (day_->held_row() >= 0 && day_->held_row() < static_cast<int>(desk_.build().variant().brief.air.day.size()))
      desk_.remove_entry(tr("Remove a move"), QString("@.brief.air.day.%1").arg(day_->held_row()));
  });
  moves->addWidget(more);
  moves->addWidget(less);
  moves->addStretch(1);
  right->addLayout(moves);
  figures_->setTextFormat(Qt::RichText);
  figures_->setWordWrap(true);
  figures_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  figures_->setObjectName("kit_figures");
  right->addWidget(figures_, 1);
  caution_->setWordWrap(true);
  caution_->setProperty("quiet", true);
  caution_->setText(
      tr("Let all pressure out before a line is opened. Never lie under a car that air holds up: stands."));
  right->addWidget(caution_);
  whole->addWidget(scrolled(side, this), 8);
  whole->addWidget(beside_);
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, &KitPage::ask);
  connect(&Sureness::of(desk_), &Sureness::changed, this, [this] {
    if (isVisible()) figures_->setText(figures_text());
  });
  ask();
}

void KitPage::reserve_right(int px) {
  beside_->setFixedWidth(px);
}

void KitPage::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  ask();
}

const std::optional<assess::KitFigures>& KitPage::figures() const {
  static const std::optional<assess::KitFigures> none;
  return answer_.answer() ? *answer_.answer() : none;
}

void KitPage::ask() {
  if (!isVisible()) return;
  const assess::AirGiven& now = air_of(desk_);
  if (!answer_.was_asked() || answer_.keep_only_for(now)) answer_.ask(now);
  refresh();
}

bool KitPage::go_to(const QString& path) {
  refresh(); // it may not have been shown yet
  if (day_->go_to(path)) return true;
  return go_to_field(desk_, this, path);
}

QString KitPage::figures_text() const {
  if (answer_.is_running()) return tr("Letting the air flow …");
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
  if (f.lifts) {
    line(tr("lifts from a full tank"), (f.lifts->more ? tr("%1 or more") : QString("%1")).arg(f.lifts->lifts));
    if (f.lifts->first) line(tr("the first takes"), sure(f.lifts->first, "air.rise"));
    line(tr("air a lift"), grams(f.lifts->air));
  } else
    trouble(f.lifts.error());
  if (f.ready)
    line(tr("full again after one"), sure(f.ready->time, "air.ready"));
  else
    trouble(f.ready.error());
  if (f.first) {
    const bool inlet = air_of(desk_).kit.shop_inlet == build::Fitted::yes;
    if (inlet)
      line(tr("first fill, shop air at %1").arg(desk_.shown(assess::shop_pressure, Kind::pressure, 0)),
           seconds(f.first->shop_time));
    if (inlet) line(tr("and the rest by itself"), seconds(f.first->rest_time));
    line(tr("all of it by itself"), sure(f.first->own_time, "air.fill"));
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
    line(tr("compressor runs a day"), desk_.shown(f.day->run, Kind::minutes));
    line(tr("of the time the engine does"), desk_.shown(f.day->share_of_drive, Kind::share, 1));
    line(tr("air a day"), grams(f.day->air));
    for (const Message& why : f.day->unmade)
      trouble(why);
  } else
    trouble(f.day.error());
  QString out = "<table cellspacing='0' cellpadding='1'>" + rows + "</table>";
  if (!troubles.isEmpty()) out += "<p>" + troubles.join(" ").toHtmlEscaped() + "</p>";
  return out;
}

void KitPage::refresh() {
  const Look& look = desk_.look();
  for (QLabel* caption : captions_)
    caption->setFont(look.font(TextSize::small));
  caution_->setFont(look.font(TextSize::small));
  figures_->setFont(look.font());
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
    label->setFont(look.font(TextSize::small));
    const shelf::Part* part = air.parts[role];
    QStringList about;
    if (part) {
      if (part->kind == shelf::PartKind::line) {
        const double length = role == KitRole::feed_line ? assess::feed_line_length(air)
                              : role == KitRole::front_line
                                  ? std::max(assess::corner_line_length(air, 0), assess::corner_line_length(air, 1))
                                  : std::max(assess::corner_line_length(air, 2), assess::corner_line_length(air, 3));
        about << tr("up to %1").arg(desk_.shown(length, Kind::altitude, 1));
      }
      if (!part->curve.empty()) {
        about << desk_.shown(shelf::air_of(*part, 8e5, assess::volts_at_compressor(air.kit)), Kind::air_flow);
        about << tr("that against %1").arg(desk_.shown(8e5, Kind::pressure, 0));
      }
      if (part->volume) about << desk_.shown(*part->volume, Kind::volume, 1);
      if (part->cut_in)
        about << tr("to %1").arg(desk_.shown(*part->cut_out, Kind::pressure))
              << tr("from %1").arg(desk_.shown(*part->cut_in, Kind::pressure));
      if (part->opens_at) about << tr("at %1").arg(desk_.shown(*part->opens_at, Kind::pressure));
      if (part->conductance) about << desk_.shown(*part->conductance, Kind::conductance);
      if (part->rated_pressure && part->kind != shelf::PartKind::fitting)
        about << tr("rated %1").arg(desk_.shown(*part->rated_pressure, Kind::pressure, 0));
      if (part->mass && *part->mass >= 0.3) about << desk_.shown(*part->mass, Kind::mass, 1);
    }
    label->setText(about.value(0));
    label->setToolTip(part ? (about.join(" · ") + "\n") +
                                 QString::fromStdString(part->maker + (part->notes.empty() ? "" : ". " + part->notes))
                           : QString());
  }
}

} // namespace mavrel::app
