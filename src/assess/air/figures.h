// What a kit is bought by: lifts from a full tank, how long until it is full again, minutes a day, first fill, tyres.
#pragma once

#include "assess/air/lift.h"
#include "assess/air/on_battery.h"

#include <stop_token>

namespace mavrel::assess {

/// The lift that wishes speak of: from the first parked preset to the first road preset.
[[nodiscard]] std::optional<std::pair<std::size_t, std::size_t>> wished_lift(const AirGiven& given);

/// Lifts from a full tank with the compressor off, dropping in between.
struct LiftsFromFull {
  int lifts = 0;               // that got there
  bool more = false;           // there would be more: counting ended at the most asked for
  std::optional<double> first; // s of the first; none: it did not get there
  double air = 0;              // kg the first took
  double tank_after_first = 0; // Pa gauge
  std::string stuck;           // which circuit stopped short where one did not get there
  double short_by = 0;         // m
};
/// @param heights  m, H front and rear, from which and to which; those of the wished lift when absent
[[nodiscard]] Expected<LiftsFromFull>
lifts_from_full(const AirGiven& given, build::MoveOrder order, std::size_t load_case, int most,
                const std::stop_token& stop = {},
                const std::optional<std::array<std::array<double, 2>, 2>>& heights = std::nullopt);

/// Filling the tank by the kit's own compressors, the second starting later; of a kit without any by the shop's air.
struct Filling {
  std::optional<double> time; // s; none: they never get there
  double rested = 0;          // s of it that the first was too warm to run
  double air = 0;             // kg
  double air_temperature = 0; // K in the tank at the end
  bool by_shop = false;       // through the shop's hose
};
/// @param from, to  Pa gauge
[[nodiscard]] Expected<Filling> fill_tank(const AirGiven& given, double from, double to,
                                          const std::stop_token& stop = {});

/// s that the compressors run for each kg, on the way from cut-in to cut-out.
[[nodiscard]] Expected<double> run_a_kilogram(const AirGiven& given, const std::stop_token& stop = {});

/// Air from the shop through a hose, and what is left for the kit's own compressors.
struct FirstFill {
  std::optional<double> shop_time; // s until nothing more comes; none without an inlet for it
  double shop_pressure = 0;        // Pa gauge that it comes to
  std::optional<double> rest_time; // s by the kit from there
  std::optional<double> own_time;  // s by the kit alone
};
constexpr double shop_hose_bore = 0.008, shop_hose_length = 10; // m
[[nodiscard]] Expected<FirstFill> first_fill(const AirGiven& given, const std::stop_token& stop = {});

/// Air for the four tyres, one after the other.
struct TyreAir {
  std::optional<double> time; // s for all four, the compressor helping; none: it does not get there
  int tyres = 0;              // from a full tank, compressor off
};
constexpr double tyre_from = 1.1e5, tyre_to = 2.4e5; // Pa gauge
constexpr air::Restriction tyre_valve{3.5e-9, 0.3};
[[nodiscard]] Expected<TyreAir> tyre_air(const AirGiven& given, const std::stop_token& stop = {});

/// A day as the builder describes it.
struct AirDay {
  double air = 0;              // kg that leave the tank, of moves, leveling and leaks
  double leveling = 0;         // kg of it that keeps the height; 0 of a car that nothing levels
  double leaks = 0;            // kg of it that leaks away
  double run = 0;              // s that the compressors run for it, together one as another
  double share_of_drive = 0;   // of the time that the engine runs
  std::vector<double> moves;   // kg that each of the day's moves takes once; below 0: it can't be made
  std::vector<Message> unmade; // why those can't
  bool by_shop = false;        // there is no compressor: the shop brings it
};
/// Share of all its air that a tight kit may lose in a day; and what a day's leveling takes over a change from the
/// lightest to the heaviest load. Ours; docs/models.md, "A day's air".
constexpr double usual_leak_a_day = 0.05, corrections = 2;
[[nodiscard]] Expected<AirDay> air_day(const AirGiven& given, const std::stop_token& stop = {});

/// Lifts, and being ready after one, in one load case.
struct CaseLifts {
  std::size_t load_case = 0;
  Expected<LiftsFromFull> lifts;
  Expected<Filling> ready;
};

/// All of it, in the first load case; and what sizing judges kits by, in the heaviest.
struct KitFigures {
  Expected<LiftsFromFull> lifts;
  Expected<Filling> ready; // after one lift
  Expected<FirstFill> first;
  Expected<TyreAir> tyres;
  Expected<AirDay> day;
  std::optional<CaseLifts> heaviest; // none where the first is that
  std::vector<OnBattery> battery;    // empty: no compressor, or no lift to be made up
};
[[nodiscard]] std::optional<KitFigures> kit_figures(const AirGiven& given, const std::stop_token& stop);

/// The moves of the day; two lifts and two drops where nobody said.
[[nodiscard]] std::vector<build::DayMove> moves_of_day(const AirGiven& given);

} // namespace mavrel::assess
