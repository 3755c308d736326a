#include "app/stages/fit_up/questions.h"

#include "app/desk/clock.h"

namespace mavrel::app {

namespace {

using FitUp = assess::Answered<assess::FitUpFindingsQuestion>;

/// A function of the fit-up alone.
template <class AnswerType, AnswerType (*answered)(const assess::FitUpGiven&)>
struct OfFitUp {
  using Given = FitUp;
  using Answer = AnswerType;
  static Answer answer(const Given& given) { return answered(given.given()); }
};
std::vector<assess::HoldPoint> points(const assess::FitUpGiven& given) {
  return assess::hold_points(given);
}
using ChecksQuestion = OfFitUp<std::vector<assess::HoldPoint>, points>;
using RoutesQuestion = OfFitUp<std::vector<assess::JudgedRoute>, assess::judged_routes>;
using TemplatesQuestion = OfFitUp<assess::Templates, assess::templates_of>;
using PlacesQuestion = OfFitUp<std::vector<assess::JudgedPlace>, assess::judged_places>;

struct PlanQuestion {
  struct Given {
    FitUp fit_up;
    std::optional<work::Moment> now;
    friend bool operator==(const Given&, const Given&) = default;
  };
  struct Answer {
    assess::PlanGiven given;
    Expected<assess::Plan> plan;
  };
  static Answer answer(const Given& asked) {
    assess::PlanGiven given = assess::plan_given(asked.fit_up.given(), asked.now);
    auto plan = assess::plan_of(given);
    return {std::move(given), std::move(plan)};
  }
};

struct CutQuestion {
  struct Given {
    FitUp fit_up;
    assess::Answered<TemplatesQuestion> templates;
    assess::Answered<RoutesQuestion> routes;
    friend bool operator==(const Given&, const Given&) = default;
  };
  using Answer = assess::CutList;
  static Answer answer(const Given& given) {
    return assess::cut_list(given.fit_up.given(), *given.templates, *given.routes);
  }
};

struct BuyQuestion {
  struct Given {
    FitUp fit_up;
    assess::Answered<CutQuestion> cut;
    std::optional<work::Moment> now;
    friend bool operator==(const Given&, const Given&) = default;
  };
  using Answer = assess::BuyList;
  static Answer answer(const Given& given) {
    auto out = assess::buy_list(given.fit_up.given(), *given.cut, *given.cut.given().routes);
    assess::add_order_days(given.fit_up.given(), out, given.now);
    return out;
  }
};

bool is_dated(const Desk& desk) {
  return work::parse_day(desk.build().shop->first_day).has_value();
}
/// The minute that the plan is of: it turns by itself, not while a page is at work.
std::optional<work::Moment> minute_of_plan(const Desk& desk) {
  return is_dated(desk) ? std::optional(desk.answers().moment()) : std::nullopt;
}

const PlanQuestion::Answer& planned(const Desk& desk) {
  return desk.answers().at_once<PlanQuestion>({desk.assessment().fit_up, minute_of_plan(desk)});
}
const assess::Answered<CutQuestion>& cut(const Desk& desk) {
  const FitUp& fit_up = desk.assessment().fit_up;
  return desk.answers().answered<CutQuestion>(
      {fit_up, desk.answers().answered<TemplatesQuestion>(fit_up), desk.answers().answered<RoutesQuestion>(fit_up)});
}

} // namespace

std::optional<work::Moment> now_in_plan(const Desk& desk) {
  return is_dated(desk) ? std::optional(clock_now()) : std::nullopt;
}

const assess::PlanGiven& plan_given_of(const Desk& desk) {
  return planned(desk).given;
}
const Expected<assess::Plan>& plan_of(const Desk& desk) {
  return planned(desk).plan;
}
const std::vector<assess::HoldPoint>& checks_of(const Desk& desk) {
  return desk.answers().at_once<ChecksQuestion>(desk.assessment().fit_up);
}
const std::vector<assess::JudgedRoute>& routes_of(const Desk& desk) {
  return desk.answers().at_once<RoutesQuestion>(desk.assessment().fit_up);
}
const assess::Templates& templates_of(const Desk& desk) {
  return desk.answers().at_once<TemplatesQuestion>(desk.assessment().fit_up);
}
const assess::CutList& cut_list_of(const Desk& desk) {
  return *cut(desk);
}
const assess::BuyList& buy_list_of(const Desk& desk) {
  return desk.answers().at_once<BuyQuestion>({desk.assessment().fit_up, cut(desk), minute_of_plan(desk)});
}
const std::vector<assess::JudgedPlace>& places_of(const Desk& desk) {
  return desk.answers().at_once<PlacesQuestion>(desk.assessment().fit_up);
}

} // namespace mavrel::app
