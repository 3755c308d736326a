#include "assess/survey/survey_findings.h"

#include "build/names.h"
#include "curve/readings.h"
#include "motion/wheel.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::at;
using build::key_of;
using build::name_of;

namespace {

// What a careful builder lets pass.
constexpr double height_difference = 0.006; // m, left against right
constexpr double weight_difference = 0.06;  // of the axle's mean
constexpr double cross_weight_band = 0.015; // either side of a half
constexpr double length_spread = 0.004;     // m among readings of one length
constexpr double mass_spread = 0.02;        // of the mean
constexpr double ratio_spread = 0.05;
constexpr double ratio_doubt = 0.04;        // of a ratio that its standard error may be
constexpr double beyond_bumper = 0.4;       // m that a hitch or a rack stands out
constexpr double floor_tilt = 0.006;        // m, highest to lowest
constexpr double floor_twist_limit = 0.003; // m

constexpr FindingRow rows[] = {
    {"reading_missing", &stages::car_in},
    {"unsprung_estimated", &stages::car_in},
    {"corner_lighter_than_wheel", &stages::car_in},
    {"weight_one_side", &stages::car_in},
    {"height_one_side", &stages::car_in},
    {"spring_base_estimated", &stages::car_in},
    {"wheel_unreadable", &stages::car_in},
    {"sides_differ_height", &stages::car_in},
    {"sides_differ_weight", &stages::car_in},
    {"readings_spread", &stages::car_in},
    {"damper_lengths_crossed", &stages::car_in},
    {"damper_reading_impossible", &stages::car_in},
    {"axle_over_rating", &stages::car_in},
    {"car_over_rating", &stages::car_in},
    {"cross_weight", &stages::car_in},
    {"floor_incomplete", &stages::car_in},
    {"floor_twisted", &stages::car_in},
    {"floor_tilted", &stages::car_in},
    {"wheelbase_missing", &stages::car_in},
    {"corner_lifts", &stages::car_in},
    {"track_missing", &stages::car_in},
    {"load_outside_car", &stages::car_in},
    {"cycle_measure_again", &stages::car_in},
    {"cycle_unusable", &stages::car_in},
    {"ratio_doubtful", &stages::car_in},
};
consteval const FindingRow& row(std::string_view code) {
  return row_in(rows, code);
}

class SurveyFindings {
public:
  SurveyFindings(const SurveyFindingsGiven& given, Findings& out)
      : given_(given), out_(out), loads_(case_loads(given.load_cases, {given.ends[0]->loads, given.ends[1]->loads})) {}

  void find() {
    missing();
    for (const End end : build::both_ends) {
      stand_ins(end);
      lighter_than_wheel(end);
      track(end);
      wheel(end);
      sides(end);
      spreads(end);
      damper(end);
      cycle(end);
      ratings(end);
    }
    cross();
    floor();
    whole_rating();
    loads();
  }

private:
  Finding& add(const FindingRow& what, Severity severity, std::optional<End> end, std::string place, Message title,
               Message reason, Message way_out) {
    return add_finding(out_, what, severity, end, std::move(place), std::move(title), std::move(reason),
                       std::move(way_out));
  }
  static std::string path(End end, const char* field) { return fmt::format("{}.{}", key_of(end), field); }
  static std::string path(End end, Side side, const char* field) {
    return fmt::format("{}.{}.{}", key_of(end), key_of(side), field);
  }

