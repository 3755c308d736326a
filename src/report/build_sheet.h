// The build sheet: what a builder pins to the wall beside the car. As HTML that a rich-text engine can lay out.
#pragma once

#include "assess/assessment.h"

#include <string>

namespace mavrel::report {

/// Car, readings, chosen bags, windows with governing limits, presets with predicted pressures, findings, cautions.
/// Refers to one image, `windows.svg`, made by `windows_svg`.
[[nodiscard]] std::string build_sheet_html(const build::Build& build, const assess::Assessment& assessment,
                                           const UnitPrefs& prefs);

/// Both ends' windows and presets on one height scale.
[[nodiscard]] std::string windows_svg(const build::Build& build, const assess::Assessment& assessment,
                                      const UnitPrefs& prefs);

} // namespace mavrel::report
