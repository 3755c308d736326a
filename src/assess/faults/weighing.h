// Inside of the weighing of findings: the sets of faults with what they come to.
#pragma once

#include "assess/faults/likelihood.h"

namespace mavrel::assess {

constexpr std::size_t no_fault = static_cast<std::size_t>(-1);

struct FaultWeighing::Inside {
  explicit Inside(const FaultTable& of) : table(of), likelihood(of) {}

  /// One fault, two, or with none what is not known.
  struct Set {
    std::size_t a = no_fault, b = no_fault; // rows of the table's faults
    double prior = 0;                       // logarithm
    double odds = 0;
    std::vector<double> steps = {}; // weights of how bad: 1, 10, or 10 by 10 with the first fault's outside
  };
  [[nodiscard]] std::vector<FaultAt> faults_of(const Set& set) const;
  [[nodiscard]] double likely(const Set& set, const WeighedFinding& of) const;
  /// Calls `act(steps, count, weight)` for each step that weighs anything.
  template <class Act>
  void for_steps(const Set& set, Act act) const {
    for (std::size_t s = 0; s < set.steps.size(); ++s) {
      if (set.steps[s] < 2e-3) continue;
      if (set.b == no_fault) {
        const FaultStep one{set.a, s};
        act(&one, std::size_t{1}, set.steps[s]);
      } else {
        const FaultStep both[] = {{set.a, s / severity_steps}, {set.b, s % severity_steps}};
        act(both, std::size_t{2}, set.steps[s]);
      }
    }
  }

  const FaultTable& table;
  FaultLikelihood likelihood;
  std::vector<WeighedFinding> found;
  std::vector<std::size_t> weighed, joined;
  std::vector<Message> trouble;
  std::vector<Set> sets;                   // single faults, pairs, and last what is not known
  std::vector<std::vector<double>> course; // odds of the sets before any finding, and after each
};

} // namespace mavrel::assess
