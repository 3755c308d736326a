// mavrel-cli air: time passing in an air network of a file that carries all it needs, but for its bags' cards.
#include "air/simulation.h"
#include "cli/commands.h"
#include "cli/long_work.h"
#include "cli/reader.h"
#include "shelf/shelf.h"

#include <algorithm>
#include <chrono>
#include <filesystem>
#include <map>

namespace mavrel::cli {

namespace {

constexpr std::size_t most_volumes = 40, most_lines = 200, most_parts = 40, most_times = 5000, most_switches = 2000;
constexpr double longest_run = 30 * 86400;              // s
constexpr auto longest_work = std::chrono::seconds(60); // of computing: then it is given up

/// What a line does by the clock.
struct Switching {
  std::vector<std::pair<double, double>> open; // s; empty with `always`
  bool always = true;
  [[nodiscard]] bool at(double t) const {
    return always || std::any_of(open.begin(), open.end(), [&](const auto& o) { return t >= o.first && t < o.second; });
  }
};

struct File {
  air::Network network;
  std::vector<Switching> switching; // one a line
  std::vector<double> report;       // s
};

/// Pairs of numbers, [[a, b], …].
std::vector<std::pair<double, double>> pairs_in(Reader& read, const Json& in, const std::string& where, const char* key,
                                                std::size_t most) {
  std::vector<std::pair<double, double>> out;
  const std::string path = Reader::path(where, key);
  const auto found = in.find(key);
  if (found == in.end() || !found->is_array() || found->size() > most) {
    read.wrong(words("{0}: a list of up to {1} pairs of numbers is right."), {path, std::to_string(most)});
    return out;
  }
  for (const Json& p : *found) {
    if (!p.is_array() || p.size() != 2 || !p[0].is_number() || !p[1].is_number()) {
      read.wrong(words("{0}: a list of up to {1} pairs of numbers is right."), {path, std::to_string(most)});
      return out;
    }
    out.emplace_back(p[0].get<double>(), p[1].get<double>());
  }
  return out;
}

std::optional<Message> add_volume(File& file, Reader& read, const Json& in, const std::string& where,
                                  const std::filesystem::path& folder) {
  air::Network& net = file.network;
  air::Volume volume;
  volume.name = read.text(in, where, "name");
  volume.temperature = read.number(in, where, "temperature_k", 150, 600);
  volume.wall = read.number(in, where, "wall_w_per_k", 0, 1e6, 0.0);
  if (!in.contains("card")) {
    volume.size = read.number(in, where, "volume_m3", 1e-9, 100);
    volume.gauge_pressure = read.number(in, where, "pressure_pa", -1e5, 1e8);
    net.volumes.push_back(std::move(volume));
    return read.mistake();
  }
  const std::string card = read.text(in, where, "card");
  air::Body body;
  const double load = read.number(in, where, "load_n", 1e-3, 1e6);
  air::Leg leg;
  leg.volume = net.volumes.size();
  leg.height = read.number(in, where, "height_m", 0, 3);
  leg.lowest = read.number(in, where, "lowest_m", 0, 3);
  leg.highest = read.number(in, where, "highest_m", 0, 3);
  leg.added_volume = read.number(in, where, "added_m3", 0, 10, 0.0);
  if (read.mistake()) return read.mistake();
  const auto bag = shelf::read_bag_file(folder / card);
  if (!bag) return Message{words("{0}: {1}"), {Reader::path(where, "card"), bag.error()}};
  leg.curve = bag->curve;
  if (!leg.curve.contains(leg.height))
    return Message{words("{0}: {1} m is outside the card, which answers from {2} to {3} m."),
                   {Reader::path(where, "height_m"), fmt::format("{:g}", leg.height),
                    fmt::format("{:g}", leg.curve.lowest()), fmt::format("{:g}", leg.curve.highest())}};
  const double carries = air::pressure_for_load(leg.curve.section(leg.height), load);
  volume.gauge_pressure = read.number(in, where, "pressure_pa", -1e5, 1e8, carries);
  body.loads.push_back(load);
  body.legs.push_back(std::move(leg));
  net.volumes.push_back(std::move(volume));
  net.bodies.push_back(std::move(body));
  return read.mistake();
}

std::optional<std::size_t> place_of(const air::Network& net, const std::string& name) {
  if (name == "air") return air::outside;
  for (std::size_t v = 0; v < net.volumes.size(); ++v)
    if (net.volumes[v].name == name) return v;
  return std::nullopt;
}

std::optional<Message> add_line(File& file, Reader& read, const Json& in, const std::string& where) {
  air::Line line;
  for (const auto& [key, end] : {std::pair{"from", &line.from}, std::pair{"to", &line.to}}) {
    const std::string name = read.text(in, where, key);
    if (read.mistake()) return read.mistake();
    const auto place = place_of(file.network, name);
    if (!place)
      return Message{words("{0}: there is no volume {1}; the name of one, or air, is right."),
                     {Reader::path(where, key), name}};
    *end = *place;
  }
  const Json none = Json::array();
  const Json& parts = in.contains("parts") && in["parts"].is_array() ? in["parts"] : none;
  if (parts.empty() || parts.size() > most_parts)
    return Message{words("{0}: a list of 1 to {1} parts is right."),
                   {Reader::path(where, "parts"), std::to_string(most_parts)}};
  std::vector<air::Restriction> row;
  for (std::size_t i = 0; i < parts.size(); ++i) {
    const std::string at = fmt::format("{}.parts.{}", where, i);
    if (!parts[i].is_object())
      return Message{words("{0}: a part with c and b, or bore_m and length_m, is right."), {at}};
    if (parts[i].contains("bore_m"))
      row.push_back(
          air::tube(read.number(parts[i], at, "bore_m", 1e-5, 1), read.number(parts[i], at, "length_m", 0, 1e3)));
    else
      row.push_back({read.number(parts[i], at, "c", 1e-15, 1), read.number(parts[i], at, "b", 0, 0.998)});
    if (read.mistake()) return read.mistake();
  }
  line.through = row.size() == 1 ? row.front() : air::in_series(row);
  if (line.through.critical_ratio > 0.998) // a very wide short tube by its formula
    return Message{words("{0}: this tube is too wide and short for its formula; give its c and b."), {where}};
  if (in.contains("check")) {
    if (!in["check"].is_boolean())
      return Message{words("{0}: true or false is right."), {Reader::path(where, "check")}};
    line.one_way = in["check"].get<bool>();
  }
  Switching switching;
  if (in.contains("open")) {
    switching.always = false;
    switching.open = pairs_in(read, in, where, "open", most_switches);
    for (const auto& [from, to] : switching.open)
      if (!(from <= to)) read.wrong(words("{0}: each pair opens before it closes."), {Reader::path(where, "open")});
  }
  line.open = switching.at(0);
  file.network.lines.push_back(std::move(line));
  file.switching.push_back(std::move(switching));
  return read.mistake();
}

std::optional<Message> add_compressor(File& file, Reader& read, const Json& in, const std::string& where) {
  air::Compressor c;
  const std::string to = read.text(in, where, "to");
  if (read.mistake()) return read.mistake();
  const auto place = place_of(file.network, to);
  if (!place || *place == air::outside)
    return Message{words("{0}: there is no volume {1}."), {Reader::path(where, "to"), to}};
  c.to = *place;
  c.curve = pairs_in(read, in, where, "curve", 200);
  c.outlet = read.number(in, where, "outlet_k", 150, 900);
  c.cut_in = read.number(in, where, "cut_in_pa", -1e5, 1e8);
  c.cut_out = read.number(in, where, "cut_out_pa", -1e5, 1e8);
  if (in.contains("running")) {
    if (!in["running"].is_boolean())
      return Message{words("{0}: true or false is right."), {Reader::path(where, "running")}};
    c.running = in["running"].get<bool>();
  }
  file.network.compressors.push_back(std::move(c));
  return read.mistake();
}

Expected<File> file_in(const Json& json, const std::filesystem::path& folder) {
  Reader read;
  if (!json.is_object())
    return refuse(words("A network is an object with ambient, volumes, lines, compressors and report_s."));
  File file;
  const Json& ambient = read.object(json, "", "ambient");
  file.network.ambient_pressure = read.number(ambient, "ambient", "pressure_pa", 1e3, 1e7);
  file.network.ambient_temperature = read.number(ambient, "ambient", "temperature_k", 150, 600);
  const auto each = [&](const char* key, std::size_t most, const auto& add) -> std::optional<Message> {
    const Json& rows = read.list(json, key, most);
    for (std::size_t i = 0; i < rows.size(); ++i) {
      const std::string where = fmt::format("{}.{}", key, i);
      if (!rows[i].is_object())
        return Message{words("{0}: {1} is there; {2} is right."), {where, build::kind_of(rows[i]), words("an object")}};
      if (auto wrong = add(rows[i], where)) return wrong;
    }
    return read.mistake();
  };
  if (auto wrong = each("volumes", most_volumes, [&](const Json& in, const std::string& where) {
        return add_volume(file, read, in, where, folder);
      }))
    return refuse(*wrong);
  if (auto wrong = each("lines", most_lines,
                        [&](const Json& in, const std::string& where) { return add_line(file, read, in, where); }))
    return refuse(*wrong);
  if (json.contains("compressors"))
    if (auto wrong = each("compressors", 20, [&](const Json& in, const std::string& where) {
          return add_compressor(file, read, in, where);
        }))
      return refuse(*wrong);
  const Json& times = read.list(json, "report_s", most_times);
  for (const Json& t : times)
    if (t.is_number() && t.get<double>() >= 0 && t.get<double>() <= longest_run)
      file.report.push_back(t.get<double>());
    else
      read.wrong(words("{0}: times from 0 to {1} s are right."), {"report_s", fmt::format("{:g}", longest_run)});
  if (times.empty()) read.wrong(words("{0}: at least one time is right."), {"report_s"});
  if (read.mistake()) return refuse(*read.mistake());
  return file;
}

Json shown(const air::Simulation& now) {
  Json volumes = Json::array();
  std::map<std::size_t, double> heights;
  const air::Network& net = now.network();
  for (std::size_t b = 0; b < net.bodies.size(); ++b)
    for (std::size_t l = 0; l < net.bodies[b].legs.size(); ++l)
      heights[net.bodies[b].legs[l].volume] = now.legs(b)[l].bag_height;
  for (std::size_t v = 0; v < net.volumes.size(); ++v) {
    const air::VolumeState& s = now.volumes()[v];
    Json row = {{"name", net.volumes[v].name},
                {"pressure_pa", s.gauge_pressure},
                {"temperature_k", s.temperature},
                {"mass_kg", s.mass}};
    if (const auto found = heights.find(v); found != heights.end()) row["height_m"] = found->second;
    volumes.push_back(std::move(row));
  }
  return {{"time_s", now.time()}, {"volumes", std::move(volumes)}};
}

/// Every moment at which something is asked or switched, rising.
std::vector<double> moments(const File& file, double last) {
  std::vector<double> out = file.report;
  for (const Switching& s : file.switching)
    for (const auto& [from, to] : s.open)
      for (const double t : {from, to})
        if (t > 0 && t < last) out.push_back(t);
  std::sort(out.begin(), out.end());
  out.erase(std::unique(out.begin(), out.end()), out.end());
  return out;
}

Expected<Json> answer(const Json& json, const std::filesystem::path& folder) {
  auto file = file_in(json, folder);
  if (!file) return refuse(file.error());
  auto begun = air::Simulation::begin(file->network);
  if (!begun) return refuse(begun.error());
  air::Simulation& now = *begun;
  const double last = *std::max_element(file->report.begin(), file->report.end());
  const auto given_up_at = std::chrono::steady_clock::now() + longest_work;
  const auto told = told_progress("air");
  const auto too_long = [&] {
    told(now.time() / std::max(last, 1e-9));
    return std::chrono::steady_clock::now() > given_up_at;
  };
  std::map<double, Json> seen;
  for (const double t : moments(*file, last)) {
    if (t > now.time())
      if (const auto ran = now.run(t, {}, 0, {}, too_long); !ran)
        return too_long() ? refuse(words("It was given up after a minute's work, {0} s in."),
                                   {fmt::format("{:.1f}", now.time())})
                          : refuse(ran.error());
    seen[t] = shown(now);
    seen[t]["time_s"] = t;
    for (std::size_t l = 0; l < file->switching.size(); ++l)
      now.open(l, file->switching[l].at(t));
  }
  Json out = {{"at", Json::array()}, {"compressor_s", Json::array()}};
  for (const double t : file->report)
    out["at"].push_back(seen[t]);
  for (std::size_t c = 0; c < file->network.compressors.size(); ++c)
    out["compressor_s"].push_back(now.run_time(c));
  return out;
}

} // namespace

Expected<std::string> air(const std::string& path) {
  return answer_file(path, [&](const Json& json) { return answer(json, std::filesystem::path(path).parent_path()); });
}

} // namespace mavrel::cli
