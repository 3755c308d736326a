// The Leveling stage as its user works in it: ways of keeping the height driven side by side, their numbers changed,
// tuned and taken over, a sensor placed and dragged, presets read, and a car on the bench worked by hand until the link
// goes.
#include "app/stages/leveling/leveling.h"

#include "app/kit/chips.h"
#include "app/kit/choice_box.h"
#include "app/kit/height_posts.h"
#include "app/kit/hold_bar.h"
#include "app/stages/leveling/bench_page.h"
#include "app/stages/leveling/drive_page.h"
#include "app/stages/leveling/drive_plot.h"
#include "app/stages/leveling/sensor_page.h"
#include "app/stages/leveling/sensor_view.h"
#include "app/stages/leveling/store_page.h"
#include "app/stages/leveling/tuning_page.h"
#include "app/window_fixture.h"

#include <QComboBox>
#include <QLabel>
#include <QListWidget>
#include <QLocalServer>
#include <QLocalSocket>
#include <QProcess>
#include <QPushButton>
#include <QTableWidget>

namespace mavrel::app {
namespace {

class LevelingTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    // A short drive: what comes of it is tried below the window.
    ASSERT_FALSE(desk().type("drive.duration_s", "1 min"));
    ASSERT_FALSE(desk().type("drive.events.0.at_s", "20 s"));
  }
  LevelingStage* stage() { return static_cast<LevelingStage*>(window_->stage("leveling")); }
  void go(int page) {
    window_->go_to_stage("leveling");
    stage()->show_page(page);
    QCoreApplication::processEvents();
  }
  void wait_for_drives() {
    wait_for([&] { return stage()->drive()->is_settled() && stage()->drive()->drives() != nullptr; });
  }
  const build::Leveling& leveling() { return build().variant().leveling; }
  BenchLink& bench() { return stage()->bench()->bench(); }
};

TEST_F(LevelingTest, WaysAreDrivenSideBySideAndPickedByMouseAndKeyboard) {
  go(0);
  wait_for_drives();
  auto* table = named<QTableWidget>("drives");
  ASSERT_EQ(table->rowCount(), 3);
  EXPECT_TRUE(table->item(0, 0)->text().contains("●")) << "the car gets the first";
  EXPECT_TRUE(table->item(0, 1)->text().endsWith("mm"));
  // The plot's scale is the posts': a line drawn across both is one height.
  auto* plot = named<DrivePlot>("drive_plot");
  EXPECT_EQ(plot->scale().low, desk().height_range().first);
  EXPECT_TRUE(plot->accessibleDescription().contains("Bursts, four sensors"));
  table->setFocus();
  QTest::keyClick(table, Qt::Key_Down);
  EXPECT_EQ(stage()->drive()->picked(), 1U);
  EXPECT_TRUE(plot->accessibleDescription().contains("Until it is there"));
  auto* strips = named<ErrorStrips>("error_strips");
  QTest::mouseClick(strips, Qt::LeftButton, Qt::NoModifier, QPoint(strips->width() / 2, strips->height() - 10));
  EXPECT_EQ(stage()->drive()->picked(), 2U);
  // Another is given to the car, and that undone.
  click("gets_this");
  EXPECT_EQ(leveling().set_up().name, "By pressure");
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(leveling().set_up().name, "Bursts, four sensors");
}

TEST_F(LevelingTest, AnotherRoadIsAnotherDrive) {
  go(0);
  wait_for_drives();
  const double before = stage()->drive()->drives()->driven[0].result.together.mean_error;
  type("drive.seed", "8");
  EXPECT_FALSE(stage()->drive()->is_settled()) << "what was driven was another road";
  wait_for_drives();
  EXPECT_NE(stage()->drive()->drives()->driven[0].result.together.mean_error, before);
  // A seed that is none is refused, and the drive stays.
  Field* seed = field("drive.seed");
  QTest::mouseClick(seed->edit(), Qt::LeftButton);
  seed->edit()->selectAll();
  QTest::keyClicks(seed->edit(), "a lucky one");
  QTest::keyClick(seed->edit(), Qt::Key_Return);
  EXPECT_EQ(build().drive.seed, 8);
  key(Qt::Key_Escape);
}

