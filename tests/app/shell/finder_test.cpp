// Anything found by name is shown, wherever one was; keys of the window work in a line of text too.
#include "app/every_page.h"

#include <QDialog>
#include <QListWidget>

namespace mavrel::app {
namespace {

class FinderTest : public WindowTest {
protected:
  /// Opens the finder from the first stage, types, and takes the first entry. @returns the entry's text
  QString find(const QString& words) {
    window_->go_to_stage("car_in");
    QApplication::setActiveWindow(window_.get());
    settle_events();
    QString found;
    const QObject answers; // while it stands
    QTimer::singleShot(50, &answers, [&] {
      auto* finder = qobject_cast<QDialog*>(QApplication::activeModalWidget());
      ASSERT_NE(finder, nullptr);
      auto* line = finder->findChild<QLineEdit*>();
      QTest::keyClicks(line, words);
      if (const auto* item = finder->findChild<QListWidget*>()->currentItem()) found = item->text();
      if (found.isEmpty()) return finder->reject();
      QTest::keyClick(line, Qt::Key_Return);
    });
    key(Qt::Key_K, Qt::ControlModifier);
    settle_events();
    return found;
  }
  QString stage_shown() {
    for (const StageEntry& entry : stage_entries())
      if (window_->stage(entry.key)->isVisible()) return entry.key;
    return {};
  }
};

TEST_F(FinderTest, WhatIsFoundIsShown) {
  const struct {
    const char *words, *stage;
  } rows[] = {{"plates cut job", "fit_up"},
              {"hold point", "fit_up"},
              {"fill and vent times proof", "proving"},
              {"drain the tank care", "care"},
              {"sinks overnight symptom", "faults"},
              {"fennick r-118 bag", "bags"},
              {"rear left weight reading", "car_in"}};
  for (const auto& row : rows) {
    const QString found = find(row.words);
    EXPECT_FALSE(found.isEmpty()) << row.words;
    EXPECT_EQ(stage_shown(), row.stage) << row.words << ": " << found.toStdString();
  }
}

TEST_F(FinderTest, TheWindowsKeysWorkInALineOfText) {
  Field* one = field("front.left.mass_kg");
  ASSERT_NE(one, nullptr);
  one->edit()->setFocus();
  const End before = desk().end();
  QTest::keyClick(one->edit(), Qt::Key_E, Qt::ControlModifier);
  EXPECT_NE(desk().end(), before) << "and not the end of the line";
  QTest::keyClick(one->edit(), Qt::Key_L, Qt::ControlModifier);
  EXPECT_EQ(desk().load_case(), 1U);
}

TEST_F(FinderTest, ArrowsMoveThePoseFromWhereverNothingElseUsesThem) {
  for (const char* stage : {"car_in", "fit_up", "care"}) {
    window_->go_to_stage(stage);
    settle_events();
    window_->stage(stage)->setFocus();
    const double before = *desk().pose(desk().end());
    QTest::keyClick(QApplication::focusWidget(), Qt::Key_Up);
    EXPECT_NEAR(*desk().pose(desk().end()), before + 0.001, 1e-9) << stage << ": a page that scrolls leaves them";
  }
}

TEST_F(FinderTest, ATipIsToldToWhoHasNoMouse) {
  Field* one = field("front.left.mass_kg");
  ASSERT_NE(one, nullptr);
  one->edit()->setFocus(Qt::TabFocusReason);
  QTest::qWait(20);
  EXPECT_TRUE(told().contains("front left weight")) << told().toStdString();
  desk().tell("Saved as nothing");
  EXPECT_EQ(told(), "Saved as nothing") << "what happens stands before it";
}

} // namespace
} // namespace mavrel::app
