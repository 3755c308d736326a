// Bags and the height posts, with mouse and keyboard: choosing, posing, presets, variants.
#include "window_fixture.h"

#include "app/kit/height_posts.h"
#include "app/stages/bags/bag_table.h"
#include "app/stages/bags/questions/height_sheet.h"
#include "app/stages/compare/compare_page.h"

#include <QHeaderView>

namespace mavrel::app {
namespace {

class BagsTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    key(Qt::Key_2, Qt::ControlModifier);
    QTest::qWait(10);
  }
  BagTable* table() { return window_->findChild<BagTable*>(); }
  HeightSheet* sheet() { return window_->findChild<HeightSheet*>(); }
  HeightPosts* posts() { return window_->findChild<HeightPosts*>(); }
  QModelIndex row(const std::string& bag) {
    const auto* model = static_cast<BagModel*>(table()->model());
    return model->index(model->row_of(bag), 0);
  }
};

TEST_F(BagsTest, ABagIsChosenWithTheMouse) {
  ASSERT_TRUE(sheet()->isVisible());
  const QModelIndex index = row("Fennick R-134");
  ASSERT_TRUE(index.isValid());
  table()->scrollTo(index);
  const std::string before = build().variant().fit[0].bag;
  QTest::mouseClick(table()->viewport(), Qt::LeftButton, {}, table()->visualRect(index).center());
  EXPECT_EQ(build().variant().fit[0].bag, before) << "a click only looks";
  desk().set_pose(build::End::front, *desk().pose(build::End::front) + 0.003);
  QCoreApplication::processEvents();
  EXPECT_EQ(table()->currentIndex().row(), row("Fennick R-134").row()) << "and stays held while the car is posed";
  QTest::mouseDClick(table()->viewport(), Qt::LeftButton, {}, table()->visualRect(row("Fennick R-134")).center());
  EXPECT_EQ(build().variant().fit[0].bag, "Fennick R-134");
  EXPECT_EQ(desk().document().history().undo_name(), "Choose front Fennick R-134");
}

TEST_F(BagsTest, ABagIsChosenWithTheKeyboard) {
  table()->setFocus();
  table()->setCurrentIndex(table()->model()->index(0, 0));
  QTest::keyClick(table(), Qt::Key_Down);
  QTest::keyClick(table(), Qt::Key_Return);
  EXPECT_EQ(build().variant().fit[0].bag, window_->findChild<BagTable*>()->bags().judged(1).bag);
}

TEST_F(BagsTest, TheHeadSortsTheShelf) {
  auto* head = table()->horizontalHeader();
  const int x = head->sectionViewportPosition(BagModel::frequency) + 10;
  QTest::mouseClick(head->viewport(), Qt::LeftButton, {}, QPoint(x, head->height() / 2));
  const BagModel& judged = window_->findChild<BagTable*>()->bags();
  for (int i = 1; i < judged.rowCount() && judged.judged(i).ride_frequency; ++i)
    EXPECT_LE(*judged.judged(i - 1).ride_frequency, *judged.judged(i).ride_frequency);
}

TEST_F(BagsTest, ThePoseIsDraggedOnTheSheetAndReadEverywhere) {
  const auto [top, bottom] = sheet()->band();
  const QImage before = posts()->grab().toImage();
  const QPoint from(sheet()->width() / 2, (top + bottom) / 2);
  QTest::mousePress(sheet(), Qt::LeftButton, {}, from);
  const double pressed = *desk().pose(build::End::front);
  QTest::mouseMove(sheet(), from - QPoint(0, 40));
  QTest::mouseRelease(sheet(), Qt::LeftButton, {}, from - QPoint(0, 40));
  EXPECT_GT(*desk().pose(build::End::front), pressed) << "up the screen is up";
  EXPECT_NE(posts()->grab().toImage(), before) << "the posts follow";
  EXPECT_FALSE(desk().document().history().can_undo()) << "posing changes nothing of the build";
}

