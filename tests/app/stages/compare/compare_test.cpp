// Two variants side by side, and what becomes of them when the build changes under the page.
#include "app/kit/list_table.h"
#include "app/window_fixture.h"
#include "build/fit_up.h"

#include <QClipboard>

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

TEST_F(CompareTest, ListsWhatAPersonDecidesByFirstAndIsCopiedAndGoneToByKeys) {
  // A copy with another stack and a whole route moved.
  build::Build b = build();
  b.active_variant = 0;
  b.variants[1] = b.variants[0];
  b.variants[1].name = "Other";
  b.variants[1].fit[0].upper_stack = 0.0613;
  ASSERT_FALSE(b.variants[1].fit_up->routes.empty());
  for (build::WayPoint& p : b.variants[1].fit_up.own().routes.front().points)
    p.x += 0.05;
  desk().document().put(b, {}, true);
  QCoreApplication::processEvents();
  auto* list = window_->findChild<ListTable*>("compare_choices");
  ASSERT_EQ(list->rowCount(), 2);
  const auto row_with = [&](const QString& said) {
    for (int r = 0; r < list->rowCount(); ++r)
      if (list->item(r, 1)->text().contains(said)) return r;
    return -1;
  };
  const int stack = row_with("stack"), route = row_with("route");
  ASSERT_GE(stack, 0);
  ASSERT_GE(route, 0);
  EXPECT_LT(stack, route);
  int routes = 0;
  for (int r = 0; r < list->rowCount(); ++r)
    routes += list->item(r, 0)->text() == "fit-up";
  EXPECT_EQ(routes, 1) << "a route that was moved is one difference, not one a coordinate";
  EXPECT_TRUE(list->item(route, 3)->text().contains("elsewhere"));
  list->setFocus();
  list->hold(static_cast<std::size_t>(stack));
  QTest::keyClick(list, Qt::Key_C, Qt::ControlModifier);
  EXPECT_TRUE(QApplication::clipboard()->text().contains("61")) << QApplication::clipboard()->text().toStdString();
  QTest::keyClick(list, Qt::Key_Return);
  QCoreApplication::processEvents();
  EXPECT_TRUE(window_->stage("bags")->isVisible()) << "Enter leads to where it is chosen";
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
