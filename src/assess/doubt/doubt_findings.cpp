#include "assess/doubt/doubt_findings.h"

#include "assess/end/misfit.h"
#include "build/names.h"

#include <algorithm>
#include <cmath>

namespace mavrel::assess {

namespace {

constexpr FindingRow doubt_rows[] = {{"stands_in_doubt", &stages::bags},
                                     {"gap_in_doubt", &stages::clearance},
                                     {"ground_in_doubt", &stages::clearance},
                                     {"time_in_doubt", &stages::air}};

/// Weighs the findings of one build by one doubt.
class Weighing {
public:
  Weighing(const Findings& findings, const build::Build& build, const Doubt& doubt)
      : build_(build), doubt_(doubt), out_(findings) {}

  Findings all() {
    const auto& brief = build_.variant().brief;
    for (const End end : build::both_ends)
      for (std::size_t p = 0; p < brief.presets.size(); ++p)
        preset(end, p), gap(end, p);
    for (std::size_t g = 0; g < brief.grounds.size(); ++g)
      for (std::size_t p = 0; p < brief.presets.size(); ++p)
        ground(g, p);
    time("air.rise", words("The lift may take longer than the {0} that are wished for"), "rise_s");
    time("air.ready", words("The tank may take longer than {0} until it is full again"), "ready_s");
    sort_findings(out_);
    return std::move(out_);
  }

private:
  [[nodiscard]] std::string brief_path(const std::string& rest) const {
    return "variants." + std::to_string(build_.active_variant) + ".brief." + rest;
  }
  [[nodiscard]] std::string preset_path(std::size_t preset, End end) const {
    return brief_path("presets." + std::to_string(preset) + "." + build::key_of(end));
  }
  [[nodiscard]] const std::string& preset_name(std::size_t p) const { return build_.variant().brief.presets[p].name; }

  /// What to do where a figure is thinner than its doubt.
  [[nodiscard]] Message again(const DoubtAnswer& answer) const {
    if (answer.carried_by.empty())
      return {words("Take the readings again that carry it, or keep more in reserve."), {}};
    return {words("Take again: {0}; or keep more in reserve."), {doubt_.inputs[answer.carried_by.front().input].name}};
  }
  /// A stop that is only likely says how likely. What is as likely as not no stop is a caution until it is measured
  /// again.
  static void weigh(Finding& stop, double odds, const char* all_the_same) {
    if (odds <= out_odds) return;
    stop.reason = {words("{0} {1}"), {stop.reason, Message{all_the_same, {share(odds, 0)}}}};
    if (odds > 0.5) stop.severity = Severity::caution;
  }

  void preset(End end, std::size_t p) {
    const DoubtAnswer* answer =
        doubt_.find(std::string(build::key_of(end)) + ".preset." + std::to_string(p) + ".height");
    if (!answer || !answer->odds_inside) return;
    const double odds = *answer->odds_inside;
    const std::string place = preset_path(p, end);
    const auto stop = std::find_if(out_.begin(), out_.end(),
                                   [&](const Finding& f) { return f.code == "preset_outside" && f.place == place; });
    if (stop != out_.end())
      return weigh(*stop, odds, words("By how sure the readings are it stands anyway in {0} of cases."));
    if (odds >= safe_odds) return;
    add_finding(out_, row_in(doubt_rows, "stands_in_doubt"), Severity::caution, end, place,
                {words("{0} {1} stands in {2} of cases"), {build::name_of(end), preset_name(p), share(odds, 0)}},
                {words("Its room is thinner than the doubt of what was read."), {}},
                again(nearest_edge(end, p, *answer)));
  }

  /// What a preset's odds hang on: the edge of the window it needs that is nearest to it, by how far that may lie off.
  [[nodiscard]] const DoubtAnswer& nearest_edge(End end, std::size_t p, const DoubtAnswer& height) const {
    const std::string window = std::string(build::key_of(end)) +
                               (needs_road_window(build_.variant().brief.presets[p].use) ? ".road" : ".reach");
    const DoubtAnswer* best = nullptr;
    const auto away = [&](const DoubtAnswer& edge) {
      return std::abs(*edge.value - height.value.value_or(*edge.value)) / edge.sd;
    };
    for (const char* side : {".low", ".high"})
      if (const DoubtAnswer* edge = doubt_.find(window + side); edge && edge->value && edge->sd > 0)
        if (!best || away(*edge) < away(*best)) best = edge;
    return best ? *best : height;
  }

