#include "report/build_sheet.h"

#include "assess/air/air_findings.h"
#include "assess/doubt/doubt_findings.h"
#include "assess/ground/ground.h"
#include "assess/interference/recheck.h"
#include "assess/swing/bench_sums.h"
#include "assess/swing/mounting.h"
#include "build/edit.h"
#include "build/names.h"
#include "quantity/quantity.h"
#include "report/air_sheet.h"
#include "report/html_table.h"
#include "report/sure.h"

#include <fmt/format.h>

#include <algorithm>
#include <cmath>
#include <tuple>
#include <utility>

namespace mavrel::report {

using namespace assess;
using build::at;

namespace {

class Sheet {
public:
  Sheet(const build::Build& build, const Assessment& assessment, const UnitPrefs& prefs, const Doubt* doubt)
      : build_(build), a_(assessment), prefs_(prefs), doubt_(doubt),
        findings_(doubt ? weighed(assessment.findings, build, *doubt) : assessment.findings) {}

  SheetParts parts() {
    SheetParts out;
    head();
    out.head = std::exchange(out_, {});
    // What the shop looks for first comes first; what belongs together stays together.
    const std::pair<const char*, std::vector<void (Sheet::*)()>> sections[] = {
        {words("What stops it"), {&Sheet::findings}},    {words("Presets"), {&Sheet::presets}},
        {words("Windows"), {&Sheet::windows}},           {words("Fitted"), {&Sheet::fitted}},
        {words("How it moves"), {&Sheet::motion}},       {words("Brackets"), {&Sheet::brackets}},
        {words("Clearance"), {&Sheet::clearance}},       {words("Ground"), {&Sheet::ground}},
        {words("Load cases"), {&Sheet::loads}},          {words("Readings at the corners"), {&Sheet::corners}},
        {words("Readings at the ends"), {&Sheet::ends}}, {words("Cautions"), {&Sheet::cautions}},
    };
    for (const auto& [title, fill] : sections) {
      for (const auto one : fill)
        (this->*one)();
      const std::string text = std::exchange(out_, {});
      if (!text.empty()) out.sections.push_back(fmt::format("<h2>{}</h2>", title) + text);
    }
    const AirGiven& air = a_.air.given().room.air;
    if (const std::string text = kit_sheet(air, prefs_); !text.empty()) {
      out.air_svg = run_svg(air, prefs_);
      out.wiring_svg = report::wiring_svg(air, prefs_);
      out.pages.push_back(fmt::format("<h2>{}</h2>", words("Air kit")) + text);
      out.pages.push_back(fmt::format("<h2>{}</h2>", words("Air, predicted")) + predicted_sheet(air, prefs_, doubt_));
    }
    rechecked();
    if (const std::string text = std::exchange(out_, {}); !text.empty())
      out.pages.push_back(fmt::format("<h2>{}</h2>", words("To look at again")) + text);
    return out;
  }

private:
  std::string length(std::optional<double> v, int decimals = -1) const {
    return v ? show(*v, Kind::length, prefs_, decimals) : "–";
  }
  /// A figure with its doubt, where that of it is known: `412 ± 4 mm`.
  std::string sure(double v, Kind kind, const std::string& answer) const {
    const DoubtAnswer* a = doubt_of(doubt_, answer, v);
    return a ? with_doubt(v, a->sd, kind, prefs_) : show(v, kind, prefs_);
  }
  std::string sure_length(double v, const std::string& answer) const { return sure(v, Kind::length, answer); }
  std::string mass(std::optional<double> v) const { return v ? show(*v, Kind::mass, prefs_) : "–"; }
  std::string field(const std::string& path) const {
    const auto view = build::look_up(build_, path, prefs_);
    return view && view->filled ? view->shown : "–";
  }

