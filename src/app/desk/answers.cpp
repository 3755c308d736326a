#include "app/desk/answers.h"

#include "app/desk/clock.h"
#include "app/desk/desk.h"

namespace mavrel::app {

namespace {
constexpr int looks_every = 20'000; // ms, whether the minute has turned
}

void AskedAnything::hear(bool only_progress) {
  const auto& told = only_progress ? moved_ : changed_;
  if (told) told();
}

Answers::Answers(const Desk& desk, Runner& runner) : desk_(desk), runner_(runner), moment_(clock_now()) {
  connect(&desk_, &Desk::changed, this, [this] { moment_ = clock_now(); });
  minute_.setInterval(looks_every);
  connect(&minute_, &QTimer::timeout, this, [this] {
    if (const auto now = clock_now(); !(now == moment_)) {
      moment_ = now;
      emit changed();
    }
  });
  minute_.start();
}

} // namespace mavrel::app
