// A lift, a kit's figures and a sizing as JSON and CSV.
#pragma once

#include "assess/air/figures.h"
#include "assess/air/sizing.h"
#include "assess/air/wet.h"

#include <string>

namespace mavrel::report {

[[nodiscard]] std::string lift_json(const assess::AirGiven& air, const assess::MoveAsked& asked,
                                    const assess::Lift& lift, const std::optional<assess::KitFigures>& figures);
/// One row a look: seconds, heights, pressures, loads, tank.
[[nodiscard]] std::string lift_csv(const assess::Lift& lift);
/// @param most  choices listed
[[nodiscard]] std::string sizing_json(const assess::SizingGiven& given, const assess::Sizing& sizing, std::size_t most);

} // namespace mavrel::report
