#include "assess/fit_up/buying.h"

#include "assess/air/wiring.h"
#include "assess/fit_up/plan.h"
#include "build/names.h"
#include "build/names_fit_up.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <set>

namespace mavrel::assess {

namespace {

constexpr double clip_every = 0.35; // m of line

class BuyingMaker {
public:
  BuyingMaker(const FitUpGiven& given, const CutList& cut, const std::vector<JudgedRoute>& routes)
      : given_(given), cut_(cut), routes_(routes), kit_(given.air().kit), parts_(given.air().parts) {}

  BuyList make() {
    ends();
    kit();
    bars();
    lines_and_fittings();
    wiring();
    fasteners();
    read_notes();
    for (const BuyLine& line : out_.lines)
      count_money(line);
    return std::move(out_);
  }

private:
  BuyLine& add(std::string part, Message what, BuyFor group, double count) {
    for (BuyLine& line : out_.lines) // the same part for two things is one line
      if (line.part == part && line.group == group) {
        line.count += count;
        return line;
      }
    BuyLine& line = out_.lines.emplace_back();
    line.part = std::move(part);
    line.what = std::move(what);
    line.group = group;
    line.count = count;
    return line;
  }
  static BuyFor of(End end) { return end == End::front ? BuyFor::front : BuyFor::rear; }

  void ends() {
    for (const End end : build::both_ends) {
      const build::EndFit& fit = given_.fit(end);
      if (!fit.bag.empty()) add(fit.bag, {words("bag"), {}}, of(end), 2);
      if (fit.damper_open || fit.damper_shut)
        add(fmt::format("damper, {} {:.0f}–{:.0f} mm", build::key_of(end), fit.damper_shut.value_or(0) * 1e3,
                        fit.damper_open.value_or(0) * 1e3),
            {words("damper of these lengths"), {}}, of(end), 2);
      if (!fit.wheel.empty()) add(fit.wheel, {words("wheel and tyre"), {}}, of(end), 2);
      if (fit.added_volume > 0)
        add(fmt::format("vessel {:.1f} l", fit.added_volume * 1e3), {words("added volume"), {}}, of(end), 2);
      if (fit.mounting.drop_spindle > 0) add("drop upright", {words("upright"), {}}, of(end), 2);
    }
  }

  [[nodiscard]] double count_of(KitRole role) const {
    return pieces_of(kit_, role, given_.leveling.set_up().rules.sensors);
  }
  void kit() {
    const std::set<KitRole> elsewhere{KitRole::feed_line,    KitRole::front_line,    KitRole::rear_line,
                                      KitRole::feed_fitting, KitRole::front_fitting, KitRole::rear_fitting};
    for (const KitRoleRow& row : kit_roles()) {
      const std::string& name = kit_.*row.name;
      if (name.empty() || elsewhere.contains(row.role)) continue;
      BuyLine& line = add(name, {row.label, {}}, BuyFor::kit, count_of(row.role));
      if (const shelf::Part* part = parts_[row.role]) describe(line, *part);
    }
  }
  static void describe(BuyLine& line, const shelf::Part& part) {
    line.price = part.price;
    std::string threads;
    for (const shelf::PartPort& port : part.ports)
      threads += fmt::format("{}{:g}×{}", threads.empty() ? "" : ", ", port.count, port.thread);
    line.thread = threads;
    if (!part.ports.empty()) line.sealing = sealing_of(part.ports.front().thread);
  }