  void head() {
    const build::Job& job = build_.job;
    out_ += fmt::format("<h1>{}</h1>", escaped(job.car.empty() ? words("Unnamed car") : job.car));
    std::string line;
    const auto add = [&](const char* what, const std::string& text) {
      if (!text.empty()) line += fmt::format("{}{} {}", line.empty() ? "" : " · ", what, escaped(text));
    };
    add(words("job"), job.number);
    add(words("variant"), build_.variant().name);
    add(words("for"), job.owner);
    add(words("by"), job.shop);
    out_ += fmt::format("<p class='second'>{}</p>", line);
    for (const std::string& note : {job.notes, build_.variant().brief.notes})
      if (!note.empty()) out_ += fmt::format("<p>{}</p>", escaped(note));
  }

  std::string governing(const Edge& edge) const {
    if (!edge.governing) return words("nothing known");
    std::string out = say(assess::name_of(*edge.governing));
    if (edge.governing->load_case) out += fmt::format(" ({})", a_.loads[*edge.governing->load_case].name);
    if (edge.next && edge.next->limit != edge.governing->limit)
      out += fmt::format("; next {} at {}", edge.next->limit->name, length(edge.next_height));
    return out;
  }

  void windows() {
    Table table({"", words("from"), words("governed below by"), words("to"), words("governed above by")});
    for (const End end : build::both_ends)
      for (const auto& [name, key, window] : {std::tuple{words("reach"), ".reach", &a_.end(end).windows.reach},
                                              std::tuple{words("road"), ".road", &a_.end(end).windows.road}}) {
        const std::string which = std::string(build::key_of(end)) + key;
        const std::string what =
            fmt::format("{} {}{}", build::name_of(end), name, a_.end(end).rough() ? words(", rough") : "");
        if (*window)
          table.row({what, sure_length((*window)->low.height, which + ".low"), governing((*window)->low),
                     sure_length((*window)->high.height, which + ".high"), governing((*window)->high)});
        else
          table.row({what, words("none"), "", "", ""});
      }
    out_ += table.text();
  }

  /// @param answer  how the doubt of it is called
  std::string pressures(const std::optional<PresetAtEnd>& preset, std::size_t c, const std::string& answer) const {
    if (!preset || c >= preset->cases.size() || !preset->cases[c]) return "–";
    const auto& p = preset->cases[c]->side_pressure;
    std::string beyond;
    if (preset->cases[c]->beyond != air::Beyond::nothing)
      beyond = fmt::format(", {}", air::beyond_name(preset->cases[c]->beyond));
    const Shown left = show_parts(p[0], Kind::pressure, prefs_), right = show_parts(p[1], Kind::pressure, prefs_);
    const DoubtAnswer* a = c == 0 ? doubt_of(doubt_, answer, preset->cases[c]->pressure) : nullptr;
    // Both sides are as sure as their mean: what they share is what they go by.
    const auto as = [&](double v) { return a ? as_sure(v, a->sd, Kind::pressure, prefs_) : std::string(); };
    if (a && (p[0] == p[1] || as(p[0]) == as(p[1])))
      return with_doubt(preset->cases[c]->pressure, a->sd, Kind::pressure, prefs_) + beyond;
    if (left.number == right.number) return fmt::format("{} {}{}", left.number, left.unit, beyond);
    if (a)
      return fmt::format("{} / {}{}",
                         show_parts(p[0], Kind::pressure, prefs_, digits_left(a->sd, Kind::pressure, prefs_)).number,
                         with_doubt(p[1], a->sd, Kind::pressure, prefs_), beyond);
    return fmt::format("{} / {} {}{}", left.number, right.number, left.unit, beyond);
  }

