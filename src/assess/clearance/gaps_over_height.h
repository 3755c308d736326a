// One gap over height: worked out at the stands of an end, read between them, and what it forbids. For the .cpp files
// of this folder.
#pragma once

#include "assess/clearance/clearance.h"

#include <functional>

namespace mavrel::assess {

/// A gap at a stand; none where nobody knows.
using GapAt = std::function<std::optional<double>(const Stand&)>;
/// A gap at a height.
using GapOver = std::function<std::optional<double>(double H)>;

/// Works gaps out over height and adds what they forbid. Refers to the lists it adds to.
class GapsOverHeight {
public:
  GapsOverHeight(std::vector<GapCurve>& gaps, std::vector<Block>& blocks) : gaps_(gaps), blocks_(blocks) {}

  /// A gap between bodies, or one that goes as the wheel does. Of one that overlaps with the car as surveyed, where
  /// both were on it, the height it stood at is excused and none that is worse.
  /// @param straight_known, lock_known  whether it says anything of wheels straight ahead and at lock
  void add(const EndSpace& space, GapCurve gap, const GapAt& at, bool straight_known = true, bool lock_known = true);
  /// A gap that is a curve over height, whatever the steering.
  void add_curve(GapCurve gap, double low, double high, const GapOver& at);

private:
  /// A gap worked out at heights that lie evenly.
  struct Table {
    std::vector<double> heights;
    std::vector<std::optional<double>> gaps; // one a height
  };
  static std::optional<TrackPiece> piece_of(const Table& table);
  static std::vector<std::pair<double, double>> below(const Table& table, double level, const GapOver& gap);
  static void lead_through(std::optional<TrackPiece>& piece, double edge, double level);
  void forbid(GapCurve& gap, bool touches, const Table& table, double level, const GapOver& at,
              std::optional<double> surveyed = {});
  void keep(GapCurve gap);

  std::vector<GapCurve>& gaps_;
  std::vector<Block>& blocks_;
};

} // namespace mavrel::assess
