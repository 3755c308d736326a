#include "assess/faults/notes.h"

#include "assess/fit_up/features.h"
#include "assess/fit_up/jobs.h"
#include "build/care.h"
#include "quantity/quantity.h"
#include "quantity/text.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr std::size_t most_check_notes = 399; // letters

using Figure = std::optional<double> build::FaultNote::*;

Figure figure_of(Kind kind) {
  switch (kind) {
  case Kind::time:
    return &build::FaultNote::time;
  case Kind::share:
    return &build::FaultNote::share;
  case Kind::length:
    return &build::FaultNote::length;
  case Kind::pressure:
    return &build::FaultNote::pressure;
  case Kind::voltage:
    return &build::FaultNote::voltage;
  case Kind::temperature:
    return &build::FaultNote::temperature;
  default:
    return &build::FaultNote::mass;
  }
}

/// When something was noted: `2026-11-26`; what was typed is of now, and what says nothing of its day is the oldest.
std::string day_of(const build::Build& build, std::string_view from) {
  if (from.empty()) return "now"; // after every day, as letters go
  if (from.starts_with("log ")) return std::string(from.substr(4, 10));
  for (const build::HoldCheck& check : build.variant().fit_up->checks)
    if (check.check == from) return check.day.substr(0, 10);
  return {};
}

} // namespace

Expected<SignAt> sign_of(std::string_view key) {
  const auto colon = key.find(':');
  const FaultSign* sign = fault_sign(key.substr(0, colon));
  if (!sign) return refuse(words("“{0}” is nothing that shows of a fault."), {std::string(key.substr(0, 60))});
  const auto where = colon == std::string_view::npos ? std::string_view() : key.substr(colon + 1);
  if (const auto place = place_of(sign->places, where)) return SignAt{sign, *place};
  const char* right = sign->places == FaultPlaces::car ? words("nothing behind it")
                      : sign->places == FaultPlaces::end
                          ? words("front or rear behind it")
                          : words("front_left, front_right, rear_left or rear_right behind it");
  return refuse(words("{0}: “{1}” is no place of it; {2} is right."),
                {sign->name, std::string(where.substr(0, 60)), right});
}

Message found_words(const std::vector<FaultFinding>& found) {
  std::vector<Message> parts;
  for (std::size_t i = 0; i < found.size();) {
    const FaultSign* sign = found[i].at.sign;
    std::size_t next = i;
    while (next < found.size() && found[next].at.sign == sign)
      ++next;
    if (next == i + 1) {
      parts.push_back({words("{0}: {1}"), {sign->name, answer_words(found[i])}});
    } else {
      std::vector<Message> places;
      for (std::size_t k = i; k < next; ++k)
        places.push_back({words("{0} {1}"), {place_name(sign->places, found[k].at.place), answer_words(found[k])}});
      parts.push_back({words("{0}: {1}"), {sign->name, list_of(std::move(places))}});
    }
    i = next;
  }
  if (parts.size() == 1) return parts.front();
  Message out{"{0}", {parts.front()}};
  for (std::size_t i = 1; i < parts.size(); ++i)
    out = {words("{0} · {1}"), {out, parts[i]}};
  return out;
}

Message answer_words(const FaultFinding& f) {
  if (!f.at.sign->kind) return {f.yes ? words("yes") : words("no"), {}};
  if (f.never || !f.value) return {words("never"), {}};
  if (f.sd) return {words("{0} ± {1}"), {reading_amount(*f.at.sign, *f.value), reading_amount(*f.at.sign, *f.sd)}};
  return {"{0}", {reading_amount(*f.at.sign, *f.value)}};
}

