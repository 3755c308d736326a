#include "assess/fit_up/jobs.h"

#include "assess/fit_up/checks.h"
#include "build/names.h"
#include "build/names_fit_up.h"
#include "work/day.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <map>
#include <set>

namespace mavrel::assess {

bool operator==(const Job& a, const Job& b) {
  const auto all = [](const Job& j) {
    return std::tie(j.id, j.name, j.hours, j.wait, j.people, j.skill, j.place, j.car, j.by_the_clock, j.after, j.note);
  };
  return all(a) == all(b);
}

std::string free_own_id(const build::FitUp& plan) {
  for (int n = 1;; ++n) {
    const std::string id = "own." + std::to_string(n);
    if (std::none_of(plan.jobs.begin(), plan.jobs.end(), [&](const build::JobNote& j) { return j.id == id; }))
      return id;
  }
}

std::vector<std::string> ids_in(const std::string& typed) {
  std::vector<std::string> out;
  std::string now;
  for (const char c : typed + ",") {
    if (c != ',' && c != ';' && c != ' ') {
      now += c;
    } else if (!now.empty()) {
      if (now != "-") out.push_back(now);
      now.clear();
    }
  }
  return out;
}

namespace {

using build::JobState;

/// A job before the order is made: what it comes after is still keys, of jobs that may not be there.
struct Draft {
  Job job;
  std::vector<std::string> wants; // ids
};

class JobMaker {
public:
  JobMaker(const FitUpGiven& given, const PartsWait& wait)
      : given_(given), plan_(*given.fit_up), wait_(wait), features_(features_of(given)) {
    for (std::size_t i = 0; i < plan_.jobs.size(); ++i)
      notes_.emplace(plan_.jobs[i].id, i); // of two notes the first counts
  }

  JobList make() {
    rules();
    habits();
    own();
    befores();
    repairs();
    put_together();
    return std::move(out_);
  }

private:
  [[nodiscard]] static bool asked(FeatureSet has, const JobRule& rule) {
    return (has & rule.when) == rule.when && (has & rule.unless) == 0;
  }
  static std::string id_at(End end, std::string_view key) { return fmt::format("{}.{}", build::key_of(end), key); }

  double counted(JobCounts what) const {
    switch (what) {
    case JobCounts::circuits:
      return static_cast<double>(circuits_of(given_.air().kit).size());
    case JobCounts::links:
      return 2 * std::fmax(given_.plates(End::front).links, given_.plates(End::rear).links);
    case JobCounts::wires: {
      // Feeds, the switch's wire, valves and sensors: a wire each.
      const build::AirKit& kit = given_.air().kit;
      double wires = kit.compressor.empty() ? 0 : kit.second_compressor.empty() ? 2 : 4;
      if (kit.school == build::ValveSchool::block) wires += static_cast<double>(circuits_of(kit).size());
      if (!kit.sensor.empty()) wires += 2;
      return wires;
    }
    case JobCounts::nothing:
      break;
    }
    return 0;
  }

  void rules() {
    for (const JobRule& rule : job_rules()) {
      if (rule.scope == JobScope::car) {
        // What any end asks for the car has once.
        if (!asked(features_[0], rule) && !asked(features_[1], rule)) continue;
        add_rule(rule, std::nullopt);
      } else {
        for (const End end : build::both_ends)
          if (asked(features_[build::at(end)], rule)) add_rule(rule, end);
      }
    }
  }
  void add_rule(const JobRule& rule, std::optional<End> end) {
    Draft d;
    Job& j = d.job;
    j.id = end ? id_at(*end, rule.key) : rule.key;
    j.end = end;
    j.name = end ? Message{words("{0}: {1}"), {build::name_of(*end), rule.name}} : Message{rule.name, {}};
    j.hours = rule.hours + rule.each * counted(rule.counts);
    j.wait = rule.wait;
    j.people = rule.people;
    j.skill = rule.skill;
    j.place = rule.place;
    j.car = rule.car;
    j.by_the_clock = rule.by_the_clock;
    j.why = {rule.why, {}};
    j.tools = {rule.tools, {}};
    j.parts = {rule.parts, {}};
    j.sheet = *rule.sheet && end ? id_at(*end, rule.sheet) : std::string(rule.sheet);
    for (const build::LearnedHours& learned : given_.shop->learned)
      if (learned.rule == rule.key) j.hours = learned.hours / 3600, j.hours_learned = true;
    if (const std::string_view key = rule.key; key == "order" || key == "order_kit") {
      j.hours = wait_.hours[end ? build::at(*end) : 2];
      if (j.hours <= 0) return; // everything is there
    }
    for (const std::string& key : ids_in(rule.checks))
      for (const std::string& id : check_ids(given_, features_, key, end))
        j.checks.push_back(id);
    for (const std::string& key : ids_in(rule.after))
      for (std::string& id : resolved(key, end))
        d.wants.push_back(std::move(id));
    take(std::move(d));
  }
  /// A key as ids: at the same end, of the car, or at both ends.
  static std::vector<std::string> resolved(const std::string& key, std::optional<End> end) {
    const JobRule* rule = job_rule(key);
    if (!rule) return {key}; // an id already, or no job at all
    if (rule->scope == JobScope::car) return {key};
    if (end) return {id_at(*end, key)};
    return {id_at(End::front, key), id_at(End::rear, key)};
  }

