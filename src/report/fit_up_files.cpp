#include "report/fit_up_files.h"

#include "build/names.h"
#include "build/names_fit_up.h"
#include "file/csv.h"
#include "report/json_tree.h"

#include <fmt/format.h>

namespace mavrel::report {

using namespace assess;

namespace {

std::string joined(const std::vector<std::string>& names) {
  std::string out;
  for (const std::string& name : names)
    out += (out.empty() ? "" : ", ") + name;
  return out;
}
Json texts(const std::vector<std::string>& list) {
  Json out = Json::array();
  for (const std::string& one : list)
    out.push_back(one);
  return out;
}
Json check_json(const HoldPoint& point) {
  Json figures = Json::array();
  for (std::size_t i = 0; i < point.figures.size(); ++i) {
    const AskedFigure& f = point.figures[i];
    figures.push_back({{"key", f.key},
                       {"name", say(f.name)},
                       {"designed", or_null(f.designed)},
                       {"least", or_null(f.least)},
                       {"most", or_null(f.most)},
                       {"measured", or_null(point.measured[i])}});
  }
  Json moved = Json::array();
  for (const MovedFigure& m : point.moved)
    moved.push_back({{"key", point.figures[m.figure].key},
                     {"what", say(name_of_moved(point.figures[m.figure], m.what))},
                     {"was", or_null(m.was)},
                     {"is", or_null(m.is)}});
  return {
      {"id", point.id},     {"name", say(point.name)}, {"state", name_of(point.state)}, {"digest", point.digest.text()},
      {"figures", figures}, {"moved", moved}};
}

} // namespace

std::string plan_json(const Plan& plan, const std::vector<HoldPoint>& checks, const std::vector<Job>& skipped) {
  Json jobs = Json::array();
  for (std::size_t i = 0; i < plan.jobs.size(); ++i) {
    const Job& j = plan.jobs[i];
    const PlannedJob& p = plan.planned[i];
    jobs.push_back({{"id", j.id},
                    {"name", say(j.name)},
                    {"hours", j.hours},
                    {"wait_h", j.wait},
                    {"people", j.people},
                    {"place", build::name_of(j.place)},
                    {"after", texts(j.after)},
                    {"earliest_h", p.path.earliest},
                    {"latest_h", p.path.latest},
                    {"float_h", p.path.slack},
                    {"critical", p.path.critical},
                    {"start_h", p.start},
                    {"end_h", p.end},
                    {"start", say(moment_name(plan, p.start))},
                    {"who", texts(p.who)},
                    {"stands", name_of(p.stands)},
                    {"why", say(j.why)},
                    {"checks", texts(j.checks)}});
    if (!j.note.taken_by.empty()) jobs.back()["taken_on"] = {{"by", j.note.taken_by}, {"why", j.note.taken_why}};
  }
  Json left_out = Json::array();
  for (const Job& j : skipped)
    left_out.push_back({{"id", j.id}, {"name", say(j.name)}, {"reason", j.note.reason}});
  Json holds = Json::array();
  for (const HoldPoint& point : checks)
    holds.push_back(check_json(point));
  Json mistakes = Json::array();
  for (const Message& m : plan.mistakes)
    mistakes.push_back(say(m));
  return printed({{"jobs", jobs},
                  {"skipped", left_out},
                  {"checks", holds},
                  {"span_h", plan.span},
                  {"shared_span_h", plan.shared_span},
                  {"work_h", plan.work_hours},
                  {"mistakes", mistakes}});
}

std::string parts_json(const FitUpGiven& given, const CutList& cut, const BuyList& buy,
                       const std::vector<JudgedRoute>& routes) {
  Json stocks = Json::array();
  for (const CutStock& stock : cut.stocks) {
    Json pieces = Json::array(), bars = Json::array();
    for (const CutPiece& piece : stock.pieces)
      pieces.push_back(
          {{"length_m", piece.length}, {"what", say(piece.what)}, {"ends", say(piece.ends)}, {"mark", piece.mark}});
    if (stock.plan)
      for (const work::CutBar& bar : stock.plan->bars) {
        Json in = Json::array();
        for (const std::size_t i : bar.pieces)
          in.push_back(stock.pieces[i].length);
        bars.push_back({{"length_m", bar.length}, {"leftover", bar.leftover}, {"pieces_m", in}, {"left_m", bar.left}});
      }
    stocks.push_back({{"stock", stock.name}, {"pieces", pieces}, {"bars", bars}});
  }
  Json lines = Json::array();
  for (const BuyLine& l : buy.lines)
    lines.push_back({{"part", l.part},
                     {"what", say(l.what)},
                     {"for", name_of(l.group)},
                     {"count", l.count},
                     {"unit", l.metres ? "m" : ""},
                     {"thread", l.thread},
                     {"sealing", say(l.sealing)},
                     {"price", or_null(l.price)},
                     {"on_shelf", l.on_shelf},
                     {"on_order", l.on_order},
                     {"ordered", l.ordered ? Json(work::day_text(*l.ordered)) : Json()},
                     {"too_many", l.too_many},
                     {"to_order", l.order},
                     {"order_by", l.order_by ? Json(work::day_text(*l.order_by)) : Json()}});
  Json ways = Json::array();
  for (const JudgedRoute& r : routes) {
    Json tyres = Json::array();
    for (const RouteTyre& t : r.tyres)
      tyres.push_back({{"end", build::key_of(t.end)}, {"gap_m", t.gap}, {"through", t.through}, {"height_m", t.H}});
    ways.push_back({{"line", r.key},
                    {"mark", r.mark},
                    {"laid", r.laid},
                    {"length_m", r.length},
                    {"slack_m", r.slack},
                    {"slack_wanted_m", r.slack_wanted},
                    {"tightest_m", or_null(r.tightest)},
                    {"least_bend_m", or_null(r.least_bend)},
                    {"heat_m", r.hot ? Json(r.hot->gap) : Json()},
                    {"tyres", tyres}});
  }
  Json places = Json::array();
  for (const JudgedPlace& p : judged_places(given)) {
    Json said = Json::object();
    for (const PlaceWord& w : p.words)
      said[name_of(w.aspect)] = {{"judged", w.judged == PlaceJudged::good   ? "good"
                                            : w.judged == PlaceJudged::care ? "care"
                                                                            : "bad"},
                                 {"said", say(w.said)}};
    places.push_back({{"what", say(p.what)}, {"part", p.part}, {"words", said}});
  }
  Json troubles = Json::array();
  for (const Message& m : cut.troubles)
    troubles.push_back(say(m));
  return printed({{"cut", stocks},
                  {"buy", lines},
                  {"parts_money", buy.parts},
                  {"ordered_money", buy.ordered},
                  {"to_pay", buy.to_pay},
                  {"unpriced", buy.unpriced},
                  {"unpriced_to_order", buy.unpriced_to_order},
                  {"routes", ways},
                  {"places", places},
                  {"troubles", troubles}});
}

std::string templates_json(const Templates& templates) {
  Json made = Json::array(), refused = Json::array();
  for (const Template& t : templates.made) {
    Json measures = Json::object();
    for (const DrawnMeasure& m : t.measures)
      measures[say(m.what)] = m.value;
    made.push_back({{"key", t.key},
                    {"title", say(t.title)},
                    {"count", t.count},
                    {"thickness_m", t.thickness},
                    {"width_m", t.width()},
                    {"height_m", t.height()},
                    {"stamp", t.stamp},
                    {"measures", measures}});
  }
  for (const RefusedTemplate& t : templates.refused)
    refused.push_back({{"key", t.key}, {"title", say(t.title)}, {"why", say(t.why)}});
  return printed({{"templates", made}, {"refused", refused}});
}

std::string schools_json(const Schools& schools) {
  Json cards = Json::array();
  for (const SchoolCard& c : schools.cards) {
    Json costs = Json::array();
    for (const SchoolCost& cost : c.costs) {
      const CostRow& row = row_of(cost.what);
      costs.push_back({{"what", row.key}, {"figures", {or_null(cost.figure[0]), or_null(cost.figure[1])}}});
    }
    cards.push_back({{"key", c.row->key},
                     {"ways", {c.row->ways[0], c.row->ways[1]}},
                     {"taken", c.row->ways[c.taken]},
                     {"risks", {c.row->risks[0], c.row->risks[1]}},
                     {"costs", costs}});
  }
  return printed({{"schools", cards}});
}

std::string plan_csv(const Plan& plan) {
  std::string out =
      "id,job,place,people,hours,wait_h,start,start_h,end_h,float_h,critical,who,stands,taken_on_by,taken_on_because\n";
  for (std::size_t i = 0; i < plan.jobs.size(); ++i) {
    const Job& j = plan.jobs[i];
    const PlannedJob& p = plan.planned[i];
    out += fmt::format("{},{},{},{},{:.2f},{:.2f},{},{:.2f},{:.2f},{:.2f},{},{},{},{},{}\n", csv_cell(j.id),
                       csv_cell(say(j.name)), build::name_of(j.place), j.people, j.hours, j.wait,
                       csv_cell(say(moment_name(plan, p.start))), p.start, p.end, p.path.slack,
                       p.path.critical ? "yes" : "no", csv_cell(joined(p.who)), name_of(p.stands),
                       csv_cell(j.note.taken_by), csv_cell(j.note.taken_why));
  }
  return out;
}

std::string cut_csv(const CutList& cut) {
  std::string out = "stock,bar,bar_mm,leftover,length_mm,what,mark,ends\n";
  for (const CutStock& stock : cut.stocks) {
    if (!stock.plan) continue;
    for (std::size_t b = 0; b < stock.plan->bars.size(); ++b) {
      const work::CutBar& bar = stock.plan->bars[b];
      for (const std::size_t i : bar.pieces) {
        const CutPiece& p = stock.pieces[i];
        out += fmt::format("{},{},{:.0f},{},{:.1f},{},{},{}\n", csv_cell(stock.name), b + 1, bar.length * 1e3,
                           bar.leftover ? "yes" : "no", p.length * 1e3, csv_cell(say(p.what)), csv_cell(p.mark),
                           csv_cell(say(p.ends)));
      }
      if (bar.left > 0)
        out += fmt::format("{},{},{:.0f},{},{:.1f},left,,\n", csv_cell(stock.name), b + 1, bar.length * 1e3,
                           bar.leftover ? "yes" : "no", bar.left * 1e3);
    }
  }
  return out;
}

std::string buy_csv(const BuyList& buy) {
  std::string out =
      "part,what,for,count,unit,thread,sealing,price,on_shelf,to_order,order_by,ordered,on_order,too_many\n";
  for (const BuyLine& l : buy.lines)
    out += fmt::format("{},{},{},{:g},{},{},{},{},{:g},{:g},{},{},{:g},{:g}\n", csv_cell(l.part), csv_cell(say(l.what)),
                       name_of(l.group), l.count, l.metres ? "m" : "", csv_cell(l.thread), csv_cell(say(l.sealing)),
                       l.price ? fmt::format("{:g}", *l.price) : "", l.on_shelf, l.order,
                       l.order_by ? work::day_text(*l.order_by) : "", l.ordered ? work::day_text(*l.ordered) : "",
                       l.on_order, l.too_many);
  return out;
}

std::string labels_csv(const std::vector<JudgedRoute>& routes) {
  std::string out = "mark,line,from,to,length_mm\n";
  for (const JudgedRoute& r : routes)
    for (int end = 0; end < 2; ++end) // one for each end of it
      out += fmt::format("{},{},{},{},{:.0f}\n", r.mark, csv_cell(say(r.name)),
                         csv_cell(say(end == 0 ? r.from_name : r.to_name)),
                         csv_cell(say(end == 0 ? r.to_name : r.from_name)), r.length * 1e3);
  return out;
}

} // namespace mavrel::report
