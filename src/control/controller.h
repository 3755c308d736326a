// A height controller: readings in, orders to valves out, by rules that somebody can change. It knows nothing of the
// car but what its sensors and gauges say.
#pragma once

#include "control/road.h"
#include "control/rules.h"

#include <array>
#include <span>
#include <vector>

namespace mavrel::control {

enum class ValveOrder { shut, fill, vent };

/// The mean of the last readings, kept over a time. Every reading counts alike.
class Average {
public:
  /// @param count  readings it is over, at least 1
  explicit Average(std::size_t count) : kept_(count < 1 ? 1 : count) {}
  void keep(double reading);
  void forget() { next_ = full_ = 0, sum_ = 0; }
  [[nodiscard]] bool is_full() const { return full_ == kept_.size(); }
  [[nodiscard]] bool is_empty() const { return full_ == 0; }
  [[nodiscard]] double mean() const { return sum_ / static_cast<double>(full_); } // not while empty

private:
  std::vector<double> kept_;
  std::size_t next_ = 0, full_ = 0;
  double sum_ = 0;
};

/// What it reads at one moment. Corners FL FR RL RR.
struct ControlReadings {
  std::array<double, 4> height{};   // m, H as the sensors give it
  std::array<double, 4> pressure{}; // Pa gauge
  double forward = 0, left = 0;     // m/s²
  bool doors = false;               // one is open
};

/// What open valves buy, for one circuit: learned, or set by hand.
struct Gain {
  double up = 0, down = 0;                   // s/m
  double pressure_up = 0, pressure_down = 0; // s/Pa
};

/// What is fed through one pair of valves.
struct CircuitCorners {
  std::vector<std::size_t> corners; // FL FR RL RR from 0
  Gain gain;
};

/// One thread's own.
/// Source: docs/models.md, "Height control".
class Controller {
public:
  /// @param targets      m, H wanted at each corner
  /// @param pressures    Pa gauge, learned at those heights
  /// @param gauge_error  Pa, either way, of a person's reading
  Controller(const Rules& rules, std::vector<CircuitCorners> circuits, const std::array<double, 4>& targets,
             const std::array<double, 4>& pressures, double gauge_error, std::uint64_t seed);

  /// Takes a reading; to be called `rules.samples` times a second.
  /// @param t  s
  void read(double t, const ControlReadings& now);
  /// What each circuit's valves are to do at a moment: a burst ends between two readings.
  [[nodiscard]] ValveOrder order(std::size_t circuit, double t) const;
  /// Does it hold still at the moment?
  [[nodiscard]] bool is_held() const { return held_; }
  /// Is a correction being made, or settling?
  [[nodiscard]] bool waits(double t) const { return t < quiet_until_; }

private:
  /// Circuits that are corrected as one, and the sensors they go by.
  struct Group {
    std::vector<std::size_t> circuits, corners;
    bool front = true;
    double target = 0; // m or Pa
    Average average, watch;
    double up = 0, down = 0; // s a unit
  };
  struct Order {
    ValveOrder valve = ValveOrder::shut;
    double from = 0, until = 0; // s
  };
  [[nodiscard]] bool by_pressure() const {
    return rules_.method == LevelMethod::pressure || rules_.method == LevelMethod::by_hand;
  }
  [[nodiscard]] double reading(const Group& group, const ControlReadings& now) const;
  [[nodiscard]] bool holds(const ControlReadings& now) const;
  void look(double t);
  void watch_open(double t);
  void give(const Group& group, ValveOrder valve, double from, double until);

  Rules rules_;
  std::vector<CircuitCorners> circuits_;
  std::vector<Group> groups_;
  std::vector<Order> orders_; // one a circuit
  double quiet_until_ = 0;
  double next_look_ = 0; // s, of a person
  double gauge_error_ = 0;
  Chance chance_;
  bool held_ = false;
};

} // namespace mavrel::control
