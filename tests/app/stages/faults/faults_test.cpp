// Fault finding in the real window: what is told and read moves the odds, a hidden fault is found and named, what was
// found goes where it belongs.
#include "app/stages/faults/faults.h"

#include "app/desk/bench_link.h"
#include "app/stages/faults/course_view.h"
#include "app/stages/faults/practise_page.h"
#include "app/stages/faults/questions.h"
#include "app/stages/faults/sound.h"
#include "app/window_fixture.h"
#include "build/care.h"

#include <QCheckBox>
#include <QComboBox>
#include <QLabel>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QTableWidget>

namespace mavrel::app {
namespace {

class FaultsTest : public WindowTest {
protected:
  void SetUp() override {
    qputenv("MAVREL_NOW", "2026-11-26 10:30");
    data_ = qgetenv("XDG_DATA_HOME");
    qputenv("XDG_DATA_HOME", QByteArray::fromStdString((folder_ / "data").string()));
    WindowTest::SetUp();
    std::filesystem::copy_file(std::filesystem::path(MAVREL_DEMO) / "shop" / "w-08.mavrel", file());
    ASSERT_TRUE(window_->open_file(QString::fromStdString(file().string())));
    QCoreApplication::processEvents();
  }
  void TearDown() override {
    window_.reset();
    qunsetenv("MAVREL_NOW");
    qputenv("XDG_DATA_HOME", data_);
  }
  std::filesystem::path file() { return folder_ / "w-08.mavrel"; }
  void go(int page) {
    window_->go_to_stage("faults");
    static_cast<PagedStage*>(window_->stage("faults"))->show_page(page);
    QCoreApplication::processEvents();
    wait_for([&] { return fault_car_of(desk()) != nullptr; });
  }
  template <class W>
  W* get(const char* name) {
    return window_->findChild<W*>(name);
  }
  void press(const char* name) {
    auto* button = get<QPushButton>(name);
    ASSERT_NE(button, nullptr) << name;
    QTest::mouseClick(button, Qt::LeftButton);
    QCoreApplication::processEvents();
  }
  void pick(const char* name, const char* key) {
    auto* box = get<QComboBox>(name);
    const int row = box->findData(QString(key));
    ASSERT_GE(row, 0) << key;
    box->setCurrentIndex(row);
  }
  /// Says one finding as a person does.
  void say_found(const char* sign, int place, const char* answer) {
    pick("finding_sign", sign);
    get<QComboBox>("finding_where")->setCurrentIndex(place);
    if (QString(answer) == "yes" || QString(answer) == "no")
      return press(answer[0] == 'y' ? "finding_yes" : "finding_no");
    get<QLineEdit>("finding_figure")->setText(answer);
    QTest::keyClick(get<QLineEdit>("finding_figure"), Qt::Key_Return);
    QCoreApplication::processEvents();
  }
  QString first() {
    wait_for([&] { return diagnosis_of(desk()) != nullptr; });
    QCoreApplication::processEvents();
    return get<QTableWidget>("fault_ranked")->item(0, 0)->text();
  }
  QByteArray data_;
};

TEST_F(FaultsTest, WhatIsFoundMovesTheOddsAndIsStruckOutAgain) {
  go(0);
  say_found("pumps_never", 0, "yes");
  say_found("fuse_dead", 0, "yes");
  EXPECT_TRUE(first().contains("fuse blown")) << first().toStdString();
  EXPECT_EQ(desk().build().faults->findings.size(), 2U);
  // A figure that can't be is refused, and stays out.
  say_found("tank_fill", 0, "0.01s");
  EXPECT_EQ(desk().build().faults->findings.size(), 2U);
  say_found("volts", 0, "soon");
  EXPECT_EQ(desk().build().faults->findings.size(), 2U);
  // By the keyboard: the second row is picked and struck out, and comes back.
  auto* course = window_->findChild<CourseView*>();
  course->setFocus();
  QTest::keyClick(course, Qt::Key_Down);
  QTest::keyClick(course, Qt::Key_Down);
  QTest::keyClick(course, Qt::Key_Delete);
  EXPECT_EQ(desk().build().faults->findings.size(), 1U);
  desk().document().undo();
  EXPECT_EQ(desk().build().faults->findings.size(), 2U);
  get<QCheckBox>("nothing_else")->click();
  EXPECT_EQ(desk().build().faults->nothing_else, build::YesNo::yes);
  EXPECT_TRUE(first().contains("fuse blown"));
  EXPECT_GT(get<QTableWidget>("fault_tests")->rowCount(), 0);
  EXPECT_FALSE(course->accessibleName().isEmpty());
}

TEST_F(FaultsTest, WhatWasFoundGoesIntoTheLogAndOntoThePlan) {
  go(0);
  say_found("pumps_never", 0, "yes");
  say_found("relay_silent", 0, "yes");
  say_found("fuse_dead", 0, "no");
  EXPECT_TRUE(first().contains("relay dead")) << first().toStdString();
  const auto log = desk().build().care->log.size();
  const auto jobs = desk().build().variant().fit_up->jobs.size();
  press("keep_found");
  EXPECT_EQ(desk().build().care->log.size(), log + 1);
  EXPECT_EQ(desk().build().variant().fit_up->jobs.size(), jobs + 1);
  EXPECT_EQ(desk().build().shop->faults.size(), 1U);
  desk().document().undo(); // one step
  EXPECT_EQ(desk().build().care->log.size(), log);
  EXPECT_TRUE(desk().build().shop->faults.empty());
  // How often it is here may be said, and is as usual again.
  go(2);
  get<QTableWidget>("fault_odds")->setCurrentCell(0, 0);
  get<QLineEdit>("fault_often")->setText("25");
  press("set_often");
  ASSERT_EQ(desk().build().shop->faults.size(), 1U);
  EXPECT_EQ(*desk().build().shop->faults.front().often, 25);
  press("often_as_usual");
  EXPECT_FALSE(desk().build().shop->faults.front().often);
  get<QLineEdit>("fault_often")->setText("-3");
  press("set_often");
  EXPECT_FALSE(desk().build().shop->faults.front().often);
}

TEST_F(FaultsTest, OddsHalfTypedAreOfTheFaultTheyWereBegunFor) {
  go(2);
  auto* list = get<QTableWidget>("fault_odds");
  auto* often = get<QLineEdit>("fault_often");
  const auto said = [&](const char* cause) -> std::optional<double> {
    for (const auto& one : desk().build().shop->faults)
      if (one.cause == cause) return one.often;
    return std::nullopt;
  };
  list->setCurrentCell(0, 0);
  QTest::keyClicks(often, "25");
  list->setCurrentCell(1, 0);
  EXPECT_EQ(said(assess::fault_causes()[0].key), 25);
  EXPECT_FALSE(said(assess::fault_causes()[1].key));
  EXPECT_EQ(often->text(), "");
  QTest::keyClicks(often, "7");
  desk().document().settle(Unfinished::keep); // as saving does
  EXPECT_EQ(said(assess::fault_causes()[1].key), 7);
  often->selectAll();
  QTest::keyClicks(often, "-7");
  EXPECT_TRUE(desk().document().settle(Unfinished::keep)) << "what can't be taken is said";
  EXPECT_EQ(often->text(), "-7") << "and stays";
  EXPECT_EQ(said(assess::fault_causes()[1].key), 7);
}

TEST_F(FaultsTest, AHiddenFaultIsFoundAndNamed) {
  go(1);
  get<QSpinBox>("practice_seed")->setValue(17);
  press("practice_begin");
  ASSERT_TRUE(get<QLabel>("practice_told")->isVisible());
  // What its driver says goes into a diagnosis of one's own, as at the bench; then test by test.
  const PracticeShopPtr shop = fault_car_of(desk());
  assess::PracticeCar shadow(shop, {17, assess::PracticeLevel::plain});
  assess::FaultEvidence evidence = shadow.evidence();
  assess::go_on(shadow, *shop, evidence, {}, [&](const assess::TestDone& test) {
    pick("practice_test", test.at.test->key);
    get<QComboBox>("practice_where")->setCurrentIndex(static_cast<int>(test.at.place));
    press("practice_do");
  });
  const auto found = assess::FaultWeighing(shop->table, evidence).diagnosis().sets.front().faults;
  EXPECT_FALSE(QFileInfo::exists(practice_record_file())) << "nothing is written before it is named";
  pick("practice_cause", found.front().cause->key);
  get<QComboBox>("practice_cause_where")->setCurrentIndex(static_cast<int>(found.front().place));
  press("practice_name");
  wait_for([&] { return get<QTableWidget>("practice_steps")->isVisible(); });
  EXPECT_TRUE(get<QLabel>("practice_score")->text().contains("Right"))
      << get<QLabel>("practice_score")->text().toStdString();
  EXPECT_TRUE(QFileInfo::exists(practice_record_file()));
  EXPECT_FALSE(get<QPushButton>("practice_do")->isEnabled()) << "it is known now";
  // Another car: nothing is left of the one before.
  get<QSpinBox>("practice_seed")->setValue(18);
  press("practice_begin");
  EXPECT_EQ(get<QTableWidget>("practice_found")->rowCount(), 0);
  EXPECT_FALSE(get<QTableWidget>("practice_steps")->isVisible());
  press("practice_name"); // says that something must be named
  EXPECT_FALSE(get<QTableWidget>("practice_steps")->isVisible());
}

TEST_F(FaultsTest, ItsValvesAreWorkedOverTheLink) {
  go(1);
  get<QSpinBox>("practice_seed")->setValue(17);
  press("practice_begin");
  press("practice_rig");
  auto* link = get<QLabel>("practice_link");
  wait_for([&] { return link->isVisible() && link->text().contains("RR"); }, 15000);
  EXPECT_TRUE(link->text().contains("tank"));
  auto* fill = window_->findChild<QWidget*>("practice_fill");
  QTest::mousePress(fill, Qt::LeftButton);
  EXPECT_TRUE(BenchLink::of(desk()).is_held());
  QTest::mouseRelease(fill, Qt::LeftButton);
  EXPECT_FALSE(BenchLink::of(desk()).is_held());
}

TEST(FaultSound, IsOfWhatIsToldAndNothingElse) {
  const auto told = [](const char* key) { return *assess::typed_finding(*assess::sign_of(key), "yes", {}); };
  EXPECT_TRUE(sound_of({}).isEmpty());
  EXPECT_TRUE(sound_of({told("leans:front")}).isEmpty());
  const QByteArray hiss = sound_of({told("hisses")}), both = sound_of({told("hisses"), told("knocks:front")});
  EXPECT_TRUE(hiss.startsWith("RIFF"));
  EXPECT_EQ(both.size() - 44, 2 * (hiss.size() - 44));
  EXPECT_EQ(sound_of({told("hisses")}), hiss);
}

} // namespace
} // namespace mavrel::app