  /// Everything not taken yet as one finding: its list, the first of it to go to, and what it all is for.
  void missing() {
    std::vector<Message> list;
    std::string first;
    bool map = true;
    for (const End end : build::both_ends) {
      const build::EndSurvey& e = survey(end);
      const auto want = [&](bool there, std::string place, const char* what) {
        if (there) return;
        if (list.empty()) first = std::move(place);
        list.push_back({words("{0} {1}"), {lower_name(end), what}});
      };
      const bool any_mass = !e.corners[0].mass.values.empty() || !e.corners[1].mass.values.empty();
      const bool any_height = !e.corners[0].height.values.empty() || !e.corners[1].height.values.empty();
      want(any_mass, path(end, Side::left, "mass_kg"), words("corner weight"));
      want(any_height, path(end, Side::left, "height_m"), words("height"));
      const SurveyedEnd& read = *given_.ends[at(end)];
      const bool joints = !e.points->left.empty(); // they tell lengths and ratios, or say why not at Swing
      want(joints || read.spring_fit || !e.motion_ratio.values.empty(), path(end, "motion_ratio"),
           words("spring motion ratio"));
      want(joints || read.spring_fit || !e.spring_length.values.empty(), path(end, "spring_length_m"),
           words("spring seat distance"));
      want(joints || read.damper_fit || !e.damper_length.values.empty(), path(end, "damper_length_m"),
           words("damper length"));
      want(!e.damper_open.values.empty(), path(end, "damper_open_m"), words("open damper"));
      want(!e.damper_shut.values.empty(), path(end, "damper_shut_m"), words("shut damper"));
      want(!e.bump_stop_gap.values.empty(), path(end, "bump_stop_gap_m"), words("bump stop gap"));
      if (e.spring_place == build::SpringPlace::apart && !e.damper_length.values.empty() && !read.damper_fit && !joints)
        want(!e.damper_ratio.values.empty(), path(end, "damper_ratio"), words("damper motion ratio"));
      map = map && any_mass && any_height;
    }
    if (list.empty()) return;
    const std::string count = fmt::to_string(list.size());
    add(row("reading_missing"), Severity::caution, {}, std::move(first),
        list.size() == 1 ? Message{words("One reading is not taken"), {}}
                         : Message{words("{0} readings are not taken"), {count}},
        {words("Not yet: {0}."), {list_of(std::move(list))}},
        {map ? words(
                   "Take them where the drawing shows it: until then usual figures stand in, and of a bump stop nobody "
                   "knows.")
             : words("Take the heights and weights first: with those an end has a rough window."),
         {}});
  }

  static const char* lower_name(End end) { return end == End::front ? words("front") : words("rear"); }

  /// A corner that weighs no more than its own wheel carries nothing: what is wrong is the reading.
  void lighter_than_wheel(End end) {
    const build::EndSurvey& e = survey(end);
    const double wheel = unsprung_mass(e);
    for (const Side side : build::both_sides) {
      if (e.corners[at(side)].mass.values.empty()) continue;
      const double on_it = *corner_mass(e, side);
      if (on_it > wheel) continue;
      auto& f = add(row("corner_lighter_than_wheel"), Severity::stop, end, path(end, side, "mass_kg"),
                    {words("{0} {1} weighs less than its wheel"), {name_of(end), name_of(side)}},
                    {words("{0} stands on it, and wheel, brake and upright alone are taken to weigh {1}."),
                     {told_from(kilograms(on_it), wheel), told_from(kilograms(wheel), on_it)}},
                    {words("Weigh it again, and type what wheel, brake and upright weigh."), {}});
      f.number = kilograms(on_it);
      f.limit = kilograms(wheel);
    }
  }

  /// Where something stands in for what was not measured, it says so.
  void stand_ins(End end) {
    const build::EndSurvey& e = survey(end);
    if (!e.unsprung_mass)
      add(row("unsprung_estimated"), Severity::note, end, path(end, "unsprung_kg"),
          {words("{0} unsprung mass is estimated"), {name_of(end)}},
          {words("{0} a corner, as usual for this kind of suspension."), {kilograms(unsprung_mass(e))}},
          {words("Weigh wheel, brake and upright and type it in."), {}});
    for (const Side side : build::both_sides) {
      const build::Corner &here = e.corners[at(side)], &other = e.corners[1 - at(side)];
      const char* far = name_of(side == Side::left ? Side::right : Side::left);
      if (here.mass.values.empty() && !other.mass.values.empty())
        add(row("weight_one_side"), Severity::note, end, path(end, side, "mass_kg"),
            {words("{0} {1} weight is not taken"), {name_of(end), name_of(side)}},
            {words("The {0} weight stands in for it, so both bags show one pressure."), {far}},
            {words("Weigh that corner too."), {}});
      if (here.height.values.empty() && !other.height.values.empty())
        add(row("height_one_side"), Severity::note, end, path(end, side, "height_m"),
            {words("{0} {1} height is not taken"), {name_of(end), name_of(side)}},
            {words("The {0} height stands in for it."), {far}}, {words("Measure that corner too."), {}});
    }
    if (is_solid_axle(e.layout) && !e.spring_base)
      add(row("spring_base_estimated"), Severity::note, end, path(end, "spring_base_m"),
          {words("{0} spring base is estimated"), {name_of(end)}},
          {words("{0} of the track between the springs, as usual on a solid axle. Lean and side pressures rest on it."),
           {share(usual_spring_base)}},
          {words("Measure between the middles of both springs."), {}});
  }