  void presets() {
    std::vector<std::string> head = {words("preset"), words("end"), words("height"), words("set as")};
    for (const CaseLoad& load : a_.loads)
      head.push_back(load.name);
    Table table(head);
    const auto& list = build_.variant().brief.presets;
    for (std::size_t i = 0; i < list.size(); ++i)
      for (const End end : build::both_ends) {
        const auto& preset = a_.end(end).presets[i];
        const auto& wish = list[i].wish[at(end)];
        const std::string answer = fmt::format("{}.preset.{}", build::key_of(end), i);
        std::string H = preset ? sure_length(preset->height, answer + ".height") : "–";
        if (preset && !preset->stands(list[i].use)) H += words(" outside");
        if (const auto odds = doubt_ ? doubt_->odds_of_preset(end, i) : std::nullopt; odds && in_doubt(*odds))
          H += fmt::format(", {} {}", words("stands in"), show(*odds, Kind::share, prefs_, 0));
        std::vector<std::string> row = {end == End::front ? list[i].name : "", build::name_of(end), H,
                                        wish ? build::show_wish(*wish, prefs_) : "–"};
        for (std::size_t c = 0; c < a_.loads.size(); ++c)
          row.push_back(pressures(preset, c, answer + ".pressure"));
        table.row(row);
      }
    out_ += table.text();
    out_ +=
        fmt::format("<p class='second'>{}</p>", words("Predicted gauge pressures, left / right where they differ."));
    if (doubt_)
      out_ += fmt::format("<p class='second'>{}</p>",
                          words("± is one standard deviation, by how sure the readings and cards are."));
  }

  void fitted() {
    Table table({words("end"), words("bag"), words("upper stack"), words("lower stack"), words("damper open"),
                 words("damper shut"), words("ride frequency at road height, tyre and all")});
    for (const End end : build::both_ends) {
      const build::EndFit& fit = build_.variant().fit[at(end)];
      const std::string key = build::key_of(end);
      const auto damper = [&](const std::optional<double>& own, const char* surveyed) {
        return own ? length(own, -2) + words(" fitted") : field(key + surveyed);
      };
      table.row({build::name_of(end), fit.bag.empty() ? words("none chosen") : fit.bag, length(fit.upper_stack, -2),
                 length(fit.lower_stack, -2), damper(fit.damper_open, ".damper_open_m"),
                 damper(fit.damper_shut, ".damper_shut_m"), frequencies(end)});
    }
    out_ += table.text();
    beside();
  }

  /// What stands beside the bags, where anything does.
  void beside() {
    Table table({words("end"), words("added volume"), words("line"), words("left and right")});
    bool any = false;
    for (const End end : build::both_ends) {
      const build::EndFit& fit = build_.variant().fit[at(end)];
      const bool tank = fit.added_volume > 0;
      any = any || tank || fit.sides == build::Sides::joined;
      const std::string line =
          fmt::format("{} bore, {} long, {}", length(fit.line_bore, prefs_.length == LengthUnit::mm ? 1 : -1),
                      length(fit.line_length), build::name_of(fit.line));
      table.row({build::name_of(end), tank ? show(fit.added_volume, Kind::volume, prefs_) : words("none"),
                 tank ? line : "–", build::name_of(fit.sides)});
    }
    if (any) out_ += table.text();
  }

  std::string frequencies(End end) const {
    const auto& list = build_.variant().brief.presets;
    std::string out;
    for (std::size_t i = 0; i < list.size(); ++i) {
      const auto& preset = a_.end(end).presets[i];
      if (list[i].use != build::PresetUse::road || !preset) continue;
      for (std::size_t c = 0; c < preset->cases.size(); ++c)
        if (preset->cases[c] && preset->cases[c]->ride_frequency)
          out += fmt::format("{}{} {}", out.empty() ? "" : ", ", a_.loads[c].name,
                             c == 0 ? sure(*preset->cases[c]->ride_frequency, Kind::frequency,
                                           fmt::format("{}.preset.{}.frequency", build::key_of(end), i))
                                    : show(*preset->cases[c]->ride_frequency, Kind::frequency, prefs_));
      break;
    }
    return out.empty() ? "–" : out;
  }

