// Edits that Fit-up makes: each one step back.
#pragma once

#include "app/desk/desk.h"
#include "assess/fit_up/buying.h"
#include "assess/fit_up/cut_list.h"
#include "assess/fit_up/plan.h"

namespace mavrel::app {

/// Path of the shop's note on a job, `@.fit_up.jobs.3`. @returns empty where there is none
[[nodiscard]] QString note_path(const assess::Job& job);
/// A note of a job to be filled in. @returns whether there is one now
bool note_job(Desk& desk, const assess::Job& job);
/// Begun where what comes before it is there; else whoever begins is asked to take that on.
/// @param asks    over which that is asked
/// @param moment  empty where the plan has no dates
void begin_job(Desk& desk, QWidget* asks, const assess::Job& job, const std::string& moment);
/// Done, where it could be begun or was: what it took is what was worked since it began, where that is known, and the
/// shop learns by it.
void finish_job(Desk& desk, QWidget* asks, const assess::Job& job, const std::string& moment,
                std::optional<double> took);
void skip_job(Desk& desk, const assess::Job& job, const QString& reason);
/// As the design has it: nothing that the shop said of it stays.
void forget_job(Desk& desk, const assess::Job& job);
/// Half of it as a job of its own behind it.
void split_job(Desk& desk, const assess::Job& job);
/// A job of the shop's own behind one, or behind nothing.
void add_job(Desk& desk, const assess::Job* after, const QString& name);
/// What a rule's job took goes into what this shop reckons with.
void learn_hours(Desk& desk, const assess::Job& job);

/// A note of a part on the parts list. @returns whether there is one now
bool note_part(Desk& desk, const std::string& part);
/// What is still to be ordered of it was ordered today; the count stays although the design should need another.
void order_part(Desk& desk, const assess::BuyLine& line);
/// What was ordered of it is on the shelf.
void part_came(Desk& desk, const assess::BuyLine& line);
/// The shop's stock as it is once the list was cut.
void take_from_stock(Desk& desk, const assess::CutList& list);

} // namespace mavrel::app
