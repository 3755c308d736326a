#include "assess/air/complete_kit.h"

#include "assess/air/air_findings.h"

#include <algorithm>
#include <functional>

namespace mavrel::assess {

namespace {

constexpr double frost = 273.15; // K

class Completing {
public:
  Completing(AirGiven air, const shelf::Shelf& shelf) : shelf_(shelf), out_{std::move(air), {}, {}} {}

  CompletedKit complete(bool sensors) {
    pressure_switch(); // a search always puts a compressor in
    const auto cut = cut_pressures(out_.air.parts);
    const auto full = cut ? std::optional(cut->second) : std::nullopt;
    relief(full);
    const auto rated = [&](const shelf::Part& p) { return !full || !p.rated_pressure || *p.rated_pressure >= *full; };
    put(KitRole::check_valve, rated, passes, {words("passes most of those rated for it"), {}});
    if (empty(KitRole::trap) && empty(KitRole::dryer)) {
      if (out_.air.surroundings.night_temperature < frost)
        put(KitRole::dryer, rated, [](const shelf::Part& p) { return p.holds.value_or(0); },
            {words("mornings freeze here: what stays dry does not"), {}});
      else
        put(KitRole::trap, rated, [](const shelf::Part& p) { return p.water_share.value_or(0); },
            {words("keeps the water out of the tank"), {}});
    }
    put(KitRole::drain, rated, {}, {words("what still gets in is let out here"), {}});
    put(KitRole::silencer, rated, passes, {words("the quickest down of those there are"), {}});
    if (out_.air.kit.school == build::ValveSchool::hand_valves)
      put(KitRole::gauge, rated, [](const shelf::Part& p) { return -p.error.value_or(1e6); },
          {words("hand valves are worked by it"), {}});
    if (sensors) put(KitRole::sensor, rated, {}, {words("the height is gone by"), {}});
    return std::move(out_);
  }

private:
  static double passes(const shelf::Part& p) { return p.conductance.value_or(1); }
  [[nodiscard]] bool empty(KitRole role) const { return (out_.air.kit.*row_of(role).name).empty(); }

  void take(KitRole role, const shelf::Part& part, Message why) {
    out_.air.kit.*row_of(role).name = part.name;
    out_.air.parts.at(role) = part;
    out_.added.push_back({role, part.name, std::move(why)});
  }
  /// The best of those that will do, the first of equals; without an order the first.
  const shelf::Part* best(KitRole role, const std::function<bool(const shelf::Part&)>& will_do,
                          const std::function<double(const shelf::Part&)>& good) const {
    const shelf::Part* out = nullptr;
    for (const shelf::ShelfPart& one : shelf_.parts)
      if (one.part.kind == row_of(role).kind && will_do(one.part) && (!out || (good && good(one.part) > good(*out))))
        out = &one.part;
    return out;
  }
  void put(KitRole role, const std::function<bool(const shelf::Part&)>& will_do,
           const std::function<double(const shelf::Part&)>& good, Message why) {
    if (!empty(role)) return;
    if (const shelf::Part* part = best(role, will_do, good))
      take(role, *part, std::move(why));
    else
      out_.lacks.push_back({words("The shelf has no {0} that would do."), {row_of(role).label}});
  }

  void pressure_switch() {
    if (!empty(KitRole::pressure_switch)) return;
    const double wanted = most_bag_pressure(out_.air).value_or(0) + head_over_bags;
    // The strongest tank there is, unless somebody chose one.
    double bears = 0;
    for (const shelf::ShelfPart& one : shelf_.parts)
      if (one.part.kind == shelf::PartKind::tank) bears = std::max(bears, one.part.rated_pressure.value_or(0));
    if (const shelf::Part* tank = out_.air.parts[KitRole::tank]) bears = tank->rated_pressure.value_or(bears);
    const auto borne = [&](const shelf::Part& p) { return *p.cut_out <= bears; };
    const shelf::Part* part = best(
        KitRole::pressure_switch, [&](const shelf::Part& p) { return borne(p) && *p.cut_in >= wanted; },
        [](const shelf::Part& p) { return -*p.cut_out; });
    if (part) {
      take(KitRole::pressure_switch, *part,
           {words("the lowest that starts {0} above what the bags want"), {pascals(head_over_bags)}});
      return;
    }
    put(KitRole::pressure_switch, borne, [](const shelf::Part& p) { return *p.cut_in; },
        {words("the highest that a tank bears: the bags want more than a switch gives with {0} to spare"),
         {pascals(head_over_bags)}});
  }

  void relief(const std::optional<double>& full) {
    if (!empty(KitRole::relief)) return;
    put(
        KitRole::relief, [&](const shelf::Part& p) { return !full || *p.opens_at >= *full + relief_over_switch; },
        [](const shelf::Part& p) { return -*p.opens_at; },
        {words("the lowest that stays shut when the tank is full"), {}});
  }

  const shelf::Shelf& shelf_;
  CompletedKit out_;
};

} // namespace

CompletedKit complete_kit(AirGiven air, const shelf::Shelf& shelf, bool sensors) {
  return Completing(std::move(air), shelf).complete(sensors);
}

} // namespace mavrel::assess
