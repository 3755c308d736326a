#include "assess/next/next.h"

#include "assess/air/air_findings.h"
#include "assess/care/care_findings.h"
#include "assess/care/care_plan.h"
#include "assess/end/end_answer.h"
#include "assess/fit_up/buying.h"
#include "assess/fit_up/fit_up_findings.h"
#include "assess/fit_up/plan.h"
#include "assess/next/usual_car.h"
#include "assess/proving/proving_findings.h"
#include "build/names.h"

#include <fmt/format.h>

#include <algorithm>
#include <vector>

namespace mavrel::assess {

using build::at;
using build::key_of;
using build::name_of;
using build::PresetUse;

namespace {

constexpr std::size_t most_put_off = 4000; // letters, as its field takes
constexpr double clear_of_edge = 0.004;    // m inside its window that a parked or a ramp height is put

StepDoes wish_of(PresetUse use) {
  switch (use) {
  case PresetUse::road:
    return StepDoes::wish_road;
  case PresetUse::parked:
    return StepDoes::wish_parked;
  case PresetUse::ramp:
    return StepDoes::wish_ramp;
  default:
    return StepDoes::nothing;
  }
}

/// H that a preset of such a use gets when nobody wished for one.
std::optional<double> usual_height(const EndAssessment& end, StepDoes does) {
  const auto& window = does == StepDoes::wish_road ? end.windows.road : end.windows.reach;
  if (!window) return std::nullopt;
  const double low = window->low.height, high = window->high.height,
               edge = std::min(clear_of_edge, window->width() / 4);
  return does == StepDoes::wish_road ? 0.5 * (low + high) : does == StepDoes::wish_parked ? low + edge : high - edge;
}

/// The steps in working order, until one is found that is not put off.
class Steps {
public:
  explicit Steps(const NextGiven& given) : given_(given), build_(given.build), a_(given.assessment) {}

  std::optional<NextStep> first() {
    using Phase = void (Steps::*)();
    for (const Phase phase : {&Steps::weigh, &Steps::stops_in_survey, &Steps::bags, &Steps::wishes, &Steps::surer,
                              &Steps::stops, &Steps::near, &Steps::air_kit, &Steps::cautions, &Steps::work,
                              &Steps::proofs, &Steps::hand_over, &Steps::care}) {
      (this->*phase)();
      if (found_) break;
    }
    return std::move(found_);
  }

private:
  void step(std::string id, const StageRow& stage, std::string place, Message what, Message why,
            StepDoes does = StepDoes::nothing) {
    if (found_ || is_put_off(build_, id)) return;
    found_ = NextStep{std::move(id), std::move(what), std::move(why), &stage, std::move(place), does};
  }
  void of_finding(const Finding& f, Severity severity) {
    if (f.severity != severity || !f.stage) return;
    std::string id = f.code;
    if (f.end) id += fmt::format(".{}", key_of(*f.end));
    step(std::move(id), *f.stage, f.place, f.title, f.way_out);
  }
  [[nodiscard]] std::string fit_path(End end, const char* field) const {
    return fmt::format("variants.{}.{}.{}", build_.active_variant, key_of(end), field);
  }
  [[nodiscard]] const FitUpGiven& fit_up() const { return a_.fit_up.given(); }
  [[nodiscard]] bool both_ends_known() const {
    return a_.end(End::front).has_domain() && a_.end(End::rear).has_domain();
  }

  /// Not read of this car: it is missing, or stands as it usually is.
  [[nodiscard]] bool untaken(const std::string& path, bool missing) const {
    if (missing) return true;
    if (!begun_from_usual(build_)) return false;
    const auto& still = a_.care.given().taken;
    return std::any_of(still.begin(), still.end(),
                       [&](const StillTaken& one) { return build_.origin->taken[one.place].path == path; });
  }

