#include "assess/leveling/tuning.h"

#include "assess/leveling/leveling_findings.h"
#include "parallel/in_parallel.h"

#include <algorithm>
#include <chrono>
#include <cmath>
#include <mutex>

namespace mavrel::assess {

namespace {

constexpr std::size_t first_tries = 80, near_tries = 40;
constexpr double ranges[4][2] = {{0.5, 12}, {0.001, 0.015}, {0.5, 12}, {0.3, 1.4}}; // s, m, s, of what bursts buy
constexpr double near_by = 0.12;                                                    // of a range, around the best

/// A row of points that fills four dimensions evenly: the generalised golden ratio's.
std::array<double, 4> even_point(std::size_t i) {
  constexpr double phi = 1.1673039782614187; // x⁵ = x + 1
  std::array<double, 4> out{};
  double a = 1;
  for (double& x : out) {
    a /= phi;
    x = std::fmod(0.5 + a * static_cast<double>(i + 1), 1.0);
  }
  return out;
}

double along(const double (&range)[2], double share) {
  return range[0] * std::pow(range[1] / range[0], std::clamp(share, 0.0, 1.0));
}

class Tuner {
public:
  Tuner(const LevelingGiven& given, const TuningControl& control, const LearnedCar& car)
      : given_(given), control_(control), car_(car), road_(road_of(given)), base_(given.leveling.set_up().rules) {
    const auto gains = control::gains_of(car.learned);
    for (const control::Gain& g : gains) {
      gain_ += (g.up + g.down) / 2 / static_cast<double>(gains.size());
      pressure_gain_ += (g.pressure_up + g.pressure_down) / 2 / static_cast<double>(gains.size());
    }
  }

  std::optional<Tuning> run() {
    out_.spare = spare_travel(given_.air.ends, given_.bump_travel);
    std::vector<control::Rules> tries = {base_};
    std::vector<std::array<double, 4>> places = {{}};
    for (std::size_t i = 0; i < first_tries; ++i) {
      places.push_back(even_point(i));
      tries.push_back(rules_at(places.back()));
    }
    if (!drive_all(tries)) return std::nullopt;
    judge();
    // Again around the best, nearer.
    std::vector<std::array<double, 4>> best;
    for (std::size_t i = 1; i < out_.points.size(); ++i)
      if (out_.points[i].best) best.push_back(places[i]);
    tries.clear();
    for (std::size_t i = 0; i < near_tries && !best.empty(); ++i) {
      auto place = best[i % best.size()];
      const auto aside = even_point(1000 + i);
      for (std::size_t k = 0; k < 4; ++k)
        place[k] = std::clamp(place[k] + near_by * (2 * aside[k] - 1), 0.0, 1.0);
      tries.push_back(rules_at(place));
    }
    if (!drive_all(tries)) return std::nullopt;
    judge();
    return std::move(out_);
  }

private:
  [[nodiscard]] control::Rules rules_at(const std::array<double, 4>& share) const {
    control::Rules out = base_;
    out.average = along(ranges[0], share[0]);
    const double band = along(ranges[1], share[1]);
    out.band = band;
    // A pressure's band goes with the height's: as much as the kept one is of the kept height's.
    out.pressure_band = base_.pressure_band * band / base_.band;
    out.wait = along(ranges[2], share[2]);
    out.gain = gain_ * along(ranges[3], share[3]);
    out.pressure_gain = pressure_gain_ * along(ranges[3], share[3]);
    return out;
  }

  bool drive_all(const std::vector<control::Rules>& tries) {
    const std::size_t before = out_.points.size();
    out_.points.resize(before + tries.size());
    std::mutex lock;
    in_parallel(tries.size(), {control_.threads, control_.stop, {}}, [&](std::size_t i) {
      const auto result = control::drive(drive_given(given_, car_, tries[i], road_), control_.stop, false);
      if (!result) return;
      const double hours = result->simulated / 3600;
      TuningPoint& p = out_.points[before + i];
      p.rules = tries[i];
      p.off = result->together.usual_off, p.low = result->together.usual_low;
      p.air = result->together.air / hours, p.bursts = result->together.bursts / hours;
      p.valve = result->together.valve_s / hours, p.compressor = result->compressor_s / hours;
      p.spared = p.low <= out_.spare;
      const std::scoped_lock hold(lock);
      ++done_;
      if (control_.progress) control_.progress(static_cast<double>(done_) / (1 + first_tries + near_tries));
    });
    return !control_.stop.stop_requested();
  }

  void judge() {
    const auto as_good = [](const TuningPoint& a, const TuningPoint& b) {
      return a.off <= b.off && a.air <= b.air && a.bursts <= b.bursts;
    };
    const auto better = [&](const TuningPoint& a, const TuningPoint& b) {
      return as_good(a, b) && (a.off < b.off || a.air < b.air || a.bursts < b.bursts);
    };
    for (TuningPoint& p : out_.points)
      p.best = std::none_of(out_.points.begin(), out_.points.end(),
                            [&](const TuningPoint& other) { return better(other, p); });
    // Of those that are spared the least air, then bursts, then error.
    const auto work = [](const TuningPoint& p) { return std::tuple(p.air, p.bursts, p.off); };
    out_.proposed.reset();
    for (std::size_t i = 0; i < out_.points.size(); ++i) {
      const TuningPoint& p = out_.points[i];
      if (p.spared && p.best && (!out_.proposed || work(p) < work(out_.points[*out_.proposed]))) out_.proposed = i;
    }
  }

  const LevelingGiven& given_;
  const TuningControl& control_;
  const LearnedCar& car_;
  std::shared_ptr<const control::Road> road_;
  control::Rules base_;
  double gain_ = 0, pressure_gain_ = 0;
  std::size_t done_ = 0;
  Tuning out_;
};

} // namespace

std::optional<Expected<Tuning>> tune(const LevelingGiven& given, const TuningControl& control) {
  const auto begun = std::chrono::steady_clock::now();
  const auto car = learned_car(given);
  if (!car) return Expected<Tuning>(refuse(car.error()));
  auto out = Tuner(given, control, *car).run();
  if (!out) return std::nullopt;
  out->wall = std::chrono::duration<double>(std::chrono::steady_clock::now() - begun).count();
  return Expected<Tuning>(std::move(*out));
}

std::optional<std::size_t> nearest_to_spare(const Tuning& tuning) {
  const auto least = std::min_element(tuning.points.begin(), tuning.points.end(),
                                      [](const TuningPoint& a, const TuningPoint& b) { return a.low < b.low; });
  if (least == tuning.points.end()) return std::nullopt;
  return static_cast<std::size_t>(least - tuning.points.begin());
}

} // namespace mavrel::assess
