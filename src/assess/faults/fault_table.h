// What every fault at every place would look like on this very car, in one table: a row a fault at a place and a step
// of how bad it is, a column a sign at a place.
#pragma once

#include "assess/faults/signs.h"

namespace mavrel::assess {

/// One fault at one place.
struct FaultAt {
  const FaultCause* cause = nullptr;
  std::size_t place = 0;
  friend bool operator==(const FaultAt&, const FaultAt&) = default;
};
/// `pinched:front_left`, as the command line and files write it; of the car's own faults without a place.
[[nodiscard]] std::string fault_key(const FaultAt& fault);
[[nodiscard]] std::optional<FaultAt> fault_of(std::string_view key);
/// `Front left: pinched line`
[[nodiscard]] Message fault_words(const FaultAt& fault);

/// How often each cause is, in the order of `fault_causes`: parts of all.
using FaultPriors = std::vector<double>;
/// As the table of causes has them.
[[nodiscard]] FaultPriors usual_priors();

constexpr std::size_t severity_steps = 10;

/// A value. What it points to are rows that live as long as the program.
class FaultTable {
public:
  explicit FaultTable(FaultCar car);

  [[nodiscard]] const FaultCar& car() const { return car_; }
  [[nodiscard]] const std::vector<FaultAt>& faults() const { return faults_; }
  [[nodiscard]] const std::vector<SignAt>& columns() const { return columns_; }
  [[nodiscard]] std::optional<std::size_t> column(const SignAt& at) const;
  [[nodiscard]] std::optional<std::size_t> row(const FaultAt& fault) const;

  /// Of what is so or not: how likely the fault alone makes it so. Of a reading: what is read.
  [[nodiscard]] double value(std::size_t fault, std::size_t step, std::size_t column) const {
    return values_[(fault * severity_steps + step) * columns_.size() + column];
  }
  /// Of a reading: how far the step's two edges lie apart, as a standard deviation.
  [[nodiscard]] double spread(std::size_t fault, std::size_t step, std::size_t column) const {
    return spreads_[(fault * severity_steps + step) * columns_.size() + column];
  }
  [[nodiscard]] double well(std::size_t column) const { return well_[column]; }
  /// Does the fault change anything of the column?
  [[nodiscard]] bool touches(std::size_t fault, std::size_t column) const {
    return touches_[fault * columns_.size() + column] != 0;
  }

private:
  FaultCar car_;
  std::vector<FaultAt> faults_;
  std::vector<SignAt> columns_;
  std::vector<double> values_, spreads_, well_;
  std::vector<char> touches_;
};

/// How likely one fault, so bad, makes a sign show by itself. @param severity  0 to 1
[[nodiscard]] double shows_of(const FaultCar& car, const FaultAt& fault, const control::Condition& condition,
                              const SignAt& at);
/// The condition of one fault so bad.
[[nodiscard]] control::Condition condition_of(const FaultCar& car, const FaultAt& fault, double severity);

} // namespace mavrel::assess
