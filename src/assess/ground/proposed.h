// Heights worth proposing: as low as a car may stand, and as high as what lies on the ground asks for.
#pragma once

#include "assess/ground/ground.h"
#include "build/brief.h"

#include <optional>

namespace mavrel::assess {

struct EndAssessment;

/// A height for the first preset of a use at one end, on whole millimetres.
/// Parked: as low as it may stand, straight ahead and at every lock with the room that is wanted, on flat ground; as
/// low as it may stand at all where no height has that room. Ramp: high enough for what is on the ground with the other
/// end as it is, no higher than it reaches.
/// @returns m, H; nothing where the end has no window, or for a ramp where nothing on the ground is got over at a
/// wished
///          preset, and for every other use
/// @param ground  with what it is worked out from
[[nodiscard]] std::optional<double> proposed_height(const EndAssessment& here, End end,
                                                    const Answered<GroundQuestion>& ground, build::PresetUse use);

/// The build with the first preset of a use wished at H at one end, in the words it was wished in before.
[[nodiscard]] build::Build with_preset_at(const build::Build& build, const EndAssessment& here, End end,
                                          build::PresetUse use, double H);

} // namespace mavrel::assess
