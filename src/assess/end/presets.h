// Where the brief's presets lie at one end.
#pragma once

#include "assess/end/end_model.h"

namespace mavrel::assess {

/// H of each preset at this end, in the brief's order; none where it is not wished or can't be worked out.
[[nodiscard]] std::vector<std::optional<double>> preset_heights(const build::Brief& brief, const EndModel& model);

/// H of the first preset of this use, if any.
[[nodiscard]] std::optional<double>
height_of_use(const build::Brief& brief, const std::vector<std::optional<double>>& heights, build::PresetUse use);

} // namespace mavrel::assess
