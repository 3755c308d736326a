// A car that is played for the bench link: it rolls or stands, its valves are worked from outside or by its controller,
// and what it reads is told.
#pragma once

#include "control/condition.h"
#include "link/bench_line.h"

namespace mavrel::link {

/// All that a played car is. One thread's own.
class BenchCar {
public:
  /// @param drive      the car with its circuits, targets, rules and road; its speed and events are not used
  /// @param condition  what is the matter with it
  BenchCar(std::string name, control::DriveGiven drive, const control::Condition& condition);

  [[nodiscard]] const Hello& hello() const { return hello_; }
  /// @param now  s of the clock that the watchdog goes by
  /// @returns why the order can't be followed; none: it is
  [[nodiscard]] std::optional<Message> take(const Order& order, double now);
  /// Everything that somebody held open is let go: the link is lost.
  void let_go();
  /// Lets time pass in the car. @param seconds  of the car @param now  s of the watchdog's clock
  void pass(double seconds, double now);
  [[nodiscard]] State state() const;

private:
  struct Held {
    control::ValveOrder way = control::ValveOrder::shut;
    double asked = 0; // s, when it was asked for last
  };
  void work(std::size_t circuit, control::ValveOrder wanted);
  [[nodiscard]] double reading(std::size_t corner) const;

  control::DriveGiven drive_;
  control::Condition condition_;
  control::RollingCar car_;
  control::Controller controller_;
  Hello hello_;
  std::vector<Held> held_;
  std::vector<control::ValveOrder> valves_;
  bool controlled_ = false;
  double speed_ = 0, wanted_speed_ = 0;
  double time_ = 0, left_over_ = 0, x_ = 0, next_sample_ = 0;
};

/// What a circuit is called on the link: `FL`, `rear`.
[[nodiscard]] std::string circuit_key(const std::vector<std::size_t>& corners);

} // namespace mavrel::link
