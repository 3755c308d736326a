#include "app/kit/chart.h"

#include "app/desk/desk.h"

namespace mavrel::app {

Chart::Chart(Desk& desk, QWidget* parent) : QCustomPlot(parent), desk_(desk) {
  setInteractions({});
  setMinimumSize(desk_.look().px(160), desk_.look().px(110));
  dress();
  connect(&desk_, &Desk::restyled, this, &Chart::dress);
}

void Chart::dress() {
  const Look& look = desk_.look();
  const Tokens& t = look.tokens();
  setBackground(t.ground);
  axisRect()->setBackground(t.panel);
  for (QCPAxis* axis : {xAxis, yAxis, xAxis2, yAxis2}) {
    axis->setBasePen(QPen(t.rule, 1));
    axis->setTickPen(QPen(t.rule, 1));
    axis->setSubTickPen(QPen(t.rule, 1));
    axis->setTickLabelColor(t.second);
    axis->setLabelColor(t.ink);
    axis->setTickLabelFont(look.font(TextSize::small));
    axis->setLabelFont(look.font(TextSize::small));
    axis->setTickLengthIn(0);
    axis->setTickLengthOut(look.px(4));
    axis->setSubTickLengthIn(0);
    axis->setSubTickLengthOut(look.px(2));
    axis->setLabelPadding(look.px(2));
    axis->grid()->setPen(QPen(t.rule, 1));
    axis->grid()->setZeroLinePen(QPen(t.rule, 1));
    axis->grid()->setSubGridVisible(false);
  }
  legend->setBrush(t.ground);
  legend->setBorderPen(Qt::NoPen);
  legend->setTextColor(t.ink);
  legend->setFont(look.font(TextSize::small));
  legend->setIconSize(look.px(24), look.px(14));
  axisRect()->insetLayout()->setMargins(QMargins(4, 4, 4, 4));
}

QCPGraph* Chart::add_line(QCPAxis* x, QCPAxis* y, const QColor& colour, double width, bool dashed) {
  QCPGraph* graph = addGraph(x, y);
  QPen pen(colour, width, dashed ? Qt::CustomDashLine : Qt::SolidLine);
  if (dashed) pen.setDashPattern({7, 2.5});
  graph->setPen(pen);
  graph->setAntialiased(true);
  return graph;
}

void Chart::mark(double x, const QString& name, const QColor& colour) {
  auto* line = new QCPItemStraightLine(this);
  line->point1->setTypeX(QCPItemPosition::ptPlotCoords);
  line->point1->setTypeY(QCPItemPosition::ptAxisRectRatio);
  line->point2->setTypeX(QCPItemPosition::ptPlotCoords);
  line->point2->setTypeY(QCPItemPosition::ptAxisRectRatio);
  line->point1->setCoords(x, 0);
  line->point2->setCoords(x, 1);
  line->setPen(QPen(colour, 1));
  auto* text = new QCPItemText(this);
  text->position->setTypeX(QCPItemPosition::ptPlotCoords);
  text->position->setTypeY(QCPItemPosition::ptAxisRectRatio);
  text->position->setCoords(x, 0);
  text->setPositionAlignment(Qt::AlignHCenter | Qt::AlignBottom);
  text->setClipToAxisRect(false);
  text->setText(name);
  text->setFont(desk_.look().font(TextSize::small));
  text->setColor(colour);
}

void Chart::shade(double from, double to, const QColor& colour) {
  auto* box = new QCPItemRect(this);
  for (QCPItemPosition* corner : {box->topLeft, box->bottomRight}) {
    corner->setTypeX(QCPItemPosition::ptPlotCoords);
    corner->setTypeY(QCPItemPosition::ptAxisRectRatio);
  }
  box->topLeft->setCoords(from, 0);
  box->bottomRight->setCoords(to, 1);
  box->setPen(Qt::NoPen);
  box->setBrush(colour);
  box->setLayer("grid");
}

void Chart::put_legend_below() {
  plotLayout()->addElement(1, 0, legend);
  plotLayout()->setRowStretchFactor(1, 0.001);
  legend->setFillOrder(QCPLegend::foColumnsFirst);
  legend->setWrap(3);
  legend->setVisible(true);
  dress();
}

void Chart::clear_all() {
  clearPlottables();
  clearItems();
}

void Chart::redraw() {
  if (isVisible() && !size().isEmpty()) replot(QCustomPlot::rpQueuedReplot);
}

void Chart::showEvent(QShowEvent* event) {
  QCustomPlot::showEvent(event);
  redraw();
}

} // namespace mavrel::app
