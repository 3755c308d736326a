// Tab goes over what is in sight as it is read, and out of every table.
#include "app/kit/paged_stage.h"
#include "app/shell/stages.h"
#include "app/shell/tab_order.h"
#include "app/window_fixture.h"

#include <QGridLayout>
#include <QHBoxLayout>
#include <QPushButton>
#include <QTableWidget>

namespace mavrel::app {
namespace {

TEST(ReadingOrder, GoesRowByRowAndThroughAGroupBeforeTheNext) {
  QWidget window;
  window.resize(400, 300);
  auto* across = new QHBoxLayout(&window);
  QStringList names;
  const auto named = [&](const QString& name, QWidget* parent) {
    auto* made = new QPushButton(name, parent);
    made->setObjectName(name);
    return made;
  };
  auto* right = new QWidget(&window); // made first, read last
  auto* left = new QWidget(&window);
  across->addWidget(left);
  across->addWidget(right);
  auto* grid = new QGridLayout(left);
  grid->addWidget(named("d", left), 1, 1);
  grid->addWidget(named("c", left), 1, 0);
  grid->addWidget(named("b", left), 0, 1);
  grid->addWidget(named("a", left), 0, 0);
  auto* column = new QHBoxLayout(right);
  column->addWidget(named("e", right));
  window.show();
  QCoreApplication::processEvents();
  for (const QWidget* one : reading_order(&window))
    names << one->objectName();
  EXPECT_EQ(names.join(""), "abcde");
  auto* c = window.findChild<QWidget*>("c");
  EXPECT_EQ(next_in_reading(&window, c, true)->objectName(), "d");
  EXPECT_EQ(next_in_reading(&window, c, false)->objectName(), "b");
  EXPECT_EQ(next_in_reading(&window, window.findChild<QWidget*>("e"), true)->objectName(), "a") << "round at the end";
  c->setEnabled(false);
  EXPECT_EQ(next_in_reading(&window, window.findChild<QWidget*>("b"), true)->objectName(), "d");
}

class TabOrderTest : public WindowTest {};

TEST_F(TabOrderTest, NothingIsPressedBySpaceAtTheStart) {
  const std::size_t variants = build().variants.size();
  ASSERT_NE(QApplication::focusWidget(), nullptr);
  EXPECT_EQ(qobject_cast<QAbstractButton*>(QApplication::focusWidget()), nullptr);
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Space);
  EXPECT_EQ(build().variants.size(), variants);
}

/// Tab from the page's first stop comes round to it again, through everything that can have the focus: no trap.
TEST_F(TabOrderTest, EveryPageIsGoneThroughByTabAlone) {
  const auto go_round = [&](const QString& where) {
    QApplication::setActiveWindow(window_.get());
    const std::vector<QWidget*> all = reading_order(window_.get());
    ASSERT_FALSE(all.empty());
    all.front()->setFocus(Qt::TabFocusReason);
    std::set<QWidget*> seen;
    // A drawing goes through its own points first: some strokes more than there are stops.
    for (std::size_t stroke = 0; stroke < 3 * all.size() + 60; ++stroke) {
      seen.insert(QApplication::focusWidget());
      QTest::keyClick(QApplication::focusWidget(), Qt::Key_Tab);
      ASSERT_NE(QApplication::focusWidget(), nullptr) << where.toStdString();
      if (QApplication::focusWidget() == all.front()) break;
    }
    EXPECT_EQ(QApplication::focusWidget(), all.front())
        << where.toStdString() << ": it stays in " << QApplication::focusWidget()->objectName().toStdString() << " "
        << QApplication::focusWidget()->metaObject()->className() << " "
        << QApplication::focusWidget()->accessibleName().toStdString();
    for (QWidget* one : all)
      // Of chips only the chosen one is a stop: the arrows go to the others.
      if (one->isVisible() && one->isEnabled() && one != all.front() && (one->focusPolicy() & Qt::TabFocus)) {
        EXPECT_TRUE(seen.contains(one)) << where.toStdString() << ": " << one->objectName().toStdString() << " "
                                        << one->metaObject()->className() << " " << one->accessibleName().toStdString();
      }
  };
  for (const StageEntry& stage : stage_entries()) {
    if (!stage.closed(desk()).isEmpty()) continue;
    window_->go_to_stage(stage.key);
    QCoreApplication::processEvents();
    auto* paged = dynamic_cast<PagedStage*>(window_->stage(stage.key));
    if (!paged) {
      go_round(stage.key);
      continue;
    }
    int last = -1;
    for (int page = 0; page < 9; ++page) {
      paged->show_page(page);
      QCoreApplication::processEvents();
      if (paged->page() == last) break;
      last = paged->page();
      go_round(QString("%1 %2").arg(stage.key).arg(page));
    }
  }
}

} // namespace
} // namespace mavrel::app
