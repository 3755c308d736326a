#include "air/bag_card.h"

#include <algorithm>
#include <array>
#include <cassert>

namespace mavrel::air {

namespace {
constexpr auto kinds = std::to_array<std::pair<BagKind, const char*>>({
    {BagKind::single_bellows, "single bellows"},
    {BagKind::double_bellows, "double bellows"},
    {BagKind::triple_bellows, "triple bellows"},
    {BagKind::sleeve, "sleeve"},
    {BagKind::slim_bellows, "slim bellows"},
});
}

const char* bag_kind_name(BagKind kind) {
  return std::find_if(kinds.begin(), kinds.end(), [&](const auto& k) { return k.first == kind; })->second;
}

std::optional<BagKind> bag_kind_from(std::string_view name) {
  const auto* const found = std::find_if(kinds.begin(), kinds.end(), [&](const auto& k) { return k.second == name; });
  if (found == kinds.end()) return std::nullopt;
  return found->first;
}

BagCurve::BagCurve(const BagCard& card)
    : pressures_(card.pressures), lowest_(std::max(card.heights.front(), card.collapsed_height)),
      highest_(std::min(card.heights.back(), card.max_height)), max_diameter_(card.max_diameter),
      has_diameter_(!card.diameters.empty()) {
  assert(card.loads.size() == card.pressures.size() && card.loads.size() <= max_columns);
  std::vector<std::vector<double>> columns;
  for (std::size_t j = 0; j < card.pressures.size(); ++j) {
    std::vector<double> area = card.loads[j];
    for (double& a : area)
      a /= card.pressures[j];
    columns.push_back(std::move(area));
  }
  columns.push_back(card.volumes);
  if (has_diameter_) columns.push_back(card.diameters);
  table_ = curve::PchipTable(card.heights, columns);
}

BagSection BagCurve::section(double height) const {
  const auto at = table_.place(height);
  BagSection out;
  out.pressures = &pressures_;
  for (std::size_t j = 0; j < pressures_.size(); ++j) {
    const auto area = table_.read(at, j);
    out.area[j] = area.value;
    out.area_slope[j] = area.slope;
  }
  const auto volume = table_.read(at, pressures_.size());
  out.volume = volume.value;
  out.volume_slope = volume.slope;
  return out;
}

double BagCurve::diameter(double height) const {
  if (!has_diameter_) return max_diameter_;
  return table_.read(height, pressures_.size() + 1).value;
}

} // namespace mavrel::air
