#include "assess/interference/map.h"

#include <algorithm>
#include <cmath>
#include <limits>
#include <stop_token>

namespace mavrel::assess {

namespace {

/// One gap of the tyre that changes with the steering.
struct Steered {
  std::size_t which;
  Mover mover;
  Near near;
  std::optional<Placement> obstacle; // none: a part of the end itself
};

} // namespace

std::optional<ClearanceMap> clearance_map(const MapGiven& given, const std::stop_token& stop) {
  const Clearances& clear = *given.end.given().clearance;
  const auto& all = given.end->assessment.gaps;
  if (all.empty() || !clear.space || given.heights < 2 || !(given.high > given.low)) return std::nullopt;
  const EndSpace& space = *clear.space;
  const build::EndSurvey& survey = given.end.given().survey().given().survey;
  ClearanceMap out;
  for (std::size_t i = 0; i < given.heights; ++i)
    out.heights.push_back(
        std::lerp(given.low, given.high, static_cast<double>(i) / static_cast<double>(given.heights - 1)));
  const std::size_t columns = space.steers() ? std::max<std::size_t>(2, given.steers) : 1;
  for (std::size_t k = 0; k < columns; ++k)
    out.steers.push_back(columns == 1 ? 0
                                      : std::lerp(-space.lock(), space.lock(),
                                                  static_cast<double>(k) / static_cast<double>(columns - 1)));
  std::vector<Steered> steered;
  bool any_right = false;
  std::vector<std::size_t> alike; // do not change with the steering
  for (const GapCurve& curve : all) {
    const std::size_t which = out.what.size();
    out.what.push_back(curve);
    const bool tyre = curve.mover == Mover::tyre || curve.near.own == OwnPart::tyre;
    if (!tyre || curve.source != GapSource::solid || !clear.wheel) {
      alike.push_back(which);
      continue;
    }
    Steered s{which, curve.mover, curve.near, {}};
    if (curve.near.obstacle != not_listed)
      s.obstacle = placement_of(survey.obstacles[curve.near.obstacle], curve.near.right);
    any_right = any_right || curve.near.right;
    steered.push_back(s);
  }
  const auto body = given.end->fitted.bag ? std::optional(bag_body(given.end->fitted.on())) : std::nullopt;
  const auto stands = space.grid(out.heights, out.steers);
  // Steered the same way, the right wheel is seen in a mirror: the angles lie evenly about straight ahead.
  std::vector<std::optional<Stand>> right;
  if (any_right && clear.right) right = clear.right->grid(out.heights, out.steers);
  // The worst is looked for where the car is used: down to where it is parked, up to the top of what it reaches.
  const auto& reach = given.end->assessment.windows.reach;
  const auto& parked = given.end->fitted.parked;
  const auto used = [&](double H) {
    const double from = std::min(reach ? reach->low.height : given.low, parked.value_or(given.high)),
                 to = reach ? reach->high.height : given.high;
    return !(to > from) || (H >= from - 1e-9 && H <= to + 1e-9);
  };
  double least = std::numeric_limits<double>::infinity();
  for (std::size_t i = 0; i < out.heights.size(); ++i)
    for (std::size_t k = 0; k < columns; ++k) {
      if (stop.stop_requested()) return std::nullopt;
      MapCell cell{0, std::numeric_limits<double>::infinity(), not_listed, true};
      const auto take = [&](std::size_t which, double gap) {
        const double spare = gap - out.what[which].near.room;
        if (spare < cell.spare) cell = {gap, spare, which, true};
      };
      const bool locked = columns > 1 && std::abs(out.steers[k]) > space.lock() / 2;
      for (const std::size_t which : alike)
        if (const auto gap = out.what[which].at(out.heights[i], locked && out.what[which].mover == Mover::tyre))
          take(which, std::max(0.0, *gap));
      const auto& stand = stands[i * columns + k];
      if (!stand) cell.reached = false;
      for (const Steered& s : steered) {
        const auto& of_side = s.near.right && clear.right ? right : stands;
        const auto& from = of_side[i * columns + (s.near.right ? columns - 1 - k : k)];
        if (!stand || !from) continue;
        const GapIn in{clear, clear.space_of(s.near), body ? &*body : nullptr};
        std::optional<space::Gap> gap;
        if (s.obstacle)
          gap = gap_to(s.mover, *s.obstacle, *from, in);
        else if (const auto own = gap_to_own(s.mover, s.near.own, *from, in))
          gap = own->gap;
        if (gap) take(s.which, gap->apart);
      }
      if (cell.which != not_listed && cell.spare < least && used(out.heights[i])) {
        least = cell.spare;
        out.worst = out.cells.size();
      }
      out.cells.push_back(cell);
    }
  return out;
}

} // namespace mavrel::assess
