#include "assess/air/air_findings.h"

#include "assess/air/car_air.h"

#include "build/names.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr FindingRow rows[] = {
    {"air_part_missing", &stages::air},   {"air_part_not_on_shelf", &stages::air},
    {"air_part_doubtful", &stages::air},  {"air_no_source", &stages::air},
    {"air_no_relief", &stages::air},      {"air_no_check_valve", &stages::air},
    {"air_no_drain", &stages::air},       {"air_no_switch", &stages::air},
    {"air_tank_rating", &stages::air},    {"air_relief_setting", &stages::air},
    {"air_line_rating", &stages::air},    {"air_fitting_size", &stages::air},
    {"air_valve_ways", &stages::air},     {"air_compressor_weak", &stages::air},
    {"air_bag_above_tank", &stages::air}, {"air_shared_fuse", &stages::air},
    {"air_wiring", &stages::air},         {"air_voltage", &stages::air},
    {"air_current", &stages::air},        {"air_sound", &stages::air},
    {"air_circuits_sides", &stages::air}, {"air_no_gauge", &stages::air},
    {"air_heat", &stages::air},           {"air_boxes_meet", &stages::air},
    {"air_box_out", &stages::air},        {"air_drain_not_lowest", &stages::air},
    {"air_too_large", &stages::air},      {"air_curve_past_end", &stages::air},
    {"air_starts_at_once", &stages::air}, {"air_switch_rating", &stages::air},
};
consteval const FindingRow& row(std::string_view code) {
  return row_in(rows, code);
}
const FindingRow& row_called(std::string_view code) {
  for (const FindingRow& r : rows)
    if (code == r.code) return r;
  return rows[0];
}

constexpr KitRole needed[] = {KitRole::tank, KitRole::feed_line, KitRole::valves, KitRole::front_line,
                              KitRole::rear_line};

} // namespace

bool kit_begun(const build::AirKit& kit) {
  return std::any_of(kit_roles().begin(), kit_roles().end(),
                     [&](const KitRoleRow& role) { return !(kit.*role.name).empty(); });
}

namespace {

/// Does this kit need that part? An end on its own springs takes no line.
bool is_needed(const AirGiven& given, KitRole role) {
  if (role == KitRole::front_line) return !on_springs(given, End::front);
  if (role == KitRole::rear_line) return !on_springs(given, End::rear);
  return true;
}

} // namespace

bool kit_complete(const AirGiven& given) {
  if (!by_shop_air_alone(given.kit) && !(given.parts[KitRole::pressure_switch] && given.parts[KitRole::compressor]))
    return false;
  return std::all_of(std::begin(needed), std::end(needed),
                     [&](KitRole role) { return !is_needed(given, role) || given.parts[role]; });
}

std::optional<double> most_bag_pressure(const AirGiven& given) {
  std::optional<double> out;
  for (const End end : build::both_ends)
    for (const auto& preset : given.ends[build::at(end)]->assessment.presets) {
      if (!preset) continue;
      for (const auto& state : preset->cases)
        if (state) out = std::fmax(out.value_or(0), std::fmax(state->side_pressure[0], state->side_pressure[1]));
    }
  return out;
}

