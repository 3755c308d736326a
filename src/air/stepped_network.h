// The air of a network by small even steps, while something else says how large its bags are: a car that a road shakes
// moves its bags a hundred times a second, and nothing is gained by finding a balance for each.
//
// The same equations as air/simulation.h. A squeeze keeps p·V^γ, flow and heat come between; volumes too small to hold
// back a step's flow (a tee, the room inside a block) are places where what comes in goes out.
#pragma once

#include "air/network.h"

#include <array>
#include <span>
#include <vector>

namespace mavrel::air {

/// A network between two steps. A value; one thread's own.
class SteppedNetwork {
public:
  /// @param network  without mistakes; its bodies only say which volumes are bags
  /// @param volumes  m³, of each volume to begin with; what is beside a bag and one with it counts
  SteppedNetwork(Network network, std::span<const double> volumes);

  /// A bag's volume from now on, m³; its air follows with no time for heat.
  void squeeze(std::size_t volume, double size);
  void open(std::size_t line, bool is_open) { open_[line] = is_open; }
  /// The air around from now on. @param pressure  Pa @param temperature  K
  void surround(double pressure, double temperature);
  /// Lets a short time pass.
  /// @param dt  s; a few thousandths, so that no vessel or bag changes much in it
  void step(double dt);

  [[nodiscard]] double gauge_pressure(std::size_t volume) const { return p_[volume] - network_.ambient_pressure; }
  [[nodiscard]] double pressure(std::size_t volume) const { return p_[volume]; } // Pa absolute
  [[nodiscard]] double temperature(std::size_t volume) const { return p_[volume] * size_[volume] * a_mass_[volume]; }
  [[nodiscard]] double mass(std::size_t volume) const { return m_[volume]; }
  /// kg that passed since time 0, from `from` to `to`.
  [[nodiscard]] double passed(std::size_t line) const { return passed_[line]; }
  /// kg that came in from the air around less what went out, since time 0.
  [[nodiscard]] double mass_in() const { return mass_in_; }
  [[nodiscard]] bool running(std::size_t compressor) const { return engines_[compressor].runs(); }
  [[nodiscard]] double run_time(std::size_t compressor) const { return engines_[compressor].run_time; } // s
  [[nodiscard]] const Network& network() const { return network_; }

private:
  struct Node {
    std::size_t volume = 0;
    std::vector<std::size_t> lines;
    std::array<std::size_t, 2> row_of{outside, outside}; // the lines that `row` is of
    Restriction row;
  };
  struct Engine {
    bool wants = false, rests = false;
    double run_time = 0, warmth = 0;
    [[nodiscard]] bool runs() const { return wants && !rests; }
  };
  [[nodiscard]] double pressure_at(std::size_t volume) const;
  [[nodiscard]] AirAt air_at(std::size_t volume) const;
  [[nodiscard]] double temperature_at(std::size_t volume) const;
  [[nodiscard]] double flow(std::size_t line) const;
  [[nodiscard]] double flow_into(const Node& node, double p) const;
  [[nodiscard]] int open_lines(const Node& node) const;
  void settle(const Node& node);
  [[nodiscard]] bool holds_nothing(std::size_t volume) const { return volume != outside && is_node_[volume]; }
  [[nodiscard]] double damped(double kg, std::size_t from, std::size_t to, double dt) const;
  bool pass_straight(Node& node, double dt);
  void pass_nodes(double dt);
  void run_compressors(double dt);
  void move(std::size_t from, std::size_t to, double kg, double T);

  Network network_;
  std::vector<char> open_;
  std::vector<double> size_, m_, p_;    // m³, kg, Pa absolute
  std::vector<double> T_;               // K, as the step begins; of a node, of what comes into it
  std::vector<double> a_size_, a_mass_; // 1/V and 1/(m·R), which change seldom
  std::vector<double> dm_, heat_;       // of this step, kg and J
  std::vector<double> flow_, passed_;   // kg/s now, kg since time 0
  std::vector<char> is_node_;
  std::vector<Node> nodes_; // those furthest from the tank first
  std::vector<Engine> engines_;
  double mass_in_ = 0;
};

} // namespace mavrel::air
