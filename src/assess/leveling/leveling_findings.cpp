#include "assess/leveling/leveling_findings.h"

#include "assess/air/air_findings.h"
#include "assess/end/travel.h"
#include "build/names.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <numbers>

namespace mavrel::assess {

namespace {

constexpr FindingRow rows[] = {
    {"level_hand_valves", &stages::leveling},     {"level_no_sensor", &stages::leveling},
    {"level_sensor_unplaced", &stages::leveling}, {"level_sensor_reach", &stages::leveling},
    {"level_sensor_flips", &stages::leveling},    {"level_sensor_square", &stages::leveling},
    {"level_sensor_range", &stages::leveling},    {"level_sensor_coarse", &stages::leveling},
    {"level_sensor_near", &stages::leveling},     {"level_wait_short", &stages::leveling},
    {"level_bursts_order", &stages::leveling},    {"level_band_wide", &stages::leveling},
    {"level_pressure_silent", &stages::leveling}, {"level_lean_left", &stages::leveling},
};
consteval const FindingRow& row(std::string_view code) {
  return row_in(rows, code);
}

constexpr double counts_in_band = 4; // fewer to the band's edge, and the scatter of one reading works the valves

Amount degrees(double v, double unlike) {
  return {v, Kind::angle, 0, unlike};
}
Amount seconds(double v) {
  return {v, Kind::time, -1, {}};
}

class LevelingFindings {
public:
  LevelingFindings(const LevelingFindingsGiven& given, Findings& out)
      : given_(given), leveling_(given.leveling), rules_(given.leveling.set_up().rules), out_(out) {
    for (std::size_t i = 0; i < leveling_.set_ups.size(); ++i)
      if (&leveling_.set_ups[i] == &given.leveling.set_up()) chosen_ = i;
  }

  void find() {
    if (!given_.kit_begun) return;
    schools();
    numbers();
    for (const End end : build::both_ends)
      if (goes_by_height(rules_.method))
        sensor(end);
      else
        pressures(end);
  }

private:
  Finding& add(const FindingRow& what, Severity severity, std::optional<End> end, const std::string& field,
               Message title, Message reason, Message way_out) {
    return add_finding(out_, what, severity, end, fmt::format("variants.{}.{}", given_.variant, field),
                       std::move(title), std::move(reason), std::move(way_out));
  }
  [[nodiscard]] std::string rule(const char* key) const { return fmt::format("leveling.set_ups.{}.{}", chosen_, key); }
  [[nodiscard]] static std::string of_sensor(End end, const char* key) {
    return fmt::format("leveling.{}_sensor.{}", build::key_of(end), key);
  }

  void schools() {
    const bool by_hand = rules_.method == control::LevelMethod::by_hand;
    if (given_.school == build::ValveSchool::hand_valves && !by_hand)
      add(row("level_hand_valves"), Severity::caution, std::nullopt, rule("method"),
          {words("Nothing works these valves but a hand"), {}},
          {words("The kit has hand valves; a controller needs a valve block."), {}},
          {words("Choose hand valves and gauges as the way of keeping the height, or a block in Air."), {}});
    if (goes_by_height(rules_.method) && !given_.sensor_chosen)
      add(row("level_no_sensor"), Severity::caution, std::nullopt, "air.sensor",
          {words("The kit has no height sensors"), {}}, {words("The height is to be kept by what sensors read."), {}},
          {words("Choose sensors in Air, or keep the height by pressure."), {}});
    if (given_.joined && goes_by_height(rules_.method) && rules_.sensors == control::LevelSensors::four)
      add(row("level_lean_left"), Severity::note, std::nullopt, rule("sensors"),
          {words("Four sensors read a lean that no valve can mend"), {}},
          {words("Left and right share their air: only the mean of an end can be corrected."), {}},
          {words("Two sensors tell as much, or a circuit for each corner."), {}});
  }

  void numbers() {
    if (rules_.wait < rules_.average && rules_.method != control::LevelMethod::by_hand)
      add(row("level_wait_short"), Severity::caution, std::nullopt, rule("wait_s"),
          {words("It corrects again by what it saw before the last correction"), {}},
          {words("It waits {0} and averages over {1}: the average still holds the old height."),
           {seconds(rules_.wait), seconds(rules_.average)}},
          {words("Wait at least as long as it averages."), {}});
    if (rules_.least_burst > rules_.most_burst)
      add(row("level_bursts_order"), Severity::caution, std::nullopt, rule("least_burst_s"),
          {words("The least burst is longer than the most"), {}},
          {words("Every burst is {0} then, however small the error."), {seconds(rules_.least_burst)}},
          {words("A shorter least burst."), {}});
    const double spare = spare_travel(given_.sensors.given().ends, given_.bump_travel);
    if (goes_by_height(rules_.method) && rules_.band > spare && given_.sensors.given().ends[0]->fitted.road &&
        given_.sensors.given().ends[1]->fitted.road)
      add(row("level_band_wide"), Severity::note, std::nullopt, rule("band_m"),
          {words("The band eats bump travel that the brief keeps"), {}},
          {words("The height may lie {0} low; over what the brief keeps, road height has {1} to spare."),
           {told_from(metres(rules_.band), spare), told_from(metres(spare), rules_.band)}},
          {words("A narrower band, or a higher road height."), {}});
  }

