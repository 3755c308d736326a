#include "assess/fit_up/schools.h"

#include "assess/air/figures.h"
#include "assess/air/wiring.h"
#include "assess/bags/roll.h"
#include "assess/leveling/leveling_findings.h"
#include "assess/leveling/leveling_given.h"
#include "assess/swing/mounting.h"

#include <algorithm>
#include <cmath>
#include <stop_token>

namespace mavrel::assess {

using build::at;

namespace {

using build::Build;

constexpr CostRow cost_rows[] = {
    {CostOf::hours, "hours", words("work"), Kind::hours, true},
    {CostOf::days, "days", words("from begin to end"), Kind::hours, true},
    {CostOf::stands, "stands", words("car without its springs"), Kind::hours, true},
    {CostOf::money, "money", words("money"), Kind::plain, true},
    {CostOf::rise, "rise", words("rises in"), Kind::time, true},
    {CostOf::ready, "ready", words("tank full again after"), Kind::minutes, true},
    {CostOf::sound, "sound", words("noise at a metre"), Kind::sound, true},
    {CostOf::current, "current", words("draws"), Kind::current, true},
    {CostOf::lowest, "lowest", words("lowest height, both ends’ mean"), Kind::length, true},
    {CostOf::highest, "highest", words("highest height, both ends’ mean"), Kind::length, false},
    {CostOf::load_drop, "load_drop", words("height off with the heaviest load"), Kind::length, true},
    {CostOf::tilt_road, "tilt_road", words("tilt at road height, both ends’ mean"), Kind::angle, true},
    {CostOf::tilt_parked, "tilt_parked", words("tilt parked, both ends’ mean"), Kind::angle, true},
    {CostOf::lean, "lean", words("lean at 0.3 g"), Kind::angle, true},
    {CostOf::line, "line", words("line and cable"), Kind::length, true},
    {CostOf::burst, "burst", words("a tenth of a second buys"), Kind::length, true},
    {CostOf::boot, "boot", words("boot left"), Kind::volume, false},
    {CostOf::camber, "camber", words("camber fixed at"), Kind::angle, true},
};

constexpr SchoolRow school_table[] = {
    {"sensing",
     words("Heights or pressures"),
     {words("by height"), words("by pressure")},
     {words("a rod that comes loose sends it anywhere"),
      words("a load or a warm hour leaves it low, high or leaning")}},
    {"valves",
     words("Controller or hand valves"),
     {words("controller"), words("hand valves")},
     {words("more to go wrong, and to wire"), words("nobody levels it while it drives")}},
    {"sides",
     words("Sides apart or joined"),
     {words("each its own air"), words("joined by a tee")},
     {words("one slow corner leans it"), words("it rolls on its bar alone, and leans where it is loaded unevenly")}},
    {"held",
     words("Bag held at both ends or one"),
     {words("both ends"), words("one end")},
     {words("the crimp bears every angle of the stroke"), words("a hanging wheel can unseat it")}},
    {"straight",
     words("Plates parallel on the road or aired out"),
     {words("on the road"), words("aired out")},
     {words("it lies crooked where it is squashed most"), words("it works crooked for all its miles")}},
    {"order",
     words("Suspension or air kit first"),
     {words("suspension first"), words("air kit first")},
     {words("the car stands longest on stands"), words("lines are laid before anybody saw it move")}},
    {"lines",
     words("Lines inside or under the car"),
     {words("under"), words("inside")},
     {words("stones, heat and salt"), words("a leak hisses in the cabin; trim comes out")}},
    {"shown",
     words("Kit hidden or on show"),
     {words("hidden"), words("on show")},
     {words("whatever fails is behind a panel"), words("bags and boxes knock it")}},
    {"mount",
     words("Adjustable mount or thin plate"),
     {words("adjustable"), words("thin plate")},
     {words("its thickness is lost drop"), words("camber is set for good")}},
    {"line_bore",
     words("Narrow or wide lines"),
     {words("narrow"), words("wide")},
     {words("slow"), words("coarse: it overshoots small corrections")}},
    {"compressors",
     words("One compressor or two"),
     {words("one"), words("two")},
     {words("nothing rises when it is out"), words("twice the current, and they must not start together")}},
    {"cutting",
     words("No cutting or as low as it goes"),
     {words("no notch"), words("notched")},
     {words("the axle meets the rail first"), words("a cut frame is for the licensed, and the inspection looks")}},
};

std::size_t taken_way(const FitUpGiven& given, std::string_view key) {
  const build::AirKit& kit = given.air().kit;
  const auto any_end = [&](auto is) { return is(End::front) || is(End::rear); };
  if (key == "sensing") return goes_by_height(given.leveling.set_up().rules.method) ? 0 : 1;
  if (key == "valves") return kit.school == build::ValveSchool::hand_valves;
  if (key == "sides") return kit.circuits == build::Circuits::per_axle;
  if (key == "held") return any_end([&](End e) { return given.fit(e).mounting.held != build::Held::both; });
  if (key == "straight")
    return any_end([&](End e) { return given.fit(e).mounting.straight_at == build::StraightAt::parked; });
  if (key == "order") return given.fit_up->order == build::OrderSchool::kit_first;
  if (key == "lines")
    return std::any_of(given.fit_up->routes.begin(), given.fit_up->routes.end(), [](const build::Route& r) {
      const bool to_bag = r.line.starts_with("front_") || r.line.starts_with("rear_");
      return to_bag && r.runs == build::RouteRuns::inside;
    });
  if (key == "shown") return given.fit_up->shown == build::KitShown::shown;
  if (key == "mount") return any_end([&](End e) { return given.fit(e).mounting.mount_thicker < -5e-4; });
  if (key == "compressors") return !kit.second_compressor.empty();
  if (key == "cutting") return any_end([&](End e) { return notch_depth(given, e).has_value(); });
  return 0;
}

/// Does the design decide this at all?
bool decides(const FitUpGiven& given, std::string_view key) {
  const auto features = features_of(given);
  const auto any = [&](build::Feature f) { return ((features[0] | features[1]) & bit(f)) != 0; };
  const build::AirKit& kit = given.air().kit;
  if (key == "sensing") return any(build::Feature::controller);
  if (key == "valves" || key == "sides" || key == "order" || key == "shown") return any(build::Feature::kit);
  if (key == "lines") return any(build::Feature::kit) && !kit.front_line.empty();
  if (key == "line_bore") return !kit.front_line.empty() && !kit.rear_line.empty();
  if (key == "compressors") return !kit.compressor.empty();
  if (key == "held" || key == "straight") return any(build::Feature::bag);
  if (key == "mount")
    return any(build::Feature::strut) || any(build::Feature::thin_plate) || any(build::Feature::thick_mount);
  if (key == "cutting") return any(build::Feature::notch);
  return false;
}

/// A figure of one build, each worked out the first time it is asked for.
class Figures {
public:
  Figures(const Build& build, const shelf::Shelf& shelf, std::optional<work::Moment> now, const std::stop_token& stop)
      : build_(build), given_(fit_up_given(build, shelf)), now_(now), stop_(stop) {}

