// All that the fit-up of a design is worked out from.
#pragma once

#include "assess/air/room.h"
#include "assess/leveling/sensor_at_end.h"
#include "build/proving.h"

namespace mavrel::assess {

struct FitUpGiven {
  RoomGiven room; // and with it the air kit and both ends
  Answered<SensorQuestion> sensors;
  build::Leveling leveling;
  std::array<build::EndFit, 2> fits; // whole: with the bench's sums
  Shared<build::FitUp> fit_up;
  Shared<build::Shop> shop;
  Shared<build::Proving> proving;
  double gauge_error = 0, load_doubt = 0; // Pa, kg a corner
  std::string car, number, variant_name;  // of the job, for what is printed
  std::size_t variant = 0;                // which is active: fields are gone to by its number
  [[nodiscard]] auto parts() const {
    return std::tie(room, sensors, leveling, fits, fit_up, shop, proving, gauge_error, load_doubt, car, number,
                    variant_name, variant);
  }
  friend bool operator==(const FitUpGiven&, const FitUpGiven&) = default;

  [[nodiscard]] const AirGiven& air() const { return room.air; }
  [[nodiscard]] const AnsweredEnd& end(End e) const { return room.air.ends[build::at(e)]; }
  [[nodiscard]] const build::EndSurvey& survey(End e) const { return end(e).given().survey().given().survey; }
  [[nodiscard]] const build::EndFit& fit(End e) const { return fits[build::at(e)]; }
  [[nodiscard]] const build::PlateFit& plates(End e) const { return fit_up->plates[build::at(e)]; }
};
[[nodiscard]] FitUpGiven fit_up_given(const build::Build& build, const RoomGiven& room,
                                      Answered<SensorQuestion> sensors);
/// The same from the document, for who asks once.
[[nodiscard]] FitUpGiven fit_up_given(const build::Build& build, const shelf::Shelf& shelf);

} // namespace mavrel::assess
