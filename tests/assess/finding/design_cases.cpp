// Cars that have what can be found in a design, and cars that have not.
#include "assess/finding/case.h"

#include "assess/asked.h"
#include "assess/assess.h"
#include "assess/interference/near_at.h"
#include "assess/motion/geometry_of.h"
#include "motion/linkage/corner.h"

#include "random_car.h"

#include <functional>

namespace mavrel::assess {

namespace {

using build::Build;
using build::HeightWish;
using Change = std::function<void(Build&)>;

/// A cycle sheet at the front.
/// @param span  m of heights; off  m that the middle row is misread by
std::function<void(Build&)> sheet(int rows, double span, double off) {
  return [=](Build& b) {
    for (int i = 0; i < rows; ++i) {
      build::CycleRow row;
      row.height = 0.365 - span / 2 + span * i / (rows - 1);
      row.spring = 0.19 + 0.96 * (row.height - 0.378) + 0.4 * (row.height - 0.378) * (row.height - 0.378) +
                   (i == rows / 2 ? off : 0);
      b.ends[0].cycle.push_back(row);
    }
  };
}

/// One variant of the demo estate that hardly anything can be said against.
void calm(Build& b) {
  b.active_variant = 2;
  b.ends[0].corners[0].height.values = {0.379, 0.378};
  b.ends[1].unsprung_mass = 34;
  b.surroundings.night_temperature = b.surroundings.temperature;
  b.surroundings.shut_off_above = 0;
  b.variant().brief.rear_quicker_low = -0.5;
  b.variant().brief.gauge_error = 1e2;
  b.variant().brief.load_doubt = 0;
  for (auto& end : b.ends)
    end.friction = 0;
}

const Change as_it_is = [](Build&) {};
const Change nothing_measured = [](Build& b) { b = build::empty_build(); };
Change also(const Change& first, const Change& then) {
  return [=](Build& b) { first(b), then(b); };
}
Change wish(std::size_t preset, std::size_t end, HeightWish::As as, double value) {
  return [=](Build& b) { b.variant().brief.presets[preset].wish[end] = HeightWish{as, value, {}}; };
}

Change rear_bag(const char* name) {
  return [=](Build& b) { b.variant().fit[1].bag = name; };
}

/// The front on joints of a layout, none of which was taped otherwise.
Change joints(build::Layout layout, const Change& then = as_it_is) {
  return [=](Build& b) {
    build::EndSurvey& e = b.ends[0];
    e.layout = layout;
    e.spring_place = build::SpringPlace::apart;
    e.spring_seat = build::SpringSeat::arm;
    e.motion_ratio = e.damper_ratio = e.spring_length = e.damper_length = {};
    for (build::HardPoint& p : usual_points(layout, e.track, 0.3126))
      e.points.own().left.push_back(std::move(p));
    then(b);
  };
}
build::HardPoint& joint(Build& b, const std::string& name) {
  auto& left = b.ends[0].points.own().left;
  for (std::size_t i = 0; i < left.size(); ++i)
    if (left[i].name == name) return left[i];
  throw std::runtime_error("no joint " + name);
}
/// A cycle sheet taped from those joints. @param seat_off  m that the lower seat really lies further out
Change taped(double seat_off) {
  return [=](Build& b) {
    Build really = b;
    joint(really, "spring_foot").y += seat_off;
    const motion::CornerLinkage linkage(joints_of_end(really.ends[0]).value().side[0]);
    const double H0 = surveyed_end(survey_given(b, End::front)).height.value();
    for (double H = 0.33; H < 0.431; H += 0.0125) {
      build::CycleRow row;
      row.height = H;
      row.spring = linkage.solve(H - H0).value().spring->length;
      b.ends[0].cycle.push_back(row);
    }
  };
}
/// The lower bracket turned from where it stands the bag straight at road.
Change turned(double by) {
  return [=](Build& b) {
    const auto straight = fitted_end(b, case_shelf(), End::front).model.alignment.value().straight_lower;
    b.variant().fit[0].mounting.lower.across_angle = straight.across + by;
  };
}
constexpr auto wishbones = build::Layout::double_wishbone;

/// Something near the left front wheel. @param shaped  what it is like, from how one is added
Change near_front(build::ObstacleShape shape, const std::function<void(build::Obstacle&)>& shaped) {
  return [=](Build& b) {
    build::Obstacle o;
    o.name = "bracket";
    o.shape = shape;
    o.y = 0.40, o.z = 0.55, o.to_y = 0.45, o.to_z = 0.55;
    shaped(o);
    b.ends[0].obstacles.push_back(o);
  };
}
const std::function<void(build::Obstacle&)> as_it_stands = [](build::Obstacle&) {};
/// A solid axle in front, and a box beside the top of its tyres. @param room  m left with both wheels fully up
Change beside_rolling_axle(double room) {
  return joints(build::Layout::axle_parallel_links, [=](Build& b) {
    build::Obstacle o;
    o.name = "rail", o.shape = build::ObstacleShape::box;
    o.x = 0, o.y = 0.3, o.size_x = 0.3, o.size_y = 0.02, o.size_z = 0.04;
    o.z = 0.62 + b.variant().brief.bump_travel;
    b.ends[0].obstacles = {};
    b.ends[0].obstacles.push_back(o);
    const Assessment before = assess(b, case_shelf());
    const double full = *before.ends[0]->fitted.road - b.variant().brief.bump_travel;
    for (const NearAt& gap : near_uneven(before.ends[0], full, full))
      if (gap.mover == Mover::tyre && gap.near.name == "rail") b.ends[0].obstacles[0].y += gap.gap.apart - room;
  });
}
/// Joined sides under an uneven load, and something over the left front tyre. @param room  m more than is wanted, level
Change leaning(double room) {
  return [=](Build& b) {
    for (auto& fit : b.variant().fit)
      fit.sides = build::Sides::joined;
    for (auto& end : b.ends)
      end.corners[0].mass.values = {500};
    build::Obstacle o;
    o.name = "liner", o.shape = build::ObstacleShape::gap;
    o.gap = b.variant().brief.rooms.tyre + room;
    o.gap_height = assess(b, case_shelf()).ends[0]->fitted.road;
    b.ends[0].obstacles.push_back(o);
  };
}
/// The demo's underside and what it has to get over.
Change over_the_ground(const Change& then) {
  return [=](Build& b) {
    b.body.underside = test::demo_whole().body.underside;
    b.variant().brief.grounds = test::demo_whole().variant().brief.grounds;
    then(b);
  };
}

/// The demo's air kit, and where in the car it lies.
Change with_kit(const std::function<void(build::AirKit&)>& then) {
  return [=](Build& b) {
    b.variant().air = test::demo_whole().variant().air;
    b.variant().brief.air = test::demo_whole().variant().brief.air;
    b.body.boot = test::demo_whole().body.boot, b.body.well = test::demo_whole().body.well;
    b.body.hot = test::demo_whole().body.hot;
    then(b.variant().air);
  };
}
const Change whole_kit = with_kit([](build::AirKit&) {});
Change kit_and(const Change& then) {
  return also(whole_kit, then);
}
/// Sensors on pickups that move little.
const Change calm_sensors = kit_and([](Build& b) {
  for (build::SensorFit& fit : b.variant().leveling.sensors)
    fit.pickup_ratio = 0.3;
});
/// A part of the kit is another, or none.
Change part(std::string build::AirKit::*which, const std::string& name) {
  return with_kit([=](build::AirKit& kit) { kit.*which = name; });
}

} // namespace

const shelf::Shelf& case_shelf() {
  static const shelf::Shelf all = [] {
    shelf::Shelf out = test::demo_shelf();
    const auto add = [&](const char* name, const std::function<void(air::BagCard&)>& change) {
      shelf::ShelfBag bag = *test::demo_shelf().find("Osier O-150");
      bag.card.name = name;
      change(bag.card);
      bag.curve = air::BagCurve(bag.card);
      out.bags.push_back(std::move(bag));
    };
    shelf::ShelfPart weak;
    weak.part = *out.find(shelf::PartKind::compressor, "Hobbin H20");
    weak.part.name = "Zz weak";
    for (shelf::CompressorPoint& point : weak.part.curve)
      if (point.pressure > 5e5) point.air = 0;
    out.parts.push_back(weak);
    weak.part = *out.find(shelf::PartKind::compressor, "Hobbin H20");
    weak.part.name = "Zz short curve";
    std::erase_if(weak.part.curve, [](const shelf::CompressorPoint& p) { return p.pressure > 7e5; });
    out.parts.push_back(weak);
    weak.part = *out.find(shelf::PartKind::compressor, "Hobbin H20");
    weak.part.name = "Zz starts hard", weak.part.start_current = 160;
    out.parts.push_back(weak);
    weak.part = *out.find(shelf::PartKind::pressure_switch, "Tick 10");
    weak.part.name = "Zz thin contacts", weak.part.rated_current = 0.1;
    out.parts.push_back(weak);
    weak.part = *out.find(shelf::PartKind::tank, "Ambry 12");
    weak.part.name = "Zz too roomy", weak.part.volume = 0.08;
    out.parts.push_back(std::move(weak));
    add("Zz doubtful", [](air::BagCard&) {});
    out.bags.back().doubts.push_back({12, 1, {"A figure was probably mistyped.", {}}});
    add("Zz runs away", [](air::BagCard& c) { // it pushes harder the higher it stands, and hardly loses pressure
      for (auto& column : c.loads)
        for (std::size_t i = 0; i < column.size(); ++i)
          column[i] *= std::pow(1.6, static_cast<double>(i) - 0.5 * static_cast<double>(column.size()));
      for (double& v : c.volumes)
        v *= 60;
    });
    add("Zz short card", [](air::BagCard& c) {
      c.heights.resize(6), c.volumes.resize(6), c.diameters.resize(6);
      for (auto& column : c.loads)
        column.resize(6);
    });
    add("Zz weak", [](air::BagCard& c) { c.max_pressure = 5e5; });
    add("Zz takes no peak", [](air::BagCard& c) { c.peak_pressure = 3e5; });
    add("Zz wants much", [](air::BagCard& c) { c.min_pressure = 3.2e5; });
    std::sort(out.bags.begin(), out.bags.end(),
              [](const shelf::ShelfBag& a, const shelf::ShelfBag& b) { return a.card.name < b.card.name; });
    return out;
  }();
  return all;
}

std::vector<Case> design_cases() {
  using build::AirKit;
  return {
      // ---- the air
      {"air_part_missing", part(&AirKit::valves, ""), whole_kit},
      {"air_part_not_on_shelf", part(&AirKit::tank, "Nobody's tank"), whole_kit},
      {"air_part_doubtful", part(&AirKit::tank, "Zz too roomy"), whole_kit},
      {"air_no_source", with_kit([](AirKit& k) { k.compressor = "", k.shop_inlet = build::Fitted::no; }),
       part(&AirKit::compressor, "")},
      {"air_no_relief", part(&AirKit::relief, ""), whole_kit},
      {"air_no_check_valve", part(&AirKit::check_valve, ""), whole_kit},
      {"air_no_drain", part(&AirKit::drain, ""), whole_kit},
      {"air_no_switch", part(&AirKit::pressure_switch, ""), whole_kit},
      {"air_tank_rating", with_kit([](AirKit& k) { k.tank = "Wellpan 14", k.pressure_switch = "Tick 13.5"; }),
       part(&AirKit::tank, "Wellpan 14")},
      {"air_relief_setting", part(&AirKit::pressure_switch, "Tick 13.5"), whole_kit},
      {"air_line_rating", with_kit([](AirKit& k) {
         k.school = build::ValveSchool::hand_valves, k.valves = "Lever 140", k.pressure_switch = "Tick 13.5";
       }),
       with_kit([](AirKit& k) { k.school = build::ValveSchool::hand_valves, k.valves = "Lever 140"; })},
      {"air_fitting_size", part(&AirKit::rear_fitting, "Snap 10"), whole_kit},
      {"air_valve_ways", part(&AirKit::valves, "Kestle 2-10"),
       with_kit([](AirKit& k) { k.valves = "Kestle 2-10", k.circuits = build::Circuits::per_axle; })},
      {"air_compressor_weak", with_kit([](AirKit& k) { k.compressor = "Zz weak"; }), whole_kit},
      {"air_curve_past_end", part(&AirKit::compressor, "Zz short curve"), part(&AirKit::compressor, "Hobbin H20")},
      {"air_starts_at_once", part(&AirKit::compressor, "Zz starts hard"), part(&AirKit::compressor, "Hobbin H20")},
      {"air_switch_rating", part(&AirKit::pressure_switch, "Zz thin contacts"), whole_kit},
      {"air_bag_above_tank", kit_and([](Build& b) { b.load_cases[2].masses[1].mass = 1100; }), whole_kit},
      {"air_shared_fuse", with_kit([](AirKit& k) { k.second_compressor = k.compressor, k.feeds = build::Feeds::one; }),
       with_kit([](AirKit& k) { k.second_compressor = k.compressor; })},
      {"air_wiring", with_kit([](AirKit& k) { k.drop_allowed = 0.002; }), whole_kit},
      {"air_voltage", part(&AirKit::compressor, "Velm 52/24"), whole_kit},
      {"air_current", kit_and([](Build& b) { b.variant().brief.air.current = 10; }), whole_kit},
      {"air_sound", kit_and([](Build& b) { b.variant().brief.air.sound = 60; }), whole_kit},
      {"air_circuits_sides", kit_and([](Build& b) { b.variant().fit[1].sides = build::Sides::joined; }), whole_kit},
      {"air_no_gauge",
       with_kit([](AirKit& k) { k.school = build::ValveSchool::hand_valves, k.valves = "Lever 140", k.gauge = ""; }),
       part(&AirKit::gauge, "")},
      {"air_heat", kit_and([](Build& b) { b.body.hot[0].y = b.body.hot[0].to_y = 0, b.body.hot[0].to_x = 3.2; }),
       whole_kit},
      {"air_boxes_meet", with_kit([](AirKit& k) { k.compressor_at = k.tank_at; }), whole_kit},
      {"air_box_out", with_kit([](AirKit& k) { k.valves_at.x = 1.9; }), whole_kit},
      {"air_drain_not_lowest", with_kit([](AirKit& k) { k.valves_at.z = 0.2; }), whole_kit},
      {"air_too_large", kit_and([](Build& b) { b.variant().brief.air.room = 0.01; }), whole_kit},
      {"level_hand_valves",
       with_kit([](AirKit& k) { k.school = build::ValveSchool::hand_valves, k.valves = "Lever 140"; }), whole_kit},
      {"level_no_sensor", part(&AirKit::sensor, ""), whole_kit},
      {"level_sensor_unplaced", kit_and([](Build& b) { b.variant().leveling.sensors[0].lever.reset(); }), whole_kit},
      {"level_sensor_reach", kit_and([](Build& b) { b.variant().leveling.sensors[0].rod = 0.085; }), calm_sensors},
      {"level_sensor_flips", kit_and([](Build& b) {
         b.variant().leveling.sensors[0].lever = 0.058, b.variant().leveling.sensors[0].rod = 0.195;
         b.variant().leveling.sensors[0].pickup_ratio = 0.95;
       }),
       calm_sensors},
      {"level_sensor_square", kit_and([](Build& b) { b.variant().leveling.sensors[0].rod = 0.135; }), calm_sensors},
      {"level_sensor_range", kit_and([](Build& b) { b.variant().leveling.sensors[0].range = 0.5; }), calm_sensors},
      {"level_sensor_coarse", kit_and([](Build& b) { b.variant().leveling.sensors[0].counts = 64; }), calm_sensors},
      {"level_sensor_near", kit_and([](Build& b) {
         auto& s = b.variant().leveling.sensors[0];
         s.ahead = 0.26, s.pivot_y = *s.pivot_y + 0.22, s.pickup_y = *s.pickup_y + 0.22;
       }),
       calm_sensors},
      {"level_wait_short", kit_and([](Build& b) { b.variant().leveling.set_ups[0].rules.wait = 2; }), whole_kit},
      {"level_bursts_order", kit_and([](Build& b) { b.variant().leveling.set_ups[0].rules.least_burst = 2; }),
       whole_kit},
      {"level_band_wide", kit_and([](Build& b) { b.variant().leveling.set_ups[0].rules.band = 0.03; }),
       kit_and([](Build& b) { b.variant().leveling.set_ups[0].rules.band = 0.001; })},
      {"level_pressure_silent", kit_and([](Build& b) {
         std::swap(b.variant().leveling.set_ups[0].rules, b.variant().leveling.set_ups[2].rules);
         b.variant().brief.load_doubt = 60, b.variant().brief.gauge_error = 5e4;
       }),
       whole_kit},
      {"level_lean_left", with_kit([](AirKit& k) { k.circuits = build::Circuits::per_axle; }), whole_kit},
      // ---- the survey
      {"reading_missing", [](Build& b) { b.ends[1].damper_ratio.values.clear(); }, as_it_is},
      {"unsprung_estimated", as_it_is, calm},
      {"weight_one_side", [](Build& b) { b.ends[0].corners[1].mass.values.clear(); }, as_it_is},
      {"height_one_side", [](Build& b) { b.ends[0].corners[1].height.values.clear(); }, as_it_is},
      {"spring_base_estimated", [](Build& b) { b.ends[1].layout = build::Layout::axle_was_leaves; },
       [](Build& b) { b.ends[1].layout = build::Layout::axle_was_leaves, b.ends[1].spring_base = 1; }},
      {"track_missing", [](Build& b) { b.ends[0].track.reset(); }, as_it_is},
      {"wheel_unreadable", [](Build& b) { b.ends[0].wheel = "big ones"; }, as_it_is},
      {"sides_differ_height", [](Build& b) { b.ends[1].corners[0].height.values = {0.40}; }, as_it_is},
      {"sides_differ_weight", [](Build& b) { b.ends[1].corners[0].mass.values = {400}; }, as_it_is},
      {"readings_spread", as_it_is, calm},
      {"damper_lengths_crossed", [](Build& b) { b.ends[0].damper_shut.values = {0.49}; }, as_it_is},
      {"damper_reading_impossible", [](Build& b) { b.ends[0].damper_length.values = {0.48}; }, as_it_is},
      {"axle_over_rating", [](Build& b) { b.ends[0].rating = 850; }, as_it_is},
      {"car_over_rating", [](Build& b) { b.body.rating = 1700; }, as_it_is},
      {"cross_weight", [](Build& b) { b.ends[0].corners[1].mass.values = {510}; }, as_it_is},
      {"floor_incomplete", [](Build& b) { b.ends[0].corners[1].floor.reset(); }, as_it_is},
      {"floor_twisted", [](Build& b) { b.ends[0].corners[1].floor = 0.02; }, as_it_is},
      {"floor_tilted", [](Build& b) { b.ends[1].corners[0].floor = b.ends[1].corners[1].floor = 0.012; }, as_it_is},
      {"wheelbase_missing", [](Build& b) { b.body.wheelbase.reset(); }, as_it_is},
      {"corner_lifts", [](Build& b) { b.load_cases[2].masses[1].mass = -1400; }, as_it_is},
      {"load_outside_car", [](Build& b) { b.load_cases[2].masses[1].x = 5; }, as_it_is},
      // ---- the bag where it stands
      {"no_bag", [](Build& b) { b.variant().fit[0].bag.clear(); }, as_it_is},
      {"bag_not_on_shelf", [](Build& b) { b.variant().fit[0].bag = "Nobody N-1"; }, as_it_is},
      {"card_doubtful", rear_bag("Zz doubtful"), as_it_is},
      {"window_rough", [](Build& b) { b.ends[0].motion_ratio.values.clear(); }, as_it_is},
      {"cycle_measure_again", sheet(7, 0.15, 0.02), sheet(7, 0.15, 0)},
      {"cycle_unusable", sheet(3, 0, 0), sheet(7, 0.15, 0)},
      {"ratio_doubtful", sheet(2, 0.15, 0), sheet(7, 0.15, 0)},
      {"wish_without_reference", [](Build& b) { b.ends[0].wheel.clear(); }, as_it_is},
      {"bag_too_wide", [](Build& b) { b.ends[0].bag_room = 0.14; }, as_it_is},
      {"no_reach_window", [](Build& b) { b.variant().fit[0].lower_stack = 0.2; }, as_it_is},
      {"no_road_window", [](Build& b) { b.variant().brief.bump_travel = 0.12; }, as_it_is},
      {"preset_outside", as_it_is, calm},
      {"bag_before_stop", [](Build& b) { b.ends[0].bump_stop_gap.values = {0.16}; }, as_it_is},
      {"damper_before_stop",
       [](Build& b) {
         const EndModel front = end_model(b, End::front);
         b.variant().fit[0].damper_shut = front.map->damper(*front.stop_height - front.stop_give).value + 0.004;
       },
       as_it_is},
      {"hangs_on_beads", as_it_is,
       [](Build& b) {
         const FittedEnd front = fitted_end(b, test::demo_shelf(), End::front);
         const double full = *front.on().height_for_bag(front.bag->card.max_height);
         b.variant().fit[0].damper_open = front.model.map->damper(full).value - 0.003;
       }},
      {"travel_not_measured",
       [](Build& b) {
         b = test::demo_with_sheets();
         const double from = *end_model(b, End::rear).surveyed_height - 0.045;
         auto& rows = b.ends[1].cycle;
         for (std::size_t i = rows.size(); i-- > 0;)
           if (std::as_const(rows)[i].height < from) rows.erase(rows.begin() + static_cast<std::ptrdiff_t>(i));
       },
       as_it_is},
      {"parked_rests_lower",
       [](Build& b) {
         b.variant().brief.presets[0].wish[0] = HeightWish{HeightWish::As::height, 0.330, {}};
       },
       as_it_is},
      {"dives_onto_stop", [](Build& b) { b.variant().brief.braking = 1.5, b.body.gravity_height = 0.9; }, as_it_is},
      {"corner_lighter_than_wheel", [](Build& b) { b.ends[0].corners[0].mass.values = {31}; }, as_it_is},
      {"stands_in_the_ground",
       [](Build& b) {
         b = test::demo_whole();
         for (auto& wish : b.variant().brief.presets[0].wish)
           wish = HeightWish{HeightWish::As::height, 0.23, {}};
       },
       as_it_is},
      {"tyre_to_bag_unknown", as_it_is,
       [](Build& b) {
         build::Obstacle o;
         o.name = "tyre to bag", o.gap = 0.02, o.gap_from = build::GapFrom::tyre_to_bag;
         b.ends[0].obstacles.push_back(o);
       }},
      {"room_of_bag_unknown",
       [](Build& b) {
         b.ends[0].spring_place = build::SpringPlace::apart, b.ends[0].points.own() = {};
         build::Obstacle blank; // a row that nobody filled in yet, and a tape to something else, answer nothing
         blank.gap_from = build::GapFrom::bag;
         build::Obstacle tyre;
         tyre.gap = 0.02, tyre.gap_from = build::GapFrom::tyre_to_bag;
         for (build::EndSurvey& end : b.ends)
           end.obstacles.push_back(blank), end.obstacles.push_back(tyre);
       },
       [](Build& b) {
         b.ends[0].spring_place = build::SpringPlace::apart, b.ends[0].points.own() = {};
         build::Obstacle o;
         o.name = "upper arm", o.gap = 0.02, o.gap_from = build::GapFrom::bag;
         b.ends[0].obstacles.push_back(o);
         b.ends[1].obstacles.push_back(o);
       }},
      {"not_held_up", also(rear_bag("Zz runs away"), [](Build& b) { b.variant().brief.road_pressure_share = 1; }),
       as_it_is},
      {"bump_over_peak", rear_bag("Zz takes no peak"), calm},
      {"bump_over_maximum", as_it_is, calm},
      {"rebound_under_minimum", rear_bag("Zz wants much"), as_it_is},
      {"stroke_unknown",
       also(rear_bag("Zz short card"), also(wish(2, 1, HeightWish::As::height, 0.38),
                                            [](Build& b) { b.variant().brief.rebound_reserve = 0.002; })),
       as_it_is},
      {"lift_over_maximum", rear_bag("Zz weak"), as_it_is},
      {"frequency_outside", as_it_is, calm},
      {"ends_do_not_settle", as_it_is, calm},
      // ---- a closer look
      {"night_drops_it", as_it_is, calm},
      {"pressure_hides_height", as_it_is, calm},
      {"line_chokes_volume",
       [](Build& b) { b.variant().fit[1].added_volume = 3e-3, b.variant().fit[1].line_bore = 0.0015; },
       [](Build& b) { b.variant().fit[1].added_volume = 3e-3, b.variant().fit[1].line_bore = 0.010; }},
      {"leans_too_far", [](Build& b) { b.variant().brief.lean_wanted = 0.004; }, as_it_is},
      {"joined_sides_lean",
       [](Build& b) {
         for (auto& fit : b.variant().fit)
           fit.sides = build::Sides::joined;
         for (auto& end : b.ends)
           end.corners[0].mass.values = {500};
       },
       [](Build& b) {
         for (auto& end : b.ends)
           end.corners[0].mass.values = {500};
       }},
      // ---- how it moves
      {"joints_unusable",
       joints(wishbones,
              [](Build& b) {
                joint(b, "lower_outer") = joint(b, "lower_front"), joint(b, "lower_front").name = "lower_outer";
              }),
       joints(wishbones)},
      {"joint_of_another_layout",
       joints(wishbones,
              [](Build& b) {
                b.ends[0].points.own().left.push_back({"hinge_inner", 0, 0.2, 0.3, {}, {}});
              }),
       joints(wishbones)},
      {"sheet_against_joints", joints(wishbones, taped(0.02)), joints(wishbones, taped(0))},
      {"joints_against_tape", joints(wishbones, [](Build& b) { b.ends[0].spring_length.values = {0.25}; }),
       joints(wishbones)},
      {"spring_lifts_nothing",
       joints(wishbones, [](Build& b) { b.ends[0].points.own().spring_top = build::Carrier::upper_arm; }),
       joints(wishbones)},
      {"spring_on_upper_arm",
       joints(wishbones,
              [](Build& b) {
                b.ends[0].points.own().spring_foot = build::Carrier::upper_arm;
                joint(b, "spring_foot").z = joint(b, "upper_outer").z,
                         joint(b, "spring_body").z = joint(b, "upper_outer").z + 0.2;
              }),
       joints(wishbones)},
      {"tilted_in_bump", joints(wishbones, turned(0.15)), joints(wishbones)},
      {"crooked_in_stroke", joints(wishbones, turned(-0.15)), as_it_is},
      {"steers_over_bumps", joints(wishbones, [](Build& b) { joint(b, "rod_outer").z += 0.05; }), joints(wishbones)},
      {"tilted_in_roll", joints(build::Layout::axle_parallel_links, turned(0.19)),
       joints(build::Layout::axle_parallel_links)},
      {"crooked_at_lock",
       joints(wishbones,
              [](Build& b) {
                b.ends[0].points.own().spring_foot = build::Carrier::upright;
                b.ends[0].points.own().lock = 0.6;
                joint(b, "spring_foot").y -= 0.08; // so far from what the wheel steers about
              }),
       joints(wishbones, [](Build& b) { b.ends[0].points.own().lock = 0.6; })},
      {"sides_move_differently",
       joints(wishbones,
              [](Build& b) {
                build::HardPoint right = joint(b, "spring_foot");
                right.y = -right.y + 0.05;
                b.ends[0].points.own().right.push_back(right);
              }),
       joints(wishbones)},
      {"loose_end_leaves", [](Build& b) { b.variant().fit[0].mounting.held = build::Held::lower_only; }, as_it_is},
      {"bar_link_off_square", [](Build& b) { b.ends[0].bar_link = {0.2, 0.3, 0.1, 0.8, {}, {}}; },
       [](Build& b) { b.ends[0].bar_link = {0.2, 0.0, 0.1, 0.01, {}, {}}; }},
      {"links_bind_in_roll",
       joints(build::Layout::axle_parallel_links,
              [](Build& b) {
                joint(b, "upper_body").x = joint(b, "upper_axle").x + 0.10, joint(b, "lower_body").z += 0.15;
              }),
       joints(build::Layout::axle_triangulated_links)},
      // ---- clearance
      {"too_near_at_preset",
       near_front(build::ObstacleShape::gap,
                  [](build::Obstacle& o) { o.gap = 0.002, o.gap_height = 0.3067, o.gap_at = build::GapAt::lock; }),
       near_front(build::ObstacleShape::gap,
                  [](build::Obstacle& o) { o.gap = 0.05, o.gap_height = 0.3067, o.gap_at = build::GapAt::lock; })},
      {"touches_as_measured", near_front(build::ObstacleShape::box, [](build::Obstacle& o) { o.y = 0.70, o.z = 0.55; }),
       near_front(build::ObstacleShape::box, [](build::Obstacle& o) { o.y = 0.30, o.z = 0.55; })},
      {"obstacle_without_size", near_front(build::ObstacleShape::edge, [](build::Obstacle& o) { o.to_y = o.y; }),
       near_front(build::ObstacleShape::edge, as_it_stands)},
      {"place_of_wheel_unknown",
       also(near_front(build::ObstacleShape::box, as_it_stands), [](Build& b) { b.ends[0].track.reset(); }),
       near_front(build::ObstacleShape::box, as_it_stands)},
      {"taped_far_away", near_front(build::ObstacleShape::gap, [](build::Obstacle& o) { o.gap = 0.01; }),
       near_front(build::ObstacleShape::gap, [](build::Obstacle& o) { o.gap = 0.2; })},
      {"design_wheel_unreadable", [](Build& b) { b.variant().fit[0].wheel = "round"; },
       [](Build& b) { b.variant().fit[0].wheel = "225/45R17 7.5 ET42"; }},
      {"obstacle_under_floor", near_front(build::ObstacleShape::box, [](build::Obstacle& o) { o.z = -0.05; }),
       near_front(build::ObstacleShape::box, [](build::Obstacle& o) { o.z = 0.05; })},
      {"wheel_larger_than_arch",
       [](Build& b) {
         b.ends[0].arch.lip_outward = 0.0;
         b.variant().fit[0].wheel = "355/80R24 14 ET0";
       },
       [](Build& b) { b.ends[0].arch.lip_outward = 0.08; }},
      {"touches_one_wheel_up", beside_rolling_axle(0.004), beside_rolling_axle(0.04)},
      {"near_in_standing_lean", leaning(0.001), leaning(0.06)},
      {"meets_ground", over_the_ground(as_it_is), over_the_ground([](Build& b) {
         for (auto& g : b.variant().brief.grounds)
           for (auto& p : g.points)
             p.z /= 20;
       })},
      {"ground_too_steep", over_the_ground([](Build& b) {
         b.variant().brief.grounds[0].points = {{0, 0, {}}, {0.2, 4, {}}};
       }),
       over_the_ground(as_it_is)},
      {"ground_unusable", over_the_ground([](Build& b) { b.variant().brief.grounds[0].points.resize(1); }),
       over_the_ground(as_it_is)},
      {"ground_without_underside", over_the_ground([](Build& b) { b.body.underside = {}; }), over_the_ground(as_it_is)},
      {"low_point_under_floor", over_the_ground([](Build& b) { b.body.underside[0].z = 0; }),
       over_the_ground(as_it_is)},
      {"caution_tank", [](Build& b) { b.variant().fit[1].added_volume = 1e-3; }, as_it_is},
      {"caution_stands", as_it_is, nothing_measured},
      {"caution_road_window", as_it_is, nothing_measured},
      {"caution_inspection", as_it_is,
       [](Build& b) {
         wish(1, 0, HeightWish::As::height, 0.5)(b);
         wish(1, 1, HeightWish::As::height, 0.5)(b);
       }},
  };
}

} // namespace mavrel::assess
