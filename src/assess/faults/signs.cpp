#include "assess/faults/signs.h"

#include "assess/faults/sign_figures.h"
#include "assess/fit_up/jobs.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using control::Condition;
using Places = FaultPlaces;
using namespace sign_figures;

FaultSign told(const char* key, const char* name, Places places, double base,
               double (*shows)(const FaultCar&, const Condition&, std::size_t) = nullptr) {
  return {key, name, places, true, std::nullopt, base, shows};
}
/// So plain that it is told only where it is so.
FaultSign plain(const char* key, const char* name, Places places,
                double (*shows)(const FaultCar&, const Condition&, std::size_t)) {
  FaultSign out = told(key, name, places, 0.0005, shows);
  out.hard = true;
  return out;
}
FaultSign look(const char* key, const char* name, Places places, double base,
               double (*shows)(const FaultCar&, const Condition&, std::size_t) = nullptr) {
  return {key, name, places, false, std::nullopt, base, shows};
}
struct Doubt {
  double sd, share;
};
struct Range {
  double least, most;
  bool of_well = false, may_not_come = false;
};
FaultSign read(const char* key, const char* name, Places places, Kind kind,
               double (*reads)(const FaultCar&, const Condition&, std::size_t), Together together, Doubt doubt,
               Range range) {
  return {key,      name,        places,      false,      kind,          0,     nullptr,           reads, together,
          doubt.sd, doubt.share, range.least, range.most, range.of_well, false, range.may_not_come};
}

/// Nobody is wrong by much about the weather, and no ice is in a valve when it is warm.
FaultSign weather() {
  FaultSign out = read("air_around", words("the air around when it shows"), Places::car, Kind::temperature, air_around,
                       Together::adds, {8, 0}, {223.15, 333.15});
  out.hard = true;
  return out;
}

