// Time passing in an air network: masses, temperatures, pressures and heights, with valves that are worked, compressors
// that cut in and out, and moments that are watched for.
//
// The equations are stiff (a tee of a few cubic centimetres beside a tank of litres; flow near equal pressures), so
// they are integrated by the backward differentiation formulas of CVODE (SUNDIALS), which also finds the moments at
// which a watched quantity crosses its level.
#pragma once

#include "air/network.h"

#include <functional>
#include <memory>
#include <span>

namespace mavrel::air {

struct VolumeState {
  double gauge_pressure = 0; // Pa
  double temperature = 0;    // K
  double mass = 0;           // kg
  double volume = 0;         // m³
};

/// A moment to stop at: when a quantity crosses a level, from whichever side.
struct Watch {
  enum class What { height, mean_height, pressure };
  What what = What::height;
  std::size_t body = 0, leg = 0, other_leg = 0; // of heights; `mean_height` is of both legs
  std::size_t volume = 0;                       // of pressures
  double level = 0;                             // m or Pa gauge
};

/// Why a run ended.
struct RunEnd {
  std::optional<std::size_t> watch; // the one that was met; none: the time came
};

/// Asked now and then while time passes; true ends the run.
using Stopped = std::function<bool()>;

/// One thread's own.
class Simulation {
public:
  /// Takes a network as it stands at time 0.
  /// @returns why time can't pass in it
  [[nodiscard]] static Expected<Simulation> begin(Network network);
  ~Simulation();
  Simulation(Simulation&&) noexcept;
  Simulation& operator=(Simulation&&) noexcept;

  [[nodiscard]] const Network& network() const;
  [[nodiscard]] double time() const; // s
  /// As they are now; valid until time passes again.
  [[nodiscard]] std::span<const VolumeState> volumes() const;
  [[nodiscard]] const std::vector<LegState>& legs(std::size_t body) const;
  [[nodiscard]] double imbalance(std::size_t body) const; // of forces and moments, share of the load
  [[nodiscard]] double flow(std::size_t line) const;      // kg/s now, from `from` to `to`
  [[nodiscard]] bool running(std::size_t compressor) const;
  [[nodiscard]] double run_time(std::size_t compressor) const; // s since time 0
  [[nodiscard]] double warmth(std::size_t compressor) const;   // 0 cold, 1: it must rest
  [[nodiscard]] bool resting(std::size_t compressor) const;    // too warm to run
  /// Since time 0: kg that came in from the air around less what went out; J that came with it and through the walls.
  [[nodiscard]] double mass_in() const;
  [[nodiscard]] double energy_in() const;
  [[nodiscard]] long steps() const; // made by the integrator

  void open(std::size_t line, bool is_open);
  /// A compressor that is not allowed stands still whatever its switch says.
  void allow(std::size_t compressor, bool allowed);

  /// Lets time pass until `until` (s), a watch is met, or it is stopped.
  /// @param every    s between looks; 0: none
  /// @param look     called at every look, with the state as it is then
  /// @returns why it ended; or that it got stuck, and where
  [[nodiscard]] Expected<RunEnd> run(double until, std::span<const Watch> watches = {}, double every = 0,
                                     const std::function<void()>& look = {}, const Stopped& stopped = {});

private:
  struct Inside;
  explicit Simulation(std::unique_ptr<Inside> inside);
  std::unique_ptr<Inside> inside_;
};

} // namespace mavrel::air
