#include "assess/fit_up/cut_list.h"

#include "assess/air/wiring.h"
#include "build/fit_up.h"
#include "build/names.h"
#include "build/names_fit_up.h"
#include "motion/workshop.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

using build::Side;
constexpr double worth_keeping = 0.05; // m

class CutMaker {
public:
  CutMaker(const FitUpGiven& given, const Templates& templates, const std::vector<JudgedRoute>& routes)
      : given_(given), shop_(*given.shop), templates_(templates), routes_(routes) {}

  CutList make() {
    for (const End end : build::both_ends)
      links(end);
    plates();
    lines();
    cables();
    for (CutStock& stock : out_.stocks)
      cut(stock);
    return std::move(out_);
  }

private:
  CutStock& stock(StockKind kind, const std::string& name, double bar, double kerf) {
    for (CutStock& one : out_.stocks)
      if (one.name == name) return one;
    CutStock& made = out_.stocks.emplace_back();
    made.kind = kind;
    made.name = name;
    made.bar = bar;
    made.kerf = kerf;
    return made;
  }

  void links(End end) {
    const build::PlateFit& p = given_.plates(end);
    if (p.links < 0.5) return;
    const build::Workshop& w = given_.fit(end).workshop;
    if (!w.link_length || !w.end_a || !w.end_b || !w.thread_length || !w.thread_diameter) {
      out_.troubles.push_back({words("{0}: links are to be made. Say their length from joint to joint, both ends’ "
                                     "take-up and their thread among the bench’s sums in Swing."),
                               {build::name_of(end)}});
      return;
    }
    const auto cut = motion::cut_link(*w.link_length, *w.end_a, *w.end_b, *w.thread_length, *w.thread_diameter);
    if (!cut) {
      out_.troubles.push_back({words("{0}: {1}"), {build::name_of(end), cut.error()}});
      return;
    }
    const double length = cut->tube - 2 * p.weld_gap; // the threaded bungs stand off by the root gap
    if (length <= 0) {
      out_.troubles.push_back({words("{0}: nothing of the tube is left between its ends."), {build::name_of(end)}});
      return;
    }
    CutStock& tube = stock(StockKind::tube, fmt::format("tube {:g}×{:g}", p.tube_outer * 1e3, p.tube_wall * 1e3),
                           shop_.tube_bar, shop_.kerf);
    const double in = motion::least_engagement * *w.thread_diameter;
    for (int n = 0; n < static_cast<int>(std::lround(p.links)); ++n)
      for (const Side side : build::both_sides)
        tube.pieces.push_back(
            {length,
             {words("{0} link {1}, {2}"), {build::name_of(end), std::to_string(n + 1), build::name_of(side)}},
             {words("square; root gap {0}; M{1} right-hand one end, left-hand the other, both equally "
                    "far and {2} in at least"),
              {metres(p.weld_gap, 1), fmt::format("{:g}", *w.thread_diameter * 1e3), metres(in, 0)}},
             fmt::format("{}{}{}", end == End::front ? "F" : "R", side == Side::left ? "L" : "R", n + 1),
             end});
  }

  /// Blanks sawn from flat strip as wide as they are, to the next 5 mm.
  void plates() {
    for (const Template& t : templates_.made) {
      const double wide = std::ceil(std::min(t.width(), t.height()) * 200 - 1e-6) / 200;
      CutStock& strip = stock(StockKind::strip, fmt::format("flat {:g}×{:g}", wide * 1e3, t.thickness * 1e3),
                              shop_.strip_bar, shop_.kerf);
      for (int i = 0; i < t.count; ++i)
        strip.pieces.push_back(
            {std::max(t.width(), t.height()), t.title, {words("square, then by its drawing"), {}}, t.key, t.end});
    }
  }

  void lines() {
    for (const JudgedRoute& r : routes_) {
      if (!r.air || r.part.empty()) continue;
      CutStock& coil = stock(StockKind::line, r.part, shop_.coil, 0);
      const bool braided = r.part == delivery_hose;
      coil.pieces.push_back({r.length,
                             r.name,
                             {braided ? words("square, taped before it is cut; ends by hand, then as the maker says")
                                      : words("square with a tube cutter, dry and round"),
                              {}},
                             r.mark});
    }
  }

  void cables() {
    const auto wiring = wiring_of(given_.air());
    if (!wiring) return;
    for (const WireRow& row : wiring->rows) {
      if (!row.section || row.length <= 0) continue;
      CutStock& coil = stock(StockKind::cable, fmt::format("cable {:g} mm²", *row.section), shop_.coil, 0);
      coil.pieces.push_back({row.length, {words("{0} to {1}"), {row.from, row.to}}, row.what, row.from});
    }
  }

  void cut(CutStock& stock) {
    std::vector<double> lengths, leftovers;
    for (const CutPiece& piece : stock.pieces)
      lengths.push_back(piece.length);
    for (const build::StockPiece& piece : shop_.stock)
      if (piece.what == stock.name)
        leftovers.insert(leftovers.end(), static_cast<std::size_t>(std::lround(piece.count)), piece.length);
    stock.plan = work::cut_plan(lengths, stock.bar, stock.kerf, leftovers);
    if (!stock.plan) out_.troubles.push_back({words("{0}: {1}"), {stock.name, stock.plan.error()}});
  }

  const FitUpGiven& given_;
  const build::Shop& shop_;
  const Templates& templates_;
  const std::vector<JudgedRoute>& routes_;
  CutList out_;
};

} // namespace

double CutStock::total() const {
  double out = 0;
  for (const CutPiece& piece : pieces)
    out += piece.length;
  return out;
}

CutList cut_list(const FitUpGiven& given, const Templates& templates, const std::vector<JudgedRoute>& routes) {
  return CutMaker(given, templates, routes).make();
}
CutList cut_list(const FitUpGiven& given) {
  return cut_list(given, templates_of(given), judged_routes(given));
}

std::vector<build::StockPiece> stock_after(const build::Shop& shop, const CutList& list, const std::string& car) {
  std::vector<build::StockPiece> out(shop.stock.begin(), shop.stock.end());
  const auto add = [&](const std::string& what, double length) {
    if (length < worth_keeping) return;
    for (build::StockPiece& one : out)
      if (one.what == what && one.from == car && std::abs(one.length - length) < 5e-4) {
        one.count += 1;
        return;
      }
    if (out.size() < build::most_stock) out.push_back({what, length, 1, car, {}});
  };
  for (const CutStock& stock : list.stocks) {
    if (!stock.plan) continue;
    for (const work::CutBar& bar : stock.plan->bars) {
      if (bar.leftover)
        for (auto one = out.begin(); one != out.end(); ++one)
          if (one->what == stock.name && std::abs(one->length - bar.length) < 1e-9) {
            if (--one->count < 0.5) out.erase(one);
            break;
          }
      add(stock.name, bar.left);
    }
  }
  return out;
}

} // namespace mavrel::assess
