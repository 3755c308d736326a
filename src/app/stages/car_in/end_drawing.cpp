#include "app/stages/car_in/end_drawing.h"

#include "app/desk/desk.h"
#include "app/kit/car_outline.h"
#include "app/kit/field.h"
#include "app/stages/car_in/end_figure.h"
#include "assess/end/end_answer.h"
#include "assess/survey/stand_ins.h"
#include "build/names.h"

#include <QComboBox>
#include <QPainter>

namespace mavrel::app {

namespace {
// px at normal size: where the choices begin beside the drawing, how wide they are at least; the drawing's height, and
// that of the choices where they stand below it.
constexpr int choices_at = 428, choices_width = 150, figure_height = 236, block_height = 104;
} // namespace

using build::at;

EndDrawing::EndDrawing(Desk& desk, build::End end, QWidget* parent) : QWidget(parent), desk_(desk), end_(end) {
  add("spring_length_m", tr("seat to seat"));
  add("motion_ratio", tr("spring ratio"));
  add("bag_room_m", tr("room for the bag"));
  add("spring_base_m", tr("spring base"));
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
  const Look& look = desk_.look();
  // Narrower than it likes to be it gives way; it never has to be scrolled sideways.
  return {look.px(260), look.px(tight_ ? figure_height + block_height : figure_height)};
}

void EndDrawing::look_how_tight() {
  // Once tight it stays so until there is clearly room: a scroll bar that comes and goes changes nothing.
  const bool tight = width() < desk_.look().px(choices_at + choices_width + (tight_ ? 20 : 0));
  if (tight == tight_) return;
  tight_ = tight;
  updateGeometry(); // it wants another height
}

int EndDrawing::across(int at_normal) const {
  const Look& look = desk_.look();
  return static_cast<int>(look.px(at_normal) * std::min(1.0, double(width()) / look.px(choices_at - 4)));
}

void EndDrawing::add(const QString& key, const QString& caption) {
  fields_[key] = new Field(desk_, QString("%1.%2").arg(build::key_of(end_), key), caption, this);
}

template <class Enum>
void EndDrawing::add_choice(const QString& key, const QString& caption) {
  auto* box = new QComboBox(this);
  box->setAccessibleName(caption);
  box->setProperty("path", QString("%1.%2").arg(build::key_of(end_), key));
  box->setToolTip(caption);
  for (const auto& row : build::names_of(Enum{}))
    box->addItem(tr(row.name), QString(row.key));
  connect(box, &QComboBox::activated, this, [this, key, box] {
    if (const auto wrong = desk_.type(QString("%1.%2").arg(build::key_of(end_), key), box->currentData().toString()))
      desk_.refuse(*wrong);
  });
  choices_[key] = box;
}

void EndDrawing::refresh() {
  if (!isVisible() && placed_) return; // out of sight; it catches up when it is shown
  placed_ = true;
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
  const auto base = assess::spring_base(desk_.build().end(end_));
  fields_.at("spring_base_m")
      ->set_placeholder(base ? tr("≈ %1").arg(desk_.shown(*base, Kind::length, 0)) : tr("not taken"));
  // What stands in while a reading is missing.
  for (const char* key : {"spring_length_m", "motion_ratio", "damper_length_m", "damper_open_m", "damper_shut_m"})
    fields_.at(key)->set_placeholder({});
  for (const assess::Estimate& estimate : desk_.assessment().end(end_).estimated)
    fields_.at(estimate.field)
        ->set_placeholder((!estimate.from_now                           ? tr("≈ %1")
                           : QString(estimate.field) == "damper_open_m" ? tr("≈ %1 more")
                                                                        : tr("≈ %1 less"))
                              .arg(desk_.shown(estimate.usual.value, estimate.kind)));
  place();
  update();
}

void EndDrawing::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

void EndDrawing::resizeEvent(QResizeEvent*) {
  look_how_tight();
  place();
}

void EndDrawing::place() {
  const Look& look = desk_.look();
  const int w = across(104), h = look.px(36), gap = look.px(4);
  const auto put = [&](const char* key, int x, int y, int width_px) {
    fields_.at(key)->setGeometry(x, y, width_px, h);
  };
  // Fields either side of the drawing in the left half; choices and the rest in the right.
  const int left = 0, right = across(316);
  put("spring_length_m", left, look.px(30), w);
  put("motion_ratio", left, look.px(30) + h + gap, w);
  put("bag_room_m", left, look.px(30) + 2 * (h + gap), w);
  // Between the middles of both springs: of an axle that carries both.
  fields_.at("spring_base_m")->setVisible(assess::is_solid_axle(desk_.build().end(end_).layout));
  put("spring_base_m", left, look.px(30) + 3 * (h + gap), w);
  put("damper_open_m", right, look.px(2), w);
  put("damper_length_m", right, look.px(2) + (h + gap), w);
  put("damper_shut_m", right, look.px(2) + 2 * (h + gap), w);
  put("bump_stop_gap_m", right, look.px(2) + 3 * (h + gap), w);
  put("damper_ratio", right, look.px(2) + 4 * (h + gap), w);
  // Beside them where there is room, else below, two in a row.
  if (tight_) {
    const int half = width() / 2 - gap;
    int y = look.px(figure_height), n = 0;
    for (const char* key : {"layout", "spring_place", "spring_seat", "bump_stop_place"}) {
      choices_.at(key)->setGeometry(n % 2 * (half + 2 * gap), y, half, look.px(25));
      y += n++ % 2 * look.px(29);
    }
    const int third = width() / 3 - gap;
    put("unsprung_kg", 0, y, third);
    put("other_spring_rate_n_per_m", width() / 3 + gap / 2, y, third);
    put("other_spring_slack_m", 2 * width() / 3 + gap, y, third);
    return;
  }
  const int column = look.px(choices_at), wide = width() - column;
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

void EndDrawing::paintEvent(QPaintEvent*) {
  QPainter painter(this);
  painter.setRenderHint(QPainter::Antialiasing);
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const EndFigure figure(
      desk_, end_,
      QRectF(across(116), look.px(6), across(184), (tight_ ? look.px(figure_height) : height()) - look.px(14)));
  figure.paint(painter);
  // From each measure to the field that holds it.
  painter.setPen(QPen(t.ink, 1.2));
  paint_dimension(painter, t, figure.spring.p1(), figure.spring.p2());
  painter.setPen(QPen(t.second, 1, Qt::DotLine));
  painter.drawLine(figure.spring.center(), QPointF(across(106), look.px(54)));
  const double h = look.px(40), fields = across(314), first = look.px(2) + h * 0.55;
  painter.drawLine(figure.open.p2(), QPointF(fields, first));
  painter.drawLine(figure.damper.p2(), QPointF(fields, first + h));
  painter.drawLine(figure.shut.p2(), QPointF(fields, first + 2 * h));
  if (figure.stop) painter.drawLine(figure.stop->center(), QPointF(fields, first + 3 * h));
}

} // namespace mavrel::app
