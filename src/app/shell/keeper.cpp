#include "app/shell/keeper.h"

#include "app/desk/desk.h"
#include "build/json.h"
#include "file/text_file.h"

#include <QCoreApplication>
#include <QFileInfo>
#include <QLockFile>
#include <QUuid>

#include <algorithm>
#include <functional>
#include <utility>

namespace mavrel::app {

namespace {
constexpr int soon_ms = 1500, again_ms = 8000;
constexpr const char* ending = ".mavrel";

std::filesystem::path beside(const std::filesystem::path& file, const char* what) {
  return std::filesystem::path(file.string() + what);
}

void remove_kept(const std::filesystem::path& file) {
  std::error_code error;
  std::filesystem::remove(file, error);
  std::filesystem::remove(beside(file, ".from"), error);
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
    : QObject(parent), desk_(desk), folder_(std::move(folder)),
      writer_([this](const std::stop_token& stop) { run(stop); }) {
  for (QTimer* timer : {&timer_, &again_}) {
    timer->setSingleShot(true);
    timer->setInterval(timer == &timer_ ? soon_ms : again_ms);
    connect(timer, &QTimer::timeout, this, &Keeper::keep_now);
  }
  connect(&desk_, &Desk::changed, this, [this] {
    if (desk_.document().may_close())
      forget();
    else if (!timer_.isActive())
      timer_.start(); // not restarted: under steady editing it still fires
  });
}

Keeper::~Keeper() {
  forget();
  wait();
  writer_.request_stop();
  changed_.notify_all();
}

void Keeper::keep_now() {
  if (desk_.document().may_close()) return;
  anything_kept_ = true;
  begin({desk_.document().history().shared_now(), desk_.document().file(), when_safe_});
}

void Keeper::forget() {
  timer_.stop();
  again_.stop();
  // Saved, or given up by the person: what it was recovered from is not needed either.
  discard_all(std::vector(when_safe_));
  if (!anything_kept_) return;
  anything_kept_ = false;
  begin({});
}

void Keeper::begin(Order order) {
  {
    const std::scoped_lock lock(lock_);
    next_ = std::move(order);
  }
  changed_.notify_all();
}

bool Keeper::wait() {
  std::unique_lock lock(lock_);
  changed_.wait(lock, [this] { return !next_ && !busy_; });
  return last_ok_;
}

void Keeper::run(const std::stop_token& stop) {
  for (;;) {
    Order order;
    {
      std::unique_lock lock(lock_);
      if (!changed_.wait(lock, stop, [this] { return next_.has_value(); })) return;
      order = std::move(*next_);
      next_.reset();
      busy_ = true;
    }
    Expected<void> result;
    try {
      result = carry_out(order);
    } catch (const std::exception& what) {
      result = refuse(words("Unsaved work can't be kept safe: {0}"), {std::string(what.what())});
    }
    // Posted before anybody who waits goes on, so that what follows from it is in the queue by then.
    QMetaObject::invokeMethod(
        this, [this, result, order] { done(order, result); }, Qt::QueuedConnection);
    {
      const std::scoped_lock lock(lock_);
      busy_ = false;
      last_ok_ = result.has_value();
    }
    changed_.notify_all();
  }
}

Expected<void> Keeper::carry_out(const Order& order) {
  if (!order.build) {
    if (!file_.empty()) remove_kept(file_);
    file_lock_.reset();
    file_.clear();
    return {};
  }
  std::error_code error;
  std::filesystem::create_directories(folder_, error);
  if (file_.empty()) {
    file_ = folder_ / (QUuid::createUuid().toString(QUuid::WithoutBraces).toStdString() + ending);
    file_lock_ = std::make_unique<QLockFile>(QString::fromStdString(beside(file_, ".lock").string()));
    file_lock_->setStaleLockTime(0); // stale only when its process is gone
    file_lock_->tryLock(0);
  }
  // A path that is no text can't be kept as one: the work is then kept as of a build in no file.
  const std::string original = order.original.string();
  const auto written = write_atomically(file_, build::to_json(*order.build));
  const auto named = write_atomically(beside(file_, ".from"), first_bad_utf8(original) ? "" : original);
  if (!written || !named)
    return refuse(words("Unsaved work can't be kept safe: {0}"), {!written ? written.error() : named.error()});
  return {};
}

/// What an order did is of the work as it was when the order was given, not of what has come since.
void Keeper::done(const Order& order, const Expected<void>& result) {
  if (!order.build) return;
  if (!result) {
    const QString why = desk_.words_of(result.error());
    if (why != last_failure_) desk_.tell(why); // once, not at every edit
    last_failure_ = why;
    if (!desk_.document().may_close()) again_.start();
    emit failed(why);
    return;
  }
  last_failure_.clear();
  discard_all(order.frees);
  emit kept();
}

void Keeper::discard_all(const std::vector<LeftBehind>& lefts) {
  for (const LeftBehind& left : lefts) {
    std::erase_if(when_safe_, [&](const LeftBehind& waiting) { return waiting.kept == left.kept; });
    discard(left);
  }
}

std::vector<LeftBehind> Keeper::left_behind() const {
  // The newest first, and no more of them than anybody looks at: each has a lock to be tried.
  std::vector<std::pair<std::filesystem::file_time_type, std::filesystem::path>> there;
  std::error_code error;
  for (std::filesystem::directory_iterator it(folder_, error), end; !error && it != end; it.increment(error)) {
    std::error_code unknown;
    if (it->path().extension() == ending && it->is_regular_file(unknown))
      there.emplace_back(it->last_write_time(unknown), it->path());
  }
  std::sort(there.begin(), there.end(), std::greater<>());
  std::vector<LeftBehind> out;
  for (const auto& [when, file] : there) {
    if (out.size() == most_left_behind) break;
    if (std::any_of(when_safe_.begin(), when_safe_.end(),
                    [&, &file = file](const LeftBehind& left) { return left.kept == file; }))
      continue; // taken over already
    QLockFile lock(QString::fromStdString(beside(file, ".lock").string()));
    lock.setStaleLockTime(0);
    if (!lock.tryLock(0)) continue; // its program, or this one, is still running
    const auto original = read_text(beside(file, ".from"), 64 * 1024);
    out.push_back({file, original ? std::filesystem::path(*original) : std::filesystem::path(),
                   QFileInfo(QString::fromStdString(file.string())).lastModified()});
  }
  return out;
}

void Keeper::discard(const LeftBehind& left) const {
  remove_kept(left.kept);
}

void Keeper::discard_when_safe(const LeftBehind& left) {
  when_safe_.push_back(left);
}

} // namespace mavrel::app
