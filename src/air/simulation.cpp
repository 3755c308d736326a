#include "air/simulation.h"

#include <cvode/cvode.h>
#include <nvector/nvector_serial.h>
#include <sundials/sundials_context.h>
#include <sunlinsol/sunlinsol_dense.h>
#include <sunmatrix/sunmatrix_dense.h>

#include <algorithm>
#include <cassert>
#include <cmath>

namespace mavrel::air {

namespace {

constexpr double relative_tolerance = 5e-7;
constexpr long most_steps = 400'000;      // of one run: an hour of ticking valves takes a few thousand
constexpr long steps_between_looks = 500; // at whether it is to stop

constexpr double less_one = isentropic - 1;

} // namespace

/// For each volume two unknowns: its mass, and y = V·p_abs^(1/γ), which only flow and heat can change, not the body's
/// movement: d(m·cv·T) + p·dV = dQ becomes dy = (γ − 1)/γ·p^(1/γ − 1)·dQ. Two more count what came from outside.
struct Simulation::Inside {
  Network network;
  std::vector<Carriage> bodies;
  std::vector<std::pair<std::size_t, std::size_t>> leg_of; // body and leg of a volume; body `outside`: a vessel
  std::vector<char> open;
  struct Engine {
    bool wants = false, allowed = true, rests = false;
    double run_time = 0, warmth = 0;
    [[nodiscard]] bool runs() const { return wants && allowed && !rests; }
  };
  std::vector<Engine> engines;
  std::vector<VolumeState> states;
  std::vector<Watch> watched;
  double time = 0;
  long steps = 0, counted = 0; // in all, and since the integrator last began anew
  bool fresh = true;           // something was changed from outside: the integrator begins anew

  SUNContext context = nullptr;
  N_Vector unknowns = nullptr, tolerances = nullptr;
  SUNMatrix matrix = nullptr;
  SUNLinearSolver solver = nullptr;
  void* cvode = nullptr;

  Inside() = default;
  Inside(const Inside&) = delete;
  Inside& operator=(const Inside&) = delete;
  ~Inside() {
    if (cvode) CVodeFree(&cvode);
    if (solver) SUNLinSolFree(solver);
    if (matrix) SUNMatDestroy(matrix);
    if (tolerances) N_VDestroy(tolerances);
    if (unknowns) N_VDestroy(unknowns);
    if (context) SUNContext_Free(&context);
  }

  [[nodiscard]] std::size_t count() const { return network.volumes.size(); }
  [[nodiscard]] double* mass() const { return N_VGetArrayPointer(unknowns); }
  [[nodiscard]] double* gas() const { return mass() + count(); }
  [[nodiscard]] double* outside_part() const { return mass() + 2 * count(); }

  bool make() {
    const auto n = static_cast<sunindextype>(2 * count() + 2);
    if (SUNContext_Create(nullptr, &context) != 0) return false;
    unknowns = N_VNew_Serial(n, context);
    tolerances = N_VNew_Serial(n, context);
    if (!unknowns || !tolerances) return false;
    for (std::size_t v = 0; v < count(); ++v) {
      const Volume& volume = network.volumes[v];
      const double p = volume.gauge_pressure + network.ambient_pressure, V = states[v].volume;
      mass()[v] = air_mass(p, V, volume.temperature);
      gas()[v] = V * std::pow(p, 1 / isentropic);
    }
    outside_part()[0] = outside_part()[1] = 0;
    double* t = N_VGetArrayPointer(tolerances);
    double all = 0;
    for (std::size_t v = 0; v < count(); ++v) {
      t[v] = relative_tolerance * mass()[v] * 0.1;
      t[count() + v] = relative_tolerance * gas()[v] * 0.1;
      all += mass()[v];
    }
    t[2 * count()] = relative_tolerance * all;
    t[2 * count() + 1] = relative_tolerance * all * heat_at_pressure * network.ambient_temperature;
    matrix = SUNDenseMatrix(n, n, context);
    solver = SUNLinSol_Dense(unknowns, matrix, context);
    cvode = CVodeCreate(CV_BDF, context);
    if (!matrix || !solver || !cvode) return false;
    return CVodeInit(cvode, &Inside::rates, 0, unknowns) == CV_SUCCESS && CVodeSetUserData(cvode, this) == CV_SUCCESS &&
           CVodeSetErrFile(cvode, nullptr) == CV_SUCCESS &&
           CVodeSVtolerances(cvode, relative_tolerance, tolerances) == CV_SUCCESS &&
           CVodeSetLinearSolver(cvode, solver, matrix) == CV_SUCCESS &&
           CVodeSetMaxNumSteps(cvode, steps_between_looks) == CV_SUCCESS &&
           CVodeSetNoInactiveRootWarn(cvode) == CV_SUCCESS;
  }

