// What of Air takes longer than a frame, asked beside the interface.
#pragma once

#include "app/desk/desk.h"
#include "assess/air/figures.h"
#include "assess/air/sizing.h"
#include "assess/assessment.h"

namespace mavrel::app {

/// The air of what is open.
[[nodiscard]] inline const assess::AirGiven& air_of(const Desk& desk) {
  return desk.assessment().air.given().room.air;
}

using LiftQuestion = Stoppable<assess::LiftGiven, Expected<assess::Lift>, assess::answer_lift>;

struct FiguresQuestion : Stoppable<assess::AirGiven, assess::KitFigures, assess::kit_figures> {
  static Given given(const Desk& desk) { return air_of(desk); }
};

struct SizingQuestion {
  using Given = assess::SizingGiven;
  using Answer = std::optional<assess::Sizing>;
  static Answer answer(const Given& given, const RunControl& control) {
    return assess::size_kits(given, {0, control.stop, control.progress});
  }
};

} // namespace mavrel::app
