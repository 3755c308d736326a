#include "control/controller.h"

#include <algorithm>
#include <cmath>

namespace mavrel::control {

namespace {

constexpr double gives_up = 30;     // s that a valve stands open for a height that does not come
constexpr double by_hand_lag = 0.3; // s between a person's eye and hand

} // namespace

void Average::keep(double reading) {
  if (full_ == kept_.size())
    sum_ -= kept_[next_];
  else
    ++full_;
  kept_[next_] = reading;
  sum_ += reading;
  next_ = next_ + 1 == kept_.size() ? 0 : next_ + 1;
  if (next_ != 0) return;
  // Adding and taking away for hours leaves crumbs: once a round the sum is made anew.
  sum_ = 0;
  for (std::size_t i = 0; i < full_; ++i)
    sum_ += kept_[i];
}

Controller::Controller(const Rules& rules, std::vector<CircuitCorners> circuits, const std::array<double, 4>& targets,
                       const std::array<double, 4>& pressures, double gauge_error, std::uint64_t seed)
    : rules_(rules), circuits_(std::move(circuits)), orders_(circuits_.size()), gauge_error_(gauge_error),
      chance_(seed ^ 0x6761756765ULL) {
  if (rules_.method == LevelMethod::by_hand) next_look_ = rules_.look_every * chance_.next();
  const auto readings = [&](double seconds) {
    return static_cast<std::size_t>(std::lround(std::fmax(1, seconds * rules_.samples)));
  };
  const auto one_sensor = [&](bool front) {
    return rules_.sensors == LevelSensors::two ||
           rules_.sensors == (front ? LevelSensors::three_one_front : LevelSensors::three_one_rear);
  };
  for (std::size_t i = 0; i < circuits_.size(); ++i) {
    const bool front = circuits_[i].corners.front() < 2;
    const bool as_one = rules_.by == LevelBy::axle || (!by_pressure() && one_sensor(front));
    Group* group = nullptr;
    if (as_one)
      for (Group& g : groups_)
        if (g.front == front) group = &g;
    if (!group) {
      groups_.push_back({{}, {}, front, 0, Average(readings(rules_.average)), Average(readings(rules_.watch)), 0, 0});
      group = &groups_.back();
    }
    group->circuits.push_back(i);
    group->corners.insert(group->corners.end(), circuits_[i].corners.begin(), circuits_[i].corners.end());
  }
  for (Group& g : groups_) {
    for (const std::size_t c : g.corners)
      g.target += (by_pressure() ? pressures : targets)[c] / static_cast<double>(g.corners.size());
    for (const std::size_t i : g.circuits) {
      const Gain& gain = circuits_[i].gain;
      const double share = 1.0 / static_cast<double>(g.circuits.size());
      g.up += share * (by_pressure() ? rules_.pressure_gain.value_or(gain.pressure_up) : rules_.gain.value_or(gain.up));
      g.down +=
          share * (by_pressure() ? rules_.pressure_gain.value_or(gain.pressure_down) : rules_.gain.value_or(gain.down));
    }
  }
}

double Controller::reading(const Group& group, const ControlReadings& now) const {
  double out = 0;
  for (const std::size_t c : group.corners)
    out += (by_pressure() ? now.pressure : now.height)[c];
  return out / static_cast<double>(group.corners.size());
}

bool Controller::holds(const ControlReadings& now) const {
  return (rules_.braking == HoldStill::yes && std::abs(now.forward) > rules_.hold_from) ||
         (rules_.cornering == HoldStill::yes && std::abs(now.left) > rules_.hold_from) ||
         (rules_.doors == HoldStill::yes && now.doors);
}

void Controller::read(double t, const ControlReadings& now) {
  held_ = rules_.method != LevelMethod::by_hand && holds(now);
  if (held_) { // what it would read now is not how it stands
    for (Order& o : orders_)
      if (o.until > t) o.until = t, quiet_until_ = std::fmin(quiet_until_, t + rules_.wait);
    return;
  }
  for (Group& g : groups_) {
    const double value = reading(g, now);
    g.average.keep(value);
    g.watch.keep(value);
  }
  watch_open(t);
  if (t < quiet_until_) return;
  if (rules_.method == LevelMethod::by_hand) {
    if (t < next_look_) return;
    next_look_ = t + rules_.look_every;
  }
  look(t);
}

void Controller::give(const Group& group, ValveOrder valve, double from, double until) {
  for (const std::size_t i : group.circuits)
    orders_[i] = {valve, from, until};
  quiet_until_ = std::fmax(quiet_until_, until + rules_.wait);
}

void Controller::look(double t) {
  bool front_off = false;
  for (const Group& g : groups_) {
    if (!g.average.is_full()) continue;
    double error = g.target - g.average.mean();
    if (rules_.method == LevelMethod::by_hand)
      error = g.target - (g.watch.mean() + chance_.between(-gauge_error_, gauge_error_));
    if (std::abs(error) <= (by_pressure() ? rules_.pressure_band : rules_.band)) continue;
    if (rules_.order == LevelOrder::front_first && front_off && !g.front) continue; // its turn comes
    front_off = front_off || g.front;
    const ValveOrder valve = error > 0 ? ValveOrder::fill : ValveOrder::vent;
    if (rules_.method == LevelMethod::until_reached || rules_.method == LevelMethod::by_hand) {
      give(g, valve, t, t + gives_up);
      continue;
    }
    const double burst = (error > 0 ? g.up : g.down) * std::abs(error);
    give(g, valve, t, t + std::clamp(burst, rules_.least_burst, std::fmax(rules_.least_burst, rules_.most_burst)));
  }
}

void Controller::watch_open(double t) {
  if (rules_.method != LevelMethod::until_reached && rules_.method != LevelMethod::by_hand) return;
  bool any = false;
  for (const Group& g : groups_) {
    Order& first = orders_[g.circuits.front()];
    if (first.until <= t) continue;
    const double error = g.target - g.watch.mean();
    if (first.valve == ValveOrder::fill ? error > 0 : error < 0) {
      any = true;
      continue;
    }
    const double lag = rules_.method == LevelMethod::by_hand ? by_hand_lag : 0;
    for (const std::size_t i : g.circuits)
      orders_[i].until = std::fmin(orders_[i].until, t + lag);
  }
  if (!any && quiet_until_ > t + rules_.wait) quiet_until_ = t + rules_.wait;
}

ValveOrder Controller::order(std::size_t circuit, double t) const {
  const Order& o = orders_[circuit];
  return t >= o.from && t < o.until ? o.valve : ValveOrder::shut;
}

} // namespace mavrel::control
