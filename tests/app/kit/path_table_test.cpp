// A table of fields: what a hand and a keyboard do in it.
#include "app/kit/path_table.h"

#include "app/window_fixture.h"
#include "assess/end/end_answer.h"

#include <QHeaderView>

namespace mavrel::app {
namespace {

class PathTableTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    table_ = new PathTable(desk(), "Heights", window_.get());
    table_->setGeometry(200, 150, 500, 200);
    table_->show_rows({"left", "right", "floor"},
                      {{"front", {"front.left.height_m", "front.right.height_m", "front.left.floor_m"}, {}},
                       {"rear", {"rear.left.height_m", "", "+rear.marks:chalk"}, "taken in a hurry"}});
    table_->show();
    table_->raise();
    table_->setFocus();
  }
  QLineEdit* editor() { return qobject_cast<QLineEdit*>(QApplication::focusWidget()); }
  /// A key that ends the editing; the cell takes it with the next round of events.
  void finish(Qt::Key with) {
    QTest::keyClick(editor(), with);
    QCoreApplication::processEvents();
  }
  PathTable* table_ = nullptr; // the window's
};

TEST_F(PathTableTest, ShowsWhatIsThereInTheReadersUnits) {
  EXPECT_EQ(table_->item(0, 0)->text(), QString::fromStdString(desk().field("front.left.height_m").shown));
  EXPECT_FALSE(table_->item(1, 1)->flags() & Qt::ItemIsEditable) << "no such cell";
  EXPECT_TRUE(table_->verticalHeaderItem(1)->text().startsWith("△"));
  EXPECT_EQ(table_->item(1, 0)->toolTip(), "taken in a hurry");
  UnitPrefs inches = desk().prefs();
  inches.length = LengthUnit::inch;
  desk().view().set_prefs(inches);
  EXPECT_TRUE(table_->item(0, 0)->text().contains("in"));
  desk().view().set_prefs({});
}

TEST_F(PathTableTest, TakesTypedUnitsAndGivesThemUp) {
  const build::Build before = build();
  table_->setCurrentCell(0, 0);
  QTest::keyClick(table_, Qt::Key_Return);
  ASSERT_NE(editor(), nullptr);
  editor()->selectAll();
  QTest::keyClicks(editor(), "14 7/8 in");
  finish(Qt::Key_Return);
  EXPECT_NEAR(build().ends[0].corners[0].height.values.at(0), 0.377825, 1e-9);
  // Escape leaves it as it was.
  QTest::keyClick(table_, Qt::Key_Return);
  ASSERT_NE(editor(), nullptr);
  editor()->selectAll();
  QTest::keyClicks(editor(), "400");
  finish(Qt::Key_Escape);
  EXPECT_NEAR(build().ends[0].corners[0].height.values.at(0), 0.377825, 1e-9);
  // Entered and left without a key pressed: no edit, no step of undo.
  const auto steps = build();
  QTest::keyClick(table_, Qt::Key_Return);
  finish(Qt::Key_Return);
  EXPECT_EQ(build(), steps);
  desk().document().undo();
  EXPECT_EQ(build(), before);
}

TEST_F(PathTableTest, TypingBeginsAtOnce) {
  table_->setCurrentCell(0, 1);
  QTest::keyClick(table_, Qt::Key_3);
  ASSERT_NE(editor(), nullptr);
  QTest::keyClicks(editor(), "80");
  finish(Qt::Key_Return);
  EXPECT_NEAR(build().ends[0].corners[1].height.values.at(0), 0.380, 1e-9);
}

TEST_F(PathTableTest, WhatCannotBeTakenIsToldAndNothingChanges) {
  const build::Build before = build();
  QString said;
  QObject listener;
  QObject::connect(&desk(), &Desk::told, &listener, [&](const QString& sentence) { said = sentence; });
  table_->setCurrentCell(0, 0);
  QTest::keyClick(table_, Qt::Key_Return);
  editor()->selectAll();
  QTest::keyClicks(editor(), "knee high");
  finish(Qt::Key_Return);
  EXPECT_EQ(build(), before);
  EXPECT_FALSE(said.isEmpty());
}

