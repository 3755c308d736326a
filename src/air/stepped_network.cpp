#include "air/stepped_network.h"

#include <algorithm>
#include <cmath>

namespace mavrel::air {

namespace {

constexpr double node_size = 1e-4; // m³: what is smaller only passes air on
constexpr int sweeps = 3;          // over nodes beside nodes
constexpr int most_tries = 24;

} // namespace

SteppedNetwork::SteppedNetwork(Network network, std::span<const double> volumes)
    : network_(std::move(network)), size_(volumes.begin(), volumes.end()) {
  const std::size_t n = network_.volumes.size();
  std::vector<char> is_bag(n, 0);
  for (const Body& body : network_.bodies)
    for (const Leg& leg : body.legs)
      is_bag[leg.volume] = 1;
  for (const Compressor& c : network_.compressors)
    is_bag[c.to] = 1;
  is_node_.assign(n, 0);
  for (std::size_t v = 0; v < n; ++v) {
    const Volume& volume = network_.volumes[v];
    const double p = volume.gauge_pressure + network_.ambient_pressure;
    p_.push_back(p);
    T_.push_back(volume.temperature);
    m_.push_back(air_mass(p, size_[v], volume.temperature));
    a_size_.push_back(1 / size_[v]), a_mass_.push_back(1 / (m_[v] * gas_constant));
    is_node_[v] = !is_bag[v] && volume.size < node_size;
  }
  dm_.assign(n, 0), heat_.assign(n, 0);
  flow_.assign(network_.lines.size(), 0), passed_ = flow_;
  for (const Line& line : network_.lines)
    open_.push_back(line.open);
  for (std::size_t v = n; v-- > 0;) {
    if (!is_node_[v]) continue;
    Node node;
    node.volume = v;
    for (std::size_t l = 0; l < network_.lines.size(); ++l)
      if (network_.lines[l].from == v || network_.lines[l].to == v) node.lines.push_back(l);
    nodes_.push_back(std::move(node));
  }
  for (const Compressor& c : network_.compressors)
    engines_.push_back({c.running, false, 0, 0});
}

void SteppedNetwork::squeeze(std::size_t volume, double size) {
  if (size == size_[volume]) return;
  const double each = 1 / size, e = size_[volume] * each - 1;
  size_[volume] = size, a_size_[volume] = each;
  // (1 + e)^γ; a road moves a bag by so little in a step that the row's first members are all of it.
  constexpr double k = isentropic;
  p_[volume] *= std::abs(e) < 5e-3 ? 1 + e * k * (1 + e * (k - 1) / 2 * (1 + e * (k - 2) / 3 * (1 + e * (k - 3) / 4)))
                                   : std::pow(1 + e, k);
}

void SteppedNetwork::surround(double pressure, double temperature) {
  network_.ambient_pressure = pressure, network_.ambient_temperature = temperature;
}

double SteppedNetwork::pressure_at(std::size_t v) const {
  return v == outside ? network_.ambient_pressure : p_[v];
}

double SteppedNetwork::temperature_at(std::size_t v) const {
  return v == outside ? network_.ambient_temperature : T_[v];
}

AirAt SteppedNetwork::air_at(std::size_t v) const {
  return {pressure_at(v), temperature_at(v)};
}

double SteppedNetwork::flow(std::size_t l) const {
  const Line& line = network_.lines[l];
  return flow_along(line, air_at(line.from), air_at(line.to));
}

int SteppedNetwork::open_lines(const Node& node) const {
  int out = 0;
  for (const std::size_t l : node.lines)
    out += open_[l];
  return out;
}

double SteppedNetwork::flow_into(const Node& node, double p) const {
  double out = 0;
  for (const std::size_t l : node.lines) {
    if (!open_[l]) continue;
    const Line& line = network_.lines[l];
    const AirAt here{p, T_[node.volume]};
    out +=
        line.to == node.volume ? flow_along(line, air_at(line.from), here) : -flow_along(line, here, air_at(line.to));
  }
  return out;
}

/// The pressure at which as much comes into the node as leaves it: what comes in falls as it rises, so it lies between
/// its neighbours' (Illinois).
void SteppedNetwork::settle(const Node& node) {
  double low = INFINITY, high = 0;
  for (const std::size_t l : node.lines) {
    if (!open_[l]) continue;
    const Line& line = network_.lines[l];
    const double p = pressure_at(line.to == node.volume ? line.from : line.to);
    low = std::fmin(low, p), high = std::fmax(high, p);
  }
  if (!(high >= low)) return; // nothing is open: it keeps what it has
  double f_low = flow_into(node, low), f_high = flow_into(node, high);
  double p = low;
  int kept = 0;
  for (int i = 0; i < most_tries && high - low > 0.5; ++i) {
    p = f_low - f_high > 0 ? low + (high - low) * f_low / (f_low - f_high) : (low + high) / 2;
    if (i > 8) p = (low + high) / 2;
    const double f = flow_into(node, p);
    if (std::abs(f) < 1e-9) break;
    if (f > 0) {
      low = p, f_low = f;
      if (kept > 0) f_high /= 2;
      kept = 1;
    } else {
      high = p, f_high = f;
      if (kept < 0) f_low /= 2;
      kept = -1;
    }
  }
  p_[node.volume] = p;
}

/// Flow between two volumes that hold it back. So wide a line that it would swing past the balance in one step passes
/// what it does at the step's end.
double SteppedNetwork::damped(double kg, std::size_t from, std::size_t to, double dt) const {
  const double dp = pressure_at(from) - pressure_at(to);
  const auto give = [&](std::size_t v) { return v == outside ? 0 : gas_constant * T_[v] * isentropic * a_size_[v]; };
  return dp == 0 ? 0 : kg / (1 + dt * kg / dp * (give(from) + give(to)));
}

/// A node that only joins two volumes is a row of two lines.
/// @returns false where it is more than that
bool SteppedNetwork::pass_straight(Node& node, double dt) {
  std::size_t ends[2] = {}, lines[2] = {}, count = 0;
  for (const std::size_t l : node.lines) {
    if (!open_[l]) continue;
    const Line& line = network_.lines[l];
    if (count == 2 || line.one_way) return false;
    ends[count] = line.to == node.volume ? line.from : line.to;
    lines[count++] = l;
  }
  if (count != 2 || holds_nothing(ends[0]) || holds_nothing(ends[1])) return false;
  if (node.row_of[0] != lines[0] || node.row_of[1] != lines[1]) {
    node.row_of = {lines[0], lines[1]};
    node.row = in_series(std::array{network_.lines[lines[0]].through, network_.lines[lines[1]].through});
  }
  const double p1 = pressure_at(ends[0]), p2 = pressure_at(ends[1]);
  const std::size_t source = p1 >= p2 ? ends[0] : ends[1];
  const double kg = mass_flow(node.row, std::fmax(p1, p2), std::fmin(p1, p2), temperature_at(source));
  const double through = damped(p1 >= p2 ? kg : -kg, ends[0], ends[1], dt);
  p_[node.volume] = (p1 + p2) / 2, T_[node.volume] = temperature_at(source);
  flow_[lines[0]] = network_.lines[lines[0]].to == node.volume ? through : -through;
  flow_[lines[1]] = network_.lines[lines[1]].to == node.volume ? -through : through;
  return true;
}

void SteppedNetwork::pass_nodes(double dt) {
  bool any = false;
  for (Node& node : nodes_)
    if (open_lines(node) > 1 && !pass_straight(node, dt)) any = true;
  if (!any) return;
  for (int i = 0; i < (nodes_.size() > 1 ? sweeps : 1); ++i)
    for (const Node& node : nodes_)
      settle(node);
  for (const Node& node : nodes_) {
    if (open_lines(node) < 2) continue;
    for (const std::size_t l : node.lines)
      if (open_[l]) flow_[l] = flow(l);
  }
  // What the solving left over goes by one of each node's lines, so that no air is lost: by the first, which leads
  // towards the tank.
  for (const Node& node : nodes_) {
    if (open_lines(node) < 2) continue;
    double in = 0, warm = 0, comes = 0;
    std::size_t slack = outside;
    for (const std::size_t l : node.lines) {
      if (!open_[l]) continue;
      if (slack == outside || network_.lines[l].to == node.volume) slack = l;
      in += network_.lines[l].to == node.volume ? flow_[l] : -flow_[l];
    }
    flow_[slack] -= network_.lines[slack].to == node.volume ? in : -in;
    for (const std::size_t l : node.lines) {
      if (!open_[l]) continue;
      const Line& line = network_.lines[l];
      const double kg = line.to == node.volume ? flow_[l] : -flow_[l];
      if (kg <= 0) continue;
      comes += kg, warm += kg * temperature_at(line.to == node.volume ? line.from : line.to);
    }
    if (comes > 0) T_[node.volume] = warm / comes;
  }
}

void SteppedNetwork::move(std::size_t from, std::size_t to, double kg, double T) {
  const double heat = kg * heat_at_pressure * T;
  if (from == outside)
    mass_in_ += kg;
  else
    dm_[from] -= kg, heat_[from] -= heat;
  if (to == outside)
    mass_in_ -= kg;
  else
    dm_[to] += kg, heat_[to] += heat;
}

void SteppedNetwork::run_compressors(double dt) {
  for (std::size_t c = 0; c < engines_.size(); ++c) {
    const Compressor& compressor = network_.compressors[c];
    Engine& engine = engines_[c];
    const double p = gauge_pressure(compressor.to);
    if (engine.wants ? p >= compressor.cut_out : p <= compressor.cut_in) engine.wants = !engine.wants;
    if (engine.runs()) {
      move(outside, compressor.to, mass_delivered(network_, compressor, p) * dt, compressor.outlet);
      engine.run_time += dt;
    }
    if (!compressor.duty) continue;
    const Compressor::Duty& duty = *compressor.duty;
    const double aim = engine.runs() ? 1 / -std::expm1(-duty.longest_run / duty.time_constant) : 0;
    engine.warmth += (aim - engine.warmth) * dt / duty.time_constant;
    if (engine.warmth >= 1) engine.rests = true;
    if (engine.warmth <= duty.rests_until) engine.rests = false;
  }
}

void SteppedNetwork::step(double dt) {
  const std::size_t n = m_.size();
  for (std::size_t v = 0; v < n; ++v)
    if (!is_node_[v]) T_[v] = p_[v] * size_[v] * a_mass_[v];
  std::fill(flow_.begin(), flow_.end(), 0.0);
  pass_nodes(dt);
  for (std::size_t l = 0; l < flow_.size(); ++l) {
    if (!open_[l]) continue;
    const Line& line = network_.lines[l];
    if (!holds_nothing(line.from) && !holds_nothing(line.to)) flow_[l] = damped(flow(l), line.from, line.to, dt);
    if (flow_[l] == 0) continue;
    passed_[l] += flow_[l] * dt;
    move(line.from, line.to, flow_[l] * dt, temperature_at(flow_[l] > 0 ? line.from : line.to));
  }
  run_compressors(dt);
  for (std::size_t v = 0; v < n; ++v) {
    if (!is_node_[v]) {
      const double E = heat_[v] + network_.volumes[v].wall * (network_.ambient_temperature - T_[v]) * dt;
      p_[v] += (isentropic - 1) * E * a_size_[v];
      if (dm_[v] != 0) m_[v] += dm_[v], a_mass_[v] = 1 / (m_[v] * gas_constant);
    }
    dm_[v] = heat_[v] = 0;
  }
}

} // namespace mavrel::air
