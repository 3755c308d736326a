#include "motion/linkage/smooth.h"

#include <Eigen/Dense>

#include <algorithm>

namespace mavrel::motion {

Smooth smooth_through(std::span<const double> x, std::span<const double> y) {
  constexpr Eigen::Index highest_degree = 11;
  const auto n = static_cast<Eigen::Index>(x.size());
  const Eigen::Index terms = std::min(highest_degree + 1, std::max<Eigen::Index>(2, (n + 1) / 2));
  Smooth out;
  out.curve.x0 = 0.5 * (x.front() + x.back());
  const double half = 0.5 * (x.back() - x.front());
  Eigen::MatrixXd powers(n, terms);
  for (Eigen::Index i = 0; i < n; ++i) {
    const double u = (x[static_cast<std::size_t>(i)] - out.curve.x0) / half;
    double p = 1;
    for (Eigen::Index k = 0; k < terms; ++k, p *= u)
      powers(i, k) = p;
  }
  const Eigen::Map<const Eigen::VectorXd> values(y.data(), n);
  const Eigen::VectorXd c = powers.householderQr().solve(values);
  out.off = (powers * c - values).cwiseAbs().maxCoeff();
  double scale = 1;
  for (Eigen::Index k = 0; k < terms; ++k, scale /= half)
    out.curve.c.push_back(c[k] * scale);
  return out;
}

} // namespace mavrel::motion
