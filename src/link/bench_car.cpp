#include "link/bench_car.h"

#include <algorithm>
#include <cmath>

namespace mavrel::link {

namespace {

using control::ValveOrder;

constexpr double dt = control::RollingCar::longest_step;
constexpr double gathers_speed = 1.2; // m/s²
constexpr double most_at_once = 120;  // s: a machine that slept does not make up for it

control::RollingCarParts with(control::RollingCarParts car, const std::vector<control::ValvePair>& circuits,
                              const control::Condition& condition) {
  control::put_in(car, circuits, condition);
  return car;
}

control::Controller controller_of(const control::DriveGiven& drive) {
  std::vector<control::CircuitCorners> circuits;
  for (std::size_t i = 0; i < drive.circuits.size(); ++i)
    circuits.push_back({drive.circuits[i].corners, drive.gains[i]});
  return {drive.rules, std::move(circuits), drive.target, drive.pressure, drive.gauge_error, drive.seed};
}

} // namespace

std::string circuit_key(const std::vector<std::size_t>& corners) {
  if (corners.size() == 1) return corner_key(corners.front());
  return corners.front() < 2 ? "front" : "rear";
}

BenchCar::BenchCar(std::string name, control::DriveGiven drive, const control::Condition& condition)
    : drive_(std::move(drive)), condition_(condition), car_(with(drive_.car, drive_.circuits, condition_)),
      controller_(controller_of(drive_)), held_(drive_.circuits.size()),
      valves_(drive_.circuits.size(), ValveOrder::shut) {
  hello_.name = std::move(name);
  for (const control::ValvePair& pair : drive_.circuits)
    hello_.circuits.push_back({circuit_key(pair.corners), pair.corners});
  x_ = drive_.car.corners[0].forward - drive_.car.corners[2].forward;
}

std::optional<Message> BenchCar::take(const Order& order, double now) {
  const auto circuit = std::find_if(hello_.circuits.begin(), hello_.circuits.end(),
                                    [&](const Circuit& c) { return c.name == order.circuit; });
  const auto unknown = [&] {
    std::string all;
    for (const Circuit& c : hello_.circuits)
      all += (all.empty() ? "" : ", ") + c.name;
    return Message{words("There is no circuit {0}; there are {1}."), {order.circuit, all}};
  };
  switch (order.what) {
  case Order::What::open:
    if (circuit == hello_.circuits.end()) return unknown();
    if (controlled_) return Message{words("The controller has the valves; it must be off first."), {}};
    held_[static_cast<std::size_t>(circuit - hello_.circuits.begin())] = {order.way, now};
    return std::nullopt;
  case Order::What::close:
    if (order.circuit.empty()) {
      let_go();
      return std::nullopt;
    }
    if (circuit == hello_.circuits.end()) return unknown();
    held_[static_cast<std::size_t>(circuit - hello_.circuits.begin())] = {};
    return std::nullopt;
  case Order::What::alive:
    return std::nullopt;
  case Order::What::controller:
    let_go();
    controlled_ = order.on;
    return std::nullopt;
  case Order::What::drive:
    wanted_speed_ = order.speed;
    return std::nullopt;
  case Order::What::test:
  case Order::What::name:
    return Message{words("This is no car to practise on."), {}};
  }
  return std::nullopt;
}

void BenchCar::let_go() {
  for (Held& held : held_)
    held = {};
}

void BenchCar::work(std::size_t i, ValveOrder wanted) {
  if (valves_[i] == wanted) return;
  const control::ValvePair& pair = drive_.circuits[i];
  car_.air().open(pair.fill, wanted == ValveOrder::fill);
  car_.air().open(pair.vent, wanted == ValveOrder::vent);
  valves_[i] = wanted;
}

double BenchCar::reading(std::size_t corner) const {
  return control::sensed({car_.height(0), car_.height(1), car_.height(2), car_.height(3)}, drive_.target, corner,
                         condition_);
}

void BenchCar::pass(double seconds, double now) {
  for (Held& held : held_)
    if (held.way != ValveOrder::shut && now - held.asked > watchdog) held = {};
  left_over_ = std::fmin(left_over_ + seconds, most_at_once);
  const double wheelbase = drive_.car.corners[0].forward - drive_.car.corners[2].forward;
  for (; left_over_ >= dt; left_over_ -= dt) {
    const double a = std::clamp((wanted_speed_ - speed_) / dt, -gathers_speed, gathers_speed);
    speed_ = std::fmax(0, speed_ + a * dt);
    if (controlled_ && time_ >= next_sample_) {
      control::ControlReadings readings;
      for (std::size_t c = 0; c < 4; ++c)
        readings.height[c] = reading(c), readings.pressure[c] = car_.gauge_pressure(c);
      readings.forward = a;
      controller_.read(time_, readings);
      next_sample_ = time_ + 1 / drive_.rules.samples;
    }
    for (std::size_t i = 0; i < valves_.size(); ++i)
      work(i, controlled_ ? controller_.order(i, time_) : held_[i].way);
    const auto front = drive_.road->at(x_), rear = drive_.road->at(x_ - wheelbase);
    car_.step(dt, {front[0], front[1], rear[0], rear[1]}, {speed_, a, 0});
    x_ += speed_ * dt;
    time_ += dt;
  }
}

State BenchCar::state() const {
  State out;
  out.time = time_;
  for (std::size_t c = 0; c < 4; ++c)
    out.height[c] = reading(c), out.pressure[c] = car_.gauge_pressure(c);
  out.tank = car_.air().gauge_pressure(drive_.car.tank) + condition_.gauge_shift;
  out.valves = valves_;
  bool runs = false;
  for (std::size_t i = 0; i < drive_.car.network.compressors.size(); ++i)
    runs = runs || car_.air().running(i);
  out.compressor = runs;
  out.speed = speed_;
  return out;
}

} // namespace mavrel::link
