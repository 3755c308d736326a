// The line that says what is next leads on, and the page a window starts with begins a car.
#include "app/shell/next_line.h"
#include "app/shell/start_page.h"
#include "app/window_fixture.h"

#include <QComboBox>
#include <QPushButton>
#include <QStackedWidget>

namespace mavrel::app {
namespace {

class NextLineTest : public WindowTest {
protected:
  NextLine* next() { return named<NextLine>("next_line"); }
  void put(const build::Build& build) {
    desk().document().put(build, {}, true);
    QCoreApplication::processEvents();
  }
  /// The page that is shown.
  StagePage* shown() {
    for (StagePage* one : window_->findChildren<StagePage*>())
      if (one->isVisibleTo(window_.get())) return one;
    return nullptr;
  }
};

TEST_F(NextLineTest, EveryStepLeadsToItsPageOrIsDone) {
  for (const build::Build& car :
       {build::empty_build(), assess::usual_car(assess::usual_for(build::BodyStyle::hatchback)), test::demo_whole(),
        test::pickup_whole()}) {
    put(car);
    int steps = 0;
    while (next()->step() && steps < 120) {
      const assess::NextStep step = *next()->step();
      SCOPED_TRACE(step.id + " " + step.place);
      window_->go_to_stage(step.stage == &assess::stages::car_in ? "bags" : "car_in");
      const build::Build before = build();
      next()->take();
      QCoreApplication::processEvents();
      if (step.does != assess::StepDoes::nothing) {
        EXPECT_FALSE(build() == before) << "it was to be done";
        EXPECT_TRUE(!next()->step() || next()->step()->id != step.id);
      } else {
        EXPECT_EQ(build(), before) << "to go somewhere changes nothing";
        StagePage* const there = shown();
        ASSERT_NE(there, nullptr);
        const QString place = QString::fromStdString(step.place);
        EXPECT_TRUE(there == window_->stage(step.stage->key) || there->owns(place) || there->go_to(place))
            << "nobody is taken there";
        next()->put_off();
      }
      QCoreApplication::processEvents();
      ++steps;
    }
    EXPECT_GT(steps, 4);
  }
}

TEST_F(NextLineTest, PuttingOffIsAnEditThatIsKeptAndUndone) {
  put(build::empty_build());
  const std::string first = next()->step()->id;
  click("put_off");
  EXPECT_NE(next()->step()->id, first);
  EXPECT_FALSE(build().job.put_off.empty()) << "it stays put off in the file";
  action("Show again what was put off")->trigger();
  EXPECT_EQ(next()->step()->id, first);
  action("Undo: Show again what was put off")->trigger();
  EXPECT_NE(next()->step()->id, first);
}

TEST_F(NextLineTest, ByKeyTheNextStepIsTaken) {
  put(build::empty_build());
  window_->go_to_stage("bags");
  key(Qt::Key_Return, Qt::ControlModifier);
  EXPECT_EQ(shown(), window_->stage("car_in"));
  EXPECT_TRUE(car_in()->takes_arrows()) << "the tape is out for the four corners";
}

TEST_F(NextLineTest, ItsWordsAreNeverCut) {
  for (const int width : {1100, 1280, 1900}) {
    window_->resize(width, 800);
    QCoreApplication::processEvents();
    for (const QWidget* one : next()->findChildren<QWidget*>())
      if (one->isVisibleTo(window_.get())) {
        EXPECT_GE(one->width(), one->sizeHint().width()) << one->objectName().toStdString() << " at " << width;
      }
  }
}

TEST_F(NextLineTest, InLargeTextPutOffStaysInReachAndTheTipSaysAll) {
  Look look = desk().look();
  look.scale = 2;
  desk().view().set_look(look);
  for (int i = 0; i < 4; ++i)
    QCoreApplication::processEvents();
  auto* later = named<QPushButton>("put_off");
  EXPECT_LE(later->mapTo(window_.get(), QPoint(later->width(), 0)).x(), window_->width());
  EXPECT_FALSE(named<QPushButton>("next_step")->toolTip().isEmpty());
  desk().view().set_look({});
}

TEST_F(NextLineTest, FromTheStartPageOneGoesBackToTheOpenCar) {
  window_->show_start();
  QTest::keyClick(named<QComboBox>("style"), Qt::Key_Escape);
  QCoreApplication::processEvents();
  EXPECT_FALSE(named<StartPage>("start_page")->isVisibleTo(window_.get()));
  window_->show_start();
  ASSERT_FALSE(desk().type("front.left.mass_kg", "444 kg"));
  EXPECT_FALSE(named<StartPage>("start_page")->isVisibleTo(window_.get())) << "nothing changes out of sight";
}

TEST_F(NextLineTest, TheStartPageBeginsACarByWhatItIs) {
  window_->show_start();
  auto* start = named<StartPage>("start_page");
  ASSERT_TRUE(start->isVisibleTo(window_.get()));
  EXPECT_EQ(shown(), nullptr) << "no form of a car that is not there";
  auto* style = named<QComboBox>("style");
  style->setCurrentIndex(style->findData(static_cast<int>(build::BodyStyle::pickup)));
  EXPECT_EQ(named<QComboBox>("layout_rear")->currentData().toInt(),
            static_cast<int>(build::Layout::axle_parallel_links));
  click("start_usual");
  EXPECT_FALSE(start->isVisibleTo(window_.get()));
  EXPECT_EQ(build().body.style, build::BodyStyle::pickup);
  EXPECT_TRUE(field("front.left.mass_kg")->edit()->toolTip().contains("usual figure"));
  EXPECT_TRUE(field("front.wheel")->edit()->toolTip().contains("usual figure"));
  type("front.left.mass_kg", "612 kg");
  EXPECT_FALSE(field("front.left.mass_kg")->edit()->toolTip().contains("usual figure")) << "that one was taken";
  // A demo car and what was open last are one press away.
  action("New car…")->trigger();
  answer_next("Discard");
  click("hollin-tarnway.mavrel");
  EXPECT_FALSE(build().job.car.empty());
  window_->show_start();
  bool last = false;
  for (const QPushButton* one : start->findChildren<QPushButton*>())
    last = last || one->text() == "hollin-tarnway.mavrel";
  EXPECT_TRUE(last);
}

} // namespace
} // namespace mavrel::app
