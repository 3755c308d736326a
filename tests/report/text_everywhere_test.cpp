// Whatever stands in a text of the document is text in every file that is written of it: no formula in a table, no
// markup in a page or a drawing, no line of its own in a calendar.
#include "assess/assess.h"
#include "assess/assessment.h"
#include "assess/care/care_plan.h"
#include "assess/care/log_table.h"
#include "assess/fit_up/buying.h"
#include "assess/fit_up/cars.h"
#include "assess/fit_up/cut_list.h"
#include "assess/fit_up/templates.h"
#include "assess/proving/hand_over.h"
#include "build/edit.h"
#include "build/json.h"
#include "report/air_sheet.h"
#include "report/brackets_csv.h"
#include "report/build_sheet.h"
#include "report/calendar_file.h"
#include "report/drawing_files.h"
#include "report/fit_up_files.h"
#include "report/hand_over_sheet.h"
#include "report/job_sheets.h"
#include "report/tracks_csv.h"

#include <nlohmann/json.hpp>

namespace mavrel::report {
namespace {

using build::Build;

void walk(const nlohmann::ordered_json& json, const std::string& at, std::vector<std::string>& out) {
  if (json.is_object())
    for (const auto& [key, value] : json.items())
      walk(value, at.empty() ? key : at + "." + key, out);
  else if (json.is_array())
    for (std::size_t i = 0; i < json.size(); ++i)
      walk(json[i], at + "." + std::to_string(i), out);
  else if (json.is_string())
    out.push_back(at);
}

/// The build with a text put in front of every free text that it holds. @param count  of those that took it
Build with_in_front(const Build& build, const std::string& text, int& count) {
  std::vector<std::string> paths;
  walk(nlohmann::ordered_json::parse(build::to_json(build)), "", paths);
  Build out = build;
  for (const std::string& path : paths) {
    const auto view = build::look_up(out, path, {});
    if (!view || !view->is_text) continue;
    // What names a card, a job, a check or a place stays: without them there would be little to write.
    const std::string last = path.substr(path.rfind('.') + 1);
    for (const char* free : {"name", "notes", "text", "by", "why", "what", "reason", "owner", "car", "shop", "number",
                             "who", "taken_by", "taken_why", "listen", "inspect", "money", "platform"})
      if (last == free) {
        if (last == "what" && path.find(".log.") != std::string::npos) continue;
        if (const auto typed = build::with_text(out, path, text + view->shown, {})) out = *typed, ++count;
      }
  }
  return out;
}

/// Everything that is written of a build: a name and its text.
std::vector<std::pair<std::string, std::string>> written(const Build& b) {
  using namespace assess;
  const shelf::Shelf& shelf = test::demo_shelf();
  const Assessment a = assess::assess(b, shelf);
  const FitUpGiven given = fit_up_given(b, shelf);
  const auto plan = plan_of(plan_given(given, work::parse_moment("2026-12-01 10:00")));
  const auto templates = templates_of(given);
  const auto routes = judged_routes(given);
  const auto cut = cut_list(given, templates, routes);
  const auto points = hold_points(given);
  std::vector<std::pair<std::string, std::string>> out{
      {"tracks.csv", tracks_csv(a)},         {"brackets.csv", brackets_csv(b, a)},
      {"kit.csv", kit_csv(given.air())},     {"cut.csv", cut_csv(cut)},
      {"buy.csv", buy_csv(buy_list(given))}, {"labels.csv", labels_csv(routes)},
      {"run.svg", run_svg(given.air(), {})}, {"wiring.svg", wiring_svg(given.air(), {})}};
  if (plan) {
    out.emplace_back("plan.csv", plan_csv(*plan));
    for (const auto& leaf : job_sheets(given, *plan, points, cut, routes, {}).leaves)
      out.emplace_back("job sheet.html", leaf.html);
  }
  for (const Template& t : templates.made) {
    out.emplace_back("template.svg", template_svg(t));
    out.emplace_back("template.dxf", template_dxf(t));
  }
  const auto over = hand_over(given, points, DrainRound{60, true});
  const auto sheets = hand_over_sheets(b, given, over, points, {}, "2026-12-01");
  for (const auto* pages : {&sheets.owner, &sheets.shop})
    for (const auto& page : *pages)
      out.emplace_back("hand-over.html", page);
  const SheetParts parts = build_sheet(b, a, {}, nullptr);
  out.emplace_back("sheet.html", parts.head);
  for (const auto* texts : {&parts.sections, &parts.pages})
    for (const std::string& text : *texts)
      out.emplace_back("sheet.html", text);
  out.emplace_back("log.csv", log_table(b.care->log));
  if (const auto care = care_plan(care_given(b, given), 0.05, *work::parse_day("2026-12-01")))
    out.emplace_back("care.ics", *calendar_file(b.job, *b.shop, *care, "2026-12-01 10:00", {}));
  return out;
}

/// The cells of a table, as a spreadsheet reads them.
std::vector<std::string> written_cells(const std::string& csv) {
  std::vector<std::string> out{""};
  bool quoted = false;
  for (std::size_t i = 0; i < csv.size(); ++i) {
    if (csv[i] == '"') {
      if (quoted && i + 1 < csv.size() && csv[i + 1] == '"')
        out.back() += csv[++i];
      else
        quoted = !quoted;
    } else if (!quoted && (csv[i] == ',' || csv[i] == '\n')) {
      out.emplace_back();
    } else {
      out.back() += csv[i];
    }
  }
  return out;
}

TEST(TextEverywhere, IsTextInEveryFileThatIsWritten) {
  for (const char* car : {"sorrel-wayfare.mavrel", "shop/w-14.mavrel", "shop/t-03.mavrel"}) {
    int count = 0;
    const Build plain = test::loaded(std::filesystem::path(MAVREL_DEMO) / car);
    const Build b = with_in_front(plain, "=<img src='x'>&;,", count);
    ASSERT_GT(count, 20) << car;
    std::size_t with_it = 0;
    for (const auto& [name, text] : written(b)) {
      with_it += text.find("src=") != std::string::npos;
      if (name.ends_with(".csv"))
        for (const std::string& cell : written_cells(text)) {
          const bool formula = !cell.empty() && (cell[0] == '=' || cell[0] == '@');
          EXPECT_FALSE(formula) << car << " " << name << ": " << cell;
        }
      else if (name.ends_with(".svg") || name.ends_with(".html"))
        EXPECT_EQ(text.find("<img"), std::string::npos)
            << car << " " << name << ": " << text.substr(text.find("<img"), 60);
      else if (name.ends_with(".dxf"))
        EXPECT_EQ(std::count(text.begin(), text.end(), '\n') % 2, 0)
            << car << " " << name << ": codes and values go in pairs";
      else if (name.ends_with(".ics"))
        for (std::size_t at = 0; at < text.size();) {
          const std::size_t end = std::min(text.find('\n', at), text.size());
          const std::string line = text.substr(at, end - at);
          const bool goes_on = line[0] == ' ', named = std::isupper(static_cast<unsigned char>(line[0])) != 0;
          EXPECT_TRUE(goes_on || named) << car << " " << name << ": " << line;
          at = end + 1;
        }
    }
    EXPECT_GT(with_it, 4U) << car << ": the texts are in what is written";
  }
}

} // namespace
} // namespace mavrel::report
