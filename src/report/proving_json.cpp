#include "report/proving_json.h"

#include "assess/proving/hand_over.h"
#include "assess/proving/pointing.h"
#include "quantity/units.h"
#include "report/json_tree.h"

namespace mavrel::report {

using namespace assess;
namespace {

Json number(const std::optional<double>& value) {
  return value ? Json(*value) : Json();
}

} // namespace

std::string proving_json(const std::vector<HoldPoint>& points, const std::vector<Message>& trouble,
                         const Learning* learned) {
  Json out = Json::object();
  Json proofs = Json::array();
  for (const HoldPoint& p : points) {
    if (!is_proof(p)) continue;
    Json proof = {{"id", p.id}, {"name", say(p.name)}, {"state", name_of(p.state)}, {"before", p.before}};
    Json figures = Json::array();
    for (std::size_t i = 0; i < p.figures.size(); ++i) {
      const AskedFigure& f = p.figures[i];
      figures.push_back({{"key", f.key},
                         {"name", say(f.name)},
                         {"unit", f.yes_no ? "yes" : si_unit_name(f.kind)},
                         {"predicted", number(f.designed)},
                         {"least", number(f.least)},
                         {"most", number(f.most)},
                         {"measured", number(p.measured[i])},
                         {"right", std::find(p.wrong.begin(), p.wrong.end(), i) == p.wrong.end()}});
    }
    proof["figures"] = std::move(figures);
    Json points_at = Json::array();
    for (const Pointer& one : points_to(p))
      points_at.push_back({{"where", say(one.where)}, {"cause", say(one.cause)}, {"next", say(one.next)}});
    proof["points_to"] = std::move(points_at);
    proofs.push_back(std::move(proof));
  }
  out["proofs"] = std::move(proofs);
  Json troubles = Json::array();
  for (const Message& m : trouble)
    troubles.push_back(say(m));
  out["not_predicted"] = std::move(troubles);
  if (learned) {
    Json figures = Json::array();
    for (const LearnedFigure& f : learned->figures)
      figures.push_back({{"key", f.key},
                         {"designed", f.designed},
                         {"was", f.was},
                         {"is", f.is},
                         {"designed_sd", f.was_sd},
                         {"is_sd", f.is_sd},
                         {"told", f.told},
                         {"too_far", f.too_far},
                         {"blurred_with", f.blurred}});
    out["learned"] = std::move(figures);
    out["misfit"] = learned->misfit;
  }
  return printed(out, 2);
}

std::string care_json(const CarePlan& plan) {
  Json out = Json::object();
  Json due = Json::array();
  for (const CareDue& d : plan.due)
    due.push_back({{"task", d.task->key},
                   {"due", work::day_text(d.due)},
                   {"last", d.last ? Json(work::day_text(*d.last)) : Json()},
                   {"state", d.state == DueState::late   ? "late"
                             : d.state == DueState::soon ? "soon"
                                                         : "later"},
                   {"why", say(d.why)}});
  out["due"] = std::move(due);
  out["recheck"] = plan.recheck;
  out["distance_a_day_m"] = plan.distance_day;
  Json trends = Json::array();
  for (const CareTrend& t : plan.trends) {
    Json points = Json::array();
    for (const auto& p : t.points)
      points.push_back({{"day", work::day_text(p.day)}, {"value", p.value}});
    trends.push_back({{"what", t.what->key},
                      {"where", t.where},
                      {"unit", si_unit_name(t.kind)},
                      {"points", std::move(points)},
                      {"a_year", t.year},
                      {"a_year_sd", t.year_sd},
                      {"limit", number(t.limit)},
                      {"crosses", t.crosses ? Json(work::day_text(*t.crosses)) : Json()},
                      {"far", t.far ? Json(say(*t.far)) : Json()},
                      {"says", t.says ? Json(say(*t.says)) : Json()}});
  }
  out["trends"] = std::move(trends);
  return printed(out, 2);
}

} // namespace mavrel::report
