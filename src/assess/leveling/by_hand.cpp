#include "assess/leveling/by_hand.h"

namespace mavrel::assess {

namespace {
constexpr double dt = control::RollingCar::longest_step;
} // namespace

ByHand::ByHand(const LearnedCar& car, double longest) : circuits_(car.circuits), car_(car.parts), longest_(longest) {
  wait(settles);
}

void ByHand::wait(double seconds) {
  for (double t = 0; t < seconds; t += dt)
    car_.step(dt, {}, {});
}

double ByHand::height(std::size_t circuit) const {
  double out = 0;
  for (const std::size_t c : circuits_[circuit].corners)
    out += car_.height(c) / static_cast<double>(circuits_[circuit].corners.size());
  return out;
}

std::optional<double> ByHand::move(const std::vector<Move>& moves) {
  struct Open {
    Move move;
    std::size_t line;
    bool up, open = true;
  };
  std::vector<Open> all;
  for (const Move& m : moves) {
    const bool up = m.H > height(m.circuit);
    all.push_back({m, up ? circuits_[m.circuit].fill : circuits_[m.circuit].vent, up});
    car_.air().open(all.back().line, true);
  }
  for (double t = 0; t < longest_; t += dt) {
    bool any = false;
    for (Open& o : all) {
      if (!o.open) continue;
      const double H = height(o.move.circuit);
      if (o.up ? H >= o.move.H : H <= o.move.H) {
        car_.air().open(o.line, false);
        o.open = false;
      } else
        any = true;
    }
    if (!any) return t;
    car_.step(dt, {}, {});
  }
  for (const Open& o : all)
    car_.air().open(o.line, false);
  return std::nullopt;
}

} // namespace mavrel::assess
