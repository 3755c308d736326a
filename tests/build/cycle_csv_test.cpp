// Cycle sheets as files.
#include "build/cycle_csv.h"

#include "support.h"

namespace mavrel::build {
namespace {

std::string wrong(const std::string& text) {
  const auto rows = read_cycle_csv(text);
  return rows ? std::string("read") : say(rows.error());
}

TEST(CycleCsv, ReadsLengthsAnglesAndGapsInAnyOrderAndUnit) {
  const auto rows = read_cycle_csv("spring_mm,height_mm,camber_deg,tyre_to_liner_mm,damper_in\n"
                                   "122,300,-1.5,12,11\n,324,,,\n");
  ASSERT_TRUE(rows);
  ASSERT_EQ(rows->size(), 2U);
  const CycleRow& row = rows->front();
  EXPECT_DOUBLE_EQ(row.height, 0.300);
  EXPECT_DOUBLE_EQ(*row.spring, 0.122);
  EXPECT_DOUBLE_EQ(*row.damper, 11 * 0.0254);
  EXPECT_NEAR(*row.camber, -0.0261799, 1e-6);
  ASSERT_EQ(row.gaps.size(), 1U);
  EXPECT_EQ(row.gaps[0].name, "tyre to liner");
  EXPECT_DOUBLE_EQ(row.gaps[0].value, 0.012);
  EXPECT_FALSE(rows->back().spring) << "an empty cell was not taken";
}

TEST(CycleCsv, SaysWhatIsWrongAndWhere) {
  EXPECT_NE(wrong("spring_mm\n122\n").find("height_mm"), std::string::npos);
  EXPECT_NE(wrong("height_mm,spring_mm\n300,abc\n").find("Line 2, column 5"), std::string::npos);
  EXPECT_NE(wrong("height_mm,spring_mm\n300,nan\n").find("no number"), std::string::npos);
  EXPECT_NE(wrong("height_mm,spring_mm\n3000,122\n").find("out of reason"), std::string::npos);
  EXPECT_NE(wrong("height_mm,spring_mm\n,122\n").find("height is missing"), std::string::npos);
  EXPECT_NE(wrong("height_mm,spring\n300,122\n").find("spring"), std::string::npos);
  EXPECT_NE(wrong("height_mm,height_in\n300,12\n").find("twice"), std::string::npos);
  EXPECT_NE(wrong("height_mm,camber_mm\n300,12\n").find("no column"), std::string::npos);
  EXPECT_NE(wrong("# front left\n\nheight_mm,colour\n300,3\n").find("Line 3, column 11"), std::string::npos)
      << "comments stand above the head";
  std::string many = "height_mm,spring_mm\n";
  for (int i = 0; i < 60; ++i)
    many += "300,122\n";
  EXPECT_EQ(wrong(many), "read") << "the maximum itself";
  EXPECT_NE(wrong(many + "300,122\n").find("more than 60 rows"), std::string::npos);
}

TEST(CycleCsv, ThereAndBack) {
  EXPECT_TRUE(rc::check("round trip", [] {
    List<CycleRow> rows;
    const bool spring = *rc::gen::inRange(0, 2), damper = *rc::gen::inRange(0, 2);
    for (int i = *rc::gen::inRange(1, 12); i > 0; --i) {
      CycleRow row;
      row.height = test::between(0.1, 0.6);
      if (spring) row.spring = test::between(0.05, 0.5);
      if (damper) row.damper = test::between(0.1, 0.8);
      if (*rc::gen::inRange(0, 2)) row.camber = test::between(-0.1, 0.1);
      if (*rc::gen::inRange(0, 2)) row.gaps.push_back({"hose slack", test::between(-0.02, 0.1), {}});
      rows.push_back(row);
    }
    const auto back = read_cycle_csv(cycle_csv(rows));
    RC_ASSERT(back.has_value());
    RC_ASSERT(back->size() == rows.size());
    const auto same = [](const std::optional<double>& a, const std::optional<double>& b) {
      return a.has_value() == b.has_value() && (!a || std::abs(*a - *b) < 1e-10);
    };
    for (std::size_t i = 0; i < rows.size(); ++i) {
      const CycleRow& was = std::as_const(rows)[i];
      RC_ASSERT(same(was.height, (*back)[i].height) && same(was.spring, (*back)[i].spring) &&
                same(was.damper, (*back)[i].damper) && same(was.camber, (*back)[i].camber));
      RC_ASSERT(was.gaps.size() == (*back)[i].gaps.size());
    }
  }));
}

TEST(CycleCsv, AGapCalledLikeAColumnIsStillAGap) {
  List<CycleRow> rows;
  CycleRow row;
  row.height = 0.35;
  row.spring = 0.17;
  row.gaps.push_back({"spring", 0.012, {}});
  rows.push_back(row);
  const auto back = read_cycle_csv(cycle_csv(rows));
  ASSERT_TRUE(back) << cycle_csv(rows);
  EXPECT_NEAR(*back->front().spring, 0.17, 1e-9);
  ASSERT_EQ(back->front().gaps.size(), 1U);
  EXPECT_NEAR(back->front().gaps[0].value, 0.012, 1e-9);
}

} // namespace
} // namespace mavrel::build
