// What of a car comes round and when: tasks by day, by distance, by the water that its air brings in, and by what
// happened to it; and how what was read of it goes over the years.
#pragma once

#include "assess/air/wet.h"
#include "assess/care/care_given.h"
#include "build/care.h"
#include "work/day.h"

#include <span>

namespace mavrel::assess {

/// Something that is done to a car again and again.
struct CareTask {
  const char* key; // `drain`; work of the log is called so
  const char* name;
  const char* how;
  double days;                       // between, usual; 0: not by days
  double distance;                   // m between, usual; 0: not by distance
  double first_days, first_distance; // after hand-over; 0: as ever after
};
[[nodiscard]] std::span<const CareTask> care_tasks();
[[nodiscard]] const CareTask* care_task(std::string_view key);

/// Something that happens to a car, and what it calls for.
struct CareEvent {
  const char* key; // `crash`
  const char* name;
  const char* calls;  // keys of tasks, with spaces
  const char* proofs; // keys of checks of Proving to be made again, with spaces
};
[[nodiscard]] std::span<const CareEvent> care_events();
[[nodiscard]] const CareEvent* care_event(std::string_view key);

/// Something that is read of a car over the years.
struct CareReading {
  const char* key; // `height`
  const char* name;
  bool of_corner;
  std::optional<double> build::LogEntry::*value; // where the log holds it
  Kind kind;
};
[[nodiscard]] std::span<const CareReading> care_readings();
[[nodiscard]] const CareReading* care_reading(std::string_view key);
/// Why an entry would say nothing: a reading without its figure or its corner, a remark without words. None: it does.
[[nodiscard]] std::optional<Message> trouble_of(const build::LogEntry& entry);

enum class DueState { late, soon, later };

struct CareDue {
  const CareTask* task = nullptr;
  std::optional<work::Day> last; // it was done
  work::Day due = 0;
  DueState state = DueState::later;
  Message why;
};

/// How something that was read goes. Days since 1970, SI.
struct CareTrend {
  const CareReading* what = nullptr;
  std::string where; // `front_left`; empty: the car
  Message name;
  Kind kind = Kind::length;
  struct Point {
    work::Day day = 0;
    double value = 0;
    bool corrected = false; // a height, taken to road pressure by the model
  };
  std::vector<Point> points;        // rising in day
  std::vector<work::Day> marks;     // days on which its bag was new
  double year = 0, year_sd = 0;     // change a year, by the line through the points since the last mark, and its doubt
  std::optional<double> limit;      // what it should not cross
  std::optional<Message> far;       // how far it is from that, or past it
  std::optional<work::Day> crosses; // when it would, as it goes; a day that is still to come
  std::optional<Message> says;      // what it means, where it means something
};

struct CarePlan {
  std::vector<CareDue> due;         // the soonest first
  std::vector<std::string> recheck; // checks that events call for and that were not signed since: `front.lock_gaps`
  std::vector<CareTrend> trends;
  double distance_day = 0; // m, of late
};

/// @param air_a_day  kg that go through; none: not known, and drains come round by the month
/// @param today      as it is
/// @returns none while the car is not on the road
/// Source: docs/models.md, "Care".
[[nodiscard]] std::optional<CarePlan> care_plan(const CareGiven& given, std::optional<double> air_a_day,
                                                work::Day today);

/// From a tank that was drained on `since`. @param air_a_day  kg that go through; none: not known
/// @returns none: there is nothing to drain, or it is not wanted
[[nodiscard]] std::optional<DrainRound> drain_round(const CareGiven& given, std::optional<double> air_a_day,
                                                    work::Day since);

/// Mean of the air on a day, by the year's coldest and warmest month.
struct Weather {
  double temperature = 0, humidity = 0; // K, relative
  bool rests = false;                   // the car stands
};
[[nodiscard]] Weather weather_on(const build::Care& care, work::Day day);

} // namespace mavrel::assess
