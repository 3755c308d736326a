// How sure, in the real window: answers with their doubt, what carries it, bands on the posts, tools set in one place.
#include "app/stages/doubt/doubt_page.h"

#include "app/desk/sureness.h"
#include "app/kit/height_posts.h"
#include "app/stages/car_in/tape_mode.h"
#include "app/window_fixture.h"

#include <QCheckBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QTableWidget>

namespace mavrel::app {
namespace {

class DoubtTest : public WindowTest {
protected:
  void go() {
    window_->go_to_stage("doubt");
    QCoreApplication::processEvents();
    wait_for([&] { return Sureness::of(desk()).doubt() != nullptr; }, 30000);
    QCoreApplication::processEvents();
  }
  QTableWidget* table(const char* name) { return window_->findChild<QTableWidget*>(name); }
};

TEST_F(DoubtTest, AnswersStandWithTheirDoubtAndWhatCarriesIt) {
  EXPECT_EQ(Sureness::of(desk()).doubt(), nullptr) << "nobody asked yet";
  go();
  ASSERT_GT(table("doubt_answers")->rowCount(), 8);
  EXPECT_TRUE(table("doubt_answers")->item(0, 1)->text().contains("±"));
  EXPECT_GT(table("doubt_carried")->rowCount(), 0);
  auto* posts = window_->findChild<HeightPosts*>();
  EXPECT_TRUE(posts->accessibleDescription().contains("±"));
  // Another answer, other readings.
  int presets = 0;
  for (int r = 0; r < table("doubt_answers")->rowCount(); ++r)
    presets += !table("doubt_answers")->item(r, 3)->text().isEmpty();
  EXPECT_GT(presets, 2);
  table("doubt_answers")->setCurrentCell(table("doubt_answers")->rowCount() - 1, 0);
  QTest::mouseClick(window_->findChild<QPushButton*>("measure_again"), Qt::LeftButton);
  QCoreApplication::processEvents();
}

TEST_F(DoubtTest, TapeModeWalksWhatIsToBeMeasuredAgain) {
  go();
  const auto* doubt = Sureness::of(desk()).doubt();
  int row = -1;
  for (int r = 0; r < table("doubt_answers")->rowCount(); ++r)
    if (table("doubt_answers")->item(r, 0)->text() == desk().words_of(doubt->find("front.reach.low")->words)) row = r;
  ASSERT_GE(row, 0);
  table("doubt_answers")->setCurrentCell(row, 0);
  QTest::mouseClick(window_->findChild<QPushButton*>("walk_again"), Qt::LeftButton);
  QCoreApplication::processEvents();
  auto* tape = window_->findChild<TapeMode*>();
  ASSERT_TRUE(tape->isVisible());
  const std::string path = tape->place().toStdString();
  EXPECT_TRUE(path == "front.left.height_m" || path == "front.bump_stop_gap_m") << path;
  QTest::keyClick(tape->findChild<QLineEdit*>(), Qt::Key_Escape);
  EXPECT_FALSE(tape->isVisible());
}

TEST_F(DoubtTest, AnEditIsWorkedOutAnewAndACoarserTapeIsLessSure) {
  go();
  const auto find = [&] { return Sureness::of(desk()).doubt()->find("front.preset.0.pressure"); };
  ASSERT_NE(find(), nullptr);
  const double before = Sureness::of(desk()).doubt()->find("front.road.high")->sd;
  EXPECT_FALSE(desk().type("doubts.tape_m", "6mm"));
  EXPECT_EQ(Sureness::of(desk()).doubt(), nullptr) << "it is of another car now";
  wait_for([&] { return Sureness::of(desk()).doubt() != nullptr; }, 30000);
  EXPECT_GT(Sureness::of(desk()).doubt()->find("front.road.high")->sd, before);
  EXPECT_TRUE(desk().type("doubts.tape_m", "-1mm"));
  window_->findChild<QCheckBox*>("doubt_bands")->click();
  EXPECT_EQ(Sureness::of(desk()).doubt(), nullptr);
  EXPECT_FALSE(Sureness::of(desk()).is_running());
}

} // namespace
} // namespace mavrel::app
