#include "work/mark.h"

#include <random>

namespace mavrel::work {

std::string new_mark() {
  std::random_device chance;
  std::string out;
  for (int i = 0; i < 24; ++i)
    out += "0123456789abcdef"[chance() & 15U];
  return out;
}

} // namespace mavrel::work
