#include "assess/air/sizing.h"
#include "parallel/in_parallel.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <mutex>

namespace mavrel::assess {

namespace {

/// The fitting that goes on a line; none on the shelf.
const shelf::Part* fitting_for(const SizingGiven& given, const shelf::Part& line) {
  for (const shelf::Part& fitting : given.fittings)
    if (fitting.outer && std::abs(*fitting.outer - *line.outer) < 1e-5) return &fitting;
  return nullptr;
}
/// The line to the valves: a size above those to the bags, where there is one.
const shelf::Part& feed_for(const SizingGiven& given, const shelf::Part& line) {
  const shelf::Part* best = nullptr;
  for (const shelf::Part& other : given.lines)
    if (*other.bore > *line.bore && (!best || *other.bore < *best->bore)) best = &other;
  return best ? *best : line;
}

void put(AirGiven& air, KitRole role, const shelf::Part* part) {
  air.kit.*row_of(role).name = part ? part->name : std::string();
  air.parts.at(role) = part ? std::optional(*part) : std::nullopt;
}

AirGiven with(const SizingGiven& given, const KitChoice& choice) {
  AirGiven air = given.air;
  const shelf::Part& line = given.lines[choice.line];
  const shelf::Part& feed = feed_for(given, line);
  put(air, KitRole::compressor, &given.compressors[choice.compressor]);
  put(air, KitRole::second_compressor, choice.compressors > 1 ? &given.compressors[choice.compressor] : nullptr);
  put(air, KitRole::tank, &given.tanks[choice.tank]);
  put(air, KitRole::second_tank, nullptr);
  put(air, KitRole::valves, &given.valves[choice.valves]);
  put(air, KitRole::feed_line, &feed);
  put(air, KitRole::feed_fitting, fitting_for(given, feed));
  for (const auto& [end, tube, fitting] : {std::tuple{End::front, KitRole::front_line, KitRole::front_fitting},
                                           std::tuple{End::rear, KitRole::rear_line, KitRole::rear_fitting}}) {
    const bool none = on_springs(given.air, end);
    put(air, tube, none ? nullptr : &line);
    put(air, fitting, none ? nullptr : fitting_for(given, line));
  }
  return air;
}

/// Is a fault of one of the parts that are searched for?
bool of_the_searched(KitRole role) {
  constexpr KitRole searched[] = {
      KitRole::compressor, KitRole::tank,         KitRole::valves,        KitRole::feed_line,    KitRole::front_line,
      KitRole::rear_line,  KitRole::feed_fitting, KitRole::front_fitting, KitRole::rear_fitting, KitRole::relief};
  return std::find(std::begin(searched), std::end(searched), role) != std::end(searched);
}

/// What a wish comes short by, as a share of it, with its sentence.
struct Miss {
  double by = 0;
  Message what;
};

std::vector<Miss> misses(const KitChoice& c, const build::AirWishes& wishes) {
  std::vector<Miss> out;
  const auto at_most = [&](const std::optional<double>& is, double most, Kind kind, const char* over,
                           const char* never) {
    if (!is)
      out.push_back({10, {never, {}}});
    else if (*is > most * (1 + 1e-9))
      out.push_back({*is / most - 1, {over, {Amount{*is, kind, -1, most}, Amount{most, kind, -1, *is}}}});
  };
  at_most(c.rise, wishes.rise, Kind::time, words("rises in {0}, {1} wanted"), words("does not get up at all"));
  if (c.lifts < wishes.lifts)
    out.push_back({1 - c.lifts / wishes.lifts,
                   {words("{0} lifts from a full tank, {1} wanted"),
                    {fmt::format("{}", c.lifts), fmt::format("{:g}", wishes.lifts)}}});
  at_most(c.ready, wishes.ready, Kind::minutes, words("ready again after {0}, {1} wanted"),
          words("the tank is never full again"));
  at_most(c.current, wishes.current, Kind::current, words("draws {0}, {1} wanted"), "");
  if (wishes.sound && c.sound)
    if (*c.sound > *wishes.sound)
      out.push_back({(*c.sound - *wishes.sound) / 20,
                     {words("{0} loud, {1} wanted"),
                      {Amount{*c.sound, Kind::sound, -1, {}}, Amount{*wishes.sound, Kind::sound, -1, {}}}}});
  if (wishes.room) at_most(c.room, *wishes.room, Kind::volume, words("takes {0} of room, {1} wanted"), "");
  std::stable_sort(out.begin(), out.end(), [](const Miss& a, const Miss& b) { return a.by > b.by; });
  return out;
}

constexpr double fine_enough = control::Rules{}.band / 2; // m of a burst: half of a usual band

/// Lower is better in each. What nobody would notice is no difference: steps of a tenth of a second, a tenth of a
/// minute, an ampere, a decibel, half a litre, a hundred grams, a millimetre of a burst beyond what is fine enough.
std::array<double, 9> weighed(const KitChoice& c) {
  const auto in_steps = [](double value, double step) { return std::round(value / step); };
  return {in_steps(c.rise.value_or(1e9), 0.1),
          -static_cast<double>(c.lifts),
          in_steps(c.ready.value_or(1e9), 6),
          in_steps(c.current, 1),
          in_steps(c.sound.value_or(200), 1),
          in_steps(c.room, 5e-4),
          in_steps(c.mass, 0.1),
          in_steps(std::fmax(0, c.burst - fine_enough), 1e-3),
          in_steps(c.price, 1)};
}
/// @param first  of two that are alike, the one that stands first
bool as_good(const std::array<double, 9>& a, const std::array<double, 9>& b, bool first) {
  bool better = first;
  for (std::size_t i = 0; i < a.size(); ++i) {
    if (a[i] > b[i]) return false;
    better = better || a[i] < b[i];
  }
  return better;
}

std::string called(const SizingGiven& given, const KitChoice& c) {
  return fmt::format("{}{}, {}, {}, {}", c.compressors > 1 ? "2 × " : "", given.compressors[c.compressor].name,
                     given.tanks[c.tank].name, given.valves[c.valves].name, given.lines[c.line].name);
}

/// m that the quickest circuit goes by a burst as short as its valves are worked, from a full tank.
double burst_of(const AirGiven& air, std::size_t load_case) {
  constexpr double by_block = control::Rules{}.least_burst, by_hand = 0.2; // s
  constexpr double settles = 1.5;                                          // s
  const auto lift = wished_lift(air);
  const auto car =
      car_air(air, {*heights_of(air, lift->second), load_case, full_tank(air).value_or(0), false, false, true});
  if (!car) return 0;
  double out = 0;
  for (const CarAir::Circuit& circuit : car->circuits) {
    auto begun = air::Simulation::begin(car->network);
    if (!begun) return 0;
    const std::size_t corner = circuit.corners.front();
    const double before = begun->legs(0)[corner].height;
    const double open = air.kit.school == build::ValveSchool::block ? by_block : by_hand;
    begun->open(circuit.fill, true);
    if (!begun->run(open, {}, 0)) return 0;
    begun->open(circuit.fill, false);
    if (!begun->run(open + settles, {}, 0)) return 0;
    out = std::fmax(out, begun->legs(0)[corner].height - before);
  }
  return out;
}

void judge(const SizingGiven& given, std::vector<KitChoice>& all) {
  std::vector<std::size_t> good;
  for (std::size_t i = 0; i < all.size(); ++i)
    if (all[i].meets) good.push_back(i);
  for (const std::size_t i : good) {
    const auto mine = weighed(all[i]);
    all[i].best = true;
    for (const std::size_t j : good)
      if (j != i && as_good(weighed(all[j]), mine, j < i)) {
        all[i].best = false;
        all[i].lost = {words("{0} is as good in everything and better in something, or alike"),
                       {called(given, all[j])}};
        break;
      }
  }
  std::stable_sort(all.begin(), all.end(), [](const KitChoice& a, const KitChoice& b) {
    if (a.best != b.best) return a.best;
    if (a.meets != b.meets) return a.meets;
    return a.meets ? a.price < b.price : a.miss < b.miss;
  });
}

} // namespace

SizingGiven sizing_given(const build::Build& build, const shelf::Shelf& shelf, AirGiven air) {
  const control::LevelMethod method = build.variant().leveling.set_up().rules.method;
  const bool sensors = method == control::LevelMethod::bursts || method == control::LevelMethod::until_reached;
  const bool by_block = air.kit.school == build::ValveSchool::block;
  CompletedKit whole = complete_kit(std::move(air), shelf, sensors && by_block);
  SizingGiven out{std::move(whole.air), std::move(whole.added), std::move(whole.lacks), {}, {}, {}, {}, {}, 0};
  const shelf::PartKind valves = kind_for(KitRole::valves, out.air.kit);
  for (const shelf::ShelfPart& one : shelf.parts) {
    const shelf::Part& part = one.part;
    if (part.kind == shelf::PartKind::compressor) out.compressors.push_back(part);
    if (part.kind == shelf::PartKind::tank) out.tanks.push_back(part);
    if (part.kind == valves) out.valves.push_back(part);
    if (part.kind == shelf::PartKind::line) out.lines.push_back(part);
    if (part.kind == shelf::PartKind::fitting) out.fittings.push_back(part);
  }
  // Of lines with one bore the first stands for all.
  std::vector<shelf::Part> lines;
  for (shelf::Part& line : out.lines)
    if (std::none_of(lines.begin(), lines.end(), [&](const shelf::Part& o) { return *o.bore == *line.bore; }))
      lines.push_back(std::move(line));
  out.lines = std::move(lines);
  out.load_case = heaviest_case(out.air);
  return out;
}

build::AirKit kit_of(const SizingGiven& given, const KitChoice& choice) {
  return with(given, choice).kit;
}

std::optional<Sizing> size_kits(const SizingGiven& given, const SizingControl& control) {
  Sizing out;
  const std::size_t tanks = given.tanks.size(), valves = given.valves.size(), lines = given.lines.size(),
                    pumps = given.compressors.size();
  const build::AirWishes& wishes = given.air.wishes;
  const auto cut = cut_pressures(given.air.parts);
  const auto full = cut ? std::optional(cut->second) : std::nullopt;
  if (!full) {
    out.trouble = given.lacks.empty() ? Message{words("The kit has no {0}."), {row_of(KitRole::pressure_switch).label}}
                                      : given.lacks.front();
    return out;
  }
  if (!wished_lift(given.air)) {
    out.trouble = lifts_from_full(given.air, given.air.kit.order, given.load_case, 1).error();
    return out;
  }
  if (tanks * valves * lines * pumps == 0) {
    out.trouble = Message{words("The shelf has no {0}."),
                          {pumps == 0   ? words("compressor")
                           : tanks == 0 ? words("tank")
                           : lines == 0 ? words("line")
                                        : part_kind_name(kind_for(KitRole::valves, given.air.kit))}};
    return out;
  }
  // The compressor stands still in a lift from a full tank: tank, valves and line decide that alone.
  std::mutex lock;
  std::size_t done = 0;
  std::optional<Message> trouble;
  const std::stop_token& stop = control.stop;
  in_parallel(tanks * valves * lines, {control.threads, control.stop, {}}, [&](std::size_t i) {
    KitChoice base;
    base.tank = i / (valves * lines), base.valves = i / lines % valves, base.line = i % lines;
    const AirGiven air = with(given, base);
    const int wanted = static_cast<int>(std::ceil(wishes.lifts)) + 1;
    const auto lifts = lifts_from_full(air, air.kit.order, given.load_case, wanted, stop);
    if (stop.stop_requested()) return;
    if (lifts) base.burst = burst_of(air, given.load_case);
    std::vector<KitChoice> made;
    for (std::size_t p = 0; p < pumps && !stop.stop_requested(); ++p)
      for (const std::size_t count : {1U, 2U}) {
        KitChoice c = base;
        c.compressor = p, c.compressors = count;
        const AirGiven kit = with(given, c);
        const shelf::Part& pump = given.compressors[p];
        if (for_another_voltage(pump, kit.kit)) continue;
        for (const KitBox& box : kit_boxes(kit.kit, kit.parts)) {
          c.room += box.along * box.across * box.height;
          c.mass += box.mass;
        }
        for (const KitRoleRow& role : kit_roles())
          if (const shelf::Part* part = kit.parts[role.role]) {
            const double many = amount_of(kit, role.role);
            c.price += part->price.value_or(0) * many;
            c.unpriced += !part->price && many > 0;
          }
        c.current = shelf::current_of(pump, *full) * static_cast<double>(count);
        c.sound = sound_of(kit.parts);
        if (lifts) {
          c.rise = lifts->first, c.lifts = lifts->lifts;
          if (const auto ready = fill_tank(kit, lifts->tank_after_first, *full, stop)) c.ready = ready->time;
        }
        auto missed = misses(c, wishes);
        for (const KitFault& fault : kit_faults(kit))
          if (fault.severity == Severity::stop && of_the_searched(fault.role))
            missed.insert(missed.begin(), {20, fault.title});
        c.meets = missed.empty();
        if (!c.meets) {
          c.lost = missed.front().what;
          for (const Miss& miss : missed)
            c.miss += miss.by;
        }
        made.push_back(std::move(c));
      }
    const std::scoped_lock hold(lock);
    if (!lifts && !trouble) trouble = lifts.error();
    out.choices.insert(out.choices.end(), made.begin(), made.end());
    ++done;
    if (control.progress) control.progress(static_cast<double>(done) / static_cast<double>(tanks * valves * lines));
  });
  if (control.stop.stop_requested()) return std::nullopt;
  // Whichever thread came first: the same list.
  std::sort(out.choices.begin(), out.choices.end(), [](const KitChoice& a, const KitChoice& b) {
    return std::tie(a.compressor, a.compressors, a.tank, a.valves, a.line) <
           std::tie(b.compressor, b.compressors, b.tank, b.valves, b.line);
  });
  out.tried = out.choices.size();
  if (trouble && std::none_of(out.choices.begin(), out.choices.end(), [](const KitChoice& c) { return c.rise; }))
    out.trouble = trouble;
  judge(given, out.choices);
  return out;
}

} // namespace mavrel::assess
