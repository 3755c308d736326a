#include "assess/proving/series.h"

#include "assess/proving/proved_cars.h"

#include <fmt/format.h>

namespace mavrel::assess {
namespace {

TEST(Series, ColumnsAreFoundByTheirNamesAndUnits) {
  const auto read = read_series("time_s,FL_bar,pressure_rr_pa,tank_psi,height_fl_m,temperature_c,what_else\n"
                                "100,3.2,280000,130,0.341,20,x\n400,3.1,279000,,0.340,15,y\n");
  ASSERT_TRUE(read) << say(read.error());
  ASSERT_EQ(read->series.size(), 3U);
  const auto& fl = read->series[0];
  EXPECT_EQ(fl.gauge, "front_left");
  ASSERT_EQ(fl.readings.size(), 2U);
  EXPECT_DOUBLE_EQ(fl.readings[0].time, 0); // they count from the first
  EXPECT_DOUBLE_EQ(fl.readings[1].time, 300);
  EXPECT_NEAR(*fl.readings[0].pressure, 3.2e5, 1e-6);
  EXPECT_NEAR(*fl.readings[1].temperature, 288.15, 1e-9);
  EXPECT_DOUBLE_EQ(*fl.readings[1].height, 0.340);
  EXPECT_EQ(read->series[1].gauge, "rear_right");
  EXPECT_EQ(read->series[2].gauge, "tank");
  EXPECT_EQ(read->series[2].readings.size(), 1U);
}

TEST(Series, OneGaugeAloneNeedsNoName) {
  const auto read = read_series("time_h,pressure_bar\n0,3\n6,2.9\n");
  ASSERT_TRUE(read);
  EXPECT_EQ(read->series[0].gauge, "");
  EXPECT_DOUBLE_EQ(read->series[0].readings[1].time, 21600);
}

TEST(Series, MistakesAreSaidWhereTheyStand) {
  for (const auto& [text, word] : {std::pair("a,b\n1,2\n", "time_s"),
                                   {"time_s,b\n1,2\n", "gauge"},
                                   {"time_s,tank_bar\n", "no readings"},
                                   {"time_s,tank_bar\n0,x\n", "Line 2"},
                                   {"time_s,tank_bar\n5,1\n5,1\n", "Line 3"},
                                   {"time_s,tank_bar\n0,900\n", "Line 2"},
                                   {"time_s,tank_bar\n,9\n", "time is missing"},
                                   {"time_s,fl_bar,temperature_c\n0,3,900\n", "Line 2"}}) {
    const auto read = read_series(text);
    ASSERT_FALSE(read) << text;
    EXPECT_NE(say(read.error()).find(word), std::string::npos) << say(read.error());
  }
}

TEST(Series, WhatIsTooLongIsKeptEvenlyWithBothEnds) {
  std::string text = "time_s,tank_bar\n";
  for (int i = 0; i < 5000; ++i)
    text += fmt::format("{},{}\n", i, 8.0 - i * 1e-4);
  const auto read = read_series(text);
  ASSERT_TRUE(read);
  EXPECT_EQ(read->rows, 5000U);
  EXPECT_EQ(read->kept, build::most_proof_readings);
  EXPECT_DOUBLE_EQ(read->series[0].readings.front().time, 0);
  EXPECT_DOUBLE_EQ(read->series[0].readings.back().time, 4999);
}

std::vector<build::ProofReading> night(double lost_share_an_hour, double colder) {
  std::vector<build::ProofReading> out;
  for (int i = 0; i <= 12; ++i) {
    build::ProofReading r;
    r.time = i * 3600.0;
    const double T = 293.15 - colder * i / 12;
    const double p_abs = 4.3e5 * (1 - lost_share_an_hour * i) * T / 293.15;
    r.pressure = p_abs - 101325, r.temperature = T;
    out.push_back(r);
  }
  return out;
}

TEST(Series, AColdNightIsNoLeakAndALeakIsOneInTheCold) {
  const auto cold = drop_of(night(0, 15), 12 * 3600);
  ASSERT_TRUE(cold);
  EXPECT_NEAR(cold->pressure, 0, 5);
  EXPECT_GT(cold->gauge, 2e4);
  const auto leak = drop_of(night(0.004, 15), 12 * 3600);
  ASSERT_TRUE(leak);
  EXPECT_NEAR(leak->pressure, 0.048 * 4.3e5, 0.02 * 0.048 * 4.3e5);
  EXPECT_FALSE(drop_of({}, 3600));
  // Read for an hour, said for the night.
  auto hour = night(0.004, 0);
  hour.resize(4);
  EXPECT_NEAR(drop_of(hour, 12 * 3600)->pressure, leak->pressure, 60);
}

TEST(Series, ReadingsStandForTheFigureOfAnOpenCheck) {
  Build b = fresh_estate();
  for (const char* first : {"lines", "fill", "leak_minutes"})
    b = signed_off(b, first);
  build::HoldCheck note;
  note.check = "leak_hold";
  b.variant().fit_up.own().checks.push_back(note);
  build::ProofSeries s;
  s.check = "leak_hold", s.gauge = "rear_right";
  s.readings = night(0.005, 12);
  b.variant().proving.own().series.push_back(s);
  const auto points = hold_points(fit_up_of(b));
  const HoldPoint& p = point_in(points, "leak_hold");
  EXPECT_EQ(p.state, CheckState::begun);
  std::size_t place = 0;
  while (p.figures[place].key != "rear_right")
    ++place;
  ASSERT_TRUE(p.measured[place]);
  EXPECT_NEAR(*p.measured[place], 0.06 * 4.3e5, 400);
  EXPECT_EQ(p.wrong, std::vector<std::size_t>{place});
  // Signed, it holds what was read then, whatever becomes of the readings.
  auto typed = b.variant().fit_up->checks.back();
  for (const AskedFigure& f : p.figures)
    if (f.key != "rear_right") typed.figures.push_back(figure_of(f, 0.0));
  const auto done = signed_check(p, typed, b.variant().proving->series, "Tamsin", "2026-12-02 08:00");
  ASSERT_TRUE(done) << say(done.error());
  EXPECT_EQ(done->result, build::CheckResult::failed);
}

TEST(Stopwatch, TimesFromTheValveToTheHeightBetweenLooks) {
  Stopwatch w(0.330, 0.350);
  double took = 0;
  for (int i = 0; i <= 100 && !w.took(); ++i) {
    const double t = i * 0.05;
    const bool open = t > 1.0;
    w.look(t, open ? 0.330 + 0.01 * (t - 1.0) : 0.330, open);
    if (w.took()) took = *w.took();
  }
  EXPECT_NEAR(took, 2.0, 0.03);
  EXPECT_FALSE(w.trouble());
}

TEST(Stopwatch, SaysWhatCantBeTimed) {
  Stopwatch far(0.330, 0.350);
  far.look(0, 0.312, false);
  far.look(1, 0.312, true);
  EXPECT_TRUE(far.trouble());
  Stopwatch let_go(0.350, 0.330);
  let_go.look(0, 0.350, false);
  let_go.look(1, 0.349, true);
  let_go.look(2, 0.341, false);
  ASSERT_TRUE(let_go.trouble());
  EXPECT_FALSE(let_go.took());
}

TEST(Stopwatch, TogetherItIsTheLastThatIsThere) {
  using Ends = Stopwatch::Ends;
  std::vector<Stopwatch> all{Stopwatch(0.330, 0.350, Ends::there), Stopwatch(0.340, 0.370, Ends::there)};
  EXPECT_FALSE(took_together(all));
  for (int i = 0; i <= 100; ++i) {
    const double t = i * 0.05, gone = 0.01 * std::max(0.0, t - 1.0);
    // The front began 2 mm high: it ends where it should all the same.
    all[0].look(t, 0.332 + gone, t > 1.0);
    all[1].look(t, 0.340 + gone, t > 1.0);
    EXPECT_TRUE(t >= 2.5 || !took_together(all));
  }
  ASSERT_TRUE(took_together(all));
  EXPECT_NEAR(*all[0].took(), 1.8, 0.05);
  EXPECT_NEAR(*took_together(all), 3.0, 0.05);
  EXPECT_FALSE(took_together({}));
}

TEST(ReadNow, TakesTheNearestPresetAndOnlyThePressuresOfThatSide) {
  const FitUpGiven given = fit_up_of(fresh_estate());
  const auto points = hold_points(given);
  LiveLook look;
  const double road = *given.end(End::front)->fitted.road;
  for (std::size_t c = 0; c < 4; ++c) {
    look.height[c] = *given.end(c < 2 ? End::front : End::rear)->fitted.road + 0.002;
    look.pressure[c] = 3e5;
  }
  const HoldPoint& heights = point_in(points, "heights");
  const auto found = read_now(given, heights, look, Reached::below);
  ASSERT_EQ(found.size(), 4U);
  for (const auto& [place, value] : found)
    EXPECT_NE(heights.figures[place].key.find("_road_"), std::string::npos);
  EXPECT_DOUBLE_EQ(found[0].second, road + 0.002);
  const HoldPoint& pressures = point_in(points, "pressures");
  for (const auto& [place, value] : read_now(given, pressures, look, Reached::above))
    EXPECT_TRUE(pressures.figures[place].key.starts_with("down_"));
  look.height[1] = road + 0.05; // not at road height: nothing is read of it
  EXPECT_EQ(read_now(given, pressures, look, Reached::above).size(), 3U);
}

TEST(LiveLooks, CornersFedTogetherStandAtTheirMean) {
  LiveLook look;
  look.height = {0.350, 0.356, std::nullopt, 0.371};
  const auto mean = [&](std::vector<std::size_t> corners) { return mean_height(look, corners); };
  EXPECT_NEAR(*mean({0, 1}), 0.353, 1e-12);
  EXPECT_EQ(mean({3}), 0.371);
  EXPECT_EQ(mean({2, 3}), std::nullopt) << "one of them is not told";
  EXPECT_EQ(mean({}), std::nullopt);
}

} // namespace
} // namespace mavrel::assess
