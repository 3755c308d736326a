#include "assess/proving/predictions.h"

#include "assess/fit_up/asking.h"
#include "assess/leveling/by_hand.h"
#include "build/names.h"

namespace mavrel::assess {

namespace {

Message never_there(const std::vector<std::size_t>& corners, double H, double longest) {
  return {words("{0} does not get to {1} in {2}."),
          {circuit_name(corners), metres(H), Amount{longest, Kind::time, 0, {}}}};
}

} // namespace

Expected<CornerTimes> corner_times(const LevelingGiven& given, std::size_t circuit, double flow) {
  LevelingGiven timed = given;
  const auto circuits = circuits_of(given.air.kit);
  for (const std::size_t corner : circuits[circuit])
    timed.air.kit.learned_flow[corner] = given.air.kit.learned_flow[corner].value_or(1) * flow;
  const auto car = learned_car(timed);
  if (!car) return refuse(car.error());
  ByHand by_hand(*car);
  const double H = by_hand.height(circuit);
  CornerTimes out;
  const auto fill = by_hand.move({{circuit, H + time_step}});
  if (!fill) return refuse(never_there(circuits[circuit], H + time_step, by_hand.longest()));
  out.fill = *fill;
  by_hand.wait(ByHand::settles);
  const double above = by_hand.height(circuit);
  const auto vent = by_hand.move({{circuit, above - time_step}});
  if (!vent) return refuse(never_there(circuits[circuit], above - time_step, by_hand.longest()));
  out.vent = *vent;
  return out;
}

Expected<double> together_time(const LevelingGiven& given, const std::array<double, 2>& from,
                               const std::array<double, 2>& to, bool aired_out) {
  const auto car = learned_car(given, from, true, aired_out);
  if (!car) return refuse(car.error());
  ByHand by_hand(*car);
  const auto circuits = circuits_of(given.air.kit);
  std::vector<ByHand::Move> moves;
  for (std::size_t i = 0; i < circuits.size(); ++i)
    moves.push_back({i, to[circuits[i].front() < 2 ? 0 : 1]});
  const auto took = by_hand.move(moves);
  if (!took)
    return refuse(words("All corners together do not get from {0} to {1} at the front."),
                  {told_from(metres(from[0]), to[0]), told_from(metres(to[0]), from[0])});
  return *took;
}

std::optional<Predicted> predict(const LevelingGiven& given, const std::stop_token& stop) {
  Predicted out;
  const AirGiven& air = given.air;
  const auto stopped = [&] { return stop.stop_requested(); };
  const auto trouble = [&](const Message& why) {
    for (const Message& m : out.trouble)
      if (say(m) == say(why)) return;
    out.trouble.push_back(why);
  };
  if (const auto first = first_fill(air, stop); !first)
    trouble(first.error());
  else if (first->shop_time)
    out.figures["fill/shop"] = *first->shop_time;
  if (const auto cut = cut_pressures(air.parts)) {
    const auto own = fill_tank(air, cut->first, cut->second, stop);
    if (!own)
      trouble(own.error());
    else if (own->time)
      out.figures["fill/own"] = *own->time;
    else
      trouble({words("The compressor never gets the tank to its cut-out."), {}});
  }
  const auto parked = preset_of(air, build::PresetUse::parked), road = preset_of(air, build::PresetUse::road);
  if (parked && road)
    for (const bool up : {true, false}) {
      if (stopped()) return std::nullopt;
      const Standing lies = *standing_of(air, *parked);
      const auto low = lies.heights, high = *heights_of(air, *road);
      auto down = low;
      for (double& H : down)
        H += on_its_stop;
      const auto took = together_time(given, up ? low : high, up ? high : down, up && lies.aired_out);
      if (!took)
        trouble(took.error());
      else
        out.figures[up ? "times/all_up" : "times/all_down"] = *took;
    }
  const auto circuits = circuits_of(air.kit);
  for (std::size_t i = 0; i < circuits.size(); ++i) {
    if (stopped()) return std::nullopt;
    const auto times = corner_times(given, i);
    if (!times) {
      trouble(times.error());
      continue;
    }
    const std::string key = circuits[i].size() == 1
                                ? std::string(corner_line_key(circuits[i].front()))
                                : std::string(build::key_of(circuits[i].front() < 2 ? End::front : End::rear));
    out.figures["times/fill_" + key] = times->fill;
    out.figures["times/vent_" + key] = times->vent;
  }
  if (stopped()) return std::nullopt;
  return out;
}

} // namespace mavrel::assess
