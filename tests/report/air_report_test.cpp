// The air on paper and in files.
#include "assess/assess.h"
#include "report/air_json.h"
#include "report/air_sheet.h"
#include "report/build_sheet.h"

#include "support.h"

#include <nlohmann/json.hpp>

namespace mavrel::report {
namespace {

assess::AirGiven air_of(const build::Build& b) {
  return assess::air_given(b, test::demo_shelf(), assess::ask_ends(b, test::demo_shelf()));
}

TEST(AirReport, SheetsListTheKitAndWhatItDoes) {
  for (const build::Build* b : {&test::demo_whole(), &test::pickup_whole()}) {
    const auto air = air_of(*b);
    const std::string kit = kit_sheet(air, {});
    for (const assess::KitRoleRow& role : assess::kit_roles()) {
      const shelf::Part* part = air.parts[role.role];
      EXPECT_TRUE(!part || kit.find(part->name) != std::string::npos) << role.field;
    }
    const std::string told = predicted_sheet(air, {});
    for (const char* words : {"lifts per tank", "first fill", "battery +", "mm²"})
      EXPECT_NE(told.find(words), std::string::npos) << words;
    EXPECT_NE(run_svg(air, {}).find("</svg>"), std::string::npos);
    const std::string wires = wiring_svg(air, {});
    EXPECT_NE(wires.find("</svg>"), std::string::npos);
    EXPECT_NE(wires.find(air.parts[assess::KitRole::compressor]->name), std::string::npos);
    EXPECT_NE(wires.find("pressure switch"), std::string::npos);
  }
  build::Build none = test::demo_whole();
  none.variant().air = {};
  EXPECT_TRUE(kit_sheet(air_of(none), {}).empty());
  EXPECT_TRUE(build_sheet(none, assess::assess(none, test::demo_shelf()), {}).air_svg.empty());
}

TEST(AirReport, NamesThatPeopleTypeAreNotMarkup) {
  auto air = air_of(test::demo_whole());
  air.parts.at(assess::KitRole::tank)->name = "<b>Keg</b>, \"& co\"";
  EXPECT_EQ(kit_sheet(air, {}).find("<b>Keg"), std::string::npos);
  EXPECT_EQ(run_svg(air, {}).find("<b>Keg"), std::string::npos);
  EXPECT_NE(kit_csv(air).find("\"<b>Keg</b>, \"\"& co\"\"\""), std::string::npos) << kit_csv(air);
}

TEST(AirReport, CountsFollowCircuitsAndElbows) {
  const auto count = [](const assess::AirGiven& air, const std::string& part) {
    const std::string csv = kit_csv(air);
    const std::size_t at = csv.find("\n" + part + ",");
    EXPECT_NE(at, std::string::npos) << part;
    std::string row = csv.substr(at + 1, csv.find('\n', at + 1) - at - 1);
    for (int i = 0; i < 3; ++i)
      row.erase(0, row.find(',') + 1);
    return std::stoi(row.substr(0, row.find(',')));
  };
  const auto estate = air_of(test::demo_whole()), pickup = air_of(test::pickup_whole());
  EXPECT_EQ(count(estate, "front fittings"), 2 * (2 + estate.kit.elbows));
  EXPECT_EQ(count(pickup, "valves"), 2) << "a hand valve a circuit";
  EXPECT_EQ(count(pickup, "tees"), 2);
}

TEST(AirReport, AMoveIsOneRowALook) {
  const auto air = air_of(test::demo_whole());
  const auto lift = assess::simulate_move(air, {0, 1, build::MoveOrder::together, 0, false, {}});
  ASSERT_TRUE(lift);
  const std::string csv = lift_csv(*lift);
  EXPECT_EQ(static_cast<std::size_t>(std::count(csv.begin(), csv.end(), '\n')), lift->looks.size() + 1);
  const auto commas = std::count(csv.begin(), csv.begin() + static_cast<std::ptrdiff_t>(csv.find('\n')), ',');
  EXPECT_EQ(commas, 15);
  const auto json = nlohmann::json::parse(lift_json(air, {0, 1, build::MoveOrder::together, 0, false, {}}, *lift, {}));
  EXPECT_EQ(json["from"], "Parked");
  EXPECT_EQ(json["corners"].size(), 4U);
}

} // namespace
} // namespace mavrel::report
