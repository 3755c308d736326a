#include "assess/faults/causes.h"

#include "assess/faults/fault_car.h"

#include <cmath>

namespace mavrel::assess {

namespace {

using control::Condition;
using control::CornerCondition;
using Places = FaultPlaces;
using Family = FaultFamily;

/// From one to the other by even factors.
double between(double slight, double bad, double severity) {
  return slight * std::pow(bad / slight, severity);
}
double evenly(double slight, double bad, double severity) {
  return slight + (bad - slight) * severity;
}
CornerCondition& at(Condition& c, std::size_t corner) {
  return c.corners[corner];
}
/// Both corners of an end.
template <class Act>
void both(Condition& c, std::size_t end, Act act) {
  act(c.corners[2 * end]);
  act(c.corners[2 * end + 1]);
}

// ---- what each does

void nothing(Condition&, const FaultCar&, std::size_t, double) {}

void leak_line(Condition& c, const FaultCar& car, std::size_t corner, double s) {
  at(c, corner).leak_line = car.conductance(corner, between(0.03, 0.7, s));
}
void leak_bag(Condition& c, const FaultCar& car, std::size_t corner, double s) {
  at(c, corner).leak_bag = car.conductance(corner, between(0.03, 0.8, s));
}
void leak_vent(Condition& c, const FaultCar& car, std::size_t corner, double s) {
  at(c, corner).leak_line = car.conductance(corner, between(0.03, 0.6, s));
}
void leak_fill(Condition& c, const FaultCar& car, std::size_t corner, double s) {
  at(c, corner).leak_fill = car.conductance(corner, between(0.06, 0.6, s));
}
void leak_tank(Condition& c, const FaultCar& car, std::size_t, double s) {
  c.leak_tank = car.tank_conductance(between(0.03, 0.6, s));
}
void check_valve(Condition& c, const FaultCar& car, std::size_t, double s) {
  c.leak_tank = car.tank_conductance(between(0.05, 0.9, s));
}
void pinched(Condition& c, const FaultCar&, std::size_t corner, double s) {
  at(c, corner).fill = at(c, corner).vent = between(0.55, 0.12, s);
}
void wet_line(Condition& c, const FaultCar&, std::size_t corner, double s) {
  at(c, corner).fill = at(c, corner).vent = between(0.75, 0.3, s);
}
void swapped_lines(Condition& c, const FaultCar&, std::size_t end, double) {
  at(c, 2 * end).line_to = 2 * end + 1;
  at(c, 2 * end + 1).line_to = 2 * end;
}
void silencer(Condition& c, const FaultCar&, std::size_t, double s) {
  for (CornerCondition& corner : c.corners)
    corner.vent = between(0.55, 0.15, s);
}
void fill_shut(Condition& c, const FaultCar&, std::size_t corner, double) {
  at(c, corner).fill = 0;
}
void vent_shut(Condition& c, const FaultCar&, std::size_t corner, double) {
  at(c, corner).vent = 0;
}
void fill_open(Condition& c, const FaultCar& car, std::size_t corner, double s) {
  at(c, corner).leak_fill = car.conductance(corner, 0.99) * between(3, 60, s);
}
void vent_open(Condition& c, const FaultCar& car, std::size_t corner, double s) {
  at(c, corner).leak_line = car.conductance(corner, 0.99) * between(3, 60, s);
}
void worn(Condition& c, const FaultCar&, std::size_t, double s) {
  c.delivery = evenly(0.78, 0.3, s);
}
void hot(Condition& c, const FaultCar&, std::size_t, double s) {
  c.endurance = evenly(0.5, 0.15, s);
}
void switch_off(Condition& c, const FaultCar&, std::size_t, double s) {
  // It drifts down rather than up.
  c.cut_shift = s < 0.7 ? -evenly(0.6e5, 3e5, s / 0.7) : evenly(0.6e5, 1.6e5, (s - 0.7) / 0.3);
}
void ice(Condition& c, const FaultCar&, std::size_t, double s) {
  for (CornerCondition& corner : c.corners)
    corner.fill = between(0.5, 0.1, s), corner.vent = between(0.35, 0.05, s);
  c.air_around = 273.15 + evenly(2, -10, s);
}
void rod_loose(Condition& c, const FaultCar&, std::size_t corner, double s) {
  // Which way it slipped is as likely as the other.
  at(c, corner).sensor_off = s < 0.5 ? -evenly(0.006, 0.03, 2 * s) : evenly(0.006, 0.03, 2 * s - 1);
}
void rod_flipped(Condition& c, const FaultCar&, std::size_t corner, double) {
  at(c, corner).sensor_flipped = true;
}
void sensors_swapped(Condition& c, const FaultCar&, std::size_t end, double) {
  at(c, 2 * end).sensor_of = 2 * end + 1;
  at(c, 2 * end + 1).sensor_of = 2 * end;
}
void wrong_load(Condition& c, const FaultCar&, std::size_t end, double s) {
  both(c, end, [&](CornerCondition& corner) { corner.load = evenly(20, 90, s) * standard_gravity; });
}
void wrong_preset(Condition& c, const FaultCar&, std::size_t end, double s) {
  const double off = s < 0.6 ? -evenly(0.010, 0.04, s / 0.6) : evenly(0.010, 0.03, (s - 0.6) / 0.4);
  // A height stored too low is one that the sensors call right.
  both(c, end, [&](CornerCondition& corner) { corner.sensor_off = -off; });
}
void never_runs(Condition& c, const FaultCar&, std::size_t, double) {
  c.runs = control::CompressorRuns::never;
}
void always_runs(Condition& c, const FaultCar&, std::size_t, double) {
  c.runs = control::CompressorRuns::always;
}
void voltage(Condition& c, const FaultCar& car, std::size_t, double s) {
  // A motor slows as its volts do.
  c.volts_lost = evenly(1.2, 4, s);
  c.delivery = 1 - c.volts_lost / car.volts;
}
void gauge(Condition& c, const FaultCar&, std::size_t, double s) {
  c.gauge_shift = s < 0.5 ? -evenly(0.6e5, 2.5e5, 2 * s) : evenly(0.6e5, 2.5e5, 2 * s - 1);
}

void feed_narrow(Condition& c, const FaultCar&, std::size_t, double s) {
  c.feed = between(0.35, 0.04, s);
}
void tap(Condition& c, const FaultCar&, std::size_t, double s) {
  c.feed = s > 0.8 ? 0 : between(0.3, 0.02, s / 0.8);
}
void filter(Condition& c, const FaultCar&, std::size_t, double s) {
  c.delivery = evenly(0.85, 0.35, s);
}
void before_check(Condition& c, const FaultCar&, std::size_t, double s) {
  c.delivery = evenly(0.8, 0.15, s);
}
void no_delivery(Condition& c, const FaultCar&, std::size_t, double) {
  c.delivery = 0;
}
void relief_early(Condition& c, const FaultCar& car, std::size_t, double s) {
  c.relief_at = car.cut_out - evenly(0.3e5, 3e5, s);
}
void drain_open(Condition& c, const FaultCar& car, std::size_t, double s) {
  c.leak_tank = car.tank_conductance(between(0.3, 0.98, s));
}
void valves_dead(Condition& c, const FaultCar&, std::size_t, double) {
  for (CornerCondition& corner : c.corners)
    corner.fill = corner.vent = 0;
}
void flat(Condition& c, const FaultCar& car, std::size_t, double s) {
  c.volts_lost = evenly(1.2, 4.5, s);
  c.delivery = 1 - c.volts_lost / car.volts;
}
void sensor_dead(Condition& c, const FaultCar&, std::size_t corner, double s) {
  // It reads one height for ever: the corner is driven or left where that is wrong.
  at(c, corner).sensor_off = s < 0.5 ? -evenly(0.004, 0.03, 2 * s) : evenly(0.004, 0.03, 2 * s - 1);
}
void sensor_shorted(Condition& c, const FaultCar&, std::size_t corner, double s) {
  at(c, corner).sensor_off = s < 0.5 ? -evenly(0.04, 0.09, 2 * s) : evenly(0.04, 0.09, 2 * s - 1);
}
void bracket(Condition& c, const FaultCar&, std::size_t corner, double s) {
  at(c, corner).sensor_off = s < 0.5 ? -evenly(0.008, 0.04, 2 * s) : evenly(0.008, 0.04, 2 * s - 1);
}
void tee_line(Condition& c, const FaultCar&, std::size_t end, double s) {
  both(c, end, [&](CornerCondition& corner) { corner.fill = corner.vent = between(0.5, 0.1, s); });
}
void gauge_line(Condition& c, const FaultCar& car, std::size_t corner, double s) {
  at(c, corner).leak_line = car.conductance(corner, between(0.02, 0.3, s));
}
void crossed(Condition& c, const FaultCar&, std::size_t corner, double) {
  at(c, corner).crossed = true;
}
void frosty(Condition& c, const FaultCar&, std::size_t, double s) {
  c.air_around = 273.15 + evenly(6, -14, s);
}

/// A valve that both sides of an axle share: what it does to one of them through the tee it does to both.
template <void (*does)(Condition&, const FaultCar&, std::size_t, double)>
void of_axle(Condition& c, const FaultCar& car, std::size_t end, double s) {
  does(c, car, 2 * end, s);
}

constexpr double h = 3600;

const FaultCause causes[] = {
    {"leak_fitting", words("leak at a fitting"), Family::leaks, Places::corner, 9, nullptr, leak_line,
     words("That corner sinks over hours; soap bubbles at a fitting of its line."),
     words("Release the pressure, cut the tube square, push it home; soap again."), 0.5 * h, words("a fitting"),
     "leak_minutes leak_hold"},
    {"leak_bag", words("leak in the bag"), Family::leaks, Places::corner, 3, nullptr, leak_bag,
     words("That corner sinks, and still does with its line plugged at the bag."),
     words("Another bag; and what rubbed it moved out of its way."), 2 * h, words("a bag"),
     "leak_minutes leak_hold times"},
    {"vent_seat", words("vent valve’s seat leaks"), Family::leaks, Places::corner, 3, &FaultParts::per_corner,
     leak_vent, words("That corner sinks, and air comes out of the exhaust with all valves shut."),
     words("Blow the block out and clean the valve; else another valve."), 1 * h, words("a valve"),
     "leak_minutes leak_hold times"},
    {"fill_seat", words("fill valve’s seat leaks"), Family::leaks, Places::corner, 2, &FaultParts::per_corner,
     leak_fill, words("That corner creeps up by itself while the tank is full."),
     words("Blow the block out and clean the valve; else another valve."), 1 * h, words("a valve"),
     "leak_minutes leak_hold times"},
    {"check_valve", words("check valve leaks back"), Family::leaks, Places::car, 3, &FaultParts::compressor,
     check_valve, words("The tank is low in the morning; air comes back out of the compressor’s intake."),
     words("Another check valve, the arrow towards the tank."), 0.5 * h, words("a check valve"), "fill leak_minutes"},
    {"leak_tank", words("leak at the tank"), Family::leaks, Places::car, 4, nullptr, leak_tank,
     words("The tank is low in the morning, the corners stand; soap bubbles at a port or the drain."),
     words("Seal the port again; close or change the drain."), 0.5 * h, words("sealant"), "fill leak_minutes"},
    {"pinched", words("pinched line"), Family::ways, Places::corner, 4, nullptr, pinched,
     words("That corner is slow both up and down, whatever the weather."),
     words("Lay the line again where it is kinked or clamped."), 1 * h, words("a length of line"), "times"},
    {"wet_line", words("water in the line"), Family::water, Places::corner, 2, nullptr, wet_line,
     words("That corner is slow both ways, worse in the cold; water comes out when it is blown through."),
     words("Blow the line out, drain the tank, look at the dryer."), 0.5 * h, "", "times"},
    {"swapped_lines", words("swapped lines"), Family::ways, Places::end, 2, &FaultParts::per_corner, swapped_lines,
     words("Work one corner and the one across from it moves."), words("Change the two lines over at the block."),
     0.5 * h, "", "times calibrated"},
    {"silencer", words("clogged silencer"), Family::ways, Places::car, 1.5, &FaultParts::silencer, silencer,
     words("All corners come down slowly and go up as ever."), words("Another silencer, or the old one washed."),
     0.25 * h, words("a silencer"), "times"},
    {"fill_shut", words("fill valve stuck shut"), Family::valves, Places::corner, 3, &FaultParts::per_corner, fill_shut,
     words("That corner does not go up; down it goes."),
     words("Clean the valve, look at its plug; else another valve."), 1 * h, words("a valve"), "times leak_minutes"},
    {"vent_shut", words("vent valve stuck shut"), Family::valves, Places::corner, 2, &FaultParts::per_corner, vent_shut,
     words("That corner does not come down; up it goes."),
     words("Clean the valve, look at its plug; else another valve."), 1 * h, words("a valve"), "times leak_minutes"},
    {"fill_open", words("fill valve stuck open"), Family::valves, Places::corner, 1, &FaultParts::per_corner, fill_open,
     words("That corner goes up by itself until the tank has no more."),
     words("Shut the tank off. Clean the valve; else another valve."), 1 * h, words("a valve"), "times leak_minutes"},
    {"vent_open", words("vent valve stuck open"), Family::valves, Places::corner, 1.5, &FaultParts::per_corner,
     vent_open, words("That corner falls within a minute, and the exhaust blows."),
     words("Clean the valve, look at its plug; else another valve."), 1 * h, words("a valve"), "times leak_minutes"},
    {"axle_vent_seat", words("axle’s vent valve’s seat leaks"), Family::leaks, Places::end, 3, &FaultParts::per_axle,
     of_axle<leak_vent>, words("That end sinks, and air comes out of the exhaust with all valves shut."),
     words("Blow the block out and clean the valve; else another valve."), 1 * h, words("a valve"),
     "leak_minutes leak_hold times"},
    {"axle_fill_seat", words("axle’s fill valve’s seat leaks"), Family::leaks, Places::end, 2, &FaultParts::per_axle,
     of_axle<leak_fill>, words("That end creeps up by itself while the tank is full."),
     words("Blow the block out and clean the valve; else another valve."), 1 * h, words("a valve"),
     "leak_minutes leak_hold times"},
    {"axle_fill_shut", words("axle’s fill valve stuck shut"), Family::valves, Places::end, 3, &FaultParts::per_axle,
     of_axle<fill_shut>, words("That end does not go up; down it goes."),
     words("Clean the valve, look at its plug; else another valve."), 1 * h, words("a valve"), "times leak_minutes"},
    {"axle_vent_shut", words("axle’s vent valve stuck shut"), Family::valves, Places::end, 2, &FaultParts::per_axle,
     of_axle<vent_shut>, words("That end does not come down; up it goes."),
     words("Clean the valve, look at its plug; else another valve."), 1 * h, words("a valve"), "times leak_minutes"},
    {"axle_fill_open", words("axle’s fill valve stuck open"), Family::valves, Places::end, 1, &FaultParts::per_axle,
     of_axle<fill_open>, words("That end goes up by itself until the tank has no more."),
     words("Shut the tank off. Clean the valve; else another valve."), 1 * h, words("a valve"), "times leak_minutes"},
    {"axle_vent_open", words("axle’s vent valve stuck open"), Family::valves, Places::end, 1.5, &FaultParts::per_axle,
     of_axle<vent_open>, words("That end falls within a minute, and the exhaust blows."),
     words("Clean the valve, look at its plug; else another valve."), 1 * h, words("a valve"), "times leak_minutes"},
    {"worn", words("worn compressor"), Family::supply, Places::car, 4, &FaultParts::compressor, worn,
     words("The tank takes longer than it did, with full volts at the terminals."),
     words("Rings and filter, or another compressor."), 1.5 * h, words("a compressor or its rings"), "fill"},
    {"hot", words("compressor overheats"), Family::supply, Places::car, 2, &FaultParts::compressor, hot,
     words("It stops by itself after some minutes and comes back when it has cooled."),
     words("Air around it, its filter, its place away from what is hot; then the compressor itself."), 1 * h, "",
     "fill"},
    {"switch_off", words("pressure switch is off"), Family::supply, Places::car, 3, &FaultParts::compressor, switch_off,
     words("The compressor starts and stops at other pressures than the switch’s card says."),
     words("Another pressure switch."), 0.5 * h, words("a pressure switch"), "fill"},
    {"gauge_off", words("tank gauge reads wrong"), Family::supply, Places::car, 1.5, nullptr, gauge,
     words("Everything works as it should, and only the gauge says otherwise; a second one disagrees with it."),
     words("Another gauge or sender."), 0.5 * h, words("a gauge"), "fill"},
    {"dryer_spent", words("dryer is spent"), Family::water, Places::car, 3, &FaultParts::dryer, nothing,
     words("Its beads have changed colour; water comes through to the tank."),
     words("New beads; then the tank drained."), 0.5 * h, words("dryer beads"), ""},
    {"water_tank", words("water in the tank"), Family::water, Places::car, 3, nullptr, nothing,
     words("The drain gives water by the cup; vents spit."), words("Drain it, and then as often as Care says."),
     0.25 * h, "", ""},
    {"ice", words("ice in the valves"), Family::water, Places::car, 1, nullptr, ice,
     words("On cold mornings everything is slow or stuck, and well again when it is warm."),
     words("Warm the block gently, drain the tank, dry the air."), 1 * h, words("dryer beads"), "times"},
    {"rod_loose", words("sensor rod loose"), Family::sensors, Places::corner, 4, &FaultParts::sensors, rod_loose,
     words("That corner stands off by itself, another time otherwise; its rod has play."),
     words("Tighten lever and rod, teach the presets again."), 0.5 * h, "", "calibrated heights"},
    {"rod_flipped", words("sensor rod flipped over"), Family::sensors, Places::corner, 1, &FaultParts::sensors,
     rod_flipped, words("Its counts run the wrong way: it is driven further off the more it is corrected."),
     words("Set the lever back on its side, and shorten what let it over."), 0.5 * h, "", "calibrated heights"},
    {"sensors_swapped", words("sensors swapped"), Family::sensors, Places::end, 1, &FaultParts::sensors,
     sensors_swapped, words("Press one corner down and the counts of the other move."), words("Change the plugs over."),
     0.25 * h, "", "calibrated heights"},
    {"collar_loose", words("collar loose"), Family::mechanics, Places::corner, 3, nullptr, nothing,
     words("It knocks on a smooth road; a hand turns the collar."),
     words("Wheels chocked, car on stands, no air: torque it and lock it."), 0.5 * h, "", "road_test"},
    {"topping_out", words("damper tops out"), Family::mechanics, Places::end, 4, nullptr, nothing,
     words("It knocks on a smooth road, and no longer ten millimetres lower."),
     words("A lower preset, a longer damper, or a strap that stops it before."), 2 * h, words("dampers or straps"),
     "top_out road_test"},
    {"stop_gone", words("bump stop gone"), Family::mechanics, Places::corner, 2, nullptr, nothing,
     words("It bangs over bumps; where the stop sat is bare metal."),
     words("Another bump stop; no driving until then."), 1 * h, words("a bump stop"), "stop_first"},
    {"bag_rubbed", words("bag rubs on something"), Family::bags, Places::corner, 2, nullptr, nothing,
     words("A shining or chafed place on the bag where it bulges."),
     words("Away with what it touches; a bag chafed to the cord is another bag."), 1.5 * h, "", "lock_gaps"},
    {"bag_folded", words("bag folded in"), Family::bags, Places::corner, 1, nullptr, nothing,
     words("The bag has tucked in on one side, mostly after lying flat or hanging; it rides harsh and squeaks."),
     words("Off with the load, roll it out by hand, and keep a little air in it when it is low."), 1 * h, "",
     "stop_first"},
    {"bag_unseated", words("bag off its seat"), Family::bags, Places::corner, 1, nullptr, nothing,
     words("After hanging or lifting it sits skew on its seat."),
     words("Pressure off, seat it, hold both ends; a strap against hanging."), 1.5 * h, "", "top_out"},
    {"wrong_load", words("heavier than assumed"), Family::loads, Places::end, 3, nullptr, wrong_load,
     words("The pressure at road height is more than was worked out, on both sides."),
     words("Weigh it as it is driven, and let the model have the load."), 0.75 * h, "", "pressures"},
    {"wrong_preset", words("wrong height stored"), Family::loads, Places::end, 3, &FaultParts::sensors, wrong_preset,
     words("Both sides of the end stand off alike; the stored counts are not those on the sheet."),
     words("Store the preset again on a level floor."), 0.5 * h, "", "heights"},
    {"relay", words("compressor relay dead"), Family::electrics, Places::car, 3, &FaultParts::compressor, never_runs,
     words("The compressor never runs; its relay does not click."), words("Another relay."), 0.25 * h, words("a relay"),
     "fill"},
    {"fuse", words("compressor’s fuse blown"), Family::electrics, Places::car, 3, &FaultParts::compressor, never_runs,
     words("The compressor never runs; no volts behind the fuse."),
     words("First what blew it, then another fuse of the same size."), 0.5 * h, words("a fuse"), "fill"},
    {"relay_stuck", words("relay stuck on"), Family::electrics, Places::car, 1, &FaultParts::compressor, always_runs,
     words("The compressor runs beyond its cut-out, until the relief valve blows."),
     words("Pull its fuse at once; another relay."), 0.25 * h, words("a relay"), "fill"},
    {"flat_battery", words("flat or failing battery"), Family::electrics, Places::car, 3, &FaultParts::compressor, flat,
     words("Everything is slow, the lights are dim; the battery itself has too few volts at rest."),
     words("Charge and test it; another battery, and what drained it."), 1 * h, words("a battery"), "fill"},
    {"supply_fuse", words("valves’ supply fuse blown"), Family::electrics, Places::car, 2, &FaultParts::coils,
     valves_dead, words("No corner goes up or down, no coil clicks; no volts at the block’s plug."),
     words("First what blew it, then another fuse of the same size."), 0.5 * h, words("a fuse"), "times"},
    {"controller_dead", words("controller dead"), Family::electrics, Places::car, 1.5, &FaultParts::controller,
     valves_dead, words("No corner goes up or down; volts are there, and nothing on it lights."),
     words("Its plugs and ground first; else another controller, taught again."), 1.5 * h, words("a controller"),
     "calibrated times heights"},
    {"ground_broken", words("block’s ground broken"), Family::electrics, Places::car, 2, &FaultParts::coils,
     valves_dead,
     words("No coil clicks although its supply is there; between its ground and the battery there are volts."),
     words("Bare metal, a new eye, grease; one ground for block and controller."), 0.75 * h, words("a ground strap"),
     "times"},
    {"coils_crossed", words("coils crossed"), Family::electrics, Places::corner, 1, &FaultParts::coils, crossed,
     words("Told to go up it goes down, and the other way."), words("Change the two plugs over."), 0.25 * h, "",
     "times calibrated"},
    {"sensor_dead", words("sensor dead"), Family::sensors, Places::corner, 2, &FaultParts::sensors, sensor_dead,
     words("Pressed down, its counts stay where they are."), words("Its plug and wires; else another sensor."), 1 * h,
     words("a sensor"), "calibrated heights"},
    {"sensor_shorted", words("sensor shorted"), Family::sensors, Places::corner, 1.5, &FaultParts::sensors,
     sensor_shorted, words("Its counts stand at an end of their range; the corner is driven to a stop."),
     words("Water in its plug, a chafed wire; else another sensor."), 1 * h, words("a sensor"), "calibrated heights"},
    {"bracket_bent", words("sensor bracket bent"), Family::sensors, Places::corner, 2, &FaultParts::sensors, bracket,
     words("That corner stands off, always by the same; nothing has play, and the bracket is not as its sister."),
     words("Straighten or change it, teach the presets again."), 0.75 * h, words("a bracket"), "calibrated heights"},
    {"feed_kinked", words("feed line kinked"), Family::ways, Places::car, 1.5, nullptr, feed_narrow,
     words("All corners go up slowly and come down as ever."), words("Lay the line from the tank to the valves again."),
     0.75 * h, words("a length of line"), "times"},
    {"tank_tap", words("tank tap not open"), Family::ways, Places::car, 1.5, nullptr, tap,
     words("All corners go up slowly or not at all; the tap at the tank is turned."),
     words("Open it, and wire it open."), 0.25 * h, "", "times"},
    {"tee_line", words("line between valve and tee pinched"), Family::ways, Places::end, 2, &FaultParts::tee_lines,
     tee_line, words("Both sides of the end are slow alike, up and down."),
     words("Lay the line from the block to the tee again."), 0.75 * h, words("a length of line"), "times"},
    {"intake_filter", words("intake filter clogged"), Family::supply, Places::car, 3, &FaultParts::compressor, filter,
     words("The tank takes long with full volts; the filter is grey or wet."),
     words("Another filter, its place drier."), 0.25 * h, words("a filter"), "fill"},
    {"before_check", words("leak between pump and check valve"), Family::supply, Places::car, 2,
     &FaultParts::compressor, before_check,
     words("It runs long and hisses while it runs; the tank holds when it stands."),
     words("Its hose and fittings soaped while it runs, and sealed."), 0.5 * h, words("a hose"), "fill"},
    {"check_shut", words("check valve stuck shut"), Family::supply, Places::car, 1, &FaultParts::compressor,
     no_delivery, words("It runs with full volts, gets hot, and the tank does not rise."),
     words("Stop it at once. Another check valve."), 0.5 * h, words("a check valve"), "fill"},
    {"relief_early", words("relief valve opens early"), Family::supply, Places::car, 1.5, &FaultParts::compressor,
     relief_early, words("It runs on below its cut-out, and the relief valve blows."),
     words("Another relief valve of the right setting; never plug one."), 0.5 * h, words("a relief valve"), "fill"},
    {"drain_open", words("drain not shut"), Family::leaks, Places::car, 2, nullptr, drain_open,
     words("The tank is empty in the morning and runs often by day; air at the drain."),
     words("Shut it; else another."), 0.25 * h, words("a drain"), "fill leak_minutes"},
    {"gauge_line", words("gauge line leaks"), Family::leaks, Places::corner, 2, &FaultParts::gauge, gauge_line,
     words("That corner sinks over hours; soap bubbles where its gauge is plugged in."),
     words("Cut the gauge’s line square and push it home, or another fitting."), 0.5 * h, words("a fitting"),
     "leak_minutes leak_hold"},
    {"leak_droop", words("leaks only at droop or lock"), Family::leaks, Places::corner, 2, nullptr, nothing,
     words("It holds at road height, and sinks after it hung or stood at full lock."),
     words("More line where it is pulled, or away from where it is bent."), 1 * h, words("a length of line"),
     "leak_minutes lock_gaps"},
    {"damper_leaks", words("damper leaks"), Family::mechanics, Places::corner, 2, nullptr, nothing,
     words("It floats and swings after a bump; the damper is wet."), words("Dampers, both of the axle."), 2 * h,
     words("two dampers"), "road_test"},
    {"damper_seized", words("damper seized or bent"), Family::mechanics, Places::corner, 1.5, nullptr, nothing,
     words("It rides harsh at that corner and stays where it was pushed."), words("Another damper; look what bent it."),
     2 * h, words("two dampers"), "top_out road_test"},
    {"bar_link", words("anti-roll bar’s link binds"), Family::mechanics, Places::end, 2, nullptr, nothing,
     words("It creaks as it lowers and one side hangs back; unhooked it is gone."),
     words("A link of the right length, its joints free over the travel."), 1 * h, words("links"), "road_test"},
    {"soft_tyre", words("soft tyre"), Family::loads, Places::corner, 3, nullptr, nothing,
     words("The car leans there although hub to lip is right."), words("Fill it, and find why it was low."), 0.25 * h,
     "", ""},
    {"cold_night", words("a cold night, and no more"), Family::nothing, Places::car, 4, nullptr, frosty,
     words("All corners are a little lower in the morning, alike, and come back in the warmth; no air is lost."),
     words("Nothing: tell the owner what the cold does, or top up before it."), 0.25 * h, "", ""},
    {"nothing", words("nothing is wrong"), Family::nothing, Places::car, 6, nullptr, nothing,
     words("All that was looked at is as it should be."), words("Nothing. Say so, and what was looked at."), 0.25 * h,
     "", ""},
    {"voltage", words("voltage lost on the way"), Family::electrics, Places::car, 4, &FaultParts::compressor, voltage,
     words("The tank takes longer, and the compressor’s terminals see too few volts while it runs."),
     words("Clean ground and plugs; a thicker cable."), 1 * h, words("cable"), "fill"},
};

} // namespace

const char* place_key(FaultPlaces places, std::size_t place) {
  constexpr const char* ends[] = {"front", "rear"};
  if (places == FaultPlaces::car) return "";
  return places == FaultPlaces::end ? ends[place] : corner_line_key(place);
}

std::optional<std::size_t> place_of(FaultPlaces places, std::string_view key) {
  for (std::size_t i = 0; i < places_of(places); ++i)
    if (key == place_key(places, i)) return i;
  return std::nullopt;
}

const char* place_name(FaultPlaces places, std::size_t place) {
  constexpr const char* ends[] = {words("Front"), words("Rear")};
  if (places == FaultPlaces::car) return "";
  return places == FaultPlaces::end ? ends[place] : corner_name(place);
}

const char* family_name(FaultFamily family) {
  constexpr const char* names[] = {words("leaks"),      words("lines"),        words("valves"),
                                   words("air supply"), words("water"),        words("sensors"),
                                   words("knocks"),     words("bags"),         words("loads and presets"),
                                   words("electrics"),  words("nothing wrong")};
  return names[static_cast<std::size_t>(family)];
}

std::span<const FaultCause> fault_causes() {
  return causes;
}

const FaultCause* fault_cause(std::string_view key) {
  for (const FaultCause& cause : causes)
    if (key == cause.key) return &cause;
  return nullptr;
}

bool is_nothing(const FaultCause& cause) {
  return std::string_view(cause.key) == "nothing";
}

bool can_have(const FaultParts& parts, const FaultCause& cause) {
  return !cause.needs || parts.*cause.needs;
}

} // namespace mavrel::assess
