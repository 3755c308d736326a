// One line of text, drawn without laying out a paragraph: drawings full of figures are drawn at every move of a hand.
#pragma once

#include <QPainter>
#include <QRectF>
#include <QString>

namespace mavrel::app {

/// Draws one line in the painter's font and pen, shortened with … where it does not fit.
/// @param align  left, right or centre, and top, bottom or middle
/// @returns what the line covers
QRectF draw_line(QPainter& painter, const QRectF& room, Qt::Alignment align, const QString& text);

} // namespace mavrel::app
