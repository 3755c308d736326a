// A field that is tabbed through, left half typed, refused, or in a window that another one comes in front of.
#include "app/window_fixture.h"
#include "assess/care/origin.h"

namespace mavrel::app {
namespace {

class FieldTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    window_->go_to_stage("car_in");
    QCoreApplication::processEvents();
    QApplication::setActiveWindow(window_.get());
    mass_ = field("front.left.mass_kg");
    ASSERT_NE(mass_, nullptr);
    other_ = field("front.right.mass_kg");
    ASSERT_NE(other_, nullptr);
  }
  [[nodiscard]] double mass() { return build().ends[0].corners[0].mass.values.at(0); }
  Field *mass_ = nullptr, *other_ = nullptr;
};

TEST_F(FieldTest, SeveralReadingsAreTheirMeanAgainOnceItIsLeft) {
  ASSERT_FALSE(desk().type("front.left.mass_kg", "431; 435; 440 kg"));
  const QString shown = mass_->edit()->text();
  mass_->edit()->setFocus(Qt::TabFocusReason);
  EXPECT_TRUE(mass_->edit()->text().contains(';')) << "every reading, to be edited";
  other_->edit()->setFocus(Qt::TabFocusReason);
  EXPECT_EQ(mass_->edit()->text(), shown);
}

TEST_F(FieldTest, TheSameFigureTakesItsUnit) {
  ASSERT_FALSE(desk().type("front.left.mass_kg", "433 kg"));
  mass_->edit()->setFocus(Qt::TabFocusReason);
  mass_->edit()->selectAll();
  QTest::keyClicks(mass_->edit(), "433");
  QTest::keyClick(mass_->edit(), Qt::Key_Return);
  EXPECT_TRUE(mass_->edit()->text().contains("kg")) << mass_->edit()->text().toStdString();
}

TEST_F(FieldTest, AnotherWindowInFrontTakesNoHalfOfAFigure) {
  ASSERT_FALSE(desk().type("front.left.mass_kg", "433 kg"));
  mass_->edit()->setFocus(Qt::TabFocusReason);
  mass_->edit()->selectAll();
  QTest::keyClicks(mass_->edit(), "43");
  QFocusEvent gone(QEvent::FocusOut, Qt::ActiveWindowFocusReason);
  QApplication::sendEvent(mass_->edit(), &gone);
  EXPECT_DOUBLE_EQ(mass(), 433) << "43 of 433 was typed";
  EXPECT_EQ(mass_->edit()->text(), "43");
  QFocusEvent back(QEvent::FocusIn, Qt::ActiveWindowFocusReason);
  QApplication::sendEvent(mass_->edit(), &back);
  EXPECT_EQ(mass_->edit()->text(), "43") << "and goes on when somebody comes back";
  QTest::keyClicks(mass_->edit(), "9");
  QTest::keyClick(mass_->edit(), Qt::Key_Return);
  EXPECT_DOUBLE_EQ(mass(), 439);
}

TEST_F(FieldTest, WhatTabCanNotTakeStaysAndSaysWhy) {
  const double before = mass();
  mass_->edit()->setFocus(Qt::TabFocusReason);
  mass_->edit()->selectAll();
  QTest::keyClicks(mass_->edit(), "heavy");
  QTest::keyClick(mass_->edit(), Qt::Key_Tab);
  EXPECT_FALSE(mass_->edit()->hasFocus());
  EXPECT_EQ(mass_->edit()->text(), "heavy");
  EXPECT_TRUE(mass_->edit()->property("wrong").toBool());
  EXPECT_DOUBLE_EQ(mass(), before);
  // It is asked about, or given up, never silently gone.
  mass_->edit()->setFocus(Qt::TabFocusReason);
  EXPECT_EQ(mass_->edit()->text(), "heavy");
  QTest::keyClick(mass_->edit(), Qt::Key_Escape);
  EXPECT_FALSE(mass_->edit()->property("wrong").toBool());
  other_->edit()->setFocus(Qt::TabFocusReason);
  EXPECT_DOUBLE_EQ(mass(), before);
}

TEST_F(FieldTest, AFigureOfAnotherCarIsMarkedInItsVeryFieldUntilItIsMeasured) {
  build::Build other = test::demo_build();
  other.job.number = "W-07";
  desk().document().put(assess::begun_from(other, "w-07.mavrel", "2026-12-01"), {}, true);
  QCoreApplication::processEvents();
  EXPECT_TRUE(mass_->edit()->toolTip().contains("W-07")) << mass_->edit()->toolTip().toStdString();
  const QImage marked = mass_->grab().toImage();
  ASSERT_FALSE(desk().type("front.left.mass_kg", "437 kg"));
  EXPECT_FALSE(mass_->edit()->toolTip().contains("W-07"));
  EXPECT_TRUE(other_->edit()->toolTip().contains("W-07")) << "that one is still another car's";
  EXPECT_FALSE(marked == mass_->grab().toImage());
}

} // namespace
} // namespace mavrel::app
