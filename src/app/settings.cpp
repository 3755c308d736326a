#include "app/settings.h"

#include <QFileInfo>

#include <algorithm>

namespace mavrel::app {

namespace {
constexpr int most_recent = 8;

template <class Enum>
Enum read_choice(const QSettings& store, const char* key, int count) {
  return static_cast<Enum>(std::clamp(store.value(key, 0).toInt(), 0, count - 1));
}
} // namespace

Settings::Settings() : store_(QSettings::IniFormat, QSettings::UserScope, "mavrel", "mavrel") {}

UnitPrefs Settings::prefs() const {
  UnitPrefs p;
  p.length = read_choice<LengthUnit>(store_, "units/length", 2);
  p.pressure = read_choice<PressureUnit>(store_, "units/pressure", 3);
  p.mass = read_choice<MassUnit>(store_, "units/mass", 2);
  p.temperature = read_choice<TemperatureUnit>(store_, "units/temperature", 2);
  p.finger = std::clamp(store_.value("units/finger_m", p.finger).toDouble(), 0.008, 0.03);
  return p;
}

void Settings::keep(const UnitPrefs& p) {
  store_.setValue("units/length", static_cast<int>(p.length));
  store_.setValue("units/pressure", static_cast<int>(p.pressure));
  store_.setValue("units/mass", static_cast<int>(p.mass));
  store_.setValue("units/temperature", static_cast<int>(p.temperature));
  store_.setValue("units/finger_m", p.finger);
}

Look Settings::look() const {
  return {read_choice<Theme>(store_, "look/theme", 2), std::clamp(store_.value("look/text", 1.0).toDouble(), 0.8, 2.0)};
}

void Settings::keep(const Look& look) {
  store_.setValue("look/theme", static_cast<int>(look.theme));
  store_.setValue("look/text", look.scale);
}

QStringList Settings::recent() const {
  QStringList out;
  for (const QString& file : store_.value("recent").toStringList())
    if (QFileInfo::exists(file)) out << file;
  return out;
}

void Settings::add_recent(const QString& file) {
  QStringList list = recent();
  list.removeAll(file);
  list.prepend(file);
  while (list.size() > most_recent)
    list.removeLast();
  store_.setValue("recent", list);
}

} // namespace mavrel::app
