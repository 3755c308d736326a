#include "report/doubt_json.h"

#include "quantity/units.h"
#include "report/json_tree.h"

namespace mavrel::report {

std::string doubt_json(const assess::Doubt& doubt) {
  Json inputs = Json::array(), answers = Json::array(), trouble = Json::array();
  for (const assess::DoubtInput& in : doubt.inputs) {
    Json one = {{"path", in.path},   {"name", say(in.name)},          {"tool", assess::tool_key(in.tool)},
                {"value", in.value}, {"unit", si_unit_name(in.kind)}, {"readings", in.count},
                {"sd", in.sd()}};
    if (!in.shared_with.empty()) one["shared_with"] = in.shared_with, one["shared_sd"] = std::abs(in.shared);
    if (in.another_car) one["another_car"] = true;
    inputs.push_back(std::move(one));
  }
  for (const assess::DoubtAnswer& a : doubt.answers) {
    Json one = {{"name", a.name}, {"words", say(a.words)}, {"unit", si_unit_name(a.kind)}};
    one["value"] = a.value ? Json(*a.value) : Json();
    const bool any = a.vanished < 1;
    one["sd"] = any ? Json(a.sd) : Json();
    one["p05"] = any ? Json(a.p05) : Json();
    one["p50"] = any ? Json(a.p50) : Json();
    one["p95"] = any ? Json(a.p95) : Json();
    if (a.vanished > 0) one["vanished"] = a.vanished;
    if (a.odds_inside) one["odds_inside"] = *a.odds_inside;
    if (a.wanted_least) one["wanted_least"] = *a.wanted_least;
    if (a.wanted_most) one["wanted_most"] = *a.wanted_most;
    if (a.odds_met) one["odds_met"] = *a.odds_met;
    Json carried = Json::array();
    for (const auto& c : a.carried_by)
      carried.push_back({{"path", doubt.inputs[c.input].path}, {"share", c.share}, {"one_more_wins", c.would_win}});
    one["carried_by"] = std::move(carried);
    answers.push_back(std::move(one));
  }
  for (const Message& m : doubt.trouble)
    trouble.push_back(say(m));
  const Json out = {{"draws", doubt.draws},
                    {"seed", doubt.seed},
                    {"inputs", std::move(inputs)},
                    {"answers", std::move(answers)},
                    {"trouble", std::move(trouble)}};
  return printed(out, 2);
}

} // namespace mavrel::report