  void wheel(End end) {
    const build::EndSurvey& e = survey(end);
    if (e.wheel.empty()) return;
    if (const auto code = motion::parse_wheel(e.wheel); !code)
      add(row("wheel_unreadable"), Severity::caution, end, path(end, "wheel"),
          {words("{0} tyre code can't be read"), {name_of(end)}}, code.error(),
          {words("Type it as it stands on tyre and rim."), {}});
  }

  void sides(End end) {
    const build::EndSurvey& e = survey(end);
    const auto& side = given_.ends[at(end)]->side_height;
    if (side[0] && side[1] && std::abs(*side[0] - *side[1]) > height_difference) {
      const Side low = *side[0] < *side[1] ? Side::left : Side::right;
      auto& f =
          add(row("sides_differ_height"), Severity::caution, end, path(end, low, "height_m"),
              {words("{0} {1} stands {2} lower"), {name_of(end), name_of(low), metres(std::abs(*side[0] - *side[1]))}},
              {words("Left {0}, right {1}. A tired spring, a bent arm or a misread tape."),
               {metres(*side[0], 1), metres(*side[1], 1)}},
              {words("Measure both again; roll the car to settle it first."), {}});
      f.number = metres(std::abs(*side[0] - *side[1]));
      f.limit = metres(height_difference);
    }
    const auto left = curve::mean(e.corners[0].mass.values), right = curve::mean(e.corners[1].mass.values);
    if (left && right && std::abs(*left - *right) > weight_difference * 0.5 * (*left + *right)) {
      const Side heavy = *left > *right ? Side::left : Side::right;
      auto& f =
          add(row("sides_differ_weight"), Severity::caution, end, path(end, heavy, "mass_kg"),
              {words("{0} {1} weighs {2} more"), {name_of(end), name_of(heavy), kilograms(std::abs(*left - *right))}},
              {words("Left {0}, right {1}: one bag will need more pressure than the other for the same height."),
               {kilograms(*left), kilograms(*right)}},
              {words("Weigh again with nobody aboard and the tank as driven; check the scale pads are level."), {}});
      f.number = share(std::abs(*left - *right) / (0.5 * (*left + *right)), 1);
      f.limit = share(weight_difference, 1);
    }
  }

  void spread(End end, const build::Readings& readings, std::string place, const Message& what, Kind kind,
              double limit) {
    const double apart = curve::spread(readings.values);
    if (apart <= limit) return;
    const auto odd = curve::odd_one_out(readings.values);
    const Message reason =
        odd ? Message{words("{0} does not belong with the others."), {Amount{readings.values[*odd], kind, -2, {}}}}
            : Message{words("With these readings nobody can tell which is right."), {}};
    auto& f = add(
        row("readings_spread"), Severity::caution, end, std::move(place),
        {words("{0} {1} readings lie {2} apart"), {name_of(end), what, Amount{apart, kind, -2, limit}}}, reason,
        odd ? Message{words("Drop that reading or take it again."), {}} : Message{words("Take another reading."), {}});
    f.number = Amount{apart, kind, -2, {}};
    f.limit = Amount{limit, kind, -2, {}};
  }

