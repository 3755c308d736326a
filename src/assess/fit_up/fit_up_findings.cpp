#include "assess/fit_up/fit_up_findings.h"

#include "assess/fit_up/check_findings.h"
#include "assess/fit_up/cut_list.h"
#include "assess/fit_up/places.h"
#include "assess/fit_up/plan.h"
#include "build/names.h"

#include <fmt/format.h>

#include <algorithm>

namespace mavrel::assess {

namespace {

constexpr FindingRow finding_rows[] = {
    {"fit_up_check_stale", &stages::fit_up},   {"fit_up_check_failed", &stages::fit_up},
    {"fit_up_order", &stages::fit_up},         {"fit_up_typed", &stages::fit_up},
    {"fit_up_through_wheel", &stages::fit_up}, {"fit_up_line_hot", &stages::fit_up},
    {"fit_up_line_bend", &stages::fit_up},     {"fit_up_line_slack", &stages::fit_up},
    {"fit_up_template", &stages::fit_up},      {"fit_up_cut", &stages::fit_up},
    {"fit_up_radio", &stages::fit_up},
};
consteval const FindingRow& row(std::string_view code) {
  return row_in(finding_rows, code);
}

class FitUpFindings {
public:
  FitUpFindings(const FitUpGiven& given, Findings& out) : given_(given), fit_up_(*given.fit_up), out_(out) {}

  void find() {
    // Nothing is said of a fit-up that nobody has begun: it is worked out when its page is opened.
    if (!fit_up_.checks.empty()) checks();
    if (!fit_up_.jobs.empty() || !given_.shop->habits.empty() || !given_.shop->days_off.empty()) order();
    if (!fit_up_.routes.empty()) routes();
    if (fit_up_.plates != build::FitUp{}.plates) plates();
    if (fit_up_.handset == build::HandsetBy::radio) radio();
  }

private:
  Finding& add(const FindingRow& what, Severity severity, std::optional<End> end, const std::string& field,
               Message title, Message reason, Message way_out) {
    return add_finding(out_, what, severity, end, fmt::format("variants.{}.fit_up.{}", given_.variant, field),
                       std::move(title), std::move(reason), std::move(way_out));
  }

  void checks() {
    for (const HoldPoint& point : hold_points(given_))
      if (point.row->stage != CheckStage::proving)
        tell_of_check(given_, point, row("fit_up_check_stale"), row("fit_up_check_failed"), out_);
  }

  void order() {
    // Parts to come take time and never an order that is none: they are left out here.
    PlanGiven plan{jobs_of(given_, {}), {}, given_.shop, std::nullopt};
    for (const Message& mistake : plan.list.mistakes)
      add(row("fit_up_typed"), Severity::caution, std::nullopt, "order",
          {words("Something in the plan can’t be read"), {}}, mistake, {words("Type it as it is shown."), {}});
    if (const auto trouble = plan_trouble(plan))
      add(row("fit_up_order"), Severity::stop, std::nullopt, "order", {words("The plan can’t be made"), {}}, *trouble,
          {words("Mend it on the plan; until then it has no days."), {}});
  }

  void routes() {
    for (const JudgedRoute& r : judged_routes(given_)) {
      if (!r.laid) continue;
      const std::string place = fmt::format("routes.{}.slack_m", r.index);
      for (const RouteTyre& t : r.tyres) {
        if (t.gap >= line_from_moving) continue;
        Finding& f = add(
            row("fit_up_through_wheel"), t.through ? Severity::stop : Severity::caution, t.end, place,
            t.through ? Message{words("A line runs through the wheel: {0}"), {r.name}}
                      : Message{words("A line runs close to the tyre: {0}"), {r.name}},
            t.through ? Message{words("At {0} the tyre is where the line is."), {metres(t.H)}}
                      : Message{words("At {0} the tyre comes to {1}; {2} is wanted."),
                                {metres(t.H), told_from(metres(t.gap), line_from_moving), metres(line_from_moving)}},
            {words("Lead it further inboard, or higher."), {}});
        f.number = metres(t.gap), f.limit = metres(line_from_moving);
      }
      if (r.hot && r.hot->gap < r.hot->wanted) {
        Finding& f =
            add(row("fit_up_line_hot"), Severity::caution, std::nullopt, place,
                {words("A line lies too near to heat: {0}"), {r.name}},
                {words("{0} from {1}; {2} is wanted."),
                 {told_from(metres(std::max(0.0, r.hot->gap)), r.hot->wanted), r.hot->name, metres(r.hot->wanted)}},
                {words("Lead it round, or shield what is hot."), {}});
        f.number = metres(r.hot->gap), f.limit = metres(r.hot->wanted);
      }
      if (r.tightest && r.least_bend && *r.tightest < *r.least_bend - 1e-9) {
        Finding& f = add(row("fit_up_line_bend"), Severity::caution, std::nullopt, place,
                         {words("A line is bent too tightly: {0}"), {r.name}},
                         {words("There is room for a radius of {0}; {1} bears {2}."),
                          {told_from(metres(*r.tightest), *r.least_bend), r.part, metres(*r.least_bend)}},
                         {words("Points further apart, or an elbow there."), {}});
        f.number = metres(*r.tightest), f.limit = metres(*r.least_bend);
      }
      if (r.slack < r.slack_wanted - 1e-9) {
        Finding& f = add(row("fit_up_line_slack"), Severity::caution, std::nullopt, place,
                         {words("A line is too short for travel and lock: {0}"), {r.name}},
                         {words("It has {0} of slack; ends, travel and steering take {1}."),
                          {told_from(metres(r.slack), r.slack_wanted), metres(r.slack_wanted)}},
                         {words("More slack."), {}});
        f.number = metres(r.slack), f.limit = metres(r.slack_wanted);
      }
    }
  }

  static std::optional<End> end_of(const std::string& key) {
    if (key.starts_with("front.")) return End::front;
    if (key.starts_with("rear.")) return End::rear;
    return std::nullopt;
  }
  static std::string plates_of(const std::string& key) {
    return key.starts_with("front.") ? "front_plates.thickness_m" : "rear_plates.thickness_m";
  }
  void plates() {
    const Templates templates = templates_of(given_);
    for (const RefusedTemplate& t : templates.refused)
      add(row("fit_up_template"), Severity::caution, end_of(t.key), plates_of(t.key),
          {words("Can’t be drawn: {0}"), {t.title}}, t.why, {words("Other numbers on Templates."), {}});
    for (const Message& trouble : cut_list(given_, templates, {}).troubles)
      add(row("fit_up_cut"), Severity::caution, std::nullopt, "rear_plates.thickness_m",
          {words("Something can’t be cut"), {}}, trouble, {words("Other numbers, or longer bars."), {}});
  }

  void radio() {
    for (const JudgedPlace& p : judged_places(given_))
      for (const PlaceWord& w : p.words)
        if (w.aspect == PlaceAspect::radio && w.judged == PlaceJudged::bad)
          add(row("fit_up_radio"), Severity::caution, std::nullopt, "handset",
              {words("The handset won’t be heard"), {}}, w.said,
              {words("A handset by cable, or a controller in the open."), {}});
  }

  const FitUpGiven& given_;
  const build::FitUp& fit_up_;
  Findings& out_;
};

} // namespace

const std::span<const FindingRow> fit_up_finding_rows = finding_rows;

Findings find_in_fit_up(const FitUpGiven& given) {
  Findings out;
  FitUpFindings(given, out).find();
  return out;
}

} // namespace mavrel::assess