  void bars() {
    for (const CutStock& stock : cut_.stocks) {
      if (!stock.plan || stock.plan->fresh == 0) continue;
      if (stock.kind == StockKind::line || stock.kind == StockKind::cable) continue; // by the metre
      // One bar may serve both ends: it is bought with the first of them.
      const std::optional<End> end = stock.pieces.empty() ? std::nullopt : stock.pieces.front().end;
      const BuyFor whose = !end ? BuyFor::kit : *end == End::front ? BuyFor::front : BuyFor::rear;
      add(stock.name, {words("bar of {0}"), {metres(stock.bar)}}, whose, static_cast<double>(stock.plan->fresh));
    }
    for (const CutStock& stock : cut_.stocks) {
      if (stock.kind != StockKind::line && stock.kind != StockKind::cable) continue;
      BuyLine& line =
          add(stock.name, stock.kind == StockKind::line ? Message{words("air line"), {}} : Message{words("cable"), {}},
              BuyFor::kit, std::ceil(stock.total() * 10 - 1e-9) / 10);
      line.metres = true;
      for (const KitRole role : {KitRole::feed_line, KitRole::front_line, KitRole::rear_line})
        if (const shelf::Part* part = parts_[role]; part && part->name == stock.name) line.price = part->price;
    }
    for (const End end : build::both_ends) {
      const double links = given_.plates(end).links;
      if (links < 0.5) continue;
      const auto& w = given_.fit(end).workshop;
      const std::string thread = w.thread_diameter ? fmt::format("M{:g}", *w.thread_diameter * 1e3) : "thread";
      for (const auto& [hand, what] : {std::pair("right-hand", words("link’s joint and bung, right-hand")),
                                       std::pair("left-hand", words("link’s joint and bung, left-hand"))})
        add(fmt::format("joint {} {}", thread, hand), {what, {}}, of(end), 2 * links).thread = thread;
    }
  }

  void lines_and_fittings() {
    double length = 0, grommets = 0, bulkheads = 0;
    for (const JudgedRoute& r : routes_) {
      length += r.length;
      const build::Route* laid = r.laid ? route_of(given_.fit_up->routes, r.key) : nullptr;
      double here = 0;
      if (laid)
        for (const build::WayPoint& p : laid->points) {
          here += p.kind == build::WayKind::grommet;
          bulkheads += p.kind == build::WayKind::bulkhead;
        }
      grommets += laid ? here : 1; // a line that nobody laid yet goes through a sheet somewhere
      if (!r.air) continue;
      if (r.part == delivery_hose) {
        add("hose end", {words("for the braided hose, heat-proof"), {}}, BuyFor::kit, 2);
        continue;
      }
      const bool of_tanks = r.key == "feed" || r.key == "tanks";
      const KitRole role = of_tanks                     ? KitRole::feed_fitting
                           : r.key.starts_with("front") ? KitRole::front_fitting
                                                        : KitRole::rear_fitting;
      const std::string& name = kit_.*row_of(role).name;
      if (name.empty()) continue;
      BuyLine& line = add(name, {words("fitting"), {}}, BuyFor::kit, 2 + (of_tanks ? 0 : kit_.elbows));
      if (const shelf::Part* part = parts_[role]) describe(line, *part);
    }
    if (length <= 0) return;
    add("line clip", {words("one every {0}"), {metres(clip_every)}}, BuyFor::kit, std::ceil(length / clip_every));
    if (grommets > 0) add("grommet", {words("one in every sheet hole"), {}}, BuyFor::kit, grommets);
    if (bulkheads > 0) add("bulkhead fitting", {words("through a panel"), {}}, BuyFor::kit, bulkheads);
    if (kit_.circuits == build::Circuits::per_axle)
      add("tee", {words("left and right of an axle"), {}}, BuyFor::kit, 2);
  }

  void wiring() {
    const auto wiring = wiring_of(given_.air());
    if (!wiring) return;
    double terminals = 0;
    for (const WireRow& row : wiring->rows) {
      terminals += 2;
      if (row.fuse) add(fmt::format("fuse {:g} A", *row.fuse), {words("fuse and holder"), {}}, BuyFor::kit, 1);
    }
    add(fmt::format(
            "relay {:.0f} A",
            std::ceil(wiring->running / static_cast<double>(std::max<std::size_t>(1, wiring->feeds.size())) / 10) * 10),
        {words("compressor’s relay"), {}}, BuyFor::kit, static_cast<double>(wiring->feeds.size()));
    add("crimp terminal", {words("both ends of every wire"), {}}, BuyFor::kit, terminals);
  }