Expected<FaultFinding> typed_finding(const SignAt& at, std::string_view text, const UnitPrefs& prefs) {
  FaultFinding out;
  out.at = at;
  const std::string_view answer = trimmed(text);
  if (!at.sign->kind) {
    out.yes = answer == "yes" || answer == "so";
    if (out.yes || answer == "no" || answer == "not so") return out;
    return refuse(words("{0}: “{1}” is there; yes or no is right."),
                  {sign_words(at), std::string(answer.substr(0, 60))});
  }
  if (answer == "never") {
    out.never = true;
    return out;
  }
  std::string_view figure = answer, doubt;
  for (const std::string_view mark : {std::string_view("±"), std::string_view("+-"), std::string_view("+/-")})
    if (const auto split = answer.find(mark); split != std::string_view::npos) {
      figure = answer.substr(0, split), doubt = trimmed(answer.substr(split + mark.size()));
      break;
    }
  const auto value = parse_quantity(figure, *at.sign->kind, prefs);
  if (!value) return refuse(words("{0}: {1}"), {sign_words(at), value.error()});
  out.value = *value;
  if (doubt.empty()) return out;
  const auto sd = parse_quantity(doubt, *at.sign->kind, prefs);
  if (!sd) return refuse(words("{0}: {1}"), {sign_words(at), sd.error()});
  if (!(*sd > 0)) return refuse(words("{0}: its doubt must be more than nothing."), {sign_words(at)});
  out.sd = *sd;
  return out;
}

Expected<FaultFinding> finding_of(const build::FaultNote& note) {
  const auto at = sign_of(note.where.empty() ? note.sign : note.sign + ":" + note.where);
  if (!at) return refuse(at.error());
  FaultFinding out;
  out.at = *at;
  out.yes = note.answer == build::FaultAnswer::yes;
  out.never = note.answer == build::FaultAnswer::never;
  out.second_hand = note.second_hand == build::YesNo::yes;
  out.sd = note.sd;
  const bool read = note.answer == build::FaultAnswer::read || out.never;
  if (read != at->sign->kind.has_value())
    return refuse(at->sign->kind ? words("{0}: a figure is wanted, not yes or no.")
                                 : words("{0}: yes or no is wanted, not a figure."),
                  {sign_words(*at)});
  if (at->sign->kind && !out.never) {
    out.value = note.*figure_of(*at->sign->kind);
    if (!out.value) return refuse(words("{0}: what was read is missing."), {sign_words(*at)});
  }
  return out;
}

build::FaultNote note_of(const FaultFinding& f, std::string from) {
  build::FaultNote out;
  out.sign = f.at.sign->key;
  out.where = place_key(f.at.sign->places, f.at.place);
  out.from = std::move(from);
  out.second_hand = f.second_hand ? build::YesNo::yes : build::YesNo::no;
  out.sd = f.sd;
  if (!f.at.sign->kind) {
    out.answer = f.yes ? build::FaultAnswer::yes : build::FaultAnswer::no;
    return out;
  }
  out.answer = f.never ? build::FaultAnswer::never : build::FaultAnswer::read;
  if (!f.never) out.*figure_of(*f.at.sign->kind) = f.value;
  return out;
}

FaultPriors shop_priors(const build::Shop& shop) {
  FaultPriors out = usual_priors();
  const auto causes = fault_causes();
  for (const build::FaultOften& o : shop.faults)
    for (std::size_t i = 0; i < out.size(); ++i)
      if (o.cause == causes[i].key) out[i] = std::max(o.often.value_or(out[i]), 0.01) + o.found;
  return out;
}

namespace {

/// Of a reading at a place only the newest says how it is now; those of the same day are read twice.
void leave_out_older(const build::Build& build, FaultsNoted& out) {
  const auto day = [&](std::size_t k) { return day_of(build, build.faults->findings[out.note_of[k]].from); };
  FaultEvidence kept = out.evidence;
  kept.findings.clear();
  std::vector<std::size_t> places;
  for (std::size_t k = 0; k < out.note_of.size(); ++k) {
    const FaultFinding& f = out.evidence.findings[k];
    const bool older =
        f.at.sign->kind && std::any_of(out.note_of.begin(), out.note_of.end(), [&](const std::size_t& n) {
          const auto other = static_cast<std::size_t>(&n - out.note_of.data());
          return out.evidence.findings[other].at == f.at && day(other) > day(k);
        });
    if (!older) {
      kept.findings.push_back(f);
      places.push_back(out.note_of[k]);
      continue;
    }
    const std::string of = day(k);
    out.trouble.emplace_back(
        out.note_of[k],
        of.empty()
            ? Message{words("{0}: read again since; this one is not weighed."), {sign_words(f.at)}}
            : Message{words("{0}: read again since; this one, of {1}, is not weighed."), {sign_words(f.at), of}});
  }
  out.evidence = std::move(kept);
  out.note_of = std::move(places);
}

} // namespace

