#include "assess/rows.h"

#include "assess/air/air_findings.h"
#include "assess/assessment.h"
#include "assess/bags/bags_findings.h"
#include "assess/care/care_findings.h"
#include "assess/end/car_findings.h"
#include "assess/end/end_findings.h"
#include "assess/fit_up/fit_up_findings.h"
#include "assess/ground/ground_findings.h"
#include "assess/interference/interference_findings.h"
#include "assess/leveling/leveling_findings.h"
#include "assess/proving/proving_findings.h"
#include "assess/survey/survey_findings.h"
#include "assess/swing/swing_findings.h"

namespace mavrel::assess {

namespace {

template <bool EndAssessment::*Known>
bool at_both_ends(const Assessment& a) {
  return a.end(End::front).*Known && a.end(End::rear).*Known;
}
/// Is it known how both ends move, rather than taken from one reading?
bool motions_known(const Assessment& a) {
  return a.end(End::front).spring_from != MapSource::single_reading &&
         a.end(End::rear).spring_from != MapSource::single_reading;
}
/// Is it known what is near the wheels of both ends, and what of the car is low?
bool clearances_known(const Assessment& a) {
  return !a.end(End::front).gaps.empty() && !a.end(End::rear).gaps.empty() && a.ground->known;
}
/// Can air get from a source to the bags, as far as cards tell?
bool kit_known(const Assessment& a) {
  return kit_complete(a.air.given().room.air);
}
/// Is it known what the chosen way of keeping the height goes by?
bool leveling_known(const Assessment& a) {
  const LevelingFindingsGiven& given = a.leveling.given();
  if (!kit_known(a)) return false;
  return !goes_by_height(given.leveling.set_up().rules.method) ||
         ((*given.sensors)[0].linkage && (*given.sensors)[1].linkage);
}
/// Is there something to be fitted, so that there are jobs?
bool fit_up_known(const Assessment& a) {
  return a.end(End::front).bag_known || a.end(End::rear).bag_known;
}
/// Is it on the road, so that days count?
bool on_the_road(const Assessment& a) {
  return !a.care.given().care->from.empty();
}
bool heights_known(const Assessment& a) {
  return a.end(End::front).has_domain() && a.end(End::rear).has_domain();
}

} // namespace

namespace stages {
constinit const StageRow car_in{"car_in", words("Car in"), heights_known};
constinit const StageRow bags{"bags", words("Bags"), at_both_ends<&EndAssessment::bag_known>};
constinit const StageRow swing{"swing", words("Swing"), motions_known};
constinit const StageRow clearance{"clearance", words("Clearance"), clearances_known};
constinit const StageRow air{"air", words("Air"), kit_known};
constinit const StageRow leveling{"leveling", words("Leveling"), leveling_known};
constinit const StageRow fit_up{"fit_up", words("Fit-up"), fit_up_known};
constinit const StageRow proving{"proving", words("Proving"), kit_known};
constinit const StageRow care{"care", words("Care"), on_the_road};
constinit const StageRow faults{"faults", words("Faults"), kit_known};
} // namespace stages

namespace {

constexpr const StageRow* stage_rows[] = {&stages::car_in, &stages::bags,     &stages::swing,  &stages::clearance,
                                          &stages::air,    &stages::leveling, &stages::fit_up, &stages::proving,
                                          &stages::care,   &stages::faults};

// One entry a topic.
const std::span<const Limit* const> limit_tables[] = {end_limits};
const std::span<const TrackRow* const> track_tables[] = {end_tracks, motion_tracks};
const std::span<const FindingRow> finding_tables[] = {survey_finding_rows, end_finding_rows,     car_finding_rows,
                                                      bags_finding_rows,   swing_finding_rows,   touch_finding_rows,
                                                      ground_finding_rows, air_finding_rows,     leveling_finding_rows,
                                                      fit_up_finding_rows, proving_finding_rows, care_finding_rows};

} // namespace

std::span<const StageRow* const> all_stages() {
  return stage_rows;
}

std::vector<const Limit*> all_limits() {
  std::vector<const Limit*> out;
  for (const auto& table : limit_tables)
    out.insert(out.end(), table.begin(), table.end());
  return out;
}

std::vector<const TrackRow*> all_tracks() {
  std::vector<const TrackRow*> out;
  for (const auto& table : track_tables)
    out.insert(out.end(), table.begin(), table.end());
  return out;
}

std::vector<const FindingRow*> all_findings() {
  std::vector<const FindingRow*> out;
  for (const auto& table : finding_tables)
    for (const FindingRow& row : table)
      out.push_back(&row);
  return out;
}

} // namespace mavrel::assess
