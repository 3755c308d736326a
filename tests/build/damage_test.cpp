// Files that a disk, a merge or a hand has damaged: refused in words or read for what they are, never a crash, never
// a number that is none.
#include "build/json.h"
#include "shelf/card_write.h"
#include "support.h"

#include <cmath>

namespace mavrel {
namespace {

/// The text with some bytes changed, cut out, doubled or swapped.
std::string damaged(std::string text) {
  const int wounds = *rc::gen::inRange(1, 6);
  for (int i = 0; i < wounds && !text.empty(); ++i) {
    const auto at = static_cast<std::size_t>(*rc::gen::inRange(0, static_cast<int>(text.size())));
    switch (*rc::gen::inRange(0, 5)) {
    case 0:
      text[at] = static_cast<char>(*rc::gen::inRange(0, 256));
      break;
    case 1:
      text.erase(at, static_cast<std::size_t>(*rc::gen::inRange(1, 40)));
      break;
    case 2:
      text.insert(at, text.substr(at, static_cast<std::size_t>(*rc::gen::inRange(1, 60))));
      break;
    case 3:
      text.insert(at, *rc::gen::elementOf(std::vector<std::string>{"\"", "{", "]", ",", "-", "1e400", "null",
                                                                   "\xff\xfe", "NaN", "\n#", "0x1f"}));
      break;
    default:
      text.resize(at);
    }
  }
  return text;
}

TEST(Damage, ABuildIsReadOrRefusedInWords) {
  const std::string good = build::to_json(test::demo_build());
  int refused = 0;
  ASSERT_TRUE(build::from_json(good)) << "what is damaged was whole";
  EXPECT_TRUE(rc::check("random damage to a build", [&] {
    const auto build = build::from_json(damaged(good));
    if (!build) {
      ++refused;
      RC_ASSERT(!say(build.error()).empty());
      return;
    }
    // What was read is a build like any other: it saves and loads as itself.
    const auto again = build::from_json(build::to_json(*build));
    RC_ASSERT(again.has_value());
    RC_ASSERT(*again == *build);
  }));
  EXPECT_GT(refused, 0) << "it was damage";
}

TEST(Damage, ACardIsReadOrEveryMistakeHasItsPlace) {
  const std::string good = test::text_of(test::data("reference/bag-cards/osier-o135.csv"));
  EXPECT_TRUE(rc::check("random damage to a card", [&] {
    for (const auto& reading : shelf::read_cards(damaged(good))) {
      if (!reading.card) {
        RC_ASSERT(!reading.mistakes.empty());
        for (const auto& note : reading.mistakes)
          RC_ASSERT(note.line >= 1 && note.column >= 1 && !say(note.what).empty());
        continue;
      }
      const air::BagCurve curve(*reading.card);
      for (double t = 0; t <= 1; t += 0.1) {
        const double h = std::lerp(curve.lowest(), curve.highest(), t);
        RC_ASSERT(std::isfinite(curve.section(h).volume) && curve.section(h).volume > 0);
      }
    }
  }));
}

TEST(Damage, FortyKindsOfBadCardAreEachRefusedWithTheirLine) {
  const std::string good = test::text_of(test::data("reference/bag-cards/osier-o135.csv"));
  const auto with = [&](const std::string& from, const std::string& to) {
    std::string text = good;
    const std::size_t at = text.find(from);
    EXPECT_NE(at, std::string::npos) << from;
    return text.replace(at, from.size(), to);
  };
  const std::vector<std::string> bad = {"",
                                        "\n",
                                        "# mavrel",
                                        "# mavrel bag card",
                                        "# mavrel bag card two",
                                        "# mavrel bag card 2",
                                        "# mavrel bag card 0",
                                        "\xff\xfe",
                                        with("# name: Osier O-135\n", ""),
                                        with("Osier O-135", ""),
                                        with("double bellows", "double"),
                                        with("# kind: double bellows\n", ""),
                                        with("collapsed_height_mm: 62", "collapsed_height_mm: 620"),
                                        with("collapsed_height_mm: 62", "collapsed_height_mm: 0"),
                                        with("collapsed_height_mm: 62", "collapsed_height_mm: low"),
                                        with("# collapsed_height_mm: 62\n", ""),
                                        with("max_height_mm: 215", "max_height_mm: 50"),
                                        with("max_height_mm: 215", "max_height_mm: -215"),
                                        with("max_diameter_mm: 137", "max_diameter_mm: 1e9"),
                                        with("# max_diameter_mm: 137\n", ""),
                                        with("min_pressure_bar: 0.4", "min_pressure_bar: 99"),
                                        with("max_pressure_bar: 9.0", "max_pressure_bar: 0.1"),
                                        with("max_pressure_bar: 9.0", "max_pressure_bar: nine"),
                                        with("internal_stop: no", "internal_stop: maybe"),
                                        with("# kind: double bellows\n", "# kind: double bellows\n# kind: sleeve\n"),
                                        with("height_mm,", "height,"),
                                        with("height_mm,volume_l", "height_mm,height_mm"),
                                        with("volume_l,", ""),
                                        with("load_n@4bar", "load_n@1bar"),
                                        with("load_n@4bar", "load_n@4"),
                                        with("load_n@2bar", "load_n@0bar"),
                                        with("load_n@4bar", "load_n@fourbar"),
                                        with("diameter_mm\n", "colour\n"),
                                        with("62.00,0.4500", "62.00"),
                                        with("62.00,0.4500", "62.00,,0.4500"),
                                        with("62.00,0.4500", "162.00,0.4500"),
                                        with("81.12,0.7117", "81.12,0.0117"),
                                        with("2675,5343", "5675,5343"),
                                        with("2675", "NaN"),
                                        with("2675", "-2675"),
                                        with("2675", "2,675"),
                                        with("2675", "1e12"),
                                        good.substr(0, good.find("62.00")),
                                        good.substr(0, good.find("100.25"))};
  EXPECT_GE(bad.size(), 40U);
  for (const std::string& text : bad) {
    const auto reading = shelf::read_card(text);
    EXPECT_FALSE(reading.card) << text.substr(0, 400);
    ASSERT_FALSE(reading.mistakes.empty()) << text.substr(0, 400);
    EXPECT_GE(reading.mistakes.front().line, 1U);
  }
}

} // namespace
} // namespace mavrel
