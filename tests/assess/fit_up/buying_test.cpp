#include "assess/fit_up/cars.h"
#include "assess/fit_up/schools.h"
#include "motion/workshop.h"

#include <map>

namespace mavrel::assess {
namespace {

const BuyLine* line_of(const BuyList& list, const std::string& part) {
  for (const BuyLine& l : list.lines)
    if (l.part == part) return &l;
  return nullptr;
}
const CutStock* stock_of(const CutList& list, const std::string& name) {
  for (const CutStock& s : list.stocks)
    if (s.name == name) return &s;
  return nullptr;
}
Build linked() {
  Build b = fresh_half_ton();
  b.variant().fit_up.own().plates[1].links = 2;
  build::Workshop& w = b.variant().fit[1].workshop;
  w.link_length = 0.62, w.end_a = w.end_b = 0.045, w.thread_length = 0.06, w.thread_diameter = 0.018;
  return b;
}

TEST(CutList, LinksAreWhatTheBenchsSumSaysLessTheRootGaps) {
  const Build b = linked();
  const CutList list = cut_list(fit_up_of(b));
  const CutStock* tube = stock_of(list, "tube 38×4");
  ASSERT_NE(tube, nullptr);
  ASSERT_EQ(tube->pieces.size(), 4U); // two a side
  const auto sum = motion::cut_link(0.62, 0.045, 0.045, 0.06, 0.018);
  for (const CutPiece& p : tube->pieces) {
    EXPECT_NEAR(p.length, sum->tube - 2 * 0.002, 1e-12);
    EXPECT_NE(say(p.ends).find("left-hand"), std::string::npos);
    EXPECT_NE(say(p.ends).find("27 mm"), std::string::npos) << say(p.ends); // one and a half of 18
  }
  EXPECT_EQ(tube->plan->fresh, 1U);
}

TEST(CutList, PlatesAndLinesComeFromDrawingsAndRoutes) {
  const FitUpGiven given = fit_up_of(fresh_estate());
  const CutList list = cut_list(given);
  const auto routes = judged_routes(given);
  std::size_t lines = 0;
  for (const CutStock& s : list.stocks) {
    ASSERT_TRUE(s.plan) << s.name;
    if (s.kind != StockKind::line) continue;
    for (const CutPiece& p : s.pieces) {
      ++lines;
      EXPECT_TRUE(std::any_of(routes.begin(), routes.end(), [&](const JudgedRoute& r) {
        return r.mark == p.mark && std::abs(r.length - p.length) < 1e-12 && r.part == s.name;
      })) << p.mark;
    }
  }
  EXPECT_EQ(lines, 6U); // compressor to tank, the feed and one to each bag
  int plates = 0;
  for (const Template& t : templates_of(given).made)
    plates += t.count;
  std::size_t strips = 0;
  for (const CutStock& s : list.stocks)
    if (s.kind == StockKind::strip) strips += s.pieces.size();
  EXPECT_EQ(static_cast<int>(strips), plates);
}

TEST(CutList, WhatIsLeftIsThereForTheNextCar) {
  Build b = linked();
  const CutList first = cut_list(fit_up_of(b));
  b.shop.own().stock = stock_after(*b.shop, first, "0423");
  double left = 0;
  for (const build::StockPiece& p : b.shop->stock)
    if (p.what == "tube 38×4") left += p.length * p.count;
  EXPECT_NEAR(left, 6 - 4 * (first.stocks[0].pieces[0].length + 0.003), 1e-6);
  const CutList second = cut_list(fit_up_of(b));
  EXPECT_EQ(stock_of(second, "tube 38×4")->plan->fresh, 0U); // from what was left
  // Used up, it is gone.
  const auto after = stock_after(*b.shop, second, "0424");
  double still = 0;
  for (const build::StockPiece& p : after)
    if (p.what == "tube 38×4") still += p.length * p.count;
  EXPECT_NEAR(still, left - 4 * (first.stocks[0].pieces[0].length + 0.003), 1e-6);
}

TEST(BuyList, HasEveryPartOfTheKitAndItsFittingsCounted) {
  const Build b = fresh_estate();
  const BuyList list = buy_list(fit_up_of(b));
  const build::AirKit& kit = b.variant().air;
  for (const std::string& part :
       {kit.compressor, kit.tank, kit.valves, kit.relief, kit.drain, b.variant().fit[0].bag, b.variant().fit[1].bag})
    EXPECT_NE(line_of(list, part), nullptr) << part;
  // At both ends of every line, and the elbows the kit says.
  EXPECT_DOUBLE_EQ(line_of(list, kit.front_fitting)->count, 4 * (2 + kit.elbows));
  EXPECT_DOUBLE_EQ(line_of(list, kit.feed_fitting)->count, 2);
  EXPECT_DOUBLE_EQ(line_of(list, b.variant().fit[0].bag)->count, 2);
  EXPECT_NE(say(line_of(list, kit.front_fitting)->sealing).find("no tape"), std::string::npos);
  EXPECT_NE(say(sealing_of("NPT 1/4")).find("two or three turns"), std::string::npos);
  // A grommet where a route has one.
  double grommets = 0;
  for (const build::Route& r : b.variant().fit_up->routes)
    for (const build::WayPoint& p : r.points)
      grommets += p.kind == build::WayKind::grommet;
  EXPECT_DOUBLE_EQ(line_of(list, "grommet")->count,
                   grommets + 3); // compressor to tank, valve loom and handset are not laid
}

TEST(BuyList, CountsWhatIsThereAndWhatItCosts) {
  Build b = fresh_estate();
  build::PartNote note;
  note.part = b.variant().fit[0].bag, note.on_shelf = 1, note.price = 150;
  const double before = buy_list(fit_up_of(b)).parts;
  b.variant().fit_up.own().parts.push_back(note);
  BuyList list = buy_list(fit_up_of(b));
  EXPECT_NEAR(list.parts, before + 300, 1e-9);
  EXPECT_DOUBLE_EQ(line_of(list, note.part)->order, 1);
  b.variant().fit_up.own().parts[0].ordered = "2026-11-30";
  b.variant().fit_up.own().parts[0].lead = 3 * 86400.0;
  const double to_pay = list.to_pay;
  list = buy_list(fit_up_of(b));
  EXPECT_NEAR(list.to_pay, to_pay - 150, 1e-9); // it is on its way
  EXPECT_EQ(work::day_text(*line_of(list, note.part)->comes), "2026-12-03");
  for (std::size_t i = 0; i < list.lines.size(); ++i)
    for (std::size_t k = 0; k < i; ++k)
      EXPECT_FALSE(list.lines[i].part == list.lines[k].part && list.lines[i].group == list.lines[k].group)
          << list.lines[i].part;
}

TEST(BuyList, WhatWasOrderedStaysOrderedWhateverTheDesignNeedsLater) {
  Build b = fresh_estate();
  const std::string bag = b.variant().fit[0].bag;
  build::PartNote note;
  note.part = bag, note.price = 150, note.ordered = "2026-11-30", note.ordered_count = 2;
  b.variant().fit_up.own().parts.push_back(note);
  const BuyList before = buy_list(fit_up_of(b));
  EXPECT_DOUBLE_EQ(line_of(before, bag)->on_order, 2);
  EXPECT_DOUBLE_EQ(line_of(before, bag)->order, 0);
  // Another bag goes in: the two are still on their way, and told as too many.
  b.variant().fit[0].bag = "Fennick R-118";
  ASSERT_NE(b.variant().fit[0].bag, bag);
  ASSERT_NE(b.variant().fit[1].bag, bag);
  const BuyList after = buy_list(fit_up_of(b));
  const BuyLine* left = line_of(after, bag);
  ASSERT_NE(left, nullptr);
  EXPECT_DOUBLE_EQ(left->count, 0);
  EXPECT_DOUBLE_EQ(left->on_order, 2);
  EXPECT_DOUBLE_EQ(left->too_many, 2);
  EXPECT_NEAR(after.ordered, 300, 1e-9);
  EXPECT_NEAR(after.parts, before.parts - 300, 1e-9); // the other bag has no price yet
  EXPECT_EQ(after.unpriced, before.unpriced + 1);
  EXPECT_EQ(after.unpriced_to_order, before.unpriced_to_order + 1);
}

TEST(BuyList, APartAtBothEndsIsThereAndOrderedOnce) {
  Build b = fresh_estate();
  b.variant().fit[1].bag = b.variant().fit[0].bag;
  build::PartNote note;
  note.part = b.variant().fit[0].bag, note.on_shelf = 1, note.ordered = "2026-11-30", note.ordered_count = 2;
  b.variant().fit_up.own().parts.push_back(note);
  double there = 0, on_order = 0, order = 0;
  for (const BuyLine& l : buy_list(fit_up_of(b)).lines)
    if (l.part == note.part) there += l.on_shelf, on_order += l.on_order, order += l.order;
  EXPECT_DOUBLE_EQ(there, 1);
  EXPECT_DOUBLE_EQ(on_order, 2);
  EXPECT_DOUBLE_EQ(order, 1); // of four
}

TEST(Schools, BothWaysAreThisCarsOwnFigures) {
  const Build b = fresh_estate();
  const auto schools = answer_schools({b, test::demo_shelf(), std::nullopt}, {});
  ASSERT_TRUE(schools);
  std::map<std::string, const SchoolCard*> cards;
  for (const SchoolCard& c : schools->cards)
    cards[c.row->key] = &c;
  for (const char* key : {"sensing", "valves", "sides", "held", "straight", "order", "lines", "shown", "mount",
                          "line_bore", "compressors"})
    EXPECT_TRUE(cards.contains(key)) << key;
  EXPECT_FALSE(cards.contains("cutting")); // nothing asks for a notch
  const auto figure = [&](const char* key, CostOf what, std::size_t way) -> std::optional<double> {
    for (const SchoolCost& c : cards.at(key)->costs)
      if (c.what == what) return c.figure[way];
    return std::nullopt;
  };
  EXPECT_EQ(cards.at("compressors")->taken, 0U);
  EXPECT_LT(*figure("compressors", CostOf::ready, 1), *figure("compressors", CostOf::ready, 0));
  EXPECT_GT(*figure("compressors", CostOf::current, 1), *figure("compressors", CostOf::current, 0));
  EXPECT_NEAR(*figure("compressors", CostOf::sound, 1) - *figure("compressors", CostOf::sound, 0), 3.01, 0.02);
  EXPECT_LT(*figure("line_bore", CostOf::rise, 1), *figure("line_bore", CostOf::rise, 0));
  EXPECT_GT(*figure("sides", CostOf::lean, 1), *figure("sides", CostOf::lean, 0));
  EXPECT_GT(*figure("shown", CostOf::hours, 1), *figure("shown", CostOf::hours, 0));
  EXPECT_LT(*figure("mount", CostOf::lowest, 1), *figure("mount", CostOf::lowest, 0)); // a thin plate wins drop
  EXPECT_DOUBLE_EQ(*figure("sensing", CostOf::load_drop, 0), b.variant().leveling.set_up().rules.band);
  EXPECT_GT(*figure("sensing", CostOf::load_drop, 1), 0.01);
}

TEST(Schools, TheWayTakenIsTheDesignAndTheOtherCanBeTaken) {
  const Build b = fresh_estate();
  const auto taken = [](const Build& build) {
    const auto schools = answer_schools({build, test::demo_shelf(), std::nullopt}, {});
    std::map<std::string, std::size_t> out;
    for (const SchoolCard& c : schools->cards)
      out[c.row->key] = c.taken;
    return out;
  };
  // All of them gone the other way at once, and back.
  const auto first = taken(b);
  Build other = b;
  for (const auto& [key, way] : first) {
    auto made = with_school(other, test::demo_shelf(), key, 1 - way);
    ASSERT_TRUE(made) << key << ": " << say(made.error());
    other = *made;
  }
  for (const auto& [key, way] : taken(other))
    if (key != "line_bore" && key != "sensing") { // a width is relative; by hand nothing senses
      EXPECT_EQ(way, 1 - first.at(key)) << key;
    }
  for (const auto& [key, way] : taken(other))
    other = *with_school(other, test::demo_shelf(), key, 0);
  for (const auto& [key, way] : taken(other))
    if (key != "line_bore" && key != "sensing") {
      EXPECT_EQ(way, 0U) << key;
    }
  const std::stop_token stop = test::stopped();
  EXPECT_FALSE(answer_schools({b, test::demo_shelf(), std::nullopt}, stop));
}

} // namespace
} // namespace mavrel::assess
