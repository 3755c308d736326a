#include "assess/end/end_findings.h"

#include "assess/end/travel.h"
#include "build/names.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

using build::at;
using build::key_of;
using build::name_of;

namespace {

constexpr FindingRow end_rows[] = {
    {"window_rough", &stages::car_in},
    {"wish_without_reference", &stages::bags},
    {"no_bag", &stages::bags},
    {"bag_not_on_shelf", &stages::bags},
    {"card_doubtful", &stages::bags},
    {"bag_too_wide", &stages::bags},
    {"no_reach_window", &stages::bags},
    {"no_road_window", &stages::bags},
    {"preset_outside", &stages::bags},
    {"bag_before_stop", &stages::bags},
    {"damper_before_stop", &stages::bags},
    {"hangs_on_beads", &stages::bags},
    {"travel_not_measured", &stages::swing},
    {"parked_rests_lower", &stages::bags},
    {"not_held_up", &stages::bags},
    {"bump_over_peak", &stages::bags},
    {"bump_over_maximum", &stages::bags},
    {"rebound_under_minimum", &stages::bags},
    {"stroke_unknown", &stages::bags},
    {"lift_over_maximum", &stages::bags},
    {"frequency_outside", &stages::bags},
};
consteval const FindingRow& end_row(std::string_view code) {
  return row_in(end_rows, code);
}

class EndFindings {
public:
  EndFindings(const EndFindingsGiven& given, Findings& out)
      : given_(given), model_(given.end->fitted.model), bag_(given.end->fitted.bag.get()), out_(out), end_(model_.end),
        here_(given.end->assessment), fit_(given.end.given().fit), brief_(given.end.given().brief) {}

  void find() {
    rough();
    unplaced_wishes();
    if (!chosen()) return;
    card_doubts();
    for (const Misfit& m : here_.misfits)
      if (is_worst(m)) misfit(m);
    bump_over_maximum();
    hangs_on_beads();
    not_measured_further();
    parked_rests();
    heavy_lift();
    comfort();
  }

private:
  const char* name() const { return name_of(end_); }
  std::string fit_path(const char* field) const {
    return fmt::format("variants.{}.{}.{}", given_.variant, key_of(end_), field);
  }

  Finding& add(const FindingRow& what, Severity severity, std::string place, Message title, Message reason,
               Message way_out) {
    return add_finding(out_, what, severity, end_, std::move(place), std::move(title), std::move(reason),
                       std::move(way_out));
  }

  static const char* reading_name(std::string_view field) {
    if (field == "motion_ratio") return words("spring motion ratio");
    if (field == "damper_ratio") return words("damper motion ratio");
    if (field == "spring_length_m") return words("spring seat distance");
    if (field == "damper_length_m") return words("damper length");
    if (field == "damper_open_m") return words("open damper");
    if (field == "damper_shut_m") return words("shut damper");
    return words("bump stop gap");
  }

  /// Windows that rest on usual figures: which, and which reading would firm them up most.
  void rough() {
    if (!here_.rough() || !here_.firms_most) return;
    std::vector<Message> list;
    for (const Estimate& estimate : here_.estimated)
      list.push_back({estimate.from_now ? words("{0} {1} away") : words("{0} {1}"),
                      {reading_name(estimate.field), Amount{estimate.usual.value, estimate.kind, -1, {}}}});
    const Firming& most = *here_.firms_most;
    auto& f = add(end_row("window_rough"), Severity::note, fmt::format("{}.{}", key_of(end_), most.field),
                  {words("{0} window is rough"), {name()}},
                  {words("Usual figures for this kind of suspension stand in: {0}."), {list_of(std::move(list))}},
                  {words("Take the {0} first: it moves an edge by up to {1}."),
                   {reading_name(most.field), told_from(metres(most.moves), 0)}});
    f.number = metres(most.moves);
  }

