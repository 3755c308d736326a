#include "assess/load.h"

#include "curve/readings.h"

namespace mavrel::assess {

using build::Layout;

double estimated_unsprung(Layout layout) {
  switch (layout) {
  case Layout::strut:
    return 36;
  case Layout::double_wishbone:
  case Layout::multi_link:
    return 38;
  case Layout::trailing_arm:
  case Layout::semi_trailing_arm:
    return 34;
  case Layout::twin_beam:
    return 40;
  case Layout::torsion_beam:
    return 32;
  case Layout::axle_parallel_links:
  case Layout::axle_triangulated_links:
  case Layout::axle_was_leaves:
    return 70;
  }
  return 38;
}

double unsprung_mass(const build::EndSurvey& end) {
  return end.unsprung_mass.value_or(estimated_unsprung(end.layout));
}

std::optional<double> corner_mass(const build::EndSurvey& end, Side side) {
  if (const auto own = curve::mean(end.corners[build::at(side)].mass.values)) return own;
  return curve::mean(end.corners[1 - build::at(side)].mass.values);
}

namespace {

/// What one mass adds to one side of one end, kg; none when the wheelbase is needed and missing.
std::optional<double> share_of(const build::LoadMass& mass, const build::Build& build, End end, Side side) {
  if (!build.body.wheelbase) return std::nullopt;
  const double to_rear = mass.x / *build.body.wheelbase;
  const double axle = mass.mass * (end == End::rear ? to_rear : 1 - to_rear);
  const auto track = build.end(end).track;
  const double to_left = track ? 0.5 + mass.y / *track : 0.5;
  return axle * (side == Side::left ? to_left : 1 - to_left);
}

std::optional<EndLoad> end_load(const build::Build& build, const build::LoadCase& load, End end) {
  EndLoad out;
  for (const Side side : build::both_sides) {
    auto corner = corner_mass(build.end(end), side);
    if (!corner) return std::nullopt;
    for (const build::LoadMass& mass : load.masses) {
      const auto share = share_of(mass, build, end, side);
      if (!share) return std::nullopt;
      *corner += *share;
    }
    out.axle_mass += *corner;
    out.side_mass[build::at(side)] = *corner - unsprung_mass(build.end(end));
  }
  out.sprung_mass = 0.5 * (out.side_mass[0] + out.side_mass[1]);
  return out;
}

} // namespace

std::vector<CaseLoad> case_loads(const build::Build& build) {
  std::vector<build::LoadCase> cases = build.load_cases;
  if (cases.empty()) cases.push_back({words("As surveyed"), {}, {}});
  std::vector<CaseLoad> out;
  for (const build::LoadCase& load : cases) {
    CaseLoad& loads = out.emplace_back();
    loads.name = load.name;
    for (const End end : build::both_ends)
      loads.ends[build::at(end)] = end_load(build, load, end);
    if (loads.ends[0] && loads.ends[1]) loads.total_mass = loads.ends[0]->axle_mass + loads.ends[1]->axle_mass;
  }
  return out;
}

std::optional<double> cross_weight(const build::Build& build) {
  double corner[2][2];
  for (const End end : build::both_ends)
    for (const Side side : build::both_sides) {
      const auto mass = curve::mean(build.end(end).corners[build::at(side)].mass.values);
      if (!mass) return std::nullopt;
      corner[build::at(end)][build::at(side)] = *mass;
    }
  const double sum = corner[0][0] + corner[0][1] + corner[1][0] + corner[1][1];
  return (corner[0][1] + corner[1][0]) / sum;
}

} // namespace mavrel::assess
