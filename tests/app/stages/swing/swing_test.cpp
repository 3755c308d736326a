// The Swing stage as its user works in it: a sheet typed, a joint dragged, a bracket turned, and all of it undone.
#include "app/stages/swing/swing.h"

#include "app/kit/path_table.h"
#include "app/stages/swing/cycle_tape.h"
#include "app/stages/swing/edits.h"
#include "app/stages/swing/end_view.h"
#include "app/stages/swing/joints_panel.h"
#include "app/stages/swing/motion_sheet.h"
#include "app/window_fixture.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QPushButton>
#include <QTabBar>

namespace mavrel::app {
namespace {

class SwingTest : public WindowTest {
protected:
  SwingStage* swing() { return static_cast<SwingStage*>(window_->stage("swing")); }
  void go(End end) {
    window_->go_to_stage("swing");
    desk().set_end(end);
    QCoreApplication::processEvents();
  }
  void open_pickup() {
    const auto file = folder_ / "tarnway.mavrel";
    std::filesystem::copy_file(std::filesystem::path(MAVREL_DEMO) / "hollin-tarnway.mavrel", file);
    ASSERT_TRUE(window_->open_file(QString::fromStdString(file.string())));
  }
  EndView* view() { return window_->findChild<EndView*>("end_view"); }
  template <class T = PathTable>
  T* named(const char* name) {
    return window_->findChild<T*>(name);
  }
  QAbstractButton* button(const QString& text) {
    for (auto* one : swing()->findChildren<QAbstractButton*>())
      if (one->text() == text && one->isVisible()) return one;
    return nullptr;
  }
  /// Types into a cell as a person does.
  void type_cell(PathTable* table, int row, int column, const QString& text) {
    table->setCurrentCell(row, column);
    QTest::keyClick(table, Qt::Key_Return);
    auto* line = qobject_cast<QLineEdit*>(QApplication::focusWidget());
    ASSERT_NE(line, nullptr);
    line->selectAll();
    QTest::keyClicks(line, text);
    QTest::keyClick(line, Qt::Key_Return);
    QCoreApplication::processEvents();
  }
  void undo_all() {
    while (desk().document().history().can_undo())
      key(Qt::Key_Z, Qt::ControlModifier);
  }
  const assess::Finding* found(const char* code, End end) {
    for (const assess::Finding& f : desk().assessment().findings)
      if (f.code == code && f.end == end) return &f;
    return nullptr;
  }
};

TEST_F(SwingTest, ASheetIsTypedByKeyboardAloneAndMovesTheWindows) {
  build::Build bare = build();
  bare.ends[1].cycle = {};
  desk().edit("no sheet", bare);
  const build::Build before = build();
  go(End::rear);
  EXPECT_EQ(desk().assessment().end(End::rear).spring_from, assess::MapSource::single_reading);
  const double reach = desk().assessment().end(End::rear).windows.reach->high.height;
  key(Qt::Key_J, Qt::ControlModifier);
  auto* line = named<QLineEdit>("cycle_line");
  ASSERT_TRUE(line->isVisible());
  auto* tape = named<CycleTape>("cycle_tape");
  const auto enter = [&](const QString& text) {
    line->selectAll();
    QTest::keyClicks(line, text);
    QTest::keyClick(line, Qt::Key_Return);
  };
  const char* rows[][2] = {{"320", "130"}, {"345", "152"}, {"370", "172 mm"}, {"400", "7 5/8 in"}, {"425", "208.5"}};
  for (const auto& [H, spring] : rows) {
    EXPECT_EQ(tape->asked(), "height");
    enter(H);
    EXPECT_EQ(tape->asked(), "spring");
    enter(spring);
    enter(""); // no damper, camber or toe today
    enter("");
    enter("");
  }
  ASSERT_EQ(build().ends[1].cycle.size(), 5U);
  EXPECT_NEAR(*build().ends[1].cycle[3].spring, 0.193675, 1e-9);
  EXPECT_FALSE(build().ends[1].cycle[0].damper);
  EXPECT_EQ(desk().assessment().end(End::rear).spring_from, assess::MapSource::cycle_sheet);
  EXPECT_NE(desk().assessment().end(End::rear).windows.reach->high.height, reach);
  EXPECT_TRUE(tape->sheet()->names().contains("spring seats")) << "the curve grows beside it";
  QTest::keyClick(line, Qt::Key_Escape);
  EXPECT_FALSE(line->isVisible());
  // Undo walks back out of every reading.
  int steps = 0;
  while (!(build() == before) && steps++ < 40)
    key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(build(), before);
}

TEST_F(SwingTest, TapeModeSaysWhatIsWrongAndKeepsWhatIsTyped) {
  go(End::rear);
  swing()->begin_tape();
  auto* line = named<QLineEdit>("cycle_line");
  const std::size_t rows = build().ends[1].cycle.size();
  for (const char* text : {"", "soon", "9 m", "-3"}) {
    line->clear();
    QTest::keyClicks(line, text);
    QTest::keyClick(line, Qt::Key_Return);
    EXPECT_EQ(build().ends[1].cycle.size(), rows) << text;
    EXPECT_EQ(line->text(), text);
  }
  line->clear();
  QTest::keyClicks(line, "360");
  QTest::keyClick(line, Qt::Key_Return);
  ASSERT_EQ(build().ends[1].cycle.size(), rows + 1);
  QTest::keyClicks(line, "far");
  QTest::keyClick(line, Qt::Key_Return);
  EXPECT_EQ(named<CycleTape>("cycle_tape")->asked(), "spring") << "it goes on only with what can be taken";
  // The row under way is undone from under it: the next begins with its height.
  QTest::keyClick(line, Qt::Key_Escape);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(build().ends[1].cycle.size(), rows);
}

TEST_F(SwingTest, TheDoubtfulRowIsMeasuredAgainAndTheConflictIsGone) {
  go(End::rear);
  swing()->show_panel("cycle");
  ASSERT_NE(found("cycle_measure_again", End::rear), nullptr);
  ASSERT_NE(found("ratio_doubtful", End::rear), nullptr);
  auto* table = named("cycle_table");
  EXPECT_TRUE(table->verticalHeaderItem(6)->text().contains("△")) << "marked, and not by colour alone";
  type_cell(table, 6, 1, "199 mm");
  EXPECT_EQ(found("cycle_measure_again", End::rear), nullptr);
  EXPECT_EQ(found("ratio_doubtful", End::rear), nullptr);
  EXPECT_NEAR(*desk().assessment().end(End::rear).motion_ratio, 0.715, 0.02);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_NE(found("cycle_measure_again", End::rear), nullptr);
}

TEST_F(SwingTest, CellsTakeTypedUnitsAndRefuseWhatIsNone) {
  go(End::front);
  swing()->show_panel("cycle");
  auto* table = named("cycle_table");
  type_cell(table, 0, 1, "4 3/4 in");
  EXPECT_NEAR(*build().ends[0].cycle[0].spring, 0.12065, 1e-9);
  type_cell(table, 0, 1, "a bit");
  EXPECT_EQ(qobject_cast<QLineEdit*>(QApplication::focusWidget())->text(), "a bit") << "it stays, to be put right";
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Escape);
  QCoreApplication::processEvents();
  EXPECT_NEAR(*build().ends[0].cycle[0].spring, 0.12065, 1e-9);
  EXPECT_FALSE(told().isEmpty());
  type_cell(table, 0, 4, "0.1"); // toe was not taken
  EXPECT_TRUE(build().ends[0].cycle[0].toe);
  type_cell(table, 0, 4, " ");
  EXPECT_FALSE(build().ends[0].cycle[0].toe) << "blank clears what may be absent";
  // A gap that this row has no reading of yet.
  const int gap = table->columnCount() - 1;
  ASSERT_TRUE(table->horizontalHeaderItem(gap)->text().contains("tyre"));
  const std::size_t before = build().ends[0].cycle[7].gaps.size();
  type_cell(table, 7, gap, "71");
  ASSERT_EQ(build().ends[0].cycle[7].gaps.size(), before + 1);
  EXPECT_NEAR(build().ends[0].cycle[7].gaps.back().value, 0.071, 1e-9);
  undo_all();
  EXPECT_EQ(build(), test::demo_whole());
}

TEST_F(SwingTest, TheRightSideHasASheetOfItsOwn) {
  go(End::front);
  swing()->show_panel("cycle");
  const build::Build before = build();
  const double ratio = *desk().assessment().end(End::front).motion_ratio;
  QTest::mouseClick(button("Right"), Qt::LeftButton);
  EXPECT_EQ(named("cycle_table")->rowCount(), 0);
  for (const auto& [H, spring] : {std::pair{0.30, 0.105}, {0.34, 0.149}, {0.38, 0.193}, {0.42, 0.237}}) {
    ASSERT_TRUE(add_cycle_row(desk(), End::front, H, true));
    const int row = named("cycle_table")->rowCount() - 1;
    type_cell(named("cycle_table"), row, 1, QString::number(spring * 1e3));
  }
  EXPECT_EQ(build().ends[0].cycle_right.size(), 4U);
  EXPECT_EQ(build().ends[0].cycle, before.ends[0].cycle);
  // 1.10 on the right against about 0.97 on the left: the map goes by their mean, and it is said.
  EXPECT_NEAR(*desk().assessment().end(End::front).motion_ratio, (ratio + 1.10) / 2, 0.01);
  EXPECT_NE(found("sides_move_differently", End::front), nullptr);
  undo_all();
  EXPECT_EQ(build(), before);
}

TEST_F(SwingTest, TheBenchsSumsAnswerUnderTheirFields) {
  open_pickup();
  go(End::rear);
  swing()->show_panel("sums");
  auto* said = named<QLabel>("bench_sums");
  ASSERT_NE(said, nullptr);
  type("@.rear.workshop.rail_gap_m", "85 mm");
  EXPECT_TRUE(said->text().contains("notch")) << said->text().toStdString();
  type("@.rear.workshop.link_length_m", "655");
  type("@.rear.workshop.end_a_m", "48");
  type("@.rear.workshop.end_b_m", "52");
  type("@.rear.workshop.thread_length_m", "60");
  type("@.rear.workshop.thread_diameter_m", "16");
  EXPECT_TRUE(said->text().contains("555")) << said->text().toStdString();
  type("@.rear.workshop.thread_length_m", "30");
  EXPECT_TRUE(said->text().contains("△")) << "too little thread is said, and not by colour alone";
  undo_all();
}

TEST_F(SwingTest, RowsAreAddedAndDropped) {
  go(End::front);
  swing()->show_panel("cycle");
  const std::size_t rows = build().ends[0].cycle.size();
  QTest::mouseClick(button("Add a row"), Qt::LeftButton);
  ASSERT_EQ(build().ends[0].cycle.size(), rows + 1);
  EXPECT_EQ(named("cycle_table")->currentRow(), static_cast<int>(rows));
  QTest::mouseClick(button("Drop"), Qt::LeftButton);
  EXPECT_EQ(build().ends[0].cycle.size(), rows);
  // The list's maximum is said, not stepped over.
  for (std::size_t i = rows; i < 60; ++i)
    ASSERT_TRUE(add_cycle_row(desk(), End::front, 0.35));
  EXPECT_FALSE(add_cycle_row(desk(), End::front, 0.35));
  EXPECT_TRUE(told().contains("60"));
}

TEST_F(SwingTest, AJointIsDraggedWithTheMouse) {
  open_pickup();
  go(End::front);
  const build::Build before = build();
  const auto at = view()->place_of("spring_foot");
  ASSERT_TRUE(at);
  const double ratio = *desk().assessment().end(End::front).motion_ratio;
  QTest::mousePress(view(), Qt::LeftButton, {}, at->toPoint());
  EXPECT_EQ(view()->chosen(), "spring_foot");
  for (int i = 1; i <= 8; ++i)
    QTest::mouseMove(view(), at->toPoint() + QPoint(-2 * i, 0));
  QTest::mouseRelease(view(), Qt::LeftButton, {}, at->toPoint() + QPoint(-16, 0));
  EXPECT_LT(*desk().assessment().end(End::front).motion_ratio, ratio - 0.01) << "further in, it moves less";
  ASSERT_TRUE(desk().document().history().can_undo());
  EXPECT_EQ(desk().document().history().undo_name(), "Move spring, lower seat");
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(build(), before) << "one drag is one step";
}

TEST_F(SwingTest, JointsAreChosenAndMovedByKeyboardInEveryView) {
  open_pickup();
  go(End::front);
  const build::Build before = build();
  view()->setFocus();
  QTest::keyClick(view(), Qt::Key_Tab);
  ASSERT_EQ(view()->chosen(), "lower_front");
  const auto place = [&] { return build().ends[0].points->left[0]; };
  const auto pose = desk().pose(End::front);
  QTest::keyClick(view(), Qt::Key_Right);
  EXPECT_NEAR(place().y, before.ends[0].points->left[0].y + 0.001, 1e-12);
  QTest::keyClick(view(), Qt::Key_Up, Qt::ShiftModifier);
  EXPECT_NEAR(place().z, before.ends[0].points->left[0].z + 0.010, 1e-12);
  EXPECT_EQ(desk().pose(End::front), pose) << "the arrows are the joint's while one is held";
  view()->look_from(EndView::From::side);
  QTest::keyClick(view(), Qt::Key_Left, Qt::AltModifier);
  EXPECT_NEAR(place().x, before.ends[0].points->left[0].x + 0.0001, 1e-12) << "the front is at the left";
  view()->look_from(EndView::From::above);
  QTest::keyClick(view(), Qt::Key_Down);
  EXPECT_NEAR(place().x, before.ends[0].points->left[0].x - 0.0009, 1e-12);
  QTest::keyClick(view(), Qt::Key_Escape);
  EXPECT_EQ(view()->chosen(), "");
  undo_all();
  EXPECT_EQ(build(), before);
}

TEST_F(SwingTest, TheDrawingAndTheTableHoldTheSameJoint) {
  open_pickup();
  go(End::front);
  swing()->show_panel("joints");
  auto* table = named("joints_table");
  table->setCurrentCell(2, 1);
  EXPECT_EQ(view()->chosen(), "lower_outer");
  view()->choose("upper_outer");
  EXPECT_EQ(table->currentRow(), 5);
}

TEST_F(SwingTest, AJointTypedOntoAnotherIsNamedAndNothingElseBreaks) {
  open_pickup();
  go(End::front);
  swing()->show_panel("joints");
  auto* table = named("joints_table");
  for (int column = 0; column < 3; ++column)
    type_cell(table, 2, column, table->item(0, column)->text());
  ASSERT_NE(found("joints_unusable", End::front), nullptr);
  EXPECT_TRUE(table->verticalHeaderItem(2)->text().contains("△"));
  EXPECT_TRUE(desk().assessment().end(End::front).has_domain());
  window_->grab();
  undo_all();
  EXPECT_EQ(found("joints_unusable", End::front), nullptr);
}

TEST_F(SwingTest, UsualJointsAreAStartAndTheRightSideMayBeItsOwn) {
  go(End::rear);
  const build::Build before = build();
  swing()->show_panel("joints");
  QTest::mouseClick(button("Usual places"), Qt::LeftButton);
  EXPECT_EQ(build().ends[1].points->left.size(), 7U) << "a trailing arm's";
  measure_right_side(desk(), End::rear, true);
  ASSERT_EQ(build().ends[1].points->right.size(), 7U);
  EXPECT_NEAR(build().ends[1].points->right[0].y, -build().ends[1].points->left[0].y, 1e-12);
  window_->grab();
  undo_all();
  EXPECT_EQ(build(), before);
}

TEST_F(SwingTest, ABracketIsTurnedUntilThePresetStands) {
  open_pickup();
  go(End::front);
  swing()->show_panel("mounting");
  const build::Build before = build();
  ASSERT_NE(found("preset_outside", End::front), nullptr) << "level brackets do not let it park";
  type("@.front.mounting.lower.across_angle_rad", "-7°");
  EXPECT_NEAR(*build().variant().fit[0].mounting.lower.across_angle, -7 * 3.14159265 / 180, 1e-6);
  EXPECT_EQ(found("preset_outside", End::front), nullptr);
  type("@.front.mounting.lower.across_angle_rad", "0");
  EXPECT_NE(found("preset_outside", End::front), nullptr);
  QTest::mouseClick(button("Stand it straight"), Qt::LeftButton);
  EXPECT_FALSE(build().variant().fit[0].mounting.lower.across_angle);
  EXPECT_EQ(found("preset_outside", End::front), nullptr);
  undo_all();
  EXPECT_EQ(build(), before);
}

TEST_F(SwingTest, FindingsLeadToTheCellThatMendsThem) {
  emit desk().went_to("swing", "rear.cycle.6.spring_m");
  QCoreApplication::processEvents();
  EXPECT_EQ(desk().end(), End::rear);
  EXPECT_EQ(named("cycle_table")->currentRow(), 6);
  EXPECT_TRUE(named("cycle_table")->hasFocus());
  emit desk().went_to("swing", "front.hose.length_m");
  QCoreApplication::processEvents();
  ASSERT_NE(field("front.hose.length_m"), nullptr);
  EXPECT_TRUE(field("front.hose.length_m")->edit()->hasFocus());
}

TEST_F(SwingTest, SheetsAndJointsAreDroppedAndExported) {
  go(End::front);
  const build::Build before = build();
  test::write(folder_ / "sheet.csv", "height_mm,spring_mm\n320,140\n350,168\n380,197\n410,225\n");
  EXPECT_EQ(swing()->take_files({QString::fromStdString((folder_ / "sheet.csv").string())}).size(), 1);
  EXPECT_EQ(build().ends[0].cycle.size(), 4U);
  test::write(folder_ / "joints.csv", "joint,x_mm,y_mm,z_mm\nlower_front,40,370,210\nlower_rear,-270,385,210\n");
  swing()->take_files({QString::fromStdString((folder_ / "joints.csv").string())});
  EXPECT_EQ(build().ends[0].points->left.size(), 2U);
  // What nobody can read is told and changes nothing.
  const build::Build now = build();
  for (const char* text :
       {"height_mm,spring_mm\n320,wide\n", "joint,x_mm\nlower_front,1\n", "\xff\xfe", "", "a,b\n1\n"}) {
    test::write(folder_ / "bad.csv", text);
    swing()->take_files({QString::fromStdString((folder_ / "bad.csv").string())});
    EXPECT_EQ(build(), now) << text;
    EXPECT_FALSE(told().isEmpty());
  }
  // A bag card goes to the shelf.
  EXPECT_TRUE(
      swing()
          ->take_files({QString::fromStdString((std::filesystem::path(MAVREL_DEMO) / "shelf/osier-o135.csv").string())})
          .isEmpty());
  const auto out = folder_ / "out.csv";
  EXPECT_TRUE(write_cycle(desk(), End::front, QString::fromStdString(out.string())));
  EXPECT_EQ(test::text_of(out), "height_mm,spring_mm\n320,140\n350,168\n380,197\n410,225\n");
  EXPECT_TRUE(write_joints(desk(), End::front, QString::fromStdString(out.string())));
  EXPECT_NE(test::text_of(out).find("lower_rear,-270,385,210"), std::string::npos);
  EXPECT_FALSE(write_cycle(desk(), End::front, "/nowhere/at/all.csv"));
  undo_all();
  EXPECT_EQ(build(), before);
}

TEST_F(SwingTest, TracksSayWhatTheNextCentimetreCostsAndTurnTheirPages) {
  open_pickup();
  go(End::front);
  auto* sheet = window_->findChildren<MotionSheet*>().back();
  for (auto* one : window_->findChildren<MotionSheet*>())
    if (one->isVisible()) sheet = one;
  ASSERT_TRUE(sheet->names().contains("motion ratio"));
  EXPECT_TRUE(sheet->names().contains("bag tilt"));
  const auto [page, pages] = sheet->page();
  EXPECT_EQ(page, 0);
  EXPECT_GT(pages, 1);
  const QStringList first = sheet->names();
  key(Qt::Key_M, Qt::ControlModifier);
  EXPECT_NE(sheet->names(), first);
  for (int i = 1; i < pages; ++i)
    key(Qt::Key_M, Qt::ControlModifier);
  EXPECT_EQ(sheet->names(), first) << "round and back";
}

TEST_F(SwingTest, AnEmptyBuildShowsTheStageWithoutAnything) {
  desk().document().put(build::empty_build(), {}, true);
  go(End::front);
  for (const char* panel : {"cycle", "joints", "mounting", "runs", "sums"}) {
    swing()->show_panel(panel);
    window_->grab();
  }
  swing()->begin_tape();
  window_->grab();
  EXPECT_FALSE(view()->place_of("lower_front")) << "no height, no pose";
}

} // namespace
} // namespace mavrel::app