  bool chosen() {
    if (bag_) return true;
    if (fit_.bag.empty())
      add(end_row("no_bag"), Severity::note, fit_path("bag"), {words("{0}: no bag chosen"), {name()}},
          {words("Windows show only what the car itself forbids."), {}}, {words("Choose one from the shelf."), {}});
    else
      add(end_row("bag_not_on_shelf"), Severity::stop, fit_path("bag"),
          {words("{0}: “{1}” is not on the shelf"), {name(), fit_.bag}},
          {words("Its card is missing, so it has no curves."), {}},
          {words("Add its card to your shelf folder, or choose another bag."), {}});
    return false;
  }

  void card_doubts() {
    if (bag_->doubts.empty()) return;
    add(end_row("card_doubtful"), Severity::caution, fit_path("bag"),
        {words("The card of {0} is doubtful"), {bag_->card.name}},
        {words("Line {0}. {1}"), {fmt::to_string(bag_->doubts.front().line), bag_->doubts.front().what}},
        {words("Check the card against the maker's sheet before relying on it."), {}});
  }

  /// Of one trouble in several load cases the worst is said; the others follow from it.
  bool is_worst(const Misfit& m) const {
    if (m.code == MisfitCode::preset_outside) return true; // each preset is a trouble of its own
    const auto worst =
        std::max_element(here_.misfits.begin(), here_.misfits.end(), [&](const Misfit& a, const Misfit& b) {
          return (a.code == m.code ? a.by : -1) < (b.code == m.code ? b.by : -1);
        });
    return &*worst == &m;
  }

  void misfit(const Misfit& m) {
    switch (m.code) {
    case MisfitCode::room:
      return room(m);
    case MisfitCode::no_reach:
      return no_window(end_row("no_reach_window"), words("{0}: no height is left to stand at"),
                       here_.windows.reach_blocked);
    case MisfitCode::no_road:
      return no_window(end_row("no_road_window"), words("{0}: no height is left to drive at"),
                       here_.windows.road_blocked);
    case MisfitCode::preset_outside:
      return outside(m);
    case MisfitCode::bag_before_stop:
      return stop_order(m);
    case MisfitCode::damper_before_stop:
      return damper_order(m);
    case MisfitCode::not_held_up:
      return not_held_up(m);
    case MisfitCode::bump_over_peak:
      return over_in_bump(m.figure, *m.preset, *m.load_case, true);
    case MisfitCode::rebound_under_minimum:
      return rebound_under_minimum(m);
    case MisfitCode::stroke_unknown:
      return stroke_unknown(m);
    }
  }

  void room(const Misfit& m) {
    auto& f =
        add(end_row("bag_too_wide"), Severity::stop, fmt::format("{}.bag_room_m", key_of(end_)),
            {words("{0} bag needs {1} of room"), {name(), told_from(metres(m.figure), m.limit)}},
            {words("{0} at its widest and {1} around it; there is {2}."),
             {metres(bag_->card.max_diameter), metres(brief_.bag_clearance), told_from(metres(m.limit), m.figure)}},
            {words("A bag {0} slimmer, or that much more room."), {told_from(metres(m.by), 0)}});
    f.number = metres(m.figure);
    f.limit = metres(m.limit);
  }

  void stop_order(const Misfit& m) {
    const double ratio = model_.map->at(m.limit).motion_ratio;
    auto& f =
        add(end_row("bag_before_stop"), Severity::stop, fmt::format("{}.bump_stop_gap_m", key_of(end_)),
            {words("{0} bag meets before the bump stop"), {name()}},
            {words("The bag is down to its margin at {0}; hit hard, the stop meets at {1} and gives until {2}. A bag "
                   "without a stop inside is never the bump stop."),
             {told_from(metres(m.limit), m.figure), metres(*model_.stop_height), told_from(metres(m.figure), m.limit)}},
            {words("A bump stop {0} taller, or {1} less stack."),
             {told_from(metres(m.by * model_.stop_ratio.value_or(1)), 0), told_from(metres(m.by * ratio), 0)}});
    f.number = metres(m.figure);
    f.limit = metres(m.limit);
  }

