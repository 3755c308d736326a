// How sure, in the real window: answers with their doubt, what carries it, bands on the posts, tools set in one place.
#include "app/stages/doubt/doubt_page.h"

#include "app/desk/sureness.h"
#include "app/kit/height_posts.h"
#include "app/kit/paged_stage.h"
#include "app/shell/findings_panel.h"
#include "app/stages/air/kit_page.h"
#include "app/stages/bags/search/search_page.h"
#include "app/stages/car_in/tape_mode.h"
#include "app/stages/clearance/clearance.h"
#include "app/stages/clearance/windows_page.h"
#include "app/window_fixture.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QListView>
#include <QPushButton>
#include <QRegularExpression>
#include <QTableWidget>

namespace mavrel::app {
namespace {

class DoubtTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    Sureness::of(desk()).set_draws(100); // enough for a look
  }
  void go() {
    Sureness::of(desk()).set_wanted(true);
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
  EXPECT_TRUE(posts->accessibleDescription().contains(QRegularExpression("Front Parked stands in \\d+ % of cases")));
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

TEST_F(DoubtTest, IsThereWithoutAnybodyAskingAndBesideTheFiguresOfOtherStages) {
  Sureness::of(desk()).set_wanted(true);
  wait_for([&] { return Sureness::of(desk()).doubt() != nullptr; }, 30000);
  const auto said_on = [&](QWidget* page) {
    QStringList out;
    for (const QLabel* label : page->findChildren<QLabel*>())
      if (label->isVisible()) out << label->text();
    return out.join("\n");
  };
  auto* clearance = static_cast<ClearanceStage*>(window_->stage("clearance"));
  window_->go_to_stage("clearance");
  clearance->show_page(3);
  QCoreApplication::processEvents();
  auto* windows = window_->findChild<WindowsPage*>();
  EXPECT_TRUE(said_on(windows).contains(QRegularExpression("goes down to \\S+ ± \\S+ mm")))
      << said_on(windows).toStdString();
  window_->go_to_stage("air");
  static_cast<PagedStage*>(window_->stage("air"))->show_page(1);
  QCoreApplication::processEvents();
  auto* kit = window_->findChild<KitPage*>();
  ASSERT_NE(kit, nullptr);
  wait_for([&] { return said_on(kit).contains(" ± "); });
  window_->go_to_stage("bags");
  desk().set_end(End::front);
  const int badge = window_->findChild<FindingsPanel*>()->findChild<QListView*>()->model()->rowCount();
  EXPECT_EQ(static_cast<std::size_t>(badge), Sureness::of(desk()).findings().size());
  Sureness::of(desk()).set_wanted(false);
  window_->go_to_stage("air");
  QCoreApplication::processEvents();
  EXPECT_FALSE(said_on(kit).contains(" ± "));
}

TEST_F(DoubtTest, WhyNotLowerCanBeAskedForNineCasesOfTen) {
  window_->go_to_stage("clearance");
  static_cast<ClearanceStage*>(window_->stage("clearance"))->show_page(3);
  desk().set_end(End::front);
  auto* page = window_->findChild<WindowsPage*>();
  wait_for([&] { return page->answer() != nullptr; });
  EXPECT_FALSE(page->answer()->holds);
  auto* sure = named<QCheckBox>("why_sure");
  sure->setFocus();
  QTest::keyClick(sure, Qt::Key_Space);
  wait_for([&] { return page->answer() && page->answer()->holds; }, 30000);
  EXPECT_GT(*page->answer()->holds, page->answer()->edge->height) << "not as low as on paper";
  bool said = false;
  for (const QLabel* label : page->findChildren<QLabel*>())
    said = said || label->text().contains("In nine cases of ten");
  EXPECT_TRUE(said);
  QTest::keyClick(sure, Qt::Key_Space);
  wait_for([&] { return page->answer() && !page->answer()->holds; });
}

TEST_F(DoubtTest, TheSearchCanAskForWhatHolds) {
  window_->go_to_stage("bags");
  bags()->show_side("search");
  auto* page = bags()->search_page();
  auto* sure = named<QCheckBox>("search_sure");
  QTest::mouseClick(sure, Qt::LeftButton, {}, QPoint(8, sure->height() / 2));
  ASSERT_TRUE(sure->isChecked());
  click("search_go");
  wait_for([&] { return !page->is_running(); }, 30000);
  ASSERT_TRUE(page->result());
  for (const auto& choice : page->result()->choices)
    EXPECT_GE(*choice.holds, 0.9);
  bool said = false;
  for (const auto& pair : page->result()->ranking)
    said = said || desk().words_of(pair.reason).contains("one case of twenty");
  EXPECT_TRUE(said) << "the parked height lies right on its stop";
  EXPECT_TRUE(desk().words_of(page->result()->ranking.front().reason).contains("one case of twenty"))
      << "nearest to passing first";
}

TEST_F(DoubtTest, AReadingTakenWithAnotherToolIsKeptAndUndone) {
  go();
  const auto* doubt = Sureness::of(desk()).doubt();
  for (int r = 0; r < table("doubt_answers")->rowCount(); ++r)
    if (table("doubt_answers")->item(r, 0)->text() == desk().words_of(doubt->find("front.reach.low")->words))
      table("doubt_answers")->setCurrentCell(r, 0);
  const auto& carried = doubt->find("front.reach.low")->carried_by;
  int row = -1;
  for (std::size_t i = 0; i < carried.size() && row < 0; ++i)
    if (doubt->inputs[carried[i].input].path == "front.bump_stop_gap_m") row = static_cast<int>(i);
  ASSERT_GE(row, 0);
  table("doubt_carried")->setCurrentCell(row, 0);
  auto* tool = window_->findChild<QComboBox*>("taken_with");
  const int calliper = tool->findText("calliper");
  ASSERT_GE(calliper, 0);
  EXPECT_EQ(tool->currentText(), "tape");
  tool->setFocus();
  tool->setCurrentIndex(calliper);
  emit tool->activated(calliper);
  ASSERT_EQ(build().doubts.taken_with.size(), 1U);
  EXPECT_EQ(build().doubts.taken_with.front().what, "front.bump_stop_gap_m");
  wait_for([&] { return Sureness::of(desk()).doubt() != nullptr; }, 30000);
  desk().document().undo();
  EXPECT_TRUE(build().doubts.taken_with.empty());
  desk().document().redo();
  EXPECT_EQ(build().doubts.taken_with.size(), 1U);
}

TEST_F(DoubtTest, PaperWaitsForItBesideTheInterface) {
  Sureness& sure = Sureness::of(desk());
  int told_nothing = 0;
  sure.once_known(window_.get(), [&](const assess::Doubt* doubt) { told_nothing += doubt == nullptr; });
  EXPECT_EQ(told_nothing, 1) << "nobody wants it: at once, without";
  const auto file = folder_ / "sheet.pdf";
  sure.set_wanted(true);
  EXPECT_TRUE(window_->export_sheet(QString::fromStdString(file.string())));
  EXPECT_FALSE(std::filesystem::exists(file)) << "the interface does not stand still for it";
  EXPECT_TRUE(told().contains("worked out first")) << told().toStdString();
  EXPECT_FALSE(desk().type("front.left.mass_kg", "437 kg")); // meanwhile: it is of the car as it then is
  wait_for([&] { return std::filesystem::exists(file); }, 30000);
  ASSERT_TRUE(sure.doubt());
  EXPECT_EQ(sure.doubt()->draws, 100U);
  // Known now: at once.
  std::filesystem::remove(file);
  EXPECT_TRUE(window_->export_sheet(QString::fromStdString(file.string())));
  EXPECT_TRUE(std::filesystem::exists(file));
}

TEST_F(DoubtTest, WhoNoLongerWantsItGetsItsPaperWithout) {
  Sureness& sure = Sureness::of(desk());
  sure.set_wanted(true);
  std::optional<bool> with;
  sure.once_known(window_.get(), [&](const assess::Doubt* doubt) { with = doubt != nullptr; });
  EXPECT_FALSE(with);
  sure.set_wanted(false);
  ASSERT_TRUE(with);
  EXPECT_FALSE(*with);
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
