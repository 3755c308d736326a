#include "assess/end/presets.h"

namespace mavrel::assess {

std::vector<std::optional<double>> preset_heights(const build::Brief& brief, const EndModel& model) {
  std::vector<std::optional<double>> out;
  for (const build::Preset& preset : brief.presets) {
    const auto& wish = preset.wish[build::at(model.end)];
    out.push_back(wish ? wished_height(*wish, model) : std::nullopt);
  }
  return out;
}

std::optional<double> height_of_use(const build::Brief& brief, const std::vector<std::optional<double>>& heights,
                                    build::PresetUse use) {
  for (std::size_t i = 0; i < heights.size(); ++i)
    if (brief.presets[i].use == use && heights[i]) return heights[i];
  return std::nullopt;
}

} // namespace mavrel::assess
