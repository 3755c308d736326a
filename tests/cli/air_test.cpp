// mavrel-cli air, water, leak and cable.
#include "cli/run_cli.h"

namespace mavrel {
namespace {

using Json = nlohmann::json;

Json network_cases(const char* file) {
  return Json::parse(test::text_of(test::data(std::string("reference/") + file)));
}
std::string quoted(const Json& args) {
  std::string out;
  for (const auto& a : args)
    out += " '" + a.get<std::string>() + "'";
  return out;
}

TEST(CliWater, AgreesWithTheReference) {
  for (const Json& one : network_cases("water-cases.json")) {
    const auto answer = test::run("water" + quoted(one["args"]));
    ASSERT_EQ(answer.status, 0) << answer.err;
    const Json got = Json::parse(answer.out);
    for (const auto& [key, value] : one["expect"].items())
      EXPECT_NEAR(got[key].get<double>(), value.get<double>(), 1e-6 + 1e-6 * std::abs(value.get<double>())) << key;
  }
}

TEST(CliLeak, AgreesWithTheReference) {
  for (const Json& one : network_cases("leak-cases.json")) {
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

TEST(CliNetwork, AgreesWithTheReference) {
  for (const Json& one : network_cases("air-cases.json")) {
    const std::string name = one["network"];
    const auto answer = test::run("air " + test::data("reference/air/" + name).string());
    ASSERT_EQ(answer.status, 0) << answer.err;
    const Json got = Json::parse(answer.out), &want = one["expect"];
    ASSERT_EQ(got["at"].size(), want["at"].size()) << name;
    for (std::size_t t = 0; t < want["at"].size(); ++t)
      for (std::size_t v = 0; v < want["at"][t]["volumes"].size(); ++v) {
        const Json &a = got["at"][t]["volumes"][v], &b = want["at"][t]["volumes"][v];
        const std::string at = name + " at " + want["at"][t]["time_s"].dump() + " s";
        EXPECT_NEAR(a["pressure_pa"], b["pressure_pa"].get<double>(), 20) << at;
        EXPECT_NEAR(a["temperature_k"], b["temperature_k"].get<double>(), 0.02) << at;
        EXPECT_NEAR(a["mass_kg"], b["mass_kg"].get<double>(), 2e-6) << at;
        if (!b.contains("height_m")) continue;
        EXPECT_NEAR(a["height_m"], b["height_m"].get<double>(), 2e-5) << at;
      }
    for (std::size_t c = 0; c < want["compressor_s"].size(); ++c)
      EXPECT_NEAR(got["compressor_s"][c], want["compressor_s"][c].get<double>(), 0.02) << name;
  }
}

TEST(CliNetwork, MistakesNameTheirPlace) {
  const test::Folder folder;
  const Json good = Json::parse(test::text_of(test::data("reference/air/refill.json")));
  const auto says = [&](const char* what, const auto& change) {
    Json file = good;
    for (Json& volume : file["volumes"])
      if (volume.contains("card"))
        volume["card"] = (test::data("reference/air") / volume["card"].get<std::string>()).string();
    change(file);
    test::write(folder / "net.json", file.dump());
    const auto answer = test::run("air " + (folder / "net.json").string());
    EXPECT_EQ(answer.status, 2);
    EXPECT_EQ(answer.out, "");
    EXPECT_NE(answer.err.find(what), std::string::npos) << answer.err;
  };
  says("volumes.1.card", [](Json& f) { f["volumes"][1]["card"] = "nowhere.csv"; });
  says("volumes.1.load_n", [](Json& f) { f["volumes"][1].erase("load_n"); });
  says("volumes.1.height_m", [](Json& f) { f["volumes"][1]["height_m"] = 0.9; });
  says("lines.0.to", [](Json& f) { f["lines"][0]["to"] = "moon"; });
  says("lines.0.parts.1.bore_m", [](Json& f) { f["lines"][0]["parts"][1]["bore_m"] = 0; });
  says("lines.0.parts", [](Json& f) { f["lines"][0]["parts"] = Json::array(); });
  says("lines.0.open", [](Json& f) { f["lines"][0]["open"][0] = {3, 2}; });
  says("compressors.0.curve", [](Json& f) { f["compressors"][0]["curve"][0] = "much"; });
  says("starting below stopping", [](Json& f) { f["compressors"][0]["cut_in_pa"] = 2e6; });
  says("report_s", [](Json& f) { f["report_s"] = Json::array(); });
  says("report_s", [](Json& f) { f["report_s"][0] = -1; });
  says("ends where it begins", [](Json& f) { f["lines"][0]["to"] = "tank"; });
}

TEST(CliCable, AgreesWithTheReference) {
  for (const Json& one : network_cases("cable-cases.json")) {
    const auto answer = test::run("cable" + quoted(one["args"]));
    const Json& want = one["expect"];
    if (want.contains("exit")) {
      EXPECT_EQ(answer.status, want["exit"].get<int>());
      EXPECT_EQ(answer.out, "");
      continue;
    }
    ASSERT_EQ(answer.status, 0) << answer.err;
    const Json got = Json::parse(answer.out);
    EXPECT_EQ(got["section_mm2"].get<double>(), want["section_mm2"].get<double>());
    EXPECT_EQ(got["fuse_a"].get<double>(), want["fuse_a"].get<double>());
    EXPECT_EQ(got["awg"], want["awg"]);
    EXPECT_NEAR(got["drop_percent"].get<double>(), want["drop_percent"].get<double>(), 1e-6);
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
