// Cars to ask the assessment about, and the answers picked out of it.
#pragma once

#include "assess/assess.h"
#include "assess/bags/ride.h"
#include "assess/bags/roll.h"
#include "assess/bags/softening.h"
#include "assess/bags/weather.h"
#include "assess/search/search_end.h"
#include "random_car.h"

#include <algorithm>
#include <functional>

namespace mavrel::assess {

using build::Build;

/// The demo pickup, read once.
inline Build pickup() {
  return test::read_once(test::pickup_with_joints());
}

inline Build with(Build build, const std::function<void(Build&)>& change) {
  change(build);
  return build;
}

inline std::array<FittedEnd, 2> ends_of(const Build& build, const shelf::Shelf& shelf = test::demo_shelf()) {
  return {fitted_end(build, shelf, End::front), fitted_end(build, shelf, End::rear)};
}

// ---- questions as a test asks them: from a build and what stands at its ends

/// A shelf of just the bags that are fitted.
inline shelf::Shelf shelf_of(const std::array<FittedEnd, 2>& ends) {
  shelf::Shelf out;
  for (const FittedEnd& end : ends)
    if (end.bag && !out.find(end.bag->card.name)) {
      out.bags.push_back(*end.bag);
      std::sort(out.bags.begin(), out.bags.end(),
                [](const shelf::ShelfBag& a, const shelf::ShelfBag& b) { return a.card.name < b.card.name; });
    }
  return out;
}
inline EndModel end_model(const Build& build, End end) {
  return fitted_end(build, {}, end).model;
}
inline Expected<Softening> softening(const Build& build, const FittedEnd& end, double H, std::size_t load_case) {
  return softening(end, H, load_case, build.variant().brief.frequency_high);
}
inline Expected<Roll> roll(const Build& build, const std::array<FittedEnd, 2>& ends, const std::array<double, 2>& H,
                           std::size_t load_case) {
  return roll({ask_ends(build, shelf_of(ends)), car_in_bend(build), H, load_case});
}
inline std::vector<WeatherAnswer> weather(const Build& build, const std::array<FittedEnd, 2>& ends,
                                          const std::array<std::optional<double>, 2>& H, std::size_t load_case) {
  return weather({ask_ends(build, shelf_of(ends)), H, load_case, build.surroundings, build.body.wheelbase});
}
inline Ride ride(const Build& build, const shelf::Shelf& shelf, std::size_t load_case) {
  return ride(ride_given(build, shelf, ask_ends(build, shelf), load_case));
}
inline Expected<std::vector<EndOption>> end_options(const Build& build, const shelf::Shelf& shelf, End end,
                                                    const SearchSpace& space, const SearchControl& control = {}) {
  return end_options(search_given(build, shelf, space), end, control);
}

inline const Finding* finding(const Assessment& a, const std::string& code) {
  for (const Finding& f : a.findings)
    if (f.code == code) return &f;
  return nullptr;
}

} // namespace mavrel::assess
