// The bag in depth, the search and the shelf, with mouse and keyboard in the real window.
#include "assess/bags/ride.h"
#include "assess/bags/roll.h"
#include "assess/bags/softening.h"
#include "window_fixture.h"

#include "app/kit/chart.h"
#include "app/stages/bags/bags.h"
#include "app/stages/bags/questions/stroke_view.h"
#include "app/stages/bags/questions/volume_view.h"
#include "app/stages/bags/questions/weather_view.h"
#include "app/stages/bags/search/search_page.h"
#include "app/stages/bags/shelf/bench_panel.h"
#include "app/stages/bags/shelf/shelf_page.h"
#include "shelf/card_write.h"

#include <QComboBox>
#include <QDropEvent>
#include <QListWidget>
#include <QMimeData>
#include <QPushButton>
#include <QTabBar>
#include <QTableWidget>
#include <QTextDocument>

namespace mavrel::app {
namespace {

class DepthTest : public WindowTest {
protected:
  void SetUp() override {
    WindowTest::SetUp();
    desk().cards().set_folder(folder_ / "cards");
    desk().set_end(build::End::rear);
    window_->go_to_stage("bags");
  }
  // ---- what the views ask, as of now
  Expected<assess::Softening> softening() {
    const auto& d = desk();
    return assess::softening(d.answered(d.end())->fitted, *d.pose(d.end()), d.load_case(),
                             d.build().variant().brief.frequency_high);
  }
  Expected<assess::Roll> roll() {
    const auto& d = desk();
    return assess::roll({d.assessment().ends,
                         assess::car_in_bend(d.build()),
                         {*d.pose(End::front), *d.pose(End::rear)},
                         d.load_case()});
  }
  assess::Ride ride() {
    return assess::ride(assess::ride_given(build(), desk().shelf(), desk().assessment().ends, desk().load_case()));
  }
  QTabBar* tabs() { return window_->findChild<QTabBar*>("bag_views"); }
  QPushButton* button(const QString& name) { return window_->findChild<QPushButton*>(name); }
  void click(const QString& name) {
    ASSERT_NE(button(name), nullptr) << name.toStdString();
    ASSERT_TRUE(button(name)->isEnabled()) << name.toStdString();
    QTest::mouseClick(button(name), Qt::LeftButton);
    QCoreApplication::processEvents();
  }
};

TEST_F(DepthTest, EveryQuestionIsReachedByKeyAndAnswersInWords) {
  for (int i = 1; i <= 7; ++i) {
    key(static_cast<Qt::Key>(Qt::Key_0 + i), Qt::AltModifier);
    EXPECT_EQ(tabs()->currentIndex(), i - 1);
    bool said = false;
    for (QLabel* label : bags()->findChildren<QLabel*>())
      said = said || (label->isVisible() && label->wordWrap() && label->text().size() > 20);
    EXPECT_TRUE(said) << i;
  }
}

TEST_F(DepthTest, AVolumeIsTypedAndTheFittingBoreUsed) {
  bags()->show_view("volume");
  auto* view = window_->findChild<VolumeView*>();
  ASSERT_FALSE(desk().type("@.brief.frequency_high_hz", "1.3 Hz"));
  EXPECT_TRUE(view->summary().contains("would bring the body to"));
  EXPECT_FALSE(button("use_bore")->isVisible());
  type("@.rear.added_volume_m3", "3 l");
  EXPECT_DOUBLE_EQ(build().variant().fit[1].added_volume, 0.003);
  ASSERT_TRUE(button("use_bore")->isVisible());
  const double softer = *softening()->bounce;
  EXPECT_LT(softer, *softening()->bounce_shut);
  click("use_bore");
  const auto soft = softening();
  EXPECT_NEAR(soft->middle, std::sqrt(*soft->bounce_open * soft->hop), 0.01 * soft->middle);
  EXPECT_EQ(desk().document().history().undo_name(), "Use the fitting bore");
  auto* line = view->findChild<QComboBox*>();
  line->setFocus();
  QTest::keyClick(line, Qt::Key_Down);
  emit line->activated(line->currentIndex());
  EXPECT_EQ(build().variant().fit[1].line, build::LineState::shut);
  EXPECT_TRUE(view->summary().contains("line is shut"));
  EXPECT_DOUBLE_EQ(*softening()->bounce, *softening()->bounce_shut);
}

TEST_F(DepthTest, HeightViewsPoseTheCarAndRedrawWithIt) {
  double share = 0.25; // down the band: another place in each
  for (const char* name : {"stroke", "weather", "gauge"}) {
    bags()->show_view(name);
    QCoreApplication::processEvents();
    auto* plot = window_->findChild<HeightPlot*>(QString(name) + "_view");
    ASSERT_TRUE(plot && plot->isVisible()) << name;
    const auto [top, bottom] = plot->band();
    const QImage before = plot->grab().toImage();
    QTest::mouseClick(plot, Qt::LeftButton, {},
                      QPoint(plot->width() / 2, top + static_cast<int>((bottom - top) * share)));
    EXPECT_NEAR(plot->scale().y(*desk().pose(build::End::rear)), top + (bottom - top) * share, 2);
    share += 0.2;
    EXPECT_NE(plot->grab().toImage(), before) << name;
    EXPECT_FALSE(plot->accessibleDescription().isEmpty());
  }
  EXPECT_FALSE(desk().document().history().can_undo());
}

TEST_F(DepthTest, ADamperIsDescribedByPoints) {
  bags()->show_view("comfort");
  const std::size_t points = build().variant().fit[1].damper_curve.size();
  add_damper_point(desk(), build::End::rear);
  ASSERT_EQ(build().variant().fit[1].damper_curve.size(), points + 1);
  QCoreApplication::processEvents();
  const double before = *ride().cases[0].ends[1]->damping;
  type("@.rear.damper_curve.0.rebound_n", "400 N");
  EXPECT_GT(*ride().cases[0].ends[1]->damping, before);
  desk().document().undo();
  desk().document().undo();
  EXPECT_EQ(build().variant().fit[1].damper_curve.size(), points);
}

TEST_F(DepthTest, JoiningTheSidesIsAnEditAndShowsInTheLean) {
  bags()->show_view("lean");
  const double separate = *roll()->fitted.angle;
  ASSERT_FALSE(desk().type("@.front.sides", "joined"));
  ASSERT_FALSE(desk().type("@.rear.sides", "joined"));
  EXPECT_GT(roll()->fitted.angle.value_or(1), separate);
}

TEST_F(DepthTest, NoBagIsSaidInEveryViewAndNothingCrashes) {
  choose_bag(desk(), build::End::rear, "");
  for (int i = 1; i <= 7; ++i) {
    key(static_cast<Qt::Key>(Qt::Key_0 + i), Qt::AltModifier);
    QCoreApplication::processEvents();
    window_->grab();
  }
  EXPECT_TRUE(window_->findChild<StrokeView*>()->summary().contains("choose a bag"));
}

// ---- search

class SearchTest : public DepthTest {
protected:
  SearchPage* page() { return bags()->search_page(); }
  void run() {
    bags()->show_side("search");
    click("search_go");
    for (int i = 0; i < 400 && page()->is_running(); ++i)
      QTest::qWait(10);
    ASSERT_FALSE(page()->is_running());
  }
};

TEST_F(SearchTest, FindsPicksFromTheScatterAndTakesOverAsAVariant) {
  const build::Build before = build();
  run();
  ASSERT_TRUE(page()->result());
  EXPECT_TRUE(build() == before) << "searching changes nothing";
  ASSERT_FALSE(page()->result()->choices.empty());
  EXPECT_EQ(page()->chosen(), 0U);
  // Click on another choice's mark.
  auto* chart = page()->findChild<Chart*>();
  QCoreApplication::processEvents();
  const auto& figures = page()->result()->choices.back().figures;
  const QPoint at(static_cast<int>(chart->xAxis->coordToPixel(figures.discomfort)),
                  static_cast<int>(chart->yAxis->coordToPixel(figures.reserve * 100)));
  QTest::mouseClick(chart, Qt::LeftButton, {}, at);
  ASSERT_TRUE(page()->chosen());
  const auto& held = page()->result()->choices[*page()->chosen()];
  EXPECT_NEAR(held.figures.discomfort, figures.discomfort, 0.06);
  const auto wanted = assess::with_choice(before.variant(), held);
  click("search_take");
  EXPECT_EQ(build().variants.size(), before.variants.size() + 1);
  EXPECT_EQ(build().variant().fit, wanted.fit);
  EXPECT_FALSE(page()->result()) << "the build has changed: the old answer is gone";
  desk().document().undo();
  EXPECT_TRUE(build() == before);
}

TEST_F(SearchTest, TheListHoldsAChoiceByKeyboard) {
  run();
  auto* table = window_->findChild<QTableWidget*>("search_table");
  ASSERT_GT(table->rowCount(), 3);
  table->setFocus();
  table->setCurrentCell(0, 0);
  QTest::keyClick(table, Qt::Key_Down);
  const auto& pair = page()->result()->ranking[1];
  if (pair.reason.empty()) {
    EXPECT_EQ(page()->result()->choices[*page()->chosen()].ends[0].bag, pair.bags[0]);
  }
}

TEST_F(SearchTest, EveryChoiceIsReachedByItsButtons) {
  run();
  for (std::size_t i = 1; i < page()->result()->choices.size(); ++i) {
    click("search_next");
    EXPECT_EQ(page()->chosen(), i);
  }
  click("search_next");
  EXPECT_EQ(page()->chosen(), page()->result()->choices.size() - 1) << "the last stays";
  click("search_better");
  EXPECT_EQ(page()->chosen(), page()->result()->choices.size() - 2);
}

TEST_F(SearchTest, StoppingLeavesTheBuildUntouched) {
  const build::Build before = build();
  bags()->show_side("search");
  for (int i = 0; i < 5; ++i) {
    page()->start();
    EXPECT_TRUE(page()->is_running());
    QTest::qWait(i);
    page()->stop();
    EXPECT_FALSE(page()->is_running());
    QTest::qWait(20);
    EXPECT_FALSE(page()->result()) << "what was stopped never arrives";
  }
  EXPECT_TRUE(build() == before);
}

TEST_F(SearchTest, AnEditMakesTheAnswerStale) {
  run();
  ASSERT_TRUE(page()->result());
  ASSERT_FALSE(desk().type("front.left.mass_kg", "500 kg"));
  EXPECT_FALSE(page()->result());
  page()->start();
  ASSERT_FALSE(desk().type("front.left.mass_kg", "470 kg"));
  QTest::qWait(300);
  EXPECT_FALSE(page()->result()) << "a result for a build that has changed is never shown";
}

TEST_F(SearchTest, WhatToTryIsTypedWithUnits) {
  bags()->show_side("search");
  auto edits = page()->findChildren<QLineEdit*>();
  edits[0]->setText("0; lots");
  page()->start();
  EXPECT_FALSE(page()->is_running());
  EXPECT_TRUE(told().contains("lots"));
  edits[0]->setText("0; 200 in3");
  edits[1]->setText("1/2 in; 1 in");
  run();
  EXPECT_EQ(page()->result()->tried, std::size_t(std::pow(desk().shelf().bags.size() * 2 * 3, 2)));
}

// ---- the shelf

class ShelfTest : public DepthTest {
protected:
  void SetUp() override {
    DepthTest::SetUp();
    desk().cards().reload();
    bags()->show_side("shelf");
    page()->show_bag("Osier O-135");
    QCoreApplication::processEvents();
  }
  ShelfPage* page() { return bags()->shelf_page(); }
  QTableWidget* cells() { return window_->findChild<QTableWidget*>("card_cells"); }
  /// As a person does; what is refused stays in its line.
  void type(int row, int column, const char* text) {
    cells()->setFocus();
    cells()->setCurrentCell(row, column);
    QTest::keyClick(cells(), Qt::Key_F2);
    auto* line = qobject_cast<QLineEdit*>(QApplication::focusWidget());
    ASSERT_NE(line, nullptr);
    line->selectAll();
    QTest::keyClicks(line, text);
    QTest::keyClick(line, Qt::Key_Return);
    QCoreApplication::processEvents();
  }
};

TEST_F(ShelfTest, ACellIsEditedTheDoubtMarkedAndUndone) {
  ASSERT_TRUE(page()->draft());
  const auto before = *page()->draft();
  type(4, 1, "1.9 l");
  EXPECT_DOUBLE_EQ(page()->draft()->volumes[4], 0.0019);
  // A volume above its neighbour is a mistake; a believable one off its loads is a doubt, with the cell named.
  type(4, 1, "1.51 l");
  EXPECT_TRUE(cells()->item(4, 1)->text().contains("△"));
  EXPECT_TRUE(button("card_keep")->isEnabled());
  type(4, 1, "heavy");
  EXPECT_DOUBLE_EQ(page()->draft()->volumes[4], 0.00151) << "the last good value stands";
  EXPECT_TRUE(told().contains("heavy"));
  EXPECT_EQ(qobject_cast<QLineEdit*>(QApplication::focusWidget())->text(), "heavy") << "it stays, to be put right";
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Escape);
  QCoreApplication::processEvents();
  EXPECT_EQ(cells()->currentRow(), 4) << "and the cell is held still";
  click("card_undo");
  click("card_undo");
  EXPECT_EQ(*page()->draft(), before);
}

TEST_F(ShelfTest, LookingAtAnotherCardLosesNoEdit) {
  type(2, 2, "2540 N");
  page()->show_bag("Fennick R-100");
  EXPECT_EQ(page()->draft()->name, "Fennick R-100");
  page()->show_bag("Osier O-135");
  EXPECT_DOUBLE_EQ(page()->draft()->loads[0][2], 2540);
  EXPECT_FALSE(
      window_->findChild<QListWidget*>("card_list")->findItems("Osier O-135  · edited", Qt::MatchStartsWith).isEmpty());
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_NE(page()->draft()->loads[0][2], 2540) << "on the shelf Ctrl+Z is the card's";
  EXPECT_FALSE(page()->drafts().any_unkept());
  key(Qt::Key_Z, Qt::ControlModifier | Qt::ShiftModifier);
  EXPECT_DOUBLE_EQ(page()->draft()->loads[0][2], 2540);
  page()->duplicate();
  page()->show_bag("Fennick R-100");
  auto* list = window_->findChild<QListWidget*>("card_list");
  ASSERT_FALSE(list->findItems("Osier O-135 copy", Qt::MatchStartsWith).isEmpty());
  list->setCurrentItem(list->findItems("Osier O-135 copy", Qt::MatchStartsWith).front());
  EXPECT_EQ(page()->draft()->name, "Osier O-135 copy");
}

TEST_F(ShelfTest, ADuplicateIsNamedKeptAndOnTheShelf) {
  click("card_duplicate");
  auto* name = window_->findChild<QLineEdit*>("card_key_0");
  name->setFocus();
  name->selectAll();
  QTest::keyClicks(name, "Tallow T-1");
  QTest::keyClick(name, Qt::Key_Return);
  click("card_keep");
  EXPECT_NE(desk().shelf().find("Tallow T-1"), nullptr);
  EXPECT_TRUE(std::filesystem::exists(folder_ / "cards" / "tallow-t-1.csv"));
  EXPECT_NE(desk().shelf().find("Osier O-135"), nullptr) << "the one it came from stays";
  auto* list = window_->findChild<QListWidget*>("card_list");
  EXPECT_FALSE(list->findItems("Tallow T-1", Qt::MatchStartsWith).isEmpty());
}

TEST_F(ShelfTest, ExportedThenImportedIsTheSameCard) {
  const auto file = folder_ / "out.csv";
  ASSERT_TRUE(page()->export_to(QString::fromStdString(file.string())));
  EXPECT_EQ(shelf::read_card(test::text_of(file)).card->loads, page()->draft()->loads);
}

TEST_F(ShelfTest, CardsAreDraggedInSoundOnesKeptAndDamagedOnesSaid) {
  air::BagCard one = *page()->draft(), two = one;
  one.name = "Dragged One";
  two.name = "Dragged Two";
  test::write(folder_ / "both.csv", shelf::card_text(one) + shelf::card_text(two));
  std::string broken = shelf::card_text(one);
  broken.replace(broken.find("kind: double"), 12, "kind: square");
  test::write(folder_ / "broken.csv", broken);
  test::write(folder_ / "picture.csv", std::string("\x89PNG\x00\xff\xfe", 7));
  QMimeData data;
  QList<QUrl> urls;
  for (const char* name : {"both.csv", "broken.csv", "picture.csv", "not-there.csv"})
    urls << QUrl::fromLocalFile(QString::fromStdString((folder_ / name).string()));
  data.setUrls(urls);
  QDragEnterEvent enter(QPoint(300, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(window_.get(), &enter);
  ASSERT_TRUE(enter.isAccepted());
  QDropEvent drop(QPointF(300, 300), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(window_.get(), &drop);
  EXPECT_NE(desk().shelf().find("Dragged One"), nullptr);
  EXPECT_NE(desk().shelf().find("Dragged Two"), nullptr);
  EXPECT_TRUE(told().contains("2 cards kept, 3 not")) << told().toStdString();
  EXPECT_TRUE(told().contains("broken.csv, line 3")) << told().toStdString();
}

TEST_F(ShelfTest, DamagedCardFilesNeverGetIn) {
  const std::string good = shelf::card_text(*page()->draft());
  const std::size_t before = desk().shelf().bags.size();
  for (std::size_t cut = 0; cut + 290 < good.size(); cut += 37) {
    test::write(folder_ / "cut.csv", good.substr(0, cut));
    EXPECT_EQ(page()->import({QString::fromStdString((folder_ / "cut.csv").string())}), 0) << cut;
    EXPECT_FALSE(told().isEmpty());
  }
  EXPECT_EQ(desk().shelf().bags.size(), before);
}

TEST_F(ShelfTest, ACardIsMadeFromABenchTest) {
  click("card_bench");
  auto* table = window_->findChild<QTableWidget*>("bench_table");
  auto* panel = window_->findChild<BenchPanel*>();
  ASSERT_TRUE(table->isVisible());
  EXPECT_FALSE(button("bench_make")->isEnabled());
  const air::BagCurve real(*page()->draft());
  int row = 0;
  for (const double h : {0.068, 0.10, 0.135, 0.17, 0.205})
    for (const double bar : {2.0, 5.0}) {
      const double load = air::bag_force(real.section(h), bar * 1e5).force;
      table->setItem(row, 0, new QTableWidgetItem(QString("%1 mm").arg(h * 1e3)));
      table->setItem(row, 1, new QTableWidgetItem(QString("%1 kgf").arg(load / 9.80665)));
      table->setItem(row, 2, new QTableWidgetItem(QString("%1 bar").arg(bar)));
      ++row;
    }
  EXPECT_FALSE(button("bench_make")->isEnabled());
  ASSERT_FALSE(panel->answer().wanted.empty());
  EXPECT_TRUE(desk().words_of(panel->answer().wanted.back()).contains("1 kg is 1 l"));
  table->setItem(0, 3, new QTableWidgetItem(QString("%1 l").arg(real.section(0.068).volume * 1e3)));
  ASSERT_TRUE(panel->answer().fit);
  EXPECT_LT(panel->answer().fit->rms, 0.01);
  click("bench_make");
  ASSERT_TRUE(page()->draft());
  EXPECT_EQ(page()->draft()->name, "Bench bag");
  EXPECT_NEAR(air::bag_force(air::BagCurve(*page()->draft()).section(0.14), 4e5).force /
                  air::bag_force(real.section(0.14), 4e5).force,
              1, 0.01);
  click("card_keep");
  EXPECT_NE(desk().shelf().find("Bench bag"), nullptr);
}

} // namespace
} // namespace mavrel::app
