// The Clearance stage as its user works in it: a solid placed and dragged, the pose dragged, the steering locked, a
// tyre swapped, the car driven over a ramp, and all of it undone.
#include "app/stages/clearance/clearance.h"

#include "app/kit/path_table.h"
#include "app/stages/clearance/drive_view.h"
#include "app/stages/clearance/edits.h"
#include "app/stages/clearance/fits_page.h"
#include "app/stages/clearance/gap_sheet.h"
#include "app/stages/clearance/ground_plot.h"
#include "app/stages/clearance/obstacles_panel.h"
#include "app/stages/clearance/section_view.h"
#include "app/stages/clearance/windows_page.h"
#include "app/window_fixture.h"
#include "assess/interference/recheck.h"

#include <QAbstractButton>
#include <QComboBox>
#include <QPushButton>
#include <QSlider>
#include <QTabBar>
#include <QTableWidget>

namespace mavrel::app {
namespace {

class ClearanceTest : public WindowTest {
protected:
  ClearanceStage* stage() { return static_cast<ClearanceStage*>(window_->stage("clearance")); }
  void go(End end, int page = 0) {
    window_->go_to_stage("clearance");
    desk().set_end(end);
    stage()->show_page(page);
    QCoreApplication::processEvents();
  }
  template <class T>
  T* named(const char* name) {
    return window_->findChild<T*>(name);
  }
  SectionView* view() { return named<SectionView>("section_view"); }
  GapSheet* sheet() { return named<GapSheet>("gap_sheet"); }
  void click(const char* name) {
    auto* button = named<QPushButton>(name);
    ASSERT_NE(button, nullptr) << name;
    QTest::mouseClick(button, Qt::LeftButton);
    QCoreApplication::processEvents();
  }
  void wait_for(const std::function<bool()>& done) {
    for (int i = 0; i < 2000 && !done(); ++i)
      QTest::qWait(5);
    ASSERT_TRUE(done());
  }
  void undo_all() {
    while (desk().document().history().can_undo())
      key(Qt::Key_Z, Qt::ControlModifier);
  }
};

TEST_F(ClearanceTest, ASolidIsAddedPlacedByTypingAndByDraggingAndMovesTheWindow) {
  go(End::front);
  const build::Build before = build();
  const auto made = add_obstacle(desk(), End::front, build::ObstacleShape::box);
  ASSERT_TRUE(made);
  auto* panel = window_->findChild<ObstaclesPanel*>();
  panel->hold(made);
  QCoreApplication::processEvents();
  const QString base = QString("front.obstacles.%1.").arg(*made);
  type(base + "name", "spare wheel well");
  type(base + "y_m", "700 mm");
  type(base + "z_m", "0.67 m");
  EXPECT_EQ(build().ends[0].obstacles[*made].name, "spare wheel well");
  EXPECT_NEAR(build().ends[0].obstacles[*made].z, 0.67, 1e-12);
  const auto& reach = desk().assessment().end(End::front).windows.reach;
  ASSERT_TRUE(reach && reach->low.governing);
  EXPECT_EQ(reach->low.governing->near, "spare wheel well") << "it stands over the tyre";
  // From the front it is dragged up out of the way.
  view()->look_from(SectionView::From::front);
  const auto grip = view()->place_of(*made);
  ASSERT_TRUE(grip);
  const double z = build().ends[0].obstacles[*made].z;
  QTest::mousePress(view(), Qt::LeftButton, {}, grip->toPoint());
  QTest::mouseMove(view(), grip->toPoint() + QPoint(0, -20));
  QTest::mouseMove(view(), grip->toPoint() + QPoint(0, -30));
  QTest::mouseRelease(view(), Qt::LeftButton, {}, grip->toPoint() + QPoint(0, -30));
  EXPECT_GT(build().ends[0].obstacles[*made].z, z + 0.01);
  EXPECT_EQ(view()->chosen(), made);
  // And with the arrows, a millimetre a stroke.
  const double up = build().ends[0].obstacles[*made].z;
  view()->setFocus();
  QTest::keyClick(view(), Qt::Key_Up);
  EXPECT_NEAR(build().ends[0].obstacles[*made].z, up + 0.001, 1e-9);
  // One drag is one undo; all of it goes back.
  undo_all();
  EXPECT_EQ(build(), before);
}

TEST_F(ClearanceTest, TheMapIsWorkedOutAndLeadsToItsWorstPlace) {
  go(End::front);
  wait_for([&] { return sheet()->map() != nullptr; });
  EXPECT_TRUE(sheet()->names().contains("liner behind")) << sheet()->names().join(", ").toStdString();
  click("go_to_worst");
  const auto& map = *sheet()->map();
  EXPECT_NEAR(*desk().pose(End::front), map.heights[map.worst / map.steers.size()], 1e-6);
  EXPECT_FALSE(view()->told().isEmpty());
  EXPECT_TRUE(sheet()->summary().startsWith("Worst:")) << sheet()->summary().toStdString();
  // A click in the map poses and steers.
  const QRectF area = sheet()->map_rect();
  auto* steering = named<QSlider>("steer");
  QTest::mouseClick(sheet(), Qt::LeftButton, {}, QPoint(int(area.left()) + 3, int(area.center().y())));
  EXPECT_LT(steering->value(), -15) << "full lock to the right";
  QTest::mouseClick(sheet(), Qt::LeftButton, {}, area.center().toPoint());
  EXPECT_EQ(steering->value(), 0);
}

TEST_F(ClearanceTest, SteeringToFullLockFindsTheLinerWhenParked) {
  go(End::front);
  desk().set_pose(End::front, 0.307);
  auto* steering = named<QSlider>("steer");
  steering->setFocus();
  steering->setValue(0);
  EXPECT_FALSE(view()->told().contains("liner behind")) << view()->told().toStdString();
  steering->setValue(steering->minimum());
  EXPECT_TRUE(view()->told().contains("liner behind")) << view()->told().toStdString();
  EXPECT_TRUE(view()->told().contains("touch"));
}

TEST_F(ClearanceTest, AnotherTyreMakesTheTickedClearancesStale) {
  go(End::front);
  named<QTabBar>("near_tabs")->setCurrentIndex(1);
  QCoreApplication::processEvents();
  auto* list = named<QTableWidget>("recheck_list");
  ASSERT_GT(list->rowCount(), 3);
  list->item(0, 0)->setCheckState(Qt::Checked);
  QCoreApplication::processEvents();
  ASSERT_EQ(build().variant().fit[0].checks.size(), 1U);
  const auto stale = [&] {
    int out = 0;
    for (int r = 0; r < list->rowCount(); ++r)
      out += list->item(r, 0)->text().contains("again");
    return out;
  };
  EXPECT_EQ(stale(), 0);
  type("@.front.wheel", "225/40R18 8.5 ET35");
  QCoreApplication::processEvents();
  EXPECT_EQ(stale(), 1);
  EXPECT_EQ(build().ends[0].wheel, "215/45R17 7.5 ET42") << "the surveyed one stays";
  Field* wheel = field("@.front.wheel");
  wheel->edit()->setFocus();
  wheel->edit()->clear();
  QTest::keyClick(wheel->edit(), Qt::Key_Return);
  QCoreApplication::processEvents();
  EXPECT_EQ(stale(), 0) << "the old wheel is what was looked at";
}

TEST_F(ClearanceTest, AFittingIsChosenOnTheChartAndTakenOver) {
  go(End::front, 1);
  auto* chart = named<FitsChart>("fits_chart");
  wait_for([&] { return chart->cell(0, 0).isValid(); });
  const QRectF cell = chart->cell(40, 10);
  QTest::mouseClick(chart, Qt::LeftButton, {}, cell.center().toPoint());
  ASSERT_TRUE(chart->chosen());
  EXPECT_EQ(chart->chosen()->first, 40U);
  chart->setFocus();
  QTest::keyClick(chart, Qt::Key_Up);
  EXPECT_EQ(chart->chosen()->first, 41U);
  const std::size_t variants = build().variants.size();
  click("take_fitting");
  EXPECT_EQ(build().variants.size(), variants + 1) << "the design it was tried from stays";
  const std::string wheel = build().variant().fit[0].wheel;
  EXPECT_TRUE(wheel.starts_with("215/45R17 ")) << wheel;
  EXPECT_TRUE(motion::parse_wheel(wheel));
  undo_all();
  EXPECT_TRUE(build().variant().fit[0].wheel.empty());
}

TEST_F(ClearanceTest, TheCarIsDrivenOverTheHarbourRamp) {
  go(End::front, 2);
  desk().set_pose(End::front, 0.424);
  desk().set_pose(End::rear, 0.412);
  auto* drive = named<DriveView>("drive_view");
  drive->drive_over(0);
  EXPECT_TRUE(drive->told().contains("lip touches")) << drive->told().toStdString();
  const double worst = drive->at();
  // Dragged to the right it backs away from it.
  QTest::mousePress(drive, Qt::LeftButton, {}, QPoint(200, 80));
  QTest::mouseMove(drive, QPoint(300, 80));
  QTest::mouseMove(drive, QPoint(420, 80));
  QTest::mouseRelease(drive, Qt::LeftButton, {}, QPoint(420, 80));
  EXPECT_LT(drive->at(), worst - 0.3);
  EXPECT_FALSE(drive->told().contains("touches")) << drive->told().toStdString();
  click("drive_to_worst");
  EXPECT_NEAR(drive->at(), worst, 1e-9);
  drive->setFocus();
  QTest::keyClick(drive, Qt::Key_Left);
  EXPECT_NEAR(drive->at(), worst + 0.05, 1e-9);
  // Higher, nothing touches.
  desk().set_pose(End::front, 0.47);
  drive->drive_to_worst();
  EXPECT_FALSE(drive->told().contains("touches")) << drive->told().toStdString();
  auto* plot = named<GroundPlot>("ground_plot");
  wait_for([&] { return plot->answer() != nullptr; });
  EXPECT_TRUE(plot->answer()->planes.at(0).has_value());
  EXPECT_TRUE(named<QLabel>("least_heights")->text().contains("harbour ramp"));
}

TEST_F(ClearanceTest, ARemedyIsTriedAndDone) {
  go(End::front, 3);
  auto* page = window_->findChild<WindowsPage*>();
  wait_for([&] { return page->answer() != nullptr; });
  auto* list = named<QTableWidget>("remedies");
  ASSERT_GT(list->rowCount(), 0);
  const double low = desk().assessment().end(End::front).windows.reach->low.height;
  const double buys = page->answer()->remedies[0].buys;
  list->setCurrentCell(0, 0);
  click("take_remedy");
  EXPECT_NEAR(desk().assessment().end(End::front).windows.reach->low.height, low - buys, 1e-9);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_NEAR(desk().assessment().end(End::front).windows.reach->low.height, low, 1e-9);
  // Every limit is listed, and the parked height proposed where nothing touches at any lock.
  EXPECT_GT(named<QTableWidget>("limits_list")->rowCount(), 6);
  click("propose_parked");
  for (const assess::Finding& f : desk().assessment().findings)
    EXPECT_FALSE(f.code == "too_near_at_preset" && f.end == End::front) << say(f.title);
}

TEST_F(ClearanceTest, LowPointsAndPlacesOfAProfileAreTyped) {
  go(End::front, 2);
  const build::Build before = build();
  auto* table = named<PathTable>("underside_table");
  ASSERT_EQ(table->rowCount(), 6);
  table->setCurrentCell(0, 2);
  QTest::keyClick(table, Qt::Key_Return);
  auto* line = qobject_cast<QLineEdit*>(QApplication::focusWidget());
  ASSERT_NE(line, nullptr);
  line->selectAll();
  QTest::keyClicks(line, "16 cm");
  QTest::keyClick(line, Qt::Key_Return);
  QCoreApplication::processEvents();
  EXPECT_NEAR(build().body.underside[0].z, 0.16, 1e-12);
  // And dragged where they stand.
  auto* drive = named<DriveView>("drive_view");
  drive->drive_over(std::nullopt);
  const auto place = drive->place_of(2);
  ASSERT_TRUE(place);
  const double z = build().body.underside[2].z;
  QTest::mousePress(drive, Qt::LeftButton, {}, place->toPoint());
  QTest::mouseMove(drive, place->toPoint() + QPoint(0, -6));
  QTest::mouseMove(drive, place->toPoint() + QPoint(0, -12));
  QTest::mouseRelease(drive, Qt::LeftButton, {}, place->toPoint() + QPoint(0, -12));
  EXPECT_GT(build().body.underside[2].z, z + 0.02);
  click("add_low_point");
  EXPECT_EQ(build().body.underside.size(), 7U);
  undo_all();
  EXPECT_EQ(build(), before);
}

TEST_F(ClearanceTest, AProfileComesFromAFileAndADamagedOneIsSaid) {
  go(End::front, 2);
  const auto good = folder_ / "yard.csv", bad = folder_ / "bad.csv";
  test::write(good, "x_m,z_m\n0,0\n0.5,0.08\n1.2,0.02\n");
  test::write(bad, "x_m,z_m\n0,0\nhigh,0.08\n");
  const std::size_t had = build().variant().brief.grounds.size();
  EXPECT_EQ(stage()->take_files({QString::fromStdString(good.string())}).size(), 1);
  ASSERT_EQ(build().variant().brief.grounds.size(), had + 1);
  EXPECT_EQ(build().variant().brief.grounds.back().name, "yard");
  EXPECT_EQ(build().variant().brief.grounds.back().points.size(), 3U);
  stage()->take_files({QString::fromStdString(bad.string())});
  EXPECT_EQ(build().variant().brief.grounds.size(), had + 1);
  EXPECT_TRUE(told().contains("Line 3")) << told().toStdString();
}

TEST_F(ClearanceTest, FindingsLeadToTheirPlaces) {
  for (const assess::Finding& f : desk().assessment().findings) {
    if (f.stage != &assess::stages::clearance) continue;
    emit desk().went_to("clearance", QString::fromStdString(f.place));
    QCoreApplication::processEvents();
    EXPECT_TRUE(stage()->isVisible()) << f.code;
    EXPECT_TRUE(stage()->go_to(QString::fromStdString(f.place))) << f.place;
  }
}

TEST_F(ClearanceTest, TheFormShowsWhatAShapeHasAndChoosesByKeyboard) {
  go(End::front);
  auto* panel = window_->findChild<ObstaclesPanel*>();
  panel->hold(1); // a flat face
  QCoreApplication::processEvents();
  EXPECT_NE(field("front.obstacles.1.to_x_m"), nullptr);
  EXPECT_EQ(field("front.obstacles.1.size_x_m"), nullptr);
  auto* shape = named<QComboBox>("obstacle_shape");
  shape->setFocus();
  const int box = shape->findData("box");
  ASSERT_GE(box, 0);
  shape->setCurrentIndex(box);
  emit shape->activated(box);
  QCoreApplication::processEvents();
  EXPECT_EQ(build().ends[0].obstacles[1].shape, build::ObstacleShape::box);
  EXPECT_NE(field("front.obstacles.1.size_x_m"), nullptr);
  EXPECT_EQ(field("front.obstacles.1.to_x_m"), nullptr);
  // What can't be stays as it was, and is said.
  const double before = build().ends[0].obstacles[1].x;
  type("front.obstacles.1.x_m", "a yard");
  EXPECT_EQ(build().ends[0].obstacles[1].x, before);
  // A wanted room of its own.
  type("front.obstacles.1.room_m", "25");
  EXPECT_NEAR(*build().ends[0].obstacles[1].room, 0.025, 1e-12);
  click("remove_obstacle");
  EXPECT_EQ(build().ends[0].obstacles.size(), 4U);
  undo_all();
  EXPECT_EQ(build(), test::demo_whole());
}

TEST_F(ClearanceTest, ObstaclesAreHeldInDrawingAndListAlike) {
  go(End::front);
  view()->look_from(SectionView::From::side);
  QCoreApplication::processEvents();
  auto* list = named<QTableWidget>("obstacles_list");
  list->setCurrentCell(2, 0);
  EXPECT_EQ(view()->chosen(), std::optional<std::size_t>(2));
  view()->setFocus();
  QTest::keyClick(view(), Qt::Key_Tab);
  EXPECT_EQ(view()->chosen(), std::optional<std::size_t>(3));
  EXPECT_EQ(list->currentRow(), 3);
  QTest::keyClick(view(), Qt::Key_Backtab);
  EXPECT_EQ(list->currentRow(), 2);
  const auto grip = view()->place_of(1);
  ASSERT_TRUE(grip);
  QTest::mouseClick(view(), Qt::LeftButton, {}, grip->toPoint());
  EXPECT_EQ(list->currentRow(), 1);
  EXPECT_FALSE(desk().document().history().can_undo()) << "holding is no edit";
  QTest::keyClick(view(), Qt::Key_Escape);
  EXPECT_FALSE(view()->chosen());
}

TEST_F(ClearanceTest, SteeringFollowsItsKeysAndStraightensAtTheOtherEnd) {
  go(End::front);
  auto* steering = named<QSlider>("steer");
  key(Qt::Key_BracketLeft, Qt::ControlModifier);
  EXPECT_GT(steering->value(), 0) << "left";
  key(Qt::Key_BracketRight, Qt::ControlModifier);
  key(Qt::Key_BracketRight, Qt::ControlModifier);
  EXPECT_LT(steering->value(), 0);
  for (int i = 0; i < 8; ++i)
    key(Qt::Key_BracketRight, Qt::ControlModifier);
  EXPECT_EQ(steering->value(), steering->minimum()) << "no further than its lock";
  desk().set_end(End::rear);
  QCoreApplication::processEvents();
  EXPECT_FALSE(steering->isVisible()) << "the rear does not steer";
}

TEST_F(ClearanceTest, RoomWantedIsTypedAndCounts) {
  go(End::front);
  named<QTabBar>("near_tabs")->setCurrentIndex(2);
  QCoreApplication::processEvents();
  const auto low = [&] { return desk().assessment().end(End::front).windows.road->low.height; };
  const double before = low();
  type("@.brief.rooms.tyre_m", "14 mm");
  EXPECT_NEAR(build().variant().brief.rooms.tyre, 0.014, 1e-12);
  ASSERT_TRUE(desk().assessment().end(End::front).windows.road);
  EXPECT_GT(low(), before) << "the liner behind wants more of the road window";
  undo_all();
  EXPECT_EQ(low(), before);
}

TEST_F(ClearanceTest, ThePlaneOfBothHeightsPosesBothEnds) {
  go(End::front, 2);
  auto* plot = named<GroundPlot>("ground_plot");
  const std::array<double, 2> wanted{0.39, 0.40};
  QTest::mouseClick(plot, Qt::LeftButton, {}, plot->place_of(wanted).toPoint());
  EXPECT_NEAR(*desk().pose(End::front), wanted[0], 0.002);
  EXPECT_NEAR(*desk().pose(End::rear), wanted[1], 0.002);
  // With the other end in front its height goes upwards.
  desk().set_end(End::rear);
  QCoreApplication::processEvents();
  QTest::mouseClick(plot, Qt::LeftButton, {}, plot->place_of({0.36, 0.38}).toPoint());
  EXPECT_NEAR(*desk().pose(End::front), 0.36, 0.002);
  EXPECT_NEAR(*desk().pose(End::rear), 0.38, 0.002);
}

TEST_F(ClearanceTest, WhatIsOnTheGroundIsAddedShapedAndRemoved) {
  go(End::front, 2);
  const build::Build before = build();
  auto usual = assess::usual_grounds().at(0);
  add_ground(desk(), usual);
  ASSERT_EQ(build().variant().brief.grounds.size(), 3U);
  named<DriveView>("drive_view")->drive_over(2);
  named<QTabBar>("ground_tabs")->setCurrentIndex(1);
  QCoreApplication::processEvents();
  auto* table = named<PathTable>("profile_table");
  EXPECT_EQ(table->rowCount(), static_cast<int>(usual.points.size()));
  click("add_profile_point");
  EXPECT_EQ(build().variant().brief.grounds[2].points.size(), usual.points.size() + 1);
  type("@.brief.grounds.2.margin_m", "20 mm");
  EXPECT_NEAR(build().variant().brief.grounds[2].margin, 0.020, 1e-12);
  click("remove_ground");
  EXPECT_EQ(build().variant().brief.grounds.size(), 2U);
  undo_all();
  EXPECT_EQ(build(), before);
}

TEST_F(ClearanceTest, WhyNotHigherAsksTheOtherEdgeAndForgetsTheOldAnswer) {
  go(End::front, 3);
  auto* page = window_->findChild<WindowsPage*>();
  wait_for([&] { return page->answer() != nullptr; });
  const double low = page->answer()->edge->height;
  page->ask_why(assess::WhichWindow::reach, assess::WhichEdge::high);
  EXPECT_FALSE(page->answer()) << "an answer to another question is not shown";
  wait_for([&] { return page->answer() != nullptr; });
  EXPECT_GT(page->answer()->edge->height, low);
  // An edit asks anew.
  static_cast<void>(desk().type("@.front.upper_stack_m", "12 mm"));
  EXPECT_FALSE(page->answer());
  wait_for([&] { return page->answer() != nullptr; });
}

TEST_F(ClearanceTest, ItIsAllThereInTheDarkAndInSmallWindowsAndLargeText) {
  for (const Theme theme : {Theme::primer, Theme::night_bay})
    for (const double scale : {1.0, 1.4}) {
      Look look = desk().look();
      look.theme = theme;
      look.scale = scale;
      desk().view().set_look(look);
      window_->resize(1100, 700);
      for (int page = 0; page < 4; ++page) {
        go(End::front, page);
        EXPECT_TRUE(is_painted(stage()));
        for (auto* widget : stage()->findChildren<QWidget*>())
          if (widget->isVisible() && qobject_cast<QPushButton*>(widget)) {
            EXPECT_FALSE(qobject_cast<QPushButton*>(widget)->text().isEmpty() && widget->accessibleName().isEmpty())
                << widget->objectName().toStdString();
          }
      }
    }
}

TEST_F(ClearanceTest, NothingOfItNeedsAnythingToBeMeasured) {
  desk().document().put(build::empty_build(), {}, true);
  for (int page = 0; page < 4; ++page)
    for (const End end : build::both_ends) {
      go(end, page);
      stage()->grab();
    }
  EXPECT_FALSE(named<DriveView>("drive_view")->told().isEmpty());
  EXPECT_TRUE(sheet()->names().isEmpty());
}

} // namespace
} // namespace mavrel::app
