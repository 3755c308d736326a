// What is bought: the kit's parts, bags, bars, fittings with their threads and how they are sealed, fasteners, wiring;
// what is there, what is to be ordered and by when.
#pragma once

#include "assess/fit_up/cut_list.h"
#include "assess/fit_up/jobs.h"
#include "work/day.h"

namespace mavrel::assess {

/// What of the car waits for it.
enum class BuyFor { front, rear, kit };
[[nodiscard]] const char* name_of(BuyFor group);

struct BuyLine {
  std::string part; // as notes and orders call it
  Message what;     // what it is there for
  BuyFor group = BuyFor::kit;
  double count = 1;                        // pieces; bars of what is cut; m of what comes by length
  bool metres = false;                     // it is counted in m
  std::string thread;                      // of a fitting; empty: none
  Message sealing;                         // and the way it is sealed
  std::optional<double> price;             // each, in the shop's money
  double on_shelf = 0;                     // of it: there,
  double on_order = 0, order = 0;          // ordered and not there yet, and still to be ordered
  std::optional<double> lead;              // h of the clock from ordering
  std::optional<work::Day> ordered, comes; // none: not ordered, or nobody knows
  double too_many = 0;                     // there or ordered, and needed by nothing
  std::optional<work::Day> order_by;       // so that it holds nothing up
  std::optional<std::size_t> note;         // its place among the document's notes
};
/// Money in the shop's own, of the lines that have a price; those without are counted, so that nobody takes them for
/// free.
struct BuyList {
  std::vector<BuyLine> lines; // what was ordered and is needed no longer is among them, `count` 0
  double parts = 0;           // wanted: all that is needed
  double ordered = 0;         // ordered, needed or not
  double to_pay = 0;          // still to be ordered
  std::size_t unpriced = 0, unpriced_to_order = 0;
};

/// How a thread is sealed: tapered ones in the thread, parallel ones under a washer or ring.
[[nodiscard]] Message sealing_of(const std::string& thread);

/// Source: docs/models.md, "Parts list".
[[nodiscard]] BuyList buy_list(const FitUpGiven& given);
[[nodiscard]] BuyList buy_list(const FitUpGiven& given, const CutList& cut, const std::vector<JudgedRoute>& routes);
/// h of the clock from the first morning until the last part of each group is there, if what is not ordered is now.
[[nodiscard]] PartsWait parts_wait(const FitUpGiven& given, std::optional<work::Moment> now);
/// Puts the last day to order on each line, from when its group is first needed in a plan that waits for no parts.
void add_order_days(const FitUpGiven& given, BuyList& list, std::optional<work::Moment> now);

} // namespace mavrel::assess
