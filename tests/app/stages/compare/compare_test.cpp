// Two variants side by side, and what becomes of them when the build changes under the page.
#include "app/window_fixture.h"

namespace mavrel::app {
namespace {

class CompareTest : public WindowTest {
protected:
  /// A variant more, and the page that compares.
  void SetUp() override {
    WindowTest::SetUp();
    if (build().variants.size() < 2) key(Qt::Key_D, Qt::ControlModifier);
    ASSERT_GE(build().variants.size(), 2U);
    window_->go_to_stage("compare");
    QCoreApplication::processEvents();
    ASSERT_TRUE(window_->stage("compare")->isVisible());
  }
  [[nodiscard]] bool compares() { return window_->stage("compare")->isVisible(); }
};

TEST_F(CompareTest, IsPaintedWithBothNames) {
  EXPECT_TRUE(is_painted(window_->stage("compare")));
}

TEST_F(CompareTest, AnotherCarWithOneVariantIsNotComparedWithTheLast) {
  ASSERT_TRUE(window_->open_file(QStringLiteral(MAVREL_DEMO) + "/hollin-tarnway.mavrel"));
  QCoreApplication::processEvents();
  if (build().variants.size() < 2) {
    EXPECT_FALSE(compares()) << "there is nothing to compare: the page is left";
  }
  EXPECT_TRUE(is_painted(window_.get())) << "and nothing of the last car is asked for";
  EXPECT_FALSE(window_->stage("compare")->grab().isNull());
}

TEST_F(CompareTest, IsLeftWhenOnlyOneVariantIsLeft) {
  while (build().variants.size() > 1)
    ASSERT_TRUE(desk().remove_entry("Remove a variant", QString("variants.%1").arg(build().variants.size() - 1)));
  QCoreApplication::processEvents();
  EXPECT_FALSE(compares());
  EXPECT_TRUE(window_->stage("car_in")->isVisible());
  window_->stage("compare")->grab(); // asks of it what a repaint would
  key(Qt::Key_Z, Qt::ControlModifier);
  window_->go_to_stage("compare");
  EXPECT_TRUE(compares()) << "undone, it can be gone to again";
  EXPECT_TRUE(is_painted(window_->stage("compare")));
}

} // namespace
} // namespace mavrel::app
