// The demo cars on their air kits: moves, what throttles them, what a kit is bought by, sizing, water, wiring, room.
#include "assess/air/air_findings.h"
#include "assess/air/leaking.h"
#include "assess/air/sizing.h"
#include "assess/air/wet.h"
#include "assess/assess.h"

#include "support.h"

#include <algorithm>

namespace mavrel::assess {
namespace {

using build::Build;

AirGiven air_of(const Build& b) {
  return air_given(b, test::demo_shelf(), ask_ends(b, test::demo_shelf()));
}
const AirGiven& estate() {
  static const AirGiven air = air_of(test::demo_whole());
  return air;
}
const AirGiven& pickup() {
  static const AirGiven air = air_of(test::pickup_whole());
  return air;
}
/// The estate with another part, or another way of working it.
AirGiven estate_with(const std::function<void(build::AirKit&)>& change) {
  Build b = test::demo_whole();
  change(b.variant().air);
  return air_of(b);
}
Lift moved(const AirGiven& air, std::size_t from, std::size_t to, build::MoveOrder order = build::MoveOrder::together) {
  const auto lift = simulate_move(air, {from, to, order, 0, false, {}});
  if (!lift) throw std::runtime_error(say(lift.error()));
  return *lift;
}

TEST(Lift, EveryCornerComesToItsPreset) {
  for (const auto order : {build::MoveOrder::together, build::MoveOrder::front_first, build::MoveOrder::rear_first,
                           build::MoveOrder::one_by_one})
    for (const auto& [from, to] : {std::pair<std::size_t, std::size_t>{0, 1}, {1, 0}}) {
      const Lift lift = moved(estate(), from, to, order);
      ASSERT_TRUE(lift.arrived);
      for (std::size_t c = 0; c < 4; ++c) {
        EXPECT_NEAR(lift.looks.front().height[c], standing_of(estate(), from)->heights[c / 2], 6e-4);
        EXPECT_NEAR(lift.looks.back().height[c], lift.target[c], 2.01e-3);
        ASSERT_TRUE(lift.arrived_at[c]);
        EXPECT_LE(*lift.arrived_at[c], *lift.arrived + 0.1);
      }
    }
}

/// The estate parked on its air.
AirGiven held() {
  Build b = test::demo_whole();
  b.variant().brief.presets[0].parked = build::ParkedHow::held;
  return air_of(b);
}

TEST(Lift, HeldItBeginsWithThePressuresTheAssessmentGives) {
  const AirGiven air = held();
  const Lift lift = moved(air, 0, 1);
  for (std::size_t c = 0; c < 4; ++c) {
    const auto& preset = air.ends[c / 2]->assessment.presets[0];
    EXPECT_NEAR(lift.looks.front().pressure[c], preset->cases[0]->side_pressure[c % 2], 60);
  }
  // Loads of all corners are the sprung weight, at every moment.
  double weight = 0;
  for (const double f : lift.looks.front().wheel_force)
    weight += f;
  for (const LiftLook& look : lift.looks)
    EXPECT_NEAR(look.wheel_force[0] + look.wheel_force[1] + look.wheel_force[2] + look.wheel_force[3], weight,
                1e-6 * weight);
}

TEST(Lift, AiredOutItBeginsEmptyOnItsStops) {
  const Lift out = moved(estate(), 0, 1), on_air = moved(held(), 0, 1);
  for (std::size_t c = 0; c < 4; ++c) {
    EXPECT_LT(out.looks.front().pressure[c], 1e3) << "what is left in a bag that is open";
    EXPECT_NEAR(out.looks.front().height[c], standing_travel(estate().ends[c / 2]->fitted)->first, 1e-6);
  }
  // The bags have to be filled: that takes time and air.
  EXPECT_GT(*out.arrived, 1.6);
  EXPECT_LT(*out.arrived, 1.8);
  EXPECT_GT(out.air_used, 0.028);
  EXPECT_LT(out.air_used, 0.030);
  EXPECT_GT(out.air_used, 1.8 * on_air.air_used);
  // And the tank lifts as often as it really does: after every drop they are empty again.
  const auto lifts = lifts_from_full(estate(), build::MoveOrder::together, 0, 20);
  ASSERT_TRUE(lifts);
  EXPECT_EQ(lifts->lifts, 2);
  EXPECT_NEAR(lifts->air, out.air_used, 1e-4) << "the same kit has the same figures everywhere";
}

TEST(Lift, ABlockLetsAllCornersOutByOneExhaust) {
  const Lift shared = moved(estate(), 1, 0);
  EXPECT_GT(*shared.arrived, 2.3);
  EXPECT_LT(*shared.arrived, 2.5);
  EXPECT_GT(std::min(*shared.arrived_at[2], *shared.arrived_at[3]),
            std::max(*shared.arrived_at[0], *shared.arrived_at[1]))
      << "the rear last";
  ASSERT_TRUE(shared.aired_out);
  EXPECT_GT(*shared.aired_out, *shared.arrived);
  for (const double p : shared.looks.back().pressure)
    EXPECT_LT(p, 3e3);
  // With an exhaust a way it is as quick as each alone.
  AirGiven each = estate();
  each.parts.at(KitRole::valves)->exhausts = 4;
  EXPECT_LT(*moved(each, 1, 0).arrived, 0.8 * *shared.arrived);
  // What throttles a drop is on the way out, at both ends.
  const auto roles = [](const Lift& lift) {
    std::vector<KitRole> out;
    for (const Throttle& t : lift.throttles)
      out.push_back(t.role);
    return out;
  };
  const auto out = roles(*simulate_move(estate(), {1, 0, build::MoveOrder::together, 0, false, {}}));
  for (const KitRole role : {KitRole::silencer, KitRole::valves, KitRole::front_line, KitRole::rear_line})
    EXPECT_NE(std::find(out.begin(), out.end(), role), out.end());
  EXPECT_EQ(std::find(out.begin(), out.end(), KitRole::feed_line), out.end());
}

TEST(Lift, AReliefValveKeepsTheTankFromClimbing) {
  auto net = tank_alone(estate(), *full_tank(estate()), true);
  ASSERT_TRUE(net);
  const double opens = *estate().parts[KitRole::relief]->opens_at;
  for (air::Compressor& c : net->compressors) // a switch that sticks
    c.cut_out = 40e5, c.cut_in = 39e5, c.running = true, c.duty.reset();
  auto now = air::Simulation::begin(*net);
  ASSERT_TRUE(now);
  ASSERT_TRUE(now->run(3600));
  EXPECT_GT(now->volumes()[0].gauge_pressure, opens - 1e4);
  EXPECT_LT(now->volumes()[0].gauge_pressure, 1.06 * opens);
}

TEST(Lift, WhatStandsBehindThePumpHoldsItBack) {
  AirGiven free = estate(), narrow = estate();
  free.parts.at(KitRole::dryer).reset(), free.parts.at(KitRole::trap).reset();
  ASSERT_TRUE(narrow.parts[KitRole::check_valve]);
  narrow.parts.at(KitRole::check_valve)->conductance = 1e-10;
  const auto open = fill_tank(free, 0, *full_tank(free), {}), held_back = fill_tank(narrow, 0, *full_tank(free), {});
  ASSERT_TRUE(open && open->time && held_back);
  EXPECT_TRUE(!held_back->time || *held_back->time > 1.1 * *open->time);
}

TEST(Lift, TakesWhatTheBagsTookFromTheTank) {
  const Lift lift = moved(estate(), 0, 1);
  EXPECT_GT(lift.air_used, 0.004);
  EXPECT_LT(lift.tank_after, lift.looks.front().tank_pressure);
  EXPECT_EQ(lift.compressor_s, 0) << "the engine stands";
  EXPECT_LT(lift.looks.back().tank_temperature, lift.looks.front().tank_temperature) << "a tank that is emptied cools";
  const Lift down = moved(estate(), 1, 0);
  EXPECT_NEAR(down.air_used, 0, 1e-9);
}

TEST(Lift, OrderDecidesWhatStandsApart) {
  const Lift together = moved(estate(), 0, 1), front = moved(estate(), 0, 1, build::MoveOrder::front_first),
             one = moved(estate(), 0, 1, build::MoveOrder::one_by_one);
  EXPECT_LT(*together.arrived, *front.arrived);
  EXPECT_LT(*front.arrived, *one.arrived);
  EXPECT_LT(together.worst_lean, 0.003);
  EXPECT_GT(one.worst_lean, 0.02);
  EXPECT_GT(one.most_load, 1.15) << "raising one corner loads its diagonal";
  EXPECT_LT(front.most_load, 1.05);
  EXPECT_GT(front.worst_rake, together.worst_rake);
}

TEST(Lift, AWiderKitIsNoSlowerAndSharesAddUp) {
  const Lift narrow = moved(estate_with([](build::AirKit&k) {
                              k.front_line = k.rear_line = "Reed 4/2.5";
                              k.front_fitting = k.rear_fitting = "Snap 4";
                            }),
                            0, 1),
             usual = moved(estate(), 0, 1),
             wide = moved(estate_with([](build::AirKit&k) {
                            k.front_line = k.rear_line = "Reed 10/7.5";
                            k.front_fitting = k.rear_fitting = "Snap 10";
                            k.valves = "Rook 4-28";
                          }),
                          0, 1);
  EXPECT_GT(*narrow.arrived, *usual.arrived);
  EXPECT_GT(*usual.arrived, *wide.arrived);
  EXPECT_EQ(narrow.throttles.front().role, KitRole::front_line);
  for (const Lift* lift : {&narrow, &usual, &wide}) {
    // Of one end they add up to the whole; both ends' ways are told, each part by the end it costs most.
    double shares = 0;
    for (const Throttle& t : lift->throttles) {
      EXPECT_GT(t.share, 0);
      if (t.role != KitRole::rear_line && t.role != KitRole::rear_fitting) shares += t.share;
    }
    EXPECT_GE(shares, 1 - 1e-9);
    EXPECT_LT(shares, 1.5);
  }
}

TEST(Lift, SaysWhatTheNextSizeWins) {
  const auto next = next_sizes(estate(), test::demo_shelf());
  EXPECT_FALSE(next.empty());
  const auto lift = answer_lift({estate(), {0, 1, build::MoveOrder::together, 0, false, {}}, next}, {});
  ASSERT_TRUE(lift && *lift);
  const Throttle& worst = (*lift)->throttles.front();
  EXPECT_FALSE(worst.next.empty());
  ASSERT_TRUE(worst.seconds_won);
  EXPECT_GT(*worst.seconds_won, 0.01);
}

TEST(Lift, AnEmptyTankStopsShortAndSaysWhere) {
  MoveAsked asked{0, 1, build::MoveOrder::together, 2, false, 4.3e5};
  const AirGiven estate = held();
  const auto lift = simulate_move(estate, asked);
  ASSERT_TRUE(lift) << say(lift.error());
  EXPECT_FALSE(lift->arrived);
  EXPECT_FALSE(lift->stuck.empty());
  EXPECT_GT(lift->short_by, 0.002);
  // With the engine running the compressor makes up for it.
  asked.engine = true;
  const auto helped = simulate_move(estate, asked);
  ASSERT_TRUE(helped);
  EXPECT_GT(helped->compressor_s, 5);
  EXPECT_LT(std::abs(helped->short_by), lift->short_by);
}

TEST(Lift, BothSchoolsRun) {
  EXPECT_EQ(circuits_of(pickup().kit).size(), 2U);
  EXPECT_EQ(circuits_of(estate().kit).size(), 4U);
  const Lift lift = moved(pickup(), 0, 1, build::MoveOrder::front_first);
  ASSERT_TRUE(lift.arrived);
  for (const std::size_t left : {0U, 2U}) // an axle's mean is what a circuit of both sides can set
    EXPECT_NEAR((lift.looks.back().height[left] + lift.looks.back().height[left + 1]) / 2, lift.target[left], 2.01e-3);
}

TEST(Lift, WhatCannotBeMadeSaysWhy) {
  const auto why = [](const AirGiven& air, const MoveAsked& asked, const char* what) {
    const auto lift = simulate_move(air, asked);
    ASSERT_FALSE(lift) << what;
    EXPECT_NE(say(lift.error()).find(what), std::string::npos) << say(lift.error());
  };
  const MoveAsked up{0, 1, build::MoveOrder::together, 0, false, {}};
  why(estate_with([](build::AirKit& k) { k.tank = ""; }), up, "no tank");
  why(estate_with([](build::AirKit& k) { k.valves = "Nobody's"; }), up, "not on the shelf");
  why(estate_with([](build::AirKit& k) { k.pressure_switch = ""; }), up, "pressure switch");
  Build b = test::demo_whole();
  b.variant().fit[0].bag = b.variant().fit[1].bag = "";
  why(air_of(b), up, "no bag");
  b = test::demo_whole();
  b.ends[0].corners[0].mass.values.clear(), b.ends[0].corners[1].mass.values.clear();
  why(air_of(b), up, "");
  why(air_of(build::empty_build()), up, "");
}

TEST(Lift, StopsWhenAsked) {
  const std::stop_token stop = test::stopped();
  EXPECT_FALSE(answer_lift({estate(), {0, 1, build::MoveOrder::together, 0, false, {}}, {}}, stop));
  EXPECT_FALSE(kit_figures(estate(), stop));
}

TEST(Kit, FiguresHangTogether) {
  const auto f = kit_figures(estate(), {});
  ASSERT_TRUE(f && f->lifts && f->ready && f->first && f->tyres && f->day);
  EXPECT_GE(f->lifts->lifts, 2);
  ASSERT_TRUE(f->lifts->first && f->ready->time && f->first->own_time && f->first->rest_time && f->first->shop_time);
  EXPECT_NEAR(*f->lifts->first, *moved(estate(), 0, 1).arrived, 0.02);
  EXPECT_LT(*f->ready->time, *f->first->own_time) << "a lift empties the tank by a part only";
  EXPECT_LT(*f->first->shop_time + *f->first->rest_time, *f->first->own_time);
  EXPECT_NEAR(f->day->air - f->day->leveling - f->day->leaks, 3 * f->lifts->air, 0.1 * f->day->air);
  EXPECT_GT(f->day->run, 0);
  // A larger tank gives more lifts and takes longer to fill.
  const auto large = kit_figures(estate_with([](build::AirKit& k) { k.tank = "Ambry 28"; }), {});
  EXPECT_GT(large->lifts->lifts, f->lifts->lifts);
  EXPECT_GT(*large->first->own_time, *f->first->own_time);
  // A second compressor fills it in about half the time, less the start it waits for.
  const auto twice = kit_figures(estate_with([](build::AirKit& k) { k.second_compressor = k.compressor; }), {});
  EXPECT_NEAR(*twice->first->own_time, *f->first->own_time / 2 + 2, 8);
}

TEST(Kit, AnInletThatIsNotFittedFillsNothing) {
  const auto closed = first_fill(estate_with([](build::AirKit& k) { k.shop_inlet = build::Fitted::no; }));
  ASSERT_TRUE(closed);
  EXPECT_FALSE(closed->shop_time);
  EXPECT_FALSE(closed->rest_time);
  EXPECT_TRUE(closed->own_time);
}

TEST(Kit, TwoPumpsAreAsLoudInTheFindingsAsInTheSearch) {
  Build b = test::demo_whole();
  b.variant().air.second_compressor = b.variant().air.compressor; // 70 dB each, 72 asked for
  const auto found = assess(b, test::demo_shelf()).findings;
  EXPECT_TRUE(std::any_of(found.begin(), found.end(), [](const Finding& f) { return f.code == "air_sound"; }));
  EXPECT_NEAR(*sound_of(air_of(b).parts), 73.01, 0.01);
}

TEST(Kit, ItsMassIsInTheLoadCases) {
  Build with = test::demo_whole(), without = with;
  without.variant().air.weighed = build::Weighed::with;
  const auto a = assess(with, test::demo_shelf()), b = assess(without, test::demo_shelf());
  const KitRoom room = kit_room(room_given(with, air_of(with)));
  ASSERT_GT(room.mass, 5);
  for (std::size_t c = 0; c < a.loads.size(); ++c) {
    EXPECT_NEAR(*a.loads[c].total_mass - *b.loads[c].total_mass, room.mass, 1e-9);
    EXPECT_NEAR(a.loads[c].ends[0]->axle_mass - b.loads[c].ends[0]->axle_mass, room.mass * room.front_share, 1e-9);
  }
  EXPECT_LT(room.front_share, 0) << "behind the rear axle it lightens the front";
}

TEST(Kit, RoomSeesWhatIsNearAndWhatIsLeft) {
  const KitRoom room = kit_room(room_given(test::demo_whole(), estate()));
  EXPECT_EQ(room.boxes.size(), 3U);
  EXPECT_TRUE(room.meet.empty());
  EXPECT_TRUE(room.out_of_place.empty());
  EXPECT_TRUE(room.drains_lowest);
  ASSERT_TRUE(room.boot_left && room.well_left);
  EXPECT_LT(*room.boot_left, *room.boot_before);
  EXPECT_LT(*room.well_left, *room.well_before);
  for (const HotGap& gap : room.hot)
    EXPECT_GT(gap.gap, gap.wanted);
  // A box set on the tail pipe is nearer to it than nothing.
  Build b = test::demo_whole();
  b.variant().air.valves_at = {3.2, -0.48, 0.26, build::PartRoom::under_floor, {}, {}, {}};
  const KitRoom hot = kit_room(room_given(b, air_of(b)));
  EXPECT_TRUE(std::any_of(hot.hot.begin(), hot.hot.end(), [](const HotGap& g) { return g.gap < 0; }));
}

TEST(Sizing, BestOnesMeetTheWishesAndAreBetteredByNone) {
  SizingGiven given = sizing_given(test::demo_whole(), test::demo_shelf(), estate());
  given.compressors.resize(3), given.tanks.resize(3), given.valves.resize(2), given.lines.resize(3);
  const auto sized = size_kits(given, {1, {}, {}});
  ASSERT_TRUE(sized);
  EXPECT_FALSE(sized->trouble);
  EXPECT_EQ(sized->tried, 3U * 2 * 3 * 2 * 3);
  const build::AirWishes& wishes = given.air.wishes;
  std::size_t best = 0;
  for (const KitChoice& c : sized->choices) {
    const bool meets = c.rise && *c.rise <= wishes.rise && c.lifts >= wishes.lifts && c.ready &&
                       *c.ready <= wishes.ready && c.current <= wishes.current &&
                       (!c.sound || *c.sound <= *wishes.sound);
    EXPECT_TRUE(!c.meets || meets);
    EXPECT_EQ(c.lost.empty(), c.best);
    best += c.best;
    if (!c.best) continue;
    for (const KitChoice& o : sized->choices) {
      if (!o.meets) continue;
      EXPECT_FALSE(*o.rise < *c.rise - 0.1 && o.lifts > c.lifts && *o.ready < *c.ready - 6 &&
                   o.current < c.current - 1 && o.mass < c.mass - 0.1 && o.price < c.price);
    }
  }
  EXPECT_GT(best, 0U);
  // On two threads the same, and the kit of a choice comes to the same figures as it was weighed by.
  const auto again = size_kits(given, {2, {}, {}});
  ASSERT_EQ(again->choices.size(), sized->choices.size());
  for (std::size_t i = 0; i < sized->choices.size(); ++i)
    EXPECT_EQ(again->choices[i].rise, sized->choices[i].rise);
  Build b = test::demo_whole();
  b.variant().air = kit_of(given, sized->choices.front());
  const auto lifts = lifts_from_full(air_of(b), b.variant().air.order, given.load_case, 3);
  ASSERT_TRUE(lifts && lifts->first);
  EXPECT_NEAR(*lifts->first, *sized->choices.front().rise, 0.05);
}

TEST(Sizing, RefusesWhatTheFindingsRefuse) {
  Build b = test::demo_whole();
  b.variant().air.pressure_switch = "Tick 13.5"; // over what some tanks and valves are rated for
  SizingGiven given = sizing_given(b, test::demo_shelf(), air_of(b));
  given.compressors.resize(3), given.lines.resize(2); // what is rated for too little stays: tanks and valves
  const auto sized = size_kits(given, {0, {}, {}});
  ASSERT_TRUE(sized);
  for (std::size_t i = 0; i < sized->choices.size(); i += 7) {
    const KitChoice& c = sized->choices[i];
    Build with = b;
    with.variant().air = kit_of(given, c);
    const auto faults = kit_faults(air_of(with));
    const bool stops =
        std::any_of(faults.begin(), faults.end(), [](const KitFault& f) { return f.severity == Severity::stop; });
    EXPECT_FALSE(stops && c.meets);
  }
}

TEST(Sizing, CanBeStoppedAndSaysWhatIsMissing) {
  std::stop_source stop;
  stop.request_stop();
  const SizingGiven given = sizing_given(test::demo_whole(), test::demo_shelf(), estate());
  EXPECT_FALSE(size_kits(given, {1, stop.get_token(), {}}));
  SizingGiven none = given;
  none.tanks.clear();
  EXPECT_TRUE(size_kits(none)->trouble);
  SizingGiven wishless = given;
  wishless.air = air_of(build::empty_build());
  EXPECT_TRUE(size_kits(wishless)->trouble);
}

TEST(Wet, WaterIsSharedOutAndNoneIsLost) {
  for (const Wet& wet : wet_in(estate(), 0.05)) {
    EXPECT_LE(wet.liquid, wet.taken_in + 1e-12);
    EXPECT_NEAR(wet.trapped + wet.in_tank, wet.liquid, 1e-12);
    EXPECT_NEAR(wet.trapped, 0.7 * wet.liquid, 1e-12) << "the card's share";
    if (!(wet.in_tank > 0)) continue;
    EXPECT_NEAR(*wet.dryer_days, 0.060 / wet.in_tank * 7, 1e-6);
    EXPECT_NEAR(*wet.drain_days, 0.12 / wet.in_tank * 7, 1e-6) << "a hundredth of twelve litres";
  }
  const auto twice = wet_in(estate(), 0.1), once = wet_in(estate(), 0.05);
  EXPECT_NEAR(twice[0].liquid, 2 * once[0].liquid, 1e-12);
  EXPECT_NEAR(*twice[0].drain_days, *once[0].drain_days / 2, 1e-9);
}

TEST(Wiring, HoldsForWhatItCarries) {
  const auto one = wiring_of(estate());
  ASSERT_TRUE(one);
  ASSERT_EQ(one->feeds.size(), 1U);
  EXPECT_NEAR(one->running, shelf::current_of(*estate().parts[KitRole::compressor], 10e5), 1e-9);
  EXPECT_LE(one->feeds[0].cable->drop, 0.03 * 13.2 + 1e-9);
  EXPECT_GE(one->feeds[0].cable->fuse, 1.25 * one->running);
  const AirGiven two = estate_with([](build::AirKit& k) { k.second_compressor = k.compressor; });
  const auto staggered = wiring_of(two);
  AirGiven at_once = two;
  at_once.kit.stagger = 0;
  ASSERT_EQ(staggered->feeds.size(), 2U);
  EXPECT_LT(staggered->starting, wiring_of(at_once)->starting);
  AirGiven shared = two;
  shared.kit.feeds = build::Feeds::one;
  EXPECT_GT(wiring_of(shared)->feeds[0].cable->fuse, staggered->feeds[0].cable->fuse);
  EXPECT_FALSE(wiring_of(estate_with([](build::AirKit& k) { k.compressor = ""; })));
}

TEST(Leaking, AColdNightIsToldFromALeak) {
  std::vector<air::LeakReading> night, leak;
  for (int i = 0; i <= 20; ++i) {
    const double t = i * 1800.0, T = 293.15 - i * 0.6, wobble = i % 2 ? 150 : -150;
    const double p = (4e5 + air::sea_level) * T / 293.15;
    night.push_back({t, p - air::sea_level + wobble, T});
    leak.push_back({t, p * (1 - 0.01 * t / 3600) - air::sea_level + wobble, T});
  }
  const auto cold = leaking(estate(), {0, 0, night});
  ASSERT_TRUE(cold) << say(cold.error());
  EXPECT_TRUE(cold->cold_night);
  EXPECT_FALSE(cold->leak.leaks());
  const auto leaks = leaking(estate(), {0, 0, leak});
  ASSERT_TRUE(leaks && leaks->leak.leaks());
  EXPECT_FALSE(leaks->cold_night);
  EXPECT_NEAR(leaks->leak.loss * 3600, 0.01 * leaks->leak.mass, 0.05 * 0.01 * leaks->leak.mass);
  ASSERT_TRUE(leaks->too_low_after && leaks->compressor_day);
  // Twice the leak, half the time, twice the work.
  auto worse = leak;
  for (std::size_t i = 0; i < worse.size(); ++i)
    worse[i].gauge_pressure = 2 * leak[i].gauge_pressure - night[i].gauge_pressure;
  const auto twice = leaking(estate(), {0, 0, worse});
  EXPECT_NEAR(*twice->too_low_after, *leaks->too_low_after / 2, 0.05 * *leaks->too_low_after);
  EXPECT_NEAR(*twice->compressor_day, 2 * *leaks->compressor_day, 0.05 * *twice->compressor_day);
  EXPECT_TRUE(leaking(estate(), {4, 0, leak})) << "the tank";
  // A corner read whole and with its bag alone: the line has the rest.
  std::vector<std::vector<air::LeakReading>> read(leak_places);
  read[2] = worse, read[bag_places + 2] = leak, read[0] = night;
  const LeakPlaces places = leaks_together(estate(), read, 0);
  EXPECT_EQ(places.worst, 2U);
  ASSERT_TRUE(places.by_line[2] && places.by_bag[2]);
  EXPECT_NEAR(*places.by_line[2] / *places.by_bag[2], 1, 0.1);
  EXPECT_FALSE(places.by_line[0]);
  EXPECT_GT(*held_volume(estate(), 2), *held_volume(estate(), bag_places + 2)) << "with its line";
  EXPECT_FALSE(leaking(estate(), {0, 0, {leak[0], leak[1]}}));
  EXPECT_FALSE(leaking(air_of(build::empty_build()), {0, 0, leak}));
}

} // namespace
} // namespace mavrel::assess
