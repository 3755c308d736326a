#include "report/tracks_csv.h"

#include "assess/end/end_answer.h"
#include "assess/rows.h"
#include "build/names.h"
#include "file/csv.h"
#include "report/file_units.h"

#include <fmt/format.h>

#include <cmath>

namespace mavrel::report {

using namespace assess;

namespace {

std::string head_of(const TrackRow& row) {
  const std::string unit = file_unit(row.kind).table;
  return unit.empty() ? row.key : row.key + ("_" + unit);
}

std::string cell(const EndAssessment& end, const TrackRow& row, std::size_t load_case, double H) {
  const Track* track = end.find(row, load_case);
  if (!track && row.or_else) track = end.find(*row.or_else, load_case);
  const auto value = track ? track->at(H) : std::nullopt;
  const FileUnit unit = file_unit(row.kind);
  return value ? fmt::format("{:.{}f}", *value * unit.factor, unit.decimals) : "";
}

bool covers(const std::vector<Stretch>& blocked, double H) {
  for (const Stretch& s : blocked)
    if (H >= s.from && H <= s.to) return true;
  return false;
}

} // namespace

std::string tracks_csv(const Assessment& a) {
  const auto rows = all_tracks();
  std::string out = "end,load_case,height_mm";
  for (const TrackRow* row : rows)
    out += "," + head_of(*row);
  out += ",reach,road,beyond\n";
  for (const build::End end : build::both_ends) {
    const EndAssessment& e = a.end(end);
    if (!e.has_domain()) continue;
    for (std::size_t c = 0; c < a.loads.size(); ++c)
      for (double mm = std::ceil(e.domain_low * 1e3); mm <= std::floor(e.domain_high * 1e3); ++mm) {
        const double H = mm * 1e-3;
        out += fmt::format("{},{},{:.0f}", build::key_of(end), csv_cell(a.loads[c].name), mm);
        for (const TrackRow* row : rows)
          out += "," + cell(e, *row, c, H);
        const Track* mean = e.find(tracks::pressure, c);
        out += fmt::format(",{},{},{}\n", covers(e.windows.reach_blocked, H) ? "blocked" : "free",
                           covers(e.windows.road_blocked, H) ? "blocked" : "free",
                           mean ? air::beyond_key(mean->beyond_at(H)) : "");
      }
  }
  return out;
}

} // namespace mavrel::report
