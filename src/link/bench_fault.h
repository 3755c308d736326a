// Faults that a played car can have, as they are typed: what is pinched, leaks, sticks or reads wrong.
#pragma once

#include "control/condition.h"
#include "quantity/expected.h"

#include <string>

namespace mavrel::link {

/// `pinched FL 0.3`, `leak RR 2e-10` (m³/(s·Pa)), `stuck-shut FL`, `stuck-open RL`, `sensor RL 8mm`, `flipped FR`,
/// `weak 0.5`
/// @returns what it does to the car; or what is wrong with the text
[[nodiscard]] Expected<control::Condition> read_fault(const std::string& text);

} // namespace mavrel::link
