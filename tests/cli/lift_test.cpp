// mavrel-cli lift and size.
#include "cli/run_cli.h"

#include <fstream>
#include <map>

namespace mavrel {
namespace {

using Json = nlohmann::json;

std::string demo_for_lift(const char* name) {
  return (std::filesystem::path(MAVREL_DEMO) / name).string();
}

TEST(CliLift, BothDemoCarsGoUpAndSayHow) {
  for (const char* car : {"sorrel-wayfare.mavrel", "hollin-tarnway.mavrel"}) {
    const test::Folder folder;
    const auto answer = test::run("lift " + demo_for_lift(car) + " --csv " + (folder / "up.csv").string());
    ASSERT_EQ(answer.status, 0) << answer.err;
    const Json got = Json::parse(answer.out);
    EXPECT_GT(got["arrived_s"].get<double>(), 0.2);
    EXPECT_GT(got["air_kg"].get<double>(), 0.003);
    double shares = 0; // of each end they add up to the whole; both ends' ways are told
    for (const Json& t : got["throttles"])
      shares += t["share"].get<double>();
    EXPECT_GE(shares, 1 - 1e-6);
    EXPECT_LE(shares, 2);
    EXPECT_GT(got["kit"]["lifts"]["from_full"].get<int>(), 1);
    const std::string csv = test::text_of(folder / "up.csv");
    EXPECT_EQ(csv.rfind("time_s,", 0), 0U);
    EXPECT_GT(std::count(csv.begin(), csv.end(), '\n'), 10);
  }
}

TEST(CliLift, DownTakesNoAirAndOrdersDiffer) {
  const auto down = test::run("lift " + demo_for_lift("sorrel-wayfare.mavrel") + " --from Road --to Parked");
  ASSERT_EQ(down.status, 0) << down.err;
  EXPECT_NEAR(Json::parse(down.out)["air_kg"].get<double>(), 0, 1e-9);
  const auto one = test::run("lift " + demo_for_lift("sorrel-wayfare.mavrel") + " --order 'one by one'"),
             all = test::run("lift " + demo_for_lift("sorrel-wayfare.mavrel") + " --order together");
  EXPECT_GT(Json::parse(one.out)["arrived_s"].get<double>(), Json::parse(all.out)["arrived_s"].get<double>());
  EXPECT_GT(Json::parse(one.out)["worst_lean_m"].get<double>(), 0.02);
}

TEST(CliLift, PastReachItGoesAsFarAsItDoesAndSaysHowMuchIsLacking) {
  const auto answer = test::run("lift " + demo_for_lift("sorrel-wayfare.mavrel") + " --to Ramp");
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json got = Json::parse(answer.out);
  EXPECT_TRUE(got["arrived_s"].is_null());
  EXPECT_GT(got["short"]["by_m"].get<double>(), 0.002);
}

TEST(CliLift, MistakesAreOneSentence) {
  const std::pair<std::string, const char*> all[] = {
      {"lift " + demo_for_lift("sorrel-wayfare.mavrel") + " --to Moon", "Parked, Road, Ramp"},
      {"lift " + demo_for_lift("sorrel-wayfare.mavrel") + " --order sideways", "--order"},
      {"lift /nowhere.mavrel", "nowhere"},
      {"size /nowhere.mavrel", "nowhere"},
  };
  for (const auto& [command, says] : all) {
    const auto answer = test::run(command);
    EXPECT_EQ(answer.status, 2) << command;
    EXPECT_EQ(answer.out, "") << command;
    EXPECT_EQ(std::count(answer.err.begin(), answer.err.end(), '\n'), 1) << answer.err;
    EXPECT_NE(answer.err.find(says), std::string::npos) << answer.err;
  }
}

/// The shelf with three of each thing that is searched, beside what the car has; the whole one is searched in Sizing's
/// own tests.
void lay_out_few_parts(const std::filesystem::path& folder, const std::string& car) {
  for (const auto& entry : std::filesystem::directory_iterator(std::filesystem::path(MAVREL_DEMO) / "shelf")) {
    const auto to = folder / entry.path().filename();
    if (entry.path().extension() != ".json") {
      std::filesystem::copy_file(entry.path(), to);
      continue;
    }
    Json parts = Json::parse(test::text_of(entry.path())), few = Json::array();
    std::map<std::string, int> there;
    for (const Json& part : parts["parts"])
      if (++there[part["kind"].get<std::string>()] <= 3 ||
          car.find(part["name"].get<std::string>()) != std::string::npos)
        few.push_back(part);
    parts["parts"] = few;
    std::ofstream(to) << parts.dump();
  }
}

TEST(CliSize, ListsTheBestFirstAndSaysWhyTheRestLost) {
  const test::Folder folder;
  const std::string car = demo_for_lift("sorrel-wayfare.mavrel");
  lay_out_few_parts(folder.path(), test::text_of(car));
  const auto answer = test::run("size " + car + " --most 400", "MAVREL_SHELF=" + folder.path().string());
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json got = Json::parse(answer.out);
  ASSERT_GT(got["choices"].size(), 20U);
  EXPECT_TRUE(got["choices"][0]["best"].get<bool>());
  bool was_best = true;
  for (const Json& c : got["choices"]) {
    EXPECT_EQ(c["lost"].is_null(), c["best"].get<bool>());
    EXPECT_TRUE(was_best || !c["best"].get<bool>()) << "the best stand together, in front";
    was_best = c["best"].get<bool>();
  }
}

} // namespace
} // namespace mavrel
