// Air parts as files: read, written, checked, kept.
#include "shelf/part_file.h"
#include "shelf/part_names.h"

#include "support.h"

#include <nlohmann/json.hpp>

namespace mavrel::shelf {
namespace {

using Json = nlohmann::json;

Json catalogue(const Json& part) {
  return {{"format", "mavrel-parts"}, {"version", 1}, {"parts", Json::array({part})}};
}
Json tank() {
  return {{"kind", "tank"},
          {"name", "Keg 10"},
          {"mass_kg", 3.1},
          {"rated_pressure_pa", 14e5},
          {"volume_m3", 0.010},
          {"length_m", 0.5},
          {"width_m", 0.2},
          {"height_m", 0.2},
          {"ports", Json::array({{{"thread", "G 1/4"}, {"count", 5}}})}};
}
Json pump() {
  return {{"kind", "compressor"},
          {"name", "Puff 30"},
          {"mass_kg", 4},
          {"voltage_v", 13.2},
          {"curve", Json::array({{{"pressure_pa", 0}, {"air_m3_per_s", 5e-4}, {"current_a", 8}},
                                 {{"pressure_pa", 8e5}, {"air_m3_per_s", 3e-4}, {"current_a", 16}}})}};
}

TEST(Parts, TheShippedShelfHasWhatItPromises) {
  const auto& parts = test::demo_shelf().parts;
  const auto count = [&](PartKind kind) {
    return std::count_if(parts.begin(), parts.end(), [&](const ShelfPart& p) { return p.part.kind == kind; });
  };
  EXPECT_TRUE(test::demo_shelf().problems.empty());
  EXPECT_GE(count(PartKind::compressor), 8);
  EXPECT_GE(count(PartKind::tank), 8);
  EXPECT_GE(count(PartKind::valve_block), 6);
  for (const auto& row : names_of(PartKind{}))
    EXPECT_GE(count(row.value), 1) << row.key;
  double thinnest = 1, thickest = 0;
  for (const ShelfPart& p : parts) {
    EXPECT_TRUE(p.doubts.empty()) << p.part.name << ": " << say(p.doubts.front());
    if (p.part.kind != PartKind::line) continue;
    thinnest = std::min(thinnest, *p.part.outer), thickest = std::max(thickest, *p.part.outer);
    // Each size of line has a fitting that goes on it.
    EXPECT_TRUE(std::any_of(parts.begin(), parts.end(), [&](const ShelfPart& o) {
      return o.part.kind == PartKind::fitting && o.part.outer && std::abs(*o.part.outer - *p.part.outer) < 1e-6;
    })) << p.part.name;
  }
  EXPECT_DOUBLE_EQ(thinnest, 0.004);
  EXPECT_DOUBLE_EQ(thickest, 0.012);
}

TEST(Parts, WhatIsWrittenReadsBackEqual) {
  std::vector<Part> all;
  for (const ShelfPart& p : test::demo_shelf().parts)
    all.push_back(p.part);
  const auto again = read_parts(write_parts(all));
  ASSERT_TRUE(again) << say(again.error());
  EXPECT_EQ(*again, all);
}

TEST(Parts, KeysOfOthersAreKept) {
  Json part = tank();
  part["colour"] = "green";
  part["ports"][0]["side"] = "left";
  const auto read = read_parts(catalogue(part).dump());
  ASSERT_TRUE(read) << say(read.error());
  const Json written = Json::parse(write_parts(*read));
  EXPECT_EQ(written["parts"][0]["colour"], "green");
  EXPECT_EQ(written["parts"][0]["ports"][0]["side"], "left");
}

TEST(Parts, MistakesNameThePartAndTheFigure) {
  const auto refused = [](Json part, const char* what, const auto& change) {
    change(part);
    const auto read = read_parts(catalogue(part).dump());
    ASSERT_FALSE(read) << what;
    EXPECT_NE(say(read.error()).find(what), std::string::npos) << say(read.error());
  };
  refused(tank(), "volume", [](Json& p) { p.erase("volume_m3"); });
  refused(tank(), "rated pressure", [](Json& p) { p.erase("rated_pressure_pa"); });
  refused(tank(), "port", [](Json& p) { p.erase("ports"); });
  refused(tank(), "thread", [](Json& p) { p["ports"][0].erase("thread"); });
  refused(tank(), "parts.0.volume_m3", [](Json& p) { p["volume_m3"] = -1; });
  refused(tank(), "parts.0.kind", [](Json& p) { p["kind"] = "barrel"; });
  refused(tank(), "kind", [](Json& p) { p.erase("kind"); });
  refused(tank(), "name", [](Json& p) { p.erase("name"); });
  refused(pump(), "two points", [](Json& p) { p["curve"].erase(1); });
  refused(pump(), "Point 2", [](Json& p) { p["curve"][1]["pressure_pa"] = 0; });
  refused(pump(), "delivers nothing", [](Json& p) { p["curve"][0]["air_m3_per_s"] = 0; });
  refused(pump(), "belong together", [](Json& p) { p["longest_run_s"] = 600; });
  EXPECT_FALSE(read_parts("{}"));
  EXPECT_FALSE(read_parts(""));
  Json two = catalogue(tank());
  two["parts"].push_back(tank());
  EXPECT_FALSE(read_parts(two.dump()));
  Json newer = catalogue(tank());
  newer["version"] = 9;
  EXPECT_FALSE(read_parts(newer.dump()));
}

TEST(Parts, DoubtsAreSaidAndThePartWorks) {
  const auto doubted = [](Json part, const char* what, const auto& change) {
    change(part);
    const auto read = read_parts(catalogue(part).dump());
    ASSERT_TRUE(read) << say(read.error());
    std::string all;
    for (const Message& doubt : doubts_of_part(read->front()))
      all += say(doubt) + " ";
    EXPECT_NE(all.find(what), std::string::npos) << all;
  };
  doubted(pump(), "more against more", [](Json& p) { p["curve"][1]["air_m3_per_s"] = 6e-4; });
  doubted(pump(), "more current", [](Json& p) { p["curve"][1]["current_a"] = 4; });
  doubted(pump(), "starting", [](Json& p) { p["start_current_a"] = 5; });
  doubted(tank(), "outside", [](Json& p) { p["volume_m3"] = 0.03; });
}

TEST(Parts, ACurveIsReadBetweenItsPointsAndByVoltage) {
  const Part part = read_parts(catalogue(pump()).dump())->front();
  EXPECT_NEAR(air_of(part, 4e5, 13.2), 4e-4, 1e-12);
  EXPECT_NEAR(air_of(part, 4e5, 6.6), 2e-4, 1e-12) << "half the voltage, half the air";
  EXPECT_NEAR(air_of(part, 20e5, 13.2), 3e-4, 1e-12) << "its end goes on";
  EXPECT_NEAR(current_of(part, 4e5), 12, 1e-12);
}

TEST(Parts, TheUsersOwnStandInForTheShipped) {
  const test::Folder folder;
  Part own = *test::demo_shelf().find(PartKind::tank, "Ambry 12");
  own.volume = 0.0123;
  const auto file = save_part(own, folder.path());
  ASSERT_TRUE(file) << say(file.error());
  const std::filesystem::path both[] = {std::filesystem::path(MAVREL_DEMO) / "shelf", folder.path()};
  const Shelf shelf = load_shelf(both);
  EXPECT_EQ(shelf.parts.size(), test::demo_shelf().parts.size());
  EXPECT_DOUBLE_EQ(*shelf.find(PartKind::tank, "Ambry 12")->volume, 0.0123);
  // A second goes beside it, the same once more in its place.
  own.name = "Ambry 12 b";
  ASSERT_TRUE(save_part(own, folder.path()));
  ASSERT_TRUE(save_part(own, folder.path()));
  EXPECT_EQ(read_parts(test::text_of(*file))->size(), 2U);
  // A damaged file is left as it is.
  test::write(*file, "{ damaged");
  EXPECT_FALSE(save_part(own, folder.path()));
  EXPECT_EQ(test::text_of(*file), "{ damaged");
  EXPECT_EQ(load_shelf(both).problems.size(), 1U);
}

} // namespace
} // namespace mavrel::shelf