std::vector<KitFault> kit_faults(const AirGiven& given) {
  std::vector<KitFault> out;
  const KitParts& parts = given.parts;
  const build::AirKit& kit = given.kit;
  const auto add = [&](const char* code, Severity severity, KitRole role, Message title, Message reason,
                       Message way_out) {
    out.push_back({code, severity, role, std::move(title), std::move(reason), std::move(way_out)});
  };
  std::vector<Message> lacks; // said once, however many there are
  std::optional<KitRole> first;
  for (const KitRole role : needed)
    if (is_needed(given, role) && (kit.*row_of(role).name).empty()) {
      if (!first) first = role;
      lacks.push_back({row_of(role).label, {}});
    }
  if (lacks.size() == 1)
    add("air_part_missing", Severity::caution, *first, {words("The kit has no {0}"), {lacks.front()}},
        {words("Air can't get from the tank to the bags without it."), {}},
        {words("Choose one in the run of air."), {}});
  else if (first)
    add("air_part_missing", Severity::caution, *first,
        {words("The kit lacks {0} parts"), {std::to_string(lacks.size())}},
        {words("Air can't get from the tank to the bags without: {0}."), {list_of(std::move(lacks))}},
        {words("Choose them in the run of air."), {}});
  for (const KitRoleRow& role : kit_roles())
    if (const std::string& name = kit.*role.name; !name.empty() && !parts[role.role])
      add("air_part_not_on_shelf", Severity::caution, role.role, {words("“{0}” is not on the shelf"), {name}},
          {words("The kit names it as its {0}, and no card tells what it does."), {role.label}},
          {words("Put its card into your shelf, or choose another."), {}});
  for (const KitRoleRow& role : kit_roles())
    if (const shelf::Part* part = parts[role.role])
      for (const Message& doubt : shelf::doubts_of_part(*part))
        add("air_part_doubtful", Severity::caution, role.role, {words("The card of “{0}” is doubtful"), {part->name}},
            doubt, {words("Compare the card with its maker's sheet."), {}});
  if (!parts[KitRole::compressor] && kit.compressor.empty() && kit.shop_inlet == build::Fitted::no)
    add("air_no_source", Severity::stop, KitRole::compressor, {words("Nothing fills the tank"), {}},
        {words("The kit has neither a compressor nor an inlet for shop air."), {}},
        {words("Choose a compressor, or fit the inlet."), {}});
  // What is rated is held against the switch alone: a relief valve that opens before it is no way to stop a pump.
  const shelf::Part* by_switch = parts[KitRole::pressure_switch];
  std::optional<std::pair<double, double>> cut;
  if (by_switch) cut.emplace(by_switch->cut_in.value_or(0), by_switch->cut_out.value_or(0));
  const bool has_tank = !kit.tank.empty();
  if (has_tank && kit.relief.empty())
    add("air_no_relief", Severity::stop, KitRole::relief, {words("The tank has no relief valve"), {}},
        {words("A switch that sticks lets the compressor run on until something bursts."), {}},
        {words("Every tank has a relief valve, set below what the tank is rated for."), {}});
  if (!kit.compressor.empty() && kit.check_valve.empty())
    add("air_no_check_valve", Severity::caution, KitRole::check_valve,
        {words("No check valve behind the compressor"), {}},
        {words("The tank leaks back through the pump, and the pump starts against pressure."), {}},
        {words("Put a check valve between compressor and tank."), {}});
  if (has_tank && kit.drain.empty())
    add("air_no_drain", Severity::caution, KitRole::drain, {words("The tank has no drain"), {}},
        {words("Water gathers in it, rusts it and freezes in the valves."), {}},
        {words("Put a drain at its lowest point."), {}});
  if (!kit.compressor.empty() && kit.pressure_switch.empty())
    add("air_no_switch", Severity::stop, KitRole::pressure_switch, {words("No pressure switch"), {}},
        {words("Nothing stops the compressor when the tank is full."), {}},
        {words("Choose a switch that cuts out below what the tank is rated for."), {}});
  for (const KitRole role : {KitRole::tank, KitRole::second_tank}) {
    const shelf::Part* tank = parts[role];
    if (!tank) continue;
    if (cut && *tank->rated_pressure < cut->second)
      add("air_tank_rating", Severity::stop, role, {words("{0} is rated below the cut-out"), {tank->name}},
          {words("It is rated for {0}, and the compressor runs until {1}."),
           {pascals(*tank->rated_pressure), pascals(cut->second)}},
          {words("A switch that cuts out lower, or another tank."), {}});
    if (const shelf::Part* relief = parts[KitRole::relief]; relief && *relief->opens_at > *tank->rated_pressure)
      add("air_relief_setting", Severity::stop, KitRole::relief,
          {words("The relief valve opens above what {0} is rated for"), {tank->name}},
          {words("It opens at {0}; the tank is rated for {1}."),
           {pascals(*relief->opens_at), pascals(*tank->rated_pressure)}},
          {words("A relief valve that opens lower."), {}});
  }
  if (const shelf::Part* relief = parts[KitRole::relief]; relief && cut && *relief->opens_at <= cut->second)
    add("air_relief_setting", Severity::caution, KitRole::relief,
        {words("The relief valve opens before the compressor stops"), {}},
        {words("It opens at {0}, the switch cuts out at {1}."), {pascals(*relief->opens_at), pascals(cut->second)}},
        {words("A switch that cuts out lower, or a relief valve that opens higher."), {}});
  if (cut)
    for (const KitRoleRow& role : kit_roles()) {
      const shelf::Part* part = parts[role.role];
      if (!part || !part->rated_pressure || *part->rated_pressure >= cut->second) continue;
      if (role.kind == shelf::PartKind::tank || role.kind == shelf::PartKind::gauge) continue;
      add("air_line_rating", Severity::stop, role.role, {words("{0} is not rated for the pressure"), {part->name}},
          {words("It is rated for {0}, and the tank is filled to {1}."),
           {pascals(*part->rated_pressure), pascals(cut->second)}},
          {words("Only what is rated above the cut-out; of plastic, only air-brake tubing."), {}});
    }
  for (const auto& [line, fitting] :
       {std::pair{KitRole::feed_line, KitRole::feed_fitting}, std::pair{KitRole::front_line, KitRole::front_fitting},
        std::pair{KitRole::rear_line, KitRole::rear_fitting}}) {
    const shelf::Part *tube = parts[line], *snap = parts[fitting];
    if (tube && snap && snap->outer && std::abs(*snap->outer - *tube->outer) > 1e-5)
      add("air_fitting_size", Severity::caution, fitting, {words("{0} does not go on {1}"), {snap->name, tube->name}},
          {words("The fitting is for a line of {0}, the line is {1} outside."),
           {metres(*snap->outer, 1), metres(*tube->outer, 1)}},
          {words("A fitting of the line's size."), {}});
  }
  if (const shelf::Part* valves = parts[KitRole::valves];
      valves && kit.school == build::ValveSchool::block &&
      *valves->ways < static_cast<double>(circuits_of(given).size()))
    add("air_valve_ways", Severity::stop, KitRole::valves, {words("{0} has too few ways"), {valves->name}},
        {words("It has {0}, and the kit has {1} circuits."),
         {fmt::format("{:g}", *valves->ways), fmt::to_string(circuits_of(given).size())}},
        {words("A block with a way for each circuit."), {}});
  if (const shelf::Part* pump = parts[KitRole::compressor]; pump && cut) {
    const double at_in = shelf::air_of(*pump, cut->first, volts_at_compressor(kit)),
                 at_out = shelf::air_of(*pump, cut->second, volts_at_compressor(kit));
    if (!(at_out > 0))
      add("air_compressor_weak", Severity::stop, KitRole::compressor,
          {at_in > 0 ? words("{0} never reaches the cut-out") : words("{0} never reaches the cut-in"), {pump->name}},
          {words("By its card it delivers nothing against {0}."), {pascals(at_in > 0 ? cut->second : cut->first)}},
          {words("A switch that cuts out lower, or a stronger compressor."), {}});
  }
  for (const KitRole role : {KitRole::compressor, KitRole::second_compressor})
    if (const shelf::Part* pump = parts[role]; pump && cut) {
      // What stands between pump and tank holds back: the pump works against more than the tank.
      const double against = pressure_at_pump(given, *pump, cut->second), known = pump->curve.back().pressure;
      if (against > known + 0.05e5 && shelf::air_of(*pump, against, volts_at_compressor(kit)) > 0)
        add("air_curve_past_end", Severity::caution, role,
            {words("The curve of {0} ends before the switch does"), {pump->name}},
            {words("Its card tells what it delivers up to {0}; it has to work against {1}, where what it gave there is "
                   "taken on, and it may give less."),
             {told_from(pascals(known), against), told_from(pascals(against), known)}},
            {words("Its maker's figures up to there, or a switch that cuts out lower."), {}});
    }
  const auto by_shop = by_shop_air_alone(kit) ? full_tank(given) : std::nullopt;
  if (const auto most = most_bag_pressure(given); most && by_shop && *most > *by_shop)
    add("air_bag_above_tank", Severity::stop, KitRole::tank, {words("The bags want more than the tank gives"), {}},
        {words("At the heaviest load and the highest preset a bag wants {0}; shop air fills the tank to {1}."),
         {pascals(*most), pascals(*by_shop)}},
        {words("A compressor, larger bags, or less load."), {}});
  if (const auto most = most_bag_pressure(given); most && cut && !by_shop && *most > cut->first)
    add("air_bag_above_tank", *most > cut->second ? Severity::stop : Severity::caution, KitRole::pressure_switch,
        {words("The bags want more than the tank gives"), {}},
        {words(
             "At the heaviest load and the highest preset a bag wants {0}; the tank falls to {1} before it is filled."),
         {pascals(*most), pascals(cut->first)}},
        {words("A switch for more pressure, larger bags, or less load."), {}});
  return out;
}

