// The one place at the desk that answers. What takes less than a frame is answered at once and kept by what it was
// worked out from; what takes longer is worked out beside the interface, once however many ask it, and stands as one of
// five things. Whoever reads an answer hears of nothing by that: that something came in is told later, by itself.
//
// A question that is answered at once is as in assess/kept/kept.h. One that takes longer is a struct with
//   using Given  = …;   a value with ==
//   using Answer = …;   T, std::optional<T> (none: stopped), Expected<T>, or one in the other
//   static Answer answer(const Given&, const RunControl&);   pure; may be called from any thread
//   static Given given(const Desk&);                         only where it is asked of the car that is open
#pragma once

#include "app/desk/runner.h"
#include "assess/kept/kept.h"
#include "quantity/expected.h"
#include "work/day.h"

#include <QObject>
#include <QTimer>

#include <algorithm>
#include <array>
#include <typeindex>
#include <unordered_map>
#include <utility>
#include <vector>

namespace mavrel::app {

class Answers;
class Desk;

/// How a question that takes longer than a frame stands.
enum class Asking {
  none,     // nobody asked
  running,  // and how far it is
  answered, // there is an answer
  refused,  // there is none, and the question says why
  broke_off // the machine could not go on with it
};

/// What there is in an answer once all that may be missing of it is there, and why it is not there.
template <class T>
struct Within {
  using Value = T;
  static const Value* value(const T& answer) { return &answer; }
  static std::optional<Message> refusal(const T&) { return std::nullopt; }
};
template <class T>
struct Within<std::optional<T>> {
  using Value = typename Within<T>::Value;
  static const Value* value(const std::optional<T>& answer) { return answer ? Within<T>::value(*answer) : nullptr; }
  static std::optional<Message> refusal(const std::optional<T>& answer) {
    return answer ? Within<T>::refusal(*answer) : std::nullopt;
  }
};
template <class T>
struct Within<Expected<T>> {
  using Value = typename Within<T>::Value;
  static const Value* value(const Expected<T>& answer) { return answer ? Within<T>::value(*answer) : nullptr; }
  static std::optional<Message> refusal(const Expected<T>& answer) {
    return answer ? Within<T>::refusal(*answer) : std::optional(answer.error());
  }
};

/// One question as somebody asks it: what a page, or a row of buttons over it, wants to know whatever the question is.
/// Of the interface's thread.
class AskedAnything {
public:
  /// @param changed  called when there is an answer, or none any more
  AskedAnything(Answers& answers, std::function<void()> changed) : answers_(answers), changed_(std::move(changed)) {}
  virtual ~AskedAnything() = default;
  AskedAnything(const AskedAnything&) = delete;
  AskedAnything& operator=(const AskedAnything&) = delete;

  /// Asks what would be asked now. Nothing where there is nothing to ask.
  virtual void ask() = 0;
  /// Asks unless that is asked already: of something else it is given up.
  virtual void want() = 0;
  /// Gives up what is under way, or answered, for something else. @returns whether there was any
  virtual bool keep() = 0;
  /// Gives up what is under way and what was answered.
  virtual void forget() = 0;
  /// Called when it got on, at most 20 times a second.
  void set_moved(std::function<void()> moved) { moved_ = std::move(moved); }

  [[nodiscard]] virtual Asking state() const = 0;
  /// Why there is no answer, for a person. Nothing while it runs, where it is answered, and where nobody asked.
  [[nodiscard]] virtual std::optional<Message> trouble() const = 0;
  [[nodiscard]] virtual double done() const = 0;
  [[nodiscard]] bool is_running() const { return state() == Asking::running; }
  [[nodiscard]] bool was_asked() const { return state() != Asking::none; }
  /// There was an answer, and what it was worked out from has changed since.
  [[nodiscard]] bool is_outdated() const { return outdated_; }

protected:
  template <class Question>
  friend class AskedOf;
  friend class Answers;
  virtual void hear(bool only_progress);

  Answers& answers_;
  std::function<void()> changed_, moved_;
  bool outdated_ = false;
};

/// Work on one question of one thing, shared by all who ask that. Held by them; the last to go stops it.
template <class Question>
class AskedOf {
public:
  using Given = typename Question::Given;
  using Answer = typename Question::Answer;

  AskedOf(Runner& runner, Given asked) : runner_(runner), given(std::make_shared<const Given>(std::move(asked))) {}
  ~AskedOf() {
    if (number_) runner_.stop(*number_);
  }
  AskedOf(const AskedOf&) = delete;
  AskedOf& operator=(const AskedOf&) = delete;

