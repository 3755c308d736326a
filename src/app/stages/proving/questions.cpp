#include "app/stages/proving/questions.h"

#include "app/desk/air_use.h"
#include "app/desk/clock.h"
#include "assess/care/care_plan.h"
#include "assess/proving/proving_findings.h"

namespace mavrel::app {

namespace {

struct ProofsQuestion {
  struct Given {
    assess::Answered<assess::ProvingFindingsQuestion> proving;
    std::shared_ptr<const void> predicted; // tells one prediction from another; null: there is none
    const assess::Predicted* said = nullptr;
    friend bool operator==(const Given& a, const Given& b) {
      return a.proving == b.proving && a.predicted == b.predicted;
    }
  };
  using Answer = std::vector<assess::HoldPoint>;
  static Answer answer(const Given& given) {
    auto out = assess::hold_points(given.proving.given(), given.said ? &given.said->figures : nullptr);
    std::erase_if(out, [](const assess::HoldPoint& p) { return !assess::is_proof(p); });
    return out;
  }
};

} // namespace

const assess::FitUpGiven& proving_of(const Desk& desk) {
  return desk.assessment().proving.given();
}

std::optional<assess::LevelingGiven> PredictQuestion::given(const Desk& desk) {
  const assess::AirGiven& air = proving_of(desk).air();
  return air.kit.valves.empty() ? std::nullopt : std::optional(assess::leveling_given(desk.build(), air, 0));
}

const std::vector<assess::HoldPoint>& proofs_of(const Desk& desk) {
  auto& predicted = desk.answers().of_the_car<PredictQuestion>();
  predicted.want();
  return desk.answers().at_once<ProofsQuestion>({desk.assessment().proving, predicted.token(), predicted.value()});
}

const assess::HoldPoint* proof_of(const Desk& desk, const std::string& id) {
  for (const assess::HoldPoint& p : proofs_of(desk))
    if (p.id == id) return &p;
  return nullptr;
}

std::vector<Message> trouble_of_predictions(const Desk& desk) {
  const auto& predicted = desk.answers().of_the_car<PredictQuestion>();
  if (const auto broke_off = predicted.trouble()) return {*broke_off};
  return predicted.value() ? predicted.value()->trouble : std::vector<Message>{};
}

assess::HandOver hand_over_of(const Desk& desk) {
  return assess::hand_over(
      proving_of(desk), proofs_of(desk),
      assess::drain_round(assess::care_given(desk.build(), proving_of(desk)), air_a_day(desk), clock_now().day));
}

} // namespace mavrel::app
