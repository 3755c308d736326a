// mavrel-cli water and leak.
#include "cli/run_cli.h"

namespace mavrel {
namespace {

using Json = nlohmann::json;

Json cases(const char* file) {
  return Json::parse(test::text_of(test::data(std::string("reference/") + file)));
}
std::string quoted(const Json& args) {
  std::string out;
  for (const auto& a : args)
    out += " '" + a.get<std::string>() + "'";
  return out;
}

TEST(CliWater, AgreesWithTheReference) {
  for (const Json& one : cases("water-cases.json")) {
    const auto answer = test::run("water" + quoted(one["args"]));
    ASSERT_EQ(answer.status, 0) << answer.err;
    const Json got = Json::parse(answer.out);
    for (const auto& [key, value] : one["expect"].items())
      EXPECT_NEAR(got[key].get<double>(), value.get<double>(), 1e-6 + 1e-6 * std::abs(value.get<double>())) << key;
  }
}

TEST(CliLeak, AgreesWithTheReference) {
  for (const Json& one : cases("leak-cases.json")) {
    const auto answer = test::run(
        "leak " + test::data("reference/leak/" + one["readings"].get<std::string>()).string() + quoted(one["args"]));
    ASSERT_EQ(answer.status, 0) << answer.err;
    const Json got = Json::parse(answer.out);
    EXPECT_EQ(got["leaks"], one["expect"]["leaks"]);
    for (const char* key : {"mass_kg", "loss_kg_per_h", "loss_sd_kg_per_h"})
      EXPECT_NEAR(got[key].get<double>(), one["expect"][key].get<double>(),
                  1e-12 + 1e-6 * std::abs(one["expect"][key].get<double>()))
          << key;
  }
}

TEST(CliAir, MistakesAreOneSentence) {
  const test::Folder folder;
  const auto short_one = folder / "short.csv", bad = folder / "bad.csv", headless = folder / "headless.csv";
  test::write(short_one, "time_s,pressure_bar,temperature_c\n0,5,20\n60,5,20\n");
  test::write(bad, "time_s,pressure_bar,temperature_c\n0,5,20\n60,much,20\n90,5,20\n");
  test::write(headless, "time_s,temperature_c\n0,20\n");
  const std::pair<std::string, const char*> all[] = {
      {"leak " + short_one.string() + " --volume 2l", "three"},
      {"leak " + bad.string() + " --volume 2l", "Line 3"},
      {"leak " + headless.string() + " --volume 2l", "pressure_bar"},
      {"leak " + bad.string() + " --volume -2l", "volume"},
      {"leak /nowhere.csv --volume 2l", "nowhere"},
      {"water --air 30C --humidity 170% --tank 9bar --tank-air 25C --used 3kg", "--humidity"},
      {"water --air 30C --humidity 70% --tank soon --tank-air 25C --used 3kg", "--tank"},
  };
  for (const auto& [command, says] : all) {
    const auto answer = test::run(command);
    EXPECT_EQ(answer.status, 2) << command;
    EXPECT_NE(answer.err.find(says), std::string::npos) << answer.err;
  }
}

} // namespace
} // namespace mavrel
