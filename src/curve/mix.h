// A number stirred so that its neighbours come out unlike it: seeds of rows of chances that have nothing to do with one
// another. The same on every machine.
#pragma once

#include <cstdint>

namespace mavrel::curve {

/// The output step of SplitMix64.
[[nodiscard]] constexpr std::uint64_t mixed(std::uint64_t x) {
  x += 0x9e3779b97f4a7c15ULL;
  x = (x ^ (x >> 30U)) * 0xbf58476d1ce4e5b9ULL;
  x = (x ^ (x >> 27U)) * 0x94d049bb133111ebULL;
  return x ^ (x >> 31U);
}

} // namespace mavrel::curve
