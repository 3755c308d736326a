// What can be the matter with an air-suspended car, a row each: how often it is, what it does to the car, what shows of
// it, and what mends it.
#pragma once

#include "assess/air/air_given.h"
#include "control/condition.h"

#include <span>
#include <string_view>

namespace mavrel::assess {

/// Where a fault or what shows of it can be.
enum class FaultPlaces { car, end, corner };
/// How many places of a kind there are: the car, both ends, FL FR RL RR.
[[nodiscard]] constexpr std::size_t places_of(FaultPlaces places) {
  return places == FaultPlaces::car ? 1 : places == FaultPlaces::end ? 2 : 4;
}
/// `front_left`, `rear`; empty: the car.
[[nodiscard]] const char* place_key(FaultPlaces places, std::size_t place);
/// The place of that kind a key names. @returns none where it is none of that kind
[[nodiscard]] std::optional<std::size_t> place_of(FaultPlaces places, std::string_view key);
/// `Front left`; of the car nothing.
[[nodiscard]] const char* place_name(FaultPlaces places, std::size_t place);

/// The room that a fault lies in: what somebody is weak at is told by it.
enum class FaultFamily { leaks, ways, valves, supply, water, sensors, mechanics, bags, loads, electrics, nothing };
[[nodiscard]] const char* family_name(FaultFamily family);

/// What of a car the causes ask for: none can be wrong that is not there.
struct FaultParts {
  bool compressor = false, dryer = false, sensors = false, silencer = false, gauge = false;
  bool coils = false, controller = false, tee_lines = false; // valves worked by coils, something that works them, tees
  bool per_corner = false, per_axle = false; // valves of each corner's own, or one pair an axle through a tee
  friend bool operator==(const FaultParts&, const FaultParts&) = default;
};
struct FaultCar;

/// One thing that can be wrong.
struct FaultCause {
  const char* key;  // stable: `pinched`
  const char* name; // `pinched line`, in the trade's words
  FaultFamily family;
  FaultPlaces places;
  double often;            // parts of all faults, shared among its places
  bool FaultParts::*needs; // what the car must have for it; null: nothing
  /// What it does, as bad as `severity` from 0, only just, to 1, as bad as it comes.
  void (*does)(control::Condition& condition, const FaultCar& car, std::size_t place, double severity);
  const char* seen;   // what a person hears, sees or reads
  const char* mend;   // what mends it
  double hours;       // s of work that it takes
  const char* parts;  // what has to be bought; empty: nothing
  const char* proofs; // keys of checks of Proving to be made again, with spaces
};

[[nodiscard]] std::span<const FaultCause> fault_causes();
[[nodiscard]] const FaultCause* fault_cause(std::string_view key);

/// That nothing is the matter: a hypothesis like any other, with its own odds; it is never one of two.
[[nodiscard]] bool is_nothing(const FaultCause& cause);

/// Can this be wrong with a car of these parts?
[[nodiscard]] bool can_have(const FaultParts& parts, const FaultCause& cause);

} // namespace mavrel::assess
