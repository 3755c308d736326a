#include "assess/kept/digest.h"

#include "build/brief.h"

#include <fmt/format.h>
#include <xxhash.h>

#include <array>
#include <bit>
#include <cstring>

namespace mavrel::assess {

/// Pieces are small: they are put together before they are taken in.
struct Digester::State {
  XXH3_state_t* hash = XXH3_createState();
  std::array<char, 512> waiting;
  std::size_t used = 0;

  State() { XXH3_128bits_reset(hash); }
  ~State() { XXH3_freeState(hash); }
  State(const State&) = delete;
  State& operator=(const State&) = delete;

  void take(const void* bytes, std::size_t count) {
    if (count == 0) return; // nothing need not lie anywhere
    if (used + count > waiting.size()) take_in();
    if (count > waiting.size()) {
      XXH3_128bits_update(hash, bytes, count);
      return;
    }
    std::memcpy(waiting.data() + used, bytes, count);
    used += count;
  }
  void take_in() {
    XXH3_128bits_update(hash, waiting.data(), used);
    used = 0;
  }
};

Digester::Digester() : state_(std::make_unique<State>()) {}
Digester::~Digester() = default;

Digest Digester::digest() const {
  state_->take_in();
  const XXH128_hash_t hash = XXH3_128bits_digest(state_->hash);
  return {hash.high64, hash.low64};
}

void Digester::frame(char what) {
  state_->take(&what, 1);
}

void Digester::add(std::uint64_t value) {
  std::array<unsigned char, 9> bytes{'i'};
  for (std::size_t i = 0; i < 8; ++i)
    bytes[i + 1] = static_cast<unsigned char>(value >> (8 * i));
  state_->take(bytes.data(), bytes.size());
}

void Digester::add(double value) {
  frame('d');
  add(std::bit_cast<std::uint64_t>(value == 0 ? 0.0 : value)); // minus nothing is nothing
}

void Digester::add(std::string_view text) {
  frame('s');
  add(static_cast<std::uint64_t>(text.size()));
  state_->take(text.data(), text.size());
}

void Digester::key(const char* key) {
  frame(':');
  add(std::string_view(key));
}

void Digester::add_fields(const build::Table& table, const void* in) {
  frame('{');
  for (const build::Field& field : table.fields)
    if (!field.aside) add_field(field, in);
  frame('}');
}

void Digester::add_list(const build::Field& field, const void* in) {
  const std::size_t size = field.size(in);
  frame('[');
  add(static_cast<std::uint64_t>(size));
  for (std::size_t i = 0; i < size; ++i)
    add_fields(field.list->of(), field.entry(in, i));
}

void Digester::add_field(const build::Field& field, const void* in) {
  using enum build::FieldType;
  switch (field.type) {
  case text:
    if (!field.text(in).empty()) key(field.key), add(field.text(in));
    return;
  case number:
  case maybe_number:
    if (const auto value = field.number(in); value && value != field.later) key(field.key), add(*value);
    return;
  case readings:
    if (const auto& values = field.readings(in).values; !values.empty()) key(field.key), add(values);
    return;
  case choice:
    if (const auto row = field.choices->row_of(field.at(in)); row && static_cast<double>(*row) != field.later)
      key(field.key), add(std::string_view(field.choice(in)->key));
    return;
  case wish:
    if (const auto& value = field.wish(in)) key(field.key), add_fields(field.of(), &*value);
    return;
  case index:
    key(field.key), add(static_cast<std::uint64_t>(field.get<std::size_t>(in)));
    return;
  case object:
    key(field.key), add_fields(field.of(), field.opened(field.at(in)));
    return;
  case list:
    if (field.size(in) > 0) key(field.key), add_list(field, in);
    return;
  case extra: // what is not known here is not read
    return;
  }
}

std::string Digest::text() const {
  return fmt::format("{:016x}{:016x}", high, low);
}

} // namespace mavrel::assess
