#include "control/drive.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <stop_token>

namespace mavrel::control {

namespace {

constexpr double dt = RollingCar::longest_step;
constexpr int steps_a_bin = 32;    // a tenth of a second
constexpr int bins_averaged = 100; // ten seconds
constexpr int bins_a_look = 5;
constexpr double settle_begins = 0.5, settle_looked = 2.0; // s after a correction, over which it is judged
constexpr double stays_out = 10;   // s more than the controller needs to answer: longer out of the band is not back
constexpr int last_bins = 600;     // the last minute
constexpr double learns_after = 4; // s that the car gets to come to rest
constexpr double first_burst = 0.1, longest_burst = 1.6; // s
constexpr double learned_enough = 0.012;                 // m

/// A circuit's valves as they are, a little behind what is ordered.
struct Valve {
  ValveOrder is = ValveOrder::shut;
  double opened = 0; // s
};

/// The heights of one end as they are judged: their mean over ten seconds.
struct Judge {
  Average ten{bins_averaged}, minute_lean{last_bins};
  double sum_error = 0, worst_low = 0;
  long bins = 0, in_band = 0;
  double out_since = -1;     // s; below 0: it is in the band
  double last_long_out = -1; // s, when the last long absence ended
  std::vector<float> errors; // m, one a bin

  /// What all but a twentieth of these stay below.
  [[nodiscard]] static double usual(std::vector<float> of) {
    if (of.empty()) return 0;
    const auto at = of.begin() + static_cast<std::ptrdiff_t>(of.size() * 19 / 20);
    std::nth_element(of.begin(), at, of.end());
    return std::fmax(0, static_cast<double>(*at));
  }
  [[nodiscard]] double usual_low() const {
    std::vector<float> low = errors;
    for (float& e : low)
      e = -e;
    return usual(std::move(low));
  }
  [[nodiscard]] double usual_off() const {
    std::vector<float> off = errors;
    for (float& e : off)
      e = std::abs(e);
    return usual(std::move(off));
  }

  /// @param since     s from which absences count  @param at_first  s up to which even a short one does
  void keep(double t, double mean, double lean, double target, double band, double patience, double since,
            double at_first) {
    ten.keep(mean), minute_lean.keep(lean);
    if (!ten.is_full()) return;
    const double error = ten.mean() - target;
    ++bins, sum_error += std::abs(error);
    worst_low = std::fmax(worst_low, -error);
    const bool in = std::abs(error) <= band;
    in_band += in;
    errors.push_back(static_cast<float>(error));
    if (t < since) return;
    if (!in) {
      if (out_since < 0) out_since = t;
    } else if (out_since >= 0) {
      if (out_since < at_first || t - out_since > patience) last_long_out = t;
      out_since = -1;
    }
  }
};

/// How far past the wanted height a correction carried a circuit's corners.
struct Overshoot {
  double from = 0, sum = 0;
  long count = 0;
  double way = 0; // +1 up, −1 down, 0: nothing to be judged
  double worst = 0;

  void begin(double t, ValveOrder valve) {
    from = t + settle_begins, sum = 0, count = 0, way = valve == ValveOrder::fill ? 1 : -1;
  }
  void keep(double t, double error) {
    if (way == 0 || t < from) return;
    sum += error, ++count;
    if (t - from >= settle_looked) end();
  }
  void end() {
    if (way != 0 && count > 0) worst = std::fmax(worst, way * sum / static_cast<double>(count));
    way = 0;
  }
};

class Driver {
public:
  Driver(const DriveGiven& given, const std::stop_token& stop, bool looks)
      : g_(given), stop_(stop), looks_(looks), car_(given.car),
        trip_(given.profile, given.speed, given.duration, given.seed),
        controller_(given.rules, circuits(given), given.target, given.pressure, given.gauge_error, given.seed),
        chance_(given.seed ^ 0x73656e736fULL), valves_(given.circuits.size()), past_(given.circuits.size()) {
    for (const ValvePair& pair : given.circuits)
      out_.circuits.push_back(pair.corners);
    ambient_temperature_ = given.car.network.ambient_temperature;
    // A road is never as level as the floor it was set up on: it begins at rest where it is to start from.
    stand_at(wheelbase());
    car_.settle(road_);
    for (std::size_t i = 0; i < given.car.network.compressors.size(); ++i)
      ran_before_ += car_.air().run_time(i);
    for (std::size_t c = 0; c < 4; ++c)
      out_.lowest[c] = out_.highest[c] = car_.height(c);
    for (const TripEvent& e : given.events)
      if (e.kind == TripEvent::Kind::load && e.at < first_load_) first_load_ = e.at, settles_by_ = e.at + e.over;
    patience_ = given.rules.average + given.rules.wait + stays_out;
    settles_by_ += patience_;
  }