  void spreads(End end) {
    const build::EndSurvey& e = survey(end);
    for (const Side side : build::both_sides) {
      const build::Corner& corner = e.corners[at(side)];
      const char* which = name_of(side);
      spread(end, corner.height, path(end, side, "height_m"), {words("{0} height"), {which}}, Kind::length,
             length_spread);
      spread(end, corner.mass, path(end, side, "mass_kg"), {words("{0} weight"), {which}}, Kind::mass,
             mass_spread * curve::mean(corner.mass.values).value_or(0));
    }
    spread(end, e.spring_length, path(end, "spring_length_m"), {words("spring seat"), {}}, Kind::length, length_spread);
    spread(end, e.damper_length, path(end, "damper_length_m"), {words("damper length"), {}}, Kind::length,
           length_spread);
    spread(end, e.damper_open, path(end, "damper_open_m"), {words("open damper"), {}}, Kind::length, length_spread);
    spread(end, e.damper_shut, path(end, "damper_shut_m"), {words("shut damper"), {}}, Kind::length, length_spread);
    spread(end, e.bump_stop_gap, path(end, "bump_stop_gap_m"), {words("bump stop gap"), {}}, Kind::length,
           length_spread);
    spread(end, e.motion_ratio, path(end, "motion_ratio"), {words("spring motion ratio"), {}}, Kind::plain,
           ratio_spread);
    spread(end, e.damper_ratio, path(end, "damper_ratio"), {words("damper motion ratio"), {}}, Kind::plain,
           ratio_spread);
  }

  void damper(End end) {
    const build::EndSurvey& e = survey(end);
    const auto& fit = given_.dampers[at(end)];
    const auto length = curve::mean(e.damper_length.values);
    const auto open = fit.open ? fit.open : curve::mean(e.damper_open.values);
    const auto shut = fit.shut ? fit.shut : curve::mean(e.damper_shut.values);
    if (open && shut && *shut >= *open) {
      add(row("damper_lengths_crossed"), Severity::stop, end, path(end, "damper_shut_m"),
          {words("{0} damper is longer shut than open"), {name_of(end)}},
          {words("Shut {0}, open {1}: one of them is misread or they were swapped."),
           {metres(*shut, 1), metres(*open, 1)}},
          {words("Measure both eye to eye, off the car if need be."), {}});
      return;
    }
    if (length && ((open && *length > *open) || (shut && *length < *shut))) {
      const bool over = open && *length > *open;
      auto& f = add(
          row("damper_reading_impossible"), Severity::stop, end, path(end, "damper_length_m"),
          {words("{0} damper can't be {1} long"), {name_of(end), metres(*length, 1)}},
          {over ? words("Fully open it measures only {0}.") : words("Fully shut it still measures {0}."),
           {metres(over ? *open : *shut, 1)}},
          {words("Measure eye to eye with the car on its wheels, and the open and shut lengths the same way."), {}});
      f.number = metres(*length, 1);
      f.limit = metres(over ? *open : *shut, 1);
    }
  }

  /// What the cycle sheet says of itself: rows to read again, and how well the ratio is known by it.
  void cycle(End end) {
    const SurveyedEnd& read = *given_.ends[at(end)];
    const build::EndSurvey& e = survey(end);
    const auto row_path = [&](std::size_t i, const char* field, const char* list = "cycle") {
      return fmt::format("{}.{}.{}.{}", key_of(end), list, i, field);
    };
    if (read.cycle_trouble)
      add(row("cycle_unusable"), Severity::caution, end, row_path(0, "height_m"),
          {words("{0} cycle sheet can't be used"), {name_of(end)}}, *read.cycle_trouble,
          {words("Until it can, one reading and its ratio stand for the whole travel."), {}});
    const auto again = [&](const std::optional<motion::CycleFit>& fit, const std::vector<std::size_t>& taken_from,
                           const char* field, const char* what, bool right = false) {
      if (!fit) return;
      for (const std::size_t i : fit->measure_again) {
        const build::CycleRow& odd = (right ? e.cycle_right : e.cycle)[taken_from[i]];
        const double taken = field == std::string_view("spring_m") ? *odd.spring : *odd.damper;
        auto& f =
            add(row("cycle_measure_again"), Severity::caution, end,
                row_path(taken_from[i], field, right ? "cycle_right" : "cycle"),
                {right ? words("{0} {1} at {2}, right: measure again") : words("{0} {1} at {2}: measure again"),
                 {name_of(end), what, metres(odd.height)}},
                {words("Row {0} reads {1}; the other rows do not believe it. It stays in the curve until it is taken "
                       "again or dropped."),
                 {std::to_string(taken_from[i] + 1), metres(taken, 1)}},
                {words("The curve has {0} there."), {metres(fit->length.read(odd.height).value, 1)}});
        f.number = metres(taken, 1);
        f.limit = metres(fit->length.read(odd.height).value, 1);
      }
    };
    again(read.spring_fit, read.spring_rows, "spring_m", words("spring seats"));
    again(read.damper_fit, read.damper_rows, "damper_m", words("damper"));
    again(read.right_spring_fit, read.right_rows, "spring_m", words("spring seats"), true);
    if (!read.spring_fit || !read.height) return;
    const auto sd = read.spring_fit->slope_sd(*read.height);
    if (sd && *sd <= ratio_doubt * *read.motion_ratio) return;
    auto& f = add(row("ratio_doubtful"), Severity::note, end, row_path(0, "spring_m"),
                  {words("{0} motion ratio is not well known"), {name_of(end)}},
                  sd ? Message{words("{0} ± {1} by the cycle sheet. Pressure follows it once, stiffness twice."),
                               {number(*read.motion_ratio, 2), number(*sd, 2)}}
                     : Message{words("{0} by the cycle sheet, with no reading to spare: nobody can say how well."),
                               {number(*read.motion_ratio, 2)}},
                  {words("More rows, and the ends of the travel among them."), {}});
    f.number = number(*read.motion_ratio, 2);
  }

