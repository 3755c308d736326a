#include "app/stages/clearance/wheel_panel.h"

#include "app/desk/desk.h"
#include "app/kit/drawing.h"
#include "app/kit/field.h"
#include "app/kit/height_scale.h"
#include "app/kit/plain.h"
#include "app/stages/clearance/edits.h"
#include "app/stages/clearance/names.h"
#include "app/theme/text_line.h"
#include "assess/interference/recheck.h"
#include "build/names.h"

#include <QHeaderView>
#include <QLabel>
#include <QPainter>
#include <QPushButton>
#include <QTableWidget>
#include <QVBoxLayout>

namespace mavrel::app {

/// Both wheels' half sections over each other on the hub face, and what they are across.
class WheelDrawing : public QWidget {
public:
  WheelDrawing(Desk& desk, QWidget* parent) : QWidget(parent), desk_(desk) {
    setMinimumHeight(desk_.look().px(112));
    setAttribute(Qt::WA_OpaquePaintEvent);
  }

protected:
  void paintEvent(QPaintEvent*) override {
    const Look& look = desk_.look();
    const Tokens& t = look.tokens();
    QPainter painter(this);
    paint_backdrop(painter, rect(), look);
    painter.setRenderHint(QPainter::Antialiasing);
    const build::EndSurvey& survey = desk_.build().end(desk_.end());
    const build::EndFit& fit = desk_.build().variant().fit[build::at(desk_.end())];
    struct Drawn {
      std::optional<space::WheelSolid> solid;
      QColor colour;
      Qt::PenStyle style;
    };
    std::vector<Drawn> wheels;
    const auto solid = [&](const std::string& code, const std::optional<double>& width) {
      const auto wheel = motion::parse_wheel(code);
      return wheel ? std::optional(motion::wheel_solid(*wheel, width, 0)) : std::nullopt;
    };
    wheels.push_back(
        {solid(survey.wheel, survey.tyre_width), t.second, fit.wheel.empty() ? Qt::SolidLine : Qt::DashLine});
    if (!fit.wheel.empty()) wheels.push_back({solid(fit.wheel, fit.tyre_width), t.end(desk_.end()), Qt::SolidLine});
    double radius = 0, inner = 0, outer = 0;
    for (const Drawn& w : wheels)
      if (w.solid) {
        radius = std::max(radius, w.solid->radius);
        inner = std::max(inner, w.solid->widest / 2 + w.solid->offset);
        outer = std::max(outer, w.solid->widest / 2 - w.solid->offset);
      }
    painter.setFont(look.font(TextSize::small));
    if (radius == 0) {
      painter.setPen(t.second);
      draw_line(painter, rect(), Qt::AlignCenter, QObject::tr("no tyre and wheel entered"));
      return;
    }
    // Section at the left, from above at the right, on one scale; what is the same in all wheels is cut off.
    const double margin = look.px(10), foot = look.px(18);
    double bore = radius;
    for (const Drawn& drawn : wheels)
      if (drawn.solid) bore = std::min(bore, drawn.solid->bore);
    const double tall = radius - bore + 0.035; // m that is shown, from the tread down
    const double h = height() - margin - foot;
    const double scale = std::min(h / tall, (width() - 4 * margin - look.px(110)) / (2 * (inner + outer)));
    const double top = margin, hub_x = 2 * margin + inner * scale;
    const double above_x = hub_x + (outer + inner) * scale + 3 * margin;
    const QRectF area(1, margin - 2, width() - 2, h + 2);
    painter.save();
    painter.setClipRect(area);
    painter.setPen(QPen(t.rule, 1, Qt::DashDotLine));
    for (const double x : {hub_x, above_x})
      painter.drawLine(QPointF(x, area.top()), QPointF(x, area.bottom()));
    for (const Drawn& drawn : wheels) {
      if (!drawn.solid) continue;
      QPolygonF section;
      for (const space::SectionPoint& p : space::section_of(*drawn.solid))
        section << QPointF(hub_x + p.outboard * scale, top + (radius - p.radius) * scale);
      painter.setPen(QPen(drawn.colour, 1.6, drawn.style));
      painter.setBrush(Qt::NoBrush);
      painter.drawPolygon(section);
      const space::WheelSolid& w = *drawn.solid;
      painter.drawRoundedRect(QRectF(above_x - (w.widest / 2 + w.offset) * scale, top + (radius - w.radius) * scale,
                                     w.widest * scale, 2 * w.radius * scale),
                              w.shoulder * scale, w.shoulder * scale);
    }
    painter.restore();
    painter.setPen(t.second);
    draw_line(painter,
              QRectF(hub_x - inner * scale, height() - foot + 2, (inner + outer) * scale + 2 * margin, look.px(14)),
              Qt::AlignLeft | Qt::AlignVCenter, QObject::tr("section at the top"));
    draw_line(painter,
              QRectF(above_x - inner * scale, height() - foot + 2, (inner + outer) * scale + margin, look.px(14)),
              Qt::AlignLeft | Qt::AlignVCenter, QObject::tr("from above, its front"));
    if (wheels.size() < 2) return;
    const double x = above_x + outer * scale + look.px(14);
    QRectF line(x, margin, width() - x - 4, look.px(15));
    for (const auto& [name, drawn] :
         {std::pair{QObject::tr("as surveyed"), wheels[0]}, std::pair{QObject::tr("this design"), wheels[1]}}) {
      painter.setPen(QPen(drawn.colour, 1.6, drawn.style));
      painter.drawLine(QPointF(x, line.center().y()), QPointF(x + look.px(18), line.center().y()));
      painter.setPen(t.ink);
      draw_line(painter, line.adjusted(look.px(22), 0, 0, 0), Qt::AlignLeft | Qt::AlignVCenter, name);
      line.translate(0, look.px(16));
    }
  }

private:
  Desk& desk_;
};

WheelPanel::WheelPanel(Desk& desk, QWidget* parent)
    : EndPanel(desk, parent), drawing_(new WheelDrawing(desk, this)), change_(new PlainLabel(this)),
      about_(new PlainLabel(this)), checks_(new QTableWidget(this)) {
  const int u = desk_.look().unit();
  auto* layout = new QVBoxLayout(this);
  layout->setContentsMargins(0, 0, 0, 0);
  layout->setSpacing(u / 2);
  auto* row = new QHBoxLayout;
  row->setSpacing(u);
  row->addWidget(field("%.wheel", tr("wheel as surveyed")), 5);
  row->addWidget(field("%.tyre_width_m", tr("its tyre across")), 3);
  row->addWidget(field("@.%.wheel", tr("this design's wheel")), 5);
  row->addWidget(field("@.%.tyre_width_m", tr("its tyre across")), 3);
  layout->addLayout(row);
  auto* more = new QHBoxLayout;
  more->setSpacing(u);
  more->addWidget(field("%.arch.lip_outward_m", tr("arch lip past hub face")), 4);
  more->addWidget(field("@.%.lip_rolled_m", tr("lip rolled out by")), 4);
  more->addWidget(field("@.brief.rooms.tyre_growth_m", tr("tyre grows by")), 4);
  more->addWidget(field("%.points.lock_rad", tr("steering lock")), 4);
  layout->addLayout(more);
  layout->addWidget(drawing_, 3);
  change_->setWordWrap(true);
  layout->addWidget(change_);
  checks_->setObjectName("recheck_list");
  checks_->setAccessibleName(tr("Clearances looked at on the car"));
  checks_->setColumnCount(4);
  checks_->setShowGrid(false);
  checks_->verticalHeader()->hide();
  checks_->setEditTriggers(QAbstractItemView::NoEditTriggers);
  checks_->setSelectionBehavior(QAbstractItemView::SelectRows);
  checks_->setSelectionMode(QAbstractItemView::SingleSelection);
  checks_->setHorizontalScrollBarPolicy(Qt::ScrollBarAlwaysOff);
  checks_->horizontalHeader()->setSectionResizeMode(QHeaderView::ResizeToContents);
  checks_->horizontalHeader()->setSectionResizeMode(0, QHeaderView::Stretch);
  checks_->horizontalHeader()->setHighlightSections(false);
  checks_->setMinimumHeight(desk_.look().px(60));
  layout->addWidget(checks_, 4);
  about_->setProperty("quiet", true);
  about_->setWordWrap(true);
  layout->addWidget(about_);
  connect(checks_, &QTableWidget::itemChanged, this, [this](QTableWidgetItem* item) {
    if (filling_ || item->column() != 0) return;
    const auto rows =
        assess::rechecks(desk_.answered(desk_.end()), desk_.build().variant().fit[build::at(desk_.end())].checks);
    const auto r = static_cast<std::size_t>(item->row());
    if (r >= rows.size()) return;
    const assess::Recheck now = rows[r];
    // The table is filled anew by the edit: not while it still tells of this one.
    QMetaObject::invokeMethod(
        this,
        [this, now] {
          tick_check(desk_, desk_.end(), QString::fromStdString(now.what), QString::fromStdString(now.digest),
                     now.figure.value_or(0));
        },
        Qt::QueuedConnection);
  });
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled})
    connect(&desk_, signal, this, &WheelPanel::refresh);
  refresh();
}

