// What a closer look at the chosen bags would point out: weather, gauges, lines to added volumes, lean.
#include "assess/bags/bags_findings.h"

#include "assess/bags/softening.h"
#include "assess/bags/weather.h"
#include "assess/interference/near_at.h"
#include "build/names.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::at;
using build::key_of;
using build::name_of;

namespace {

constexpr double worth_saying = 0.005; // m of height that a night takes
constexpr double lean_seen = 0.005;    // rad: what an eye sees against the garage door

constexpr FindingRow rows[] = {
    {"night_drops_it", &stages::bags},     {"pressure_hides_height", &stages::bags},
    {"line_chokes_volume", &stages::bags}, {"leans_too_far", &stages::bags},
    {"joined_sides_lean", &stages::bags},  {"caution_tank", &stages::bags},
    {"dives_onto_stop", &stages::bags},    {"near_in_standing_lean", &stages::clearance},
};
consteval const FindingRow& row(std::string_view code) {
  return row_in(rows, code);
}

class DepthFindings {
public:
  DepthFindings(const BagsFindingsGiven& given, BagsAnswer& out) : given_(given), out_(out) {}

  void find() {
    bool tank = false;
    for (const End end : build::both_ends) {
      const AnsweredEnd& answered = given_.ends[at(end)];
      const FittedEnd& one = answered->fitted;
      tank = tank || (one.bag && answered.given().fit.added_volume > 0);
      const auto& reach = answered->assessment.windows.reach;
      if (!one.bag || !one.model.map || !one.road || !reach || !reach->contains(*one.road)) continue;
      if (one.model.loads.empty() || !one.model.loads[0]) continue;
      night(end, one, *reach);
      gauge(end, one, *reach);
      line(end, one);
    }
    lean();
    standing_lean();
    dive();
    if (tank)
      add(row("caution_tank"), Severity::note, {}, "", {words("An added volume is a pressure vessel"), {}},
          {words("It sees the bag's full pressure, in bump more than parked."), {}},
          {words("A tank and line rated for it, fixed to the body; release the pressure before opening either."), {}});
  }

private:
  Finding& add(const FindingRow& what, Severity severity, std::optional<End> end, std::string place, Message title,
               Message reason, Message way_out) {
    return add_finding(out_.findings, what, severity, end, std::move(place), std::move(title), std::move(reason),
                       std::move(way_out));
  }
  std::string fit_path(End end, const char* field) const {
    return fmt::format("variants.{}.{}.{}", given_.variant, key_of(end), field);
  }
  [[nodiscard]] const FittedEnd& fitted(std::size_t e) const { return given_.ends[e]->fitted; }
  [[nodiscard]] Expected<Roll> roll_at_road(std::size_t load_case) const {
    return roll({given_.ends, given_.car, {*fitted(0).road, *fitted(1).road}, load_case});
  }

  void night(End end, const FittedEnd& one, const Window& reach) {
    const build::Surroundings& now = given_.surroundings;
    const double shut_off = now.temperature + now.shut_off_above;
    const auto after = sealed_corner(one, reach, *one.road, one.model.loads[0]->sprung_mass, shut_off,
                                     {now.altitude, now.night_temperature});
    if (!after) return;
    const double drop = *one.road - after->H;
    if (std::abs(drop) < worth_saying) return;
    const bool stop = after->rests_on == RestsOn::low_stop;
    auto& f =
        add(row("night_drops_it"), stop ? Severity::caution : Severity::note, end, "surroundings.night_temperature_k",
            {drop > 0 ? words("{0} sinks {1} overnight") : words("{0} rises {1} overnight"),
             {name_of(end), metres(std::abs(drop))}},
            {stop ? words("Bags at {0} when the valves shut, {1} in the morning: from road height down onto its stop, "
                          "{3}.")
                  : words("Bags at {0} when the valves shut, {1} in the morning: from road height to {2}, {3}."),
             {Amount{shut_off, Kind::temperature, -1, {}}, Amount{now.night_temperature, Kind::temperature, -1, {}},
              metres(after->H), given_.cases[0]}},
            {words("Level again before driving off."), {}});
    f.number = metres(std::abs(drop));
  }

