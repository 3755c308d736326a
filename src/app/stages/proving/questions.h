// What Proving's pages read: the checks with what simulations predict, what could be learned, and the hand-over.
#pragma once

#include "app/desk/desk.h"
#include "assess/fit_up/fit_up_given.h"
#include "assess/proving/hand_over.h"
#include "assess/proving/learning.h"
#include "assess/proving/predictions.h"

namespace mavrel::app {

/// The proving of what is open: what all of it starts from.
[[nodiscard]] const assess::FitUpGiven& proving_of(const Desk& desk);

/// What simulations predict of the checks' figures.
struct PredictQuestion : Stoppable<assess::LevelingGiven, assess::Predicted, assess::predict> {
  static std::optional<Given> given(const Desk& desk);
};
/// What could be learned of the build as it is; asked by a person.
struct LearnQuestion : Stoppable<assess::LearningGiven, Expected<assess::Learning>, assess::learn_from> {
  static Given given(const Desk& desk) { return {desk.build(), desk.shelf()}; }
};

/// The checks that the car is handed over by, with what is predicted of them as far as that has come in.
[[nodiscard]] const std::vector<assess::HoldPoint>& proofs_of(const Desk& desk);
/// One of them; nullptr: none of that id.
[[nodiscard]] const assess::HoldPoint* proof_of(const Desk& desk, const std::string& id);
/// Why some figures could not be predicted.
[[nodiscard]] std::vector<Message> trouble_of_predictions(const Desk& desk);
[[nodiscard]] assess::HandOver hand_over_of(const Desk& desk);

} // namespace mavrel::app