namespace {

class AirFindings {
public:
  AirFindings(const AirFindingsGiven& given, Findings& out)
      : given_(given), air_(given.room.air), kit_(air_.kit), out_(out) {}

  void find() {
    if (!kit_begun(kit_)) return;
    for (const KitFault& fault : kit_faults(air_))
      add(row_called(fault.code), fault.severity, row_of(fault.role).field, fault.title, fault.reason, fault.way_out);
    schools();
    wires();
    wishes();
    places();
  }

private:
  Finding& add(const FindingRow& what, Severity severity, std::string field, Message title, Message reason,
               Message way_out) {
    return add_finding(out_, what, severity, std::nullopt, fmt::format("variants.{}.air.{}", given_.variant, field),
                       std::move(title), std::move(reason), std::move(way_out));
  }

  void schools() {
    const bool joined = kit_.circuits == build::Circuits::per_axle;
    for (const End end : build::both_ends)
      if ((given_.sides[build::at(end)] == build::Sides::joined) != joined)
        add(row("air_circuits_sides"), Severity::caution, "circuits",
            {words("{0}: kit and bags disagree about tees"), {build::name_of(end)}},
            joined ? Message{words("The kit joins both sides by a tee; Bags assumes separate sides."), {}}
                   : Message{words("The kit gives each corner its own air; Bags assumes joined sides."), {}},
            {words("Make both say the same: roll and lean depend on it."), {}});
    if (kit_.school == build::ValveSchool::hand_valves && kit_.gauge.empty())
      add(row("air_no_gauge"), Severity::caution, "gauge", {words("Hand valves without a gauge"), {}},
          {words("Who works them sees neither tank nor bags."), {}}, {words("A gauge for every circuit."), {}});
  }

