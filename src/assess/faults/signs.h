// What shows of a fault: symptoms that somebody tells, readings, and looks; each a row, and how likely it shows under
// each cause. Tests are what one does to get at them.
#pragma once

#include "assess/faults/fault_car.h"

namespace mavrel::assess {

/// How what two faults do to one reading comes together.
enum class Together { adds, multiplies };

/// One thing that can be seen, heard or read. A row lives as long as the program.
struct FaultSign {
  const char* key;  // stable: `slow_up`
  const char* name; // `slow going up`, as somebody says it; of a reading what is read
  FaultPlaces places;
  bool symptom;             // told by whoever drives it; else it takes a test
  std::optional<Kind> kind; // of a reading; none: it is so or it is not

  // of what is so or not
  double base = 0; // how often it is so with nothing of the kind the matter
  /// How likely a condition alone makes it show, 0 to 1; null: only the table of causes says.
  double (*shows)(const FaultCar& car, const control::Condition& condition, std::size_t place) = nullptr;

  // of a reading, SI
  double (*reads)(const FaultCar& car, const control::Condition& condition, std::size_t place) = nullptr;
  Together together = Together::adds;
  double sd = 0, sd_share = 0; // its doubt: so much, and so much of the figure
  double least = 0, most = 0;  // what is believable; with `of_well` times what is read when well
  bool of_well = false;
  bool hard = false;         // of a symptom: so plain that nobody tells it who has not seen it
  bool may_not_come = false; // what lies at `most` or beyond is written down as such: it never got there
};

[[nodiscard]] std::span<const FaultSign> fault_signs();
[[nodiscard]] const FaultSign* fault_sign(std::string_view key);
/// How likely a sign is so because of a cause alone, by the table. @returns 0 where the table says nothing
[[nodiscard]] double shows_by_table(const FaultCause& cause, const FaultSign& sign);
/// Does a fault at one place show at another? The same corner; a corner's at its end; an end's at both its corners;
/// the car's everywhere.
[[nodiscard]] bool shows_at(const FaultCause& cause, std::size_t cause_place, const FaultSign& sign,
                            std::size_t sign_place);
/// A reading as it is said: with the digits that its doubt leaves.
[[nodiscard]] Amount reading_amount(const FaultSign& sign, double value);
/// What is believable of a reading on this car: from, to.
[[nodiscard]] std::pair<double, double> believable(const FaultCar& car, const FaultSign& sign, std::size_t place);

/// Something one does to find out, and what it tells.
struct FaultTest {
  const char* key;    // `timing`
  const char* name;   // `Time it up and down`
  FaultPlaces places; // it is done at one of these
  double minutes;
  const char* how;
  const char* tells; // keys of signs, with spaces: each at the place of the test, or at all places below it
  bool FaultParts::*needs = nullptr;
};
[[nodiscard]] std::span<const FaultTest> fault_tests();
[[nodiscard]] const FaultTest* fault_test(std::string_view key);
[[nodiscard]] bool can_do(const FaultParts& parts, const FaultTest& test);

/// A test at a place.
struct TestAt {
  const FaultTest* test = nullptr;
  std::size_t place = 0;
  friend bool operator==(const TestAt&, const TestAt&) = default;
};
/// `soap_fitting:front_left`
[[nodiscard]] std::string test_key(const TestAt& at);
/// @returns none where there is no such test or place
[[nodiscard]] std::optional<TestAt> test_of(std::string_view key);
/// `Front left: soap its fittings`
[[nodiscard]] Message test_words(const TestAt& at);

/// A sign at a place.
struct SignAt {
  const FaultSign* sign = nullptr;
  std::size_t place = 0;
  friend bool operator==(const SignAt&, const SignAt&) = default;
};
/// `Front left: slow going up`
[[nodiscard]] Message sign_words(const SignAt& at);
/// What a test at a place tells.
[[nodiscard]] std::vector<SignAt> told_by(const FaultTest& test, std::size_t place);

} // namespace mavrel::assess