  void habits() {
    const auto& habits = given_.shop->habits;
    for (std::size_t i = 0; i < habits.size(); ++i) {
      const build::ShopHabit& h = habits[i];
      if (h.name.empty()) continue;
      const FeatureSet wanted = bit(h.when);
      const bool of_car = (of_car_ & wanted) != 0;
      for (const End end : build::both_ends) {
        if ((features_[build::at(end)] & wanted) == 0) continue;
        const std::optional<End> where = of_car ? std::nullopt : std::optional(end);
        Draft d;
        Job& j = d.job;
        j.from = JobFrom::habit;
        j.id = where ? fmt::format("{}.habit.{}", build::key_of(end), i) : fmt::format("habit.{}", i);
        j.end = where;
        j.name = where ? Message{words("{0}: {1}"), {build::name_of(end), h.name}} : Message{words("{0}"), {h.name}};
        j.hours = h.hours / 3600, j.wait = h.wait / 3600;
        j.people = static_cast<int>(std::lround(h.people));
        j.skill = h.skill;
        j.place = h.place == build::WorkPlace::usual ? build::WorkPlace::none : h.place;
        j.car = j.place == build::WorkPlace::lift || j.place == build::WorkPlace::floor ? CarUse::shared : CarUse::none;
        j.why = h.why.empty() ? Message{words("A habit of this shop."), {}} : Message{words("{0}"), {h.why}};
        for (const std::string& key : ids_in(h.after))
          for (std::string& id : known(key, where))
            d.wants.push_back(std::move(id));
        for (const std::string& key : ids_in(h.before))
          for (std::string& id : known(key, where))
            befores_.emplace_back(std::move(id), j.id);
        take(std::move(d));
        if (of_car) break;
      }
    }
  }
  /// Typed keys or ids; a mistake where no rule and no job is called that.
  std::vector<std::string> known(const std::string& typed, std::optional<End> end) {
    auto ids = resolved(typed, end);
    const auto dot = typed.find('.');
    const bool is_id =
        job_rule(typed) || typed.starts_with("own.") || typed.starts_with("habit.") ||
        (dot != std::string::npos && (job_rule(typed.substr(dot + 1)) || typed.substr(dot + 1).starts_with("habit.")));
    if (is_id) return ids;
    out_.mistakes.push_back({words("No job is called “{0}”: a job's own name for this is shown beside it."), {typed}});
    return {};
  }

  void own() {
    for (const build::JobNote& note : plan_.jobs) {
      if (!note.id.starts_with("own.") || drafts_.contains(note.id)) continue;
      Draft d;
      Job& j = d.job;
      j.from = JobFrom::own;
      j.id = note.id;
      j.name = {words("{0}"), {note.name.empty() ? note.id : note.name}};
      j.hours = 1;
      j.why = {words("Added by the shop."), {}};
      take(std::move(d));
    }
  }