TEST_F(LevelingTest, AnEventIsLookedAtCloser) {
  go(0);
  wait_for_drives();
  auto* plot = named<DrivePlot>("drive_plot");
  EXPECT_NEAR(plot->axis().until - plot->axis().from, 60, 0.1);
  auto* span = named<QComboBox>("drive_span");
  ASSERT_EQ(span->count(), 3);
  EXPECT_EQ(span->itemText(1), "Two people in the back");
  span->setFocus();
  QTest::keyClick(span, Qt::Key_Down);
  QTest::keyClick(span, Qt::Key_Down); // the warm noon, which this short drive does not come to
  QTest::keyClick(span, Qt::Key_Up);
  EXPECT_EQ(plot->axis().from, 0);
  EXPECT_GT(plot->axis().until, 59);
  type("drive.duration_s", "4 min");
  wait_for_drives();
  span->setFocus();
  QTest::keyClick(span, Qt::Key_Up);
  QTest::keyClick(span, Qt::Key_Down);
  EXPECT_NEAR(plot->axis().until, 170, 0.1) << "from half a minute before to two and a half after";
}

TEST_F(LevelingTest, WithoutAKitItSaysWhereToBegin) {
  go(0);
  auto empty = desk().build();
  empty.variant().air = {};
  desk().edit("without", empty);
  wait_for([&] { return stage()->drive()->is_settled(); });
  EXPECT_EQ(stage()->drive()->drives(), nullptr);
  EXPECT_TRUE(named<DrivePlot>("drive_plot")->accessibleDescription().contains("Air"));
}

TEST_F(LevelingTest, EveryNumberIsChangedWhereItStandsAndUndone) {
  go(1);
  type("@.leveling.set_ups.0.band_m", "3mm");
  type("@.leveling.set_ups.0.gain_s_per_m", "9");
  EXPECT_DOUBLE_EQ(leveling().set_ups[0].rules.band, 0.003);
  EXPECT_DOUBLE_EQ(*leveling().set_ups[0].rules.gain, 9);
  // What a method does not go by is not there to be typed.
  EXPECT_EQ(field("@.leveling.set_ups.0.pressure_band_pa"), nullptr);
  EXPECT_NE(field("@.leveling.set_ups.2.pressure_band_pa"), nullptr);
  EXPECT_EQ(field("@.leveling.set_ups.2.gain_s_per_m"), nullptr);
  click("add_way");
  ASSERT_EQ(leveling().set_ups.size(), 4U);
  QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete); // the panel was made anew
  EXPECT_FALSE(named<QPushButton>("add_way")->isEnabled()) << "four are the most";
  for (int i = 0; i < 3; ++i)
    key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(leveling().set_ups.size(), 3U);
  EXPECT_DOUBLE_EQ(leveling().set_ups[0].rules.band, 0.005);
  EXPECT_FALSE(leveling().set_ups[0].rules.gain);
}

TEST_F(LevelingTest, EventsAreAddedFilledInAndTakenAway) {
  go(1);
  const std::size_t before = build().drive.events.size();
  click("add_pass");
  ASSERT_EQ(build().drive.events.size(), before + 1);
  const QString at = QString("drive.events.%1.").arg(before);
  type(at + "altitude_m", "900 m");
  EXPECT_DOUBLE_EQ(build().drive.events[before].altitude, 900);
  EXPECT_EQ(field(at + "mass_kg"), nullptr);
  key(Qt::Key_Z, Qt::ControlModifier);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(build().drive.events.size(), before);
}

