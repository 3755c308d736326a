// What goes out of the door with the car: its heights and what each is for, what it must never do, what to listen for,
// and whether everything was proved. What is not proved is not handed over.
#pragma once

#include "assess/air/wet.h"
#include "assess/fit_up/checks.h"

namespace mavrel::assess {

struct HandedPreset {
  std::string name;
  build::PresetUse use = build::PresetUse::other;
  std::array<double, 2> height{};                  // m, H
  std::array<std::optional<double>, 4> pressure{}; // Pa gauge to expect; FL FR RL RR
  Message what_for;
};

struct HandedProof {
  std::string id;
  Message name;
  CheckState state = CheckState::open;
  std::string by, day;
};

struct HandOver {
  std::vector<HandedPreset> presets;
  std::vector<HandedProof> proofs; // of Proving
  std::size_t proved = 0;
  std::vector<Message> never;           // what must never be done with it
  std::vector<Message> listen;          // for what
  std::vector<Message> inspect;         // what the local inspection must see
  std::vector<Message> learned;         // what predictions were corrected by
  std::vector<Message> taken;           // what was gone on with before everything was ready, by whom and why
  std::optional<DrainRound> drain;      // as Care has it; none: there is nothing to drain
  std::optional<double> least_standing; // Pa that a standing bag keeps, the greatest of both cards
  [[nodiscard]] bool all_proved() const { return proved == proofs.size() && !proofs.empty(); }
};

/// @param points     those of the design, as they stand
/// @param drain      how often its tank is drained
[[nodiscard]] HandOver hand_over(const FitUpGiven& given, const std::vector<HoldPoint>& points,
                                 std::optional<DrainRound> drain);

} // namespace mavrel::assess
