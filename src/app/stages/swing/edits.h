// Edits that the Swing stage makes: joints moved, taken over, read from files; rows of a cycle sheet.
#pragma once

#include "app/desk/desk.h"
#include "motion/linkage/geometry.h"

#include <QStringList>

namespace mavrel::app {

/// Moves a measured joint of the left side. @param to  m. @returns whether it was measured and may lie there; else it
/// is told
bool move_joint(Desk& desk, End end, const QString& joint, const motion::Point& to, const QString& gesture);
/// Usual places for the suspension, to be dragged where they are.
void start_from_usual_joints(Desk& desk, End end);
/// The right side measured by itself, starting from the left's mirror image; or no more.
void measure_right_side(Desk& desk, End end, bool by_itself);

/// The list of a side's cycle sheet: `front.cycle`, `rear.cycle_right`.
[[nodiscard]] QString cycle_list(End end, bool right);
[[nodiscard]] const List<build::CycleRow>& cycle_of(const Desk& desk, End end, bool right);

/// What a CSV looks like by its head.
enum class MotionFile { cycle, joints, card, other };
[[nodiscard]] MotionFile kind_of_motion_file(const QString& file);
/// Reads a CSV of either kind onto an end: hard points or a cycle sheet, by its columns.
/// @returns whether it was taken; else it is told
/// @param right  a cycle sheet of the right side by itself
bool read_motion_file(Desk& desk, End end, const QString& file, bool right = false);
bool write_joints(Desk& desk, End end, const QString& file);
/// Bracket angles and seats of both ends as CSV.
bool write_brackets(Desk& desk, const QString& file);
bool write_cycle(Desk& desk, End end, const QString& file, bool right = false);

/// A row more of the cycle sheet. @returns its number from 0; none where there is no room, which is told
std::optional<std::size_t> add_cycle_row(Desk& desk, End end, double height, bool right = false);
void remove_cycle_row(Desk& desk, End end, std::size_t row, bool right = false);

} // namespace mavrel::app
