// The shop's book in its window: brought up to date, searched while it is typed, a car opened, a damaged book made
// anew.
#include "app/stages/book/book_page.h"

#include "app/desk/home.h"

#include "app/window_fixture.h"

#include <QComboBox>
#include <QTableWidget>

#include <fstream>

namespace mavrel::app {
namespace {

class BookPageTest : public WindowTest {
protected:
  void SetUp() override {
    qputenv("MAVREL_NOW", "2026-11-26 10:30");
    qputenv("XDG_DATA_HOME", folder_.path().c_str());
    WindowTest::SetUp();
    std::filesystem::copy(std::filesystem::path(MAVREL_DEMO) / "shop", folder_ / "shop");
    window_->go_to_stage("book");
    QCoreApplication::processEvents();
  }
  void TearDown() override {
    window_.reset();
    for (const char* name : {"MAVREL_NOW", "XDG_DATA_HOME"})
      qunsetenv(name);
  }
  BookPage* page() { return static_cast<BookPage*>(window_->stage("book")); }
  QTableWidget* cars() { return named<QTableWidget>("book_cars"); }
  void settle() {
    wait_for([&] { return !page()->is_syncing() && !page()->is_searching(); }, 30000);
    QCoreApplication::processEvents();
  }
  void sync() {
    page()->sync(QString::fromStdString((folder_ / "shop").string()));
    settle();
  }
  void search() {
    page()->search();
    settle();
  }
};

TEST_F(BookPageTest, IsEmptyUntilAFolderIsNamedAndThenFull) {
  settle();
  EXPECT_TRUE(named<QLabel>("book_summary")->text().contains("empty"));
  named<QLineEdit>("book_folder")->clear();
  click("book_update");
  EXPECT_TRUE(told().contains("Which folder"));
  sync();
  EXPECT_EQ(cars()->rowCount(), 6) << told().toStdString();
  EXPECT_TRUE(told().contains("6 builds read"));
  sync();
  EXPECT_TRUE(told().contains("6 as they were")) << told().toStdString();
  page()->sync("/nowhere/at/all");
  settle();
  EXPECT_TRUE(told().contains("no folder")) << told().toStdString();
  EXPECT_EQ(cars()->rowCount(), 6); // what was known stays
}

TEST_F(BookPageTest, SearchesAsItIsTypedByWordsPlatformBagOwnerAndDay) {
  sync();
  auto* words = named<QLineEdit>("book_words");
  words->setFocus();
  QTest::keyClicks(words, "clip lamp loom");
  wait_for([&] { return cars()->rowCount() == 1; });
  EXPECT_EQ(cars()->item(0, 1)->text(), "W-08");
  EXPECT_TRUE(named<QLabel>("book_car")->text().contains("<b>lamp</b>"))
      << named<QLabel>("book_car")->text().toStdString();
  words->clear();
  auto* platform = named<QComboBox>("book_platform");
  platform->setCurrentIndex(platform->findData("Hollin Tarnway"));
  wait_for([&] { return cars()->rowCount() == 2; });
  wait_for([&] { return named<QLabel>("book_alike")->text().contains("Builds of Hollin Tarnway: 2"); });
  platform->setCurrentIndex(0);
  auto* layout = named<QComboBox>("book_layout");
  layout->setCurrentIndex(layout->findData("trailing arm"));
  settle();
  EXPECT_EQ(cars()->rowCount(), 4);
  layout->setCurrentIndex(layout->findData("axle, was on leaves"));
  settle();
  EXPECT_EQ(cars()->rowCount(), 0);
  layout->setCurrentIndex(0);
  named<QLineEdit>("book_owner")->setText("casimir");
  wait_for([&] { return cars()->rowCount() == 1; });
  named<QLineEdit>("book_owner")->clear();
  named<QLineEdit>("book_due")->setText("2026-1"); // half typed asks for nothing
  search();
  EXPECT_EQ(cars()->rowCount(), 6);
  named<QLineEdit>("book_due")->setText("2027-12-31");
  search();
  EXPECT_GE(cars()->rowCount(), 3);
  EXPECT_LT(cars()->rowCount(), 6);
}

TEST_F(BookPageTest, FindingsAreFoundToo) {
  sync();
  // What only an assessment says of W-16: that its figures are another car's.
  named<QLineEdit>("book_words")->setText("not measured on this one");
  search();
  ASSERT_GE(cars()->rowCount(), 1);
  EXPECT_EQ(cars()->item(0, 1)->text(), "W-16");
}

TEST_F(BookPageTest, ACarIsOpenedFromIt) {
  sync();
  named<QLineEdit>("book_words")->setText("stone weekends");
  search();
  ASSERT_EQ(cars()->rowCount(), 1);
  click("book_open");
  EXPECT_EQ(build().job.number, "T-05");
  EXPECT_TRUE(window_->stage("car_in")->isVisible());
}

TEST_F(BookPageTest, ADamagedBookIsMadeAnewFromTheBuildsAndSaysSo) {
  sync();
  window_.reset();
  std::ofstream(folder_ / "mavrel" / "book.sqlite", std::ios::binary | std::ios::trunc) << "torn";
  open_window();
  window_->go_to_stage("book"); // of itself: the folder is known
  wait_for([&] { return page()->is_syncing(); });
  settle();
  EXPECT_EQ(cars()->rowCount(), 6);
  EXPECT_TRUE(told().contains("made again")) << told().toStdString();
}

TEST_F(BookPageTest, AFolderAtHomeIsWrittenAsPeopleWriteIt) {
  const QByteArray before = qgetenv("HOME");
  qputenv("HOME", QByteArray::fromStdString(folder_.path().string()));
  EXPECT_EQ(at_home(QString::fromStdString((folder_ / "cars" / "a.mavrel").string())), "~/cars/a.mavrel");
  EXPECT_EQ(at_home(QString::fromStdString(folder_.path().string()) + "2/cars"),
            QString::fromStdString(folder_.path().string()) + "2/cars")
      << "a neighbour of a longer name";
  EXPECT_EQ(from_home(" ~/cars "), QString::fromStdString((folder_ / "cars").string()));
  EXPECT_EQ(from_home("/srv/~/cars"), "/srv/~/cars");
  qputenv("HOME", before);
}

} // namespace
} // namespace mavrel::app
