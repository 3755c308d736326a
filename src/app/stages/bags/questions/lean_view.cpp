#include "app/stages/bags/questions/lean_view.h"

#include "app/desk/desk.h"
#include "app/kit/field.h"
#include "app/kit/plain.h"
#include "build/names.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPainter>
#include <QPainterPath>

#include <numbers>

namespace mavrel::app {

using assess::AxleRoll;
using assess::Lean;
using build::at;

namespace {

/// At the pose.
const assess::RollQuestion::Answer& roll_of(const Desk& d) {
  return d.answers().at_once<assess::RollQuestion>(
      assess::RollGiven{d.assessment().ends,
                        assess::car_in_bend(d.build()),
                        {d.pose(End::front).value_or(0), d.pose(End::rear).value_or(0)},
                        d.load_case()});
}

} // namespace

/// Three cars from behind, each with the bars of what holds it.
class LeanView::Drawing : public QWidget {
public:
  Drawing(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {}

protected:
  void paintEvent(QPaintEvent*) override {
    QPainter painter(this);
    const auto& roll = roll_of(desk_);
    if (!roll) return;
    const double each = width() / 3.0;
    most_ = roll->gravity;
    for (const Lean* lean : {&roll->separate, &roll->joined, &roll->fitted})
      most_ = std::max(most_, lean->axles[0].sum() + lean->axles[1].sum());
    paint_one(painter, QRectF(0, 0, each, height()), tr("separate sides"), roll->separate, *roll, false);
    paint_one(painter, QRectF(each, 0, each, height()), tr("joined by a tee"), roll->joined, *roll, false);
    paint_one(painter, QRectF(2 * each, 0, each, height()), tr("as designed"), roll->fitted, *roll, true);
  }

private:
  void paint_one(QPainter& painter, const QRectF& area, const QString& name, const Lean& lean, const assess::Roll& roll,
                 bool held) {
    const Look& look = desk_.look();
    const Tokens& t = look.tokens();
    const QRectF box = area.adjusted(4, 4, -4, -4);
    painter.fillRect(box, held ? t.selected : t.panel);
    painter.setRenderHint(QPainter::Antialiasing);
    painter.setFont(look.font(TextSize::normal, true));
    painter.setPen(t.ink);
    painter.drawText(QRectF(box.left() + 8, box.top() + 4, box.width() - 16, look.px(18)),
                     Qt::AlignLeft | Qt::AlignVCenter, name);
    const double wanted = desk_.build().variant().brief.lean_wanted;
    const bool fine = lean.angle && *lean.angle <= wanted;
    painter.setFont(look.font(TextSize::huge, true));
    painter.setPen(fine ? t.good : t.stop);
    painter.drawText(QRectF(box.left() + 8, box.top() + look.px(22), box.width() - 16, look.px(26)),
                     Qt::AlignLeft | Qt::AlignVCenter,
                     lean.angle ? desk_.shown(*lean.angle, Kind::angle, 1) : tr("onto its stops"));
    // The car from behind: wheels on the road, the body leaning about the roll axis.
    const double scale = std::min(box.width() / 2.0, box.height() * 0.46 / 1.5);
    const double ground = box.top() + look.px(60) + scale * desk_.build().body.overall_height.value_or(1.45);
    const double centre = box.center().x();
    painter.setPen(QPen(t.ink, 1.4));
    painter.drawLine(QPointF(box.left() + 6, ground), QPointF(box.right() - 6, ground));
    const double track = desk_.build().ends[0].track.value_or(1.5),
                 tyre = 2 * desk_.assessment().end(End::front).tyre_radius.value_or(0.31);
    painter.setBrush(t.second);
    for (const double side : {-1.0, 1.0})
      painter.drawRoundedRect(
          QRectF(centre + side * track / 2 * scale - 0.1 * scale, ground - tyre * scale, 0.2 * scale, tyre * scale), 3,
          3);
    const double tall = desk_.build().body.overall_height.value_or(1.45), wide = track / 2 + 0.12;
    painter.save();
    painter.translate(centre, ground - roll.roll_height * scale);
    painter.rotate(std::min(lean.angle ? 3 * *lean.angle : 0.3, 0.3) * 180 / std::numbers::pi); // threefold, to be seen
    const auto up = [&](double z) { return -(z - roll.roll_height) * scale; };
    QPainterPath body(QPointF(-wide * scale, up(0.26)));
    body.lineTo(-wide * scale, up(tall * 0.62));
    body.lineTo(-wide * 0.74 * scale, up(tall));
    body.lineTo(wide * 0.74 * scale, up(tall));
    body.lineTo(wide * scale, up(tall * 0.62));
    body.lineTo(wide * scale, up(0.26));
    body.closeSubpath();
    QColor fill = t.ground;
    fill.setAlphaF(0.7F);
    painter.setBrush(fill);
    painter.setPen(QPen(t.ink, 1.4));
    painter.drawPath(body);
    painter.setBrush(t.ink);
    painter.drawEllipse(QPointF(0, up(roll.gravity_height)), 3, 3);
    painter.setBrush(Qt::NoBrush);
    painter.drawEllipse(QPointF(0, 0), 4, 4);
    painter.restore();
    paint_bars(painter,
               QRectF(box.left() + 8, ground + look.px(10), box.width() - 16, box.bottom() - ground - look.px(12)),
               lean, roll);
  }

  void paint_bars(QPainter& painter, const QRectF& area, const Lean& lean, const assess::Roll& roll) {
    const Look& look = desk_.look();
    const Tokens& t = look.tokens();
    painter.setFont(look.font(TextSize::small));
    const double row = std::min(look.px(26) * 1.0, area.height() / 5), left = area.left() + look.px(44),
                 room = area.right() - left;
    const auto x = [&](double k) { return left + k / most_ * room; };
    for (const End end : build::both_ends) {
      const AxleRoll& axle = lean.axles[at(end)];
      const double y = area.top() + row * static_cast<double>(at(end));
      painter.setPen(t.end(end));
      painter.drawText(QRectF(area.left(), y, look.px(42), row), Qt::AlignLeft | Qt::AlignVCenter,
                       tr(build::name_of(end)));
      double from = 0;
      const auto piece = [&](double k, int style) {
        if (!(k > 0)) return;
        const QRectF bar(x(from), y + 3, x(from + k) - x(from), row - 6);
        QColor colour = t.end(end);
        painter.setPen(QPen(colour, 1));
        painter.setBrush(style == 0 ? QBrush(colour) : style == 1 ? QBrush(colour, Qt::BDiagPattern) : QBrush(t.panel));
        painter.drawRect(bar);
        from += k;
      };
      piece(axle.air, 0);
      piece(axle.geometry, 1);
      piece(axle.bar, 2);
    }
    // What the leaning weight takes of it: below this line the car lies on its stops.
    painter.setPen(QPen(t.stop, 1.4));
    painter.drawLine(QPointF(x(roll.gravity), area.top()), QPointF(x(roll.gravity), area.top() + 2 * row));
    QStringList lines;
    for (const End end : build::both_ends)
      lines << QString("%1 %2").arg(tr(build::name_of(end)), desk_.shown(lean.axles[at(end)].sum(), Kind::turning));
    if (std::isinf(lean.bar_wanted))
      lines << tr("no bar does it");
    else if (lean.bar_wanted > 0)
      lines << tr("bars wanted:") << desk_.shown(lean.bar_wanted, Kind::turning);
    else
      lines << tr("no bar needed");
    painter.setPen(t.ink);
    painter.drawText(QRectF(area.left(), area.top() + 2 * row + look.px(6), area.width(), area.height() - 2 * row),
                     Qt::AlignLeft | Qt::AlignTop, lines.join("\n"));
  }

  Desk& desk_;
  double most_ = 1;
};

LeanView::LeanView(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), drawing_(new Drawing(desk, this)), grid_(new QGridLayout) {
  setObjectName("lean_view");
  const int u = desk_.look().unit();
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, u / 2, u, 0);
  row->setSpacing(u);
  row->addWidget(drawing_, 1);
  auto* side = new QVBoxLayout;
  row->addLayout(side);
  grid_->setSpacing(u / 2);
  side->addLayout(grid_);
  for (const End end : build::both_ends) {
    const int column = static_cast<int>(at(end));
    const QString name = tr(build::name_of(end)).toLower(), key = build::key_of(end);
    auto* box = new QComboBox(this);
    box->setAccessibleName(tr("%1 sides").arg(tr(build::name_of(end))));
    for (const auto& choice : build::names_of(build::Sides{}))
      box->addItem(tr(choice.name), QString(choice.key));
    box->setProperty("path", QString("@.%1.sides").arg(key));
    connect(box, &QComboBox::activated, this, [this, key, box] {
      if (const auto wrong = desk_.type(QString("@.%1.sides").arg(key), box->currentData().toString()))
        desk_.refuse(*wrong);
    });
    auto* caption = new PlainLabel(tr("%1 sides").arg(name), this);
    caption->setProperty("quiet", true);
    set_small(caption, desk_.look());
    grid_->addWidget(caption, 0, column);
    grid_->addWidget(box, 1, column);
    sides_[at(end)] = box;
    add(key + ".bar_rate_n_m_per_rad", tr("%1 bar").arg(name), 2, column);
    add(key + ".roll_centre_m", tr("%1 roll centre").arg(name), 3, column);
    add(key + ".spring_base_m", tr("%1 spring base").arg(name), 4, column);
  }
  add("body.gravity_height_m", tr("gravity at"), 5, 0);
  add("@.brief.lean_wanted_rad", tr("lean wanted"), 5, 1);
  add("@.brief.braking_g", tr("braking, of g"), 6, 1);
  dive_ = new PlainLabel(this);
  dive_->setObjectName("dive");
  dive_->setWordWrap(true);
  set_small(dive_, desk_.look());
  grid_->addWidget(dive_, 6, 0);
  auto* key =
      new PlainLabel(tr("Filled: trapped air. Hatched: the bags' shape and the linkage. Hollow: the bar. Red line: "
                        "what the leaning weight takes. Lean drawn threefold."),
                     this);
  key->setWordWrap(true);
  key->setProperty("quiet", true);
  set_small(key, desk_.look());
  key->setMinimumWidth(1); // as wide as what stands over it
  side->addWidget(key);
  side->addStretch(1);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled, &Desk::posed})
    connect(&desk_, signal, this, [this] {
      if (isVisible()) refresh();
    });
}