  void weigh() {
    std::vector<std::string> weights, heights;
    for (const End end : build::both_ends)
      for (const Side side : build::both_sides) {
        const build::Corner& corner = build_.end(end).corners[at(side)];
        const std::string of = fmt::format("{}.{}.", key_of(end), key_of(side));
        if (untaken(of + "mass_kg", corner.mass.values.empty())) weights.push_back(of + "mass_kg");
        if (untaken(of + "height_m", corner.height.values.empty())) heights.push_back(of + "height_m");
      }
    // In the order a bay takes them: all weights on the scales, then all heights.
    const std::size_t missing = weights.size() + heights.size();
    weights.insert(weights.end(), heights.begin(), heights.end());
    if (missing > 0)
      step("corners", stages::car_in, "tape:" + fmt::format("{}", fmt::join(weights, ";")),
           missing == 8 ? Message{words("Take the weight and height of the four corners"), {}}
                        : Message{words("Take the corner readings that are missing: {0}"), {std::to_string(missing)}},
           {words("Everything else is worked out from them: with these alone there is a first window."), {}});
    for (const End end : build::both_ends) {
      const std::string key = key_of(end);
      if (untaken(key + ".wheel", build_.end(end).wheel.empty()))
        step("wheel." + key, stages::car_in, key + ".wheel",
             {words("{0}: read the size off the tyre and the wheel"), {name_of(end)}},
             {words("Where the wheel stands and how large it is follows from it: 215/45R17 7.5 ET42."), {}});
      if (untaken(key + ".track_m", !build_.end(end).track))
        step("track." + key, stages::car_in, key + ".track_m", {words("{0}: take the track"), {name_of(end)}},
             {words("Lean and clearance are worked out from it."), {}});
    }
    if (untaken("body.wheelbase_m", !build_.body.wheelbase))
      step("wheelbase", stages::car_in, "body.wheelbase_m", {words("Take the wheelbase"), {}},
           {words("Loads are shared between the axles by it."), {}});
  }

  void stops_in_survey() {
    for (const Finding& f : a_.findings)
      if (f.stage == &stages::car_in) of_finding(f, Severity::stop);
  }

  void bags() {
    for (const End end : build::both_ends)
      if (a_.end(end).has_domain() && build_.variant().fit[at(end)].bag.empty())
        step(
            fmt::format("bag.{}", key_of(end)), stages::bags, fit_path(end, "bag"),
            {words("Choose a bag for the {0}"), {name_of(end)}},
            {words("The shelf is judged on this corner, the best first; pressures and windows follow from the choice."),
             {}});
  }

  void wishes() {
    const auto& presets = build_.variant().brief.presets;
    for (const PresetUse use : {PresetUse::road, PresetUse::parked, PresetUse::ramp})
      for (std::size_t p = 0; p < presets.size(); ++p) {
        const build::Preset& preset = presets[p];
        if (preset.use != use || (preset.wish[0] && preset.wish[1])) continue;
        bool can = true;
        for (const End end : build::both_ends)
          can = can && (preset.wish[at(end)] || usual_height(a_.end(end), wish_of(use)));
        const std::string place =
            fmt::format("variants.{}.brief.presets.{}.{}", build_.active_variant, p, preset.wish[0] ? "rear" : "front");
        const char* why = use == PresetUse::road     ? words("Comfort, pressure and strokes are judged at it.")
                          : use == PresetUse::parked ? words("How low it gets, and how much air a lift takes, follow.")
                                                     : words("What it gets over is judged at it.");
        const Message what =
            !can                       ? Message{words("Say how high it stands: {0}"), {preset.name}}
            : use == PresetUse::road   ? Message{words("Set {0} to the middle of its window"), {preset.name}}
            : use == PresetUse::parked ? Message{words("Set {0} as low as its window lets it"), {preset.name}}
                                       : Message{words("Set {0} as high as its window lets it"), {preset.name}};
        if (both_ends_known())
          step(fmt::format("wish.{}", preset.name), stages::car_in, place, what, {why, {}},
               can ? wish_of(use) : StepDoes::nothing);
      }
  }