  std::optional<DriveResult> run() {
    const auto begun = std::chrono::steady_clock::now();
    const auto steps = static_cast<long>(std::lround(g_.duration / dt));
    const double sample = 1 / g_.rules.samples;
    double next_sample = 0, x = wheelbase();
    for (long i = 0; i < steps; ++i) {
      const double t = static_cast<double>(i) * dt;
      if (i % 4000 == 0 && stop_.stop_requested()) return std::nullopt;
      if (i % steps_a_bin == 0) events(t);
      const Pace pace = trip_.at(t);
      if (t >= next_sample - 1e-9) {
        controller_.read(t, readings(pace));
        next_sample += sample;
      }
      work_valves(t);
      if (pace.speed > 0) stand_at(x);
      car_.step(dt, road_, pace);
      x += pace.speed * dt;
      keep(i, t + dt, pace);
    }
    finish();
    out_.simulated = static_cast<double>(steps) * dt;
    out_.wall = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
    return std::move(out_);
  }

private:
  [[nodiscard]] double wheelbase() const { return g_.car.corners[0].forward - g_.car.corners[2].forward; }
  /// @param x  m along the road, of the front wheels
  void stand_at(double x) {
    const auto front = g_.road->at(x), rear = g_.road->at(x - wheelbase());
    road_ = {front[0], front[1], rear[0], rear[1]};
  }

  static std::vector<CircuitCorners> circuits(const DriveGiven& given) {
    std::vector<CircuitCorners> out;
    for (std::size_t i = 0; i < given.circuits.size(); ++i)
      out.push_back({given.circuits[i].corners, given.gains[i]});
    return out;
  }

  void events(double t) {
    double mass = 0, behind = 0, left = 0, warmer = 0, higher = 0;
    doors_ = false;
    for (const TripEvent& e : g_.events) {
      const double share = e.share(t);
      switch (e.kind) {
      case TripEvent::Kind::load:
        mass += share * e.mass, behind += share * e.mass * e.x, left += share * e.mass * e.y;
        doors_ = doors_ || (t >= e.at && t < e.at + e.over) || (e.until && t >= *e.until && t < *e.until + e.over);
        break;
      case TripEvent::Kind::air_temperature:
        warmer += share * e.by;
        break;
      case TripEvent::Kind::altitude:
        higher += share * e.by;
        break;
      }
    }
    car_.carry(mass, behind, left);
    if (warmer == was_warmer_ && higher == was_higher_) return;
    was_warmer_ = warmer, was_higher_ = higher;
    const double T = ambient_temperature_ + warmer;
    car_.air().surround(air::Ambient{g_.altitude + higher, T}.pressure(), T);
  }

  ControlReadings readings(const Pace& pace) {
    ControlReadings out;
    for (std::size_t c = 0; c < 4; ++c) {
      out.pressure[c] = car_.gauge_pressure(c);
      const SensorReading& s = g_.sensors[c];
      out.height[c] = car_.height(c);
      if (!(s.counts_per_metre > 0)) continue;
      const double counts = (out.height[c] - g_.target[c]) * s.counts_per_metre + s.noise * chance_.normal();
      out.height[c] = g_.target[c] + std::round(counts) / s.counts_per_metre;
    }
    out.forward = pace.forward, out.left = pace.left, out.doors = doors_;
    return out;
  }

  void work_valves(double t) {
    for (std::size_t i = 0; i < valves_.size(); ++i) {
      Valve& v = valves_[i];
      const ValveOrder wanted = controller_.order(i, t - g_.rules.valve_delay);
      if (v.is == wanted) continue;
      if (v.is != ValveOrder::shut) shut(i, t);
      v.is = wanted;
      if (v.is != ValveOrder::shut) {
        v.opened = t;
        past_[i].end();
        car_.air().open(v.is == ValveOrder::fill ? g_.circuits[i].fill : g_.circuits[i].vent, true);
      }
    }
  }

