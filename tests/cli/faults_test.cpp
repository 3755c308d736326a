// mavrel-cli practise and diagnose; and a hidden fault found through mavrel-rig.
#include "cli/run_cli.h"

#include <nlohmann/json.hpp>

namespace mavrel {
namespace {

using Json = nlohmann::json;

TEST(CliFaults, ACaseIsMadeAndDiagnosed) {
  const test::Folder folder;
  int first = 0;
  for (int seed = 21; seed < 24; ++seed) {
    const std::string file = (folder / "case.json").string();
    const auto hidden = test::run("practise --seed " + std::to_string(seed) + " > " + file);
    ASSERT_EQ(hidden.status, 0) << hidden.err;
    const auto shown = test::run("practise --seed " + std::to_string(seed) + " --reveal");
    const Json case_ = Json::parse(test::text_of(file)), truth = Json::parse(shown.out);
    EXPECT_FALSE(case_.contains("fault"));
    EXPECT_TRUE(case_["symptoms"].is_array() && case_["readings"].is_array());
    EXPECT_EQ(case_["readings"], truth["readings"]);
    const auto answer = test::run("diagnose " + file);
    ASSERT_EQ(answer.status, 0) << answer.err;
    const Json got = Json::parse(answer.out);
    double sum = 0;
    for (const Json& c : got["causes"])
      sum += c["odds"].get<double>();
    EXPECT_LE(sum, 1);
    first += got["causes"][0]["fault"] == truth["fault"];
    double last = 1e9;
    for (const Json& t : got["next_tests"]) {
      const double rate = t["bits"].get<double>() / t["minutes"].get<double>();
      EXPECT_LE(rate, last + 1e-12);
      last = rate;
    }
  }
  EXPECT_GE(first, 2);
}

TEST(CliFaults, WhatIsTypedMovesABuildsOdds) {
  const std::string car = test::demo_file().string();
  const auto answer = test::run("diagnose " + car + " --found pumps_never=yes --found fuse_dead=yes --found volts=0V");
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json got = Json::parse(answer.out);
  EXPECT_EQ(got["causes"][0]["key"], "fuse");
  const auto taken = test::run("diagnose " + (std::filesystem::path(MAVREL_DEMO) / "shop" / "w-14.mavrel").string() +
                               " --take --found drains_water=no");
  ASSERT_EQ(taken.status, 0) << taken.err;
  EXPECT_EQ(Json::parse(taken.out)["causes"][0]["key"], "pinched:rear_left");
}

TEST(CliFaults, ANameIsScored) {
  const auto hidden = test::run("practise --seed 4 --level plain --reveal --untested");
  ASSERT_EQ(hidden.status, 0) << hidden.err;
  const auto wrong = test::run("practise --seed 4 --level plain --test hold --name gauge_off");
  ASSERT_EQ(wrong.status, 0) << wrong.err;
  const Json got = Json::parse(wrong.out);
  EXPECT_EQ(got["score"]["minutes"], 22);
  EXPECT_EQ(got["fault"], Json::parse(hidden.out)["fault"]);
  EXPECT_FALSE(got["score"]["best"].empty());
}

TEST(CliFaults, MistakesAreOneLineEach) {
  const test::Folder folder;
  const auto bad = [&](const std::string& text) {
    test::write(folder / "bad.json", text);
    return "diagnose " + (folder / "bad.json").string();
  };
  const auto whole = [&](const std::string& key, const std::string& value) {
    std::string text = test::text_of(test::demo_file());
    text.insert(text.find('{') + 1, "\"" + key + "\": " + value + ",");
    return bad(text);
  };
  const std::string car = test::demo_file().string();
  for (const std::string& command :
       {std::string("practise --level easy"), std::string("practise --test soap_everything"),
        std::string("practise --name gremlins"), std::string("practise --name fuse+relay+worn"),
        std::string("practise nowhere.mavrel"), std::string("diagnose nowhere.json"),
        "diagnose " + car + " --found slow_up", "diagnose " + car + " --found slow_up=yes",
        "diagnose " + car + " --found slow_up:rear=yes", "diagnose " + car + " --found slow_up:front_left=maybe",
        "diagnose " + car + " --found fill_time:front_left=0.001s", bad("{"), bad("[]"), whole("symptoms", "3"),
        whole("readings", R"([{"sign":"volts"}])"), whole("readings", R"([{"sign":"volts","value":"12"}])"),
        whole("symptoms", R"([{"sign":"slow_up","where":"roof","answer":"yes"}])"), whole("nothing_else", "1"),
        whole("two_at_once", "1e9")}) {
    const auto answer = test::run(command);
    EXPECT_EQ(answer.status, 2) << command;
    EXPECT_TRUE(answer.out.empty()) << command;
    EXPECT_EQ(std::count(answer.err.begin(), answer.err.end(), '\n'), 1) << command << answer.err;
  }
}

} // namespace
} // namespace mavrel
