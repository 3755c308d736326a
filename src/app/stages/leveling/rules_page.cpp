#include "app/stages/leveling/rules_page.h"

#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "app/stages/leveling/questions.h"
#include "build/leveling.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

#include <algorithm>

namespace mavrel::app {

namespace {

/// What a number is there for, and for which methods it does anything.
struct RuleRow {
  const char* key;
  const char* caption;
  bool by_height, by_pressure, by_hand, until; // it counts for bursts by height, by pressure, by hand, until reached
};
constexpr RuleRow rule_rows[] = {
    {"average_s", QT_TRANSLATE_NOOP("rules", "averages over"), true, true, false, true},
    {"band_m", QT_TRANSLATE_NOOP("rules", "band, either way"), true, false, false, true},
    {"pressure_band_pa", QT_TRANSLATE_NOOP("rules", "pressure band, either way"), false, true, true, false},
    {"wait_s", QT_TRANSLATE_NOOP("rules", "waits after a correction"), true, true, true, true},
    {"gain_s_per_m", QT_TRANSLATE_NOOP("rules", "open for an error of height"), true, false, false, false},
    {"pressure_gain_s_per_pa", QT_TRANSLATE_NOOP("rules", "open for an error of pressure"), false, true, false, false},
    {"least_burst_s", QT_TRANSLATE_NOOP("rules", "least burst"), true, true, false, false},
    {"most_burst_s", QT_TRANSLATE_NOOP("rules", "most burst"), true, true, false, false},
    {"watch_s", QT_TRANSLATE_NOOP("rules", "averages over while open"), false, false, true, true},
    {"valve_delay_s", QT_TRANSLATE_NOOP("rules", "valves move after"), true, true, true, true},
    {"samples_per_s", QT_TRANSLATE_NOOP("rules", "readings a second"), true, true, true, true},
    {"hold_from_m_per_s2", QT_TRANSLATE_NOOP("rules", "holds still from"), true, true, false, true},
    {"look_every_s", QT_TRANSLATE_NOOP("rules", "gauges looked at every"), false, false, true, false},
};

bool counts(const RuleRow& row, control::LevelMethod method) {
  switch (method) {
  case control::LevelMethod::bursts:
    return row.by_height;
  case control::LevelMethod::until_reached:
    return row.until;
  case control::LevelMethod::pressure:
    return row.by_pressure;
  case control::LevelMethod::by_hand:
    return row.by_hand;
  }
  return true;
}

} // namespace

RulesPanel::RulesPanel(Desk& desk, QWidget* parent) : RowPanel(desk, parent) {
  setObjectName("rules_panel");
  start();
}

QString RulesPanel::shape() const {
  const auto& leveling = desk().build().variant().leveling;
  QString out = QString::number(desk().build().active_variant);
  for (const auto& way : leveling.set_ups)
    out += '|' + QString::number(static_cast<int>(way.rules.method)) + (&way == &leveling.set_up() ? "●" : "");
  return out;
}

void RulesPanel::add_way() {
  const auto& ways = desk().build().variant().leveling.set_ups;
  build::ControlSetUp next = ways.back();
  next.fitted = build::Fitted::no;
  for (int n = 1;; ++n) { // a name nobody has
    next.name = tr("Way %1").arg(ways.size() + static_cast<std::size_t>(n)).toStdString();
    if (std::none_of(ways.begin(), ways.end(), [&](const auto& w) { return w.name == next.name; })) break;
  }
  desk().add_entry(tr("Add a method of keeping the height"), "@.leveling.set_ups", std::move(next));
}

void RulesPanel::build_rows() {
  grid()->setHorizontalSpacing(desk().look().px(4));
  const auto& leveling = desk().build().variant().leveling;
  const int ways = static_cast<int>(leveling.set_ups.size());
  const auto path = [](int way, const char* key) { return QString("@.leveling.set_ups.%1.%2").arg(way).arg(key); };
  int row = 0;
  const auto caption = [&](const QString& text) {
    QLabel* label = heading(text, row, 0);
    label->setWordWrap(true); // narrow windows keep their columns
    label->setSizePolicy(QSizePolicy::Ignored, QSizePolicy::Preferred);
  };
  for (int w = 0; w < ways; ++w) {
    auto* head = new QHBoxLayout;
    head->addWidget(quiet_label(letter_of(static_cast<std::size_t>(w))), 1);
    auto* gone = remover([this, w] {
      const auto& all = desk().build().variant().leveling.set_ups;
      return static_cast<std::size_t>(w) < all.size() ? QString::fromStdString(all[static_cast<std::size_t>(w)].name)
                                                      : QString();
    });
    gone->setEnabled(ways > 1);
    connect(gone, &QToolButton::clicked, this, [this, w] {
      desk().remove_entry(tr("Remove a way of keeping the height"), QString("@.leveling.set_ups.%1").arg(w));
    });
    head->addWidget(gone);
    grid()->addLayout(head, row, w + 1);
    auto* name = new Field(desk(), path(w, "name"), {}, grid()->parentWidget());
    grid()->addWidget(name, row + 1, w + 1);
  }
  ++row;
  caption(tr("method"));
  ++row;
  const auto choice = [&](const char* key, const QString& text, auto e) {
    caption(text);
    for (int w = 0; w < ways; ++w) {
      auto* box = new ChoiceBox(desk(), path(w, key), text, rows_of(e), grid()->parentWidget());
      box->setMinimumContentsLength(3);
      grid()->addWidget(box, row, w + 1);
    }
    ++row;
  };
  choice("method", tr("corrects by"), control::LevelMethod{});
  choice("sensors", tr("height sensors"), control::LevelSensors{});
  choice("by", tr("corrected as one"), control::LevelBy{});
  choice("order", tr("order of ends"), control::LevelOrder{});
  for (const RuleRow& rule : rule_rows) {
    const QString text = QCoreApplication::translate("rules", rule.caption);
    caption(text);
    for (int w = 0; w < ways; ++w) {
      if (!counts(rule, leveling.set_ups[static_cast<std::size_t>(w)].rules.method)) {
        heading("–", row, w + 1); // it does nothing there
        continue;
      }
      auto* field = new Field(desk(), path(w, rule.key), {}, grid()->parentWidget());
      field->edit()->setAccessibleName(text + ", " + letter_of(static_cast<std::size_t>(w)));
      if (std::string_view(rule.key).find("gain") != std::string_view::npos) field->set_placeholder(tr("as learned"));
      grid()->addWidget(field, row, w + 1);
    }
    ++row;
  }
  choice("braking", tr("while braking"), control::HoldStill{});
  choice("cornering", tr("while cornering"), control::HoldStill{});
  choice("doors", tr("with a door open"), control::HoldStill{});
  caption(tr("the car gets"));
  for (int w = 0; w < ways; ++w) {
    const bool gets = &leveling.set_ups[static_cast<std::size_t>(w)] == &leveling.set_up();
    auto* button = new QPushButton(gets ? tr("● this one") : tr("this one"), grid()->parentWidget());
    button->setEnabled(!gets);
    connect(button, &QPushButton::clicked, this, [this, w] { give_to_car(desk(), static_cast<std::size_t>(w)); });
    grid()->addWidget(button, row, w + 1);
  }
  auto* more = new QPushButton(tr("Add a method"), grid()->parentWidget());
  more->setObjectName("add_way");
  more->setEnabled(static_cast<std::size_t>(ways) < build::most_set_ups);
  connect(more, &QPushButton::clicked, this, &RulesPanel::add_way);
  grid()->addWidget(more, ++row, 0);
  grid()->setColumnStretch(0, 4);
  for (int w = 0; w < ways; ++w)
    grid()->setColumnStretch(w + 1, 3);
}

EventsPanel::EventsPanel(Desk& desk, QWidget* parent) : RowPanel(desk, parent) {
  setObjectName("events_panel");
  start();
}

QString EventsPanel::shape() const {
  QString out;
  for (const build::DriveEvent& e : desk().build().drive.events)
    out += QString::number(static_cast<int>(e.kind));
  return out + "|";
}

void EventsPanel::build_rows() {
  const auto& events = desk().build().drive.events;
  grid()->setHorizontalSpacing(desk().look().px(4));
  int row = 0;
  for (std::size_t i = 0; i < events.size(); ++i) {
    const auto path = [&](const char* key) { return QString("drive.events.%1.%2").arg(i).arg(key); };
    const auto field = [&](const char* key, const QString& caption, int column, int span = 1) {
      auto* f = new Field(desk(), path(key), caption, grid()->parentWidget());
      grid()->addWidget(f, row, column, 1, span);
    };
    field("name", tr("what happens"), 0, 3);
    auto* kind = new ChoiceBox(desk(), path("kind"), tr("What changes"), rows_of(build::DriveEventKind{}),
                               grid()->parentWidget());
    kind->setMinimumContentsLength(2);
    grid()->addWidget(kind, row, 3, 1, 2, Qt::AlignBottom);
    auto* gone = remover([this, i] {
      const auto& all = desk().build().drive.events;
      return i < all.size() && !all[i].name.empty() ? QString::fromStdString(all[i].name) : tr("this event");
    });
    connect(gone, &QToolButton::clicked, this,
            [this, i] { desk().remove_entry(tr("Remove an event"), QString("drive.events.%1").arg(i)); });
    grid()->addWidget(gone, row, 5, Qt::AlignLeft | Qt::AlignBottom);
    ++row;
    field("at_s", tr("at"), 0);
    field("over_s", tr("takes"), 1);
    field("until_s", tr("back at"), 2);
    switch (events[i].kind) {
    case build::DriveEventKind::load:
      field("mass_kg", tr("gets in"), 3);
      field("x_m", tr("behind front axle"), 4);
      field("y_m", tr("left"), 5);
      break;
    case build::DriveEventKind::air_temperature:
      field("warmer_k", tr("warmer by"), 3);
      break;
    case build::DriveEventKind::altitude:
      field("altitude_m", tr("higher by"), 3);
      break;
    }
    ++row;
    grid()->setRowMinimumHeight(row++, desk().look().px(6));
  }
  auto* adding = new QHBoxLayout;
  const auto add = [&](const QString& text, const char* name, build::DriveEvent event) {
    auto* button = new QPushButton(text, grid()->parentWidget());
    button->setObjectName(name);
    button->setEnabled(events.size() < build::most_drive_events);
    connect(button, &QPushButton::clicked, this,
            [this, event] { desk().add_entry(tr("Add an event"), "drive.events", event); });
    adding->addWidget(button);
  };
  build::DriveEvent people, warm, cold, pass;
  people.name = tr("Two people in").toStdString();
  warm.name = tr("A warm hour").toStdString();
  warm.kind = build::DriveEventKind::air_temperature, warm.at = 0, warm.over = 3600;
  cold.name = tr("A cold night").toStdString();
  cold.kind = build::DriveEventKind::air_temperature, cold.at = 0, cold.over = 28800;
  cold.warmer = desk().build().surroundings.night_temperature - desk().build().surroundings.temperature;
  pass.name = tr("Over the pass").toStdString();
  pass.kind = build::DriveEventKind::altitude, pass.at = 300, pass.over = 600, pass.until = 1800;
  add(tr("Load …"), "add_load", people);
  add(tr("Warmth …"), "add_warmth", warm);
  add(tr("Cold night …"), "add_cold", cold);
  add(tr("A pass …"), "add_pass", pass);
  grid()->addLayout(adding, row, 0, 1, 6);
  for (int c = 0; c < 6; ++c)
    grid()->setColumnStretch(c, 1);
}

RulesPage::RulesPage(Desk& desk, QWidget* parent) : Page(desk, parent) {
  auto* all = new QWidget(this);
  auto* inside = new QVBoxLayout(all);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(desk_.look().unit());
  inside->addWidget(new RulesPanel(desk, this));
  inside->addWidget(
      quiet(tr("Readings are averaged; when the mean leaves the band the valves open for as long as the error "
               "asks for, shut, and nothing is done until the car has settled. “As learned” is what bursts buy on "
               "this car, three quarters of the error at a time. Drive only inside the road window.")));
  inside->addWidget(heading(tr("What happens on the drive"), true));
  inside->addWidget(new EventsPanel(desk, this));
  inside->addStretch(1);
  column()->addWidget(scrolled(all, this), 1);
}

} // namespace mavrel::app
