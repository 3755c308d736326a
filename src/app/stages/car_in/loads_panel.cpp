#include "app/stages/car_in/loads_panel.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/stages/car_in/edits.h"
#include "assess/end/end_answer.h"

#include <QGridLayout>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>

namespace mavrel::app {

LoadsPanel::LoadsPanel(Desk& desk, QWidget* parent) : RowPanel(desk, parent) {
  start();
}

QString LoadsPanel::shape() const {
  const auto& cases = desk().build().load_cases;
  const std::size_t c = desk().load_case();
  return QString("%1/%2/%3 ").arg(c).arg(cases.size()).arg(c < cases.size() ? cases[c].masses.size() : 0);
}

void LoadsPanel::build_rows() {
  const auto& cases = desk().build().load_cases;
  const std::size_t c = desk().load_case();
  const int u = desk().look().unit();
  auto* add_case = new QPushButton(tr("Add a load case"), this);
  connect(add_case, &QPushButton::clicked, this, [this] { add_load_case(desk()); });
  if (c >= cases.size()) {
    grid()->addWidget(
        quiet_label(tr("The car as surveyed. Load cases are what it also carries: people, stock, a trailer's nose.")),
        0, 0);
    grid()->addWidget(add_case, 1, 0, Qt::AlignLeft);
    grid()->setRowStretch(2, 1);
    return;
  }
  const QString path = QString("load_cases.%1").arg(c);
  auto* name = new Field(desk(), path + ".name", tr("load case"), this);
  grid()->addWidget(name, 0, 0);
  shares_ = quiet_label();
  shares_->setWordWrap(true);
  grid()->addWidget(shares_, 0, 1, 1, 4);
  auto* drop = remover([] { return tr("this load case"); });
  connect(drop, &QToolButton::clicked, this, [this, c] { remove_load_case(desk(), c); });
  grid()->addWidget(drop, 0, 5, Qt::AlignBottom);
  const QString heads[] = {tr("mass"), tr("how much"), tr("behind the front axle"), tr("left of the middle"),
                           tr("above the road")};
  for (int i = 0; i < 5; ++i)
    heading(heads[i], 1, i);
  int row = 2;
  for (std::size_t m = 0; m < cases[c].masses.size(); ++m, ++row) {
    const QString at = QString("%1.masses.%2").arg(path).arg(m);
    int column = 0;
    for (const char* key : {".name", ".mass_kg", ".behind_front_axle_m", ".left_of_middle_m", ".above_road_m"}) {
      auto* field = new Field(desk(), at + key, {}, this);
      if (QString(key) == ".above_road_m") field->set_placeholder(tr("as the body"));
      grid()->addWidget(field, row, column++);
    }
    auto* remove = remover([this, c, m] {
      const auto& now = desk().build().load_cases;
      const bool there = c < now.size() && m < now[c].masses.size(); // until the rows are built anew
      return there ? QString::fromStdString(now[c].masses[m].name) : QString();
    });
    connect(remove, &QToolButton::clicked, this, [this, c, m] { remove_load_mass(desk(), c, m); });
    grid()->addWidget(remove, row, 5);
  }
  auto* add_mass = new QPushButton(tr("Add a mass"), this);
  connect(add_mass, &QPushButton::clicked, this, [this, c] { add_load_mass(desk(), c); });
  grid()->addWidget(add_mass, row, 0, Qt::AlignLeft);
  grid()->addWidget(add_case, row, 1, Qt::AlignLeft);
  grid()->setRowStretch(row + 1, 1);
  grid()->setColumnStretch(0, 3);
  for (int i = 1; i < 5; ++i)
    grid()->setColumnStretch(i, 2);
  grid()->setContentsMargins(0, u / 2, 0, 0);
}

void LoadsPanel::refresh_rows() {
  const auto& cases = desk().build().load_cases;
  if (desk().load_case() >= cases.size() || !shares_) return;
  const auto& load = desk().assessment().loads[desk().load_case()];
  if (!load.ends[0] || !load.ends[1]) {
    shares_->setText(tr("Axle shares need corner weights and the wheelbase."));
    return;
  }
  const auto shown = [&](double kg) { return desk().shown(kg, Kind::mass); };
  shares_->setText(tr("Front axle %1, rear axle %2, car %3.\nSprung a corner: front %4, rear %5.")
                       .arg(shown(load.ends[0]->axle_mass), shown(load.ends[1]->axle_mass), shown(*load.total_mass),
                            shown(load.ends[0]->sprung_mass), shown(load.ends[1]->sprung_mass)));
}

} // namespace mavrel::app
