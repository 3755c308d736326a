// The demo estate as it would be measured: figures that a car with something of its own would show.
#pragma once

#include "assess/fit_up/cars.h"
#include "assess/proving/predictions.h"

namespace mavrel::assess {

/// The car as predictions roll it.
inline LevelingGiven rolling(const Build& build) {
  return leveling_given(build, fit_up_of(build).air(), 0);
}

/// Puts what a check's figures come to on another car, the true one, into the build: as if that car had been measured.
/// @param off  added to each, by its kind
inline Build measured_on(
    Build build, const Build& truth, const std::string& id,
    const std::function<double(const AskedFigure&)>& off = [](const AskedFigure&) { return 0; }) {
  const auto predicted = predict(rolling(truth), {});
  const auto said = hold_points(fit_up_of(truth), &predicted->figures);
  build::HoldCheck note;
  note.check = id;
  for (const AskedFigure& f : point_in(said, id).figures)
    if (f.designed) note.figures.push_back(figure_of(f, *f.designed + off(f)));
  auto& checks = build.variant().fit_up.own().checks;
  std::erase_if(checks, [&](const build::HoldCheck& c) { return c.check == id; });
  checks.push_back(std::move(note));
  return build;
}

} // namespace mavrel::assess