  void shut(std::size_t i, double t) {
    Valve& v = valves_[i];
    car_.air().open(v.is == ValveOrder::fill ? g_.circuits[i].fill : g_.circuits[i].vent, false);
    out_.bursts.push_back({i, v.is, v.opened, t});
    past_[i].begin(t, v.is);
  }

  void keep(long i, double t, const Pace& pace) {
    for (std::size_t c = 0; c < 4; ++c) {
      const double H = car_.height(c);
      bin_[c] += H;
      out_.lowest[c] = std::fmin(out_.lowest[c], H), out_.highest[c] = std::fmax(out_.highest[c], H);
      if (look_.lowest[c] == 0 || H < look_.lowest[c]) look_.lowest[c] = static_cast<float>(H);
      if (H > look_.highest[c]) look_.highest[c] = static_cast<float>(H);
    }
    if ((i + 1) % steps_a_bin != 0) return;
    for (double& sum : bin_)
      sum /= steps_a_bin;
    for (std::size_t end = 0; end < 2; ++end) {
      const double left = bin_[2 * end], right = bin_[2 * end + 1];
      ends_[end].keep(t, (left + right) / 2, left - right, (g_.target[2 * end] + g_.target[2 * end + 1]) / 2,
                      g_.rules.band, patience_, first_load_, settles_by_);
    }
    for (std::size_t k = 0; k < past_.size(); ++k) {
      double error = 0;
      for (const std::size_t c : g_.circuits[k].corners)
        error += (bin_[c] - g_.target[c]) / static_cast<double>(g_.circuits[k].corners.size());
      past_[k].keep(t, error);
    }
    for (std::size_t c = 0; c < 4; ++c)
      pressures_[c].keep(car_.gauge_pressure(c));
    for (std::size_t c = 0; c < 4; ++c)
      look_.height[c] += static_cast<float>(bin_[c]) / bins_a_look;
    bin_ = {};
    if ((i + 1) % (steps_a_bin * bins_a_look) != 0) return;
    if (looks_) {
      look_.time = static_cast<float>(t);
      look_.tank = static_cast<float>(car_.air().gauge_pressure(g_.car.tank));
      look_.speed = static_cast<float>(pace.speed);
      out_.looks.push_back(look_);
    }
    look_ = {};
  }

  void finish() {
    for (std::size_t i = 0; i < valves_.size(); ++i) {
      if (valves_[i].is != ValveOrder::shut) shut(i, g_.duration);
      past_[i].end();
    }
    for (std::size_t end = 0; end < 2; ++end) {
      DriveFigures& f = out_.ends[end];
      const Judge& judge = ends_[end];
      f.mean_error = judge.bins ? judge.sum_error / static_cast<double>(judge.bins) : 0;
      f.in_band = judge.bins ? static_cast<double>(judge.in_band) / static_cast<double>(judge.bins) : 0;
      f.worst_low = judge.worst_low;
      f.usual_off = judge.usual_off(), f.usual_low = judge.usual_low();
      if (!judge.minute_lean.is_empty()) f.lean = judge.minute_lean.mean();
      if (std::isfinite(first_load_) && judge.out_since < 0)
        f.recover = judge.last_long_out < 0 ? 0 : judge.last_long_out - first_load_;
    }
    for (const Burst& b : out_.bursts) {
      DriveFigures& f = out_.ends[g_.circuits[b.circuit].corners.front() / 2];
      ++f.bursts, f.valve_s += b.until - b.from;
    }
    for (std::size_t i = 0; i < g_.circuits.size(); ++i) {
      DriveFigures& f = out_.ends[g_.circuits[i].corners.front() / 2];
      f.air += car_.air().passed(g_.circuits[i].fill);
      f.overshoot = std::fmax(f.overshoot, past_[i].worst);
    }
    DriveFigures& all = out_.together;
    const auto &a = out_.ends[0], &b = out_.ends[1];
    all.mean_error = (a.mean_error + b.mean_error) / 2, all.in_band = (a.in_band + b.in_band) / 2;
    all.usual_off = std::fmax(a.usual_off, b.usual_off), all.usual_low = std::fmax(a.usual_low, b.usual_low);
    all.worst_low = std::fmax(a.worst_low, b.worst_low), all.overshoot = std::fmax(a.overshoot, b.overshoot);
    all.bursts = a.bursts + b.bursts, all.valve_s = a.valve_s + b.valve_s, all.air = a.air + b.air;
    all.lean = std::abs(a.lean) > std::abs(b.lean) ? a.lean : b.lean;
    if (a.recover && b.recover) all.recover = std::fmax(*a.recover, *b.recover);
    for (std::size_t i = 0; i < g_.car.network.compressors.size(); ++i)
      out_.compressor_s += car_.air().run_time(i);
    out_.compressor_s -= ran_before_;
    out_.bottomed = car_.bottomed(), out_.topped = car_.topped();
    out_.tank_after = car_.air().gauge_pressure(g_.car.tank);
    for (std::size_t c = 0; c < 4; ++c)
      out_.pressure_after[c] = pressures_[c].is_empty() ? car_.gauge_pressure(c) : pressures_[c].mean();
  }

