#include "app/stages/bags/questions/volume_view.h"

#include "app/desk/desk.h"
#include "app/kit/chart.h"
#include "app/kit/field.h"
#include "app/kit/plain.h"
#include "build/names.h"
#include "quantity/quantity.h"

#include <QComboBox>
#include <QGridLayout>
#include <QHBoxLayout>
#include <QLabel>
#include <QPushButton>

#include <numbers>

namespace mavrel::app {

namespace {
constexpr const char* keys[] = {"added_volume_m3", "line_bore_m", "line_length_m"};
}

namespace {

/// At the pose.
const assess::SofteningQuestion::Answer& softening_of(const Desk& d) {
  return d.answers().at_once<assess::SofteningQuestion>(assess::SofteningGiven{
      d.answered(d.end()), d.pose(d.end()).value_or(0), d.load_case(), d.build().variant().brief.frequency_high});
}

} // namespace

VolumeView::VolumeView(Desk& desk, QWidget* parent)
    : QWidget(parent), desk_(desk), chart_(new Chart(desk, this)), line_(new QComboBox(this)),
      figures_(new PlainLabel(this)), use_bore_(new QPushButton(this)) {
  setObjectName("volume_view");
  const int u = desk_.look().unit();
  auto* row = new QHBoxLayout(this);
  row->setContentsMargins(0, u / 2, u, 0);
  row->setSpacing(u);
  row->addWidget(chart_, 1);
  auto* side = new QVBoxLayout;
  side->setSpacing(u / 2);
  row->addLayout(side);
  auto* grid = new QGridLayout;
  grid->setSpacing(u / 2);
  side->addLayout(grid);
  const QString captions[] = {tr("added volume"), tr("line's bore"), tr("line's length")};
  for (int i = 0; i < 3; ++i) {
    auto* field = new Field(desk_, QString("@.front.%1").arg(keys[i]), captions[i], this);
    fields_.push_back(field);
    grid->addWidget(field, i / 2, i % 2);
  }
  line_->setAccessibleName(tr("Line to the added volume"));
  for (const auto& name : build::names_of(build::LineState{}))
    line_->addItem(tr("line %1").arg(tr(name.name)), QString(name.key));
  connect(line_, &QComboBox::activated, this, [this] {
    const QString path = QString("@.%1.line").arg(build::key_of(desk_.end()));
    if (const auto wrong = desk_.type(path, line_->currentData().toString())) desk_.refuse(*wrong);
  });
  grid->addWidget(line_, 1, 1, Qt::AlignBottom);
  figures_->setWordWrap(true);
  figures_->setTextFormat(Qt::RichText);
  figures_->setAlignment(Qt::AlignTop | Qt::AlignLeft);
  figures_->setFixedWidth(desk_.look().px(192));
  side->addWidget(figures_, 1);
  use_bore_->setObjectName("use_bore");
  connect(use_bore_, &QPushButton::clicked, this, &VolumeView::use_fitting_bore);
  side->addWidget(use_bore_);
  for (const auto signal : {&Desk::changed, &Desk::looked_at, &Desk::restyled, &Desk::posed})
    connect(&desk_, signal, this, [this] {
      if (isVisible()) refresh();
    });
  refresh();
}

void VolumeView::showEvent(QShowEvent* event) {
  QWidget::showEvent(event);
  refresh();
}

QString VolumeView::summary() const {
  const auto& soft = softening_of(desk_);
  if (!soft) return desk_.words_of(soft.error());
  if (soft->added > 0) return desk_.words_of(soft->reason);
  if (desk_.build().variant().fit[build::at(desk_.end())].added_volume > 0)
    return tr("The line is shut: the bag works alone, as if no volume stood beside it.");
  if (soft->volume_wanted)
    return tr("No volume beside it. %1 on a wide line would bring the body to %2.")
        .arg(desk_.shown(*soft->volume_wanted, Kind::volume, 1),
             desk_.shown(desk_.build().variant().brief.frequency_high, Kind::frequency));
  return soft->bounce ? tr("No volume beside it, and none is needed for the comfort wanted.")
                      : tr("No volume beside it.");
}

void VolumeView::use_fitting_bore() {
  const auto& soft = softening_of(desk_);
  if (!soft || !soft->fitting_bore) return;
  build::Build next = desk_.build();
  next.variant().fit[build::at(desk_.end())].line_bore = *soft->fitting_bore;
  desk_.edit(tr("Use the fitting bore"), std::move(next));
}

void VolumeView::refresh() {
  const Look& look = desk_.look();
  const QString end = build::key_of(desk_.end());
  for (std::size_t i = 0; i < fields_.size(); ++i)
    fields_[i]->bind(QString("@.%1.%2").arg(end, keys[i]));
  figures_->setFixedWidth(look.px(192));
  const auto& fit = desk_.build().variant().fit[build::at(desk_.end())];
  line_->setCurrentIndex(static_cast<int>(fit.line));
  line_->setProperty("path", QString("@.%1.line").arg(end));
  line_->setFont(look.font(TextSize::small));
  figures_->setFont(look.font(TextSize::small));
  const auto& soft = softening_of(desk_);
  use_bore_->setVisible(soft && soft->fitting_bore);
  if (!soft) {
    figures_->clear();
  } else {
    QString rows;
    const auto line = [&](const QString& what, const QString& value) {
      rows += QString("<tr><td>%1&nbsp;&nbsp;</td><td align='right'><b>%2</b></td></tr>").arg(what, value);
    };
    const auto hertz = [&](const std::optional<double>& f) {
      return f ? desk_.shown(*f, Kind::frequency) : tr("none");
    };
    if (soft->beyond != air::Beyond::nothing) line(tr("△ its pressure is"), tr(air::beyond_name(soft->beyond)));
    line(tr("bag's own volume"), desk_.shown(soft->volume, Kind::volume));
    line(tr("body bounces at"), hertz(soft->bounce));
    line(tr("felt, with the tyre"), hertz(soft->ride));
    if (soft->added > 0) {
      line(tr("line wide open"), hertz(soft->bounce_open));
      line(tr("line shut"), hertz(soft->bounce_shut));
      line(tr("line damps"), tr("%1 of critical").arg(desk_.shown(soft->line_damping, Kind::share)));
    }
    line(tr("wheel hops at"), desk_.shown(soft->hop, Kind::frequency, 1));
    const auto air = [&](const std::optional<double>& kg) {
      return kg ? desk_.shown(*kg, Kind::mass, 3) : QString("–");
    };
    line(tr("air a lift, bags"), air(soft->air_bag));
    if (soft->added > 0) line(tr("and volumes"), "+ " + air(soft->air_added));
    figures_->setText("<table cellspacing='0' cellpadding='1'>" + rows + "</table>");
    if (soft->fitting_bore)
      use_bore_->setText(tr("Use a bore of %1").arg(desk_.shown(*soft->fitting_bore, Kind::length, 1)));
    use_bore_->setFont(look.font(TextSize::small));
  }
  draw();
}

void VolumeView::draw() {
  const Tokens& t = desk_.look().tokens();
  chart_->clear_all();
  chart_->xAxis->setScaleType(QCPAxis::stLogarithmic);
  chart_->xAxis->setTicker(QSharedPointer<QCPAxisTickerLog>(new QCPAxisTickerLog));
  chart_->xAxis->setNumberFormat("g");
  chart_->xAxis->setNumberPrecision(3);
  chart_->xAxis->setRange(assess::lowest_frequency, assess::highest_frequency);
  chart_->xAxis->setLabel(tr("frequency, Hz"));
  chart_->yAxis->setLabel(tr("stiffness at the wheel, %1").arg(unit_name(Kind::stiffness, desk_.prefs()).c_str()));
  chart_->yAxis2->setVisible(true);
  chart_->yAxis2->setLabel(tr("loss angle, °"));
  chart_->axisRect()->setAutoMargins(QCP::msLeft | QCP::msRight | QCP::msBottom);
  chart_->axisRect()->setMargins(QMargins(0, desk_.look().px(20), 0, 0));
  const auto& soft = softening_of(desk_);
  if (soft) {
    QVector<double> f, k, loss;
    double most = 0, most_loss = 0;
    for (const auto& point : soft->curve) {
      f << point.frequency;
      k << in_shown_unit(point.stiffness, Kind::stiffness, desk_.prefs());
      loss << point.loss_angle * 180 / std::numbers::pi;
      most = std::max(most, k.back());
      most_loss = std::max(most_loss, loss.back());
    }
    const bool rear = desk_.end() == End::rear;
    chart_->add_line(chart_->xAxis, chart_->yAxis2, t.caution, 1.4, true)->setData(f, loss, true);
    chart_->add_line(chart_->xAxis, chart_->yAxis, t.end(desk_.end()), 2.2, rear)->setData(f, k, true);
    chart_->yAxis->setRange(0, most * 1.12);
    chart_->yAxis2->setRange(0, std::max(10.0, most_loss * 1.12));
    chart_->yAxis2->setTickLabelColor(t.caution);
    chart_->yAxis2->setLabelColor(t.caution);
    chart_->yAxis->setLabelColor(t.end(desk_.end()));
    if (soft->added > 0) {
      QColor change = t.caution;
      change.setAlphaF(0.13F);
      chart_->shade(soft->begins, soft->ends, change);
    }
    if (soft->bounce)
      chart_->mark(*soft->bounce, tr("bounce %1").arg(desk_.shown(*soft->bounce, Kind::frequency)), t.ink);
    chart_->mark(soft->hop, tr("hop %1").arg(desk_.shown(soft->hop, Kind::frequency, 1)), t.ink);
  }
  chart_->setAccessibleName(tr("Stiffness and loss angle over frequency. %1").arg(summary()));
  chart_->redraw();
}

} // namespace mavrel::app
