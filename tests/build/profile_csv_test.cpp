// Profiles of the ground from a sheet.
#include "build/profile_csv.h"

#include "support.h"

namespace mavrel::build {
namespace {

TEST(ProfileCsv, IsReadInAnyUnitWithOtherColumnsBeside) {
  const auto metres = read_profile_csv("x_m,z_m\n0,0\n0.5,0.08\n");
  ASSERT_TRUE(metres);
  ASSERT_EQ(metres->size(), 2U);
  EXPECT_NEAR((*metres)[1].z, 0.08, 1e-12);
  const auto mixed = read_profile_csv("# the yard\nnote,z_in,x_mm\na,0,0\nb,2,300\n");
  ASSERT_TRUE(mixed);
  EXPECT_NEAR((*mixed)[1].x, 0.3, 1e-12);
  EXPECT_NEAR((*mixed)[1].z, 0.0508, 1e-12);
  EXPECT_TRUE(is_profile_csv("x_m,z_m\n0,0\n"));
  EXPECT_FALSE(is_profile_csv("height_mm,spring_mm\n300,120\n"));
}

TEST(ProfileCsv, MistakesSayTheirPlace) {
  const std::pair<const char*, const char*> all[] = {
      {"", ""},
      {"x_m,y_m\n0,0\n1,1\n", "Line 1"},
      {"x_ell,z_m\n0,0\n1,1\n", "Line 1"},
      {"x_m,z_m\n0,0\n", "two places"},
      {"x_m,z_m\n0,0\nfar,1\n", "Line 3, column 1"},
      {"x_m,z_m\n0,0\n1,99\n", "Line 3, column 3"},
      {"x_m,z_m\n0,0\n0,1\n", "Line 3, column 1"},
      {"x_m,z_m\n0,0\n-1,1\n", "further along"},
      {"x_m,z_m\n0,0\n1,nan\n", "Line 3"},
  };
  for (const auto& [text, says] : all) {
    const auto out = read_profile_csv(text);
    ASSERT_FALSE(out) << text;
    EXPECT_NE(say(out.error()).find(says), std::string::npos) << say(out.error());
  }
  std::string long_one = "x_m,z_m\n";
  for (int i = 0; i < 300; ++i)
    long_one += std::to_string(i / 10) + "." + std::to_string(i % 10) + ",0\n";
  EXPECT_NE(say(read_profile_csv(long_one).error()).find("200"), std::string::npos);
}

TEST(ProfileCsv, AnyTextIsReadOrRefused) {
  EXPECT_TRUE(rc::check("any text", [](const std::string& text) {
    const auto out = read_profile_csv("x_m,z_m\n" + text);
    if (out) RC_ASSERT(out->size() >= 2U);
  }));
}

} // namespace
} // namespace mavrel::build
