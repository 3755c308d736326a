// mavrel: the application.
#include "app/print/sheet_pdf.h"
#include "app/shell/main_window.h"
#include "shelf/places.h"
#include "shelf/shelf.h"

#include <QApplication>
#include <QStyleFactory>
#include <QTimer>

#include <cstdio>
#include <string_view>

namespace {

constexpr const char* help = R"(Usage: mavrel [OPTION] [FILE]
Air suspension for lowered cars, worked out before it is welded.

  FILE             a build to open, *.mavrel
  --demo           open the demo car
  --help           this text
  --version        the version
  --quit-when-shown  leave after the first picture is painted (for timing the start)

Without a display: QT_QPA_PLATFORM=offscreen mavrel …, or mavrel-cli for answers without a window.
)";

bool has_display() {
  if (!qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) return true;
  return !qEnvironmentVariableIsEmpty("DISPLAY") || !qEnvironmentVariableIsEmpty("WAYLAND_DISPLAY");
}

/// Leaves the program once its window has been painted.
class QuitWhenShown : public QObject {
public:
  bool eventFilter(QObject* watched, QEvent* event) override {
    if (event->type() == QEvent::Paint) QTimer::singleShot(0, qApp, &QApplication::quit);
    return QObject::eventFilter(watched, event);
  }
};

} // namespace

int main(int argc, char** argv) {
  using namespace mavrel;
  QString file;
  bool demo = false, quit_when_shown = false;
  for (int i = 1; i < argc; ++i) {
    const std::string_view argument = argv[i];
    if (argument == "--help" || argument == "-h") {
      std::fputs(help, stdout);
      return 0;
    }
    if (argument == "--version") {
      std::puts("mavrel " MAVREL_VERSION);
      return 0;
    }
    if (argument == "--demo")
      demo = true;
    else if (argument == "--quit-when-shown")
      quit_when_shown = true;
    else if (argument == "-platform" && i + 1 < argc)
      qputenv("QT_QPA_PLATFORM", argv[++i]);
    else if (argument.starts_with("-")) {
      std::fprintf(stderr, "mavrel: there is no option %s. See mavrel --help.\n", argv[i]);
      return 2;
    } else
      file = QString::fromLocal8Bit(argv[i]);
  }
  if (!has_display()) {
    std::fputs(
        "mavrel: there is no display here. Run it on a desktop, under Xvfb (xvfb-run mavrel), or offscreen with\n"
        "QT_QPA_PLATFORM=offscreen mavrel. mavrel-cli gives the answers without a window.\n",
        stderr);
    return 2;
  }
  QApplication application(argc, argv);
  QApplication::setApplicationName("mavrel");
  QApplication::setApplicationVersion(MAVREL_VERSION);
  QApplication::setDesktopFileName("mavrel");
  QApplication::setStyle(QStyleFactory::create("Fusion"));
  app::use_own_fonts();
  app::MainWindow window(shelf::load_shelf(shelf::shelf_folders()));
  if (demo && file.isEmpty()) file = QString::fromStdString((shelf::demo_folder() / "sorrel-wayfare.mavrel").string());
  if (file.isEmpty() || !window.open_file(file)) window.show_start();
  QuitWhenShown quitter;
  if (quit_when_shown) window.centralWidget()->installEventFilter(&quitter);
  window.show();
  window.offer_left_behind();
  return QApplication::exec();
}
