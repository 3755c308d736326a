// The build sheet: what a builder pins to the wall beside the car. As HTML that a rich-text engine can lay out.
#pragma once

#include "assess/assessment.h"
#include "assess/doubt/doubt.h"

#include <string>
#include <vector>

namespace mavrel::report {

/// The sheet's text: HTML as a rich-text engine lays it out.
struct SheetParts {
  std::string head;                  // car, job, wishes
  std::vector<std::string> sections; // each with its heading; each to be kept on one page where it fits on one
  std::string air_svg;               // the run of air, 520 by 150 points; empty without a kit
  std::string wiring_svg;            // of the same size, before the second page; empty without
  std::vector<std::string> pages;    // each with its heading, on a page of its own: to be taken to the car
};

/// Readings, chosen bags, windows with governing limits, presets with predicted pressures, findings, cautions.
/// @param doubt  of the same build, for ± and odds; nullptr: it is not known
[[nodiscard]] SheetParts build_sheet(const build::Build& build, const assess::Assessment& assessment,
                                     const UnitPrefs& prefs, const assess::Doubt* doubt = nullptr);

/// Both ends' windows and presets as posts on one height scale, to be read from across a bay.
/// @param width, height  points
/// @param doubt          of the same build, for bands at the windows' edges; nullptr: none
[[nodiscard]] std::string windows_svg(const build::Build& build, const assess::Assessment& assessment,
                                      const UnitPrefs& prefs, double width, double height,
                                      const assess::Doubt* doubt = nullptr);

} // namespace mavrel::report
