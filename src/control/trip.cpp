#include "control/trip.h"

#include "control/road.h"

#include <algorithm>
#include <cmath>

namespace mavrel::control {

void Trip::add(double seconds, double forward, double left) {
  if (!(seconds > 0)) return;
  const double from = pieces_.empty() ? 0 : pieces_.back().until;
  const double speed =
      pieces_.empty() ? 0 : pieces_.back().speed + pieces_.back().forward * (from - pieces_.back().from);
  pieces_.push_back({from, from + seconds, std::fmax(0, speed), forward, left});
  length_ += seconds * (pieces_.back().speed + forward * seconds / 2);
}

Trip::Trip(SpeedProfile profile, double speed, double duration, std::uint64_t seed) {
  if (profile == SpeedProfile::steady) {
    pieces_.push_back({0, duration, speed, 0, 0});
    length_ = speed * duration;
    return;
  }
  Chance chance(seed ^ 0x7472697073ULL);
  const auto end = [&] { return pieces_.empty() ? 0.0 : pieces_.back().until; };
  const auto now = [&] {
    return pieces_.empty() ? 0.0 : pieces_.back().speed + pieces_.back().forward * (end() - pieces_.back().from);
  };
  const auto change_to = [&](double v, double up, double down) {
    const double a = v > now() ? up : -down;
    add((v - now()) / a, a);
  };
  const auto bend = [&](double hardest) { return chance.between(-hardest, hardest); };
  add(3, 0); // pulls away when it has stood for a breath
  while (end() < duration) {
    switch (profile) {
    case SpeedProfile::stop_and_go:
      change_to(chance.between(2, 8), 1.2, 1.5);
      add(chance.between(3, 12), 0);
      change_to(0, 1.2, 1.6);
      add(chance.between(3, 15), 0);
      break;
    case SpeedProfile::town:
      change_to(chance.between(8, 14), 1.6, 1.6);
      add(chance.between(8, 30), 0);
      if (chance.next() < 0.4) {
        change_to(0, 1.6, 2.0);
        add(chance.between(5, 30), 0);
      } else {
        change_to(chance.between(4, 7), 1.6, 1.8);
        add(chance.between(2, 4), 0, bend(3));
      }
      break;
    case SpeedProfile::country:
      change_to(chance.between(16, 25), 1.4, 1.6);
      add(chance.between(5, 30), 0);
      change_to(chance.between(13, 18), 1.2, 1.8);
      add(chance.between(3, 8), 0, bend(3));
      break;
    case SpeedProfile::motorway:
      change_to(chance.between(26, 36), 0.6, 0.5);
      add(chance.between(30, 180), 0, bend(0.6));
      break;
    case SpeedProfile::steady:
      break;
    }
  }
}

Pace Trip::at(double t) {
  if (last_ >= pieces_.size() || pieces_[last_].from > t) last_ = 0;
  while (last_ + 1 < pieces_.size() && pieces_[last_].until <= t)
    ++last_;
  const Piece& p = pieces_[last_];
  if (t > p.until) return {std::fmax(0, p.speed + p.forward * (p.until - p.from)), 0, 0};
  return {std::fmax(0, p.speed + p.forward * (t - p.from)), p.forward, p.left};
}

double TripEvent::share(double t) const {
  const double come = std::clamp((t - at) / over, 0.0, 1.0);
  const double gone = until ? std::clamp((t - *until) / over, 0.0, 1.0) : 0;
  return come - gone;
}

} // namespace mavrel::control
