// Care in the document: the car's logbook, how it is used, what of it comes round, what was learned, and which car it
// was begun from.
#pragma once

#include "build/table.h"

namespace mavrel::build {

constexpr std::size_t most_intervals = 40, most_log = 6000, most_lessons = 200, most_taken = 400;

/// What a line of the log says: something read, work done, something that happened, or only a remark.
enum class LogKind { reading, work, event, remark };

/// One line of the log. Its id is unlike any other's, of this program or another, so that logs can be joined.
struct LogEntry {
  std::string id;
  std::string day; // `2026-11-26` or `2026-11-26 10:15`
  LogKind kind = LogKind::remark;
  std::string what;  // of work the task, of an event its kind, of a reading what was read: `drain`, `crash`, `height`
  std::string where; // `front_left`, `rear`; empty: the car
  std::optional<double> odometer;    // m
  std::optional<double> height;      // m, H
  std::optional<double> pressure;    // Pa gauge
  std::optional<double> temperature; // K
  std::optional<double> seconds;     // s: how long something took
  std::optional<double> hourly_loss; // share of its air that a corner loses an hour
  std::optional<double> water;       // kg drained
  std::string by, text;
  Extra extra;
  friend bool operator==(const LogEntry&, const LogEntry&) = default;
};

/// How often a task comes round on this car, instead of what is worked out or usual.
struct CareInterval {
  std::string task; // `drain`
  YesNo wanted = YesNo::yes;
  std::optional<double> days;     // s
  std::optional<double> distance; // m
  Extra extra;
  friend bool operator==(const CareInterval&, const CareInterval&) = default;
};

/// What had to be changed, and why: for the next car like it.
struct Lesson {
  std::string day;
  std::string what, why;
  std::string where;           // `front`, `rear`; empty: the car
  std::string stage;           // key of a stage; empty: all of it
  std::optional<double> hours; // s that it cost
  std::string by;
  Extra extra;
  friend bool operator==(const Lesson&, const Lesson&) = default;
};

struct Care {
  std::string from;                   // day that its intervals count from; empty: it is not on the road yet
  double distance_year = 1.2e7;       // m
  double winter_temperature = 275.15; // K, mean of the coldest month
  double summer_temperature = 293.15; // K, of the warmest
  double winter_humidity = 0.85;      // relative
  double summer_humidity = 0.65;
  YesNo winter_in_july = YesNo::no;  // south of the equator
  YesNo rests_in_winter = YesNo::no; // stands still over the three coldest months
  double soon = 14 * 86400.0;        // s before it is due that something is told
  std::vector<CareInterval> intervals;
  List<LogEntry> log;
  std::vector<Lesson> lessons;
  Extra extra;
  friend bool operator==(const Care&, const Care&) = default;
};

/// A figure that was taken over from another car: it stands as such while it is what it was then.
struct Taken {
  std::string path;   // `front.cycle`, `rear.obstacles`
  std::string digest; // of what was taken over
  Extra extra;
  friend bool operator==(const Taken&, const Taken&) = default;
};

/// The car that a build was begun from.
struct Origin {
  std::string car, number, file, day;
  std::vector<Taken> taken; // what of it was neither measured again nor confirmed
  Extra extra;
  friend bool operator==(const Origin&, const Origin&) = default;
};

template <>
const Table& table_of<LogEntry>();
template <>
const Table& table_of<CareInterval>();
template <>
const Table& table_of<Lesson>();
template <>
const Table& table_of<Care>();
template <>
const Table& table_of<Taken>();
template <>
const Table& table_of<Origin>();

} // namespace mavrel::build
