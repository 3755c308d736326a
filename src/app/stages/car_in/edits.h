// Edits of what is aboard.
#pragma once

#include "app/desk/desk.h"

namespace mavrel::app {

/// A load case without masses, looked at from then on.
void add_load_case(Desk& desk);
void remove_load_case(Desk& desk, std::size_t index);
void add_load_mass(Desk& desk, std::size_t load_case);
void remove_load_mass(Desk& desk, std::size_t load_case, std::size_t mass);

} // namespace mavrel::app
