// mavrel-cli lift and size: a build's own air kit, and those that would do.
#include "assess/air/figures.h"
#include "assess/opened.h"
#include "build/names.h"
#include "cli/commands.h"
#include "cli/long_work.h"
#include "cli/outputs.h"
#include "file/text_file.h"
#include "report/air_json.h"

#include <algorithm>

namespace mavrel::cli {

namespace {

Expected<std::size_t> preset_called(const assess::Opened& opened, const std::string& name) {
  const auto& names = opened.air.presets;
  const auto found = std::find(names.begin(), names.end(), name);
  if (found != names.end()) return static_cast<std::size_t>(found - names.begin());
  std::string known;
  for (const std::string& one : names)
    known += (known.empty() ? "" : ", ") + one;
  return refuse(words("There is no preset {0}; there are {1}."), {name, known});
}

} // namespace

Expected<std::string> lift(const LiftRequest& request) {
  if (const auto wrong = mistake_in({{"--csv", request.csv}}, request.build)) return refuse(*wrong);
  const auto opened = assess::open_build(request.build, request.shelf);
  if (!opened) return refuse(opened.error());
  const auto from = preset_called(*opened, request.from), to = preset_called(*opened, request.to);
  if (!from) return refuse(from.error());
  if (!to) return refuse(to.error());
  assess::MoveAsked asked;
  asked.from = *from, asked.to = *to;
  asked.order = opened->air.kit.order;
  asked.engine = request.engine;
  for (const auto& row : build::names_of(build::MoveOrder{}))
    if (row.key == request.order) asked.order = row.value;
  const auto moved = assess::answer_lift({opened->air, asked, assess::next_sizes(opened->air, opened->shelf)}, {});
  if (!*moved) return refuse(moved->error());
  if (!request.csv.empty())
    if (const auto done = write_atomically(request.csv, report::lift_csv(**moved)); !done) return refuse(done.error());
  return report::lift_json(opened->air, asked, **moved, assess::kit_figures(opened->air, {}));
}

Expected<std::string> size(const BuildRequest& request) {
  const auto opened = assess::open_build(request.build, request.shelf);
  if (!opened) return refuse(opened.error());
  const auto given = assess::sizing_given(opened->build, opened->shelf, opened->air);
  const auto sized = assess::size_kits(given, {request.threads, {}, told_progress("kits")});
  return report::sizing_json(given, *sized, request.most);
}

} // namespace mavrel::cli
