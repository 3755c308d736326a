// What the checks of Proving ask for: the whole car, filled, measured and driven.
#include "air/leak.h"
#include "assess/fit_up/asking.h"
#include "assess/leveling/calibration.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using build::Side;

constexpr double overnight = 12 * 3600.0, a_while = 20 * 60.0; // s that air is held for
constexpr double switch_within = 0.3e5;                        // Pa
constexpr double times_within = 0.25;                          // share of a time
constexpr double least_time_told = 0.1;                        // s that nobody times any better
constexpr double friction_doubt = 0.5;                         // share
constexpr double rod_left = 0.005;                             // m of a damper's rod above the highest height
constexpr double toe_within = 0.1 * std::numbers::pi / 180;

/// Front left, front right, rear left, rear right, where a bag is chosen.
struct CornerAsked {
  End end = End::front;
  Side side = Side::left;
  std::size_t corner = 0; // FL FR RL RR from 0
  std::string key;        // `front_left`
};
std::vector<CornerAsked> corners_of(const FitUpGiven& given) {
  std::vector<CornerAsked> out;
  for (const End end : build::both_ends)
    for (const Side side : build::both_sides)
      if (!given.fit(end).bag.empty())
        out.push_back({end, side, 2 * build::at(end) + (side == Side::right ? 1 : 0),
                       fmt::format("{}_{}", build::key_of(end), build::key_of(side))});
  return out;
}
Message corner_of(const CornerAsked& c) {
  return {words("{0} {1}"), {build::name_of(c.end), build::name_of(c.side)}};
}
void twin(Asking& to, const CornerAsked& c, double alike) {
  if (c.side != Side::right) return;
  to.figures().back().twin = to.last() - 1;
  to.figures().back().alike = alike;
}

/// What a simulation says of a time, or that it is still to be said.
void awaited(AskedFigure& f) {
  f.awaited = true;
}

void first_fill(Asking& to) {
  to.yes("stands", words("stands under the car, nobody under it"));
  to.yes("quiet", words("nothing hisses or foams at any fitting"));
  const AirGiven& air = to.given().air();
  if (!air.kit.relief.empty()) to.yes("relief", words("relief valve in the tank, nothing screwed in its way"));
  if (air.kit.shop_inlet == build::Fitted::yes) {
    AskedFigure& f = to.add("shop", {words("tank from shop air, empty to where it stops"), {}}, Kind::time);
    f.optional = true;
    awaited(f);
  }
  if (const auto cut = cut_pressures(air.parts)) {
    for (const auto& [key, name, p] : {std::tuple("cut_in", words("compressor starts at"), cut->first),
                                       std::tuple("cut_out", words("compressor stops at"), cut->second)}) {
      AskedFigure& f = to.add(key, {name, {}}, Kind::pressure);
      f.designed = p;
      f.least = p - switch_within, f.most = p + switch_within;
    }
    AskedFigure& f =
        to.add("own", {words("compressor fills the tank, from where it starts to where it stops"), {}}, Kind::time);
    awaited(f);
  }
}

/// @param least_seen  Pa: of less drop a gauge tells nothing
void held(Asking& to, double hold, bool tank, double least_seen) {
  const double ambient = air::Ambient{to.given().air().surroundings.altitude}.pressure();
  const Amount over{hold, hold >= 3600 ? Kind::hours : Kind::minutes, 0, {}};
  const auto ask = [&](std::string key, Message who, std::optional<double> pressure,
                       std::optional<std::size_t> corner) {
    AskedFigure& f = to.add(std::move(key), {words("{0}: lost in {1}"), {std::move(who), over}}, Kind::pressure);
    f.designed = 0;
    f.most = std::fmax(least_seen, pressure ? air::loss_minded * hold / 3600 * (*pressure + ambient) : 1e4);
    f.read = ReadBy::drop;
    f.hold = hold;
    f.corner = corner;
  };
  for (const CornerAsked& c : corners_of(to.given())) {
    const AnsweredEnd& e = to.given().end(c.end);
    std::optional<double> pressure;
    if (const auto road = e->fitted.road)
      if (const auto posed = posed_end(e->fitted, *road, 0)) pressure = posed->state.pressure;
    ask(c.key, corner_of(c), pressure, c.corner);
  }
  if (tank && to.given().air().parts[KitRole::tank])
    ask("tank", {words("Tank, compressor off"), {}}, full_tank(to.given().air()), std::nullopt);
}
void held_a_while(Asking& to) {
  held(to, a_while, true, to.given().gauge_error);
}
void held_overnight(Asking& to) {
  held(to, overnight, false, 0);
}

