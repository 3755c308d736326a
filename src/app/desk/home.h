// Paths as people write them: what lies in one's own folder begins with ~.
#pragma once

#include <QDir>
#include <QString>

namespace mavrel::app {

/// `/home/orla/cars` as `~/cars`; any other path as it is.
[[nodiscard]] inline QString at_home(const QString& path) {
  const QString home = QDir::homePath();
  return path == home || path.startsWith(home + '/') ? '~' + path.mid(home.size()) : path;
}
/// And back.
[[nodiscard]] inline QString from_home(const QString& typed) {
  const QString path = typed.trimmed();
  return path == "~" || path.startsWith("~/") ? QDir::homePath() + path.mid(1) : path;
}

} // namespace mavrel::app
