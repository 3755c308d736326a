#include "build/json.h"

#include "build/file.h"
#include "support.h"

namespace mavrel::build {
namespace {

TEST(BuildJson, SaveThenLoadReturnsTheIdenticalBuild) {
  const Build& demo = test::demo_build();
  const auto back = from_json(to_json(demo));
  ASSERT_TRUE(back) << say(back.error());
  EXPECT_EQ(*back, demo);
  EXPECT_EQ(to_json(*back), to_json(demo)) << "the text is stable too";
  EXPECT_EQ(*from_json(to_json(empty_build())), empty_build());
}

TEST(BuildJson, RandomNumbersComeBackToTheLastDigit) {
  EXPECT_TRUE(rc::check("round trip", [] {
    Build build = test::demo_build();
    build.end(End::front).corners[0].height.values = {test::between(0.1, 1), test::between(0.1, 1)};
    build.body.wheelbase = test::between(1.5, 5);
    build.variant().brief.bump_travel = test::between(0, 0.2);
    build.load_cases.push_back(
        {"n", {{"x", test::between(-50, 500), test::between(0, 4), test::between(-1, 1), {}}}, {}});
    RC_ASSERT(from_json(to_json(build)).value() == build);
  }));
}

TEST(BuildJson, UnknownKeysAreKept) {
  std::string text = to_json(test::demo_build());
  text.replace(text.find("\"job\": {"), 8, "\"job\": {\"paint\": [\"sage\", {\"coats\": 3}],");
  const auto build = from_json(text);
  ASSERT_TRUE(build) << say(build.error());
  EXPECT_NE(to_json(*build).find("\"coats\": 3"), std::string::npos);
  EXPECT_EQ(*from_json(to_json(*build)), *build);
}

TEST(BuildJson, VersionOneIsReadAndNewerOnesRefused) {
  const auto old = from_json(
      R"({"format":"mavrel-build","version":1,"design":{"front":{"bag":"Osier O-135"}},"brief":{"bump_travel_m":0.05}})");
  ASSERT_TRUE(old) << say(old.error());
  EXPECT_EQ(old->variant().fit[0].bag, "Osier O-135");
  EXPECT_DOUBLE_EQ(old->variant().brief.bump_travel, 0.05);
  const auto newer = from_json(R"({"format":"mavrel-build","version":99})");
  ASSERT_FALSE(newer);
  EXPECT_NE(say(newer.error()).find("newer Mavrel"), std::string::npos);
}

struct Damage {
  std::string text;
  const char* says;
};

std::vector<Damage> damages() {
  const std::string good = to_json(test::demo_build());
  const auto with = [&](const std::string& from, const std::string& to) {
    std::string text = good;
    const std::size_t at = text.find(from);
    EXPECT_NE(at, std::string::npos) << from;
    return text.replace(at, from.size(), to);
  };
  const std::string head = R"({"format":"mavrel-build","version":2,)";
  std::string deep = head + "\"x\":";
  for (int i = 0; i < 5000; ++i)
    deep += "[";
  return {
      {"", "empty"},
      {"   \n", "empty"},
      {good.substr(0, good.size() / 2), "ends too early"},
      {good.substr(0, 3), "ends too early"},
      {"{", "ends too early"},
      {"hello", "damaged at line 1"},
      {"[]", "no Mavrel build"},
      {"42", "no Mavrel build"},
      {"null", "no Mavrel build"},
      {"{}", "no Mavrel build"},
      {R"({"format":"other","version":2})", "no Mavrel build"},
      {R"({"format":7,"version":2})", "no Mavrel build"},
      {R"({"format":"mavrel-build"})", "version"},
      {R"({"format":"mavrel-build","version":"2"})", "version"},
      {R"({"format":"mavrel-build","version":0})", "version"},
      {R"({"format":"mavrel-build","version":-3})", "version"},
      {R"({"format":"mavrel-build","version":2.5})", "version"},
      {R"({"format":"mavrel-build","version":1e300})", "version"},
      {std::string("\xFF\xFE\x00", 3), "UTF-8"},
      {with("Sorrel", "S\xE9rrel"), "UTF-8"},
      {good + "}", "damaged at line"},
      {with("\"front\": {", "\"front\": ["), "damaged at line"},
      {with("1.46", "1e999"), "too large"},
      {with("1.46", "NaN"), "damaged at line"},
      {with("1.46", "\"tall\""), "body.overall_height_m: the text “tall” is there; a number is right"},
      {with("1.46", "-1.46"), "0.8 to 3.5"},
      {with("1.46", "146000"), "0.8 to 3.5"},
      {with("1.46", "true"), "true is there"},
      {with("1.46", "null"), "nothing (null)"},
      {with("\"estate\"", "\"boat\""), "one of “estate”"},
      {with("\"estate\"", "3"), "one of “estate”"},
      {with("\"0417\"", "417"), "job.number"},
      {with("\"0417\"", "\"" + std::string(3000, 'x') + "\""), "3000 letters"},
      {with("\"0417\"", "\"a\\u0000b\""), "letter 2 is a control character"},
      {with("\"0417\"", "\"up\\u000bdown\""), "letter 3 is a control character"},
      {head + R"("front":{"left":{"mass_kg":400}}})",
       "front.left.mass_kg: the number 400 is there; a list of readings"},
      {head + R"("front":{"left":{"mass_kg":["heavy"]}}})", "front.left.mass_kg.0"},
      {head + R"("front":{"left":{"mass_kg":[1e9]}}})", "20 to 3000"},
      {head + R"("front":{"left":[]}})", "an object is right"},
      {head + R"("front":7})", "an object is right"},
      {head + R"("load_cases":{}})", "a list is right"},
      {head + R"("load_cases":[3]})", "load_cases.0"},
      {head + R"("variants":[]})", "1 to 26"},
      {head + R"("active_variant":5})", "0 to 0"},
      {head + R"("active_variant":-1})", "0 to 0"},
      {head + R"("job":{"car":"a","car":"b"}})", "twice"},
      {deep, "nested deeper"},
  };
}

TEST(BuildJson, EveryDamageIsRefusedWithItsPlace) {
  const auto all = damages();
  EXPECT_GE(all.size(), 40U);
  for (const Damage& damage : all) {
    const auto build = from_json(damage.text);
    ASSERT_FALSE(build) << damage.says << ": " << damage.text.substr(0, 80);
    EXPECT_NE(say(build.error()).find(damage.says), std::string::npos) << say(build.error());
  }
}

TEST(BuildJson, TruncationAnywhereNeverCrashes) {
  const std::string good = to_json(test::demo_build());
  for (std::size_t n = 0; n + 2 < good.size(); n += 37)
    EXPECT_FALSE(from_json(good.substr(0, n))) << n;
}

TEST(BuildJson, TheSchemaInTheDocsIsTheFormat) {
  EXPECT_EQ(test::text_of(std::filesystem::path(MAVREL_DOCS) / "formats/build.schema.json"), json_schema())
      << "mavrel-cli schema > docs/formats/build.schema.json";
}

TEST(BuildFile, ADamagedFileIsNeverOverwritten) {
  const test::Folder folder;
  const auto file = folder / "car.mavrel";
  test::write(file, "{\"format\": \"mavrel-build\", \"ver");
  const auto saved = save(test::demo_build(), file);
  ASSERT_FALSE(saved);
  EXPECT_NE(say(saved.error()).find("another name"), std::string::npos);
  EXPECT_EQ(test::text_of(file), "{\"format\": \"mavrel-build\", \"ver");
  ASSERT_TRUE(save(test::demo_build(), folder / "other.mavrel"));
  ASSERT_TRUE(save(empty_build(), folder / "other.mavrel")) << "a good one may be";
  EXPECT_EQ(*load(folder / "other.mavrel"), empty_build());
}

} // namespace
} // namespace mavrel::build
