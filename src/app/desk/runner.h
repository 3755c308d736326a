// Work that takes longer than a frame: one thread beside the interface, one piece of work after the other, each with
// progress and a way to stop it.
#pragma once

#include <QObject>

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
  std::function<void(double share_done)> progress; // may be called from any thread, one at a time
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
  };
  void run(const std::stop_token& ending);
  void deliver(quint64 number, const std::function<void()>& act, bool last);

  std::mutex lock_;
  std::condition_variable_any wake_;
  std::deque<std::shared_ptr<Job>> waiting_; // the first is under way
  quint64 last_number_ = 0;
  std::jthread thread_;
};

/// A question whose answer takes longer than a frame. Shown only while it is the answer to what would be asked now.
/// `Question` is like those that are kept (assess/kept/kept.h), but answers under a RunControl.
template <class Question>
class LongAnswer {
public:
  using Given = typename Question::Given;
  using Answer = typename Question::Answer;

  /// @param changed  called on the interface's thread when there is progress, an answer, or none any more
  LongAnswer(Runner& runner, std::function<void()> changed)
      : runner_(runner), changed_(std::move(changed)), alive_(std::make_shared<bool>(true)) {}
  ~LongAnswer() {
    *alive_ = false;
    if (number_) runner_.stop(*number_);
  }
  LongAnswer(const LongAnswer&) = delete;
  LongAnswer& operator=(const LongAnswer&) = delete;

  void ask(Given given) {
    drop();
    given_ = std::make_shared<const Given>(std::move(given));
    number_ = runner_.start(
        [this, held = given_, alive = alive_](const RunControl& control) -> std::function<void()> {
          std::shared_ptr<Answer> answer;
          try {
            answer = std::make_shared<Answer>(Question::answer(*held, control));
          } catch (...) { // out of memory, most likely: no answer, and the program goes on
          }
          return [this, alive, answer] {
            if (!*alive) return;
            if (answer) answer_ = std::move(*answer);
            broke_off_ = answer == nullptr;
            number_.reset();
            changed_();
          };
        },
        [this, alive = alive_](double done) {
          if (!*alive) return;
          done_ = std::max(done_, done);
          changed_();
        });
    changed_();
  }
  /// Gives up what is under way and what was answered.
  void forget() {
    drop();
    changed_();
  }
  /// To be called when anything may have changed: an answer, or work, for something else is given up.
  /// @returns whether there was any
  bool keep_only_for(const Given& now) {
    if (!given_ || *given_ == now) return false;
    forget();
    return true;
  }

  [[nodiscard]] bool is_running() const { return number_.has_value(); }
  [[nodiscard]] bool was_asked() const { return given_ != nullptr; }
  /// It ended without an answer, because the machine could not go on with it.
  [[nodiscard]] bool broke_off() const { return broke_off_; }
  [[nodiscard]] double done() const { return done_; }
  [[nodiscard]] const std::optional<Answer>& answer() const { return answer_; }

private:
  void drop() {
    if (number_) runner_.stop(*number_);
    number_.reset();
    given_.reset();
    answer_.reset();
    broke_off_ = false;
    done_ = 0;
  }

  Runner& runner_;
  std::function<void()> changed_;
  std::shared_ptr<bool> alive_; // read and written on the interface's thread alone
  std::shared_ptr<const Given> given_;
  std::optional<Answer> answer_;
  std::optional<quint64> number_; // of the work under way
  double done_ = 0;
  bool broke_off_ = false;
};

} // namespace mavrel::app
