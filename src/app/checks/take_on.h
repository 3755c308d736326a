// Work that is not released: what is missing is shown, and somebody takes it on by name with a reason, or leaves it.
#pragma once

#include "quantity/message.h"

#include <QString>

#include <optional>
#include <vector>

class QWidget;

namespace mavrel::app {

class Desk;

struct TakenOn {
  QString by, why;
};

/// Asks who goes on all the same, and why.
/// @param what     that is not released: `Begin “Welded for good”`
/// @param missing  what is missing, at least one
/// @returns none: it is left
[[nodiscard]] std::optional<TakenOn> ask_to_take_on(QWidget* parent, const Desk& desk, const QString& what,
                                                    const std::vector<Message>& missing);

} // namespace mavrel::app
