// mavrel-cli gap and ground.
#include "cli/run_cli.h"

namespace mavrel {
namespace {

using Json = nlohmann::json;

Json cases(const char* kind) {
  return Json::parse(test::text_of(test::data(std::string("reference/") + kind + "-cases.json")));
}

TEST(CliGap, AgreesWithTheReference) {
  std::size_t figures = 0;
  for (const Json& one : cases("gap")) {
    SCOPED_TRACE(one["input"]);
    const auto answer = test::run("gap " + test::data("reference/gap/" + one["input"].get<std::string>()).string());
    ASSERT_EQ(answer.status, 0) << answer.err;
    const Json gaps = Json::parse(answer.out)["gaps"];
    ASSERT_EQ(gaps.size(), one["expect"]["gaps"].size());
    for (std::size_t i = 0; i < gaps.size(); ++i) {
      const Json& e = one["expect"]["gaps"][i];
      EXPECT_EQ(gaps[i]["name"], e["name"]);
      EXPECT_EQ(gaps[i]["overlap"], e["overlap"]);
      EXPECT_NEAR(gaps[i]["gap_m"], e["gap_m"].get<double>(), 1e-5);
      ++figures;
    }
  }
  EXPECT_GE(figures, 20U);
}

TEST(CliGround, AgreesWithTheReference) {
  for (const Json& one : cases("ground")) {
    SCOPED_TRACE(one["input"]);
    const auto answer =
        test::run("ground " + test::data("reference/ground/" + one["input"].get<std::string>()).string());
    ASSERT_EQ(answer.status, 0) << answer.err;
    const Json got = Json::parse(answer.out);
    const Json& e = one["expect"];
    EXPECT_NEAR(got["least_gap_m"], e["least_gap_m"].get<double>(), 1e-5);
    EXPECT_EQ(got["point"], e["point"]);
    for (const char* angle : {"approach_deg", "departure_deg", "breakover_deg"})
      EXPECT_NEAR(got[angle], e[angle].get<double>(), 1e-4) << angle;
    if (one.contains("place_or_m")) continue;
    EXPECT_NEAR(got["front_axle_at_m"], e["front_axle_at_m"].get<double>(), 1e-3);
  }
}

/// A right file with one value set to something else.
std::string changed(const char* file, const std::string& pointer, const Json& value, const test::Folder& folder) {
  Json json = Json::parse(test::text_of(test::data(file)));
  json[Json::json_pointer(pointer)] = value;
  const auto path = folder / "file.json";
  test::write(path, json.dump());
  return path.string();
}

struct Mistake {
  const char* pointer;
  Json value;
  const char* says;
};

TEST(CliGap, MistakesAreOneSentenceThatNamesThePlace) {
  const test::Folder folder;
  const Mistake mistakes[] = {
      {"/wheel", "205/55", "wheel"},
      {"/wheel", 7, "wheel"},
      {"/grow_m", -1, "grow_m"},
      {"/centre_m", Json::array({1, 2}), "centre_m"},
      {"/centre_m", Json::array({1, 2, 1e9}), "centre_m"},
      {"/camber_deg", "x", "camber_deg"},
      {"/solids", 3, "solids"},
      {"/solids/0", 3, "solids.0"},
      {"/solids/0", Json{{"name", "nothing"}}, "solids.0"},
      {"/solids/0", Json{{"name", "p"}, {"plane", {{"point_m", {0, 0, 0}}, {"normal", {0, 0, 0}}}}}, "normal"},
      {"/solids/0", Json{{"name", "b"}, {"box", {{"centre_m", {0, 0, 0}}, {"half_m", {-1, 0, 0}}}}}, "half_m"},
      {"/solids/0", Json{{"name", "r"}, {"rod", {{"from_m", {0, 0, 0}}, {"to_m", {0, 0, 1}}}}}, "radius_m"},
  };
  for (const Mistake& m : mistakes) {
    const auto answer = test::run("gap " + changed("reference/gap/barrel.json", m.pointer, m.value, folder));
    EXPECT_EQ(answer.status, 2) << m.pointer << answer.out;
    EXPECT_NE(answer.err.find(m.says), std::string::npos) << answer.err;
    EXPECT_EQ(std::count(answer.err.begin(), answer.err.end(), '\n'), 1) << answer.err;
  }
  EXPECT_EQ(test::run("gap /nowhere/at/all.json").status, 2);
}

TEST(CliGround, MistakesAreOneSentenceThatNamesThePlace) {
  const test::Folder folder;
  const Mistake mistakes[] = {
      {"/wheelbase_m", 0, "wheelbase_m"},
      {"/front", Json::array(), "front"},
      {"/front/radius_m", -1, "front.radius_m"},
      {"/rear/height_m", "low", "rear.height_m"},
      {"/underside", Json::array(), "underside"},
      {"/underside/1/x_m", -2, "underside.1"},
      {"/underside/1/z_m", nullptr, "underside.1.z_m"},
      {"/profile/1", Json::array({-5, 0}), "profile.1"},
      {"/profile/1", Json::array({0.5}), "profile.1"},
      {"/profile/1", Json::array({0.001, 400}), "steep"},
  };
  for (const Mistake& m : mistakes) {
    const auto answer = test::run("ground " + changed("reference/ground/steep-apron.json", m.pointer, m.value, folder));
    EXPECT_EQ(answer.status, 2) << m.pointer << answer.out;
    EXPECT_NE(answer.err.find(m.says), std::string::npos) << answer.err;
    EXPECT_EQ(std::count(answer.err.begin(), answer.err.end(), '\n'), 1) << answer.err;
  }
}

TEST(CliGround, NoProfileIsFlatGround) {
  const test::Folder folder;
  const auto answer = test::run("ground " + changed("reference/ground/flat.json", "/profile", Json::array(), folder));
  ASSERT_EQ(answer.status, 0) << answer.err;
  EXPECT_GT(Json::parse(answer.out)["least_gap_m"], 0);
}

} // namespace
} // namespace mavrel
