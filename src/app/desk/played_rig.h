// A rig that plays the car that is open: started beside the program, linked to, and ended with it.
#pragma once

#include "app/desk/bench_link.h"

#include <QObject>

#include <memory>
#include <optional>

class QProcess;
class QTemporaryDir;

namespace mavrel::app {

class Desk;

class PlayedRig : public QObject {
  Q_OBJECT
public:
  ~PlayedRig() override;
  /// The desk's own; made when first asked for.
  [[nodiscard]] static PlayedRig& of(Desk& desk);

  /// Starts it with the car as it is now, in place of one that runs, and links to it.
  /// @param faults  of the played car, as `mavrel-rig --fault` takes them @param faster  times as fast as it happens
  /// @returns why it can't; none: it is on its way
  [[nodiscard]] std::optional<QString> play(const QStringList& faults = {}, double faster = 1);
  /// With something hidden the matter. @param hidden  as `mavrel-rig --practise` takes it: `7:plain`
  [[nodiscard]] std::optional<QString> practise(const QString& hidden);
  void stop();

signals:
  void said(QString sentence); // how it goes

private:
  explicit PlayedRig(Desk& desk);
  void end_with_its_car();
  [[nodiscard]] std::optional<QString> start(const QStringList& more);

  Desk& desk_;
  BenchLink& bench_;
  std::unique_ptr<QTemporaryDir> folder_;
  std::unique_ptr<QProcess> rig_;
  std::size_t variant_ = 0; // that was put on it
};

} // namespace mavrel::app
