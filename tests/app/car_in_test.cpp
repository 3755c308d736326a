// Car in, with mouse and keyboard: readings on the drawing, tape mode, the brief, load cases.
#include "window_fixture.h"

#include "app/shell/finder.h"
#include "app/shell/findings_panel.h"
#include "app/stages/car_in/car_drawing.h"
#include "app/stages/car_in/tape_mode.h"
#include "assess/end/end_answer.h"

#include <QLabel>
#include <QMenuBar>
#include <QTabBar>
#include <QTimer>

namespace mavrel::app {
namespace {

using build::Side;

TEST_F(WindowTest, OpensTheDemoCar) {
  EXPECT_TRUE(window_->windowTitle().contains("Sorrel Wayfare estate"));
  EXPECT_FALSE(window_->isWindowModified());
  ASSERT_NE(field("front.left.mass_kg"), nullptr);
  EXPECT_EQ(field("front.left.mass_kg")->edit()->text(), "419 kg");
  EXPECT_GT(window_->findChild<FindingsPanel*>()->list()->model()->rowCount(), 3);
}

TEST_F(WindowTest, AWeightIsEditedOnTheDrawingAndUndoneByName) {
  const build::Build before = build();
  type("front.left.mass_kg", "950 lb");
  EXPECT_NEAR(build().ends[0].corners[0].mass.values.front(), 950 * 0.45359237, 1e-9);
  EXPECT_EQ(build().ends[0].corners[0].mass.values.size(), 1U);
  EXPECT_TRUE(window_->isWindowModified());
  EXPECT_EQ(desk().document().history().undo_name(), "Change front left weight");
  window_->setFocus();
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(build() == before);
  EXPECT_FALSE(window_->isWindowModified());
  key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_NEAR(build().ends[0].corners[0].mass.values.front(), 950 * 0.45359237, 1e-9);
}

TEST_F(WindowTest, AWrongKindIsRefusedInWordsAndTheLastGoodValueStands) {
  const build::Build before = build();
  for (const char* typed : {"3 kg", "tall", "-40 mm", "1e9 mm", "4 4 4 mm"}) {
    type("front.left.height_m", typed);
    EXPECT_TRUE(build() == before) << typed;
    EXPECT_FALSE(told().isEmpty()) << typed;
    EXPECT_TRUE(window_->isVisible());
  }
  QTest::keyClick(field("front.left.height_m")->edit(), Qt::Key_Escape);
  EXPECT_FALSE(field("front.left.height_m")->edit()->property("wrong").toBool());
  EXPECT_EQ(desk().document().history().can_undo(), false);
}

TEST_F(WindowTest, AReadingIsAddedToThoseThere) {
  type("rear.right.mass_kg", "+ 338.5");
  const auto& values = build().ends[1].corners[1].mass.values;
  ASSERT_EQ(values.size(), 2U);
  EXPECT_DOUBLE_EQ(values[1], 338.5);
  EXPECT_EQ(field("rear.right.mass_kg")->edit()->accessibleName(), "rear right weight");
}

TEST_F(WindowTest, TheDrawingFollowsItsMeasurements) {
  auto* drawing = window_->findChild<CarDrawing*>();
  const QImage before = drawing->grab().toImage();
  const int there = field("rear.left.height_m")->x();
  type("body.wheelbase_m", "3.4 m");
  window_->setFocus();
  QCoreApplication::processEvents();
  EXPECT_NE(drawing->grab().toImage(), before);
  EXPECT_NE(field("rear.left.height_m")->x(), there) << "the rear readings stay over the rear wheel";
}

TEST_F(WindowTest, TapeModeTakesReadingsByKeyboardAlone) {
  build::Build begun = build();
  begun.ends[0].corners[1].height.values.clear();
  desk().edit("clear", begun);
  key(Qt::Key_T, Qt::ControlModifier);
  auto* tape = window_->findChild<TapeMode*>();
  ASSERT_TRUE(tape->isVisible());
  auto* line = tape->findChild<QLineEdit*>();
  const auto place = [&] { return tape->findChild<Field*>()->path().toStdString(); };
  EXPECT_EQ(place(), "front.right.height_m") << "the first reading not taken yet";
  line->selectAll();
  QTest::keyClicks(line, "381; 382");
  QTest::keyClick(line, Qt::Key_Return);
  EXPECT_EQ(place(), "rear.left.height_m") << "the next place lights up";
  EXPECT_EQ(desk().field("front.right.height_m").readings, 2U);
  QTest::keyClick(line, Qt::Key_Up);
  EXPECT_EQ(place(), "front.right.height_m");
  QTest::keyClick(line, Qt::Key_Escape);
  EXPECT_FALSE(tape->isVisible());
}

TEST_F(WindowTest, TapeModeAsksForNothingThatIsNotNeeded) {
  key(Qt::Key_T, Qt::ControlModifier);
  auto* tape = window_->findChild<TapeMode*>();
  for (int i = 0; i < 40 && tape->isVisible(); ++i) {
    EXPECT_NE(tape->findChild<Field*>()->path(), "front.damper_ratio") << "the strut's damper moves with its spring";
    QTest::keyClick(tape->findChild<QLineEdit*>(), Qt::Key_Down);
  }
  EXPECT_FALSE(tape->isVisible()) << "after the last reading it goes back to the car";
}

TEST_F(WindowTest, LoadCasesAreAddedNamedAndCarried) {
  add_load_case(desk());
  const std::size_t last = build().load_cases.size() - 1;
  window_->findChild<QTabBar*>("car_in_tabs")->setCurrentIndex(2);
  QCoreApplication::processEvents();
  type(QString("load_cases.%1.name").arg(last), "On the hitch");
  add_load_mass(desk(), last);
  QCoreApplication::processEvents();
  type(QString("load_cases.%1.masses.0.mass_kg").arg(last), "75 kg");
  type(QString("load_cases.%1.masses.0.behind_front_axle_m").arg(last), "3.9 m");
  const auto& loads = desk().assessment().loads;
  EXPECT_EQ(loads[last].name, "On the hitch");
  EXPECT_NEAR(loads[last].ends[1]->axle_mass - loads[0].ends[1]->axle_mass, 75 * 3.9 / 2.75, 1e-9);
}

TEST_F(WindowTest, AFindingLeadsToItsPlace) {
  auto* list = window_->findChild<FindingsPanel*>()->list();
  int row = -1;
  const auto findings = static_cast<FindingsModel*>(list->model())->findings(); // this stage's first
  for (std::size_t i = 0; i < findings.size(); ++i)
    if (findings[i].code == "readings_spread") row = static_cast<int>(i);
  ASSERT_GE(row, 0);
  list->scrollTo(list->model()->index(row, 0));
  QTest::mouseClick(list->viewport(), Qt::LeftButton, {}, list->visualRect(list->model()->index(row, 0)).center());
  QCoreApplication::processEvents();
  EXPECT_EQ(window_->focusWidget(),
            field(QString::fromStdString(findings[static_cast<std::size_t>(row)].place))->edit());
}

TEST_F(WindowTest, AnEmptyFieldSaysWhatIsTakenInItsPlace) {
  QCoreApplication::processEvents();
  ASSERT_NE(field("front.damper_ratio"), nullptr);
  EXPECT_EQ(field("front.damper_ratio")->edit()->placeholderText(), "as the spring");
  add_load_case(desk()); // any change: the words stay
  EXPECT_EQ(field("front.damper_ratio")->edit()->placeholderText(), "as the spring");
  EXPECT_EQ(field("front.other_spring_rate_n_per_m")->edit()->placeholderText(), "none given");
}

TEST_F(WindowTest, EveryFieldSaysWhatItIs) {
  for (Field* one : window_->findChildren<Field*>()) {
    EXPECT_FALSE(one->edit()->accessibleName().isEmpty()) << one->path().toStdString();
  }
  for (QAction* menu : window_->menuBar()->actions())
    for (QAction* one : menu->menu()->actions())
      EXPECT_TRUE(one->isSeparator() || !one->text().isEmpty());
}

TEST_F(WindowTest, AnythingIsFoundByName) {
  QTimer::singleShot(0, this->window_.get(), [] {
    auto* finder = qobject_cast<Finder*>(QApplication::activeModalWidget());
    ASSERT_NE(finder, nullptr);
    auto* line = finder->findChild<QLineEdit*>();
    QTest::keyClicks(line, "rear wheel");
    QTest::keyClick(line, Qt::Key_Return);
  });
  action("Find anything by name")->trigger();
  QCoreApplication::processEvents();
  EXPECT_EQ(window_->focusWidget(), field("rear.wheel")->edit());
}

} // namespace
} // namespace mavrel::app
