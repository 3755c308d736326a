// Edits to how sure the readings are.
#pragma once

#include "assess/sampling/inputs.h"

namespace mavrel::app {

class Desk;

/// Says what a reading was taken with; of a sheet all its rows. One step of undo.
/// @param tool  one of `tools_for` it
/// @returns whether there was room to keep it
bool set_tool(Desk& desk, const assess::DoubtInput& reading, assess::Tool tool);

} // namespace mavrel::app
