#include "app/stages/bags/questions/comfort_view.h"

#include "app/desk/desk.h"
#include "app/kit/chart.h"
#include "app/kit/field.h"
#include "app/kit/height_scale.h"
#include "app/stages/bags/edits.h"
#include "build/names.h"

#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>
#include <QToolButton>

#include <numbers>

namespace mavrel::app {

using build::at;

// ---- the damper described

DamperPanel::DamperPanel(Desk& desk, QWidget* parent) : RowPanel(desk, parent) {
  setObjectName("damper_panel");
  start();
}

QString DamperPanel::shape() const {
  const auto end = desk().end();
  return QString("%1/%2/%3 ")
      .arg(desk().build().active_variant)
      .arg(build::key_of(end))
      .arg(desk().build().variant().fit[at(end)].damper_curve.size());
}

void DamperPanel::build_rows() {
  const auto end = desk().end();
  const auto& curve = desk().build().variant().fit[at(end)].damper_curve;
  heading(end == End::front ? tr("front rod") : tr("rear rod"), 0, 0);
  heading(tr("bump"), 0, 1);
  heading(tr("rebound"), 0, 2);
  int row = 1;
  for (std::size_t i = 0; i < curve.size(); ++i, ++row) {
    const QString path = QString("@.%1.damper_curve.%2").arg(build::key_of(end)).arg(i);
    int column = 0;
    for (const char* key : {"speed_m_per_s", "bump_n", "rebound_n"}) {
      auto* field = new Field(desk(), path + "." + key, {}, this);
      grid()->addWidget(field, row, column++);
    }
    auto* remove = remover([] { return tr("this point"); });
    connect(remove, &QToolButton::clicked, this, [this, end, i] { remove_damper_point(desk(), end, i); });
    grid()->addWidget(remove, row, column);
  }
  auto* add = new QPushButton(tr("Add a point"), this);
  add->setFont(desk().look().font(TextSize::small));
  connect(add, &QPushButton::clicked, this, [this, end] { add_damper_point(desk(), end); });
  grid()->addWidget(add, row, 0, 1, 2);
  grid()->setRowStretch(row + 1, 1);
}

namespace {

/// At road height.
const assess::RideQuestion::Answer& ride_of(const Desk& d) {
  return d.answers().at_once<assess::RideQuestion>(
      assess::ride_given(d.build(), d.shelf(), d.assessment().ends, d.load_case()));
}

} // namespace

// ---- frequencies in every load case

class ComfortView::Dots : public QWidget {
public:
  Dots(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) { setMinimumHeight(desk.look().px(120)); }

protected:
  void paintEvent(QPaintEvent*) override {
    QPainter painter(this);
    const Look& look = desk_.look();
    const Tokens& t = look.tokens();
    const assess::Ride& ride = ride_of(desk_);
    const auto& brief = desk_.build().variant().brief;
    double low = brief.frequency_low, high = brief.frequency_high;
    for (const auto& one : ride.cases)
      for (const auto& end : one.ends)
        if (end) {
          low = std::min(low, end->ride_frequency);
          high = std::max(
              {high, end->frequency, one.ends[0] ? one.ends[0]->ride_frequency * (1 + brief.rear_quicker_high) : 0});
        }
    low = std::floor((low - 0.1) * 5) / 5;
    high = std::ceil((high + 0.1) * 5) / 5;
    const double left = look.px(84), right = width() - look.px(108), top = look.px(18), foot = look.px(18);
    const auto x = [&](double f) { return left + (f - low) / (high - low) * (right - left); };
    const QRectF band(x(brief.frequency_low), top, x(brief.frequency_high) - x(brief.frequency_low),
                      height() - top - foot);
    painter.fillRect(QRectF(left, top, right - left, height() - top - foot), t.panel);
    QColor good = t.good;
    good.setAlphaF(0.14F);
    painter.fillRect(band, good);
    painter.setFont(look.font(TextSize::small));
    painter.setPen(t.good);
    painter.drawText(QRectF(band.left() - 40, 0, band.width() + 80, top), Qt::AlignCenter, tr("wanted"));
    for (double f = low; f <= high + 1e-9; f += 0.2) {
      painter.setPen(QPen(t.rule, 1));
      painter.drawLine(QPointF(x(f), top), QPointF(x(f), height() - foot));
      painter.setPen(t.second);
      painter.drawText(QRectF(x(f) - 20, height() - foot + 2, 40, foot - 2), Qt::AlignCenter,
                       QString::number(f, 'f', 1));
    }
    painter.drawText(QRectF(right + look.px(18), height() - foot + 2, look.px(40), foot - 2),
                     Qt::AlignLeft | Qt::AlignVCenter, tr("Hz"));
    painter.drawText(QRectF(right + look.px(6), 0, look.px(104), top), Qt::AlignLeft | Qt::AlignVCenter,
                     tr("rear · damping"));
    const double row = (height() - top - foot) / std::max<double>(1, static_cast<double>(ride.cases.size()));
    painter.setRenderHint(QPainter::Antialiasing);
    for (std::size_t c = 0; c < ride.cases.size(); ++c) {
      const auto& one = ride.cases[c];
      const double y = top + row * (static_cast<double>(c) + 0.5);
      painter.setFont(look.font(TextSize::small, c == desk_.load_case()));
      painter.setPen(t.ink);
      painter.drawText(QRectF(0, y - 9, left - look.px(8), 18), Qt::AlignRight | Qt::AlignVCenter,
                       painter.fontMetrics().elidedText(QString::fromStdString(one.name), Qt::ElideRight,
                                                        static_cast<int>(left - look.px(8))));
      if (one.ends[0]) { // where the rear should be for this front
        const double f = one.ends[0]->ride_frequency;
        const double a = x(f * (1 + brief.rear_quicker_low)), b = x(f * (1 + brief.rear_quicker_high));
        painter.setPen(QPen(t.rear, 1));
        painter.setBrush(Qt::NoBrush);
        painter.drawRect(QRectF(a, y, b - a, row * 0.4));
      }
      for (const End end : build::both_ends) {
        const auto& here = one.ends[at(end)];
        if (!here) continue;
        const QPointF point(x(here->ride_frequency),
                            y + (end == End::front ? -1 : 1) * row * 0.2); // apart, where they meet
        // Without the tyre it would be a little quicker: a tick on a thread.
        painter.setPen(QPen(t.end(end), 1, Qt::DotLine));
        painter.drawLine(point, QPointF(x(here->frequency), point.y()));
        painter.setPen(QPen(t.end(end), 1.4));
        painter.drawLine(QPointF(x(here->frequency), point.y() - look.px(4)),
                         QPointF(x(here->frequency), point.y() + look.px(4)));
        painter.setPen(Qt::NoPen);
        painter.setBrush(t.end(end));
        if (end == End::front)
          painter.drawEllipse(point, look.px(7), look.px(7));
        else
          painter.drawRect(QRectF(point.x() - look.px(7), point.y() - look.px(7), look.px(14), look.px(14)));
        painter.setPen(t.panel);
        painter.setFont(look.font(TextSize::small, true));
        painter.drawText(QRectF(point.x() - 10, point.y() - 9, 20, 18), Qt::AlignCenter,
                         end == End::front ? tr("F") : tr("R"));
      }
      painter.setFont(look.font(TextSize::small));
      painter.setPen(t.ink);
      const auto damping = [&](End end) {
        const auto& here = one.ends[at(end)];
        return here ? QString::number(here->damping_taken(), 'f', 2) + (here->damping ? "" : "?") : QString("–");
      };
      const QString quicker = one.rear_quicker ? QString("%1%2 %")
                                                     .arg(*one.rear_quicker < 0 ? "−" : "+")
                                                     .arg(std::lround(std::abs(*one.rear_quicker) * 100))
                                               : QString("–");
      painter.drawText(QRectF(right + look.px(6), y - 9, look.px(104), 18), Qt::AlignLeft | Qt::AlignVCenter,
                       QString("%1 · %2 / %3").arg(quicker, damping(End::front), damping(End::rear)));
    }
  }

private:
  Desk& desk_;
};

// ---- the view

ComfortView::ComfortView(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), dots_(new Dots(desk, this)), pitch_(new Chart(desk, this)),
      speed_(new Field(desk, "@.brief.settle_speed_m_per_s", tr("settle flat at"), this)) {
  setObjectName("comfort_view");
  pitch_->put_legend_below();
  const int u = desk_.look().unit();
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, u / 2, u, 0);
  row->setSpacing(u);
  auto* left = new QVBoxLayout;
  left->setSpacing(u / 2);
  left->addWidget(dots_, 4);
  left->addWidget(pitch_, 5);
  row->addLayout(left, 1);
  auto* side = new QVBoxLayout;
  side->setSpacing(u);
  side->addWidget(speed_);
  auto* damper = new DamperPanel(desk_, this);
  side->addWidget(damper, 1);
  row->addLayout(side);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, [this] {
      if (isVisible()) refresh();
    });
}

