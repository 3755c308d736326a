#include "control/rolling_car.h"

#include "quantity/kind.h"

#include <Eigen/Dense>

#include <algorithm>
#include <cmath>

namespace mavrel::control {

namespace {

constexpr std::size_t table_steps = 160;
constexpr double pitch_index = 0.95;   // radius of gyration squared over the arms' product, of usual cars
constexpr double roll_gyration = 0.39; // of the track, of usual bodies
constexpr double friction_give = 5e-4; // m that rubber and seals give before they slip
constexpr double stop_end = 3;         // a bump stop's force at its end, over what stands on the corner
constexpr double met = 0.05;           // m/s: slower than this nobody hears the end
constexpr double lowered_over = 3;     // s that a car is let down onto its road for
constexpr double rests_for = 3;        // s that it then gets to come to rest

} // namespace

RollingCar::Table RollingCar::table_of(const air::Leg& leg, double lowest, double highest) {
  Table out;
  out.from = lowest;
  out.per_metre = table_steps / (highest - lowest);
  for (std::size_t i = 0; i <= table_steps; ++i) {
    const double H = lowest + (highest - lowest) * static_cast<double>(i) / table_steps;
    const auto place = leg.travel->place(std::clamp(H, leg.travel->front(), leg.travel->back()));
    const double bag = leg.travel->read(place, 0).value, MR = leg.travel->read(place, 2).value;
    const air::BagSection section = leg.curve.section(std::clamp(bag, leg.curve.lowest(), leg.curve.highest()));
    if (out.pressures.empty()) out.pressures = *section.pressures;
    out.rows.push_back(section.volume + leg.added_volume);
    out.rows.push_back(leg.travel->read(place, 1).value);
    for (std::size_t c = 0; c < out.pressures.size(); ++c)
      out.rows.push_back(section.area[c] * MR);
  }
  out.width = 2 + out.pressures.size();
  return out;
}

RollingCar::Row RollingCar::row_at(const Table& t, double H) {
  const double place = std::clamp((H - t.from) * t.per_metre, 0.0, static_cast<double>(table_steps));
  const auto row = std::min<std::size_t>(static_cast<std::size_t>(place), table_steps - 1);
  return {&t.rows[row * t.width], t.width, place - static_cast<double>(row)};
}

/// N at the wheel: of the bag, linear in pressure between the card's columns and beyond them by the end column's area;
/// and of other springs.
double RollingCar::spring_force(const Table& t, const Row& row, double p) {
  const std::size_t columns = t.pressures.size();
  if (p <= t.pressures.front()) return p * row.at(2) + row.at(1);
  if (p >= t.pressures.back()) return p * row.at(1 + columns) + row.at(1);
  std::size_t c = 0;
  while (p > t.pressures[c + 1])
    ++c;
  const double u = (p - t.pressures[c]) / (t.pressures[c + 1] - t.pressures[c]);
  return p * ((1 - u) * row.at(2 + c) + u * row.at(3 + c)) + row.at(1);
}

std::vector<double> RollingCar::first_volumes(const RollingCarParts& parts) {
  std::vector<double> out;
  for (const air::Volume& v : parts.network.volumes)
    out.push_back(v.size);
  for (const air::Leg& leg : parts.network.bodies.front().legs) {
    const double bag = leg.travel->read(leg.height, 0).value;
    out[leg.volume] =
        leg.curve.section(std::clamp(bag, leg.curve.lowest(), leg.curve.highest())).volume + leg.added_volume;
  }
  return out;
}

RollingCar::RollingCar(RollingCarParts parts) : parts_(std::move(parts)), air_(parts_.network, first_volumes(parts_)) {
  const air::Body& body = parts_.network.bodies.front();
  double moment_x = 0, moment_y = 0;
  for (std::size_t i = 0; i < 4; ++i) {
    const RollingCorner& c = parts_.corners[i];
    bag_[i] = body.legs[i].volume;
    tables_[i] = table_of(body.legs[i], c.lowest, c.highest);
    lever_[i] = {1, c.forward, c.left};
    own_mass_ += body.loads[i] / standard_gravity;
    moment_x += body.loads[i] / standard_gravity * c.forward;
    moment_y += body.loads[i] / standard_gravity * c.left;
  }
  own_forward_ = moment_x, own_left_ = moment_y;
  const double x = moment_x / own_mass_, y = moment_y / own_mass_;
  const double front_arm = parts_.corners[0].forward - x, rear_arm = x - parts_.corners[2].forward;
  const double track = parts_.corners[0].left - parts_.corners[1].left;
  own_pitch_ = own_mass_ * (pitch_index * front_arm * rear_arm + x * x);
  own_roll_ = own_mass_ * (roll_gyration * roll_gyration * track * track + y * y);
  own_both_ = own_mass_ * x * y;
  // As it stands: level from side to side, each end at its height, each tyre carrying what the spring and wheel push.
  const double front = (body.legs[0].height + body.legs[1].height) / 2;
  const double rear = (body.legs[2].height + body.legs[3].height) / 2;
  q_[1] = (front - rear) / (parts_.corners[0].forward - parts_.corners[2].forward);
  q_[0] = front - q_[1] * parts_.corners[0].forward;
  read_heights();
  for (std::size_t i = 0; i < 4; ++i)
    tyre_at_rest_[i] = tyre_[i] = body.loads[i] + parts_.corners[i].unsprung_mass * standard_gravity;
  weigh();
}

double RollingCar::gauge_pressure(std::size_t corner) const {
  return air_.gauge_pressure(bag_[corner]);
}

void RollingCar::carry(double mass, double behind, double left) {
  if (mass == more_ && -behind == more_forward_ && left == more_left_) return;
  more_ = mass, more_forward_ = -behind, more_left_ = left;
  weigh();
}

void RollingCar::weigh() {
  mass_ = own_mass_ + more_;
  const double sx = own_forward_ + more_forward_, sy = own_left_ + more_left_;
  weight_ = {mass_ * standard_gravity, sx * standard_gravity, sy * standard_gravity};
  const double x = more_ != 0 ? more_forward_ / more_ : 0, y = more_ != 0 ? more_left_ / more_ : 0;
  Eigen::Matrix3d M;
  M << mass_, sx, sy, sx, own_pitch_ + more_ * x * x, own_both_ + more_ * x * y, sy, own_both_ + more_ * x * y,
      own_roll_ + more_ * y * y;
  const Eigen::Matrix3d inverse = M.inverse();
  for (int i = 0; i < 3; ++i)
    for (int j = 0; j < 3; ++j)
      inverse_[static_cast<std::size_t>(i)][static_cast<std::size_t>(j)] = inverse(i, j);
}

void RollingCar::read_heights() {
  for (std::size_t i = 0; i < 4; ++i)
    height_[i] = q_[0] + lever_[i][1] * q_[1] + lever_[i][2] * q_[2] - zu_[i];
  for (std::size_t end = 0; end < 2; ++end) {
    const double r = parts_.spring_share[end], l = height_[2 * end], t = height_[2 * end + 1];
    at_spring_[2 * end] = (l + t) / 2 + r * (l - t) / 2;
    at_spring_[2 * end + 1] = (l + t) / 2 - r * (l - t) / 2;
  }
}

/// N that everything but the bag holds the body up with at a corner's spring: damper, friction, bump stop.
double RollingCar::suspension(std::size_t i, double H, double dH, double dt) {
  const RollingCorner& c = parts_.corners[i];
  const double speed = std::abs(dH);
  DamperForce low{};
  const DamperForce* high = &c.damper.back();
  for (const DamperForce& point : c.damper) {
    high = &point;
    if (speed <= point.speed) break;
    if (&point != &c.damper.back()) low = point;
  }
  const double t = (speed - low.speed) / (high->speed - low.speed); // beyond the last point its slope goes on
  double out = dH > 0 ? -std::lerp(low.rebound, high->rebound, t) : std::lerp(low.bump, high->bump, t);
  stuck_[i] = std::clamp(stuck_[i] + dH * dt, -friction_give, friction_give);
  out -= c.friction * stuck_[i] / friction_give;
  if (const double in = c.stop_meets - H; in > 0) {
    const double give = c.stop_meets - c.lowest, end = stop_end * tyre_at_rest_[i], u = in / give;
    out += end * (0.3 * u + 0.7 * u * u * u);
  }
  return out;
}

void RollingCar::step(double dt, const std::array<double, 4>& road, const Pace& pace) {
  std::array<double, 4> dH{}, force{};
  for (std::size_t i = 0; i < 4; ++i)
    dH[i] = dq_[0] + lever_[i][1] * dq_[1] + lever_[i][2] * dq_[2] - dzu_[i];
  for (std::size_t end = 0; end < 2; ++end) {
    const std::size_t l = 2 * end, t = l + 1;
    const double r = parts_.spring_share[end];
    const double mean = (dH[l] + dH[t]) / 2, apart = r * (dH[l] - dH[t]) / 2;
    double up[2];
    for (const std::size_t i : {l, t}) {
      const Row row = row_at(tables_[i], at_spring_[i]);
      air_.squeeze(bag_[i], row.at(0));
      up[i - l] = spring_force(tables_[i], row, air_.gauge_pressure(bag_[i])) +
                  suspension(i, at_spring_[i], i == l ? mean + apart : mean - apart, dt);
    }
    const double track = parts_.corners[l].left - parts_.corners[t].left;
    const double bar = parts_.bar_rate[end] * (height_[l] - height_[t]) / (track * track);
    force[l] = (up[0] + up[1]) / 2 + r * (up[0] - up[1]) / 2 - bar;
    force[t] = (up[0] + up[1]) / 2 - r * (up[0] - up[1]) / 2 + bar;
  }
  std::array<double, 3> push = {-weight_[0], -weight_[1] + mass_ * pace.forward * parts_.gravity_height,
                                -weight_[2] + mass_ * pace.left * parts_.above_roll_axis};
  for (std::size_t i = 0; i < 4; ++i) {
    const RollingCorner& c = parts_.corners[i];
    tyre_[i] = std::fmax(0, tyre_at_rest_[i] + c.tyre_rate * (road[i] - zu_[i]));
    dzu_[i] += dt * ((tyre_[i] - force[i]) / c.unsprung_mass - standard_gravity);
    for (std::size_t k = 0; k < 3; ++k)
      push[k] += lever_[i][k] * force[i];
  }
  for (std::size_t k = 0; k < 3; ++k)
    dq_[k] += dt * (inverse_[k][0] * push[0] + inverse_[k][1] * push[1] + inverse_[k][2] * push[2]);
  for (std::size_t k = 0; k < 3; ++k)
    q_[k] += dt * dq_[k];
  for (std::size_t i = 0; i < 4; ++i)
    zu_[i] += dt * dzu_[i];
  read_heights();
  hold_at_ends();
  air_.step(dt);
}

void RollingCar::settle(const std::array<double, 4>& road) {
  const auto eased = [](double u) { return u * u * (3 - 2 * u); };
  std::array<double, 4> now{};
  for (double t = 0; t < lowered_over + rests_for; t += longest_step) {
    for (std::size_t i = 0; i < 4; ++i)
      now[i] = road[i] * eased(std::min(1.0, t / lowered_over));
    step(longest_step, now, {});
  }
  bottomed_ = topped_ = 0;
}

/// Metal on metal: what is beyond its end goes back to it, and wheel and body go on together from there.
void RollingCar::hold_at_ends() {
  for (int pass = 0; pass < 2; ++pass) {
    bool held = false;
    for (std::size_t i = 0; i < 4; ++i) {
      const RollingCorner& c = parts_.corners[i];
      const double beyond = at_spring_[i] < c.lowest    ? at_spring_[i] - c.lowest
                            : at_spring_[i] > c.highest ? at_spring_[i] - c.highest
                                                        : 0;
      if (beyond == 0) {
        if (pass == 0 && at_spring_[i] > c.lowest + 1e-3 && at_spring_[i] < c.highest - 1e-3) at_end_[i] = 0;
        continue;
      }
      held = true;
      // Of a solid axle one wheel moves its own spring's place by this much.
      const double own = (1 + parts_.spring_share[i / 2]) / 2;
      zu_[i] += beyond / own;
      const double body = dq_[0] + lever_[i][1] * dq_[1] + lever_[i][2] * dq_[2];
      const double apart = body - dzu_[i]; // dH
      if (apart * beyond > 0) {
        if (!at_end_[i] && std::abs(apart) > met) ++(beyond < 0 ? bottomed_ : topped_);
        at_end_[i] = 1;
        // A blow that leaves no difference of speed: the masses share it.
        double give = 1 / c.unsprung_mass;
        std::array<double, 3> turn{};
        for (std::size_t k = 0; k < 3; ++k) {
          turn[k] = inverse_[k][0] + inverse_[k][1] * lever_[i][1] + inverse_[k][2] * lever_[i][2];
          give += turn[k] * lever_[i][k];
        }
        const double blow = apart / give;
        dzu_[i] += blow / c.unsprung_mass;
        for (std::size_t k = 0; k < 3; ++k)
          dq_[k] -= blow * turn[k];
      }
    }
    if (!held) return;
    read_heights();
  }
}

} // namespace mavrel::control
