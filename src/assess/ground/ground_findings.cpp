#include "assess/ground/ground_findings.h"

#include "assess/end/misfit.h"
#include "build/names.h"

#include <fmt/format.h>

#include <cmath>

namespace mavrel::assess {

namespace {

constexpr FindingRow rows[] = {
    {"meets_ground", &stages::clearance},          {"ground_too_steep", &stages::clearance},
    {"ground_unusable", &stages::clearance},       {"ground_without_underside", &stages::clearance},
    {"low_point_under_floor", &stages::clearance}, {"stands_in_the_ground", &stages::clearance},
};
consteval const FindingRow& row(std::string_view code) {
  return row_in(rows, code);
}

class GroundFindings {
public:
  GroundFindings(const GroundFindingsGiven& given, Findings& out)
      : given_(given), ground_(given.ground.given()), answer_(*given.ground), out_(out) {}

  void find() {
    profiles();
    missing();
    points();
    for (const OnFlat& flat : answer_.flat)
      stands(flat);
    for (const Crossing& crossing : answer_.crossings)
      meets(crossing);
  }

private:
  [[nodiscard]] std::string path_of(std::size_t ground, const char* field) const {
    return fmt::format("variants.{}.brief.grounds.{}.{}", given_.variant, ground, field);
  }
  Finding& add(const FindingRow& what, Severity severity, std::string place, Message title, Message reason,
               Message way_out) {
    return add_finding(out_, what, severity, std::nullopt, std::move(place), std::move(title), std::move(reason),
                       std::move(way_out));
  }

  void profiles() {
    for (std::size_t g = 0; g < ground_.grounds.size(); ++g) {
      const build::Ground& ground = ground_.grounds[g];
      if (profile_of(ground)) continue;
      if (ground.points.size() < 2)
        add(row("ground_unusable"), Severity::caution, path_of(g, "name"), {words("“{0}” has no shape"), {ground.name}},
            {words("Two places at least make a profile."), {}},
            {words("Enter how far along and how high each place of it lies."), {}});
      else
        add(row("ground_unusable"), Severity::caution, path_of(g, "name"),
            {words("“{0}” runs backward"), {ground.name}},
            {words("Places of a profile follow one another along the way."), {}},
            {words("Put them in the order the car meets them, each further along than the last."), {}});
    }
  }

  void missing() {
    if (ground_.grounds.empty() || answer_.known) return;
    if (ground_.underside.empty())
      add(row("ground_without_underside"), Severity::note, "body.underside",
          {words("What of the car is low is not known"), {}},
          {words("There is something on the ground to get over, and no low point of the underside."), {}},
          {words("Enter lip, pan, pipes, sills and bumper where they are lowest."), {}});
    else if (!ground_.wheelbase)
      add(row("ground_without_underside"), Severity::note, "body.wheelbase_m",
          {words("The car can't be driven over anything yet"), {}},
          {words("Without the wheelbase nobody knows how it stands on uneven ground."), {}},
          {words("Measure it between the hubs."), {}});
  }

  void points() {
    for (std::size_t i = 0; i < ground_.underside.size(); ++i)
      if (ground_.underside[i].z <= 0)
        add(row("low_point_under_floor"), Severity::caution, fmt::format("body.underside.{}.z_m", i),
            {words("“{0}” lies on the floor or under it"), {ground_.underside[i].name}},
            {words("As the car was measured it stood on its wheels."), {}},
            {words("Measure its height above the floor again."), {}});
  }

  /// m that the front or the rear must rise for a place to rise by `short_of`, as a lever about the other hub.
  [[nodiscard]] std::optional<double> lift(std::size_t point, double short_of, bool front) const {
    std::vector<double> xs;
    for (const build::LowPoint& p : ground_.underside)
      xs.push_back(p.x);
    std::stable_sort(xs.begin(), xs.end());
    const double share = front ? 1 - xs[point] / *ground_.wheelbase : xs[point] / *ground_.wheelbase;
    if (share < 0.15) return std::nullopt; // so near the other hub that it hardly helps
    return short_of / share;
  }

  /// Lying on its underside is as low as a car goes.
  void stands(const OnFlat& flat) {
    if (flat.gap >= -5e-4) return;
    auto& f = add(row("stands_in_the_ground"), Severity::stop,
                  fmt::format("variants.{}.brief.presets.{}.name", given_.variant, flat.preset),
                  {words("{0}: the {1} would be in the ground"), {given_.presets[flat.preset], flat.point}},
                  {words("With the front at {0} and the rear at {1}, {2}, it lies on flat ground {3} before that."),
                   {metres(flat.front), metres(flat.rear), flat.load, metres(-flat.gap)}},
                  {words("Sit higher, or have less under the car there."), {}});
    f.number = metres(flat.gap);
    f.limit = metres(0);
  }

  void meets(const Crossing& c) {
    const build::Ground& ground = ground_.grounds[c.ground];
    const std::string& preset = given_.presets[c.preset];
    if (!c.gap) {
      add(row("ground_too_steep"), Severity::caution, path_of(c.ground, "name"),
          {words("“{0}” is too steep to stand on"), {ground.name}},
          {words("Somewhere on it both wheels can't stand at this wheelbase."), {}},
          {words("Check how far along and how high its places lie."), {}});
      return;
    }
    if (c.clears(ground.margin)) return;
    const double short_of = ground.margin - c.gap->gap;
    const auto front = lift(c.gap->point, short_of, true), rear = lift(c.gap->point, short_of, false);
    Message way_out{words("Another preset for it, or less under the car."), {}};
    if (front && rear)
      way_out = {words("About {0} more at the front, or {1} at the rear."), {metres(*front), metres(*rear)}};
    else if (front)
      way_out = {words("About {0} more at the front."), {metres(*front)}};
    else if (rear)
      way_out = {words("About {0} more at the rear."), {metres(*rear)}};
    const bool touches = c.gap->gap < 0;
    auto& f = add(
        row("meets_ground"), touches ? Severity::stop : Severity::caution, path_of(c.ground, "over"),
        touches ? Message{words("{0}: the {1} meets the {2}"), {preset, c.point, ground.name}}
                : Message{words("{0}: the {1} clears the {2} by little"), {preset, c.point, ground.name}},
        touches
            ? Message{words("With the front at {0} and the rear at {1}, {4}, it is {2} too low; {3} is to be kept."),
                      {metres(c.front), metres(c.rear), metres(-c.gap->gap), metres(ground.margin), c.load}}
            : Message{words("With the front at {0} and the rear at {1}, {4}, it clears by {2}; {3} is to be kept."),
                      {metres(c.front), metres(c.rear), told_from(metres(c.gap->gap), ground.margin),
                       told_from(metres(ground.margin), c.gap->gap), c.load}},
        std::move(way_out));
    f.number = metres(c.gap->gap);
    f.limit = metres(ground.margin);
  }

  const GroundFindingsGiven& given_;
  const GroundGiven& ground_;
  const GroundAnswer& answer_;
  Findings& out_;
};

} // namespace

const std::span<const FindingRow> ground_finding_rows = rows;

GroundFindingsGiven ground_findings_given(const build::Build& build, Answered<GroundQuestion> ground) {
  return {std::move(ground), build.active_variant, preset_names(build)};
}

Findings find_on_ground(const GroundFindingsGiven& given) {
  Findings out;
  GroundFindings(given, out).find();
  return out;
}

} // namespace mavrel::assess