void ComfortView::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

QString ComfortView::summary() const {
  const auto& settling = ride_of(desk_).settling;
  if (!settling) return tr("Both ends need a bag and a road height, and the car its wheelbase.");
  const QString speed = desk_.shown(desk_.build().variant().brief.settle_speed, Kind::road_speed);
  QString out;
  const double now = settling->now.unrest * 180 / std::numbers::pi;
  if (settling->best_bag.empty())
    out = tr("After a bump at %1 it pitches on by %2° on the mean; no other bag behind settles it noticeably flatter.")
              .arg(speed)
              .arg(now, 0, 'f', 2);
  else
    out = tr("After a bump at %1 it pitches on by %2° on the mean; with %3 behind, at %4, by %5 less.")
              .arg(speed)
              .arg(now, 0, 'f', 2)
              .arg(QString::fromStdString(settling->best_bag), desk_.shown(settling->rear_best, Kind::frequency),
                   desk_.shown(1 - settling->best.unrest / settling->now.unrest, Kind::share));
  out += " " + tr("Marked is what is felt; the ticks are without the tyre.");
  if (settling->damper_assumed) out += " " + tr("A usual damper is taken where none is described.");
  return out;
}

void ComfortView::refresh() {
  dots_->update();
  dots_->setAccessibleName(tr("Body frequencies in every load case"));
  const Tokens& t = desk_.look().tokens();
  pitch_->clear_all();
  pitch_->xAxis->setLabel(tr("time from the front wheels' bump, s"));
  pitch_->yAxis->setLabel(tr("pitch, °, nose up"));
  pitch_->axisRect()->setAutoMargins(QCP::msLeft | QCP::msRight | QCP::msBottom);
  pitch_->axisRect()->setMargins(QMargins(0, desk_.look().px(18), 0, 0));
  if (const auto& settling = ride_of(desk_).settling) {
    const auto degrees = [](const motion::PitchRun& run, QVector<double>& time, QVector<double>& angle) {
      for (std::size_t i = 0; i < run.pitch.size(); ++i) {
        time << static_cast<double>(i) * run.step;
        angle << run.pitch[i] * 180 / std::numbers::pi;
      }
    };
    QVector<double> time, now, time_best, best;
    degrees(settling->now, time, now);
    degrees(settling->best, time_best, best);
    auto* best_line = pitch_->add_line(pitch_->xAxis, pitch_->yAxis, t.good, 1.6, true);
    best_line->setData(time_best, best, true);
    best_line->setName(settling->best_bag.empty()
                           ? tr("best reachable: this")
                           : tr("best reachable: %1 behind").arg(QString::fromStdString(settling->best_bag)));
    auto* now_line = pitch_->add_line(pitch_->xAxis, pitch_->yAxis, t.ink, 2);
    now_line->setData(time, now, true);
    now_line->setName(tr("as it is"));
    pitch_->xAxis->setRange(0, time.back());
    pitch_->yAxis->rescale();
    pitch_->yAxis->scaleRange(1.15);
    pitch_->mark(settling->now.rear_done, tr("rear wheels are over it"), t.second);
  }
  pitch_->setAccessibleName(tr("Pitch after a bump. %1").arg(summary()));
  pitch_->redraw();
}

} // namespace mavrel::app
