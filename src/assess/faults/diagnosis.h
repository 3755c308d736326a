// From what was told, read and seen to how likely each fault is, alone or two at once, by Bayes' rule.
#pragma once

#include "assess/faults/fault_table.h"

#include <array>
#include <memory>

namespace mavrel::assess {

/// One thing that was told, read or seen.
struct FaultFinding {
  SignAt at;
  bool yes = true;             // of what is so or not
  std::optional<double> value; // of a reading, SI
  bool never = false;          // of a reading: it never got there
  std::optional<double> sd;    // its doubt, where somebody knows it better than the sign's row
  bool second_hand = false;    // somebody tells what somebody else noticed
  friend bool operator==(const FaultFinding&, const FaultFinding&) = default;
};

struct FaultEvidence {
  std::vector<FaultFinding> findings;
  bool nothing_else = false; // all other symptoms were asked for, and are not there
  bool heard = false;        // and that too somebody tells who was not there
  FaultPriors priors = usual_priors();
  double two_at_once = 0.03; // odds of two faults before anything is known
  friend bool operator==(const FaultEvidence&, const FaultEvidence&) = default;
};

/// Why a finding can't be true of this car, or says nothing; none: it is weighed.
[[nodiscard]] std::optional<Message> trouble_of(const FaultCar& car, const FaultFinding& finding);

/// One or two faults, or none of those known.
struct FaultSet {
  std::vector<FaultAt> faults; // none: something that is not known here
  double odds = 0;             // a probability; of all sets together 1
  /// Of each finding weighed: how many times likelier it was under these than under all the rest, by what was known
  /// before it.
  std::vector<double> times;
};
/// `Front left: pinched line and dryer is spent`
[[nodiscard]] Message fault_words(const std::vector<FaultAt>& faults);
/// `pinched:front_left+dryer_spent`
[[nodiscard]] std::string fault_key(const std::vector<FaultAt>& faults);

struct Diagnosis {
  std::vector<FaultSet> sets;       // those worth telling, the likeliest first; never certain
  double unknown = 0;               // odds of what is not known here
  bool nothing_fits = false;        // and that it is likelier than anything that is
  std::vector<std::size_t> weighed; // of the findings given: those that were weighed, in order
  std::vector<std::size_t> joined;  // and those that were put together with another of the same thing
  /// Odds of the first `course_of` sets before any finding, and after each weighed one.
  std::vector<std::vector<double>> course;
  std::vector<double> unknown_course;
  std::vector<Message> trouble; // findings that were not weighed, that contradict each other or that fit nothing
};
constexpr std::size_t course_of = 6;
constexpr double worth_telling = 0.004; // odds
constexpr double most_odds = 0.99;      // of any one: there is always what nobody thought of

/// What one outcome of a test would mean.
struct TestOutcome {
  Message what;
  std::vector<FaultAt> faults; // what then stands first
  double odds = 0;             // how likely it is then
};
struct NextTest {
  const FaultTest* test = nullptr;
  std::size_t place = 0;
  double bits = 0; // of information about which fault it is
  std::vector<TestOutcome> outcomes;
  [[nodiscard]] double per_minute() const { return bits / test->minutes; }
};

/// Weighs findings on one car. Refers to the table, which must outlive it; one thread's own.
class FaultWeighing {
public:
  FaultWeighing(const FaultTable& table, const FaultEvidence& evidence);
  ~FaultWeighing();
  FaultWeighing(const FaultWeighing&) = delete;
  FaultWeighing& operator=(const FaultWeighing&) = delete;

  [[nodiscard]] Diagnosis diagnosis() const;
  /// The tests that tell most for their minutes, the best first; none that tells next to nothing.
  /// @param most  so many
  /// Source: docs/models.md, "Faults".
  [[nodiscard]] std::vector<NextTest> next_tests(std::size_t most) const;

  struct Inside;

private:
  std::unique_ptr<Inside> inside_;
};

} // namespace mavrel::assess