const FaultSign signs[] = {
    told("slow_up", words("slow going up"), Places::corner, 0.02, slow_up),
    told("slow_down", words("slow coming down"), Places::corner, 0.02, slow_down),
    plain("stuck_low", words("does not go up"), Places::corner, stuck_low),
    plain("stuck_high", words("does not come down"), Places::corner, stuck_high),
    plain("sinks_fast", words("sinks within minutes"), Places::corner, sinks_fast),
    told("sinks_night", words("sinks overnight"), Places::corner, 0.02, sinks_night),
    told("sinks_days", words("sinks over days"), Places::corner, 0.02, sinks_days),
    plain("rises", words("goes up by itself"), Places::corner, rises),
    told("wanders", words("its height wanders"), Places::corner, 0.015),
    told("bangs", words("bangs over bumps"), Places::corner, 0.01),
    told("squeaks", words("squeaks as it moves"), Places::corner, 0.015),
    told("rubs", words("a tyre rubs"), Places::corner, 0.012),
    told("uneven", words("its sides fill or empty unevenly"), Places::end, 0.02, uneven),
    told("other_moves", words("another corner moves than the one that is worked"), Places::end, 0.003),
    told("knocks", words("knocks on a smooth road"), Places::end, 0.02),
    told("harsh", words("rides harsh"), Places::end, 0.04),
    told("leans", words("one side stands lower"), Places::end, 0.03, leans),
    told("low_end", words("stands lower than it should"), Places::end, 0.02, low_end),
    told("high_end", words("stands higher than it should"), Places::end, 0.01, high_end),
    told("pumps_often", words("the compressor runs often"), Places::car, 0.05, pumps_often),
    plain("pumps_always", words("the compressor never stops"), Places::car, pumps_always),
    plain("pumps_never", words("the compressor never runs"), Places::car, pumps_never),
    told("pumps_stops", words("the compressor stops by itself and comes back later"), Places::car, 0.02, pumps_stops),
    told("fills_slowly", words("the tank takes long to fill"), Places::car, 0.05, fills_slowly),
    told("tank_low", words("the tank is low in the morning"), Places::car, 0.03, tank_low),
    told("spits_water", words("water at the vents"), Places::car, 0.03),
    told("worse_cold", words("worse on cold mornings"), Places::car, 0.05),
    told("hisses", words("a hiss when all is quiet"), Places::car, 0.04),
    plain("wrong_way", words("goes down when it is told to go up"), Places::corner, goes_wrong_way),
    plain("runs_in_vain", words("the compressor runs and the tank does not rise"), Places::car, runs_in_vain),
    told("floats", words("floats and swings after a bump"), Places::corner, 0.012),
    told("dim", words("the lights go dim"), Places::car, 0.02),
    told("began_suddenly", words("it began from one moment to the next"), Places::car, 0.15),
    told("began_slowly", words("it came slowly, over weeks"), Places::car, 0.15),
    told("worked_air", words("somebody worked on its air just before"), Places::car, 0.08),
    told("worked_wires", words("somebody worked on its wires just before"), Places::car, 0.08),
    told("worked_wheels", words("somebody worked at its wheels just before"), Places::car, 0.08),

    read("fill_time", words("time 20 mm up"), Places::corner, Kind::time, fill_time, Together::multiplies, {0.1, 0.08},
         {0.3, 8, true, true}),
    read("vent_time", words("time 20 mm down"), Places::corner, Kind::time, vent_time, Together::multiplies,
         {0.1, 0.08}, {0.3, 8, true, true}),
    read("hold_loss", words("air lost an hour"), Places::corner, Kind::share, hold_loss, Together::adds, {0.006, 0.08},
         {-0.05, 1, false, true}),
    read("bag_loss", words("air lost an hour, line plugged"), Places::corner, Kind::share, bag_loss, Together::adds,
         {0.006, 0.08}, {-0.05, 1, false, true}),
    read("tank_loss", words("air the tank loses an hour"), Places::car, Kind::share, tank_loss, Together::adds,
         {0.006, 0.08}, {-0.05, 1, false, true}),
    read("creep", words("height gained in ten minutes"), Places::corner, Kind::length, creep, Together::adds,
         {0.0015, 0.1}, {-0.25, 0.15}),
    read("tank_fill", words("tank from cut-in to cut-out"), Places::car, Kind::time, tank_fill, Together::multiplies,
         {2, 0.05}, {0.4, 6, true, true}),
    read("cut_out", words("pressure at which it stops"), Places::car, Kind::pressure, cut_out, Together::adds,
         {0.12e5, 0}, {0, 2, true, true}),
    read("volts", words("volts at the compressor while it should run"), Places::car, Kind::voltage, volts,
         Together::adds, {0.25, 0}, {0, 16}),
    read("height_off", words("height over what is stored"), Places::corner, Kind::length, height_off, Together::adds,
         {0.003, 0.05}, {-0.12, 0.12}),
    read("pressure_off", words("pressure over what was worked out"), Places::corner, Kind::pressure, pressure_off,
         Together::adds, {0.12e5, 0.05}, {-3e5, 3e5}),
    read("load_off", words("weight over what was assumed"), Places::end, Kind::mass, load_off, Together::adds,
         {9, 0.02}, {-400, 400}),

    weather(),

    look("bubbles_fitting", words("soap bubbles at a fitting"), Places::corner, 0.03),
    look("bubbles_bag", words("soap bubbles at the bag"), Places::corner, 0.01),
    look("bubbles_tank", words("soap bubbles at the tank"), Places::car, 0.02),
    look("exhaust_blows", words("air from the exhaust, all valves shut"), Places::car, 0.02),
    look("intake_blows", words("air back out of the compressor’s intake"), Places::car, 0.01),
    look("gauge_disagrees", words("a second gauge reads otherwise"), Places::car, 0.03),
    look("fuse_dead", words("no volts behind the fuse"), Places::car, 0.01),
    look("relay_silent", words("the relay does not click"), Places::car, 0.02),
    look("runs_beyond", words("it runs on with the switch’s plug off"), Places::car, 0.01),
    look("stops_hot", words("it stops hot within its rated time"), Places::car, 0.03),
    look("beads_spent", words("the dryer’s beads have changed colour"), Places::car, 0.06),
    look("drains_water", words("more than a cup of water at the drain"), Places::car, 0.05),
    look("frees_warm", words("all is well when the block is warmed"), Places::car, 0.02),
    look("quick_open", words("quicker down with the silencer off"), Places::car, 0.04),
    look("rod_plays", words("lever or rod has play"), Places::corner, 0.03),
    look("counts_wrong", words("pressed down, its counts run the wrong way"), Places::corner, 0.01),
    look("counts_other", words("pressed down, another corner’s counts move"), Places::end, 0.01),
    look("stored_other", words("the stored counts are not those on the sheet"), Places::end, 0.03),
    look("moves_other", words("one valve opened, the corner across moves"), Places::end, 0.005),
    look("fill_silent", words("the fill valve’s coil does not click"), Places::corner, 0.03),
    look("vent_silent", words("the vent valve’s coil does not click"), Places::corner, 0.03),
    look("line_kinked", words("the line is kinked or clamped somewhere"), Places::corner, 0.03),
    look("water_blown", words("water comes out when the line is blown through"), Places::corner, 0.02),
    look("collar_turns", words("a hand turns a collar"), Places::corner, 0.01),
    look("knock_gone", words("ten millimetres lower the knock is gone"), Places::end, 0.05),
    look("stop_missing", words("no rubber where the stop sits"), Places::corner, 0.01),
    look("rub_mark", words("a chafed or shining place on the bag"), Places::corner, 0.03),
    look("tucked", words("the bag has tucked in on one side"), Places::corner, 0.01),
    look("skew", words("the bag sits skew on its seat"), Places::corner, 0.01),
    look("feed_bent", words("the line from the tank is kinked somewhere"), Places::car, 0.02),
    look("tap_turned", words("the tap at the tank is not open"), Places::car, 0.01),
    look("filter_grey", words("the intake filter is grey or wet"), Places::car, 0.06),
    look("bubbles_pump", words("soap bubbles between pump and check valve"), Places::car, 0.01),
    look("relief_blows", words("air from the relief valve below the cut-out"), Places::car, 0.01),
    look("drain_hisses", words("air at the shut drain"), Places::car, 0.01),
    look("supply_dead", words("no volts at the block’s plug"), Places::car, 0.01),
    look("ground_lost", words("volts between the block’s ground and the battery"), Places::car, 0.01),
    look("controller_dark", words("nothing on the controller lights"), Places::car, 0.01),
    look("battery_low", words("too few volts at the battery at rest"), Places::car, 0.04),
    look("counts_still", words("pressed down, its counts stay where they are"), Places::corner, 0.01),
    look("counts_end", words("its counts stand at an end of their range"), Places::corner, 0.01),
    look("bracket_bent", words("its sensor’s bracket is not as its sister"), Places::corner, 0.02),
    look("other_coil", words("the wrong coil clicks"), Places::corner, 0.005),
    look("bubbles_gauge", words("soap bubbles at its gauge’s plug"), Places::corner, 0.01),
    look("bubbles_droop", words("soap bubbles with the wheel hanging or at lock"), Places::corner, 0.02),
    look("damper_wet", words("its damper is wet"), Places::corner, 0.04),
    look("damper_stiff", words("its damper does not move by hand"), Places::corner, 0.01),
    look("link_binds", words("its bar’s link binds as it lowers"), Places::end, 0.02),
    look("tee_line_bent", words("the line from the block to the tee is kinked"), Places::end, 0.02),
    look("tyre_low", words("its tyre is low"), Places::corner, 0.04),
};