  void sensor(End end) {
    const SensorAtEnd& s = (*given_.sensors)[build::at(end)];
    const build::SensorFit& fit = leveling_.sensors[build::at(end)];
    if (!s.linkage) {
      add(row("level_sensor_unplaced"), Severity::note, end, of_sensor(end, "pivot_y_m"),
          {words("Nobody said where the sensor sits"), {}},
          {words("The height is taken as read exactly; nothing is known of lever, rod and what comes near."), {}},
          {words("Put shaft and pickup on the drawing in Sensors."), {}});
      return;
    }
    if (!(s.highest > s.lowest)) return;
    if (s.trouble)
      add(row("level_sensor_reach"), Severity::stop, end, of_sensor(end, "rod_m"),
          {words("The sensor's rod does not reach through the travel"), {}}, *s.trouble,
          {words("A longer rod or lever, or the shaft nearer to the pickup."), {}});
    if (s.looks.empty()) return;
    if (s.flips)
      add(row("level_sensor_flips"), Severity::stop, end, of_sensor(end, "lever_m"),
          {words("The sensor's lever may flip over"), {}},
          {words("Lever and rod come within {0} of one line; {1} must stay, for once over they read the wrong way."),
           {degrees(s.nearest_in_line, control::may_flip), degrees(control::may_flip, s.nearest_in_line)}},
          better_way(s));
    else if (s.off_square > control::reads_well * (1 + 1e-9))
      add(row("level_sensor_square"), Severity::note, end, of_sensor(end, "lever_m"),
          {words("The sensor reads unevenly at the ends of the travel"), {}},
          {words("Lever and rod lie up to {0} off square; up to {1} it reads well."),
           {degrees(s.off_square, control::reads_well), degrees(control::reads_well, s.off_square)}},
          better_way(s));
    if (s.sweep > fit.range)
      add(row("level_sensor_range"), Severity::stop, end, of_sensor(end, "range_rad"),
          {words("The lever turns further than the sensor reads"), {}},
          {words("It turns {0} over the travel, the sensor reads {1}."),
           {degrees(s.sweep, fit.range), degrees(fit.range, s.sweep)}},
          better_way(s));
    if (s.counts_per_metre && *s.counts_per_metre * rules_.band < counts_in_band)
      add(row("level_sensor_coarse"), Severity::caution, end, of_sensor(end, "counts"),
          {words("The sensor is too coarse for the band"), {}},
          {words("At road height a millimetre is {0} counts: the band of {1} is only {2} of them."),
           {number(*s.counts_per_metre * 1e-3), metres(rules_.band), number(*s.counts_per_metre * rules_.band, 1)}},
          better_way(s));
    if (s.nearest && s.nearest->gap < s.nearest->wanted)
      add(row("level_sensor_near"), s.nearest->gap > 0 ? Severity::caution : Severity::stop, end,
          of_sensor(end, "ahead_m"),
          {s.nearest->gap > 0 ? words("The sensor's lever or rod comes near to {0}")
                              : words("The sensor's lever or rod meets {0}"),
           {name_of(*s.nearest)}},
          {words("At {0} there are {1} between them; {2} are wanted."),
           {metres(s.nearest->H), metres(s.nearest->gap), metres(s.nearest->wanted)}},
          {words("Move the sensor, or turn the lever to the other side."), {}});
  }

  static Message better_way(const SensorAtEnd& s) {
    if (s.better.empty()) return {words("Another place for shaft or pickup: no lever reads well from here."), {}};
    const control::SensorLinkage& best = s.better.front().linkage;
    return {words("A lever of {0} and a rod of {1} read best from here."), {metres(best.lever), metres(best.rod)}};
  }
  static Argument name_of(const SensorNear& near) {
    if (near.name.empty()) return {words("the wheel")};
    return {near.name};
  }

  void pressures(End end) {
    const auto& answered = given_.sensors.given().ends[build::at(end)];
    const auto& road = answered->fitted.road;
    const auto& reach = answered->assessment.windows.reach;
    if (!road || !reach) return;
    const auto band = gauge_at(answered->fitted, *reach, *road, 0, given_.doubt);
    if (!band || band->width() <= rough_band) return;
    add(row("level_pressure_silent"), Severity::caution, end, rule("method"),
        {words("Pressure hardly tells the height here"), {}},
        {words("The same reading stands for anything from {0} to {1}."), {metres(band->low), metres(band->high)}},
        {words("Keep the height by sensors, or expect it to wander."), {}});
  }

  const LevelingFindingsGiven& given_;
  const build::Leveling& leveling_;
  const control::Rules& rules_;
  Findings& out_;
  std::size_t chosen_ = 0;
};

} // namespace

const std::span<const FindingRow> leveling_finding_rows = rows;

bool goes_by_height(control::LevelMethod method) {
  return method == control::LevelMethod::bursts || method == control::LevelMethod::until_reached;
}

double spare_travel(const AnsweredEnds& ends, double bump_travel) {
  double out = INFINITY;
  for (const auto& end : ends) {
    const FittedEnd& fitted = end->fitted;
    if (!fitted.road || !fitted.bag || !fitted.model.map) return 0;
    const auto travel = free_travel(fitted.on(), Meeting::standing);
    if (!travel) return 0;
    out = std::fmin(out, *fitted.road - travel->low - bump_travel);
  }
  return std::fmax(0, out);
}

SensorGiven sensor_given(const build::Build& build, const AnsweredEnds& ends) {
  return {ends, build.variant().leveling.sensors};
}

LevelingFindingsGiven leveling_findings_given(const build::Build& build, Answered<SensorQuestion> sensors) {
  const build::Variant& variant = build.variant();
  return {std::move(sensors),         variant.leveling,
          variant.air.school,         variant.air.circuits == build::Circuits::per_axle,
          kit_begun(variant.air),     !variant.air.sensor.empty(),
          gauge_doubt(variant.brief), variant.brief.bump_travel,
          build.active_variant};
}

Findings find_in_leveling(const LevelingFindingsGiven& given) {
  Findings out;
  LevelingFindings(given, out).find();
  return out;
}

} // namespace mavrel::assess