  /// Pressures, temperatures and heights of what is integrated. @returns false where there are none
  bool read(const double* m, const double* y) {
    for (Carriage& body : bodies)
      if (!body.settle(y)) return false;
    for (std::size_t v = 0; v < count(); ++v) {
      if (!(m[v] > 0) || !(y[v] > 0)) return false;
      VolumeState& s = states[v];
      s.volume = leg_of[v].first == outside ? network.volumes[v].size
                                            : bodies[leg_of[v].first].legs()[leg_of[v].second].volume;
      const double r = y[v] / s.volume;
      const double p = std::pow(r, isentropic);
      s.gauge_pressure = p - network.ambient_pressure;
      s.temperature = air_temperature(p, s.volume, m[v]);
      s.mass = m[v];
    }
    return true;
  }
  bool read() { return read(mass(), gas()); }

  [[nodiscard]] double pressure(std::size_t at) const {
    return network.ambient_pressure + (at == outside ? 0 : states[at].gauge_pressure);
  }
  [[nodiscard]] double temperature(std::size_t at) const {
    return at == outside ? network.ambient_temperature : states[at].temperature;
  }
  [[nodiscard]] AirAt air(std::size_t at) const { return {pressure(at), temperature(at)}; }

  [[nodiscard]] double flow(std::size_t l) const {
    const Line& line = network.lines[l];
    if (!open[l]) return 0;
    return flow_along(line, air(line.from), air(line.to));
  }

  [[nodiscard]] double mass_delivered(std::size_t c) const {
    const Compressor& compressor = network.compressors[c];
    if (!engines[c].runs()) return 0;
    return air::mass_delivered(network, compressor, states[compressor.to].gauge_pressure);
  }

  static int rates(realtype, N_Vector now, N_Vector out, void* self) {
    auto& in = *static_cast<Inside*>(self);
    const std::size_t n = in.count();
    const double* x = N_VGetArrayPointer(now);
    double* dx = N_VGetArrayPointer(out);
    if (!in.read(x, x + n)) return 1; // a shorter step may find it
    double from_outside = 0, energy = 0;
    for (std::size_t v = 0; v < n; ++v) {
      const double through_wall =
          in.network.volumes[v].wall * (in.network.ambient_temperature - in.states[v].temperature);
      dx[v] = 0, dx[n + v] = through_wall;
      energy += through_wall;
    }
    const auto move = [&](std::size_t from, std::size_t to, double kg, double T) {
      const double heat = kg * heat_at_pressure * T;
      if (from == outside)
        from_outside += kg, energy += heat;
      else
        dx[from] -= kg, dx[n + from] -= heat;
      if (to == outside)
        from_outside -= kg, energy -= heat;
      else
        dx[to] += kg, dx[n + to] += heat;
    };
    for (std::size_t l = 0; l < in.network.lines.size(); ++l) {
      const double kg = in.flow(l);
      if (kg == 0) continue;
      const Line& line = in.network.lines[l];
      move(line.from, line.to, kg, in.temperature(kg > 0 ? line.from : line.to));
    }
    for (std::size_t c = 0; c < in.engines.size(); ++c)
      if (in.engines[c].runs())
        move(outside, in.network.compressors[c].to, in.mass_delivered(c), in.network.compressors[c].outlet);
    for (std::size_t v = 0; v < n; ++v) {
      const double r = x[n + v] / in.states[v].volume; // p^(1/γ)
      dx[n + v] *= less_one / isentropic * r / in.pressure(v);
    }
    dx[2 * n] = from_outside, dx[2 * n + 1] = energy;
    return 0;
  }

  [[nodiscard]] double value(const Watch& watch) const {
    const auto height = [&](std::size_t leg) { return bodies[watch.body].legs()[leg].height; };
    switch (watch.what) {
    case Watch::What::height:
      return height(watch.leg);
    case Watch::What::mean_height:
      return (height(watch.leg) + height(watch.other_leg)) / 2;
    case Watch::What::pressure:
      return states[watch.volume].gauge_pressure * 1e-5;
    }
    return 0;
  }
  [[nodiscard]] static double level(const Watch& watch) {
    return watch.what == Watch::What::pressure ? watch.level * 1e-5 : watch.level;
  }

