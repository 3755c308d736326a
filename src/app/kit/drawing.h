// What every drawing of the car has in common: its framed backdrop, and the sentence where there is nothing to draw.
#pragma once

class QPainter;
class QRect;
class QString;

namespace mavrel::app {

struct Look;

void paint_backdrop(QPainter& painter, const QRect& rect, const Look& look);
/// In place of the drawing. @param why  one sentence: what is missing, and where it is entered
void paint_instead(QPainter& painter, const QRect& rect, const Look& look, const QString& why);

} // namespace mavrel::app