TEST_F(BagsTest, ThePoseIsNudgedWithTheKeys) {
  window_->setFocus();
  const double start = *desk().pose(build::End::front);
  key(Qt::Key_Up);
  EXPECT_NEAR(*desk().pose(build::End::front), start + 0.001, 1e-9);
  key(Qt::Key_Down, Qt::ShiftModifier);
  EXPECT_NEAR(*desk().pose(build::End::front), start - 0.009, 1e-9);
  key(Qt::Key_E);
  EXPECT_EQ(desk().end(), build::End::rear);
  const std::size_t held = desk().load_case();
  key(Qt::Key_L);
  EXPECT_NE(desk().load_case(), held);
}

TEST_F(BagsTest, APresetsFlagIsDraggedAsOneStepOfUndo) {
  const auto& presets = build().variant().brief.presets;
  ASSERT_EQ(presets[2].name, "Ramp");
  const double before = desk().assessment().end(build::End::front).presets[2]->height;
  const QPoint from = posts()->flag_rect(build::End::front, 2).center().toPoint();
  QTest::mousePress(posts(), Qt::LeftButton, {}, from);
  for (int i = 1; i <= 10; ++i)
    QTest::mouseMove(posts(), from + QPoint(0, i));
  QTest::mouseRelease(posts(), Qt::LeftButton, {}, from + QPoint(0, 10));
  EXPECT_LT(desk().assessment().end(build::End::front).presets[2]->height, before);
  desk().document().undo();
  EXPECT_NEAR(desk().assessment().end(build::End::front).presets[2]->height, before, 1e-12);
  EXPECT_FALSE(desk().document().history().can_undo());
}

TEST_F(BagsTest, TheStackIsEditedWhereItStands) {
  const double low = desk().assessment().end(build::End::rear).windows.reach->high.height;
  key(Qt::Key_E);
  type("@.rear.upper_stack_m", "5/8\"");
  EXPECT_NEAR(build().variant().fit[1].upper_stack, 0.015875, 1e-12);
  EXPECT_TRUE(desk().assessment().end(build::End::rear).windows.reach->high.height >= low - 1e-9);
}

TEST_F(BagsTest, AVariantIsKeptChangedAndCompared) {
  key(Qt::Key_D, Qt::ControlModifier);
  ASSERT_EQ(build().variants.size(), 4U);
  EXPECT_EQ(build().active_variant, 3U);
  choose_bag(desk(), build::End::front, "Fennick R-118");
  EXPECT_EQ(build().variants[0].fit[0].bag, "Osier O-135") << "the kept design stays";
  key(Qt::Key_0, Qt::ControlModifier);
  EXPECT_TRUE(window_->findChild<ComparePage*>()->isVisible());
  key(Qt::Key_PageDown, Qt::ControlModifier);
  EXPECT_EQ(build().active_variant, 0U);
}

TEST_F(BagsTest, WhatChangedWhileNobodyLookedIsJudgedWhenTheShelfIsShown) {
  window_->go_to_stage("bags");
  QCoreApplication::processEvents();
  const BagModel& judged = window_->findChild<BagTable*>()->bags();
  const auto before = judged.judged(0).ride_frequency;
  ASSERT_TRUE(before);
  window_->go_to_stage("car_in");
  desk().document().put(build::empty_build(), {}, true);
  ASSERT_FALSE(desk().type("front.left.height_m", "378 mm"));
  window_->go_to_stage("bags");
  QCoreApplication::processEvents();
  for (int row = 0; row < judged.rowCount(); ++row) {
    EXPECT_FALSE(judged.judged(row).ride_frequency) << "nobody knows what this car weighs";
    for (const Message& reason : judged.judged(row).reasons)
      EXPECT_EQ(say(reason).find("Ramp"), std::string::npos) << say(reason);
  }
}

} // namespace
} // namespace mavrel::app
