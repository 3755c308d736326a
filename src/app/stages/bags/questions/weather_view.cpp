#include "app/stages/bags/questions/weather_view.h"

#include "app/desk/desk.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <cmath>

namespace mavrel::app {

using assess::RestsOn;
using assess::SealedEnd;
using assess::WeatherAnswer;
using build::at;

namespace {

/// From the pose.
const assess::WeatherQuestion::Answer& weather_of(const Desk& d) {
  assess::WeatherGiven given{d.assessment().ends,
                             {d.pose(End::front), d.pose(End::rear)},
                             d.load_case(),
                             d.build().surroundings,
                             d.build().body.wheelbase};
  given.surroundings.extra.clear();
  return d.answers().at_once<assess::WeatherQuestion>(std::move(given));
}

} // namespace

WeatherView::WeatherView(Desk& desk, QWidget* parent) : HeightPlot(desk, parent) {
  setObjectName("weather_view");
  setAccessibleName(tr("Weather"));
}

QString WeatherView::summary() const {
  const auto& night = weather_of(desk_).front();
  QString out = tr("Valves shut, from where the car stands now.");
  for (const End end : build::both_ends) {
    const auto& one = night.ends[at(end)];
    if (!one) continue;
    out += " " + tr("%1 after the cold night: %2, %3.")
                     .arg(tr(build::name_of(end)), desk_.shown(one->to, Kind::length),
                          desk_.shown_pressure(one->pressure_to, one->beyond, 2));
    if (one->rests_on == RestsOn::low_stop) out += " " + tr("It rests on its stop.");
  }
  return out;
}

void WeatherView::paint_move(QPainter& painter, const QRectF& column, End end, const SealedEnd& move) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const HeightScale s = scale();
  const double x = column.left() + column.width() * (end == End::front ? 0.14 : 0.60);
  const double from = s.clamped_y(move.from), to = s.clamped_y(move.to);
  const QColor colour = t.end(end);
  painter.setRenderHint(QPainter::Antialiasing);
  painter.setPen(QPen(colour, 1, Qt::DotLine));
  painter.drawLine(QPointF(x - look.px(9), from), QPointF(x + look.px(9), from));
  QPen pen(colour, 3);
  pen.setCapStyle(Qt::FlatCap);
  painter.setPen(pen);
  painter.drawLine(QPointF(x, from), QPointF(x, to));
  painter.setPen(QPen(colour, 2.4));
  painter.drawLine(QPointF(x - look.px(9), to), QPointF(x + look.px(9), to));
  const double up = to <= from ? -1 : 1, w = look.px(4);
  if (std::abs(to - from) > look.px(8)) {
    painter.setPen(Qt::NoPen);
    painter.setBrush(colour);
    painter.drawPolygon(
        QPolygonF{{QPointF(x, to - up), QPointF(x - w, to - up * 1.8 * w), QPointF(x + w, to - up * 1.8 * w)}});
  }
  // Words beside the arrow's end, on a ground of their own so that hatching does not run through them.
  const double change = move.to - move.from;
  const QString letter = end == End::front ? tr("F") : tr("R");
  const QString first = QString("%1 %2%3").arg(letter,
                                               std::abs(change) < 5e-4 ? ""
                                               : change > 0            ? "+"
                                                                       : "−",
                                               desk_.shown(std::abs(change), Kind::length));
  const QString second =
      (move.beyond == air::Beyond::nothing ? QString() : QString("△ ")) +
      desk_.shown(move.pressure_to, Kind::pressure, desk_.prefs().pressure == PressureUnit::bar ? 2 : -1);
  const QString third = move.rests_on == RestsOn::low_stop    ? tr("on its stop")
                        : move.rests_on == RestsOn::high_stop ? tr("at the top")
                        : std::abs(move.lean) > 0.0009
                            ? tr("leans %1").arg(desk_.shown(std::abs(move.lean), Kind::angle, 1))
                            : QString();
  const QFont bold = look.font(TextSize::normal, true), small = look.font(TextSize::small);
  const double line = QFontMetricsF(bold).height(), left = x + look.px(13);
  const double width = column.left() + column.width() * (end == End::front ? 0.56 : 1.0) - left - 2;
  const double lines = third.isEmpty() ? 2 : 3;
  const double top = std::clamp(to - line / 2, column.top() + 2, column.bottom() - lines * line - 2);
  QColor ground = t.panel;
  ground.setAlphaF(0.9F);
  painter.fillRect(QRectF(left - 2, top, width, lines * line), ground);
  painter.setPen(colour);
  painter.setFont(bold);
  painter.drawText(QRectF(left, top, width, line), Qt::AlignLeft | Qt::AlignVCenter, first);
  painter.setFont(small);
  painter.setPen(t.ink);
  painter.drawText(QRectF(left, top + line, width, line), Qt::AlignLeft | Qt::AlignVCenter, second);
  if (!third.isEmpty()) {
    painter.setPen(move.rests_on == RestsOn::air ? t.second : t.stop);
    painter.drawText(QRectF(left, top + 2 * line, width, line), Qt::AlignLeft | Qt::AlignVCenter, third);
  }
}

void WeatherView::paint_ground(QPainter& painter) const {
  const Look& look = desk_.look();
  paint_axis(painter);
  const auto& answers = weather_of(desk_);
  const auto rects = split(plot().left(), static_cast<int>(answers.size()));
  const Tokens& t = look.tokens();
  for (std::size_t i = 0; i < answers.size(); ++i) {
    const WeatherAnswer& answer = answers[i];
    painter.fillRect(rects[i], t.panel);
    painter.setPen(QPen(t.rule, 1));
    painter.setBrush(Qt::NoBrush);
    painter.drawRect(rects[i]);
    QString what = tr("%1, from %2")
                       .arg(desk_.shown(answer.temperature, Kind::temperature, 0),
                            desk_.shown(answer.begins, Kind::temperature, 0));
    if (answer.what == WeatherAnswer::What::mountain_pass) what += ", " + desk_.shown(answer.altitude, Kind::altitude);
    if (answer.what == WeatherAnswer::What::worked_hour) what += tr(" in the bags");
    if (answer.rake && std::abs(*answer.rake) > 0.0009)
      what += " · " + (*answer.rake > 0 ? tr("nose down %1") : tr("nose up %1"))
                          .arg(desk_.shown(std::abs(*answer.rake), Kind::angle, 1));
    paint_head(painter, rects[i], tr(assess::weather_name(answer.what)), what);
  }
}

void WeatherView::paint_figures(QPainter& painter, double) const {
  const auto& answers = weather_of(desk_);
  const auto rects = split(plot().left(), static_cast<int>(answers.size()));
  for (std::size_t i = 0; i < answers.size(); ++i) {
    painter.save();
    painter.setClipRect(rects[i]);
    for (const End end : build::both_ends)
      if (const auto& move = answers[i].ends[at(end)]) paint_move(painter, rects[i], end, *move);
    painter.restore();
  }
}

} // namespace mavrel::app
