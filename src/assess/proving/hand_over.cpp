#include "assess/proving/hand_over.h"

#include "assess/fit_up/features.h"
#include "assess/fit_up/plan.h"
#include "build/names.h"

#include <algorithm>

namespace mavrel::assess {

namespace {

Message what_for(build::PresetUse use) {
  switch (use) {
  case build::PresetUse::parked:
    return {words("Standing only. It is never driven so, not a metre."), {}};
  case build::PresetUse::road:
    return {words("For driving. Wheels, lamps and brakes were proved at it."), {}};
  case build::PresetUse::ramp:
    return {words("Over ramps, kerbs and aprons at walking pace; back down before the road."), {}};
  case build::PresetUse::other:
    break;
  }
  return {words("As agreed; driven only where Mavrel’s road window says so."), {}};
}

std::vector<HandedPreset> presets_of(const FitUpGiven& given) {
  std::vector<HandedPreset> out;
  const AirGiven& air = given.air();
  for (std::size_t i = 0; i < air.presets.size(); ++i) {
    HandedPreset preset;
    preset.name = air.presets[i], preset.use = air.uses[i], preset.what_for = what_for(air.uses[i]);
    bool both = true;
    for (const End end : build::both_ends) {
      const std::size_t e = build::at(end);
      const FittedEnd& fitted = given.end(end)->fitted;
      if (i >= fitted.presets.size() || !fitted.presets[i]) {
        both = false;
        continue;
      }
      preset.height[e] = *fitted.presets[i];
      // On its stop any lower pressure stands as well: nothing is to be expected there.
      const auto travel = given.end(end)->assessment.windows.reach;
      if (travel && preset.height[e] < travel->low.height + 5e-4) continue;
      if (const auto posed = posed_end(fitted, preset.height[e], 0))
        preset.pressure[2 * e] = posed->state.side_pressure[0],
                            preset.pressure[2 * e + 1] = posed->state.side_pressure[1];
    }
    if (both) out.push_back(std::move(preset));
  }
  return out;
}

Message learned_of(const build::LearnedNote& note) {
  const auto dot = note.what.find('.');
  const std::string where = note.what.substr(0, dot), what = dot == std::string::npos ? "" : note.what.substr(dot + 1);
  const char* at = where == "front"         ? words("Front")
                   : where == "rear"        ? words("Rear")
                   : where == "front_left"  ? words("Front left")
                   : where == "front_right" ? words("Front right")
                   : where == "rear_left"   ? words("Rear left")
                                            : words("Rear right");
  if (what == "friction") return {words("{0}: friction at the wheel {1}"), {at, Amount{note.is, Kind::force, -1, {}}}};
  return {what == "ratio"  ? words("{0}: motion ratio {1} of what was surveyed")
          : what == "area" ? words("{0}: bag’s area {1} of its card’s")
                           : words("{0}: air gets to it {1} as freely as its parts say"),
          {at, Amount{note.is, Kind::share, 1, {}}}};
}

} // namespace

HandOver hand_over(const FitUpGiven& given, const std::vector<HoldPoint>& points, std::optional<DrainRound> drain) {
  HandOver out;
  out.presets = presets_of(given);
  for (const HoldPoint& p : points) {
    if (!is_proof(p)) continue;
    HandedProof proof;
    proof.id = p.id, proof.name = p.name, proof.state = p.state;
    if (p.note) proof.by = given.fit_up->checks[*p.note].by, proof.day = given.fit_up->checks[*p.note].day;
    out.proved += p.state == CheckState::passed;
    out.proofs.push_back(std::move(proof));
  }
  const auto say = [](std::vector<Message>& to, const char* text, std::vector<Argument> parts = {}) {
    to.push_back({text, std::move(parts)});
  };
  const auto features = features_of(given);
  const auto any = [&](build::Feature f) { return ((features[0] | features[1]) & bit(f)) != 0; };
  say(out.never, words("Never under it while air holds it: stands first."));
  say(out.never, words("Never driven parked, nor at any height but those for driving."));
  say(out.never, words("Never open a line or fitting before its air is let out."));
  say(out.never, words("Never loaded beyond its rating: bags carry more, the car does not."));
  if (given.fit(End::front).mounting.held != build::Held::both ||
      given.fit(End::rear).mounting.held != build::Held::both)
    say(out.never, words("Never lifted by its body with the wheels hanging: a bag may leave its seat."));
  say(out.listen,
      words("A knock on a smooth road: it tops out, or a collar is loose. Lower it a little and have it looked at."));
  say(out.listen, words("A hiss after it stands still, or a nose on the ground in the morning: a leak."));
  if (!given.air().kit.compressor.empty())
    say(out.listen, words("A compressor that runs often or long: small leaks wear it out."));
  say(out.listen, words("A rub at full lock or over a bump: stop, raise it, and have it looked at."));
  say(out.inspect, words("Bags, plates and lines as fitted, and that none is a plastic pipe but rated tubing."));
  if (any(build::Feature::welded) || any(build::Feature::notch) || any(build::Feature::links))
    say(out.inspect, words("Welds on frame, axle or links, and who made them."));
  say(out.inspect, words("Heights at which it is driven, the least of them, and the lamps at it."));
  if (any(build::Feature::other_wheel))
    say(out.inspect, words("Tyres and wheels as fitted, with their clearance at full lock."));
  say(out.inspect, words("Relief valve of the tank, and the fuse at the battery."));
  for (const build::LearnedNote& n : given.proving->learned)
    out.learned.push_back(learned_of(n));
  out.drain = drain;
  out.taken = taken_on(given);
  for (const End end : build::both_ends)
    if (const auto& bag = given.end(end)->fitted.bag; bag && bag->card.min_pressure > 0)
      out.least_standing = std::max(out.least_standing.value_or(0), bag->card.min_pressure);
  return out;
}

} // namespace mavrel::assess
