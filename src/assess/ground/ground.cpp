#include "assess/ground/ground.h"

#include "motion/wheel.h"

#include <algorithm>
#include <cmath>
#include <stop_token>

namespace mavrel::assess {

namespace {

using build::at;
using space::GroundGap;
using space::Underside;

std::optional<double> radius_of(const std::string& wheel) {
  const auto code = motion::parse_wheel(wheel);
  if (!code) return std::nullopt;
  return motion::wheel_space(*code).diameter / 2;
}

std::vector<build::LowPoint> front_to_rear(const List<build::LowPoint>& points) {
  std::vector<build::LowPoint> out(points.begin(), points.end());
  std::stable_sort(out.begin(), out.end(), [](const auto& a, const auto& b) { return a.x < b.x; });
  return out;
}

} // namespace

GroundGiven ground_given(const build::Build& build, const AnsweredEnds& ends) {
  GroundGiven out;
  out.wheelbase = build.body.wheelbase;
  out.underside = build.body.underside;
  out.grounds = build.variant().brief.grounds;
  const auto& presets = build.variant().brief.presets;
  for (std::size_t i = 0; i < presets.size(); ++i)
    out.presets.push_back({presets[i].use, {}});
  for (const End end : build::both_ends) {
    const AnsweredEnd& answered = ends[at(end)];
    const build::EndSurvey& survey = answered.given().survey().given().survey;
    out.surveyed[at(end)] = answered->assessment.surveyed_height;
    out.first_radius[at(end)] = radius_of(survey.wheel);
    out.radius[at(end)] = answered->assessment.tyre_radius;
    const auto stood_on =
        0.5 * (corner_mass(survey, Side::left).value_or(0) + corner_mass(survey, Side::right).value_or(0));
    const EndModel& model = answered->fitted.model;
    const auto names = case_names(build);
    for (std::size_t c = 0; c < model.loads.size() && c < names.size(); ++c) {
      if (out.loads.size() <= c) out.loads.push_back({names[c], {}});
      // A wheel that carries more than when the underside was measured stands lower by what its tyre gives.
      if (const auto& load = model.loads[c]; load && stood_on > 0)
        out.loads[c].sinks[at(end)] = (load->axle_mass / 2 - stood_on) * standard_gravity / model.tyre_rate;
    }
    const auto& heights = answered->fitted.presets;
    for (std::size_t i = 0; i < std::min(presets.size(), heights.size()); ++i)
      out.presets[i].H[at(end)] = heights[i];
  }
  return out;
}

std::optional<Underside> underside_at(const GroundGiven& given, double front, double rear,
                                      const std::array<double, 2>& sinks) {
  if (!given.wheelbase || given.underside.empty()) return std::nullopt;
  for (const End end : build::both_ends)
    if (!given.surveyed[at(end)] || !given.radius[at(end)] || !given.first_radius[at(end)]) return std::nullopt;
  Underside out;
  out.wheelbase = *given.wheelbase;
  out.front_radius = *given.radius[0] - sinks[0];
  out.rear_radius = *given.radius[1] - sinks[1];
  out.front_bigger = out.front_radius - *given.first_radius[0];
  out.rear_bigger = out.rear_radius - *given.first_radius[1];
  out.front_dh = front - *given.surveyed[0];
  out.rear_dh = rear - *given.surveyed[1];
  for (const build::LowPoint& p : front_to_rear(given.underside))
    out.points.push_back({p.x, p.z});
  return out;
}

std::vector<std::string> names_of_underside(const GroundGiven& given) {
  std::vector<std::string> out;
  for (const build::LowPoint& p : front_to_rear(given.underside))
    out.push_back(p.name);
  return out;
}

std::optional<space::Profile> profile_of(const build::Ground& ground) {
  space::Profile out;
  for (const build::ProfilePoint& p : ground.points) {
    if (!out.empty() && !(p.x > out.back().x)) return std::nullopt;
    out.push_back({p.x, p.z});
  }
  if (out.size() < 2) return std::nullopt;
  return out;
}

std::optional<OnTheGround> stand_on(const GroundGiven& given, std::optional<std::size_t> ground, double front,
                                    double rear, double at) {
  auto car = underside_at(given, front, rear);
  if (!car) return std::nullopt;
  OnTheGround out{std::move(*car), {}, {}, {}};
  if (ground && *ground < given.grounds.size())
    out.profile = profile_of(given.grounds[*ground]).value_or(space::Profile{});
  out.stance = space::stance_at(out.car, out.profile, at);
  out.here = space::gap_at(out.car, out.profile, at);
  return out;
}

double worst_place(const OnTheGround& car) {
  const auto least = car.profile.empty() ? std::nullopt : space::least_gap(car.car, car.profile);
  return least ? least->front_at : 0;
}

std::vector<LoadSquash> lowest_loads(const GroundGiven& given) {
  std::vector<LoadSquash> out;
  for (std::size_t i = 0; i < given.loads.size(); ++i) {
    const LoadSquash& here = given.loads[i];
    bool outdone = false;
    for (std::size_t k = 0; k < given.loads.size(); ++k) {
      const LoadSquash& other = given.loads[k];
      const bool lower = other.sinks[0] >= here.sinks[0] && other.sinks[1] >= here.sinks[1];
      outdone = outdone || (k != i && lower && (other.sinks != here.sinks || k < i));
    }
    if (!outdone) out.push_back(here);
  }
  if (out.empty()) out.emplace_back();
  return out;
}

GroundAnswer cross_ground(const GroundGiven& given) {
  GroundAnswer out;
  const auto names = names_of_underside(given);
  const auto loads = lowest_loads(given);
  for (std::size_t p = 0; p < given.presets.size(); ++p) {
    const PresetHeights& preset = given.presets[p];
    auto& angles = out.angles.emplace_back();
    if (!preset.H[0] || !preset.H[1]) continue;
    const auto car = underside_at(given, *preset.H[0], *preset.H[1]);
    if (!car) continue;
    out.known = true;
    angles = space::ground_angles(*car);
    for (std::size_t g = 0; g < given.grounds.size(); ++g) {
      if (given.grounds[g].over != preset.use) continue;
      const auto profile = profile_of(given.grounds[g]);
      if (!profile) continue;
      std::optional<Crossing> worst;
      for (const LoadSquash& load : loads) {
        const auto loaded = underside_at(given, *preset.H[0], *preset.H[1], load.sinks);
        Crossing here{g, p, space::least_gap(*loaded, *profile), {}, *preset.H[0], *preset.H[1], load.name};
        if (here.gap) here.point = names[here.gap->point];
        if (!worst || !here.gap || (worst->gap && here.gap->gap < worst->gap->gap)) worst = std::move(here);
      }
      out.crossings.push_back(std::move(*worst));
    }
    std::optional<OnFlat> lowest;
    for (const LoadSquash& load : loads) {
      const auto loaded = underside_at(given, *preset.H[0], *preset.H[1], load.sinks);
      const auto gap = space::gap_at(*loaded, {}, 0);
      if (gap && (!lowest || gap->gap < lowest->gap))
        lowest = OnFlat{p, gap->gap, names[gap->point], load.name, *preset.H[0], *preset.H[1]};
    }
    if (lowest) out.flat.push_back(std::move(*lowest));
  }
  return out;
}

namespace {

/// Where a gap that grows with height reaches its margin. @returns none where it does not up to `most`
template <class F>
std::optional<double> least_that_clears(const F& clears, double from, double most) {
  constexpr double coarse = 0.010, fine = 5e-4; // m
  double low = from;
  if (clears(low)) return low;
  for (double H = from + coarse; H < most + coarse; H += coarse) {
    const double here = std::min(H, most);
    if (clears(here)) {
      double high = here;
      while (high - low > fine) {
        const double mid = 0.5 * (low + high);
        (clears(mid) ? high : low) = mid;
      }
      return high;
    }
    if (here == most) break;
    low = here;
  }
  return std::nullopt;
}

} // namespace

LeastHeights least_heights(const GroundGiven& given, const build::Ground& ground, double front, double rear,
                           const std::array<double, 2>& most) {
  LeastHeights out;
  const auto profile = profile_of(ground);
  if (!profile) return out;
  const auto clears = [&](double f, double r) {
    const auto car = underside_at(given, f, r);
    const auto gap = car ? space::least_gap(*car, *profile) : std::nullopt;
    return gap && gap->gap >= ground.margin;
  };
  out.front_alone = least_that_clears([&](double H) { return clears(H, rear); }, front, most[0]);
  out.rear_alone = least_that_clears([&](double H) { return clears(front, H); }, rear, most[1]);
  out.both = least_that_clears([&](double rise) { return clears(front + rise, rear + rise); }, 0,
                               std::min(most[0] - front, most[1] - rear));
  return out;
}

std::optional<GroundPlane> ground_plane(const GroundGiven& given, const build::Ground& ground,
                                        const std::array<double, 2>& low, const std::array<double, 2>& high,
                                        std::size_t steps, const std::stop_token& stop) {
  const auto profile = profile_of(ground);
  if (!profile || steps < 2) return std::nullopt;
  GroundPlane out;
  for (std::size_t i = 0; i < steps; ++i) {
    const double t = static_cast<double>(i) / static_cast<double>(steps - 1);
    out.front.push_back(std::lerp(low[0], high[0], t));
    out.rear.push_back(std::lerp(low[1], high[1], t));
  }
  for (const double f : out.front)
    for (const double r : out.rear) {
      if (stop.stop_requested()) return std::nullopt;
      const auto car = underside_at(given, f, r);
      if (!car) return std::nullopt;
      const auto gap = space::least_gap(*car, *profile);
      out.gap.push_back(gap ? gap->gap - ground.margin : -1);
    }
  return out;
}

std::optional<WayGap> least_on_the_way(const GroundGiven& given, const space::Profile& profile, double at_x,
                                       const std::array<double, 2>& from, const std::array<double, 2>& to,
                                       Order order) {
  constexpr int steps = 40; // a leg
  std::optional<WayGap> out;
  const auto look = [&](double f, double r) {
    const auto car = underside_at(given, f, r);
    const auto gap = car ? space::gap_at(*car, profile, at_x) : std::nullopt;
    if (gap && (!out || gap->gap < out->gap)) out = WayGap{gap->gap, f, r, gap->point};
    return gap.has_value();
  };
  const auto leg = [&](const std::array<double, 2>& a, const std::array<double, 2>& b) {
    for (int i = 0; i <= steps; ++i) {
      const double t = static_cast<double>(i) / steps;
      if (!look(std::lerp(a[0], b[0], t), std::lerp(a[1], b[1], t))) return false;
    }
    return true;
  };
  bool whole = false;
  if (order == Order::together)
    whole = leg(from, to);
  else {
    const std::array<double, 2> corner =
        order == Order::front_first ? std::array{to[0], from[1]} : std::array{from[0], to[1]};
    whole = leg(from, corner) && leg(corner, to);
  }
  return whole ? out : std::nullopt;
}

std::vector<build::Ground> usual_grounds() {
  const auto ground = [](const char* name, build::PresetUse over, double margin,
                         std::vector<std::pair<double, double>> points) {
    build::Ground out;
    out.name = name;
    out.over = over;
    out.margin = margin;
    for (const auto& [x, z] : points)
      out.points.push_back({x, z, {}});
    return out;
  };
  using build::PresetUse;
  return {
      ground(words("speed bump"), PresetUse::ramp, 0.010,
             {{0, 0}, {0.15, 0.045}, {0.30, 0.065}, {0.45, 0.070}, {0.60, 0.065}, {0.75, 0.045}, {0.90, 0}}),
      ground(words("kerb drop"), PresetUse::ramp, 0.010, {{0, 0}, {0.02, -0.060}, {2, -0.060}}),
      ground(words("steep apron"), PresetUse::ramp, 0.010,
             {{0, 0}, {0.40, -0.020}, {0.50, 0.005}, {3.5, 0.42}, {5, 0.48}}),
      ground(words("trailer ramp"), PresetUse::ramp, 0.015,
             {{0, 0}, {0.05, 0.020}, {2.2, 0.46}, {2.25, 0.47}, {7, 0.47}}),
      ground(words("show grass"), PresetUse::road, 0.030,
             {{0, 0}, {0.5, 0.03}, {1.0, -0.01}, {1.6, 0.04}, {2.2, 0}, {3, 0.035}, {3.6, 0}}),
  };
}

} // namespace mavrel::assess
