// Cars as they may be: draws of a low-discrepancy sequence, and what every reading and card lies off by in each.
#pragma once

#include "assess/sampling/inputs.h"

#include <cstdint>
#include <optional>

namespace mavrel::assess {

/// Normal figures of a low-discrepancy sequence, shifted by a seed. A row is the same whatever else is asked for.
class NormalDraws {
public:
  NormalDraws(std::size_t draws, std::size_t dimensions, std::uint64_t seed);
  [[nodiscard]] const double* row(std::size_t draw) const { return z_.data() + draw * dimensions_; }
  [[nodiscard]] std::size_t dimensions() const { return dimensions_; }
  [[nodiscard]] std::size_t size() const { return draws_; }

private:
  std::size_t draws_, dimensions_;
  std::vector<double> z_;
};

/// How far every input lies off in one draw: each by its own, and by what it shares.
class DoubtDraws {
public:
  DoubtDraws(const std::vector<DoubtInput>& inputs, std::size_t draws, std::uint64_t seed);
  [[nodiscard]] std::vector<double> off(std::size_t draw) const;
  [[nodiscard]] const NormalDraws& normal() const { return normal_; }
  /// The column of an input's own, and of what it shares; none where it has none.
  [[nodiscard]] std::optional<std::size_t> own_column(std::size_t input) const { return own_[input]; }
  [[nodiscard]] std::optional<std::size_t> shared_column(std::size_t input) const { return shared_[input]; }

private:
  [[nodiscard]] static std::size_t columns_of(const std::vector<DoubtInput>& inputs,
                                              std::vector<std::optional<std::size_t>>& own,
                                              std::vector<std::optional<std::size_t>>& shared);
  const std::vector<DoubtInput>& inputs_; // outlive it
  std::vector<std::optional<std::size_t>> own_, shared_;
  NormalDraws normal_;
};

/// How a bag may differ from its card.
struct CardOff {
  double load = 0, volume = 0; // of its loads' and volumes' logarithms
  double height = 0;           // m, of every height it has
  friend bool operator==(const CardOff&, const CardOff&) = default;
};

/// One car as it may be. Shares are of a figure's logarithm, so that nothing gets less than nothing.
struct DrawnCar {
  build::Build build;
  std::array<CardOff, 2> card{};   // of the bags, front and rear
  std::array<double, 2> way{};     // of what the ways to the bags let through
  double compressor = 0, tank = 0; // of deliveries and volumes
  double pressure_switch = 0;      // Pa that the switch is off
};
/// @param off  of each input, as `DoubtDraws` has it
[[nodiscard]] DrawnCar drawn_car(const build::Build& build, const std::vector<DoubtInput>& inputs,
                                 const std::vector<double>& off);

/// A bag whose card is off.
[[nodiscard]] shelf::ShelfBag with_card_off(const shelf::ShelfBag& bag, const CardOff& off);
/// Only what the design goes by: its two bags, as their cards may be off, and all parts.
[[nodiscard]] shelf::Shelf shelf_of(const build::Variant& design, const shelf::Shelf& shelf,
                                    const std::array<CardOff, 2>& card);

/// Is a choice asked for as the readings are, or so that it holds in nine cases of ten of how sure they are?
enum class Sure { as_read, nine_in_ten };
/// Draws that a choice is tried in before it is said to hold, and the share of them that it must hold in.
constexpr std::size_t holding_draws = 100;
constexpr double holding_share = 0.9;

/// The first `holding_draws` cars of a build as it may be, always the same.
class HoldingCars {
public:
  HoldingCars(build::Build build, const shelf::Shelf& shelf);
  HoldingCars(const HoldingCars&) = delete;
  HoldingCars& operator=(const HoldingCars&) = delete;
  [[nodiscard]] DrawnCar car(std::size_t i) const { return drawn_car(build_, inputs_, draws_.off(i)); }

private:
  build::Build build_;
  std::vector<DoubtInput> inputs_;
  DoubtDraws draws_;
};

} // namespace mavrel::assess