/// How likely a sign is so because of a cause. What a condition makes by itself stands in the signs.
struct Shows {
  const char *cause, *sign;
  double p;
};
constexpr Shows table[] = {
    // what is told of how it came
    {"swapped_lines", "worked_air", 0.9},
    {"swapped_lines", "began_suddenly", 0.8},
    {"silencer", "began_slowly", 0.6},
    {"pinched", "worked_air", 0.25},
    {"pinched", "worked_wheels", 0.3},
    {"pinched", "began_suddenly", 0.5},
    {"feed_kinked", "worked_air", 0.4},
    {"feed_kinked", "began_suddenly", 0.5},
    {"tank_tap", "worked_air", 0.75},
    {"tank_tap", "began_suddenly", 0.75},
    {"tee_line", "worked_air", 0.3},
    {"tee_line", "began_suddenly", 0.5},
    {"leak_fitting", "worked_air", 0.3},
    {"leak_bag", "began_slowly", 0.4},
    {"leak_droop", "worked_wheels", 0.3},
    {"gauge_line", "worked_air", 0.35},
    {"worn", "began_slowly", 0.75},
    {"intake_filter", "began_slowly", 0.75},
    {"dryer_spent", "began_slowly", 0.7},
    {"water_tank", "began_slowly", 0.5},
    {"damper_leaks", "began_slowly", 0.6},
    {"flat_battery", "began_slowly", 0.4},
    {"voltage", "began_slowly", 0.4},
    {"voltage", "worked_wires", 0.25},
    {"fuse", "began_suddenly", 0.9},
    {"relay", "began_suddenly", 0.7},
    {"supply_fuse", "began_suddenly", 0.9},
    {"supply_fuse", "worked_wires", 0.35},
    {"controller_dead", "began_suddenly", 0.8},
    {"controller_dead", "worked_wires", 0.25},
    {"ground_broken", "began_suddenly", 0.5},
    {"ground_broken", "worked_wires", 0.35},
    {"coils_crossed", "worked_wires", 0.6},
    {"coils_crossed", "worked_air", 0.5},
    {"coils_crossed", "began_suddenly", 0.85},
    {"sensors_swapped", "worked_wires", 0.6},
    {"sensors_swapped", "worked_wheels", 0.4},
    {"sensors_swapped", "began_suddenly", 0.8},
    {"sensor_dead", "began_suddenly", 0.6},
    {"sensor_shorted", "began_suddenly", 0.6},
    {"bracket_bent", "worked_wheels", 0.5},
    {"bracket_bent", "began_suddenly", 0.6},
    {"rod_loose", "worked_wheels", 0.35},
    {"rod_flipped", "began_suddenly", 0.8},
    {"rod_flipped", "worked_wheels", 0.3},
    {"collar_loose", "worked_wheels", 0.4},
    {"bag_unseated", "worked_wheels", 0.4},
    {"bar_link", "worked_wheels", 0.4},
    {"check_shut", "began_suddenly", 0.7},
    {"relief_early", "began_suddenly", 0.4},
    {"drain_open", "worked_air", 0.5},
    {"drain_open", "began_suddenly", 0.6},
    {"fill_shut", "began_suddenly", 0.5},
    {"vent_shut", "began_suddenly", 0.5},
    {"ice", "began_suddenly", 0.6},
    // the feed, the supply, the sensors
    {"feed_kinked", "feed_bent", 0.88},
    {"tank_tap", "tap_turned", 0.97},
    {"tee_line", "tee_line_bent", 0.85},
    {"intake_filter", "filter_grey", 0.92},
    {"worn", "filter_grey", 0.2},
    {"before_check", "bubbles_pump", 0.92},
    {"before_check", "stops_hot", 0.2},
    {"check_shut", "stops_hot", 0.6},
    {"relief_early", "relief_blows", 0.95},
    {"relief_early", "hisses", 0.3},
    {"relief_early", "stops_hot", 0.3},
    {"drain_open", "drain_hisses", 0.95},
    {"drain_open", "hisses", 0.4},
    {"supply_fuse", "supply_dead", 0.97},
    {"supply_fuse", "fill_silent", 0.98},
    {"supply_fuse", "vent_silent", 0.98},
    {"supply_fuse", "controller_dark", 0.4},
    {"controller_dead", "controller_dark", 0.92},
    {"controller_dead", "fill_silent", 0.95},
    {"controller_dead", "vent_silent", 0.95},
    {"ground_broken", "ground_lost", 0.95},
    {"ground_broken", "fill_silent", 0.95},
    {"ground_broken", "vent_silent", 0.95},
    {"flat_battery", "battery_low", 0.93},
    {"flat_battery", "dim", 0.7},
    {"flat_battery", "relay_silent", 0.15},
    {"voltage", "dim", 0.15},
    {"coils_crossed", "other_coil", 0.97},
    {"sensor_dead", "counts_still", 0.97},
    {"sensor_dead", "wanders", 0.5},
    {"sensor_shorted", "counts_still", 0.95},
    {"sensor_shorted", "counts_end", 0.96},
    {"bracket_bent", "bracket_bent", 0.93},
    // the rest of the car
    {"gauge_line", "bubbles_gauge", 0.92},
    {"gauge_line", "hisses", 0.2},
    {"leak_droop", "bubbles_droop", 0.9},
    {"leak_droop", "sinks_days", 0.5},
    {"leak_droop", "sinks_night", 0.4},
    {"damper_leaks", "damper_wet", 0.95},
    {"damper_leaks", "floats", 0.8},
    {"damper_leaks", "knocks", 0.2},
    {"damper_seized", "damper_stiff", 0.95},
    {"damper_seized", "harsh", 0.7},
    {"damper_seized", "squeaks", 0.2},
    {"bar_link", "link_binds", 0.93},
    {"bar_link", "squeaks", 0.35},
    {"bar_link", "leans", 0.35},
    {"bar_link", "knocks", 0.3},
    {"soft_tyre", "tyre_low", 0.96},
    {"soft_tyre", "leans", 0.6},
    {"soft_tyre", "rubs", 0.2},
    {"cold_night", "worse_cold", 0.7},
    {"cold_night", "sinks_night", 0.3},
    {"cold_night", "low_end", 0.4},
    {"leak_fitting", "bubbles_fitting", 0.93},
    {"leak_fitting", "hisses", 0.35},
    {"leak_bag", "bubbles_bag", 0.9},
    {"leak_bag", "rub_mark", 0.5},
    {"leak_bag", "hisses", 0.25},
    {"leak_bag", "squeaks", 0.2},
    {"vent_seat", "exhaust_blows", 0.92},
    {"vent_seat", "hisses", 0.3},
    {"check_valve", "intake_blows", 0.92},
    {"check_valve", "hisses", 0.15},
    {"leak_tank", "bubbles_tank", 0.9},
    {"leak_tank", "hisses", 0.35},
    {"pinched", "line_kinked", 0.85},
    {"wet_line", "water_blown", 0.9},
    {"wet_line", "worse_cold", 0.6},
    {"wet_line", "spits_water", 0.4},
    {"wet_line", "drains_water", 0.6},
    {"swapped_lines", "other_moves", 0.85},
    {"swapped_lines", "moves_other", 0.99},
    {"silencer", "quick_open", 0.95},
    {"fill_shut", "fill_silent", 0.55},
    {"vent_shut", "vent_silent", 0.55},
    {"fill_open", "hisses", 0.3},
    {"vent_open", "exhaust_blows", 0.96},
    {"vent_open", "hisses", 0.5},
    {"axle_vent_seat", "exhaust_blows", 0.92},
    {"axle_vent_seat", "hisses", 0.3},
    {"axle_fill_shut", "fill_silent", 0.55},
    {"axle_vent_shut", "vent_silent", 0.55},
    {"axle_fill_open", "hisses", 0.3},
    {"axle_vent_open", "exhaust_blows", 0.96},
    {"axle_vent_open", "hisses", 0.5},
    {"hot", "stops_hot", 0.95},
    {"worn", "stops_hot", 0.15},
    {"voltage", "stops_hot", 0.1},
    {"gauge_off", "gauge_disagrees", 0.97},
    {"gauge_off", "tank_low", 0.4},
    {"gauge_off", "fills_slowly", 0.15},
    {"switch_off", "fills_slowly", 0.1},
    {"switch_off", "tank_low", 0.25},
    {"dryer_spent", "beads_spent", 0.95},
    {"dryer_spent", "spits_water", 0.55},
    {"dryer_spent", "drains_water", 0.55},
    {"dryer_spent", "worse_cold", 0.25},
    {"water_tank", "drains_water", 0.96},
    {"water_tank", "spits_water", 0.75},
    {"water_tank", "worse_cold", 0.25},
    {"water_tank", "beads_spent", 0.25},
    {"ice", "worse_cold", 0.93},
    {"ice", "frees_warm", 0.95},
    {"ice", "drains_water", 0.6},
    {"ice", "spits_water", 0.3},
    {"rod_loose", "rod_plays", 0.92},
    {"rod_loose", "wanders", 0.6},
    {"rod_flipped", "counts_wrong", 0.97},
    {"rod_flipped", "wanders", 0.3},
    {"rod_flipped", "leans", 0.8},
    {"sensors_swapped", "counts_other", 0.98},
    {"sensors_swapped", "leans", 0.75},
    {"sensors_swapped", "wanders", 0.25},
    {"collar_loose", "collar_turns", 0.93},
    {"collar_loose", "knocks", 0.9},
    {"topping_out", "knock_gone", 0.95},
    {"topping_out", "knocks", 0.92},
    {"topping_out", "harsh", 0.35},
    {"stop_gone", "stop_missing", 0.97},
    {"stop_gone", "bangs", 0.9},
    {"stop_gone", "harsh", 0.3},
    {"bag_rubbed", "rub_mark", 0.95},
    {"bag_rubbed", "squeaks", 0.75},
    {"bag_folded", "tucked", 0.95},
    {"bag_folded", "harsh", 0.6},
    {"bag_folded", "squeaks", 0.5},
    {"bag_unseated", "skew", 0.95},
    {"bag_unseated", "squeaks", 0.5},
    {"bag_unseated", "knocks", 0.3},
    {"wrong_load", "harsh", 0.35},
    {"wrong_load", "bangs", 0.4},
    {"wrong_load", "pumps_often", 0.25},
    {"wrong_load", "rubs", 0.3},
    {"wrong_preset", "stored_other", 0.95},
    {"wrong_preset", "rubs", 0.3},
    {"stop_gone", "rubs", 0.25},
    {"bag_folded", "rubs", 0.15},
    {"relay", "relay_silent", 0.9},
    {"relay", "tank_low", 0.5},
    {"fuse", "fuse_dead", 0.98},
    {"fuse", "tank_low", 0.5},
    {"fuse", "relay_silent", 0.5},
    {"relay_stuck", "runs_beyond", 0.95},
    {"relay_stuck", "stops_hot", 0.4},
};

