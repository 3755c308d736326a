// What one end keeps clear of: gaps of tyre, bag, damper and arms to everything near them, over height and lock.
#pragma once

#include "assess/clearance/end_space.h"
#include "assess/height/track.h"
#include "shelf/shelf.h"

#include <functional>
#include <string>

namespace mavrel::assess {

/// What keeps clear.
enum class Mover { tyre, bag, damper, arms, axle };
[[nodiscard]] const char* name_of(Mover mover); // for people: `tyre`
[[nodiscard]] const char* key_of(Mover mover);

/// How a gap is known.
enum class GapSource {
  solid, // worked out between two bodies
  sheet, // read on the cycle sheet at several heights
  taped, // taped at one height, moved on by the map
};

/// All that gaps without the bag are worked out from; the obstacles come with the motion's survey.
struct ClearanceGiven {
  Answered<MotionQuestion> motion;
  std::string wheel;                // code of the design's; the surveyed one's where it has no other
  std::optional<double> tyre_width; // m, measured
  double lip_rolled = 0;            // m
  build::Rooms rooms;
  double bag_room = 0;                            // m round the bag
  std::optional<double> damper_open, damper_shut; // m, another damper of the design's
  [[nodiscard]] auto parts() const {
    return std::tie(motion, wheel, tyre_width, lip_rolled, rooms, bag_room, damper_open, damper_shut);
  }
  friend bool operator==(const ClearanceGiven&, const ClearanceGiven&) = default;
};
[[nodiscard]] ClearanceGiven clearance_given(const build::Build& build, Answered<MotionQuestion> motion);

constexpr std::size_t not_listed = static_cast<std::size_t>(-1);

/// What of the end itself something is near to.
enum class OwnPart { none, tyre, damper, lip };
[[nodiscard]] const char* name_of(OwnPart part); // for people: `arch lip`

/// What a gap is taken to.
struct Near {
  std::string name; // as somebody typed it; empty: `own` says it
  OwnPart own = OwnPart::none;
  std::size_t obstacle = not_listed; // index in the survey's list
  double room = 0;                   // m wanted
  [[nodiscard]] Message told() const;
};

/// One gap over height. Where there is no answer there is no piece.
struct GapCurve {
  Mover mover = Mover::tyre;
  Near near;
  GapSource source = GapSource::solid;
  std::optional<double> taped_at;            // m, H, of a taped one
  std::optional<TrackPiece> straight, least; // m; least: of straight ahead and both locks. 0 where they overlap
  bool joined = false; // it touches with the car as it was measured, where parts do that are bolted to one another
  /// @returns m; none outside what is known
  [[nodiscard]] std::optional<double> at(double H, bool locked) const;
};

/// Heights that a gap forbids.
struct Block {
  Mover mover = Mover::tyre;
  Near near;
  double from = 0, to = 0;    // m, H
  bool touches = false;       // it meets straight ahead; else it is nearer than wanted, at some lock or straight ahead
  std::optional<double> gain; // m of height for a metre more of room there
};

struct Clearances {
  std::optional<EndSpace> space;          // none while heights or the track are missing
  std::optional<space::WheelSolid> wheel; // none: no code that can be read
  std::optional<space::Rod> lip;          // the arch's inner edge over the hub
  std::vector<GapCurve> gaps;             // those of the bag are not among them
  std::vector<Block> blocks;
  [[nodiscard]] bool any() const { return !gaps.empty(); }
};

/// m that the tyre's outer shoulder stands outside the arch's inner edge at H; below 0 it is tucked in.
/// @returns none while wheel or arch is unknown
[[nodiscard]] std::optional<double> poke_at(const Clearances& clear, double H);

/// Source: docs/models.md, "Clearance".
[[nodiscard]] Clearances clearances(const ClearanceGiven& given);

struct ClearanceQuestion {
  using Given = ClearanceGiven;
  using Answer = Clearances;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return clearances(given); }
};

/// A bag between its seats.
struct BagBody {
  const air::BagCurve* curve = nullptr;    // its card's; must outlive the call
  double upper_stack = 0, lower_stack = 0; // m, with what the mounting brings the seats nearer
};
/// The bag at a stand. @returns none where its seats have no place or it would have no height
[[nodiscard]] std::optional<space::Cylinder> bag_at(const BagBody& bag, const Stand& stand);
/// Its gaps to the obstacles, and what they forbid.
void add_bag_gaps(const ClearanceGiven& given, const Clearances& clear, const BagBody& bag, std::vector<GapCurve>& gaps,
                  std::vector<Block>& blocks);

/// One obstacle as a solid, with the part that carries it; none of a taped gap.
struct Placement {
  space::Solid solid;
  motion::Part on = motion::Part::body;
};
[[nodiscard]] std::optional<Placement> placement_of(const build::Obstacle& obstacle);
/// m of room wanted between a mover and a kind of thing.
[[nodiscard]] double room_for(Mover mover, build::ObstacleKind kind, const build::Rooms& rooms, double bag_room);
/// Gap of one mover to a placed solid; of arms the least.
[[nodiscard]] std::optional<space::Gap> gap_to(Mover mover, const Placement& near, const Stand& stand,
                                               const Clearances& clear, const BagBody* bag);

} // namespace mavrel::assess
