// What is near a car and under it, as the document keeps it.
#include "build/edit.h"
#include "build/json.h"
#include "build/list_edit.h"

#include "support.h"

namespace mavrel::build {
namespace {

Expected<Build> read(const std::string& text) {
  return from_json(text);
}

TEST(ClearanceFields, AreWrittenAndReadBackAlike) {
  const Build& b = test::demo_whole();
  ASSERT_GT(b.ends[0].obstacles.size(), 3U);
  const auto back = read(to_json(b));
  ASSERT_TRUE(back);
  EXPECT_EQ(*back, b);
  EXPECT_EQ(to_json(*back), to_json(b));
}

TEST(ClearanceFields, AnOlderFileHasNothingNear) {
  auto json = nlohmann::ordered_json::parse(to_json(test::demo_build()));
  json["version"] = 4;
  const auto old = read(json.dump());
  ASSERT_TRUE(old) << say(old.error());
  EXPECT_TRUE(old->ends[0].obstacles.empty());
  EXPECT_DOUBLE_EQ(old->variant().brief.rooms.tyre, 0.006);
  EXPECT_DOUBLE_EQ(old->ends[0].thickness.axle, 0.076);
}

TEST(ClearanceFields, MistakesSayWhatWhereAndWhatWouldBeRight) {
  const auto changed = [](const std::string& pointer, const nlohmann::ordered_json& value) {
    auto json = nlohmann::ordered_json::parse(to_json(test::demo_whole()));
    json[nlohmann::ordered_json::json_pointer(pointer)] = value;
    const auto out = read(json.dump());
    return out ? std::string() : say(out.error());
  };
  EXPECT_NE(changed("/front/obstacles/1/x_m", 99).find("front.obstacles.1.x_m"), std::string::npos);
  EXPECT_NE(changed("/front/obstacles/1/kind", "jelly").find("kind"), std::string::npos);
  EXPECT_NE(changed("/front/obstacles/1/shape", 3).find("shape"), std::string::npos);
  EXPECT_NE(changed("/body/underside/0/z_m", "low").find("body.underside.0.z_m"), std::string::npos);
  EXPECT_NE(changed("/variants/0/brief/grounds/0/points/1/z_m", 1e9).find("grounds.0.points.1.z_m"), std::string::npos);
  EXPECT_NE(changed("/variants/0/brief/rooms/tyre_m", -1).find("rooms.tyre_m"), std::string::npos);
}

TEST(ClearanceFields, AreTypedInAnyUnit) {
  const auto typed = [](const char* path, const char* text) {
    const auto out = with_text(test::demo_whole(), path, text, {});
    EXPECT_TRUE(out) << path;
    return out ? *out : test::demo_whole();
  };
  EXPECT_NEAR(typed("front.obstacles.1.x_m", "-13 1/2 in").ends[0].obstacles[1].x, -0.3429, 1e-9);
  EXPECT_NEAR(typed("body.underside.0.z_m", "12 cm").body.underside[0].z, 0.12, 1e-12);
  EXPECT_NEAR(*typed("front.arch.lip_outward_m", "80").ends[0].arch.lip_outward, 0.080, 1e-12);
  EXPECT_EQ(typed("front.obstacles.0.name", "wing").ends[0].obstacles[0].name, "wing");
  EXPECT_FALSE(typed("front.obstacles.4.gap_m", "").ends[0].obstacles[4].gap);
  EXPECT_FALSE(with_text(test::demo_whole(), "front.obstacles.1.x_m", "9 m", {}));
  EXPECT_FALSE(with_text(test::demo_whole(), "front.obstacles.9.x_m", "9", {}));
  const auto shaped = with_choice(test::demo_whole(), "front.obstacles.1.shape", "box");
  ASSERT_TRUE(shaped);
  EXPECT_EQ(shaped->ends[0].obstacles[1].shape, ObstacleShape::box);
  EXPECT_FALSE(with_choice(test::demo_whole(), "front.obstacles.1.shape", "ball"));
}

TEST(ClearanceFields, ListsTakeWhatTheyHoldAndNoMore) {
  Build b = test::demo_whole();
  std::size_t added = 0;
  while (added < 200) {
    auto more = with_entry(b, "rear.obstacles", Obstacle{});
    if (!more) {
      EXPECT_NE(say(more.error()).find("40"), std::string::npos);
      break;
    }
    b = std::move(*more);
    ++added;
  }
  EXPECT_EQ(b.ends[1].obstacles.size(), 40U);
  EXPECT_TRUE(with_entry(b, "body.underside", LowPoint{}));
  EXPECT_TRUE(with_entry(b, "variants.0.brief.grounds", Ground{}));
  EXPECT_TRUE(with_entry(b, "variants.0.brief.grounds.0.points", ProfilePoint{}));
  EXPECT_FALSE(with_entry(b, "body.underside", Obstacle{})) << "another list's entry";
  const auto fewer = without_entry(b, "front.obstacles.1");
  ASSERT_TRUE(fewer);
  EXPECT_EQ(fewer->ends[0].obstacles.size() + 1, b.ends[0].obstacles.size());
  EXPECT_EQ(fewer->ends[0].obstacles[1].name, "pinch weld");
}

} // namespace
} // namespace mavrel::build
