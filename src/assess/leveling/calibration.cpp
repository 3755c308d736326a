#include "assess/leveling/calibration.h"

#include "assess/air/lift.h"
#include "assess/end/travel.h"

#include <algorithm>
#include <cmath>
#include <numbers>
#include <stop_token>

namespace mavrel::assess {

namespace {

Amount minutes(double s) {
  return {s, Kind::time, 0, {}};
}

/// Road first, then what is higher, then what is lower: in the order nobody has to undo.
std::vector<std::size_t> in_order(const AirGiven& air) {
  std::vector<std::size_t> out;
  for (std::size_t i = 0; i < air.presets.size(); ++i)
    if (heights_of(air, i)) out.push_back(i);
  const auto road = preset_of(air, build::PresetUse::road);
  const auto mean = [&](std::size_t i) {
    const auto H = *heights_of(air, i);
    return H[0] + H[1];
  };
  const double level = road ? mean(*road) : 0;
  const auto rank = [&](std::size_t i) {
    const double off = mean(i) - level;
    return std::tuple(road && i == *road ? 0 : off >= 0 ? 1 : 2, std::abs(off));
  };
  std::stable_sort(out.begin(), out.end(), [&](std::size_t a, std::size_t b) { return rank(a) < rank(b); });
  return out;
}

StoredPreset stored(const LevelingGiven& given, std::size_t preset) {
  const AirGiven& air = given.air;
  StoredPreset out;
  out.preset = preset, out.name = air.presets[preset], out.use = air.uses[preset];
  const Standing standing = *standing_of(air, preset);
  out.height = standing.heights;
  const auto car = car_air(air, {out.height, given.load_case, full_tank(air).value_or(0), false, standing.aired_out});
  if (!car) {
    out.trouble = car.error();
    return out;
  }
  std::array<double, 2> surveyed{};
  for (std::size_t c = 0; c < 4; ++c) {
    out.pressure[c] = car->network.volumes[car->bags[c]].gauge_pressure;
    const FittedEnd& end = air.ends[c / 2]->fitted;
    out.counts[c] = counts_at(end, given.leveling.sensors[c / 2], out.height[c / 2], c % 2 == 1);
    out.on_stop = out.on_stop || out.height[c / 2] < car->travel[c].first + preset_on_stop;
    surveyed[c / 2] = end.model.surveyed_height.value_or(out.height[c / 2]);
  }
  if (air.wheelbase) out.nose_up = ((out.height[0] - surveyed[0]) - (out.height[1] - surveyed[1])) / *air.wheelbase;
  return out;
}

void tell(const LevelingGiven& given, Calibration& out) {
  const auto step = [](std::vector<CalibrationStep>& to, Message what, Message why) {
    to.push_back({std::move(what), std::move(why)});
  };
  const auto full = full_tank(given.air);
  const control::Rules& rules = given.leveling.set_up().rules;
  const bool heights = goes_by_height(rules.method);
  step(out.before, {words("Level floor, tyres at pressure, the load it is driven with"), {}},
       {words("A floor out of level is stored as a lean."), {}});
  step(out.before, {words("Wheels straight, car rolled to and fro once"), {}},
       {words("Tyres that were dragged sideways hold it up."), {}});
  step(out.before, {words("Nothing under it, nobody beside it"), {}},
       {words("It will move by itself. Never under a car held by air: stands."), {}});
  step(out.before, {words("Hand brake as the controller wants it, mostly off, wheels chocked at one end"), {}},
       {words("Wheels must roll a little as the car goes up."), {}});
  step(out.before, {words("Tank full, {0}, engine running"), {pascals(full.value_or(0))}},
       {words("A tank that runs low teaches bursts that are too long."), {}});
  if (heights)
    step(out.steps, {words("Push each corner down by hand and watch its own sensor"), {}},
         {words("Swapped leads and a rod on the wrong side show now and not on the road."), {}});
  for (const StoredPreset& p : out.presets) {
    if (p.trouble) continue;
    step(out.steps,
         {words("{0}: bring it to {1} front, {2} rear by the tape, corner by corner, then store"),
          {p.name, metres(p.height[0]), metres(p.height[1])}},
         p.on_stop ? Message{words("It rests on its stops there: let out all that wants out."), {}}
                   : Message{words("Wait {0} for the air to cool, trim once more, then store."), {minutes(30)}});
  }
  if (!out.bursts.empty() && rules.method == control::LevelMethod::bursts)
    step(out.steps, {words("Let it learn its bursts at road height, up and down, circuit by circuit"), {}},
         {words("The table shows what they buy on this car: a corner far off has a pinched line or a sticking valve."),
          {}});
  step(out.steps, {words("Drive it for ten minutes, stop on the same place, read the heights again"), {}},
       {words("Rubber and seals settle: store once more what is off by more than half the band, {0}."),
        {metres(rules.band / 2, 1)}});
  const auto road = std::find_if(out.presets.begin(), out.presets.end(),
                                 [](const StoredPreset& p) { return p.use == build::PresetUse::road && !p.trouble; });
  if (road != out.presets.end() && road->nose_up)
    step(out.steps, {words("Set lamps, and cameras that watch the lane, at road height"), {}},
         {words("The body lies {0} nose {1} of how it was surveyed: {2} on a wall 10 m away. The local inspection "
                "decides."),
          {Amount{std::abs(*road->nose_up), Kind::angle, 2, {}}, *road->nose_up >= 0 ? words("up") : words("down"),
           metres(std::abs(*road->nose_up) * 10)}});
}

} // namespace

std::optional<double> counts_at(const FittedEnd& end, const build::SensorFit& fit, double H, bool right) {
  const auto linkage = linkage_of(fit);
  if (!linkage || !end.model.surveyed_height) return std::nullopt;
  const double middle = end.road.value_or(*end.model.surveyed_height);
  const auto pose = control::sensor_pose(*linkage, H - *end.model.surveyed_height);
  const auto at_middle = control::sensor_pose(*linkage, middle - *end.model.surveyed_height);
  if (!pose || !at_middle) return std::nullopt;
  // Set to read half its range at road height. Turned over to the other side of the car the shaft turns the other way.
  const double turned = std::remainder(pose->angle - at_middle->angle, 2 * std::numbers::pi);
  const double way = right && fit.mirrored == build::Mirrored::no ? -1 : 1;
  return fit.counts / 2 + way * turned * fit.counts / fit.range;
}

std::optional<Expected<Calibration>> answer_calibration(const LevelingGiven& given, const std::stop_token& stop) {
  Calibration out;
  for (const std::size_t preset : in_order(given.air))
    out.presets.push_back(stored(given, preset));
  if (stop.stop_requested()) return std::nullopt;
  auto car = learned_car(given);
  if (!car) return Expected<Calibration>(refuse(car.error()));
  for (const control::ValvePair& pair : car->circuits)
    out.circuits.push_back(pair.corners);
  out.bursts = std::move(car->learned);
  tell(given, out);
  if (stop.stop_requested()) return std::nullopt;
  return Expected<Calibration>(std::move(out));
}

} // namespace mavrel::assess