TEST_F(PathTableTest, WhatCannotBeTakenStaysByEnterAndByTab) {
  const build::Build before = build();
  table_->setCurrentCell(0, 0);
  QTest::keyClick(table_, Qt::Key_Return);
  editor()->selectAll();
  QTest::keyClicks(editor(), "knee high");
  for (const Qt::Key key : {Qt::Key_Return, Qt::Key_Tab, Qt::Key_Backtab}) {
    finish(key);
    ASSERT_NE(editor(), nullptr);
    EXPECT_EQ(editor()->text(), "knee high");
    EXPECT_EQ(table_->currentRow(), 0);
  }
  editor()->selectAll();
  QTest::keyClicks(editor(), "401 mm");
  finish(Qt::Key_Tab);
  EXPECT_NEAR(build().ends[0].corners[0].height.values.at(0), 0.401, 1e-9) << "put right, it is taken";
}

TEST_F(PathTableTest, EnterGoesDown) {
  table_->setCurrentCell(0, 0);
  QTest::keyClick(table_, Qt::Key_4);
  QTest::keyClicks(editor(), "02");
  finish(Qt::Key_Return);
  EXPECT_EQ(table_->currentRow(), 1);
  EXPECT_EQ(table_->currentColumn(), 0);
}

TEST_F(PathTableTest, WhatIsHalfTypedIsSaved) {
  table_->setCurrentCell(0, 0);
  QTest::keyClick(table_, Qt::Key_4);
  QTest::keyClicks(editor(), "03");
  key(Qt::Key_S, Qt::ControlModifier);
  EXPECT_NEAR(build::load(folder_ / "wayfare.mavrel")->ends[0].corners[0].height.values.at(0), 0.403, 1e-9);
  finish(Qt::Key_Return);
  EXPECT_TRUE(desk().document().may_close()) << "it was taken once";
}

TEST_F(PathTableTest, WhatIsHalfTypedIsOfTheVariantItWasBegunIn) {
  ASSERT_GE(build().variants.size(), 2U);
  table_->show_rows({"stack"}, {{"front", {"@.front.upper_stack_m"}, {}}});
  const auto stacks = [&](std::size_t v) { return build().variants[v].fit[0].upper_stack; };
  const double other = stacks(1);
  table_->setCurrentCell(0, 0);
  QTest::keyClick(table_, Qt::Key_Return);
  ASSERT_NE(editor(), nullptr);
  editor()->selectAll();
  QTest::keyClicks(editor(), "31 mm");
  use_variant(desk(), 1);
  QCoreApplication::processEvents();
  EXPECT_NEAR(stacks(0), 0.031, 1e-9);
  EXPECT_DOUBLE_EQ(stacks(1), other);
  EXPECT_EQ(editor(), nullptr) << "another place is begun anew";
}

TEST_F(PathTableTest, APathThatIsNoFieldYetGoesToItsTaker) {
  QString path, text;
  table_->set_take([&](const QString& p, const QString& t) -> std::optional<QString> {
    path = p, text = t;
    return std::nullopt;
  });
  table_->setCurrentCell(1, 2);
  QTest::keyClick(table_, Qt::Key_Return);
  ASSERT_NE(editor(), nullptr);
  EXPECT_EQ(editor()->text(), "");
  QTest::keyClicks(editor(), "12 mm");
  finish(Qt::Key_Return);
  EXPECT_EQ(path, "+rear.marks:chalk");
  EXPECT_EQ(text, "12 mm");
  path.clear();
  QTest::keyClick(table_, Qt::Key_Return);
  QTest::keyClicks(editor(), "  ");
  finish(Qt::Key_Return);
  EXPECT_EQ(path, "") << "blank makes nothing";
}

TEST_F(PathTableTest, FollowsTheBuildAndGoesToACell) {
  desk().edit("elsewhere", [&] {
    build::Build next = build();
    next.ends[0].corners[0].height.values = {0.4};
    return next;
  }());
  EXPECT_EQ(table_->item(0, 0)->text(), "400 mm");
  EXPECT_TRUE(table_->go_to("front.right.height_m"));
  EXPECT_EQ(table_->currentColumn(), 1);
  EXPECT_FALSE(table_->go_to("front.nothing"));
}

} // namespace
} // namespace mavrel::app