  void gauge(End end, const FittedEnd& one, const Window& reach) {
    const auto tale = gauge_at(one, reach, *one.road, 0, given_.doubt);
    if (!tale || tale->width() <= rough_band) return;
    auto& f = add(row("pressure_hides_height"), Severity::note, end, fit_path(end, "bag"),
                  {words("{0} pressure does not tell height"), {name_of(end)}},
                  {words("At road height one reading fits everything from {0} to {1}, {2}."),
                   {metres(tale->low), metres(tale->high), given_.cases[0]}},
                  {words("Height sensing for this bag, or one whose pressure changes with height."), {}});
    f.number = metres(tale->width());
    f.limit = metres(rough_band);
  }

  void line(End end, const FittedEnd& one) {
    if (one.model.setting.added_volume == 0) return;
    const auto soft = softening(one, *one.road, 0, given_.frequency_high, false);
    if (!soft || !soft->bounce_open || soft->middle >= *soft->bounce_open) return;
    auto& f =
        add(row("line_chokes_volume"), Severity::caution, end, fit_path(end, "line_bore_m"),
            {words("{0} line chokes the added volume"), {name_of(end)}},
            {words("It passes air in time only below {0}; the body bounces at {1}. The volume hardly softens it."),
             {hertz(soft->middle), hertz(*soft->bounce_open)}},
            soft->fitting_bore ? Message{words("A bore of {0}."), {metres(*soft->fitting_bore, 1)}}
                               : Message{words("A wider or shorter line."), {}});
    f.number = hertz(soft->middle);
    f.limit = hertz(*soft->bounce_open);
  }

  void lean() {
    if (!fitted(0).road || !fitted(1).road) return;
    const auto answer = roll_at_road(0);
    if (!answer) return;
    const double wanted = given_.car.lean_wanted;
    const Lean& lean = answer->fitted;
    if (lean.angle && *lean.angle <= wanted) return;
    auto& f = add(
        row("leans_too_far"), lean.angle ? Severity::note : Severity::stop, {}, fit_path(End::front, "sides"),
        lean.angle ? Message{words("It leans {0} at 0.3 g"), {Amount{*lean.angle, Kind::angle, 1, wanted}}}
                   : Message{words("Nothing holds it level but its stops"), {}},
        {words("{0} is wanted, at road height, {1}."), {Amount{wanted, Kind::angle, 1, {}}, given_.cases[0]}},
        std::isfinite(lean.bar_wanted)
            ? Message{words("Bars of {0} together; now {1}."),
                      {Amount{lean.bar_wanted, Kind::turning, -1, {}},
                       Amount{lean.axles[0].bar + lean.axles[1].bar, Kind::turning, -1, {}}}}
            : Message{words("No bar does it, the tyres alone give more: less height of gravity, or more lean."), {}});
    if (lean.angle) f.number = Amount{*lean.angle, Kind::angle, 1, wanted};
    f.limit = Amount{wanted, Kind::angle, 1, {}};
  }

  /// Braking hard, has the front any bump left?
  void dive() {
    if (!fitted(0).road || !fitted(1).road || !fitted(0).bag) return;
    const auto travel = free_travel(fitted(0).on(), Meeting::standing);
    if (!travel) return;
    const double left = *fitted(0).road - travel->low;
    for (std::size_t c = 0; c < given_.cases.size(); ++c) {
      const auto answer = roll_at_road(c);
      if (!answer || !answer->dive || answer->dive->sinks <= left) continue;
      const double sinks = answer->dive->sinks;
      auto& f = add(row("dives_onto_stop"), Severity::caution, End::front, fit_path(End::front, "bag"),
                    {words("Front dives {0} when it brakes"), {told_from(metres(sinks), left)}},
                    {answer->dive->by_joints[0] ? words("{0}, at {1} g; {2} of bump is left before {3}.")
                                                : words("{0}, at {1} g, without what the links take of it; {2} of bump "
                                                        "is left before {3}."),
                     {given_.cases[c], Amount{given_.car.braking, Kind::plain, 2, {}}, told_from(metres(left), sinks),
                      travel->low_by->name}},
                    {words("A firmer front, more height on the road, or a lower stop."), {}});
      f.number = metres(sinks);
      f.limit = metres(left);
      return;
    }
  }