FaultsNoted noted(const build::Build& build) {
  FaultsNoted out;
  out.evidence.priors = shop_priors(*build.shop);
  // Where it is as warm as the brief says, nobody looks for ice.
  constexpr double warm = 295.15, fades_over = 4; // K
  if (const double T = build.surroundings.temperature; T > warm)
    for (std::size_t i = 0; i < out.evidence.priors.size(); ++i)
      if (const std::string_view key = fault_causes()[i].key; key == "ice" || key == "cold_night")
        out.evidence.priors[i] *= std::exp(-(T - warm) / fades_over);
  out.evidence.nothing_else = build.faults->nothing_else == build::YesNo::yes;
  for (std::size_t i = 0; i < build.faults->findings.size(); ++i) {
    auto finding = finding_of(build.faults->findings[i]);
    if (!finding) {
      out.trouble.emplace_back(i, finding.error());
      continue;
    }
    out.evidence.findings.push_back(std::move(*finding));
    out.note_of.push_back(i);
  }
  const auto& found = out.evidence.findings;
  const auto told = [](const FaultFinding& f) { return f.at.sign->symptom; };
  out.evidence.heard =
      std::any_of(found.begin(), found.end(), told) &&
      std::all_of(found.begin(), found.end(), [&](const FaultFinding& f) { return !told(f) || f.second_hand; });
  leave_out_older(build, out);
  return out;
}

std::vector<build::FaultNote> readings_at_hand(const build::Build& build, const std::vector<HoldPoint>& points,
                                               const FaultCar* car) {
  std::vector<build::FaultNote> out;
  const auto add = [&](const char* sign, std::string_view where, double value, std::string from) {
    const FaultSign& row = *fault_sign(sign);
    const auto place = place_of(row.places, where);
    if (!place) return;
    FaultFinding f;
    f.at = {&row, *place};
    f.value = value;
    build::FaultNote note = note_of(f, std::move(from));
    // Only the newest of a kind at a place, and none that is older than what is noted.
    const auto of_it = [&](const build::FaultNote& n) { return n.sign == note.sign && n.where == note.where; };
    const std::string day = day_of(build, note.from);
    for (const build::FaultNote& n : build.faults->findings)
      if (of_it(n) && (n.from == note.from || day_of(build, n.from) > day)) return;
    const auto there = std::find_if(out.begin(), out.end(), of_it);
    if (there == out.end())
      out.push_back(std::move(note));
    else if (day_of(build, there->from) < day)
      *there = std::move(note);
  };
  for (const HoldPoint& point : points)
    for (std::size_t i = 0; i < point.figures.size(); ++i) {
      const AskedFigure& f = point.figures[i];
      const auto& measured = point.measured[i];
      if (!measured) continue;
      const std::string_view key = f.key;
      const std::string from = point.id;
      const auto where = [&](std::string_view head) { return key.substr(head.size()); };
      // A whole axle is timed as one: it is both its corners'.
      const auto both = [&](const char* sign, std::string_view at) {
        if (at == "front" || at == "rear")
          for (const std::size_t side : {0U, 1U})
            add(sign, place_key(FaultPlaces::corner, (at == "front" ? 0 : 2) + side), *measured, from);
        else
          add(sign, at, *measured, from);
      };
      if (point.row->key == std::string_view("times") && key.starts_with("fill_")) both("fill_time", where("fill_"));
      if (point.row->key == std::string_view("times") && key.starts_with("vent_")) both("vent_time", where("vent_"));
      const bool fill = point.row->key == std::string_view("fill");
      if (fill && key == "own") add("tank_fill", "", *measured, from);
      if (fill && key == "cut_out") add("cut_out", "", *measured, from);
      if (f.read == ReadBy::drop && f.hold > 0 && car) {
        // Pa lost over the hold, the temperature taken out, as a share of the air an hour.
        const double held = car->ambient + (f.corner ? car->pressure[*f.corner] : car->cut_out);
        if (const double left = 1 - *measured / held; left > 0)
          add(f.corner ? "hold_loss" : "tank_loss", f.corner ? corner_line_key(*f.corner) : "",
              1 - std::pow(left, 3600 / f.hold), from);
      }
      if (point.row->key == std::string_view("heights") && f.corner && f.designed &&
          key.find("_road_") != std::string_view::npos)
        add("height_off", corner_line_key(*f.corner), *measured - *f.designed, from);
      if (point.row->key == std::string_view("pressures") && key.starts_with("up_") && f.designed)
        add("pressure_off", where("up_"), *measured - *f.designed, from);
    }
  // The last reading of each kind and corner in the log.
  std::vector<const build::LogEntry*> newest;
  for (const build::LogEntry& e : build.care->log)
    newest.push_back(&e);
  std::stable_sort(newest.begin(), newest.end(), [](const auto* a, const auto* b) { return a->day > b->day; });
  std::vector<std::pair<std::string, std::string>> seen;
  for (const build::LogEntry* e : newest) {
    if (e->kind != build::LogKind::reading) continue;
    const std::string from = "log " + e->day;
    // Only the last reading of a kind at a place says how it is now.
    if (std::find(seen.begin(), seen.end(), std::pair(e->what, e->where)) != seen.end()) continue;
    seen.emplace_back(e->what, e->where);
    if (e->what == "hold" && e->hourly_loss) add("hold_loss", e->where, *e->hourly_loss, from);
    if (e->what == "tank_fill" && e->seconds) add("tank_fill", "", *e->seconds, from);
  }
  return out;
}

