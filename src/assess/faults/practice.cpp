#include "assess/faults/practice.h"

#include "assess/air/figures.h"
#include "assess/faults/likelihood.h"
#include "control/road.h"
#include "curve/mix.h"

#include <algorithm>
#include <cmath>
#include <stop_token>

namespace mavrel::assess {

using curve::mixed;

namespace {

constexpr struct {
  PracticeLevel level;
  const char *key, *name;
} levels[] = {
    {PracticeLevel::plain, "plain", words("one fault, plain")},
    {PracticeLevel::slight, "slight", words("one fault, maybe slight")},
    {PracticeLevel::two, "two", words("two at once")},
    {PracticeLevel::misleading, "misleading", words("misleading history")},
};

/// Sentences that say nothing of what it is.
const char* const tales[] = {
    words("The last shop changed the pressure switch; “it must be the compressor”, they said."),
    words("It came back from paint two weeks ago."),
    words("Its owner fitted a second gauge himself last spring."),
    words("It stood outside over the winter."),
    words("A new front left bag went in half a year ago."),
    words("It was at a show all weekend, up and down a hundred times."),
    words("The valve block was swapped with a friend’s, and swapped back."),
    words("A tyre was changed on a lift that held it by the body."),
    words("Somebody turned the dampers up two clicks and nobody remembers which."),
    words("The battery went flat in March and was charged with everything on."),
};

std::uint64_t mixed_text(std::uint64_t seed, std::string_view text) {
  for (const char c : text)
    seed = mixed(seed ^ static_cast<unsigned char>(c));
  return seed;
}

constexpr double longest_of_well = 8; // times as long as when well, that anybody holds a valve open

} // namespace

const char* level_key(PracticeLevel level) {
  return levels[static_cast<std::size_t>(level)].key;
}
const char* level_name(PracticeLevel level) {
  return levels[static_cast<std::size_t>(level)].name;
}
std::optional<PracticeLevel> level_of(std::string_view key) {
  for (const auto& row : levels)
    if (key == row.key) return row.level;
  return std::nullopt;
}

PracticeCar::PracticeCar(std::shared_ptr<const PracticeShop> shop, const PracticeAsked& asked)
    : shop_(std::move(shop)), asked_(asked) {
  control::Chance chance(mixed(mixed(asked.seed) + static_cast<std::uint64_t>(asked.level)));
  const FaultTable& table = shop_->table;
  const FaultCar& car = table.car();
  const bool may_be_nothing = asked.level == PracticeLevel::slight || asked.level == PracticeLevel::misleading;
  const auto one = [&](bool nothing) -> FaultAt {
    const auto often = [&](const FaultAt& f) {
      return !nothing && is_nothing(*f.cause) ? 0 : f.cause->often / static_cast<double>(places_of(f.cause->places));
    };
    double all = 0;
    for (const FaultAt& f : table.faults())
      all += often(f);
    double u = chance.next() * all;
    for (const FaultAt& f : table.faults()) {
      u -= often(f);
      if (u < 0) return f;
    }
    return table.faults().front();
  };
  const bool two =
      asked.level == PracticeLevel::two || (asked.level == PracticeLevel::misleading && chance.next() < 0.4);
  truth_.push_back(one(may_be_nothing && !two));
  while (two && truth_.size() < 2)
    if (const FaultAt other = one(false); !(other == truth_.front())) truth_.push_back(other);
  for (const FaultAt& f : truth_) {
    const double severity = asked.level == PracticeLevel::plain ? chance.between(0.3, 1) : chance.next();
    alone_.push_back(condition_of(car, f, severity));
    condition_.add(alone_.back());
  }
  // What its driver notices, each thing by itself.
  const bool second_hand = asked.level == PracticeLevel::misleading;
  for (const SignAt& at : table.columns()) {
    if (!at.sign->symptom) continue;
    const FaultFinding f = found(at, chance, second_hand);
    if (f.yes) told_.push_back(f), told_.back().second_hand = second_hand;
  }
  if (asked.level == PracticeLevel::misleading) {
    const std::size_t count = std::size(tales),
                      first = static_cast<std::size_t>(chance.next() * static_cast<double>(count));
    for (std::size_t i = 0; i < 3; ++i)
      history_.push_back({tales[(first + 3 * i) % count], {}});
  }
}

FaultEvidence PracticeCar::evidence() const {
  FaultEvidence out;
  out.findings = told_;
  out.nothing_else = true;
  out.heard = asked_.level == PracticeLevel::misleading;
  if (asked_.level == PracticeLevel::plain || asked_.level == PracticeLevel::two)
    for (std::size_t i = 0; i < out.priors.size(); ++i)
      if (is_nothing(fault_causes()[i])) out.priors[i] = 0;
  out.two_at_once = asked_.level == PracticeLevel::two ? 0.97 : asked_.level == PracticeLevel::misleading ? 0.4 : 0.02;
  return out;
}

double PracticeCar::read(const SignAt& at) {
  const std::string_view key = at.sign->key;
  const FaultCar& car = shop_->table.car();
  if (key == "fill_time" || key == "vent_time") {
    // The car itself is simulated, with all that is the matter with it.
    const auto circuit = static_cast<std::size_t>(&car.joined(at.place) - car.circuits.data());
    auto& timed = timed_[circuit];
    if (!timed)
      timed = time_corner(shop_->car, condition_, circuit,
                          longest_of_well * std::max(car.fill[at.place].at(1), car.vent[at.place].at(1)));
    const auto& took = key == "fill_time" ? timed->fill : timed->vent;
    return took.value_or(INFINITY);
  }
  if (key == "tank_fill" && std::isfinite(at.sign->reads(car, condition_, at.place)) &&
      condition_.runs == control::CompressorRuns::by_switch) {
    const auto filled =
        fill_tank(with_delivery(shop_->air, condition_.delivery), std::max(car.cut_in + condition_.cut_shift, 1e4),
                  std::max(car.cut_out + condition_.cut_shift, 2e4));
    return filled && filled->time ? *filled->time : INFINITY;
  }
  return at.sign->reads(car, condition_, at.place);
}

FaultFinding PracticeCar::found(const SignAt& at, control::Chance& chance, bool heard) {
  const FaultCar& car = shop_->table.car();
  FaultFinding out;
  out.at = at;
  const double slip = chance.next();
  const bool wrong = slip < mistaken_of(*at.sign);
  const double luck = chance.next(), noise = chance.normal();
  if (!at.sign->kind) {
    // What is plain is told where it is so, and never else.
    double no = at.sign->hard ? 1 : 1 - at.sign->base;
    for (std::size_t i = 0; i < truth_.size(); ++i)
      no *= 1 - shows_of(car, truth_[i], alone_[i], at);
    const bool so = luck < 1 - no;
    if (at.sign->hard && !so) {
      out.yes = false;
      return out;
    }
    out.yes = heard ? slip < (so ? passed_on : made_up_of(*at.sign)) : so != wrong;
    return out;
  }
  const auto [least, most] = believable(car, *at.sign, at.place);
  double x = read(at);
  if (std::isfinite(x)) x += noise * std::hypot(at.sign->sd, at.sign->sd_share * x);
  if (wrong) x = least + luck * (most - least);
  if (x >= most && at.sign->may_not_come)
    out.never = true;
  else
    out.value = std::clamp(x, least, most);
  return out;
}

std::vector<FaultFinding> PracticeCar::do_test(const TestAt& test) {
  const std::string name = test_key(test);
  auto done = std::find_if(done_.begin(), done_.end(), [&](const auto& d) { return d.first == name; });
  if (done == done_.end()) done = done_.insert(done_.end(), {name, 0});
  const int turn = done->second++;
  control::Chance chance(mixed(mixed_text(mixed(asked_.seed) + static_cast<std::uint64_t>(asked_.level), name) +
                               static_cast<std::uint64_t>(turn)));
  std::vector<FaultFinding> out;
  for (const SignAt& at : told_by(*test.test, test.place))
    out.push_back(found(at, chance));
  return out;
}

void go_on(PracticeCar& car, const PracticeShop& shop, FaultEvidence& evidence, const std::stop_token& stop,
           const std::function<void(const TestDone&)>& found) {
  for (double minutes = 0; minutes < longest_practice;) {
    if (stop.stop_requested()) return;
    const FaultWeighing weighing(shop.table, evidence);
    const Diagnosis now = weighing.diagnosis();
    if (!now.sets.empty() && now.sets.front().odds >= likely_enough) return;
    const auto next = weighing.next_tests(1);
    if (next.empty()) return;
    const TestAt at{next.front().test, next.front().place};
    TestDone done{at, car.do_test(at)};
    evidence.findings.insert(evidence.findings.end(), done.found.begin(), done.found.end());
    minutes += at.test->minutes;
    found(done);
  }
}

namespace {

bool same_set(const std::vector<FaultAt>& a, const std::vector<FaultAt>& b) {
  return fault_key(a) == fault_key(b);
}

double odds_of(const Diagnosis& diagnosis, const std::vector<FaultAt>& faults) {
  for (const FaultSet& set : diagnosis.sets)
    if (same_set(set.faults, faults)) return set.odds;
  return 0;
}

} // namespace

Expected<TestAt> test_here(const FaultParts& parts, std::string_view key) {
  const auto at = test_of(key);
  if (!at)
    return refuse(words("“{0}” is no test, or no place of it. Such as soap_fitting:front_left is right."),
                  {std::string(key.substr(0, 60))});
  if (!can_do(parts, *at->test))
    return refuse(words("{0}: this car has nothing that it could be done on."), {test_words(*at)});
  return *at;
}

Expected<std::vector<FaultAt>> faults_named(std::string_view text) {
  std::vector<FaultAt> out;
  while (!text.empty() && out.size() < 2) {
    const auto end = std::min(text.find('+'), text.size());
    const auto fault = fault_of(text.substr(0, end));
    if (!fault)
      return refuse(words("“{0}” is no fault, or no place of it. Such as pinched:front_left is right."),
                    {std::string(text.substr(0, std::min<std::size_t>(end, 60)))});
    if (std::find(out.begin(), out.end(), *fault) != out.end())
      return refuse(words("{0} is named twice."), {fault_words(*fault)});
    out.push_back(*fault);
    text.remove_prefix(std::min(end + 1, text.size()));
  }
  if (out.empty() || !text.empty()) return refuse(words("One fault is named, or two with + between them."));
  return out;
}

std::optional<PracticeScore> score(std::shared_ptr<const PracticeShop> shop, const PracticeAsked& asked,
                                   const std::vector<TestDone>& done, const std::vector<FaultAt>& named,
                                   const std::stop_token& stop) {
  PracticeCar car(shop, asked);
  PracticeScore out;
  out.truth = car.reveal();
  out.named = named;
  out.right = same_set(named, out.truth);
  for (const FaultAt& f : named)
    out.partly = out.partly || std::find(out.truth.begin(), out.truth.end(), f) != out.truth.end();
  FaultEvidence evidence = car.evidence();
  const double begun = odds_of(FaultWeighing(shop->table, evidence).diagnosis(), out.truth);
  const auto take = [&](std::vector<PracticeStep>& steps, double& minutes, const TestDone& test) {
    evidence.findings.insert(evidence.findings.end(), test.found.begin(), test.found.end());
    const Diagnosis now = FaultWeighing(shop->table, evidence).diagnosis();
    PracticeStep step{test.at, test.found, steps.empty() ? begun : steps.back().after, odds_of(now, out.truth), {}, 0};
    if (!now.sets.empty()) step.first = now.sets.front().faults, step.first_odds = now.sets.front().odds;
    steps.push_back(std::move(step));
    minutes += test.at.test->minutes;
  };
  for (const TestDone& test : done) {
    if (stop.stop_requested()) return std::nullopt;
    take(out.steps, out.minutes, test);
  }
  evidence = car.evidence();
  FaultEvidence running = evidence;
  go_on(car, *shop, running, stop, [&](const TestDone& test) { take(out.best, out.best_minutes, test); });
  if (stop.stop_requested()) return std::nullopt;
  constexpr double least_minutes = 3; // that anybody needs
  if (out.right)
    out.share = std::min(1.0, (out.best_minutes + least_minutes) / (out.minutes + least_minutes));
  else if (out.partly)
    out.share = 0.4 * std::min(1.0, (out.best_minutes + least_minutes) / (out.minutes + least_minutes));
  return out;
}

std::optional<Expected<std::shared_ptr<const PracticeShop>>> practice_shop(const FaultCarGiven& given,
                                                                           const std::stop_token& stop) {
  auto car = fault_car(given, stop);
  if (!car) return std::nullopt;
  if (!*car) return refuse(car->error());
  auto learned = learned_car(given.leveling);
  if (!learned) return refuse(learned.error());
  return std::make_shared<const PracticeShop>(
      PracticeShop{FaultTable(std::move(**car)), std::move(*learned), given.leveling.air});
}

} // namespace mavrel::assess
