// Which kit does what the brief asks: compressors × tanks × valves × lines, each worked out as the kit itself would be.
#pragma once

#include "assess/air/air_findings.h"
#include "assess/air/complete_kit.h"
#include "assess/air/figures.h"

#include <functional>
#include <stop_token>

namespace mavrel::assess {

struct SizingGiven {
  AirGiven air; // as it is now, with what it lacked put in by rule: what is not searched stays
  std::vector<AddedPart> added;
  std::vector<Message> lacks; // what was wanted beside, and the shelf has none of
  std::vector<shelf::Part> compressors, tanks, valves, lines, fittings;
  std::size_t load_case = 0; // the heaviest
  friend bool operator==(const SizingGiven&, const SizingGiven&) = default;
};
[[nodiscard]] SizingGiven sizing_given(const build::Build& build, const shelf::Shelf& shelf, AirGiven air);

/// One kit and what it comes to.
struct KitChoice {
  std::size_t compressor = 0, tank = 0, valves = 0, line = 0; // of the given's lists
  std::size_t compressors = 1;                                // how many of it
  std::optional<double> rise;                                 // s; none: it does not get there
  int lifts = 0;               // from a full tank, counted up to what is wished for, and one more
  std::optional<double> ready; // s
  double current = 0;          // A
  std::optional<double> sound; // dB
  double room = 0;             // m³
  double mass = 0;             // kg
  double burst = 0;            // m that the quickest corner goes by the shortest burst at road height, from a full tank
  double price = 0;            // of all that has one
  std::size_t unpriced = 0;    // kinds of parts that have none
  bool meets = false;          // all that is wished for
  bool best = false;           // and no other that does is as good in everything
  Message lost;                // why not; empty for the best
  double miss = 0;             // how far off the wishes, for the order of those that don't meet them
};
struct Sizing {
  std::vector<KitChoice> choices; // the best first, then what meets the wishes, then by how little they miss
  std::size_t tried = 0;
  std::optional<Message> trouble; // why none could be worked out at all
};
/// @param control.progress  called with the share done, from any thread, one at a time
struct SizingControl {
  unsigned threads = 0; // 0: as many as the machine has
  std::stop_token stop;
  std::function<void(double)> progress;
};
/// @returns none where it was stopped
[[nodiscard]] std::optional<Sizing> size_kits(const SizingGiven& given, const SizingControl& control = {});

/// The kit of a choice, in place of what the build has.
[[nodiscard]] build::AirKit kit_of(const SizingGiven& given, const KitChoice& choice);

} // namespace mavrel::assess