const FaultTest tests[] = {
    {"timing", words("Time it up and down"), Places::corner, 5,
     words("Full tank, road height. Hold its fill valve until it stands 20 mm higher, let it settle, then the vent "
           "valve until it is back; a watch on both."),
     "fill_time vent_time"},
    {"hold", words("Hold twenty minutes, valves shut"), Places::car, 22,
     words(
         "All at road height, tank full, valves shut, compressor off. Read all gauges and a thermometer now, after ten "
         "and after twenty minutes."),
     "hold_loss tank_loss"},
    {"plugged", words("Hold with the line plugged at the bag"), Places::corner, 30,
     words("Car on stands. Pressure off, plug the line at the bag with a tee and gauge, fill it, hold twenty minutes."),
     "bag_loss"},
    {"creep", words("Watch the heights for ten minutes"), Places::car, 12,
     words("Tank full, controller off, valves shut. Tape every corner from hub to lip, and again ten minutes later."),
     "creep"},
    {"soap_fitting", words("Soap its fittings"), Places::corner, 3,
     words("Soapy water on every fitting of its line, pressure on; bubbles that grow are a leak."), "bubbles_fitting"},
    {"soap_bag", words("Soap the bag"), Places::corner, 6,
     words("Car on stands. Soapy water on the bag’s ends and where it folds."), "bubbles_bag"},
    {"soap_tank", words("Soap the tank"), Places::car, 5,
     words("Soapy water on the tank’s ports, its drain, the relief valve and the switch’s thread."),
     "bubbles_tank drain_hisses"},
    {"exhaust", words("A hand at the exhaust"), Places::car, 2,
     words("All valves shut, engine off: a wet finger, or a bag over the silencer."), "exhaust_blows"},
    {"intake", words("A hand at the intake"), Places::car, 2,
     words("Tank full, compressor off: a wet finger at its intake."), "intake_blows", &FaultParts::compressor},
    {"pump", words("Let it fill the tank"), Places::car, 12,
     words("Let air out down to cut-in and time it to cut-out; a meter on the compressor’s terminals, an eye on the "
           "gauge where it stops."),
     "tank_fill cut_out volts relief_blows", &FaultParts::compressor},
    {"long_run", words("Let it run for its rated time"), Places::car, 25,
     words("Drain open a little so that it goes on running; does it stop hot before its card says?"), "stops_hot",
     &FaultParts::compressor},
    {"second_gauge", words("A second gauge at the tank"), Places::car, 4,
     words("A gauge that is known to be right on the tyre outlet or the drain."), "gauge_disagrees"},
    {"fuse", words("Volts behind the fuse"), Places::car, 3, words("A meter behind the fuse, against ground."),
     "fuse_dead", &FaultParts::compressor},
    {"relay", words("Listen to the relay"), Places::car, 3,
     words("Bridge the pressure switch: a finger on the relay feels it click."), "relay_silent",
     &FaultParts::compressor},
    {"unplug_switch", words("Unplug the pressure switch"), Places::car, 3,
     words("While it runs, pull the switch’s plug: it must stop at once."), "runs_beyond", &FaultParts::compressor},
    {"drain", words("Drain the tank"), Places::car, 3, words("Slowly, into a jar, at low pressure."), "drains_water"},
    {"beads", words("Look at the dryer’s beads"), Places::car, 4, words("Pressure off, its glass or cap open."),
     "beads_spent", &FaultParts::dryer},
    {"warm", words("Warm the block"), Places::car, 10,
     words("Warm air, never a flame, on block and lines for ten minutes; then work it again."), "frees_warm"},
    {"silencer_off", words("Down with the silencer off"), Places::car, 5,
     words("Take the silencer off and let one corner down; compare."), "quick_open", &FaultParts::silencer},
    {"rod", words("A hand on lever and rod"), Places::corner, 2,
     words("Wiggle lever, rod and both joints, and look at the bracket."), "rod_plays bracket_bent",
     &FaultParts::sensors},
    {"press", words("Press the corner down"), Places::corner, 3,
     words("Lean on it and watch whose counts move, and which way."),
     "counts_wrong counts_other counts_still counts_end", &FaultParts::sensors},
    {"heights", words("Tape all heights at road"), Places::car, 6,
     words("Call road height, let it settle, tape hub to lip all round."), "height_off"},
    {"stored", words("Compare what is stored"), Places::end, 3,
     words("Read the stored counts and compare them with the hand-over sheet."), "stored_other", &FaultParts::sensors},
    {"gauges", words("Read the gauges at road height"), Places::car, 3,
     words("Come up to road height from below and read every corner’s gauge."), "pressure_off"},
    {"weigh", words("Weigh the end"), Places::end, 15,
     words("On the scales as it is driven, at road height; against what Car in has."), "load_off"},
    {"which", words("One valve at a time"), Places::end, 3,
     words("Open one corner’s fill valve for a second: which corner moves?"), "moves_other", &FaultParts::per_corner},
    {"coils", words("Listen to its coils"), Places::corner, 3,
     words("A finger on each coil while somebody works the switch."), "fill_silent vent_silent other_coil",
     &FaultParts::coils},
    {"line", words("Follow its line"), Places::corner, 8,
     words("From block to bag: clamps, kinks, places where something stands on it."), "line_kinked"},
    {"blow", words("Blow its line through"), Places::corner, 8,
     words("Pressure off. Line off at both ends, shop air through it at 2 bar into a rag."), "water_blown"},
    {"collar", words("A hand on its collars"), Places::corner, 2,
     words("Car on stands, no air: try to turn collar and lock ring."), "collar_turns"},
    {"ten_lower", words("Ten millimetres lower"), Places::end, 15,
     words("The same smooth road, that end ten millimetres lower."), "knock_gone"},
    {"look_bag", words("Look at the bag"), Places::corner, 4,
     words("Wheel off or a mirror: all round where it bulges, folds and sits."), "rub_mark tucked skew"},
    {"weather", words("Ask what the weather was"), Places::car, 1,
     words("How cold or warm it was where the car stood when it showed."), "air_around"},
    {"feed", words("Follow the feed"), Places::car, 5,
     words("From the tank’s tap to the valves: taps, clamps, kinks; the lines from the block to its tees."),
     "feed_bent tap_turned tee_line_bent"},
    {"filter", words("Look at the intake filter"), Places::car, 2, words("Its cover off, against the light."),
     "filter_grey", &FaultParts::compressor},
    {"soap_pump", words("Soap the pump’s hose"), Places::car, 5,
     words("While it runs: soapy water from its outlet to the check valve."), "bubbles_pump", &FaultParts::compressor},
    {"supply", words("Volts at the block’s plug"), Places::car, 4,
     words("A meter from the plug’s supply to its ground, then from that ground to the battery’s; look at the "
           "controller’s lamp."),
     "supply_dead ground_lost controller_dark", &FaultParts::coils},
    {"battery", words("Volts at the battery"), Places::car, 2, words("At rest, some hours after it was driven."),
     "battery_low"},
    {"soap_gauge", words("Soap its gauge"), Places::corner, 3,
     words("Soapy water where its gauge’s line is plugged in."), "bubbles_gauge", &FaultParts::gauge},
    {"soap_droop", words("Soap it hanging and at lock"), Places::corner, 8,
     words("Body on stands, wheel hanging, then turned to both locks, pressure on."), "bubbles_droop"},
    {"damper", words("Look at the damper"), Places::corner, 4,
     words("Wet below its seal? Unhooked at one end, does it go in and out by hand?"), "damper_wet damper_stiff"},
    {"link", words("Watch the bar’s links"), Places::end, 5,
     words("Somebody lowers and lifts it: does a link turn over, touch or hang back?"), "link_binds"},
    {"tyres", words("Check the tyres"), Places::car, 4, words("A gauge on all four."), "tyre_low"},
    {"look_stop", words("Look at the bump stop"), Places::corner, 3, words("A light and a mirror where it sits."),
     "stop_missing"},
};

} // namespace

