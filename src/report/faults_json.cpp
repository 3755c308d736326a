#include "report/faults_json.h"

#include "build/json.h"
#include "build/json_text.h"
#include "quantity/units.h"
#include "report/json_tree.h"

namespace mavrel::report {

namespace {

using namespace assess;
constexpr std::size_t most_case_findings = 400;

Json finding_json(const FaultFinding& f) {
  Json out = {
      {"sign", f.at.sign->key}, {"where", place_key(f.at.sign->places, f.at.place)}, {"words", say(sign_words(f.at))}};
  if (!f.at.sign->kind)
    out["answer"] = f.yes ? "yes" : "no";
  else if (f.never)
    out["answer"] = "never";
  else
    out["value"] = *f.value, out["unit"] = si_unit_name(*f.at.sign->kind);
  if (f.sd) out["sd"] = *f.sd;
  if (f.second_hand) out["second_hand"] = true;
  return out;
}

Json steps_json(const std::vector<PracticeStep>& steps) {
  Json out = Json::array();
  for (const PracticeStep& s : steps)
    out.push_back({{"test", test_key(s.at)},
                   {"minutes", s.at.test->minutes},
                   {"odds_before", s.before},
                   {"odds_after", s.after},
                   {"first", say(fault_words(s.first))},
                   {"first_odds", s.first_odds}});
  return out;
}

Expected<FaultFinding> finding_in(const Json& json) {
  if (!json.is_object()) return refuse(words("A finding must be an object with “sign” and “where”."));
  const auto text = [&](const char* key) {
    const auto found = json.find(key);
    return found != json.end() && found->is_string() ? found->get<std::string>() : std::string();
  };
  const std::string where = text("where");
  const auto at = sign_of(where.empty() ? text("sign") : text("sign") + ":" + where);
  if (!at) return refuse(at.error());
  FaultFinding out;
  out.at = *at;
  const std::string answer = text("answer");
  if (!at->sign->kind) {
    if (answer != "yes" && answer != "no")
      return refuse(words("{0}: “answer” must be “yes” or “no”."), {sign_words(*at)});
    out.yes = answer == "yes";
  } else if (answer == "never") {
    out.never = true;
  } else {
    const auto value = json.find("value");
    if (value == json.end() || !value->is_number())
      return refuse(words("{0}: “value” must be a number, or “answer” “never”."), {sign_words(*at)});
    out.value = value->get<double>();
  }
  if (const auto sd = json.find("sd"); sd != json.end()) {
    if (!sd->is_number() || !(sd->get<double>() > 0))
      return refuse(words("{0}: “sd” must be a number above 0."), {sign_words(*at)});
    out.sd = sd->get<double>();
  }
  const auto second = json.find("second_hand");
  out.second_hand = second != json.end() && second->is_boolean() && second->get<bool>();
  return out;
}

} // namespace

std::string case_json(const build::Build& build, const PracticeCar& car, const std::vector<TestDone>& done,
                      bool revealed, const PracticeScore* score) {
  Json out = Json::parse(build::to_json(build));
  Json symptoms = Json::array(), readings = Json::array(), history = Json::array();
  for (const FaultFinding& f : car.told())
    symptoms.push_back(finding_json(f));
  double minutes = 0;
  for (const TestDone& test : done) {
    minutes += test.at.test->minutes;
    for (const FaultFinding& f : test.found) {
      readings.push_back(finding_json(f));
      readings.back()["test"] = test_key(test.at);
    }
  }
  for (const Message& tale : car.history())
    history.push_back(say(tale));
  const FaultEvidence begun = car.evidence();
  out["symptoms"] = std::move(symptoms);
  out["nothing_else"] = begun.nothing_else;
  out["two_at_once"] = begun.two_at_once;
  out["readings"] = std::move(readings);
  out["practice"] = {{"seed", car.asked().seed},
                     {"level", level_key(car.asked().level)},
                     {"minutes", minutes},
                     {"history", std::move(history)}};
  if (revealed) out["fault"] = say(fault_words(car.reveal()));
  if (score) {
    out["fault"] = say(fault_words(score->truth));
    out["score"] = {{"named", say(fault_words(score->named))},
                    {"right", score->right},
                    {"partly", score->partly},
                    {"minutes", score->minutes},
                    {"best_minutes", score->best_minutes},
                    {"share", score->share},
                    {"steps", steps_json(score->steps)},
                    {"best", steps_json(score->best)}};
  }
  return printed(out, 2);
}

Expected<CaseRead> read_case(std::string_view text) {
  auto build = build::from_json(text);
  if (!build) return refuse(build.error());
  CaseRead out;
  out.build = std::move(*build);
  FaultsNoted own = noted(out.build);
  out.evidence = std::move(own.evidence);
  if (!own.trouble.empty()) return refuse(own.trouble.front().second);
  // Read once already, so that it is well-formed and within bounds.
  const Json json = Json::parse(text, nullptr, false);
  for (const char* key : {"symptoms", "readings"}) {
    const auto list = json.find(key);
    if (list == json.end()) continue;
    if (!list->is_array() || list->size() > most_case_findings)
      return refuse(words("{0}: a list of up to {1} findings is right."),
                    {std::string(key), std::to_string(most_case_findings)});
    for (std::size_t i = 0; i < list->size(); ++i) {
      auto finding = finding_in((*list)[i]);
      if (!finding) return refuse(words("{0}: {1}"), {std::string(key) + "." + std::to_string(i), finding.error()});
      out.evidence.findings.push_back(std::move(*finding));
    }
  }
  if (const auto nothing = json.find("nothing_else"); nothing != json.end()) {
    if (!nothing->is_boolean()) return refuse(words("“{0}” must be true or false."), {std::string("nothing_else")});
    out.evidence.nothing_else = nothing->get<bool>();
  }
  if (const auto two = json.find("two_at_once"); two != json.end()) {
    if (!two->is_number() || !(two->get<double>() >= 0 && two->get<double>() <= 0.97))
      return refuse(words("“two_at_once” must be a number from 0 to 0.97."));
    out.evidence.two_at_once = two->get<double>();
  }
  return out;
}

std::string diagnosis_json(const Diagnosis& diagnosis, const FaultEvidence& evidence,
                           const std::vector<NextTest>& next) {
  Json out = Json::object();
  Json causes = Json::array();
  for (const FaultSet& set : diagnosis.sets) {
    Json mends = Json::array(), for_it = Json::array(), against = Json::array();
    for (const FaultAt& f : set.faults)
      mends.push_back({{"fault", fault_key(f)}, {"mend", f.cause->mend}, {"hours_s", f.cause->hours}});
    for (std::size_t k = 0; k < set.times.size(); ++k) {
      const FaultFinding& f = evidence.findings[diagnosis.weighed[k]];
      if (set.times[k] > 1.25) for_it.push_back({{"finding", say(sign_words(f.at))}, {"times", set.times[k]}});
      if (set.times[k] < 0.8) against.push_back({{"finding", say(sign_words(f.at))}, {"times", set.times[k]}});
    }
    causes.push_back({{"fault", say(fault_words(set.faults))},
                      {"key", fault_key(set.faults)},
                      {"odds", set.odds},
                      {"for", std::move(for_it)},
                      {"against", std::move(against)},
                      {"mend", std::move(mends)}});
  }
  out["causes"] = std::move(causes);
  out["unknown"] = diagnosis.unknown;
  out["nothing_fits"] = diagnosis.nothing_fits;
  Json tests = Json::array();
  for (const NextTest& n : next) {
    Json outcomes = Json::array();
    for (const TestOutcome& o : n.outcomes)
      outcomes.push_back({{"outcome", say(o.what)}, {"first", say(fault_words(o.faults))}, {"odds", o.odds}});
    tests.push_back({{"test", test_key({n.test, n.place})},
                     {"name", n.test->name},
                     {"minutes", n.test->minutes},
                     {"bits", n.bits},
                     {"how", n.test->how},
                     {"outcomes", std::move(outcomes)}});
  }
  out["next_tests"] = std::move(tests);
  Json trouble = Json::array();
  for (const Message& m : diagnosis.trouble)
    trouble.push_back(say(m));
  out["trouble"] = std::move(trouble);
  return printed(out, 2);
}

} // namespace mavrel::report
