#include "assess/survey/loads.h"

#include "curve/readings.h"
#include "quantity/message.h"

#include <algorithm>

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
  case Layout::twin_trailing_arms:
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

Masses masses_of(const build::Build& build, const std::vector<build::LoadMass>& fitted) {
  Masses out;
  for (const build::LoadCase& load : build.load_cases) {
    auto& masses = out.emplace_back();
    for (const build::LoadMass& mass : load.masses)
      masses.push_back({{}, mass.mass, mass.x, mass.y, {}});
  }
  if (out.empty()) out.emplace_back();
  for (auto& masses : out)
    for (const build::LoadMass& mass : fitted)
      masses.push_back({{}, mass.mass, mass.x, mass.y, {}});
  return out;
}

namespace {

/// What one mass adds to one side of one end, kg.
double share_of(const build::LoadMass& mass, double wheelbase, const std::optional<double>& track, End end, Side side) {
  const double to_rear = mass.x / wheelbase;
  const double axle = mass.mass * (end == End::rear ? to_rear : 1 - to_rear);
  const double to_left = track ? 0.5 + mass.y / *track : 0.5;
  return axle * (side == Side::left ? to_left : 1 - to_left);
}

} // namespace

std::vector<std::optional<EndLoad>> end_loads(const build::EndSurvey& survey, End end,
                                              const std::optional<double>& wheelbase, const Masses& masses) {
  const std::array corners = {corner_mass(survey, Side::left), corner_mass(survey, Side::right)};
  const double unsprung = unsprung_mass(survey);
  std::vector<std::optional<EndLoad>> out;
  for (const auto& aboard : masses) {
    auto& load = out.emplace_back();
    if (!corners[0] || !corners[1] || (!wheelbase && !aboard.empty())) continue;
    load.emplace();
    for (const Side side : build::both_sides) {
      double corner = *corners[build::at(side)];
      for (const build::LoadMass& mass : aboard)
        corner += share_of(mass, *wheelbase, survey.track, end, side);
      load->axle_mass += corner;
      load->side_mass[build::at(side)] = corner - unsprung;
    }
    load->sprung_mass = 0.5 * (load->side_mass[0] + load->side_mass[1]);
  }
  return out;
}

std::vector<CaseLoad> case_loads(const List<build::LoadCase>& cases,
                                 const std::array<std::vector<std::optional<EndLoad>>, 2>& ends) {
  std::vector<CaseLoad> out;
  for (std::size_t c = 0; c < std::max<std::size_t>(1, cases.size()); ++c) {
    CaseLoad& load = out.emplace_back();
    load.name = c < cases.size() ? cases[c].name : words("As surveyed");
    load.ends = {ends[0][c], ends[1][c]};
    if (load.ends[0] && load.ends[1]) load.total_mass = load.ends[0]->axle_mass + load.ends[1]->axle_mass;
  }
  return out;
}

std::vector<CaseLoad> case_loads(const build::Build& build, const std::vector<build::LoadMass>& fitted) {
  const Masses masses = masses_of(build, fitted);
  std::array<std::vector<std::optional<EndLoad>>, 2> ends;
  for (const End end : build::both_ends)
    ends[build::at(end)] = end_loads(build.end(end), end, build.body.wheelbase, masses);
  return case_loads(build.load_cases, ends);
}

std::optional<double> cross_weight(const build::EndSurvey& front, const build::EndSurvey& rear) {
  double corner[2][2];
  for (const End end : build::both_ends)
    for (const Side side : build::both_sides) {
      const auto mass = curve::mean((end == End::front ? front : rear).corners[build::at(side)].mass.values);
      if (!mass) return std::nullopt;
      corner[build::at(end)][build::at(side)] = *mass;
    }
  const double sum = corner[0][0] + corner[0][1] + corner[1][0] + corner[1][1];
  return (corner[0][1] + corner[1][0]) / sum;
}

} // namespace mavrel::assess
