#include "assess/end/car_findings.h"

#include <fmt/format.h>

namespace mavrel::assess {

namespace {

constexpr FindingRow car_rows[] = {{"ends_do_not_settle", &stages::bags},
                                   {"caution_stands", &stages::bags},
                                   {"caution_road_window", &stages::bags},
                                   {"caution_inspection", &stages::car_in}};
consteval const FindingRow& car_row(std::string_view code) {
  return row_in(car_rows, code);
}

/// One end at a preset that the car is driven at, in one case.
const PoseState* road_state(const Answered<EndQuestion>& end, std::size_t preset, std::size_t c) {
  const auto& presets = end->assessment.presets;
  if (preset >= presets.size() || !presets[preset] || c >= presets[preset]->cases.size()) return nullptr;
  if (end.given().brief.presets[preset].use != build::PresetUse::road) return nullptr;
  const auto& state = presets[preset]->cases[c];
  return state ? &*state : nullptr;
}

} // namespace

const std::span<const FindingRow> car_finding_rows = car_rows;

CarFindingsGiven car_findings_given(const build::Build& build, const std::array<Answered<EndQuestion>, 2>& ends) {
  const build::Brief& brief = build.variant().brief;
  return {ends,
          build.active_variant,
          case_names(build),
          preset_names(build),
          brief.rear_quicker_low,
          brief.rear_quicker_high};
}

Findings find_on_car(const CarFindingsGiven& given) {
  Findings out;
  const auto add = [&](const FindingRow& what, Severity severity, std::string place, Message title, Message reason,
                       Message way_out) -> Finding& {
    return add_finding(out, what, severity, {}, std::move(place), std::move(title), std::move(reason),
                       std::move(way_out));
  };
  for (std::size_t p = 0; p < given.presets.size(); ++p)
    for (std::size_t c = 0; c < given.cases.size(); ++c) {
      const PoseState* front = road_state(given.ends[0], p, c);
      const PoseState* rear = road_state(given.ends[1], p, c);
      if (!front || !rear || !front->ride_frequency || !rear->ride_frequency) continue;
      const double quicker = *rear->ride_frequency / *front->ride_frequency - 1;
      if (quicker >= given.rear_quicker_low && quicker <= given.rear_quicker_high) continue;
      const bool slow = quicker < given.rear_quicker_low;
      auto& f = add(
          car_row("ends_do_not_settle"), Severity::caution, fmt::format("variants.{}.rear.bag", given.variant),
          {slow ? words("Front too quick for the rear, {0}") : words("Rear too quick for the front, {0}"),
           {given.presets[p]}},
          {words("{0} against {1} at the rear, {2}: it pitches on after a bump. The rear settles it flat when it is "
                 "{3} to {4} quicker."),
           {hertz(*front->ride_frequency), hertz(*rear->ride_frequency), given.cases[c], share(given.rear_quicker_low),
            share(given.rear_quicker_high)}},
          {slow ? words("A softer front or a firmer rear bag.") : words("A firmer front or a softer rear bag."), {}});
      f.number = share(quicker);
      f.limit = share(slow ? given.rear_quicker_low : given.rear_quicker_high);
      break; // one load case says it; the others follow
    }

  bool chosen = false, lowers = false, leaves_road = false;
  for (const auto& end : given.ends) {
    chosen = chosen || !end.given().fit.bag.empty();
    const EndAssessment& e = end->assessment;
    const auto& presets = end.given().brief.presets;
    for (std::size_t i = 0; i < e.presets.size(); ++i) {
      if (!e.presets[i]) continue;
      lowers = lowers || (presets[i].use == build::PresetUse::road && e.surveyed_height &&
                          e.presets[i]->height < *e.surveyed_height - 0.010);
      leaves_road = leaves_road || (e.windows.road && !e.presets[i]->in_road);
    }
  }
  if (chosen)
    add(car_row("caution_stands"), Severity::note, "", {words("Stands before anyone goes under"), {}},
        {words("A car held by air is not held: a line, a valve or a bag can let go."), {}},
        {words("Stands under rated points, wheels chocked, every time."), {}});
  if (leaves_road)
    add(car_row("caution_road_window"), Severity::note, "", {words("Drive only in the road window"), {}},
        {words("Some presets lie outside it: parked and ramp heights are for standing and walking pace."), {}},
        {words("Raise or lower to road height before driving off."), {}});
  if (lowers)
    add(car_row("caution_inspection"), Severity::note, "", {words("Lamps and least height"), {}},
        {words("The car will drive lower than it was surveyed. Least heights, lamp aim and alterations are for the "
               "local inspection to decide."),
         {}},
        {words("Ask before parts are bought; re-aim the lamps at road height."), {}});
  return out;
}

} // namespace mavrel::assess
