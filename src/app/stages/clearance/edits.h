// Edits that Clearance makes, each undoable by name.
#pragma once

#include "app/desk/desk.h"
#include "space/point.h"

namespace mavrel::app {

/// A new obstacle beside the wheel of this end, of a shape; the list keeps its order.
/// @returns its place in the list; none when the list is full
std::optional<std::size_t> add_obstacle(Desk& desk, End end, build::ObstacleShape shape);
void remove_obstacle(Desk& desk, End end, std::size_t obstacle);
/// Moves an obstacle, its other end with it. @param gesture  one drag is one undo
void move_obstacle(Desk& desk, End end, std::size_t obstacle, const space::Point& to, const QString& gesture = {});
/// A copy of this design with that wheel, as a variant that is gone on with.
void try_wheel(Desk& desk, End end, const QString& code);
/// Something on the ground to be got over. @param ground  with its points
void add_ground(Desk& desk, build::Ground ground);
/// Profiles from a file, `x_m,z_m` a row. @returns what is wrong with it; none when it was taken
std::optional<QString> read_ground(Desk& desk, const QString& file);
/// Ticks a clearance as looked at on the car, on what it reads now; a second time takes the tick away.
void tick_check(Desk& desk, End end, const QString& what, const QString& digest, double figure);

} // namespace mavrel::app