  void damper_order(const Misfit& m) {
    const double slope = model_.map->damper(m.limit).slope;
    auto& f =
        add(end_row("damper_before_stop"), Severity::stop, fmt::format("{}.bump_stop_gap_m", key_of(end_)),
            {words("{0} damper shuts before the bump stop is squeezed"), {name()}},
            {words("It is shut at {0}; hit hard, the stop meets at {1} and gives until {2}. A damper that is the "
                   "bump stop breaks."),
             {told_from(metres(m.limit), m.figure), metres(*model_.stop_height), told_from(metres(m.figure), m.limit)}},
            {words("A bump stop {0} taller, or a damper {1} shorter when shut."),
             {told_from(metres(m.by * model_.stop_ratio.value_or(1)), 0), told_from(metres(m.by * slope), 0)}});
    f.number = metres(m.figure);
    f.limit = metres(m.limit);
  }

  /// What ends full rebound is the damper: a bag that is at its full height before hangs on its beads.
  void hangs_on_beads() {
    if (!model_.map->has_damper() || !model_.damper_open) return;
    for (const auto& strokes : here_.preset_strokes)
      for (const auto& stroke : strokes) {
        if (!stroke || stroke->rebound.by != &limits::bag_full) continue;
        const double full = stroke->rebound.height;
        const double short_of = *model_.damper_open - model_.map->damper(full).value;
        auto& f = add(
            end_row("hangs_on_beads"), Severity::caution, fit_path("bag"),
            {words("{0} bag hangs on its beads in full rebound"), {name()}},
            {words("It is at its full height at {0}, and the damper has {1} left to open: the wheel hangs on the bag."),
             {metres(full), metres(short_of)}},
            {words("A damper {0} shorter when open, a strap, or {1} more stack."),
             {told_from(metres(short_of), 0),
              told_from(metres(short_of / model_.map->damper(full).slope * model_.map->at(full).motion_ratio), 0)}});
        f.number = metres(full);
        return;
      }
  }

  /// The end of the readings is no limit: what lies beyond it nobody knows.
  void not_measured_further() {
    const auto told = [&](const std::optional<Edge>& edge, bool low) {
      if (!edge || !edge->governing || edge->governing->limit != &limits::map_end) return false;
      const bool sheet = here_.spring_from == MapSource::cycle_sheet;
      auto& f = add(
          end_row("travel_not_measured"), Severity::caution,
          fmt::format("{}.{}", key_of(end_), sheet ? "cycle.0.height_m" : "motion_ratio"),
          {low ? words("{0}: nobody knows how it goes below {1}") : words("{0}: nobody knows how it goes above {1}"),
           {name(), metres(edge->height)}},
          {sheet ? words("The readings end there, trusted {0} past the last one; no stop, bag or damper ends "
                         "the travel before.")
                 : words("What is known of the joints, or of the one height that was measured, ends there; no "
                         "stop, bag or damper ends the travel before."),
           sheet ? std::vector<Argument>{metres(trusted_past_reading)} : std::vector<Argument>{}},
          {low ? words("Jack it through further down, or measure what stops it.")
               : words("Let it hang further, or measure what stops it."),
           {}});
      f.number = metres(edge->height);
      return true;
    };
    const auto& reach = here_.windows.reach;
    if (!reach) return;
    told(reach->low, true);
    told(reach->high, false);
  }

  /// Aired out a car lies on its stops, whatever height somebody wishes.
  void parked_rests() {
    constexpr double worth_saying = 0.003; // m
    const BagOnEnd bag = given_.end->fitted.on();
    const auto travel = standing_travel(bag);
    const auto touches = free_travel(bag, Meeting::standing);
    if (!travel || !touches) return;
    for (std::size_t i = 0; i < here_.presets.size(); ++i) {
      const build::Preset& preset = brief_.presets[i];
      if (!here_.presets[i] || preset.use != build::PresetUse::parked || preset.parked == build::ParkedHow::held)
        continue;
      const double wished = here_.presets[i]->height;
      // Where the stop is first touched is a fair wish: what it gives under the car is its own affair.
      if (wished - touches->low <= worth_saying || !here_.windows.reach || !here_.windows.reach->contains(wished))
        continue;
      auto& f = add(end_row("parked_rests_lower"), Severity::note, preset_path(i),
                    {words("{0} {1} comes to rest {2} lower"),
                     {name(), given_.presets[i], told_from(metres(wished - travel->first), 0)}},
                    {words("Aired out it lies at {0}, whatever is wished; {1} is wished."),
                     {told_from(metres(travel->first), wished), told_from(metres(wished), travel->first)}},
                    {words("Wish for that height, hold it on its air, or fit a taller stop."), {}});
      f.number = metres(travel->first);
      f.limit = metres(wished);
    }
  }

