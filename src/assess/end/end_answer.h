// All that is known of one end with what is fitted there: windows, tracks, presets, strokes, and what its bag can't do.
#pragma once

#include "assess/end/fitted_end.h"
#include "assess/end/misfit.h"
#include "assess/end/motion_tracks.h"

namespace mavrel::assess {

/// Rows of what an end is read for over height.
namespace tracks {
extern const TrackRow pressure;                      // at the mean load of both sides
extern const TrackRow pressure_left, pressure_right; // only where the sides differ
extern const TrackRow frequency;                     // of the body on the suspension alone
extern const TrackRow ride_frequency;                // with the tyre in series: what a person feels
extern const TrackRow bag_height;
extern const TrackRow damper_to_open, damper_to_shut;
} // namespace tracks
extern const std::span<const TrackRow* const> end_tracks;

struct PresetAtEnd {
  double height = 0; // m, H
  bool in_reach = false, in_road = false;
  /// In the window that a preset of this use needs?
  [[nodiscard]] bool stands(build::PresetUse use) const { return needs_road_window(use) ? in_road : in_reach; }
  std::vector<std::optional<PoseState>> cases; // one a load case
};

/// How a reading that was not taken moves the window.
struct Firming {
  const char* field = nullptr; // `motion_ratio`
  double moves = 0;            // m that the window's edges move by, for its usual doubt
};

struct EndAssessment {
  std::optional<double> surveyed_height;            // m, H, mean of both sides, floor taken out
  std::array<std::optional<double>, 2> side_height; // m, left and right, floor taken out
  std::array<double, 2> floor_correction{};         // m, added to the reading
  std::optional<double> tyre_radius;                // m
  double unsprung_mass = 0;                         // kg a corner
  bool unsprung_estimated = false;
  std::optional<double> motion_ratio;                // at the surveyed height
  MapSource spring_from = MapSource::single_reading; // how it is known
  std::vector<Estimate> estimated;                   // readings that usual figures stand in for
  std::optional<Firming> firms_most;      // of those, and the bump stop: the one that would firm the windows up most
  double domain_low = 0, domain_high = 0; // m, H that the tracks and stretches cover; equal: nothing known
  Windows windows;                        // for every load case together
  std::vector<std::vector<Track>> cases;  // one a load case
  std::vector<Track> tracks;              // those that don't depend on the load
  std::vector<std::optional<PresetAtEnd>> presets; // one a preset of the active variant
  std::vector<std::optional<StrokeEnds>> strokes;  // one a load case, from the first road preset
  /// The same of every road preset that is in reach; empty of any other. Of sides that differ, the side that goes
  /// furthest over or under.
  std::vector<std::vector<std::optional<StrokeEnds>>> preset_strokes;
  std::vector<GapCurve> gaps;         // of everything near wheel, bag, damper and arms
  std::vector<Misfit> misfits;        // of the bag chosen; empty: it fits, or none is chosen
  bool spring_base_estimated = false; // of a solid axle
  bool bag_known = false;             // a bag is chosen, and the end's heights and loads are known

  [[nodiscard]] bool has_domain() const { return domain_high > domain_low; }
  /// Do its windows rest on usual figures rather than on this car's?
  [[nodiscard]] bool rough() const { return !estimated.empty(); }
  [[nodiscard]] const Track* find(const TrackRow& what, std::size_t load_case) const;
};

struct EndAnswer {
  FittedEnd fitted;
  EndAssessment assessment;
};
[[nodiscard]] EndAnswer answer_end(const EndGiven& given);

struct EndQuestion {
  using Given = EndGiven;
  using Answer = EndAnswer;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return answer_end(given); }
};
using AnsweredEnd = Answered<EndQuestion>;
using AnsweredEnds = std::array<AnsweredEnd, 2>; // front, rear

/// Both ends of the active variant, from the document, for who asks once.
[[nodiscard]] AnsweredEnds ask_ends(const build::Build& build, const shelf::Shelf& shelf);

} // namespace mavrel::assess
