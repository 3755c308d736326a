// Where the focus is after rows were made anew, and that what is looked for by name is on the rows that stand.
#include "app/desk/edits.h"
#include "app/window_fixture.h"
#include "build/names.h"

#include <QComboBox>
#include <QPushButton>
#include <QTabBar>
#include <QToolButton>

namespace mavrel::app {
namespace {

class RowPanelTest : public WindowTest {
protected:
  void show_panel(int panel) {
    window_->go_to_stage("car_in");
    car_in()->findChild<QTabBar*>()->setCurrentIndex(panel);
    QCoreApplication::processEvents();
    QApplication::setActiveWindow(window_.get());
  }
  QPushButton* button(const QString& text) {
    for (QPushButton* one : window_->findChildren<QPushButton*>())
      if (one->text() == text && one->isVisible()) return one;
    return nullptr;
  }
  /// Presses it as the keyboard does.
  void press(QAbstractButton* what) {
    ASSERT_NE(what, nullptr);
    what->setFocus(Qt::TabFocusReason);
    QTest::keyClick(what, Qt::Key_Space);
    QCoreApplication::processEvents();
  }
  /// The path of the field that has the focus.
  QString focused() {
    for (QWidget* w = QApplication::focusWidget(); w; w = w->parentWidget())
      if (auto* one = qobject_cast<Field*>(w)) return desk().resolve(one->path());
    return QString("none: ") + (QApplication::focusWidget() ? QApplication::focusWidget()->accessibleName() : "");
  }
};

TEST_F(RowPanelTest, ARowThatWasMadeHasTheFocus) {
  show_panel(2);
  desk().set_load_case(1);
  QCoreApplication::processEvents();
  const std::size_t masses = build().load_cases[1].masses.size(), variants = build().variants.size();
  press(button("Add a mass"));
  ASSERT_EQ(build().load_cases[1].masses.size(), masses + 1);
  EXPECT_EQ(focused(), QString("load_cases.1.masses.%1.name").arg(masses));
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Space);
  EXPECT_EQ(build().variants.size(), variants) << "a space typed there makes no variant";
}

TEST_F(RowPanelTest, ARowThatWentLeavesTheFocusOnARowAndNeverOnARemover) {
  show_panel(2);
  desk().set_load_case(1);
  add_load_mass(desk(), 1);
  add_load_mass(desk(), 1);
  QCoreApplication::processEvents();
  const std::size_t masses = build().load_cases[1].masses.size();
  QToolButton* remove = nullptr;
  for (QToolButton* one : window_->findChildren<QToolButton*>())
    if (one->isVisible() && one->property("takes_away").toBool() && one->text() == "×" &&
        !one->accessibleName().contains("load case"))
      remove = one; // the last row's
  press(remove);
  ASSERT_EQ(build().load_cases[1].masses.size(), masses - 1);
  EXPECT_TRUE(focused().startsWith("load_cases.1.")) << focused().toStdString();
  QTest::keyClick(QApplication::focusWidget(), Qt::Key_Space);
  QCoreApplication::processEvents();
  EXPECT_EQ(build().load_cases[1].masses.size(), masses - 1) << "a second press takes nothing more away";
}

TEST_F(RowPanelTest, UsesOfPresetsAreShownOnTheRowsThatStand) {
  show_panel(3);
  add_preset(desk());
  for (std::size_t i = 0; i < build().variant().brief.presets.size(); ++i) {
    // Before the rows that went are deleted.
    auto* use = window_->findChild<QComboBox*>(QString("use_%1").arg(i));
    ASSERT_NE(use, nullptr);
    const auto names = build::names_of(build::PresetUse{});
    const auto row = static_cast<std::size_t>(build().variant().brief.presets[i].use);
    EXPECT_EQ(use->currentData().toString(), QString(names[row].key)) << i;
    EXPECT_TRUE(use->isVisible()) << i;
  }
}

} // namespace
} // namespace mavrel::app
