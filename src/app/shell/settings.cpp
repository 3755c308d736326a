#include "app/shell/settings.h"

#include <QFile>
#include <QFileInfo>
#include <QStandardPaths>

namespace mavrel::app {

namespace {
constexpr int most_recent = 8;

constexpr qint64 most_bytes = 256 * 1024; // of a settings file: a few hundred are usual

// The file may hold anything: whatever is no value of its kind is the usual one.
template <class Enum>
Enum read_choice(const QSettings& store, const char* key, int count) {
  bool number = false;
  const int value = store.value(key).toInt(&number);
  return static_cast<Enum>(number && value >= 0 && value < count ? value : 0);
}

double read_figure(const QSettings& store, const char* key, double usual, double least, double most) {
  bool number = false;
  const double value = store.value(key).toDouble(&number);
  return number && value >= least && value <= most ? value : usual; // no number compares so
}

/// The file of the settings. Empty where what stands there is not ours to read or to write over: a pipe, a folder,
/// another text by a link; then nothing is kept between sessions, and nothing is lost.
QString usable_file() {
  const QString path = QStandardPaths::writableLocation(QStandardPaths::GenericConfigLocation) + "/mavrel/mavrel.ini";
  const QFileInfo info(path);
  if (!info.exists()) return info.isSymLink() ? QString() : path;
  if (!info.isFile() || info.size() > most_bytes) return {};
  QFile file(path);
  if (!file.open(QIODevice::ReadOnly)) return {};
  const QByteArray text = file.read(most_bytes).trimmed();
  return text.isEmpty() || text.startsWith('[') || text.startsWith(';') ? path : QString();
}
} // namespace

Settings::Settings() : store_(usable_file(), QSettings::IniFormat) {}

UnitPrefs Settings::prefs() const {
  UnitPrefs p;
  p.length = read_choice<LengthUnit>(store_, "units/length", 2);
  p.pressure = read_choice<PressureUnit>(store_, "units/pressure", 3);
  p.mass = read_choice<MassUnit>(store_, "units/mass", 2);
  p.temperature = read_choice<TemperatureUnit>(store_, "units/temperature", 2);
  p.finger = read_figure(store_, "units/finger_m", p.finger, 0.008, 0.03);
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
  return {read_choice<Theme>(store_, "look/theme", 2), read_figure(store_, "look/text", 1.0, 0.8, 2.0)};
}

void Settings::keep(const Look& look) {
  store_.setValue("look/theme", static_cast<int>(look.theme));
  store_.setValue("look/text", look.scale);
}

bool Settings::sureness() const {
  return store_.value("look/sureness", true).toString() != "false";
}

void Settings::keep_sureness(bool wanted) {
  store_.setValue("look/sureness", wanted);
}

QStringList Settings::recent() const {
  QStringList out;
  for (const QString& file : store_.value("recent").toStringList())
    if (out.size() < most_recent && QFileInfo(file).isFile()) out << file;
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