  void wires() {
    if (!air_.parts[KitRole::compressor]) return;
    if (kit_.feeds == build::Feeds::one && air_.parts[KitRole::second_compressor])
      add(row("air_shared_fuse"), Severity::caution, "feeds", {words("Both compressors hang on one fuse"), {}},
          {words("A fuse large enough for two lets the cable of one burn before it blows."), {}},
          {words("A feed with its own fuse and relay for each."), {}});
    const shelf::Part *first = air_.parts[KitRole::compressor], *second = air_.parts[KitRole::second_compressor];
    for (const shelf::Part* pump : {first, second})
      if (pump && for_another_voltage(*pump, kit_))
        add(row("air_voltage"), Severity::stop, "volts", {words("{0} is for another voltage"), {pump->name}},
            {words("Its curve was taken at {0}; the battery gives {1}."),
             {Amount{*pump->voltage, Kind::voltage, -1, {}}, Amount{kit_.volts, Kind::voltage, -1, {}}}},
            {words("A compressor for this car's voltage."), {}});
    const auto wiring = wiring_of(air_);
    if (!wiring) return;
    for (const Feed& feed : wiring->feeds)
      if (!feed.cable)
        add(row("air_wiring"), Severity::stop, "battery_at.x_m",
            {words("No standard cable does for the compressor"), {}}, feed.cable.error(),
            {words("Nearer to the battery, or a feed each."), {}});
    for (const Feed& feed : wiring->feeds)
      if (feed.blows)
        add(row("air_starts_at_once"), Severity::caution, wiring->at_once ? "stagger_s" : "compressor",
            {words("Starting may blow the fuse"), {}},
            {words("What hangs on it draws {0} while it starts; a fuse of {1} bears about {2} for as long."),
             {Amount{feed.starting, Kind::current, 0, {}}, Amount{feed.cable->fuse, Kind::current, 0, {}},
              Amount{fuse_bears_peak * feed.cable->fuse, Kind::current, 0, {}}}},
            {wiring->at_once ? words("Let the second start some seconds later, or give each a feed of its own.")
                             : words("A slow fuse and the cable for it, or a compressor that starts more gently."),
             {}});
    if (const shelf::Part* by_switch = air_.parts[KitRole::pressure_switch];
        by_switch && by_switch->rated_current && *by_switch->rated_current < wiring->coils)
      add(row("air_switch_rating"), Severity::caution, "pressure_switch",
          {words("The pressure switch bears less than the relays draw"), {}},
          {words("Its contacts are rated for {0}, the coils draw {1}."),
           {Amount{*by_switch->rated_current, Kind::current, 2, {}}, Amount{wiring->coils, Kind::current, 2, {}}}},
          {words("Another switch, or a small relay between."), {}});
    if (wiring->running > air_.wishes.current * (1 + 1e-9))
      add(row("air_current"), Severity::caution, "compressor", {words("It draws more than wanted"), {}},
          {words("At the cut-out the kit draws {0}; at most {1} was asked for."),
           {Amount{wiring->running, Kind::current, -1, {}}, Amount{air_.wishes.current, Kind::current, -1, {}}}},
          {words("A smaller compressor, one instead of two, or a lower cut-out."), {}});
  }

