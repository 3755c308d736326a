#include "report/air_json.h"

#include "build/names.h"
#include "report/json_tree.h"

#include <fmt/format.h>

namespace mavrel::report {

using namespace assess;

namespace {

constexpr const char* corner_keys[] = {"front_left", "front_right", "rear_left", "rear_right"};

Json figures_of(const AirGiven& air, const KitFigures& f) {
  Json out = {{"load_case", case_name(air, 0)}};
  const auto put_in = [](Json& to, const char* key, const auto& answer, auto&& made) {
    if (answer)
      to[key] = made(*answer);
    else
      to[key] = {{"why_not", say(answer.error())}};
  };
  const auto put = [&](const char* key, const auto& answer, auto&& made) { put_in(out, key, answer, made); };
  const auto lifts = [](const LiftsFromFull& l) {
    Json made{{"from_full", l.lifts}, {"or_more", l.more}, {"first_s", or_null(l.first)}, {"first_air_kg", l.air}};
    if (!l.stuck.empty()) made["short"] = {{"circuit", l.stuck}, {"by_m", l.short_by}};
    return made;
  };
  const auto ready = [](const Filling& r) {
    Json made{{"after_s", or_null(r.time)}, {"rested_s", r.rested}};
    if (r.by_shop) made["by_shop_air"] = true;
    return made;
  };
  put("lifts", f.lifts, lifts);
  put("ready", f.ready, ready);
  if (f.heaviest) {
    Json& heaviest = out["heaviest"] = {{"load_case", case_name(air, f.heaviest->load_case)}};
    put_in(heaviest, "lifts", f.heaviest->lifts, lifts);
    put_in(heaviest, "ready", f.heaviest->ready, ready);
  }
  put("first_fill", f.first, [](const FirstFill& r) {
    return Json{{"shop_s", or_null(r.shop_time)},
                {"shop_pressure_pa", r.shop_pressure},
                {"rest_s", or_null(r.rest_time)},
                {"own_s", or_null(r.own_time)}};
  });
  put("tyres", f.tyres, [](const TyreAir& t) {
    return Json{{"four_s", or_null(t.time)}, {"tyres_from_full", t.tyres}};
  });
  put("day", f.day, [](const AirDay& d) {
    return Json{{"air_kg", d.air},
                {"leveling_kg", d.leveling},
                {"leaks_kg", d.leaks},
                {"compressor_s", d.run},
                {"share_of_drive", d.share_of_drive}};
  });
  Json battery = Json::array();
  for (const OnBattery& b : f.battery)
    battery.push_back({{"temperature_k", b.temperature},
                       {"current_a", b.current},
                       {"run_s", b.run},
                       {"charge_as", b.charge},
                       {"volts", b.volts},
                       {"starts_from", b.starts_from},
                       {"lifts", or_null(b.lifts)},
                       {"until_cut", or_null(b.until_cut)}});
  out["battery"] = std::move(battery);
  return out;
}

} // namespace

std::string lift_json(const AirGiven& air, const MoveAsked& asked, const Lift& lift,
                      const std::optional<KitFigures>& figures) {
  Json out = {
      {"from", air.presets[asked.from]}, {"to", air.presets[asked.to]},      {"arrived_s", or_null(lift.arrived)},
      {"air_kg", lift.air_used},         {"tank_after_pa", lift.tank_after}, {"worst_lean_m", lift.worst_lean},
      {"worst_rake_m", lift.worst_rake}, {"settles_m", lift.settled},        {"compressor_s", lift.compressor_s}};
  out["load_case"] = case_name(air, asked.load_case);
  if (!lift.stuck.empty()) out["short"] = {{"circuit", lift.stuck}, {"by_m", lift.short_by}};
  if (lift.on_stop) out["on_stop_s"] = *lift.on_stop;
  for (const End end : build::both_ends)
    if (on_springs(air, end)) out["on_its_own_springs"] = build::key_of(end);
  Json others = Json::array();
  for (const OtherStart& other : lift.others) {
    Json& one = others.emplace_back(Json{{"how", say(other.what)}, {"arrived_s", or_null(other.arrived)}});
    if (!other.stuck.empty()) one["short"] = {{"circuit", other.stuck}, {"by_m", other.short_by}};
  }
  if (!others.empty()) out["others"] = std::move(others);
  Json corners = Json::array();
  const LiftLook& last = lift.looks.back();
  for (std::size_t c = 0; c < 4; ++c)
    corners.push_back({{"corner", corner_keys[c]},
                       {"target_m", lift.target[c]},
                       {"height_m", last.height[c]},
                       {"pressure_pa", on_springs(air, c < 2 ? End::front : End::rear) ? 0 : last.pressure[c]},
                       {"arrived_s", or_null(lift.arrived_at[c])}});
  out["corners"] = std::move(corners);
  Json throttles = Json::array();
  for (const Throttle& t : lift.throttles)
    throttles.push_back({{"part", t.name},
                         {"role", row_of(t.role).field},
                         {"share", t.share},
                         {"next", t.next.empty() ? Json(nullptr) : Json(t.next)},
                         {"seconds_won", or_null(t.seconds_won)}});
  out["throttles"] = std::move(throttles);
  if (figures) out["kit"] = figures_of(air, *figures);
  return printed(out);
}

std::string lift_csv(const Lift& lift) {
  std::string out = "time_s";
  for (const char* what : {"height_mm", "pressure_bar", "load_n"})
    for (const char* corner : corner_keys)
      out += fmt::format(",{}_{}", corner, what);
  out += ",tank_bar,tank_c,compressors\n";
  for (const LiftLook& look : lift.looks) {
    out += fmt::format("{:.3f}", look.time);
    for (const double h : look.height)
      out += fmt::format(",{:.2f}", h * 1e3);
    for (const double p : look.pressure)
      out += fmt::format(",{:.4f}", p * 1e-5);
    for (const double f : look.wheel_force)
      out += fmt::format(",{:.1f}", f);
    out += fmt::format(",{:.4f},{:.2f},{:g}\n", look.tank_pressure * 1e-5, look.tank_temperature - 273.15,
                       look.compressor);
  }
  return out;
}

std::string sizing_json(const SizingGiven& given, const Sizing& sizing, std::size_t most) {
  Json choices = Json::array();
  for (const KitChoice& c : sizing.choices) {
    if (choices.size() >= most) break;
    choices.push_back({{"compressor", given.compressors[c.compressor].name},
                       {"compressors", c.compressors},
                       {"tank", given.tanks[c.tank].name},
                       {"valves", given.valves[c.valves].name},
                       {"line", given.lines[c.line].name},
                       {"rise_s", or_null(c.rise)},
                       {"lifts", c.lifts},
                       {"ready_s", or_null(c.ready)},
                       {"current_a", c.current},
                       {"sound_db", or_null(c.sound)},
                       {"room_m3", c.room},
                       {"mass_kg", c.mass},
                       {"burst_m", c.burst},
                       {"price", c.price},
                       {"unpriced", c.unpriced},
                       {"meets", c.meets},
                       {"best", c.best},
                       {"lost", c.lost.empty() ? Json(nullptr) : Json(say(c.lost))}});
  }
  Json added = Json::array();
  for (const AddedPart& part : given.added)
    added.push_back({{"role", row_of(part.role).field}, {"part", part.name}, {"why", say(part.why)}});
  Json lacks = Json::array();
  for (const Message& what : given.lacks)
    lacks.push_back(say(what));
  Json out = {{"tried", sizing.tried},
              {"load_case", case_name(given.air, given.load_case)},
              {"added", std::move(added)},
              {"lacks", std::move(lacks)},
              {"choices", std::move(choices)}};
  if (sizing.trouble) out["why_not"] = say(*sizing.trouble);
  return printed(out);
}

} // namespace mavrel::report