  void not_held_up(const Misfit& m) {
    add(end_row("not_held_up"), Severity::stop, fit_path("bag"),
        {words("{0} would not hold itself up at road height"), {name()}},
        {words("{0}, {1}: the bag pushes harder the higher it stands, so it runs to one stop or the other."),
         {given_.cases[*m.load_case], given_.presets[*m.preset]}},
        {words("A bag whose area changes less with height there, or another stack."), {}});
  }

  /// Over what it holds steadily, and not over what it takes for a moment: no stop, and said. The worst of the cases.
  void bump_over_maximum() {
    std::optional<std::pair<std::size_t, std::size_t>> worst;
    double most = bag_->card.max_pressure;
    for (std::size_t p = 0; p < here_.preset_strokes.size(); ++p)
      for (std::size_t c = 0; c < here_.preset_strokes[p].size(); ++c)
        if (const auto& s = here_.preset_strokes[p][c]; s && s->bump.pressure && *s->bump.pressure > most)
          worst = {p, c}, most = *s->bump.pressure;
    if (worst && most <= air::peak_of(bag_->card).pressure) over_in_bump(most, worst->first, worst->second, false);
  }

  void over_in_bump(double pressure, std::size_t preset, std::size_t load_case, bool stops) {
    const StrokeEnd& bump = here_.preset_strokes[preset][load_case]->bump;
    const air::Peak peak = air::peak_of(bag_->card);
    const double maximum = bag_->card.max_pressure, limit = stops ? peak.pressure : maximum;
    auto& f = add(
        stops ? end_row("bump_over_peak") : end_row("bump_over_maximum"), stops ? Severity::stop : Severity::caution,
        fit_path("bag"), {words("{0} bag reaches {1} in full bump"), {name(), told_from(pascals(pressure), limit)}},
        {peak.stated
             ? words("{0}, sealed, the heavier side, from {5} down to {1}, {2}; it holds {3} steadily and {4} for a "
                     "moment, by its card.")
             : words("{0}, sealed, the heavier side, from {5} down to {1}, {2}; it holds {3} steadily, and {4} for a "
                     "moment is ours: its card states no peak, so 1.5 times that stands in."),
         {given_.cases[load_case], metres(bump.height), bump.by->name, told_from(pascals(maximum), pressure),
          told_from(pascals(peak.pressure), pressure), given_.presets[preset]}},
        model_.setting.added_volume > 0
            ? Message{words("A stop that meets sooner, a bigger bag, or a wider line to the added volume: {0} "
                            "of it breathes in time."),
                      {Amount{bump.added_taking_part, Kind::volume, -1, {}}}}
            : Message{words("A stop that meets sooner, a bigger bag, or added volume."), {}});
    f.number = pascals(pressure);
    f.limit = pascals(limit);
  }

  void rebound_under_minimum(const Misfit& m) {
    const StrokeEnd& rebound = here_.preset_strokes[*m.preset][*m.load_case]->rebound;
    const bool sleeve = bag_->card.kind == air::BagKind::sleeve;
    auto& f = add(
        end_row("rebound_under_minimum"), Severity::stop, fit_path("bag"),
        {words("{0} bag falls to {1} in full rebound"), {name(), told_from(pascals(std::max(0.0, m.figure)), m.limit)}},
        {sleeve ? words("{0}, sealed, the lighter side, from {4} up to {1}, {2}; below {3} a sleeve may come off its "
                        "piston.")
                : words("{0}, sealed, the lighter side, from {4} up to {1}, {2}; below {3} a bellows may fold."),
         {given_.cases[*m.load_case], metres(rebound.height), rebound.by->name, pascals(m.limit),
          given_.presets[*m.preset]}},
        {words("A damper that stops sooner, or a smaller bag at higher pressure."), {}});
    f.number = pascals(m.figure);
    f.limit = pascals(m.limit);
  }

