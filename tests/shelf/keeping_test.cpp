// Where cards are kept, and what a card can't be.
#include "shelf/card_check.h"
#include "shelf/card_write.h"

#include "support.h"

#include <numbers>

namespace mavrel::shelf {
namespace {

air::BagCard some(const std::string& name) {
  air::BagCard card = test::demo_shelf().find("Osier O-135")->card;
  card.name = name;
  return card;
}

TEST(SaveCard, TakesThePlaceOnlyOfTheCardOfItsName) {
  const test::Folder folder;
  const auto first = save_card(some("Mine M-1"), folder.path());
  ASSERT_TRUE(first);
  air::BagCard heavier = some("Mine M-1");
  heavier.mass = 3;
  EXPECT_EQ(save_card(heavier, folder.path()).value(), *first);
  EXPECT_DOUBLE_EQ(read_bag_file(*first)->card.mass, 3);
  const auto other = save_card(some("Mine: M 1"), folder.path());
  ASSERT_TRUE(other);
  EXPECT_NE(*other, *first) << "two names, one file name";
  EXPECT_EQ(read_bag_file(*first)->card.name, "Mine M-1");
}

TEST(SaveCard, NeverOverwritesWhatItCanNotRead) {
  const test::Folder folder;
  const std::string newer = "# mavrel bag card 7\n# name: Mine M-1\nthings to come\n", other = "no card at all";
  test::write(folder / "mine-m-1.csv", newer);
  test::write(folder / "mine-m-1-2.csv", other);
  const auto kept = save_card(some("Mine M-1"), folder.path());
  ASSERT_TRUE(kept);
  EXPECT_EQ(test::text_of(folder / "mine-m-1.csv"), newer);
  EXPECT_EQ(test::text_of(folder / "mine-m-1-2.csv"), other);
  EXPECT_EQ(file_of_card("Mine M-1", folder.path()), *kept);
  EXPECT_EQ(save_card(some("Mine M-1"), folder.path()).value(), *kept) << "found again under its other file name";
}

TEST(SaveCard, RefusesWhatWouldNotBeReadAgain) {
  const test::Folder folder;
  air::BagCard card = some("Mine M-1");
  card.max_pressure = 99e5;
  const auto refused = save_card(card, folder.path());
  ASSERT_FALSE(refused);
  EXPECT_TRUE(std::filesystem::is_empty(folder.path()));
  EXPECT_NE(say(refused.error()).find("max_pressure_bar"), std::string::npos);
}

TEST(CardFileName, IsShortAndTheSameUnderEveryLocale) {
  EXPECT_EQ(card_file_name(some("Osier O-135")), "osier-o-135.csv");
  EXPECT_EQ(card_file_name(some("ÄÖ x")), "ÄÖ-x.csv");
  std::string name;
  for (int i = 0; i < 80; ++i)
    name += "ж";
  const std::string file = card_file_name(some(name));
  EXPECT_LT(file.size(), 200U);
  EXPECT_FALSE(first_bad_utf8(file));
}

TEST(Plausible, TheShippedCardsAre) {
  for (const ShelfBag& bag : test::demo_shelf().bags) {
    EXPECT_TRUE(bag.doubts.empty()) << bag.card.name << ": " << say(bag.doubts.front().what);
    // The diameter their loads stand for, against the one outside, halfway up.
    const std::size_t middle = bag.card.heights.size() / 2;
    const double area = bag.card.loads[1][middle] / bag.card.pressures[1];
    const double ratio = std::sqrt(4 * area / std::numbers::pi) / bag.card.diameters[middle];
    const bool sleeve = bag.card.kind == air::BagKind::sleeve;
    EXPECT_GE(ratio, sleeve ? 0.75 : 0.78) << bag.card.name;
    EXPECT_LE(ratio, 0.90) << bag.card.name;
  }
}

TEST(Plausible, ABagWiderInsideThanOutsideIsDoubted) {
  air::BagCard card = some("x");
  for (auto& column : card.loads)
    for (double& load : column)
      load *= 1.4;
  const auto doubts = check_plausible(card);
  ASSERT_EQ(doubts.size(), 1U);
  EXPECT_NE(say(doubts[0].what).find("more than the bag's"), std::string::npos);
}

TEST(Plausible, AThinOneAndASleeveThatChangesAreDoubted) {
  air::BagCard thin = some("x");
  for (auto& column : thin.loads)
    for (double& load : column)
      load *= 0.5;
  ASSERT_EQ(check_plausible(thin).size(), 1U);
  EXPECT_NE(say(check_plausible(thin)[0].what).find("Halfway up"), std::string::npos);
  air::BagCard sleeve = test::demo_shelf().find("Fennick R-118")->card;
  EXPECT_TRUE(check_plausible(sleeve).empty());
  sleeve.diameters.back() *= 0.9;
  const auto doubts = check_plausible(sleeve);
  ASSERT_FALSE(doubts.empty());
  EXPECT_NE(say(doubts.back().what).find("hardly changes"), std::string::npos);
}

} // namespace
} // namespace mavrel::shelf
