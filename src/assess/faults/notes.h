// Findings as the document keeps them, taken from Proving and the log, and what becomes of a fault that was found.
#pragma once

#include "assess/faults/diagnosis.h"
#include "assess/fit_up/checks.h"
#include "build/faults.h"
#include "build/fit_up.h"

namespace mavrel::assess {

/// A note of the document as a finding. @returns it; or why it is none: no such sign or place
[[nodiscard]] Expected<FaultFinding> finding_of(const build::FaultNote& note);
[[nodiscard]] build::FaultNote note_of(const FaultFinding& finding, std::string from = {});
[[nodiscard]] Expected<SignAt> sign_of(std::string_view key);
/// Reads what was typed of a sign: `yes`, `no`; of a reading a figure, with its doubt behind `±` or `+-`, or `never`.
[[nodiscard]] Expected<FaultFinding> typed_finding(const SignAt& at, std::string_view text, const UnitPrefs& prefs);
/// What a test found, each sign once: `time 20 mm up: 0.52 s · time 20 mm down: 0.81 s`.
[[nodiscard]] Message found_words(const std::vector<FaultFinding>& found);
/// The figure of a finding, `6.2 s ± 0.4 s`, `yes`.
[[nodiscard]] Message answer_words(const FaultFinding& finding);

/// What a diagnosis of a build goes by: its notes, and the shop's own odds.
struct FaultsNoted {
  FaultEvidence evidence;
  std::vector<std::size_t> note_of;                     // of each finding, its place among the notes
  std::vector<std::pair<std::size_t, Message>> trouble; // notes that are not weighed, and why
};
[[nodiscard]] FaultsNoted noted(const build::Build& build);
/// Usual odds with what the shop said and counted: each fault found counts as one of as many as are usual.
[[nodiscard]] FaultPriors shop_priors(const build::Shop& shop);

/// Readings of the proofs and the log that tell something of faults, and where each came from: the newest of each kind
/// at a place. Those noted already are left out, and those older than what is noted.
/// @param points  Proving's checks with what was measured
/// @param car     holds are shares of what it holds: left out where it is null
[[nodiscard]] std::vector<build::FaultNote> readings_at_hand(const build::Build& build,
                                                             const std::vector<HoldPoint>& points, const FaultCar* car);

/// What becomes of a fault that was found.
struct FoundAsked {
  std::vector<FaultAt> faults;
  double odds = 0;
  std::string by, day; // `2026-11-26 10:15`
  std::string mark;    // of the log's entry; more are made of it
  bool log = true, plan = true, proofs = true, count = true;
};
/// The build with it in the log, its mend on the plan, its checks asked again, and counted among the shop's own.
/// @returns the build; or which of its lists is full
[[nodiscard]] Expected<build::Build> with_found(const build::Build& build, const FitUpGiven& given,
                                                const FoundAsked& asked);
/// Key of the log's event of a fault: `found.pinched`.
[[nodiscard]] std::string found_key(const FaultCause& cause);

} // namespace mavrel::assess
