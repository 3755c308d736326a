// Two designs side by side: what differs in windows, comfort and pressures.
#pragma once

#include "air/bag.h"
#include "assess/assess.h"
#include "assess/finding/finding.h"
#include "build/build.h"
#include "shelf/shelf.h"

namespace mavrel::assess {

/// One figure of two variants. A figure that one of them does not have is none there.
struct ComparedFigure {
  Message what;
  std::optional<End> end;
  Kind kind = Kind::length;
  std::optional<double> a, b;
  std::array<air::Beyond, 2> beyond{}; // what of a card each lies beyond, for pressures
  [[nodiscard]] bool differs() const;
};

/// What a choice is about, in the order in which a person decides by it.
enum class ChoiceAbout { bags, heights, air, control, fit_up };
/// `bags`, `air kit`, to be translated.
[[nodiscard]] const char* name_of(ChoiceAbout about);

/// One thing chosen differently. A route counts as one, whatever differs along it.
struct ComparedChoice {
  std::string path; // of the field, within the variant: `front.bag`; of a route: `fit_up.routes.3`
  Message label;
  std::string a, b; // empty: it has none, or it is a route
  ChoiceAbout about = ChoiceAbout::bags;
  std::array<std::optional<std::size_t>, 2> points; // of a route, on its way; none: it is not laid there
};

/// A finding that stops one of them, or both.
struct ComparedStop {
  Message title;
  std::array<bool, 2> stops{};
};

struct Comparison {
  std::size_t a = 0, b = 0;            // indices of the variants
  std::vector<ComparedChoice> choices; // only what differs, by what they are about; in each the order of the document
  std::vector<ComparedFigure> figures; // all, in a fixed order
  std::array<std::size_t, 2> stops{};  // findings of severity stop in each
  std::vector<ComparedStop> stopped;   // which those are; what stops only one of them first
  std::array<std::shared_ptr<const Assessment>, 2> assessments;
};

/// @param a, b  indices of variants of `build`
/// @param load_case  for pressures and frequencies
/// @param assessors  one a side, kept by who compares again and again
[[nodiscard]] Comparison compare(const build::Build& build, const shelf::Shelf& shelf, std::size_t a, std::size_t b,
                                 std::size_t load_case, const UnitPrefs& prefs, std::array<Assessor, 2>& assessors);
/// The same for who compares once.
[[nodiscard]] Comparison compare(const build::Build& build, const shelf::Shelf& shelf, std::size_t a, std::size_t b,
                                 std::size_t load_case, const UnitPrefs& prefs);

} // namespace mavrel::assess
