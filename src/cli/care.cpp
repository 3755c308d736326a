// mavrel-cli prove, hand-over, care, log and book.
#include "app/print/fit_up_pdf.h"
#include "assess/book_notes.h"
#include "assess/care/air_use.h"
#include "assess/care/log_table.h"
#include "assess/care/origin.h"
#include "assess/opened.h"
#include "assess/proving/learning.h"
#include "assess/proving/predictions.h"
#include "book/book.h"
#include "build/edit.h"
#include "build/list_edit.h"
#include "build/names.h"
#include "build/names_care.h"
#include "cli/commands.h"
#include "cli/moment.h"
#include "cli/outputs.h"
#include "file/held_file.h"
#include "file/text_file.h"
#include "report/calendar_file.h"
#include "report/hand_over_sheet.h"
#include "report/proving_json.h"
#include "work/mark.h"

#include <nlohmann/json.hpp>

#include <chrono>

namespace mavrel::cli {

namespace {

using Json = nlohmann::ordered_json;

std::string text_of(const Json& json) {
  return json.dump(2, ' ', false, Json::error_handler_t::replace);
}

constexpr std::chrono::seconds patience{10};
constexpr int most_rounds = 20; // of reading a build anew that another program saves

/// The build of a file with one entry more.
Expected<build::Build> with_logged(const LogRequest& request, const build::LogEntry& entry) {
  auto build = build::load(request.build);
  if (!build) return refuse(build.error());
  auto longer = build::with_entry(*build, "care.log", entry);
  if (!longer) return refuse(longer.error());
  const std::string at = "care.log." + std::to_string(longer->care->log.size() - 1) + ".";
  for (const auto& [field, text] :
       {std::pair("what", &request.what), std::pair("where", &request.where), std::pair("by", &request.by),
        std::pair("text", &request.text), std::pair("odometer_m", &request.odometer),
        std::pair("height_m", &request.height), std::pair("pressure_pa", &request.pressure),
        std::pair("temperature_k", &request.temperature), std::pair("seconds_s", &request.took),
        std::pair("hourly_loss", &request.loss), std::pair("water_kg", &request.water)}) {
    if (text->empty()) continue;
    auto typed = build::with_text(*longer, at + field, *text, {});
    if (!typed) return refuse(typed.error());
    longer = std::move(*typed);
  }
  if (const auto trouble = assess::trouble_of(std::as_const(*longer).care->log.back())) return refuse(*trouble);
  return longer;
}

} // namespace

Expected<std::string> prove(const ProveRequest& request) {
  if (const auto wrong =
          mistake_in({{"--owner-pdf", request.owner_pdf}, {"--shop-pdf", request.shop_pdf}}, request.build))
    return refuse(*wrong);
  const auto open = assess::open_build(request.build, request.shelf);
  if (!open) return refuse(open.error());
  const auto given = assess::fit_up_given(open->build, open->shelf);
  const auto predicted = assess::predict(assess::leveling_given(open->build, given.air(), 0), {});
  const auto points = assess::hold_points(given, &predicted->figures);
  std::optional<Expected<assess::Learning>> learned;
  if (request.learn) learned = assess::learn_from({open->build, open->shelf}, {});
  if (learned && !*learned) return refuse(learned->error());
  if (!request.owner_pdf.empty() || !request.shop_pdf.empty()) {
    const auto now = moment_of({});
    if (!now) return refuse(now.error());
    const auto air = assess::air_a_day(given.air(), {});
    const auto drain = assess::drain_round(assess::care_given(open->build, given),
                                           air && *air ? std::optional(**air) : std::nullopt, now->day);
    const auto over = assess::hand_over(given, points, drain);
    const auto sheets = report::hand_over_sheets(open->build, given, over, points, {}, clock_text().substr(0, 10));
    for (const auto& [path, pages] :
         {std::pair(&request.owner_pdf, &sheets.owner), std::pair(&request.shop_pdf, &sheets.shop)}) {
      if (path->empty()) continue;
      const auto done = app::without_window([&, path = path, pages = pages] {
        return app::write_leaves(report::page_each(*pages), QString::fromStdString(open->build.job.car), *path,
                                 QPageSize::A4);
      });
      if (!done) return refuse(done.error());
    }
  }
  return report::proving_json(points, predicted->trouble, learned ? &**learned : nullptr);
}

Expected<std::string> care(const CareRequest& request) {
  if (const auto wrong = mistake_in({{"--ics", request.ics}}, request.build)) return refuse(*wrong);
  const auto now = moment_of(request.now);
  if (!now) return refuse(now.error());
  const auto open = assess::open_build(request.build, request.shelf);
  if (!open) return refuse(open.error());
  const auto given = assess::care_given(open->build, assess::fit_up_given(open->build, open->shelf));
  const auto air = assess::air_a_day(given.fit_up.air(), {});
  const auto plan = assess::care_plan(given, air && *air ? std::optional(**air) : std::nullopt, now->day);
  if (!plan) return refuse(words("The car is not on the road: “care.from” holds the day since which it is."));
  if (!request.ics.empty()) {
    const auto text = report::calendar_file(open->build.job, *open->build.shop, *plan, work::moment_text(*now), {});
    if (!text) return refuse(text.error());
    if (const auto done = write_atomically(request.ics, *text); !done) return refuse(done.error());
  }
  return report::care_json(*plan);
}

Expected<std::string> log(const LogRequest& request) {
  const auto now = moment_of(request.day, "--day");
  if (!now) return refuse(now.error());
  if (request.text.empty() && request.what.empty()) {
    const auto build = build::load(request.build);
    if (!build) return refuse(build.error());
    std::string out = assess::log_table(build->care->log);
    if (!out.empty()) out.pop_back(); // the program ends the line
    return out;
  }
  build::LogEntry entry;
  bool known = false;
  for (const auto& row : build::names_of(build::LogKind{}))
    if (request.kind == row.key) entry.kind = row.value, known = true;
  if (!known) return refuse(words("--kind: “{0}” is there; reading, work, event or remark is right."), {request.kind});
  entry.id = work::new_mark();
  entry.day = request.day.empty() ? work::moment_text(*now) : request.day;
  const HeldFile held(request.build, patience);
  if (held.is_refused())
    return refuse(words("{0} is held by another program that writes its log. Try again."), {shown_path(request.build)});
  // A window saves when it likes: whoever was there meanwhile is read again, so that nothing of his is lost.
  for (int tried = 0; tried < most_rounds; ++tried) {
    const auto stamp = stamp_of(request.build);
    auto longer = with_logged(request, entry);
    if (!longer) return refuse(longer.error());
    if (!stamp || stamp_of(request.build) != stamp) continue;
    if (const auto saved = build::save(*longer, request.build, ReadOnly::refuse, stamp); !saved) {
      if (stamp_of(request.build) != stamp) continue;
      return refuse(saved.error());
    }
    return text_of(Json{{"id", entry.id}, {"entries", longer->care->log.size()}});
  }
  return refuse(words("{0} is saved again and again by another program. Try again."), {shown_path(request.build)});
}

Expected<std::string> book(const BookRequest& request) {
  auto book = book::Book::open(request.book.empty() ? book::usual_book() : std::filesystem::path(request.book));
  if (!book) return refuse(book.error());
  Json out = Json::object();
  if (!request.folder.empty()) {
    const auto synced = book->sync(request.folder);
    if (!synced) return refuse(synced.error());
    out["taken"] = synced->taken;
    out["unchanged"] = synced->same;
    out["gone"] = synced->gone;
    out["rebuilt"] = synced->rebuilt;
    Json problems = Json::array();
    for (const book::BookProblem& p : synced->problems)
      problems.push_back({{"file", p.file.string()}, {"why", say(p.what)}});
    out["problems"] = std::move(problems);
    if (request.findings) {
      const auto now = moment_of({});
      if (!now) return refuse(now.error());
      // Each build is assessed once after it changed.
      for (;;) {
        const auto files = book->without_findings(200);
        if (!files) return refuse(files.error());
        if (files->empty()) break;
        for (const std::string& file : *files) {
          book::BookFindings found;
          if (const auto open = assess::open_build(file, request.shelf)) {
            const auto notes = assess::book_notes(open->build, open->shelf, now->day);
            found = {notes.findings, notes.due, notes.proved, notes.proofs};
          }
          if (const auto done = book->take_findings(file, found); !done) return refuse(done.error());
        }
      }
    }
  }
  book::BookQuery query;
  query.words = request.words, query.platform = request.platform, query.layout = request.layout;
  query.bag = request.bag, query.owner = request.owner, query.lesson = request.lesson;
  query.due_before = request.due_before;
  const auto found = book->search(query);
  if (!found) return refuse(found.error());
  out["cars"] = book->size().value_or(0);
  Json cars = Json::array();
  for (const book::BookFound& f : *found)
    cars.push_back({{"file", f.car.file},
                    {"car", f.car.car},
                    {"number", f.car.number},
                    {"owner", f.car.owner},
                    {"platform", f.car.platform},
                    {"bags", f.car.bag},
                    {"hours_s", f.car.hours},
                    {"proved", f.car.proved},
                    {"checks", f.car.checks},
                    {"due", f.car.due},
                    {"lessons", f.car.lessons},
                    {"snippet", f.snippet}});
  out["found"] = std::move(cars);
  return text_of(out);
}

Expected<std::string> begin_from(const BeginRequest& request) {
  const auto earlier = build::load(request.earlier);
  if (!earlier) return refuse(earlier.error());
  const auto there = what_stands(request.to);
  if (there != Standing::nothing)
    return refuse(words("{0} is there already. A name that nothing has is right."), {shown_path(request.to)});
  const auto fresh = assess::begun_from(*earlier, request.earlier, clock_text().substr(0, 10));
  if (const auto saved = build::save(fresh, request.to); !saved) return refuse(saved.error());
  return text_of(Json{{"file", request.to},
                      {"figures_of_another_car", fresh.origin->taken.size()},
                      {"lessons", fresh.care->lessons.size()}});
}

} // namespace mavrel::cli