  /// What the shop says of a job goes over what the rule says.
  void take(Draft d) {
    Job& j = d.job;
    if (const auto found = notes_.find(j.id); found != notes_.end()) {
      const build::JobNote& note = plan_.jobs[found->second];
      j.note = note;
      j.note_index = found->second;
      if (note.hours) j.hours = *note.hours / 3600, j.hours_told = true;
      if (note.wait) j.wait = *note.wait / 3600;
      if (note.people) j.people = static_cast<int>(std::lround(*note.people));
      if (note.place != build::WorkPlace::usual) {
        j.place = note.place;
        if (j.from == JobFrom::own)
          j.car =
              j.place == build::WorkPlace::lift || j.place == build::WorkPlace::floor ? CarUse::shared : CarUse::none;
      }
      if (!note.after.empty()) {
        d.wants.clear();
        for (const std::string& id : ids_in(note.after))
          for (std::string& one : known(id, j.end))
            d.wants.push_back(std::move(one));
      }
      for (const auto& [text, what] : {std::pair(&note.not_before, words("not before"))})
        if (!text->empty() && !work::parse_day(*text))
          out_.mistakes.push_back({words("{0}, {1}: “{2}” is no day; 2026-11-30 is one."), {j.name, what, *text}});
      for (const auto& [text, what] : {std::pair(&note.began, words("began")), std::pair(&note.ended, words("ended"))})
        if (!text->empty() && !work::parse_moment(*text))
          out_.mistakes.push_back(
              {words("{0}, {1}: “{2}” is no day and time; 2026-11-30 10:30 is one."), {j.name, what, *text}});
    }
    const std::string id = j.id;
    in_order_.push_back(id);
    drafts_.emplace(id, std::move(d));
  }

  /// Where a habit comes before a job, that job comes after it.
  void befores() {
    for (const auto& [job, habit] : befores_)
      if (const auto found = drafts_.find(job); found != drafts_.end()) found->second.wants.push_back(habit);
  }

  /// A check that failed is put right before anything goes on behind it.
  void repairs() {
    for (const build::HoldCheck& check : plan_.checks) {
      if (check.result != build::CheckResult::failed) continue;
      for (auto& [id, draft] : drafts_) {
        const auto& checks = draft.job.checks;
        if (std::find(checks.begin(), checks.end(), check.check) == checks.end()) continue;
        Draft d;
        Job& j = d.job;
        j.from = JobFrom::repair;
        j.id = "repair." + check.check;
        j.end = draft.job.end;
        j.name = {words("Put right: {0}"), {check_name(check.check)}};
        j.hours = 1.5;
        j.people = draft.job.people;
        j.skill = draft.job.skill;
        j.place = draft.job.place;
        j.car = draft.job.car;
        j.why = {words("The check failed: nothing behind it goes on before it is put right and checked again."), {}};
        d.wants = {id};
        const std::string repair = j.id, behind = id;
        for (auto& [other, waiting] : drafts_)
          if (std::find(waiting.wants.begin(), waiting.wants.end(), behind) != waiting.wants.end())
            waiting.wants.push_back(repair);
        take(std::move(d));
        break;
      }
    }
  }

  /// Jobs that stand for what is asked for: itself, or what it would have come after.
  void stand_ins(const std::string& id, std::set<std::string>& seen, std::vector<std::string>& out) const {
    if (!seen.insert(id).second) return;
    const auto found = drafts_.find(id);
    if (found != drafts_.end() && found->second.job.state() != JobState::skipped) {
      out.push_back(id);
      return;
    }
    if (found != drafts_.end()) {
      for (const std::string& want : found->second.wants)
        stand_ins(want, seen, out);
      return;
    }
    // What the design does not ask for is no reason to wait for anything.
  }

  void put_together() {
    for (const std::string& id : in_order_) {
      Draft& d = drafts_.at(id);
      if (d.job.state() == JobState::skipped) {
        out_.skipped.push_back(d.job);
        continue;
      }
      std::set<std::string> seen{id};
      for (const std::string& want : d.wants)
        stand_ins(want, seen, d.job.after);
      std::sort(d.job.after.begin(), d.job.after.end());
      d.job.after.erase(std::unique(d.job.after.begin(), d.job.after.end()), d.job.after.end());
      out_.jobs.push_back(d.job);
    }
  }

  const FitUpGiven& given_;
  const build::FitUp& plan_;
  PartsWait wait_;
  std::array<FeatureSet, 2> features_;
  FeatureSet of_car_ = set_of({build::Feature::always, build::Feature::kit, build::Feature::hand_valves,
                               build::Feature::controller, build::Feature::by_height, build::Feature::two_compressors,
                               build::Feature::shown_kit, build::Feature::kit_first, build::Feature::hot});
  std::map<std::string, std::size_t> notes_;
  std::map<std::string, Draft> drafts_;
  std::vector<std::string> in_order_;
  std::vector<std::pair<std::string, std::string>> befores_; // a job, and what comes before it
  JobList out_;
};

} // namespace

JobList jobs_of(const FitUpGiven& given, const PartsWait& wait) {
  return JobMaker(given, wait).make();
}

} // namespace mavrel::assess
