#include "assess/fit_up/cars.h"
#include "assess/fit_up/places.h"
#include "assess/routes/route.h"

#include <numbers>

namespace mavrel::assess {
namespace {

build::WayPoint at(double x, double y, double z) {
  build::WayPoint p;
  p.x = x, p.y = y, p.z = z;
  return p;
}
const JudgedRoute& judged(const std::vector<JudgedRoute>& all, const std::string& key) {
  for (const JudgedRoute& r : all)
    if (r.key == key) return r;
  throw std::runtime_error(key);
}

TEST(Routes, ALineIsAsLongAsItsStretchesAndItsSlack) {
  build::Route route;
  route.points = {at(1, 0, 0.2), at(1, 1, 0.2)};
  build::PartPlace from, to;
  from.x = 0, from.y = 0, from.z = 0.2;
  to.x = 1, to.y = 1, to.z = 0.7;
  const RouteWay way = way_of(route, from, to);
  EXPECT_NEAR(way.length, 2.5, 1e-12);
  EXPECT_NEAR(routed_length(way, route, 0.1), 2.75, 1e-12);
  route.slack = 0.3;
  EXPECT_NEAR(routed_length(way, route, 0.1), 2.8, 1e-12);
  // Square corners: as much radius as the shorter stretch beside gives; one between two bends is shared.
  const auto bends = bends_of(way);
  ASSERT_EQ(bends.size(), 2U);
  EXPECT_NEAR(bends[0].turns, std::numbers::pi / 2, 1e-12);
  EXPECT_NEAR(bends[0].widest, 0.5, 1e-12);
  EXPECT_NEAR(bends[1].widest, 0.5, 1e-12);
}

TEST(Routes, AirGoesByTheLengthsThatWereLaid) {
  Build b = fresh_estate();
  const AirGiven laid = fit_up_of(b).air();
  for (const JudgedRoute& r : judged_routes(fit_up_of(b))) {
    for (std::size_t corner = 0; corner < 4; ++corner)
      if (r.key == corner_line_key(corner)) {
        EXPECT_NEAR(corner_line_length(laid, corner), r.length, 1e-12);
      }
    if (r.key == "feed") {
      EXPECT_NEAR(feed_line_length(laid), r.length, 1e-12);
    }
  }
  const double before = corner_line_length(laid, 0);
  for (build::Route& r : b.variant().fit_up.own().routes)
    if (r.line == "front_left") r.slack = *r.slack + 0.5;
  EXPECT_NEAR(corner_line_length(fit_up_of(b).air(), 0), before + 0.5, 1e-12);
  b.variant().fit_up.own().routes.clear();
  const AirGiven bare = fit_up_of(b).air();
  EXPECT_NEAR(corner_line_length(bare, 0),
              way_between(b.variant().air.valves_at, port_of(bare, 0), b.variant().air.line_slack), 1e-12);
}

TEST(Routes, ThroughTheWheelNearItAndFarFromIt) {
  const auto gap = [](double y) {
    Build b = fresh_estate();
    build::Route r; // past the wheel, then down to the bag from above
    r.line = "front_left", r.points = {at(1.2, y, 0.3), at(0.0, y, 0.3), at(-0.6, y, 0.3), at(0.0, 0.3, 0.8)};
    b.variant().fit_up.own().routes = {r};
    return judged(judged_routes(fit_up_of(b)), "front_left").tyres;
  };
  const auto through = gap(0.72);
  ASSERT_FALSE(through.empty());
  EXPECT_TRUE(through[0].through);
  EXPECT_EQ(through[0].end, End::front);
  EXPECT_TRUE(gap(0.1).empty());
  // The right side's lines are looked at on the right.
  Build b = fresh_estate();
  build::Route r;
  r.line = "front_right", r.points = {at(1.2, -0.72, 0.3), at(0.0, -0.72, 0.3), at(-0.6, -0.72, 0.3)};
  b.variant().fit_up.own().routes = {r};
  const auto right = judged(judged_routes(fit_up_of(b)), "front_right").tyres;
  ASSERT_FALSE(right.empty());
  EXPECT_TRUE(right[0].through);
}

TEST(Routes, EveryLineIsLookedAtBesideEveryWheel) {
  for (const char* line : {"feed", "power", "valve_loom", "rear_left", "front_left"})
    for (const double side : {1.0, -1.0}) {
      Build b = fresh_estate();
      build::Route r; // through a front wheel of either side, whosever line it is
      r.line = line,
      r.points = {at(1.2, 0.72 * side, 0.3), at(0.0, 0.72 * side, 0.3), at(-0.6, 0.72 * side, 0.3), at(-0.6, 0, 0.9)};
      b.variant().fit_up.own().routes = {r};
      const auto tyres = judged(judged_routes(fit_up_of(b)), line).tyres;
      ASSERT_FALSE(tyres.empty()) << line << side;
      EXPECT_TRUE(std::any_of(tyres.begin(), tyres.end(), [](const RouteTyre& t) {
        return t.through && t.end == End::front;
      })) << line;
    }
}

TEST(Routes, AFirstWayReachesFromEndToEndAboveTheRoad) {
  for (const JudgedRoute& r : judged_routes(fit_up_of(fresh_estate()))) {
    const auto way = first_way(r, 0.2);
    ASSERT_EQ(way.size(), 3U);
    for (const build::WayPoint& p : way)
      EXPECT_GT(p.z, 0.1);
    EXPECT_LT(std::abs(way.back().x - r.to.x), 0.36);
  }
}

TEST(Routes, AStrutsPortWantsSlackForBothLocks) {
  Build b = fresh_estate();
  const auto wanted = [&] { return judged(judged_routes(fit_up_of(b)), "front_left").slack_wanted; };
  const double strut = wanted();
  EXPECT_GT(strut, judged(judged_routes(fit_up_of(b)), "rear_left").slack_wanted);
  b.variant().fit_up.own().plates[0].port_out = 0.12;
  EXPECT_GT(wanted(), strut); // further out it swings further
}

TEST(Routes, EveryLineCarriesAMarkOfItsOwn) {
  const auto routes = judged_routes(fit_up_of(fresh_estate()));
  for (std::size_t i = 0; i < routes.size(); ++i)
    for (std::size_t k = 0; k < i; ++k)
      EXPECT_NE(routes[i].mark, routes[k].mark);
  EXPECT_TRUE(judged_routes(fit_up_of(changed(fresh_estate(), [](Build& b) { b.variant().air = {}; }))).empty());
}

TEST(Places, SayWhatIsGoodAndWhatIsNot) {
  const auto word = [](const Build& b, const std::string& place, PlaceAspect aspect) {
    for (const JudgedPlace& p : judged_places(fit_up_of(b)))
      if (p.place == place)
        for (const PlaceWord& w : p.words)
          if (w.aspect == aspect) return w.judged;
    throw std::runtime_error("nothing said of " + place);
  };
  Build b = fresh_estate();
  EXPECT_EQ(word(b, "air.tank_at", PlaceAspect::drain), PlaceJudged::good);
  EXPECT_EQ(word(b, "air.compressor_at", PlaceAspect::shake), PlaceJudged::good);
  b.variant().air.compressor_at.held = build::PartHeld::hard;
  EXPECT_EQ(word(b, "air.compressor_at", PlaceAspect::shake), PlaceJudged::bad);
  b.variant().air.compressor_at.room = build::PartRoom::engine_bay;
  EXPECT_EQ(word(b, "air.compressor_at", PlaceAspect::heat), PlaceJudged::bad);
  b.variant().air.tank_at.z = 0.8; // the valves stand lower now, and water with them
  EXPECT_EQ(word(b, "air.tank_at", PlaceAspect::drain), PlaceJudged::bad);
  EXPECT_EQ(word(b, "fit_up.handset_at", PlaceAspect::radio), PlaceJudged::good); // by cable
  b.variant().fit_up.own().handset = build::HandsetBy::radio;
  EXPECT_EQ(word(b, "fit_up.handset_at", PlaceAspect::radio), PlaceJudged::good);
  b.variant().fit_up.own().controller_at.room = build::PartRoom::spare_well;
  EXPECT_EQ(word(b, "fit_up.handset_at", PlaceAspect::radio), PlaceJudged::bad);
  b.variant().fit_up.own().shown = build::KitShown::shown;
  EXPECT_EQ(word(b, "air.tank_at", PlaceAspect::seen), PlaceJudged::care); // nobody sees it in the well
}

} // namespace
} // namespace mavrel::assess