  void fasteners() {
    for (const End end : build::both_ends) {
      if (given_.fit(end).bag.empty()) continue;
      const auto& bag = given_.end(end)->fitted.bag;
      const auto holes = plate_holes(given_.plates(end), bag ? bag->card : air::BagCard{}, false);
      // The hole is half a millimetre to a millimetre wider than its bolt.
      if (!holes)
        add("screws of the bag", {words("a set a plate: how many and which stands on no card yet"), {}}, of(end), 4);
      else if (holes->bolts >= 1)
        add(fmt::format("screw M{:g} with spring washer", std::floor(holes->bolt_hole * 1e3 - 0.4)),
            {words("bag to its plates"), {}}, of(end), 4.0 * std::round(holes->bolts));
      if (given_.survey(end).spring_place == build::SpringPlace::around_damper)
        add("self-locking nut, top", {words("new ones, torqued once"), {}}, of(end), 2);
    }
    const auto boxes = kit_boxes(kit_, parts_);
    double soft = 0, hard = 0;
    for (const KitBox& box : boxes)
      (box.held == build::PartHeld::on_rubber ? soft : hard) += 4;
    if (soft > 0) add("rubber mount M8", {words("four a part on rubber"), {}}, BuyFor::kit, soft);
    if (hard > 0) add("screw M8 with nut", {words("four a part held hard"), {}}, BuyFor::kit, hard);
  }

  /// What the shop knows of each part. A part on several lines, as one bag at both ends, is there and ordered once: the
  /// first lines take of it what they need, the last has what is left.
  void read_notes() {
    const auto& notes = given_.fit_up->parts;
    for (std::size_t i = 0; i < notes.size(); ++i) {
      double there = notes[i].on_shelf;
      std::optional<double> ordered = notes[i].ordered_count;
      BuyLine* last = nullptr;
      for (BuyLine& line : out_.lines)
        if (line.part == notes[i].part && !line.note) {
          line.note = i;
          last = &line;
        }
      for (BuyLine& line : out_.lines)
        if (line.note == i) read_note(line, notes[i], &line == last, there, ordered);
      if (!last && work::parse_day(notes[i].ordered)) ordered_for_nothing(notes[i], i);
    }
    for (BuyLine& line : out_.lines)
      line.order = std::max(0.0, line.count - line.on_shelf - line.on_order);
  }
  static void read_note(BuyLine& line, const build::PartNote& note, bool last, double& there,
                        std::optional<double>& ordered) {
    if (note.price) line.price = note.price;
    if (note.lead) line.lead = *note.lead / 3600;
    line.on_shelf = last ? there : std::min(there, line.count);
    there -= line.on_shelf;
    line.ordered = work::parse_day(note.ordered);
    if (!line.ordered) return;
    const double missing = std::max(0.0, line.count - line.on_shelf);
    line.on_order = !ordered ? missing : last ? *ordered : std::min(*ordered, missing);
    if (ordered) *ordered -= line.on_order;
    line.too_many = std::max(0.0, line.on_order - missing);
    if (line.lead) line.comes = *line.ordered + static_cast<work::Day>(std::ceil(*line.lead / 24));
  }
  /// What was ordered stays ordered, also where the design needs it no longer: somebody has to send it back or use it.
  void ordered_for_nothing(const build::PartNote& note, std::size_t i) {
    BuyLine line;
    line.part = note.part;
    line.what = {words("ordered, and needed by nothing any more"), {}};
    line.count = 0;
    line.note = i;
    double there = note.on_shelf;
    std::optional<double> ordered = note.ordered_count;
    read_note(line, note, true, there, ordered);
    out_.lines.push_back(std::move(line));
  }
  void count_money(const BuyLine& line) {
    if (line.price) {
      out_.parts += *line.price * line.count;
      out_.ordered += *line.price * line.on_order;
      out_.to_pay += *line.price * line.order;
    } else {
      ++out_.unpriced;
      out_.unpriced_to_order += line.order > 0;
    }
  }

