// What must hold on any car with any bag.
#include "assess/asked.h"
#include "random_car.h"

#include "assess/assess.h"
#include "assess/bags/gauge.h"
#include "assess/bags/judge.h"
#include "assess/bags/ride.h"
#include "assess/bags/roll.h"
#include "assess/bags/softening.h"
#include "assess/bags/weather.h"
#include "assess/end/stroke.h"
#include "assess/search/search.h"
#include "assess/survey/loads.h"
#include "report/assessment_json.h"

#include <nlohmann/json.hpp>

#include <cmath>
#include <functional>

namespace mavrel::assess {
namespace {

struct Posed {
  test::RandomCar car;
  std::vector<CaseLoad> loads;
  Assessment assessment;
  std::array<FittedEnd, 2> ends;

  Posed() : car(test::random_car()), loads(case_loads(car.build)), assessment(assess(car.build, car.shelf)) {
    for (const End end : build::both_ends)
      ends[build::at(end)] = fitted_end(car.build, car.shelf, end);
  }
  /// Ends that stand at their road height.
  [[nodiscard]] std::vector<End> standing() const {
    std::vector<End> out;
    for (const End end : build::both_ends) {
      const auto& reach = assessment.end(end).windows.reach;
      const FittedEnd& one = ends[build::at(end)];
      if (reach && one.road && reach->contains(*one.road) && posed_end(one, *one.road, 0)) out.push_back(end);
    }
    return out;
  }
  [[nodiscard]] const Window& reach(End end) const { return *assessment.end(end).windows.reach; }
  [[nodiscard]] const FittedEnd& end(End e) const { return ends[build::at(e)]; }
};

TEST(RandomCar, MostStandAndSomeDoNot) {
  int standing = 0, all = 0;
  EXPECT_TRUE(rc::check("the generator makes cars worth testing", [&] {
    const Posed posed;
    standing += static_cast<int>(posed.standing().size());
    all += 2;
  }));
  EXPECT_GT(standing, all / 3);
  EXPECT_LT(standing, all);
}

TEST(RandomCar, RoadLiesInsideReachAndMoreReserveNeverWidensIt) {
  EXPECT_TRUE(rc::check("windows nest", [] {
    test::RandomCar car = test::random_car();
    const Assessment before = assess(car.build, car.shelf);
    auto& brief = car.build.variant().brief;
    brief.bump_travel += test::between(0, 0.02);
    brief.rebound_reserve += test::between(0, 0.02);
    brief.road_pressure_share *= test::between(0.7, 1);
    const Assessment after = assess(car.build, car.shelf);
    for (const End end : build::both_ends) {
      const Windows &a = before.end(end).windows, &b = after.end(end).windows;
      if (a.road && a.reach) {
        RC_ASSERT(a.road->low.height >= a.reach->low.height - 1e-9);
        RC_ASSERT(a.road->high.height <= a.reach->high.height + 1e-9);
      }
      RC_ASSERT(a.reach.has_value() == b.reach.has_value());
      if (!a.road) RC_ASSERT(!b.road);
      // The window that holds road height, if one does, only shrinks.
      const auto road = fitted_end(car.build, car.shelf, end).road;
      if (b.road && a.road && road && b.road->contains(*road) && a.road->contains(*road))
        RC_ASSERT(b.road->width() <= a.road->width() + 1e-9);
    }
  }));
}

/// The same car seen in a mirror along its middle.
Build mirrored(Build b) {
  for (build::EndSurvey& end : b.ends) {
    std::swap(end.corners[0], end.corners[1]);
    std::swap(end.cycle, end.cycle_right);
    for (std::size_t i = 0; i < end.obstacles.size(); ++i) {
      build::Obstacle& o = end.obstacles[i];
      o.y = -o.y, o.to_y = -o.to_y, o.turn = -o.turn;
    }
  }
  for (std::size_t c = 0; c < b.load_cases.size(); ++c)
    for (std::size_t i = 0; i < b.load_cases[c].masses.size(); ++i)
      b.load_cases[c].masses[i].y = -b.load_cases[c].masses[i].y;
  return b;
}
/// Windows alike, and the same things found.
void alike(const Assessment& a, const Assessment& b) {
  const auto near = [](const std::optional<Window>& x, const std::optional<Window>& y) {
    RC_ASSERT(x.has_value() == y.has_value());
    if (!x) return;
    RC_ASSERT(std::abs(x->low.height - y->low.height) < 1e-7);
    RC_ASSERT(std::abs(x->high.height - y->high.height) < 1e-7);
  };
  for (const End end : build::both_ends) {
    near(a.end(end).windows.reach, b.end(end).windows.reach);
    near(a.end(end).windows.road, b.end(end).windows.road);
  }
  const auto codes = [](const Assessment& of) {
    std::vector<std::string> out;
    for (const Finding& f : of.findings)
      out.push_back(f.code);
    std::sort(out.begin(), out.end());
    return out;
  };
  RC_ASSERT(codes(a) == codes(b));
}

TEST(RandomCar, AMirroredCarHasTheSameWindows) {
  EXPECT_TRUE(rc::check("left and right are names", [] {
    const test::RandomCar car = test::random_car();
    alike(assess(car.build, car.shelf), assess(mirrored(car.build), car.shelf));
  }));
}

TEST(RandomCar, InAnyOrderItIsTheSameCar) {
  EXPECT_TRUE(rc::check("order of obstacles, presets and load cases", [] {
    test::RandomCar car = test::random_car();
    const Assessment before = assess(car.build, car.shelf);
    const auto turned_about = [](auto& list, std::size_t first) {
      for (std::size_t i = first, k = list.size(); i + 1 < k; ++i)
        std::swap(list[i], list[--k]);
    };
    for (build::EndSurvey& end : car.build.ends)
      turned_about(end.obstacles, 0);
    turned_about(car.build.variant().brief.presets, 0);
    turned_about(car.build.load_cases, 1); // the first is how it was weighed
    alike(before, assess(car.build, car.shelf));
  }));
}

TEST(RandomCar, EveryFindingIsASentenceWithItsNumbersFilledIn) {
  EXPECT_TRUE(rc::check("findings read well", [] {
    const Posed posed;
    for (const Finding& f : posed.assessment.findings)
      for (const Message* part : {&f.title, &f.reason, &f.way_out}) {
        const std::string text = say(*part);
        RC_ASSERT(text.find('{') == std::string::npos);
        RC_ASSERT(text.find('?') == std::string::npos); // shown for numbers that are none
      }
  }));
}

TEST(RandomCar, ItsAssessmentIsJsonWithoutANull) {
  EXPECT_TRUE(rc::check("numbers everywhere", [] {
    const Posed posed;
    const std::string text = report::assessment_json(posed.car.build, posed.assessment);
    // The library writes a number that is none as null: nowhere may one stand among the numbers of a track.
    const auto json = nlohmann::json::parse(text);
    std::size_t numbers = 0;
    const std::function<void(const nlohmann::json&)> walk = [&](const nlohmann::json& at) {
      if (at.is_number()) RC_ASSERT(std::isfinite(at.get<double>())), ++numbers;
      if (at.is_array())
        for (const auto& one : at)
          RC_ASSERT(!one.is_null());
      if (at.is_structured())
        for (const auto& one : at)
          walk(one);
    };
    walk(json);
    RC_ASSERT(numbers > 20);
    for (const char* end : {"front", "rear"})
      for (const auto& preset : json[end]["presets"])
        if (preset.contains("cases"))
          for (const auto& state : preset["cases"])
            if (state.contains("bag_height_m")) RC_ASSERT(state["gauge_pressure_pa"].is_number());
  }));
}

TEST(RandomCar, SofteningKeepsItsOrder) {
  EXPECT_TRUE(rc::check("open is softer than as fitted, shut the stiffest", [] {
    const Posed posed;
    for (const End e : posed.standing()) {
      const auto soft = softening(posed.car.build, posed.end(e), *posed.end(e).road, 0);
      RC_ASSERT(soft.has_value());
      RC_ASSERT(soft->open_rate <= soft->shut_rate + 1e-6);
      if (!soft->bounce || !soft->bounce_open || !soft->bounce_shut) continue;
      RC_ASSERT(*soft->bounce_open <= *soft->bounce + 1e-9);
      RC_ASSERT(*soft->bounce <= *soft->bounce_shut + 1e-9);
      RC_ASSERT(soft->line_damping >= 0);
      for (std::size_t i = 1; i < soft->curve.size(); ++i)
        RC_ASSERT(soft->curve[i].stiffness >= soft->curve[i - 1].stiffness - 1e-6 * std::abs(soft->shut_rate));
      if (soft->fitting_bore) RC_ASSERT(*soft->fitting_bore >= 0.001 && *soft->fitting_bore <= 0.08);
      RC_ASSERT((soft->added > 0) == !soft->reason.empty());
    }
  }));
}

TEST(RandomCar, ASealedStrokeRisesInBumpAndKeepsWithinItsStops) {
  EXPECT_TRUE(rc::check("pressure falls with height", [] {
    const Posed posed;
    for (const End e : posed.standing()) {
      const auto stroke = stroke_through(posed.end(e), *posed.end(e).road, 0);
      RC_ASSERT(stroke.has_value());
      for (std::size_t i = 1; i < stroke->points.size(); ++i) {
        RC_ASSERT(stroke->points[i].quick_pressure < stroke->points[i - 1].quick_pressure);
        RC_ASSERT(stroke->points[i].slow_pressure < stroke->points[i - 1].slow_pressure);
        RC_ASSERT(stroke->points[i].H <= stroke->ends.rebound.height + 1e-9);
      }
      for (const StrokeEnd* one : {&stroke->ends.bump, &stroke->ends.rebound}) {
        RC_ASSERT(one->added_taking_part >= 0);
        RC_ASSERT(one->added_taking_part <= posed.end(e).model.setting.added_volume + 1e-12);
        RC_ASSERT(one->pressure.has_value());
      }
      const double p = posed_end(posed.end(e), *posed.end(e).road, 0)->state.pressure;
      RC_ASSERT(*stroke->ends.bump.pressure >= p - 1 && *stroke->ends.rebound.pressure <= p + 1);
    }
  }));
}

TEST(RandomCar, WeatherThereAndBackAgainIsWhereItStood) {
  EXPECT_TRUE(rc::check("a sealed car comes back with the sun", [] {
    const Posed posed;
    for (const End e : posed.standing()) {
      const FittedEnd& end = posed.end(e);
      const double mass = end.model.loads[0]->sprung_mass, T = test::between(240, 330), z = test::between(0, 3000);
      const auto there =
          sealed_corner(end, posed.reach(e), *end.road, mass, end.model.setting.ambient.temperature, {z, T});
      RC_ASSERT(there.has_value());
      const auto travel = free_travel(end.on(), Meeting::standing);
      RC_ASSERT(travel && there->H >= travel->low - 1e-9 && there->H <= travel->high + 1e-9);
      if (there->rests_on != RestsOn::air || !posed.reach(e).contains(there->H)) continue;
      FittedEnd moved = end;
      moved.model.setting.ambient = {z, T};
      const auto back = sealed_corner(moved, posed.reach(e), there->H, mass, T, end.model.setting.ambient);
      RC_ASSERT(back.has_value());
      // With an odd card another height may carry the load nearer by; then it is nearer than where it came from.
      RC_ASSERT(std::abs(back->H - *end.road) < 1e-6 || std::abs(back->H - there->H) < std::abs(*end.road - there->H));
    }
  }));
}

TEST(RandomCar, ColderIsNeverHigher) {
  EXPECT_TRUE(rc::check("height follows temperature", [] {
    const Posed posed;
    for (const End e : posed.standing()) {
      const FittedEnd& end = posed.end(e);
      const double mass = end.model.loads[0]->sprung_mass;
      double last = 1e9;
      for (const double T : {330.0, 310.0, 293.15, 280.0, 265.0, 250.0}) {
        const auto at =
            sealed_corner(end, posed.reach(e), *end.road, mass, end.model.setting.ambient.temperature, {0, T});
        RC_ASSERT(at.has_value());
        RC_ASSERT(at->H <= last + 1e-7);
        last = at->H;
      }
    }
  }));
}

TEST(RandomCar, AGaugesBandGrowsWithItsErrorAndHoldsTheHeight) {
  EXPECT_TRUE(rc::check("bands nest", [] {
    const Posed posed;
    for (const End e : posed.standing()) {
      const FittedEnd& end = posed.end(e);
      const auto fine = gauge_at(end, posed.reach(e), *end.road, 0, {2e3, 10}),
                 coarse = gauge_at(end, posed.reach(e), *end.road, 0, {2e4, 10});
      RC_ASSERT(fine && coarse);
      RC_ASSERT(fine->low <= *end.road + 1e-12 && fine->high >= *end.road - 1e-12);
      RC_ASSERT(coarse->low <= fine->low + 1e-9 && coarse->high >= fine->high - 1e-9);
    }
  }));
}

TEST(RandomCar, LeansLessSeparateAndNeverByTrappedAirJoined) {
  EXPECT_TRUE(rc::check("roll", [] {
    const Posed posed;
    if (posed.standing().size() < 2) return;
    const auto answer = roll(posed.car.build, posed.ends, {*posed.ends[0].road, *posed.ends[1].road}, 0);
    RC_ASSERT(answer.has_value());
    for (std::size_t e = 0; e < 2; ++e) {
      RC_ASSERT(answer->separate.axles[e].air > 0);
      RC_ASSERT(answer->joined.axles[e].air == 0);
      RC_ASSERT(answer->joined.axles[e].geometry == answer->separate.axles[e].geometry);
    }
    if (answer->joined.angle && answer->separate.angle)
      RC_ASSERT(*answer->separate.angle <= *answer->joined.angle + 1e-12);
    if (answer->joined.angle) RC_ASSERT(answer->separate.angle.has_value());
    RC_ASSERT(answer->fitted.angle == answer->separate.angle);
    RC_ASSERT(answer->joined.bar_wanted >= answer->separate.bar_wanted);
  }));
}

TEST(RandomCar, RideHasAnAnswerWhereTheCarStands) {
  EXPECT_TRUE(rc::check("ride", [] {
    const Posed posed;
    const Ride answer = ride(posed.car.build, posed.car.shelf, 0);
    RC_ASSERT(answer.cases.size() == posed.loads.size());
    for (const RideCase& one : answer.cases)
      for (const auto& end : one.ends)
        if (end) {
          RC_ASSERT(end->frequency > 0 && std::isfinite(end->frequency));
          RC_ASSERT(end->damping_taken() > 0);
        }
    if (!answer.settling) return;
    for (const double pitch : answer.settling->now.pitch)
      RC_ASSERT(std::isfinite(pitch));
  }));
}

TEST(RandomCar, JudgingTheShelfAgreesWithTheAssessment) {
  EXPECT_TRUE(rc::check("a bag that fits stops nothing", [] {
    const Posed posed;
    for (const End e : build::both_ends)
      for (const BagVerdict& v : judge_shelf(posed.car.build, posed.car.shelf, e, 0)) {
        if (v.bag != posed.car.build.variant().fit[build::at(e)].bag || v.fit != Fit::fits) continue;
        for (const Finding& f : posed.assessment.findings)
          RC_ASSERT(!(f.code == "preset_outside" && f.end == e));
      }
  }));
}

TEST(RandomCar, ASearchOffersOnlyWhatPasses) {
  EXPECT_TRUE(rc::check("search", [] {
    const Posed posed;
    const auto found = search(posed.car.build, posed.car.shelf, {{0, 2e-3}, {0, 0.015}, {0.01}}, {1, {}, {}});
    RC_ASSERT(found.has_value());
    for (std::size_t i = 0; i < found->choices.size(); ++i) {
      build::Build fitted = posed.car.build;
      fitted.variant() = with_choice(fitted.variant(), found->choices[i]);
      for (const Finding& f : assess(fitted, posed.car.shelf).findings)
        RC_ASSERT(!(f.code == "preset_outside" || f.code == "no_road_window" || f.code == "bag_too_wide"));
      for (std::size_t j = 0; j < found->choices.size(); ++j)
        RC_ASSERT(!dominates(found->choices[j].figures, found->choices[i].figures));
    }
  }));
}

} // namespace
} // namespace mavrel::assess