  static void start(const std::shared_ptr<AskedOf>& one) {
    const std::weak_ptr<AskedOf> there = one; // looked at on the interface's thread alone
    one->number_ = one->runner_.start(
        [given = one->given, there](const RunControl& control) -> std::function<void()> {
          std::shared_ptr<Answer> answer;
          const auto why =
              what_breaks_off([&] { answer = std::make_shared<Answer>(Question::answer(*given, control)); });
          return [there, answer, why] {
            if (const auto mine = there.lock())
              mine->take(answer ? std::optional(std::move(*answer)) : std::nullopt, why);
          };
        },
        [there](double share) {
          if (const auto mine = there.lock()) mine->move(share);
        });
  }

  [[nodiscard]] bool is_running() const { return number_.has_value(); }

private:
  template <class Q>
  friend class Asked;
  void take(std::optional<Answer> what, const std::optional<Message>& why) {
    number_.reset();
    answer = std::move(what);
    broke_off = why;
    tell(false);
  }
  void move(double share) {
    done = std::max(done, share);
    tell(true);
  }
  void tell(bool only_progress) {
    for (AskedAnything* reader : std::vector(readers)) // who hears of it may ask something else
      if (std::find(readers.begin(), readers.end(), reader) != readers.end()) reader->hear(only_progress);
  }

  Runner& runner_;
  std::optional<quint64> number_; // of the work under way

public:
  std::shared_ptr<const Given> given;
  std::optional<Answer> answer;
  std::optional<Message> broke_off;
  double done = 0;
  std::vector<AskedAnything*> readers;
};

/// Keeps answers, and the work on those that are not there yet. The desk's own; of the interface's thread.
class Answers : public QObject {
  Q_OBJECT
public:
  /// @param desk  what questions of the car that is open are asked of. @param runner  outlives this
  Answers(const Desk& desk, Runner& runner);
  /// The minute that answers go by. It turns by itself (which is a change) and at every edit; in between what a page
  /// holds stays while it is at work.
  [[nodiscard]] work::Moment moment() const { return moment_; }

  /// An answer that takes less than a frame. Valid until a few more of the same question were asked of something else.
  template <class Question>
  [[nodiscard]] const typename Question::Answer& at_once(typename Question::Given given) {
    return *answered<Question>(std::move(given));
  }
  /// The same with what it was worked out from, as a part of what is asked next.
  template <class Question>
  [[nodiscard]] const assess::Answered<Question>& answered(typename Question::Given given) {
    Few<Question>& few = one_of<Few<Question>>();
    for (const auto& kept : few.kept)
      if (kept && kept->given() == given) return *kept;
    auto& place = few.kept[few.next];
    few.next = (few.next + 1) % few.kept.size();
    place.emplace(std::move(given));
    return *place;
  }

  /// The question as it is asked of the car that is open, by all who want to know it together: they `want` it, or
  /// `keep` what somebody asked for, and read it. When it comes in, `changed` says so.
  template <class Question>
  [[nodiscard]] auto& of_the_car();

  /// Work on this question: what is under way or answered already, where somebody holds it.
  template <class Question>
  [[nodiscard]] std::shared_ptr<AskedOf<Question>> work_on(typename Question::Given given) {
    auto& all = one_of<std::vector<std::weak_ptr<AskedOf<Question>>>>();
    std::erase_if(all, [](const auto& one) { return one.expired(); });
    for (const auto& one : all)
      if (auto there = one.lock(); there && !there->broke_off && *there->given == given) return there;
    auto made = std::make_shared<AskedOf<Question>>(runner_, std::move(given));
    all.push_back(made);
    AskedOf<Question>::start(made);
    return made;
  }
  [[nodiscard]] const Desk& desk() const { return desk_; }

signals:
  void changed(); // a question of the car that is open was answered, or is no more; or the minute turned

private:
  template <class Question>
  struct Few {
    std::array<std::optional<assess::Answered<Question>>, 4> kept;
    std::size_t next = 0;
  };
  /// The one value of a type that this keeps.
  template <class T>
  T& one_of() {
    auto& place = kept_[typeid(T)];
    if (!place) place = std::make_shared<T>();
    return *static_cast<T*>(place.get());
  }

  const Desk& desk_;
  Runner& runner_;
  work::Moment moment_;
  QTimer minute_;
  std::unordered_map<std::type_index, std::shared_ptr<void>> kept_;
};

/// A question that takes longer than a frame, as one page asks it. Shown only while it is the answer to what would be
/// asked now.
template <class Question>
class Asked final : public AskedAnything {
public:
  using Given = typename Question::Given;
  using Answer = typename Question::Answer;
  using Value = typename Within<Answer>::Value;

