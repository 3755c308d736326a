// Nothing typed, moved or kept is lost or lands where it was not meant.
#include "app/kit/height_posts.h"
#include "app/shell/findings_panel.h"
#include "app/shell/keeper.h"
#include "app/shell/notice_bar.h"
#include "app/shell/settings.h"
#include "app/shell/stage_rail.h"
#include "app/stages/bags/bags.h"
#include "app/stages/bags/search/search_page.h"
#include "app/stages/bags/shelf/shelf_page.h"
#include "build/list_edit.h"
#include "faults.h"
#include "shelf/card_write.h"
#include "window_fixture.h"

#include <QAbstractItemModelTester>
#include <QListWidget>
#include <QMessageBox>
#include <QPushButton>
#include <QSettings>
#include <QSignalSpy>
#include <QTableWidget>
#include <QToolButton>

#include <sys/stat.h>

namespace mavrel::app {
namespace {

class KeepingTest : public WindowTest {
protected:
  /// Types into a field without taking it.
  Field* half_type(const QString& path, const QString& text) {
    Field* one = field(path);
    if (!one) return nullptr;
    one->edit()->setFocus();
    one->edit()->selectAll();
    QTest::keyClicks(one->edit(), text);
    return one;
  }
  std::filesystem::path file() { return folder_ / "wayfare.mavrel"; }
  QString text_of(const std::filesystem::path& path) { return QString::fromStdString(path.string()); }
  NoticeBar* notices() { return window_->findChild<NoticeBar*>(); }
  std::vector<QString> notice_texts() {
    std::vector<QString> out;
    for (QLabel* label : notices()->findChildren<QLabel*>())
      if (label->isVisible()) out.push_back(label->text());
    return out;
  }
  /// Shows a file of the user's own shelf.
  void SetUp() override {
    WindowTest::SetUp();
    desk().cards().set_folder(folder_ / "shelf");
  }
};

// ---- where a typed value lands

TEST_F(KeepingTest, AValueLandsInTheVariantItWasTypedFor) {
  window_->go_to_stage("bags");
  ASSERT_TRUE(half_type("@.front.upper_stack_m", "17 mm"));
  const double other = build().variants[1].fit[0].upper_stack;
  action("Next variant")->trigger();
  EXPECT_EQ(build().active_variant, 1U);
  EXPECT_DOUBLE_EQ(build().variants[0].fit[0].upper_stack, 0.017);
  EXPECT_DOUBLE_EQ(build().variants[1].fit[0].upper_stack, other);
  Field* now = field("@.front.upper_stack_m");
  QTest::keyClick(now->edit(), Qt::Key_Return);
  EXPECT_DOUBLE_EQ(build().variants[1].fit[0].upper_stack, other) << "Enter takes nothing that was not typed here";
}

TEST_F(KeepingTest, AValueLandsAtTheEndItWasTypedFor) {
  window_->go_to_stage("bags");
  const double rear = build().variants[0].fit[1].upper_stack;
  ASSERT_TRUE(half_type("@.front.upper_stack_m", "19 mm"));
  action("Other end")->trigger();
  EXPECT_DOUBLE_EQ(build().variants[0].fit[0].upper_stack, 0.019);
  EXPECT_DOUBLE_EQ(build().variants[0].fit[1].upper_stack, rear);
}

TEST_F(KeepingTest, NothingTypedForOneCarGoesIntoTheNext) {
  ASSERT_TRUE(half_type("front.left.mass_kg", "433 kg"));
  answer_next("Discard");
  action("New car…")->trigger();
  window_->findChild<QPushButton*>("start_empty")->click();
  EXPECT_TRUE(build().ends[0].corners[0].mass.values.empty());
  Field* now = field("front.left.mass_kg");
  QTest::keyClick(now->edit(), Qt::Key_Return);
  EXPECT_TRUE(build().ends[0].corners[0].mass.values.empty());
}

TEST_F(KeepingTest, SavingTakesWhatIsHalfTyped) {
  half_type("front.left.mass_kg", "433 kg");
  action("Save")->trigger();
  EXPECT_DOUBLE_EQ(build::load(file())->ends[0].corners[0].mass.values.front(), 433);
  EXPECT_TRUE(told().startsWith("Saved as")) << told().toStdString();
  EXPECT_FALSE(window_->isWindowModified());
}

TEST_F(KeepingTest, WhatCanNotBeTakenIsSaidWithTheSavingAndStays) {
  Field* one = half_type("front.left.mass_kg", "433 parrots");
  action("Save")->trigger();
  EXPECT_TRUE(told().contains("half typed")) << told().toStdString();
  EXPECT_TRUE(told().contains("parrots")) << told().toStdString();
  EXPECT_EQ(one->edit()->text(), "433 parrots") << "still there to be mended";
}

// ---- undo

TEST_F(KeepingTest, UndoWorksRightAfterEnter) {
  const double before = build().ends[0].corners[1].mass.values.front();
  type("front.right.mass_kg", "433 kg");
  Field* one = field("front.right.mass_kg");
  ASSERT_TRUE(one->edit()->hasFocus());
  QTest::keyClick(one->edit(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(build().ends[0].corners[1].mass.values.front(), before);
  EXPECT_TRUE(one->edit()->text().contains(QString::number(std::lround(before)))) << one->edit()->text().toStdString();
  QTest::keyClick(one->edit(), Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_DOUBLE_EQ(build().ends[0].corners[1].mass.values.front(), 433);
}

TEST_F(KeepingTest, WhileTypingUndoIsTheLinesOwn) {
  type("front.right.mass_kg", "433 kg");
  Field* one = half_type("front.right.mass_kg", "9");
  QTest::keyClick(one->edit(), Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(build().ends[0].corners[1].mass.values.front(), 433) << "the build's edit stays";
}

TEST_F(KeepingTest, LookingAtAnotherVariantIsNothingToSaveOrUndo) {
  EXPECT_FALSE(window_->isWindowModified());
  action("Next variant")->trigger();
  EXPECT_EQ(build().active_variant, 1U);
  EXPECT_FALSE(window_->isWindowModified());
  EXPECT_FALSE(desk().document().history().can_undo());
}

class FlagTest : public KeepingTest {
protected:
  HeightPosts* posts() { return window_->findChild<HeightPosts*>(); }
  QPoint flag(std::size_t preset) { return posts()->flag_rect(End::rear, preset).center().toPoint(); }
  QPoint at(double H) { return {flag(1).x(), static_cast<int>(std::lround(posts()->scale().y(H)))}; }
};

TEST_F(FlagTest, PutBackWhereItWasIsNoStepAndKeepsRedo) {
  type("front.right.mass_kg", "433 kg");
  desk().document().undo();
  ASSERT_TRUE(desk().document().history().can_redo());
  const double H = desk().assessment().end(End::rear).presets[1]->height;
  QTest::mousePress(posts(), Qt::LeftButton, {}, flag(1));
  QTest::mouseMove(posts(), at(H + 0.006));
  EXPECT_NE(desk().assessment().end(End::rear).presets[1]->height, H);
  QTest::mouseMove(posts(), at(H));
  QTest::mouseRelease(posts(), Qt::LeftButton, {}, at(H));
  EXPECT_DOUBLE_EQ(desk().assessment().end(End::rear).presets[1]->height, H);
  EXPECT_FALSE(desk().document().history().can_undo());
  EXPECT_TRUE(desk().document().history().can_redo());
}

TEST_F(FlagTest, UndoneWhileItsFlagIsHeldItMovesNothingMore) {
  add_preset(desk());
  const std::size_t added = build().variant().brief.presets.size() - 1;
  ASSERT_TRUE(desk().assessment().end(End::rear).presets[added]);
  QTest::mousePress(posts(), Qt::LeftButton, {}, flag(added));
  desk().document().undo();
  const auto before = build();
  QTest::mouseMove(posts(), at(0.39)); // once an exception in an event handler
  QTest::mouseRelease(posts(), Qt::LeftButton, {}, at(0.39));
  EXPECT_EQ(build(), before);
  drag_preset(desk(), 99, End::rear, 0.4, "flag"); // whoever asks
  EXPECT_EQ(build(), before);
}

// ---- lists at their maximum

TEST_F(KeepingTest, AFullListIsSaidAndTheFileStillOpens) {
  for (int i = 0; i < 40; ++i)
    add_preset(desk());
  EXPECT_EQ(build().variant().brief.presets.size(), 24U);
  EXPECT_TRUE(told().contains("24")) << told().toStdString();
  ASSERT_TRUE(window_->save_to(text_of(file())));
  EXPECT_TRUE(build::load(file())) << "what was saved opens";
}

TEST_F(KeepingTest, AChoiceIsNotTakenOverWhereThereIsNoRoom) {
  while (take_variant(desk(), build::Variant{"x", {}, {}, {}, {}, {}})) {
  }
  use_variant(desk(), 0);
  EXPECT_EQ(build().variants.size(), 26U);
  window_->go_to_stage("bags");
  bags()->show_side("search");
  auto* page = window_->findChild<SearchPage*>();
  QSignalSpy done(page, &SearchPage::finished), taken(page, &SearchPage::taken);
  page->start();
  ASSERT_TRUE(done.wait(20000));
  ASSERT_TRUE(page->chosen());
  window_->findChild<QPushButton*>("search_take")->click();
  EXPECT_EQ(taken.count(), 0);
  EXPECT_EQ(build().variants.size(), 26U);
  EXPECT_FALSE(told().startsWith("Taken over")) << told().toStdString();
}

TEST_F(KeepingTest, ASearchsAnswerOutlivesANoteButNotACard) {
  window_->go_to_stage("bags");
  bags()->show_side("search");
  auto* page = window_->findChild<SearchPage*>();
  QSignalSpy done(page, &SearchPage::finished);
  page->start();
  ASSERT_TRUE(done.wait(20000));
  ASSERT_TRUE(page->result());
  ASSERT_FALSE(desk().type("job.notes", "ask about the exhaust"));
  EXPECT_TRUE(page->result()) << "no answer reads the notes";
  air::BagCard card = desk().shelf().bags.front().card;
  card.max_pressure += 1e5;
  ASSERT_TRUE(desk().cards().keep(card));
  EXPECT_FALSE(page->result()) << "every answer reads the cards";
}

// ---- files

TEST_F(KeepingTest, AFileChangedByAnotherIsNotSavedOverWithoutAWord) {
  type("front.right.mass_kg", "433 kg");
  build::Build theirs = build::load(file()).value();
  theirs.job.owner = "Somebody Else";
  ASSERT_TRUE(build::save(theirs, file()));
  answer_next("Cancel");
  EXPECT_FALSE(window_->save_to(text_of(file())));
  EXPECT_EQ(build::load(file())->job.owner, "Somebody Else");
  EXPECT_TRUE(window_->isWindowModified());
  answer_next("Save over it");
  EXPECT_TRUE(window_->save_to(text_of(file())));
  EXPECT_DOUBLE_EQ(build::load(file())->ends[0].corners[1].mass.values.front(), 433);
  type("front.right.mass_kg", "434 kg");
  EXPECT_TRUE(window_->save_to(text_of(file()))) << "our own saving is no change by another";
}

TEST_F(KeepingTest, AReadOnlyFileIsAskedAbout) {
  type("front.right.mass_kg", "433 kg");
  ::chmod(file().c_str(), 0444);
  answer_next("Cancel");
  EXPECT_FALSE(window_->save_to(text_of(file())));
  answer_next("Replace it");
  EXPECT_TRUE(window_->save_to(text_of(file())));
  EXPECT_DOUBLE_EQ(build::load(file())->ends[0].corners[1].mass.values.front(), 433);
}

TEST_F(KeepingTest, ANameThatGetsItsEndingTakesNoOthersPlaceUnasked) {
  build::Build other = build::empty_build();
  other.job.car = "Other";
  ASSERT_TRUE(build::save(other, folder_ / "other.mavrel"));
  answer_next("Cancel");
  EXPECT_FALSE(window_->save_under(text_of(folder_ / "other")));
  EXPECT_EQ(build::load(folder_ / "other.mavrel")->job.car, "Other");
  EXPECT_TRUE(window_->save_under(text_of(folder_ / "new"))) << "nothing is there: nothing is asked";
  EXPECT_TRUE(std::filesystem::exists(folder_ / "new.mavrel"));
}

// ---- recovery

LeftBehind leave_work(const std::filesystem::path& folder, const char* name, const char* car) {
  std::filesystem::create_directories(folder);
  build::Build build = test::demo_build();
  build.job.car = car;
  const auto kept = folder / (std::string(name) + ".mavrel");
  EXPECT_TRUE(build::save(build, kept));
  test::write(folder / (std::string(name) + ".mavrel.from"), "");
  return {kept, {}, {}};
}

TEST_F(KeepingTest, TheOnlyCopyStaysUntilItIsSafeElsewhere) {
  const LeftBehind left = leave_work(recovery(), "left", "Left Behind");
  {
    const test::Fault full(test::Step::write, ENOSPC, 0);
    window_->recover(left);
    EXPECT_FALSE(window_->keeper().wait());
    EXPECT_TRUE(full.struck());
  }
  QCoreApplication::processEvents();
  EXPECT_EQ(build().job.car, "Left Behind");
  EXPECT_TRUE(std::filesystem::exists(left.kept)) << "the disk was full: it is still the only copy";
  window_->keeper().keep_now();
  EXPECT_TRUE(window_->keeper().wait());
  QCoreApplication::processEvents();
  EXPECT_FALSE(std::filesystem::exists(left.kept)) << "kept under our own name: the old copy may go";
}

TEST_F(KeepingTest, RecoveredWorkIsNotSavedOverANewerFileUnasked) {
  LeftBehind left = leave_work(recovery(), "left", "Left Behind");
  left.original = file();
  const auto now = std::filesystem::file_time_type::clock::now();
  std::filesystem::last_write_time(left.kept, now - std::chrono::hours(1));
  std::filesystem::last_write_time(file(), now);
  window_->recover(left);
  EXPECT_EQ(desk().document().question_before_saving(file()), build::Question::changed);
}

TEST_F(KeepingTest, RecoveredWorkIsSavedOverTheFileItWasBegunFrom) {
  LeftBehind left = leave_work(recovery(), "left", "Left Behind");
  left.original = file();
  std::filesystem::last_write_time(file(), std::filesystem::file_time_type::clock::now() - std::chrono::hours(1));
  window_->recover(left);
  EXPECT_EQ(desk().document().question_before_saving(file()), build::Question::none);
}

TEST_F(KeepingTest, AnOlderWriteThatEndsLateFreesNothingTakenOverSince) {
  const LeftBehind left = leave_work(recovery(), "left", "Left Behind");
  ASSERT_FALSE(desk().type("front.left.mass_kg", "433 kg"));
  window_->keeper().keep_now();
  ASSERT_TRUE(window_->keeper().wait()); // it is written; that it was is still to be told
  window_->keeper().discard_when_safe(left);
  QCoreApplication::processEvents();
  EXPECT_TRUE(std::filesystem::exists(left.kept)) << "what was written then was other work: this is the only copy";
  window_->keeper().keep_now();
  ASSERT_TRUE(window_->keeper().wait());
  QCoreApplication::processEvents();
  EXPECT_FALSE(std::filesystem::exists(left.kept));
}

TEST_F(KeepingTest, SeveralLeftoversAreOfferedOneAfterTheOtherAndOutliveOtherNotices) {
  const LeftBehind one = leave_work(recovery(), "one", "One"), two = leave_work(recovery(), "two", "Two");
  window_->offer_left_behind();
  ASSERT_EQ(notice_texts().size(), 1U);
  EXPECT_TRUE(notice_texts().front().contains("unsaved work"));
  EXPECT_FALSE(window_->open_file(text_of(folder_ / "not there.mavrel")));
  ASSERT_EQ(notice_texts().size(), 2U) << "why it did not open, and the offer";
  EXPECT_TRUE(window_->open_file(text_of(file())));
  ASSERT_EQ(notice_texts().size(), 1U) << "the offer stays until it is answered";
  {
    const test::Fault full(test::Step::write, ENOSPC, 0);
    type("front.right.mass_kg", "433 kg");
    EXPECT_FALSE(window_->save_to(text_of(file())));
  }
  EXPECT_EQ(notice_texts().size(), 2U);
  const auto press = [&](const QString& name) {
    for (QPushButton* button : notices()->findChildren<QPushButton*>())
      if (button->isVisible() && button->text() == name) return button->click();
    ADD_FAILURE() << name.toStdString();
  };
  ASSERT_TRUE(window_->save_to(text_of(file())));
  press("Leave it out");
  QCoreApplication::processEvents();
  EXPECT_EQ(std::filesystem::exists(one.kept) + std::filesystem::exists(two.kept), 1) << "one of the two";
  ASSERT_EQ(notice_texts().size(), 1U) << "the next is offered";
  press("Open it");
  EXPECT_TRUE(build().job.car == "One" || build().job.car == "Two");
}

// ---- settings

TEST(KeeperOfMany, OffersTheNewestAndNotEverything) {
  const test::Folder folder;
  for (int i = 0; i < 60; ++i) {
    const auto file = folder / ("left" + std::to_string(i) + ".mavrel");
    std::filesystem::copy_file(test::demo_file(), file);
    std::filesystem::last_write_time(file, std::filesystem::file_time_type::clock::now() - std::chrono::hours(i));
  }
  ASSERT_EQ(::mkfifo((folder / "pipe.mavrel").c_str(), 0600), 0);
  Desk desk(test::demo_shelf());
  const Keeper keeper(desk, folder.path());
  const auto left = keeper.left_behind();
  ASSERT_EQ(left.size(), Keeper::most_left_behind);
  EXPECT_EQ(left.front().kept.filename(), "left0.mavrel");
  EXPECT_EQ(left.back().kept.filename(), "left19.mavrel");
}

TEST(HostileSettings, ThatAreNoneOfOursAreLeftAsTheyAre) {
  const std::filesystem::path file =
      QSettings(QSettings::IniFormat, QSettings::UserScope, "mavrel", "mavrel").fileName().toStdString();
  std::filesystem::create_directories(file.parent_path());
  std::filesystem::remove(file);
  const auto changes = [] {
    Settings settings;
    settings.keep(Look{Theme::night_bay, 1.4});
    EXPECT_EQ(settings.look().scale, 1.4) << "for this session";
  };
  const test::Folder folder;
  test::write(folder / "letter.txt", "Dear Orla,\nthe car is done.\n");
  std::filesystem::create_symlink(folder / "letter.txt", file);
  changes();
  EXPECT_EQ(test::text_of(folder / "letter.txt"), "Dear Orla,\nthe car is done.\n");
  std::filesystem::remove(file);
  ASSERT_EQ(::mkfifo(file.c_str(), 0600), 0);
  changes(); // and does not wait for anybody to write
  EXPECT_TRUE(std::filesystem::is_fifo(file));
  std::filesystem::remove(file);
  // One's own by a link is one's own.
  test::write(folder / "kept.ini", "[look]\ntext=1.2\n");
  std::filesystem::create_symlink(folder / "kept.ini", file);
  EXPECT_EQ(Settings().look().scale, 1.2);
  changes();
  EXPECT_NE(test::text_of(folder / "kept.ini").find("text=1.4"), std::string::npos);
  std::filesystem::remove(file);
}

TEST(HostileSettings, WhateverStandsInThemTheProgramStarts) {
  for (const char* text : {"[look]\ntext=nan\n", "[look]\ntext=inf\ntheme=-7\n", "[look]\ntext=1e999\ntheme=dark\n",
                           "[units]\nlength=99\nfinger_m=nan\npressure=@Invalid()\nmass=\n",
                           "[General]\nrecent=@Variant(\\0\\0)\n", "\x01\x02[[[\n=\n"}) {
    {
      QSettings store(QSettings::IniFormat, QSettings::UserScope, "mavrel", "mavrel");
      std::filesystem::create_directories(std::filesystem::path(store.fileName().toStdString()).parent_path());
      test::write(store.fileName().toStdString(), text);
    }
    const Settings settings;
    EXPECT_TRUE(settings.look().scale >= 0.8 && settings.look().scale <= 2.0) << text;
    EXPECT_TRUE(settings.prefs().finger >= 0.008 && settings.prefs().finger <= 0.03) << text;
    EXPECT_TRUE(settings.look().theme == Theme::primer || settings.look().theme == Theme::night_bay) << text;
    const test::Folder folder;
    MainWindow window(test::demo_shelf(), folder / "recovery");
    window.show();
    QCoreApplication::processEvents();
    EXPECT_TRUE(window.isVisible());
    EXPECT_TRUE(window.open_file(QString::fromStdString(test::demo_file().string()))) << "and works";
  }
  QSettings(QSettings::IniFormat, QSettings::UserScope, "mavrel", "mavrel").clear();
}

// ---- cards

class CardKeepingTest : public KeepingTest {
protected:
  ShelfPage* page() { return bags()->shelf_page(); }
  void SetUp() override {
    KeepingTest::SetUp();
    window_->go_to_stage("bags");
    bags()->show_side("shelf");
  }
  air::BagCard mine(double mass) {
    air::BagCard card = test::demo_shelf().bags.front().card;
    card.name = "Mine M-1";
    card.mass = mass;
    return card;
  }
  void import(const air::BagCard& card) {
    test::write(folder_ / "in.csv", shelf::card_text(card));
    page()->import({text_of(folder_ / "in.csv")});
  }
};

TEST_F(CardKeepingTest, ImportingOverACardOfTheUsersAsksAndCanBeUndone) {
  import(mine(1));
  ASSERT_TRUE(desk().cards().own("Mine M-1"));
  answer_next("Cancel");
  import(mine(2));
  EXPECT_DOUBLE_EQ(desk().cards().own("Mine M-1")->mass, 1) << "kept as it was";
  answer_next("Replace them");
  import(mine(2));
  EXPECT_DOUBLE_EQ(desk().cards().own("Mine M-1")->mass, 2);
  page()->show_bag("Mine M-1");
  page()->undo();
  ASSERT_TRUE(page()->draft());
  EXPECT_DOUBLE_EQ(page()->draft()->mass, 1) << "the one that was replaced";
  answer_next("Replace it");
  window_->findChild<QPushButton*>("card_keep")->click();
  EXPECT_DOUBLE_EQ(desk().cards().own("Mine M-1")->mass, 1) << "and back it is";
}

TEST_F(CardKeepingTest, ACardOfANewerFormatIsNeverOverwritten) {
  std::filesystem::create_directories(folder_ / "shelf");
  const std::string newer = "# mavrel bag card 9\n# name: Mine M-1\n";
  test::write(folder_ / "shelf" / "mine-m-1.csv", newer);
  import(mine(1));
  EXPECT_EQ(test::text_of(folder_ / "shelf" / "mine-m-1.csv"), newer);
  EXPECT_TRUE(desk().cards().own("Mine M-1")) << "it has a file of its own";
}

TEST_F(CardKeepingTest, ABenchTestKeepsItsReadingsUntilTheyAreCleared) {
  window_->findChild<QPushButton*>("card_bench")->click();
  auto* table = window_->findChild<QTableWidget*>("bench_table");
  const auto put = [&](int row, int column, const char* text) {
    table->setItem(row, column, new QTableWidgetItem(text));
  };
  put(0, 0, "100 mm"), put(0, 1, "3000 N"), put(0, 2, "4 bar");
  window_->findChild<QListWidget*>("card_list")->setCurrentRow(2); // looks something up
  window_->findChild<QPushButton*>("card_bench")->click();
  ASSERT_TRUE(table->item(0, 0));
  EXPECT_EQ(table->item(0, 0)->text(), "100 mm");
  answer_next("Clear");
  window_->findChild<QPushButton*>("bench_clear")->click();
  EXPECT_FALSE(table->item(0, 0));
}

// ---- what is shown

TEST_F(KeepingTest, AStageThatKnowsNothingHasAMarkOfItsOwn) {
  desk().document().put(build::empty_build(), {}, true);
  auto* bags = window_->findChild<QToolButton*>("stage_bags");
  EXPECT_TRUE(bags->accessibleName().contains("not known yet")) << bags->accessibleName().toStdString();
  EXPECT_TRUE(window_->findChild<QToolButton*>("stage_car_in")->accessibleName().contains("1 caution"));
}

TEST_F(KeepingTest, ModelsChangeOnlyWhileTheyReset) {
  auto* panel = window_->findChild<FindingsPanel*>();
  auto* model = panel->list()->model();
  QAbstractItemModelTester tester(model, QAbstractItemModelTester::FailureReportingMode::Fatal);
  bool kept = true;
  const int rows = model->rowCount();
  const QString first = model->index(0, 0).data().toString();
  QObject::connect(model, &QAbstractItemModel::modelAboutToBeReset, model,
                   [&] { kept = kept && model->rowCount() == rows && model->index(0, 0).data().toString() == first; });
  ASSERT_FALSE(desk().type("@.brief.bump_travel_m", "120 mm"));
  EXPECT_TRUE(kept) << "before it says so, nothing has changed";
  EXPECT_NE(model->rowCount(), rows);
}

TEST_F(KeepingTest, EveryFindingsPlaceLeadsSomewhere) {
  // Builds with many kinds of trouble between them.
  std::vector<build::Build> builds = {
      build(), build::empty_build(), build::load(std::filesystem::path(MAVREL_DEMO) / "hollin-tarnway.mavrel").value()};
  build::Build bad = build();
  bad.ends[0].wheel = "big ones";
  bad.ends[1].spring_length.values = {0.186, 0.199};
  bad.ends[1].layout = build::Layout::axle_was_leaves;
  bad.ends[1].track.reset();
  bad.ends[0].bag_room = 0.1;
  bad.ends[0].rating = 500;
  bad.body.rating = 500;
  bad.ends[0].bump_stop_gap.values = {0.2};
  bad.ends[0].damper_shut.values = {0.49};
  bad.ends[0].corners[1].floor = 0.02;
  bad.variant().fit[1].sides = build::Sides::joined;
  bad.load_cases[2].masses[1].x = 5;
  bad.variant().brief.lean_wanted = 0.002;
  builds.push_back(bad);
  std::set<std::string> codes;
  for (const build::Build& one : builds) {
    desk().document().put(one, {}, true);
    const auto findings = desk().assessment().findings;
    for (const auto& f : findings) {
      codes.insert(f.code);
      if (f.place.empty()) continue;
      window_->go_to_stage("compare");
      window_->setFocus();
      if (f.end) desk().set_end(*f.end);
      emit desk().went_to(f.stage->key, QString::fromStdString(f.place));
      QWidget* focus = window_->focusWidget();
      EXPECT_TRUE(focus && focus != window_.get()) << f.code << " at " << f.place;
    }
  }
  EXPECT_GT(codes.size(), 20U);
}

} // namespace
} // namespace mavrel::app