  void wishes() {
    const auto sound = sound_of(air_.parts);
    if (!air_.wishes.sound || !sound || *sound <= *air_.wishes.sound) return;
    add(row("air_sound"), Severity::caution, "compressor", {words("The kit is louder than wanted"), {}},
        {words("{0} at a metre with all that runs; {1} was asked for."),
         {Amount{*sound, Kind::sound, -1, *air_.wishes.sound}, Amount{*air_.wishes.sound, Kind::sound, -1, *sound}}},
        {words("A quieter one, one instead of two, or under the floor and on rubber."), {}});
  }

  void places() {
    const KitRoom room = kit_room(given_.room);
    for (const auto& [a, b] : room.meet)
      add(row("air_boxes_meet"), Severity::caution, std::string(room.boxes[b].place) + ".x_m",
          {words("{0} and {1} lie in one place"), {room.boxes[a].name, room.boxes[b].name}},
          {words("Their boxes overlap."), {}}, {words("Move one of them."), {}});
    for (const std::size_t i : room.out_of_place)
      add(row("air_box_out"), Severity::caution, std::string(room.boxes[i].place) + ".x_m",
          {words("{0} sticks out of where it is to lie"), {room.boxes[i].name}},
          {words("It is said to lie {0}, and its box is larger than that or elsewhere."),
           {build::name_of(room.boxes[i].room)}},
          {words("Move it, turn it, or a part of another shape."), {}});
    for (const HotGap& gap : room.hot)
      if (gap.gap < gap.wanted) {
        const KitBox& box = room.boxes[gap.box];
        add(row("air_heat"), Severity::stop, std::string(box.place) + ".x_m",
            {words("{0} is too near to {1}"), {box.name, given_.room.hot[gap.hot].name}},
            {words("{0} lie between them; {1} are wanted from what is hot."),
             {metres(std::fmax(0, gap.gap)), metres(gap.wanted)}},
            {words("Move it, or shield the heat."), {}});
      }
    if (!room.drains_lowest && !kit_.drain.empty())
      add(row("air_drain_not_lowest"), Severity::note, "tank_at.z_m",
          {words("The drain is not at the lowest point"), {}},
          {words("Water runs to {0} above the road, below the tank with the drain."),
           {metres(room.lowest_water.value_or(0))}},
          {words("Lower the tank, raise the other part, or drain there too."), {}});
    if (air_.wishes.room && room.volume > *air_.wishes.room)
      add(row("air_too_large"), Severity::caution, "tank", {words("The kit takes more room than wished for"), {}},
          {words("As boxes its parts take {0}; {1} was asked for."),
           {Amount{room.volume, Kind::volume, 0, {}}, Amount{*air_.wishes.room, Kind::volume, 0, {}}}},
          {words("A smaller tank or compressor."), {}});
  }

  const AirFindingsGiven& given_;
  const AirGiven& air_;
  const build::AirKit& kit_;
  Findings& out_;
};

} // namespace

const std::span<const FindingRow> air_finding_rows = rows;

AirFindingsGiven air_findings_given(const build::Build& build, RoomGiven room) {
  const build::Variant& variant = build.variant();
  return {std::move(room), {variant.fit[0].sides, variant.fit[1].sides}, build.active_variant};
}

Findings find_in_air(const AirFindingsGiven& given) {
  Findings out;
  AirFindings(given, out).find();
  return out;
}

} // namespace mavrel::assess
