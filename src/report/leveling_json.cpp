#include "report/leveling_json.h"

#include "report/json_tree.h"

#include <fmt/format.h>

namespace mavrel::report {

namespace {

Json figures(const control::DriveFigures& f, bool loaded) {
  Json out = {{"mean_error_m", f.mean_error},
              {"in_band_share", f.in_band},
              {"bursts", f.bursts},
              {"valve_s", f.valve_s},
              {"air_kg", f.air},
              {"overshoot_m", f.overshoot},
              {"worst_low_m", f.worst_low},
              {"lean_m", f.lean}};
  if (loaded) out["recover_s"] = f.recover ? Json(*f.recover) : Json();
  return out;
}

} // namespace

std::string drive_json(const control::DriveResult& d, bool loaded) {
  Json together = figures(d.together, loaded);
  together["compressor_s"] = d.compressor_s;
  const Json out = {{"simulated_s", d.simulated},
                    {"wall_s", d.wall},
                    {"front", figures(d.ends[0], loaded)},
                    {"rear", figures(d.ends[1], loaded)},
                    {"together", together},
                    {"bottomed", d.bottomed},
                    {"topped_out", d.topped},
                    {"lowest_m", d.lowest},
                    {"highest_m", d.highest},
                    {"pressure_after_pa", d.pressure_after},
                    {"tank_after_pa", d.tank_after}};
  return printed(out);
}

std::string drive_csv(const control::DriveResult& d) {
  std::string out = "time_s,speed_m_per_s,tank_pa";
  for (const char* corner : {"fl", "fr", "rl", "rr"})
    out += fmt::format(",height_{0}_m,lowest_{0}_m,highest_{0}_m,valve_{0}", corner);
  out += '\n';
  for (std::size_t i = 0; i < d.looks.size(); ++i) {
    const control::DriveLook& look = d.looks[i];
    const double from = i == 0 ? 0 : static_cast<double>(d.looks[i - 1].time);
    out += fmt::format("{:.1f},{:.2f},{:.0f}", look.time, look.speed, look.tank);
    for (std::size_t c = 0; c < 4; ++c) {
      const char* valve = "";
      for (const control::Burst& b : d.bursts)
        if (b.from < look.time && b.until > from &&
            std::find(d.circuits[b.circuit].begin(), d.circuits[b.circuit].end(), c) != d.circuits[b.circuit].end())
          valve = b.valve == control::ValveOrder::fill ? "fill" : "vent";
      out += fmt::format(",{:.5f},{:.5f},{:.5f},{}", look.height[c], look.lowest[c], look.highest[c], valve);
    }
    out += '\n';
  }
  return out;
}

} // namespace mavrel::report
