// One design for the car. What only some stages read is named here and defined in its own header.
#pragma once

#include "build/air_kit.h"
#include "build/brief.h"
#include "build/end_fit.h"
#include "build/leveling.h"

namespace mavrel::build {

struct FitUp;   // build/fit_up.h
struct Proving; // build/proving.h

} // namespace mavrel::build

namespace mavrel {
extern template class Shared<build::FitUp>;
extern template class Shared<build::Proving>;
} // namespace mavrel

namespace mavrel::build {

struct Variant {
  std::string name;
  std::array<EndFit, 2> fit; // front, rear
  Brief brief;
  AirKit air;
  Leveling leveling;
  Extra extra;
  Shared<FitUp> fit_up = {};
  Shared<Proving> proving = {};
  friend bool operator==(const Variant&, const Variant&) = default;
};

template <>
const Table& table_of<Variant>();

} // namespace mavrel::build
