// What every part of the document is made of: readings, ends and sides, and the keys it does not know.
#pragma once

#include "quantity/shared.h"

#include <array>
#include <optional>
#include <string>
#include <utility>
#include <vector>

namespace mavrel::build {

/// Keys of the file this program does not know, with their JSON text; kept and written back.
using Extra = std::vector<std::pair<std::string, std::string>>;

/// Several readings of one quantity, SI. Empty: not taken yet.
struct Readings {
  std::vector<double> values;
  friend bool operator==(const Readings&, const Readings&) = default;
};

enum class End { front = 0, rear = 1 };
constexpr std::array<End, 2> both_ends = {End::front, End::rear};

/// One of each end, shared like the lists: `ends[0]` is the front.
template <class T>
class PerEnd : public SharedElements<T, std::array<Shared<T>, 2>> {
public:
  using SharedElements<T, std::array<Shared<T>, 2>>::operator[];
  [[nodiscard]] const T& operator[](End e) const { return (*this)[static_cast<std::size_t>(e)]; }
  [[nodiscard]] T& operator[](End e) { return (*this)[static_cast<std::size_t>(e)]; }
};

enum class Side { left = 0, right = 1 };
constexpr std::array<Side, 2> both_sides = {Side::left, Side::right};

enum class Fitted { no, yes };
enum class YesNo { no, yes };

[[nodiscard]] constexpr std::size_t at(End e) {
  return static_cast<std::size_t>(e);
}
[[nodiscard]] constexpr std::size_t at(Side s) {
  return static_cast<std::size_t>(s);
}

} // namespace mavrel::build
