// What Care's pages read: what is due today, the trends, and what the design's air says of water.
#pragma once

#include "app/desk/desk.h"
#include "app/desk/stoppable.h"
#include "assess/care/air_use.h"
#include "assess/care/care_plan.h"

#include <QObject>

namespace mavrel::app {

/// Of the interface's thread; what it gives by reference is valid until it or the desk says `changed`.
class CareAnswers : public QObject {
  Q_OBJECT
public:
  explicit CareAnswers(Desk& desk, QObject* parent = nullptr);
  /// None while the car is not on the road.
  [[nodiscard]] const std::optional<assess::CarePlan>& plan();
  [[nodiscard]] work::Day today() const;
  /// It is still worked out how much air goes through.
  [[nodiscard]] bool reckoning() const { return air_use_.is_running(); }

signals:
  void changed(); // an answer came in, or another day began

private:
  using AirUse = Stoppable<assess::AirGiven, Expected<double>, assess::air_a_day>;
  Desk& desk_;
  LongAnswer<AirUse> air_use_;
  std::optional<assess::Answered<assess::CareFindingsQuestion>> of_;
  work::Day of_day_ = 0;
  std::optional<std::optional<assess::CarePlan>> plan_;
};

} // namespace mavrel::app
