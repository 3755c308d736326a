// How likely a finding is on a car with one fault, with two, with none, or with something nobody knows.
#pragma once

#include "assess/faults/diagnosis.h"

namespace mavrel::assess {

/// A row of the table: a fault so bad.
struct FaultStep {
  std::size_t fault = 0, step = 0;
};

/// A finding by its column, several of one thing put together.
struct WeighedFinding {
  std::size_t column = 0;
  bool yes = true;
  std::optional<double> value = std::nullopt;
  bool never = false;
  std::optional<double> sd = std::nullopt; // of what was read, where it is not the row's
  bool second_hand = false;
};

/// What a reading is expected to be, with the doubt of reading it.
struct ExpectedReading {
  double value = 0, sd = 0;
};

/// Refers to the table.
class FaultLikelihood {
public:
  explicit FaultLikelihood(const FaultTable& table) : table_(table) {}
  [[nodiscard]] const FaultTable& table() const { return table_; }

  /// @param faults  none, one or two
  [[nodiscard]] double of(const WeighedFinding& finding, const FaultStep* faults, std::size_t count) const;
  /// Under something that is not known here.
  [[nodiscard]] double of_unknown(const WeighedFinding& finding) const;
  /// How likely a sign is so.
  [[nodiscard]] double yes(std::size_t column, const FaultStep* faults, std::size_t count) const;
  [[nodiscard]] ExpectedReading reading(std::size_t column, const FaultStep* faults, std::size_t count,
                                        const WeighedFinding* as = nullptr) const;
  /// From, to: what is believable of a column.
  [[nodiscard]] std::pair<double, double> range(std::size_t column) const;

private:
  const FaultTable& table_;
};

constexpr double mistaken = 0.01;      // of what is told or read is simply wrong
constexpr double mistaken_hard = 5e-4; // of what nobody tells who has not seen it
/// At second hand: of what was so that is passed on, and of what was not that is told all the same.
constexpr double passed_on = 0.85, made_up = 0.008;
[[nodiscard]] inline double mistaken_of(const FaultSign& sign) {
  return sign.hard ? (sign.kind ? mistaken_hard / 10 : mistaken_hard) : mistaken;
}
[[nodiscard]] inline double made_up_of(const FaultSign& sign) {
  return sign.hard ? mistaken_hard : made_up;
}

constexpr double unknown_prior = 0.02; // odds of something that is not known here
constexpr double unknown_yes = 0.06;   // how likely that makes any one sign

} // namespace mavrel::assess