  const FitUpGiven& given_;
  const CutList& cut_;
  const std::vector<JudgedRoute>& routes_;
  const build::AirKit& kit_;
  const KitParts& parts_;
  BuyList out_;
};

} // namespace

const char* name_of(BuyFor group) {
  switch (group) {
  case BuyFor::front:
    return words("front");
  case BuyFor::rear:
    return words("rear");
  case BuyFor::kit:
    return words("air kit");
  }
  return "";
}

Message sealing_of(const std::string& thread) {
  const auto begins = [&](const char* with) { return thread.starts_with(with); };
  if (begins("NPT") || begins("R ") || begins("Rc") || begins("R1") || begins("R3"))
    return {words("tapered: tape two or three turns with the thread, the first one or two bare, never over the bore"),
            {}};
  if (begins("G") || begins("M")) return {words("parallel: a bonded washer or ring under it, no tape"), {}};
  if (begins("push") || begins("tube")) return {words("push-in: cut square, dry and round, pushed home"), {}};
  return thread.empty() ? Message{} : Message{words("as its maker says"), {}};
}

BuyList buy_list(const FitUpGiven& given, const CutList& cut, const std::vector<JudgedRoute>& routes) {
  return BuyingMaker(given, cut, routes).make();
}
BuyList buy_list(const FitUpGiven& given) {
  const auto routes = judged_routes(given);
  return buy_list(given, cut_list(given, templates_of(given), routes), routes);
}

PartsWait parts_wait(const FitUpGiven& given, std::optional<work::Moment> now) {
  PartsWait out;
  // Only parts with a note can be waited for: of the others nobody said how long they take.
  const auto& notes = given.fit_up->parts;
  if (std::none_of(notes.begin(), notes.end(), [](const build::PartNote& n) { return n.lead.has_value(); })) return out;
  const auto first = work::parse_day(given.shop->first_day);
  const double begin = first && now ? std::fmax(0, 24.0 * (now->day - *first)) : 0;
  for (const BuyLine& line : buy_list(given).lines) {
    if (!line.lead || line.count <= line.on_shelf) continue;
    double& hours = out.hours[static_cast<std::size_t>(line.group)];
    if (line.order > 0) hours = std::fmax(hours, begin + *line.lead);
    if (line.on_order > 0)
      hours = std::fmax(hours, line.comes && first ? 24.0 * (*line.comes - *first) : begin + *line.lead);
  }
  return out;
}

void add_order_days(const FitUpGiven& given, BuyList& list, std::optional<work::Moment> now) {
  PlanGiven unheld = plan_given(given, now);
  unheld.list = jobs_of(given, {});
  const auto plan = plan_of(unheld);
  const auto first = work::parse_day(given.shop->first_day);
  if (!plan || !first) return;
  std::array<std::optional<double>, 3> needed; // h
  for (std::size_t i = 0; i < plan->jobs.size(); ++i) {
    const Job& job = plan->jobs[i];
    if (job.from != JobFrom::rule) continue;
    const auto dot = job.id.find('.');
    const JobRule* rule = job_rule(job.end ? std::string_view(job.id).substr(dot + 1) : std::string_view(job.id));
    if (!rule) continue;
    for (const std::string& key : ids_in(rule->after)) {
      if (key != "order" && key != "order_kit") continue;
      auto& when = needed[job.end ? build::at(*job.end) : 2];
      if (!when || plan->planned[i].start < *when) when = plan->planned[i].start;
    }
  }
  for (BuyLine& line : list.lines)
    if (const auto when = needed[static_cast<std::size_t>(line.group)]; when && line.lead && line.order > 0)
      line.order_by = *first + static_cast<work::Day>(std::floor((*when - *line.lead) / 24));
}

} // namespace mavrel::assess