void WheelPanel::refresh() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  const auto& answered = desk_.answered(desk_.end());
  const auto signed_length = [&](double v) {
    return (v > 0 ? QString("+") : v < 0 ? QString("−") : QString()) + desk_.shown(std::abs(v), Kind::length, 1);
  };
  if (const auto news = assess::wheel_news(answered))
    change_->setText(tr("Against the surveyed wheel: inner face %1 inboard, outer face %2 outboard, radius %3, the "
                        "speed shown errs by %4 %.")
                         .arg(signed_length(news->change.inner_face), signed_length(news->change.outer_face),
                              signed_length(news->change.radius),
                              QString("%1%2")
                                  .arg(news->change.speedometer_percent > 0 ? "+" : "")
                                  .arg(news->change.speedometer_percent, 0, 'f', 1)));
  else
    change_->setText(tr("The design keeps the surveyed wheel. Type another one to see what gets nearer to what."));
  about_->setFont(look.font(TextSize::small));
  const auto rows = assess::rechecks(answered, desk_.build().variant().fit[build::at(desk_.end())].checks);
  std::size_t stale = 0;
  for (const auto& row : rows)
    stale += row.state == assess::RecheckState::stale;
  about_->setText(rows.empty() ? tr("Nothing near the wheel has been measured yet.")
                  : stale > 0
                      ? tr("%n are to be looked at again: what they were worked out from has changed.", nullptr,
                           static_cast<int>(stale))
                      : tr("Tick what has been looked at on the car; a tick goes stale when its grounds change."));
  filling_ = true;
  checks_->setFont(look.font());
  checks_->horizontalHeader()->setFont(look.font(TextSize::small));
  checks_->verticalHeader()->setMinimumSectionSize(look.px(20));
  checks_->verticalHeader()->setDefaultSectionSize(look.px(21));
  checks_->setHorizontalHeaderLabels({tr("looked at on the car"), tr("surveyed wheel"), tr("least"), tr("at height")});
  checks_->horizontalHeaderItem(0)->setTextAlignment(Qt::AlignLeft | Qt::AlignVCenter);
  checks_->setRowCount(static_cast<int>(rows.size()));
  for (int r = 0; r < checks_->rowCount(); ++r) {
    const assess::Recheck& row = rows[static_cast<std::size_t>(r)];
    const auto cell = [&](int c) {
      QTableWidgetItem* item = checks_->item(r, c);
      if (!item) {
        item = new QTableWidgetItem;
        item->setTextAlignment((c == 0 ? Qt::AlignLeft : Qt::AlignRight) | Qt::AlignVCenter);
        checks_->setItem(r, c, item);
      }
      return item;
    };
    QString name = gap_name(desk_, row.mover, row.near);
    if (row.state == assess::RecheckState::stale) name = tr("△ again: %1").arg(name);
    cell(0)->setText(name);
    cell(0)->setFlags(Qt::ItemIsEnabled | Qt::ItemIsSelectable | Qt::ItemIsUserCheckable);
    cell(0)->setCheckState(row.state == assess::RecheckState::good    ? Qt::Checked
                           : row.state == assess::RecheckState::stale ? Qt::PartiallyChecked
                                                                      : Qt::Unchecked);
    cell(0)->setForeground(row.state == assess::RecheckState::stale ? t.caution : t.ink);
    QString least =
        row.figure ? (*row.figure <= 0 ? tr("touches") : desk_.shown(*row.figure, Kind::length, 1)) : tr("·");
    if (row.state == assess::RecheckState::stale && row.was)
      least = tr("%1, was %2").arg(least, desk_.shown(*row.was, Kind::length, 1));
    const auto shown_gap = [&](double gap) { return gap <= 0 ? tr("touches") : desk_.shown(gap, Kind::length, 1); };
    cell(1)->setText(row.before ? shown_gap(*row.before) : tr("·"));
    cell(2)->setText(least);
    // What gets nearer is marked, not by colour alone.
    const bool nearer = row.before && row.figure && *row.figure < *row.before - 5e-4;
    if (nearer) cell(2)->setText("▾ " + least);
    cell(2)->setForeground(nearer ? t.caution : t.ink);
    cell(3)->setText(row.figure ? desk_.shown(row.height, Kind::length) : tr("·"));
  }
  filling_ = false;
  drawing_->update();
}

bool WheelPanel::go_to(const QString& path) {
  if (path.endsWith(".checks")) {
    checks_->setFocus(Qt::OtherFocusReason);
    return true;
  }
  return EndPanel::go_to(path);
}

} // namespace mavrel::app
