#include "report/air_sheet.h"

#include "assess/air/air_findings.h"
#include "assess/air/figures.h"
#include "assess/air/wiring.h"
#include "build/names.h"
#include "file/csv.h"
#include "quantity/quantity.h"
#include "report/html_table.h"
#include "report/sure.h"

#include <algorithm>
#include <cmath>

namespace mavrel::report {

using namespace assess;

namespace {

struct KitRow {
  std::string role, name, maker, threads;
  double count = 1;
  std::optional<double> length; // m, together
};

std::string threads_of(const shelf::Part& part) {
  std::string out;
  for (const shelf::PartPort& port : part.ports)
    out += fmt::format("{}{} × {}", out.empty() ? "" : ", ", port.count, port.thread);
  return out;
}

std::vector<KitRow> kit_rows(const AirGiven& air) {
  std::vector<KitRow> out;
  for (const KitRoleRow& role : kit_roles()) {
    const shelf::Part* part = air.parts[role.role];
    if (!part) continue;
    KitRow row{role.label, part->name, part->maker, threads_of(*part), amount_of(air, role.role), {}};
    if (part->kind == shelf::PartKind::line) row.length = row.count, row.count = 1;
    out.push_back(std::move(row));
  }
  if (air.kit.circuits == build::Circuits::per_axle)
    out.push_back({words("tees"), words("of the lines' size"), "", "", 2, {}});
  return out;
}

std::string seconds(const std::optional<double>& s, const UnitPrefs& prefs) {
  if (!s) return words("never");
  return show(*s, *s < 90 ? Kind::time : Kind::minutes, prefs);
}

/// Seconds with their doubt, where that is known.
std::string sure_seconds(const std::optional<double>& s, const Doubt* doubt, const char* answer,
                         const UnitPrefs& prefs) {
  const DoubtAnswer* a = s ? doubt_of(doubt, answer, *s) : nullptr;
  return a ? with_doubt(*s, a->sd, *s < 90 ? Kind::time : Kind::minutes, prefs) : seconds(s, prefs);
}

/// @param doubt  may be null
std::string predicted(const AirGiven& air, const UnitPrefs& prefs, const Doubt* doubt) {
  std::string out;
  Table moves(
      {words("move"), words("order"), words("reached after"), words("air"), words("tank after"), words("settles")});
  // Those of the day, and the lift that wishes speak of, both ways.
  std::vector<std::pair<std::size_t, std::size_t>> asked;
  const auto ask = [&](std::size_t from, std::size_t to) {
    if (from < air.presets.size() && to < air.presets.size() && from != to &&
        std::find(asked.begin(), asked.end(), std::pair(from, to)) == asked.end())
      asked.emplace_back(from, to);
  };
  const auto index = [&](const std::string& name) {
    return static_cast<std::size_t>(std::find(air.presets.begin(), air.presets.end(), name) - air.presets.begin());
  };
  if (const auto lift = wished_lift(air)) ask(lift->first, lift->second), ask(lift->second, lift->first);
  for (const build::DayMove& move : moves_of_day(air))
    ask(index(move.from), index(move.to));
  for (const auto& [from, to] : asked) {
    const auto lift = simulate_move(air, {from, to, air.kit.order, 0, false, {}}, false);
    const std::string name = air.presets[from] + " – " + air.presets[to];
    if (!lift)
      moves.row({name, "", say(lift.error(), prefs)});
    else
      moves.row({name, build::name_of(air.kit.order),
                 wished_lift(air) == std::pair(from, to) ? sure_seconds(lift->arrived, doubt, "air.rise", prefs)
                                                         : seconds(lift->arrived, prefs),
                 fmt::format("{:.1f} g", lift->air_used * 1e3), show(lift->tank_after, Kind::pressure, prefs),
                 show(lift->settled, Kind::length, prefs)});
  }
  if (!asked.empty()) out += moves.text();
  const auto figures = kit_figures(air, {});
  if (!figures) return out;
  Table table({words("by the kit"), ""});
  if (figures->lifts)
    table.row({say({words("lifts per tank, {0}"), {case_name(air, 0)}}, prefs),
               fmt::format("{}{}", figures->lifts->lifts, figures->lifts->more ? " +" : "")});
  if (figures->ready)
    table.row({words("refill after one"), sure_seconds(figures->ready->time, doubt, "air.ready", prefs)});
  if (figures->heaviest && figures->heaviest->lifts) {
    const CaseLifts& heaviest = *figures->heaviest;
    table.row({say({words("lifts per tank, {0}"), {case_name(air, heaviest.load_case)}}, prefs),
               fmt::format("{}{}", heaviest.lifts->lifts, heaviest.lifts->more ? " +" : "")});
    if (heaviest.ready) table.row({words("refill after one of those"), seconds(heaviest.ready->time, prefs)});
  }
  if (figures->first) {
    if (air.kit.shop_inlet == build::Fitted::yes)
      table.row({words("first fill, shop air, then by itself"),
                 seconds(figures->first->shop_time, prefs) + ", " + seconds(figures->first->rest_time, prefs)});
    if (figures->first->own_time)
      table.row({words("all of it by itself"), sure_seconds(figures->first->own_time, doubt, "air.fill", prefs)});
  }
  if (figures->tyres) table.row({words("four tyres"), seconds(figures->tyres->time, prefs)});
  if (figures->day) table.row({words("compressor runs a day"), show(figures->day->run, Kind::minutes, prefs)});
  return out + table.text();
}

std::string wires(const AirGiven& air, const UnitPrefs& prefs) {
  const auto wiring = wiring_of(air);
  if (!wiring) return {};
  Table table({words("from"), words("to"), words("length"), words("section"), words("fuse"), words("how")});
  for (const WireRow& row : wiring->rows)
    table.row({row.from, row.to, show(row.length, Kind::altitude, prefs, 1),
               row.section ? show(*row.section * 1e-6, Kind::section, prefs, -2) : "–",
               row.fuse ? show(*row.fuse, Kind::current, prefs, -2) : "–", say(row.what, prefs)});
  return fmt::format("<p>{}</p>",
                     escaped(say({words("{0} at cut-out, {1} at worst while one starts; {2} at the compressor."),
                                  {Amount{wiring->running, Kind::current, -1, {}},
                                   Amount{wiring->starting, Kind::current, 0, {}},
                                   Amount{wiring->volts, Kind::voltage, 2, {}}}},
                                 prefs))) +
         table.text();
}

std::string text_at(double x, double y, const std::string& text, double size, const char* colour) {
  return fmt::format("<text x='{:.1f}' y='{:.1f}' font-family='Mavrel Text' font-size='{:.1f}' fill='{}'>{}</text>", x,
                     y, size, colour, escaped(text));
}

} // namespace

std::string kit_sheet(const AirGiven& air, const UnitPrefs& prefs) {
  if (!kit_begun(air.kit)) return {};
  Table kit({words("part"), words("card"), words("maker"), words("count"), words("threads"), words("length")});
  for (const KitRow& row : kit_rows(air))
    kit.row({row.role, row.name, row.maker, fmt::format("{:g}", row.count), row.threads,
             row.length ? show(*row.length, Kind::altitude, prefs, 1) : ""});
  return fmt::format("<p>{}, {}, {}</p>", build::name_of(air.kit.circuits), build::name_of(air.kit.school),
                     build::name_of(air.kit.order)) +
         kit.text();
}

std::string predicted_sheet(const AirGiven& air, const UnitPrefs& prefs, const Doubt* doubt) {
  const std::string wired = wires(air, prefs);
  return predicted(air, prefs, doubt) + (wired.empty() ? "" : fmt::format("<h3>{}</h3>", words("Wiring")) + wired);
}

std::string run_svg(const AirGiven& air, const UnitPrefs& prefs) {
  constexpr double column = run_svg_width / 7, middle = 62;
  const char *ink = "#1C2426", *second = "#5B6663", *colours[] = {"#0E6A75", "#8C4A12"};
  std::string out =
      fmt::format("<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 {0} {1}'>", run_svg_width, run_svg_height);
  struct Piece {
    KitRole role;
    double x, C;
    double y = middle;
    const char* colour;
  };
  std::vector<Piece> pieces;
  int at = 1;
  for (const KitRole role : {KitRole::check_valve, KitRole::trap})
    if (const shelf::Part* part = air.parts[role])
      pieces.push_back({role, column * at++, part->conductance.value_or(0), middle, second});
  const double tank_x = column * 3;
  const auto circuits = circuits_of(air);
  for (std::size_t i = 0; i < circuits.size(); ++i) {
    const auto way = way_to_bag(air, circuits[i].front());
    if (!way) continue;
    const double y = middle + (static_cast<double>(i) - (static_cast<double>(circuits.size()) - 1) / 2) * 22;
    const char* colour = colours[circuits[i].front() / 2];
    for (const AirStep& step : *way) {
      if (!step.through) continue;
      if (step.role == KitRole::feed_line && i == 0)
        pieces.push_back({step.role, column * 4, step.through->conductance, middle, second});
      if (step.role == KitRole::valves) pieces.push_back({step.role, column * 5, step.through->conductance, y, colour});
      if (step.role == KitRole::front_line || step.role == KitRole::rear_line)
        pieces.push_back({step.role, column * 6, step.through->conductance, y, colour});
    }
  }
  double most = 1e-12;
  for (const Piece& p : pieces)
    most = std::max(most, p.C);
  for (const Piece& p : pieces) {
    const double half = std::max(0.8, 9 * std::sqrt(p.C / most));
    out += fmt::format(
        "<rect x='{:.1f}' y='{:.1f}' width='{:.1f}' height='{:.1f}' fill='{}' fill-opacity='0.45' stroke='{}'/>", p.x,
        p.y - half, column - 3, 2 * half, p.colour, p.colour);
  }
  out += fmt::format("<rect x='4' y='{:.1f}' width='{:.1f}' height='24' fill='none' stroke='{}'/>", middle - 12,
                     column - 18, ink);
  out += fmt::format("<rect x='{:.1f}' y='{:.1f}' width='{:.1f}' height='32' rx='16' fill='#FFFFFF' stroke='{}'/>",
                     tank_x + 3, middle - 16, column - 8, ink);
  out += text_at(tank_x + 18, middle + 4, show(tank_volume(air.parts), Kind::volume, prefs, 0), 9, ink);
  const auto label = [&](double x, double y, KitRole role) {
    const shelf::Part* part = air.parts[role];
    out += text_at(x, y, row_of(role).label, 6.5, second);
    out += text_at(x, y + 9, part ? part->name : words("none"), 7.5, ink);
  };
  label(4, 12, KitRole::compressor);
  for (const Piece& p : pieces)
    if (p.role == KitRole::check_valve || p.role == KitRole::trap || p.role == KitRole::feed_line)
      label(p.x, 12, p.role);
  label(tank_x, 12, KitRole::tank);
  label(column * 5, 12, KitRole::valves);
  label(column * 6, 12, KitRole::front_line);
  label(column * 6, 128, KitRole::rear_line);
  label(tank_x, 128, KitRole::relief);
  label(column * 2, 128, KitRole::pressure_switch);
  label(column * 4, 128, KitRole::drain);
  return out + "</svg>";
}

std::string wiring_svg(const AirGiven& air, const UnitPrefs& prefs) {
  const auto wiring = wiring_of(air);
  if (!wiring) return {};
  const char *ink = "#1C2426", *second = "#5B6663", *live = "#A8281F";
  std::string out =
      fmt::format("<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 {0} {1}'>", run_svg_width, run_svg_height);
  const auto box = [&](double x, double y, double width, const std::string& name, const std::string& under) {
    out += fmt::format("<rect x='{:.1f}' y='{:.1f}' width='{:.1f}' height='26' fill='#FFFFFF' stroke='{}'/>", x, y - 13,
                       width, ink);
    out += text_at(x + 3, y - 2, name, 7.5, ink) + text_at(x + 3, y + 8, under, 6.5, second);
  };
  const auto wire = [&](double from, double to, double y, double section) {
    out += fmt::format("<line x1='{:.1f}' y1='{:.1f}' x2='{:.1f}' y2='{:.1f}' stroke='{}' stroke-width='{:.1f}'/>",
                       from, y, to, y, section > 0 ? live : second, section > 0 ? 0.8 + 0.5 * std::sqrt(section) : 0.8);
  };
  double y = 24;
  for (const Feed& feed : wiring->feeds) {
    const double section = feed.cable ? feed.cable->section : 0;
    wire(70, 430, y, section);
    box(4, y, 70, words("battery"), show(air.kit.volts, Kind::voltage, prefs));
    box(104, y, 46, words("fuse"), feed.cable ? show(feed.cable->fuse, Kind::current, prefs, 0) : "–");
    box(318, y, 66, words("relay"), say({words("peak {0}"), {Amount{feed.starting, Kind::current, 0, {}}}}, prefs));
    std::string names;
    for (const std::string& name : feed.compressors)
      names += (names.empty() ? "" : " + ") + name;
    box(416, y, 100, names, say({words("{0} at cut-out"), {Amount{feed.running, Kind::current, -1, {}}}}, prefs));
    if (feed.cable)
      out += text_at(158, y - 6,
                     say({words("{0}, {1}, drops {2}"),
                          {Amount{section * 1e-6, Kind::section, -2, {}}, Amount{feed.length, Kind::altitude, 1, {}},
                           Amount{feed.cable->drop, Kind::voltage, 2, {}}}},
                         prefs),
                     7, ink);
    y += 44;
  }
  wire(90, 350, y + 12, 0);
  out += fmt::format("<line x1='350' y1='{:.1f}' x2='350' y2='{:.1f}' stroke='{}' stroke-dasharray='3 2'/>", y + 12,
                     y - 31, second);
  box(4, y + 12, 90, words("switched feed"), words("live in cranking"));
  const auto cut = cut_pressures(air.parts);
  box(150, y + 12, 110, words("pressure switch"),
      cut ? show(cut->first, Kind::pressure, prefs) + " – " + show(cut->second, Kind::pressure, prefs) : "–");
  return out + "</svg>";
}

std::string kit_csv(const AirGiven& air) {
  std::string out = "part,card,maker,count,threads,length_m\n";
  for (const KitRow& row : kit_rows(air))
    out += fmt::format("{},{},{},{:g},{},{}\n", csv_cell(row.role), csv_cell(row.name), csv_cell(row.maker), row.count,
                       csv_cell(row.threads), row.length ? fmt::format("{:.2f}", *row.length) : "");
  return out;
}

} // namespace mavrel::report
