// Edits to a check, wherever it is shown: each one step back.
#pragma once

#include "app/desk/desk.h"
#include "assess/fit_up/checks.h"
#include "build/proving.h"

namespace mavrel::app {

/// Is a field one of a check that belongs to Proving, whose numbers stand among all others?
[[nodiscard]] bool is_of_proof(const Desk& desk, const QString& path);

/// A check taken up: a line for each figure, those measured kept.
void begin_check(Desk& desk, const assess::HoldPoint& point);
/// Measured, yes or no.
void tick_figure(Desk& desk, const assess::HoldPoint& point, std::size_t figure, bool yes);
/// Signed where what its job waits for is there; else whoever signs is asked to take that on.
/// @param asks  over which that is asked
/// @returns whether it could be signed; else why not is told
bool sign_check(Desk& desk, QWidget* asks, const assess::HoldPoint& point, const QString& by,
                const std::string& moment);

/// What was read of figures, by their place, over the link or by a watch.
void measure_figures(Desk& desk, const assess::HoldPoint& point,
                     const std::vector<std::pair<std::size_t, double>>& measured);
/// Readings over time of a check's gauges, each in place of those it had, in one edit.
/// @returns whether there were any, and room for all of them
bool keep_series(Desk& desk, const assess::HoldPoint& point, std::vector<build::ProofSeries> series);

} // namespace mavrel::app
