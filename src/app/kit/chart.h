// Charts that are not over height: frequency, time, a scatter. The charting library dressed in the program's look.
#pragma once

#include <qcustomplot.h>

namespace mavrel::app {

struct Look;
class Desk;

class Chart : public QCustomPlot {
  Q_OBJECT
public:
  explicit Chart(Desk& desk, QWidget* parent = nullptr);

  /// Colours, fonts and margins as the look has them; to be called when it changes.
  void dress();
  /// A line in the active look. @param dashed  tells lines apart without colour
  QCPGraph* add_line(QCPAxis* x, QCPAxis* y, const QColor& colour, double width, bool dashed = false);
  /// An upright line with its name at the top.
  void mark(double x, const QString& name, const QColor& colour);
  /// A shaded stretch of the x axis.
  void shade(double from, double to, const QColor& colour);
  /// The legend in a row under the chart, where it covers nothing. Once is enough.
  void put_legend_below();
  /// Takes away lines, marks and shades.
  void clear_all();
  /// Draws what was added; out of sight it waits until it is shown.
  void redraw();

protected:
  void showEvent(QShowEvent* event) override;
  Desk& desk_;
};

} // namespace mavrel::app