  void gap(End end, std::size_t p) {
    const DoubtAnswer* answer =
        doubt_.find(std::string(build::key_of(end)) + ".preset." + std::to_string(p) + ".clearance");
    if (!answer || !answer->value || *answer->value <= 0 || !answer->odds_met || *answer->odds_met >= safe_odds) return;
    // Where it is told already that it is little, it says how likely it is to be none.
    const auto near = std::find_if(out_.begin(), out_.end(), [&](const Finding& f) {
      return f.code == "too_near_at_preset" && f.end == end && f.number &&
             std::abs(f.number->value - *answer->value) < 1e-9;
    });
    if (near != out_.end()) {
      near->reason = {words("{0} By how sure the readings are they touch in {1} of cases."),
                      {near->reason, share(1 - *answer->odds_met, 0)}};
      return;
    }
    add_finding(out_, row_in(doubt_rows, "gap_in_doubt"), Severity::caution, end, preset_path(p, end),
                {words("{0} {1}: the least gap may be none"), {build::name_of(end), preset_name(p)}},
                {words("It is {0}, good to {1}: in {2} of cases it touches."),
                 {metres(*answer->value, 1), metres(answer->sd, 1), share(1 - *answer->odds_met, 0)}},
                again(*answer));
  }

  void ground(std::size_t g, std::size_t p) {
    const DoubtAnswer* answer = doubt_.find("ground." + std::to_string(g) + ".preset." + std::to_string(p));
    if (!answer || !answer->value || !answer->odds_met) return;
    const std::string place = brief_path("grounds." + std::to_string(g) + ".over");
    const auto meets = std::find_if(out_.begin(), out_.end(), [&](const Finding& f) {
      return f.code == "meets_ground" && f.place == place && f.number &&
             std::abs(f.number->value - *answer->value) < 1e-9;
    });
    if (meets != out_.end()) {
      if (meets->severity == Severity::stop)
        weigh(*meets, *answer->odds_met, words("By how sure the readings are it clears anyway in {0} of cases."));
      return;
    }
    if (*answer->value < 0 || *answer->odds_met >= safe_odds) return;
    add_finding(out_, row_in(doubt_rows, "ground_in_doubt"), Severity::caution, std::nullopt, place,
                {words("{0}: it may meet the {1}"), {preset_name(p), build_.variant().brief.grounds[g].name}},
                {words("There is {0} of room, good to {1}: in {2} of cases it touches."),
                 {metres(*answer->value), metres(answer->sd), share(1 - *answer->odds_met, 0)}},
                again(*answer));
  }

  /// A time that is within what is wished for, but not in all cars that it may be.
  void time(const char* name, const char* title, const char* field) {
    const DoubtAnswer* answer = doubt_.find(name);
    if (!answer || !answer->value || !answer->wanted_most || !answer->odds_met) return;
    if (*answer->value > *answer->wanted_most || *answer->odds_met >= safe_odds) return;
    const auto shown = [&](double s) { return Amount{s, s < 90 ? Kind::time : Kind::minutes, -1}; };
    add_finding(out_, row_in(doubt_rows, "time_in_doubt"), Severity::caution, std::nullopt,
                brief_path(std::string("air.") + field), {title, {shown(*answer->wanted_most)}},
                {words("It takes {0}, good to {1}: in {2} of cases it is quick enough."),
                 {shown(*answer->value), shown(answer->sd), share(*answer->odds_met, 0)}},
                again(*answer));
  }

  const build::Build& build_;
  const Doubt& doubt_;
  Findings out_;
};

} // namespace

Findings weighed(const Findings& findings, const build::Build& build, const Doubt& doubt) {
  return Weighing(findings, build, doubt).all();
}

} // namespace mavrel::assess
