// What an end's motion is read for over height.
#pragma once

#include "assess/end/end_model.h"
#include "assess/height/track.h"

namespace mavrel::assess {

namespace tracks {
extern const TrackRow motion_ratio, motion_ratio_doubt; // its standard error, where a cycle sheet says it
extern const TrackRow bag_tilt, bag_offset;
extern const TrackRow camber, toe, caster, kingpin;
extern const TrackRow wheel_forward, wheel_outward;
extern const TrackRow poke; // of the tyre past the arch; below 0 it is tucked in
extern const TrackRow pinion, axle_roll;
extern const TrackRow hose_slack, shaft_angle, shaft_plunge, bar_link_angle;
} // namespace tracks
extern const std::span<const TrackRow* const> motion_tracks;

/// Adds every one of them that is known between two heights.
/// @param model  with a map
void add_motion_tracks(const EndGiven& given, const EndModel& model, double low, double high, std::vector<Track>& out);

} // namespace mavrel::assess
