#include "app/desk/played_rig.h"

#include "app/desk/desk.h"
#include "assess/air/air_findings.h"
#include "build/json.h"
#include "build/names.h"
#include "file/text_file.h"
#include "shelf/card_write.h"
#include "shelf/part_file.h"

#include <QCoreApplication>
#include <QDir>
#include <QFileInfo>
#include <QProcess>
#include <QTemporaryDir>

#include <cerrno>
#include <csignal>

#include <unistd.h>

namespace mavrel::app {

PlayedRig::PlayedRig(Desk& desk) : QObject(&desk), desk_(desk), bench_(BenchLink::of(desk)) {
  // It is the car that was put on it: what is read of it is nothing to another, nor to another design.
  connect(&desk_.document(), &Document::put_down, this, &PlayedRig::end_with_its_car);
  connect(&desk_, &Desk::changed, this, [this] {
    if (rig_ && desk_.build().active_variant != variant_) end_with_its_car();
  });
}

void PlayedRig::end_with_its_car() {
  if (!rig_) return;
  bench_.shut();
  stop();
  emit said(tr("The rig ended: it played another car."));
  desk_.tell(tr("The rig ended: it played another car."));
}

PlayedRig::~PlayedRig() {
  stop();
}

PlayedRig& PlayedRig::of(Desk& desk) {
  if (auto* made = desk.findChild<PlayedRig*>(QString(), Qt::FindDirectChildrenOnly)) return *made;
  return *new PlayedRig(desk); // the desk's child
}

namespace {

const QString folders_begin = QStringLiteral("mavrel-rig-"); // and the number of the program that made one

/// A program that was killed leaves its folder; the next one that plays clears it away.
void clear_left_behind() {
  QDir all(QDir::tempPath());
  for (const QFileInfo& one : all.entryInfoList({folders_begin + "*"}, QDir::Dirs | QDir::NoSymLinks)) {
    bool is_number = false;
    const int program = one.fileName().mid(folders_begin.size()).section('-', 0, 0).toInt(&is_number);
    if (!is_number || program <= 0 || one.ownerId() != ::getuid()) continue;
    if (::kill(program, 0) != 0 && errno == ESRCH) QDir(one.filePath()).removeRecursively();
  }
}

} // namespace

void PlayedRig::stop() {
  if (rig_) {
    rig_->disconnect(this);
    rig_->terminate();
    if (!rig_->waitForFinished(1000)) rig_->kill();
    rig_->waitForFinished(1000);
    rig_.reset();
  }
  folder_.reset();
}

std::optional<QString> PlayedRig::play(const QStringList& faults, double faster) {
  QStringList more;
  for (const QString& fault : faults)
    more << "--fault" << fault;
  if (faster != 1) more << "--faster" << QString::number(faster);
  return start(more);
}

std::optional<QString> PlayedRig::practise(const QString& hidden) {
  return start({"--practise", hidden});
}

std::optional<QString> PlayedRig::start(const QStringList& more) {
  bench_.shut();
  stop();
  clear_left_behind();
  folder_ = std::make_unique<QTemporaryDir>(
      QDir(QDir::tempPath())
          .filePath(QString("%1%2-XXXXXX").arg(folders_begin).arg(QCoreApplication::applicationPid())));
  const QString rig = QDir(QCoreApplication::applicationDirPath()).filePath("mavrel-rig");
  if (!folder_->isValid() || !QFileInfo(rig).isExecutable())
    return tr("The rig can't be started: %1 is missing.").arg(rig);
  const QString build = folder_->filePath("car.mavrel"), socket = folder_->filePath("bench");
  if (const auto done = write_atomically(build.toStdString(), build::to_json(desk_.build())); !done)
    return desk_.words_of(done.error());
  // The cards as they are here: the rig need not know this shelf.
  const QString shelf = folder_->filePath("shelf");
  QDir().mkpath(shelf);
  std::vector<shelf::Part> parts;
  for (const auto& part : desk_.assessment().air.given().room.air.parts.by_role)
    if (part) parts.push_back(*part);
  bool written =
      parts.empty() ||
      write_atomically(QString(shelf + "/kit.parts.json").toStdString(), shelf::write_parts(parts)).has_value();
  for (const End end : build::both_ends)
    if (const auto bag = desk_.shelf().find(desk_.build().variant().fit[build::at(end)].bag))
      written = written && write_atomically(QString("%1/%2.csv").arg(shelf, build::key_of(end)).toStdString(),
                                            shelf::card_text(bag->card))
                               .has_value();
  if (!written) return tr("The car could not be put on the rig: %1 takes no files.").arg(folder_->path());
  QStringList arguments = {build, "--socket", socket, "--shelf", shelf, "--alone", "20"};
  arguments << more;
  variant_ = desk_.build().active_variant;
  rig_ = std::make_unique<QProcess>();
  connect(rig_.get(), &QProcess::readyReadStandardOutput, this, [this, socket] {
    if (bench_.standing() == BenchLink::Standing::open || bench_.standing() == BenchLink::Standing::opening) return;
    bench_.open(socket, tr("the car that is played here"));
  });
  connect(rig_.get(), &QProcess::finished, this, [this](int code) {
    const QString why = QString::fromUtf8(rig_->readAllStandardError()).trimmed();
    if (code != 0) emit said(why.isEmpty() ? tr("The rig ended by itself.") : why);
  });
  rig_->start(rig, arguments);
  emit said(tr("The car is put on the rig …"));
  return std::nullopt;
}

} // namespace mavrel::app
