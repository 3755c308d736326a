// What of a design asks for jobs, end by end.
#pragma once

#include "assess/fit_up/fit_up_given.h"

#include <cstdint>
#include <initializer_list>

namespace mavrel::assess {

/// A bit a feature.
using FeatureSet = std::uint64_t;
[[nodiscard]] constexpr FeatureSet bit(build::Feature feature) {
  return FeatureSet{1} << static_cast<unsigned>(feature);
}
[[nodiscard]] constexpr FeatureSet set_of(std::initializer_list<build::Feature> features) {
  FeatureSet out = 0;
  for (const build::Feature one : features)
    out |= bit(one);
  return out;
}

/// Is a plate welded on, or bolted, with what is usual put in?
[[nodiscard]] bool welded_on(const FitUpGiven& given, End end, build::Fixing plate);
/// The notch that parked height asks for over an axle tube, m deep; none where nobody measured, or none is needed.
[[nodiscard]] std::optional<double> notch_depth(const FitUpGiven& given, End end);

/// Front and rear; those of the whole car are in both.
[[nodiscard]] std::array<FeatureSet, 2> features_of(const FitUpGiven& given);

} // namespace mavrel::assess
