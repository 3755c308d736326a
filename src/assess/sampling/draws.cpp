#include "assess/sampling/draws.h"

#include "curve/mix.h"

#include <boost/math/special_functions/erf.hpp>
#include <boost/random/sobol.hpp>

#include <algorithm>
#include <cmath>
#include <map>
#include <numbers>

namespace mavrel::assess {

using curve::mixed;

NormalDraws::NormalDraws(std::size_t draws, std::size_t dimensions, std::uint64_t seed)
    : draws_(draws), dimensions_(dimensions), z_(draws * dimensions) {
  if (dimensions == 0 || draws == 0) return;
  // The sequence is known for so many figures at once; what a car has more of is drawn without it.
  const std::size_t even = std::min<std::size_t>(dimensions, boost::random::default_sobol_table::max_dimension);
  boost::random::sobol_engine<std::uint64_t, 64> sobol(even);
  std::vector<std::uint64_t> shift(dimensions);
  for (std::size_t d = 0; d < dimensions; ++d)
    shift[d] = mixed(seed * 0x2545f4914f6cdd1dULL + d);
  for (double& z : z_) {
    const auto at = static_cast<std::size_t>(&z - z_.data()), d = at % dimensions;
    // Bits shifted by the seed's: as even as before, and another sequence for another seed.
    const std::uint64_t bits = d < even ? sobol() ^ shift[d] : mixed(shift[d] + at / dimensions);
    const double u = (static_cast<double>(bits >> 11U) + 0.5) * 0x1p-53;
    z = -std::numbers::sqrt2 * boost::math::erfc_inv(2 * u);
  }
}

std::size_t DoubtDraws::columns_of(const std::vector<DoubtInput>& inputs, std::vector<std::optional<std::size_t>>& own,
                                   std::vector<std::optional<std::size_t>>& shared) {
  std::map<std::string, std::size_t> groups;
  std::size_t columns = 0;
  own.resize(inputs.size());
  shared.resize(inputs.size());
  for (std::size_t i = 0; i < inputs.size(); ++i) {
    if (inputs[i].own > 0) own[i] = columns++;
    if (inputs[i].shared_with.empty() || inputs[i].shared == 0) continue;
    const auto [group, fresh] = groups.try_emplace(inputs[i].shared_with, columns);
    columns += fresh;
    shared[i] = group->second;
  }
  return columns;
}

DoubtDraws::DoubtDraws(const std::vector<DoubtInput>& inputs, std::size_t draws, std::uint64_t seed)
    : inputs_(inputs), normal_(draws, columns_of(inputs, own_, shared_), seed) {}

std::vector<double> DoubtDraws::off(std::size_t draw) const {
  const double* z = normal_.row(draw);
  std::vector<double> out(inputs_.size(), 0.0);
  for (std::size_t i = 0; i < out.size(); ++i) {
    if (own_[i]) out[i] += inputs_[i].own * z[*own_[i]];
    if (shared_[i]) out[i] += inputs_[i].shared * z[*shared_[i]];
  }
  return out;
}

DrawnCar drawn_car(const build::Build& build, const std::vector<DoubtInput>& inputs, const std::vector<double>& off) {
  DrawnCar out;
  out.build = moved(build, off);
  for (std::size_t i = 0; i < inputs.size(); ++i) {
    const std::size_t e = build::at(inputs[i].end);
    switch (inputs[i].what) {
    case Doubted::reading:
      break;
    case Doubted::bag_card:
      out.card[e].load = off[i];
      break;
    case Doubted::bag_volume:
      out.card[e].volume = off[i];
      break;
    case Doubted::bag_height:
      out.card[e].height = off[i];
      break;
    case Doubted::compressor:
      out.compressor = off[i];
      break;
    case Doubted::tank:
      out.tank = off[i];
      break;
    case Doubted::pressure_switch:
      out.pressure_switch = off[i];
      break;
    case Doubted::way:
      out.way[e] = off[i];
      break;
    case Doubted::stand_in:
      if (off[i] != 0) put_stand_in(out.build, inputs[i], off[i]);
      break;
    case Doubted::tyre_size:
      out.build.variant().brief.rooms.tyre_growth += off[i];
      break;
    case Doubted::curvature: // after what it bends
    case Doubted::damper_curvature:
      if (off[i] != 0) put_curvature(out.build, inputs[i], off[i]);
      break;
    }
  }
  return out;
}

shelf::ShelfBag with_card_off(const shelf::ShelfBag& bag, const CardOff& off) {
  shelf::ShelfBag out = bag;
  if (off == CardOff{}) return out;
  air::BagCard& card = out.card;
  for (auto& column : card.loads)
    for (double& load : column)
      load *= std::exp(off.load); // never nothing, nor less
  for (double& volume : card.volumes)
    volume *= std::exp(off.volume);
  // All its heights lie higher or lower: never so low that the least is none.
  const double by = std::max(off.height, 0.5 * card.collapsed_height - card.collapsed_height);
  for (double& height : card.heights)
    height += by;
  card.collapsed_height += by, card.max_height += by;
  out.curve = air::BagCurve(card);
  return out;
}

shelf::Shelf shelf_of(const build::Variant& design, const shelf::Shelf& shelf, const std::array<CardOff, 2>& card) {
  shelf::Shelf out;
  out.parts = shelf.parts;
  for (const std::size_t e : {0U, 1U}) {
    const shelf::ShelfBag* bag = shelf.find(design.fit[e].bag);
    if (!bag || (e == 1 && design.fit[0].bag == design.fit[1].bag)) continue;
    out.bags.push_back(with_card_off(*bag, card[e]));
  }
  std::sort(out.bags.begin(), out.bags.end(), [](const auto& a, const auto& b) { return a.card.name < b.card.name; });
  return out;
}

HoldingCars::HoldingCars(build::Build build, const shelf::Shelf& shelf)
    : build_(std::move(build)), inputs_(doubt_inputs(build_, shelf)), draws_(inputs_, holding_draws, 1) {}

} // namespace mavrel::assess
