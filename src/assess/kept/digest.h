// A short number for a value: equal values have one digest, on every machine and in every later version that reads the
// same things. It is made of what was typed and read, never of what was worked out from it.
#pragma once

#include "air/bag_card.h"
#include "build/table.h"
#include "quantity/shared.h"

#include <array>
#include <cstdint>
#include <memory>
#include <optional>
#include <string>
#include <string_view>
#include <tuple>
#include <utility>
#include <vector>

namespace mavrel::assess {

/// 128 bits, for all that one will ever see as good as the value itself.
struct Digest {
  std::uint64_t high = 0, low = 0;
  friend bool operator==(const Digest&, const Digest&) = default;
  /// 32 digits, as files keep it.
  [[nodiscard]] std::string text() const;
};

/// Takes a value in piece by piece. Pieces are framed, so that no two different values give one stream; numbers go in
/// as their eight bytes, least first. Fields of the document go in by their key in the file and only where they are
/// filled, and those that came later only where they are not as they begin, so that a later version with more fields
/// has the same digest for a build that leaves those out.
class Digester {
public:
  Digester();
  ~Digester();
  Digester(const Digester&) = delete;
  Digester& operator=(const Digester&) = delete;
  [[nodiscard]] Digest digest() const;

  void add(double value);
  void add(std::uint64_t value);
  void add(std::string_view text);
  void add(const std::string& text) { add(std::string_view(text)); }
  void add(bool value) { add(static_cast<std::uint64_t>(value)); }
  template <class Enum>
  requires std::is_enum_v<Enum>
  void add(Enum value) { add(static_cast<std::uint64_t>(value)); }
  template <class T>
  void add(const std::optional<T>& value) {
    frame(value ? 'v' : '0');
    if (value) add(*value);
  }
  template <class T>
  void add(const std::vector<T>& values) {
    add_all(values);
  }
  template <class T, std::size_t N>
  void add(const std::array<T, N>& values) {
    add_all(values);
  }
  template <class T>
  void add(const Shared<T>& value) {
    add(*value);
  }
  template <class T>
  void add(const List<T>& values) {
    add_all(values);
  }
  template <class A, class B>
  void add(const std::pair<A, B>& value) {
    add(value.first);
    add(value.second);
  }
  template <class... Parts>
  void add(const std::tuple<Parts...>& parts) {
    std::apply([&](const auto&... part) { (add(part), ...); }, parts);
  }
  void add(const air::WhereStated& later) {
    if (later.value != 0) add(later.value);
  }
  /// What says itself of what it is made: `parts()` gives a tuple.
  template <class T>
  requires requires(const T& value) { value.parts(); }
  void add(const T& value) {
    frame('{');
    add(value.parts());
    frame('}');
  }
  /// A list of the document; `field` is one, of the struct at `in`.
  void add_list(const build::Field& field, const void* in);
  /// Parts of the document and of cards, by the table of their fields.
  template <build::HasTable T>
  void add(const T& value) {
    add_fields(build::table_of<T>(), &value);
  }

private:
  void frame(char what);
  void add_all(const auto& values) {
    frame('[');
    add(static_cast<std::uint64_t>(values.size()));
    for (std::size_t i = 0; i < values.size(); ++i)
      add(values[i]);
  }
  void key(const char* key);
  void add_field(const build::Field& field, const void* in);
  void add_fields(const build::Table& table, const void* in);

  struct State;
  std::unique_ptr<State> state_;
};

template <class T>
[[nodiscard]] Digest digest_of(const T& given) {
  Digester digester;
  digester.add(given);
  return digester.digest();
}

} // namespace mavrel::assess
