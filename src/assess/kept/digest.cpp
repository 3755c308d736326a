#include "assess/kept/digest.h"

#include <fmt/format.h>
#include <xxhash.h>

#include <bit>

namespace mavrel::assess {

struct Digester::State {
  XXH3_state_t* hash = XXH3_createState();
  State() { XXH3_128bits_reset(hash); }
  ~State() { XXH3_freeState(hash); }
  State(const State&) = delete;
  State& operator=(const State&) = delete;
};

Digester::Digester() : state_(std::make_unique<State>()) {}
Digester::~Digester() = default;

Digest Digester::digest() const {
  const XXH128_hash_t hash = XXH3_128bits_digest(state_->hash);
  return {hash.high64, hash.low64};
}

void Digester::frame(char what) {
  XXH3_128bits_update(state_->hash, &what, 1);
}

void Digester::add(std::uint64_t value) {
  std::array<unsigned char, 9> bytes{'i'};
  for (std::size_t i = 0; i < 8; ++i)
    bytes[i + 1] = static_cast<unsigned char>(value >> (8 * i));
  XXH3_128bits_update(state_->hash, bytes.data(), bytes.size());
}

void Digester::add(double value) {
  frame('d');
  add(std::bit_cast<std::uint64_t>(value == 0 ? 0.0 : value)); // minus nothing is nothing
}

void Digester::add(std::string_view text) {
  frame('s');
  add(static_cast<std::uint64_t>(text.size()));
  XXH3_128bits_update(state_->hash, text.data(), text.size());
}

std::string Digest::text() const {
  return fmt::format("{:016x}{:016x}", high, low);
}

} // namespace mavrel::assess
