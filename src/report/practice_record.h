// What somebody practised: each car that was named, as a file of its own, and what they are weak at by it.
#pragma once

#include "assess/faults/practice.h"

#include <string>
#include <string_view>

namespace mavrel::report {

/// One car that was named. What it had is only written down then.
struct PracticeEntry {
  std::string day, car;
  std::uint64_t seed = 1;
  assess::PracticeLevel level = assess::PracticeLevel::plain;
  std::vector<std::string> truth, named; // keys of causes with places
  bool right = false;
  double minutes = 0, best_minutes = 0, share = 0;
};
constexpr std::size_t most_practised = 2000;

[[nodiscard]] PracticeEntry entry_of(const assess::PracticeScore& score, const assess::PracticeAsked& asked,
                                     std::string car, std::string day);
[[nodiscard]] std::string record_text(const std::vector<PracticeEntry>& entries);
/// @returns the entries; or the text's first mistake
[[nodiscard]] Expected<std::vector<PracticeEntry>> read_record(std::string_view text);

/// How somebody does with faults of one kind.
struct PracticeWeakness {
  assess::FaultFamily family = assess::FaultFamily::leaks;
  int cars = 0, right = 0;
  double share = 0; // mean of their scores
};
/// The weakest first; kinds that never came up are left out.
[[nodiscard]] std::vector<PracticeWeakness> weak_at(const std::vector<PracticeEntry>& entries);

} // namespace mavrel::report
