// Edits that are made from several places: presets and variants. An edit that one stage alone makes stands in that
// stage's folder.
#pragma once

#include "app/desk/desk.h"

namespace mavrel::app {

/// @param gesture  the drag it is part of
void drag_preset(Desk& desk, std::size_t preset, End end, double H, const QString& gesture);
/// A preset where both ends are posed now.
void add_preset(Desk& desk);
void remove_preset(Desk& desk, std::size_t index);

/// A letter that no variant's name begins with yet.
[[nodiscard]] QString free_letter(const Desk& desk);
/// Takes a design over as a new variant; one without a name gets a letter. @returns whether there was room for it;
/// else it is told
bool take_variant(Desk& desk, build::Variant variant);
/// Goes on with a copy of the active one.
void add_variant(Desk& desk);
void remove_variant(Desk& desk, std::size_t index);
/// Looks at another variant: no edit, and nothing to save.
void use_variant(Desk& desk, std::size_t index);

} // namespace mavrel::app
