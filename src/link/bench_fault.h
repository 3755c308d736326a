// Faults that a played car can have: what is pinched, leaks, sticks or reads wrong.
#pragma once

#include "control/drive.h"
#include "quantity/expected.h"

#include <string>

namespace mavrel::link {

struct Fault {
  enum class Kind {
    pinched,    // a corner's line lets through this share
    leak,       // a corner loses air through a hole of this conductance, m³/(s·Pa)
    stuck_shut, // a corner's fill valve does not open
    stuck_open, // nor shut
    sensor,     // a corner's sensor reads so many m too high
    flipped,    // a corner's sensor runs the wrong way about the height wanted
    weak,       // the compressors deliver this share
  };
  Kind kind = Kind::leak;
  std::size_t corner = 0; // FL FR RL RR; not of `weak`
  double amount = 0;
  friend bool operator==(const Fault&, const Fault&) = default;
};

/// `pinched FL 0.3`, `leak RR 2e-10`, `stuck-shut FL`, `sensor RL 8mm`, `flipped FR`, `weak 0.5`
[[nodiscard]] Expected<Fault> read_fault(const std::string& text);
/// Puts what changes the air into the car's network.
void put_in(control::RollingCarParts& car, const std::vector<control::ValvePair>& circuits, const Fault& fault);
/// What a corner's sensor makes of H with these faults. @param target  m, H wanted
[[nodiscard]] double sensed(double H, double target, std::size_t corner, const std::vector<Fault>& faults);

} // namespace mavrel::link
