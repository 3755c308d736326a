// The way of a line from place to place by its clips and grommets: how long it is, and how tightly it is bent.
#pragma once

#include "build/build.h"
#include "build/fit_up.h"
#include "space/point.h"

#include <optional>
#include <string_view>
#include <vector>

namespace mavrel::assess {

/// A line as the car's own x goes: m behind the front axle, left of the middle, above the road.
struct RouteWay {
  std::vector<space::Point> corners; // both ends and the points between
  double length = 0;                 // m along it, without slack
};
[[nodiscard]] RouteWay way_of(const build::Route& route, const build::PartPlace& from, const build::PartPlace& to);

/// The route of a line, by its key: `feed`, `front_left`. @returns none where nobody laid it: valid as long as `routes`
[[nodiscard]] const build::Route* route_of(const std::vector<build::Route>& routes, std::string_view line);

/// m of a route with its slack: what is cut.
/// @param usual  share of the way that is slack where the route says none
[[nodiscard]] double routed_length(const RouteWay& way, const build::Route& route, double usual);

/// How a line turns at one corner of its way.
struct RouteBend {
  std::size_t corner = 0; // of the way's
  double turns = 0;       // rad; 0: straight on
  double widest = 0;      // m, radius there is room for between the corners beside it
};
/// Those that turn at all.
/// Source: docs/models.md, "Routes".
[[nodiscard]] std::vector<RouteBend> bends_of(const RouteWay& way);

} // namespace mavrel::assess
