#include "cli/commands.h"
#include "cli/long_work.h"
#include "cli/outputs.h"

#include "air/added_volume.h"
#include "app/print/sheet_pdf.h"
#include "assess/assess.h"
#include "assess/doubt/doubt.h"
#include "assess/search/search.h"
#include "build/cycle_csv.h"
#include "build/file.h"
#include "build/json.h"
#include "file/text_file.h"
#include "motion/cycle_fit.h"
#include "motion/wheel.h"
#include "quantity/quantity.h"
#include "quantity/text.h"
#include "report/assessment_json.h"
#include "report/brackets_csv.h"
#include "report/search_json.h"
#include "report/tracks_csv.h"
#include "shelf/places.h"
#include "shelf/shelf.h"

#include <nlohmann/json.hpp>

#include <algorithm>
#include <numbers>

namespace mavrel::cli {

namespace {

using Json = nlohmann::ordered_json;

std::string printed(const Json& json) {
  return json.dump(1, ' ', false, Json::error_handler_t::replace);
}

/// A typed quantity of a named option; the mistake names the option.
Expected<double> typed(const char* option, const std::string& text, Kind kind, std::string_view bare = {}) {
  auto value = parse_quantity(text, kind, {}, bare);
  if (!value) return refuse(words("{0}: {1}"), {std::string(option), value.error()});
  return value;
}

/// The same, and believable.
Expected<double> typed_within(const char* option, const std::string& text, Kind kind, double least, double most,
                              std::string_view bare = {}) {
  auto value = typed(option, text, kind, bare);
  if (value && !(*value >= least && *value <= most))
    return refuse(words("{0}: {1} is out of reason; {2} to {3} is believable."),
                  {std::string(option), told_from({*value, kind, -2}, *value < least ? least : most),
                   Amount{least, kind, -2}, Amount{most, kind, -2}});
  return value;
}

Expected<std::vector<double>> frequencies(const std::string& text) {
  std::vector<double> out;
  for (std::size_t start = 0; start <= text.size();) {
    const std::size_t comma = std::min(text.find(',', start), text.size());
    const auto f = typed_within("--frequency", text.substr(start, comma - start), Kind::frequency, 1e-6, 1e6);
    if (!f) return refuse(f.error());
    out.push_back(*f);
    start = comma + 1;
  }
  return out;
}

} // namespace

Expected<std::string> bag(const BagRequest& request) {
  const auto card = shelf::read_bag_file(request.card);
  if (!card) return refuse(card.error());
  const auto height = typed_within("--height", request.height, Kind::length, 0, 2);
  const auto load = typed_within("--load", request.load, Kind::force, 0, 1e6);
  const auto added = typed_within("--added", request.added, Kind::volume, 0, 1);
  const auto n = typed_within("--n", request.n, Kind::plain, 1, 1.67);
  const auto altitude = typed_within("--altitude", request.altitude, Kind::altitude, -500, 9000);
  const auto temperature = typed_within("--air", request.air, Kind::temperature, 200, 400);
  for (const auto* value : {&height, &load, &added, &n, &altitude, &temperature})
    if (!*value) return refuse(value->error());

  const air::BagSetting setting{*added, *n, {*altitude, *temperature}};
  const auto state = air::bag_under_load(card->curve, *height, *load, setting);
  if (!state) return refuse(state.error());
  Json out = {{"gauge_pressure_pa", state->gauge_pressure},
              {"effective_area_m2", state->effective_area},
              {"volume_m3", state->volume},
              {"air_mass_kg", state->air_mass},
              {"rate_slow_n_per_m", state->rate_slow},
              {"rate_fast_n_per_m", state->rate_fast}};
  // A figure that rests on less than the card knows, or that the bag must not be used at, never goes out bare.
  if (const air::Beyond beyond = air::beyond(card->card, state->gauge_pressure); beyond != air::Beyond::nothing) {
    out["beyond"] = air::beyond_key(beyond);
    out["beyond_says"] =
        say({words("{0} is {1}: least {2}, last column {3}, maximum {4}."),
             {pascals(state->gauge_pressure, 2), air::beyond_name(beyond), pascals(card->card.min_pressure, 2),
              pascals(card->card.pressures.back(), 2), pascals(card->card.max_pressure, 2)}});
  }
  if (request.conductance.empty() != request.frequency.empty())
    return refuse(words("--conductance and --frequency go together."));
  if (request.conductance.empty()) return printed(out);

  const auto conductance = typed("--conductance", request.conductance, Kind::plain);
  if (!conductance) return refuse(conductance.error());
  if (!(*conductance >= 1e-18 && *conductance <= 1e3))
    return refuse(words("--conductance: a line's lies between 1e-18 and 1000 kg/(s·Pa); 2.5e-8 is usual."));
  const auto asked = frequencies(request.frequency);
  if (!asked) return refuse(asked.error());
  const auto dynamic = air::dynamic_stiffness(card->curve, *height, *load, setting, *conductance, *asked);
  if (!dynamic) return refuse(dynamic.error());
  out["dynamic"] = Json::array();
  for (const auto& d : *dynamic)
    out["dynamic"].push_back({{"frequency_hz", d.frequency},
                              {"stiffness_n_per_m", d.stiffness},
                              {"loss_angle_deg", d.loss_angle * 180 / std::numbers::pi}});
  return printed(out);
}

Expected<std::string> cycle(const std::string& sheet) {
  const auto text = read_text(sheet, 256 * 1024);
  if (!text) return refuse(text.error());
  const auto rows = build::read_cycle_csv(*text);
  if (!rows) return refuse(words("{0}: {1}"), {shown_path(std::filesystem::path(sheet).filename()), rows.error()});
  std::vector<motion::CycleReading> readings;
  std::vector<std::size_t> numbers;
  for (std::size_t i = 0; i < rows->size(); ++i)
    if ((*rows)[i].spring) {
      readings.push_back({(*rows)[i].height, *(*rows)[i].spring});
      numbers.push_back(i + 1);
    }
  const auto fit = motion::fit_cycle(readings);
  if (!fit) return refuse(words("{0}: {1}"), {shown_path(std::filesystem::path(sheet).filename()), fit.error()});
  Json out = {{"degree", fit->degree}};
  out["at"] = Json::array();
  for (const motion::CycleReading& reading : readings) {
    const auto at = fit->length.read(reading.height);
    const auto sd = fit->slope_sd(reading.height);
    out["at"].push_back({{"height_m", reading.height},
                         {"spring_length_m", at.value},
                         {"motion_ratio", at.slope},
                         {"motion_ratio_sd", sd ? Json(*sd) : Json(nullptr)}});
  }
  out["measure_again"] = Json::array();
  for (const std::size_t i : fit->measure_again)
    out["measure_again"].push_back(numbers[i]);
  return printed(out);
}

Expected<std::string> wheel(const std::vector<std::string>& codes) {
  std::vector<motion::WheelSpace> spaces;
  Json out = {{"wheels", Json::array()}};
  for (const std::string& code : codes) {
    const auto parsed = motion::parse_wheel(code);
    if (!parsed) return refuse(parsed.error());
    const auto& s = spaces.emplace_back(motion::wheel_space(*parsed));
    out["wheels"].push_back({{"section_width_m", s.section_width},
                             {"widest_m", s.widest},
                             {"diameter_m", s.diameter},
                             {"measuring_rim_m", s.measuring_rim},
                             {"inner_face_m", s.inner_face},
                             {"outer_face_m", s.outer_face}});
  }
  if (spaces.size() == 2) {
    const auto change = motion::wheel_change(spaces[0], spaces[1]);
    out["change"] = {{"inner_face_m", change.inner_face},
                     {"outer_face_m", change.outer_face},
                     {"radius_m", change.radius},
                     {"speedometer_percent", change.speedometer_percent}};
  }
  return printed(out);
}

namespace {

struct Opened {
  build::Build build;
  shelf::Shelf shelf;
};

Expected<Opened> open(const BuildRequest& request) {
  auto build = build::load(request.build);
  if (!build) return refuse(build.error());
  auto folders = shelf::shelf_folders();
  if (!request.shelf.empty()) {
    std::error_code error;
    if (!std::filesystem::is_directory(request.shelf, error))
      return refuse(words("--shelf: {0} is no folder."), {shown_path(request.shelf)});
    folders.emplace_back(request.shelf);
  }
  return Opened{std::move(*build), shelf::load_shelf(folders)};
}

} // namespace

namespace {
constexpr double doubt_for = 3.5; // s that a sheet waits for
} // namespace

Expected<std::string> assess_build(const BuildRequest& request) {
  const auto opened = open(request);
  if (!opened) return refuse(opened.error());
  return report::assessment_json(opened->build, assess::assess(opened->build, opened->shelf));
}

Expected<std::string> search_build(const BuildRequest& request) {
  const auto opened = open(request);
  if (!opened) return refuse(opened.error());
  const auto found =
      assess::search(assess::search_given(opened->build, opened->shelf, {},
                                          request.nine_in_ten ? assess::Sure::nine_in_ten : assess::Sure::as_read),
                     {request.threads, {}, told_progress("search"), request.most});
  if (!found) return refuse(found.error());
  return report::search_json(opened->build, *found, request.most);
}

Expected<std::string> sheet(const BuildRequest& request) {
  if (request.pdf.empty() && request.csv.empty() && request.brackets.empty())
    return refuse(words("Say what to write: --pdf OUT.pdf, --csv OUT.csv, --brackets OUT.csv, or several."));
  if (const auto wrong =
          mistake_in({{"--pdf", request.pdf}, {"--csv", request.csv}, {"--brackets", request.brackets}}, request.build))
    return refuse(*wrong);
  const auto opened = open(request);
  if (!opened) return refuse(opened.error());
  const auto assessment = assess::assess(opened->build, opened->shelf);
  Json out = Json::object();
  if (!request.csv.empty()) {
    if (const auto done = write_atomically(request.csv, report::tracks_csv(assessment)); !done)
      return refuse(done.error());
    out["csv"] = shown_path(request.csv);
  }
  if (!request.brackets.empty()) {
    if (const auto done = write_atomically(request.brackets, report::brackets_csv(opened->build, assessment)); !done)
      return refuse(done.error());
    out["brackets"] = shown_path(request.brackets);
  }
  if (!request.pdf.empty()) {
    // A sheet is there in seconds, whatever the build: doubt that takes longer is left out, and it is said.
    const Deadline deadline(doubt_for);
    const auto doubt = assess::doubt({opened->build, opened->shelf}, {deadline.token(), 2, {}, told_progress("sheet")});
    if (!doubt)
      std::fprintf(stderr, "%s\n",
                   say({words("mavrel-cli: how sure its figures are takes longer than {0} here and is left out of the "
                              "sheet; “mavrel-cli doubt” works it out."),
                        {Amount{doubt_for, Kind::time, 0, {}}}})
                       .c_str());
    const UnitPrefs prefs;
    const auto pages =
        app::write_sheet_without_window({opened->build, assessment, prefs, doubt ? &*doubt : nullptr}, request.pdf,
                                        request.paper == "letter" ? QPageSize::Letter : QPageSize::A4);
    if (!pages) return refuse(pages.error());
    out["pdf"] = shown_path(request.pdf);
    out["pages"] = *pages;
  }
  return printed(out);
}

Expected<std::string> schema() {
  std::string text = build::json_schema();
  text.pop_back(); // the printer ends the line
  return text;
}

} // namespace mavrel::cli
