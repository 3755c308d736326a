#include "motion/cycle_fit.h"

#include <Eigen/Dense>
#include <boost/math/distributions/students_t.hpp>

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::motion {

namespace {

constexpr double significance = 0.05; // over all readings together
constexpr double exact = 1e-9;        // m: residuals below are rounding

std::size_t distinct_heights(std::span<const CycleReading> readings) {
  std::vector<double> heights;
  for (const CycleReading& reading : readings)
    heights.push_back(reading.height);
  std::sort(heights.begin(), heights.end());
  std::size_t out = heights.empty() ? 0 : 1;
  for (std::size_t i = 1; i < heights.size(); ++i)
    out += heights[i] - heights[i - 1] > least_between_heights;
  return out;
}

/// Powers of u up to the degree, and of their slope by u.
Eigen::VectorXd powers(double u, int degree) {
  Eigen::VectorXd out(degree + 1);
  double p = 1;
  for (int k = 0; k <= degree; ++k, p *= u)
    out[k] = p;
  return out;
}
Eigen::VectorXd slopes(double u, int degree) {
  Eigen::VectorXd out = Eigen::VectorXd::Zero(degree + 1);
  double p = 1;
  for (int k = 1; k <= degree; ++k, p *= u)
    out[k] = k * p;
  return out;
}

/// Readings that the curve through the others rejects.
/// @param leverage  of each reading on its own fitted value
std::vector<std::size_t> rejected(const Eigen::VectorXd& residual, const Eigen::VectorXd& leverage, int unknowns,
                                  double least) {
  std::vector<std::size_t> out;
  const auto n = residual.size();
  const double left = static_cast<double>(n - unknowns - 1); // degrees of freedom without the one asked about
  if (left < 1) return out;
  const boost::math::students_t spread(left);
  const double bound =
      boost::math::quantile(boost::math::complement(spread, significance / (2.0 * static_cast<double>(n))));
  const double sum = residual.squaredNorm();
  for (Eigen::Index i = 0; i < n; ++i) {
    const double spare = 1 - leverage[i];
    if (spare < 1e-9) continue;                        // the curve goes through it whatever it is: nobody can tell
    const double away = std::abs(residual[i]) / spare; // from the curve fitted without it
    if (away <= least) continue;
    const double others = std::max(0.0, (sum - residual[i] * residual[i] / spare) / left);
    const double t = std::abs(residual[i]) / std::sqrt(std::max(others, exact * exact) * spare);
    if (t > bound) out.push_back(static_cast<std::size_t>(i));
  }
  return out;
}

} // namespace

std::optional<double> CycleFit::slope_sd(double H) const {
  if (!reading_sd) return std::nullopt;
  const Eigen::VectorXd d = slopes((H - length.x0) / half_range, degree);
  const Eigen::Map<const Eigen::MatrixXd> covariance(inverse.data(), degree + 1, degree + 1);
  return *reading_sd * std::sqrt(std::max(0.0, d.dot(covariance * d))) / half_range;
}

Expected<CycleFit> fit_cycle(std::span<const CycleReading> readings, double least) {
  for (const CycleReading& reading : readings)
    if (!std::isfinite(reading.height) || !std::isfinite(reading.length))
      return refuse(words("A reading of the sheet is no number."));
  const std::size_t distinct = distinct_heights(readings);
  if (readings.size() < 2) return refuse(words("A cycle sheet needs two readings at least; five to nine are usual."));
  if (distinct < 2) return refuse(words("All readings are of one height: jack the wheel through its travel."));

  CycleFit out;
  const auto n = static_cast<Eigen::Index>(readings.size());
  out.degree = std::min({3, std::max(1, static_cast<int>(n - 1) / 2), static_cast<int>(distinct) - 1});
  const auto [low, high] =
      std::minmax_element(readings.begin(), readings.end(),
                          [](const CycleReading& a, const CycleReading& b) { return a.height < b.height; });
  out.lowest = low->height;
  out.highest = high->height;
  out.length.x0 = 0.5 * (out.lowest + out.highest);
  out.half_range = 0.5 * (out.highest - out.lowest);

  const int unknowns = out.degree + 1;
  Eigen::MatrixXd X(n, unknowns);
  Eigen::VectorXd y(n);
  for (Eigen::Index i = 0; i < n; ++i) {
    const CycleReading& reading = readings[static_cast<std::size_t>(i)];
    X.row(i) = powers((reading.height - out.length.x0) / out.half_range, out.degree);
    y[i] = reading.length;
  }
  const Eigen::ColPivHouseholderQR<Eigen::MatrixXd> qr(X);
  if (qr.rank() < unknowns) return refuse(words("The heights of the sheet lie too close together for a curve."));
  const Eigen::VectorXd c = qr.solve(y);
  double scale = 1;
  for (int k = 0; k < unknowns; ++k, scale *= out.half_range)
    out.length.c.push_back(c[k] / scale);

  const Eigen::MatrixXd inverse = (X.transpose() * X).inverse(); // a few unknowns in [−1, 1]: well conditioned
  out.inverse.assign(inverse.data(), inverse.data() + inverse.size());
  const Eigen::VectorXd residual = y - X * c;
  const Eigen::VectorXd leverage = (X * inverse).cwiseProduct(X).rowwise().sum();
  if (n > unknowns) out.reading_sd = std::sqrt(residual.squaredNorm() / static_cast<double>(n - unknowns));
  out.measure_again = rejected(residual, leverage, unknowns, least);
  return out;
}

} // namespace mavrel::motion