  void stroke_unknown(const Misfit& m) {
    add(end_row("stroke_unknown"), Severity::stop, fit_path("bag"),
        {m.low ? words("{0}: nobody knows the bag in full bump") : words("{0}: nobody knows the bag in full rebound"),
         {name()}},
        {words("It goes to {0}, and the card of {1} has no rows there."), {metres(m.figure), bag_->card.name}},
        {words("Measure the bag that far and add the rows to its card, or stop the travel sooner."), {}});
  }

  void no_window(const FindingRow& what, const char* title, const std::vector<Stretch>& blocked) {
    double up_to = here_.domain_low, from = here_.domain_high;
    const char *low_name = words("its lower limits"), *high_name = words("its upper limits");
    for (const Stretch& s : blocked) {
      if (s.from <= here_.domain_low + 1e-9 && s.to > up_to) up_to = s.to, low_name = s.limit->name;
      if (s.to >= here_.domain_high - 1e-9 && s.from < from) from = s.from, high_name = s.limit->name;
    }
    add(what, Severity::stop, fit_path("bag"), {title, {name()}},
        {words("{0} blocks up to {1} and {2} blocks from {3}."), {low_name, metres(up_to), high_name, metres(from)}},
        up_to > from
            ? Message{words("{0} more height is needed between them: a shorter stack, another damper or another bag."),
                      {metres(up_to - from)}}
            : Message{words("Another bag, or less reserve in the brief."), {}});
  }

  void unplaced_wishes() {
    for (std::size_t i = 0; i < brief_.presets.size(); ++i) {
      const auto& wish = brief_.presets[i].wish[at(end_)];
      if (wish && !wished_height(*wish, model_)) wish_unreadable(i, *wish);
    }
  }

  std::string preset_path(std::size_t preset) const {
    return fmt::format("variants.{}.brief.presets.{}.{}", given_.variant, preset, key_of(end_));
  }

  void wish_unreadable(std::size_t preset, const build::HeightWish& wish) {
    add(end_row("wish_without_reference"), Severity::caution, preset_path(preset),
        {words("{0} {1} can't be placed"), {name(), given_.presets[preset]}},
        {wish.as == build::HeightWish::As::gap ? words("It is wished as a gap, and the tyre code is missing.")
                                               : words("It is wished as a drop, and the surveyed height is missing."),
         {}},
        {words("Take the reading, or wish for a height."), {}});
  }

  void outside(const Misfit& m) {
    const build::Preset& preset = brief_.presets[*m.preset];
    const Edge& edge = *m.edge;
    const char* window = needs_road_window(preset.use) ? words("road") : words("reach");
    const Message limit = limit_words(edge.governing, given_.cases);
    Message reason =
        edge.governing && edge.governing->reserve > 0
            ? Message{words("The {0} window ends at {1}: {2}, with {3} kept free."),
                      {window, told_from(metres(edge.height), m.figure), limit, metres(edge.governing->reserve)}}
            : Message{words("The {0} window ends at {1}: {2}."),
                      {window, told_from(metres(edge.height), m.figure), limit}};
    auto& f = add(end_row("preset_outside"), Severity::stop, preset_path(*m.preset),
                  {m.low ? words("{0} {1} is {2} too low") : words("{0} {1} is {2} too high"),
                   {name(), given_.presets[*m.preset], told_from(metres(m.by), 0)}},
                  std::move(reason), way_in(edge, m.by, m.low));
    f.number = metres(m.figure);
    f.limit = metres(edge.height);
  }

  /// How to move a window's edge by `off`, and what would come next.
  static Message way_in(const Edge& edge, double off, bool low) {
    const Amount by = told_from(metres(off), 0);
    if (!edge.governing) return {words("Move the preset {0}."), {by}};
    const double part = edge.height_per_metre ? off / *edge.height_per_metre : 0;
    const Message change = edge.governing->limit->way_out(part);
    const double gained = std::abs(edge.height - edge.next_height);
    if (edge.next && gained < off)
      return {low ? words("Sit {0} higher, or {1}; but {2} is next, at {3}.")
                  : words("Sit {0} lower, or {1}; but {2} is next, at {3}."),
              {by, change, edge.next->limit->name, metres(edge.next_height)}};
    return {low ? words("Sit {0} higher, or {1}.") : words("Sit {0} lower, or {1}."), {by, change}};
  }

