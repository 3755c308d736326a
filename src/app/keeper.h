// Keeps unsaved work safe from a crash: writes it beside, soon after each edit, and finds what a killed program left.
#pragma once

#include "build/build.h"

#include <QDateTime>
#include <QLockFile>
#include <QObject>
#include <QTimer>

#include <filesystem>
#include <memory>
#include <optional>
#include <vector>

namespace mavrel::app {

class Desk;

/// Unsaved work of a program that is no longer running.
struct Left {
  std::filesystem::path kept;     // the recovery file
  std::filesystem::path original; // the file it belongs to; empty for a build that was in none
  QDateTime when;
};

class Keeper : public QObject {
  Q_OBJECT
public:
  /// @param folder  where recovery files go; made when needed
  Keeper(Desk& desk, std::filesystem::path folder, QObject* parent = nullptr);
  ~Keeper() override;

  /// `$XDG_STATE_HOME/mavrel/recovery`
  [[nodiscard]] static std::filesystem::path usual_folder();
  [[nodiscard]] std::vector<Left> left_behind() const;
  /// Forgets one of them for good.
  void discard(const Left& left) const;
  /// Writes now what the timer would write soon.
  void keep_now();
  /// Nothing is unsaved any more, or the person said to drop it.
  void forget();

private:
  Desk& desk_;
  std::filesystem::path folder_, file_;
  std::unique_ptr<QLockFile> lock_;
  QTimer timer_;
};

} // namespace mavrel::app
