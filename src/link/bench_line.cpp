#include "link/bench_line.h"

#include <fmt/format.h>
#include <nlohmann/json.hpp>

#include <algorithm>
#include <cmath>

namespace mavrel::link {

namespace {

using Json = nlohmann::ordered_json;
using control::ValveOrder;

constexpr const char* corners[] = {"FL", "FR", "RL", "RR"};
constexpr const char* ways[] = {"shut", "fill", "vent"};

std::string ended(const Json& json) {
  return json.dump(-1, ' ', false, Json::error_handler_t::replace) + '\n';
}

double rounded(double v, double to) {
  return std::round(v / to) * to;
}

template <std::size_t N>
Json by_corner(const std::array<std::optional<double>, N>& values, int digits) {
  Json out = Json::object();
  for (std::size_t c = 0; c < N; ++c)
    if (values[c]) out[corners[c]] = Json::parse(fmt::format("{:.{}f}", *values[c], digits));
  return out;
}

/// A number that can be one: finite and believable.
std::optional<double> number_in(const Json& in, const char* key, double least, double most) {
  const auto found = in.find(key);
  if (found == in.end() || !found->is_number()) return std::nullopt;
  const double v = found->get<double>();
  return v >= least && v <= most ? std::optional(v) : std::nullopt;
}

std::optional<ValveOrder> way_in(const Json& value) {
  for (std::size_t i = 0; i < std::size(ways); ++i)
    if (value == ways[i]) return static_cast<ValveOrder>(i);
  return std::nullopt;
}

Expected<Json> object_in(std::string_view line) {
  Json json = Json::parse(line, nullptr, false);
  if (json.is_object()) return json;
  return refuse(words("A line is no JSON object: {0}"), {std::string(line.substr(0, 60))});
}

Expected<Hello> hello_in(const Json& json) {
  Hello out;
  if (const auto name = json.find("name"); name != json.end() && name->is_string())
    out.name = name->get<std::string>().substr(0, 80);
  if (const auto v = json.find("version");
      v == json.end() || !v->is_number_integer() || v->get<long long>() != protocol_version)
    return refuse(words("It speaks another version of the link; {0} is spoken here."),
                  {fmt::to_string(protocol_version)});
  out.rate = number_in(json, "rate_hz", 0.1, 1000).value_or(out.rate);
  const auto circuits = json.find("circuits");
  if (circuits == json.end()) return out;
  if (!circuits->is_array() || circuits->size() > most_circuits)
    return refuse(words("“circuits” must be a list of up to {0}."), {fmt::to_string(most_circuits)});
  for (const Json& c : *circuits) {
    Circuit circuit;
    if (!c.is_object() || !c.contains("name") || !c["name"].is_string() || !c.contains("corners") ||
        !c["corners"].is_array())
      return refuse(words("Each of “circuits” must have a name and its corners."));
    circuit.name = c["name"].get<std::string>().substr(0, 20);
    for (const Json& corner : c["corners"])
      for (std::size_t i = 0; i < std::size(corners); ++i)
        if (corner == corners[i]) circuit.corners.push_back(i);
    if (circuit.name.empty() || circuit.corners.empty())
      return refuse(words("Each of “circuits” must have a name and its corners."));
    out.circuits.push_back(std::move(circuit));
  }
  return out;
}

} // namespace

const char* corner_key(std::size_t corner) {
  return corners[corner];
}

std::string line_of(const Hello& hello) {
  Json circuits = Json::array();
  for (const Circuit& c : hello.circuits) {
    Json names = Json::array();
    for (const std::size_t i : c.corners)
      names.push_back(corners[i]);
    circuits.push_back({{"name", c.name}, {"corners", names}});
  }
  return ended({{"hello", "mavrel bench"},
                {"version", protocol_version},
                {"name", hello.name},
                {"circuits", circuits},
                {"rate_hz", hello.rate},
                {"watchdog_s", watchdog}});
}

std::string line_of(const State& s, const std::vector<Circuit>& circuits) {
  Json out = {{"t_s", rounded(s.time, 1e-3)}};
  if (Json h = by_corner(s.height, 5); !h.empty()) out["height_m"] = h;
  if (Json p = by_corner(s.pressure, 0); !p.empty()) out["pressure_pa"] = p;
  if (s.tank) out["tank_pa"] = std::round(*s.tank);
  if (s.valves.size() == circuits.size() && !circuits.empty()) {
    Json valves = Json::object();
    for (std::size_t i = 0; i < circuits.size(); ++i)
      valves[circuits[i].name] = ways[static_cast<std::size_t>(s.valves[i])];
    out["valves"] = valves;
  }
  if (s.compressor) out["compressor"] = *s.compressor;
  if (s.speed) out["speed_m_per_s"] = rounded(*s.speed, 1e-2);
  return ended(out);
}

std::string line_of(const Note& note) {
  return ended({{"note", note.text}});
}

std::string line_of(const Order& o) {
  switch (o.what) {
  case Order::What::open:
    return ended({{"open", o.circuit}, {"way", ways[static_cast<std::size_t>(o.way)]}});
  case Order::What::close:
    return ended({{"close", o.circuit.empty() ? "all" : o.circuit}});
  case Order::What::alive:
    return ended({{"alive", true}});
  case Order::What::controller:
    return ended({{"controller", o.on}});
  case Order::What::drive:
    return ended({{"drive_m_per_s", o.speed}});
  case Order::What::test:
    return ended({{"test", o.text}});
  case Order::What::name:
    return ended({{"name", o.text}});
  }
  return {};
}

Expected<FromRig> read_rig_line(std::string_view line, const std::vector<Circuit>& circuits) {
  const auto json = object_in(line);
  if (!json) return refuse(json.error());
  if (json->contains("hello")) {
    auto hello = hello_in(*json);
    if (!hello) return refuse(hello.error());
    return FromRig(std::move(*hello));
  }
  if (const auto note = json->find("note"); note != json->end()) {
    if (!note->is_string()) return refuse(words("“note” must be a text."));
    return FromRig(Note{note->get<std::string>().substr(0, 400)});
  }
  State out;
  const auto time = number_in(*json, "t_s", 0, 1e9);
  if (!time) return refuse(words("A line says neither hello, nor note, nor when it was read (t_s)."));
  out.time = *time;
  const auto corners_in = [&](const char* key, double least, double most, auto& to) -> std::optional<Message> {
    const auto found = json->find(key);
    if (found == json->end()) return std::nullopt;
    if (!found->is_object()) return Message{words("“{0}” must name corners."), {std::string(key)}};
    for (std::size_t c = 0; c < 4; ++c) {
      if (!found->contains(corners[c])) continue;
      to[c] = number_in(*found, corners[c], least, most);
      if (!to[c])
        return Message{
            words("“{0}” of {1} is no number from {2} to {3}."),
            {std::string(key), std::string(corners[c]), fmt::format("{:g}", least), fmt::format("{:g}", most)}};
    }
    return std::nullopt;
  };
  if (auto wrong = corners_in("height_m", -1, 3, out.height)) return refuse(*wrong);
  if (auto wrong = corners_in("pressure_pa", -1e5, 5e6, out.pressure)) return refuse(*wrong);
  out.tank = number_in(*json, "tank_pa", -1e5, 5e6);
  out.speed = number_in(*json, "speed_m_per_s", 0, 150);
  if (const auto c = json->find("compressor"); c != json->end() && c->is_boolean()) out.compressor = c->get<bool>();
  if (const auto valves = json->find("valves"); valves != json->end() && valves->is_object())
    for (const Circuit& circuit : circuits) {
      const auto way = way_in(valves->value(circuit.name, Json()));
      out.valves.push_back(way.value_or(ValveOrder::shut));
    }
  return FromRig(std::move(out));
}

Expected<Order> read_order(std::string_view line) {
  const auto json = object_in(line);
  if (!json) return refuse(json.error());
  Order out;
  const auto name = [&](const char* key) -> std::optional<std::string> {
    const auto found = json->find(key);
    if (found == json->end() || !found->is_string() || found->get<std::string>().empty()) return std::nullopt;
    return found->get<std::string>();
  };
  if (json->contains("open")) {
    const auto circuit = name("open");
    const auto way = way_in(json->value("way", Json()));
    if (!circuit || !way || *way == ValveOrder::shut)
      return refuse(words("To open, a circuit's name and a way, “fill” or “vent”, are right."));
    out.what = Order::What::open, out.circuit = *circuit, out.way = *way;
    return out;
  }
  if (json->contains("close")) {
    const auto circuit = name("close");
    if (!circuit) return refuse(words("To close, a circuit's name or “all” is right."));
    out.what = Order::What::close;
    if (*circuit != "all") out.circuit = *circuit;
    return out;
  }
  if (const auto on = json->find("controller"); on != json->end()) {
    if (!on->is_boolean()) return refuse(words("“controller” must be true or false."));
    out.what = Order::What::controller, out.on = on->get<bool>();
    return out;
  }
  if (json->contains("drive_m_per_s")) {
    const auto speed = number_in(*json, "drive_m_per_s", 0, 70);
    if (!speed) return refuse(words("“drive_m_per_s” must be a number from 0 to 70."));
    out.what = Order::What::drive, out.speed = *speed;
    return out;
  }
  for (const auto& [key, what] : {std::pair("test", Order::What::test), std::pair("name", Order::What::name)})
    if (json->contains(key)) {
      const auto text = name(key);
      if (!text) return refuse(words("“{0}” must be a text."), {std::string(key)});
      out.what = what, out.text = text->substr(0, 200);
      return out;
    }
  if (json->contains("alive")) return out;
  return refuse(words("No order is known by that: {0}"), {std::string(line.substr(0, 60))});
}

bool Lines::take(std::string_view bytes) {
  bool right = true;
  for (const char c : bytes) {
    if (c == '\n') {
      open_ = 0;
      if (!skipping_) kept_ += c;
      skipping_ = false;
      continue;
    }
    if (skipping_) continue;
    kept_ += c;
    if (++open_ <= longest_line) continue;
    kept_.resize(kept_.size() - open_);
    open_ = 0, skipping_ = true, right = false;
  }
  return right;
}

std::optional<std::string> Lines::next() {
  const auto end = kept_.find('\n');
  if (end == std::string::npos) return std::nullopt;
  std::string out = kept_.substr(0, end);
  kept_.erase(0, end + 1);
  if (!out.empty() && out.back() == '\r') out.pop_back();
  return out;
}

} // namespace mavrel::link
