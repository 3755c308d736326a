#include "assess/air/lift.h"

#include <algorithm>
#include <cmath>
#include <stop_token>

namespace mavrel::assess {

namespace {

constexpr double look_every = 0.025;    // s
constexpr double arrived_within = 2e-3; // m: as near as a person or controller asks for
constexpr double longest_phase = 600;   // s
constexpr double patience = 8;          // s without a tenth of a millimetre, nor a bag that fills or empties
constexpr double fills = 1e3;           // Pa that say so
constexpr double off_the_stop = 2e-4;   // m: a corner meant to lie on a stop is there when this near
constexpr int trims = 4;

Expected<Lift> stopped() {
  return refuse(words("Stopped."));
}

} // namespace

std::array<double, 4> ValveWorker::within_stops(const std::array<double, 4>& target) const {
  std::array<double, 4> out = target;
  for (std::size_t c = 0; c < 4; ++c)
    out[c] = std::clamp(out[c], car_.travel[c].first + off_the_stop, car_.travel[c].second - off_the_stop);
  return out;
}

bool ValveWorker::all_there(const std::array<double, 4>& target) const {
  for (const CarAir::Circuit& circuit : car_.circuits)
    for (const std::size_t c : circuit.corners)
      if (std::abs(height(c) - target[c]) > arrived_within) return false;
  return true;
}

double ValveWorker::off(const CarAir::Circuit& circuit, const std::array<double, 4>& target) const {
  double out = 0;
  for (const std::size_t c : circuit.corners)
    out += (target[c] - height(c)) / static_cast<double>(circuit.corners.size());
  return out;
}

Expected<bool> ValveWorker::phase(const std::vector<std::size_t>& circuits, const std::array<double, 4>& target,
                                  double good_enough, const std::function<void()>& look) {
  struct Open {
    std::size_t circuit, line;
    double level;
    bool up;
    double last = 0, pressure = 0, since = 0; // where it last stood, with what in its bag, and when that was
  };
  std::vector<Open> open;
  for (const std::size_t i : circuits) {
    const CarAir::Circuit& circuit = car_.circuits[i];
    const double more = off(circuit, target);
    if (std::abs(more) < good_enough) continue;
    double level = 0;
    for (const std::size_t c : circuit.corners)
      level += target[c] / static_cast<double>(circuit.corners.size());
    open.push_back({i, more > 0 ? circuit.fill : circuit.vent, level, more > 0, off(circuit, target), 0, now_.time()});
    now_.open(open.back().line, true);
  }
  const auto pressure = [&](const Open& o) {
    return now_.volumes()[car_.bags[car_.circuits[o.circuit].corners.front()]].gauge_pressure;
  };
  for (Open& o : open)
    o.pressure = pressure(o);
  const double begun = now_.time();
  bool all = true;
  const auto shut = [&](std::size_t at) {
    now_.open(open[at].line, false);
    open.erase(open.begin() + static_cast<std::ptrdiff_t>(at));
  };
  while (!open.empty()) {
    std::vector<air::Watch> watches;
    for (const Open& o : open) {
      const CarAir::Circuit& circuit = car_.circuits[o.circuit];
      air::Watch watch;
      watch.what = circuit.corners.size() == 1 ? air::Watch::What::height : air::Watch::What::mean_height;
      watch.leg = circuit.corners.front(), watch.other_leg = circuit.corners.back();
      watch.level = o.level;
      watches.push_back(watch);
    }
    const auto ended = now_.run(now_.time() + 1, watches, look_every, look, [&] { return stop_.stop_requested(); });
    if (!ended) return refuse(ended.error());
    if (ended->watch) {
      shut(*ended->watch);
      continue;
    }
    for (std::size_t i = open.size(); i-- > 0;) {
      Open& o = open[i];
      const double rest = off(car_.circuits[o.circuit], target);
      if (std::abs(rest - o.last) > 1e-4 || std::abs(pressure(o) - o.pressure) > fills)
        o.last = rest, o.pressure = pressure(o), o.since = now_.time();
      if (o.up ? rest <= 0 : rest >= 0) { // it was there before it was watched
        shut(i);
      } else if (now_.time() - o.since > patience || now_.time() - begun > longest_phase) {
        if (std::abs(rest) > arrived_within && std::abs(rest) > std::abs(short_by_)) {
          stuck_ = circuit_name(car_.circuits[o.circuit].corners);
          short_by_ = rest;
        }
        all = all && std::abs(rest) <= arrived_within;
        shut(i);
      }
    }
  }
  return all;
}

Expected<std::optional<double>> ValveWorker::move_to(const std::array<double, 4>& wanted, build::MoveOrder order,
                                                     const std::function<void()>& look) {
  const auto target = within_stops(wanted);
  stuck_.clear(), short_by_ = 0;
  const double begun = now_.time();
  std::vector<std::size_t> front, rear, all;
  for (std::size_t i = 0; i < car_.circuits.size(); ++i) {
    (car_.circuits[i].corners.front() < 2 ? front : rear).push_back(i);
    all.push_back(i);
  }
  std::vector<std::vector<std::size_t>> phases;
  switch (order) {
  case build::MoveOrder::together:
    phases = {all};
    break;
  case build::MoveOrder::front_first:
    phases = {front, rear};
    break;
  case build::MoveOrder::rear_first:
    phases = {rear, front};
    break;
  case build::MoveOrder::one_by_one:
    for (const std::size_t i : all)
      phases.push_back({i});
    break;
  }
  bool arrives = true;
  for (const auto& circuits : phases) {
    const auto done = phase(circuits, target, 5e-4, look);
    if (!done) return refuse(done.error());
    arrives = arrives && *done;
  }
  // One corner's air carries its neighbours along: what that leaves is put right.
  for (int i = 0; i < trims && arrives && !all_there(target); ++i) {
    const auto done = phase(all, target, 1e-3, look);
    if (!done) return refuse(done.error());
    arrives = *done;
  }
  // Circuits that share their air keep what the car leans by: the mean of an end is all they can set.
  const auto means_there = [&] {
    for (const CarAir::Circuit& circuit : car_.circuits)
      if (std::abs(off(circuit, target)) > arrived_within) return false;
    return true;
  };
  if (!arrives || !means_there()) return std::optional<double>();
  return std::optional(now_.time() - begun);
}

Expected<bool> ValveWorker::air_out(const std::function<void()>& look) {
  constexpr double nothing_left = 2e3; // Pa: the last of it takes for ever
  std::vector<std::size_t> open;
  const auto pressure = [&](std::size_t i) {
    return now_.volumes()[car_.bags[car_.circuits[i].corners.front()]].gauge_pressure;
  };
  for (std::size_t i = 0; i < car_.circuits.size(); ++i)
    if (pressure(i) > nothing_left) open.push_back(i), now_.open(car_.circuits[i].vent, true);
  const double begun = now_.time();
  while (!open.empty() && now_.time() - begun < longest_phase) {
    std::vector<air::Watch> watches;
    for (const std::size_t i : open) {
      air::Watch& watch = watches.emplace_back();
      watch.what = air::Watch::What::pressure;
      watch.volume = car_.bags[car_.circuits[i].corners.front()];
      watch.level = nothing_left;
    }
    const auto ended = now_.run(now_.time() + 5, watches, look_every, look, [&] { return stop_.stop_requested(); });
    if (!ended) return refuse(ended.error());
    std::erase_if(open, [&](std::size_t i) {
      if (pressure(i) > nothing_left + 1) return false;
      now_.open(car_.circuits[i].vent, false);
      return true;
    });
  }
  for (const std::size_t i : open)
    now_.open(car_.circuits[i].vent, false);
  return open.empty();
}

std::optional<Standing> standing_of(const AirGiven& given, std::size_t preset) {
  const auto heights = heights_of(given, preset);
  if (!heights) return std::nullopt;
  Standing out{*heights, false};
  if (given.uses[preset] != build::PresetUse::parked || given.parked[preset] != build::ParkedHow::aired_out) return out;
  for (const End end : build::both_ends) {
    if (on_springs(given, end)) continue;
    const FittedEnd& fitted = given.ends[build::at(end)]->fitted;
    const auto travel = fitted.model.map && fitted.bag ? standing_travel(fitted) : std::nullopt;
    if (!travel) return out; // what is missing is said where it is asked for
    out.heights[build::at(end)] = travel->first;
  }
  out.aired_out = true;
  return out;
}

std::optional<std::array<double, 2>> heights_of(const AirGiven& given, std::size_t preset) {
  std::array<double, 2> out{};
  for (const End end : build::both_ends) {
    if (on_springs(given, end)) { // it stands as it was surveyed, whatever is wished
      const auto& surveyed = given.ends[build::at(end)]->fitted.model.surveyed_height;
      if (!surveyed || preset >= given.uses.size()) return std::nullopt;
      out[build::at(end)] = *surveyed;
      continue;
    }
    const auto& presets = given.ends[build::at(end)]->fitted.presets;
    if (preset >= presets.size() || !presets[preset]) return std::nullopt;
    out[build::at(end)] = *presets[preset];
  }
  return out;
}

std::array<double, 4> corners_of(const std::array<double, 2>& ends) {
  return {ends[0], ends[0], ends[1], ends[1]};
}

std::optional<std::size_t> preset_of(const AirGiven& given, build::PresetUse use) {
  for (std::size_t i = 0; i < given.uses.size(); ++i)
    if (given.uses[i] == use && heights_of(given, i)) return i;
  return std::nullopt;
}

namespace {

LiftLook look_at(const air::Simulation& now, const CarAir& car) {
  LiftLook out;
  out.time = now.time();
  for (std::size_t c = 0; c < 4; ++c) {
    out.height[c] = now.legs(0)[c].height;
    out.wheel_force[c] = now.legs(0)[c].wheel_force;
    out.pressure[c] = now.volumes()[car.bags[c]].gauge_pressure;
  }
  out.tank_pressure = now.volumes()[car.tank].gauge_pressure;
  out.tank_temperature = now.volumes()[car.tank].temperature;
  for (std::size_t i = 0; i < car.network.compressors.size(); ++i)
    out.compressor += now.running(i);
  return out;
}

void read_way(Lift& out) {
  const LiftLook &first = out.looks.front(), &last = out.looks.back();
  for (const LiftLook& look : out.looks) {
    for (const std::size_t left : {0U, 2U})
      out.worst_lean = std::fmax(out.worst_lean, std::abs(look.height[left] - look.height[left + 1]));
    double gone[2] = {};
    for (const std::size_t end : {0U, 1U}) {
      const double way = out.target[2 * end] - first.height[2 * end];
      const double now =
          (look.height[2 * end] + look.height[2 * end + 1] - first.height[2 * end] - first.height[2 * end + 1]) / 2;
      gone[end] = now - way;
    }
    out.worst_rake = std::fmax(out.worst_rake, std::abs(gone[0] - gone[1]));
    for (std::size_t c = 0; c < 4; ++c)
      if (const double load = look.wheel_force[c] / first.wheel_force[c]; load > out.most_load)
        out.most_load = load, out.most_load_corner = c;
  }
  for (std::size_t c = 0; c < 4; ++c) // since when it is there for good
    for (std::size_t i = out.looks.size(); i-- > 0;) {
      if (std::abs(out.looks[i].height[c] - out.target[c]) > arrived_within) break;
      out.arrived_at[c] = out.looks[i].time;
    }
  out.tank_after = last.tank_pressure;
}

} // namespace

Expected<Lift> simulate_move(const AirGiven& given, const MoveAsked& asked, bool with_throttles,
                             const std::stop_token& stop) {
  const auto from = standing_of(given, asked.from), to = standing_of(given, asked.to);
  if (!from || !to)
    return refuse(words("{0} is not wished for at both ends, or can't be worked out yet."),
                  {given.presets.size() > (from ? asked.to : asked.from) ? given.presets[from ? asked.to : asked.from]
                                                                         : std::string("?")});
  const auto full = full_tank(given);
  if (!full && !asked.tank_pressure)
    return refuse(words("The kit has no pressure switch: how full the tank is, nobody knows."));
  const auto car = car_air(given, {from->heights, asked.load_case, asked.tank_pressure.value_or(full.value_or(0)),
                                   asked.engine, from->aired_out, true});
  if (!car) return refuse(car.error());
  auto begun = air::Simulation::begin(car->network);
  if (!begun) return refuse(begun.error());
  air::Simulation& now = *begun;
  Lift out;
  const auto target = corners_of(to->heights);
  for (std::size_t c = 0; c < 4; ++c)
    out.target[c] = std::clamp(target[c], car->travel[c].first, car->travel[c].second);
  const double tank_before = now.volumes()[car->tank].mass;
  const auto look = [&] { out.looks.push_back(look_at(now, *car)); };
  look();
  ValveWorker worker(now, *car, stop);
  const auto arrived = worker.move_to(target, asked.order, look);
  if (!arrived) return stop.stop_requested() ? stopped() : Expected<Lift>(refuse(arrived.error()));
  out.arrived = *arrived;
  if (!out.arrived) out.stuck = worker.stuck(), out.short_by = worker.short_by();
  for (const CarAir::Circuit& circuit : car->circuits)
    if (const std::size_t c = circuit.corners.front(); std::abs(target[c] - out.target[c]) > preset_short_by) {
      // The preset lies past a stop: it gets as far as that, and is short by the rest.
      if (!out.on_stop) out.on_stop = out.arrived;
      out.arrived.reset();
      if (const double lacks = target[c] - worker.height(c); std::abs(lacks) > std::abs(out.short_by))
        out.stuck = circuit_name(circuit.corners), out.short_by = lacks;
    }
  out.air_used = tank_before - now.volumes()[car->tank].mass;
  for (std::size_t i = 0; i < car->network.compressors.size(); ++i)
    out.compressor_s += now.run_time(i);
  look();
  read_way(out);
  if (to->aired_out && (out.arrived || out.on_stop)) {
    const auto empty = worker.air_out(look);
    if (!empty) return stop.stop_requested() ? stopped() : Expected<Lift>(refuse(empty.error()));
    if (*empty) out.aired_out = now.time();
  }
  // What was squeezed warm cools, and the car settles.
  const auto before = out.looks.back().height;
  if (const auto ran = now.run(now.time() + 60, {}, 0, {}, [&] { return stop.stop_requested(); }); !ran)
    return stopped();
  for (std::size_t c = 0; c < 4; ++c)
    if (const double by = now.legs(0)[c].height - before[c]; std::abs(by) > std::abs(out.settled)) out.settled = by;
  out.steps = now.steps();
  if (!with_throttles) return out;
  // Of every end that moves: what stands in its way, in a lift from the tank, in a drop to the air around.
  for (const std::size_t corner : {0U, 2U}) {
    const double move = out.target[corner] - out.looks.front().height[corner];
    if (std::abs(move) < arrived_within || on_springs(given, corner < 2 ? End::front : End::rear)) continue;
    const auto way = move > 0 ? *way_to_bag(given, corner) : *way_out_of_bag(given, corner);
    const air::Restriction whole = whole_way(way);
    for (const AirStep& step : way) {
      if (!step.through) continue;
      const double share = step.count * air::share_of_loss(*step.through, whole);
      const auto same = std::find_if(out.throttles.begin(), out.throttles.end(),
                                     [&](const Throttle& t) { return t.role == step.role; });
      if (same == out.throttles.end())
        out.throttles.push_back({step.role, step.name, share, {}, {}});
      else
        same->share = std::fmax(same->share, share);
    }
  }
  std::stable_sort(out.throttles.begin(), out.throttles.end(),
                   [](const Throttle& a, const Throttle& b) { return a.share > b.share; });
  return out;
}

std::vector<NextSize> next_sizes(const AirGiven& given, const shelf::Shelf& shelf, Freely wanted) {
  std::vector<NextSize> out;
  for (const KitRole role : {KitRole::feed_fitting, KitRole::feed_line, KitRole::valves, KitRole::front_fitting,
                             KitRole::front_line, KitRole::rear_fitting, KitRole::rear_line, KitRole::silencer}) {
    const shelf::Part* now = given.parts[role];
    if (!now) continue;
    const auto freely = [&](const shelf::Part& part) {
      return part.kind == shelf::PartKind::line ? part.bore.value_or(0) : part.conductance.value_or(0);
    };
    const shelf::Part* best = nullptr;
    for (const shelf::ShelfPart& other : shelf.parts) {
      const double ratio = freely(other.part) / freely(*now);
      if (other.part.kind != now->kind || !(ratio > 0)) continue;
      if (wanted == Freely::more ? ratio < 1.001 : ratio > 0.999) continue;
      if (other.part.ways.value_or(1) < now->ways.value_or(1)) continue;
      if (!best || (freely(other.part) < freely(*best)) == (wanted == Freely::more)) best = &other.part;
    }
    if (best) out.push_back({role, *best});
  }
  return out;
}

std::optional<Expected<Lift>> answer_lift(const LiftGiven& given, const std::stop_token& stop) {
  Expected<Lift> out = simulate_move(given.air, given.asked, true, stop);
  if (!out) return stop.stop_requested() ? std::nullopt : std::optional(out);
  for (Throttle& throttle : out->throttles) {
    for (const NextSize& next : given.next) {
      if (next.role != throttle.role) continue;
      throttle.next = next.part.name;
      AirGiven other = given.air;
      other.parts.at(next.role) = next.part;
      const auto with = simulate_move(other, given.asked, false, stop);
      if (stop.stop_requested()) return std::nullopt;
      if (with && with->arrived && out->arrived) throttle.seconds_won = *out->arrived - *with->arrived;
    }
  }
  const auto begun = [&](Message what, AirGiven air, MoveAsked how) {
    how.engine = false;
    const auto other = simulate_move(air, how, false, stop);
    if (!other) return;
    out->others.push_back({std::move(what), other->arrived, other->stuck, other->short_by});
  };
  if (const auto cut = cut_pressures(given.air.parts); cut && !given.asked.tank_pressure) {
    MoveAsked low = given.asked;
    low.tank_pressure = cut->first;
    begun({words("with the tank at its cut-in of {0}"), {pascals(cut->first)}}, given.air, low);
  }
  if (const double frost = given.air.surroundings.night_temperature; frost < given.air.surroundings.temperature - 1) {
    AirGiven cold = given.air;
    cold.surroundings.temperature = frost;
    begun({words("at {0}"), {Amount{frost, Kind::temperature, 0, {}}}}, std::move(cold), given.asked);
  }
  if (stop.stop_requested()) return std::nullopt;
  // What wins most by its next size first; what has none keeps its place by its share of the loss.
  std::stable_sort(out->throttles.begin(), out->throttles.end(), [](const Throttle& a, const Throttle& b) {
    return a.seconds_won.value_or(0) > b.seconds_won.value_or(0);
  });
  return out;
}

} // namespace mavrel::assess
