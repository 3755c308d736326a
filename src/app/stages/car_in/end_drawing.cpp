#include "app/stages/car_in/end_drawing.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "build/names.h"
#include "curve/readings.h"

#include <QComboBox>
#include <QPainter>

namespace mavrel::app {

using build::at;

EndDrawing::EndDrawing(Desk& desk, build::End end, QWidget* parent) : QWidget(parent), desk_(desk), end_(end) {
  add("spring_length_m", tr("seat to seat"));
  add("motion_ratio", tr("spring ratio"));
  add("bag_room_m", tr("room for the bag"));
  add("damper_length_m", tr("damper now"));
  add("damper_open_m", tr("damper open"));
  add("damper_shut_m", tr("damper shut"));
  add("damper_ratio", tr("damper ratio"));
  add("bump_stop_gap_m", tr("bump stop gap"));
  add("unsprung_kg", tr("unsprung a corner"));
  add("other_spring_rate_n_per_m", tr("other springs"));
  add("other_spring_slack_m", tr("slack from"));
  add_choice<build::Layout>("layout", tr("Suspension"));
  add_choice<build::SpringPlace>("spring_place", tr("Spring place"));
  add_choice<build::SpringSeat>("spring_seat", tr("Spring seat"));
  add_choice<build::StopPlace>("bump_stop_place", tr("Bump stop place"));
  for (const auto signal : {&Desk::changed, &Desk::restyled})
    connect(&desk_, signal, this, &EndDrawing::refresh);
  refresh();
}

QSize EndDrawing::minimumSizeHint() const {
  return {desk_.look().px(560), desk_.look().px(236)};
}

void EndDrawing::add(const QString& key, const QString& caption) {
  fields_[key] = new Field(desk_, QString("%1.%2").arg(build::key_of(end_), key), caption, this);
}

template <class Enum>
void EndDrawing::add_choice(const QString& key, const QString& caption) {
  auto* box = new QComboBox(this);
  box->setAccessibleName(caption);
  box->setToolTip(caption);
  for (const auto& row : build::names_of(Enum{}))
    box->addItem(tr(row.name), QString(row.key));
  connect(box, &QComboBox::activated, this, [this, key, box] {
    if (const auto wrong = desk_.type(QString("%1.%2").arg(build::key_of(end_), key), box->currentData().toString()))
      desk_.tell(*wrong);
  });
  choices_[key] = box;
}

void EndDrawing::refresh() {
  for (const auto& [key, box] : choices_) {
    const QString name = tr(desk_.field(QString("%1.%2").arg(build::key_of(end_), key)).shown.c_str());
    box->setCurrentIndex(box->findText(name));
    box->setFont(desk_.look().font(TextSize::small));
  }
  const bool apart = desk_.build().end(end_).spring_place == build::SpringPlace::apart;
  fields_.at("damper_ratio")->set_placeholder(apart ? tr("not taken") : tr("as the spring"));
  fields_.at("unsprung_kg")
      ->set_placeholder(tr("%1 estimated").arg(desk_.shown(desk_.assessment().end(end_).unsprung_mass, Kind::mass)));
  for (const char* key : {"bag_room_m", "other_spring_rate_n_per_m", "other_spring_slack_m"})
    fields_.at(key)->set_placeholder(tr("none given"));
  place();
  update();
}

void EndDrawing::resizeEvent(QResizeEvent*) {
  place();
}

void EndDrawing::place() {
  const Look& look = desk_.look();
  const int w = look.px(104), h = look.px(36), gap = look.px(4);
  const auto put = [&](const char* key, int x, int y, int width_px) {
    fields_.at(key)->setGeometry(x, y, width_px, h);
  };
  // Fields either side of the drawing in the left half; choices and the rest in the right.
  const int left = 0, right = look.px(316);
  put("spring_length_m", left, look.px(30), w);
  put("motion_ratio", left, look.px(30) + h + gap, w);
  put("bag_room_m", left, look.px(30) + 2 * (h + gap), w);
  put("damper_open_m", right, look.px(2), w);
  put("damper_length_m", right, look.px(2) + (h + gap), w);
  put("damper_shut_m", right, look.px(2) + 2 * (h + gap), w);
  put("bump_stop_gap_m", right, look.px(2) + 3 * (h + gap), w);
  put("damper_ratio", right, look.px(2) + 4 * (h + gap), w);
  const int column = look.px(440), wide = std::max(look.px(150), width() - column);
  int y = look.px(4);
  for (const char* key : {"layout", "spring_place", "spring_seat", "bump_stop_place"}) {
    choices_.at(key)->setGeometry(column, y, wide, look.px(25));
    y += look.px(29);
  }
  y += look.px(4);
  put("unsprung_kg", column, y, wide);
  y += h + gap;
  put("other_spring_rate_n_per_m", column, y, wide / 2 - 2);
  put("other_spring_slack_m", column + wide / 2 + 2, y, wide - wide / 2 - 2);
}

double EndDrawing::drawn_length(const char* key, double usual) const {
  const build::EndSurvey& e = desk_.build().end(end_);
  const std::string name = key;
  const build::Readings& r = name == "spring"   ? e.spring_length
                             : name == "damper" ? e.damper_length
                             : name == "open"   ? e.damper_open
                             : name == "shut"   ? e.damper_shut
                                                : e.bump_stop_gap;
  return curve::mean(r.values).value_or(usual);
}

void EndDrawing::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Look& look = desk_.look();
  const bool apart = desk_.build().end(end_).spring_place == build::SpringPlace::apart;
  const double tallest =
      std::max({drawn_length("open", 0.45), drawn_length("damper", 0.4), drawn_length("spring", 0.19)}) * 1.02;
  const double top = look.px(6), bottom = height() - look.px(8);
  const double scale = (bottom - top) / tallest;
  const double middle = look.px(206);
  paint_damper(painter, apart ? middle + look.px(48) : middle + look.px(12), bottom, scale);
  paint_spring(painter, apart ? middle - look.px(42) : middle + look.px(12), bottom, scale);
}

