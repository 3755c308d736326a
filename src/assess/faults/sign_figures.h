// What a condition comes to on one car: how likely it makes a symptom show, and what is read under it. Rows of signs
// refer to these.
#pragma once

#include "assess/faults/fault_car.h"

namespace mavrel::assess::sign_figures {

// Symptoms, 0 to 1. @param place  a corner, an end, or the car
[[nodiscard]] double slow_up(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double slow_down(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double stuck_low(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double stuck_high(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double sinks_fast(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double sinks_night(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double sinks_days(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double rises(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double pumps_often(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double pumps_always(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double pumps_never(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double pumps_stops(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double runs_in_vain(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double fills_slowly(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double tank_low(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double low_end(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double high_end(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double leans(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double uneven(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double goes_wrong_way(const FaultCar& car, const control::Condition& condition, std::size_t place);

// Readings, SI; infinite: it never gets there.
[[nodiscard]] double fill_time(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double vent_time(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double hold_loss(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double bag_loss(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double tank_loss(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double creep(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double tank_fill(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double cut_out(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double volts(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double height_off(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double pressure_off(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double air_around(const FaultCar& car, const control::Condition& condition, std::size_t place);
[[nodiscard]] double load_off(const FaultCar& car, const control::Condition& condition, std::size_t place);

} // namespace mavrel::assess::sign_figures
