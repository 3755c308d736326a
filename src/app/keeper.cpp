#include "app/keeper.h"

#include "app/desk.h"
#include "build/json.h"
#include "file/text_file.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QStandardPaths>
#include <QUuid>

namespace mavrel::app {

namespace {
constexpr int soon_ms = 1500;
constexpr const char* ending = ".mavrel";

std::filesystem::path beside(const std::filesystem::path& file, const char* what) {
  return std::filesystem::path(file.string() + what);
}
} // namespace

std::filesystem::path Keeper::usual_folder() {
  const QByteArray state = qgetenv("XDG_STATE_HOME");
  const std::filesystem::path base = !state.isEmpty() && state.startsWith('/')
                                         ? std::filesystem::path(state.toStdString())
                                         : std::filesystem::path(qgetenv("HOME").toStdString()) / ".local" / "state";
  return base / "mavrel" / "recovery";
}

Keeper::Keeper(Desk& desk, std::filesystem::path folder, QObject* parent)
    : QObject(parent), desk_(desk), folder_(std::move(folder)) {
  timer_.setSingleShot(true);
  timer_.setInterval(soon_ms);
  connect(&timer_, &QTimer::timeout, this, &Keeper::keep_now);
  connect(&desk_, &Desk::changed, this, [this] {
    if (desk_.may_close())
      forget();
    else if (!timer_.isActive())
      timer_.start(); // not restarted: under steady editing it still fires
  });
}

Keeper::~Keeper() {
  forget();
}

void Keeper::keep_now() {
  if (desk_.may_close()) return;
  std::error_code error;
  std::filesystem::create_directories(folder_, error);
  if (file_.empty()) {
    file_ = folder_ / (QUuid::createUuid().toString(QUuid::WithoutBraces).toStdString() + ending);
    lock_ = std::make_unique<QLockFile>(QString::fromStdString(beside(file_, ".lock").string()));
    lock_->setStaleLockTime(0); // stale only when its process is gone
    lock_->tryLock(0);
  }
  const auto kept = write_atomically(file_, build::to_json(desk_.build()));
  const auto named = write_atomically(beside(file_, ".from"), desk_.file().string());
  if (!kept || !named)
    desk_.tell(tr("Unsaved work can't be kept safe: %1").arg(desk_.words_of(!kept ? kept.error() : named.error())));
}

void Keeper::forget() {
  timer_.stop();
  if (file_.empty()) return;
  std::error_code error;
  std::filesystem::remove(file_, error);
  std::filesystem::remove(beside(file_, ".from"), error);
  lock_.reset();
  file_.clear();
}

std::vector<Left> Keeper::left_behind() const {
  std::vector<Left> out;
  std::error_code error;
  for (std::filesystem::directory_iterator it(folder_, error), end; !error && it != end; it.increment(error)) {
    const auto& file = it->path();
    if (file.extension() != ending || file == file_) continue;
    QLockFile lock(QString::fromStdString(beside(file, ".lock").string()));
    lock.setStaleLockTime(0);
    if (!lock.tryLock(0)) continue; // its program is still running
    const auto original = read_text(beside(file, ".from"), 64 * 1024);
    out.push_back({file, original ? std::filesystem::path(*original) : std::filesystem::path(),
                   QFileInfo(QString::fromStdString(file.string())).lastModified()});
  }
  return out;
}

void Keeper::discard(const Left& left) const {
  std::error_code error;
  std::filesystem::remove(left.kept, error);
  std::filesystem::remove(beside(left.kept, ".from"), error);
}

} // namespace mavrel::app
