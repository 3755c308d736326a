#include "report/air_json.h"

#include "build/names.h"
#include "report/json_tree.h"

#include <fmt/format.h>

namespace mavrel::report {

using namespace assess;

namespace {

constexpr const char* corner_keys[] = {"front_left", "front_right", "rear_left", "rear_right"};

Json figures_of(const KitFigures& f) {
  Json out = Json::object();
  const auto put = [&](const char* key, const auto& answer, auto&& made) {
    if (answer)
      out[key] = made(*answer);
    else
      out[key] = {{"why_not", say(answer.error())}};
  };
  put("lifts", f.lifts, [](const LiftsFromFull& l) {
    return Json{{"from_full", l.lifts}, {"or_more", l.more}, {"first_s", or_null(l.first)}, {"first_air_kg", l.air}};
  });
  put("ready", f.ready, [](const Filling& r) { return Json{{"after_s", or_null(r.time)}, {"rested_s", r.rested}}; });
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
    return Json{{"air_kg", d.air}, {"compressor_s", d.run}, {"share_of_drive", d.share_of_drive}};
  });
  return out;
}

} // namespace

std::string lift_json(const AirGiven& air, const MoveAsked& asked, const Lift& lift,
                      const std::optional<KitFigures>& figures) {
  Json out = {
      {"from", air.presets[asked.from]}, {"to", air.presets[asked.to]},      {"arrived_s", or_null(lift.arrived)},
      {"air_kg", lift.air_used},         {"tank_after_pa", lift.tank_after}, {"worst_lean_m", lift.worst_lean},
      {"worst_rake_m", lift.worst_rake}, {"settles_m", lift.settled},        {"compressor_s", lift.compressor_s}};
  if (!lift.stuck.empty()) out["short"] = {{"circuit", lift.stuck}, {"by_m", lift.short_by}};
  Json corners = Json::array();
  const LiftLook& last = lift.looks.back();
  for (std::size_t c = 0; c < 4; ++c)
    corners.push_back({{"corner", corner_keys[c]},
                       {"target_m", lift.target[c]},
                       {"height_m", last.height[c]},
                       {"pressure_pa", last.pressure[c]},
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
  if (figures) out["kit"] = figures_of(*figures);
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
                       {"price", or_null(c.price)},
                       {"meets", c.meets},
                       {"best", c.best},
                       {"lost", c.lost.empty() ? Json(nullptr) : Json(say(c.lost))}});
  }
  Json out = {{"tried", sizing.tried}, {"choices", std::move(choices)}};
  if (sizing.trouble) out["why_not"] = say(*sizing.trouble);
  return printed(out);
}

} // namespace mavrel::report
