// mavrel-cli water, leak and cable.
#include "air/cable.h"
#include "air/leak.h"
#include "air/water.h"
#include "cli/commands.h"
#include "cli/typed.h"
#include "file/text_file.h"
#include "quantity/text.h"
#include "shelf/leak_csv.h"

#include <nlohmann/json.hpp>

#include <filesystem>

namespace mavrel::cli {

namespace {

using Json = nlohmann::ordered_json;

} // namespace

Expected<std::string> water(const WaterRequest& request) {
  const auto outside = within("--air", request.air, Kind::temperature, 220, 330);
  const auto humidity = within("--humidity", request.humidity, Kind::share, 0, 1);
  const auto tank = within("--tank", request.tank, Kind::pressure, 0, 5e6);
  const auto tank_air = within("--tank-air", request.tank_air, Kind::temperature, 220, 370);
  const auto used = within("--used", request.used, Kind::mass, 0, 1e6);
  const auto altitude = within("--altitude", request.altitude, Kind::altitude, -500, 9000);
  for (const auto* value : {&outside, &humidity, &tank, &tank_air, &used, &altitude})
    if (!*value) return refuse(value->error());
  const auto balance = air::water_in_tank({*altitude, *outside}, *humidity, *tank, *tank_air);
  const Json out = {{"in_g_per_kg", balance.taken_in * 1e3},
                    {"kept_g_per_kg", balance.kept * 1e3},
                    {"liquid_g_per_kg", balance.liquid * 1e3},
                    {"liquid_g", balance.liquid * *used * 1e3}};
  return out.dump(1, ' ', false, Json::error_handler_t::replace);
}

Expected<std::string> leak(const LeakRequest& request) {
  const auto volume = within("--volume", request.volume, Kind::volume, 1e-6, 10);
  if (!volume) return refuse(volume.error());
  const auto altitude = within("--altitude", request.altitude, Kind::altitude, -500, 9000);
  if (!altitude) return refuse(altitude.error());
  const auto text = read_text(request.readings, 1024 * 1024);
  if (!text) return refuse(text.error());
  const auto named = [&](const Message& why) {
    return refuse(words("{0}: {1}"), {shown_path(std::filesystem::path(request.readings).filename()), why});
  };
  const auto readings = shelf::read_leak_csv(*text);
  if (!readings) return named(readings.error());
  const auto found = air::find_leak(*readings, *volume, *altitude);
  if (!found) return named(found.error());
  const Json out = {{"mass_kg", found->mass},
                    {"loss_kg_per_h", found->loss * 3600},
                    {"loss_sd_kg_per_h", found->loss_sd * 3600},
                    {"leaks", found->leaks()}};
  return out.dump(1, ' ', false, Json::error_handler_t::replace);
}

Expected<std::string> cable(const CableRequest& request) {
  const auto current = within("--current", request.current, Kind::current, 1e-3, 1000);
  const auto length = within("--length", request.length, Kind::altitude, 0, 100);
  const auto volts = within("--volts", request.volts, Kind::voltage, 1, 100);
  const auto drop = within("--drop", request.drop, Kind::share, 1e-4, 0.5);
  for (const auto* value : {&current, &length, &volts, &drop})
    if (!*value) return refuse(value->error());
  const auto found = air::cable_for(*current, *length, *volts, *drop);
  if (!found) return refuse(found.error());
  const Json out = {{"section_mm2", found->section},
                    {"fuse_a", found->fuse},
                    {"drop_percent", found->drop / *volts * 100},
                    {"awg", found->awg}};
  return out.dump(1, ' ', false, Json::error_handler_t::replace);
}

} // namespace mavrel::cli
