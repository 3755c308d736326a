// The units that files of tables and JSON are in: SI behind the key in JSON, what a shop reads in tables.
#pragma once

#include "quantity/kind.h"

namespace mavrel::report {

struct FileUnit {
  const char* si;    // `pa`, behind a key of JSON
  const char* table; // `bar`, behind the head of a column
  double factor;     // what is in the column over SI
  int decimals;      // in the column
};

[[nodiscard]] constexpr FileUnit file_unit(Kind kind) {
  switch (kind) {
  case Kind::pressure:
    return {"pa", "bar", 1e-5, 3};
  case Kind::length:
    return {"m", "mm", 1e3, 1};
  case Kind::frequency:
    return {"hz", "hz", 1, 3};
  case Kind::angle:
    return {"rad", "deg", 57.29577951308232, 2};
  case Kind::force:
    return {"n", "n", 1, 0};
  case Kind::stiffness:
    return {"n_per_m", "n_per_mm", 1e-3, 2};
  case Kind::mass:
    return {"kg", "kg", 1, 1};
  default:
    return {"", "", 1, 4};
  }
}

} // namespace mavrel::report
