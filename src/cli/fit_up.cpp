// mavrel-cli plan of a build, parts, templates and schools.
#include "cli/fit_up.h"
#include "cli/moment.h"

#include "app/print/fit_up_pdf.h"
#include "assess/fit_up/fit_up_findings.h"
#include "assess/opened.h"
#include "cli/outputs.h"
#include "file/text_file.h"
#include "report/drawing_files.h"
#include "report/fit_up_files.h"
#include "report/job_sheets.h"

#include <algorithm>
#include <filesystem>

namespace mavrel::cli {

namespace {

struct OpenedFitUp {
  assess::Opened opened;
  assess::FitUpGiven given;
};
Expected<OpenedFitUp> open_fit_up(const std::string& path, const std::string& shelf) {
  auto opened = assess::open_build(path, shelf);
  if (!opened) return refuse(opened.error());
  auto given = assess::fit_up_given(opened->build, opened->shelf);
  return OpenedFitUp{std::move(*opened), std::move(given)};
}

QString title_of(const build::Build& build) {
  return QString::fromStdString(build.job.car + " · " + build.variant().name);
}

} // namespace

Expected<std::string> plan_build(const PlanRequest& request) {
  if (const auto wrong = mistake_in({{"--csv", request.csv}, {"--pdf", request.pdf}}, request.file))
    return refuse(*wrong);
  const auto open = open_fit_up(request.file, request.shelf);
  if (!open) return refuse(open.error());
  std::optional<work::Moment> now;
  if (!request.now.empty()) {
    const auto given = moment_of(request.now);
    if (!given) return refuse(given.error());
    now = *given;
  }
  const assess::PlanGiven given = assess::plan_given(open->given, now);
  const auto made = assess::plan_of(given);
  if (!made) return refuse(made.error());
  const auto checks = assess::hold_points(open->given);
  if (!request.csv.empty())
    if (const auto done = write_atomically(request.csv, report::plan_csv(*made)); !done) return refuse(done.error());
  if (!request.pdf.empty()) {
    const auto templates = assess::templates_of(open->given);
    const auto routes = assess::judged_routes(open->given);
    const auto sheets =
        report::job_sheets(open->given, *made, checks, assess::cut_list(open->given, templates, routes), routes, {});
    const auto done = app::without_window(
        [&] { return app::write_leaves(sheets.leaves, title_of(open->opened.build), request.pdf, QPageSize::A4); });
    if (!done) return refuse(done.error());
  }
  return report::plan_json(*made, checks, given.list.skipped);
}

Expected<std::string> parts(const FitUpRequest& request) {
  if (const auto wrong = mistake_in(
          {{"--cut-csv", request.cut_csv}, {"--buy-csv", request.buy_csv}, {"--labels-csv", request.labels_csv}},
          request.build))
    return refuse(*wrong);
  const auto open = open_fit_up(request.build, request.shelf);
  if (!open) return refuse(open.error());
  const auto routes = assess::judged_routes(open->given);
  const auto cut = assess::cut_list(open->given, assess::templates_of(open->given), routes);
  auto buy = assess::buy_list(open->given, cut, routes);
  assess::add_order_days(open->given, buy, std::nullopt);
  for (const auto& [path, text] :
       {std::pair(&request.cut_csv, report::cut_csv(cut)), std::pair(&request.buy_csv, report::buy_csv(buy)),
        std::pair(&request.labels_csv, report::labels_csv(routes))})
    if (!path->empty())
      if (const auto done = write_atomically(*path, text); !done) return refuse(done.error());
  return report::parts_json(open->given, cut, buy, routes);
}

Expected<std::string> templates(const FitUpRequest& request) {
  const auto open = open_fit_up(request.build, request.shelf);
  if (!open) return refuse(open.error());
  const auto drawn = assess::templates_of(open->given);
  std::vector<Output> outputs{{"--pdf", request.pdf}};
  for (const auto& [option, folder, ending] :
       {std::tuple("--dxf", &request.dxf, ".dxf"), std::tuple("--svg", &request.svg, ".svg")}) {
    std::vector<std::string> names;
    for (const assess::Template& t : drawn.made)
      names.push_back(t.key + ending);
    const auto files = in_folder(option, *folder, names);
    outputs.insert(outputs.end(), files.begin(), files.end());
  }
  if (const auto wrong = mistake_in(outputs, request.build)) return refuse(*wrong);
  for (const auto& [folder, ending, write] : {std::tuple(&request.dxf, ".dxf", &report::template_dxf),
                                              std::tuple(&request.svg, ".svg", &report::template_svg)})
    if (!folder->empty())
      for (const assess::Template& t : drawn.made)
        if (const auto done = write_atomically(std::filesystem::path(*folder) / (t.key + ending), write(t)); !done)
          return refuse(done.error());
  if (!request.pdf.empty()) {
    const auto done = app::without_window(
        [&] { return app::write_templates(drawn.made, title_of(open->opened.build), request.pdf, QPageSize::A4); });
    if (!done) return refuse(done.error());
  }
  return report::templates_json(drawn);
}

Expected<std::string> schools(const FitUpRequest& request) {
  const auto open = open_fit_up(request.build, request.shelf);
  if (!open) return refuse(open.error());
  const auto cards = assess::answer_schools({open->opened.build, open->opened.shelf, std::nullopt}, {});
  return report::schools_json(*cards);
}

} // namespace mavrel::cli