  /// The heaviest case at the highest preset, in pressure: what the tank must give.
  void heavy_lift() {
    double worst = 0;
    std::size_t worst_preset = 0, worst_case = 0;
    for (std::size_t i = 0; i < here_.presets.size(); ++i) {
      if (!here_.presets[i]) continue;
      for (std::size_t c = 0; c < here_.presets[i]->cases.size(); ++c) {
        const auto& state = here_.presets[i]->cases[c];
        if (!state) continue;
        const double p = std::max(state->side_pressure[0], state->side_pressure[1]);
        if (p > worst) worst = p, worst_preset = i, worst_case = c;
      }
    }
    if (worst <= bag_->card.max_pressure) return;
    auto& f = add(
        end_row("lift_over_maximum"), Severity::stop, fit_path("bag"),
        {words("{0} needs {1} to lift"), {name(), told_from(pascals(worst), bag_->card.max_pressure)}},
        {words("{0} at {1}; {2} takes {3}."),
         {given_.cases[worst_case], given_.presets[worst_preset], bag_->card.name, pascals(bag_->card.max_pressure)}},
        {words("A bigger bag, or less lift with that load aboard."), {}});
    f.number = pascals(worst);
    f.limit = pascals(bag_->card.max_pressure);
  }

  void comfort() {
    for (std::size_t i = 0; i < here_.presets.size(); ++i) {
      if (!here_.presets[i] || brief_.presets[i].use != build::PresetUse::road) continue;
      std::optional<std::size_t> worst;
      double off = 0;
      const auto& cases = here_.presets[i]->cases;
      for (std::size_t c = 0; c < cases.size(); ++c) {
        if (!cases[c] || !cases[c]->ride_frequency) continue;
        const double f = *cases[c]->ride_frequency;
        const double by = std::max(f - given_.frequency_high, given_.frequency_low - f);
        if (by > off) off = by, worst = c;
      }
      if (!worst) continue;
      const double f = *cases[*worst]->ride_frequency;
      const bool firm = f > given_.frequency_high;
      auto& found =
          add(end_row("frequency_outside"), Severity::caution, fit_path("bag"),
              {firm ? words("{0} rides firm, {1}") : words("{0} rides soft, {1}"),
               {name(), told_from(hertz(f), firm ? given_.frequency_high : given_.frequency_low)}},
              {firm ? words("{0} at {2}; wanted up to {1}.") : words("{0} at {2}; wanted from {1}."),
               {given_.cases[*worst], hertz(firm ? given_.frequency_high : given_.frequency_low), given_.presets[i]}},
              firm ? Message{words("A bag with more air at road height, or volume added beside it: the rate must fall "
                                   "by {0}."),
                             {share(1 - std::pow(given_.frequency_high / f, 2))}}
                   : Message{words("A smaller bag at higher pressure: the rate must grow by {0}."),
                             {share(std::pow(given_.frequency_low / f, 2) - 1)}});
      found.number = hertz(f);
      found.limit = hertz(firm ? given_.frequency_high : given_.frequency_low);
    }
  }

  const EndFindingsGiven& given_;
  const EndModel& model_;
  const shelf::ShelfBag* bag_;
  Findings& out_;
  End end_;
  const EndAssessment& here_;
  const build::EndFit& fit_;
  const build::Brief& brief_;
};

} // namespace

const std::span<const FindingRow> end_finding_rows = end_rows;

EndFindingsGiven end_findings_given(const build::Build& build, Answered<EndQuestion> end) {
  const build::Brief& brief = build.variant().brief;
  return {std::move(end),      build.active_variant, case_names(build),
          preset_names(build), brief.frequency_low,  brief.frequency_high};
}

Findings find_at_end(const EndFindingsGiven& given) {
  Findings out;
  EndFindings(given, out).find();
  return out;
}

} // namespace mavrel::assess
