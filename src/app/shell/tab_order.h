// Where Tab goes: in reading order over what is in sight, whatever was made first.
#pragma once

#include <vector>

class QWidget;

namespace mavrel::app {

/// Everything of a window that Tab stops at, as it is read: row by row, in each from the left, a group to its end
/// before the next. `also` has its place in it although Tab does not stop there; nullptr: nothing more.
[[nodiscard]] std::vector<QWidget*> reading_order(const QWidget* window, const QWidget* also = nullptr);

/// What follows in reading order, or comes before; round at the ends. nullptr: there is nothing to stop at.
[[nodiscard]] QWidget* next_in_reading(const QWidget* window, const QWidget* from, bool forward);

} // namespace mavrel::app
