// What forbids heights, a row each. Whoever finds a new limit defines its row in its own folder and names it in
// assess/rows.cpp; reports, sentences and pictures read the rows.
#pragma once

#include "quantity/message.h"

#include <optional>

namespace mavrel::assess {

struct EndModel;

/// Rows live as long as the program and are told apart by where they stand: compare pointers.
struct Limit {
  const char* key;        // `bag_collapsed`, as the command line and the sheet's table write it
  const char* name;       // `bag collapsed`, for people
  const char* short_name; // `bag down`, for narrow places
  /// What would move it out of the way by so many metres of its part: `12 mm off the bump stop`.
  Message (*way_out)(double part);
  /// m of height gained for each metre of the part at H; nullptr or none where metres do not move it.
  std::optional<double> (*height_per_part)(const EndModel& model, double H) = nullptr;
  /// Nobody knows what is there, rather than that something stops it.
  bool unknown = false;
};

} // namespace mavrel::assess
