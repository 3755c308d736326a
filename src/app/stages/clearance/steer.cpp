#include "app/stages/clearance/steer.h"

namespace mavrel::app {

void Steer::set(double angle) {
  if (angle == angle_) return;
  angle_ = angle;
  emit turned();
}

} // namespace mavrel::app
