// Edits that fault finding makes: each one step back.
#pragma once

#include "app/desk/desk.h"
#include "assess/faults/notes.h"

namespace mavrel::app {

/// @returns whether there was room for it; else it is told
bool add_finding(Desk& desk, const assess::FaultFinding& finding);
void strike_finding(Desk& desk, std::size_t note);
void strike_all_findings(Desk& desk);
void set_nothing_else(Desk& desk, bool nothing_else);
/// What Proving and the log have read, as findings. @returns how many there were
/// @param car  null: not worked out yet, and holds are left
int take_readings(Desk& desk, const assess::FaultCar* car);
/// A fault found: into the log, onto the plan, its checks asked again, and counted. @returns whether it was done
bool keep_found(Desk& desk, const assess::FoundAsked& asked);
/// How often a cause is in this shop. @param often  parts of all; none: as usual
void set_often(Desk& desk, const std::string& cause, std::optional<double> often);
/// What was counted of it is forgotten.
void forget_found(Desk& desk, const std::string& cause);

} // namespace mavrel::app
