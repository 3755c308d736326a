// The car, large, with the tape laid where the reading of the moment is taken.
#pragma once

#include <QLineF>
#include <QRectF>
#include <QString>
#include <QWidget>

namespace mavrel::app {

class Desk;
struct CarShape;
struct CarView;

class TapeDrawing : public QWidget {
  Q_OBJECT
public:
  explicit TapeDrawing(Desk& desk, QWidget* parent = nullptr);
  /// @param path  of the field that is being read: `front.left.height_m`
  void show_place(const QString& path);
  /// Where the tape lies, in this widget; of no length where a scale or a look tells it.
  [[nodiscard]] QLineF tape() const;

protected:
  void paintEvent(QPaintEvent* event) override;

private:
  /// Seen from the side, or under the car at the spring?
  [[nodiscard]] bool at_spring() const;
  [[nodiscard]] CarView view(const CarShape& shape) const;
  [[nodiscard]] QRectF figure_room() const;
  void paint_scale_pad(QPainter& painter, const CarShape& shape, const CarView& view) const;

  Desk& desk_;
  QString path_;
};

} // namespace mavrel::app
