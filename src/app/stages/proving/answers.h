// What Proving's pages read: the checks with what simulations predict, what could be learned, and the hand-over.
#pragma once

#include "app/desk/desk.h"
#include "app/desk/stoppable.h"
#include "assess/assessment.h"
#include "assess/care/air_use.h"
#include "assess/fit_up/fit_up_findings.h"
#include "assess/proving/hand_over.h"
#include "assess/proving/learning.h"
#include "assess/proving/predictions.h"
#include "assess/proving/proving_findings.h"

#include <QObject>

namespace mavrel::app {

/// Of the interface's thread; what it gives by reference is valid until it or the desk says `changed`.
class ProvingAnswers : public QObject {
  Q_OBJECT
public:
  explicit ProvingAnswers(Desk& desk, QObject* parent = nullptr);

  [[nodiscard]] const assess::FitUpGiven& given() const { return desk_.assessment().proving.given(); }
  /// Those that the car is handed over by. Asks for predictions where there are none.
  [[nodiscard]] const std::vector<assess::HoldPoint>& proofs();
  [[nodiscard]] const assess::HoldPoint* proof(const std::string& id);
  [[nodiscard]] bool predicting() const { return predicted_.is_running(); }
  /// Why some figures could not be predicted.
  [[nodiscard]] std::vector<Message> trouble() const;

  void learn();
  [[nodiscard]] bool learning() const { return learning_.is_running(); }
  /// What could be learned of the build as it is; none while it was not asked for.
  [[nodiscard]] const Expected<assess::Learning>* learned() const;

  [[nodiscard]] assess::HandOver hand_over();

signals:
  void changed(); // an answer came in

private:
  void look();
  /// What predictions are worked out from, as it is now.
  [[nodiscard]] assess::LevelingGiven rolling() const;
  void came();

  using Predict = Stoppable<assess::LevelingGiven, assess::Predicted, assess::predict>;
  using Learn = Stoppable<assess::LearningGiven, Expected<assess::Learning>, assess::learn_from>;
  using AirUse = Stoppable<assess::AirGiven, Expected<double>, assess::air_a_day>;

  Desk& desk_;
  LongAnswer<Predict> predicted_;
  LongAnswer<Learn> learning_;
  LongAnswer<AirUse> air_use_;
  std::optional<assess::Answered<assess::ProvingFindingsQuestion>> of_; // what the checks are of
  std::optional<std::vector<assess::HoldPoint>> proofs_;
};

} // namespace mavrel::app
