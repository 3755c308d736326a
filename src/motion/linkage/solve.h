// Shared by the linkages: Eigen's vectors from and to places, turns. For .cpp files of this folder only; it brings
// Eigen with it.
#pragma once

#include "curve/linear.h"
#include "motion/linkage/pose.h"

#include <Eigen/Cholesky>
#include <Eigen/Geometry>
#include <Eigen/LU>

#include <algorithm>
#include <cmath>

namespace mavrel::motion {

using Eigen::Matrix3d;
using Eigen::Vector3d;

inline Vector3d vec(const Point& p) {
  return {p.x, p.y, p.z};
}
inline Point point(const Vector3d& v) {
  return {v.x(), v.y(), v.z()};
}
inline Matrix3d turn_of(const Placed& placed) {
  return Eigen::Map<const Eigen::Matrix<double, 3, 3, Eigen::RowMajor>>(placed.turn.data());
}
inline Placed placed(const Matrix3d& turn, const Vector3d& shift) {
  Placed out;
  Eigen::Map<Eigen::Matrix<double, 3, 3, Eigen::RowMajor>>(out.turn.data()) = turn;
  out.shift = point(shift);
  return out;
}
/// The turn by a rotation vector, rad.
inline Matrix3d turn_by(const Vector3d& w) {
  const double angle = w.norm();
  if (angle < 1e-300) return Matrix3d::Identity();
  return Eigen::AngleAxisd(angle, w / angle).toRotationMatrix();
}
/// A matrix as plain functions take it; refers to its numbers.
template <class Matrix>
[[nodiscard]] curve::Columns columns_of(const Matrix& m) {
  return {{m.data(), static_cast<std::size_t>(m.size())},
          static_cast<std::size_t>(m.rows()),
          static_cast<std::size_t>(m.cols())};
}
/// Which number is furthest from nothing.
[[nodiscard]] inline std::size_t strongest_of(const std::vector<double>& v) {
  return static_cast<std::size_t>(
      std::max_element(v.begin(), v.end(), [](double a, double b) { return std::abs(a) < std::abs(b); }) - v.begin());
}
inline Matrix3d cross_matrix(const Vector3d& w) {
  Matrix3d out;
  out << 0, -w.z(), w.y(), w.z(), 0, -w.x(), -w.y(), w.x(), 0;
  return out;
}

} // namespace mavrel::motion
