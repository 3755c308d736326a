#include "assess/kit/kit_parts.h"

#include "quantity/message.h"

#include <array>
#include <cmath>

namespace mavrel::assess {

namespace {

using build::AirKit;
using shelf::PartKind;

constexpr KitRoleRow roles[] = {
    {KitRole::compressor, "compressor", &AirKit::compressor, PartKind::compressor, words("compressor")},
    {KitRole::second_compressor, "second_compressor", &AirKit::second_compressor, PartKind::compressor,
     words("second compressor")},
    {KitRole::check_valve, "check_valve", &AirKit::check_valve, PartKind::check_valve, words("check valve")},
    {KitRole::trap, "trap", &AirKit::trap, PartKind::trap, words("water trap")},
    {KitRole::dryer, "dryer", &AirKit::dryer, PartKind::dryer, words("dryer")},
    {KitRole::tank, "tank", &AirKit::tank, PartKind::tank, words("tank")},
    {KitRole::second_tank, "second_tank", &AirKit::second_tank, PartKind::tank, words("second tank")},
    {KitRole::drain, "drain", &AirKit::drain, PartKind::drain, words("drain")},
    {KitRole::relief, "relief", &AirKit::relief, PartKind::relief_valve, words("relief valve")},
    {KitRole::pressure_switch, "pressure_switch", &AirKit::pressure_switch, PartKind::pressure_switch,
     words("pressure switch")},
    {KitRole::feed_fitting, "feed_fitting", &AirKit::feed_fitting, PartKind::fitting, words("fittings to the valves")},
    {KitRole::feed_line, "feed_line", &AirKit::feed_line, PartKind::line, words("line to the valves")},
    {KitRole::valves, "valves", &AirKit::valves, PartKind::valve_block, words("valves")},
    {KitRole::front_fitting, "front_fitting", &AirKit::front_fitting, PartKind::fitting, words("front fittings")},
    {KitRole::front_line, "front_line", &AirKit::front_line, PartKind::line, words("front lines")},
    {KitRole::rear_fitting, "rear_fitting", &AirKit::rear_fitting, PartKind::fitting, words("rear fittings")},
    {KitRole::rear_line, "rear_line", &AirKit::rear_line, PartKind::line, words("rear lines")},
    {KitRole::silencer, "silencer", &AirKit::silencer, PartKind::silencer, words("silencer")},
    {KitRole::gauge, "gauge", &AirKit::gauge, PartKind::gauge, words("gauge")},
    {KitRole::sensor, "sensor", &AirKit::sensor, PartKind::sensor, words("height sensors")},
    {KitRole::switches, "switches", &AirKit::switches, PartKind::hand_switch, words("hand switches")},
};
static_assert(std::size(roles) == kit_role_count);

/// A size for a part whose card gives none, m: length, width, height.
std::array<double, 3> usual_size(PartKind kind, const shelf::Part& part) {
  switch (kind) {
  case PartKind::compressor:
    return {0.26, 0.12, 0.18};
  case PartKind::tank: { // a cylinder three and a half times as long as wide
    const double wide = std::cbrt(part.volume.value_or(0.01) / (3.5 * 0.785));
    return {3.5 * wide, wide, wide};
  }
  default:
    return {0.16, 0.12, 0.08};
  }
}

} // namespace

std::span<const KitRoleRow> kit_roles() {
  return roles;
}
const KitRoleRow& row_of(KitRole role) {
  return roles[static_cast<std::size_t>(role)];
}

shelf::PartKind kind_for(KitRole role, const AirKit& kit) {
  if (role == KitRole::valves && kit.school == build::ValveSchool::hand_valves) return PartKind::hand_valve;
  return row_of(role).kind;
}

KitParts kit_parts(const AirKit& kit, const shelf::Shelf& shelf) {
  KitParts out;
  for (const KitRoleRow& row : roles)
    if (const std::string& name = kit.*row.name; !name.empty())
      if (const shelf::Part* part = shelf.find(kind_for(row.role, kit), name)) out.at(row.role) = *part;
  return out;
}

namespace {

std::optional<std::pair<double, double>> cut_by(const shelf::Part* by_switch, const shelf::Part* relief) {
  if (!by_switch) return std::nullopt;
  double in = *by_switch->cut_in, out = *by_switch->cut_out;
  if (relief) out = std::min(out, *relief->opens_at), in = std::min(in, out);
  return std::pair(in, out);
}

} // namespace

std::optional<std::pair<double, double>> cut_pressures(const KitParts& parts) {
  return cut_by(parts[KitRole::pressure_switch], parts[KitRole::relief]);
}

bool by_shop_air_alone(const AirKit& kit) {
  return kit.shop_inlet == build::Fitted::yes && kit.compressor.empty() && kit.second_compressor.empty() &&
         !kit.tank.empty() && !kit.valves.empty() && !kit.feed_line.empty() &&
         !(kit.front_line.empty() && kit.rear_line.empty());
}

namespace {

/// @param find  the card of a role, or null
template <class Find>
std::optional<double> full_by(const AirKit& kit, Find find) {
  const shelf::Part* relief = find(KitRole::relief);
  if (!by_shop_air_alone(kit)) {
    const auto cut = cut_by(find(KitRole::pressure_switch), relief);
    return cut ? std::optional(cut->second) : std::nullopt;
  }
  double out = relief ? std::min(shop_pressure, *relief->opens_at) : shop_pressure;
  for (const KitRole role : {KitRole::tank, KitRole::second_tank})
    if (const shelf::Part* tank = find(role)) out = std::min(out, *tank->rated_pressure);
  return out;
}

} // namespace

std::optional<double> full_tank(const AirKit& kit, const KitParts& parts) {
  return full_by(kit, [&](KitRole role) { return parts[role]; });
}
std::optional<double> full_tank(const AirKit& kit, const shelf::Shelf& shelf) {
  return full_by(kit, [&](KitRole role) {
    const std::string& name = kit.*row_of(role).name;
    return name.empty() ? nullptr : shelf.find(kind_for(role, kit), name);
  });
}

double pieces_of(const AirKit& kit, KitRole role, control::LevelSensors sensors) {
  const double circuits = kit.circuits == build::Circuits::per_axle ? 2 : 4;
  const bool by_hand = kit.school == build::ValveSchool::hand_valves;
  switch (role) {
  case KitRole::valves:
  case KitRole::silencer: // a block lets all its ways out by one
    return by_hand ? circuits : 1;
  case KitRole::gauge:
    return by_hand ? std::ceil(circuits / 2) : 1;
  case KitRole::sensor:
    switch (sensors) {
    case control::LevelSensors::two:
      return 2;
    case control::LevelSensors::three_one_front:
    case control::LevelSensors::three_one_rear:
      return 3;
    case control::LevelSensors::four:
      break;
    }
    return 4;
  default:
    return 1;
  }
}

std::vector<KitBox> kit_boxes(const AirKit& kit, const KitParts& parts) {
  std::vector<KitBox> out;
  const auto add = [&](KitRole role, const build::PartPlace& place, const char* field, double forward = 0) {
    const shelf::Part* part = parts[role];
    if (!part) return;
    const auto usual = usual_size(part->kind, *part);
    double along = part->length.value_or(usual[0]), across = part->width.value_or(usual[1]);
    if (place.lies == build::PartLies::across) std::swap(along, across);
    out.push_back({role, part->name, place.x - forward, place.y, place.z, along, across,
                   part->height.value_or(usual[2]), part->mass.value_or(0), place.room, place.held, field});
  };
  add(KitRole::compressor, kit.compressor_at, "compressor_at");
  // The second stands beside the first, further forward by its own size.
  if (const shelf::Part* second = parts[KitRole::second_compressor]) {
    const auto usual = usual_size(second->kind, *second);
    const bool across = kit.compressor_at.lies == build::PartLies::across;
    add(KitRole::second_compressor, kit.compressor_at, "compressor_at",
        0.02 + (across ? second->width.value_or(usual[1]) : second->length.value_or(usual[0])));
  }
  add(KitRole::tank, kit.tank_at, "tank_at");
  add(KitRole::second_tank, kit.second_tank_at, "second_tank_at");
  add(KitRole::valves, kit.valves_at, "valves_at");
  return out;
}

std::vector<build::LoadMass> kit_masses(const AirKit& kit, const KitParts& parts) {
  std::vector<build::LoadMass> out;
  if (kit.weighed == build::Weighed::with) return out;
  for (const KitBox& box : kit_boxes(kit, parts))
    if (box.mass > 0) out.push_back({box.name, box.mass, box.x, box.y, {}, box.z});
  // What is small hangs on the line between compressor and tank.
  double small = 0;
  for (const KitRole role :
       {KitRole::check_valve, KitRole::trap, KitRole::dryer, KitRole::relief, KitRole::pressure_switch, KitRole::drain})
    if (const shelf::Part* part = parts[role]) small += part->mass.value_or(0);
  const build::PartPlace& at = kit.compressor_at;
  if (small > 0) out.push_back({words("small parts"), small, at.x, at.y, {}, at.z});
  return out;
}

std::vector<build::LoadMass> kit_masses(const build::Build& build, const shelf::Shelf& shelf) {
  const AirKit& kit = build.variant().air;
  return kit_masses(kit, kit_parts(kit, shelf));
}

} // namespace mavrel::assess
