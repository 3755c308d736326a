// Arithmetic of the bench: what to shift, shim, wedge, cut and notch so that a wheel or an axle stands as it should.
#pragma once

#include "motion/linkage/geometry.h"

namespace mavrel::motion {

/// An upper joint moved along the car for a caster, and where the wheel goes with it.
struct CasterShift {
  double upper = 0; // m that the upper joint goes, rearward positive
  double wheel = 0; // m that the wheel's centre goes, rearward positive
};
/// The upright turns about its lower joint; what it was steered by before stays.
/// @param caster  wanted, rad
/// @returns the shift; or that this suspension has no upper joint to move, or that no shift gives so much
/// Source: docs/models.md, "Workshop".
[[nodiscard]] Expected<CasterShift> shift_for_caster(const Geometry& geometry, double caster);

/// Shims inside the two arms of a kingpin beam.
struct ShimSplit {
  int upper = 0, lower = 0; // that go inside
  double change = 0;        // rad of camber it gives
  double left = 0;          // rad short of what is wanted, with its sign
};
/// Δγ = atan((o + (k_u − k_l)·t)/s). Of equal splits the one with fewest inside.
/// @param shims      at each arm, 0 to 40
/// @param thickness  m of one;  offset  m, the arms' measured;  pins  m between them
/// @param wanted     rad of camber
[[nodiscard]] Expected<ShimSplit> split_shims(int shims, double thickness, double offset, double pins, double wanted);

/// Thickness at its thick edge of a wedge shim that turns a flange by an angle, m. @param circle  m, the bolts' circle
[[nodiscard]] double wedge_edge(double angle, double circle);

/// How far an axle is out of square on its frame.
struct Squareness {
  double yaw = 0;   // rad, its left end forward positive
  double shift = 0; // m that the left links' brackets go back by, or the right ones forward, to square it
};
/// @param left_right, right_left  m, diagonals from the frame's left point to the axle's right end and the other way
/// @param frame, axle             m between the frame's two points, and the axle's two ends
/// @returns the squareness; or that no such axle exists
[[nodiscard]] Expected<Squareness> squareness(double left_right, double right_left, double frame, double axle);

/// A link cut from tube between two threaded ends, one of right and one of left hand.
struct LinkCut {
  double tube = 0;                // m to cut
  double shorter = 0, longer = 0; // m that both ends together let it be turned by, enough thread kept in
};
constexpr double least_engagement = 1.5; // diameters of thread that stay in
/// @param between          m, joint centre to joint centre
/// @param end_a, end_b     m, from a joint's centre to the tube's end, screwed half in
/// @param thread, diameter m, length of thread of one end, and its diameter
[[nodiscard]] Expected<LinkCut> cut_link(double between, double end_a, double end_b, double thread, double diameter);

/// How deep a notch must be over an axle tube.
struct Notch {
  double deep = 0;   // m, 0: none is needed
  double lowest = 0; // m, H that is reached without one
};
/// @param gap      m, tube's top to the rail above it as surveyed;  reserve  m that stays free
/// @param surveyed, wanted  m, H
[[nodiscard]] Notch notch_for(double gap, double reserve, double surveyed, double wanted);

/// The height of a lateral bar's body end that keeps the axle's side shift least between two heights.
struct LevelBar {
  double raise = 0;             // m that its body end goes up
  double before = 0, after = 0; // m, most side shift either way of the middle of its range
};
/// @param low, high  m, dh
/// @returns the bar; or that there is none, or that the links do not reach those heights
[[nodiscard]] Expected<LevelBar> level_bar(const Geometry& geometry, double low, double high);

/// The nearest that a track rod comes to the damper, over travel and lock.
struct RodGap {
  double gap = 0;  // m between their middle lines
  double dh = 0;   // m, where
  double rack = 0; // m
};
/// @param low, high  m, dh;  lock  rad either way
[[nodiscard]] Expected<RodGap> rod_to_damper(const Geometry& geometry, double low, double high, double lock);

} // namespace mavrel::motion
