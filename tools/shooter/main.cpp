// Paints the main views of the demo car into PNG files. `tools/shots` runs it; a name as the second argument paints
// that view alone. For looking closer: --night, --small (the least window), --large-text, --half-ton, --new and --rough
// (a build with nothing, or five readings, in it).
#include "app/desk/air_use.h"
#include "app/desk/answers.h"
#include "app/desk/edits.h"
#include "app/desk/sureness.h"
#include "app/print/sheet_pdf.h"
#include "app/shell/findings_panel.h"
#include "app/shell/main_window.h"
#include "app/stages/air/air.h"
#include "app/stages/air/sizing_page.h"
#include "app/stages/bags/bags.h"
#include "app/stages/bags/search/search_page.h"
#include "app/stages/book/book_page.h"
#include "app/stages/car_in/car_in.h"
#include "app/stages/care/care.h"
#include "app/stages/care/questions.h"
#include "app/stages/clearance/clearance.h"
#include "app/stages/clearance/drive_view.h"
#include "app/stages/clearance/fits_page.h"
#include "app/stages/clearance/gap_sheet.h"
#include "app/stages/clearance/obstacles_panel.h"
#include "app/stages/clearance/section_view.h"
#include "app/stages/faults/edits.h"
#include "app/stages/faults/faults.h"
#include "app/stages/faults/questions.h"
#include "app/stages/fit_up/fit_up.h"
#include "app/stages/fit_up/places_page.h"
#include "app/stages/fit_up/plan_page.h"
#include "app/stages/fit_up/routes_page.h"
#include "app/stages/fit_up/schools_page.h"
#include "app/stages/leveling/bench_page.h"
#include "app/stages/leveling/drive_page.h"
#include "app/stages/leveling/leveling.h"
#include "app/stages/leveling/store_page.h"
#include "app/stages/leveling/tuning_page.h"
#include "app/stages/proving/proving.h"
#include "app/stages/proving/questions.h"
#include "app/stages/swing/swing.h"
#include "assess/next/usual_car.h"
#include "build/names.h"
#include "shelf/places.h"
#include "shelf/shelf.h"

#include <QApplication>
#include <QCheckBox>
#include <QComboBox>
#include <QDir>
#include <QLineEdit>
#include <QPushButton>
#include <QSpinBox>
#include <QStandardPaths>
#include <QStyleFactory>
#include <QTabBar>
#include <QTableWidget>
#include <QTemporaryDir>
#include <QThread>

#include <algorithm>
#include <cstdio>
#include <functional>
#include <initializer_list>

