#include "assess/doubt/doubt.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

double quantile(const std::vector<double>& sorted, double share) {
  const double x = share * static_cast<double>(sorted.size() - 1);
  const auto i = std::min(static_cast<std::size_t>(x), sorted.size() - 1);
  const auto j = std::min(i + 1, sorted.size() - 1);
  return sorted[i] + (sorted[j] - sorted[i]) * (x - static_cast<double>(i));
}

/// What each column carries of an answer: slopes of the plane through all draws that have it where there are enough,
/// else one by one. The costly part is done once for all answers that the same draws have.
class Slopes {
public:
  explicit Slopes(const NormalDraws& draws) : draws_(draws) {}

  /// @param has  the draws  @param off  what they are off their mean by  @param sd  of that
  void through(const std::vector<std::size_t>& has, const Eigen::VectorXd& off, double sd) {
    prepare(has);
    const auto n = static_cast<double>(has.size());
    if (plane_) {
      slope = plane_->solve(Z_.transpose() * off);
      const double left = (off - Z_ * slope).squaredNorm() / (n - static_cast<double>(Z_.cols()) - 1);
      noise = std::sqrt(left / n);
    } else {
      slope = Z_.transpose() * off / n;
      noise = sd / std::sqrt(n);
    }
  }
  Eigen::VectorXd slope;
  double noise = 0; // of a slope, one standard deviation

private:
  void prepare(const std::vector<std::size_t>& has) {
    if (has == has_) return;
    has_ = has;
    const auto rows = static_cast<Eigen::Index>(has.size()), columns = static_cast<Eigen::Index>(draws_.dimensions());
    Z_.resize(rows, columns);
    for (Eigen::Index r = 0; r < rows; ++r)
      Z_.row(r) = Eigen::Map<const Eigen::RowVectorXd>(draws_.row(has[static_cast<std::size_t>(r)]), columns);
    const Eigen::RowVectorXd middle = Z_.colwise().mean();
    Z_.rowwise() -= middle;
    plane_.reset();
    if (rows > 2 * columns + 10) plane_.emplace((Z_.transpose() * Z_).ldlt());
  }

  const NormalDraws& draws_;
  std::vector<std::size_t> has_;
  Eigen::MatrixXd Z_;
  std::optional<Eigen::LDLT<Eigen::MatrixXd>> plane_;
};

/// Middle, spread and hundredths of an answer over the draws that have it.
void look_at_values(const std::vector<double>& values, DoubtAnswer& answer) {
  const auto n = static_cast<double>(values.size());
  answer.mean = 0;
  for (const double v : values)
    answer.mean += v / n;
  double sum = 0;
  for (const double v : values)
    sum += (v - answer.mean) * (v - answer.mean);
  answer.sd = std::sqrt(sum / (n - 1));
  if (answer.sd < 1e-12 * std::max(1.0, std::abs(answer.mean))) answer.sd = 0; // the same in every draw
  std::vector<double> sorted = values;
  std::sort(sorted.begin(), sorted.end());
  answer.p05 = quantile(sorted, 0.05), answer.p50 = quantile(sorted, 0.5), answer.p95 = quantile(sorted, 0.95);
}

} // namespace

void look_at_draws(const std::vector<std::vector<std::optional<double>>>& values, const DoubtDraws& draws,
                   const std::vector<DoubtInput>& inputs, std::vector<DoubtAnswer>& answers) {
  const std::size_t columns = draws.normal().dimensions();
  Slopes slopes(draws.normal());
  for (std::size_t a = 0; a < answers.size(); ++a) {
    DoubtAnswer& answer = answers[a];
    std::vector<std::size_t> has;
    std::vector<double> there;
    for (std::size_t i = 0; i < values.size(); ++i)
      if (values[i][a]) has.push_back(i), there.push_back(*values[i][a]);
    answer.vanished = values.empty() ? 0 : 1 - static_cast<double>(has.size()) / static_cast<double>(values.size());
    if (has.size() < 2) continue;
    look_at_values(there, answer);
    if (!(answer.sd > 0) || columns == 0) continue;
    const Eigen::VectorXd off =
        Eigen::Map<const Eigen::VectorXd>(there.data(), static_cast<Eigen::Index>(there.size())).array() - answer.mean;
    slopes.through(has, off, answer.sd);
    // What is no more than chance carries nothing.
    double all = 0;
    std::vector<double> carried(columns);
    for (std::size_t c = 0; c < columns; ++c) {
      const double b = slopes.slope(static_cast<Eigen::Index>(c));
      carried[c] = std::abs(b) > 2.5 * slopes.noise ? b * b : 0;
      all += carried[c];
    }
    if (!(all > 0)) continue;
    // A column that is shared goes to those that share it, by how much each is off by it: what they carry together is
    // what the column does.
    std::vector<double> by_column(columns, 0.0);
    for (std::size_t i = 0; i < inputs.size(); ++i)
      if (const auto c = draws.shared_column(i)) by_column[*c] += std::abs(inputs[i].shared);
    for (std::size_t i = 0; i < inputs.size(); ++i) {
      DoubtAnswer::Carried one;
      one.input = i;
      double own = 0;
      if (const auto c = draws.own_column(i)) own = carried[*c] / all;
      one.share = own;
      if (const auto c = draws.shared_column(i))
        one.share += carried[*c] / all * std::abs(inputs[i].shared) / by_column[*c];
      if (one.share < 1e-4) continue;
      // One reading more takes its own variance down, by a part in n + 1 mostly; what is shared stays.
      const double left = inputs[i].own > 0 ? inputs[i].again / inputs[i].own : 1;
      const double less = own * (1 - left * left);
      one.would_win = 1 - std::sqrt(std::max(0.0, 1 - less));
      one.per_minute = inputs[i].minutes > 0 ? one.would_win / inputs[i].minutes : 0;
      answer.carried_by.push_back(one);
    }
    double shares = 0;
    for (const auto& c : answer.carried_by)
      shares += c.share;
    for (auto& c : answer.carried_by)
      c.share /= shares;
    std::stable_sort(answer.carried_by.begin(), answer.carried_by.end(),
                     [](const auto& x, const auto& z) { return x.share > z.share; });
  }
}

} // namespace mavrel::assess
