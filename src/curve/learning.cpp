#include "curve/learning.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace mavrel::curve {

namespace {

constexpr int most_steps = 25, most_halvings = 12;
constexpr double near_enough = 1e-9; // of the sum of squares
constexpr double nudge = 0.02;       // of a prior's doubt, for slopes

using Eigen::MatrixXd;
using Eigen::VectorXd;

/// All in doubts: a figure is how many of its prior's it lies from its mean, a residual how many of its own.
class Problem {
public:
  Problem(const Model& model, const std::vector<Observed>& observed, const std::vector<Prior>& priors)
      : model_(model), observed_(observed), priors_(priors) {}

  [[nodiscard]] std::vector<double> figures(const VectorXd& u) const {
    std::vector<double> out(priors_.size());
    for (std::size_t i = 0; i < out.size(); ++i)
      out[i] = priors_[i].mean + priors_[i].sd * u[static_cast<Eigen::Index>(i)];
    return out;
  }
  [[nodiscard]] std::optional<VectorXd> said(const VectorXd& u) const {
    const auto told = model_(figures(u));
    if (!told || told->size() != observed_.size()) return std::nullopt;
    VectorXd out(static_cast<Eigen::Index>(told->size()));
    for (std::size_t i = 0; i < told->size(); ++i) {
      if (!std::isfinite((*told)[i])) return std::nullopt;
      out[static_cast<Eigen::Index>(i)] = ((*told)[i] - observed_[i].value) / observed_[i].sd;
    }
    return out;
  }
  /// Of every residual by every figure; a figure that can't be nudged either way moves nothing.
  [[nodiscard]] MatrixXd slopes(const VectorXd& u) const {
    MatrixXd out = MatrixXd::Zero(static_cast<Eigen::Index>(observed_.size()), u.size());
    for (Eigen::Index k = 0; k < u.size(); ++k) {
      VectorXd up = u, down = u;
      up[k] += nudge, down[k] -= nudge;
      auto high = said(up), low = said(down);
      const double apart = (high ? nudge : 0) + (low ? nudge : 0);
      if (apart == 0) continue;
      if (!high) high = said(u);
      if (!low) low = said(u);
      if (high && low) out.col(k) = (*high - *low) / apart;
    }
    return out;
  }

private:
  const Model& model_;
  const std::vector<Observed>& observed_;
  const std::vector<Prior>& priors_;
};

std::vector<double> plain(const VectorXd& v) {
  return {v.data(), v.data() + v.size()};
}

} // namespace

std::optional<Learnt> learn(const Model& model, const std::vector<Observed>& observed,
                            const std::vector<Prior>& priors) {
  const Problem problem(model, observed, priors);
  const auto n = static_cast<Eigen::Index>(priors.size());
  VectorXd u = VectorXd::Zero(n);
  auto left = problem.said(u);
  if (!left) return std::nullopt;
  const auto unscaled = [&](const VectorXd& r) {
    std::vector<double> out = plain(r);
    for (std::size_t i = 0; i < out.size(); ++i)
      out[i] = out[i] * observed[i].sd + observed[i].value;
    return out;
  };
  Learnt out;
  out.before = unscaled(*left);
  double cost = left->squaredNorm();
  MatrixXd J = problem.slopes(u);
  for (int step = 0; step < most_steps && n > 0; ++step) {
    const MatrixXd A = J.transpose() * J + MatrixXd::Identity(n, n);
    const VectorXd d = A.ldlt().solve(-(J.transpose() * *left + u));
    double share = 1;
    bool better = false;
    for (int half = 0; half < most_halvings && !better; ++half, share /= 2) {
      const VectorXd next = u + share * d;
      const auto r = problem.said(next);
      if (!r) continue;
      const double now = r->squaredNorm() + next.squaredNorm();
      if (now > cost) continue;
      better = cost - now > near_enough * (1 + cost);
      u = next, left = r, cost = now;
      if (!better) break;
    }
    if (!better) break;
    J = problem.slopes(u);
  }
  const MatrixXd covariance = (J.transpose() * J + MatrixXd::Identity(n, n)).ldlt().solve(MatrixXd::Identity(n, n));
  out.mean = problem.figures(u);
  out.together.assign(priors.size(), std::vector<double>(priors.size(), 0));
  for (Eigen::Index i = 0; i < n; ++i) {
    out.sd.push_back(priors[static_cast<std::size_t>(i)].sd * std::sqrt(std::max(0.0, covariance(i, i))));
    for (Eigen::Index k = 0; k < n; ++k)
      out.together[static_cast<std::size_t>(i)][static_cast<std::size_t>(k)] =
          covariance(i, k) / std::sqrt(covariance(i, i) * covariance(k, k));
  }
  out.after = unscaled(*left);
  out.misfit = observed.empty() ? 0 : left->squaredNorm() / static_cast<double>(observed.size());
  return out;
}

} // namespace mavrel::curve
