#include "app/stages/faults/sound.h"

#include "control/road.h"

#include <QFile>
#include <QProcess>
#include <QStandardPaths>
#include <QTemporaryDir>

#include <cmath>
#include <numbers>

namespace mavrel::app {

namespace {

constexpr int rate = 22050; // a second
constexpr double lasts = 2; // s

enum class Heard { hiss, knock, squeak, bang, pump };

/// One sound at a moment, −1 to 1.
double sample(Heard what, double t, control::Chance& chance, double& state) {
  constexpr double turn = 2 * std::numbers::pi;
  const double noise = chance.next() * 2 - 1;
  switch (what) {
  case Heard::hiss: { // air through a small hole: noise without its lows
    const double high = noise - state;
    state += 0.35 * high;
    return 0.25 * high;
  }
  case Heard::knock: { // metal on metal, four times a second
    const double since = std::fmod(t, 0.27);
    return 0.7 * std::exp(-since * 60) * (std::sin(turn * 310 * t) + 0.4 * noise);
  }
  case Heard::bang: {
    const double since = std::fmod(t, 1.0);
    return 0.9 * std::exp(-since * 18) * (std::sin(turn * 70 * t) + 0.3 * noise);
  }
  case Heard::squeak: {
    const double swell = std::max(0.0, std::sin(turn * 0.8 * t));
    return 0.3 * swell * std::sin(turn * (900 + 250 * swell) * t);
  }
  case Heard::pump:
    return 0.25 * std::sin(turn * 47 * t) + 0.12 * std::sin(turn * 94 * t) + 0.05 * noise;
  }
  return 0;
}

void put16(QByteArray& out, int value) {
  out.append(static_cast<char>(value & 0xff)).append(static_cast<char>((value >> 8) & 0xff));
}
void put32(QByteArray& out, quint32 value) {
  put16(out, static_cast<int>(value & 0xffff));
  put16(out, static_cast<int>(value >> 16));
}

const char* const players[] = {"pw-play", "paplay", "aplay"};

} // namespace

QByteArray sound_of(const std::vector<assess::FaultFinding>& told) {
  constexpr struct {
    const char* sign;
    Heard heard;
  } rows[] = {{"hisses", Heard::hiss}, {"knocks", Heard::knock},     {"squeaks", Heard::squeak},
              {"bangs", Heard::bang},  {"pumps_often", Heard::pump}, {"pumps_always", Heard::pump}};
  std::vector<Heard> heard;
  for (const auto& row : rows)
    for (const assess::FaultFinding& f : told)
      if (f.yes && std::string_view(f.at.sign->key) == row.sign) {
        heard.push_back(row.heard);
        break;
      }
  if (heard.empty()) return {};
  QByteArray data;
  control::Chance chance(7);
  for (const Heard what : heard) {
    double state = 0;
    for (int i = 0; i < static_cast<int>(rate * lasts); ++i) {
      const double t = static_cast<double>(i) / rate;
      const double fade = std::min({1.0, t * 20, (lasts - t) * 20});
      put16(data, static_cast<int>(std::lround(30000 * std::clamp(sample(what, t, chance, state), -1.0, 1.0) * fade)));
    }
  }
  QByteArray out("RIFF");
  put32(out, static_cast<quint32>(36 + data.size()));
  out.append("WAVEfmt ");
  put32(out, 16);
  put16(out, 1);
  put16(out, 1);
  put32(out, rate);
  put32(out, rate * 2);
  put16(out, 2);
  put16(out, 16);
  out.append("data");
  put32(out, static_cast<quint32>(data.size()));
  return out + data;
}

FaultSound::FaultSound(QObject* parent) : QObject(parent) {}

FaultSound::~FaultSound() {
  if (player_) player_->kill(), player_->waitForFinished(500);
}

bool FaultSound::can_play() {
  for (const char* player : players)
    if (!QStandardPaths::findExecutable(player).isEmpty()) return true;
  return false;
}

void FaultSound::play(const QByteArray& wave) {
  if (wave.isEmpty()) return;
  for (const char* player : players) {
    const QString path = QStandardPaths::findExecutable(player);
    if (path.isEmpty()) continue;
    if (!folder_) folder_ = std::make_unique<QTemporaryDir>();
    QFile file(folder_->filePath("heard.wav"));
    if (!file.open(QIODevice::WriteOnly) || file.write(wave) != wave.size()) return;
    file.close();
    if (player_) player_->kill(), player_->waitForFinished(500);
    player_ = std::make_unique<QProcess>();
    player_->start(path, {file.fileName()});
    return;
  }
}

} // namespace mavrel::app
