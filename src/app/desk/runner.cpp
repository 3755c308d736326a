#include "app/desk/runner.h"

#include <algorithm>
#include <new>

namespace mavrel::app {

namespace {
constexpr std::chrono::milliseconds between_tellings(50);
}

Runner::Runner(QObject* parent) : QObject(parent), thread_([this](const std::stop_token& ending) { run(ending); }) {}

Runner::~Runner() {
  {
    const std::scoped_lock lock(lock_);
    for (const auto& job : waiting_)
      job->stop.request_stop();
    waiting_.clear();
  }
  thread_.request_stop();
  wake_.notify_all();
  thread_.join();
}

quint64 Runner::start(Work work, std::function<void(double)> progress) {
  auto job = std::make_shared<Job>();
  job->work = std::move(work);
  job->progress = std::move(progress);
  {
    const std::scoped_lock lock(lock_);
    job->number = ++last_number_;
    waiting_.push_back(job);
  }
  wake_.notify_all();
  return job->number;
}

void Runner::stop(quint64 number) {
  const std::scoped_lock lock(lock_);
  std::erase_if(waiting_, [&](const auto& job) {
    if (job->number == number) job->stop.request_stop();
    return job->number == number;
  });
}

void Runner::deliver(quint64 number, const std::function<void()>& act, bool last) {
  QMetaObject::invokeMethod(
      this,
      [this, number, act, last] {
        {
          const std::scoped_lock lock(lock_);
          const auto job =
              std::find_if(waiting_.begin(), waiting_.end(), [&](const auto& j) { return j->number == number; });
          if (job == waiting_.end()) return; // stopped meanwhile
          if (last) waiting_.erase(job);
        }
        if (act) act();
      },
      Qt::QueuedConnection);
}

bool Runner::may_tell(Job& job) {
  const std::scoped_lock lock(lock_);
  const auto now = std::chrono::steady_clock::now();
  if (now - job.told < between_tellings) return false;
  job.told = now;
  return true;
}

void Runner::run(const std::stop_token& ending) {
  quint64 done = 0; // work is numbered in the order it is put in line
  while (!ending.stop_requested()) {
    std::shared_ptr<Job> job;
    {
      std::unique_lock lock(lock_);
      const auto next = [&] {
        return std::find_if(waiting_.begin(), waiting_.end(), [&](const auto& j) { return j->number > done; });
      };
      if (!wake_.wait(lock, ending, [&] { return next() != waiting_.end(); })) return;
      job = *next();
    }
    done = job->number;
    const RunControl control{job->stop.get_token(), [this, job](double share) {
                               if (job->progress && may_tell(*job))
                                 deliver(
                                     job->number, [job, share] { job->progress(share); }, false);
                             }};
    std::function<void()> act;
    try {
      act = job->work(control);
    } catch (...) { // whoever put it in line says what it can of that; the others' work goes on
    }
    deliver(job->number, act, true);
  }
}

std::optional<Message> what_breaks_off(const std::function<void()>& work) {
  constexpr const char* sentence = words("The machine could not go on with it: {0}. Close something and try again.");
  try {
    work();
    return std::nullopt;
  } catch (const std::bad_alloc&) {
    return Message{words("No memory is left for it. Close something and try again."), {}};
  } catch (const std::exception& what) {
    return Message{sentence, {std::string(what.what())}};
  } catch (...) {
    return Message{words("The machine could not go on with it, and does not say why. Try again."), {}};
  }
}

} // namespace mavrel::app