void LeanView::add(const QString& path, const QString& caption, int row, int column) {
  auto* field = new Field(desk_, path, caption, this);
  field->set_placeholder(path.endsWith("bar_rate_n_m_per_rad") ? tr("none")
                         : path.endsWith("spring_base_m")      ? tr("track, or est.")
                                                               : tr("estimated"));
  grid_->addWidget(field, row, column);
}

void LeanView::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

QString LeanView::summary() const {
  const auto& roll = roll_of(desk_);
  if (!roll) return desk_.words_of(roll.error());
  const auto angle = [&](const Lean& lean) {
    return lean.angle ? desk_.shown(*lean.angle, Kind::angle, 1) : tr("its stops");
  };
  QString out =
      tr("At 0.3 g it leans %1 with separate sides and %2 joined; gravity %3 above the road, the roll axis at %4%5.")
          .arg(angle(roll->separate), angle(roll->joined), desk_.shown(roll->gravity_height, Kind::length),
               desk_.shown(roll->roll_height, Kind::length), roll->estimated ? tr(" (estimates)") : QString());
  if (roll->base_estimated) out += " " + tr("The solid axle's spring base is an estimate.");
  if (roll->standing && std::abs(*roll->standing) > 1e-4)
    out += " " + (*roll->standing > 0 ? tr("Standing, the joined sides leave the left %1 low.")
                                      : tr("Standing, the joined sides leave the right %1 low."))
                     .arg(desk_.shown(std::abs(*roll->standing), Kind::angle, 1));
  if (roll->joined.bar_wanted > 0 && std::isfinite(roll->joined.bar_wanted))
    out +=
        " " +
        tr("Joined, the bars would have to be %1 together.").arg(desk_.shown(roll->joined.bar_wanted, Kind::turning));
  return out;
}

