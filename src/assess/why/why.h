// Why not lower, why not higher: remedies tried on a copy of the build, what each buys until the next limit governs,
// and what it costs elsewhere.
#pragma once

#include "assess/end/end_answer.h"
#include "assess/sampling/draws.h"

#include <stop_token>

namespace mavrel::assess {

enum class WhichWindow { reach, road };
enum class WhichEdge { low, high };

/// All that the question is worked out from.
struct WhyGiven {
  build::Build build;
  shelf::Shelf shelf;
  End end = End::front;
  WhichWindow window = WhichWindow::reach;
  WhichEdge edge = WhichEdge::low;
  Sure sure = Sure::as_read; // nine in ten: where the edge lies at or inside of in nine cases of ten
  friend bool operator==(const WhyGiven& a, const WhyGiven& b) {
    return a.end == b.end && a.window == b.window && a.edge == b.edge && a.sure == b.sure && a.build == b.build &&
           a.shelf.bags == b.shelf.bags && a.shelf.parts == b.shelf.parts;
  }
};

/// One thing that could be done.
struct Remedy {
  Message what;                     // `15 mm off the bump stop`
  double buys = 0;                  // m that the edge moves out by; in nine cases of ten where that was asked
  double edge = 0;                  // m, H where it then lies; likewise
  std::optional<Message> next;      // what governs there then; none: nothing known
  std::optional<double> camber;     // rad, change at the old and the new edge: more the lower it goes
  std::optional<double> frequency;  // Hz, change of the ride at road height
  std::optional<double> road_width; // m, change of the road window's width; none: it opens or closes
  std::vector<Message> troubles;    // what the bag can no longer do
  build::Build build;               // with it done
};

struct Why {
  std::optional<Edge> edge;     // as it is; none: there is no such window
  std::optional<double> holds;  // m, H that the edge lies at or inside of in nine cases of ten, where that was asked
  std::vector<Remedy> remedies; // most bought first; those that buy nothing are left out
  std::vector<Message> no_help; // what was tried and buys nothing
};

/// @param stop  set from elsewhere: give up
/// Source: docs/models.md, "Why not lower".
[[nodiscard]] std::optional<Why> why_not_further(const WhyGiven& given, const std::stop_token& stop = {});

} // namespace mavrel::assess
