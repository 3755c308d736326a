// Hard points as files: read whole or refused with the place, and written so that they read back.
#include "build/points_csv.h"

#include "support.h"

#include <cmath>

namespace mavrel::build {
namespace {

std::string wrong_points(const std::string& text) {
  const auto read = read_points_csv(text);
  return read ? "read" : say(read.error());
}

TEST(PointsCsv, ReadsSidesUnitsAndAngles) {
  const auto read = read_points_csv("# taped on the lift\nside,joint,z_in,x_mm,y_mm,turn_allowed_deg\n"
                                    ",lower_outer,8,0,720.5,22\nright,lower_outer,8,0,-718,\n");
  ASSERT_TRUE(read) << say(read.error());
  ASSERT_EQ(read->left.size(), 1U);
  ASSERT_EQ(read->right.size(), 1U);
  EXPECT_EQ(read->left[0].name, "lower_outer");
  EXPECT_NEAR(read->left[0].y, 0.7205, 1e-12);
  EXPECT_NEAR(read->left[0].z, 0.2032, 1e-12);
  EXPECT_NEAR(*read->left[0].turn_allowed, 22 * M_PI / 180, 1e-12);
  EXPECT_NEAR(read->right[0].y, -0.718, 1e-12);
  EXPECT_FALSE(read->right[0].turn_allowed);
}

TEST(PointsCsv, SaysWhatIsWrongAndWhere) {
  EXPECT_NE(wrong_points("").find("empty"), std::string::npos) << wrong_points("");
  EXPECT_NE(wrong_points("joint,x_mm,y_mm\na,1,2\n").find("z_mm"), std::string::npos);
  EXPECT_NE(wrong_points("joint,x_mm,x_in,y_mm,z_mm\na,1,1,2,3\n").find("twice"), std::string::npos);
  EXPECT_NE(wrong_points("joint,x_mm,y_mm,z_mm,colour\na,1,2,3,4\n").find("no column"), std::string::npos);
  EXPECT_NE(wrong_points("joint,x_mm,y_mm,z_mm\na,1,two,3\n").find("Line 2, column 5"), std::string::npos);
  EXPECT_NE(wrong_points("joint,x_mm,y_mm,z_mm\na,1,99999,3\n").find("believable"), std::string::npos);
  EXPECT_NE(wrong_points("joint,x_mm,y_mm,z_mm\na,1,nan,3\n").find("no number"), std::string::npos);
  EXPECT_NE(wrong_points("joint,x_mm,y_mm,z_mm\n,1,2,3\n").find("missing"), std::string::npos);
  EXPECT_NE(wrong_points("joint,x_mm,y_mm,z_mm\na,1,2,3\na,1,2,3\n").find("twice"), std::string::npos);
  EXPECT_NE(wrong_points("joint,x_mm,y_mm,z_mm,side\na,1,2,3,middle\n").find("no side"), std::string::npos);
  EXPECT_NE(wrong_points("joint,x_mm,y_mm,z_mm\n" + std::string(30, 'a') + ",1,2,3\n").find("letters"),
            std::string::npos);
  std::string many = "joint,x_mm,y_mm,z_mm\n";
  for (int i = 0; i < 40; ++i)
    many += "j" + std::to_string(i) + ",1,2,3\n";
  EXPECT_EQ(wrong_points(many), "read") << "the maximum itself";
  EXPECT_NE(wrong_points(many + "one_more,1,2,3\n").find("40"), std::string::npos);
}

TEST(PointsCsv, ThereAndBack) {
  EXPECT_TRUE(rc::check("round trip", [] {
    HardPoints points;
    const bool right = *rc::gen::inRange(0, 2);
    for (int i = *rc::gen::inRange(1, 20); i > 0; --i) {
      HardPoint p{"joint" + std::to_string(i), test::between(-1, 1), test::between(0, 1), test::between(0, 1), {}, {}};
      if (*rc::gen::inRange(0, 2)) p.turn_allowed = test::between(0.1, 0.6);
      points.left.push_back(p);
      p.y = -p.y;
      if (right) points.right.push_back(p);
    }
    const auto back = read_points_csv(points_csv(points));
    RC_ASSERT(back.has_value());
    RC_ASSERT(back->left.size() == points.left.size() && back->right.size() == points.right.size());
    for (std::size_t i = 0; i < back->left.size(); ++i) {
      const HardPoint &was = std::as_const(points).left[i], &now = back->left[i];
      RC_ASSERT(was.name == now.name && std::abs(was.x - now.x) < 1e-9 && std::abs(was.z - now.z) < 1e-9);
      RC_ASSERT(was.turn_allowed.has_value() == now.turn_allowed.has_value());
    }
  }));
}

} // namespace
} // namespace mavrel::build
