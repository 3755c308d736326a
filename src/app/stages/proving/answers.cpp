#include "app/stages/proving/answers.h"

namespace mavrel::app {

ProvingAnswers::ProvingAnswers(Desk& desk, QObject* parent)
    : QObject(parent), desk_(desk), predicted_(desk.runner(), [this] { came(); }),
      learning_(desk.runner(), [this] { emit changed(); }), air_use_(desk.runner(), [this] { emit changed(); }) {
  connect(&desk_, &Desk::changed, this, &ProvingAnswers::look);
}

void ProvingAnswers::came() {
  proofs_.reset();
  emit changed();
}

assess::LevelingGiven ProvingAnswers::rolling() const {
  return assess::leveling_given(desk_.build(), given().air(), 0);
}

void ProvingAnswers::look() {
  if (predicted_.was_asked()) predicted_.keep_only_for(rolling());
  air_use_.keep_only_for(given().air());
  if (learning_.was_asked()) learning_.keep_only_for({desk_.build(), desk_.shelf()});
}

const std::vector<assess::HoldPoint>& ProvingAnswers::proofs() {
  const auto& now = desk_.assessment().proving;
  if (!of_ || !of_->same(now)) {
    of_ = now;
    proofs_.reset();
  }
  if (!predicted_.was_asked() && !given().air().kit.valves.empty()) predicted_.ask(rolling());
  if (!proofs_) {
    const assess::Predicted* said = predicted_.answer() && *predicted_.answer() ? &**predicted_.answer() : nullptr;
    proofs_ = assess::hold_points(given(), said ? &said->figures : nullptr);
    std::erase_if(*proofs_, [](const assess::HoldPoint& p) { return !assess::is_proof(p); });
  }
  return *proofs_;
}

const assess::HoldPoint* ProvingAnswers::proof(const std::string& id) {
  for (const assess::HoldPoint& p : proofs())
    if (p.id == id) return &p;
  return nullptr;
}

std::vector<Message> ProvingAnswers::trouble() const {
  if (const auto broke_off = predicted_.trouble()) return {*broke_off};
  return predicted_.answer() && *predicted_.answer() ? (*predicted_.answer())->trouble : std::vector<Message>{};
}

void ProvingAnswers::learn() {
  learning_.ask({desk_.build(), desk_.shelf()});
}

const Expected<assess::Learning>* ProvingAnswers::learned() const {
  return learning_.answer() && *learning_.answer() ? &**learning_.answer() : nullptr;
}

assess::HandOver ProvingAnswers::hand_over() {
  if (!air_use_.was_asked() && !given().air().kit.valves.empty()) air_use_.ask(given().air());
  std::optional<double> air;
  if (air_use_.answer() && *air_use_.answer() && **air_use_.answer()) air = ***air_use_.answer();
  return assess::hand_over(given(), proofs(), air);
}

} // namespace mavrel::app