void EndDrawing::paint_spring(QPainter& painter, double x, double floor, double scale) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const build::EndSurvey& e = desk_.build().end(end_);
  const bool apart = e.spring_place == build::SpringPlace::apart;
  const double length = drawn_length("spring", 0.19) * scale;
  // Around the damper the upper seat is at the damper's top; apart, the lower seat stands on the arm or axle.
  const double top = apart ? floor - length - look.px(16) : floor - drawn_length("damper", 0.4) * scale;
  const double bottom = top + length, half = look.px(apart ? 34 : 26);
  painter.setPen(QPen(t.ink, 2));
  painter.drawLine(QPointF(x - half, top), QPointF(x + half, top));
  painter.drawLine(QPointF(x - half, bottom), QPointF(x + half, bottom));
  if (apart) {
    painter.setPen(QPen(t.ink, 3, Qt::SolidLine, Qt::RoundCap));
    painter.drawLine(QPointF(x - half - look.px(14), bottom + look.px(7)),
                     QPointF(x + look.px(100), floor - look.px(4)));
  }
  // The bag's room between the seats: stacks and what is left for it.
  const build::EndFit& fit = desk_.build().variant().fit[at(end_)];
  const double upper = fit.upper_stack * scale, lower = fit.lower_stack * scale;
  QColor bag = t.end(end_);
  bag.setAlphaF(0.20F);
  painter.setPen(Qt::NoPen);
  painter.setBrush(t.rule);
  painter.drawRect(QRectF(x - half * 0.8, top + 1, half * 1.6, upper));
  painter.drawRect(QRectF(x - half * 0.8, bottom - lower, half * 1.6, lower - 1));
  painter.setBrush(bag);
  painter.setPen(QPen(t.end(end_), 1.4));
  const QRectF room(x - half * 0.9, top + upper, half * 1.8, std::max(2.0, length - upper - lower));
  painter.drawRoundedRect(room, look.px(8), look.px(8));
  // The tape from seat to seat.
  const double line = x - half - look.px(10);
  painter.setPen(QPen(t.ink, 1.2));
  painter.drawLine(QPointF(line, top), QPointF(line, bottom));
  painter.drawLine(QPointF(line - 4, top), QPointF(line + 4, top));
  painter.drawLine(QPointF(line - 4, bottom), QPointF(line + 4, bottom));
  painter.setPen(QPen(t.second, 1, Qt::DotLine));
  painter.drawLine(QPointF(line, (top + bottom) / 2), QPointF(look.px(106), look.px(54)));
}

void EndDrawing::paint_damper(QPainter& painter, double x, double floor, double scale) const {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const double now = drawn_length("damper", 0.4) * scale, open = drawn_length("open", 0.45) * scale,
               shut = drawn_length("shut", 0.31) * scale;
  const double w = look.px(9), eye = floor - look.px(3);
  const double body = shut * 0.58;
  painter.setPen(QPen(t.ink, 1.4));
  painter.setBrush(t.panel);
  painter.drawRect(QRectF(x - w, eye - body, 2 * w, body));
  painter.drawLine(QPointF(x, eye - body), QPointF(x, eye - now));
  // The bump stop on the rod, its gap above it.
  const bool on_damper = desk_.build().end(end_).bump_stop_place == build::StopPlace::damper;
  const double gap = drawn_length("gap", 0.06) * scale;
  if (on_damper) {
    painter.setBrush(t.caution);
    painter.setPen(Qt::NoPen);
    const double stop = look.px(12);
    const double under = eye - body - gap;
    painter.drawRect(QRectF(x - look.px(6), under - stop, look.px(12), stop));
  }
  painter.setPen(QPen(t.ink, 1.4));
  painter.setBrush(t.panel);
  painter.drawEllipse(QPointF(x, eye), 4, 4);
  painter.drawEllipse(QPointF(x, eye - now), 4, 4);
  // Where it is, and where its ends are, on a ruler beside it.
  const double ruler = x + look.px(40);
  const QColor colour = t.end(end_);
  painter.setPen(QPen(t.rule, 4));
  painter.drawLine(QPointF(ruler, eye - shut), QPointF(ruler, eye - open));
  struct Mark {
    double y;
    double field_y;
    QColor colour;
  };
  const double h = look.px(40);
  for (const Mark& m : {Mark{eye - open, look.px(2) + h * 0.55, t.stop}, Mark{eye - now, look.px(2) + h * 1.55, colour},
                        Mark{eye - shut, look.px(2) + h * 2.55, t.stop}}) {
    painter.setPen(QPen(m.colour, 2));
    painter.drawLine(QPointF(ruler - 6, m.y), QPointF(ruler + 6, m.y));
    painter.setPen(QPen(t.second, 1, Qt::DotLine));
    painter.drawLine(QPointF(ruler + 7, m.y), QPointF(look.px(314), m.field_y));
  }
  if (!on_damper) return;
  painter.setPen(QPen(t.second, 1, Qt::DotLine));
  painter.drawLine(QPointF(x + look.px(8), eye - body - gap / 2), QPointF(look.px(314), look.px(2) + h * 3.55));
}

} // namespace mavrel::app
