// How one end moves: its joints solved over the whole travel, the curves the travel map is made of, and what runs out
// besides bag, stop and damper.
#pragma once

#include "assess/kept/kept.h"
#include "assess/motion/geometry_of.h"
#include "assess/survey/surveyed_end.h"
#include "motion/linkage/axle.h"
#include "motion/linkage/corner.h"

#include <memory>
#include <tuple>
#include <vector>

namespace mavrel::assess {

/// What of a design moves joints.
struct SeatShift {
  double outward = 0, forward = 0; // m
  friend bool operator==(const SeatShift&, const SeatShift&) = default;
  [[nodiscard]] auto parts() const { return std::tie(outward, forward); }
};

struct MotionGiven {
  Answered<SurveyQuestion> survey;
  SeatShift upper, lower;   // the spring's seats
  double mount_outward = 0; // m, a strut's top
  double drop_spindle = 0; // m that the hub sits higher on the upright: H is so much less at the same place of the arms
  double tape = 0, point = 0; // m, one standard deviation of a reading by tape and of one ordinate of a joint; 0 where
                              // not both say how far the seats lie apart
  [[nodiscard]] auto parts() const { return std::tie(survey, upper, lower, mount_outward, drop_spindle, tape, point); }
  friend bool operator==(const MotionGiven&, const MotionGiven&) = default;
};
[[nodiscard]] MotionGiven motion_given(const build::Build& build, Answered<SurveyQuestion> survey);

/// The end at one height. Angles in rad, lengths in m.
struct EndPose {
  double H = 0;
  motion::Placed seat_top, seat_foot;          // what carries the spring's ends
  std::optional<motion::Strut> spring, damper; // of a solid axle the mean of both sides
  double wheel_forward = 0, wheel_outward = 0; // m from where it stood; of a solid axle its middle, to the left
  std::optional<double> camber, toe;           // of a wheel
  std::optional<double> caster, kingpin;       // where it steers
  std::optional<double> pinion, roll;          // of a solid axle: turned by, nose up and left wheel up positive
};

/// What else comes to its end as an end moves.
enum class Runs {
  joints,      // arms and links reach no further
  joint_angle, // a joint bears no more
  bar_link,
  brake_hose,
  shaft_angle,
  shaft_plunge,
};

/// Something that has come to its end at a height.
struct TravelEnd {
  Runs what = Runs::joints;
  double height = 0;          // m, H
  bool below = false;         // forbids what is below; else what is above
  std::optional<double> gain; // m of height for a metre of the part
  const char* part = nullptr; // which joint, for people; none where `what` says it all
  bool driven_only = false;   // counts where the car is driven: at full lock
};

/// Where the curve of one side comes from.
enum class MapSource { single_reading, cycle_sheet, hard_points };

struct EndMotion {
  std::optional<Joints> joints;        // as designed; none: not measured, or wrong
  std::optional<PointTrouble> trouble; // why joints that were measured are no use
  /// m between the spring's joints as they were measured, mean of both sides, before a taped distance moved them.
  std::optional<double> seats_by_joints;
  bool seats_combined = false; // and one did: both counted by how sure they are
  // The solved left side: a corner, or a solid axle.
  std::shared_ptr<const motion::CornerLinkage> corner;
  std::shared_ptr<const motion::AxleLinkage> axle;
  std::vector<EndPose> poses;                   // rising in H, evenly apart
  std::vector<motion::CornerPose> corner_poses; // the same as they were solved
  std::vector<motion::AxlePose> axle_poses;
  /// Steered fully to the right and to the left, rising in H, further apart; empty where nothing steers or no lock was
  /// measured.
  std::array<std::vector<motion::CornerPose>, 2> locked;
  // Only where the right side differs, mirrored to the left: at the same heights as far as they reach.
  std::vector<EndPose> right_poses;
  std::shared_ptr<const motion::CornerLinkage> right_corner;
  std::vector<motion::CornerPose> right_corner_poses;
  std::array<std::vector<motion::CornerPose>, 2> right_locked;
  std::optional<motion::OutOfReach> low_end, high_end; // what stops the joints within the heights looked at; dh
  std::vector<TravelEnd> travel_ends;

  // Of H, over [lowest, highest]; mean of both sides where they differ. None: not measured this way.
  std::optional<curve::Polynomial> spring, damper;
  /// The same of the left and the right side, where they differ.
  std::optional<std::array<curve::Polynomial, 2>> springs, dampers;
  double lowest = 0, highest = 0;
  MapSource spring_from = MapSource::single_reading;

  /// m, H at which arms and springs stand as they were surveyed: the surveyed height less a drop spindle; 0 while it
  /// was not taken.
  double surveyed_height = 0;

  /// The solved pose nearest to H; only with poses.
  [[nodiscard]] const EndPose& nearest(double H) const;
  /// The pose at H itself; none where the joints do not go.
  [[nodiscard]] std::optional<EndPose> solved_at(double H) const;
  /// How far the tyre's contact moves forward for each metre its wheel goes up, the brake holding it to what carries
  /// it: the share of a braking force that joints turn into height. None without joints, or where they do not go.
  /// Source: docs/models.md, "Lean".
  [[nodiscard]] std::optional<double> contact_forward(double H) const;
};

/// Source: docs/models.md, "Hard points", "What else runs out".
[[nodiscard]] EndMotion end_motion(const MotionGiven& given);

struct MotionQuestion {
  using Given = MotionGiven;
  using Answer = EndMotion;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return end_motion(given); }
};

} // namespace mavrel::assess