  std::optional<double> of(CostOf what) {
    switch (what) {
    case CostOf::hours:
      return plan() ? std::optional(plan()->work_hours * 3600) : std::nullopt;
    case CostOf::days:
      return plan() ? std::optional(plan()->shared_span * 3600) : std::nullopt;
    case CostOf::stands:
      return stands();
    case CostOf::money:
      return money();
    case CostOf::rise: {
      const auto lift = wished_lift(air());
      if (!lift) return std::nullopt;
      MoveAsked asked;
      asked.from = lift->first, asked.to = lift->second;
      asked.order = air().kit.order;
      const auto moved = simulate_move(air(), asked, false, stop_);
      return moved ? moved->arrived : std::nullopt;
    }
    case CostOf::ready: {
      const auto cut = cut_pressures(air().parts);
      if (!cut) return std::nullopt;
      const auto filled = fill_tank(air(), cut->first, cut->second, stop_);
      return filled ? filled->time : std::nullopt;
    }
    case CostOf::sound:
      return sound_of(air().parts);
    case CostOf::current: {
      const auto wiring = wiring_of(air());
      return wiring ? std::optional(wiring->running) : std::nullopt;
    }
    case CostOf::lowest:
      return window_end(&Window::low);
    case CostOf::highest:
      return window_end(&Window::high);
    case CostOf::load_drop:
      return load_drop();
    case CostOf::tilt_road:
      return tilt(build::PresetUse::road);
    case CostOf::tilt_parked:
      return tilt(build::PresetUse::parked);
    case CostOf::lean:
      return lean();
    case CostOf::line: {
      double out = 0;
      for (const JudgedRoute& r : judged_routes(given_))
        out += r.length;
      return out;
    }
    case CostOf::burst: {
      const auto leveling = leveling_given(build_, air(), 0);
      const auto car = learned_car(leveling);
      if (!car) return std::nullopt;
      double most = 0;
      for (const control::LearnedBurst& b : car->learned)
        for (const control::BurstBuys& one : {b.up, b.down})
          if (one.seconds > 0) most = std::fmax(most, std::abs(one.height) / one.seconds * 0.1);
      return most;
    }
    case CostOf::boot:
      return kit_room(given_.room).boot_left;
    case CostOf::camber: {
      std::optional<double> worst;
      for (const End end : build::both_ends) {
        const auto m = mounting_of(given_.end(end));
        const double out_by = given_.fit(end).mounting.mount_outward;
        if (m.camber_per_outward && out_by != 0)
          worst = std::fmax(worst.value_or(0), std::abs(*m.camber_per_outward * out_by));
      }
      return worst;
    }
    }
    return std::nullopt;
  }
  [[nodiscard]] const FitUpGiven& given() const { return given_; }

private:
  [[nodiscard]] const AirGiven& air() const { return given_.air(); }
  const Plan* plan() {
    if (!plan_) plan_ = plan_of(plan_given(given_, now_));
    return *plan_ ? &**plan_ : nullptr;
  }
  std::optional<double> money() {
    const BuyList list = buy_list(given_);
    const double hour = given_.shop->hour_price;
    if (!plan() && hour > 0) return std::nullopt;
    return list.parts + (hour > 0 ? hour * plan()->work_hours : 0);
  }
  /// s of the clock from the first spring out to the last bag in.
  std::optional<double> stands() {
    if (!plan()) return std::nullopt;
    std::optional<double> from, to;
    for (std::size_t i = 0; i < plan()->jobs.size(); ++i) {
      const std::string& id = plan()->jobs[i].id;
      const PlannedJob& p = plan()->planned[i];
      if (id.ends_with(".strip")) from = std::fmin(from.value_or(p.start), p.start);
      if (id.ends_with(".assemble")) to = std::fmax(to.value_or(p.end), p.end);
    }
    return from && to ? std::optional((*to - *from) * 3600) : std::nullopt;
  }
  std::optional<double> window_end(Edge Window::*edge) {
    double sum = 0;
    for (const End end : build::both_ends) {
      const auto& reach = given_.end(end)->assessment.windows.reach;
      if (!reach) return std::nullopt;
      sum += ((*reach).*edge).height;
    }
    return sum / 2;
  }
  /// m that the worse end is off by once the heaviest load case is in: the band where heights are kept; where pressures
  /// are, down to where the road's pressure carries it.
  std::optional<double> load_drop() {
    const control::Rules& rules = given_.leveling.set_up().rules;
    if (air().kit.school == build::ValveSchool::block && goes_by_height(rules.method)) return rules.band;
    std::optional<double> worst;
    for (const End end : build::both_ends) {
      const FittedEnd& e = given_.end(end)->fitted;
      if (!e.bag || !e.model.map || !e.road) continue;
      std::optional<double> light, heavy;
      for (const auto& load : e.model.loads) {
        if (!load) continue;
        const auto masses = e.model.bag_masses(*load);
        const double m = (masses[0] + masses[1]) / 2;
        if (!light) light = m; // the first load case is the car as its pressures were learned
        heavy = std::fmax(heavy.value_or(m), m);
      }
      if (!light || !heavy) continue;
      const BagOnEnd on = e.on();
      const auto p = on.pressure(*e.road, *light);
      if (!p) continue;
      double high = *e.road, low = std::fmax(on.heights().first, given_.end(end)->assessment.domain_low);
      const auto carries = [&](double H) {
        const auto needs = on.pressure(H, *heavy);
        return needs && *needs <= *p;
      };
      // Lower down the same pressure carries more; where nothing does, the stop is what it comes to.
      if (carries(high)) {
        worst = std::fmax(worst.value_or(0), 0);
        continue;
      }
      if (!carries(low)) high = low;
      while (high - low > 1e-5) {
        const double middle = (low + high) / 2;
        (carries(middle) ? low : high) = middle;
      }
      worst = std::fmax(worst.value_or(0), *e.road - low);
    }
    return worst;
  }
  std::optional<double> tilt(build::PresetUse use) {
    double sum = 0, count = 0;
    for (const End end : build::both_ends) {
      const auto m = mounting_of(given_.end(end));
      const FittedEnd& e = given_.end(end)->fitted;
      const auto H = use == build::PresetUse::road ? e.road : e.parked;
      if (m.alignment && H) sum += m.alignment->at(*H).tilt, ++count;
    }
    return count > 0 ? std::optional(sum / count) : std::nullopt;
  }
  std::optional<double> lean() {
    const auto road = preset_of(air(), build::PresetUse::road);
    if (!road) return std::nullopt;
    const auto H = heights_of(air(), *road);
    if (!H) return std::nullopt;
    const auto r = roll({air().ends, car_in_bend(build_), *H, 0});
    if (!r) return std::nullopt;
    return air().kit.circuits == build::Circuits::per_axle ? r->joined.angle : r->separate.angle;
  }

