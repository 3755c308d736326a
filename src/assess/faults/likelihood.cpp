#include "assess/faults/likelihood.h"

#include <cmath>
#include <numbers>

namespace mavrel::assess {

namespace {

double density(double x, double mean, double sd) {
  const double z = (x - mean) / sd;
  return std::exp(-0.5 * z * z) / (sd * std::sqrt(2 * std::numbers::pi));
}

} // namespace

std::pair<double, double> FaultLikelihood::range(std::size_t column) const {
  const SignAt& at = table_.columns()[column];
  if (!at.sign->of_well) return {at.sign->least, at.sign->most};
  return {at.sign->least * table_.well(column), at.sign->most * table_.well(column)};
}

double FaultLikelihood::yes(std::size_t column, const FaultStep* faults, std::size_t count) const {
  double no = 1 - table_.columns()[column].sign->base;
  for (std::size_t i = 0; i < count; ++i)
    no *= 1 - table_.value(faults[i].fault, faults[i].step, column);
  return 1 - no;
}

ExpectedReading FaultLikelihood::reading(std::size_t column, const FaultStep* faults, std::size_t count,
                                         const WeighedFinding* as) const {
  const FaultSign& sign = *table_.columns()[column].sign;
  const double well = table_.well(column);
  double value = well, spread = 0;
  for (std::size_t i = 0; i < count; ++i) {
    const double alone = table_.value(faults[i].fault, faults[i].step, column);
    if (sign.together == Together::multiplies)
      value *= alone / well;
    else
      value += alone - well;
    const double s = table_.spread(faults[i].fault, faults[i].step, column);
    spread += s * s;
  }
  const double read = as && as->sd ? *as->sd : sign.sd;
  const double share = sign.sd_share * std::abs(std::isfinite(value) ? value : 0);
  // What is read again and again is surer; what the model does not know of the car stays.
  return {value, std::sqrt(read * read + share * share + spread)};
}

double FaultLikelihood::of(const WeighedFinding& finding, const FaultStep* faults, std::size_t count) const {
  const FaultSign& sign = *table_.columns()[finding.column].sign;
  if (!sign.kind) {
    double p = yes(finding.column, faults, count);
    const double wrong = mistaken_of(sign);
    p = finding.second_hand ? passed_on * p + made_up_of(sign) * (1 - p) : p * (1 - 2 * wrong) + wrong;
    return finding.yes ? p : 1 - p;
  }
  const auto [least, most] = range(finding.column);
  const ExpectedReading expected = reading(finding.column, faults, count, &finding);
  if (finding.never) {
    const double beyond = std::isfinite(expected.value)
                              ? 0.5 * std::erfc((most - expected.value) / (expected.sd * std::numbers::sqrt2))
                              : 1.0;
    return beyond * (1 - mistaken_of(sign)) + mistaken_of(sign) * 0.05;
  }
  const double right = std::isfinite(expected.value) ? density(*finding.value, expected.value, expected.sd) : 0;
  return right * (1 - mistaken_of(sign)) + mistaken_of(sign) / (most - least);
}

double FaultLikelihood::of_unknown(const WeighedFinding& finding) const {
  const FaultSign& sign = *table_.columns()[finding.column].sign;
  if (!sign.kind) {
    const double p = std::max(sign.base, unknown_yes);
    return finding.yes ? p : 1 - p;
  }
  if (finding.never) return 0.05;
  // It may leave this reading alone, or make it anything.
  const auto [least, most] = range(finding.column);
  return 0.6 * of(finding, nullptr, 0) + 0.4 / (most - least);
}

} // namespace mavrel::assess
