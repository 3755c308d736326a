// Edits to a build: one field by its path, or lists by their entries. Each returns a new build; the old one stays.
#pragma once

#include "build/build.h"
#include "quantity/expected.h"
#include "quantity/quantity.h"

#include <string>
#include <string_view>

namespace mavrel::build {

/// One field as a person meets it.
struct FieldView {
  Message label; // `front left weight`
  Kind kind = Kind::plain;
  bool is_text = false; // plain words, not a quantity
  bool is_wish = false; // a height wish: height, gap or drop
  bool filled = false;
  std::string shown;    // `417 kg`; mean of the readings
  std::string editable; // the text to start editing with; every reading
  std::size_t readings = 0;
  double spread = 0; // SI
};

/// Paths are those of the file: `front.left.mass_kg`, `variants.0.brief.presets.1.rear`.
/// @returns the field; or that there is none of this path
[[nodiscard]] Expected<FieldView> look_up(const Build& build, std::string_view path, const UnitPrefs& prefs);

/// Paths, below a variant, of every field it has: `front.bag`, `brief.presets.1.rear`.
[[nodiscard]] std::vector<std::string> field_paths(const Variant& variant);

/// Types `text` into a field. Blank text clears what may be absent. Readings may be several (`343; 344 mm`);
/// a leading `+` adds to those there.
/// @returns the changed build; or what is wrong with the text and what would be right
[[nodiscard]] Expected<Build> with_text(const Build& build, std::string_view path, std::string_view text,
                                        const UnitPrefs& prefs);

/// Sets a choice by its key in the file, `front.layout` to `strut`.
[[nodiscard]] Expected<Build> with_choice(const Build& build, std::string_view path, std::string_view key);

/// Reads a height wish: `343 mm` a height, `gap 30 mm` or `2 f` (fingers) a gap, `drop 60 mm` below the survey.
[[nodiscard]] Expected<HeightWish> parse_wish(std::string_view text, const UnitPrefs& prefs);
[[nodiscard]] std::string show_wish(const HeightWish& wish, const UnitPrefs& prefs, int decimals = -2);

} // namespace mavrel::build
