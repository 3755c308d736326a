// Wheel, bag, damper and arms with everything near them, drawn to scale at the pose: the section in which the least gap
// lies, with the gap dimensioned in it, or the end from the front, the side or above, where obstacles are dragged to
// their places.
#pragma once

#include "assess/interference/near_at.h"

#include <QWidget>

#include <optional>

namespace mavrel::app {

class Desk;
class Steer;

class SectionView : public QWidget {
  Q_OBJECT
public:
  enum class From { section, front, side, above };
  SectionView(Desk& desk, Steer& steer, QWidget* parent = nullptr);

  void look_from(From from);
  [[nodiscard]] From from() const { return from_; }
  /// The obstacle that is held, by its place in the list; none: none.
  [[nodiscard]] std::optional<std::size_t> chosen() const { return chosen_; }
  void choose(std::optional<std::size_t> obstacle);
  /// Where an obstacle's grip is drawn, in this widget; none while it is not.
  [[nodiscard]] std::optional<QPointF> place_of(std::size_t obstacle) const;
  /// The gap that is dimensioned, in words; empty: none.
  [[nodiscard]] QString told() const;

signals:
  void chose(std::optional<std::size_t> obstacle);

protected:
  void paintEvent(QPaintEvent* event) override;
  void mousePressEvent(QMouseEvent* event) override;
  void mouseMoveEvent(QMouseEvent* event) override;
  void mouseReleaseEvent(QMouseEvent* event) override;
  void keyPressEvent(QKeyEvent* event) override;
  bool event(QEvent* event) override;

private:
  /// From places to pixels: two axes of the drawing in the car.
  struct Frame {
    space::Point origin, right, up; // of length 1
    double px_per_m = 100;
    QPointF at0;
    [[nodiscard]] QPointF at(const space::Point& p) const {
      const space::Point d = p - origin;
      return at0 + px_per_m * QPointF(space::dot(d, right), -space::dot(d, up));
    }
  };
  /// What is drawn at the pose.
  struct Scene {
    assess::PosedParts parts;
    std::vector<assess::NearAt> near;
    const assess::NearAt* least = nullptr; // with places; into `near`
    /// Is the section laid through the wheel's axis? Else it lies across the car, where the gap is.
    [[nodiscard]] bool axial() const {
      return !least || least->mover == assess::Mover::tyre || least->near.own == assess::OwnPart::tyre;
    }
  };
  [[nodiscard]] std::optional<Scene> scene() const;
  [[nodiscard]] Frame frame(const Scene& scene) const;
  [[nodiscard]] space::Point grip_of(std::size_t obstacle, const Scene& scene) const;
  void move_chosen(double right, double up, const QString& gesture);
  void step_choice(int by);

  void paint_wheel(QPainter& painter, const Scene& s, const Frame& f) const;
  void paint_parts(QPainter& painter, const Scene& s, const Frame& f) const;
  void paint_solid(QPainter& painter, const space::Solid& solid, const Frame& f, bool held, bool tight) const;
  void paint_cut(QPainter& painter, const space::Solid& solid, const Frame& f, bool tight) const;
  void paint_gap(QPainter& painter, const Scene& s, const Frame& f) const;
  void paint_words(QPainter& painter, const Scene& s) const;

  Desk& desk_;
  Steer& steer_;
  From from_ = From::section;
  std::optional<std::size_t> chosen_;
  bool dragging_ = false;
  QPointF dragged_from_;
  space::Point began_;
  int drags_ = 0;
};

} // namespace mavrel::app
