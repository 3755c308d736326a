// What a car's driver hears, as a sound, where the machine has something to play it with. It is never needed: all of it
// stands in words.
#pragma once

#include "assess/faults/diagnosis.h"

#include <QByteArray>
#include <QObject>

#include <memory>

class QProcess;
class QTemporaryDir;

namespace mavrel::app {

/// What is told that can be heard, as two seconds of sound each: 16 bit, one channel, with a WAV head. Nothing that is
/// not told is in it. @returns empty where nothing can be heard
[[nodiscard]] QByteArray sound_of(const std::vector<assess::FaultFinding>& told);

class FaultSound : public QObject {
  Q_OBJECT
public:
  explicit FaultSound(QObject* parent);
  ~FaultSound() override;
  /// Is there something to play with?
  [[nodiscard]] static bool can_play();
  void play(const QByteArray& wave);

private:
  std::unique_ptr<QTemporaryDir> folder_;
  std::unique_ptr<QProcess> player_;
};

} // namespace mavrel::app
