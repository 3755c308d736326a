// Keeps unsaved work safe from a crash: writes it beside, soon after each edit, and finds what a killed program left.
// Writing waits for the disk on a thread of its own, never on the interface's.
#pragma once

#include "build/build.h"
#include "quantity/expected.h"

#include <QDateTime>
#include <QObject>
#include <QTimer>

#include <condition_variable>
#include <filesystem>
#include <memory>
#include <mutex>
#include <optional>
#include <thread>
#include <vector>

class QLockFile;

namespace mavrel::app {

class Desk;

/// Unsaved work of a program that is no longer running.
struct LeftBehind {
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
  /// What programs that were killed left, the newest first; no more than `most_left_behind` of it at a time.
  [[nodiscard]] std::vector<LeftBehind> left_behind() const;
  static constexpr std::size_t most_left_behind = 20;
  /// Forgets one of them for good.
  void discard(const LeftBehind& left) const;
  /// Forgets one of them once the work taken over from it is safe elsewhere: kept here, or saved. Until then it stays.
  void discard_when_safe(const LeftBehind& left);
  /// Begins to write now what the timer would write soon.
  void keep_now();
  /// Waits until all that was begun is on the disk, or failed. @returns whether what was last begun is there
  bool wait();
  /// Nothing is unsaved any more, or the person said to drop it.
  void forget();

signals:
  void kept();                        // unsaved work is on the disk
  void failed(const QString& reason); // it could not be written; it is tried again

private:
  /// What the writing thread is to do next; a newer order replaces one not begun.
  struct Order {
    std::shared_ptr<const build::Build> build; // none: take everything away
    std::filesystem::path original;
    std::vector<LeftBehind> frees; // what this build was taken over from: once it is on the disk they are not needed
  };
  void begin(Order order);
  void run(const std::stop_token& stop);
  [[nodiscard]] Expected<void> carry_out(const Order& order);
  void done(const Order& order, const Expected<void>& result);
  void discard_all(const std::vector<LeftBehind>& lefts);

  Desk& desk_;
  std::filesystem::path folder_;
  QTimer timer_, again_;
  std::vector<LeftBehind> when_safe_;
  QString last_failure_;
  bool anything_kept_ = false;

  std::mutex lock_;
  std::condition_variable_any changed_;
  std::optional<Order> next_;          // under the lock
  bool busy_ = false, last_ok_ = true; // under the lock
  // The writing thread's own.
  std::filesystem::path file_;
  std::unique_ptr<QLockFile> file_lock_;
  std::jthread writer_; // last: it uses all of the above
};

} // namespace mavrel::app
