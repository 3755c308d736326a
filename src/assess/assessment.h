// Everything Mavrel knows of a build, worked out: loads, windows over height, tracks, findings. Plain data; the
// screens, the build sheet and the command line draw it and compute nothing themselves. All numbers SI.
#pragma once

#include "air/bag.h"
#include "build/build.h"
#include "quantity/message.h"

#include <array>
#include <optional>
#include <string>
#include <vector>

namespace mavrel::assess {

using build::End;
using build::Side;

// ---- loads -----------------------------------------------------------------------------------------------------

/// What one end carries in one load case.
struct EndLoad {
  double axle_mass = 0;              // kg on the floor
  double sprung_mass = 0;            // kg a corner, mean of both sides
  std::array<double, 2> side_mass{}; // kg sprung, left and right wheel
};

struct CaseLoad {
  std::string name;
  std::array<std::optional<EndLoad>, 2> ends; // none where a reading is missing
  std::optional<double> total_mass;           // kg on the floor
  /// rad, left lower is positive: how the car leans at road height because bags joined by a tee share one pressure and
  /// can't carry different loads; none where no sides are joined or something is missing.
  std::optional<double> standing_lean;
};

// ---- limits and windows ----------------------------------------------------------------------------------------

enum class LimitCode {
  bag_collapsed,
  bag_full,
  bump_stop,
  damper_shut,
  damper_open,
  pressure_high, // the bag's maximum, or on the road the share of it allowed
  pressure_low,  // the bag's minimum
  card_unknown,  // the bag's card has no rows there: nobody knows what the bag does
};

/// `bag_collapsed`, as the command line and the sheet's table write it.
[[nodiscard]] const char* limit_key(LimitCode code);
/// `bag collapsed`, for people.
[[nodiscard]] const char* limit_name(LimitCode code);

/// A stretch of height that one limit forbids.
struct Stretch {
  LimitCode code = LimitCode::bag_collapsed;
  double from = 0, to = 0;              // m, H; clipped to the domain
  std::optional<std::size_t> load_case; // for limits that depend on the load
  double reserve = 0;                   // m of travel kept free in front of the bare limit (road only)
};

/// One end of a window.
struct Edge {
  double height = 0;                // m, H
  std::optional<Stretch> governing; // none: nothing known limits the end on this side
  std::optional<Stretch> next;      // what would limit if the governing one were gone
  double next_height = 0;           // m, where that would be
  std::optional<double>
      height_per_metre; // m of height gained for each m of part gained (damper, stack, stop); none for pressures
};

struct Window {
  Edge low, high;
  [[nodiscard]] double width() const { return high.height - low.height; }
  [[nodiscard]] bool contains(double H) const { return H >= low.height - 1e-9 && H <= high.height + 1e-9; }
};

struct Windows {
  std::vector<Stretch> reach_blocked, road_blocked; // road includes the reserves
  std::optional<Window> reach, road;                // none: no height is left
};

// ---- tracks ----------------------------------------------------------------------------------------------------

enum class TrackCode {
  pressure,
  pressure_left,
  pressure_right,
  frequency,      // of the body on the suspension alone
  ride_frequency, // with the tyre in series: what a person feels
  bag_height,
  damper_to_open,
  damper_to_shut,
};

[[nodiscard]] const char* track_key(TrackCode code);
[[nodiscard]] const char* track_name(TrackCode code);
[[nodiscard]] Kind track_kind(TrackCode code);

/// Evenly spaced values over a stretch of height with an answer everywhere on it.
struct TrackPiece {
  double from = 0, step = 0; // m, H; step at most 1 mm
  std::vector<double> values;
  [[nodiscard]] double to() const { return from + step * static_cast<double>(values.size() - 1); }
};

/// A stretch of height over which a track's values lie beyond what the bag's card knows or allows.
struct BeyondStretch {
  double from = 0, to = 0; // m, H
  air::Beyond what = air::Beyond::nothing;
};

/// One quantity over height. Where it has no answer there is no piece.
struct Track {
  TrackCode code = TrackCode::pressure;
  std::vector<TrackPiece> pieces;
  std::vector<BeyondStretch> beyond; // rising in H; where none holds H the value rests on what was measured
  [[nodiscard]] air::Beyond beyond_at(double H) const;
  /// Value at H, linear between the samples; none where there is no answer.
  [[nodiscard]] std::optional<double> at(double H) const;
  [[nodiscard]] std::optional<std::pair<double, double>> range() const; // least and greatest value
};

/// The tracks of one end in one load case.
struct CaseTracks {
  std::vector<Track> tracks;
  [[nodiscard]] const Track* find(TrackCode code) const;
};

// ---- presets ---------------------------------------------------------------------------------------------------

/// May a preset lie anywhere in reach, or only where the car may be driven?
[[nodiscard]] constexpr bool needs_road_window(build::PresetUse use) {
  return use == build::PresetUse::road;
}

/// One end at one height in one load case.
struct PoseState {
  double bag_height = 0;                     // m
  std::array<double, 2> side_pressure{};     // Pa gauge, left and right; one and the same where a tee joins them
  double pressure = 0;                       // Pa gauge, at the mean load
  air::Beyond beyond = air::Beyond::nothing; // the gravest of both sides
  std::optional<double> frequency;           // Hz, on the suspension alone; none where the end would not hold itself up
  std::optional<double> ride_frequency;      // Hz, with the tyre in series: what is felt, and judged by
  double wheel_rate = 0;                     // N/m a corner, quick movement, without the tyre
};

struct PresetAtEnd {
  double height = 0; // m, H
  bool in_reach = false, in_road = false;
  /// In the window that a preset of this use needs?
  [[nodiscard]] bool stands(build::PresetUse use) const { return needs_road_window(use) ? in_road : in_reach; }
  std::vector<std::optional<PoseState>> cases; // one a load case
};

/// One end of a stroke made with the valves shut: how far the wheel goes, what ends it, and the pressure there.
struct StrokeEnd {
  double height = 0;                         // m, H
  LimitCode by = LimitCode::bag_collapsed;   // metal or rubber: a pressure ends no stroke
  std::optional<double> pressure;            // Pa gauge; none where the bag's card has no answer
  double added_taking_part = 0;              // m³ of the added volume that breathes at the stroke's pace
  air::Beyond beyond = air::Beyond::nothing; // of the pressure
};

/// The sealed bag from road height to both ends of its travel, in one load case: bump on the heavier side, rebound on
/// the lighter.
struct StrokeEnds {
  StrokeEnd bump, rebound;
};

// ---- what a bag can't do where it stands -----------------------------------------------------------------------

/// Why a bag may not be fitted as it is. The assessment, the judge of the shelf and the search refuse by these alone.
enum class MisfitCode {
  room,                  // it would rub
  no_reach,              // no height is left to stand at
  no_road,               // no height is left to drive at
  preset_outside,        // a preset lies outside the window it needs
  bag_before_stop,       // the bag would be the bump stop
  not_held_up,           // the rate does not hold the end up at road height
  bump_over_maximum,     // pressure in full bump
  rebound_under_minimum, // pressure in full rebound
  stroke_unknown,        // full bump or rebound lies off the card
};

struct Misfit {
  MisfitCode code = MisfitCode::room;
  std::optional<std::size_t> preset;    // of the brief
  std::optional<std::size_t> load_case; // none: whatever is aboard
  double figure = 0, limit = 0;         // SI: room, heights or pressures, as the code says
  double by = 0;                        // m, or as grave as so many metres: the least misses are named first
  std::optional<Edge> edge;             // of the window, for presets
  bool low = false;                     // below the edge, or in bump
};

// ---- findings --------------------------------------------------------------------------------------------------

enum class Severity { stop, caution, note };
enum class Stage { car_in, bags };
constexpr std::array<Stage, 2> all_stages = {Stage::car_in, Stage::bags};

[[nodiscard]] const char* severity_key(Severity severity);
[[nodiscard]] const char* stage_key(Stage stage);

/// Something the builder should know, as data.
struct Finding {
  std::string code; // stable, `damper_open_short`
  Severity severity = Severity::note;
  std::optional<End> end;
  Stage stage = Stage::car_in;
  std::string place; // path of the field to go to, or `presets.1.front`
  Message title, reason, way_out;
  std::optional<Amount> number, limit;
};

// ---- the whole -------------------------------------------------------------------------------------------------

struct EndAssessment {
  std::optional<double> surveyed_height;            // m, H, mean of both sides, floor taken out
  std::array<std::optional<double>, 2> side_height; // m, left and right, floor taken out
  std::array<double, 2> floor_correction{};         // m, added to the reading
  std::optional<double> tyre_radius;                // m
  double unsprung_mass = 0;                         // kg a corner
  bool unsprung_estimated = false;
  std::optional<double> motion_ratio;              // at the surveyed height
  double domain_low = 0, domain_high = 0;          // m, H that the tracks and stretches cover; equal: nothing known
  Windows windows;                                 // for every load case together
  std::vector<CaseTracks> cases;                   // one a load case
  std::vector<Track> tracks;                       // those that don't depend on the load
  std::vector<std::optional<PresetAtEnd>> presets; // one a preset of the active variant
  std::vector<std::optional<StrokeEnds>> strokes;  // one a load case, from the road preset
  std::vector<Misfit> misfits;                     // of the bag chosen; empty: it fits, or none is chosen
  bool spring_base_estimated = false;              // of a solid axle
  bool bag_known = false;                          // a bag is chosen, and the end's heights and loads are known

  [[nodiscard]] bool has_domain() const { return domain_high > domain_low; }
  [[nodiscard]] const Track* find(TrackCode code, std::size_t load_case) const;
};

struct Assessment {
  std::vector<CaseLoad> loads;        // one a load case; one named “As surveyed” when the build has none
  std::optional<double> cross_weight; // front right and rear left, share of the whole
  std::optional<double> floor_twist;  // m, half the diagonal difference of the floor
  std::array<EndAssessment, 2> ends;  // front, rear
  std::vector<Finding> findings;      // worst first

  [[nodiscard]] const EndAssessment& end(End e) const { return ends[build::at(e)]; }
};

/// How a stage stands, for the rail: unknown is neither good nor bad.
enum class StageState { unknown, good, caution, stop };
[[nodiscard]] StageState stage_state(const Assessment& assessment, Stage stage);

} // namespace mavrel::assess