  /// @param now  what would be asked now; none: nothing. Without it only what is given is asked
  Asked(Answers& answers, std::function<void()> changed, std::function<std::optional<Given>()> now = {})
      : AskedAnything(answers, std::move(changed)), now_(std::move(now)) {}
  ~Asked() override { let_go(); }

  void ask() override {
    if (auto given = now())
      ask(std::move(*given));
    else
      drop();
  }
  void ask(Given given) {
    let_go();
    outdated_ = false;
    work_ = answers_.work_on<Question>(std::move(given));
    work_->readers.push_back(this);
    tell_later();
  }
  void want() override {
    auto given = now();
    if (work_ && given && *work_->given == *given) return;
    if (given)
      ask(std::move(*given));
    else
      drop();
  }
  bool keep() override {
    if (!work_) return false;
    const auto given = now();
    if (given && *work_->given == *given) return false;
    outdated_ = value() != nullptr;
    drop();
    return true;
  }
  void forget() override {
    outdated_ = false;
    drop();
  }

  [[nodiscard]] Asking state() const override {
    if (!work_) return Asking::none;
    if (work_->is_running()) return Asking::running;
    if (work_->broke_off) return Asking::broke_off;
    if (!work_->answer) return Asking::none;
    return Within<Answer>::refusal(*work_->answer) ? Asking::refused : Asking::answered;
  }
  [[nodiscard]] std::optional<Message> trouble() const override {
    if (!work_ || work_->is_running()) return std::nullopt;
    if (work_->broke_off) return work_->broke_off;
    return work_->answer ? Within<Answer>::refusal(*work_->answer) : std::nullopt;
  }
  [[nodiscard]] double done() const override { return work_ ? work_->done : 0; }
  /// What was found; nullptr while it is not there, whyever. Valid until something else is asked.
  [[nodiscard]] const Value* value() const {
    return work_ && work_->answer ? Within<Answer>::value(*work_->answer) : nullptr;
  }
  /// The same; while the next is worked out the last one that was found.
  [[nodiscard]] const Value* last() {
    if (value()) last_ = work_;
    if (!is_running() && !value()) last_.reset();
    return last_ ? Within<Answer>::value(*last_->answer) : nullptr;
  }
  /// What is asked; nullptr: nothing.
  [[nodiscard]] const Given* given() const { return work_ ? work_->given.get() : nullptr; }
  /// Tells one answer from another, for those who keep what they made of it; nullptr: there is none.
  [[nodiscard]] std::shared_ptr<const void> token() const { return value() ? work_ : nullptr; }

private:
  [[nodiscard]] std::optional<Given> now() const {
    if (now_) return now_();
    return work_ ? std::optional(*work_->given) : std::nullopt;
  }
  void let_go() {
    if (!work_) return;
    std::erase(work_->readers, this);
    retired_ = std::exchange(work_, nullptr);
  }
  void hear(bool only_progress) override {
    AskedAnything::hear(only_progress);
    if (!only_progress) retired_.reset();
  }
  void drop() {
    if (!work_) return;
    let_go();
    tell_later();
  }
  void tell_later() {
    QMetaObject::invokeMethod(
        &answers_,
        [this, alive = std::weak_ptr<int>(alive_)] {
          if (!alive.expired()) hear(false);
        },
        Qt::QueuedConnection);
  }

  std::function<std::optional<Given>()> now_;
  std::shared_ptr<AskedOf<Question>> work_, last_;
  std::shared_ptr<AskedOf<Question>> retired_; // what views may still show until they have heard of the next
  std::shared_ptr<int> alive_ = std::make_shared<int>();
};

template <class Question>
auto& Answers::of_the_car() {
  auto& place = one_of<std::unique_ptr<Asked<Question>>>();
  if (!place)
    place = std::make_unique<Asked<Question>>(
        *this, [this] { emit changed(); }, [this] { return std::optional(Question::given(desk_)); });
  return *place;
}

/// A question of the core that can be stopped, asked beside the interface.
template <class GivenType, class AnswerType,
          std::optional<AnswerType> (*answered)(const GivenType&, const std::stop_token&)>
struct Stoppable {
  using Given = GivenType;
  using Answer = std::optional<AnswerType>;
  static Answer answer(const Given& given, const RunControl& control) { return answered(given, control.stop); }
};

} // namespace mavrel::app