  /// A window on usual figures is firmed up by the reading that moves it most.
  void surer() {
    for (const Finding& f : a_.findings)
      if (f.code == "window_rough" && f.stage) {
        std::string id = f.code;
        if (f.end) id += fmt::format(".{}.{}", key_of(*f.end), f.place);
        step(std::move(id), *f.stage, f.place, f.way_out, f.reason);
      }
  }

  void stops() {
    for (const Finding& f : a_.findings)
      of_finding(f, Severity::stop);
  }

  void near() {
    for (const End end : build::both_ends) {
      const build::EndSurvey& survey = build_.end(end);
      if (a_.end(end).has_domain() && survey.obstacles.empty() && !survey.arch.lip_outward)
        step(fmt::format("near.{}", key_of(end)), stages::clearance, fmt::format("{}.obstacles", key_of(end)),
             {words("{0}: say what the tyre and the bag come near to"), {name_of(end)}},
             {words("Until then nobody knows what they touch on the way down, or at full lock."), {}});
    }
  }

  void air_kit() {
    const build::AirKit& kit = build_.variant().air;
    if (!both_ends_known()) return;
    if (kit.tank.empty() && kit.compressor.empty() && kit.valves.empty())
      step("kit", stages::air, fmt::format("variants.{}.brief.air.rise_s", build_.active_variant),
           {words("Let Sizing find an air kit"), {}},
           {words("It tries what the shelf has against how fast and how often the car is to rise."), {}});
  }

  void cautions() {
    for (const StageRow* stage : {&stages::car_in, &stages::bags, &stages::swing, &stages::clearance, &stages::air,
                                  &stages::leveling, &stages::fit_up})
      for (const Finding& f : a_.findings)
        if (f.stage == stage) of_finding(f, Severity::caution);
  }

  void work() {
    const FitUpGiven& given = fit_up();
    const JobList list = jobs_of(given, {});
    if (list.jobs.empty()) return;
    const auto is_done = [&](const Job& job) { return job.state() == build::JobState::done; };
    const bool begun = std::any_of(list.jobs.begin(), list.jobs.end(), is_done);
    if (!begun && given.shop->first_day.empty())
      step("first_day", stages::fit_up, "shop.first_day", {words("Say on which day work begins"), {}},
           {words("Then the plan has dates, and parts are ordered in time."), {}});
    const auto ready = [&](const Job& job) {
      return std::all_of(job.after.begin(), job.after.end(), [&](const std::string& id) {
        return std::all_of(list.jobs.begin(), list.jobs.end(),
                           [&](const Job& other) { return other.id != id || is_done(other); });
      });
    };
    if (!std::all_of(list.jobs.begin(), list.jobs.end(), is_done)) {
      const BuyList buys = buy_list(given);
      const auto wanted =
          std::count_if(buys.lines.begin(), buys.lines.end(), [](const BuyLine& l) { return l.order > 0; });
      if (wanted > 0)
        step("order", stages::fit_up, fmt::format("variants.{}.fit_up.parts.", build_.active_variant),
             {wanted == 1 ? words("Order what is missing: one line of the parts list")
                          : words("Order what is missing: {0} lines of the parts list"),
              {std::to_string(wanted)}},
             {words("Jobs wait for parts that are not there."), {}});
    }
    const std::vector<HoldPoint> points = hold_points(given);
    // What was done or begun waits for its checks; then what was begun, then the first that can be.
    for (const Job& job : list.jobs)
      if (is_done(job) || job.state() == build::JobState::running) checks_of(job, points);
    for (const bool running : {true, false})
      for (const Job& job : list.jobs) {
        if (is_done(job) || (job.state() == build::JobState::running) != running) continue;
        if (!running && !ready(job)) continue;
        step("job." + job.id, stages::fit_up, "job:" + job.id,
             {running ? words("Finish: {0}") : words("Do: {0}"), {job.name}}, job.why);
      }
  }

  void checks_of(const Job& job, const std::vector<HoldPoint>& points) {
    for (const std::string& id : job.checks)
      for (const HoldPoint& p : points)
        if (p.id == id && p.row->stage != CheckStage::proving && p.state != CheckState::passed)
          step("hold." + id, stages::fit_up, "hold:" + id, {words("Check and sign: {0}"), {p.name}},
               {words("“{0}” is not good before it is, and work stops there."), {job.name}});
  }