TEST_F(LevelingTest, TunedNumbersAreTakenOverInOneStep) {
  go(2);
  desk().set_load_case(0);
  ASSERT_FALSE(desk().type("drive.duration_s", "0.4 min"));
  QCoreApplication::processEvents();
  click("tune");
  wait_for([&] { return stage()->tuning()->tuning() != nullptr; });
  const assess::Tuning& t = *stage()->tuning()->tuning();
  std::size_t other = 0;
  for (std::size_t i = 1; i < t.points.size(); ++i)
    if (t.points[i].best) other = i;
  ASSERT_GT(other, 0U);
  const control::Rules wanted = t.points[other].rules;
  stage()->tuning()->pick(other);
  click("take_numbers");
  EXPECT_EQ(leveling().set_ups[0].rules, wanted);
  EXPECT_NE(stage()->tuning()->tuning(), nullptr) << "its own numbers change nothing that it read";
  ASSERT_FALSE(desk().type("drive.duration_s", "0.5 min"));
  QCoreApplication::processEvents();
  EXPECT_EQ(stage()->tuning()->tuning(), nullptr) << "what was driven was another stretch";
  key(Qt::Key_Z, Qt::ControlModifier);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(leveling().set_ups[0].rules.band, 0.005);
  click("try_parts");
  wait_for([&] { return stage()->tuning()->other_parts() != nullptr; });
  EXPECT_GT(named<QTableWidget>("other_parts")->rowCount(), 2);
}

TEST_F(LevelingTest, ASensorIsDraggedNudgedAndItsBestLeverTaken) {
  go(3);
  desk().set_end(End::front);
  SensorView* view = stage()->sensor()->view();
  const build::SensorFit before = leveling().sensors[0];
  const QPoint from = view->grip_at(SensorView::Grip::shaft)->toPoint();
  QTest::mousePress(view, Qt::LeftButton, Qt::NoModifier, from);
  QTest::mouseMove(view, from + QPoint(-12, -8));
  QTest::mouseMove(view, from + QPoint(-24, -16));
  QTest::mouseRelease(view, Qt::LeftButton, Qt::NoModifier, from + QPoint(-24, -16));
  EXPECT_LT(*leveling().sensors[0].pivot_y, *before.pivot_y - 0.02);
  EXPECT_GT(*leveling().sensors[0].pivot_z, *before.pivot_z + 0.01);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(leveling().sensors[0], before) << "a drag is one step";
  view->setFocus();
  QTest::keyClick(view, Qt::Key_Up);
  EXPECT_NEAR(*leveling().sensors[0].pivot_z, *before.pivot_z + 0.001, 1e-9);
  QTest::keyClick(view, Qt::Key_Space);
  QTest::keyClick(view, Qt::Key_Left, Qt::ShiftModifier);
  EXPECT_NEAR(*leveling().sensors[0].pickup_y, *before.pickup_y - 0.01, 1e-9);
  click("best_lever_0");
  const assess::SensorAtEnd& now = (*desk().assessment().leveling.given().sensors)[0];
  EXPECT_NEAR(now.linkage->lever, now.better.front().linkage.lever, 1e-9);
  EXPECT_FALSE(now.flips);
  // A rod that is too short is told, in the findings too.
  type("@.leveling.front_sensor.rod_m", "60mm");
  EXPECT_TRUE(named<QLabel>("sensor_words")->text().contains("do not reach"));
  bool found = false;
  for (const auto& f : desk().assessment().findings)
    found = found || f.code == "level_sensor_reach";
  EXPECT_TRUE(found);
}

TEST_F(LevelingTest, ASensorThatNobodyPlacedIsPutWhereItUsuallySits) {
  go(3);
  desk().set_end(End::rear);
  build::Build none = build();
  none.variant().leveling.sensors[1] = {};
  desk().edit("none", none);
  QCoreApplication::processEvents();
  EXPECT_FALSE(stage()->sensor()->view()->grip_at(SensorView::Grip::pickup));
  click("place_sensor");
  const assess::SensorAtEnd& now = (*desk().assessment().leveling.given().sensors)[1];
  ASSERT_TRUE(now.linkage);
  EXPECT_FALSE(now.trouble || now.flips);
}

TEST_F(LevelingTest, WhatIsStoredIsReadWithItsStepsInOrder) {
  go(4);
  wait_for([&] { return stage()->store()->calibration() != nullptr; });
  auto* stored = named<QTableWidget>("stored");
  ASSERT_EQ(stored->rowCount(), 3);
  EXPECT_TRUE(stored->item(0, 0)->text().startsWith("1. Road"));
  EXPECT_TRUE(stored->item(0, 3)->text().endsWith("bar"));
  EXPECT_EQ(named<QTableWidget>("bursts")->rowCount(), 4);
  EXPECT_TRUE(named<QLabel>("must_be_true")->text().contains("Level floor"));
  EXPECT_TRUE(named<QLabel>("steps_to_store")->text().contains("Road: bring it to 357 mm front"));
}

