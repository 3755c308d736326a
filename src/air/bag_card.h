// A bag card: what a maker's curve sheet or a bench test tells of one bag. And its reading between the rows.
#pragma once

#include "curve/pchip.h"

#include <optional>
#include <string>
#include <tuple>
#include <utility>
#include <vector>

namespace mavrel::air {

enum class BagKind { single_bellows, double_bellows, triple_bellows, sleeve, slim_bellows };

[[nodiscard]] const char* bag_kind_name(BagKind kind);
[[nodiscard]] std::optional<BagKind> bag_kind_from(std::string_view name);

/// A figure that came to cards later: one that does not state it has the digest that it had before.
struct WhereStated {
  double value = 0;
};

/// The card's figures, SI, gauge pressures.
struct BagCard {
  std::string name;
  BagKind kind = BagKind::double_bellows;
  double collapsed_height = 0; // m
  double max_height = 0;       // m
  double max_diameter = 0;     // m, greatest at any height
  double min_pressure = 0;     // Pa
  double max_pressure = 0;     // Pa, steady: at rest and on the road
  double peak_pressure = 0;    // Pa, for a moment in bump; 0: not given
  bool internal_stop = false;  // may serve as the bump stop
  double mass = 0;             // kg, 0: not given
  double max_tilt = 0;         // rad between its plates, 0: not given
  double max_offset = 0;       // m of its plates' middles across it, 0: not given
  // How it is screwed to its plates, for those that are made; 0: not given.
  double bolts = 0, bolt_circle = 0, bolt_hole = 0;  // how many, m on which circle, m of the plate's hole
  double port_hole = 0, port_out = 0, port_turn = 0; // m, m from its axis, rad from outboard to the front
  double flange = 0;                                 // m across of what lies on the plate

  std::vector<double> heights;            // m, rising
  std::vector<double> volumes;            // m³, one a height
  std::vector<double> pressures;          // Pa, rising, one a load column
  std::vector<std::vector<double>> loads; // N, [column][row]
  std::vector<double> diameters;          // m, one a height, or empty

  std::vector<std::pair<std::string, std::string>> more; // header lines this program does not use, kept in order

  friend bool operator==(const BagCard&, const BagCard&) = default;
  /// All that an answer may read of it, for digests; how it is screwed on is said where plates are drawn.
  [[nodiscard]] auto parts() const {
    return std::tuple_cat(std::tie(name, kind, collapsed_height, max_height, max_diameter, min_pressure, max_pressure,
                                   internal_stop, mass, max_tilt, max_offset, heights, volumes, pressures, loads,
                                   diameters),
                          std::tuple(WhereStated{peak_pressure}));
  }
};

/// What a card says at one height, before any load: area at each pressure column, volume, and their slopes.
struct BagSection {
  std::vector<double> const* pressures = nullptr;
  double area[8] = {};       // m², a column each
  double area_slope[8] = {}; // m
  double volume = 0;         // m³
  double volume_slope = 0;   // m², dV/dh
};

/// A card made ready for reading. A value: cheap to copy, never changes.
class BagCurve {
public:
  static constexpr std::size_t max_columns = 8;

  BagCurve() = default;
  /// @param card  checked: heights and pressures rising, 1 to `max_columns` load columns, all as long as the heights
  explicit BagCurve(const BagCard& card);

  /// Heights the card answers for: its rows, within collapsed and maximum height, m.
  [[nodiscard]] double lowest() const { return lowest_; }
  [[nodiscard]] double highest() const { return highest_; }
  [[nodiscard]] bool contains(double height) const { return height >= lowest_ && height <= highest_; }

  /// @param height  inside the card
  [[nodiscard]] BagSection section(double height) const;
  /// Greatest diameter at this height, m: the card's column if it has one, else its maximum.
  [[nodiscard]] double diameter(double height) const;

private:
  curve::PchipTable table_; // areas, volume, then diameter if given
  std::vector<double> pressures_;
  double lowest_ = 0, highest_ = 0, max_diameter_ = 0;
  bool has_diameter_ = false;
};

} // namespace mavrel::air
