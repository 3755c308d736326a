// One question before something that can't simply be taken back.
#pragma once

#include <QString>

class QWidget;

namespace mavrel::app {

/// @param yes  what the button that does it says; the other one is Cancel, and what Enter presses
/// @returns whether the person said yes
[[nodiscard]] bool ask(QWidget* parent, const QString& title, const QString& text, const QString& yes);

} // namespace mavrel::app