QString LeanView::dive_words(const assess::Dive& dive) const {
  const auto way = [&](double up, const QString& rises, const QString& sinks) {
    return (up > 0 ? rises : sinks).arg(desk_.shown(std::abs(up), Kind::length));
  };
  QString out = way(-dive.sinks, tr("Front rises %1"), tr("Front dives %1")) + ", " +
                way(dive.rises, tr("rear rises %1"), tr("rear sinks %1")) + ".";
  const auto& by = dive.by_joints;
  const auto share = [&](double of) { return desk_.shown(of, Kind::share, 0); };
  if (by[0] && by[1])
    out += " " + tr("Joints take %1 in front, %2 at the rear.").arg(share(*by[0]), share(*by[1]));
  else if (by[0])
    out += " " + tr("Joints take %1 in front; the rear's were not measured.").arg(share(*by[0]));
  else if (by[1])
    out += " " + tr("Joints take %1 at the rear; the front's were not measured.").arg(share(*by[1]));
  return out;
}

void LeanView::refresh() {
  const auto& roll = roll_of(desk_);
  dive_->setText(roll && roll->dive ? dive_words(*roll->dive) : QString());
  for (const End end : build::both_ends) {
    sides_[at(end)]->setCurrentIndex(static_cast<int>(desk_.build().variant().fit[at(end)].sides));
    sides_[at(end)]->setFont(desk_.look().font(TextSize::small));
  }
  drawing_->setAccessibleName(summary());
  drawing_->update();
}

} // namespace mavrel::app
