#include "assess/routes/route.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

RouteWay way_of(const build::Route& route, const build::PartPlace& from, const build::PartPlace& to) {
  RouteWay out;
  out.corners.push_back({from.x, from.y, from.z});
  for (const build::WayPoint& p : route.points)
    out.corners.push_back({p.x, p.y, p.z});
  out.corners.push_back({to.x, to.y, to.z});
  for (std::size_t i = 1; i < out.corners.size(); ++i)
    out.length += space::length(out.corners[i] - out.corners[i - 1]);
  return out;
}

const build::Route* route_of(const std::vector<build::Route>& routes, std::string_view line) {
  const auto found = std::find_if(routes.begin(), routes.end(),
                                  [&](const build::Route& r) { return r.line == line && !r.points.empty(); });
  return found == routes.end() ? nullptr : &*found;
}

double routed_length(const RouteWay& way, const build::Route& route, double usual) {
  return way.length + route.slack.value_or(usual * way.length);
}

std::vector<RouteBend> bends_of(const RouteWay& way) {
  std::vector<RouteBend> out;
  for (std::size_t i = 1; i + 1 < way.corners.size(); ++i) {
    const space::Point in = way.corners[i] - way.corners[i - 1], on = way.corners[i + 1] - way.corners[i];
    const double a = space::length(in), b = space::length(on);
    if (a < 1e-6 || b < 1e-6) continue;
    const double turns = std::acos(std::clamp(space::dot(in, on) / (a * b), -1.0, 1.0));
    if (turns < 1e-3) continue;
    // A bend begins its tangent's length before the corner; a stretch between two bends is shared by both.
    const double before = i == 1 ? a : a / 2, behind = i + 2 == way.corners.size() ? b : b / 2;
    const double half = std::tan(turns / 2);
    out.push_back({i, turns, std::min(before, behind) / half});
  }
  return out;
}

} // namespace mavrel::assess
