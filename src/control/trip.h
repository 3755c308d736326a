// How fast a car goes from moment to moment, how hard it brakes and how hard it bends; and what happens on the way.
#pragma once

#include "control/road_class.h"

#include <cstdint>
#include <optional>
#include <vector>

namespace mavrel::control {

/// The car's movement at one moment.
struct Pace {
  double speed = 0;   // m/s
  double forward = 0; // m/s², its speed grows by
  double left = 0;    // m/s², of a bend to the left
};

/// The movement of a whole drive, made from a profile and a seed. One thread's own.
class Trip {
public:
  /// @param speed     m/s, of a steady one
  /// @param duration  s
  /// Source: docs/models.md, "Drive".
  Trip(SpeedProfile profile, double speed, double duration, std::uint64_t seed);
  /// Standing still.
  Trip() : Trip(SpeedProfile::steady, 0, 1, 0) {}

  /// @param t  s, from 0; later than the drive it stands as it ends
  [[nodiscard]] Pace at(double t);
  [[nodiscard]] double length() const { return length_; } // m driven

private:
  struct Piece {
    double from = 0, until = 0; // s
    double speed = 0;           // m/s at its beginning
    double forward = 0, left = 0;
  };
  void add(double seconds, double forward, double left = 0);
  std::vector<Piece> pieces_; // one after the other
  std::size_t last_ = 0;      // the piece that was asked for last: time mostly goes on
  double length_ = 0;
};

/// Something that happens on the way and may end again.
struct TripEvent {
  enum class Kind { load, air_temperature, altitude };
  Kind kind = Kind::load;
  double at = 0, over = 20;      // s: from when, and how long it takes
  std::optional<double> until;   // s from when it goes back; none: never
  double mass = 0, x = 0, y = 0; // kg, m behind the front axle, m left
  double by = 0;                 // K or m
  /// How far it has come at a moment, 0 to 1.
  [[nodiscard]] double share(double t) const;
  friend bool operator==(const TripEvent&, const TripEvent&) = default;
};

} // namespace mavrel::control
