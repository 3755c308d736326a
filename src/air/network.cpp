#include "air/network.h"

#include <algorithm>
#include <cmath>
#include <functional>

namespace mavrel::air {

namespace {

bool positive(double x) {
  return x > 0 && std::isfinite(x);
}

std::string place_name(const Network& network, std::size_t at) {
  return at == outside ? std::string("air") : network.volumes[at].name;
}

/// Volumes on a round of check valves that air could never go about in; empty: there is none.
std::string loop_of_checks(const Network& network) {
  enum Seen { no, under_way, done };
  std::vector<Seen> seen(network.volumes.size(), no);
  std::vector<std::size_t> way;
  std::string found;
  const std::function<bool(std::size_t)> visit = [&](std::size_t v) {
    seen[v] = under_way;
    way.push_back(v);
    for (const Line& line : network.lines) {
      if (!line.one_way || line.from != v || line.to == outside) continue;
      if (seen[line.to] == under_way) {
        for (auto it = std::find(way.begin(), way.end(), line.to); it != way.end(); ++it)
          found += network.volumes[*it].name + ", ";
        found += network.volumes[line.to].name;
        return true;
      }
      if (seen[line.to] == no && visit(line.to)) return true;
    }
    way.pop_back();
    seen[v] = done;
    return false;
  };
  for (std::size_t v = 0; v < network.volumes.size(); ++v)
    if (seen[v] == no && visit(v)) return found;
  return {};
}

std::optional<Message> mistake_in_leg(const Network& network, const Leg& leg) {
  const std::string& name = network.volumes[leg.volume].name;
  if (!(leg.lowest < leg.highest))
    return Message{
        words("{0}: its stops lie at {1} and {2}; the lower one below the higher is right."),
        {name, told_from(metres(leg.lowest, 1), leg.highest), told_from(metres(leg.highest, 1), leg.lowest)}};
  const auto bag_height = [&](double H) { return leg.travel ? leg.travel->read(H, 0).value : H; };
  for (const double H : {leg.lowest, leg.highest}) {
    const double h = leg.travel && !leg.travel->contains(H) ? NAN : bag_height(H);
    if (!(h >= leg.curve.lowest() - 1e-6 && h <= leg.curve.highest() + 1e-6))
      return Message{words("{0}: with its stop at {1} the bag is outside its card, which answers from {2} to {3}."),
                     {name, metres(H, 1), metres(leg.curve.lowest(), 1), metres(leg.curve.highest(), 1)}};
  }
  if (!(leg.height >= leg.lowest - 1e-6 && leg.height <= leg.highest + 1e-6))
    return Message{words("{0}: it begins at {1}, outside its stops at {2} and {3}."),
                   {name, metres(leg.height, 1), metres(leg.lowest, 1), metres(leg.highest, 1)}};
  return std::nullopt;
}

} // namespace

std::optional<Message> mistake_in(const Network& network) {
  if (!positive(network.ambient_pressure) || !positive(network.ambient_temperature))
    return Message{words("The air around needs a pressure and a temperature above zero."), {}};
  if (network.volumes.empty()) return Message{words("There is nothing to hold air: at least one volume is right."), {}};
  std::vector<int> legs(network.volumes.size(), 0);
  for (const Body& body : network.bodies)
    for (const Leg& leg : body.legs) {
      if (++legs[leg.volume] > 1)
        return Message{words("{0} stands under two legs; one is right."), {network.volumes[leg.volume].name}};
      if (auto wrong = mistake_in_leg(network, leg)) return wrong;
    }
  for (const Body& body : network.bodies)
    for (std::size_t i = 0; i < body.legs.size(); ++i)
      if (!positive(body.loads[i]))
        return Message{words("{0} carries nothing; a load above zero is right."),
                       {network.volumes[body.legs[i].volume].name}};
  for (std::size_t v = 0; v < network.volumes.size(); ++v) {
    const Volume& volume = network.volumes[v];
    for (std::size_t u = 0; u < v; ++u)
      if (network.volumes[u].name == volume.name)
        return Message{words("Two volumes are called {0}; each needs a name of its own."), {volume.name}};
    if (legs[v] == 0 && !positive(volume.size))
      return Message{words("{0} has no volume; more than zero is right."), {volume.name}};
    if (!(volume.gauge_pressure > -network.ambient_pressure) || !std::isfinite(volume.gauge_pressure))
      return Message{words("{0}: its pressure lies below nothing at all."), {volume.name}};
    if (!positive(volume.temperature)) return Message{words("{0} needs a temperature above zero."), {volume.name}};
    if (!(volume.wall >= 0) || !std::isfinite(volume.wall))
      return Message{words("{0}: heat through its wall is zero or more."), {volume.name}};
  }
  for (const Line& line : network.lines) {
    const std::string name =
        line.name.empty() ? place_name(network, line.from) + " – " + place_name(network, line.to) : line.name;
    if (line.from == line.to) return Message{words("{0} ends where it begins."), {name}};
    if (!positive(line.through.conductance))
      return Message{words("{0} lets nothing through; a bore or conductance above zero is right."), {name}};
    if (!(line.through.critical_ratio >= 0 && line.through.critical_ratio < 0.999))
      return Message{words("{0}: its critical ratio lies from 0 to below 0.999."), {name}};
  }
  for (const Compressor& c : network.compressors) {
    const std::string name = c.name.empty() ? network.volumes[c.to].name : c.name;
    if (c.curve.empty()) return Message{words("The compressor to {0} has no curve."), {name}};
    for (std::size_t i = 0; i < c.curve.size(); ++i) {
      if (!(c.curve[i].second >= 0) || !std::isfinite(c.curve[i].second))
        return Message{words("The compressor to {0}: it delivers zero or more at every point."), {name}};
      if (i > 0 && !(c.curve[i].first > c.curve[i - 1].first))
        return Message{words("The compressor to {0}: the pressures of its curve rise from point to point."), {name}};
    }
    if (!positive(c.outlet)) return Message{words("The compressor to {0} needs an outlet temperature."), {name}};
    if (!(c.cut_in < c.cut_out))
      return Message{
          words("The compressor to {0} would start at {1} and stop at {2}; starting below stopping is right."),
          {name, Amount{c.cut_in, Kind::pressure, -1, {}}, Amount{c.cut_out, Kind::pressure, -1, {}}}};
  }
  if (const std::string loop = loop_of_checks(network); !loop.empty())
    return Message{words("The check valves go round in a loop: {0}. Air could never come back; one of them is wrong."),
                   {loop}};
  return std::nullopt;
}

double delivery(const Compressor& compressor, double p) {
  const auto& curve = compressor.curve;
  if (p <= curve.front().first) return curve.front().second;
  if (p >= curve.back().first) return curve.back().second;
  std::size_t i = 1;
  while (p >= curve[i].first)
    ++i;
  const auto [p0, q0] = curve[i - 1];
  const auto [p1, q1] = curve[i];
  return q0 + (q1 - q0) * (p - p0) / (p1 - p0);
}

double mass_delivered(const Network& network, const Compressor& compressor, double gauge_pressure) {
  return delivery(compressor, gauge_pressure) * air_density(network.ambient_pressure, network.ambient_temperature);
}

} // namespace mavrel::air
