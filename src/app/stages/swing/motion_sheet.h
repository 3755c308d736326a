// How the end moves at every height: tracks side by side on the shared height scale. The motion ratio with its band,
// the readings of a cycle sheet as dots on their curve, the bag's tilt and offset against what it bears, camber, toe,
// the damper each way, what else runs out, and the gaps somebody followed. At the pose each says what the next
// centimetre down costs.
#pragma once

#include "app/kit/paged_plot.h"
#include "assess/assessment.h"

#include <functional>

namespace mavrel::app {

class MotionSheet : public PagedPlot {
  Q_OBJECT
public:
  explicit MotionSheet(Desk& desk, QWidget* parent = nullptr);
  [[nodiscard]] QString summary() const;
  /// Names of the columns as they stand, from the left.
  [[nodiscard]] QStringList names() const;

protected:
  void paint_ground(QPainter& painter) const override;
  void paint_figures(QPainter& painter, double y) const override;
  [[nodiscard]] QString described() const override;

private:
  struct Dot {
    double H = 0, value = 0;
    bool doubtful = false;
  };
  struct Strip : Column {
    QString name;
    std::function<std::optional<double>(double)> at;    // of H
    std::function<std::optional<double>(double)> doubt; // either way; empty: none known
    std::function<std::optional<double>(double)> other; // the same by the joints, where a tape goes before them
    std::vector<Dot> dots;
    std::optional<double> most; // what the bag bears
    double from = 0, to = 0;    // m, H it is known over
  };
  /// All that is known of the end.
  [[nodiscard]] std::vector<Strip> all_strips() const;
  /// Those of the page that is shown, in their places.
  [[nodiscard]] std::vector<Strip> strips() const;
  [[nodiscard]] std::size_t count() const override { return all_strips().size(); }
  void paint_strip(QPainter& painter, const Strip& strip) const;
};

} // namespace mavrel::app
