// The Air stage as its user works in it: a lift looked at, a part changed where it stands, a kit searched for and taken
// over, readings of a leak dropped in, a box dragged, and all of it undone.
#include "app/stages/air/air.h"

#include "app/kit/choice_box.h"
#include "app/kit/path_table.h"
#include "app/stages/air/kit_page.h"
#include "app/stages/air/lift_page.h"
#include "app/stages/air/lift_plot.h"
#include "app/stages/air/room_page.h"
#include "app/stages/air/run_view.h"
#include "app/stages/air/sizing_page.h"
#include "app/stages/air/wet_page.h"
#include "app/window_fixture.h"
#include "shelf/part_file.h"

#include <QComboBox>
#include <QMenu>
#include <QPushButton>
#include <QTableWidget>

#include <map>

namespace mavrel::app {
namespace {

using assess::KitRole;

class AirTest : public WindowTest {
protected:
  AirStage* stage() { return static_cast<AirStage*>(window_->stage("air")); }
  void go(int page) {
    window_->go_to_stage("air");
    stage()->show_page(page);
    QCoreApplication::processEvents();
  }
  template <class T>
  T* named(const char* name) {
    return window_->findChild<T*>(name);
  }
  LiftPage* lift() { return stage()->lift(); }
  RunView* run() { return lift()->run(); }
  void click(const char* name) {
    auto* button = named<QPushButton>(name);
    ASSERT_NE(button, nullptr) << name;
    QTest::mouseClick(button, Qt::LeftButton);
    QCoreApplication::processEvents();
  }
  void wait_for(const std::function<bool()>& done) {
    for (int i = 0; i < 4000 && !done(); ++i)
      QTest::qWait(5);
    ASSERT_TRUE(done());
  }
  /// Once the move that is asked for now has been worked out.
  void wait_for_lift() {
    wait_for([&] { return lift()->is_settled() && lift()->lift() != nullptr; });
  }
  /// A shelf with what the demo car has and one or two of each kind beside it: what is searched is soon through.
  static shelf::Shelf few_parts() {
    const std::string car = test::text_of(test::demo_file());
    shelf::Shelf out = test::demo_shelf();
    std::map<shelf::PartKind, int> there;
    erase_if(out.parts, [&](const shelf::ShelfPart& p) {
      return car.find("\"" + p.part.name + "\"") == std::string::npos && ++there[p.part.kind] > 1;
    });
    return out;
  }
  void choose(KitRole role, const QString& name) {
    run()->setFocus();
    run()->hold(role);
    QTest::keyClick(run(), Qt::Key_Return);
    QCoreApplication::processEvents();
    QMenu* menu = nullptr;
    for (QMenu* one : run()->findChildren<QMenu*>("part_menu"))
      if (one->isVisible()) menu = one;
    ASSERT_NE(menu, nullptr);
    for (QAction* action : menu->actions())
      if (action->text().section(" · ", 0, 0) == name) {
        action->trigger();
        menu->close();
        QCoreApplication::processEvents();
        return;
      }
    FAIL() << name.toStdString() << " is not offered";
  }
};

TEST_F(AirTest, ALiftIsDrawnBesideThePostsAtTheirScale) {
  go(0);
  wait_for_lift();
  EXPECT_TRUE(lift()->lift()->arrived);
  auto* plot = named<LiftPlot>("lift_plot");
  const auto [top, bottom] = plot->band();
  EXPECT_EQ(stage()->band()->second - stage()->band()->first, bottom - top);
  // The curve of the front ends on the pose line of its road height.
  desk().set_pose(End::front, lift()->lift()->target[0]);
  EXPECT_NEAR(plot->scale().y(lift()->lift()->looks.back().height[0]), plot->scale().y(*desk().pose(End::front)), 2);
  EXPECT_FALSE(plot->accessibleDescription().isEmpty());
  EXPECT_TRUE(named<QLabel>("throttled")->text().contains("%"));
}

TEST_F(AirTest, APartIsChangedWhereItStandsByKeyboardAndByMouse) {
  go(0);
  wait_for_lift();
  const double before = *lift()->lift()->arrived;
  choose(KitRole::front_line, "Reed 4/2.5");
  choose(KitRole::front_fitting, "Snap 4");
  EXPECT_EQ(build().variant().air.front_line, "Reed 4/2.5");
  wait_for_lift();
  EXPECT_GT(*lift()->lift()->arrived, before + 0.2);
  EXPECT_TRUE(named<QLabel>("throttled")->text().contains("Reed 4/2.5"));
  // With the mouse: a click on the tank offers tanks.
  QTest::mouseClick(run(), Qt::LeftButton, {}, run()->place_of(KitRole::tank).center().toPoint());
  ASSERT_TRUE(run()->held());
  EXPECT_EQ(*run()->held(), KitRole::tank);
  auto* menu = run()->findChildren<QMenu*>("part_menu").last();
  EXPECT_GE(menu->actions().size(), 9);
  menu->close();
  // Delete takes the relief valve out, and the finding says so.
  run()->hold(KitRole::relief);
  QTest::keyClick(run(), Qt::Key_Delete);
  const auto& findings = desk().assessment().findings;
  EXPECT_TRUE(std::any_of(findings.begin(), findings.end(), [](const auto& f) { return f.code == "air_no_relief"; }));
  while (desk().document().history().can_undo())
    key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(build().variant().air.front_line, "Reed 6/4");
  EXPECT_EQ(build().variant().air.relief, "Sigh 12.5");
}

TEST_F(AirTest, ArrowsGoAlongTheRunOfAir) {
  go(0);
  run()->setFocus();
  run()->hold(KitRole::compressor);
  for (int i = 0; i < static_cast<int>(assess::kit_role_count); ++i)
    QTest::keyClick(run(), Qt::Key_Right);
  EXPECT_EQ(*run()->held(), KitRole::compressor) << "once round";
  QTest::keyClick(run(), Qt::Key_Left);
  EXPECT_EQ(*run()->held(), KitRole::sensor) << "the last of the run";
}

TEST_F(AirTest, OrderAndTurnAreTaken) {
  go(0);
  wait_for_lift();
  const double up = *lift()->lift()->arrived;
  auto* order = lift()->findChild<ChoiceBox*>();
  ASSERT_EQ(order->path(), "@.air.order");
  order->setFocus();
  QTest::keyClick(order, Qt::Key_End); // one corner at a time
  wait_for([&] { return build().variant().air.order == build::MoveOrder::one_by_one; });
  wait_for([&] { return lift()->lift() && lift()->lift()->arrived && *lift()->lift()->arrived > up + 0.5; });
  click("turn_round");
  wait_for(
      [&] { return lift()->lift() && lift()->lift()->target[0] < lift()->lift()->looks.front().height[0] - 0.02; });
}

TEST_F(AirTest, NothingChosenIsSaidAndNotDrawn) {
  desk().document().put(build::empty_build(), {}, true);
  for (const int page : {0, 1, 2, 3, 4, 5}) {
    go(page);
    QTest::qWait(30);
    EXPECT_TRUE(is_painted(window_.get()));
  }
  go(0);
  EXPECT_EQ(lift()->lift(), nullptr);
  go(2);
  click("find_kits");
  wait_for([&] { return named<QPushButton>("find_kits")->text() == "Find kits"; });
  EXPECT_EQ(named<QTableWidget>("kits")->rowCount(), 0);
}

TEST_F(AirTest, TheKitSaysWhatItIsBoughtBy) {
  go(1);
  auto* figures = named<QLabel>("kit_figures");
  wait_for([&] { return figures->text().contains("lifts per tank"); });
  for (const char* words : {"refill after", "four tyres", "compressor runs a day"})
    EXPECT_TRUE(figures->text().contains(words)) << words;
  // A choice is undone like all else.
  auto* circuits = named<ChoiceBox>("choice:@.air.circuits");
  circuits->setFocus();
  QTest::keyClick(circuits, Qt::Key_Home);
  EXPECT_EQ(build().variant().air.circuits, build::Circuits::per_axle);
  const auto& findings = desk().assessment().findings;
  EXPECT_TRUE(
      std::any_of(findings.begin(), findings.end(), [](const auto& f) { return f.code == "air_circuits_sides"; }));
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(build().variant().air.circuits, build::Circuits::per_corner);
  click("add_move");
  EXPECT_EQ(build().variant().brief.air.day.size(), 3U);
}

TEST_F(AirTest, AKitIsSearchedForAndTakenOver) {
  open_window(few_parts());
  go(2);
  type("@.brief.air.current_a", "20 A");
  click("find_kits");
  auto* page = window_->findChild<SizingPage*>();
  wait_for([&] { return page->sizing() != nullptr; });
  auto* table = named<QTableWidget>("kits");
  ASSERT_GT(table->rowCount(), 10);
  EXPECT_TRUE(table->item(0, 0)->text().startsWith("●"));
  const std::size_t variants = build().variants.size();
  table->setCurrentCell(0, 0);
  click("take_kit");
  EXPECT_EQ(build().variants.size(), variants + 1);
  const shelf::Part* pump = desk().shelf().find(shelf::PartKind::compressor, build().variant().air.compressor);
  ASSERT_NE(pump, nullptr);
  EXPECT_LE(shelf::current_of(*pump, 10e5), 20.0);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(build().variants.size(), variants);
}

TEST_F(AirTest, AWishThatNoKitMeetsNamesWhatEachLacks) {
  open_window(few_parts());
  go(2);
  type("@.brief.air.current_a", "2 A");
  click("find_kits");
  auto* page = window_->findChild<SizingPage*>();
  wait_for([&] { return page->sizing() != nullptr; });
  auto* table = named<QTableWidget>("kits");
  ASSERT_GT(table->rowCount(), 0);
  EXPECT_TRUE(table->item(0, 0)->text().startsWith("△"));
  EXPECT_TRUE(table->item(0, 0)->text().contains("draws"));
}

TEST_F(AirTest, ReadingsOfALeakAreDroppedInAndRefusedWithASentence) {
  go(3); // its page stands once somebody looked
  go(0);
  const auto file = folder_ / "night.csv";
  test::write(file, test::text_of(std::filesystem::path(MAVREL_DEMO) / "overnight-rear-right.csv"));
  auto* place = named<QComboBox>("leak_place");
  place->setCurrentIndex(3);
  emit place->activated(3);
  EXPECT_EQ(stage()->take_files({QString::fromStdString(file.string())}).size(), 1);
  auto* page = window_->findChild<WetPage*>();
  ASSERT_TRUE(page->isVisible());
  EXPECT_TRUE(named<QLabel>("leak_words")->text().contains("It leaks")) << page->leak_words().toStdString();
  test::write(file, "time_s,pressure_bar,temperature_c\n0,3,20\n60,3,20\n");
  page->take_file(QString::fromStdString(file.string()));
  EXPECT_TRUE(told().contains("night.csv")) << told().toStdString();
  EXPECT_TRUE(page->leak_words().contains("It leaks")) << "what was there stays";
  // The same of the bag alone: then the line has nothing to do with it.
  place->setCurrentIndex(8);
  emit place->activated(8);
  EXPECT_FALSE(page->leak_words().contains("It leaks")) << "nothing was read there yet";
  test::write(file, test::text_of(std::filesystem::path(MAVREL_DEMO) / "overnight-rear-right.csv"));
  page->take_file(QString::fromStdString(file.string()));
  EXPECT_TRUE(page->leak_words().contains("Of the corner's loss") || page->leak_words().contains("It leaks"));
  place->setCurrentIndex(3);
  emit place->activated(3);
  EXPECT_TRUE(page->leak_words().contains("Of the corner's loss")) << page->leak_words().toStdString();
  auto* climates = named<QTableWidget>("climates");
  wait_for([&] { return climates->rowCount() >= 5; });
}

TEST_F(AirTest, PartsOfAFileGoOnTheUsersShelf) {
  desk().cards().set_folder(folder_ / "shelf");
  go(0);
  shelf::Part part = *desk().shelf().find(shelf::PartKind::tank, "Ambry 12");
  part.name = "Own keg";
  const auto file = folder_ / "mine.parts.json";
  test::write(file, shelf::write_parts({part}));
  EXPECT_EQ(stage()->take_files({QString::fromStdString(file.string())}).size(), 1);
  EXPECT_NE(desk().shelf().find(shelf::PartKind::tank, "Own keg"), nullptr);
  choose(KitRole::tank, "Own keg");
  EXPECT_EQ(build().variant().air.tank, "Own keg");
  test::write(file, "{ not parts");
  (void)stage()->take_files({QString::fromStdString(file.string())});
  EXPECT_TRUE(told().contains("mine.parts.json")) << told().toStdString();
}

TEST_F(AirTest, ABoxIsDraggedAndMovedByArrowsEachUndone) {
  go(5);
  auto* view = named<RoomView>("room_view");
  const auto before = build().variant().air.tank_at;
  int tank = 0;
  for (std::size_t i = 0; i < view->room().boxes.size(); ++i)
    if (view->room().boxes[i].role == KitRole::tank) tank = static_cast<int>(i);
  const QPoint at = view->box_rect(tank, 1).center().toPoint();
  QTest::mousePress(view, Qt::LeftButton, {}, at);
  QTest::mouseMove(view, at + QPoint(-60, -10));
  QTest::mouseMove(view, at + QPoint(-80, -20));
  QTest::mouseRelease(view, Qt::LeftButton, {}, at + QPoint(-80, -20));
  EXPECT_LT(build().variant().air.tank_at.x, before.x - 0.2);
  EXPECT_GT(build().variant().air.tank_at.y, before.y + 0.05);
  const auto& findings = desk().assessment().findings;
  EXPECT_TRUE(std::any_of(findings.begin(), findings.end(), [](const auto& f) { return f.code == "air_box_out"; }));
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(build().variant().air.tank_at, before) << "a drag is one step";
  view->setFocus();
  view->hold(tank);
  QTest::keyClick(view, Qt::Key_Right);
  EXPECT_NEAR(build().variant().air.tank_at.x, before.x + 0.01, 1e-9);
  QTest::keyClick(view, Qt::Key_Up, Qt::ControlModifier);
  EXPECT_NEAR(build().variant().air.tank_at.z, before.z + 0.01, 1e-9);
  type("@.air.tank_at.x_m", "3 m");
  EXPECT_DOUBLE_EQ(build().variant().air.tank_at.x, 3);
}

TEST_F(AirTest, EveryFieldOfTheAirIsSomewhere) {
  for (const char* path :
       {"@.air.tank", "@.air.feeds", "@.air.volts", "@.air.battery_at.x_m", "@.air.valves_at.y_m", "@.air.circuits",
        "@.brief.air.rise_s", "@.brief.air.drive_s", "@.brief.air.day.0.times", "body.boot.length_m", "body.hot.0.x_m"})
    EXPECT_TRUE(stage()->go_to(desk().resolve(path))) << path;
}

TEST_F(AirTest, TheOtherSchoolRunsInTheWindowToo) {
  ASSERT_TRUE(window_->open_file(
      QString::fromStdString((std::filesystem::path(MAVREL_DEMO) / "hollin-tarnway.mavrel").string())));
  go(0);
  wait_for_lift();
  EXPECT_TRUE(lift()->lift()->arrived);
  for (const int page : {1, 3, 4, 5}) {
    go(page);
    QTest::qWait(20);
    EXPECT_TRUE(is_painted(window_.get()));
  }
}

} // namespace
} // namespace mavrel::app
