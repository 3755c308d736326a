// Kits that are no demo's: begun empty, filled by shop air alone, one end alone on air, wishes past a stop; and what
// the battery makes of them.
#include "assess/air/air_findings.h"
#include "assess/air/sizing.h"
#include "assess/assess.h"

#include "support.h"

#include <algorithm>

namespace mavrel::assess {
namespace {

using build::AirKit;
using build::Build;

AirGiven kit_air_of(const Build& b) {
  return air_given(b, test::demo_shelf(), ask_ends(b, test::demo_shelf()));
}
Build estate_kit(const std::function<void(AirKit&)>& change) {
  Build b = test::demo_whole();
  change(b.variant().air);
  return b;
}
Build by_shop_air() {
  return estate_kit([](AirKit& k) {
    for (std::string AirKit::*part : {&AirKit::compressor, &AirKit::second_compressor, &AirKit::pressure_switch,
                                      &AirKit::check_valve, &AirKit::trap, &AirKit::dryer})
      (k.*part).clear();
  });
}
Build rear_alone() {
  Build b = estate_kit([](AirKit& k) { k.front_line.clear(), k.front_fitting.clear(); });
  b.variant().fit[0].bag.clear();
  return b;
}

TEST(Kits, AnEmptyOneIsCompletedByRuleAndThenSized) {
  Build b = test::demo_whole();
  b.variant().air = {};
  SizingGiven given = sizing_given(b, test::demo_shelf(), kit_air_of(b));
  EXPECT_TRUE(given.lacks.empty());
  const auto named = [&](KitRole role) { return given.air.kit.*row_of(role).name; };
  for (const KitRole role : {KitRole::pressure_switch, KitRole::relief, KitRole::check_valve, KitRole::drain,
                             KitRole::silencer, KitRole::sensor}) {
    EXPECT_FALSE(named(role).empty()) << row_of(role).field;
    EXPECT_EQ(std::count_if(given.added.begin(), given.added.end(), [&](const AddedPart& p) { return p.role == role; }),
              1);
  }
  EXPECT_NE(named(KitRole::trap).empty(), named(KitRole::dryer).empty()) << "one of the two";
  const auto cut = cut_pressures(given.air.parts);
  ASSERT_TRUE(cut);
  EXPECT_GE(cut->first, *most_bag_pressure(given.air) + head_over_bags);
  EXPECT_GE(*given.air.parts[KitRole::relief]->opens_at, cut->second + relief_over_switch);
  given.compressors.resize(3), given.tanks.resize(4), given.valves.resize(3), given.lines.resize(3);
  const auto sized = size_kits(given);
  ASSERT_TRUE(sized && !sized->trouble);
  ASSERT_TRUE(sized->choices.front().meets) << say(sized->choices.front().lost);
  // Taken over, it is whole, and no finding of the kit's stops it.
  b.variant().air = kit_of(given, sized->choices.front());
  const AirGiven taken = kit_air_of(b);
  EXPECT_TRUE(kit_complete(taken));
  for (const KitFault& fault : kit_faults(taken))
    EXPECT_NE(fault.severity, Severity::stop) << say(fault.title);
  // What somebody chose stays.
  Build chosen = test::demo_whole();
  chosen.variant().air.drain.clear();
  const auto only = sizing_given(chosen, test::demo_shelf(), kit_air_of(chosen));
  ASSERT_EQ(only.added.size(), 1U);
  EXPECT_EQ(only.added.front().role, KitRole::drain);
  EXPECT_EQ(only.air.kit.pressure_switch, test::demo_whole().variant().air.pressure_switch);
}

TEST(Kits, AShelfWithoutASwitchSaysSo) {
  Build b = test::demo_whole();
  b.variant().air = {};
  shelf::Shelf bare = test::demo_shelf();
  std::vector<shelf::ShelfPart> kept;
  for (const shelf::ShelfPart& part : bare.parts)
    if (part.part.kind != shelf::PartKind::pressure_switch) kept.push_back(part);
  bare.parts = {};
  for (const shelf::ShelfPart& part : kept)
    bare.parts.push_back(part);
  const auto given = sizing_given(b, bare, air_given(b, bare, ask_ends(b, bare)));
  ASSERT_FALSE(given.lacks.empty());
  const auto sized = size_kits(given);
  ASSERT_TRUE(sized && sized->trouble);
  EXPECT_NE(say(*sized->trouble).find("pressure switch"), std::string::npos);
}

TEST(Kits, FiguresOfAChoiceAreThoseOfTheKitPageInItsLoadCase) {
  const Build b = test::demo_whole();
  SizingGiven given = sizing_given(b, test::demo_shelf(), kit_air_of(b));
  const auto index = [](const std::vector<shelf::Part>& all, const std::string& name) {
    return static_cast<std::size_t>(
        std::find_if(all.begin(), all.end(), [&](const shelf::Part& p) { return p.name == name; }) - all.begin());
  };
  const auto keep = [&](std::vector<shelf::Part>& all, const std::string& name) { all = {all.at(index(all, name))}; };
  keep(given.compressors, "Hobbin H45"), keep(given.tanks, "Ambry 19"), keep(given.valves, "Kestle 4-10");
  const auto sized = size_kits(given);
  ASSERT_TRUE(sized);
  for (const KitChoice& c : sized->choices) {
    Build with = b;
    with.variant().air = kit_of(given, c);
    const AirGiven air = kit_air_of(with);
    const auto figures = kit_figures(air, {});
    ASSERT_TRUE(figures && figures->heaviest && figures->heaviest->lifts);
    EXPECT_EQ(figures->heaviest->load_case, given.load_case);
    EXPECT_EQ(figures->heaviest->lifts->first.has_value(), c.rise.has_value());
    if (c.rise) {
      EXPECT_NEAR(*figures->heaviest->lifts->first, *c.rise, 0.02);
    }
    if (c.ready) {
      EXPECT_NEAR(*figures->heaviest->ready->time, *c.ready, 0.5);
    }
    EXPECT_GT(c.burst, 0);
    EXPECT_GT(c.price, 0);
  }
  // A wider line moves more in the shortest burst: that is what it costs.
  const auto by_line = [&](std::size_t line) {
    return std::find_if(sized->choices.begin(), sized->choices.end(),
                        [&](const KitChoice& c) { return c.line == line && c.compressors == 1; });
  };
  const std::size_t thin = index(given.lines, "Reed 4/2.5"), wide = index(given.lines, "Reed 10/7.5");
  EXPECT_LT(by_line(thin)->burst, by_line(wide)->burst);
}

TEST(Kits, ShopAirAloneIsAnswered) {
  const Build b = by_shop_air();
  const AirGiven air = kit_air_of(b);
  ASSERT_TRUE(by_shop_air_alone(air.kit));
  EXPECT_TRUE(kit_complete(air));
  EXPECT_DOUBLE_EQ(*full_tank(air), shop_pressure);
  const auto lift = simulate_move(air, {0, 1, build::MoveOrder::together, 0, false, {}});
  ASSERT_TRUE(lift && lift->arrived);
  const auto figures = kit_figures(air, {});
  ASSERT_TRUE(figures && figures->lifts && figures->ready && figures->first && figures->day);
  EXPECT_GE(figures->lifts->lifts, 1);
  EXPECT_TRUE(figures->ready->by_shop);
  EXPECT_GT(*figures->ready->time, 0);
  EXPECT_GT(*figures->first->shop_time, 0);
  EXPECT_FALSE(figures->first->own_time);
  EXPECT_EQ(figures->day->run, 0);
  EXPECT_TRUE(figures->day->by_shop);
  EXPECT_GT(figures->day->air, 0);
  EXPECT_TRUE(figures->battery.empty());
  // A switch that is still there stops nothing.
  Build with_switch = b;
  with_switch.variant().air.pressure_switch = "Tick 10";
  EXPECT_DOUBLE_EQ(*full_tank(kit_air_of(with_switch)), shop_pressure);
  // Sizing puts a compressor in, and what it takes.
  const SizingGiven sized = sizing_given(b, test::demo_shelf(), kit_air_of(b));
  EXPECT_FALSE(sized.air.kit.pressure_switch.empty());
  EXPECT_FALSE(sized.air.kit.check_valve.empty());
  // A tank that bears less is not filled to more.
  Build weak = b;
  shelf::Shelf shelf = test::demo_shelf();
  for (shelf::ShelfPart& p : shelf.parts)
    if (p.part.name == weak.variant().air.tank) p.part.rated_pressure = 6e5;
  EXPECT_DOUBLE_EQ(*full_tank(weak.variant().air, shelf), 6e5);
}

TEST(Kits, OneEndAloneOnAirIsLifted) {
  const AirGiven air = kit_air_of(rear_alone());
  ASSERT_TRUE(on_springs(air, End::front));
  EXPECT_FALSE(on_springs(air, End::rear));
  EXPECT_TRUE(kit_complete(air));
  EXPECT_EQ(circuits_of(air).size(), 2U);
  const auto lift = simulate_move(air, {0, 1, build::MoveOrder::together, 0, false, {}});
  ASSERT_TRUE(lift && lift->arrived) << (lift ? "" : say(lift.error()));
  for (const std::size_t c : {0U, 1U}) // what is stiff on springs hardly moves
    EXPECT_NEAR(lift->looks.back().height[c], lift->looks.front().height[c], 0.004);
  for (const std::size_t c : {2U, 3U})
    EXPECT_NEAR(lift->looks.back().height[c], lift->target[c], 2e-3);
  // It takes less than both ends do, and nothing of the front's lines throttles it.
  const auto both = simulate_move(kit_air_of(test::demo_whole()), {0, 1, build::MoveOrder::together, 0, false, {}});
  EXPECT_LT(lift->air_used, both->air_used);
  for (const Throttle& t : lift->throttles)
    EXPECT_NE(t.role, KitRole::front_line);
  EXPECT_EQ(amount_of(air, KitRole::front_line), 0);
  // With both without a bag nothing is on air.
  Build none = rear_alone();
  none.variant().fit[1].bag.clear();
  EXPECT_FALSE(on_springs(kit_air_of(none), End::front));
}

TEST(Kits, AWishPastAStopIsAnsweredWithWhatItLacks) {
  Build b = test::demo_whole();
  const auto travel = *standing_travel(kit_air_of(b).ends[0]->fitted);
  auto& presets = b.variant().brief.presets;
  ASSERT_EQ(presets[1].use, build::PresetUse::road);
  const auto wish = [](double H) { return build::HeightWish{build::HeightWish::As::height, H, {}}; };
  presets[0].parked = build::ParkedHow::held, presets[0].wish[0] = wish(travel.first - 0.010);
  // Down it comes onto its stop, and is short by the rest.
  const auto down = simulate_move(kit_air_of(b), {1, 0, build::MoveOrder::together, 0, false, {}});
  ASSERT_TRUE(down) << say(down.error());
  EXPECT_FALSE(down->arrived);
  EXPECT_TRUE(down->on_stop);
  EXPECT_NEAR(down->short_by, -0.010, 3e-3);
  EXPECT_EQ(down->stuck.substr(0, 5), "Front");
  // Up it lacks what lies past the stop, at the least.
  presets[1].wish[0] = wish(travel.second + 0.012);
  const AirGiven air = kit_air_of(b);
  const auto up = simulate_move(air, {0, 1, build::MoveOrder::together, 0, false, {}});
  ASSERT_TRUE(up) << say(up.error());
  EXPECT_FALSE(up->arrived);
  EXPECT_GE(up->short_by, 0.0118);
  const auto lifts = lifts_from_full(air, build::MoveOrder::together, 0, 3);
  ASSERT_TRUE(lifts);
  EXPECT_EQ(lifts->lifts, 0);
  EXPECT_FALSE(lifts->first);
  EXPECT_NEAR(lifts->short_by, up->short_by, 1e-3);
}

TEST(Kits, TheSameLiftIsToldFromTheCutInAndInTheCold) {
  const AirGiven air = kit_air_of(test::demo_whole());
  const auto lift = answer_lift({air, {0, 1, build::MoveOrder::together, 0, false, {}}, {}}, {});
  ASSERT_TRUE(lift && *lift);
  ASSERT_EQ((*lift)->others.size(), 2U);
  for (const OtherStart& other : (*lift)->others)
    if (other.arrived) {
      EXPECT_GT(*other.arrived, *(*lift)->arrived) << say(other.what);
    }
}

TEST(Kits, TheBatteryLastsShorterInTheColdAndWithAge) {
  Build b = test::demo_whole();
  const auto lifts_of = [](const Build& of) {
    const auto figures = kit_figures(kit_air_of(of), {});
    return figures->battery;
  };
  const auto young = lifts_of(b);
  ASSERT_EQ(young.size(), 2U);
  ASSERT_TRUE(young[0].lifts && young[1].lifts);
  EXPECT_LT(*young[1].lifts, *young[0].lifts);
  EXPECT_GT(*young[1].lifts, 0);
  // A·s out of it: current times time, and a little more for haste.
  EXPECT_GT(young[0].charge, young[0].current * young[0].run);
  EXPECT_LT(young[0].charge, 1.6 * young[0].current * young[0].run);
  b.variant().air.battery_age *= 2;
  EXPECT_LT(*lifts_of(b)[1].lifts, *young[1].lifts);
  b.variant().air.battery_cut = 12.3;
  const auto cut = lifts_of(b);
  ASSERT_TRUE(cut[0].until_cut);
  EXPECT_LE(*cut[0].until_cut, *cut[0].lifts);
}

TEST(Kits, WhereItIsHotACompressorRunsShorter) {
  const auto ready = [](build::PartRoom room) {
    Build b =
        estate_kit([&](AirKit& k) { k.compressor_at.room = room, k.tank = "Ambry 28", k.second_tank = "Ambry 28"; });
    return fill_tank(kit_air_of(b), 0, 9e5);
  };
  const auto boot = ready(build::PartRoom::boot), bay = ready(build::PartRoom::engine_bay);
  ASSERT_TRUE(boot && bay && boot->time && bay->time);
  EXPECT_GE(bay->rested, boot->rested);
  EXPECT_GT(*bay->time, *boot->time);
}

TEST(Kits, ADayCountsLevelingAndLeaks) {
  const AirGiven air = kit_air_of(test::demo_whole());
  const auto day = air_day(air);
  ASSERT_TRUE(day);
  EXPECT_GT(day->leaks, 0);
  EXPECT_GT(day->leveling, 0);
  AirGiven still = air;
  still.levels = false;
  EXPECT_NEAR(air_day(still)->air, day->air - day->leveling, 1e-12);
}

} // namespace
} // namespace mavrel::assess