  /// First the compressors' switches, then what is watched.
  static int crossings(realtype, N_Vector now, realtype* out, void* self) {
    auto& in = *static_cast<Inside*>(self);
    const double* x = N_VGetArrayPointer(now);
    if (!in.read(x, x + in.count())) return 1;
    const std::size_t n = in.engines.size();
    for (std::size_t c = 0; c < n; ++c) {
      const Compressor& compressor = in.network.compressors[c];
      const double p = in.states[compressor.to].gauge_pressure;
      out[c] = (p - (in.engines[c].wants ? compressor.cut_out : compressor.cut_in)) * 1e-5;
    }
    for (std::size_t w = 0; w < in.watched.size(); ++w)
      out[n + w] = in.value(in.watched[w]) - level(in.watched[w]);
    return 0;
  }

  void throw_switches() {
    for (std::size_t c = 0; c < engines.size(); ++c) {
      const double p = states[network.compressors[c].to].gauge_pressure, slack = 1; // Pa
      Engine& engine = engines[c];
      if (engine.wants ? p >= network.compressors[c].cut_out - slack : p <= network.compressors[c].cut_in + slack) {
        engine.wants = !engine.wants;
        fresh = true;
      }
    }
  }

  /// When the next compressor becomes too warm, or cool again, if all goes on as it does; s.
  [[nodiscard]] double next_warmth() const {
    double next = INFINITY;
    for (std::size_t c = 0; c < engines.size(); ++c) {
      const auto& duty = network.compressors[c].duty;
      const Engine& engine = engines[c];
      if (!duty) continue;
      if (engine.runs()) {
        const double top = final_warmth(*duty);
        next = std::fmin(next, time + duty->time_constant * std::log((top - engine.warmth) / (top - 1)));
      } else if (engine.rests)
        next = std::fmin(next, time + duty->time_constant * std::log(engine.warmth / duty->rests_until));
    }
    return next;
  }
  /// What it would warm to if it ran for ever: so that `longest_run` from cold brings it to 1.
  static double final_warmth(const Compressor::Duty& duty) {
    return 1 / -std::expm1(-duty.longest_run / duty.time_constant);
  }
  void pass(double to) {
    const double dt = to - time;
    for (std::size_t c = 0; c < engines.size(); ++c) {
      Engine& engine = engines[c];
      if (engine.runs()) engine.run_time += dt;
      if (const auto& duty = network.compressors[c].duty) {
        const double aim = engine.runs() ? final_warmth(*duty) : 0;
        engine.warmth = aim + (engine.warmth - aim) * std::exp(-dt / duty->time_constant);
      }
    }
    time = to;
  }
  void rest_and_wake() {
    for (std::size_t c = 0; c < engines.size(); ++c) {
      const auto& duty = network.compressors[c].duty;
      if (!duty) continue;
      Engine& engine = engines[c];
      constexpr double close = 1e-6;
      if (!engine.rests && engine.warmth >= 1 - close)
        engine.rests = fresh = true;
      else if (engine.rests && engine.warmth <= duty->rests_until + close)
        engine.rests = false, fresh = true;
    }
  }
};

Simulation::Simulation(std::unique_ptr<Inside> inside) : inside_(std::move(inside)) {}
Simulation::~Simulation() = default;
Simulation::Simulation(Simulation&&) noexcept = default;
Simulation& Simulation::operator=(Simulation&&) noexcept = default;

Expected<Simulation> Simulation::begin(Network network) {
  if (auto wrong = mistake_in(network)) return refuse(*wrong);
  auto inside = std::make_unique<Inside>();
  Inside& in = *inside;
  in.network = std::move(network);
  const Network& net = in.network;
  in.leg_of.assign(net.volumes.size(), {outside, 0});
  in.states.resize(net.volumes.size());
  std::vector<double> y(net.volumes.size(), 0.0);
  for (std::size_t v = 0; v < net.volumes.size(); ++v)
    in.states[v].volume = net.volumes[v].size;
  for (std::size_t b = 0; b < net.bodies.size(); ++b) {
    const Body& body = net.bodies[b];
    for (std::size_t l = 0; l < body.legs.size(); ++l) {
      const Leg& leg = body.legs[l];
      const double bag_height = leg.travel ? leg.travel->read(leg.height, 0).value : leg.height;
      in.leg_of[leg.volume] = {b, l};
      in.states[leg.volume].volume =
          leg.curve.section(std::clamp(bag_height, leg.curve.lowest(), leg.curve.highest())).volume + leg.added_volume;
    }
    in.bodies.emplace_back(body, net.ambient_pressure);
  }
  for (const Line& line : net.lines)
    in.open.push_back(line.open);
  in.engines.resize(net.compressors.size());
  for (std::size_t c = 0; c < net.compressors.size(); ++c)
    in.engines[c].wants = net.compressors[c].running;
  if (!in.make()) return refuse(words("The simulation could not begin: there is not enough memory."));
  if (!in.read()) return refuse(words("The bags find no height at which they carry what stands on them."));
  in.throw_switches();
  return Simulation(std::move(inside));
}

const Network& Simulation::network() const {
  return inside_->network;
}
double Simulation::time() const {
  return inside_->time;
}
std::span<const VolumeState> Simulation::volumes() const {
  return inside_->states;
}
const std::vector<LegState>& Simulation::legs(std::size_t body) const {
  return inside_->bodies[body].legs();
}
double Simulation::imbalance(std::size_t body) const {
  return inside_->bodies[body].imbalance();
}
double Simulation::flow(std::size_t line) const {
  return inside_->flow(line);
}
bool Simulation::running(std::size_t compressor) const {
  return inside_->engines[compressor].runs();
}
double Simulation::run_time(std::size_t compressor) const {
  return inside_->engines[compressor].run_time;
}
double Simulation::warmth(std::size_t compressor) const {
  return inside_->engines[compressor].warmth;
}
bool Simulation::resting(std::size_t compressor) const {
  return inside_->engines[compressor].rests;
}
double Simulation::mass_in() const {
  return inside_->outside_part()[0];
}
double Simulation::energy_in() const {
  return inside_->outside_part()[1];
}
long Simulation::steps() const {
  return inside_->steps;
}

void Simulation::open(std::size_t line, bool is_open) {
  if (static_cast<bool>(inside_->open[line]) == is_open) return;
  inside_->open[line] = is_open;
  inside_->fresh = true;
}
void Simulation::allow(std::size_t compressor, bool allowed) {
  if (inside_->engines[compressor].allowed == allowed) return;
  inside_->engines[compressor].allowed = allowed;
  inside_->fresh = true;
}

Expected<RunEnd> Simulation::run(double until, std::span<const Watch> watches, double every,
                                 const std::function<void()>& look, const Stopped& stopped) {
  Inside& in = *inside_;
  in.watched.assign(watches.begin(), watches.end());
  const auto stuck = [&] {
    return refuse(words("The simulation got stuck after {0}: no balance of air and load can be followed from there."),
                  {Amount{in.time, Kind::time, -1, {}}});
  };
  const std::size_t switches = in.engines.size(), roots = switches + watches.size();
  if (CVodeRootInit(in.cvode, static_cast<int>(roots), roots ? &Inside::crossings : nullptr) != CV_SUCCESS)
    return stuck();
  in.throw_switches();
  if (!watches.empty()) in.fresh = true;
  const long before = in.steps;
  double next_look = every > 0 ? in.time + every : INFINITY;
  while (in.time < until) {
    if (in.fresh) {
      if (CVodeReInit(in.cvode, in.time, in.unknowns) != CV_SUCCESS) return stuck();
      in.fresh = false;
      in.counted = 0;
    }
    const double stop = std::fmin(until, in.next_warmth());
    const double goal = std::fmin(stop, next_look);
    double reached = in.time;
    if (stop - in.time > 1e-9) {
      if (CVodeSetStopTime(in.cvode, stop) != CV_SUCCESS) return stuck();
      const int how = CVode(in.cvode, goal, in.unknowns, &reached, CV_NORMAL);
      long made = 0;
      CVodeGetNumSteps(in.cvode, &made);
      in.steps += made - in.counted; // the integrator counts from its last beginning
      in.counted = made;
      if (how == CV_TOO_MUCH_WORK) {
        in.pass(reached);
        if (stopped && stopped()) return refuse(words("Stopped."));
        if (in.steps - before > most_steps) return stuck();
        continue;
      }
      if (how < 0 || !in.read()) return stuck();
      in.pass(reached);
      if (how == CV_ROOT_RETURN) {
        std::vector<int> met(roots);
        if (CVodeGetRootInfo(in.cvode, met.data()) != CV_SUCCESS) return stuck();
        for (std::size_t c = 0; c < switches; ++c)
          if (met[c]) in.engines[c].wants = !in.engines[c].wants, in.fresh = true;
        for (std::size_t w = 0; w < watches.size(); ++w)
          if (met[switches + w]) return RunEnd{w};
      }
    } else {
      in.pass(stop);
    }
    in.rest_and_wake();
    if (in.time >= next_look - 1e-12) {
      if (look) look();
      if (stopped && stopped()) return refuse(words("Stopped."));
      next_look += every;
    }
  }
  return RunEnd{};
}

} // namespace mavrel::air
