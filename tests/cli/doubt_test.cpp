// mavrel-cli doubt.
#include "cli/run_cli.h"

#include <nlohmann/json.hpp>

namespace mavrel {
namespace {

using Json = nlohmann::json;

TEST(CliDoubt, SaysHowSureReadingsAndAnswersAre) {
  const std::string car = test::demo_file().string();
  const auto answer = test::run("doubt " + car + " --draws 60");
  ASSERT_EQ(answer.status, 0) << answer.err;
  const Json got = Json::parse(answer.out);
  EXPECT_EQ(got["draws"], 60);
  bool shared = false, odds = false;
  for (const Json& in : got["inputs"]) {
    EXPECT_GE(in["sd"].get<double>(), 0);
    EXPECT_FALSE(in["path"].get<std::string>().empty());
    shared = shared || in.contains("shared_with");
  }
  for (const Json& a : got["answers"]) {
    odds = odds || a.contains("odds_inside");
    if (a["sd"].is_null()) continue;
    EXPECT_LE(a["p05"].get<double>(), a["p95"].get<double>());
    double sum = 0;
    for (const Json& c : a["carried_by"])
      sum += c["share"].get<double>();
    EXPECT_NEAR(sum, a["carried_by"].empty() ? 0 : 1, 1e-9);
  }
  EXPECT_TRUE(shared);
  EXPECT_TRUE(odds);
  EXPECT_EQ(test::run("doubt " + car + " --draws 60").out, answer.out) << "the same seed";
  EXPECT_NE(test::run("doubt " + car + " --draws 60 --seed 2").out, answer.out);
  for (const char* wrong : {"--draws 3", "--draws many", "--seed x"}) {
    const auto bad = test::run("doubt " + car + " " + wrong);
    EXPECT_EQ(bad.status, 2) << wrong;
    EXPECT_TRUE(bad.out.empty());
  }
}

} // namespace
} // namespace mavrel
