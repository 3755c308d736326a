// What every page stands on: filled only while somebody looks, never from within itself, and what it asks is followed.
#include "app/kit/page.h"

#include "app/kit/run_row.h"
#include "app/theme/look.h"
#include "support.h"

#include <QBoxLayout>
#include <QElapsedTimer>
#include <QLabel>
#include <QPushButton>
#include <QTest>

#include <new>
#include <stdexcept>

namespace mavrel::app {
namespace {

/// Twice what it is given, where that is above 0; 13 the machine can't do.
struct Doubled {
  using Given = int;
  using Answer = std::optional<Expected<int>>;
  static inline int wanted = 1; // what a page would ask
  static Answer answer(const Given& given, const RunControl& control) {
    if (given == 13) throw std::bad_alloc();
    if (given <= 0) return refuse(mavrel::words("{0} is not above 0."), {Amount{double(given), Kind::plain, 0, {}}});
    while (given == 7 && !control.stop.stop_requested())
      QThread::msleep(1); // until somebody stops it
    if (control.stop.stop_requested()) return std::nullopt;
    return 2 * given;
  }
};

class PageOfOne : public Page {
public:
  PageOfOne(Desk& desk, bool by_itself)
      : Page(desk, nullptr), asked_(
                                 desk.answers(), [this] { refresh(); }, [] { return std::optional(Doubled::wanted); }),
        run_(new RunRow(desk, asked_, "double", "Double it", this)) {
    column()->addWidget(run_);
    said_ = small_words("said");
    column()->addWidget(said_);
    if (by_itself)
      follow(asked_);
    else
      keep_up(asked_);
  }
  using Page::refresh;
  int fills = 0, depth = 0, deepest = 0;
  bool again = false; // once it is filled from within itself
  RunRow* run() { return run_; }
  Asked<Doubled>& asked() { return asked_; }

protected:
  void fill() override {
    deepest = std::max(deepest, ++depth);
    ++fills;
    if (std::exchange(again, false)) refresh();
    run_->show_words(asked_.value() ? QString::number(*asked_.value()) : "nothing yet", "it is doubled …");
    --depth;
  }

private:
  Asked<Doubled> asked_;
  RunRow* run_;
  QLabel* said_ = nullptr;
};

class PageTest : public ::testing::Test {
protected:
  void SetUp() override { Doubled::wanted = 1; }
  static bool wait_for(const std::function<bool()>& what) {
    QElapsedTimer timer;
    timer.start();
    while (!what() && timer.elapsed() < 5000)
      QTest::qWait(2);
    return what();
  }
  static void press(PageOfOne& page) { QTest::mouseClick(page.findChild<QPushButton*>("double"), Qt::LeftButton); }
  Desk desk_{test::demo_shelf()};
};

TEST_F(PageTest, IsFilledOnlyWhileSomebodyLooks) {
  PageOfOne page(desk_, false);
  page.refresh();
  page.refresh();
  EXPECT_EQ(page.fills, 0);
  page.show();
  EXPECT_EQ(page.fills, 1) << "once, however often it went out of date";
  page.hide();
  page.refresh();
  EXPECT_EQ(page.fills, 1);
  page.show();
  EXPECT_EQ(page.fills, 2);
}

TEST_F(PageTest, IsNeverFilledFromWithinItself) {
  PageOfOne page(desk_, false);
  page.again = true;
  page.show();
  EXPECT_EQ(page.deepest, 1);
  ASSERT_TRUE(wait_for([&] { return page.fills == 2; })) << "what was asked meanwhile is done behind it";
}

TEST_F(PageTest, WhatItFollowsIsAskedByLooking) {
  PageOfOne page(desk_, true);
  page.refresh();
  EXPECT_FALSE(page.asked().was_asked());
  page.show();
  ASSERT_TRUE(wait_for([&] { return page.run()->text() == "2"; }));
  Doubled::wanted = 4;
  page.refresh();
  ASSERT_TRUE(wait_for([&] { return page.run()->text() == "8"; }));
}

TEST_F(PageTest, ItsRowSaysEachStateOfWhatAPersonAsks) {
  PageOfOne page(desk_, false);
  page.show();
  EXPECT_EQ(page.run()->text(), "nothing yet");
  press(page);
  ASSERT_TRUE(wait_for([&] { return page.run()->text() == "2"; }));
  Doubled::wanted = 7;
  page.refresh();
  EXPECT_TRUE(page.run()->text().contains("has changed")) << page.run()->text().toStdString();
  press(page);
  ASSERT_TRUE(wait_for([&] { return page.run()->text() == "it is doubled …"; }));
  EXPECT_EQ(page.findChild<QPushButton*>("double")->text(), "Stop");
  press(page);
  ASSERT_TRUE(wait_for([&] { return page.run()->text() == "nothing yet"; }));
  EXPECT_EQ(page.findChild<QPushButton*>("double")->text(), "Double it");
  Doubled::wanted = -2;
  press(page);
  ASSERT_TRUE(wait_for([&] { return page.run()->text() == "-2 is not above 0."; })) << page.run()->text().toStdString();
  Doubled::wanted = 13;
  press(page);
  ASSERT_TRUE(wait_for([&] { return page.asked().state() == Asking::broke_off; }));
  EXPECT_FALSE(page.run()->text().isEmpty());
  EXPECT_NE(page.run()->text(), "nothing yet") << "why it broke off";
}

TEST_F(PageTest, WhatIsToBeDoneBeforeMayRefuse) {
  PageOfOne page(desk_, false);
  page.run()->set_before([] { return false; });
  page.show();
  press(page);
  EXPECT_FALSE(page.asked().was_asked());
}

} // namespace
} // namespace mavrel::app
