#include "app/desk/sureness.h"

#include "app/desk/stoppable.h"
#include "report/sure.h"

#include <sys/resource.h>
#include <unistd.h>

namespace mavrel::app {

namespace {
constexpr unsigned threads = 2;

/// Behind everything else that the machine has to do, the interface first of all.
void stand_back() {
  constexpr int behind_all = 15;
  setpriority(PRIO_PROCESS, static_cast<id_t>(gettid()), behind_all); // of this thread alone; as before where it can't
}
} // namespace

std::optional<assess::Doubt> Sureness::Question::answer(const Given& given, const RunControl& control) {
  return assess::doubt(given, {control.stop, threads, stand_back, control.progress});
}

Sureness& Sureness::of(Desk& desk) {
  if (auto* mine = desk.findChild<Sureness*>(QString(), Qt::FindDirectChildrenOnly)) return *mine;
  return *new Sureness(desk);
}

Sureness::Sureness(Desk& desk) : QObject(&desk), desk_(desk), answer_(runner_, [this] { told(); }) {
  resting_.setSingleShot(true);
  resting_.setInterval(rests);
  connect(&resting_, &QTimer::timeout, this, [this] {
    if (wanted_ && !answer_.was_asked()) answer_.ask(given());
  });
  connect(&desk_, &Desk::changed, this, &Sureness::look);
  resting_.start();
}

/// Of its progress only those hear who ask; a band that comes or goes repaints everything.
void Sureness::told() {
  const bool there = doubt() != nullptr;
  if (there == was_there_) return emit moved();
  was_there_ = there;
  emit changed();
}

assess::DoubtGiven Sureness::given() const {
  return {desk_.build(), desk_.shelf(), draws_, 1};
}

void Sureness::look() {
  if (!wanted_) return;
  answer_.keep_only_for(given());
  resting_.start();
}

void Sureness::set_wanted(bool want) {
  if (want == wanted_) return;
  wanted_ = want;
  if (!want) {
    resting_.stop();
    answer_.forget();
  } else if (!answer_.was_asked()) {
    answer_.ask(given());
  }
  emit wanted(want);
  emit changed();
}

const assess::Doubt* Sureness::doubt() const {
  const auto& answer = answer_.answer();
  return wanted_ && answer && *answer ? &**answer : nullptr;
}

assess::Findings Sureness::findings() const {
  const assess::Findings& plain = desk_.assessment().findings;
  const assess::Doubt* there = doubt();
  return there ? assess::weighed(plain, desk_.build(), *there) : plain;
}

std::optional<assess::Doubt> Sureness::at_once() const {
  if (!wanted_) return std::nullopt;
  if (const assess::Doubt* there = doubt()) return *there;
  return assess::doubt(given(), {{}, threads, {}, {}});
}

QString shown_as_sure(const Desk& desk, double value, double sd, Kind kind) {
  return QString::fromStdString(report::as_sure(value, sd, kind, desk.prefs()));
}

QString shown_with_doubt(const Desk& desk, double value, double sd, Kind kind) {
  return QString::fromStdString(report::with_doubt(value, sd, kind, desk.prefs()));
}

QString shown_sure(Desk& desk, double value, Kind kind, const std::string& answer, int decimals) {
  const assess::DoubtAnswer* a = report::doubt_of(Sureness::of(desk).doubt(), answer, value);
  return a ? shown_with_doubt(desk, value, a->sd, kind) : desk.shown(value, kind, decimals);
}

} // namespace mavrel::app
