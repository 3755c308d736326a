// The rest of the window: the brief, load cases, job, comparison, units, themes and menus, as a person uses them.
#include "window_fixture.h"

#include "app/kit/chips.h"
#include "app/shell/findings_panel.h"
#include "app/shell/stage_rail.h"
#include "app/stages/compare/compare_page.h"
#include "assess/end/end_answer.h"

#include <QComboBox>
#include <QMenuBar>
#include <QPushButton>
#include <QTabBar>
#include <QToolButton>

namespace mavrel::app {
namespace {

class PanelsTest : public WindowTest {
protected:
  void show_tab(int i) {
    window_->go_to_stage("car_in");
    window_->findChild<QTabBar*>("car_in_tabs")->setCurrentIndex(i);
    QCoreApplication::processEvents();
  }
  QAbstractButton* visible_button(const QString& text) {
    for (auto* button : window_->findChildren<QAbstractButton*>())
      if (button->isVisible() && (button->text() == text || button->accessibleName() == text)) return button;
    return nullptr;
  }
  void press(const QString& text) {
    auto* button = visible_button(text);
    ASSERT_NE(button, nullptr) << text.toStdString();
    QTest::mouseClick(button, Qt::LeftButton);
    QCoreApplication::processEvents();
  }
};

// ---- the brief

TEST_F(PanelsTest, AWishIsTypedAsHeightGapFingersOrDrop) {
  show_tab(3);
  const auto& wish = [&] { return *build().variant().brief.presets[1].wish[0]; };
  type("@.brief.presets.1.front", "360");
  EXPECT_EQ(wish().as, build::HeightWish::As::height);
  EXPECT_NEAR(wish().value, 0.360, 1e-12);
  type("@.brief.presets.1.front", "2 f");
  EXPECT_EQ(wish().as, build::HeightWish::As::gap);
  EXPECT_NEAR(wish().value, 2 * desk().prefs().finger, 1e-12);
  type("@.brief.presets.1.front", "drop 25 mm");
  EXPECT_EQ(wish().as, build::HeightWish::As::drop);
  const double H = desk().assessment().end(End::front).presets[1]->height;
  EXPECT_NEAR(H, *desk().assessment().end(End::front).surveyed_height - 0.025, 1e-12);
}

TEST_F(PanelsTest, PresetsAreAddedNamedAndRemoved) {
  show_tab(3);
  press("Add a preset");
  ASSERT_EQ(build().variant().brief.presets.size(), 4U);
  type("@.brief.presets.3.name", "Tyre change");
  EXPECT_EQ(build().variant().brief.presets[3].name, "Tyre change");
  press("Remove Tyre change");
  EXPECT_EQ(build().variant().brief.presets.size(), 3U);
  desk().document().undo();
  EXPECT_EQ(build().variant().brief.presets[3].name, "Tyre change");
}

TEST_F(PanelsTest, AReservesChangeMovesTheRoadWindow) {
  show_tab(3);
  const double low = desk().assessment().end(End::front).windows.road->low.height;
  type("@.brief.bump_travel_m", "55 mm");
  EXPECT_NEAR(desk().assessment().end(End::front).windows.road->low.height, low + 0.010, 1e-9);
}

// ---- loads

TEST_F(PanelsTest, AMassIsAddedCarriedAndRemoved) {
  show_tab(2);
  desk().set_load_case(0);
  QCoreApplication::processEvents();
  press("Add a mass");
  ASSERT_EQ(build().load_cases[0].masses.size(), 1U);
  type("load_cases.0.masses.0.name", "spare wheel");
  type("load_cases.0.masses.0.mass_kg", "44 lb");
  EXPECT_NEAR(build().load_cases[0].masses[0].mass, 44 * 0.45359237, 1e-9);
  press("Remove spare wheel");
  EXPECT_TRUE(build().load_cases[0].masses.empty());
}

TEST_F(PanelsTest, ALoadCaseIsRemovedAndTheNextOneShown) {
  show_tab(2);
  desk().set_load_case(2);
  QCoreApplication::processEvents();
  press("Remove this load case");
  EXPECT_EQ(build().load_cases.size(), 2U);
  EXPECT_LT(desk().load_case(), 2U);
  while (!build().load_cases.empty())
    remove_load_case(desk(), 0);
  EXPECT_EQ(desk().assessment().loads.size(), 1U) << "without load cases the car is as surveyed";
}

// ---- job

TEST_F(PanelsTest, TheCarIsNamedWhereItStands) {
  show_tab(4);
  type("job.car", "Sorrel Wayfare, the green one");
  EXPECT_TRUE(window_->windowTitle().startsWith("Sorrel Wayfare, the green one"));
}

TEST_F(PanelsTest, AltitudeIsTypedInMetres) {
  show_tab(4);
  type("surroundings.altitude_m", "640");
  EXPECT_DOUBLE_EQ(build().surroundings.altitude, 640);
  type("surroundings.altitude_m", "2100 ft");
  EXPECT_NEAR(build().surroundings.altitude, 640.08, 1e-9);
}

// ---- comparison

TEST_F(PanelsTest, TwoVariantsAreComparedAndTheChoiceOfThemChanged) {
  window_->go_to_stage("compare");
  auto* page = window_->findChild<ComparePage*>();
  ASSERT_TRUE(page->isVisible());
  auto boxes = page->findChildren<QComboBox*>();
  ASSERT_EQ(boxes.size(), 2);
  EXPECT_EQ(boxes[0]->count(), 3);
  const QImage before = page->grab().toImage();
  boxes[1]->setCurrentIndex(2);
  emit boxes[1]->activated(2);
  QCoreApplication::processEvents();
  EXPECT_NE(page->grab().toImage(), before);
}

TEST_F(PanelsTest, WithOneVariantComparingSaysHowToGetAnother) {
  while (build().variants.size() > 1)
    remove_variant(desk(), 1);
  window_->go_to_stage("compare");
  EXPECT_FALSE(window_->findChild<ComparePage*>()->isVisible());
  EXPECT_TRUE(told().contains("Ctrl+D"));
}

TEST_F(PanelsTest, VariantsAreNamedAndRemovedButNeverTheLast) {
  ASSERT_FALSE(desk().type("@.name", "thin mounts"));
  EXPECT_EQ(build().variant().name, "thin mounts");
  while (build().variants.size() > 1)
    action("Remove this variant")->trigger();
  action("Remove this variant")->trigger();
  EXPECT_EQ(build().variants.size(), 1U);
}

// ---- how it is looked at

TEST_F(PanelsTest, UnitsChangeEverythingShownAndNothingStored) {
  const build::Build before = build();
  UnitPrefs imperial;
  imperial.length = LengthUnit::inch;
  imperial.mass = MassUnit::lb;
  imperial.pressure = PressureUnit::psi;
  desk().view().set_prefs(imperial);
  QCoreApplication::processEvents();
  EXPECT_TRUE(field("front.left.mass_kg")->edit()->text().endsWith(" lb"));
  EXPECT_TRUE(field("front.left.height_m")->edit()->text().endsWith(" in"));
  EXPECT_TRUE(build() == before);
  type("front.right.height_m", "15");
  EXPECT_NEAR(build().ends[0].corners[1].height.values.front(), 15 * 0.0254, 1e-12)
      << "a bare number is in the units shown";
  desk().view().set_prefs({});
}

double brightness(const QImage& image) {
  double sum = 0;
  for (int y = 0; y < image.height(); y += 4)
    for (int x = 0; x < image.width(); x += 4)
      sum += qGray(image.pixel(x, y));
  return sum / (image.width() * image.height() / 16.0);
}

TEST_F(PanelsTest, BothThemesPaintEveryStageAndNothingOfTheOtherStays) {
  for (const char* stage : {"car_in", "bags", "compare"}) {
    window_->go_to_stage(stage);
    QCoreApplication::processEvents();
    const double light = brightness(window_->grab().toImage());
    action("Night bay (dark)")->trigger();
    QCoreApplication::processEvents();
    const double dark = brightness(window_->grab().toImage());
    EXPECT_GT(light, 190) << stage;
    EXPECT_LT(dark, 65) << stage;
    action("Primer (light)")->trigger();
    QCoreApplication::processEvents();
    EXPECT_NEAR(brightness(window_->grab().toImage()), light, 0.5) << stage;
  }
}

TEST_F(PanelsTest, LargerTextIsLargerEverywhereAndHasAnEnd) {
  const int before = field("front.left.mass_kg")->edit()->font().pixelSize();
  for (double last = 0; desk().look().scale > last;) { // until it grows no more
    last = desk().look().scale;
    action("Larger text")->trigger();
  }
  EXPECT_GT(field("front.left.mass_kg")->edit()->font().pixelSize(), before);
  EXPECT_LE(desk().look().scale, 2.0);
  window_->grab();
  desk().view().set_look({});
}

TEST_F(PanelsTest, ANarrowWindowFoldsTheFindingsUntilSomebodyUnfoldsThem) {
  auto* findings = window_->findChild<FindingsPanel*>();
  EXPECT_FALSE(findings->is_folded());
  window_->resize(1100, 700);
  QCoreApplication::processEvents();
  EXPECT_TRUE(findings->is_folded());
  key(Qt::Key_F, Qt::ControlModifier);
  EXPECT_FALSE(findings->is_folded());
  window_->resize(1120, 700);
  QCoreApplication::processEvents();
  EXPECT_FALSE(findings->is_folded()) << "what the person chose stays";
}

TEST_F(PanelsTest, TheRailLeadsToEveryStage) {
  for (const char* stage : {"bags", "compare", "car_in"}) {
    auto* button = window_->findChild<QWidget*>(QString("stage_") + stage);
    ASSERT_NE(button, nullptr) << stage;
    QTest::mouseClick(button, Qt::LeftButton);
    QCoreApplication::processEvents();
    // The page of that stage is what stands in the workspace.
    const auto* pages = window_->findChild<QStackedWidget*>();
    const QString shown = pages->currentWidget()->metaObject()->className();
    const std::string name = stage;
    EXPECT_TRUE(shown.contains(name == "bags"      ? "BagsStage"
                               : name == "compare" ? "ComparePage"
                                                   : "CarInStage"))
        << shown.toStdString();
  }
}

TEST_F(PanelsTest, ChipsSwitchLoadCaseAndVariant) {
  for (auto* chips : window_->findChildren<Chips*>()) {
    if (chips->accessibleName() != "Load case" && chips->accessibleName() != "Variant") continue;
    auto buttons = chips->findChildren<QToolButton*>();
    ASSERT_EQ(buttons.size(), 3);
    QTest::mouseClick(buttons[2], Qt::LeftButton);
  }
  EXPECT_EQ(desk().load_case(), 2U);
  EXPECT_EQ(build().active_variant, 2U);
}

TEST_F(PanelsTest, NoTwoCommandsShareAKey) {
  std::map<QString, QString> seen;
  for (QAction* menu : window_->menuBar()->actions())
    for (QAction* one : menu->menu()->actions()) {
      const QString keys = one->shortcut().toString();
      if (keys.isEmpty()) continue;
      EXPECT_TRUE(seen.emplace(keys, one->text()).second)
          << keys.toStdString() << ": " << one->text().toStdString() << " and " << seen[keys].toStdString();
    }
  EXPECT_GT(seen.size(), 20U);
}

} // namespace
} // namespace mavrel::app
