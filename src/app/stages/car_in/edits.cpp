#include "app/stages/car_in/edits.h"

#include <QCoreApplication>

namespace mavrel::app {

namespace {
QString tr(const char* text) {
  return QCoreApplication::translate("edits", text);
}
} // namespace

void add_load_case(Desk& desk) {
  const std::size_t before = desk.build().load_cases.size();
  if (desk.add_entry(tr("Add a load case"), "load_cases",
                     build::LoadCase{tr("Load case %1").arg(before + 1).toStdString(), {}, {}}))
    desk.set_load_case(before);
}

void remove_load_case(Desk& desk, std::size_t index) {
  if (index >= desk.build().load_cases.size()) return;
  desk.remove_entry(tr("Remove load case %1").arg(QString::fromStdString(desk.build().load_cases[index].name)),
                    QString("load_cases.%1").arg(index));
}

void add_load_mass(Desk& desk, std::size_t load_case) {
  if (load_case >= desk.build().load_cases.size()) return;
  build::LoadMass mass;
  mass.name = tr("load").toStdString();
  mass.mass = 50;
  mass.x = desk.build().body.wheelbase.value_or(2.6) / 2;
  desk.add_entry(tr("Add a mass to %1").arg(QString::fromStdString(desk.build().load_cases[load_case].name)),
                 QString("load_cases.%1.masses").arg(load_case), std::move(mass));
}

void remove_load_mass(Desk& desk, std::size_t load_case, std::size_t mass) {
  const auto& cases = desk.build().load_cases;
  if (load_case >= cases.size() || mass >= cases[load_case].masses.size()) return;
  desk.remove_entry(tr("Remove %1").arg(QString::fromStdString(cases[load_case].masses[mass].name)),
                    QString("load_cases.%1.masses.%2").arg(load_case).arg(mass));
}

} // namespace mavrel::app