TEST_F(LevelingTest, ThePlayedCarIsWorkedByHandSeenOnThePostsAndRecorded) {
  go(5);
  EXPECT_FALSE(stage()->bench()->bar()->isEnabled());
  click("bench_play");
  wait_for([&] { return bench().standing() == BenchLink::Standing::open && bench().state() != nullptr; });
  ASSERT_TRUE(bench().hello());
  EXPECT_EQ(bench().hello()->circuits.size(), 4U);
  wait_for([&] { return desk().view().live().has_value(); });
  EXPECT_NEAR(*desk().view().live()->height[0], 0.357, 0.01);
  const QString csv = QString::fromStdString((folder_ / "run.csv").string());
  stage()->bench()->record(csv);
  auto* valves = named<QListWidget>("bench_valves");
  ASSERT_EQ(valves->count(), 8);
  valves->setCurrentRow(4); // RL, air in
  const double before = *bench().state()->height[2];
  HoldBar* bar = stage()->bench()->bar();
  bar->setFocus();
  QTest::keyPress(bar, Qt::Key_Space);
  EXPECT_TRUE(bench().is_held());
  QTest::qWait(900); // longer than the watchdog: it is asked for again and again
  EXPECT_EQ(bench().state()->valves[2], control::ValveOrder::fill);
  QTest::keyRelease(bar, Qt::Key_Space);
  EXPECT_FALSE(bench().is_held());
  wait_for([&] { return bench().state()->valves[2] == control::ValveOrder::shut; });
  EXPECT_GT(*bench().state()->height[2], before + 0.005);
  // A hand that goes elsewhere lets go.
  QTest::mousePress(bar, Qt::LeftButton);
  EXPECT_TRUE(bench().is_held());
  valves->setFocus();
  EXPECT_FALSE(bench().is_held());
  QTest::mouseRelease(bar, Qt::LeftButton);
  // While the controller has the valves the bar is nobody's.
  click("bench_controller");
  EXPECT_FALSE(bar->isEnabled());
  click("bench_controller");
  EXPECT_TRUE(bar->isEnabled());
  click("bench_record");
  const std::string written = test::text_of(csv.toStdString());
  EXPECT_EQ(written.rfind("time_s,height_fl_m", 0), 0U);
  EXPECT_GT(std::count(written.begin(), written.end(), '\n'), 8);
  EXPECT_NE(written.find("fill"), std::string::npos);
  click("bench_link");
  EXPECT_EQ(bench().standing(), BenchLink::Standing::shut);
  EXPECT_FALSE(desk().view().live());
}

TEST_F(LevelingTest, TheRigEndsWithTheCarThatItPlays) {
  for (const bool other_car : {false, true}) {
    go(5);
    click("bench_play");
    wait_for([&] { return bench().standing() == BenchLink::Standing::open && bench().state() != nullptr; });
    if (other_car)
      ASSERT_TRUE(window_->open_file(QStringLiteral(MAVREL_DEMO) + "/hollin-tarnway.mavrel"));
    else
      key(Qt::Key_PageDown, Qt::ControlModifier);
    QCoreApplication::processEvents();
    EXPECT_NE(bench().standing(), BenchLink::Standing::open) << "what it shows is of another car";
    EXPECT_FALSE(desk().view().live());
    EXPECT_TRUE(told().contains("another car")) << told().toStdString();
  }
}

TEST_F(LevelingTest, ASerialPortIsHeardLikeASocket) {
  go(5);
  QProcess rig;
  rig.start(MAVREL_RIG, {QString::fromStdString(test::demo_file().string()), "--terminal"});
  ASSERT_TRUE(rig.waitForReadyRead(8000));
  const QString port = QString::fromUtf8(rig.readLine()).trimmed().section(' ', 1);
  ASSERT_TRUE(port.startsWith("/dev/pts/")) << port.toStdString();
  bench().open(port);
  wait_for([&] { return bench().state() != nullptr; });
  EXPECT_EQ(bench().standing(), BenchLink::Standing::open);
  bench().hold("RR", control::ValveOrder::vent);
  wait_for([&] {
    return bench().hello() && bench().state()->valves.size() == 4 &&
           bench().state()->valves[3] == control::ValveOrder::vent;
  });
  bench().release();
  wait_for([&] { return bench().state()->valves[3] == control::ValveOrder::shut; });
  rig.terminate();
  rig.waitForFinished(3000);
  wait_for([&] { return bench().standing() == BenchLink::Standing::lost; });
}

