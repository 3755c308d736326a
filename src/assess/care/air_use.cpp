#include "assess/care/air_use.h"

namespace mavrel::assess {

std::optional<Expected<double>> air_a_day(const AirGiven& given, const std::stop_token& stop) {
  const auto day = air_day(given, stop);
  if (stop.stop_requested()) return std::nullopt;
  if (!day) return refuse(day.error());
  return day->air;
}

} // namespace mavrel::assess
