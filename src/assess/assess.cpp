#include "assess/assess.h"

#include "assess/air/air_findings.h"
#include "assess/bags/bags_findings.h"
#include "assess/care/care_findings.h"
#include "assess/end/car_findings.h"
#include "assess/end/end_findings.h"
#include "assess/fit_up/fit_up_findings.h"
#include "assess/ground/ground_findings.h"
#include "assess/interference/interference_findings.h"
#include "assess/kept/ask_both.h"
#include "assess/kit/kit_parts.h"
#include "assess/leveling/leveling_findings.h"
#include "assess/proving/proving_findings.h"
#include "assess/survey/survey_findings.h"
#include "assess/swing/swing_findings.h"

namespace mavrel::assess {

using build::at;

namespace {

/// What an assessment is put together from: one answer a topic.
struct Answers {
  AnsweredEnds ends;
  std::array<Answered<EndFindingsQuestion>, 2> at_ends;
  Answered<SurveyFindingsQuestion> survey;
  Answered<BagsFindingsQuestion> bags;
  Answered<CarFindingsQuestion> car;
  std::array<Answered<SwingFindingsQuestion>, 2> swing;
  std::array<Answered<TouchFindingsQuestion>, 2> touch;
  Answered<GroundQuestion> ground;
  Answered<GroundFindingsQuestion> on_ground;
  Answered<AirFindingsQuestion> air;
  Answered<LevelingFindingsQuestion> leveling;
  Answered<FitUpFindingsQuestion> fit_up;
  Answered<ProvingFindingsQuestion> proving;
  Answered<CareFindingsQuestion> care;

  [[nodiscard]] bool same(const Answers& other) const {
    const auto same_pair = [](const auto& a, const auto& b) { return a[0].same(b[0]) && a[1].same(b[1]); };
    return same_pair(ends, other.ends) && same_pair(at_ends, other.at_ends) && survey.same(other.survey) &&
           bags.same(other.bags) && car.same(other.car) && same_pair(swing, other.swing) &&
           same_pair(touch, other.touch) && ground.same(other.ground) && on_ground.same(other.on_ground) &&
           air.same(other.air) && leveling.same(other.leveling) && fit_up.same(other.fit_up) &&
           proving.same(other.proving) && care.same(other.care);
  }
};

Assessment put_together(const Answers& answers) {
  const auto& surveys = answers.survey.given().ends;
  Assessment out{case_loads(answers.survey.given().load_cases, {surveys[0]->loads, surveys[1]->loads}),
                 cross_weight(surveys[0].given().survey, surveys[1].given().survey),
                 floor_twist(surveys[0].given().floors),
                 answers.ends,
                 answers.ground,
                 answers.air,
                 answers.leveling,
                 answers.fit_up,
                 answers.proving,
                 answers.care,
                 {}};
  if (out.floor_twist == 0.0) out.floor_twist.reset();
  for (std::size_t c = 0; c < out.loads.size(); ++c)
    out.loads[c].standing_lean = answers.bags->standing_lean[c];
  for (const Findings* found :
       {&*answers.at_ends[0], &*answers.at_ends[1], &*answers.survey, &answers.bags->findings, &*answers.car,
        &*answers.swing[0], &*answers.swing[1], &*answers.touch[0], &*answers.touch[1], &*answers.on_ground,
        &*answers.air, &*answers.leveling, &*answers.fit_up, &*answers.proving, &*answers.care})
    out.findings.insert(out.findings.end(), found->begin(), found->end());
  sort_findings(out.findings);
  return out;
}

} // namespace

struct Assessor::Kept {
  std::array<assess::Kept<SurveyQuestion>, 2> surveys;
  std::array<assess::Kept<MotionQuestion>, 2> motions;
  std::array<assess::Kept<ClearanceQuestion>, 2> clearances;
  std::array<assess::Kept<EndQuestion>, 2> ends;
  std::array<assess::Kept<EndFindingsQuestion>, 2> at_ends;
  assess::Kept<SurveyFindingsQuestion> survey;
  assess::Kept<BagsFindingsQuestion> bags;
  assess::Kept<CarFindingsQuestion> car;
  std::array<assess::Kept<SwingFindingsQuestion>, 2> swing;
  std::array<assess::Kept<TouchFindingsQuestion>, 2> touch;
  assess::Kept<GroundQuestion> ground;
  assess::Kept<GroundFindingsQuestion> on_ground;
  assess::Kept<AirFindingsQuestion> air;
  assess::Kept<SensorQuestion> sensors;
  assess::Kept<LevelingFindingsQuestion> leveling;
  assess::Kept<FitUpFindingsQuestion> fit_up;
  assess::Kept<ProvingFindingsQuestion> proving;
  assess::Kept<CareFindingsQuestion> care;
  std::optional<Answers> last;

  [[nodiscard]] Answers ask(const build::Build& build, const shelf::Shelf& shelf) {
    const auto kit = kit_masses(build, shelf);
    const std::array read = {surveys[0].ask(survey_given(build, End::front, kit)),
                             surveys[1].ask(survey_given(build, End::rear, kit))};
    const auto moves = ask_both(motions, {motion_given(build, read[0]), motion_given(build, read[1])});
    const auto clear = ask_both(clearances, {clearance_given(build, moves[0]), clearance_given(build, moves[1])});
    const AnsweredEnds fitted = ask_both(ends, {end_given(build, shelf, clear[0]), end_given(build, shelf, clear[1])});
    const RoomGiven room = room_given(build, air_given(build, shelf, fitted));
    const GroundGiven over = ground_given(build, fitted);
    const auto fit_it_up = [&] {
      FitUpGiven given = fit_up_given(build, room, sensors.ask(sensor_given(build, fitted)));
      fit_up.ask(given);
      return given;
    };
    // Neither waits for the other, and they take longest of what is left.
    if (!ground.holds(over))
      in_parallel(2, {2, {}, {}}, [&](std::size_t i) {
        if (i == 0)
          ground.ask(over);
        else
          fit_it_up();
      });
    const auto& driven = ground.ask(over);
    const FitUpGiven fitting = fit_it_up();
    const auto& sensed = fitting.sensors;
    return {
        fitted,
        {at_ends[0].ask(end_findings_given(build, fitted[0])), at_ends[1].ask(end_findings_given(build, fitted[1]))},
        survey.ask(survey_findings_given(build, read)),
        bags.ask(bags_findings_given(build, fitted)),
        car.ask(car_findings_given(build, fitted)),
        {swing[0].ask(swing_findings_given(build, fitted[0])), swing[1].ask(swing_findings_given(build, fitted[1]))},
        {touch[0].ask(touch_findings_given(build, fitted[0])), touch[1].ask(touch_findings_given(build, fitted[1]))},
        driven,
        on_ground.ask(ground_findings_given(build, driven)),
        air.ask(air_findings_given(build, room)),
        leveling.ask(leveling_findings_given(build, sensed)),
        fit_up.ask(fitting),
        proving.ask(fitting),
        care.ask(care_given(build, fitting))};
  }
};

Assessor::Assessor() : kept_(std::make_unique<Kept>()) {}
Assessor::~Assessor() = default;

std::shared_ptr<const Assessment> Assessor::assess(const build::Build& build, const shelf::Shelf& shelf) {
  Answers now = kept_->ask(build, shelf);
  if (last_ && kept_->last->same(now)) return last_;
  last_ = std::make_shared<const Assessment>(put_together(now));
  kept_->last = std::move(now);
  return last_;
}

Assessment assess(const build::Build& build, const shelf::Shelf& shelf) {
  return *Assessor().assess(build, shelf);
}

} // namespace mavrel::assess
