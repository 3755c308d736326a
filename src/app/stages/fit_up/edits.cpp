#include "app/stages/fit_up/edits.h"

#include "app/checks/take_on.h"
#include "app/desk/clock.h"
#include "assess/fit_up/fit_up_findings.h"
#include "build/fit_up.h"

#include <algorithm>
#include <functional>

namespace mavrel::app {

namespace {

// As long as the document keeps them: see build/fields/fit_up.cpp.
constexpr std::size_t most_after = 400;
constexpr int most_reason = 200, most_job_name = 80;

/// The build with a note on a job, and the note in it to be filled in; nothing where there is no room for one.
struct WithNote {
  build::Build build;
  build::JobNote* note = nullptr;
};
WithNote with_note(Desk& desk, const assess::Job& job) {
  WithNote out{desk.build(), nullptr};
  auto& jobs = out.build.variant().fit_up.own().jobs;
  const auto found = std::find_if(jobs.begin(), jobs.end(), [&](const build::JobNote& n) { return n.id == job.id; });
  if (found != jobs.end()) {
    out.note = &*found;
  } else if (jobs.size() < build::most_job_notes) {
    build::JobNote made;
    made.id = job.id;
    jobs.push_back(std::move(made));
    out.note = &jobs.back();
  } else {
    desk.tell(Desk::tr("%1 notes on jobs are the most that are kept: forget one first.").arg(build::most_job_notes));
  }
  return out;
}

/// Key of the rule that a job is of; empty: none.
std::string rule_of(const assess::Job& job) {
  if (job.from != assess::JobFrom::rule) return {};
  return job.end ? job.id.substr(job.id.find('.') + 1) : job.id;
}

void learn(build::Build& build, const std::string& rule, double seconds) {
  if (rule.empty() || seconds <= 0) return;
  auto& learned = build.shop.own().learned;
  const auto found = std::find_if(learned.begin(), learned.end(), [&](const auto& l) { return l.rule == rule; });
  if (found == learned.end()) {
    if (learned.size() < build::most_learned) learned.push_back({rule, seconds, 1, {}});
    return;
  }
  found->hours = (found->hours * found->times + seconds) / (found->times + 1);
  found->times += 1;
}

/// Is a job released, or taken on by somebody now? Their name and reason then stand in its note.
bool is_released(Desk& desk, QWidget* asks, const assess::Job& job, const QString& what, build::JobNote& note) {
  note.taken_by.clear(), note.taken_why.clear();
  const auto missing =
      assess::missing_before(assess::plan_given(desk.assessment().fit_up.given(), std::nullopt), job.id);
  if (missing.empty()) return true;
  const auto taken = ask_to_take_on(asks, desk, what.arg(desk.words_of(job.name)), missing);
  if (!taken) {
    desk.tell(Desk::tr("It waits: %1.").arg(desk.words_of(missing.front())));
    return false;
  }
  note.taken_by = taken->by.toStdString(), note.taken_why = taken->why.toStdString();
  return true;
}

} // namespace

QString note_path(const assess::Job& job) {
  return job.note_index == assess::Job::no_note ? QString() : QString("@.fit_up.jobs.%1").arg(job.note_index);
}

bool note_job(Desk& desk, const assess::Job& job) {
  if (job.note_index != assess::Job::no_note) return true;
  WithNote made = with_note(desk, job);
  if (!made.note) return false;
  desk.edit(Desk::tr("Say more of a job"), std::move(made.build));
  return true;
}

void begin_job(Desk& desk, QWidget* asks, const assess::Job& job, const std::string& moment) {
  WithNote made = with_note(desk, job);
  if (!made.note || !is_released(desk, asks, job, Desk::tr("Start “%1”"), *made.note)) return;
  made.note->state = build::JobState::running;
  made.note->began = moment;
  made.note->ended.clear();
  made.note->took.reset();
  desk.edit(Desk::tr("Start a job"), std::move(made.build));
}

void finish_job(Desk& desk, QWidget* asks, const assess::Job& job, const std::string& moment,
                std::optional<double> took) {
  WithNote made = with_note(desk, job);
  if (!made.note) return;
  // One that runs was released, or taken on, when it was begun.
  if (job.state() != build::JobState::running && !is_released(desk, asks, job, Desk::tr("“%1” is done"), *made.note))
    return;
  made.note->state = build::JobState::done;
  made.note->ended = moment;
  made.note->took = took;
  if (took) learn(made.build, rule_of(job), *took);
  desk.edit(Desk::tr("A job is done"), std::move(made.build));
}

void skip_job(Desk& desk, const assess::Job& job, const QString& reason) {
  WithNote made = with_note(desk, job);
  if (!made.note) return;
  made.note->state = build::JobState::skipped;
  made.note->reason = reason.left(most_reason).toStdString();
  desk.edit(Desk::tr("Skip a job"), std::move(made.build));
}

void forget_job(Desk& desk, const assess::Job& job) {
  build::Build build = desk.build();
  auto& jobs = build.variant().fit_up.own().jobs;
  jobs.erase(std::remove_if(jobs.begin(), jobs.end(), [&](const build::JobNote& n) { return n.id == job.id; }),
             jobs.end());
  desk.edit(job.from == assess::JobFrom::own ? Desk::tr("Remove a job") : Desk::tr("Job as the design has it"),
            std::move(build));
}

void split_job(Desk& desk, const assess::Job& job) {
  WithNote made = with_note(desk, job);
  if (!made.note) return;
  auto& plan = made.build.variant().fit_up.own();
  if (plan.jobs.size() >= build::most_job_notes) return desk.tell(Desk::tr("There is no room for another job."));
  made.note->hours = job.hours * 3600 / 2;
  build::JobNote rest;
  rest.id = assess::free_own_id(plan);
  rest.name = (desk.words_of(job.name).left(most_job_name - 12) + Desk::tr(", the rest")).toStdString();
  rest.hours = job.hours * 3600 / 2;
  rest.people = job.people;
  rest.place = job.place == build::WorkPlace::none ? build::WorkPlace::usual : job.place;
  rest.after = job.id;
  // What came behind the whole comes behind the rest: the wait goes with it.
  if (job.wait > 0) rest.wait = job.wait * 3600, made.note->wait = 0;
  const std::string id = rest.id;
  plan.jobs.push_back(std::move(rest));
  build::Build build = std::move(made.build);
  auto& jobs = build.variant().fit_up.own().jobs;
  const auto list = assess::jobs_of(desk.assessment().fit_up.given(), {});
  for (const assess::Job& other : list.jobs) {
    if (std::find(other.after.begin(), other.after.end(), job.id) == other.after.end()) continue;
    auto found = std::find_if(jobs.begin(), jobs.end(), [&](const auto& n) { return n.id == other.id; });
    if (found == jobs.end()) {
      if (jobs.size() >= build::most_job_notes) continue;
      build::JobNote note;
      note.id = other.id;
      jobs.push_back(std::move(note));
      found = std::prev(jobs.end());
    }
    std::string after;
    for (const std::string& one : other.after)
      after += (after.empty() ? "" : ", ") + (one == job.id ? id : one);
    if (after.size() > most_after)
      return desk.tell(Desk::tr("So much comes before %1 that it can't be written down: split another job.")
                           .arg(desk.words_of(other.name)));
    found->after = after;
  }
  desk.edit(Desk::tr("Split a job"), std::move(build));
}

void add_job(Desk& desk, const assess::Job* after, const QString& name) {
  build::JobNote note;
  note.id = assess::free_own_id(*desk.build().variant().fit_up);
  note.name = name.left(most_job_name).toStdString();
  note.hours = 3600;
  if (after) note.after = after->id;
  desk.add_entry(Desk::tr("Add a job"), "@.fit_up.jobs", std::move(note));
}

void learn_hours(Desk& desk, const assess::Job& job) {
  if (!job.note.took) return;
  build::Build build = desk.build();
  learn(build, rule_of(job), *job.note.took);
  desk.edit(Desk::tr("Learn how long it takes"), std::move(build));
}

bool note_part(Desk& desk, const std::string& part) {
  const auto& notes = desk.build().variant().fit_up->parts;
  if (std::any_of(notes.begin(), notes.end(), [&](const auto& n) { return n.part == part; })) return true;
  build::PartNote note;
  note.part = part;
  return desk.add_entry(Desk::tr("Say more of a part"), "@.fit_up.parts", std::move(note));
}

namespace {

/// Changes what is noted of a part, as one step of undo; begins the note where there is none.
void note_of_part(Desk& desk, const QString& what, const std::string& part,
                  const std::function<void(build::PartNote&)>& change) {
  build::Build build = desk.build();
  auto& notes = build.variant().fit_up.own().parts;
  const auto note = std::find_if(notes.begin(), notes.end(), [&](const build::PartNote& n) { return n.part == part; });
  if (note != notes.end()) {
    change(*note);
    return desk.edit(what, std::move(build));
  }
  build::PartNote made;
  made.part = part;
  change(made);
  desk.add_entry(what, "@.fit_up.parts", std::move(made));
}

} // namespace

void order_part(Desk& desk, const assess::BuyLine& line) {
  const std::string part = line.part; // the line goes with the design it was worked out from
  note_of_part(desk, Desk::tr("Order %1").arg(QString::fromStdString(part)), part,
               [day = work::day_text(clock_now().day), count = line.order](build::PartNote& note) {
                 // What another line has ordered of it stays ordered with it.
                 note.ordered_count = count + (note.ordered.empty() ? 0 : note.ordered_count.value_or(0));
                 note.ordered = day;
               });
}

void part_came(Desk& desk, const assess::BuyLine& line) {
  const std::string part = line.part;
  double rest = 0; // ordered on other lines
  for (const assess::BuyLine& other : buy_list_of(desk).lines)
    if (&other != &line && other.part == part) rest += other.on_order;
  note_of_part(desk, Desk::tr("%1 came").arg(QString::fromStdString(part)), part,
               [count = line.on_order, rest](build::PartNote& note) {
                 note.on_shelf += count;
                 note.ordered_count = rest;
                 if (rest > 0) return;
                 note.ordered.clear();
                 note.ordered_count.reset();
               });
}

void take_from_stock(Desk& desk, const assess::CutList& list) {
  build::Build build = desk.build();
  const std::string car = build.job.number.empty() ? build.job.car : build.job.number;
  build.shop.own().stock = assess::stock_after(*desk.build().shop, list, car);
  const bool full = build.shop->stock.size() >= build::most_stock;
  desk.edit(Desk::tr("Keep what is left of bars"), std::move(build));
  if (full)
    desk.tell(Desk::tr("%1 leftovers are the most that are kept: some were left out. Take away what is gone on Shop.")
                  .arg(build::most_stock));
}

} // namespace mavrel::app
