// How much air goes through the car in a day: asked once, for care and for the hand-over alike.
#pragma once

#include "app/desk/desk.h"
#include "assess/assessment.h"
#include "assess/care/air_use.h"
#include "assess/fit_up/fit_up_findings.h"

namespace mavrel::app {

struct AirUseQuestion : Stoppable<assess::AirGiven, Expected<double>, assess::air_a_day> {
  static std::optional<Given> given(const Desk& desk) {
    const assess::AirGiven& air = desk.assessment().fit_up.given().air();
    return air.kit.valves.empty() ? std::nullopt : std::optional(air);
  }
};

/// kg a day; none while it is worked out, or can't be.
[[nodiscard]] inline std::optional<double> air_a_day(const Desk& desk) {
  auto& asked = desk.answers().of_the_car<AirUseQuestion>();
  asked.want();
  return asked.value() ? std::optional(*asked.value()) : std::nullopt;
}

} // namespace mavrel::app
