#include "app/stages/bags/edits.h"

#include "build/names.h"

#include <QCoreApplication>

#include <algorithm>

namespace mavrel::app {

namespace {
QString tr(const char* text) {
  return QCoreApplication::translate("edits", text);
}
} // namespace

void choose_bag(Desk& desk, End end, const std::string& name) {
  build::Build next = desk.build();
  next.variant().fit[build::at(end)].bag = name;
  desk.edit(tr("Choose %1 %2").arg(QString(build::name_of(end)).toLower(), QString::fromStdString(name)),
            std::move(next));
}

void add_damper_point(Desk& desk, End end) {
  const auto& curve = desk.build().variant().fit[build::at(end)].damper_curve;
  build::DamperPoint point{0.05, 120, 220, {}};
  if (!curve.empty()) {
    point = curve.back();
    point.extra.clear();
    point.speed = std::min(5.0, point.speed * 2);
    point.bump_force = std::min(2e4, point.bump_force * 1.7);
    point.rebound_force = std::min(2e4, point.rebound_force * 1.7);
  }
  desk.add_entry(tr("Add a damper point"), QString("@.%1.damper_curve").arg(build::key_of(end)), std::move(point));
}

void remove_damper_point(Desk& desk, End end, std::size_t index) {
  if (index >= desk.build().variant().fit[build::at(end)].damper_curve.size()) return;
  desk.remove_entry(tr("Remove a damper point"), QString("@.%1.damper_curve.%2").arg(build::key_of(end)).arg(index));
}

} // namespace mavrel::app
