#include "shelf/card_check.h"
#include "shelf/card_csv.h"

#include "support.h"

namespace mavrel::shelf {
namespace {

const std::string& good_text() {
  static const std::string text = test::text_of(test::data("reference/bag-cards/osier-o135.csv"));
  return text;
}

std::string with(std::string text, const std::string& from, const std::string& to) {
  const std::size_t at = text.find(from);
  EXPECT_NE(at, std::string::npos) << from;
  return text.replace(at, from.size(), to);
}

TEST(Card, ReadsTheReferenceCards) {
  for (const char* name : {"osier-o135.csv", "fennick-r100.csv"}) {
    const CardReading reading = read_card(test::text_of(test::data(std::string("reference/bag-cards/") + name)));
    ASSERT_TRUE(reading.card) << say(with_place(reading.mistakes.front()));
    for (const CardNote& doubt : reading.doubts) // their outside diameters are not what their loads stand for
      EXPECT_NE(say(doubt.what).find("stand for"), std::string::npos);
    EXPECT_EQ(reading.card->heights.size(), 9U);
    EXPECT_EQ(reading.card->pressures.size(), 4U);
    EXPECT_EQ(reading.card->diameters.size(), 9U);
  }
  const auto card = *read_card(good_text()).card;
  EXPECT_EQ(card.name, "Osier O-135");
  EXPECT_EQ(card.kind, air::BagKind::double_bellows);
  EXPECT_DOUBLE_EQ(card.loads[1][2], 5054);
  EXPECT_DOUBLE_EQ(card.max_pressure, 9e5);
}

TEST(Card, ForgivesWhatDoesNotMatter) {
  std::string dos;
  for (const char c : good_text())
    dos += c == '\n' ? std::string("\r\n") : std::string(1, c);
  EXPECT_EQ(read_card(dos).card, read_card(good_text()).card);
  EXPECT_TRUE(read_card("\xEF\xBB\xBF" + good_text()).card);
  EXPECT_TRUE(read_card(good_text() + "\n\n# a remark at the end\n").card);
  const auto extra = read_card(with(good_text(), "# mass_kg: 1.9", "# mass_kg: 1.9\n# colour: black"));
  ASSERT_TRUE(extra.card);
  EXPECT_EQ(extra.card->more.front(), std::pair(std::string("colour"), std::string("black")));
}

struct Damage {
  const char *from, *to;
  std::size_t line;
  const char* says; // part of the sentence
};

TEST(Card, EachMistakeIsNamedWithItsPlace) {
  const Damage damages[] = {
      {"# mavrel bag card 1", "# some card", 1, "no bag card"},
      {"# mavrel bag card 1", "# mavrel bag card 7", 1, "newer Mavrel"},
      {"# mavrel bag card 1", "# mavrel bag card x", 1, "no card version"},
      {"# name: Osier O-135", "# name:", 2, "name of 1 to 80"},
      {"# name: Osier O-135\n", "", 1, "# name: …"},
      {"# kind: double bellows", "# kind: balloon", 3, "balloon"},
      {"# collapsed_height_mm: 62", "# collapsed_height_mm: sixty", 4, "sixty"},
      {"# collapsed_height_mm: 62", "# collapsed_height_mm: 620000", 4, "believable"},
      {"# collapsed_height_mm: 62\n", "", 1, "collapsed_height_mm"},
      {"# max_height_mm: 215", "# max_height_mm: 40", 5, "not above the collapsed height"},
      {"# max_pressure_bar: 9.0", "# max_pressure_bar: 9.0\n# max_pressure_bar: 8", 9, "second time"},
      {"# min_pressure_bar: 0.4", "# min_pressure_bar: 12", 8, "not above the least"},
      {"# internal_stop: no", "# internal_stop: maybe", 9, "yes or no"},
      {"# internal_stop: no", "# peak_bar: 8.5", 9, "not below the steady maximum"},
      {"# internal_stop: no", "# peak_bar: much", 9, "much"},
      {"height_mm,volume_l", "height_mm,volume_q", 11, "no column"},
      {"height_mm,volume_l", "height_mm,height_mm", 11, "twice"},
      {"load_n@4bar", "load_n@1bar", 11, "out of order"},
      {"load_n@4bar", "load_n@fourbar", 11, "names no pressure"},
      {"load_n@4bar", "load_n@-4bar", 11, "names no pressure"},
      {"81.12,0.7117", "81.12,zero", 13, "not a number"},
      {"81.12,0.7117", "81.12,-0.7", 13, "not a number above 0"},
      {"81.12,0.7117", "81.12,", 13, "not a number"},
      {"81.12,0.7117", "81.12,nan", 13, "not a number"},
      {"81.12,0.7117,2675", "81.12,0.7117", 13, "6 cells"},
      {"100.25,0.9604", "80.25,0.9604", 14, "Heights go from low to high"},
      {"100.25,0.9604", "100.25,0.5", 14, "volume grows"},
      {"2375,4733", "2375,2300", 15, "load grows with pressure"},
  };
  for (const Damage& damage : damages) {
    const CardReading reading = read_card(with(good_text(), damage.from, damage.to));
    EXPECT_FALSE(reading.card) << damage.to;
    ASSERT_FALSE(reading.mistakes.empty()) << damage.to;
    const bool named = std::any_of(reading.mistakes.begin(), reading.mistakes.end(), [&](const CardNote& note) {
      return note.line == damage.line && note.column >= 1 && say(note.what).find(damage.says) != std::string::npos;
    });
    EXPECT_TRUE(named) << damage.to << " gives: " << say(with_place(reading.mistakes.front()));
  }
}

TEST(Card, NamesTheColumnOfABadCell) {
  const auto reading = read_card(with(good_text(), "119.38,1.1945,2375", "119.38,1.1945,23x5"));
  ASSERT_EQ(reading.mistakes.size(), 1U);
  EXPECT_EQ(reading.mistakes[0].line, 15U);
  EXPECT_EQ(reading.mistakes[0].column, 15U);
  EXPECT_EQ(say(with_place(reading.mistakes[0])), "line 15, column 15: “23x5” is not a number above 0.");
}

TEST(Card, RefusesWholeFilesThatAreNoCards) {
  for (const std::string& text :
       {std::string(), std::string("\n\n\n"), std::string("\x00\x01\x02", 3), std::string("\xFF\xFE#"),
        std::string(600000, 'a'), std::string("{\"format\":\"mavrel-build\"}"), std::string("# mavrel bag card 1\n"),
        std::string("# mavrel bag card 1\n# name: x\n1,2,3\n")}) {
    const CardReading reading = read_card(text);
    EXPECT_FALSE(reading.card);
    EXPECT_FALSE(reading.mistakes.empty());
  }
  std::string many = good_text();
  for (int i = 0; i < 500; ++i)
    many += "300,3,1,2,3,4,5\n";
  EXPECT_FALSE(read_card(many).card);
}

TEST(Card, TruncationAnywhereNeverCrashes) {
  for (std::size_t n = 0; n < good_text().size(); n += 3) {
    const CardReading reading = read_card(good_text().substr(0, n));
    EXPECT_TRUE(reading.card || !reading.mistakes.empty()) << n;
  }
}

TEST(Card, SanityFindsAMistypedVolume) {
  const auto reading = read_card(with(good_text(), "138.50,1.4125", "138.50,1.5825"));
  ASSERT_TRUE(reading.card) << "doubtful cards still work";
  ASSERT_GE(reading.doubts.size(), 2U) << "the stretches before and after the mistyped row";
  EXPECT_EQ(reading.doubts[0].line, 16U);
  EXPECT_NE(say(reading.doubts[0].what).find("mistyped"), std::string::npos);
}

TEST(Card, ACardWhoseForceFallsIsRefused) {
  air::BagCard card = *read_card(good_text()).card;
  EXPECT_TRUE(rows_where_force_falls(card).empty());
  card.pressures = {2e5, 2.2e5};
  card.loads = {card.loads[0], card.loads[0]};
  for (double& load : card.loads[1])
    load += 1;
  EXPECT_FALSE(rows_where_force_falls(card).empty());
}

TEST(Shelf, LaterFoldersStandInForEarlierOnes) {
  const test::Folder shipped, own;
  test::write(shipped / "a.csv", good_text());
  test::write(shipped / "broken.csv", "nonsense");
  test::write(shipped / "notes.txt", "not a card");
  test::write(own / "b.csv", with(good_text(), "# mass_kg: 1.9", "# mass_kg: 2.5"));
  const std::filesystem::path folders[] = {shipped.path(), own.path(), "/nowhere/at/all"};
  const Shelf shelf = load_shelf(folders);
  ASSERT_EQ(shelf.bags.size(), 1U);
  EXPECT_DOUBLE_EQ(shelf.find("Osier O-135")->card.mass, 2.5);
  EXPECT_EQ(shelf.find("Nobody"), nullptr);
  ASSERT_EQ(shelf.problems.size(), 1U);
  EXPECT_NE(say(shelf.problems[0].what).find("broken.csv, line 1, column 1"), std::string::npos)
      << say(shelf.problems[0].what);
}

TEST(Shelf, TheShippedShelfIsSoundAndWide) {
  const Shelf& shelf = test::demo_shelf();
  EXPECT_GE(shelf.bags.size(), 10U);
  EXPECT_TRUE(shelf.problems.empty());
  std::set<air::BagKind> kinds;
  std::set<std::string> makers;
  for (const ShelfBag& bag : shelf.bags) {
    kinds.insert(bag.card.kind);
    makers.insert(bag.card.name.substr(0, bag.card.name.find(' ')));
    EXPECT_TRUE(bag.doubts.empty()) << bag.card.name;
  }
  EXPECT_EQ(kinds.size(), 5U);
  EXPECT_GE(makers.size(), 3U);
}

} // namespace
} // namespace mavrel::shelf
