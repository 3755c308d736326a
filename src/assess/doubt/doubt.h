// The doubt of the tape carried to the answers: the assessment itself is asked again and again with every reading off
// by as much as it may be, and what comes out is looked at together.
#pragma once

#include "assess/doubt/inputs.h"
#include "shelf/shelf.h"

#include <array>
#include <atomic>
#include <functional>

namespace mavrel::assess {

/// One answer over all draws.
struct DoubtAnswer {
  std::string name; // `front.road.low`, `rear.preset.0.pressure`
  Message words;
  Kind kind = Kind::length;
  std::optional<double> value; // with the readings as they are
  double mean = 0, sd = 0;     // over the draws that have an answer
  double p05 = 0, p50 = 0, p95 = 0;
  double vanished = 0;               // share of the draws that have none
  std::optional<double> odds_inside; // of a preset: that it stands
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
};

struct DoubtGiven {
  build::Build build;
  shelf::Shelf shelf;
  std::size_t draws = 500;
  std::uint64_t seed = 1;
  friend bool operator==(const DoubtGiven& a, const DoubtGiven& b) {
    return a.build == b.build && a.shelf.bags == b.shelf.bags && a.draws == b.draws && a.seed == b.seed;
  }
};
/// @param stop     looked at after each draw; may be null
/// @param threads  the same answers come of any number
/// @returns none where it was stopped
/// Source: docs/models.md, "Doubt".
[[nodiscard]] std::optional<Doubt> doubt(const DoubtGiven& given, const std::atomic<bool>* stop, unsigned threads = 2);

// ---- what it is made of, for whoever has answers of their own

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

/// What draws of some answers come to together. @param values  [draw][answer]; none where a draw has no such answer
void look_at_draws(const std::vector<std::vector<std::optional<double>>>& values, const DoubtDraws& draws,
                   const std::vector<DoubtInput>& inputs, std::vector<DoubtAnswer>& answers);

} // namespace mavrel::assess
