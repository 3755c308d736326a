// One end of the car made ready for arithmetic: its travel map, its stops, its loads. Everything about it that does
// not depend on which bag is fitted.
#pragma once

#include "air/bag.h"
#include "air/flow.h"
#include "assess/clearance/clearance.h"
#include "assess/kept/kept.h"
#include "assess/motion/alignment.h"
#include "assess/survey/surveyed_end.h"
#include "motion/travel_map.h"
#include "shelf/shelf.h"

#include <memory>
#include <optional>
#include <string_view>
#include <tuple>
#include <vector>

namespace mavrel::assess {

/// All that one end with what is fitted there is worked out from.
struct EndGiven {
  Answered<ClearanceQuestion> clearance; // and with it how the end moves, and the survey both were made from
  build::EndFit fit;                     // without its damper's curve and the bench's sums, which no height depends on
  build::Brief brief;                    // reserves, and the presets wished for at this end, without their names
  double altitude = 0;                   // m
  double temperature = 0;                // K
  std::optional<Shared<shelf::ShelfBag>> bag; // none chosen, or not on the shelf
  std::optional<double> tank_pressure;        // Pa gauge that the tank is full at; none: nobody knows
  std::optional<double> belly;                // m above the floor as surveyed, of the lowest point nearer to this end
  std::string belly_name;                     // how that is called
  /// kg a load case, left over right at this end's wheels: what the other end leaves it to carry, because a tee there
  /// makes both its sides alike. Empty: nothing.
  std::vector<double> left_by_tee;
  [[nodiscard]] const Answered<MotionQuestion>& motion() const { return clearance.given().motion; }
  [[nodiscard]] const Answered<SurveyQuestion>& survey() const { return motion().given().survey; }
  [[nodiscard]] auto parts() const {
    // What was signed before tanks were looked at stands where this one limits nothing.
    const bool limits = bag && tank_pressure && *tank_pressure < (*bag)->card.max_pressure;
    return std::tuple_cat(std::tie(clearance, fit, brief, altitude, temperature, bag, belly, belly_name),
                          std::tuple(air::WhereStated{limits ? *tank_pressure : 0}, air::WhereStated{left_in_one()}));
  }
  /// All cases' as one figure that differs where one of them does; 0 where a tee leaves nothing.
  [[nodiscard]] double left_in_one() const {
    double out = 0;
    for (std::size_t c = 0; c < left_by_tee.size(); ++c)
      out += left_by_tee[c] * (1 + 0.618 * static_cast<double>(c));
    return out;
  }
  friend bool operator==(const EndGiven&, const EndGiven&) = default;
};
[[nodiscard]] EndGiven end_given(const build::Build& build, const shelf::Shelf& shelf,
                                 Answered<ClearanceQuestion> clearance);
/// The same from the document, for who asks once.
[[nodiscard]] EndGiven end_given(const build::Build& build, const shelf::Shelf& shelf, End end);

struct EndModel {
  End end = End::front;
  build::Layout layout = build::Layout::strut;
  std::optional<double> track;          // m
  std::optional<double> base;           // m between left and right spring, measured or estimated
  std::optional<motion::TravelMap> map; // none while the height was not taken
  std::optional<double> surveyed_height;
  std::optional<double> tyre_radius;
  std::optional<double> damper_open, damper_shut; // m, the fitted damper's
  std::optional<double> stop_height;              // m, H where the bump stop meets
  std::optional<double> belly_height; // m, H where the underside lies on flat ground, both ends being as low
  std::string belly_name;
  std::optional<double> legal_height;        // m, H below which nobody may drive it
  std::optional<double> stop_ratio;          // d(gap)/dH
  double stop_give = 0;                      // m at the wheel, from there to where it gives no more
  double other_rate = 0, other_slack = 0;    // other springs at the wheel, N/m and m
  double damper_gas = 0;                     // N along the damper's rod, pushing it out
  std::vector<std::optional<EndLoad>> loads; // one a load case
  build::Brief brief;                        // reserves; its presets are not copied
  air::BagSetting setting;                   // with the added volume while its line is open
  air::Restriction line;                     // to the added volume
  double line_length = 0;                    // m
  double unsprung_mass = 0;                  // kg a corner
  double tyre_rate = 0;                      // N/m
  double friction = 0;                       // N at the wheel
  double side_lever = 1;              // side loads at the springs over those at the wheels: a solid axle's track / base
  bool spring_base_estimated = false; // of a solid axle
  bool joined = false;                // left and right share one pressure
  std::optional<double> room;         // m, free diameter around the bag's axis
  double seat_shift = 0;              // m, the seats nearer to each other than surveyed, by how the bag is mounted
  double off_room = 0;                // m, that axis off the middle of the room
  std::vector<TravelEnd> travel_ends; // besides bag, stop and damper
  std::optional<Answered<ClearanceQuestion>> clearance; // what comes near to what; none only before it is made
  double upper_share = 0.5;                             // of the stack, above the bag
  std::optional<Alignment> alignment;                   // of the bag's plates; none where the joints are not known
  std::optional<double> motion_ratio;                   // at the surveyed height
  MapSource spring_from = MapSource::single_reading;
  std::vector<Estimate> estimated;     // readings that usual figures stand in for
  std::optional<double> tank_pressure; // Pa gauge of the full tank: no bag is filled beyond it
  /// Left and right by themselves, each with its own map and its own load on both: only where the maps differ. What
  /// limits one of them limits the end.
  std::array<std::shared_ptr<const EndModel>, 2> sides;

  /// Does a usual figure stand in for this reading? @param field  its key: `damper_shut_m`
  [[nodiscard]] bool stands_in(std::string_view field) const {
    for (const Estimate& estimate : estimated)
      if (field == estimate.field) return true;
    return false;
  }
  /// Force along the spring for a sprung mass at H, N: (m·g − other springs − damper's gas)/MR.
  [[nodiscard]] double spring_force(double sprung_mass, double H, const motion::MapPoint& at) const;
  /// What the left and the right bag carry, kg of sprung mass. The one place that knows of axles and tees.
  [[nodiscard]] std::array<double, 2> bag_masses(const EndLoad& load) const;
};

/// Rate of a tyre when nobody gave one, N/m.
constexpr double usual_tyre_rate = 2e5;
[[nodiscard]] EndModel end_model(const EndGiven& given);

/// One side by itself, as the end is set: its added volume and line. Only with sides.
[[nodiscard]] EndModel side_of(const EndModel& model, Side side);

/// H that a wish stands for at this end; none while the survey or the tyre it refers to is missing.
[[nodiscard]] std::optional<double> wished_height(const build::HeightWish& wish, const EndModel& model);
/// The wish that stands for H, said the same way as `like`.
[[nodiscard]] build::HeightWish wish_for_height(double H, const build::HeightWish& like,
                                                std::optional<double> surveyed_height,
                                                std::optional<double> tyre_radius);

} // namespace mavrel::assess
