// Feeds damaged settings files to the program's own reader. mavrel-fuzz-settings [SECONDS] [SEED]
#include "fuzz/mutate.h"

#include "app/shell/settings.h"

#include <QCoreApplication>
#include <QTemporaryDir>

#include <chrono>
#include <cmath>
#include <cstdio>
#include <cstdlib>
#include <filesystem>
#include <fstream>

int main(int argc, char** argv) {
  QTemporaryDir home;
  qputenv("XDG_CONFIG_HOME", home.path().toLocal8Bit());
  const QCoreApplication application(argc, argv);
  const double seconds = argc > 1 ? std::atof(argv[1]) : 3;
  mavrel::fuzz::Random random(argc > 2 ? std::strtoull(argv[2], nullptr, 10) : 1);
  const std::string good = "[General]\nrecent=/tmp/a.mavrel, /tmp/b.mavrel\n\n[look]\ntext=1.1\ntheme=1\n\n[units]\n"
                           "finger_m=0.017\nlength=1\nmass=1\npressure=2\ntemperature=1\n";
  const std::filesystem::path folder = std::filesystem::path(home.path().toStdString()) / "mavrel";
  std::filesystem::create_directories(folder);
  int rounds = 0;
  const auto end = std::chrono::steady_clock::now() + std::chrono::duration<double>(seconds);
  for (; std::chrono::steady_clock::now() < end; ++rounds) {
    const std::string text = mavrel::fuzz::mutated(good, good, random);
    std::ofstream(folder / "mavrel.ini", std::ios::binary) << text;
    const mavrel::app::Settings settings;
    const auto prefs = settings.prefs();
    const auto look = settings.look();
    const bool sound = prefs.finger >= 0.008 && prefs.finger <= 0.03 && look.scale >= 0.8 && look.scale <= 2.0 &&
                       static_cast<int>(prefs.length) <= 1 && static_cast<int>(prefs.pressure) <= 2 &&
                       static_cast<int>(look.theme) <= 1 && settings.recent().size() <= 8;
    if (!sound) {
      std::fprintf(stderr, "settings out of bounds after:\n%s\n", text.c_str());
      return 1;
    }
  }
  std::printf("%d texts, no promise broken\n", rounds);
  return rounds > 20 ? 0 : 1;
}
