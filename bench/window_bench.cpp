// What a person waits for: the start of the program, a repaint under the mouse, an edit. Offscreen.
#include "app/desk/edits.h"
#include "app/desk/sureness.h"
#include "app/print/sheet_pdf.h"
#include "app/shell/main_window.h"
#include "app/stages/clearance/edits.h"
#include "app/stages/swing/edits.h"
#include "shelf/places.h"

#include <benchmark/benchmark.h>

#include <QApplication>
#include <QProcess>
#include <QStyleFactory>
#include <QTemporaryDir>

namespace {

using namespace mavrel;

app::MainWindow* window = nullptr;

/// Handles what is pending and paints what asks to be painted, as the next frame would.
void paint_now() {
  QApplication::sendPostedEvents();
  QEvent frame(QEvent::UpdateRequest);
  QApplication::sendEvent(window, &frame);
}

/// One move of the mouse while the pose is dragged, everything that follows it repainted. Wanted: within 8 ms.
void drag_pose(benchmark::State& state, const char* stage) {
  window->go_to_stage(stage);
  paint_now();
  double H = 0.35;
  for (auto _ : state) {
    H = H < 0.38 ? H + 0.0003 : 0.35;
    window->desk().set_pose(app::End::front, H);
    paint_now();
  }
}
BENCHMARK_CAPTURE(drag_pose, bags, "bags")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(drag_pose, car_in, "car_in")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(drag_pose, swing, "swing")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(drag_pose, clearance, "clearance")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(drag_pose, air, "air")->Unit(benchmark::kMillisecond);
BENCHMARK_CAPTURE(drag_pose, leveling, "leveling")->Unit(benchmark::kMillisecond);

/// The same while how sure the answers are is worked out beside it. Wanted: no slower.
void drag_pose_while_doubted(benchmark::State& state, const char* stage) {
  app::Sureness& sure = app::Sureness::of(window->desk());
  sure.set_wanted(false);
  sure.set_draws(100'000); // longer than anybody drags
  sure.set_wanted(true);
  drag_pose(state, stage);
  if (!sure.is_running()) state.SkipWithError("nothing was worked out beside it");
  sure.set_wanted(false);
}
BENCHMARK_CAPTURE(drag_pose_while_doubted, clearance, "clearance")->Unit(benchmark::kMillisecond)->UseRealTime();

/// A box of the kit dragged in the car: loads and windows anew, repainted. Wanted: within two frames.
void drag_box(benchmark::State& state) {
  window->go_to_stage("air");
  paint_now();
  double x = 3;
  int drag = 0;
  for (auto _ : state) {
    build::Build next = window->desk().build();
    next.variant().air.tank_at.x = x = x < 3.2 ? x + 0.001 : 3;
    window->desk().edit("drag", std::move(next), QString("box %1").arg(drag));
    paint_now();
  }
}
BENCHMARK(drag_box)->Unit(benchmark::kMillisecond);

/// One move of an obstacle that is dragged: gaps, windows and findings worked out anew, repainted; the map follows from
/// beside. Wanted: within two frames.
void drag_obstacle(benchmark::State& state) {
  window->go_to_stage("clearance");
  paint_now();
  double x = -0.36;
  for (auto _ : state) {
    x = x < -0.34 ? x + 0.0005 : -0.36;
    app::move_obstacle(window->desk(), app::End::front, 1, {x, 0.66, 0.42}, "bench");
    paint_now();
  }
}
BENCHMARK(drag_obstacle)->Unit(benchmark::kMillisecond);

/// One move of a joint that is dragged: the end solved anew, assessed, repainted. Wanted: within two frames.
void drag_joint(benchmark::State& state) {
  if (!window->open_file(QString::fromStdString((shelf::demo_folder() / "hollin-tarnway.mavrel").string()))) return;
  window->go_to_stage("swing");
  paint_now();
  double y = 0.63;
  for (auto _ : state) {
    y = y < 0.66 ? y + 0.001 : 0.63;
    app::move_joint(window->desk(), app::End::front, "spring_foot", {0, y, 0.256}, "bench");
    paint_now();
  }
  window->desk().document().put(build::load(shelf::demo_folder() / "sorrel-wayfare.mavrel").value(), {}, true);
}
BENCHMARK(drag_joint)->Unit(benchmark::kMillisecond);

/// One move of a preset's flag: edit, assess, judge the shelf, repaint. Wanted: within 8 ms.
void drag_preset(benchmark::State& state) {
  window->go_to_stage("bags");
  paint_now();
  double H = 0.35;
  for (auto _ : state) {
    H = H < 0.38 ? H + 0.0003 : 0.35;
    app::drag_preset(window->desk(), 1, app::End::front, H, "bench");
    paint_now();
  }
}
BENCHMARK(drag_preset)->Unit(benchmark::kMillisecond);

/// An hour typed on the plan: edit, assess, the plan made anew, repaint. Wanted: within one frame.
void type_hours(benchmark::State& state) {
  window->go_to_stage("fit_up");
  paint_now();
  int hours = 2;
  for (auto _ : state) {
    hours = hours < 9 ? hours + 1 : 2;
    const QString typed = QString("%1 h").arg(hours);
    if (window->desk().type("@.fit_up.jobs.4.hours_s", typed)) state.SkipWithError("it was not taken");
    paint_now();
  }
}
BENCHMARK(type_hours)->Unit(benchmark::kMillisecond);

/// The built program from start to first paint, as a whole process. Wanted: at most 250 ms.
void start_to_first_paint(benchmark::State& state) {
  for (auto _ : state)
    if (QProcess::execute(MAVREL_APP, {"--demo", "--quit-when-shown"}) != 0) state.SkipWithError("it did not start");
}
BENCHMARK(start_to_first_paint)->Unit(benchmark::kMillisecond)->UseRealTime();

} // namespace

int main(int argc, char** argv) {
  qputenv("QT_QPA_PLATFORM", "offscreen");
  QTemporaryDir home;
  for (const char* place : {"XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME"})
    qputenv(place, home.path().toLocal8Bit());
  QApplication application(argc, argv);
  QApplication::setStyle(QStyleFactory::create("Fusion"));
  app::use_own_fonts();
  app::MainWindow shown(shelf::load_shelf(shelf::shelf_folders()));
  window = &shown;
  if (!shown.open_file(QString::fromStdString((shelf::demo_folder() / "sorrel-wayfare.mavrel").string()))) return 1;
  shown.resize(1280, 800);
  shown.show();
  QApplication::processEvents(); // on screen from here on
  benchmark::Initialize(&argc, argv);
  benchmark::RunSpecifiedBenchmarks();
}
