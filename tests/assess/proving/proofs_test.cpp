// The checks of Proving: what they ask for, in which order, what they stale with, what a difference points to, and what
// is handed over.
#include "assess/proving/hand_over.h"
#include "assess/proving/pointing.h"
#include "assess/proving/proved_cars.h"
#include "assess/proving/proving_findings.h"

namespace mavrel::assess {
namespace {

TEST(Predictions, OneCornerAloneTakesLongerThroughANarrowerWay) {
  const LevelingGiven given = rolling(fresh_estate());
  const auto as_is = corner_times(given, 0), half = corner_times(given, 0, 0.5);
  ASSERT_TRUE(as_is) << say(as_is.error());
  ASSERT_TRUE(half);
  EXPECT_GT(as_is->fill, 0.02);
  // The rest is what dampers, friction and the body's mass take.
  EXPECT_GT(half->fill / as_is->fill, 1.3);
  EXPECT_LT(half->fill / as_is->fill, 2.1);
  EXPECT_GT(half->vent / as_is->vent, 1.3);
}

TEST(Predictions, EveryAwaitedFigureIsSaidOnBothDemoCars) {
  for (const Build& b : {fresh_estate(), fresh_half_ton()}) {
    const FitUpGiven given = fit_up_of(b);
    const auto predicted = predict(rolling(b), {});
    for (const Message& m : predicted->trouble)
      ADD_FAILURE() << say(m);
    for (const HoldPoint& p : hold_points(given, &predicted->figures))
      for (const AskedFigure& f : p.figures) {
        EXPECT_FALSE(f.awaited) << p.id << " " << f.key;
        if (f.kind == Kind::time) {
          ASSERT_TRUE(f.designed);
          EXPECT_TRUE(f.right(*f.designed));
          EXPECT_FALSE(f.right(2 * *f.designed + 1));
        }
      }
  }
}

TEST(Proofs, AreMadeInTheirOrder) {
  Build b = fresh_estate();
  const auto before = [&](const char* id) { return point_in(hold_points(fit_up_of(b)), id).before; };
  EXPECT_EQ(before("leak_hold"), std::vector<std::string>{"leak_minutes"});
  const auto points = hold_points(fit_up_of(b));
  build::HoldCheck note;
  note.check = "leak_hold";
  for (const AskedFigure& f : point_in(points, "leak_hold").figures)
    note.figures.push_back(figure_of(f, 0.0));
  const auto early = signed_check(point_in(points, "leak_hold"), note, {}, "Tamsin", "2026-12-01");
  ASSERT_FALSE(early);
  EXPECT_NE(say(early.error()).find("comes first"), std::string::npos);
  b = signed_off(b, "leak_minutes");
  EXPECT_TRUE(before("leak_hold").empty());
  // Of an end's own checks the other end's do not come first.
  b = signed_off(b, "front.stop_first");
  for (const std::string& id : before("road_test"))
    EXPECT_NE(id, "front.stop_first");
}

TEST(Proofs, ATyreStalesWhatItMovesAndNothingElse) {
  Build b = fresh_estate();
  for (const HoldPoint& p : hold_points(fit_up_of(b)))
    if (is_proof(p)) b = signed_off(b, p.id);
  for (const HoldPoint& p : hold_points(fit_up_of(b)))
    if (is_proof(p)) {
      EXPECT_EQ(p.state, CheckState::passed) << p.id;
    }
  b.variant().fit[0].wheel = "215/40R18 8 ET35";
  for (const HoldPoint& p : hold_points(fit_up_of(b))) {
    if (!is_proof(p)) continue;
    const bool moves = p.id == "front.lock_gaps" || p.id == "front.top_out" || p.id == "front.stop_first" ||
                       p.id == "heights" || p.id == "camber" || p.id == "lamps" || p.id == "road_test" ||
                       p.id == "times" || p.id == "pressures" || p.id == "calibrated" || p.id == "leak_minutes" ||
                       p.id == "leak_hold";
    if (!moves) {
      EXPECT_EQ(p.state, CheckState::passed) << p.id;
    }
  }
  for (const char* id : {"front.lock_gaps", "heights", "lamps"})
    EXPECT_EQ(state_of(b, id), CheckState::stale) << id;
  for (const char* id : {"rear.lock_gaps", "rear.top_out", "fill"})
    EXPECT_EQ(state_of(b, id), CheckState::passed) << id;
}

TEST(Proofs, OptionalFiguresMayStayOpen) {
  Build b = fresh_estate();
  b = signed_off(b, "heights");
  const auto points = hold_points(fit_up_of(b));
  const HoldPoint& p = point_in(points, "camber");
  build::HoldCheck note;
  note.check = p.id;
  for (const AskedFigure& f : p.figures)
    if (!f.optional) note.figures.push_back(figure_of(f, measured_for(f, true)));
  const auto done = signed_check(p, note, {}, "Tamsin", "2026-12-01");
  ASSERT_TRUE(done) << say(done.error());
  EXPECT_EQ(done->result, build::CheckResult::passed);
}

TEST(Pointing, ASlowCornerIsAPinchedLineASlowFillItsValveAndAllSlowTheTank) {
  const Build b = fresh_estate();
  const auto predicted = predict(rolling(b), {});
  const auto at = [&](const std::function<double(const AskedFigure&)>& times) {
    const Build m = measured_on(b, b, "times", [&](const AskedFigure& f) { return *f.designed * (times(f) - 1); });
    return points_to(point_in(hold_points(fit_up_of(m), &predicted->figures), "times"));
  };
  const auto says = [](const std::vector<Pointer>& all, const char* word) {
    return std::any_of(all.begin(), all.end(),
                       [&](const Pointer& p) { return say(p.cause).find(word) != std::string::npos; });
  };
  EXPECT_TRUE(at([](const AskedFigure&) { return 1.0; }).empty());
  const auto pinched = at([](const AskedFigure& f) { return f.key.ends_with("rear_left") ? 2.2 : 1; });
  ASSERT_EQ(pinched.size(), 1U);
  EXPECT_TRUE(says(pinched, "pinched"));
  EXPECT_TRUE(says(at([](const AskedFigure& f) { return f.key == "fill_front_right" ? 1.8 : 1; }), "fill valve"));
  EXPECT_TRUE(says(at([](const AskedFigure& f) { return f.key == "vent_front_right" ? 1.8 : 1; }), "silencer"));
  EXPECT_TRUE(says(at([](const AskedFigure&) { return 1.8; }), "tank"));
  const auto quick = at([](const AskedFigure&) { return 0.7; }); // said once, not again of all at once
  ASSERT_EQ(quick.size(), 1U);
  EXPECT_TRUE(says(quick, "wider"));
  // Slow only all together: what all go through; where one corner lags it says why itself.
  EXPECT_TRUE(says(at([](const AskedFigure& f) { return f.key == "all_up" ? 1.6 : 1; }), "feed line"));
  EXPECT_TRUE(says(at([](const AskedFigure& f) { return f.key == "all_down" ? 1.6 : 1; }), "silencer"));
  EXPECT_EQ(at([](const AskedFigure& f) { return f.key == "all_up" || f.key == "fill_front_right" ? 1.8 : 1; }).size(),
            1U);
}

TEST(Pointing, OneSideOffIsItsRodBothAreTheStoredHeight) {
  const Build b = fresh_estate();
  const auto at = [&](const std::function<double(const AskedFigure&)>& off) {
    const auto found = points_to(point_in(hold_points(fit_up_of(measured_on(b, b, "heights", off))), "heights"));
    return found.empty() ? std::string() : say(found[0].cause);
  };
  EXPECT_EQ(at([](const AskedFigure&) { return 0; }), "");
  EXPECT_NE(at([](const AskedFigure& f) { return f.key == "rear_road_left" ? -0.012 : 0; }).find("One side"),
            std::string::npos);
  EXPECT_NE(at([](const AskedFigure& f) { return f.key.starts_with("rear_road") ? 0.012 : 0; }).find("alike"),
            std::string::npos);
}

TEST(Pointing, UpAndDownFurtherApartIsFrictionBothHigherIsLoad) {
  const Build b = fresh_estate();
  const auto at = [&](double up, double down) {
    const auto found = points_to(point_in(hold_points(fit_up_of(measured_on(b, b, "pressures",
                                                                            [&](const AskedFigure& f) {
                                                                              return f.key == "up_front_left"     ? up
                                                                                     : f.key == "down_front_left" ? down
                                                                                                                  : 0.0;
                                                                            }))),
                                          "pressures"));
    return found.empty() ? std::string() : say(found[0].cause);
  };
  EXPECT_EQ(at(0, 0), "");
  EXPECT_NE(at(6e4, -6e4).find("More friction"), std::string::npos);
  EXPECT_NE(at(6e4, 6e4).find("more than was weighed"), std::string::npos);
}

TEST(HandOver, IsWholeOnlyWhereEveryProofStands) {
  Build b = fresh_estate();
  EXPECT_FALSE(hand_over(fit_up_of(b), hold_points(fit_up_of(b)), std::nullopt).all_proved());
  for (const HoldPoint& p : hold_points(fit_up_of(b)))
    if (is_proof(p)) b = signed_off(b, p.id);
  const FitUpGiven given = fit_up_of(b);
  const HandOver over = hand_over(given, hold_points(given), DrainRound{60, true});
  EXPECT_TRUE(over.all_proved());
  ASSERT_EQ(over.presets.size(), b.variant().brief.presets.size());
  EXPECT_EQ(over.presets[0].height[0], *given.end(End::front)->fitted.presets[0]);
  EXPECT_GE(over.never.size(), 4U);
  b.variant().fit[1].bag = "Osier O-118";
  EXPECT_FALSE(hand_over(fit_up_of(b), hold_points(fit_up_of(b)), std::nullopt).all_proved());
}

} // namespace
} // namespace mavrel::assess
