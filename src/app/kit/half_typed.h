// A line of a page's own that is no field of the build, and is taken as one is: before anything that is open or looked
// at changes under it.
#pragma once

#include <QString>

#include <functional>
#include <optional>

class QLineEdit;

namespace mavrel::app {

class Desk;

/// @param take  takes what is typed to where it was begun. @returns what is wrong with it; it is asked only while the
///              line holds something that was typed and not taken
void settle_line(Desk& desk, QLineEdit* line, std::function<std::optional<QString>()> take);

} // namespace mavrel::app
