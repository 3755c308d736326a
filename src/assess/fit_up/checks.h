// Hold points: what must be measured on the car before work goes on, what the design says it must come to, and whether
// what was signed still stands. A check is stale when what its figures are worked out from has changed; nobody marks
// it.
#pragma once

#include "assess/fit_up/features.h"
#include "assess/kept/digest.h"

#include <map>
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
  controller = 256, // how the height is kept
  gauge = 512,      // how well gauges read
  dampers = 1024,   // and the anti-roll bar
};
[[nodiscard]] constexpr unsigned operator|(Reads a, Reads b) {
  return static_cast<unsigned>(a) | static_cast<unsigned>(b);
}
[[nodiscard]] constexpr unsigned operator|(unsigned a, Reads b) {
  return a | static_cast<unsigned>(b);
}

/// Where a check belongs: to the work, which stops at it, or to the proof of the whole car.
enum class CheckStage { fit_up, proving, both };

struct CheckRow {
  const char* key; // `angles`; ids are `rear.angles`, or the key alone of a car's
  const char* name;
  bool of_end;
  unsigned reads;
  int formula;     // raised when its arithmetic changes
  const char* how; // it is measured
  CheckStage stage = CheckStage::fit_up;
  const char* before = ""; // keys of checks that must have passed first, with spaces
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

/// How a figure can be read by itself, over the bench link or from readings over time.
enum class ReadBy {
  hand,
  height,   // of a corner
  pressure, // of a corner, or the tank
  fill,     // s from opening a corner's fill valve at `from` until it stands at `to`
  vent,     // the same of its vent valve
  together, // s from opening all valves until every end stands at its `to_ends`
  drop,     // Pa that a closed volume loses at one temperature over `hold`: from its readings over time
};

constexpr double on_its_stop = 0.001; // m above it, where a bag that comes down to its stop counts as there

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
  bool optional = false;             // may stay unmeasured
  bool awaited = false;              // what the design says takes a simulation, which is not there
  ReadBy read = ReadBy::hand;
  std::optional<std::size_t> corner;            // FL FR RL RR from 0 of what is read; none: the tank
  double from = 0, to = 0;                      // m, H, of a time
  std::array<double, 2> from_ends{}, to_ends{}; // the same of all corners together: front, rear
  double hold = 0;                              // s, of a drop
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

/// What simulations say of figures: by the check's id and the figure's key, `times/fill_front_left`. SI.
using Predictions = std::map<std::string, double>;

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
  std::vector<std::string> before;             // ids of checks that must have passed first and have not
};

/// Is a check one of those that the car is handed over by?
[[nodiscard]] bool is_proof(const HoldPoint& point);

/// Those that the design's jobs ask for, in the order of the rows.
/// Source: docs/models.md, "Hold points".
[[nodiscard]] std::vector<HoldPoint> hold_points(const FitUpGiven& given, const Predictions* predicted = nullptr);

/// A measured figure of a note, by its kind; and where it is kept.
[[nodiscard]] std::optional<double> measured_of(const build::CheckFigure& figure, Kind kind);
[[nodiscard]] const char* measured_field(Kind kind); // `length_m`

/// The check as it is signed: passed where every figure is right.
/// @param note  with what was measured
/// @param series  readings over time: figures that they give need not be typed
/// @returns it; or which figure is still to be measured, or which check comes first
[[nodiscard]] Expected<build::HoldCheck> signed_check(const HoldPoint& point, build::HoldCheck note,
                                                      const std::vector<build::ProofSeries>& series,
                                                      const std::string& by, const std::string& day);

/// What readings of a closed volume come to over a time, the temperature taken out.
struct Drop {
  double pressure = 0; // Pa at the first temperature; below 0: it rose
  double within = 0;   // Pa, either way, of the line through the readings
  double gauge = 0;    // Pa that the gauge itself fell
};
/// @param hold  s that the drop is said over, however long was read
/// @returns the drop; or that there are fewer than three readings, or all at one time
[[nodiscard]] Expected<Drop> drop_of(const std::vector<build::ProofReading>& readings, double hold);
constexpr double usual_air = 293.15; // K where nobody read a thermometer

} // namespace mavrel::assess
