#include "app/desk/sureness.h"

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

Sureness::Sureness(Desk& desk)
    : QObject(&desk), desk_(desk), answers_(desk, runner_),
      answer_(
          answers_, [this] { told(); }, [this] { return std::optional(given()); }) {
  answer_.set_moved([this] { emit moved(); });
  resting_.setSingleShot(true);
  resting_.setInterval(rests);
  connect(&resting_, &QTimer::timeout, this, [this] {
    if (wanted_ && !answer_.was_asked()) answer_.ask();
  });
  connect(&desk_, &Desk::changed, this, &Sureness::look);
  resting_.start();
}

/// Of its progress only those hear who ask; a band that comes or goes repaints everything.
void Sureness::told() {
  const bool there = doubt() != nullptr;
  if (there || answer_.trouble()) call_back();
  if (there == was_there_) return emit moved();
  was_there_ = there;
  emit changed();
}

assess::DoubtGiven Sureness::given() const {
  return {desk_.build(), desk_.shelf(), draws_, 1};
}

void Sureness::look() {
  if (!wanted_) return;
  answer_.keep();
  if (!waiting_.empty())
    answer_.want(); // somebody waits for it
  else
    resting_.start();
}

void Sureness::set_wanted(bool want) {
  if (want == wanted_) return;
  wanted_ = want;
  if (!want) {
    resting_.stop();
    answer_.forget();
    call_back();
  } else {
    answer_.want();
  }
  emit wanted(want);
  emit changed();
}

const assess::Doubt* Sureness::doubt() const {
  return wanted_ ? answer_.value() : nullptr;
}

assess::Findings Sureness::findings() const {
  const assess::Findings& plain = desk_.assessment().findings;
  const assess::Doubt* there = doubt();
  return there ? assess::weighed(plain, desk_.build(), *there) : plain;
}

void Sureness::once_known(QObject* context, std::function<void(const assess::Doubt*)> then) {
  answer_.keep();
  if (!wanted_ || doubt()) return then(doubt());
  waiting_.emplace_back(context, std::move(then));
  resting_.stop();
  answer_.want();
}

void Sureness::call_back() {
  for (const auto& [context, then] : std::exchange(waiting_, {}))
    if (context) then(doubt());
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
