#include "air/cable.h"

#include <fmt/format.h>

#include <cmath>

namespace mavrel::air {

namespace {

constexpr Section section_table[] = {{0.5, 9}, {0.75, 12}, {1, 15},  {1.5, 18}, {2, 22},   {2.5, 26}, {3, 30},
                                     {4, 37},  {6, 48},    {10, 66}, {16, 88},  {25, 117}, {35, 144}, {50, 178}};
constexpr double fuse_table[] = {1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 40, 50, 60, 70, 80, 100, 125, 150, 175, 200};
constexpr double rounding = 1e-9; // of a figure: one on the edge is not beyond it

} // namespace

std::span<const Section> sections() {
  return section_table;
}

std::string gauge_for(double area) {
  for (int n = 18; n >= -1; n = n > 2 ? n - 2 : n == 2 ? 0 : n - 1) {
    if (0.012668 * std::pow(92.0, (36.0 - n) / 19.5) < area * (1 - rounding)) continue;
    return n > 0 ? fmt::format("{}", n) : fmt::format("{}/0", 1 - n);
  }
  return {};
}

Expected<double> fuse_for(double current) {
  for (const double fuse : fuse_table)
    if (fuse >= 1.25 * current * (1 - rounding)) return fuse;
  const double largest = std::end(fuse_table)[-1];
  return refuse(words("No standard fuse is large enough for {0}: the largest is {1}, good for {2}. Share the current "
                      "between two feeds."),
                {Amount{current, Kind::current, -2}, Amount{largest, Kind::current, 0},
                 Amount{largest / 1.25, Kind::current, 0}});
}

double voltage_drop(double current, double length, double area) {
  return 2 * length * current * copper_hot / area;
}

Expected<Cable> cable_for(double current, double length, double volts, double drop) {
  const auto fuse = fuse_for(current);
  if (!fuse) return refuse(fuse.error());
  for (const Section& section : section_table) {
    const double lost = voltage_drop(current, length, section.area);
    if (lost > drop * volts * (1 + rounding) || section.carries < *fuse) continue;
    return Cable{section.area, *fuse, lost, gauge_for(section.area)};
  }
  const Section& thickest = std::end(section_table)[-1];
  const Amount area{thickest.area * 1e-6, Kind::section, 0};
  if (thickest.carries < *fuse)
    return refuse(words("No standard section may carry a fuse of {0}: {1} may carry {2}."),
                  {Amount{*fuse, Kind::current, 0}, area, Amount{thickest.carries, Kind::current, 0}});
  return refuse(words("No standard section keeps the drop: {0} loses {1} over {2}. A shorter way or a larger drop is "
                      "right."),
                {area, Amount{voltage_drop(current, length, thickest.area), Kind::voltage, 2},
                 Amount{length, Kind::altitude, 1}});
}

} // namespace mavrel::air