  void proofs() {
    const FitUpGiven& given = fit_up();
    for (const HoldPoint& p : hold_points(given)) {
      if (!is_proof(p) || p.state == CheckState::passed) continue;
      step("prove." + p.id, stages::proving, "check:" + p.id,
           {p.state == CheckState::stale ? words("Prove again: {0}") : words("Prove: {0}"), {p.name}},
           {p.state == CheckState::failed  ? words("It was not right when it was read last.")
            : p.state == CheckState::stale ? words("What it was worked out from has changed since.")
                                           : words("What is not proved is not handed over."),
            {}});
    }
  }

  void hand_over() {
    const build::Proving& proving = *build_.variant().proving;
    const std::string base = fmt::format("variants.{}.proving.", build_.active_variant);
    if (proving.handed_over.empty())
      step("hand_over", stages::proving, base + "handed_over", {words("Hand it over: write the owner’s sheet"), {}},
           {words("Everything is proved; from that day on its care counts."), {}});
    if (build_.care->from.empty())
      step("on_the_road", stages::care, "care.from", {words("Say from which day it is on the road"), {}},
           {words("What comes round, by days and by distance, counts from then."), {}});
  }

  void care() {
    if (!given_.now) return;
    const CareGiven& care = a_.care.given();
    const auto plan = care_plan(care, given_.air_a_day, given_.now->day);
    if (!plan) return;
    for (const CareDue& due : plan->due)
      step(fmt::format("care.{}.{}", due.task->key, work::day_text(due.due)), stages::care,
           fmt::format("care:{}", due.task->key),
           {due.state == DueState::late ? words("{0}: was due on {1}") : words("{0} by {1}"),
            {Message{due.task->name, {}}, work::day_text(due.due)}},
           due.why);
  }

  const NextGiven& given_;
  const build::Build& build_;
  const Assessment& a_;
  std::optional<NextStep> found_;
};

/// Ids that are put off, with a space before and behind each.
std::string padded(const std::string& ids) {
  return " " + ids + " ";
}
/// Names of presets may hold spaces.
std::string as_one_word(std::string id) {
  std::replace(id.begin(), id.end(), ' ', '_');
  return id;
}

} // namespace

std::optional<NextStep> next_step(const NextGiven& given) {
  return Steps(given).first();
}

std::optional<build::Build> done(const NextGiven& given, const NextStep& step) {
  if (step.does == StepDoes::nothing) return std::nullopt;
  build::Build out = given.build;
  bool changed = false;
  for (build::Preset& preset : out.variant().brief.presets) {
    if (wish_of(preset.use) != step.does || "wish." + preset.name != step.id) continue;
    for (const End end : build::both_ends) {
      if (preset.wish[at(end)]) continue;
      const auto height = usual_height(given.assessment.end(end), step.does);
      if (!height) return std::nullopt;
      // To the millimetre, as a person would have typed it.
      preset.wish[at(end)] = build::HeightWish{build::HeightWish::As::height, std::round(*height * 1000) / 1000, {}};
      changed = true;
    }
  }
  return changed ? std::optional(std::move(out)) : std::nullopt;
}

bool is_put_off(const build::Build& build, const std::string& id) {
  return padded(build.job.put_off).find(padded(as_one_word(id))) != std::string::npos;
}

build::Build put_off(build::Build build, const NextStep& step) {
  std::string& ids = build.job.put_off;
  if (is_put_off(build, step.id)) return build;
  ids += (ids.empty() ? "" : " ") + as_one_word(step.id);
  // No longer than the file takes: what was put off first comes again first.
  while (ids.size() > most_put_off)
    ids.erase(0, std::min(ids.find(' '), ids.size() - 1) + 1);
  return build;
}

build::Build taken_up(build::Build build) {
  build.job.put_off.clear();
  return build;
}

} // namespace mavrel::assess
