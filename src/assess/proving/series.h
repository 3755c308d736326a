// Readings over time: read from a table, and what figures they give.
#pragma once

#include "assess/fit_up/checks.h"
#include "build/proving.h"

#include <span>
#include <string_view>

namespace mavrel::assess {

struct ReadSeries {
  std::vector<build::ProofSeries> series; // one a gauge; `gauge` empty where the table does not say whose it is
  std::size_t rows = 0;                   // in the table
  std::size_t kept = 0;                   // of them: evenly, the first and the last among them
};
/// A table with `time_s` and a column a gauge: `front_left_bar`, `fl_bar`, `pressure_fl_pa`, `tank_bar`, of one gauge
/// alone `pressure_bar`; heights `front_left_mm`, `height_fl_m`; `temperature_c`. Columns of other names are passed
/// over.
/// @returns the readings; or the table's first mistake, and what would be right
/// Source: docs/formats/readings.md.
[[nodiscard]] Expected<ReadSeries> read_series(std::string_view csv);

/// A reading more of a series that somebody types: later than the last.
/// @returns none; or what is wrong with the series as it stands
[[nodiscard]] std::optional<Message> trouble_of(const build::ProofSeries& series);

/// What the link shows at one moment. FL FR RL RR.
struct LiveLook {
  std::array<std::optional<double>, 4> height, pressure; // m H, Pa gauge
};
/// From which side the car came to where it stands.
enum class Reached { below, above };
/// Figures of a check that a look gives, by their place: of heights those of the preset that is nearest, of pressures
/// those of that side, where the corner stands at road height.
[[nodiscard]] std::vector<std::pair<std::size_t, double>> read_now(const FitUpGiven& given, const HoldPoint& point,
                                                                   const LiveLook& look, Reached from);
/// The mean of looks over a while. @returns none while a corner still moves: told heights lie further apart than
/// `live_still`
[[nodiscard]] std::optional<LiveLook> mean_look(const std::vector<LiveLook>& looks);
/// H that corners fed together stand at, m: their mean. @returns none where one of them is not told
[[nodiscard]] std::optional<double> mean_height(const LiveLook& look, std::span<const std::size_t> corners);
constexpr double live_still = 0.002;       // m
constexpr double live_near = 0.030;        // m from a preset that it can't be taken for another's
constexpr double live_pressure_at = 0.006; // m from road height that its pressure is still read at

/// Is a corner too far from where its time begins to be timed? @param height, from  m, H
[[nodiscard]] bool stands_off(double height, double from);

/// Times a corner while it is looked at: from the moment its valve opens until it stands where it should.
class Stopwatch {
public:
  /// Where it ends: as far from where it began as `to` is from `from`, or at `to` wherever it began.
  enum class Ends { as_far, there };
  /// @param from, to  m, H: it begins near the one
  Stopwatch(double from, double to, Ends ends = Ends::as_far) : from_(from), to_(to), ends_(ends) {}
  /// @param time  s of the looks' own clock, never earlier than before
  /// @param open  is the valve open?
  void look(double time, double height, bool open);
  [[nodiscard]] bool running() const { return began_ && !took_; }
  /// s that it took; none yet.
  [[nodiscard]] std::optional<double> took() const { return took_; }
  /// s of the looks' clock; none yet.
  [[nodiscard]] std::optional<double> began() const { return began_; }
  /// Why what was looked at can't be timed: it began too far off, or the valve shut on the way.
  [[nodiscard]] const std::optional<Message>& trouble() const { return trouble_; }
  static constexpr double near = 0.015; // m from where it should begin

private:
  double from_, to_;
  Ends ends_;
  std::optional<double> began_, took_, last_time_, last_height_;
  std::optional<Message> trouble_;
};

/// s from the first valve's opening until the last corner is there; none while one is not.
[[nodiscard]] std::optional<double> took_together(std::span<const Stopwatch> watches);

} // namespace mavrel::assess
