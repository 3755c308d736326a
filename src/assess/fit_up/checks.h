// Hold points: what must be measured on the car before work goes on, what the design says it must come to, and whether
// what was signed still stands. A check is stale when what its figures are worked out from has changed; nobody marks
// it.
#pragma once

#include "assess/fit_up/features.h"
#include "assess/kept/digest.h"

#include <span>

namespace mavrel::assess {

/// What a check's figures are worked out from: its digest is of these and nothing else.
enum class Reads : unsigned {
  motion = 1,    // how the end moves, with its survey
  mounting = 2,  // how the bag stands
  presets = 4,   // heights wished for at the end, and the wheel
  end = 8,       // all that windows are worked out from
  plates = 16,   // plates, links and notch as they are cut
  workshop = 32, // the bench's sums
  air = 64,      // the kit and the ways of its lines
  sensors = 128,
};
[[nodiscard]] constexpr unsigned operator|(Reads a, Reads b) {
  return static_cast<unsigned>(a) | static_cast<unsigned>(b);
}
[[nodiscard]] constexpr unsigned operator|(unsigned a, Reads b) {
  return a | static_cast<unsigned>(b);
}

struct CheckRow {
  const char* key; // `angles`; ids are `rear.angles`, or the key alone of a car's
  const char* name;
  bool of_end;
  unsigned reads;
  int formula;     // raised when its arithmetic changes
  const char* how; // it is measured
};
[[nodiscard]] std::span<const CheckRow> check_rows();
[[nodiscard]] const CheckRow* check_row(std::string_view key);
/// The row of an id, and the end it is about.
[[nodiscard]] std::pair<const CheckRow*, std::optional<End>> row_of_check(std::string_view id);
/// `Rear: gaps at the worst pose`, for people.
[[nodiscard]] Message check_name(const std::string& id);
/// Ids of a key of a job's row: at its end, or of the car; none where the design has nothing to be checked there.
[[nodiscard]] std::vector<std::string> check_ids(const FitUpGiven& given, const std::array<FeatureSet, 2>& features,
                                                 const std::string& key, std::optional<End> end);

/// One figure that is asked for.
struct AskedFigure {
  std::string key; // `upper_across_left`
  Message name;
  Kind kind = Kind::length;          // length, angle, pressure or plain
  bool yes_no = false;               // 1 is yes
  std::optional<double> designed;    // what the design says; none: it does not
  std::optional<double> least, most; // what is right
  std::optional<std::size_t> twin;   // the other side's figure, which it must be like
  double alike = 0;                  // by so much
  [[nodiscard]] bool right(double measured) const {
    return (!least || measured >= *least) && (!most || measured <= *most);
  }
};

enum class CheckState { open, begun, passed, failed, stale };
[[nodiscard]] const char* name_of(CheckState state);

/// A figure that is another one now than when it was signed; or what is right for it is.
struct MovedFigure {
  enum class What { designed, least, most };
  std::size_t figure = 0;
  What what = What::designed;
  std::optional<double> was, is;
};
/// `bag's height then, left`; of a limit `at least, bag's height then, left`.
[[nodiscard]] Message name_of_moved(const AskedFigure& figure, MovedFigure::What what);

struct HoldPoint {
  std::string id;
  const CheckRow* row = nullptr;
  std::optional<End> end;
  Message name;
  std::vector<AskedFigure> figures;
  Digest digest;
  CheckState state = CheckState::open;
  std::optional<std::size_t> note;             // its place among the document's checks
  std::vector<std::optional<double>> measured; // one a figure
  std::vector<std::size_t> wrong;              // figures that are measured and not right
  std::vector<MovedFigure> moved;              // of a stale one
};

/// Those that the design's jobs ask for, in the order of the rows.
/// Source: docs/models.md, "Hold points".
[[nodiscard]] std::vector<HoldPoint> hold_points(const FitUpGiven& given);
/// What a check is made on now: of what its row reads, whatever its figures come to.
[[nodiscard]] Digest digest_of_check(const FitUpGiven& given, const CheckRow& row, std::optional<End> end);

/// A measured figure of a note, by its kind; and where it is kept.
[[nodiscard]] std::optional<double> measured_of(const build::CheckFigure& figure, Kind kind);
[[nodiscard]] const char* measured_field(Kind kind); // `length_m`

/// The check as it is signed: passed where every figure is right.
/// @param note  with what was measured
/// @returns it; or which figure is still to be measured
[[nodiscard]] Expected<build::HoldCheck> signed_check(const HoldPoint& point, build::HoldCheck note,
                                                      const std::string& by, const std::string& day);

} // namespace mavrel::assess