  void over(std::optional<End> end, const FindingRow& what, std::string place, const std::string& load,
            const char* whose, double mass, double rating) {
    if (mass <= rating) return;
    auto& f = add(what, Severity::stop, end, std::move(place),
                  {words("{0} is {1} over its rating, {2}"), {whose, told_from(kilograms(mass - rating), 0), load}},
                  {words("{0} on the floor, rated {1}. Bags do not raise a car's rated load."),
                   {told_from(kilograms(mass), rating), told_from(kilograms(rating), mass)}},
                  {words("Carry {0} less there."), {kilograms(std::ceil(mass - rating))}});
    f.number = kilograms(mass);
    f.limit = kilograms(rating);
  }

  void ratings(End end) {
    const auto rating = given_.ratings[at(end)];
    if (!rating) return;
    for (const CaseLoad& load : loads_)
      if (const auto& l = load.ends[at(end)])
        over(end, row("axle_over_rating"), path(end, "rating_kg"), load.name,
             end == End::front ? words("Front axle") : words("Rear axle"), l->axle_mass, *rating);
  }

  void whole_rating() {
    if (!given_.body.rating) return;
    for (const CaseLoad& load : loads_)
      if (load.total_mass)
        over({}, row("car_over_rating"), "body.rating_kg", load.name, words("The car"), *load.total_mass,
             *given_.body.rating);
  }

  void cross() {
    const auto cross = cross_weight(survey(End::front), survey(End::rear));
    if (!cross || std::abs(*cross - 0.5) <= cross_weight_band) return;
    auto& f = add(row("cross_weight"), Severity::caution, {}, "front.right.mass_kg",
                  {words("Cross weight is {0}"), {share(*cross, 1)}},
                  {words("Front right with rear left should carry half. The car stands on a diagonal: a twisted floor, "
                         "a tired spring, or a scale that reads wrong."),
                   {}},
                  {words("Level the pads, roll the car and weigh again."), {}});
    f.number = share(*cross, 1);
    f.limit = share(0.5 + std::copysign(cross_weight_band, *cross - 0.5), 1);
  }

  void floor() {
    std::vector<double> z;
    for (const End end : build::both_ends)
      for (const Side side : build::both_sides)
        if (const auto f = floors()[at(end)][at(side)]) z.push_back(*f);
    if (z.empty()) return;
    if (z.size() < 4) {
      add(row("floor_incomplete"), Severity::note, {}, "front.left.floor_m",
          {words("The floor is measured at {0} of 4 wheels"), {fmt::to_string(z.size())}},
          {words("No correction is made until all four are known."), {}},
          {words("Take the rest from the same datum."), {}});
      return;
    }
    const double twist = std::abs(*floor_twist(floors()));
    if (twist > floor_twist_limit) {
      auto& f =
          add(row("floor_twisted"), Severity::caution, {}, "front.left.floor_m",
              {words("The floor is twisted by {0}"), {metres(2 * twist, 1)}},
              {words("Heights are corrected by {0} a corner. Corner weights can't be: they shift with the twist."),
               {metres(twist, 1)}},
              {words("Shim the low pads and weigh again."), {}});
      f.number = metres(2 * twist, 1);
      f.limit = metres(2 * floor_twist_limit, 1);
    } else if (curve::spread(z) > floor_tilt) {
      add(row("floor_tilted"), Severity::note, {}, "front.left.floor_m",
          {words("The floor falls by {0}"), {metres(curve::spread(z), 1)}},
          {words("It is flat, so heights hold; fuel and fluids run to the low side."), {}},
          {words("Shim it if weights must be exact."), {}});
    }
  }

