#include "curve/linear.h"

#include <Eigen/LU>
#include <Eigen/QR>
#include <Eigen/SVD>
#include <boost/math/distributions/students_t.hpp>

#include <algorithm>

namespace mavrel::curve {

namespace {

Eigen::Map<const Eigen::MatrixXd> matrix(const Columns& a) {
  return {a.values.data(), static_cast<Eigen::Index>(a.rows), static_cast<Eigen::Index>(a.columns)};
}
Eigen::Map<const Eigen::VectorXd> vector(std::span<const double> v) {
  return {v.data(), static_cast<Eigen::Index>(v.size())};
}
std::vector<double> numbers(const Eigen::Ref<const Eigen::MatrixXd>& m) {
  const Eigen::MatrixXd whole = m;
  return {whole.data(), whole.data() + whole.size()};
}

} // namespace

LinearFit least_squares_fit(const Columns& X, std::span<const double> y) {
  const Eigen::MatrixXd m = matrix(X);
  const Eigen::ColPivHouseholderQR<Eigen::MatrixXd> qr(m);
  LinearFit out;
  out.rank = static_cast<std::size_t>(qr.rank());
  out.c = numbers(qr.solve(Eigen::VectorXd(vector(y))));
  out.inverse = numbers((m.transpose() * m).inverse());
  return out;
}

std::vector<double> least_change_to(const Columns& a, std::span<const double> b, double same) {
  Eigen::JacobiSVD<Eigen::MatrixXd> svd(matrix(a), Eigen::ComputeThinU | Eigen::ComputeThinV);
  svd.setThreshold(same);
  return numbers(svd.solve(Eigen::VectorXd(vector(b))));
}

std::vector<double> direction_of(const Columns& a, std::size_t n) {
  const Eigen::JacobiSVD<Eigen::MatrixXd> svd(matrix(a), Eigen::ComputeFullU);
  return numbers(svd.matrixU().col(std::min(static_cast<Eigen::Index>(n), svd.matrixU().cols() - 1)));
}

double student_quantile(double freedom, double upper) {
  return boost::math::quantile(boost::math::complement(boost::math::students_t(freedom), upper));
}

} // namespace mavrel::curve
