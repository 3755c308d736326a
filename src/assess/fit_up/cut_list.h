// What is cut from bars, strips and coils: links, plates, lines and cables, each with its ends, from as few of them as
// can be, leftovers first.
#pragma once

#include "assess/fit_up/routes.h"
#include "assess/fit_up/templates.h"
#include "work/cutting.h"

namespace mavrel::assess {

enum class StockKind { tube, strip, line, cable };

struct CutPiece {
  double length = 0;        // m, as it is cut
  Message what;             // `rear link, left`
  Message ends;             // how they are made
  std::string mark;         // for its label
  std::optional<End> end{}; // that it is made for
};
/// One kind of bar with what is cut from it.
struct CutStock {
  StockKind kind = StockKind::tube;
  std::string name; // `tube 38×4`, `Reed 6/4`: as leftovers are called
  double bar = 6;   // m, of a new one
  double kerf = 0;  // m
  std::vector<CutPiece> pieces;
  Expected<work::CutPlan> plan{work::CutPlan{}};
  [[nodiscard]] double total() const; // m of all pieces
};
struct CutList {
  std::vector<CutStock> stocks;
  std::vector<Message> troubles; // what can't be cut as the numbers are
};
/// Source: docs/models.md, "Cut list".
[[nodiscard]] CutList cut_list(const FitUpGiven& given);
[[nodiscard]] CutList cut_list(const FitUpGiven& given, const Templates& templates,
                               const std::vector<JudgedRoute>& routes);

/// The shop's stock once these were cut: what was used of it gone, what is left of bars and coils added, down to 50 mm.
[[nodiscard]] std::vector<build::StockPiece> stock_after(const build::Shop& shop, const CutList& list,
                                                         const std::string& car);

} // namespace mavrel::assess
