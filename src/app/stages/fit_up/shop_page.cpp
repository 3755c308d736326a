#include "app/stages/fit_up/shop_page.h"

#include "app/kit/choice_box.h"
#include "app/kit/field.h"
#include "assess/fit_up/job_rules.h"
#include "build/names_fit_up.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>
#include <QVBoxLayout>

namespace mavrel::app {

ShopPanel::ShopPanel(Desk& desk, What what, QWidget* parent) : RowPanel(desk, parent), what_(what) {
  constexpr const char* names[] = {"shop_figures", "shop_people", "shop_days_off",
                                   "shop_habits",  "shop_stock",  "shop_learned"};
  setObjectName(names[static_cast<int>(what)]);
  start();
}

QString ShopPanel::shape() const {
  const build::Shop& shop = *desk().build().shop;
  switch (what_) {
  case What::figures:
    return "figures";
  case What::people:
    return QString::number(shop.people.size());
  case What::days_off:
    return QString::number(shop.days_off.size());
  case What::habits:
    return QString::number(shop.habits.size());
  case What::stock:
    return QString::number(shop.stock.size());
  case What::learned: {
    QString out;
    for (const build::LearnedHours& l : shop.learned)
      out += QString::fromStdString(l.rule) + ';';
    return out;
  }
  }
  return {};
}

void ShopPanel::put(const QString& path, const QString& caption, int row, int column, int span) {
  auto* field = new Field(desk(), path, caption, grid()->parentWidget());
  grid()->addWidget(field, row, column, 1, span);
}

void ShopPanel::remove_button(const QString& entry, int row, int column, std::function<QString()> what) {
  auto* gone = remover(std::move(what));
  connect(gone, &QToolButton::clicked, this, [this, entry] { desk().remove_entry(tr("Remove from the shop"), entry); });
  grid()->addWidget(gone, row, column, Qt::AlignLeft | Qt::AlignBottom);
}

void ShopPanel::add_button(const QString& text, const char* name, int row, std::function<void()> act) {
  auto* button = new QPushButton(text, grid()->parentWidget());
  button->setObjectName(name);
  connect(button, &QPushButton::clicked, this, std::move(act));
  grid()->addWidget(button, row, 0, 1, 2, Qt::AlignLeft);
}

void ShopPanel::build_rows() {
  switch (what_) {
  case What::figures:
    return figures();
  case What::people:
    return people();
  case What::days_off:
    return days_off();
  case What::habits:
    return habits();
  case What::stock:
    return stock();
  case What::learned:
    return learned();
  }
}

void ShopPanel::figures() {
  const std::pair<const char*, QString> rows[] = {{"first_day", tr("first day, 2026-11-30")},
                                                  {"day_from_s", tr("work from")},
                                                  {"day_to_s", tr("to")},
                                                  {"lifts", tr("at once on the lift")},
                                                  {"floors", tr("on the floor")},
                                                  {"benches", tr("at the bench")},
                                                  {"weld_bays", tr("at the welder")},
                                                  {"paint_places", tr("in paint")},
                                                  {"hour_price", tr("an hour costs")},
                                                  {"money", tr("money")},
                                                  {"kerf_m", tr("saw’s kerf")},
                                                  {"tube_bar_m", tr("bar of tube")},
                                                  {"strip_bar_m", tr("bar of flat")},
                                                  {"coil_m", tr("coil")}};
  int n = 0;
  for (const auto& [key, caption] : rows) {
    put(QString("shop.%1").arg(key), caption, n / 4, n % 4);
    ++n;
  }
  for (const auto& [key, name] : {std::pair("saturdays", tr("Saturdays")), std::pair("sundays", tr("Sundays"))}) {
    auto* cell = new QVBoxLayout;
    cell->setSpacing(0);
    QLabel* label = quiet_label(tr("%1 worked").arg(name));
    cell->addWidget(label);
    cell->addWidget(
        new ChoiceBox(desk(), QString("shop.%1").arg(key), name, rows_of(build::YesNo{}), grid()->parentWidget()));
    grid()->addLayout(cell, n / 4, n % 4);
    ++n;
  }
  for (int c = 0; c < 4; ++c)
    grid()->setColumnStretch(c, 1);
}

void ShopPanel::people() {
  const auto& people = desk().build().shop->people;
  int row = 0;
  for (int c = 0; c < 3; ++c)
    heading(c == 0 ? tr("welds") : c == 1 ? tr("wires") : tr("paints"), row, c + 1);
  ++row;
  const std::size_t people_shown = shown_of("people", people.size());
  for (std::size_t i = 0; i < people_shown; ++i) {
    const QString path = QString("shop.people.%1.").arg(i);
    put(path + "name", {}, row, 0);
    int c = 1;
    for (const char* key : {"welds", "wires", "paints"}) {
      auto* box = new ChoiceBox(desk(), path + key, tr("%1 %2").arg(QString::fromStdString(people[i].name), key),
                                rows_of(build::YesNo{}), grid()->parentWidget());
      box->setMinimumContentsLength(3);
      grid()->addWidget(box, row, c++);
    }
    remove_button(QString("shop.people.%1").arg(i), row, 4, [this, i] {
      const auto& all = desk().build().shop->people;
      return i < all.size() ? QString::fromStdString(all[i].name) : QString();
    });
    ++row;
  }
  row = add_more("people", people.size(), row);
  add_button(tr("Add a person"), "add_person", row, [this] {
    build::ShopPerson p;
    p.name = tr("Person %1").arg(desk().build().shop->people.size() + 1).toStdString();
    desk().add_entry(tr("Add a person"), "shop.people", std::move(p));
  });
  grid()->setColumnStretch(0, 3);
}

void ShopPanel::days_off() {
  const auto& days = desk().build().shop->days_off;
  int row = 0;
  const std::size_t days_off_shown = shown_of("days_off", days.size());
  for (std::size_t i = 0; i < days_off_shown; ++i) {
    const QString path = QString("shop.days_off.%1.").arg(i);
    put(path + "who", tr("who; blank: all"), row, 0);
    put(path + "from", tr("from, 2026-12-24"), row, 1);
    put(path + "to", tr("to"), row, 2);
    put(path + "why", tr("why"), row, 3);
    remove_button(QString("shop.days_off.%1").arg(i), row, 4, [this, i] {
      const auto& all = desk().build().shop->days_off;
      return i < all.size() ? QString::fromStdString(all[i].why) : QString();
    });
    ++row;
  }
  row = add_more("days_off", days.size(), row);
  add_button(tr("Add days off"), "add_days_off", row,
             [this] { desk().add_entry(tr("Add days off"), "shop.days_off", build::DaysOff{}); });
  for (int c = 0; c < 4; ++c)
    grid()->setColumnStretch(c, 1);
}

void ShopPanel::habits() {
  const auto& habits = desk().build().shop->habits;
  int row = 0;
  const std::size_t habits_shown = shown_of("habits", habits.size());
  for (std::size_t i = 0; i < habits_shown; ++i) {
    const QString path = QString("shop.habits.%1.").arg(i);
    put(path + "name", tr("job"), row, 0, 2);
    const auto choice = [&](const char* key, const QString& name, auto e, int column) {
      auto* cell = new QVBoxLayout;
      cell->setSpacing(0);
      cell->addWidget(quiet_label(name));
      auto* box = new ChoiceBox(desk(), path + key, name, rows_of(e), grid()->parentWidget());
      box->setMinimumContentsLength(4);
      cell->addWidget(box);
      grid()->addLayout(cell, row, column);
    };
    choice("when", tr("wherever there is"), build::Feature{}, 2);
    choice("place", tr("where"), build::WorkPlace{}, 3);
    choice("skill", tr("by who can"), build::Skill{}, 4);
    remove_button(QString("shop.habits.%1").arg(i), row, 5, [this, i] {
      const auto& all = desk().build().shop->habits;
      return i < all.size() ? QString::fromStdString(all[i].name) : QString();
    });
    ++row;
    put(path + "hours_s", tr("takes"), row, 0);
    put(path + "people", tr("people"), row, 1);
    put(path + "after", tr("after"), row, 2);
    put(path + "before", tr("before"), row, 3);
    put(path + "wait_s", tr("wait after"), row, 4);
    ++row;
    put(path + "why", tr("why"), row, 0, 5);
    ++row;
    grid()->setRowMinimumHeight(row++, desk().look().px(6));
  }
  row = add_more("habits", habits.size(), row);
  add_button(tr("Add a habit"), "add_habit", row, [this] {
    build::ShopHabit h;
    h.name = tr("Photograph every weld").toStdString();
    h.when = build::Feature::welded;
    h.after = "weld";
    desk().add_entry(tr("Add a habit"), "shop.habits", std::move(h));
  });
  for (int c = 0; c < 5; ++c)
    grid()->setColumnStretch(c, 1);
}

void ShopPanel::stock() {
  const auto& stock = desk().build().shop->stock;
  int row = 0;
  const std::size_t stock_shown = shown_of("stock", stock.size());
  for (std::size_t i = 0; i < stock_shown; ++i) {
    const QString path = QString("shop.stock.%1.").arg(i);
    put(path + "what", tr("stock"), row, 0);
    put(path + "length_m", tr("length"), row, 1);
    put(path + "count", tr("how many"), row, 2);
    put(path + "from", tr("left of"), row, 3);
    remove_button(QString("shop.stock.%1").arg(i), row, 4, [this, i] {
      const auto& all = desk().build().shop->stock;
      return i < all.size() ? QString::fromStdString(all[i].what) : QString();
    });
    ++row;
  }
  row = add_more("stock", stock.size(), row);
  add_button(tr("Add a leftover"), "add_leftover", row, [this] {
    build::StockPiece piece;
    piece.what = "tube 38×4";
    desk().add_entry(tr("Add a leftover"), "shop.stock", std::move(piece));
  });
  for (int c = 0; c < 4; ++c)
    grid()->setColumnStretch(c, 1);
}

void ShopPanel::learned() {
  const auto& all = desk().build().shop->learned;
  int row = 0;
  if (all.empty())
    grid()->addWidget(quiet_label(tr("Nothing yet: a job that was begun and done teaches it.")), row++, 0);
  const std::size_t learned_shown = shown_of("learned", all.size());
  for (std::size_t i = 0; i < learned_shown; ++i) {
    const QString path = QString("shop.learned.%1.").arg(i);
    const assess::JobRule* rule = assess::job_rule(all[i].rule);
    grid()->addWidget(quiet_label(rule ? desk().words_of({rule->name, {}}) : QString::fromStdString(all[i].rule)), row,
                      0);
    put(path + "hours_s", tr("takes"), row, 1);
    put(path + "times", tr("times taken"), row, 2);
    remove_button(QString("shop.learned.%1").arg(i), row++, 3, [this, i] {
      const auto& now = desk().build().shop->learned;
      return i < now.size() ? QString::fromStdString(now[i].rule) : QString();
    });
  }
  row = add_more("learned", all.size(), row);
  for (int c = 0; c < 3; ++c)
    grid()->setColumnStretch(c, 1);
}

ShopPage::ShopPage(Desk& desk, QWidget* parent) : Page(desk, parent) {
  auto* all = new QWidget(this);
  auto* inside = new QVBoxLayout(all);
  inside->setContentsMargins(0, 0, 0, 0);
  inside->setSpacing(desk_.look().unit());
  const auto section = [&](const QString& name, ShopPanel::What what) {
    inside->addWidget(heading(name, true));
    inside->addWidget(new ShopPanel(desk_, what, this));
  };
  section(tr("Days, places and stock"), ShopPanel::What::figures);
  section(tr("People"), ShopPanel::What::people);
  section(tr("Days off"), ShopPanel::What::days_off);
  section(tr("Habits: jobs this shop does wherever a design has something"), ShopPanel::What::habits);
  section(tr("Left of bars and coils, used first"), ShopPanel::What::stock);
  section(tr("What jobs take here, learned by doing them"), ShopPanel::What::learned);
  inside->addStretch(1);
  column()->addWidget(scrolled(all, this), 1);
}

} // namespace mavrel::app
