// Bodies and places made up at random, and distances by brute force: dense samples of both surfaces.
#pragma once

#include "space/wheel_solid.h"

#include "support.h"

#include <random>

namespace mavrel::space {

/// Numbers at random, the same on every machine.
class Dice {
public:
  explicit Dice(unsigned seed) : engine_(seed) {}
  double from(double low, double high) {
    return low + (high - low) * static_cast<double>(engine_()) / static_cast<double>(std::mt19937::max());
  }
  Point point(double reach) { return {from(-reach, reach), from(-reach, reach), from(-reach, reach)}; }
  Point direction() {
    for (;;) {
      const Point p = point(1);
      if (const double l = length(p); l > 0.1 && l < 1) return (1 / l) * p;
    }
  }

private:
  std::mt19937 engine_;
};

/// Two directions square to one another and to `axis`.
inline std::pair<Point, Point> square_to(const Point& axis) {
  const Point side = std::abs(axis.x) < 0.7 ? Point{1, 0, 0} : Point{0, 1, 0};
  const Point s = cross(axis, side), u = (1 / length(s)) * s;
  return {u, cross(axis, u)};
}

/// Places over a box's faces, `apart` from one another.
inline std::vector<Point> surface_of(const Box& box, double apart) {
  std::vector<Point> out;
  const Point u{std::cos(box.turn), std::sin(box.turn), 0}, v{-std::sin(box.turn), std::cos(box.turn), 0}, w{0, 0, 1};
  const auto steps = [&](double half) { return std::max(1, static_cast<int>(std::ceil(2 * half / apart))); };
  const auto face = [&](const Point& middle, const Point& a, double ha, const Point& b, double hb) {
    for (int i = 0; i <= steps(ha); ++i)
      for (int k = 0; k <= steps(hb); ++k)
        out.push_back(middle + (ha * (2.0 * i / steps(ha) - 1)) * a + (hb * (2.0 * k / steps(hb) - 1)) * b);
  };
  for (const double way : {-1.0, 1.0}) {
    face(box.centre + (way * box.half.x) * u, v, box.half.y, w, box.half.z);
    face(box.centre + (way * box.half.y) * v, u, box.half.x, w, box.half.z);
    face(box.centre + (way * box.half.z) * w, u, box.half.x, v, box.half.y);
  }
  return out;
}

inline std::vector<Point> line_of(const Point& from, const Point& to, double apart) {
  std::vector<Point> out;
  const int steps = std::max(1, static_cast<int>(std::ceil(length(to - from) / apart)));
  for (int i = 0; i <= steps; ++i)
    out.push_back(lerp(from, to, static_cast<double>(i) / steps));
  return out;
}

inline std::vector<Point> surface_of(const Cylinder& c, double apart) {
  std::vector<Point> out;
  const auto [u, v] = square_to(c.axis);
  const int around = static_cast<int>(std::ceil(2 * M_PI * c.radius / apart));
  for (int i = 0; i < around; ++i) {
    const double turn = 2 * M_PI * i / around;
    const Point ray = std::cos(turn) * u + std::sin(turn) * v;
    for (const Point& p : line_of(c.centre - c.half * c.axis, c.centre + c.half * c.axis, apart))
      out.push_back(p + c.radius * ray);
    for (const double way : {-1.0, 1.0})
      for (const Point& p : line_of({}, c.radius * ray, apart))
        out.push_back(c.centre + (way * c.half) * c.axis + p);
  }
  return out;
}

} // namespace mavrel::space
