// Edits of what is fitted at an end.
#pragma once

#include "app/desk/desk.h"

namespace mavrel::app {

void choose_bag(Desk& desk, End end, const std::string& name);

/// The next point of a usual damper: twice as fast, a little less than twice the force.
void add_damper_point(Desk& desk, End end);
void remove_damper_point(Desk& desk, End end, std::size_t index);

} // namespace mavrel::app
