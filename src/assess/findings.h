// What stops it, and what a careful builder would point out. Each function reads a finished part of the assessment
// and adds findings to it.
#pragma once

#include "assess/assessment.h"
#include "assess/fitted_end.h"

namespace mavrel::assess {

/// Adds a finding and gives it back, for its number and limit to be filled in.
/// @param end    which end it is about; none: the whole car
/// @param place  path of the field to go to
inline Finding& add_finding(Assessment& out, Stage stage, const char* code, Severity severity, std::optional<End> end,
                            std::string place, Message title, Message reason, Message way_out) {
  Finding& f = out.findings.emplace_back();
  f.code = code;
  f.severity = severity;
  f.end = end;
  f.stage = stage;
  f.place = std::move(place);
  f.title = std::move(title);
  f.reason = std::move(reason);
  f.way_out = std::move(way_out);
  return f;
}

/// The readings: missing, odd, wide apart, over a rating.
void find_in_survey(const build::Build& build, Assessment& out);

/// One end with what is fitted: windows, presets, pressures, stops, comfort.
/// @param bag  nullptr: none chosen or not on the shelf
void find_at_end(const build::Build& build, const EndModel& model, const shelf::ShelfBag* bag, Assessment& out);

/// The chosen bags more closely: a cold night, what a gauge tells, lines to added volumes, lean.
/// @param ends  both ends of the same build as fitted
void find_in_depth(const build::Build& build, const std::array<FittedEnd, 2>& ends, Assessment& out);

/// Both ends together: front against rear comfort, the usual cautions.
void find_on_car(const build::Build& build, Assessment& out);

/// Worst first; within a severity in the order found.
void sort_findings(std::vector<Finding>& findings);

} // namespace mavrel::assess
