// Templates as files for who cuts: DXF (release 12, millimetres, a layer each for what is cut, etched and drilled) and
// SVG, both true to scale.
#pragma once

#include "assess/fit_up/templates.h"

#include <string>
#include <vector>

namespace mavrel::report {

/// A template's dimensions, as whoever makes it checks them: `bolt circle 64.0 mm`.
[[nodiscard]] std::vector<std::string> measures_of(const assess::Template& drawing);

/// Its dimensions stand in them as remarks. Places are those of the drawing in mm, its lower left end of what is cut at
/// 0, 0.
[[nodiscard]] std::string template_dxf(const assess::Template& drawing);
[[nodiscard]] std::string template_svg(const assess::Template& drawing);

} // namespace mavrel::report
