// The stages of the work, a row each. What a stage looks like is the application's; that it is there, how it is called
// and how it stands is said here once.
#pragma once

namespace mavrel::assess {

struct Assessment;

/// Rows live as long as the program and are told apart by where they stand: compare pointers.
struct StageRow {
  const char* key;  // `car_in`, as files and the command line write it
  const char* name; // `Car in`, for people
  /// Is enough known that nothing being found means that nothing stops it?
  bool (*known)(const Assessment&);
};

/// Defined in assess/rows.cpp, in working order.
namespace stages {
extern const StageRow car_in, bags, swing, clearance, air, leveling, fit_up, proving, care, faults;
} // namespace stages

} // namespace mavrel::assess
