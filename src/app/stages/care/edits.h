// Edits that Care makes: each one step back.
#pragma once

#include "app/desk/desk.h"
#include "build/care.h"

namespace mavrel::app {

/// An entry of the log, with a mark of its own; it stands where its day belongs. @returns whether there was room
bool add_to_log(Desk& desk, build::LogEntry entry);
/// Says that figures of another car are so on this one too. @param places  among the origin's
void confirm_taken(Desk& desk, std::vector<std::size_t> places);

} // namespace mavrel::app