void times(Asking& to) {
  const FitUpGiven& given = to.given();
  for (const auto& [key, name, rises] : {std::tuple("all_up", words("all together, parked to road"), true),
                                         std::tuple("all_down", words("all together, road to parked"), false)}) {
    AskedFigure& f = to.add(key, {name, {}}, Kind::time);
    awaited(f);
    f.read = ReadBy::together;
    for (const End end : build::both_ends) {
      const FittedEnd& fitted = given.end(end)->fitted;
      if (given.fit(end).bag.empty() || !fitted.parked || !fitted.road) {
        f.read = ReadBy::hand;
        continue;
      }
      // A bag that lies on its stop is there a little above it.
      f.from_ends[build::at(end)] = rises ? *fitted.parked : *fitted.road;
      f.to_ends[build::at(end)] = rises ? *fitted.road : *fitted.parked + on_its_stop;
    }
  }
  for (const bool up : {true, false})
    for (const auto& corners : circuits_of(given.air().kit)) {
      const End end = corners.front() < 2 ? End::front : End::rear;
      const auto road = given.end(end)->fitted.road;
      if (!road || given.fit(end).bag.empty()) continue;
      const std::string key =
          corners.size() == 1 ? std::string(corner_line_key(corners.front())) : std::string(build::key_of(end));
      AskedFigure& f =
          to.add((up ? "fill_" : "vent_") + key,
                 {up ? words("{0}: {1} up") : words("{0}: {1} down again"), {circuit_name(corners), metres(time_step)}},
                 Kind::time);
      awaited(f);
      f.read = up ? ReadBy::fill : ReadBy::vent;
      f.corner = corners.front();
      f.from = up ? *road : *road + time_step;
      f.to = up ? *road + time_step : *road;
    }
}

void pressures(Asking& to) {
  const FitUpGiven& given = to.given();
  for (const bool up : {true, false})
    for (const CornerAsked& c : corners_of(given)) {
      const FittedEnd& fitted = given.end(c.end)->fitted;
      AskedFigure& f =
          to.add((up ? "up_" : "down_") + c.key,
                 {up ? words("{0}, road height reached from below") : words("{0}, road height reached from above"),
                  {corner_of(c)}},
                 Kind::pressure);
      f.read = ReadBy::pressure;
      f.corner = c.corner;
      const auto said = pressure_at(fitted, c.side == Side::right, up);
      if (!said) continue;
      f.designed = said->pressure;
      const double within =
          given.gauge_error +
          std::abs(said->a_kilogram) * (given.load_doubt + friction_doubt * fitted.model.friction / standard_gravity);
      f.least = said->pressure - within, f.most = said->pressure + within;
    }
}

void heights(Asking& to) {
  const FitUpGiven& given = to.given();
  for (const End end : build::both_ends) {
    if (given.fit(end).bag.empty()) continue;
    const FittedEnd& e = given.end(end)->fitted;
    for (const auto& [key, name, H] :
         {std::tuple("parked", words("parked"), e.parked), std::tuple("road", words("road"), e.road),
          std::tuple("ramp", words("ramp"), e.ramp)}) {
      if (!H) continue;
      for (const Side side : build::both_sides) {
        AskedFigure& f =
            to.add(fmt::format("{}_{}_{}", build::key_of(end), key, build::key_of(side)),
                   {words("{0} {1}, {2}"), {build::name_of(end), build::name_of(side), name}}, Kind::length);
        f.designed = *H;
        f.least = *H - height_within;
        f.most = *H + height_within;
        f.read = ReadBy::height;
        f.corner = 2 * build::at(end) + (side == Side::right ? 1 : 0);
        if (side == Side::right) f.twin = to.last() - 1, f.alike = height_within;
      }
    }
  }
}

void calibrated(Asking& to) {
  to.yes("floor", words("level floor, wheels straight, nothing in the way"));
  to.yes("brake", words("brake as the controller wants it, tank full"));
  to.yes("stored", words("every preset stored at its height and called up again"));
  const FitUpGiven& given = to.given();
  for (const CornerAsked& c : corners_of(given)) {
    const FittedEnd& e = given.end(c.end)->fitted;
    if (!e.road) continue;
    const build::SensorFit& fit = given.sensors.given().fits[build::at(c.end)];
    const bool right = c.side == Side::right;
    const auto at = counts_at(e, fit, *e.road, right), low = counts_at(e, fit, *e.road - height_within, right),
               high = counts_at(e, fit, *e.road + height_within, right);
    if (!at || !low || !high) continue;
    AskedFigure& f = to.add("counts_" + c.key, {words("{0}: counts at road height"), {corner_of(c)}}, Kind::plain);
    f.designed = *at;
    f.least = std::fmin(*low, *high), f.most = std::fmax(*low, *high);
    f.optional = true;
  }
}

/// The least of the gaps round the wheel, straight and at both locks, at every preset.
void lock_gaps(Asking& to) {
  const End end = *to.end();
  const AnsweredEnd& answered = to.given().end(end);
  const auto& names = to.given().air().presets;
  for (std::size_t i = 0; i < answered->fitted.presets.size() && i < names.size(); ++i) {
    const auto H = answered->fitted.presets[i];
    if (!H) continue;
    const GapCurve* nearest = nullptr;
    double apart = 0;
    for (const GapCurve& gap : answered->assessment.gaps) {
      if (gap.mover != Mover::tyre) continue;
      const auto here = gap.at(*H, true);
      if (!here) continue;
      if (!nearest || *here - gap.near.room < apart - nearest->near.room) nearest = &gap, apart = *here;
    }
    AskedFigure& f =
        to.add(fmt::format("preset_{}", i),
               nearest ? Message{words("{0}, {1}: least gap round the wheel, lock to lock ({2})"),
                                 {names[i], metres(*H), nearest->near.told()}}
                       : Message{words("{0}, {1}: least gap round the wheel, lock to lock"), {names[i], metres(*H)}},
               Kind::length);
    if (nearest) f.designed = apart;
    f.least = nearest ? nearest->near.room : to.given().room.rooms.tyre;
  }
}

