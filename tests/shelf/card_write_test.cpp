#include "shelf/card_write.h"

#include "air/bag.h"
#include "shelf/card_check.h"
#include "support.h"

namespace mavrel::shelf {
namespace {

TEST(CardWrite, ReadBackIsTheSameCard) {
  for (const ShelfBag& bag : test::demo_shelf().bags) {
    const CardReading back = read_card(card_text(bag.card));
    ASSERT_TRUE(back.card) << bag.card.name;
    EXPECT_EQ(card_text(*back.card), card_text(bag.card));
    EXPECT_EQ(back.card->name, bag.card.name);
    EXPECT_EQ(back.card->pressures, bag.card.pressures);
  }
}

TEST(CardWrite, APeakIsKeptAndNoneIsWrittenAsNone) {
  air::BagCard card = test::demo_shelf().bags.front().card;
  card.peak_pressure = 0;
  EXPECT_EQ(card_text(card).find("peak"), std::string::npos);
  EXPECT_FALSE(air::peak_of(card).stated);
  EXPECT_DOUBLE_EQ(air::peak_of(card).pressure, 1.5 * card.max_pressure);
  card.peak_pressure = 1.2 * card.max_pressure;
  const CardReading back = read_card(card_text(card));
  ASSERT_TRUE(back.card);
  EXPECT_NEAR(back.card->peak_pressure, card.peak_pressure, 1);
  EXPECT_TRUE(air::peak_of(*back.card).stated);
  EXPECT_TRUE(back.card->more.empty());
}

TEST(CardWrite, RandomCardsComeBackToTheDigitsWritten) {
  EXPECT_TRUE(rc::check("card to text and back", [] {
    const air::BagCard card = test::random_card();
    const CardReading back = read_card(card_text(card));
    RC_ASSERT(back.card.has_value());
    for (std::size_t i = 0; i < card.heights.size(); ++i) {
      RC_ASSERT(std::abs(back.card->heights[i] - card.heights[i]) < 6e-6);
      RC_ASSERT(std::abs(back.card->volumes[i] - card.volumes[i]) < 6e-8);
      RC_ASSERT(std::abs(back.card->loads[0][i] - card.loads[0][i]) < 0.6);
    }
  }));
}

TEST(CardMany, OneFileHoldsSeveralAndLinesCountFromItsTop) {
  const std::string a = test::text_of(test::data("reference/bag-cards/osier-o135.csv")),
                    b = test::text_of(test::data("reference/bag-cards/fennick-r100.csv"));
  const auto cards = read_cards(a + b);
  ASSERT_EQ(cards.size(), 2U);
  EXPECT_EQ(cards[0].card->name, "Osier O-135");
  EXPECT_EQ(cards[1].card->name, "Fennick R-100");
  std::string broken = b;
  broken.replace(broken.find("1468"), 4, "heavy");
  const auto one = read_cards(a + broken);
  ASSERT_FALSE(one[1].mistakes.empty());
  const auto lines = static_cast<std::size_t>(std::count(a.begin(), a.end(), '\n'));
  EXPECT_EQ(one[1].mistakes.front().line, read_cards(broken)[0].mistakes.front().line + lines);
  EXPECT_TRUE(one[0].card) << "the sound card is not lost";
}

TEST(CardMany, WhatIsNoCardIsSaidOnce) {
  for (const char* text : {"", "\n\n", "height_mm,volume_l\n1,2\n", "hello\n# mavrel bag card 1\n"}) {
    const auto cards = read_cards(text);
    ASSERT_EQ(cards.size(), 1U) << text;
    EXPECT_FALSE(cards[0].mistakes.empty());
  }
}

TEST(CardSave, MakesTheFolderAndReplacesOnlyItsOwn) {
  const test::Folder folder;
  air::BagCard card = test::demo_shelf().bags.front().card;
  const auto place = folder / "deep" / "shelf";
  const auto file = save_card(card, place);
  ASSERT_TRUE(file);
  EXPECT_EQ(file->filename(), "fennick-r-100.csv");
  card.mass = 2.5;
  EXPECT_EQ(*save_card(card, place), *file);
  card.name = "Fennick R 100";
  EXPECT_NE(*save_card(card, place), *file) << "another bag's file is not overwritten";
  EXPECT_FALSE(save_card(card, "/proc/nowhere"));
}

TEST(CardSuspects, PointAtTheMistypedCell) {
  const air::BagCard good = test::demo_shelf().find("Osier O-135")->card;
  EXPECT_TRUE(suspect_cells(good).empty());
  for (std::size_t row = 1; row + 1 < good.heights.size(); ++row) {
    air::BagCard volume = good;
    const double step =
        std::min(volume.volumes[row] - volume.volumes[row - 1], volume.volumes[row + 1] - volume.volumes[row]);
    volume.volumes[row] += 0.6 * step;
    EXPECT_EQ(suspect_cells(volume), (std::vector<SuspectCell>{{row, std::nullopt}})) << row;
    air::BagCard load = good;
    load.loads[2][row] *= 1.3;
    const auto cells = suspect_cells(load);
    ASSERT_FALSE(cells.empty()) << row;
    EXPECT_EQ(cells.front(), (SuspectCell{row, 2U})) << row;
  }
}

TEST(CardWrite, OfTooManyCardsInAFileTheFirstAreReadAndTheRestIsNamed) {
  std::string text;
  for (std::size_t i = 0; i < most_cards + 2; ++i) {
    air::BagCard card = test::demo_shelf().bags.front().card;
    card.name = "Mine " + std::to_string(i);
    text += card_text(card);
  }
  const auto read = read_cards(text);
  ASSERT_EQ(read.size(), most_cards + 1);
  EXPECT_EQ(read[most_cards - 1].card->name, "Mine " + std::to_string(most_cards - 1));
  ASSERT_FALSE(read.back().card);
  EXPECT_NE(say(read.back().mistakes.front().what).find(std::to_string(most_cards + 2)), std::string::npos);
}

TEST(CardWrite, SeveralCardsGoIntoOneFolderAndKeepTheirFiles) {
  const test::Folder folder;
  CardFiles files(folder.path());
  air::BagCard card = test::demo_shelf().bags.front().card;
  card.name = "Mine";
  const auto first = files.save(card);
  ASSERT_TRUE(first);
  card.name = "mine"; // the same file name, another bag
  const auto second = files.save(card);
  ASSERT_TRUE(second);
  EXPECT_NE(*first, *second);
  card.mass += 1;
  EXPECT_EQ(*files.save(card), *second);
  EXPECT_EQ(file_of_card("mine", folder.path()), *second);
  EXPECT_EQ(file_of_card("Mine", folder.path()), *first);
}

} // namespace
} // namespace mavrel::shelf
