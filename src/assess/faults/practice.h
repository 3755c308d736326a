// A car to practise on: one of the shop's with something hidden the matter. It is listened to, read, worked and looked
// at; what is done costs minutes; then somebody says what it is.
#pragma once

#include "assess/faults/diagnosis.h"
#include "control/road.h"

#include <functional>
#include <memory>
#include <stop_token>

namespace mavrel::assess {

/// How hard it is.
enum class PracticeLevel {
  plain,      // one fault that shows well
  slight,     // one fault, slight ones and rare ones with them
  two,        // two at once
  misleading, // one or two, told at second hand, with a history that leads astray
};
constexpr std::size_t practice_levels = 4;
[[nodiscard]] const char* level_key(PracticeLevel level);
[[nodiscard]] const char* level_name(PracticeLevel level);
[[nodiscard]] std::optional<PracticeLevel> level_of(std::string_view key);

/// What a class agrees on to have the same car.
struct PracticeAsked {
  std::uint64_t seed = 1;
  PracticeLevel level = PracticeLevel::plain;
  friend bool operator==(const PracticeAsked&, const PracticeAsked&) = default;
};

/// What is practised with; shared, never changed.
struct PracticeShop {
  FaultTable table;
  LearnedCar car; // at road height and well, as it is simulated
  AirGiven air;
};

/// One car with something hidden. One thread's own. Nothing that it gives before `reveal` says what it is.
class PracticeCar {
public:
  PracticeCar(std::shared_ptr<const PracticeShop> shop, const PracticeAsked& asked);

  [[nodiscard]] const PracticeAsked& asked() const { return asked_; }
  /// What its driver tells: symptoms that are so. What he was asked for besides is not.
  [[nodiscard]] const std::vector<FaultFinding>& told() const { return told_; }
  /// Sentences of its history; not all of them are to the point.
  [[nodiscard]] const std::vector<Message>& history() const { return history_; }

  /// Does a test and waits for it. The same test again reads anew.
  /// @returns what is found; simulated where the car's air decides it
  [[nodiscard]] std::vector<FaultFinding> do_test(const TestAt& at);

  /// What is the matter with it as it does to a played car: for the rig.
  [[nodiscard]] const control::Condition& condition() const { return condition_; }
  [[nodiscard]] std::vector<FaultAt> reveal() const { return truth_; }
  /// What to reckon with on a car of this level before anything is known of it.
  [[nodiscard]] FaultEvidence evidence() const;

private:
  /// @param heard  by somebody who tells what he was told
  [[nodiscard]] FaultFinding found(const SignAt& at, control::Chance& chance, bool heard = false);
  [[nodiscard]] double read(const SignAt& at);

  std::shared_ptr<const PracticeShop> shop_;
  PracticeAsked asked_;
  std::vector<FaultAt> truth_;
  control::Condition condition_;
  std::vector<control::Condition> alone_; // of each fault
  std::vector<FaultFinding> told_;
  std::vector<Message> history_;
  std::array<std::optional<TimedCorner>, 4> timed_; // by circuit, once it was timed
  std::vector<std::pair<std::string, int>> done_;   // how often each test was done
};

/// A test that was done, with what it found.
struct TestDone {
  TestAt at;
  std::vector<FaultFinding> found;
};
/// Why somebody can't do a test by that name on this car; none: it can be done.
[[nodiscard]] Expected<TestAt> test_here(const FaultParts& parts, std::string_view key);
/// What is named, `pinched:front_left`, two with `+` between. @returns it; or that one of them is no fault
[[nodiscard]] Expected<std::vector<FaultAt>> faults_named(std::string_view text);

/// One test that was done, with what it did to the odds of what it really was.
struct PracticeStep {
  TestAt at;
  std::vector<FaultFinding> found;
  double before = 0, after = 0; // odds of what it really was
  std::vector<FaultAt> first;   // what stood first after it
  double first_odds = 0;
};
/// How somebody did.
struct PracticeScore {
  std::vector<FaultAt> truth, named;
  bool right = false;  // all of it, and no more
  bool partly = false; // one of two
  double minutes = 0, best_minutes = 0;
  std::vector<PracticeStep> steps, best; // of theirs, and the best that was to be had
  double share = 0;                      // 1: as quick as the best, and right; 0: wrong
};
/// Puts what was done beside the best sequence: each time the test that tells most for its minutes, on the same car.
/// @param done   tests with what they found, in order
/// @param stop   looked at now and then; may be null
/// @returns none where it was stopped
[[nodiscard]] std::optional<PracticeScore> score(std::shared_ptr<const PracticeShop> shop, const PracticeAsked& asked,
                                                 const std::vector<TestDone>& done, const std::vector<FaultAt>& named,
                                                 const std::stop_token& stop);

/// Goes on from what is known as a careful diagnostician does: the test that tells most for its minutes, until one
/// thing is likely enough, nothing tells anything more, or an afternoon is gone.
/// @param found  called with each test and what it found
void go_on(PracticeCar& car, const PracticeShop& shop, FaultEvidence& evidence, const std::stop_token& stop,
           const std::function<void(const TestDone&)>& found);
constexpr double likely_enough = 0.93;   // odds
constexpr double longest_practice = 240; // minutes

[[nodiscard]] std::optional<Expected<std::shared_ptr<const PracticeShop>>> practice_shop(const FaultCarGiven& given,
                                                                                         const std::stop_token& stop);

} // namespace mavrel::assess
