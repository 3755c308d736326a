// mavrel-cli plan, cut, parts, templates and schools.
#include "assess/fit_up/cars.h"
#include "build/json.h"
#include "cli/run_cli.h"

#include <nlohmann/json.hpp>

#include <array>

namespace mavrel {
namespace {

using Json = nlohmann::json;

Json reference(const char* name) {
  return Json::parse(test::text_of(test::data(std::string("reference/") + name)));
}
std::string demo(const char* name) {
  return (std::filesystem::path(MAVREL_DEMO) / name).string();
}
std::string printed_by(const std::string& command) {
  std::string out;
  FILE* pipe = ::popen(command.c_str(), "r");
  char buffer[4096];
  for (std::size_t n; (n = std::fread(buffer, 1, sizeof buffer, pipe)) > 0;)
    out.append(buffer, n);
  ::pclose(pipe);
  return out;
}

TEST(CliPlan, GivesTheReferenceFigures) {
  for (const Json& c : reference("plan-cases.json")) {
    const auto answer = test::run("plan " + test::data("reference/plan/" + c["plan"].get<std::string>()).string());
    if (c.contains("refused")) {
      EXPECT_EQ(answer.status, 2);
      EXPECT_TRUE(answer.out.empty());
      for (const Json& id : c["refused"])
        EXPECT_NE(answer.err.find(id.get<std::string>()), std::string::npos) << answer.err;
      continue;
    }
    ASSERT_EQ(answer.status, 0) << answer.err;
    const Json got = Json::parse(answer.out);
    EXPECT_NEAR(got["span_h"].get<double>(), c["expect"]["span_h"].get<double>(), 1e-9);
    EXPECT_LE(got["shared_span_h"].get<double>(), c["shared"]["at_most_h"].get<double>());
    EXPECT_GE(got["shared_span_h"].get<double>(), c["shared"]["best_span_h"].get<double>() - 1e-6);
    ASSERT_EQ(got["tasks"].size(), c["expect"]["tasks"].size());
    for (std::size_t i = 0; i < got["tasks"].size(); ++i)
      for (const auto& [key, value] : c["expect"]["tasks"][i].items())
        if (value.is_number()) {
          EXPECT_NEAR(got["tasks"][i][key].get<double>(), value.get<double>(), 1e-9) << c["plan"] << " " << key;
        } else {
          EXPECT_EQ(got["tasks"][i][key], value) << c["plan"] << " " << key;
        }
  }
}

TEST(CliPlan, RefusesWhatIsWrongNamingIt) {
  const test::Folder folder;
  const auto refused = [&](const std::string& text) {
    const auto file = folder / "plan.json";
    test::write(file, text);
    const auto answer = test::run("plan " + file.string());
    EXPECT_EQ(answer.status, 2) << text;
    EXPECT_TRUE(answer.out.empty());
    return answer.err;
  };
  const std::string head = R"({"people": 1, "places": {"lift": 1}, "day_h": [8, 17], "tasks": [)";
  EXPECT_NE(refused(head + R"({"id":"a","hours":1,"people":2,"after":[]}]})").find("“a”"), std::string::npos);
  EXPECT_NE(refused(head + R"({"id":"a","hours":1,"people":1,"place":"pit"}]})").find("“pit”"), std::string::npos);
  EXPECT_NE(refused(head + R"({"id":"a","hours":-1,"people":1}]})").find("hours"), std::string::npos);
  EXPECT_NE(refused(head + R"({"id":"a","hours":1,"people":1,"after":["b"]}]})").find("“b”"), std::string::npos);
  EXPECT_NE(refused(head + R"({"id":"a","hours":1,"people":1},{"id":"a","hours":1,"people":1}]})").find("“a”"),
            std::string::npos);
  EXPECT_NE(refused(R"({"people": 1.5, "places": {}, "day_h": [8, 17], "tasks": []})").find("people"),
            std::string::npos);
  EXPECT_NE(refused(R"({"people": 1, "places": {}, "day_h": [17, 8], "tasks": []})").find("day_h"), std::string::npos);
  EXPECT_NE(refused("[1, 2]").size(), 0U);
}

TEST(CliCut, NeedsAsFewBarsAsTheReference) {
  for (const Json& c : reference("cut-cases.json")) {
    std::string arguments = "cut";
    for (const Json& a : c["args"])
      arguments += " " + a.get<std::string>();
    const auto answer = test::run(arguments);
    if (c.contains("refused")) {
      EXPECT_EQ(answer.status, 2);
      EXPECT_NE(answer.err.find("6010 mm"), std::string::npos) << answer.err;
      continue;
    }
    ASSERT_EQ(answer.status, 0) << answer.err;
    EXPECT_EQ(Json::parse(answer.out)["count"], c["expect"]["count"]);
  }
  for (const char* wrong :
       {"cut --stock 6m --piece 412mm:0", "cut --stock 6m --piece 412mm:x", "cut --stock 6m --piece :3",
        "cut --stock 0 --piece 1m", "cut --stock 6m --piece 1mm:9999", "cut --stock 6m"})
    EXPECT_EQ(test::run(wrong).status, 2) << wrong;
}

TEST(CliPlan, OfABuildHasItsJobsChecksAndSheets) {
  const test::Folder folder;
  const auto answer = test::run("plan " + demo("sorrel-wayfare.mavrel") + " --now '2026-12-01 10:30' --csv " +
                                (folder / "plan.csv").string() + " --pdf " + (folder / "sheets.pdf").string());
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json plan = Json::parse(answer.out);
  EXPECT_GT(plan["jobs"].size(), 25U);
  EXPECT_GT(plan["checks"].size(), 12U);
  EXPECT_TRUE(
      std::any_of(plan["jobs"].begin(), plan["jobs"].end(), [](const Json& j) { return j["critical"] == true; }));
  const std::string csv = test::text_of(folder / "plan.csv");
  EXPECT_EQ(static_cast<std::size_t>(std::count(csv.begin(), csv.end(), '\n')), plan["jobs"].size() + 1);
  // A page a day, one a hold point, the cut list and the labels: read back by another program.
  const std::string text = printed_by("pdftotext -layout " + (folder / "sheets.pdf").string() + " -");
  for (const char* words : {"Tue 1 Dec", "Wed 2 Dec", "Front: Gaps at the worst pose", "Cut list", "Labels", "signed"})
    EXPECT_NE(text.find(words), std::string::npos) << words;
  EXPECT_EQ(test::run("plan " + demo("sorrel-wayfare.mavrel") + " --now soon").status, 2);
}

TEST(CliParts, WritesItsLists) {
  const test::Folder folder;
  const auto answer =
      test::run("parts " + demo("hollin-tarnway.mavrel") + " --cut-csv " + (folder / "cut.csv").string() +
                " --buy-csv " + (folder / "buy.csv").string() + " --labels-csv " + (folder / "labels.csv").string());
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json parts = Json::parse(answer.out);
  std::size_t pieces = 0, bars_left = 0;
  for (const Json& s : parts["cut"]) {
    pieces += s["pieces"].size();
    for (const Json& b : s["bars"])
      bars_left += b["left_m"].get<double>() > 0;
  }
  const auto rows = [&](const char* file) {
    const std::string text = test::text_of(folder / file);
    return static_cast<std::size_t>(std::count(text.begin(), text.end(), '\n'));
  };
  EXPECT_EQ(rows("cut.csv"), pieces + bars_left + 1);
  EXPECT_EQ(rows("buy.csv"), parts["buy"].size() + 1);
  EXPECT_EQ(rows("labels.csv"), 2 * parts["routes"].size() + 1);
  EXPECT_EQ(test::run("parts " + demo("hollin-tarnway.mavrel") + " --cut-csv /nowhere/cut.csv").status, 2);
}

/// A page as grey values, ten pixels a millimetre.
struct Page {
  int width = 0, height = 0;
  std::string grey;
  [[nodiscard]] bool dark(int x, int y) const {
    return static_cast<unsigned char>(grey[static_cast<std::size_t>(y * width + x)]) < 128;
  }
};
Page page_of(const std::filesystem::path& pdf, int number) {
  const std::string raw = printed_by("pdftoppm -r 254 -gray -f " + std::to_string(number) + " -l " +
                                     std::to_string(number) + " " + pdf.string());
  Page out;
  int most = 0, used = 0;
  if (std::sscanf(raw.c_str(), "P5 %d %d %d%n", &out.width, &out.height, &most, &used) == 3)
    out.grey = raw.substr(static_cast<std::size_t>(used) + 1);
  return out;
}
/// The longest dark stretch of any row, px, and whether one is as long as the ruler.
std::vector<int> longest_rows(const Page& page) {
  std::vector<int> out;
  for (int y = 0; y < page.height; ++y) {
    int now = 0, most = 0;
    for (int x = 0; x < page.width; ++x)
      now = page.dark(x, y) ? now + 1 : 0, most = std::max(most, now);
    out.push_back(most);
  }
  return out;
}

TEST(CliTemplates, ThePdfIsTrueToScaleRulerAndPlate) {
  const test::Folder folder;
  const auto answer = test::run("templates " + demo("sorrel-wayfare.mavrel") + " --pdf " + (folder / "t.pdf").string());
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json drawn = Json::parse(answer.out);
  const Page page = page_of(folder / "t.pdf", 1);
  ASSERT_EQ(static_cast<int>(page.grey.size()), page.width * page.height);
  EXPECT_NEAR(page.width, 2100, 2);
  const auto rows = longest_rows(page);
  const int ruler = *std::max_element(rows.end() - 400, rows.end());
  EXPECT_NEAR(ruler, 1000, 4); // 100 mm, and its pen
  // The first is a round plate: from its outermost left to its outermost right, over the rows above the ruler.
  int left = page.width, right = 0;
  for (int y = 320; y < page.height - 420; ++y)
    for (int x = 0; x < page.width; ++x)
      if (page.dark(x, y)) left = std::min(left, x), right = std::max(right, x);
  EXPECT_NEAR(right - left, drawn["templates"][0]["width_m"].get<double>() * 1e4, 6);
}

TEST(CliTemplates, WhatIsLargerThanAPageIsTiled) {
  const test::Folder folder;
  build::Build b = assess::fresh_half_ton();
  b.variant().fit_up.own().plates[1].diameter = 0.45;
  test::write(folder / "wide.mavrel", build::to_json(b));
  const auto answer =
      test::run("templates " + (folder / "wide.mavrel").string() + " --pdf " + (folder / "t.pdf").string() + " --dxf " +
                folder.path().string() + " --svg " + folder.path().string());
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json drawn = Json::parse(answer.out);
  const std::string text = printed_by("pdftotext " + (folder / "t.pdf").string() + " -");
  EXPECT_NE(text.find("page 1/6"), std::string::npos) << "450 mm: three across, two up";
  EXPECT_NE(text.find("page 6/6"), std::string::npos);
  for (const Json& t : drawn["templates"])
    for (const char* ending : {".dxf", ".svg"})
      EXPECT_TRUE(std::filesystem::exists(folder / (t["key"].get<std::string>() + ending)));
}

TEST(CliSchools, HasBothWays) {
  const auto answer = test::run("schools " + demo("hollin-tarnway.mavrel"));
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json cards = Json::parse(answer.out)["schools"];
  EXPECT_GT(cards.size(), 6U);
  for (const Json& c : cards)
    EXPECT_TRUE(c["taken"] == c["ways"][0] || c["taken"] == c["ways"][1]);
}

} // namespace
} // namespace mavrel
