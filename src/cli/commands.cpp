#include "cli/commands.h"

#include "air/added_volume.h"
#include "app/print/sheet_pdf.h"
#include "assess/assess.h"
#include "assess/search.h"
#include "build/file.h"
#include "build/json.h"
#include "file/text_file.h"
#include "motion/wheel.h"
#include "quantity/quantity.h"
#include "report/assessment_json.h"
#include "report/search_json.h"
#include "report/tracks_csv.h"
#include "shelf/places.h"
#include "shelf/shelf.h"

#include <nlohmann/json.hpp>

#include <numbers>

namespace mavrel::cli {

namespace {

using Json = nlohmann::ordered_json;

std::string printed(const Json& json) {
  return json.dump(1, ' ');
}

/// A typed quantity of a named option; the mistake names the option.
Expected<double> typed(const char* option, const std::string& text, Kind kind, std::string_view bare = {}) {
  auto value = parse_quantity(text, kind, {}, bare);
  if (!value) return refuse(words("{0}: {1}"), {std::string(option), say(value.error())});
  return value;
}

Expected<std::vector<double>> frequencies(const std::string& text) {
  std::vector<double> out;
  for (std::size_t start = 0; start <= text.size();) {
    const std::size_t comma = std::min(text.find(',', start), text.size());
    const auto f = typed("--frequency", text.substr(start, comma - start), Kind::frequency);
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
  const auto height = typed("--height", request.height, Kind::length);
  const auto load = typed("--load", request.load, Kind::force);
  const auto added = typed("--added", request.added, Kind::volume);
  const auto n = typed("--n", request.n, Kind::plain);
  const auto altitude = typed("--altitude", request.altitude, Kind::altitude);
  const auto temperature = typed("--air", request.air, Kind::temperature);
  for (const auto* value : {&height, &load, &added, &n, &altitude, &temperature})
    if (!*value) return refuse(value->error());
  if (*added < 0) return refuse(words("--added: a volume is 0 or more."));
  if (*n < 1 || *n > 1.67)
    return refuse(words("--n: the exponent lies between 1 (slow) and 1.67; 1.38 is usual for a bump."));
  if (*altitude < -500 || *altitude > 9000) return refuse(words("--altitude: from -500 m to 9000 m is believable."));
  if (*temperature < 200 || *temperature > 400) return refuse(words("--air: from -73 °C to 126 °C is believable."));

  const air::BagSetting setting{*added, *n, {*altitude, *temperature}};
  const auto state = air::bag_under_load(card->curve, *height, *load, setting);
  if (!state) return refuse(state.error());
  Json out = {{"gauge_pressure_pa", state->gauge_pressure},
              {"effective_area_m2", state->effective_area},
              {"volume_m3", state->volume},
              {"air_mass_kg", state->air_mass},
              {"rate_slow_n_per_m", state->rate_slow},
              {"rate_fast_n_per_m", state->rate_fast}};
  if (request.conductance.empty() != request.frequency.empty())
    return refuse(words("--conductance and --frequency go together."));
  if (request.conductance.empty()) return printed(out);

  const auto conductance = typed("--conductance", request.conductance, Kind::plain);
  if (!conductance) return refuse(conductance.error());
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
      return refuse(words("--shelf: {0} is no folder."), {request.shelf});
    folders.emplace_back(request.shelf);
  }
  return Opened{std::move(*build), shelf::load_shelf(folders)};
}

} // namespace

Expected<std::string> assess_build(const BuildRequest& request) {
  const auto opened = open(request);
  if (!opened) return refuse(opened.error());
  return report::assessment_json(opened->build, assess::assess(opened->build, opened->shelf));
}

Expected<std::string> search_build(const BuildRequest& request) {
  const auto opened = open(request);
  if (!opened) return refuse(opened.error());
  const auto found = assess::search(opened->build, opened->shelf, {}, {request.threads, {}, {}});
  if (!found) return refuse(found.error());
  return report::search_json(opened->build, *found, request.most);
}

Expected<std::string> sheet(const BuildRequest& request) {
  if (request.pdf.empty() && request.csv.empty())
    return refuse(words("Say what to write: --pdf OUT.pdf, --csv OUT.csv, or both."));
  const auto opened = open(request);
  if (!opened) return refuse(opened.error());
  const auto assessment = assess::assess(opened->build, opened->shelf);
  Json out = Json::object();
  if (!request.csv.empty()) {
    if (const auto done = write_atomically(request.csv, report::tracks_csv(assessment)); !done)
      return refuse(done.error());
    out["csv"] = request.csv;
  }
  if (!request.pdf.empty()) {
    const auto pages = app::write_sheet_without_window(opened->build, assessment, request.pdf);
    if (!pages) return refuse(pages.error());
    out["pdf"] = request.pdf;
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
