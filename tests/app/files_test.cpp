// Saving, opening, dragging in, being killed and coming back, paper, and the built program's own manners.
#include "assess/end/end_answer.h"
#include "faults.h"
#include "file/held_file.h"
#include "window_fixture.h"

#include <QDropEvent>
#include <QElapsedTimer>
#include <QMimeData>
#include <QProcess>
#include <QPushButton>

#include <csignal>

namespace mavrel::app {
namespace {

QString pdf_text(const std::filesystem::path& file) {
  QProcess reader;
  reader.start("pdftotext", {"-layout", QString::fromStdString(file.string()), "-"});
  reader.waitForFinished();
  return QString::fromUtf8(reader.readAllStandardOutput());
}

TEST_F(WindowTest, SavedThenReopenedIsTheSame) {
  type("front.left.mass_kg", "431 kg");
  const auto file = folder_ / "saved.mavrel";
  ASSERT_TRUE(window_->save_to(QString::fromStdString(file.string())));
  EXPECT_FALSE(window_->isWindowModified());
  const build::Build kept = build();
  type("front.left.mass_kg", "500 kg");
  ASSERT_TRUE(window_->open_file(QString::fromStdString(file.string())));
  EXPECT_TRUE(build() == kept);
}

TEST_F(WindowTest, AFileThatCantBeWrittenOrReadIsSaidAndNothingIsLost) {
  type("front.left.mass_kg", "431 kg");
  const build::Build kept = build();
  EXPECT_FALSE(window_->save_to("/nowhere/at/all.mavrel"));
  EXPECT_TRUE(told().contains("/nowhere/at/all.mavrel")) << told().toStdString();
  test::write(folder_ / "broken.mavrel", R"({"format": "mavrel-build", "version": 2, "job": )");
  EXPECT_FALSE(window_->open_file(QString::fromStdString((folder_ / "broken.mavrel").string())));
  EXPECT_TRUE(told().contains("line 1")) << told().toStdString();
  EXPECT_TRUE(build() == kept);
  EXPECT_TRUE(window_->isWindowModified());
}

TEST_F(WindowTest, AFileIsDraggedIn) {
  const auto file = folder_ / "dragged.mavrel";
  build::Build other = test::demo_build();
  other.job.car = "Tamsin Brook coupe";
  ASSERT_TRUE(build::save(other, file));
  QMimeData data;
  data.setUrls({QUrl::fromLocalFile(QString::fromStdString(file.string()))});
  QDragEnterEvent enter(QPoint(200, 200), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(window_.get(), &enter);
  ASSERT_TRUE(enter.isAccepted());
  QDropEvent drop(QPointF(200, 200), Qt::CopyAction, &data, Qt::LeftButton, Qt::NoModifier);
  QApplication::sendEvent(window_.get(), &drop);
  EXPECT_EQ(build().job.car, "Tamsin Brook coupe");
}

TEST_F(WindowTest, AKilledProgramsWorkIsOfferedAndRecovered) {
  QProcess victim;
  const auto place = folder_ / "killed";
  victim.start(QCoreApplication::applicationFilePath(),
               {"--leave-behind", QString::fromStdString(place.string()), QString::fromStdString(copy().string())});
  ASSERT_TRUE(victim.waitForReadyRead(20000));
  QElapsedTimer patience;
  patience.start();
  const auto kept = [&] {
    std::error_code error;
    for (std::filesystem::directory_iterator it(place, error), end; !error && it != end; it.increment(error))
      if (it->path().extension() == ".from") return true;
    return false;
  };
  while (!kept() && patience.elapsed() < 20000)
    QTest::qWait(50);
  ASSERT_TRUE(kept());
  ::kill(static_cast<pid_t>(victim.processId()), SIGKILL);
  victim.waitForFinished();

  window_ = std::make_unique<MainWindow>(test::demo_shelf(), place);
  window_->show();
  window_->offer_left_behind();
  auto* notice = window_->findChild<QWidget*>("notice");
  ASSERT_TRUE(notice->isVisible());
  QTest::mouseClick(notice->findChildren<QPushButton*>().front(), Qt::LeftButton);
  EXPECT_DOUBLE_EQ(build().ends[0].corners[0].mass.values.front(), 433);
  EXPECT_TRUE(window_->isWindowModified()) << "recovered work is in no file yet";
  EXPECT_EQ(desk().document().file(), copy());
}

TEST_F(WindowTest, TheBuildSheetReadsBackFromItsPdf) {
  const auto file = folder_ / "sheet.pdf";
  ASSERT_TRUE(window_->export_sheet(QString::fromStdString(file.string())));
  const QString text = pdf_text(file);
  for (const char* wanted : {"Sorrel Wayfare estate", "Osier O-135", "Parked", "Front Ramp is 4 mm too high",
                             "Bump stop", "419 kg", "Market day", "stands"})
    EXPECT_TRUE(text.contains(wanted, Qt::CaseInsensitive)) << wanted << "\n" << text.toStdString();
  EXPECT_FALSE(text.contains('?')) << "what a number that is none would be shown as";
}

TEST_F(WindowTest, WhatIsExportedTakesNoBuildsPlaceAndSurvivesAFullDisk) {
  const QString build_file = QString::fromStdString(copy().string());
  const std::string before = test::text_of(copy());
  EXPECT_FALSE(window_->export_sheet(build_file));
  EXPECT_TRUE(told().contains("the build itself")) << told().toStdString();
  EXPECT_FALSE(window_->export_tracks(build_file));
  EXPECT_EQ(test::text_of(copy()), before);
  const auto sheet = folder_ / "sheet.pdf";
  test::write(sheet, "old");
  {
    const test::Fault full(test::Step::write, ENOSPC);
    EXPECT_FALSE(window_->export_sheet(QString::fromStdString(sheet.string())));
    EXPECT_TRUE(full.struck());
  }
  EXPECT_TRUE(told().contains("No space left")) << told().toStdString();
  EXPECT_EQ(test::text_of(sheet), "old");
}

TEST_F(WindowTest, WhileItsLogIsWrittenAFileIsNotSavedOver) {
  const auto file = copy();
  const std::string before = test::text_of(file);
  type("front.left.mass_kg", "433 kg");
  {
    const HeldFile held(file, std::chrono::milliseconds(0));
    ASSERT_FALSE(held.is_refused());
    EXPECT_FALSE(window_->save_to(QString::fromStdString(file.string())));
    EXPECT_TRUE(told().contains("another program")) << told().toStdString();
    EXPECT_EQ(test::text_of(file), before);
  }
  EXPECT_TRUE(window_->save_to(QString::fromStdString(file.string())));
  EXPECT_NE(test::text_of(file), before);
}

TEST_F(WindowTest, TheTracksAreWrittenAsCsv) {
  const auto file = folder_ / "tracks.csv";
  ASSERT_TRUE(window_->export_tracks(QString::fromStdString(file.string())));
  const std::string text = test::text_of(file);
  EXPECT_GT(std::count(text.begin(), text.end(), '\n'), 200);
  EXPECT_EQ(text.find("nan"), std::string::npos);
}

struct Ran {
  int status;
  QString out, err;
};
Ran run(const QStringList& arguments, bool display) {
  QProcess program;
  auto environment = QProcessEnvironment::systemEnvironment();
  environment.remove("DISPLAY");
  environment.remove("WAYLAND_DISPLAY");
  environment.remove("QT_QPA_PLATFORM");
  if (display) environment.insert("QT_QPA_PLATFORM", "offscreen");
  program.setProcessEnvironment(environment);
  program.start(MAVREL_APP, arguments);
  program.waitForFinished(30000);
  return {program.exitCode(), QString::fromUtf8(program.readAllStandardOutput()),
          QString::fromUtf8(program.readAllStandardError())};
}

TEST(Program, OpensAFileGivenOnTheCommandLine) {
  EXPECT_EQ(run({QString::fromStdString(test::demo_file().string()), "--quit-when-shown"}, true).status, 0);
  EXPECT_EQ(run({"--demo", "--quit-when-shown"}, true).status, 0);
}

TEST(Program, WithoutADisplaySaysSoAndHowToRunIt) {
  const Ran ran = run({"--demo"}, false);
  EXPECT_EQ(ran.status, 2);
  EXPECT_TRUE(ran.err.contains("QT_QPA_PLATFORM=offscreen"));
}

TEST(Program, AnswersHelpAndVersionAndRefusesTheUnknown) {
  EXPECT_TRUE(run({"--help"}, false).out.contains("--demo"));
  EXPECT_TRUE(run({"--version"}, false).out.startsWith("mavrel "));
  EXPECT_EQ(run({"--nonsense"}, false).status, 2);
}

} // namespace
} // namespace mavrel::app