  /// Sides joined by a tee under uneven loads: one pressure can't carry both.
  void standing_lean() {
    auto& leans = out_.standing_lean;
    leans.resize(given_.cases.size());
    std::optional<std::size_t> worst;
    if ((!fitted(0).model.joined && !fitted(1).model.joined) || !fitted(0).road || !fitted(1).road) return;
    for (std::size_t c = 0; c < leans.size(); ++c) {
      if (const auto answer = roll_at_road(c)) leans[c] = answer->standing;
      if (leans[c] && (!worst || std::abs(*leans[c]) > std::abs(*leans[*worst]))) worst = c;
    }
    if (!worst) return;
    const double lean = *leans[*worst];
    if (std::abs(lean) < lean_seen) return;
    const End end = fitted(0).model.joined ? End::front : End::rear;
    auto& f =
        add(row("joined_sides_lean"), Severity::caution, end, fit_path(end, "sides"),
            {lean > 0 ? words("Joined sides leave the left {0} low") : words("Joined sides leave the right {0} low"),
             {Amount{std::abs(lean), Kind::angle, 1, {}}}},
            {words("{0}: a tee gives both bags one pressure, so what is uneven aboard leans the car."),
             {given_.cases[*worst]}},
            {words("Separate the sides, or move weight across."), {}});
    f.number = Amount{std::abs(lean), Kind::angle, 1, {}};
    f.limit = Amount{lean_seen, Kind::angle, 1, {}};
    for (const End one : build::both_ends)
      near_in_lean(one, *worst);
  }

  /// What comes too near on the side that a standing lean leaves low, or high.
  void near_in_lean(End end, std::size_t load_case) {
    const auto answer = roll_at_road(load_case);
    const FittedEnd& one = fitted(at(end));
    const auto sides = answer->sides_at(*one.road, *one.model.track);
    const auto near = near_uneven(given_.ends[at(end)], sides[0], sides[1]);
    const auto level = near_uneven(given_.ends[at(end)], *one.road, *one.road);
    for (const NearAt& gap : near) {
      if (gap.spare() >= -1e-4) return; // the least come first
      const bool so_level = std::any_of(level.begin(), level.end(), [&](const NearAt& other) {
        return other.mover == gap.mover && other.near == gap.near && other.spare() < -1e-4;
      });
      if (so_level) continue; // its window says it
      const double stands = gap.other_side ? sides[1] : sides[0];
      auto& f = add(
          row("near_in_standing_lean"), Severity::caution, end,
          gap.near.obstacle != not_listed ? fmt::format("{}.obstacles.{}.name", key_of(end), gap.near.obstacle)
                                          : fit_path(end, "sides"),
          {words("{0}, leaning as it stands: {1} against {2}"), {name_of(end), name_of(gap.mover), gap.near.told()}},
          {gap.other_side ? words("The right stands at {0} then, {1}: {2} is left of the {3} wanted.")
                          : words("The left stands at {0} then, {1}: {2} is left of the {3} wanted."),
           {metres(stands), given_.cases[load_case], told_from(metres(gap.gap.apart), gap.near.room),
            told_from(metres(gap.near.room), gap.gap.apart)}},
          {words("Separate the sides, or trim what is near."), {}});
      f.number = metres(gap.gap.apart);
      f.limit = metres(gap.near.room);
      return;
    }
  }

  const BagsFindingsGiven& given_;
  BagsAnswer& out_;
};

} // namespace

const std::span<const FindingRow> bags_finding_rows = rows;

BagsFindingsGiven bags_findings_given(const build::Build& build, const AnsweredEnds& ends) {
  BagsFindingsGiven out{ends,
                        build.active_variant,
                        case_names(build),
                        build.surroundings,
                        car_in_bend(build),
                        gauge_doubt(build.variant().brief),
                        build.variant().brief.frequency_high};
  out.surroundings.extra.clear();
  return out;
}

BagsAnswer find_in_bags(const BagsFindingsGiven& given) {
  BagsAnswer out;
  DepthFindings(given, out).find();
  return out;
}

} // namespace mavrel::assess
