// Small linear problems behind plain functions: the library that solves them is compiled once, in linear.cpp.
#pragma once

#include <cstddef>
#include <span>
#include <vector>

namespace mavrel::curve {

/// A matrix, column by column. Refers to the caller's values.
struct Columns {
  std::span<const double> values; // rows × columns of them
  std::size_t rows = 0, columns = 0;
};

/// A curve's coefficients through readings by least squares.
struct LinearFit {
  std::size_t rank = 0;        // unknowns that the readings tell apart
  std::vector<double> c;       // one an unknown
  std::vector<double> inverse; // of XᵀX, column by column: times the readings' variance it is that of c
};
/// @param X  a row a reading, a column an unknown; at least as many rows as columns
/// @param y  one a row
[[nodiscard]] LinearFit least_squares_fit(const Columns& X, std::span<const double> y);

/// The least x that brings a·x nearest to b. Directions weaker than `same` of the strongest are left alone.
[[nodiscard]] std::vector<double> least_change_to(const Columns& a, std::span<const double> b, double same);

/// Of the directions that a's columns are made of the one with number n, the strongest first; the last there is where n
/// is beyond them. `a.rows` numbers.
[[nodiscard]] std::vector<double> direction_of(const Columns& a, std::size_t n);

/// How far out Student's distribution leaves `upper` of it beyond. @param freedom  degrees, above 0
[[nodiscard]] double student_quantile(double freedom, double upper);

} // namespace mavrel::curve