std::span<const FaultSign> fault_signs() {
  return signs;
}

const FaultSign* fault_sign(std::string_view key) {
  for (const FaultSign& sign : signs)
    if (key == sign.key) return &sign;
  return nullptr;
}

double shows_by_table(const FaultCause& cause, const FaultSign& sign) {
  // Asked for every set of causes at every test there is: put together once, a row a cause and a column a sign.
  static const auto by = [] {
    std::vector<double> out(fault_causes().size() * fault_signs().size(), 0.0);
    for (std::size_t c = 0; c < fault_causes().size(); ++c)
      for (std::size_t s = 0; s < fault_signs().size(); ++s)
        for (const Shows& row : table)
          if (std::string_view(row.cause) == fault_causes()[c].key &&
              std::string_view(row.sign) == fault_signs()[s].key)
            out[c * fault_signs().size() + s] = row.p;
    return out;
  }();
  const auto c = static_cast<std::size_t>(&cause - fault_causes().data());
  return by[c * fault_signs().size() + static_cast<std::size_t>(&sign - fault_signs().data())];
}

bool shows_at(const FaultCause& cause, std::size_t at, const FaultSign& sign, std::size_t place) {
  if (cause.places == Places::car || sign.places == Places::car) return true;
  if (cause.places == sign.places) return at == place;
  return cause.places == Places::corner ? at / 2 == place : at == place / 2;
}

