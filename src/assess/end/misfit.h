// What a bag can't do where it stands: every hard limit there is, each asked in one place. The assessment, the judge of
// the shelf and the search refuse by these and by nothing else.
#pragma once

#include "assess/end/stroke.h"

namespace mavrel::assess {

/// May a preset lie anywhere in reach, or only where the car may be driven?
[[nodiscard]] constexpr bool needs_road_window(build::PresetUse use) {
  return use == build::PresetUse::road;
}

/// Why a bag may not be fitted as it is. The assessment, the judge of the shelf and the search refuse by these alone.
enum class MisfitCode {
  room,                  // it would rub
  no_reach,              // no height is left to stand at
  no_road,               // no height is left to drive at
  preset_outside,        // a preset lies outside the window it needs
  bag_before_stop,       // the bag would be the bump stop: it is down to its margin before the stop gives no more
  damper_before_stop,    // the damper would be: it is shut before the stop gives no more
  not_held_up,           // the rate does not hold the end up at road height
  bump_over_peak,        // pressure in full bump
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

/// Room a bag needs, m across.
[[nodiscard]] double room_needed(const air::BagCard& card, const build::Brief& brief);
[[nodiscard]] std::optional<Misfit> misfit_of_room(const BagOnEnd& bag);

/// The window a preset must lie in.
[[nodiscard]] const std::optional<Window>& window_for(const Windows& windows, build::PresetUse use);
/// The windows themselves, and every preset in the one it needs.
/// @param presets  of the brief, with their heights; none where not wished
void misfits_of_heights(const build::Brief& brief, const std::vector<std::optional<double>>& presets,
                        const Windows& windows, std::vector<Misfit>& out);

/// What meets before it should: a bag without a stop inside is never the bump stop, nor is a damper, judged where the
/// stop is squeezed until it gives no more. A usual damper's end that stands in for one nobody measured judges nothing.
/// Of sides that differ the worse one of each kind.
/// Source: docs/models.md, "Stroke".
void misfits_of_stops(const BagOnEnd& bag, std::vector<Misfit>& out);

/// The presets that the car is driven at, as far as they are in reach.
[[nodiscard]] std::vector<std::size_t>
driven_presets(const build::Brief& brief, const std::vector<std::optional<double>>& presets, const Windows& windows);
/// Held up, and full bump and rebound, from a preset's height in one load case.
/// @param preset  of the brief
/// @param H       m, where it lies
/// @param state   there; none where the bag has no answer
/// @param travel  until the stop gives no more, where that is known already
/// @returns the stroke; of sides that differ the graver one each way; none where there is none
std::optional<StrokeEnds> misfits_driven_at(const BagOnEnd& bag, std::size_t preset, double H,
                                            const std::optional<PoseState>& state, std::size_t load_case,
                                            std::vector<Misfit>& out, const Travel* travel = nullptr);

/// How the sentences name what a misfit refers to. Refers to what it is made from, for one call.
struct MisfitWords {
  const std::vector<std::string>& presets; // names, as in the brief
  const std::vector<std::string>& cases;   // names of the load cases
};
/// In a few words, as a row of a list says it: `rubs: needs 204 mm of room, there is 190 mm`.
[[nodiscard]] Message short_words(const Misfit& misfit, const MisfitWords& with);
/// A limit with the load case it is from: `bag pressure high, Half a ton`.
[[nodiscard]] Message limit_words(const std::optional<Stretch>& limit, const std::vector<std::string>& cases);

/// Names of the active variant's presets, and of the load cases (at least one).
[[nodiscard]] std::vector<std::string> preset_names(const build::Build& build);
[[nodiscard]] std::vector<std::string> case_names(const build::Build& build);

} // namespace mavrel::assess
