// Fault finding as JSON: cases to practise on, diagnoses, and how somebody did.
#pragma once

#include "assess/faults/notes.h"
#include "assess/faults/practice.h"

#include <string>
#include <string_view>

namespace mavrel::report {

/// A build with what its driver tells and what was read of it: the build's own JSON with `symptoms`, `nothing_else`,
/// `readings` and `practice` beside its fields. What is the matter stands in it only where `revealed`.
[[nodiscard]] std::string case_json(const build::Build& build, const assess::PracticeCar& car,
                                    const std::vector<assess::TestDone>& done, bool revealed,
                                    const assess::PracticeScore* score);

/// What a case or a build says of itself.
struct CaseRead {
  build::Build build;
  assess::FaultEvidence evidence;
};
/// @param text  of a case, or of a build with notes of its own
/// @returns it; or its first mistake
[[nodiscard]] Expected<CaseRead> read_case(std::string_view text);

[[nodiscard]] std::string diagnosis_json(const assess::Diagnosis& diagnosis, const assess::FaultEvidence& evidence,
                                         const std::vector<assess::NextTest>& next);

} // namespace mavrel::report
