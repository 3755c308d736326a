#include "assess/doubt/doubt_findings.h"

#include "build/names.h"

#include <algorithm>

namespace mavrel::assess {

namespace {

constexpr FindingRow doubt_rows[] = {{"stands_in_doubt", &stages::bags}};

std::string place_of_preset(const build::Build& build, std::size_t preset, End end) {
  return "variants." + std::to_string(build.active_variant) + ".brief.presets." + std::to_string(preset) + "." +
         build::key_of(end);
}

} // namespace

Findings weighed(const Findings& findings, const build::Build& build, const Doubt& doubt) {
  Findings out = findings;
  const auto& presets = build.variant().brief.presets;
  for (const End end : build::both_ends)
    for (std::size_t p = 0; p < presets.size(); ++p) {
      const std::string name = std::string(build::key_of(end)) + ".preset." + std::to_string(p) + ".height";
      const DoubtAnswer* answer = doubt.find(name);
      if (!answer || !answer->odds_inside) continue;
      const double odds = *answer->odds_inside;
      const std::string place = place_of_preset(build, p, end);
      const auto stop = std::find_if(out.begin(), out.end(),
                                     [&](const Finding& f) { return f.code == "preset_outside" && f.place == place; });
      if (stop != out.end()) {
        if (odds <= out_odds) continue;
        stop->reason = {words("{0} By how sure the readings are it stands all the same in {1} of cases."),
                        {stop->reason, share(odds, 0)}};
        // What is as likely to stand as not stops nobody before it is measured again.
        if (odds > 0.5) stop->severity = Severity::caution;
        continue;
      }
      if (odds >= safe_odds) continue;
      add_finding(out, row_in(doubt_rows, "stands_in_doubt"), Severity::caution, end, place,
                  {words("{0} {1} stands in {2} of cases"), {build::name_of(end), presets[p].name, share(odds, 0)}},
                  {words("Its room is thinner than the doubt of what was read."), {}},
                  answer->carried_by.empty()
                      ? Message{words("Take the readings again that carry it, or keep more in reserve."), {}}
                      : Message{words("Take again: {0}; or keep more in reserve."),
                                {doubt.inputs[answer->carried_by.front().input].name}});
    }
  sort_findings(out);
  return out;
}

} // namespace mavrel::assess
