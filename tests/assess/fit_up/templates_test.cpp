#include "assess/fit_up/cars.h"
#include "assess/swing/mounting.h"

#include <numbers>

namespace mavrel::assess {
namespace {

std::optional<Template> drawn(const Templates& all, const std::string& key) {
  for (const Template& t : all.made)
    if (t.key == key) return t;
  return std::nullopt;
}
std::optional<RefusedTemplate> refused(const Templates& all, const std::string& key) {
  for (const RefusedTemplate& t : all.refused)
    if (t.key == key) return t;
  return std::nullopt;
}
std::vector<DrawnCircle> holes(const Template& t, Layer layer = Layer::drill) {
  std::vector<DrawnCircle> out;
  for (const DrawnShape& s : t.shapes)
    if (const auto* c = std::get_if<DrawnCircle>(&s.what); c && s.layer == layer) out.push_back(*c);
  return out;
}
build::PlateFit& plates(Build& b, End end) {
  return b.variant().fit_up.own().plates[build::at(end)];
}

TEST(Templates, APlatesHolesLieOnTheirCircleAndOffItsEdge) {
  EXPECT_TRUE(rc::check("holes of plates", [] {
    Build b = fresh_half_ton();
    build::PlateFit& p = plates(b, End::rear);
    p.bolts = *rc::gen::inRange(0, 7);
    p.bolt_circle = test::between(0.02, 0.12);
    p.bolt_hole = test::between(0.006, 0.02);
    p.port_hole = *rc::gen::arbitrary<bool>() ? test::between(0.008, 0.03) : 0;
    p.port_out = test::between(0, 0.05);
    p.port_turn = test::between(-3, 3);
    if (*rc::gen::arbitrary<bool>()) p.diameter = test::between(0.05, 0.2);
    for (const Template& t : templates_of(fit_up_of(b)).made) {
      if (t.key.find("plate") == std::string::npos || !t.key.starts_with("rear")) continue;
      const double R = holes(t, Layer::cut).at(0).radius;
      int on_circle = 0;
      for (const DrawnCircle& h : holes(t)) {
        const double out = std::hypot(h.centre.x, h.centre.y);
        RC_ASSERT(R - out - h.radius >= 2 * h.radius - 1e-9); // never nearer the edge than its diameter
        on_circle += std::abs(out - *p.bolt_circle / 2) < 1e-9 && std::abs(h.radius - *p.bolt_hole / 2) < 1e-9;
      }
      RC_ASSERT(on_circle >= static_cast<int>(*p.bolts));
    }
  }));
}

TEST(Templates, AreNotDrawnWhereNobodySaysHowTheBagIsScrewedOn) {
  air::BagCard card;
  card.name = "Osier O-1", card.max_diameter = 0.14;
  build::PlateFit p;
  EXPECT_NE(say(plate_holes(p, card, false).error()).find("how many bolts"), std::string::npos);
  card.bolts = 2;
  EXPECT_NE(say(plate_holes(p, card, false).error()).find("which circle"), std::string::npos);
  card.bolt_circle = 0.07, card.bolt_hole = 0.009;
  EXPECT_TRUE(plate_holes(p, card, false).has_value());
  EXPECT_NE(say(plate_holes(p, card, true).error()).find("port"), std::string::npos);
  card.port_hole = 0.014, card.port_out = 0.02;
  ASSERT_TRUE(plate_holes(p, card, true).has_value());
  // What was entered for the end stands before its card.
  p.bolt_circle = 0.06, p.port_hole = 0;
  EXPECT_DOUBLE_EQ(plate_holes(p, card, true)->bolt_circle, 0.06);
  EXPECT_DOUBLE_EQ(plate_holes(p, card, true)->port_hole, 0);
  p.bolts = 0; // held by something else
  EXPECT_DOUBLE_EQ(plate_holes(p, {}, false)->bolts, 0);
  // The flange makes the plate as wide as it is.
  card.flange = 0.13;
  EXPECT_NEAR(usual_plate_diameter(*plate_holes(p, card, false), card), 0.13, 1e-9);
}

TEST(Templates, AreRefusedByTheNameOfTheBagThatIsNotOnTheShelf) {
  Build b = fresh_half_ton();
  b.variant().fit[1].bag = "Nobody N-1";
  plates(b, End::rear).bolts.reset();
  const auto none = refused(templates_of(fit_up_of(b)), "rear.lower_plate");
  ASSERT_TRUE(none.has_value());
  EXPECT_NE(say(none->why).find("Nobody N-1"), std::string::npos) << say(none->why);
}

TEST(Templates, RefuseAHoleTooNearTheEdgeAndSayWhatWouldBeRight) {
  Build b = fresh_half_ton();
  plates(b, End::rear).diameter = 0.09; // 64 and three times 10.5 are 95.5
  const Templates all = templates_of(fit_up_of(b));
  const auto none = refused(all, "rear.lower_plate");
  ASSERT_TRUE(none.has_value());
  EXPECT_NE(say(none->why).find("6 mm wider"), std::string::npos) << say(none->why);
  plates(b, End::rear).diameter = 0.096;
  EXPECT_TRUE(drawn(templates_of(fit_up_of(b)), "rear.lower_plate").has_value());
}

TEST(Templates, APortToTheFrontMakesLeftAndRightEachOthersImage) {
  Build b = fresh_half_ton();
  plates(b, End::rear).port_out = 0.03;
  plates(b, End::rear).port_turn = 0.6;
  const Templates all = templates_of(fit_up_of(b));
  const auto left = drawn(all, "rear.upper_plate.left"), right = drawn(all, "rear.upper_plate.right");
  ASSERT_TRUE(left && right);
  EXPECT_EQ(left->count, 1);
  EXPECT_NE(left->stamp, right->stamp);
  const auto a = holes(*left), c = holes(*right);
  ASSERT_EQ(a.size(), c.size());
  for (std::size_t i = 0; i < a.size(); ++i) {
    EXPECT_NEAR(a[i].centre.x, -c[i].centre.x, 1e-12);
    EXPECT_NEAR(a[i].centre.y, c[i].centre.y, 1e-12);
  }
  // Straight outboard one drawing does for both.
  plates(b, End::rear).port_turn = 0;
  const auto both = drawn(templates_of(fit_up_of(b)), "rear.upper_plate");
  ASSERT_TRUE(both.has_value());
  EXPECT_EQ(both->count, 2);
}

TEST(Templates, ABracketsFlatIsItsLegsAndItsFold) {
  Build b = fresh_half_ton();
  plates(b, End::rear).bracket_leg = 0.09;
  const FitUpGiven given = fit_up_of(b);
  const Templates all = templates_of(given);
  const auto t = drawn(all, "rear.lower_bracket");
  ASSERT_TRUE(t.has_value());
  const auto m = mounting_of(given.end(End::rear));
  const double inside = std::numbers::pi / 2 - m.alignment->lower.across, turn = std::numbers::pi - inside;
  const double back = (0.008 + 0.008) * std::tan(turn / 2);
  const double base = holes(*drawn(all, "rear.lower_plate"), Layer::cut)[0].radius * 2;
  EXPECT_NEAR(t->width(), base + 0.09 - 2 * back + turn * (0.008 + 0.42 * 0.008), 1e-9);
  EXPECT_NEAR(t->height(), 0.080, 1e-12);
  // Its gusset has the angle between the legs.
  const auto g = drawn(all, "rear.lower_gusset");
  ASSERT_TRUE(g.has_value());
  bool told = false;
  for (const DrawnMeasure& measure : g->measures)
    told = told || (measure.kind == Kind::angle && std::abs(measure.value - inside) < 1e-12);
  EXPECT_TRUE(told);
  plates(b, End::rear).bracket_leg = 0.012; // nothing is left of it
  EXPECT_TRUE(refused(templates_of(fit_up_of(b)), "rear.lower_bracket").has_value());
}

TEST(Templates, AThinPlateMovesTheBearingOutward) {
  Build b = fresh_estate();
  b.variant().fit[0].mounting.mount_thicker = -0.014;
  b.variant().fit[0].mounting.mount_outward = 0.006;
  const Templates all = templates_of(fit_up_of(b));
  const auto left = drawn(all, "front.upper_mount.left"), right = drawn(all, "front.upper_mount.right");
  ASSERT_TRUE(left && right);
  EXPECT_NEAR(holes(*left, Layer::cut)[1].centre.x, 0.006, 1e-12);
  EXPECT_NEAR(holes(*right, Layer::cut)[1].centre.x, -0.006, 1e-12);
  b.variant().fit[0].mounting.mount_outward = 0.02; // it would break out between the studs
  EXPECT_TRUE(refused(templates_of(fit_up_of(b)), "front.upper_mount.left").has_value());
}

TEST(Templates, ANotchIsAsDeepAsParkedHeightAsksFor) {
  Build b = fresh_half_ton();
  build::Workshop& w = b.variant().fit[1].workshop;
  w.rail_gap = 0.06, w.rail_reserve = 0.012;
  plates(b, End::rear).rail_height = 0.2;
  const FitUpGiven given = fit_up_of(b);
  const auto deep = notch_depth(given, End::rear);
  ASSERT_TRUE(deep);
  const auto t = drawn(templates_of(given), "rear.notch");
  ASSERT_TRUE(t.has_value());
  EXPECT_NEAR(t->height(), 0.2, 1e-9);
  // Its outline is closed: every line's end is where another begins, arcs among them.
  std::vector<Flat> ends;
  for (const DrawnShape& s : t->shapes) {
    if (s.layer != Layer::cut) continue;
    if (const auto* l = std::get_if<DrawnLine>(&s.what)) ends.push_back(l->from), ends.push_back(l->to);
    if (const auto* a = std::get_if<DrawnArc>(&s.what))
      for (const double angle : {a->from, a->to})
        ends.push_back({a->centre.x + a->radius * std::cos(angle), a->centre.y + a->radius * std::sin(angle)});
  }
  for (const Flat& e : ends)
    EXPECT_EQ(
        std::count_if(ends.begin(), ends.end(), [&](const Flat& o) { return std::hypot(o.x - e.x, o.y - e.y) < 1e-9; }),
        2);
  plates(b, End::rear).rail_height = *deep + 0.005;
  EXPECT_TRUE(refused(templates_of(fit_up_of(b)), "rear.notch").has_value());
  plates(b, End::rear).rail_height.reset();
  EXPECT_NE(say(refused(templates_of(fit_up_of(b)), "rear.notch")->why).find("how high"), std::string::npos);
}

TEST(Templates, CarryTheBuildAndTheHeightTheyWereDrawnFor) {
  const Build b = fresh_estate();
  for (const Template& t : templates_of(fit_up_of(b)).made) {
    EXPECT_NE(t.stamp.find("0417"), std::string::npos) << t.key;
    EXPECT_FALSE(t.texts.empty()) << t.key;
    if (t.drawn_for) {
      EXPECT_NE(t.stamp.find("H" + std::to_string(std::lround(*t.drawn_for * 1e3))), std::string::npos);
    }
    // What is etched lies on the part.
    for (const DrawnText& text : t.texts) {
      EXPECT_GE(text.at.x, t.low.x - 1e-9) << t.key;
      EXPECT_LE(text.at.x + 0.8 * text.height * static_cast<double>(text.text.size()), t.high.x + 1e-3) << t.key;
    }
  }
}

} // namespace
} // namespace mavrel::assess
