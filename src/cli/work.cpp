// mavrel-cli plan and cut.
#include "cli/commands.h"
#include "cli/fit_up.h"
#include "cli/reader.h"
#include "cli/typed.h"
#include "file/text_file.h"
#include "work/cutting.h"
#include "work/schedule.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <filesystem>

namespace mavrel::cli {

namespace {

constexpr std::size_t most_tasks = 400, most_kinds = 60, most_pieces = 2000;

/// A file's tasks and the shop they are done in.
struct PlanFile {
  std::vector<work::Task> tasks;
  work::Shop shop;
};

work::Task task_of(Reader& r, const Json& in, const std::string& where, const std::vector<work::Resource>& places) {
  work::Task out;
  if (!in.is_object()) {
    r.wrong(words("{0}: {1} is there; {2} is right."), {where, build::kind_of(in), words("an object")});
    return out;
  }
  out.id = r.text(in, where, "id");
  const std::string named = where + " (" + out.id + ")";
  out.hours = r.number(in, named, "hours", 0, 1e4);
  const double people = r.number(in, named, "people", 0, 1000);
  if (people != std::floor(people)) r.wrong(words("{0}.people: a whole number is right."), {named});
  out.people = static_cast<int>(people);
  out.wait = r.number(in, named, "wait_h", 0, 1e4, 0);
  if (const Json clock = in.value("by_the_clock", Json(false)); clock.is_boolean())
    out.by_the_clock = clock.get<bool>();
  else
    r.wrong(words("{0}: {1} is there; {2} is right."),
            {named + ".by_the_clock", build::kind_of(clock), words("true or false")});
  const Json none = Json::array();
  for (const Json& id : in.contains("after") ? r.list(in, "after", most_tasks) : none)
    if (id.is_string())
      out.after.push_back(id.get<std::string>());
    else
      r.wrong(words("{0}: {1} is there; {2} is right."), {named + ".after", build::kind_of(id), words("a text")});
  if (const auto place = in.find("place"); place != in.end() && !place->is_null()) {
    const std::string name = r.text(in, named, "place");
    for (std::size_t i = 0; i < places.size(); ++i)
      if (places[i].name == name) out.needs.push_back({i, 1});
    if (out.needs.empty())
      r.wrong(words("{0}: no place “{1}” is listed. List it under “places”, or take another."), {named, name});
  }
  return out;
}

Expected<PlanFile> read_plan(const Json& file) {
  if (!file.is_object()) return refuse(words("A plan is an object with people, places, day_h and tasks."));
  Reader r;
  PlanFile out;
  const double people = r.number(file, "", "people", 0, 1000);
  if (people != std::floor(people)) r.wrong(words("{0}: a whole number is right."), {words("people")});
  out.shop.people.resize(static_cast<std::size_t>(people));
  if (file.contains("places"))
    for (const auto& [name, count] : r.object(file, "", "places").items()) {
      const double many = count.is_number() ? count.get<double>() : -1;
      if (many < 0 || many > 1000 || many != std::floor(many))
        r.wrong(words("places.{0}: a whole number from 0 to 1000 is right."), {name});
      else
        out.shop.resources.push_back({name, static_cast<int>(many)});
    }
  const Json day = value_of(file, "day_h");
  const bool right = day.is_array() && day.size() == 2 && day[0].is_number() && day[1].is_number() &&
                     day[0].get<double>() >= 0 && day[1].get<double>() <= 24 &&
                     day[1].get<double>() - day[0].get<double>() >= 0.01;
  if (right)
    out.shop.times = work::WorkTimes(day[1].get<double>() - day[0].get<double>());
  else
    r.wrong(words("day_h: two hours are right, when work begins and ends: [8, 17]."), {});
  std::size_t row = 0;
  for (const Json& task : r.list(file, "tasks", most_tasks))
    out.tasks.push_back(task_of(r, task, "tasks." + std::to_string(row++), out.shop.resources));
  if (r.mistake()) return refuse(*r.mistake());
  return out;
}

} // namespace

namespace {
Expected<std::string> plan_file(const std::string& path) {
  return answer_file(path, [](const Json& file) -> Expected<Json> {
    const auto plan = read_plan(file);
    if (!plan) return refuse(plan.error());
    const auto order = work::order_of(plan->tasks);
    if (!order) return refuse(order.error());
    const auto shared = work::schedule(plan->tasks, plan->shop, 24);
    if (!shared) return refuse(shared.error());
    const auto plain = work::critical_path(plan->tasks, *order);
    Json tasks = Json::array();
    for (std::size_t i = 0; i < plan->tasks.size(); ++i)
      tasks.push_back({{"id", plan->tasks[i].id},
                       {"earliest_h", plain.tasks[i].earliest},
                       {"latest_h", plain.tasks[i].latest},
                       {"float_h", plain.tasks[i].slack},
                       {"start_h", shared->tasks[i].start},
                       {"critical", plain.tasks[i].critical}});
    return Json{{"tasks", tasks}, {"span_h", plain.span}, {"shared_span_h", shared->span}};
  });
}

} // namespace

Expected<std::string> plan(const PlanRequest& request) {
  if (std::filesystem::path(request.file).extension() != ".mavrel") return plan_file(request.file);
  return plan_build(request);
}

Expected<std::string> cut(const CutRequest& request) {
  const auto bar = within("--stock", request.stock, Kind::length, 1e-3, 1000);
  const auto kerf = within("--kerf", request.kerf, Kind::length, 0, 0.1);
  for (const auto* value : {&bar, &kerf})
    if (!*value) return refuse(value->error());
  const auto lengths = [](const char* option, const std::vector<std::string>& typed) -> Expected<std::vector<double>> {
    std::vector<double> out;
    if (typed.size() > most_kinds)
      return refuse(words("{0}: {1} are there; up to {2} are right."),
                    {std::string(option), std::to_string(typed.size()), std::to_string(most_kinds)});
    for (const std::string& one : typed) {
      const auto colon = one.rfind(':');
      double count = 1;
      if (colon != std::string::npos) {
        const std::string many = one.substr(colon + 1);
        if (many.empty() || many.size() > 5 || many.find_first_not_of("0123456789") != std::string::npos ||
            std::stoi(many) < 1)
          return refuse(words("{0}: “{1}” is there; a length and how many is right: 412mm:4."),
                        {std::string(option), one.substr(0, 60)});
        count = std::stoi(many);
      }
      const auto length = within(option, one.substr(0, colon), Kind::length, 1e-3, 1000);
      if (!length) return refuse(length.error());
      if (static_cast<double>(out.size()) + count > static_cast<double>(most_pieces))
        return refuse(words("{0}: more than {1} pieces are more than this cuts at once."),
                      {std::string(option), std::to_string(most_pieces)});
      out.insert(out.end(), static_cast<std::size_t>(count), *length);
    }
    return out;
  };
  const auto pieces = lengths("--piece", request.pieces);
  if (!pieces) return refuse(pieces.error());
  const auto leftovers = lengths("--leftover", request.leftovers);
  if (!leftovers) return refuse(leftovers.error());
  const auto plan = work::cut_plan(*pieces, *bar, *kerf, *leftovers);
  if (!plan) return refuse(plan.error());
  Json bars = Json::array();
  for (const work::CutBar& one : plan->bars) {
    Json in = Json::array();
    for (const std::size_t i : one.pieces)
      in.push_back((*pieces)[i]);
    Json row{{"pieces_m", in}, {"left_m", one.left}};
    if (one.leftover) row["leftover_m"] = one.length;
    bars.push_back(row);
  }
  const Json out = {{"bars", bars}, {"count", plan->fresh}};
  return out.dump(1, ' ', false, Json::error_handler_t::replace);
}

} // namespace mavrel::cli
