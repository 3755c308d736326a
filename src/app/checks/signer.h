// Who signs: one of the shop's people, or a name that is typed. And how a signature that no longer stands is said.
#pragma once

#include <QString>

class QComboBox;

namespace mavrel::assess {
struct HoldPoint;
}

namespace mavrel::app {

class Desk;

/// @param name  of the widget
void dress_signer(QComboBox& box, const char* name);
/// The shop's people as they are now; what was typed stays.
void show_signers(QComboBox& box, const Desk& desk);

/// What moved since a stale check was signed.
[[nodiscard]] QString stale_words(const Desk& desk, const assess::HoldPoint& point);

} // namespace mavrel::app
