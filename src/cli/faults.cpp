// mavrel-cli practise and diagnose.
#include "assess/fit_up/checks.h"
#include "assess/opened.h"
#include "cli/commands.h"
#include "file/text_file.h"
#include "report/faults_json.h"
#include "shelf/places.h"

namespace mavrel::cli {

namespace {

constexpr std::size_t most_case = 8U << 20U; // bytes

shelf::Shelf shelf_with(const std::string& more) {
  auto folders = shelf::shelf_folders();
  if (!more.empty()) folders.emplace_back(more);
  return shelf::load_shelf(folders);
}

assess::FaultCarGiven car_given(const build::Build& build, const shelf::Shelf& shelf) {
  return {assess::leveling_given(build, assess::air_given(build, shelf, assess::ask_ends(build, shelf)), 0)};
}

} // namespace

Expected<std::string> practise(const PractiseRequest& request) {
  const auto level = assess::level_of(request.level);
  if (!level)
    return refuse(words("--level: “{0}” is there; plain, slight, two or misleading is right."), {request.level});
  const std::string file =
      request.build.empty() ? (shelf::demo_folder() / "sorrel-wayfare.mavrel").string() : request.build;
  const auto build = build::load(file);
  if (!build) return refuse(build.error());
  const auto shelf = shelf_with(request.shelf);
  const auto shop = *assess::practice_shop(car_given(*build, shelf), {});
  if (!shop) return refuse(shop.error());
  assess::PracticeCar car(*shop, {request.seed, *level});
  std::vector<assess::TestDone> done;
  for (const std::string& key : request.tests) {
    const auto at = assess::test_here((*shop)->table.car().parts, key);
    if (!at) return refuse(words("--test: {0}"), {at.error()});
    done.push_back({*at, car.do_test(*at)});
  }
  if (request.tests.empty() && !request.untested && request.name.empty()) {
    auto evidence = car.evidence();
    assess::go_on(car, **shop, evidence, {}, [&](const assess::TestDone& test) { done.push_back(test); });
  }
  std::optional<assess::PracticeScore> scored;
  if (!request.name.empty()) {
    const auto named = assess::faults_named(request.name);
    if (!named) return refuse(words("--name: {0}"), {named.error()});
    scored = assess::score(*shop, car.asked(), done, *named, {});
  }
  return report::case_json(*build, car, done, request.reveal, scored ? &*scored : nullptr);
}

Expected<std::string> diagnose(const DiagnoseRequest& request) {
  const auto text = read_text(request.file, most_case);
  if (!text) return refuse(text.error());
  auto read = report::read_case(*text);
  if (!read) return refuse(words("{0}: {1}"), {shown_path(request.file), read.error()});
  const auto shelf = shelf_with(request.shelf);
  const auto car = *assess::fault_car(car_given(read->build, shelf), {});
  if (!car) return refuse(car.error());
  if (request.take) {
    const auto points = assess::hold_points(assess::fit_up_given(read->build, shelf), nullptr);
    for (const build::FaultNote& note : assess::readings_at_hand(read->build, points, &*car))
      if (auto finding = assess::finding_of(note)) read->evidence.findings.push_back(std::move(*finding));
  }
  for (const std::string& typed : request.found) {
    const auto split = typed.find('=');
    if (split == std::string::npos)
      return refuse(words("--found: “{0}” is there; such as slow_up:front_left=yes or fill_time:front_left=6.2s is "
                          "right."),
                    {typed.substr(0, 80)});
    const auto at = assess::sign_of(typed.substr(0, split));
    if (!at) return refuse(words("--found: {0}"), {at.error()});
    auto finding = assess::typed_finding(*at, typed.substr(split + 1), {});
    if (!finding) return refuse(words("--found: {0}"), {finding.error()});
    if (const auto why = assess::trouble_of(*car, *finding)) return refuse(words("--found: {0}"), {*why});
    read->evidence.findings.push_back(std::move(*finding));
  }
  const assess::FaultTable table(*car);
  const assess::FaultWeighing weighing(table, read->evidence);
  return report::diagnosis_json(weighing.diagnosis(), read->evidence,
                                weighing.next_tests(static_cast<std::size_t>(request.most)));
}

} // namespace mavrel::cli
