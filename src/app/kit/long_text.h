// What a control promises to show whole.
#pragma once

namespace mavrel::app {

/// Letters: a text up to this long is never cut; of a longer one the beginning stands, the whole in its tip.
inline constexpr int never_cut = 20;

} // namespace mavrel::app
