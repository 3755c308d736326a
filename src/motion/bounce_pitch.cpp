#include "motion/bounce_pitch.h"

#include <boost/numeric/odeint/stepper/runge_kutta4.hpp>

#include <cmath>
#include <numbers>

namespace mavrel::motion {

namespace {

constexpr double bounce_step = 0.004; // s; the quickest body frequency takes 50 of these

struct Road {
  double height, rate; // m, m/s
};

Road road_under(const Bump& bump, double speed, double along) {
  if (along <= 0 || along >= bump.length) return {0, 0};
  const double turn = 2 * std::numbers::pi / bump.length;
  return {bump.height / 2 * (1 - std::cos(turn * along)), bump.height / 2 * turn * speed * std::sin(turn * along)};
}

} // namespace

PitchRun run_over_bump(const TwoAxleBody& body, const Bump& bump, double speed, double duration) {
  using State = std::array<double, 4>; // bounce, its rate, pitch, its rate
  const auto motion = [&](const State& x, State& dx, double t) {
    const Road at[2] = {road_under(bump, speed, speed * t), road_under(bump, speed, speed * t - body.wheelbase())};
    const double arm[2] = {body.front_arm, -body.rear_arm};
    double force = 0, moment = 0;
    for (int i = 0; i < 2; ++i) {
      const auto k = static_cast<std::size_t>(i);
      const double f =
          body.rate[k] * (at[i].height - x[0] - arm[i] * x[2]) + body.damping[k] * (at[i].rate - x[1] - arm[i] * x[3]);
      force += f;
      moment += arm[i] * f;
    }
    dx = {x[1], force / body.mass, x[3], moment / body.pitch_inertia};
  };
  PitchRun out;
  out.step = bounce_step;
  out.rear_done = (body.wheelbase() + bump.length) / speed;
  const auto steps = static_cast<std::size_t>(std::ceil(duration / bounce_step));
  out.bounce.reserve(steps + 1);
  out.pitch.reserve(steps + 1);
  boost::numeric::odeint::runge_kutta4<State> stepper;
  State x{};
  double sum = 0;
  std::size_t counted = 0;
  for (std::size_t i = 0; i <= steps; ++i) {
    const double t = static_cast<double>(i) * bounce_step;
    out.bounce.push_back(x[0]);
    out.pitch.push_back(x[2]);
    if (t > out.rear_done) sum += x[2] * x[2], ++counted;
    stepper.do_step(motion, x, t, bounce_step);
  }
  if (counted > 0) out.unrest = std::sqrt(sum / static_cast<double>(counted));
  return out;
}

} // namespace mavrel::motion
