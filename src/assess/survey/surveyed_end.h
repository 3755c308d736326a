// One end's readings, read once: means of what was taken, the floor taken out, stand-ins for what was not.
#pragma once

#include "assess/kept/kept.h"
#include "assess/survey/floor.h"
#include "assess/survey/loads.h"
#include "assess/survey/stand_ins.h"
#include "motion/cycle_fit.h"
#include "quantity/kind.h"

#include <optional>
#include <tuple>
#include <vector>

namespace mavrel::assess {

/// m beyond the heights that were read that a curve through readings is trusted.
constexpr double trusted_past_reading = 0.015;

/// All that an end's readings are read from.
struct SurveyGiven {
  End end = End::front;
  build::EndSurvey survey;         // without what says nothing of heights and loads: rating, bar, roll centre
  Floors floors;                   // of both ends: one plane lies under them
  std::optional<double> wheelbase; // m
  Masses masses;                   // of the load cases
  [[nodiscard]] auto parts() const { return std::tie(end, survey, floors, wheelbase, masses); }
  friend bool operator==(const SurveyGiven&, const SurveyGiven&) = default;
};
/// @param fitted  what the design adds to every load case
[[nodiscard]] SurveyGiven survey_given(const build::Build& build, End end,
                                       const std::vector<build::LoadMass>& fitted = {});

/// A reading that a usual figure stands in for.
struct Estimate {
  const char* field; // `motion_ratio`, its key in the file and the last step of its path
  Kind kind = Kind::plain;
  Usual usual;
  bool from_now = false; // a length that lies so far from the damper's as it stands, which nobody took either
};

struct SurveyedEnd {
  std::array<double, 2> floor_correction{};         // m, added to the reading
  std::array<std::optional<double>, 2> side_height; // m, left and right, floor taken out
  std::optional<double> height;                     // m, H, mean of both sides
  std::optional<double> tyre_radius;                // m, unloaded
  double unsprung_mass = 0;                         // kg a corner
  std::vector<std::optional<EndLoad>> loads;        // one a load case

  // With the height these have a value, taken or usual; without it only where taken.
  std::optional<double> motion_ratio, spring_length, damper_ratio;
  std::vector<Estimate> estimated; // which of them are usual

  // Of the cycle sheet, where one was taken that a curve goes through; then the figures above are read from it.
  std::optional<motion::CycleFit> spring_fit, damper_fit;
  std::vector<std::size_t> spring_rows, damper_rows;   // of the sheet, which their readings are
  std::optional<Message> cycle_trouble;                // why the sheet is of no use
  std::optional<motion::CycleFit> camber_fit, toe_fit; // rad over H, where there are enough readings
  struct GapFit {
    std::string name;
    motion::CycleFit fit;
  };
  std::vector<GapFit> gap_fits;                                       // of the gaps somebody named
  std::optional<motion::CycleFit> right_spring_fit, right_damper_fit; // of the right side's own sheet
  std::vector<std::size_t> right_rows, right_damper_rows;

  std::optional<double> damper_length, damper_open, damper_shut; // m, as taken
  std::optional<double> stop_gap;                                // m, as taken
  std::optional<double> stop_ratio; // d(gap)/dH; none while it is the damper's and that is not known
};

/// Source: docs/models.md, "Loads", "Floor", "Stand-ins".
[[nodiscard]] SurveyedEnd surveyed_end(const SurveyGiven& given);

struct SurveyQuestion {
  using Given = SurveyGiven;
  using Answer = SurveyedEnd;
  static constexpr int formula = 1;
  static Answer answer(const Given& given) { return surveyed_end(given); }
};

} // namespace mavrel::assess
