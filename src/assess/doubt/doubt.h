// The doubt of the tape carried to the answers: the assessment itself is asked again and again with every reading off
// by as much as it may be, and what comes out is looked at together.
#pragma once

#include "assess/sampling/draws.h"

#include <array>
#include <functional>
#include <stop_token>

namespace mavrel::assess {

/// One answer over all draws.
struct DoubtAnswer {
  std::string name; // `front.road.low`, `rear.preset.0.pressure`
  Message words;
  Kind kind = Kind::length;
  std::optional<double> value; // with the readings as they are
  double mean = 0, sd = 0;     // over the draws that have an answer
  double p05 = 0, p50 = 0, p95 = 0;
  double vanished = 0;                             // share of the draws that have none
  std::optional<double> odds_inside;               // of a preset: that it stands
  std::optional<double> wanted_least, wanted_most; // of it, where something is: that it clears, or is quick enough
  std::optional<double> odds_met;                  // that it is so; a time that never comes is not
  struct Carried {
    std::size_t input = 0; // among the inputs
    double share = 0;      // of the doubt that this reading carries
    double would_win = 0;  // of its sd, that one reading more of it would take away
    double per_minute = 0; // and that for each minute it takes
  };
  std::vector<Carried> carried_by; // the most first; together one
};

struct Doubt {
  std::vector<DoubtInput> inputs;
  std::vector<DoubtAnswer> answers;
  std::size_t draws = 0; // that were made
  std::uint64_t seed = 1;
  std::vector<Message> trouble; // what of it can't be said, and why
  [[nodiscard]] const DoubtAnswer* find(std::string_view name) const;
  /// That a preset stands. @returns none where it is not wished for there, or not known
  [[nodiscard]] std::optional<double> odds_of_preset(build::End end, std::size_t preset) const;
};

struct DoubtGiven {
  build::Build build;
  shelf::Shelf shelf;
  std::size_t draws = 500;
  std::uint64_t seed = 1;
  friend bool operator==(const DoubtGiven& a, const DoubtGiven& b) {
    return a.build == b.build && a.shelf.bags == b.shelf.bags && a.shelf.parts == b.shelf.parts && a.draws == b.draws &&
           a.seed == b.seed;
  }
};
/// Where one edge of a window lies in nine cases of ten.
struct EdgeBand {
  bool road = false;        // of the road window; else of the reach window
  double low = 0, high = 0; // m, H
};
/// Those of an end's four edges that anybody doubts, for pictures.
[[nodiscard]] std::vector<EdgeBand> edge_bands(const Doubt& doubt, build::End end);

/// How the work is gone about; the answers are the same whatever it says.
struct DoubtControl {
  std::stop_token stop = {}; // looked at after each draw
  unsigned threads = 2;
  std::function<void()> begin_thread; // called in every thread of the work before it begins; then none of it
                                      // is done in the caller's
  std::function<void(double share_done)> progress; // called from any of them, one at a time, never falling
};
/// @returns none where it was stopped
/// Source: docs/models.md, "Doubt".
[[nodiscard]] std::optional<Doubt> doubt(const DoubtGiven& given, const DoubtControl& control = {});

// ---- what it is made of, for whoever has answers of their own

/// What draws of some answers come to together. @param values  [draw][answer]; none where a draw has no such answer
void look_at_draws(const std::vector<std::vector<std::optional<double>>>& values, const DoubtDraws& draws,
                   const std::vector<DoubtInput>& inputs, std::vector<DoubtAnswer>& answers);

} // namespace mavrel::assess