TEST_F(LevelingTest, ALostLinkLetsEveryValveGoAndSaysSo) {
  go(5);
  const QString path = QString::fromStdString((folder_ / "own").string());
  QLocalServer server;
  ASSERT_TRUE(server.listen(path));
  bench().open(path);
  wait_for([&] { return server.hasPendingConnections() || server.waitForNewConnection(1); });
  QLocalSocket* logger = server.nextPendingConnection();
  logger->write("not a line of ours\n{\"hello\": \"x\", \"version\": 1, \"name\": \"own\", \"circuits\": [{\"name\": "
                "\"front\", \"corners\": [\"FL\", \"FR\"]}]}\n{\"t_s\": 1, \"height_m\": {\"FL\": 0.34}}\n");
  logger->flush();
  wait_for([&] { return bench().state() != nullptr; });
  EXPECT_TRUE(told().contains("no JSON object"));
  stage()->bench()->bar()->setFocus();
  QTest::keyPress(stage()->bench()->bar(), Qt::Key_Space);
  wait_for([&] { return logger->bytesAvailable() > 0 || logger->waitForReadyRead(1); });
  EXPECT_TRUE(logger->readAll().contains("\"open\":\"front\""));
  logger->abort();
  wait_for([&] { return bench().standing() == BenchLink::Standing::lost; });
  EXPECT_FALSE(bench().is_held());
  EXPECT_FALSE(stage()->bench()->bar()->isEnabled());
  EXPECT_TRUE(named<QLabel>("bench_standing")->text().contains("all valves are let go"));
  EXPECT_FALSE(desk().view().live());
  // A flood is heard, and does not stop the window.
  bench().open(path);
  wait_for([&] { return server.hasPendingConnections() || server.waitForNewConnection(1); });
  QLocalSocket* flood = server.nextPendingConnection();
  QByteArray much(200000, 'x');
  much += '\n';
  for (int i = 0; i < 20000; ++i)
    much += "{\"t_s\": " + QByteArray::number(i * 0.001) + ", \"height_m\": {\"RR\": 0.4}}\n";
  flood->write(much);
  wait_for([&] {
    flood->flush();
    return bench().state() && bench().state()->time > 19.9;
  });
  EXPECT_EQ(bench().standing(), BenchLink::Standing::open);
  bench().shut();
  // One that only falls silent is lost too.
  bench().open(path);
  wait_for([&] { return server.hasPendingConnections() || server.waitForNewConnection(1); });
  server.nextPendingConnection()->write("{\"t_s\": 1}\n");
  wait_for([&] { return bench().standing() == BenchLink::Standing::open; });
  wait_for([&] { return bench().standing() == BenchLink::Standing::lost; });
  bench().open(QString::fromStdString((folder_ / "nothing").string()));
  EXPECT_EQ(bench().standing(), BenchLink::Standing::lost);
  EXPECT_TRUE(bench().trouble().contains("no socket and no serial port"));
}

TEST_F(LevelingTest, FindingsLeadToTheirFields) {
  build::Build b = build();
  b.variant().leveling.set_ups[0].rules.wait = 1;
  b.variant().leveling.sensors[1].counts = 20;
  desk().edit("worse", b);
  for (const auto& f : desk().assessment().findings)
    if (f.code == "level_wait_short" || f.code == "level_sensor_coarse") {
      window_->go_to_stage("leveling");
      EXPECT_TRUE(stage()->go_to(QString::fromStdString(f.place))) << f.place;
    }
  EXPECT_EQ(desk().end(), End::rear) << "the coarse one is the rear's";
}

} // namespace
} // namespace mavrel::app
