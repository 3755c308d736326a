#include "report/search_json.h"

#include "build/names.h"
#include "report/json_tree.h"

#include <algorithm>

namespace mavrel::report {

using namespace assess;

namespace {

Json of(const SearchedEnd& end, const std::vector<std::string>& cases) {
  // A list, because two load cases may bear one name.
  Json frequencies = Json::array();
  for (std::size_t c = 0; c < end.frequency.size() && c < cases.size(); ++c)
    frequencies.push_back({{"load_case", cases[c]},
                           {"body_frequency_hz", end.frequency[c]},
                           {"ride_frequency_hz", end.ride_frequency[c]}});
  return {{"bag", end.bag},
          {"added_volume_m3", end.added_volume},
          {"line_bore_m", end.line_bore},
          {"upper_stack_m", end.upper_stack},
          {"lower_stack_m", end.lower_stack},
          {"lowest_m", end.lowest},
          {"road_pressure_pa", end.road_pressure},
          {"beyond", end.beyond == air::Beyond::nothing ? Json(nullptr) : Json(air::beyond_key(end.beyond))},
          {"cases", std::move(frequencies)}};
}

Json of(const SearchFigures& f) {
  return {{"lowest_m", f.lowest},
          {"discomfort_hz", f.discomfort},
          {"air_per_lift_kg", f.air},
          {"pressure_reserve", f.reserve},
          {"lift_m", f.lift}};
}

} // namespace

std::string search_json(const build::Build& build, const SearchResult& result, std::size_t most) {
  std::vector<std::string> cases;
  for (const auto& load : build.load_cases)
    cases.push_back(load.name);
  if (cases.empty()) cases.emplace_back("As surveyed");
  Json out = {{"combinations", result.tried},
              {"within_hard_limits", result.passed},
              {"not_dominated", result.choices.size()},
              {"pairs_of_bags", result.pairs}};
  out["choices"] = Json::array();
  for (std::size_t i = 0; i < std::min(most, result.choices.size()); ++i) {
    const SearchChoice& choice = result.choices[i];
    Json one = {{"score", choice.score}, {"figures", of(choice.figures)}};
    if (choice.holds) one["holds"] = *choice.holds;
    for (const End end : build::both_ends)
      one[build::key_of(end)] = of(choice.ends[build::at(end)], cases);
    out["choices"].push_back(std::move(one));
  }
  out["ranking"] = Json::array();
  for (std::size_t i = 0; i < std::min(most, result.ranking.size()); ++i) {
    const SearchedPair& pair = result.ranking[i];
    Json one = {{"front", pair.bags[0]}, {"rear", pair.bags[1]}};
    one["result"] = !pair.best ? "fails" : pair.reason.empty() ? "chosen" : "outdone";
    if (!pair.reason.empty()) one["reason"] = say(pair.reason);
    if (pair.best) one["score"] = pair.best->score;
    out["ranking"].push_back(std::move(one));
  }
  return printed(out);
}

} // namespace mavrel::report
