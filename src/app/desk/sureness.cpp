#include "app/desk/sureness.h"

#include "app/desk/stoppable.h"
#include "quantity/quantity.h"

#include <cmath>

namespace mavrel::app {

namespace {
constexpr std::size_t draws = 500;
constexpr unsigned threads = 2;
} // namespace

std::optional<assess::Doubt> Sureness::Question::answer(const Given& given, const RunControl& control) {
  const StopFlag stop(control);
  return assess::doubt(given, stop.flag(), threads);
}

Sureness& Sureness::of(Desk& desk) {
  if (auto* mine = desk.findChild<Sureness*>(QString(), Qt::FindDirectChildrenOnly)) return *mine;
  return *new Sureness(desk);
}

Sureness::Sureness(Desk& desk) : QObject(&desk), desk_(desk), answer_(desk.runner(), [this] { emit changed(); }) {
  resting_.setSingleShot(true);
  resting_.setInterval(rests);
  connect(&resting_, &QTimer::timeout, this, [this] {
    if (wanted_ && !answer_.was_asked()) answer_.ask(given());
  });
  connect(&desk_, &Desk::changed, this, &Sureness::look);
}

assess::DoubtGiven Sureness::given() const {
  return {desk_.build(), desk_.shelf(), draws, 1};
}

void Sureness::look() {
  if (!wanted_) return;
  answer_.keep_only_for(given());
  resting_.start();
}

void Sureness::set_wanted(bool wanted) {
  if (wanted == wanted_) return;
  wanted_ = wanted;
  if (!wanted) {
    resting_.stop();
    answer_.forget();
  } else if (!answer_.was_asked()) {
    answer_.ask(given());
  }
  emit changed();
}

const assess::Doubt* Sureness::doubt() const {
  const auto& answer = answer_.answer();
  return wanted_ && answer && *answer ? &**answer : nullptr;
}

namespace {

double in_unit(const Desk& desk, double sd, Kind kind) {
  return in_shown_unit(sd, kind, desk.prefs()) - in_shown_unit(0, kind, desk.prefs());
}
/// Digits behind the point that a doubt leaves; -1: as usual, of what nobody doubts.
int digits_left(double sd) {
  return sd > 0 ? std::clamp(static_cast<int>(std::ceil(-std::log10(sd))), 0, 3) : -1;
}

} // namespace

QString shown_as_sure(const Desk& desk, double value, double sd, Kind kind) {
  return desk.shown(value, kind, digits_left(in_unit(desk, sd, kind)));
}

QString shown_with_doubt(const Desk& desk, double value, double sd, Kind kind) {
  if (!(sd > 0)) return desk.shown(value, kind);
  const int digits = digits_left(in_unit(desk, sd, kind));
  const Shown number = show_parts(value, kind, desk.prefs(), digits);
  return QString("%1 ± %2 %3")
      .arg(QString::fromStdString(number.number), QString::number(in_unit(desk, sd, kind), 'f', digits),
           QString::fromStdString(number.unit));
}

} // namespace mavrel::app