  const DriveGiven& g_;
  std::stop_token stop_;
  bool looks_;
  RollingCar car_;
  Trip trip_;
  Controller controller_;
  Chance chance_;
  std::vector<Valve> valves_;
  std::vector<Overshoot> past_;
  std::array<Judge, 2> ends_;
  std::array<Average, 4> pressures_{Average(bins_averaged), Average(bins_averaged), Average(bins_averaged),
                                    Average(bins_averaged)};
  std::array<double, 4> road_{}, bin_{};
  DriveLook look_;
  DriveResult out_;
  double first_load_ = INFINITY, settles_by_ = 0, patience_ = 0;
  double ran_before_ = 0; // s that the compressors ran while it came to rest
  double ambient_temperature_ = 0, was_warmer_ = 0, was_higher_ = 0;
  bool doors_ = false;
};

} // namespace

std::optional<DriveResult> drive(const DriveGiven& given, const std::stop_token& stop, bool looks) {
  return Driver(given, stop, looks).run();
}

namespace {

/// One burst at one circuit of a car that has come to rest, and what it left.
struct Tried {
  double moved = 0, pressure = 0;  // m and Pa, of the circuit's corners
  std::array<double, 4> corners{}; // m
};
Tried try_burst(const RollingCarParts& parts, const ValvePair& circuit, bool up, double seconds) {
  RollingCar car(parts);
  const auto rest = [&](double time) {
    for (double t = 0; t < time; t += dt)
      car.step(dt, {}, {});
  };
  const double each = 1 / static_cast<double>(circuit.corners.size());
  rest(learns_after);
  Tried out;
  for (std::size_t c = 0; c < 4; ++c)
    out.corners[c] = -car.height(c);
  for (const std::size_t c : circuit.corners)
    out.pressure -= car.gauge_pressure(c) * each;
  const std::size_t line = up ? circuit.fill : circuit.vent;
  car.air().open(line, true);
  rest(seconds);
  car.air().open(line, false);
  rest(learns_after);
  for (std::size_t c = 0; c < 4; ++c)
    out.corners[c] += car.height(c);
  for (const std::size_t c : circuit.corners)
    out.moved += out.corners[c] * each, out.pressure += car.gauge_pressure(c) * each;
  return out;
}

} // namespace

std::vector<LearnedBurst> learn_bursts(const RollingCarParts& parts, const std::vector<ValvePair>& circuits) {
  std::vector<LearnedBurst> out;
  for (const ValvePair& circuit : circuits) {
    LearnedBurst learned;
    for (const bool up : {true, false}) {
      // A short burst may not even break the friction: it is made longer until it moves something.
      double seconds = first_burst;
      Tried tried = try_burst(parts, circuit, up, seconds);
      while (std::abs(tried.moved) < learned_enough && seconds < longest_burst)
        tried = try_burst(parts, circuit, up, seconds *= 2);
      BurstBuys& buys = up ? learned.up : learned.down;
      buys = {seconds, tried.moved, tried.pressure, tried.corners};
    }
    out.push_back(learned);
  }
  return out;
}

std::vector<Gain> gains_of(const std::vector<LearnedBurst>& learned) {
  constexpr double goes = 0.75; // of the error with one burst
  // A burst that buys nothing teaches nothing: as much open valve as anybody would dare.
  const auto gain = [&](double seconds, double bought, double least) {
    return goes * seconds / std::fmax(std::abs(bought), least);
  };
  std::vector<Gain> out;
  for (const LearnedBurst& l : learned)
    out.push_back({gain(l.up.seconds, l.up.height, 1e-4), gain(l.down.seconds, l.down.height, 1e-4),
                   gain(l.up.seconds, l.up.pressure, 100), gain(l.down.seconds, l.down.pressure, 100)});
  return out;
}

} // namespace mavrel::control
