// Every field of the document, typed and shown, whatever it is.
#include "build/edit.h"
#include "build/json.h"
#include "support.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <set>

namespace mavrel::build {
namespace {

std::vector<std::string> all_paths() {
  std::vector<std::string> out;
  for (const std::string& path : field_paths(test::demo_build().variant()))
    out.push_back("variants.0." + path);
  for (const char* end : {"front", "rear"}) {
    for (const char* side : {"left", "right"})
      for (const char* key : {"mass_kg", "height_m", "floor_m"})
        out.push_back(fmt::format("{}.{}.{}", end, side, key));
    for (const char* key :
         {"unsprung_kg", "track_m", "rating_kg", "wheel", "motion_ratio", "damper_ratio", "spring_length_m",
          "damper_length_m", "damper_open_m", "damper_shut_m", "bump_stop_gap_m", "bag_room_m", "tyre_rate_n_per_m",
          "friction_n", "bar_rate_n_m_per_rad", "roll_centre_m", "spring_base_m"})
      out.push_back(fmt::format("{}.{}", end, key));
  }
  for (const char* key :
       {"altitude_m", "temperature_k", "night_temperature_k", "pass_altitude_m", "worked_temperature_k"})
    out.push_back(std::string("surroundings.") + key);
  for (const char* key : {"wheelbase_m", "rating_kg", "gravity_height_m"})
    out.push_back(std::string("body.") + key);
  return out;
}

TEST(Fields, EveryOneIsFoundAndHasAName) {
  std::set<std::string> seen;
  for (const std::string& path : all_paths()) {
    const auto view = look_up(test::demo_build(), path, {});
    ASSERT_TRUE(view) << path;
    EXPECT_FALSE(view->label.empty()) << path;
    EXPECT_TRUE(seen.insert(path).second) << path << " twice";
  }
  EXPECT_GT(seen.size(), 80U);
}

TEST(Fields, WhatIsShownForEditingTypesBackAsTheSame) {
  UnitPrefs imperial;
  imperial.length = LengthUnit::inch;
  imperial.pressure = PressureUnit::psi;
  imperial.mass = MassUnit::lb;
  imperial.temperature = TemperatureUnit::fahrenheit;
  for (const UnitPrefs& prefs : {UnitPrefs{}, imperial})
    for (const std::string& path : all_paths()) {
      const auto before = look_up(test::demo_build(), path, prefs);
      const auto typed = with_text(test::demo_build(), path, before->editable, prefs);
      ASSERT_TRUE(typed || !before->filled) << path << " " << before->editable << ": " << say(typed.error());
      if (!typed) continue;
      const auto after = look_up(*typed, path, prefs);
      EXPECT_EQ(after->editable, before->editable) << path;
      EXPECT_EQ(after->readings, before->readings) << path;
    }
}

TEST(Fields, ANumberOfTheWrongKindOrSizeIsRefusedWithTheBuildAsItWas) {
  for (const std::string& path : all_paths()) {
    const auto view = look_up(test::demo_build(), path, {});
    if (view->is_text) continue;
    for (const char* typed : {"1e11", "-1e11 mm", "3 furlongs", "12 s", "::", "1 2 3"}) {
      const bool is_time = view->kind == Kind::time || view->kind == Kind::minutes || view->kind == Kind::hours ||
                           view->kind == Kind::days;
      if (is_time && std::string_view(typed) == "12 s") continue;
      const auto after = with_text(test::demo_build(), path, typed, {});
      EXPECT_FALSE(after) << path << " took " << typed;
      if (!after) {
        EXPECT_FALSE(say(after.error()).empty());
      }
    }
  }
}

TEST(Fields, ARandomlyTypedBuildSavesAndLoadsAsItself) {
  const auto paths = all_paths();
  EXPECT_TRUE(rc::check("type, save, load", [&] {
    Build build = test::demo_build();
    for (int i = 0; i < 12; ++i) {
      const std::string& path =
          paths[static_cast<std::size_t>(*rc::gen::inRange<int>(0, static_cast<int>(paths.size())))];
      const auto view = look_up(build, path, {});
      if (view->is_text) continue;
      const double wanted = test::between(0.01, 2) * std::pow(10, *rc::gen::inRange(-2, 4));
      if (const auto next = with_text(build, path, fmt::format("{}", wanted), {})) build = *next;
    }
    const auto loaded = from_json(to_json(build));
    RC_ASSERT(loaded.has_value());
    RC_ASSERT(*loaded == build);
  }));
}

TEST(Fields, BlankClearsWhatMayBeAbsentAndNothingElse) {
  const auto cleared = with_text(test::demo_build(), "front.bar_rate_n_m_per_rad", "  ", {});
  ASSERT_TRUE(cleared);
  EXPECT_FALSE(cleared->ends[0].bar_rate);
  EXPECT_FALSE(with_text(test::demo_build(), "front.friction_n", "", {})) << "friction always has a figure";
}

TEST(Fields, EveryDefaultIsAValueTheFormatTakes) {
  Build bare = empty_build();
  bare.variant().fit[0].damper_curve.emplace_back();
  bare.variant().brief.presets.emplace_back();
  bare.load_cases.front().masses.emplace_back();
  const auto back = from_json(to_json(bare));
  ASSERT_TRUE(back) << say(back.error());
  EXPECT_TRUE(*back == bare);
}

TEST(Fields, ChoicesTakeTheirKeysAndTheirNames) {
  for (const char* text : {"joined", "joined by a tee"}) {
    const auto after = with_text(test::demo_build(), "variants.0.front.sides", text, {});
    ASSERT_TRUE(after) << text;
    EXPECT_EQ(after->variants[0].fit[0].sides, Sides::joined);
  }
  EXPECT_FALSE(with_text(test::demo_build(), "variants.0.front.line", "ajar", {}));
}

TEST(Fields, AVersionTwoFileOpensWithWhatItDidNotKnowAtItsDefault) {
  auto json = nlohmann::ordered_json::parse(to_json(test::demo_build()));
  json["version"] = 2;
  for (auto& variant : json["variants"])
    for (const char* end : {"front", "rear"})
      for (const char* key : {"added_volume_m3", "line_bore_m", "line_length_m", "line", "sides", "damper_curve"})
        variant[end].erase(key);
  const auto old = from_json(json.dump());
  ASSERT_TRUE(old) << say(old.error());
  EXPECT_EQ(old->variants[2].fit[0].added_volume, 0);
  EXPECT_EQ(old->variants[2].fit[0].sides, Sides::separate);
  EXPECT_EQ(old->variants[2].fit[0].bag, test::demo_build().variants[2].fit[0].bag);
}

} // namespace
} // namespace mavrel::build
