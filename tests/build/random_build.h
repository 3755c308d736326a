// Builds with every field filled by lot, the same from the same seed on every machine: whatever the tables list.
#pragma once

#include "build/brief.h"
#include "build/build.h"

#include <cstdint>
#include <random>

namespace mavrel::test {

class ByLot {
public:
  explicit ByLot(std::uint64_t seed) : engine_(seed) {}
  std::uint64_t below(std::uint64_t count) { return engine_() % count; }
  double share() { return static_cast<double>(engine_() >> 11) * 0x1p-53; }

private:
  std::mt19937_64 engine_;
};

inline void fill_by_lot(const build::Table& table, void* in, ByLot& lot) {
  using enum build::FieldType;
  const auto figure = [&](const build::NumberSpec& spec) {
    return spec.least + (spec.most - spec.least) * lot.share();
  };
  for (const build::Field& field : table.fields) {
    switch (field.type) {
    case text: {
      auto& to = field.get<std::string>(in);
      to.clear();
      const auto letters = lot.below(7);
      for (std::size_t i = 0; i < letters && i < field.most; ++i)
        to += static_cast<char>('a' + lot.below(26));
      break;
    }
    case number:
      field.set_number(in, figure(field.spec));
      break;
    case maybe_number:
      field.set_number(in, lot.below(2) ? std::optional(figure(field.spec)) : std::nullopt);
      break;
    case readings: {
      auto& to = field.get<build::Readings>(in).values;
      to.clear();
      for (auto n = lot.below(4); n > 0; --n)
        to.push_back(figure(field.spec));
      break;
    }
    case choice:
      field.choices->set(field.at(in), lot.below(field.choices->rows.size()));
      break;
    case wish: {
      auto& to = field.get<std::optional<build::HeightWish>>(in);
      to.reset();
      if (lot.below(2)) fill_by_lot(field.of(), &to.emplace(), lot);
      break;
    }
    case index:
      field.get<std::size_t>(in) = lot.below(field.count(in));
      break;
    case object:
      fill_by_lot(field.of(), field.own(field.at(in)), lot);
      break;
    case list: {
      field.list->clear(field.at(in));
      const auto wanted = std::min(field.most, field.least + lot.below(3));
      for (std::size_t i = 0; i < wanted; ++i)
        fill_by_lot(field.list->of(), field.list->add(field.at(in)), lot);
      break;
    }
    case extra: {
      auto& to = field.get<build::Extra>(in);
      to.clear();
      if (lot.below(8) == 0) to.emplace_back("unknown_key", "[1,{\"a\":2.5}]");
      break;
    }
    }
  }
}

inline build::Build random_build(std::uint64_t seed) {
  ByLot lot(seed);
  build::Build out;
  fill_by_lot(build::table_of<build::Build>(), &out, lot);
  return out;
}

} // namespace mavrel::test
