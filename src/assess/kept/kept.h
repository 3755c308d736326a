// Answers kept by what they were worked out from. A question states all that it reads as a value and nothing else; its
// answer is kept while that value is equal. So an edit works out only what it touches, and nobody marks anything stale.
//
// A question is a struct with
//   using Given  = …;   a value with ==, and parts() for its digest
//   using Answer = …;
//   static constexpr int formula = 1;                    raised when the arithmetic changes
//   static Answer answer(const Given&);                  pure
#pragma once

#include <memory>
#include <tuple>
#include <utility>

namespace mavrel::assess {

/// An answer with all that it was worked out from. Shared and never changed; may be read from any thread. As a part of
/// another question's given it stands for what it was worked out from itself.
/// A question need only be named where an answer to it is held: what it is given and answers is looked at where it is
/// asked or read.
template <class Question>
class Answered {
public:
  explicit Answered(auto given) : held_(std::make_shared<const Held>(std::move(given))) {}
  [[nodiscard]] const auto& given() const { return held_->given; }
  [[nodiscard]] const auto& operator*() const { return held_->answer; }
  [[nodiscard]] const auto* operator->() const { return &held_->answer; }
  [[nodiscard]] auto parts() const { return std::tie(held_->given); }
  /// Is it one and the same answer, not only an equal one?
  [[nodiscard]] bool same(const Answered& other) const { return held_ == other.held_; }
  friend bool operator==(const Answered& a, const Answered& b) { return a.same(b) || a.given() == b.given(); }

private:
  struct Held {
    using Given = typename Question::Given;
    explicit Held(Given from) : given(std::move(from)), answer(Question::answer(given)) {}
    Given given;
    typename Question::Answer answer; // may refer to `given`
  };
  std::shared_ptr<const Held> held_;
};

/// The last answer to one question. One thread's own.
template <class Question>
class Kept {
public:
  using Given = typename Question::Given;

  /// @returns the answer, worked out only when `given` differs from the last; valid until the next ask
  const Answered<Question>& ask(Given given) {
    if (!holds(given)) last_ = std::make_unique<Answered<Question>>(std::move(given));
    return *last_;
  }
  [[nodiscard]] bool holds(const Given& given) const { return last_ && last_->given() == given; }

private:
  std::unique_ptr<Answered<Question>> last_; // none yet
};

} // namespace mavrel::assess
