// Card drafts, unsaved work and settings: what must survive a change of mind, a crash and a restart.
#include "app/shell/keeper.h"
#include "app/shell/settings.h"
#include "app/stages/bags/shelf/card_drafts.h"
#include "support.h"

#include "app/desk/desk.h"

#include <QSignalSpy>
#include <QTest>

namespace mavrel::app {
namespace {

const air::BagCard& card(const std::string& name) {
  return test::demo_shelf().find(name)->card;
}

air::BagCard heavier(air::BagCard card, double mass) {
  card.mass = mass;
  return card;
}

TEST(CardDrafts, EachCardHasItsOwnUndo) {
  CardDrafts drafts;
  EXPECT_FALSE(drafts.has_card());
  drafts.open(card("Osier O-135"));
  drafts.change(heavier(drafts.card(), 2));
  drafts.change(heavier(drafts.card(), 3));
  drafts.open(card("Fennick R-100"));
  EXPECT_FALSE(drafts.can_undo());
  drafts.change(heavier(drafts.card(), 7));
  drafts.open(card("Osier O-135"));
  EXPECT_EQ(drafts.card().mass, 3);
  drafts.undo();
  EXPECT_EQ(drafts.card().mass, 2);
  drafts.redo();
  EXPECT_EQ(drafts.card().mass, 3);
  EXPECT_FALSE(drafts.can_redo());
  drafts.undo();
  drafts.change(heavier(drafts.card(), 5));
  EXPECT_FALSE(drafts.can_redo()) << "what was undone is forgotten by the next edit";
  EXPECT_TRUE(drafts.is_edited("Osier O-135"));
  EXPECT_TRUE(drafts.is_edited("Fennick R-100"));
  EXPECT_FALSE(drafts.is_edited("Osier O-150"));
}

TEST(CardDrafts, LookingIsNotEditing) {
  CardDrafts drafts;
  for (const auto& bag : test::demo_shelf().bags)
    drafts.open(bag.card);
  EXPECT_FALSE(drafts.any_unkept());
  drafts.change(drafts.card());
  EXPECT_FALSE(drafts.can_undo()) << "the same card again is no step";
}

TEST(CardDrafts, NewCardsWaitUntilTheyAreKept) {
  CardDrafts drafts;
  drafts.add(heavier(card("Osier O-135"), 9));
  auto other = card("Osier O-150");
  other.name = "second";
  drafts.add(other);
  EXPECT_EQ(drafts.new_names(), (std::vector<std::string>{"Osier O-135", "second"}));
  EXPECT_EQ(drafts.shown_new(), 1U);
  drafts.open(card("Fennick R-100"));
  EXPECT_FALSE(drafts.shown_new());
  drafts.open_new(0);
  EXPECT_EQ(drafts.card().mass, 9);
  EXPECT_TRUE(drafts.any_unkept());
  drafts.kept();
  EXPECT_EQ(drafts.new_names(), std::vector<std::string>{"second"});
  EXPECT_FALSE(drafts.is_edited("Osier O-135"));
}

TEST(CardDrafts, AnyOrderOfEditsUndoesToTheBeginning) {
  EXPECT_TRUE(rc::check("undo all", [] {
    CardDrafts drafts;
    drafts.open(card("Osier O-135"));
    const int steps = *rc::gen::inRange(0, 20);
    for (int i = 0; i < steps; ++i) {
      if (drafts.can_undo() && *rc::gen::inRange(0, 3) == 0)
        drafts.undo();
      else
        drafts.change(heavier(drafts.card(), test::between(1, 9)));
    }
    while (drafts.can_undo())
      drafts.undo();
    RC_ASSERT(drafts.card() == card("Osier O-135"));
    RC_ASSERT(!drafts.any_unkept());
  }));
}

// ---- unsaved work

TEST(Keeper, KeepsSoonAfterAnEditAndForgetsWhatIsSaved) {
  const test::Folder folder;
  Desk desk(test::demo_shelf());
  Keeper keeper(desk, folder / "recovery");
  ASSERT_TRUE(desk.document().open(test::demo_file()));
  EXPECT_TRUE(std::filesystem::is_empty(folder.path()) || std::filesystem::is_empty(folder / "recovery"));
  ASSERT_FALSE(desk.type("front.left.mass_kg", "444 kg"));
  const auto kept = [&] {
    std::size_t files = 0;
    std::error_code error;
    for (std::filesystem::directory_iterator it(folder / "recovery", error), end; !error && it != end;
         it.increment(error))
      files += it->path().extension() == ".mavrel";
    return files;
  };
  for (int i = 0; i < 200 && kept() == 0; ++i)
    QTest::qWait(20);
  EXPECT_EQ(kept(), 1U);
  ASSERT_TRUE(desk.document().save(folder / "saved.mavrel"));
  EXPECT_TRUE(keeper.wait());
  EXPECT_EQ(kept(), 0U) << "what is saved needs no recovery";
}

TEST(Keeper, TwoProgramsKeepApart) {
  const test::Folder folder;
  Desk one(test::demo_shelf()), two(test::demo_shelf());
  Keeper first(one, folder.path()), second(two, folder.path());
  ASSERT_TRUE(one.document().open(test::demo_file()));
  ASSERT_TRUE(two.document().open(test::demo_file()));
  ASSERT_FALSE(one.type("front.left.mass_kg", "444 kg"));
  ASSERT_FALSE(two.type("front.left.mass_kg", "455 kg"));
  first.keep_now();
  second.keep_now();
  EXPECT_TRUE(first.wait() && second.wait());
  EXPECT_TRUE(first.left_behind().empty()) << "the other is still running: its work is not left behind";
}

TEST(Keeper, WorkThatCannotBeKeptIsSaid) {
  Desk desk(test::demo_shelf());
  Keeper keeper(desk, "/proc/nowhere");
  ASSERT_TRUE(desk.document().open(test::demo_file()));
  QSignalSpy told(&desk, &Desk::told);
  ASSERT_FALSE(desk.type("front.left.mass_kg", "444 kg"));
  keeper.keep_now();
  EXPECT_FALSE(keeper.wait());
  QCoreApplication::processEvents();
  ASSERT_FALSE(told.isEmpty());
  EXPECT_TRUE(told.first().first().toString().contains("can't be kept safe"));
}

// ---- settings

TEST(Settings, AreThereAgainAfterARestart) {
  const UnitPrefs imperial{LengthUnit::inch, PressureUnit::psi, MassUnit::lb, TemperatureUnit::fahrenheit, 0.019};
  {
    Settings settings;
    settings.keep(imperial);
    settings.keep(Look{Theme::night_bay, 1.2});
  }
  const Settings again;
  EXPECT_EQ(again.prefs(), imperial);
  EXPECT_EQ(again.look().theme, Theme::night_bay);
  EXPECT_NEAR(again.look().scale, 1.2, 1e-12);
  Settings().keep(UnitPrefs{});
  Settings().keep(Look{});
}

TEST(Settings, RecentFilesAreTheNewestFirstOnceEachAndOnlyThoseThatAreThere) {
  const test::Folder folder;
  Settings settings;
  for (int i = 0; i < 12; ++i) {
    const auto file = folder / ("build-" + std::to_string(i) + ".mavrel");
    test::write(file, "{}");
    settings.add_recent(QString::fromStdString(file.string()));
  }
  EXPECT_EQ(settings.recent().size(), 8);
  EXPECT_TRUE(settings.recent().front().endsWith("build-11.mavrel"));
  settings.add_recent(QString::fromStdString((folder / "build-6.mavrel").string()));
  EXPECT_TRUE(settings.recent().front().endsWith("build-6.mavrel"));
  EXPECT_EQ(settings.recent().size(), 8);
  std::filesystem::remove(folder / "build-6.mavrel");
  EXPECT_EQ(settings.recent().size(), 7);
}

} // namespace
} // namespace mavrel::app
