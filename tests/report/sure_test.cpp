// Figures with how sure they are: never more digits than their doubt leaves.
#include "report/sure.h"

#include "assess/assess.h"
#include "assess/fit_up/cars.h"
#include "report/build_sheet.h"

#include <charconv>

namespace mavrel::report {
namespace {

TEST(Sure, NeverShowsMoreDigitsThanTheDoubtLeaves) {
  EXPECT_EQ(with_doubt(0.4123, 0.0042, Kind::length, {}), "412 ± 4 mm");
  EXPECT_EQ(with_doubt(0.4123, 0.00042, Kind::length, {}), "412.3 ± 0.4 mm");
  EXPECT_EQ(with_doubt(1.8473, 0.024, Kind::length, {}), "1850 ± 20 mm");
  EXPECT_EQ(with_doubt(4.47e5, 2.5e4, Kind::pressure, {}), "4.5 ± 0.2 bar");
  EXPECT_EQ(with_doubt(1.42, 0.03, Kind::frequency, {}), "1.42 ± 0.03 Hz");
  EXPECT_EQ(with_doubt(0.4123, 0, Kind::length, {}), show(0.4123, Kind::length)) << "nobody doubts it";
  EXPECT_EQ(as_sure(1.8473, 0.024, Kind::length, {}), "1850 mm");
  EXPECT_EQ(number_with_doubt(0.4123, 0.0042, Kind::length, {}), "412 ± 4");
  UnitPrefs inches;
  inches.length = LengthUnit::inch;
  inches.pressure = PressureUnit::psi;
  EXPECT_EQ(with_doubt(0.4123, 0.0042, Kind::length, inches), "16.2 ± 0.2 in");
  EXPECT_EQ(with_doubt(4.47e5, 2.5e4, Kind::pressure, inches), "65 ± 4 psi");
}

TEST(Sure, RoundsAlikeWhateverTheSize) {
  EXPECT_TRUE(rc::check("the figure and its doubt end at one digit", [] {
    const double sd = std::pow(10, test::between(-5, -0.5)), value = test::between(0.05, 3);
    const std::string text = with_doubt(value, sd, Kind::length, {});
    const auto at = text.find(" ± ");
    RC_ASSERT(at != std::string::npos);
    const auto digits = [](const std::string& number) {
      const auto dot = number.find('.');
      return dot == std::string::npos ? 0 : number.size() - dot - 1;
    };
    const std::string rest = text.substr(at + std::string(" ± ").size());
    RC_ASSERT(digits(text.substr(0, at)) == digits(rest.substr(0, rest.find(' '))));
    double shown = 0; // as it is written, whatever the locale
    std::from_chars(text.data(), text.data() + at, shown);
    RC_ASSERT(std::abs(shown * 1e-3 - value) <= std::max(0.51 * sd, 0.0006e-3));
  }));
}

TEST(Sure, IsOfTheFigureThatIsShownAlone) {
  assess::Doubt doubt;
  assess::DoubtAnswer a;
  a.name = "front.road.low", a.value = 0.350, a.sd = 0.003;
  doubt.answers.push_back(a);
  EXPECT_NE(doubt_of(&doubt, "front.road.low", 0.350), nullptr);
  EXPECT_EQ(doubt_of(&doubt, "front.road.low", 0.362), nullptr) << "another case or car";
  EXPECT_EQ(doubt_of(&doubt, "rear.road.low", 0.350), nullptr);
  EXPECT_EQ(doubt_of(nullptr, "front.road.low", 0.350), nullptr);
  doubt.answers.front().vanished = 0.7;
  EXPECT_EQ(doubt_of(&doubt, "front.road.low", 0.350), nullptr) << "most of the draws have none";
}

TEST(Sure, StandsOnTheBuildSheetAndItsPosts) {
  const build::Build& build = test::demo_whole();
  const auto assessed = assess::assess(build, test::demo_shelf());
  const auto doubt = assess::doubt({build, test::demo_shelf(), 60, 1});
  const auto text = [&](const assess::Doubt* with) {
    std::string out;
    const SheetParts parts = build_sheet(build, assessed, {}, with);
    for (const auto* list : {&parts.sections, &parts.pages})
      for (const std::string& one : *list)
        out += one;
    return out;
  };
  const std::string plain = text(nullptr), sure = text(&*doubt);
  const auto count = [](const std::string& in, std::string_view what) {
    std::size_t n = 0;
    for (std::size_t at = 0; (at = in.find(what, at)) != std::string::npos; at += what.size())
      ++n;
    return n;
  };
  EXPECT_GE(count(sure, " ± "), count(plain, " ± ") + 15) << "edges, presets, pressures, times";
  EXPECT_NE(sure.find("one standard deviation"), std::string::npos);
  EXPECT_NE(sure.find("stands in"), std::string::npos) << "a preset in doubt says its odds";
  const std::string posts = windows_svg(build, assessed, {}, 516, 600, &*doubt),
                    bare = windows_svg(build, assessed, {}, 516, 600);
  EXPECT_EQ(count(posts, "fill-opacity='0.6'"), count(bare, "fill-opacity='0.6'") + 8) << "a bar at each edge";
  EXPECT_GE(count(posts, " ± "), 8U);
  EXPECT_EQ(count(bare, " ± "), 0U);
}

} // namespace
} // namespace mavrel::report