std::string found_key(const FaultCause& cause) {
  return std::string("found.") + cause.key;
}

Expected<build::Build> with_found(const build::Build& build, const FitUpGiven& given, const FoundAsked& asked) {
  build::Build out = build;
  const auto features = features_of(given);
  int n = 0;
  for (const FaultAt& fault : asked.faults) {
    const std::string name = say(fault_words(fault));
    const std::string where = place_key(fault.cause->places, fault.place);
    if (asked.log) {
      build::LogEntry entry;
      entry.id = asked.mark + (n > 0 ? "-" + std::to_string(n) : "");
      entry.day = asked.day, entry.by = asked.by;
      entry.kind = build::LogKind::event;
      entry.what = found_key(*fault.cause);
      entry.where = where;
      entry.text = say({words("Found: {0}. {1}"), {name, fault.cause->mend}});
      auto& log = out.care.own().log;
      if (log.size() >= build::most_log) return refuse(words("The log is full."));
      log.push_back(std::move(entry));
    }
    if (asked.plan) {
      build::JobNote job;
      auto& plan = out.variant().fit_up.own();
      if (plan.jobs.size() >= build::most_job_notes) return refuse(words("There is no room for another job."));
      job.id = free_own_id(plan);
      job.name = say({words("Mend: {0}"), {name}});
      job.hours = fault.cause->hours;
      job.reason = *fault.cause->parts ? say({words("{0} Wanted: {1}."), {fault.cause->mend, fault.cause->parts}})
                                       : fault.cause->mend;
      plan.jobs.push_back(std::move(job));
    }
    if (asked.proofs) {
      for (const std::string& key : ids_in(fault.cause->proofs))
        for (const std::string& id : check_ids(given, features, key, std::nullopt))
          for (build::HoldCheck& check : out.variant().fit_up.own().checks)
            if (check.check == id && check.result != build::CheckResult::open) {
              // A signature on another car than this one is stale, whoever gave it.
              check.digest = "asked again";
              const std::string said = say({words("{0}: found {1}; to be made again."), {asked.day, name}});
              if (letters(check.notes) + letters(said) < most_check_notes)
                check.notes += (check.notes.empty() ? "" : " ") + said;
            }
    }
    if (asked.count) {
      auto& list = out.shop.own().faults;
      auto row = std::find_if(list.begin(), list.end(), [&](const auto& o) { return o.cause == fault.cause->key; });
      if (row == list.end() && list.size() >= build::most_often)
        return refuse(words("The shop’s list of faults is full."));
      if (row == list.end()) row = list.insert(list.end(), build::FaultOften{fault.cause->key, {}, 0, {}});
      row->found += 1;
    }
    ++n;
  }
  return out;
}

} // namespace mavrel::assess
