// Runs the window tests offscreen; with --leave-behind FOLDER FILE it is the program that gets killed instead.
#include "app/print/sheet_pdf.h"
#include "app/shell/main_window.h"
#include "support.h"

#include <QApplication>
#include <QSettings>
#include <QStyleFactory>
#include <QTemporaryDir>

#include <cstdio>
#include <cstring>
#include <memory>

namespace {

/// Opens a build, changes a weight as its user would, keeps running until somebody kills it.
int leave_behind(const char* folder, const char* file) {
  mavrel::app::MainWindow window(mavrel::test::demo_shelf(), folder);
  window.show();
  if (!window.open_file(file)) return 1;
  if (window.desk().type("front.left.mass_kg", "433 kg")) return 1;
  std::puts("edited");
  std::fflush(stdout);
  return QApplication::exec();
}

/// Every test begins as if the program had never run: many run in one process.
class AtHome : public ::testing::EmptyTestEventListener {
public:
  void OnTestStart(const ::testing::TestInfo&) override {
    QSettings store(QSettings::IniFormat, QSettings::UserScope, "mavrel", "mavrel");
    store.clear();
    store.sync();
    home_ = std::make_unique<QTemporaryDir>();
    for (const char* place : {"XDG_STATE_HOME", "XDG_DATA_HOME"})
      qputenv(place, home_->path().toLocal8Bit());
  }

private:
  std::unique_ptr<QTemporaryDir> home_;
};

} // namespace

int main(int argc, char** argv) {
  if (qEnvironmentVariableIsEmpty("QT_QPA_PLATFORM")) qputenv("QT_QPA_PLATFORM", "offscreen");
  QTemporaryDir home;
  for (const char* place : {"XDG_CONFIG_HOME", "XDG_STATE_HOME", "XDG_DATA_HOME"})
    qputenv(place, home.path().toLocal8Bit());
  QApplication application(argc, argv);
  QApplication::setStyle(QStyleFactory::create("Fusion"));
  mavrel::app::use_own_fonts();
  if (argc == 4 && std::strcmp(argv[1], "--leave-behind") == 0) return leave_behind(argv[2], argv[3]);
  ::testing::InitGoogleTest(&argc, argv);
  ::testing::UnitTest::GetInstance()->listeners().Append(new AtHome); // theirs from now on
  return RUN_ALL_TESTS();
}