Amount reading_amount(const FaultSign& sign, double value) {
  const Kind kind = *sign.kind;
  const int decimals = kind == Kind::time       ? (std::abs(value) < 10 ? 2 : 0)
                       : kind == Kind::share    ? 1
                       : kind == Kind::pressure ? 2
                       : kind == Kind::voltage  ? 1
                       : kind == Kind::length   ? 1
                                                : 0;
  return {value, kind, decimals, {}};
}

std::pair<double, double> believable(const FaultCar& car, const FaultSign& sign, std::size_t place) {
  if (!sign.of_well) return {sign.least, sign.most};
  const double well = sign.reads(car, {}, place);
  return {sign.least * well, sign.most * well};
}

std::span<const FaultTest> fault_tests() {
  return tests;
}

const FaultTest* fault_test(std::string_view key) {
  for (const FaultTest& test : tests)
    if (key == test.key) return &test;
  return nullptr;
}

std::string test_key(const TestAt& at) {
  const char* where = place_key(at.test->places, at.place);
  return *where ? std::string(at.test->key) + ":" + where : at.test->key;
}

std::optional<TestAt> test_of(std::string_view key) {
  const auto colon = key.find(':');
  const FaultTest* test = fault_test(key.substr(0, colon));
  if (!test) return std::nullopt;
  const auto place = place_of(test->places, colon == std::string_view::npos ? "" : key.substr(colon + 1));
  return place ? std::optional(TestAt{test, *place}) : std::nullopt;
}

Message test_words(const TestAt& at) {
  if (at.test->places == Places::car) return {at.test->name, {}};
  return {words("{0}: {1}"), {place_name(at.test->places, at.place), at.test->name}};
}

bool can_do(const FaultParts& parts, const FaultTest& test) {
  return !test.needs || parts.*test.needs;
}

Message sign_words(const SignAt& at) {
  if (at.sign->places == Places::car) return {at.sign->name, {}};
  return {words("{0}: {1}"), {place_name(at.sign->places, at.place), at.sign->name}};
}

std::vector<SignAt> told_by(const FaultTest& test, std::size_t place) {
  std::vector<SignAt> out;
  for (const std::string& key : ids_in(test.tells)) {
    const FaultSign& sign = *fault_sign(key);
    if (test.places == Places::car)
      for (std::size_t i = 0; i < places_of(sign.places); ++i)
        out.push_back({&sign, i});
    else if (sign.places == test.places)
      out.push_back({&sign, place});
    else if (sign.places == Places::end) // a corner's test that tells of its end
      out.push_back({&sign, place / 2});
    else
      out.push_back({&sign, place});
  }
  return out;
}

} // namespace mavrel::assess
