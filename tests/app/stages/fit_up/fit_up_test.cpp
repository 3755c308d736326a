// Fit-up as its user works in it: the plan made and begun, a check failed, put right and signed, a bag changed and the
// signatures that went stale, lines laid and dragged, plates drawn and written, the other school taken.
#include "app/stages/fit_up/fit_up.h"

#include "app/kit/choice_box.h"
#include "app/stages/fit_up/checks_page.h"
#include "app/stages/fit_up/cut_page.h"
#include "app/stages/fit_up/places_page.h"
#include "app/stages/fit_up/plan_page.h"
#include "app/stages/fit_up/questions.h"
#include "app/stages/fit_up/routes_page.h"
#include "app/stages/fit_up/schools_page.h"
#include "app/stages/fit_up/shop_page.h"
#include "app/stages/fit_up/templates_page.h"
#include "app/window_fixture.h"

#include <QComboBox>
#include <QInputDialog>
#include <QLabel>
#include <QPushButton>
#include <QTableWidget>
#include <QTimer>
#include <QToolButton>

namespace mavrel::app {
namespace {

enum Page { plan_page, checks_page, cut_page, templates_page, places_page, routes_page, schools_page, shop_page };

class FitUpTest : public WindowTest {
protected:
  void SetUp() override {
    qputenv("MAVREL_NOW", "2026-12-01 10:30");
    WindowTest::SetUp();
  }
  void TearDown() override { qunsetenv("MAVREL_NOW"); }
  FitUpStage* stage() { return static_cast<FitUpStage*>(window_->stage("fit_up")); }
  void go(int page) {
    window_->go_to_stage("fit_up");
    stage()->show_page(page);
    QCoreApplication::processEvents();
  }
  PlanView* plan() { return named<PlanView>("plan_view"); }
  const build::FitUp& fit_up() { return *build().variant().fit_up; }
  const assess::Job& job(const char* id) {
    const auto& made = *plan_of(desk());
    return made.jobs[*made.find(id)];
  }
  const assess::PlannedJob& placed(const char* id) {
    const auto& made = *plan_of(desk());
    return made.planned[*made.find(id)];
  }
  const assess::HoldPoint& point(const char* id) {
    for (const auto& p : checks_of(desk()))
      if (p.id == id) return p;
    throw std::runtime_error(id);
  }
  int row_of(QTableWidget* table, const QString& begins) {
    for (int r = 0; r < table->rowCount(); ++r)
      if (table->item(r, 0)->text().contains(begins)) return r;
    return -1;
  }
  void show_check(const char* id) {
    go(checks_page);
    auto* list = named<QTableWidget>("hold_points");
    for (std::size_t i = 0; i < checks_of(desk()).size(); ++i)
      if (checks_of(desk())[i].id == id) list->setCurrentCell(static_cast<int>(i), 0);
    QCoreApplication::processEvents();
  }
  /// Types and ticks every figure of the check that is shown. @param wrong  one that is not right; -1: none
  void measure(const char* id, int wrong = -1) {
    if (named<QPushButton>("begin_check")->isEnabled()) click("begin_check");
    const std::size_t count = point(id).figures.size();
    for (std::size_t i = 0; i < count; ++i) {
      const assess::AskedFigure f = point(id).figures[i];
      const bool right = static_cast<int>(i) != wrong;
      if (f.yes_no) {
        auto* button =
            window_->findChild<QToolButton*>(QString("%1_%2").arg(right ? "yes" : "no", QString::fromStdString(f.key)));
        ASSERT_NE(button, nullptr) << f.key;
        button->click();
        continue;
      }
      const double good = f.designed && f.right(*f.designed) ? *f.designed
                          : f.least                          ? *f.least
                          : f.most                           ? *f.most
                                                             : 0.3;
      const double bad = f.least ? *f.least - 0.02 : *f.most + 0.02;
      const std::size_t note = *point(id).note;
      type(QString("@.fit_up.checks.%1.figures.%2.%3").arg(note).arg(i).arg(assess::measured_field(f.kind)),
           desk().shown(right ? good : bad, f.kind, 4));
    }
    QCoreApplication::processEvents();
  }
  void sign(const QString& by = "Tamsin") {
    const TakesOn taking("Tamsin"); // hardly a job of the demo is done
    named<QComboBox>("signed_by")->setEditText(by);
    click("sign_check");
    QApplication::setActiveWindow(window_.get()); // the dialog was
  }
};

TEST_F(FitUpTest, ThePlanIsThereWithoutATaskTyped) {
  key(Qt::Key_7, Qt::ControlModifier);
  EXPECT_TRUE(plan()->isVisible());
  EXPECT_GT(plan_of(desk())->jobs.size(), 25U);
  EXPECT_TRUE(named<QLabel>("today")->text().contains("Kit built on its board"));
  EXPECT_TRUE(named<QLabel>("today")->text().contains("Joren"));
  EXPECT_EQ(plan()->held(), "board") << "what runs is looked at first";
  EXPECT_TRUE(named<QLabel>("job_about")->text().contains("What can be made on the bench"));
  // By mouse and by keyboard.
  QTest::mouseClick(plan(), Qt::LeftButton, {}, plan()->bar_of("rear.mock_up").center().toPoint());
  EXPECT_EQ(plan()->held(), "rear.mock_up");
  plan()->setFocus();
  QTest::keyClick(plan(), Qt::Key_Right);
  EXPECT_NE(plan()->held(), "rear.mock_up");
  QTest::keyClick(plan(), Qt::Key_Left);
  EXPECT_EQ(plan()->held(), "rear.mock_up");
  EXPECT_TRUE(plan()->accessibleName().contains("Rear: Mocked up"));
  // A bar lies on its lane and within the drawing.
  for (const char* id : {"rear.mock_up", "board", "rear.strip"}) {
    const QRectF bar = plan()->bar_of(id);
    EXPECT_TRUE(QRectF(plan()->rect()).contains(bar)) << id;
  }
  EXPECT_LT(plan()->bar_of("rear.strip").left(), plan()->bar_of("board").left());
}

TEST_F(FitUpTest, AJobIsBegunDoneAndLearnedFrom) {
  go(plan_page);
  plan()->hold("rear.cut_plates_bolted");
  emit plan()->chose("rear.cut_plates_bolted");
  click("begin_job");
  EXPECT_EQ(placed("rear.cut_plates_bolted").stands, assess::JobStands::running);
  qputenv("MAVREL_NOW", "2026-12-01 13:00");
  click("finish_job");
  EXPECT_EQ(placed("rear.cut_plates_bolted").stands, assess::JobStands::done);
  EXPECT_NEAR(*job("rear.cut_plates_bolted").note.took, 2.5 * 3600, 1);
  const auto& learned = build().shop->learned;
  ASSERT_EQ(learned.size(), 1U);
  EXPECT_EQ(learned[0].rule, "cut_plates_bolted");
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(build().shop->learned.empty());
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(placed("rear.cut_plates_bolted").stands, assess::JobStands::ready);
}

TEST_F(FitUpTest, AJobThatWaitsIsBegunByNobodyUnlessTheyTakeItOnByName) {
  go(plan_page);
  const char* id = "rear.mock_up";
  ASSERT_EQ(placed(id).stands, assess::JobStands::waiting);
  plan()->hold(id);
  emit plan()->chose(id);
  for (const char* button : {"begin_job", "finish_job"}) {
    const build::Build before = build();
    const TakesOn leaves("");
    click(button);
    EXPECT_TRUE(leaves.missing().contains("is not done")) << leaves.missing().toStdString();
    EXPECT_FALSE(leaves.could_at_once()) << "not without a name and a reason";
    EXPECT_EQ(build(), before);
    EXPECT_TRUE(told().startsWith("It waits")) << told().toStdString();
  }
  {
    const TakesOn takes("Tamsin", "springs were out when it came");
    click("begin_job");
  }
  EXPECT_EQ(placed(id).stands, assess::JobStands::running);
  EXPECT_EQ(job(id).note.taken_by, "Tamsin");
  EXPECT_TRUE(named<QLabel>("job_about")->text().contains("springs were out")) << "it stays on the plan";
  const TakesOn nobody("");
  click("finish_job"); // it runs: nothing is asked again
  EXPECT_TRUE(nobody.missing().isEmpty());
  EXPECT_EQ(placed(id).stands, assess::JobStands::done);
  EXPECT_EQ(job(id).note.taken_why, "springs were out when it came");
}

TEST_F(FitUpTest, AJobIsChangedSplitAddedSkippedAndTakenBack) {
  go(plan_page);
  plan()->hold("rear.mock_up");
  emit plan()->chose("rear.mock_up");
  const double end = plan_of(desk())->shared_span;
  click("change_job");
  const QString note = "@.fit_up.jobs." + QString::number(job("rear.mock_up").note_index);
  type(note + ".hours_s", "30 h");
  EXPECT_DOUBLE_EQ(job("rear.mock_up").hours, 30);
  EXPECT_GE(plan_of(desk())->shared_span, end);
  ASSERT_FALSE(desk().type(note + ".hours_s", ""));
  EXPECT_DOUBLE_EQ(job("rear.mock_up").hours, 2);
  click("split_job");
  EXPECT_DOUBLE_EQ(job("rear.mock_up").hours, 1);
  EXPECT_DOUBLE_EQ(job("own.1").hours, 1);
  EXPECT_EQ(job("rear.cycle").after, std::vector<std::string>{"own.1"});
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_FALSE(plan_of(desk())->find("own.1"));
  named<QLineEdit>("new_job")->setText("Fetch gas");
  click("add_job");
  EXPECT_EQ(say(job("own.1").name), "Fetch gas");
  EXPECT_EQ(job("own.1").after, std::vector<std::string>{"rear.mock_up"});
  // Skipped with a reason, and only with one.
  plan()->hold("lamps");
  emit plan()->chose("lamps");
  QTimer::singleShot(0, [] {
    auto* dialog = qobject_cast<QInputDialog*>(QApplication::activeModalWidget());
    ASSERT_NE(dialog, nullptr);
    dialog->setTextValue("new lamps, set by themselves");
    dialog->accept();
  });
  click("skip_job");
  EXPECT_FALSE(plan_of(desk())->find("lamps"));
  EXPECT_TRUE(named<QComboBox>("skipped_jobs")->itemText(0).contains("set by themselves"));
  click("unskip_job");
  EXPECT_TRUE(plan_of(desk())->find("lamps"));
  // What goes round is said, and nothing is lost.
  plan()->hold("mark");
  emit plan()->chose("mark");
  ASSERT_FALSE(desk().type("@.fit_up.jobs.0.after", "rear.strip"));
  EXPECT_FALSE(plan_of(desk()));
  QCoreApplication::processEvents();
  plan()->grab();
  QApplication::setActiveWindow(window_.get()); // the dialog was
  plan()->setFocus();
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_TRUE(plan_of(desk()).has_value());
}

TEST_F(FitUpTest, ACheckFailsMovesThePlanIsPutRightAndSigned) {
  show_check("rear.stop_first");
  const double before = placed("rear.assemble").start;
  measure("rear.stop_first", 0);
  sign();
  EXPECT_EQ(point("rear.stop_first").state, assess::CheckState::failed);
  EXPECT_TRUE(told().contains("moves")) << told().toStdString();
  EXPECT_TRUE(plan_of(desk())->find("repair.rear.stop_first"));
  EXPECT_GT(placed("rear.assemble").start, before);
  const auto& found = desk().assessment().findings;
  EXPECT_TRUE(std::any_of(found.begin(), found.end(), [](const auto& f) { return f.code == "fit_up_check_failed"; }));
  measure("rear.stop_first");
  sign();
  EXPECT_EQ(point("rear.stop_first").state, assess::CheckState::passed);
  EXPECT_FALSE(plan_of(desk())->find("repair.rear.stop_first"));
  EXPECT_DOUBLE_EQ(placed("rear.assemble").start, before);
  EXPECT_EQ(fit_up().checks[*point("rear.stop_first").note].by, "Tamsin");
  EXPECT_EQ(fit_up().checks[*point("rear.stop_first").note].day, "2026-12-01 10:30");
}

TEST_F(FitUpTest, HalfMeasuredItIsNotSigned) {
  show_check("front.vented");
  click("begin_check");
  sign();
  EXPECT_TRUE(told().contains("still to be measured"));
  EXPECT_EQ(point("front.vented").state, assess::CheckState::open);
  measure("front.vented");
  sign("");
  EXPECT_TRUE(told().contains("Say who signs"));
  sign("Joren");
  EXPECT_EQ(point("front.vented").state, assess::CheckState::passed);
}

TEST_F(FitUpTest, ABagChangedStalesJustWhatReadsIt) {
  for (const char* id : {"rear.stop_first", "front.stop_first", "rear.vented"}) {
    show_check(id);
    measure(id);
    sign();
    ASSERT_EQ(point(id).state, assess::CheckState::passed) << id;
  }
  ASSERT_FALSE(desk().type("@.rear.bag", "Fennick R-134"));
  QCoreApplication::processEvents();
  EXPECT_EQ(point("rear.stop_first").state, assess::CheckState::stale);
  EXPECT_EQ(point("front.stop_first").state, assess::CheckState::passed);
  EXPECT_EQ(point("rear.vented").state, assess::CheckState::passed);
  // The list shows it by sign and word, and the finding leads there.
  auto* list = named<QTableWidget>("hold_points");
  const int row = row_of(list, "Rear: Stop meets");
  ASSERT_GE(row, 0);
  EXPECT_TRUE(list->item(row, 0)->text().startsWith("≠"));
  EXPECT_EQ(list->item(row, 1)->text(), "stale");
  for (const auto& f : desk().assessment().findings)
    if (f.code == "fit_up_check_stale") {
      emit desk().went_to("fit_up", QString::fromStdString(f.place));
    }
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(point("rear.stop_first").state, assess::CheckState::passed);
}

TEST_F(FitUpTest, LinesAreLaidDraggedAndAirGoesByThem) {
  go(routes_page);
  auto* page = window_->findChild<RoutesPage*>();
  page->show_route("front_left");
  WaysView* view = page->view();
  const double before =
      fit_up_of(desk()).air().routes.size() ? assess::corner_line_length(fit_up_of(desk()).air(), 0) : 0;
  // The point on the front sill, from the side: 20 px up.
  const QPoint from = view->point_at(2, 0).toPoint();
  QTest::mousePress(view, Qt::LeftButton, {}, from);
  QTest::mouseMove(view, from - QPoint(0, 20));
  QTest::mouseRelease(view, Qt::LeftButton, {}, from - QPoint(0, 20));
  EXPECT_EQ(view->held_point(), 2);
  const double z = fit_up().routes[1].points[2].z;
  EXPECT_GT(z, 0.25);
  EXPECT_NE(assess::corner_line_length(fit_up_of(desk()).air(), 0), before);
  view->setFocus();
  QTest::keyClick(view, Qt::Key_Down);
  EXPECT_NEAR(fit_up().routes[1].points[2].z, z - 0.001, 1e-9);
  key(Qt::Key_Z, Qt::ControlModifier);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_NEAR(fit_up().routes[1].points[2].z, 0.21, 1e-9) << "a drag is one step back";
  const std::size_t points = fit_up().routes[1].points.size();
  click("add_way_point");
  EXPECT_EQ(fit_up().routes[1].points.size(), points + 1);
  click("remove_way_point");
  EXPECT_EQ(fit_up().routes[1].points.size(), points);
  // Through the wheel: said.
  ASSERT_FALSE(desk().type("@.fit_up.routes.1.points.2.x_m", "0 mm"));
  ASSERT_FALSE(desk().type("@.fit_up.routes.1.points.2.y_m", "740 mm"));
  ASSERT_FALSE(desk().type("@.fit_up.routes.1.points.2.z_m", "300 mm"));
  QCoreApplication::processEvents();
  auto* list = named<QTableWidget>("routes");
  EXPECT_TRUE(list->item(row_of(list, "Front left"), 3)->text().contains("in the wheel"));
  // A loom that nobody laid.
  page->show_route("valve_loom");
  click("lay_route");
  EXPECT_EQ(fit_up().routes.back().line, "valve_loom");
  EXPECT_EQ(fit_up().routes.back().points.size(), 3U);
}

TEST_F(FitUpTest, PointsOfALineAreTakenAwayOneAfterTheOtherByMouse) {
  go(routes_page);
  window_->findChild<RoutesPage*>()->show_route("front_left");
  auto* table = window_->findChild<QTableWidget*>("way_points");
  ASSERT_TRUE(table);
  const auto press_row = [&](int row) {
    QTest::mouseClick(table->viewport(), Qt::LeftButton, {}, table->visualItemRect(table->item(row, 0)).center());
    QCoreApplication::processEvents();
  };
  const build::Build before = build();
  const auto count = [&] { return fit_up().routes[1].points.size(); };
  const std::size_t points = count();
  ASSERT_GE(points, 3U);
  for (const int row : {0, 0, 1, 0}) { // a cell may be in the middle of being edited each time
    press_row(row);
    press_row(row);
    QPushButton* remove = named<QPushButton>("remove_way_point");
    if (remove->isEnabled()) remove->click();
    QCoreApplication::processEvents();
  }
  EXPECT_LT(count(), points);
  while (desk().document().history().can_undo())
    key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(build(), before);
}

TEST_F(FitUpTest, PartsAreNotedCutAndLeftoversKept) {
  go(cut_page);
  auto* list = named<QTableWidget>("parts_list");
  const int row = row_of(list, "Sump 70");
  ASSERT_GE(row, 0);
  list->setCurrentCell(row, 0);
  click("note_part");
  const QString note = "@.fit_up.parts." + QString::number(fit_up().parts.size() - 1);
  type(note + ".price", "41");
  type(note + ".lead_s", "2 d");
  type(note + ".on_shelf", "1");
  QCoreApplication::processEvents();
  EXPECT_EQ(list->item(row_of(list, "Sump 70"), 5)->text(), "41.00");
  EXPECT_EQ(list->item(row_of(list, "Sump 70"), 4)->text(), "✓");
  // Ordered it stays ordered, until it has come.
  type(note + ".on_shelf", "0");
  QCoreApplication::processEvents();
  list->setCurrentCell(row_of(list, "Sump 70"), 0);
  click("order_part");
  EXPECT_EQ(list->item(row_of(list, "Sump 70"), 4)->text(), "1 ordered");
  EXPECT_FALSE(fit_up().parts.back().ordered.empty());
  EXPECT_TRUE(named<QLabel>("cut_summary")->text().contains("without a price"));
  list->setCurrentCell(row_of(list, "Sump 70"), 0);
  click("part_came");
  EXPECT_EQ(list->item(row_of(list, "Sump 70"), 4)->text(), "✓");
  EXPECT_EQ(fit_up().parts.back().on_shelf, 1);
  EXPECT_TRUE(fit_up().parts.back().ordered.empty());
  const std::size_t stock = build().shop->stock.size();
  click("keep_leftovers");
  EXPECT_GT(build().shop->stock.size(), stock);
  for (const auto& s : cut_list_of(desk()).stocks) {
    ASSERT_TRUE(s.plan);
    if (s.name == "flat 60×5") {
      EXPECT_EQ(s.plan->fresh, 0U) << s.name; // cut again it is from what was left
    }
  }
}

TEST_F(FitUpTest, PlatesAreDrawnFromTheirNumbersAndRefusedInWords) {
  go(templates_page);
  auto* list = named<QTableWidget>("templates");
  ASSERT_GE(list->rowCount(), 3);
  list->setCurrentCell(row_of(list, "lower bag plate"), 0);
  auto* view = named<TemplateView>("template_view");
  EXPECT_TRUE(view->accessibleName().contains("lower bag plate"));
  const auto before = fit_up().plates[1].bolt_hole;
  type("@.fit_up.rear_plates.bolt_hole_m", "30 mm");
  EXPECT_TRUE(view->accessibleName().contains("lower bag plate")) << "its own size grows with it";
  type("@.fit_up.rear_plates.diameter_m", "100 mm");
  EXPECT_TRUE(view->accessibleName().contains("from the edge")) << view->accessibleName().toStdString();
  view->grab();
  key(Qt::Key_Z, Qt::ControlModifier);
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(fit_up().plates[1].bolt_hole, before);
}

TEST_F(FitUpTest, PlacesAreJudgedAndDragged) {
  go(places_page);
  auto* page = window_->findChild<PlacesPage*>();
  page->show_place("air.tank_at");
  WaysView* view = page->view();
  const QPoint from = view->place_at("air.tank_at", 0).toPoint();
  QTest::mousePress(view, Qt::LeftButton, {}, from);
  QTest::mouseMove(view, from + QPoint(-30, -40));
  QTest::mouseRelease(view, Qt::LeftButton, {}, from + QPoint(-30, -40));
  EXPECT_LT(build().variant().air.tank_at.x, 3.0);
  EXPECT_GT(build().variant().air.tank_at.z, 0.45);
  EXPECT_TRUE(named<QLabel>("place_said")->text().contains("✗"));
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_DOUBLE_EQ(build().variant().air.tank_at.x, 3.06);
}

TEST_F(FitUpTest, TheOtherSchoolIsWorkedOutAndTaken) {
  go(schools_page);
  auto* page = window_->findChild<SchoolsPage*>();
  for (int i = 0; i < 4000 && !page->schools(); ++i)
    QTest::qWait(5);
  ASSERT_NE(page->schools(), nullptr);
  QCoreApplication::processEvents();
  click("take_order");
  EXPECT_EQ(fit_up().order, build::OrderSchool::kit_first);
  EXPECT_TRUE(plan_of(desk())->find("kit_fit"));
  key(Qt::Key_Z, Qt::ControlModifier);
  EXPECT_EQ(fit_up().order, build::OrderSchool::suspension_first);
}

TEST_F(FitUpTest, TheShopsHabitsAndPeopleAreOnThePlan) {
  go(shop_page);
  click("add_habit");
  ASSERT_EQ(build().shop->habits.size(), 2U);
  ASSERT_FALSE(desk().type("@.fit_up.rear_plates.lower", "welded"));
  QCoreApplication::processEvents();
  EXPECT_TRUE(plan_of(desk())->find("rear.habit.1")) << "photographed wherever it is welded";
  type("shop.people.0.name", "Wren");
  const auto& strip = placed("rear.weld").who;
  EXPECT_EQ(strip, std::vector<std::string>{"Wren"});
  type("shop.first_day", "2027-01-11");
  EXPECT_EQ(say(assess::day_name(*plan_of(desk()), 0)), "Mon 11 Jan");
  click("add_person");
  EXPECT_EQ(build().shop->people.size(), 3U);
}

TEST_F(FitUpTest, EveryPageIsDrawnInBothThemesLargeAndWithNothingThere) {
  for (const bool bare : {false, true}) {
    if (bare) desk().document().put(build::empty_build(), {}, true);
    for (const auto& [scale, theme] : {std::pair(1.0, Theme::primer), std::pair(1.5, Theme::night_bay)}) {
      Look look = desk().look();
      look.scale = scale, look.theme = theme;
      desk().view().set_look(look);
      for (int page = plan_page; page <= shop_page; ++page) {
        go(page);
        EXPECT_TRUE(is_painted(window_.get()));
      }
    }
  }
}

} // namespace
} // namespace mavrel::app
