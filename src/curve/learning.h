// What measured figures say of a model's own: least squares, held by what was known of them before.
#pragma once

#include <cstddef>
#include <functional>
#include <optional>
#include <vector>

namespace mavrel::curve {

/// What a figure of the model was thought to be, and its doubt: one standard deviation, above 0.
struct Prior {
  double mean = 0, sd = 1;
};

/// What was measured, and the doubt of measuring it, above 0.
struct Observed {
  double value = 0, sd = 1;
};

struct Learnt {
  std::vector<double> mean, sd;              // of each figure, as for its prior
  std::vector<std::vector<double>> together; // correlations, -1 to 1
  std::vector<double> before, after;         // what the model says of each thing observed
  double misfit = 0; // mean square of what is left, in doubts: near 1 where model and doubts are right
};

/// What a model with these figures says of everything observed, in its order; none where it has no answer.
using Model = std::function<std::optional<std::vector<double>>(const std::vector<double>& figures)>;

/// The figures that fit best what was observed and what was known before; by Gauss and Newton, steps halved where they
/// would make it worse. With nothing observed: the priors.
/// @returns them; none where the model has no answer for the priors themselves
/// Source: docs/models.md, "Learning".
[[nodiscard]] std::optional<Learnt> learn(const Model& model, const std::vector<Observed>& observed,
                                          const std::vector<Prior>& priors);

} // namespace mavrel::curve