  Build build_;
  FitUpGiven given_;
  std::optional<work::Moment> now_;
  std::stop_token stop_;
  std::optional<Expected<Plan>> plan_;
};

/// Which figures a choice is looked at in.
std::vector<CostOf> costs_of(std::string_view key) {
  using C = CostOf;
  if (key == "sensing") return {C::hours, C::days, C::money, C::load_drop};
  if (key == "valves") return {C::hours, C::days, C::money, C::rise, C::load_drop};
  if (key == "sides") return {C::hours, C::money, C::rise, C::lean, C::line};
  if (key == "held") return {C::hours, C::money, C::highest, C::lowest};
  if (key == "straight") return {C::tilt_road, C::tilt_parked};
  if (key == "order") return {C::hours, C::days, C::stands};
  if (key == "lines") return {C::hours, C::line, C::rise, C::money};
  if (key == "shown") return {C::hours, C::days, C::money, C::boot};
  if (key == "mount") return {C::hours, C::days, C::lowest, C::camber};
  if (key == "line_bore") return {C::rise, C::burst, C::money};
  if (key == "compressors") return {C::hours, C::money, C::ready, C::sound, C::current, C::rise};
  if (key == "cutting") return {C::hours, C::days, C::lowest};
  return {};
}

bool differ(const std::optional<double>& a, const std::optional<double>& b) {
  if (a.has_value() != b.has_value()) return true;
  return a && std::abs(*a - *b) > 1e-3 * std::fmax(1e-6, std::fmax(std::abs(*a), std::abs(*b)));
}

} // namespace

bool operator==(const SchoolsGiven& a, const SchoolsGiven& b) {
  return a.build == b.build && a.shelf.bags == b.shelf.bags && a.shelf.parts == b.shelf.parts && a.now == b.now;
}

const CostRow& row_of(CostOf what) {
  return *std::find_if(std::begin(cost_rows), std::end(cost_rows), [&](const CostRow& r) { return r.what == what; });
}

std::optional<Schools> answer_schools(const SchoolsGiven& given, const std::stop_token& stop) {
  Schools out;
  const FitUpGiven now = fit_up_given(given.build, given.shelf);
  for (const SchoolRow& row : school_table) {
    if (stop.stop_requested()) return std::nullopt;
    if (!decides(now, row.key)) continue;
    SchoolCard card;
    card.row = &row;
    card.taken = taken_way(now, row.key);
    std::array<std::optional<Figures>, 2> figures;
    for (const std::size_t way : {0, 1}) {
      // The way taken is the build as it stands, whatever else could be meant by it.
      auto made = way == card.taken && std::string_view(row.key) != "lines"
                      ? Expected<Build>(given.build)
                      : with_school(given.build, given.shelf, row.key, way);
      if (!made) {
        card.no_way[way] = made.error();
        continue;
      }
      figures[way].emplace(*made, given.shelf, given.now, stop);
    }
    for (const CostOf what : costs_of(row.key)) {
      SchoolCost cost;
      cost.what = what;
      for (const std::size_t way : {0, 1}) {
        if (stop.stop_requested()) return std::nullopt;
        if (figures[way]) cost.figure[way] = figures[way]->of(what);
      }
      if (differ(cost.figure[0], cost.figure[1])) card.costs.push_back(cost);
    }
    out.cards.push_back(std::move(card));
  }
  return out;
}

} // namespace mavrel::assess
