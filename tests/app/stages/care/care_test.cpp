// Care on a car with two years of log: what is said on opening, done, written, taken in, and what another program
// wrote.
#include "app/stages/care/care.h"

#include "app/desk/other_log.h"
#include "app/stages/care/due_page.h"
#include "app/stages/care/log_page.h"
#include "app/stages/care/questions.h"
#include "app/window_fixture.h"
#include "assess/care/log_table.h"
#include "build/file.h"

#include <QComboBox>
#include <QPushButton>
#include <QTableWidget>

namespace mavrel::app {
namespace {

class CareTest : public WindowTest {
protected:
  void SetUp() override {
    qputenv("MAVREL_NOW", "2026-11-26 10:30");
    WindowTest::SetUp();
    std::filesystem::copy_file(std::filesystem::path(MAVREL_DEMO) / "shop" / "w-08.mavrel", file());
    ASSERT_TRUE(window_->open_file(QString::fromStdString(file().string())));
    QCoreApplication::processEvents();
  }
  void TearDown() override {
    window_.reset();
    qunsetenv("MAVREL_NOW");
  }
  std::filesystem::path file() { return folder_ / "w-08.mavrel"; }
  PagedStage* stage() { return static_cast<PagedStage*>(window_->stage("care")); }
  void go(int page) {
    window_->go_to_stage("care");
    stage()->show_page(page);
    QCoreApplication::processEvents();
    wait_for([&] { return !air_use_is_running(desk()); });
  }
  /// Is there a row in sight that says this, and a button that answers it?
  QPushButton* offered(const QString& words, const QString& button) {
    bool said = false;
    for (QLabel* label : window_->findChildren<QLabel*>())
      said = said || (label->isVisible() && label->text().contains(words));
    if (said)
      for (QPushButton* one : window_->findChildren<QPushButton*>())
        if (one->isVisible() && one->text() == button) return one;
    return nullptr;
  }
};

TEST_F(CareTest, WhatIsOverdueIsSaidOnOpeningAndLeadsThere) {
  QPushButton* show = offered("Due on this car", "Show");
  ASSERT_NE(show, nullptr);
  QTest::mouseClick(show, Qt::LeftButton);
  QCoreApplication::processEvents();
  EXPECT_TRUE(stage()->isVisible());
  // A car with nothing overdue says nothing.
  ASSERT_TRUE(window_->open_file(QString::fromStdString(copy().string())));
  QCoreApplication::processEvents();
  EXPECT_EQ(offered("Due on this car", "Show"), nullptr);
}

TEST_F(CareTest, DoneTakesATaskFromTheTopAndUndoPutsItBack) {
  go(0);
  auto* due = named<QTableWidget>("care_due");
  const QString first = due->item(0, 0)->text();
  due->setCurrentCell(0, 0);
  const auto before = build().care->log.size();
  click("care_done");
  EXPECT_EQ(build().care->log.size(), before + 1);
  EXPECT_EQ(build().care->log.back().day, "2026-11-26 10:30");
  EXPECT_NE(due->item(0, 0)->text(), first);
  desk().document().undo();
  QCoreApplication::processEvents();
  EXPECT_EQ(due->item(0, 0)->text(), first);
}

TEST_F(CareTest, TheCalendarIsWrittenAndNothingElsesPlaceTaken) {
  go(0);
  auto* page = window_->findChild<DuePage*>();
  const auto ics = folder_ / "care.ics";
  EXPECT_TRUE(page->write_calendar(QString::fromStdString(ics.string())));
  EXPECT_NE(test::text_of(ics).find("Wheel alignment"), std::string::npos);
  EXPECT_FALSE(page->write_calendar(QString::fromStdString(file().string()))); // the open build's own file
  EXPECT_FALSE(page->write_calendar("/nowhere/at/all.ics"));
}

TEST_F(CareTest, TheLogGoesOutAsATableAndComesInWithoutDoubles) {
  go(1);
  const auto csv = folder_ / "log.csv";
  test::write(csv, assess::log_table(build().care->log) + "x1,2026-11-20,event,frost,,,,,,,,,Orla Fenn,Minus four\n");
  const auto before = build().care->log.size();
  auto* page = window_->findChild<LogPage*>();
  page->read_table(QString::fromStdString(csv.string()));
  EXPECT_EQ(build().care->log.size(), before + 1) << told().toStdString();
  page->read_table(QString::fromStdString(csv.string()));
  EXPECT_EQ(build().care->log.size(), before + 1);
  test::write(csv, "day,kind\nsome day,work\n");
  page->read_table(QString::fromStdString(csv.string()));
  EXPECT_TRUE(told().contains("Line 2")) << told().toStdString();
  auto* list = named<QTableWidget>("care_log");
  EXPECT_EQ(list->rowCount(), static_cast<int>(before) + 1);
  list->setCurrentCell(0, 0);
  list->setFocus();
  QCoreApplication::processEvents();
  named<QPushButton>("log_remove")->setEnabled(true);
  click("log_remove");
  EXPECT_EQ(build().care->log.size(), before);
}

TEST_F(CareTest, WhatAnotherProgramWroteMeanwhileIsKept) {
  build::Build other = *build::load(file());
  build::LogEntry theirs;
  theirs.id = "theirs", theirs.day = "2026-11-25", theirs.text = "Drained on the quay";
  other.care.own().log.push_back(theirs);
  ASSERT_TRUE(build::save(other, file()));
  build::Build ours = build();
  build::LogEntry mine;
  mine.id = "mine", mine.day = "2026-11-26", mine.text = "Wheels looked at";
  ours.care.own().log.push_back(mine);
  desk().edit("write", ours);
  EXPECT_EQ(take_other_log(desk(), file()), 1);
  EXPECT_EQ(take_other_log(desk(), file()), 0); // once
  int there = 0;
  for (const build::LogEntry& e : build().care->log)
    there += e.id == "theirs" || e.id == "mine";
  EXPECT_EQ(there, 2);
  EXPECT_EQ(take_other_log(desk(), folder_ / "nothing.mavrel"), 0);
}

TEST_F(CareTest, HowOftenIsSetAndGivenBackToWhatIsWorkedOut) {
  go(2);
  click("set_drain");
  ASSERT_EQ(build().care->intervals.size(), 1U);
  type("care.intervals.0.days_s", "2 weeks");
  EXPECT_DOUBLE_EQ(*build().care->intervals[0].days, 14 * 86400.0);
  type("care.distance_year_m", "9000 km");
  EXPECT_DOUBLE_EQ(build().care->distance_year, 9e6);
  type("care.winter_humidity", "130 %"); // a mistake is said, and nothing changes
  EXPECT_DOUBLE_EQ(build().care->winter_humidity, 0.85);
  click("add_lesson");
  EXPECT_EQ(build().care->lessons.back().day, "2026-11-26");
}

} // namespace
} // namespace mavrel::app
