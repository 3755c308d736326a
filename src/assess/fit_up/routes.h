// The lines and looms of the kit on their ways: how long they are cut, how tightly they are bent, what is hot or turns
// near them.
#pragma once

#include "assess/fit_up/fit_up_given.h"

namespace mavrel::assess {

constexpr double line_from_heat = 0.100;              // m, a line from an exhaust without a shield
constexpr double line_from_moving = 0.020;            // m, a line from a tyre
constexpr const char* delivery_hose = "braided hose"; // from a compressor, with ends of its own

struct RouteHeat {
  std::string name;           // of the hot part
  double gap = 0, wanted = 0; // m
};
struct RouteTyre {
  End end = End::front;
  double gap = 0; // m; 0 where it goes through the wheel
  bool through = false;
  double H = 0; // m, where
  Lock lock = Lock::straight;
};

struct JudgedRoute {
  std::string key;  // `front_left`
  Message name;     // `front left bag`
  std::string part; // the line's card, or the cable
  build::PartPlace from, to;
  Message from_name, to_name;
  bool air = true;       // a line; else a cable
  bool laid = false;     // somebody said its way; else it is reckoned from place to place
  std::size_t index = 0; // among the document's routes, where it is there
  bool listed = false;
  RouteWay way;
  double length = 0, slack = 0; // m, cut; and what of it is slack
  double slack_wanted = 0;      // m, that travel, lock and making the ends take
  std::vector<RouteBend> bends;
  std::optional<double> least_bend; // m, of the line's card
  std::optional<double> tightest;   // m, of the bends there is room for
  std::optional<RouteHeat> hot;     // the nearest
  std::vector<RouteTyre> tyres;     // near enough to be said; of ends whose wheels have a place
  std::string mark;                 // on both ends: `FL`
  double outer = 0.008;             // m across
};
/// What a line is called by where it goes: `valves to front left bag`. @param key  as in the document, `front_left`
[[nodiscard]] Message line_name(std::string_view key);

/// Every line to a bag, the feed, and the cables between battery, compressor, controller and valves.
/// Source: docs/models.md, "Routes".
[[nodiscard]] std::vector<JudgedRoute> judged_routes(const FitUpGiven& given);

/// Points of a first way from end to end, to be moved where it really goes: down to the floor, along beside the tunnel,
/// up before the axle. @param sill_height  m, of the car
[[nodiscard]] std::vector<build::WayPoint> first_way(const JudgedRoute& route, std::optional<double> sill_height);

} // namespace mavrel::assess
