// Places and turns: what everything that has a place in the car is written in.
#pragma once

#include <array>
#include <cmath>

namespace mavrel::space {

/// A place, m: x forward, y left, z up, from the middle of the axle on the ground.
struct Point {
  double x = 0, y = 0, z = 0;
  friend bool operator==(const Point&, const Point&) = default;
};

[[nodiscard]] constexpr Point operator+(const Point& a, const Point& b) {
  return {a.x + b.x, a.y + b.y, a.z + b.z};
}
[[nodiscard]] constexpr Point operator-(const Point& a, const Point& b) {
  return {a.x - b.x, a.y - b.y, a.z - b.z};
}
[[nodiscard]] constexpr Point operator*(double k, const Point& a) {
  return {k * a.x, k * a.y, k * a.z};
}
[[nodiscard]] constexpr double dot(const Point& a, const Point& b) {
  return a.x * b.x + a.y * b.y + a.z * b.z;
}
[[nodiscard]] constexpr Point cross(const Point& a, const Point& b) {
  return {a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x};
}
[[nodiscard]] inline double length(const Point& a) {
  return std::sqrt(dot(a, a));
}
/// The same way, 1 long. @param a  not nothing
[[nodiscard]] inline Point unit(const Point& a) {
  return (1 / length(a)) * a;
}
[[nodiscard]] constexpr Point mirrored(const Point& a) {
  return {a.x, -a.y, a.z};
}
[[nodiscard]] constexpr Point lerp(const Point& a, const Point& b, double t) {
  return a + t * (b - a);
}

/// A turn and a shift of one part from where it stood when it was measured: a place u of it now lies at
/// `turn`·u + `shift`. Row by row.
struct Placed {
  std::array<double, 9> turn{1, 0, 0, 0, 1, 0, 0, 0, 1};
  Point shift;
  [[nodiscard]] Point place(const Point& u) const { return turned(u) + shift; }
  [[nodiscard]] Point turned(const Point& u) const {
    return {turn[0] * u.x + turn[1] * u.y + turn[2] * u.z, turn[3] * u.x + turn[4] * u.y + turn[5] * u.z,
            turn[6] * u.x + turn[7] * u.y + turn[8] * u.z};
  }
  /// The way back: where a place of the car lies on the part as it was measured.
  [[nodiscard]] Point back(const Point& p) const { return turned_back(p - shift); }
  [[nodiscard]] Point turned_back(const Point& d) const {
    return {turn[0] * d.x + turn[3] * d.y + turn[6] * d.z, turn[1] * d.x + turn[4] * d.y + turn[7] * d.z,
            turn[2] * d.x + turn[5] * d.y + turn[8] * d.z};
  }
};

} // namespace mavrel::space
