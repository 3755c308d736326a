// How the wheels are steered in the drawings of Clearance: a way of looking, not a part of the build.
#pragma once

#include <QObject>

namespace mavrel::app {

class Steer : public QObject {
  Q_OBJECT
public:
  using QObject::QObject;
  [[nodiscard]] double angle() const { return angle_; } // rad, left positive
  void set(double angle);

signals:
  void turned();

private:
  double angle_ = 0;
};

} // namespace mavrel::app