int main(int argc, char** argv) {
  using namespace mavrel;
  if (argc < 2) {
    std::fputs("usage: mavrel-shots FOLDER [VIEW]\n", stderr);
    return 2;
  }
  QTemporaryDir home; // nobody's own settings or unsaved work in the pictures
  qputenv("XDG_CONFIG_HOME", home.path().toLocal8Bit());
  qputenv("XDG_STATE_HOME", home.path().toLocal8Bit());
  qputenv("XDG_DATA_HOME", home.path().toLocal8Bit());
  qputenv("HOME", home.path().toLocal8Bit());
  qputenv("MAVREL_NOW", "2026-12-01 10:30"); // the plan’s today
  QApplication application(argc, argv);
  QApplication::setStyle(QStyleFactory::create("Fusion"));
  app::use_own_fonts();
  app::MainWindow window(shelf::load_shelf(shelf::shelf_folders()));
  const QStringList asked = QApplication::arguments();
  const char* car = asked.contains("--half-ton") ? "hollin-tarnway.mavrel" : "sorrel-wayfare.mavrel";
  if (!window.open_file(QString::fromStdString((shelf::demo_folder() / car).string()))) return 1;
  if (asked.contains("--new") || asked.contains("--rough"))
    window.desk().document().put(build::empty_build(), {}, true);
  if (asked.contains("--usual")) // begun from what it is
    window.desk().document().put(assess::usual_car(assess::usual_for(build::BodyStyle::hatchback)), {}, true);
  if (asked.contains("--rough")) // what is known after five minutes
    for (const auto& [path, text] : {std::pair{"front.left.mass_kg", "410 kg"},
                                     {"rear.left.mass_kg", "340 kg"},
                                     {"front.left.height_m", "378 mm"},
                                     {"rear.left.height_m", "385 mm"},
                                     {"front.wheel", "215/45R17 7.5 ET42"}})
      if (window.desk().type(path, text)) return 1;
  app::Look first = window.desk().look();
  if (asked.contains("--night")) first.theme = app::Theme::night_bay;
  if (asked.contains("--large-text")) first.scale = 1.3;
  for (const QString& one : asked)
    if (one.startsWith("--text=")) first.scale = one.mid(7).toDouble();
  window.desk().view().set_look(first);
  window.resize(asked.contains("--small") ? QSize(1100, 700) : QSize(1280, 800));
  window.show();
  const QDir folder(argv[1]);
  if (!folder.exists()) {
    std::fprintf(stderr, "mavrel-shots: there is no folder %s\n", argv[1]);
    return 2;
  }
  const QString only = argc > 2 && argv[2][0] != '-' ? argv[2] : "";
  auto& desk = window.desk();
  auto* bags = static_cast<app::BagsStage*>(window.stage("bags"));
  const auto settle = [] {
    for (int i = 0; i < 4; ++i)
      QApplication::processEvents(QEventLoop::AllEvents, 20);
  };
  const auto shoot = [&](const QString& name) {
    if (!only.isEmpty() && only != name) return;
    settle();
    // Bands and ± come when they are ready: not in one picture and out of the next.
    const app::Sureness& sure = app::Sureness::of(desk);
    for (int i = 0; i < 800 && sure.is_wanted() && !sure.doubt(); ++i)
      QApplication::processEvents(QEventLoop::AllEvents, 20), QThread::msleep(5);
    if (QWidget* focus = window.focusWidget()) focus->clearFocus();
    settle();
    window.grab().save(folder.filePath(name + ".png"));
  };
  // One picture for each main view; the dark theme where curves stand in it. More by name: `mavrel-shots /tmp weather`.
  auto* tabs = window.findChild<QTabBar*>("car_in_tabs");
  desk.set_load_case(2);
  window.go_to_stage("car_in");
  shoot("car-in");
  if (only == "start") {
    window.show_start();
    shoot("start");
    window.go_to_stage("car_in");
  }
  const char* panels[] = {"front-spring", "rear-spring", "loads", "brief", "job"};
  for (int i = 1; i < 5; ++i)
    if (only == panels[i]) tabs->setCurrentIndex(i), shoot(panels[i]);
  tabs->setCurrentIndex(0);
  static_cast<app::CarInStage*>(window.stage("car_in"))->begin_tape();
  if (only == "tape-mode") shoot("tape-mode");
  desk.set_load_case(1);
  desk.set_end(app::End::front);
  window.go_to_stage("bags");
  shoot("bags");
  desk.set_end(app::End::rear);
  if (only == "bags-rear") shoot("bags-rear");
  app::use_variant(desk, 2);
  for (const char* view : {"stroke", "weather", "gauge", "lean"})
    if (only == view) bags->show_view(view), shoot(view);
  if (asked.contains("--half-ton")) app::use_variant(desk, 0);
  bags->show_view("comfort");
  if (only == "comfort") shoot("comfort");
  bags->show_view("volume");
  app::Look look = desk.look();
  look.theme = app::Theme::night_bay;
  desk.view().set_look(look);
  if (only == "volume-night-bay") shoot("volume-night-bay");
  desk.view().set_look(first);
  bags->show_side("search");
  auto* search = bags->search_page();
  if (asked.contains("--sure")) search->findChild<QCheckBox*>("search_sure")->setChecked(true);
  search->start();
  while (search->is_running())
    QApplication::processEvents(QEventLoop::AllEvents, 20);
  shoot("search");
  bags->show_side("shelf");
  if (only == "shelf") shoot("shelf");
  bags->show_view("height");
  app::use_variant(desk, 0);
  desk.set_load_case(0);
  auto* swing = static_cast<app::SwingStage*>(window.stage("swing"));
  window.go_to_stage("swing");
  desk.set_end(app::End::rear);
  swing->show_panel("cycle");
  shoot("swing");
  for (const char* panel : {"joints", "mounting", "runs", "sums"})
    for (const app::End end : build::both_ends) {
      const QString name = QString("swing-%1-%2").arg(panel, build::key_of(end));
      if (only != name) continue;
      desk.set_end(end);
      swing->show_panel(panel);
      shoot(name);
    }
  desk.set_end(app::End::rear);
  swing->begin_tape();
  if (only == "swing-tape") shoot("swing-tape");
  swing->leave_tape();
  auto* clearance = static_cast<app::ClearanceStage*>(window.stage("clearance"));
  window.go_to_stage("clearance");
  desk.set_end(asked.contains("--half-ton") && only == "clearance-notch" ? app::End::rear : app::End::front);
  const auto worked_out = [&] { // maps and planes come from beside the interface
    for (int i = 0; i < 400; ++i) {
      settle();
      QThread::msleep(5);
    }
  };
  if (only.isEmpty() || only.startsWith("clearance")) {
    clearance->show_page(0);
    worked_out();
    window.findChild<app::GapSheet*>()->go_to_worst();
    shoot("clearance");
    if (only == "clearance-notch") shoot("clearance-notch");
    if (only.startsWith("clearance-view")) {
      window.findChild<app::SectionView*>()->look_from(static_cast<app::SectionView::From>(only.right(1).toInt()));
      window.findChild<app::ObstaclesPanel*>()->hold(1);
      shoot(only);
    }
    if (only.startsWith("clearance-wheel") || only.startsWith("clearance-room")) {
      if (only == "clearance-wheel-other") static_cast<void>(desk.type("@.front.wheel", "225/40R18 8.5 ET35"));
      window.findChild<QTabBar*>("near_tabs")->setCurrentIndex(only.startsWith("clearance-wheel") ? 1 : 2);
      worked_out();
      shoot(only);
    }
    clearance->show_page(1);
    worked_out();
    if (auto* chart = window.findChild<app::FitsChart*>()) chart->choose(30, 16);
    if (only == "clearance-fits") shoot("clearance-fits");
    clearance->show_page(2);
    desk.set_pose(app::End::front, 0.424);
    desk.set_pose(app::End::rear, 0.412);
    worked_out();
    window.findChild<app::DriveView*>()->drive_over(0);
    shoot("clearance-ground");
    clearance->show_page(3);
    if (asked.contains("--sure")) {
      window.findChild<QCheckBox*>("why_sure")->setChecked(true);
      for (int i = 0; i < 200; ++i)
        QApplication::processEvents(QEventLoop::AllEvents, 20), QThread::msleep(10);
    }
    worked_out();
    if (only == "clearance-window") shoot("clearance-window");
  }
  if (only.isEmpty() || only.startsWith("air")) {
    auto* air = static_cast<app::AirStage*>(window.stage("air"));
    window.go_to_stage("air");
    desk.set_end(app::End::front);
    desk.set_pose(app::End::front, 0.357);
    desk.set_pose(app::End::rear, 0.370);
    air->show_page(0);
    worked_out();
    shoot("air-lift");
    if (only == "air-lift-one") {
      static_cast<void>(desk.type("@.air.order", "one by one"));
      worked_out();
      shoot(only);
    }
    air->show_page(2);
    if (only.isEmpty() || only == "air-sizing") {
      auto* sizing = window.findChild<app::SizingPage*>();
      sizing->search();
      while (!sizing->sizing())
        settle();
    }
    shoot("air-sizing");
    air->show_page(3);
    worked_out();
    window.findChild<QComboBox*>("leak_place")->setCurrentIndex(3);
    emit window.findChild<QComboBox*>("leak_place")->activated(3);
    air->take_files({QString::fromStdString((shelf::demo_folder() / "overnight-rear-right.csv").string())});
    look.theme = app::Theme::night_bay;
    desk.view().set_look(look);
    if (only == "air-water-night-bay") shoot("air-water-night-bay");
    desk.view().set_look(first);
    for (const auto& [name, page] : {std::pair{"air-kit", 1}, {"air-wiring", 4}, {"air-room", 5}})
      if (only == name) air->show_page(page), worked_out(), shoot(name);
  }
  if (only.isEmpty() || only.startsWith("leveling")) {
    auto* leveling = static_cast<app::LevelingStage*>(window.stage("leveling"));
    window.go_to_stage("leveling");
    desk.set_end(app::End::front);
    desk.set_pose(app::End::front, 0.357);
    desk.set_pose(app::End::rear, 0.370);
    leveling->show_page(0);
    const auto driven = [&] {
      do {
        settle();
      } while (!leveling->drive()->is_settled());
      settle();
    };
    driven();
    shoot("leveling-road");
    if (only == "leveling-event") {
      emit window.findChild<QComboBox*>("drive_span")->activated(1);
      shoot(only);
    }
    leveling->show_page(2);
    if (only == "leveling-tuning") {
      leveling->tuning()->start();
      while (!leveling->tuning()->tuning())
        settle();
      leveling->tuning()->try_parts();
      while (!leveling->tuning()->other_parts())
        settle();
    }
    if (only == "leveling-tuning") shoot("leveling-tuning");
    leveling->show_page(3);
    look.theme = app::Theme::night_bay;
    if (only.isEmpty()) desk.view().set_look(look);
    if (only == "leveling-sensors-night-bay") shoot("leveling-sensors-night-bay");
    desk.view().set_look(first);
    for (const auto& [name, page] : {std::pair{"leveling-rules", 1}, {"leveling-sensors", 3}, {"leveling-stored", 4}})
      if (only == name) {
        leveling->show_page(page);
        do {
          settle();
        } while (!leveling->store()->is_settled());
        shoot(name);
      }
    if (only.isEmpty() || only == "leveling-bench") {
      leveling->show_page(5);
      leveling->bench()->play();
      for (int i = 0; i < 60; ++i)
        settle(), QThread::msleep(60);
      for (const auto& [circuit, way] :
           {std::pair{"FL", control::ValveOrder::fill}, {"RR", control::ValveOrder::vent}}) {
        leveling->bench()->bench().hold(circuit, way);
        for (int i = 0; i < 5; ++i)
          settle(), QThread::msleep(60);
        leveling->bench()->bench().release();
        for (int i = 0; i < 30; ++i)
          settle(), QThread::msleep(60);
      }
      shoot("leveling-bench");
      leveling->bench()->bench().shut();
    }
  }
  if (only.isEmpty() || only.startsWith("fit-up")) {
    auto* fit_up = static_cast<app::FitUpStage*>(window.stage("fit_up"));
    window.go_to_stage("fit_up");
    fit_up->show_page(0);
    settle();
    shoot("fit-up-plan");
    for (const auto& [name, page] :
         {std::pair{"fit-up-checks", 1}, {"fit-up-cut", 2}, {"fit-up-places", 4}, {"fit-up-shop", 7}})
      if (only == name) fit_up->show_page(page), settle(), shoot(name);
    if (only == "fit-up-schools") {
      fit_up->show_page(6);
      while (!window.findChild<app::SchoolsPage*>()->schools())
        settle();
      settle();
      shoot(only);
    }
    fit_up->show_page(5);
    window.findChild<app::RoutesPage*>()->show_route("front_left");
    settle();
    shoot("fit-up-routes");
    fit_up->show_page(3);
    look.theme = app::Theme::night_bay;
    if (only.isEmpty()) desk.view().set_look(look);
    settle();
    if (only == "fit-up-templates-night-bay") shoot("fit-up-templates-night-bay");
    desk.view().set_look(first);
  }
  if (only.isEmpty() && !asked.contains("--half-ton")) {
    // The other demo car: joints instead of a sheet, a bracket to be turned.
    if (!window.open_file(QString::fromStdString((shelf::demo_folder() / "hollin-tarnway.mavrel").string()))) return 1;
    window.go_to_stage("swing");
    desk.set_end(app::End::front);
    swing->show_panel("joints");
    if (only == "swing-joints") shoot("swing-joints");
    look.theme = app::Theme::night_bay;
    desk.view().set_look(look);
    swing->show_panel("mounting");
    if (only == "swing-mounting-night-bay") shoot("swing-mounting-night-bay");
    desk.view().set_look(first);
    if (!window.open_file(QString::fromStdString((shelf::demo_folder() / "sorrel-wayfare.mavrel").string()))) return 1;
  }
  const auto shop_car = [&](const char* name) {
    return window.open_file(QString::fromStdString((shelf::demo_folder() / "shop" / name).string()));
  };
  const auto wants = [&](std::initializer_list<const char*> names) {
    return only.isEmpty() || std::any_of(names.begin(), names.end(), [&](const char* n) { return only == n; });
  };
  const auto wait = [&](const std::function<bool()>& done) {
    for (int i = 0; i < 600 && !done(); ++i)
      QApplication::processEvents(QEventLoop::AllEvents, 20), QThread::msleep(5);
  };
  if (wants({"proving", "proving-hold", "proving-learn", "proving-hand"})) {
    if (!shop_car("w-14.mavrel")) return 1;
    auto* proving = static_cast<app::ProvingStage*>(window.stage("proving"));
    window.go_to_stage("proving");
    proving->go_to("check:times");
    settle();
    wait([&] { return !desk.answers().of_the_car<app::PredictQuestion>().is_running(); });
    shoot("proving");
    proving->go_to("check:leak_hold");
    if (only == "proving-hold") shoot("proving-hold");
    proving->show_page(1);
    auto& learning = desk.answers().of_the_car<app::LearnQuestion>();
    learning.ask();
    wait([&] { return !learning.is_running(); });
    if (only == "proving-learn") shoot("proving-learn");
    proving->show_page(2);
    settle();
    wait([&] { return false; });
    if (only == "proving-hand") shoot("proving-hand");
  }
  if (wants({"faults", "faults-practise", "faults-scored", "faults-odds"})) {
    if (!shop_car("w-14.mavrel")) return 1;
    auto* faults = static_cast<app::FaultsStage*>(window.stage("faults"));
    window.go_to_stage("faults");
    faults->show_page(0);
    wait([&] { return app::fault_car_of(desk) != nullptr; });
    app::take_readings(desk, &app::fault_car_of(desk)->table.car());
    wait([&] { return app::diagnosis_of(desk) != nullptr; });
    settle();
    shoot("faults");
    faults->show_page(1);
    settle();
    window.findChild<QSpinBox*>("practice_seed")->setValue(12);
    window.findChild<QPushButton*>("practice_begin")->click();
    const auto press = [&](const char* test, int place) {
      auto* box = window.findChild<QComboBox*>("practice_test");
      box->setCurrentIndex(box->findData(QString(test)));
      window.findChild<QComboBox*>("practice_where")->setCurrentIndex(place);
      window.findChild<QPushButton*>("practice_do")->click();
    };
    press("timing", 1);
    press("hold", 0);
    press("gauges", 0);
    settle();
    if (only == "faults-practise") shoot("faults-practise");
    auto* cause = window.findChild<QComboBox*>("practice_cause");
    cause->setCurrentIndex(cause->findData(QString("pinched")));
    if (only == "faults-scored") {
      window.findChild<QPushButton*>("practice_name")->click();
      wait([&] { return window.findChild<QTableWidget*>("practice_steps")->isVisible(); });
      settle();
      shoot("faults-scored");
    }
    faults->show_page(2);
    if (only == "faults-odds") shoot("faults-odds");
  }
  if (wants({"care", "care-log", "care-use"})) {
    if (!shop_car("w-08.mavrel")) return 1;
    auto* care = static_cast<app::CareStage*>(window.stage("care"));
    window.go_to_stage("care");
    settle();
    wait([&] { return !app::air_use_is_running(desk); });
    if (only.isEmpty()) { // one of the pictures is of the dark theme
      look.theme = app::Theme::night_bay;
      desk.view().set_look(look);
      shoot("care-night-bay");
      desk.view().set_look(first);
    } else
      shoot("care");
    care->show_page(1);
    if (only == "care-log") shoot("care-log");
    care->show_page(2);
    if (only == "care-use") shoot("care-use");
  }
  if (wants({"doubt"})) {
    if (!window.open_file(QString::fromStdString((shelf::demo_folder() / "sorrel-wayfare.mavrel").string()))) return 1;
    window.go_to_stage("doubt");
    wait([&] { return app::Sureness::of(desk).doubt() != nullptr; });
    auto* answers = window.findChild<QTableWidget*>("doubt_answers");
    answers->setCurrentCell(5, 0);
    settle();
    shoot("doubt");
  }
  if (wants({"book"})) {
    auto* book = static_cast<app::BookPage*>(window.stage("book"));
    window.go_to_stage("book");
    const auto cars = std::filesystem::path(home.path().toStdString()) / "cars"; // as a shop would have them
    std::filesystem::copy(shelf::demo_folder() / "shop", cars, std::filesystem::copy_options::recursive);
    book->sync(QString::fromStdString(cars.string()));
    wait([&] { return !book->is_syncing(); });
    window.findChild<QLineEdit*>("book_words")->setText("rail");
    book->search();
    wait([&] { return !book->is_searching(); });
    shoot("book");
  }
  if (!window.open_file(QString::fromStdString((shelf::demo_folder() / car).string()))) return 1;
  window.go_to_stage("compare");
  shoot("compare");
  return 0;
}
