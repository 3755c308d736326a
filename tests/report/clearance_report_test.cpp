// Clearance and ground in what is written: JSON, the table of tracks, the build sheet.
#include "assess/assess.h"
#include "assess/interference/recheck.h"
#include "report/assessment_json.h"
#include "report/build_sheet.h"
#include "report/tracks_csv.h"

#include "support.h"

namespace mavrel::report {
namespace {

bool sheet_holds(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}
assess::Assessment assessed(const build::Build& b) {
  return assess::assess(b, test::demo_shelf());
}
SheetParts sheet(const build::Build& b) {
  return build_sheet(b, assessed(b), {});
}
std::string sections(const SheetParts& parts) {
  std::string out;
  for (const std::string& one : parts.sections)
    out += one;
  return out;
}

TEST(ClearanceJson, HasEveryGapAsItIsReadOnTheScreen) {
  const auto& b = test::demo_whole();
  const auto a = assessed(b);
  const auto json = nlohmann::json::parse(assessment_json(b, a));
  const auto& gaps = json["front"]["gaps"];
  ASSERT_EQ(gaps.size(), a.end(build::End::front).gaps.size());
  for (std::size_t i = 0; i < gaps.size(); ++i) {
    const assess::GapCurve& curve = a.end(build::End::front).gaps[i];
    EXPECT_EQ(gaps[i]["to"], say(curve.near.told()));
    EXPECT_EQ(gaps[i]["of"], "tyre");
    EXPECT_DOUBLE_EQ(gaps[i]["room_m"].get<double>(), curve.near.room);
    if (gaps[i]["straight"].is_null()) continue;
    const auto& heights = gaps[i]["straight"]["height_m"];
    const auto& values = gaps[i]["straight"]["gap_m"];
    ASSERT_EQ(heights.size(), values.size());
    for (std::size_t k = 0; k < heights.size(); ++k) {
      const auto at = curve.at(heights[k].get<double>(), false);
      ASSERT_TRUE(at);
      EXPECT_NEAR(values[k].get<double>(), *at, 1e-9);
      if (gaps[i]["source"] == "solid") {
        EXPECT_GE(values[k].get<double>(), 0) << "overlap is no negative gap";
      }
    }
  }
}

TEST(ClearanceJson, SaysWhatLimitsAWindowByItsName) {
  const auto& b = test::pickup_whole();
  const auto json = nlohmann::json::parse(assessment_json(b, assessed(b)));
  EXPECT_EQ(json["rear"]["reach_window"]["low"]["governing"]["limit"], "axle_near");
  EXPECT_EQ(json["rear"]["reach_window"]["low"]["governing"]["near"], "rail");
}

TEST(ClearanceJson, HasTheGroundAtThePresetsMeantForIt) {
  const auto& b = test::demo_whole();
  const auto json = nlohmann::json::parse(assessment_json(b, assessed(b)));
  ASSERT_TRUE(json["ground"]["known"]);
  bool ramp = false;
  for (const auto& c : json["ground"]["crossings"])
    if (c["over"] == "harbour ramp") {
      ramp = true;
      EXPECT_EQ(c["preset"], "Ramp");
      EXPECT_EQ(c["point"], "lip");
      EXPECT_LT(c["least_gap_m"], 0);
    }
  EXPECT_TRUE(ramp);
  EXPECT_EQ(json["ground"]["angles"].size(), 3U);
  // A car nobody measured has none of it, and no number that is none.
  const auto empty = build::empty_build();
  const auto none = nlohmann::json::parse(assessment_json(empty, assess::assess(empty, {})));
  EXPECT_FALSE(none["ground"]["known"]);
  EXPECT_TRUE(none["ground"]["crossings"].empty());
  EXPECT_TRUE(none["front"]["gaps"].empty());
}

TEST(ClearanceJson, HasThePokePastTheArchAtEveryHeight) {
  const auto json = nlohmann::json::parse(assessment_json(test::demo_whole(), assessed(test::demo_whole())));
  const auto& poke = json["front"]["tracks"]["poke_m"];
  ASSERT_GT(poke["poke_m"].size(), 50U);
  // The lower it stands the further the top leans in.
  EXPECT_LT(poke["poke_m"].front(), poke["poke_m"].back());
  const auto bare = nlohmann::json::parse(assessment_json(test::demo_build(), assessed(test::demo_build())));
  EXPECT_FALSE(bare["front"]["tracks"].contains("poke_m"));
  EXPECT_TRUE(sheet_holds(tracks_csv(assessed(test::demo_whole())), "poke"));
}

TEST(ClearanceSheet, HasClearanceAndGroundWhereTheyAreKnown) {
  const std::string text = sections(sheet(test::demo_whole()));
  for (const char* part :
       {"<h2>Clearance</h2>", "<h2>Ground</h2>", "liner behind", "touches", "harbour ramp", "approach"})
    EXPECT_TRUE(sheet_holds(text, part)) << part;
  const std::string bare = sections(sheet(test::demo_build()));
  EXPECT_FALSE(sheet_holds(bare, "<h2>Clearance</h2>"));
  EXPECT_FALSE(sheet_holds(bare, "<h2>Ground</h2>"));
}

TEST(ClearanceSheet, AWheelChangeHasARecheckListOnAPageOfItsOwn) {
  build::Build b = test::demo_whole();
  b.variant().air = {}; // whose pages are no matter here
  EXPECT_TRUE(sheet(b).pages.empty());
  b.variant().fit[0].wheel = "225/40R18 8.5 ET35";
  const auto parts = sheet(b);
  ASSERT_EQ(parts.pages.size(), 1U);
  for (const char* part : {"To look at again", "225/40R18 8.5 ET35", "215/45R17 7.5 ET42", "arch lip", "never", "☐"})
    EXPECT_TRUE(sheet_holds(parts.pages[0], part)) << part;
  // What has been looked at since is no longer on it.
  const auto rows = assess::rechecks(assessed(b).ends[0], {});
  for (const assess::Recheck& row : rows)
    b.variant().fit[0].checks.push_back({row.what, row.digest, row.figure.value_or(0), {}});
  EXPECT_FALSE(sheet_holds(sheet(b).pages.at(0), "☐"));
}

TEST(ClearanceSheet, NamesThatPeopleTypeAreNotMarkup) {
  build::Build b = test::demo_whole();
  b.ends[0].obstacles[1].name = "<b>liner</b> & co";
  b.variant().brief.grounds[0].name = "<i>ramp</i>";
  const std::string text = sections(sheet(b));
  EXPECT_FALSE(sheet_holds(text, "<b>liner</b>"));
  EXPECT_FALSE(sheet_holds(text, "<i>ramp</i>"));
  EXPECT_TRUE(sheet_holds(text, "&lt;b&gt;liner"));
}

} // namespace
} // namespace mavrel::report
