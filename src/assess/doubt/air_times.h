// The times of the air in cars as they may be. A move takes a simulation, which is too long for every draw: some of the
// drawn cars are simulated, and what a time goes by carries it to the others.
#pragma once

#include "assess/air/figures.h"
#include "assess/sampling/draws.h"

#include <stop_token>

namespace mavrel::assess {

/// What is said of the air: s from parked to road, Pa gauge left in the tank by that, s until it is full again, and s
/// from empty.
enum class AirTime { rise, tank_after, ready, fill };
constexpr std::size_t air_times = 4;

/// One car as far as its air's times go.
struct AirDrawn {
  std::vector<double> goes_by; // what the times go by, cheap to say; empty: the car can't make the lift
  bool simulated = false;
  std::array<std::optional<double>, air_times> times;
};

/// Drawn cars that are simulated.
constexpr std::size_t simulated_cars = 36;

/// How far into a car's air is looked: only what its times go by; simulated too, from where it rests; or as the
/// readings are, where a lift from a height that it can't stand at is none, as on Air.
enum class AirLook { goes_by, simulated, as_read };
/// @param ends  of the drawn car
/// Source: docs/models.md, "Doubt".
[[nodiscard]] AirDrawn air_of(const DrawnCar& car, const shelf::Shelf& shelf, const AnsweredEnds& ends, AirLook how,
                              const std::stop_token& stop);

/// Carries the times to the cars that were not simulated: by a plane through those that were where it holds them, else
/// as the nearest of them; whether it gets there at all as the nearest.
/// @returns of which times no plane holds the simulated
[[nodiscard]] std::vector<AirTime> carry_times(std::vector<AirDrawn>& cars);

} // namespace mavrel::assess