  /// Where a sheet or joints tell it: what the end does at each preset's height, and what runs out.
  void motion() {
    Table table({words("end"), words("preset"), words("height"), words("motion ratio"), words("camber"), words("toe"),
                 words("bag tilt"), words("bag offset"), words("pinion")});
    bool any = false;
    const auto& list = build_.variant().brief.presets;
    for (const End end : build::both_ends) {
      const EndAssessment& e = a_.end(end);
      if (e.spring_from == MapSource::single_reading) continue;
      for (std::size_t i = 0; i < list.size(); ++i) {
        if (!e.presets[i]) continue;
        any = true;
        const auto read = [&](const TrackRow& what, int decimals) -> std::string {
          const Track* track = e.find(what, 0);
          const auto value = track ? track->at(e.presets[i]->height) : std::nullopt;
          return value ? show(*value, what.kind, prefs_, decimals) : "–";
        };
        std::string ratio = read(tracks::motion_ratio, 3);
        if (e.find(tracks::motion_ratio_doubt, 0)) ratio += " ± " + read(tracks::motion_ratio_doubt, 3);
        table.row({build::name_of(end), list[i].name, length(e.presets[i]->height), ratio, read(tracks::camber, 1),
                   read(tracks::toe, 2), read(tracks::bag_tilt, 1), read(tracks::bag_offset, 0),
                   read(tracks::pinion, 1)});
      }
    }
    if (any) out_ += table.text();
    for (const End end : build::both_ends)
      for (const TravelEnd& r : a_.ends[at(end)]->fitted.model.travel_ends)
        out_ += fmt::format("<p>{} {} {}: {}{}</p>", build::name_of(end), r.below ? words("below") : words("above"),
                            length(r.height), limit_of(r.what).name, r.part ? fmt::format(", {}", r.part) : "");
  }

  /// Angles to set on the gauge, and the numbers that let the other side be built like the first.
  void brackets() {
    Table table({words("end"), words("upper bracket"), words("lower bracket"), words("sideways, upper / lower"),
                 words("straight at"), words("plate to plate")});
    bool any = false;
    const auto angle = [&](double v) { return show(v, Kind::angle, prefs_, 1); };
    for (const End end : build::both_ends) {
      const Mounting m = mounting_of(a_.ends[at(end)]);
      if (!m.alignment) continue;
      any = true;
      const Alignment& a = *m.alignment;
      table.row({build::name_of(end), angle(a.upper.across), angle(a.lower.across),
                 fmt::format("{} / {}", angle(a.upper.along), angle(a.lower.along)), length(a.straight_at),
                 length(m.between_plates)});
    }
    if (any) {
      out_ += table.text();
      out_ += fmt::format(
          "<p class='second'>{}</p>",
          words("By the gauge with the car as surveyed, outer and front edge up positive; mirrored on the other "
                "side, the port too."));
    }
    for (const End end : build::both_ends)
      for (const BenchSum& sum : bench_sums(a_.ends[at(end)], build_.variant().fit[at(end)].workshop))
        out_ += fmt::format("<p>{}: {}</p>", build::name_of(end), escaped(say(sum.said, prefs_)));
  }

  /// Each gap where it is least over the heights the car uses, and at the presets.
  void clearance() {
    std::vector<std::string> head = {words("end"), words("gap"), words("wanted"), words("least, at any lock"),
                                     words("at height")};
    const auto& list = build_.variant().brief.presets;
    for (const build::Preset& preset : list)
      head.push_back(preset.name);
    Table table(head);
    bool any = false;
    for (const End end : build::both_ends) {
      const EndAssessment& e = a_.end(end);
      for (const Recheck& row : rechecks(a_.ends[at(end)], {})) {
        any = true;
        std::vector<std::string> cells = {build::name_of(end), gap_name(row), length(row.near.room, 0),
                                          row.figure ? gap_text(*row.figure) : "–",
                                          row.figure ? length(row.height) : "–"};
        for (std::size_t i = 0; i < list.size(); ++i) {
          std::string cell = "–";
          for (const GapCurve& gap : e.gaps)
            if (gap.mover == row.mover && gap.near.own == row.near.own && gap.near.name == row.near.name &&
                gap.near.right == row.near.right && gap.near.obstacle == row.near.obstacle && e.presets[i])
              if (const auto g = gap.at(e.presets[i]->height, true)) cell = gap_text(*g);
          cells.push_back(cell);
        }
        table.row(cells);
      }
    }
    if (!any) return;
    out_ += table.text();
    out_ += fmt::format("<p class='second'>{}</p>",
                        words("The least of straight ahead and both locks. Check them on the car with the springs out, "
                              "wheels turned both ways."));
  }
  /// To a tenth of a millimetre: nobody tapes it better.
  std::string fine(double v) const { return length(v, prefs_.length == LengthUnit::mm ? 1 : -1); }
  std::string gap_text(double gap) const { return gap <= 0 ? words("touches") : fine(gap); }
  /// `tyre – liner behind`; a name that says it all already stays as it is.
  std::string gap_name(const Recheck& row) const {
    const std::string who = name_of(row.mover), what = say(row.near.told(), prefs_);
    return what.starts_with(who + " ") ? escaped(what) : fmt::format("{} – {}", who, escaped(what));
  }

