// Work that takes longer than a frame: one thread beside the interface, one piece of work after the other, each with
// progress and a way to stop it.
#pragma once

#include "quantity/expected.h"

#include <QObject>

#include <chrono>
#include <condition_variable>
#include <deque>
#include <functional>
#include <memory>
#include <mutex>
#include <new>
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

/// How a question that takes longer than a frame stands.
enum class Asking {
  none,     // nobody asked
  running,  // and how far it is
  answered, // there is an answer
  refused,  // there is none, and the question says why
  broke_off // the machine could not go on with it
};

/// Why an answer is none: what its question refused with. Of answers that are always one nothing.
template <class Answer>
[[nodiscard]] std::optional<Message> refusal_in(const Answer&) {
  return std::nullopt;
}
template <class T>
[[nodiscard]] std::optional<Message> refusal_in(const Expected<T>& answer) {
  return answer ? std::nullopt : std::optional(answer.error());
}
template <class T>
[[nodiscard]] std::optional<Message> refusal_in(const std::optional<T>& answer) {
  return answer ? refusal_in(*answer) : std::nullopt;
}

/// A question whose answer takes longer than a frame. Shown only while it is the answer to what would be asked now.
/// `Question` is like those that are kept (assess/kept/kept.h), but answers under a RunControl. Whoever reads it hears
/// of nothing by that: `changed` comes later, by itself.
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
          std::string why;
          try {
            answer = std::make_shared<Answer>(Question::answer(*held, control));
          } catch (const std::bad_alloc&) {
            why = "no memory is left";
          } catch (const std::exception& what) {
            why = what.what();
          } catch (...) {
            why = "nobody knows why";
          }
          return [this, alive, answer, why] {
            if (!*alive) return;
            if (answer)
              answer_ = std::move(*answer);
            else
              broke_off_ =
                  Message{words("The machine could not go on with it: {0}. Close something and try again."), {why}};
            number_.reset();
            changed_();
          };
        },
        [this, alive = alive_](double done) {
          if (!*alive) return;
          done_ = std::max(done_, done);
          changed_();
        });
    QMetaObject::invokeMethod(
        &runner_,
        [this, alive = alive_] {
          if (*alive) changed_();
        },
        Qt::QueuedConnection);
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
  [[nodiscard]] Asking state() const {
    if (number_) return Asking::running;
    if (broke_off_) return Asking::broke_off;
    if (!answer_) return Asking::none;
    return refusal_in(*answer_) ? Asking::refused : Asking::answered;
  }
  /// Why there is no answer, for a person: what it was refused for, or that the machine could not go on. Nothing while
  /// it runs, where it is answered, and where nobody asked.
  [[nodiscard]] std::optional<Message> trouble() const {
    if (broke_off_) return broke_off_;
    return answer_ ? refusal_in(*answer_) : std::nullopt;
  }
  [[nodiscard]] double done() const { return done_; }
  [[nodiscard]] const std::optional<Answer>& answer() const { return answer_; }

private:
  void drop() {
    if (number_) runner_.stop(*number_);
    number_.reset();
    given_.reset();
    answer_.reset();
    broke_off_.reset();
    done_ = 0;
  }

  Runner& runner_;
  std::function<void()> changed_;
  std::shared_ptr<bool> alive_; // read and written on the interface's thread alone
  std::shared_ptr<const Given> given_;
  std::optional<Answer> answer_;
  std::optional<quint64> number_; // of the work under way
  double done_ = 0;
  std::optional<Message> broke_off_;
};

} // namespace mavrel::app
