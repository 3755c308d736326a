// What a person keeps between sessions: units, theme, text size, recent files. In the XDG configuration folder.
#pragma once

#include "app/theme/look.h"
#include "quantity/kind.h"

#include <QSettings>
#include <QStringList>

namespace mavrel::app {

class Settings {
public:
  Settings();
  [[nodiscard]] UnitPrefs prefs() const;
  void keep(const UnitPrefs& prefs);
  [[nodiscard]] Look look() const;
  void keep(const Look& look);
  /// Are answers worked out with how sure they are?
  [[nodiscard]] bool sureness() const;
  void keep_sureness(bool wanted);
  [[nodiscard]] QStringList recent() const;
  void add_recent(const QString& file);

private:
  mutable QSettings store_;
};

} // namespace mavrel::app
