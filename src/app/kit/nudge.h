// The arrows as they move what is held in a drawing: a millimetre a stroke, with Shift a centimetre, with Alt a tenth.
#pragma once

#include <QKeyEvent>
#include <QPointF>

#include <optional>

namespace mavrel::app {

class Document;

/// m to the right and up; none where the key is no arrow.
[[nodiscard]] std::optional<QPointF> nudge_of(const QKeyEvent& event);
/// The gesture that an edit by this key belongs to: a key held is one step of undo, each new stroke one of its own.
[[nodiscard]] QString stroke_of(const QKeyEvent& event, Document& document);
/// Would this event's arrow be taken by a shortcut of the window, if nobody claimed it?
[[nodiscard]] bool is_arrow_for_shortcuts(const QEvent& event);

} // namespace mavrel::app
