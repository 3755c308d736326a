#include "curve/polynomial.h"

namespace mavrel::curve {

ValueSlope Polynomial::read(double x) const {
  const double d = x - x0;
  ValueSlope out;
  for (std::size_t i = c.size(); i-- > 0;) {
    out.slope = out.slope * d + out.value;
    out.value = out.value * d + c[i];
  }
  return out;
}

double Polynomial::curvature(double x) const {
  const double d = x - x0;
  double out = 0;
  for (std::size_t i = c.size(); i-- > 2;)
    out = out * d + static_cast<double>(i * (i - 1)) * c[i];
  return out;
}

} // namespace mavrel::curve