  void ground() {
    const GroundGiven& given = a_.ground.given();
    Table table({words("preset"), words("over"), words("least gap"), words("kept"), words("nearest")});
    const auto& list = build_.variant().brief.presets;
    for (const Crossing& c : a_.ground->crossings)
      table.row(
          {list[c.preset].name, escaped(given.grounds[c.ground].name),
           c.gap ? ground_gap(c.gap->gap, fmt::format("ground.{}.preset.{}", c.ground, c.preset)) : words("too steep"),
           length(given.grounds[c.ground].margin, 0), escaped(c.point)});
    if (!a_.ground->crossings.empty()) out_ += table.text();
    Table angles({words("preset"), words("approach"), words("breakover"), words("departure")});
    bool any = false;
    const auto angle = [&](const std::optional<double>& v) { return v ? show(*v, Kind::angle, prefs_, 1) : "–"; };
    for (std::size_t i = 0; i < a_.ground->angles.size() && i < list.size(); ++i)
      if (const auto& a = a_.ground->angles[i]) {
        any = true;
        angles.row({list[i].name, angle(a->approach), angle(a->breakover), angle(a->departure)});
      }
    if (any) out_ += angles.text();
  }

  std::string ground_gap(double gap, const std::string& answer) const {
    const DoubtAnswer* a = doubt_of(doubt_, answer, gap);
    const double v = std::abs(gap);
    return (gap < 0 ? words("touches, ") : std::string()) +
           (a ? with_doubt(v, a->sd, Kind::length, prefs_) : length(v, 0));
  }

  /// After another wheel: what gets nearer to what, and what is to be looked at again on the car.
  void rechecked() {
    for (const End end : build::both_ends) {
      const build::EndFit& fit = build_.variant().fit[at(end)];
      const auto news = wheel_news(a_.ends[at(end)]);
      const auto rows = rechecks(a_.ends[at(end)], fit.checks);
      const bool ticked = !fit.checks.empty();
      if (!news && !ticked) continue;
      if (news)
        out_ += fmt::format("<p>{}: {} {} {}. {} {}, {} {}, {} {}.</p>", build::name_of(end), escaped(news->after),
                            words("in place of"), escaped(news->before), words("Inner face"),
                            moved(news->change.inner_face), words("outer face"), moved(news->change.outer_face),
                            words("radius"), moved(news->change.radius));
      Table table({words("end"), words("look at"), words("least now"), words("with the surveyed wheel"),
                   words("when last looked at"), words("seen")});
      for (const Recheck& row : rows)
        if (row.state != RecheckState::good)
          table.row({build::name_of(end), gap_name(row), row.figure ? gap_text(*row.figure) : "–",
                     row.before ? gap_text(*row.before) : "–", row.was ? gap_text(*row.was) : words("never"), "☐"});
      out_ += table.text();
    }
  }
  std::string moved(double by) const { return (by >= 0 ? "+" : "−") + fine(std::abs(by)); }

  static bool is_caution(const Finding& f) { return f.code.starts_with("caution_"); }

  void findings() {
    std::size_t shown = 0;
    for (const Finding& f : findings_) {
      if (is_caution(f) || f.severity == Severity::note) continue;
      ++shown;
      out_ +=
          fmt::format("<p><b>{}: {}</b>. {} {}</p>",
                      severity_key(f.severity) == std::string("stop") ? words("Stop") : words("Caution"),
                      escaped(say(f.title, prefs_)), escaped(say(f.reason, prefs_)), escaped(say(f.way_out, prefs_)));
    }
    if (shown == 0) out_ += fmt::format("<p>{}</p>", words("Nothing found."));
  }

