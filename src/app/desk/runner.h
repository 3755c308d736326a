// Work that takes longer than a frame: one thread beside the interface, one piece of work after the other, each with
// progress and a way to stop it.
#pragma once

#include "quantity/message.h"

#include <QObject>

#include <chrono>
#include <condition_variable>
#include <deque>
#include <functional>
#include <memory>
#include <mutex>
#include <optional>
#include <stop_token>
#include <thread>

namespace mavrel::app {

/// What a piece of work is told, and how it says how far it is.
struct RunControl {
  std::stop_token stop;
  std::function<void(double share_done)> progress; // may be called from any thread; told on 20 times a second at most
};

class Runner : public QObject {
  Q_OBJECT
public:
  explicit Runner(QObject* parent = nullptr);
  /// Asks what is under way to stop and waits for it; nothing is delivered any more.
  ~Runner() override;

  /// Done on the runner's thread: it must own what it reads. What it gives back is called on the interface's thread.
  using Work = std::function<std::function<void()>(const RunControl&)>;
  /// Puts a piece of work in line. @param progress  called on the interface's thread
  /// @returns a number to stop it by
  quint64 start(Work work, std::function<void(double share_done)> progress = {});
  /// It ends as soon as it looks, and nothing of it is delivered any more.
  void stop(quint64 number);

private:
  struct Job {
    quint64 number = 0;
    Work work;
    std::function<void(double)> progress;
    std::stop_source stop;
    std::chrono::steady_clock::time_point
        told; // when it last said how far it is; of the runner's threads, under the lock
  };
  void run(const std::stop_token& ending);
  [[nodiscard]] bool may_tell(Job& job);
  void deliver(quint64 number, const std::function<void()>& act, bool last);

  std::mutex lock_;
  std::condition_variable_any wake_;
  std::deque<std::shared_ptr<Job>> waiting_; // the first is under way
  quint64 last_number_ = 0;
  std::jthread thread_;
};

/// Why a piece of work could not go on, for a person; none where it ran to its end. @param work  may throw anything
[[nodiscard]] std::optional<Message> what_breaks_off(const std::function<void()>& work);

} // namespace mavrel::app
