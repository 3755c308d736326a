// Where wheel, bag, damper and arms of one end stand at a height and a lock: what clearances are taken between.
#pragma once

#include "assess/motion/end_motion.h"
#include "space/solid.h"
#include "space/wheel_solid.h"

#include <array>
#include <optional>
#include <vector>

namespace mavrel::assess {

/// How the wheels are steered.
enum class Lock { straight, right, left };
constexpr std::array<Lock, 3> all_locks = {Lock::straight, Lock::right, Lock::left};

/// What of the end itself something is near to.
enum class OwnPart {
  none,
  tyre,
  damper,
  lip,
  lower_arm,
  upper_arm,
  arm,
  link1,
  link2,
  link3,
  link4,
  link5,
  track_rod,
  lower_link,
  upper_link,
  lateral_bar,
  axle,
  bag,
};
[[nodiscard]] const char* name_of(OwnPart part); // for people: `arch lip`

/// One arm, leg of an arm, link or rod.
struct ArmRow {
  OwnPart own = OwnPart::arm;
  motion::Part part = motion::Part::body; // that it is; `body`: a rod of its own
  bool holds_wheel = false;               // it ends in the wheel's hub and does not move against it
};

constexpr std::size_t part_count = static_cast<std::size_t>(motion::Part::axle) + 1;

/// The left side's parts at one height.
struct Stand {
  double H = 0;                                     // m
  Lock lock = Lock::straight;                       // fully steered, or anything between
  space::WheelPlace wheel;                          // its hub face
  std::array<space::Placed, part_count> parts;      // from where they were measured; those the layout has
  std::optional<space::Rod> damper;                 // eye to eye
  std::vector<space::Rod> arms;                     // arms, links and rods, joint to joint
  std::optional<space::Rod> axle;                   // a solid axle's tube, wheel to wheel
  std::optional<std::array<space::Point, 2>> seats; // the spring's, upper and lower
};

/// Refers to nothing; may be used from several threads at once.
class EndSpace {
public:
  /// @param motion  with its survey
  /// @returns none while the height was not taken, or nobody knows how far out the wheel stands
  /// @param low, high  m, H that are worth looking at
  [[nodiscard]] static std::optional<EndSpace> of(const Answered<MotionQuestion>& motion,
                                                  std::optional<double> tyre_radius, double low = 0, double high = 2);
  /// The same of the right side, mirrored to the left, where its joints differ. @returns none where they don't
  [[nodiscard]] static std::optional<EndSpace> right_of(const Answered<MotionQuestion>& motion, double low = 0,
                                                        double high = 2);

  [[nodiscard]] double lowest() const { return straight_.front().H; }
  [[nodiscard]] double highest() const { return straight_.back().H; }
  [[nodiscard]] bool steers() const { return lock_ > 0; }
  [[nodiscard]] double lock() const { return lock_; } // rad; 0: nobody said how far the wheels are steered

  /// The stands that all others lie between, evenly over height: straight ahead, or at a lock every second of those.
  /// Without a lock those straight ahead.
  [[nodiscard]] const std::vector<Stand>& stands(Lock lock) const;

  /// How all of it stands at H, linear between solved poses, which lie close.
  /// @param H  clamped to [lowest, highest]
  [[nodiscard]] Stand at(double H, Lock lock = Lock::straight) const;
  /// The same with the wheels steered by any angle, rad, left positive: solved where the joints are known.
  /// @returns none where no rack position does
  [[nodiscard]] std::optional<Stand> steered(double H, double angle) const;
  /// All of them at once, row by row: heights, then angles; both rising. None where the joints do not go.
  [[nodiscard]] std::vector<std::optional<Stand>> grid(const std::vector<double>& heights,
                                                       const std::vector<double>& angles) const;
  /// With the two wheels at heights of their own: a solid axle is turned by them, of any other this wheel alone counts.
  /// @param H      this side's wheel, m
  /// @param other  the other side's
  /// @returns none where the joints do not go
  [[nodiscard]] std::optional<Stand> uneven(double H, double other) const;
  /// As the car stood when it was measured.
  [[nodiscard]] double surveyed_height() const { return surveyed_; }
  [[nodiscard]] bool solved() const { return corner_ || axle_; }
  /// What `Stand::arms` are, one a rod.
  [[nodiscard]] const std::vector<ArmRow>& arms() const { return arm_rows_; }
  /// What carries the spring's ends and the damper's; `body` where nobody knows.
  [[nodiscard]] bool carries_spring(motion::Part part) const { return part == spring_[0] || part == spring_[1]; }
  /// The hub face's middle with the car as surveyed.
  [[nodiscard]] const space::Point& hub() const { return hub_; }

private:
  void begin(const Answered<MotionQuestion>& motion);
  void joints(const EndMotion& motion, Side side, double low, double high);
  [[nodiscard]] Stand stand_of(const motion::CornerPose& pose) const;
  [[nodiscard]] Stand stand_of(const motion::AxlePose& pose) const;
  [[nodiscard]] Stand straight_line(double H, double camber, double toe) const;
  void steer_where_not_solved();
  void keep_only(double low, double high);

  std::vector<Stand> straight_;              // rising in H, at least two
  std::array<std::vector<Stand>, 2> locked_; // right, left; empty: nothing steers
  std::shared_ptr<const motion::CornerLinkage> corner_;
  std::shared_ptr<const motion::AxleLinkage> axle_;
  std::vector<motion::CornerPose> corner_poses_;
  std::vector<ArmRow> arm_rows_;
  std::array<motion::Part, 2> spring_{}; // what carries its ends
  bool one_piece_ = false;               // a solid axle: one wheel turns the other
  Side side_ = Side::left;               // whose joints these are; the right's are mirrored
  space::Point hub_;
  double surveyed_ = 0, spindle_ = 0, lock_ = 0, arms_ = 0, damper_ = 0, tube_ = 0;
};

} // namespace mavrel::assess
