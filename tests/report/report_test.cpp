// What leaves the program on paper and as data.
#include "assess/assess.h"
#include "random_car.h"
#include "report/assessment_json.h"
#include "report/build_sheet.h"
#include "report/search_json.h"
#include "report/tracks_csv.h"

#include <algorithm>
#include <map>
#include <nlohmann/json.hpp>
#include <regex>

#include <sstream>

namespace mavrel::report {
namespace {

using assess::assess;

bool holds(const std::string& text, const std::string& part) {
  return text.find(part) != std::string::npos;
}

std::vector<std::vector<std::string>> cells_of(const std::string& csv) {
  std::vector<std::vector<std::string>> out;
  std::istringstream lines(csv);
  for (std::string line; std::getline(lines, line);) {
    auto& row = out.emplace_back();
    std::istringstream cells(line);
    for (std::string cell; std::getline(cells, cell, ',');)
      row.push_back(cell);
  }
  return out;
}

TEST(TracksCsv, HasOneRowAMillimetreAndLoadCaseAndSaysWhatIsBlocked) {
  const auto& build = test::demo_build();
  const auto a = assess(build, test::demo_shelf());
  const auto rows = cells_of(tracks_csv(a));
  ASSERT_GT(rows.size(), 400U);
  const auto& head = rows.front();
  EXPECT_EQ(head.front(), "end");
  EXPECT_EQ(head.back(), "beyond");
  ASSERT_EQ(head[head.size() - 2], "road");
  std::size_t free = 0;
  for (std::size_t i = 1; i < rows.size(); ++i) {
    ASSERT_GE(rows[i].size(), head.size() - 1) << i; // an empty last cell
    const double H = std::stod(rows[i][2]) * 1e-3;
    const auto& windows = a.end(rows[i][0] == "front" ? build::End::front : build::End::rear).windows;
    if (rows[i][head.size() - 2] == "free") {
      ++free;
      EXPECT_TRUE(windows.road->contains(H)) << H;
    }
  }
  EXPECT_GT(free, 50U);
}

TEST(TracksCsv, ACommaInANameStaysInItsCell) {
  build::Build build = test::demo_build();
  build.load_cases[1].name = "Two up, \"with dog\"";
  EXPECT_TRUE(holds(tracks_csv(assess(build, test::demo_shelf())), "\"Two up, \"\"with dog\"\"\""));
}

TEST(TracksCsv, IsOnlyAHeadForACarNobodyMeasured) {
  const auto rows = cells_of(tracks_csv(assess(build::empty_build(), test::demo_shelf())));
  EXPECT_EQ(rows.size(), 1U);
}

TEST(AssessmentJson, SaysTheSameAsTheAssessment) {
  const auto& build = test::demo_build();
  const auto a = assess(build, test::demo_shelf());
  const auto json = nlohmann::json::parse(assessment_json(build, a));
  EXPECT_EQ(json["car"], "Sorrel Wayfare estate");
  EXPECT_DOUBLE_EQ(json["front"]["road_window"]["high"]["height_m"].get<double>(),
                   a.end(build::End::front).windows.road->high.height);
  EXPECT_EQ(json["findings"].size(), a.findings.size());
  for (const auto& finding : json["findings"])
    for (const char* key : {"code", "severity", "stage", "place", "title", "reason", "way_out"})
      EXPECT_TRUE(finding.contains(key)) << key;
  EXPECT_DOUBLE_EQ(json["load_cases"][2]["rear"]["axle_kg"].get<double>(), a.loads[2].ends[1]->axle_mass);
}

TEST(AssessmentJson, ACarNobodyMeasuredIsNullsNotNumbers) {
  const auto build = build::empty_build();
  const auto json = nlohmann::json::parse(assessment_json(build, assess(build, {})));
  EXPECT_TRUE(json["front"]["reach_window"].is_null());
  EXPECT_TRUE(json["cross_weight"].is_null());
}

/// All that is written on the sheet, its picture left out.
std::string sheet_text(const build::Build& build, const assess::Assessment& a, const UnitPrefs& prefs) {
  const SheetParts parts = build_sheet(build, a, prefs);
  std::string out = parts.head;
  for (const std::string& section : parts.sections)
    out += section;
  return out;
}

TEST(BuildSheet, NamesTheCarItsBagsAndEveryLoadCase) {
  const auto& build = test::demo_build();
  const std::string html = sheet_text(build, assess(build, test::demo_shelf()), {});
  for (const char* part : {"Sorrel Wayfare estate", "0417", "Osier O-135", "Osier O-150", "Empty", "Two up",
                           "Market day", "Parked", "Ramp", "304 mm"})
    EXPECT_TRUE(holds(html, part)) << part;
  EXPECT_FALSE(holds(html, ">?")) << "what a number that is none would be shown as";
}

TEST(BuildSheet, SpeaksTheReadersUnits) {
  UnitPrefs imperial;
  imperial.length = LengthUnit::inch;
  imperial.pressure = PressureUnit::psi;
  imperial.mass = MassUnit::lb;
  const auto& build = test::demo_build();
  const std::string html = sheet_text(build, assess(build, test::demo_shelf()), imperial);
  EXPECT_TRUE(holds(html, " psi"));
  EXPECT_TRUE(holds(html, " lb"));
  EXPECT_FALSE(holds(html, " bar"));
  EXPECT_FALSE(holds(html, " kg<"));
}

TEST(BuildSheet, WhatStandsBesideTheBagsIsOnItWhereAnythingDoes) {
  build::Build build = test::demo_build();
  EXPECT_FALSE(holds(sheet_text(build, assess(build, test::demo_shelf()), {}), "added volume</th>"));
  build.active_variant = 2;
  const std::string html = sheet_text(build, assess(build, test::demo_shelf()), {});
  EXPECT_TRUE(holds(html, "2.00 l"));
  EXPECT_TRUE(holds(html, "9.0 mm bore"));
  EXPECT_TRUE(holds(html, "pressure vessel")) << "the caution that goes with it";
}

TEST(BuildSheet, MarkupInANameIsOnlyText) {
  build::Build build = test::demo_build();
  build.job.car = "<b>Wayfare</b> & \"friends\"";
  const std::string html = sheet_text(build, assess(build, test::demo_shelf()), {});
  EXPECT_TRUE(holds(html, "&lt;b&gt;Wayfare&lt;/b&gt; &amp; &quot;friends&quot;"));
}

TEST(BuildSheet, HasAPageForAnyCar) {
  EXPECT_TRUE(rc::check("random cars on paper", [] {
    const auto car = test::random_car();
    const auto a = assess(car.build, car.shelf);
    const std::string html = sheet_text(car.build, a, {}), svg = windows_svg(car.build, a, {}, 516, 600);
    // A number that is none is shown as a question mark in text, and as letters in the picture.
    RC_ASSERT(!holds(html, "?") && !holds(svg, "nan") && !holds(svg, "inf"));
    RC_ASSERT(svg.starts_with("<svg") && svg.ends_with("</svg>"));
  }));
}

TEST(WindowsSvg, HigherIsUp) {
  const auto& build = test::demo_build();
  const std::string svg = windows_svg(build, assess(build, test::demo_shelf()), {}, 516, 600);
  const auto y_of = [&](const std::string& label) {
    const std::size_t at = svg.rfind("<text", svg.find(label));
    return std::stod(svg.substr(svg.find("y='", at) + 3));
  };
  EXPECT_LT(y_of(">424 mm"), y_of(">357 mm"));
  EXPECT_LT(y_of(">357 mm"), y_of(">307 mm"));
}

TEST(WindowsSvg, LabelsNeverTouchHoweverManyPresetsThereAre) {
  build::Build build = test::demo_build();
  auto& presets = build.variant().brief.presets;
  for (int i = static_cast<int>(presets.size()); i < 24; ++i)
    presets.push_back({"A preset with a long name " + std::to_string(i),
                       build::PresetUse::other,
                       {},
                       {build::HeightWish{build::HeightWish::As::height, 0.35 + 0.0005 * i, {}}, {}},
                       {}});
  const std::string svg = windows_svg(build, assess(build, test::demo_shelf()), {}, 516, 620);
  const std::regex figure(R"re(<text x='([0-9.]+)' y='([0-9.]+)'[^>]*font-size='([0-9.]+)'[^>]*text-anchor='end')re");
  std::map<std::string, std::vector<std::pair<double, double>>> columns; // x to baseline and size
  for (std::sregex_iterator it(svg.begin(), svg.end(), figure), end; it != end; ++it)
    columns[(*it)[1]].emplace_back(std::stod((*it)[2]), std::stod((*it)[3]));
  ASSERT_EQ(columns.size(), 2U);
  for (auto& [x, lines] : columns) {
    std::sort(lines.begin(), lines.end());
    for (std::size_t i = 1; i < lines.size(); ++i)
      EXPECT_GE(lines[i].first - lines[i - 1].first, 0.75 * lines[i].second) << x << " line " << i;
    EXPECT_GT(lines.front().first, 0);
    EXPECT_LT(lines.back().first, 620);
  }
}

TEST(SearchJson, GivesAsManyChoicesAsAskedAndEveryPair) {
  const auto& build = test::demo_build();
  const auto found = assess::search(build, test::demo_shelf(), {});
  ASSERT_TRUE(found);
  const auto json = nlohmann::json::parse(search_json(build, *found, 3));
  EXPECT_EQ(json["choices"].size(), 3U);
  EXPECT_EQ(json["not_dominated"].get<std::size_t>(), found->choices.size());
  EXPECT_EQ(json["ranking"].size(), 3U) << "the list is limited too";
  EXPECT_EQ(json["pairs_of_bags"].get<std::size_t>(), found->pairs);
  EXPECT_EQ(json["choices"][0]["front"]["bag"], found->choices[0].ends[0].bag);
  EXPECT_DOUBLE_EQ(json["choices"][0]["rear"]["cases"][2]["body_frequency_hz"].get<double>(),
                   found->choices[0].ends[1].frequency[2]);
  for (const auto& pair : json["ranking"])
    EXPECT_EQ(pair.contains("reason"), pair["result"] != "chosen");
}

} // namespace
} // namespace mavrel::report
