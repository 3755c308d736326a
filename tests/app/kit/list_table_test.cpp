// A table that is read: what a hand and a keyboard do with it.
#include "app/kit/list_table.h"

#include "support.h"

#include <QApplication>
#include <QClipboard>
#include <QHeaderView>
#include <QMenu>
#include <QTest>

namespace mavrel::app {
namespace {

struct Line {
  QString name, mass, note;
};

class ListTableTest : public ::testing::Test {
protected:
  void SetUp() override {
    table_.resize(400, 300);
    table_.show();
    QObject::connect(&table_, &ListTable::chose, &table_, [this](std::size_t row) { chosen_.push_back(row); });
    QObject::connect(&table_, &ListTable::picked, &table_, [this](std::size_t row) { picked_.push_back(row); });
    QObject::connect(&table_, &ListTable::wants_file, &table_, [this](const QString& text) { file_ = text; });
    fill();
  }
  void fill() {
    table_.fill(lines_.size(), [this](std::size_t i, ListTable::Row& row) {
      row.words(lines_[i].name, Qt::black).figure(lines_[i].mass, Qt::black).words(lines_[i].note, Qt::black);
    });
  }
  void click_head(int column) {
    const QHeaderView* heads = table_.horizontalHeader();
    QTest::mouseClick(heads->viewport(), Qt::LeftButton, {},
                      {heads->sectionViewportPosition(column) + 8, heads->height() / 2});
  }
  QStringList names() const {
    QStringList out;
    for (int r = 0; r < table_.rowCount(); ++r)
      out << table_.item(r, 0)->text();
    return out;
  }
  /// Chooses an entry of the table's menu by its name.
  void choose(const QString& name) {
    QContextMenuEvent asked(QContextMenuEvent::Keyboard, {20, 20}, table_.mapToGlobal(QPoint(20, 20)));
    QApplication::sendEvent(&table_, &asked);
    auto* menu = table_.findChild<QMenu*>("table_menu");
    ASSERT_NE(menu, nullptr);
    for (QAction* action : menu->actions())
      if (action->text() == name) action->trigger();
    menu->close();
    QCoreApplication::sendPostedEvents(nullptr, QEvent::DeferredDelete);
  }

  std::vector<Line> lines_ = {{"rail", "≈ 12.5 kg", "bent"},
                              {"bracket", "2.4 kg", "left, \"new\""},
                              {"tank", "none", ""},
                              {"arm", "−1 kg", "comes off"},
                              {"valve", "2.4 kg", ""}};
  std::vector<std::size_t> chosen_, picked_;
  QString file_;
  ListTable table_{"parts", "Parts", {"part", "mass", "note"}, nullptr};
};

TEST_F(ListTableTest, AHeadSortsByFigureThenTheOtherWayThenPutsBack) {
  table_.hold(3);
  click_head(1);
  EXPECT_EQ(names(), QStringList({"arm", "bracket", "valve", "rail", "tank"})) << "what has no figure is last";
  EXPECT_EQ(table_.held(), 3U) << "the same row, wherever it stands now";
  click_head(1);
  EXPECT_EQ(names().indexOf("rail"), 1);
  EXPECT_EQ(names().back(), "arm");
  click_head(1);
  EXPECT_EQ(names(), QStringList({"rail", "bracket", "tank", "arm", "valve"}));
  EXPECT_EQ(table_.held(), 3U);
  EXPECT_FALSE(table_.horizontalHeader()->isSortIndicatorShown());
}

TEST_F(ListTableTest, SaysWhichRowIsMeantAsItWasFilledIn) {
  click_head(0);
  ASSERT_EQ(names().front(), "arm");
  chosen_.clear();
  table_.setFocus();
  table_.setCurrentCell(0, 0);
  ASSERT_EQ(chosen_.size(), 1U);
  EXPECT_EQ(chosen_.front(), 3U);
  QTest::keyClick(&table_, Qt::Key_Return);
  ASSERT_EQ(picked_.size(), 1U);
  EXPECT_EQ(picked_.front(), 3U);
}

TEST_F(ListTableTest, FilledAnewItSaysNothingHoldsItsRowAndKeepsItsOrder) {
  click_head(0);
  table_.hold(4);
  chosen_.clear();
  lines_[1].name = "zinc plate";
  fill();
  EXPECT_TRUE(chosen_.empty());
  EXPECT_EQ(table_.held(), 4U);
  EXPECT_EQ(names().back(), "zinc plate") << "still by the name";
  lines_.resize(2);
  fill();
  EXPECT_EQ(table_.held(), 1U) << "the last there is";
  lines_.clear();
  fill();
  EXPECT_EQ(table_.held(), std::nullopt);
  lines_ = {{"one", "1", ""}};
  fill();
  EXPECT_EQ(table_.held(), 0U);
}

TEST_F(ListTableTest, ARowThatSaysSoIsHeld) {
  table_.fill(3, [](std::size_t i, ListTable::Row& row) {
    row.words(QString::number(i), Qt::black).tip("more of it");
    if (i == 2) row.hold();
  });
  EXPECT_EQ(table_.held(), 2U);
  EXPECT_EQ(table_.item(1, 0)->toolTip(), "more of it");
}

TEST_F(ListTableTest, IsCopiedByRowAndWhole) {
  table_.setFocus();
  table_.hold(1);
  QTest::keyClick(&table_, Qt::Key_C, Qt::ControlModifier);
  EXPECT_EQ(QApplication::clipboard()->text(), "bracket\t2.4 kg\tleft, \"new\"");
  choose("Copy the table");
  EXPECT_EQ(QApplication::clipboard()->text().count('\n'), 6);
  EXPECT_TRUE(QApplication::clipboard()->text().startsWith("part\tmass\tnote\nrail\t≈ 12.5 kg\tbent\n"));
}

TEST_F(ListTableTest, IsSavedAsItStandsWithItsCommasAndQuotes) {
  choose("Sort by part");
  choose("Save it as CSV …");
  const QStringList lines = file_.split('\n');
  ASSERT_EQ(lines.size(), 7) << "heads, five rows and the end of the last";
  EXPECT_EQ(lines[0], "part,mass,note");
  EXPECT_EQ(lines[1], "arm,−1 kg,comes off");
  EXPECT_EQ(lines[2], "bracket,2.4 kg,\"left, \"\"new\"\"\"");
}

} // namespace
} // namespace mavrel::app
