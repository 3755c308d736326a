// All that the air of a design is worked out from.
#pragma once

#include "assess/end/end_answer.h"
#include "assess/kit/kit_parts.h"
#include "assess/routes/route.h"
#include "build/fit_up.h"

namespace mavrel::assess {

struct AirGiven {
  build::AirKit kit;
  KitParts parts;
  build::AirWishes wishes;
  build::Surroundings surroundings;
  std::optional<double> wheelbase, front_overhang, rear_overhang; // m
  std::array<std::optional<double>, 2> track;                     // m
  std::array<std::optional<double>, 2> tyre_air;                  // m³ in one tyre
  AnsweredEnds ends;
  std::vector<std::string> presets; // names, as in the brief
  std::vector<build::PresetUse> uses;
  std::vector<build::ParkedHow> parked; // how each stands, where it is a parked one
  std::vector<std::string> cases;       // names of the load cases
  bool levels = false;                  // a controller keeps its height
  control::LevelSensors sensors = control::LevelSensors::four;
  std::vector<build::Route> routes; // of the lines that somebody laid
  [[nodiscard]] auto parts_of() const {
    return std::tie(kit, parts, wishes, surroundings, wheelbase, front_overhang, rear_overhang, track, tyre_air, ends,
                    presets, uses, parked, cases, levels, sensors, routes);
  }
  friend bool operator==(const AirGiven& a, const AirGiven& b) { return a.parts_of() == b.parts_of(); }
};
[[nodiscard]] AirGiven air_given(const build::Build& build, const shelf::Shelf& shelf, const AnsweredEnds& ends);

/// Does this end stay on its own springs? One that no bag is chosen for while the other end has one.
[[nodiscard]] bool on_springs(const AirGiven& given, End end);
/// The load case that weighs most: what figures of a kit are worked out in. 0 where no weights are known.
[[nodiscard]] std::size_t heaviest_case(const AirGiven& given);
/// How a load case is called.
[[nodiscard]] std::string case_name(const AirGiven& given, std::size_t load_case);

/// Circuits of the kit: which corners each fills, FL FR RL RR from 0.
[[nodiscard]] std::vector<std::vector<std::size_t>> circuits_of(const build::AirKit& kit);
/// Of them those that fill something: an end on its own springs has none.
[[nodiscard]] std::vector<std::vector<std::size_t>> circuits_of(const AirGiven& given);
/// `Front left`, for people; of a circuit of both sides `Front`.
[[nodiscard]] const char* corner_name(std::size_t corner);
[[nodiscard]] const char* circuit_name(const std::vector<std::size_t>& corners);

/// V at the compressors' terminals while one runs: the battery's less what its cable may lose.
[[nodiscard]] double volts_at_compressor(const build::AirKit& kit);
/// Is a compressor for another voltage than the car's?
[[nodiscard]] bool for_another_voltage(const shelf::Part& compressor, const build::AirKit& kit);
/// dB at a metre with all compressors running: powers add up. @returns none where no card tells
[[nodiscard]] std::optional<double> sound_of(const KitParts& parts);
/// K that it is warmer where a part lies than in the air around, on a drive. Ours; docs/models.md, "Compressor".
[[nodiscard]] double warmer_in(build::PartRoom room);
/// m³ of both tanks; 0 without.
[[nodiscard]] double tank_volume(const KitParts& parts);

/// m that a line is long from place to place: along the car, across and up, and the kit's slack on top.
[[nodiscard]] double way_between(const build::PartPlace& a, const build::PartPlace& b, double slack);
/// Key of a corner's line among the routes: `front_left`. @param corner  FL FR RL RR from 0
[[nodiscard]] const char* corner_line_key(std::size_t corner);
/// Where a corner's line ends at its bag: the upper plate's port where the joints are known, else a usual place.
[[nodiscard]] build::PartPlace port_of(const AirGiven& given, std::size_t corner);
/// m of the line from the valves to a corner's bag: its route's, else from place to place; a usual car stands in where
/// track or wheelbase are not known.
[[nodiscard]] double corner_line_length(const AirGiven& given, std::size_t corner);
[[nodiscard]] double feed_line_length(const AirGiven& given);
/// How many of a part the kit takes, of lines m.
[[nodiscard]] double amount_of(const AirGiven& given, KitRole role);

/// One step that air takes, from intake to bag: what it goes through and how freely.
struct AirStep {
  KitRole role = KitRole::valves;
  std::string name;                        // of the part
  std::optional<air::Restriction> through; // none: it stands in no one's way
  double length = 0;                       // m, of lines
  double count = 1;                        // such parts in a row
};
/// The row of parts between tank and a corner's bag, fill way, tank's outlet first.
/// @returns none while a part of it is missing
[[nodiscard]] std::optional<std::vector<AirStep>> way_to_bag(const AirGiven& given, std::size_t corner);
/// The same from a corner's bag to the air around: line, valve's vent, silencer.
[[nodiscard]] std::optional<std::vector<AirStep>> way_out_of_bag(const AirGiven& given, std::size_t corner);
/// All of a row's restrictions as one.
[[nodiscard]] air::Restriction whole_way(const std::vector<AirStep>& way);

} // namespace mavrel::assess
