// What a bag can't do where it stands: every hard limit there is, each asked in one place. The assessment, the judge of
// the shelf and the search refuse by these and by nothing else.
#pragma once

#include "assess/stroke.h"

namespace mavrel::assess {

/// Room a bag needs, m across.
[[nodiscard]] double room_needed(const air::BagCard& card, const build::Brief& brief);
[[nodiscard]] std::optional<Misfit> misfit_of_room(const BagOnEnd& bag);

/// The window a preset must lie in.
[[nodiscard]] const std::optional<Window>& window_for(const Windows& windows, build::PresetUse use);
/// The windows themselves, and every preset in the one it needs.
/// @param presets  of the brief, with their heights; none where not wished
void misfits_of_heights(const build::Brief& brief, const std::vector<std::optional<double>>& presets,
                        const Windows& windows, std::vector<Misfit>& out);

/// A bag without a stop inside is never the bump stop.
[[nodiscard]] std::optional<Misfit> misfit_of_stops(const BagOnEnd& bag);

/// Held up, and full bump and rebound, from road height in one load case.
/// @param state   at road height; none where the bag has no answer there
/// @param stroke  from there; none where it has none
void misfits_on_the_road(const BagOnEnd& bag, const std::optional<PoseState>& state,
                         const std::optional<StrokeEnds>& stroke, std::size_t load_case, std::vector<Misfit>& out);

/// How the sentences name what a misfit refers to. Refers to what it is made from.
struct MisfitWords {
  const air::BagCard& card;
  const build::Brief& brief; // with its presets
  const std::vector<CaseLoad>& loads;
  const std::vector<std::optional<double>>& presets; // H
};
/// In a few words, as a row of a list says it: `rubs: needs 204 mm of room, there is 190 mm`.
[[nodiscard]] Message short_words(const Misfit& misfit, const MisfitWords& with);
/// A limit with the load case it is from: `bag pressure high, Half a ton`.
[[nodiscard]] Message limit_words(const std::optional<Stretch>& limit, const std::vector<CaseLoad>& loads);

} // namespace mavrel::assess