void top_out(Asking& to) {
  const FittedEnd& e = to.given().end(*to.end())->fitted;
  std::optional<double> top;
  for (const auto& H : e.presets)
    if (H && (!top || *H > *top)) top = H;
  if (top && e.model.map && e.model.map->has_damper() && e.model.damper_open && e.model.map->contains(*top)) {
    const double left = *e.model.damper_open - e.model.map->damper(*top).value;
    for (const Side side : build::both_sides) {
      AskedFigure& f =
          to.add(fmt::format("rod_{}", build::key_of(side)),
                 {words("damper’s rod left at {0}, {1}"), {metres(*top), build::name_of(side)}}, Kind::length);
      f.designed = left;
      f.least = left > 0 ? std::fmin(left, rod_left) : rod_left; // designed past its end it is not right
      if (side == Side::right) f.twin = to.last() - 1, f.alike = height_within;
    }
  }
  to.yes("no_knock", words("no knock when it is raised all the way"));
  to.yes("slack", words("hoses, shafts, wires and sensor rods slack at the top"));
  to.yes("seated", words("bag in both its seats at the top"));
}

void road_test(Asking& to) {
  to.yes("no_knock", words("no knock on a smooth road"));
  to.yes("no_rub", words("nothing rubs: at both locks, over a bump, fully laden"));
  to.yes("straight", words("brakes and steers straight"));
  to.yes("quiet", words("compressor quiet while it rolls"));
  for (const CornerAsked& c : corners_of(to.given())) {
    const auto road = to.given().end(c.end)->fitted.road;
    if (!road) continue;
    AskedFigure& f = to.add("after_" + c.key, {words("{0}: height after the drive"), {corner_of(c)}}, Kind::length);
    f.designed = *road;
    f.least = *road - 2 * height_within, f.most = *road + 2 * height_within;
    f.read = ReadBy::height;
    f.corner = c.corner;
    twin(to, c, 2 * height_within);
  }
}

void alignment(Asking& to) {
  const FitUpGiven& given = to.given();
  for (const auto& [what, key, name, track, within] :
       {std::tuple(true, "", words("camber, {0} {1}"), &tracks::camber, camber_within),
        std::tuple(false, "toe_", words("toe, {0} {1}"), &tracks::toe, toe_within)})
    for (const CornerAsked& c : corners_of(given)) {
      const AnsweredEnd& e = given.end(c.end);
      std::optional<double> designed;
      if (e->fitted.road)
        if (const Track* curve = e->assessment.find(*track, 0)) designed = curve->at(*e->fitted.road);
      AskedFigure& f = to.add(key + c.key, {name, {build::name_of(c.end), build::name_of(c.side)}}, Kind::angle);
      f.designed = designed;
      f.optional = !what;
      if (designed) f.least = *designed - within, f.most = *designed + within;
      twin(to, c, within);
    }
}

void lamps(Asking& to) {
  to.yes("aimed", words("aimed at road height, as the local law has it"));
  to.yes("laden", words("still aimed with the boot full"));
}

} // namespace

std::optional<SaidPressure> pressure_at(const FittedEnd& end, bool right, bool from_below) {
  if (!end.road || !end.bag || !end.model.map || end.model.loads.empty() || !end.model.loads[0]) return std::nullopt;
  const BagOnEnd on = end.on();
  const auto place = on.place(*end.road);
  if (!place) return std::nullopt;
  const double mass = end.model.bag_masses(*end.model.loads[0])[right ? 1 : 0];
  // What rises is held down by friction, what sinks is held up.
  const double held = (from_below ? 1 : -1) * end.model.friction / standard_gravity;
  const auto p = on.pressure(*place, mass + held), more = on.pressure(*place, mass + held + 1);
  if (!p || !more) return std::nullopt;
  return SaidPressure{*p, *more - *p};
}

void judge_predicted(AskedFigure& f, double predicted) {
  f.awaited = false;
  f.designed = predicted;
  const double within = std::fmax(times_within * predicted, least_time_told);
  f.least = std::fmax(0.0, predicted - within), f.most = predicted + within;
}

void ask_proof(Asking& to, std::string_view key) {
  constexpr struct {
    std::string_view key;
    void (*ask)(Asking&);
  } table[] = {
      {"fill", first_fill},     {"leak_minutes", held_a_while}, {"leak_hold", held_overnight}, {"times", times},
      {"pressures", pressures}, {"heights", heights},           {"calibrated", calibrated},    {"lock_gaps", lock_gaps},
      {"top_out", top_out},     {"road_test", road_test},       {"camber", alignment},         {"lamps", lamps},
  };
  for (const auto& row : table)
    if (row.key == key) row.ask(to);
}

} // namespace mavrel::assess