  void cautions() {
    for (const Finding& f : findings_)
      if (is_caution(f))
        out_ += fmt::format("<p><b>{}</b>. {} {}</p>", escaped(say(f.title, prefs_)), escaped(say(f.reason, prefs_)),
                            escaped(say(f.way_out, prefs_)));
    out_ += fmt::format("<p>{}</p>",
                        words("Release pressure before opening a line. Bags do not raise a car's rated load. "
                              "Structural welding and steering parts by the qualified, checked against local law."));
  }

  void corners() {
    Table table({words("corner"), words("weight"), words("height"), words("floor"), words("height, floor taken out")});
    for (const End end : build::both_ends)
      for (const Side side : build::both_sides) {
        const std::string path = fmt::format("{}.{}.", build::key_of(end), build::key_of(side));
        table.row({fmt::format("{} {}", build::name_of(end), build::name_of(side)), field(path + "mass_kg"),
                   field(path + "height_m"), field(path + "floor_m"),
                   length(a_.end(end).side_height[at(side)], prefs_.length == LengthUnit::mm ? 1 : -1)});
      }
    out_ += table.text();
  }

  /// A reading, or the usual figure that stands in for it, marked as such.
  std::string reading(End end, const char* key) const {
    for (const Estimate& estimate : a_.end(end).estimated)
      if (std::string_view(estimate.field) == key)
        return fmt::format("≈ {} {}", show(estimate.usual.value, estimate.kind, prefs_),
                           estimate.from_now ? words("away, usual") : words("usual"));
    return field(fmt::format("{}.{}", build::key_of(end), key));
  }

  void ends() {
    Table table({"", words("Front"), words("Rear")});
    const auto line = [&](const char* what, const char* key) {
      table.row({what, reading(End::front, key), reading(End::rear, key)});
    };
    line(words("suspension"), "layout");
    line(words("spring"), "spring_place");
    line(words("unsprung mass a corner"), "unsprung_kg");
    line(words("tyre and wheel"), "wheel");
    line(words("axle rating"), "rating_kg");
    line(words("spring motion ratio"), "motion_ratio");
    line(words("damper motion ratio"), "damper_ratio");
    line(words("spring seat distance at survey"), "spring_length_m");
    line(words("damper length at survey"), "damper_length_m");
    line(words("damper open"), "damper_open_m");
    line(words("damper shut"), "damper_shut_m");
    line(words("bump stop gap at survey"), "bump_stop_gap_m");
    line(words("room for the bag"), "bag_room_m");
    out_ += table.text();
  }

  void loads() {
    Table table({words("load case"), words("masses"), words("front axle"), words("rear axle"), words("car")});
    for (std::size_t c = 0; c < a_.loads.size(); ++c) {
      const CaseLoad& load = a_.loads[c];
      std::string masses;
      if (c < build_.load_cases.size())
        for (const build::LoadMass& mass : build_.load_cases[c].masses)
          masses += fmt::format("{}{} {} at {}", masses.empty() ? "" : ", ", mass.name,
                                show(mass.mass, Kind::mass, prefs_), length(mass.x));
      const auto axle = [&](End end) { return load.ends[at(end)] ? mass(load.ends[at(end)]->axle_mass) : "–"; };
      if (masses.empty()) masses = words("as surveyed");
      if (load.standing_lean)
        masses += fmt::format(
            "; {}",
            say({words("joined sides leave it leaning {0}"), {Amount{*load.standing_lean, Kind::angle, 1}}}, prefs_));
      table.row({load.name, masses, axle(End::front), axle(End::rear), mass(load.total_mass)});
    }
    out_ += table.text();
  }

  const build::Build& build_;
  const Assessment& a_;
  const UnitPrefs& prefs_;
  const Doubt* doubt_; // may be null
  Findings findings_;  // weighed by it
  std::string out_;
};

} // namespace

SheetParts build_sheet(const build::Build& build, const Assessment& assessment, const UnitPrefs& prefs,
                       const Doubt* doubt) {
  return Sheet(build, assessment, prefs, doubt).parts();
}

} // namespace mavrel::report