  void loads() {
    for (std::size_t c = 0; c < given_.load_cases.size(); ++c) {
      const build::LoadCase& load = given_.load_cases[c];
      for (std::size_t m = 0; m < load.masses.size(); ++m)
        load_mass(load, load.masses[m], fmt::format("load_cases.{}.masses.{}.behind_front_axle_m", c, m));
      if (!given_.body.wheelbase && !load.masses.empty())
        add(row("wheelbase_missing"), Severity::stop, {}, "body.wheelbase_m",
            {words("{0} can't be shared between the axles"), {load.name}},
            {words("Axle shares need the wheelbase."), {}}, {words("Measure hub to hub along the car."), {}});
      for (const End end : build::both_ends)
        if (const auto& l = loads_[c].ends[at(end)]; l && std::min(l->side_mass[0], l->side_mass[1]) <= 0)
          add(row("corner_lifts"), Severity::stop, end, fmt::format("load_cases.{}.name", c),
              {words("{0} carries nothing in {1}"), {name_of(end), load.name}},
              {words("By these masses a wheel hangs or the axle lifts off."), {}},
              {words("Check the masses and their distances."), {}});
    }
  }

  /// A place off the middle means nothing while no track says how far apart the wheels are.
  void track(End end) {
    if (survey(end).track) return;
    const auto off_middle = [](const build::LoadMass& m) { return m.y != 0; };
    const auto load = std::find_if(given_.load_cases.begin(), given_.load_cases.end(), [&](const build::LoadCase& l) {
      return std::any_of(l.masses.begin(), l.masses.end(), off_middle);
    });
    if (load == given_.load_cases.end()) return;
    add(row("track_missing"), Severity::caution, end, path(end, "track_m"),
        {words("{0} track is not taken"), {name_of(end)}},
        {words("{0} has masses off the middle; until the track is known they count as if in the middle."),
         {load->name}},
        {words("Measure middle to middle of the tyres."), {}});
  }

  void load_mass(const build::LoadCase& load, const build::LoadMass& mass, std::string place) {
    const build::Body& body = given_.body;
    if (!body.wheelbase || !body.front_overhang || !body.rear_overhang) return;
    const double last = *body.wheelbase + *body.rear_overhang;
    if (mass.x >= -*body.front_overhang - beyond_bumper && mass.x <= last + beyond_bumper) return;
    add(row("load_outside_car"), Severity::note, {}, std::move(place), {words("{0} sits outside the car"), {mass.name}},
        {words("{0} behind the front axle, in {1}; the bumpers are at {2} and {3}."),
         {metres(mass.x), load.name, metres(-*body.front_overhang), metres(last)}},
        {words("Farther out than a hitch or a rack reaches: measure from the front axle again."), {}});
  }

  [[nodiscard]] const build::EndSurvey& survey(End end) const { return given_.ends[at(end)].given().survey; }
  [[nodiscard]] const Floors& floors() const { return given_.ends[0].given().floors; }

  const SurveyFindingsGiven& given_;
  Findings& out_;
  std::vector<CaseLoad> loads_;
};

} // namespace

const std::span<const FindingRow> survey_finding_rows = rows;

SurveyFindingsGiven survey_findings_given(const build::Build& build,
                                          const std::array<Answered<SurveyQuestion>, 2>& ends) {
  SurveyFindingsGiven out{ends, build.body, {}, {}, build.load_cases};
  out.body.style = {};
  out.body.extra.clear();
  for (const End end : build::both_ends) {
    const build::EndFit& fit = build.variant().fit[at(end)];
    out.ratings[at(end)] = build.end(end).rating;
    out.dampers[at(end)] = {fit.damper_open, fit.damper_shut};
  }
  return out;
}

Findings find_in_survey(const SurveyFindingsGiven& given) {
  Findings out;
  SurveyFindings(given, out).find();
  return out;
}

} // namespace mavrel::assess
